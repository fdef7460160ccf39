"""Walls in plan: cut, with the foot of one that leans, mouldings, and the outside of those below."""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache

import shapely
from shapely.geometry import Polygon
from shapely.ops import unary_union

from ...building.kind import PlanOf
from ...drawing import Handle, Mark, Region, Stroke, every_ring, path
from ...drawing.detail import shown_from
from ...geometry import Frame, polygons_of
from ..levels.place import storey_below
from ..makeups.model import MakeUp
from ..openings.placed import OPENINGS, PlacedOpening
from ..openings.plan import plan_hole
from .mouldings import MOULDINGS, moulding_plan
from .planned import WALLS, PlannedWall

WORTH_SEEING = 30.0
"""A piece of a wall below shorter than this (mm) is not drawn."""
MEMBRANE = 2.0
"""Layers thinner than this (mm) are not drawn in plan."""
VALLEY_CLEAR = 1.0
"""Lines of walls below this near to walls of the storey (mm) are theirs."""
LEAST = 5.0
"""A piece of an outline shorter than this (mm) is not drawn."""


def wall_plan_marks(shown: PlanOf) -> Iterator[Mark]:
    """The walls of the storey, over what is seen of those below."""
    yield from _below_marks(shown)
    walls, placed = shown.placed[WALLS].on(shown.level), shown.placed
    for wall in walls:
        yield from _shape_marks(wall, shown)
    for wall in walls:
        own, make_up = placed[OPENINGS][wall.wall.id], placed.make_ups[wall.wall.make_up]
        yield from _cut_marks(risen(wall, shown), own, make_up, shown.cut, shown.frame, shown.scale)


def risen(wall: PlannedWall, shown: PlanOf) -> PlannedWall:
    """A wall of the storey as the plan cuts it."""
    return wall.at_rise(shown.cut - shown.base - wall.wall.base.offset)


def _shape_marks(wall: PlannedWall, shown: PlanOf) -> Iterator[Mark]:
    """What a wall that is not plain shows besides its cut: below it in thin lines, above it dashed."""
    if not wall.is_plumb:
        yield from _outline(wall, wall.footprint, "fine", "foot", shown.frame)
    for moulding, lines in zip(wall.wall.mouldings, shown.placed[MOULDINGS].lines_of(wall.wall)):
        top = shown.placed.totals[f"moulding:{wall.wall.id}:{moulding.id}"]
        depth = max(spot.up for spot in moulding.section) - min(spot.up for spot in moulding.section)
        pen = "hidden" if top - depth > shown.cut else "fine"
        for area in moulding_plan(wall, moulding, lines):
            yield from _outline(wall, area, pen, "moulding", shown.frame)


def _outline(wall: PlannedWall, area: shapely.Geometry, pen: str, feature: str, frame: Frame) -> Iterator[Mark]:
    for line in shapely.get_parts(frame.turn(shapely.line_merge(area.boundary))):
        closed = bool(line.is_ring)
        if line.length > LEAST:
            points = list(line.coords)[: -1 if closed else None]
            yield Stroke(path(*points), pen, closed=closed, part=f"{wall.wall.id}/{feature}//", feature=feature)


@lru_cache(maxsize=1024)
def _cut_marks(
    wall: PlannedWall, openings: tuple[PlacedOpening, ...], make_up: MakeUp, cut: float, frame: Frame, scale: float
) -> tuple[Mark, ...]:
    """The cut wall: structure filled, the layers around it as lines where the scale allows."""
    holes = [plan_hole(wall, placed) for placed in openings if placed.sill.total < cut < placed.head.total]
    gone = unary_union(holes) if holes else None
    handle = Handle("move_wall", wall.wall.id, "line", "across")
    marks: list[Mark] = []
    layers = [pair for pair in zip(make_up.layers, wall.layers) if pair[0].thickness > MEMBRANE]
    if not shown_from("layers", scale):
        groups = [(_without(wall.footprint, gone), "poche", "cut", "structure")]
    else:
        groups = [
            (
                _without(planned.polygon, gone),
                "poche" if layer.function == "structure" else "paper",
                "cut_layer" if layer.function == "structure" else "fine",
                layer.id,
            )
            for layer, planned in layers
        ]
        groups.sort(key=lambda group: group[1] == "poche")
    circles = _face_circles(wall, frame)
    for shape, fill, pen, layer_id in groups:
        key = f"{wall.wall.id}/wall/{layer_id}/"
        for rings in every_ring(frame.turn(shape), circles):
            marks.append(Region(rings, fill=fill, pen=pen, part=key, feature="cut", handle=handle))
    return tuple(marks)


def _without(shape: shapely.Geometry, gone: shapely.Geometry | None) -> shapely.Geometry:
    return shape if gone is None else shape.difference(gone)


def _face_circles(wall: PlannedWall, frame: Frame) -> list[tuple[float, float, float]]:
    """The faces of an arc in the turned plan, as circles (u, w, radius)."""
    if wall.axis.centre is None:
        return []
    u, w = frame.plan_to_turned(*wall.axis.centre)
    faces = {face for layer in wall.layers for face in (layer.outer, layer.inner)}
    return [(u, w, wall.axis.radius(wall.side * face)) for face in sorted(faces)]


def _below_marks(shown: PlanOf) -> Iterator[Mark]:
    """The outside of the walls below, dashed, where those of this storey do not stand on them."""
    plan, below = shown.placed[WALLS], storey_below(shown.project, shown.level)
    if below is None:
        return
    own = shapely.union_all([wall.footprint for wall in plan.on(shown.level)])
    outer = [wall.footprint for wall in plan.on(below) if wall.wall.status == "outer"]
    if not outer:
        return
    house = shapely.union_all([Polygon(piece.exterior) for piece in polygons_of(unary_union(outer))])
    seen = shapely.line_merge(house.boundary.difference(own.buffer(VALLEY_CLEAR)))
    for line in shapely.get_parts(shown.frame.turn(seen)):
        closed = bool(line.is_ring)
        points = list(line.coords)[: -1 if closed else None]
        if line.length > WORTH_SEEING:
            yield Stroke(path(*points), "hidden", closed=closed, feature="below")
