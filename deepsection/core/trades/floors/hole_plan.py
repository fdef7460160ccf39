"""Drawn holes in floors: their edge and diagonals in plan, and what is wrong with them."""

from __future__ import annotations

from collections.abc import Iterator

from shapely.geometry import Polygon

from ...building.diagnostics import Diagnostic
from ...building.kind import PlanOf
from ...building.placed import Placed
from ...drawing import Handle, Mark, Stroke, path
from .holes import SMALLEST_HOLE
from .place import FLOORS


def hole_marks(shown: PlanOf) -> Iterator[Mark]:
    """The holes of the floor that the storey stands on."""
    floors = {floor.id for floor in shown.project.floors if floor.level == shown.level}
    for hole in shown.project.floor_holes:
        if hole.floor not in floors:
            continue
        corners = [shown.frame.plan_to_turned(x, y) for x, y in hole.corners]
        key, handle = f"{hole.id}/hole//", Handle("move_hole", hole.id, "corners", "free")
        yield Stroke(path(*corners), "edge", closed=True, part=key, feature="hole", handle=handle)
        if len(corners) == 4:
            for a, b in ((0, 2), (1, 3)):
                yield Stroke(path(corners[a], corners[b]), "fine", part=key, feature="hole", handle=handle)


def hole_checks(placed: Placed) -> Iterator[Diagnostic]:
    """Holes that lie outside of their floor, or partly."""
    plans = {flat.floor.id: flat for flat in placed[FLOORS]}
    for hole in placed.project.floor_holes:
        shape, flat = Polygon(hole.corners), plans.get(hole.floor)
        if flat is None:
            continue
        off = shape.difference(flat.area)
        if off.area > SMALLEST_HOLE:
            at = (shape.centroid.x, shape.centroid.y)
            message = f"{hole.name} lies partly outside of {flat.floor.name}: move it in"
            yield Diagnostic("hole-off-floor", message, hole.id, "corners", off.area, SMALLEST_HOLE, at=at)
