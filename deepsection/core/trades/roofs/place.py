"""Roofs over the walls that carry them: what lies below each edge, and what each runs into."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import lru_cache

import shapely

from ...building.diagnostics import Diagnostic
from ...geometry import Point, line_through
from ...model import SLOPING, MakeUp, OverhangFrom, Project, RoofBlock, RoofEdge, bearing_layer, corner_point
from ...units import format_length
from ..levels.placed import Level
from ..makeups.model import Tradition
from ..walls.planned import PlannedWall, WallPlan
from ..walls.tops import ON_EDGE
from .blocks import resolve_roof
from .joins import carried, join_roofs
from .placed import ResolvedRoof


def place_roofs(
    project: Project, plan: WallPlan, levels: dict[str, Level], make_ups: dict[str, MakeUp], found: list[Diagnostic]
) -> tuple[ResolvedRoof, ...]:
    """Roofs in place. Heel and span are measured at bearing lines, which may lie inside of the set-out lines."""

    def placed(block: RoofBlock, onward: tuple[float, ...]) -> tuple[ResolvedRoof | None, tuple[Diagnostic, ...]]:
        rings = tuple(tuple(corner_point(project, corner) for corner in ring) for ring in block.rings)
        beside = [wall for ring in rings for wall in _edge_walls(ring, block.plate, plan)]
        held = [_edge_faces(wall, make_ups) for wall in beside]
        outer = tuple(edge.outer - edge.bearing for edge in held)
        skins = tuple(
            face if edge.kind == "abutment" else faces.measured(block.overhang_from)
            for edge, faces, face in zip(block.edges, held, outer)
        )
        if not any(wall for wall, edge in zip(beside, block.edges) if edge.kind in SLOPING):
            usual = _usual_faces(block.plate, plan, make_ups).measured(block.overhang_from)
            skins = tuple(usual if edge.kind in SLOPING else skin for edge, skin in zip(block.edges, skins))
        ends = [side for ring in rings for side in zip(ring, (*ring[1:], ring[0]))]
        # Of a wall that turns its outside to the roof what bears lies beyond the line on which it is set out.
        bearing = tuple(
            -faces.bearing if wall and _leans(edge, wall, *side) else faces.bearing
            for edge, wall, faces, side in zip(block.edges, beside, held, ends)
        )
        make_up, plate = make_ups[block.make_up], levels[block.plate]
        return resolve_roof(block, rings, bearing, make_up, plate, skins, outer, project.units, onward)

    alone = []
    for block in project.roofs:
        roof, faults = placed(block, (0.0,) * len(block.edges))
        found += faults
        if roof:
            alone.append(roof)
            found += _deep_notch(roof, make_ups[block.make_up], project)
            found += _unwalled(roof, plan)
    roofs = []
    for roof in alone:
        if not any(edge.kind == "joined" for edge in roof.block.edges):
            roofs.append(roof)
            continue
        onward, hosts, faults = carried(roof, tuple(alone))
        found += faults
        longer, _ = placed(roof.block, onward)
        roofs.append(replace(longer or roof, dying=hosts))
    joined, faults = join_roofs(tuple(roofs))
    found += faults
    return joined


def _leans(edge: RoofEdge, wall: PlannedWall, start: Point, end: Point) -> bool:
    """Whether an edge lies against the outside of a wall."""
    (ox, oy), (dx, dy) = wall.stand().out, (end[0] - start[0], end[1] - start[1])
    return edge.kind == "abutment" and ox * dy - oy * dx < 0


NOTCH: dict[Tradition, tuple[float, str]] = {
    "timber": (1 / 4, "a quarter (IRC R802.7.1, notches at the ends of rafters)"),
    "masonry": (1 / 3, "a third (common practice)"),
}
"""The share of a rafter that its birdsmouth may take, square to it. Sources as named, the IRC from memory."""


def _deep_notch(roof: ResolvedRoof, make_up: MakeUp, project: Project) -> Iterator[Diagnostic]:
    """A birdsmouth that takes more of its rafter than the rule of the tradition allows."""
    structure = next((layer for layer in make_up.layers if layer.function == "structure"), None)
    if structure is None or not roof.planes:
        return
    share, rule = NOTCH[project.tradition]
    steepest = max(roof.planes, key=lambda plane: plane.seat * plane.pitch / math.hypot(1.0, plane.pitch))
    slope = math.hypot(1.0, steepest.pitch)
    notch, most = steepest.seat * steepest.pitch / slope, structure.thickness * share
    if notch <= most + 0.5:
        return
    units = project.units
    message = (
        f"the birdsmouth of {roof.block.name} is {format_length(notch, units)} deep, more than {rule} of its rafters: "
        f"make its seat {format_length(most * slope / steepest.pitch, units)} or less, or its rafters deeper"
    )
    yield Diagnostic(
        "birdsmouth-deep", message, roof.block.id, "seat", steepest.seat, most * slope / steepest.pitch,
        at=roof.side(steepest.edge)[0],
    )  # fmt: skip


def _unwalled(roof: ResolvedRoof, plan: WallPlan) -> Iterator[Diagnostic]:
    """Edges that are said to lie against a wall where there is none."""
    for k, edge in enumerate(roof.block.edges):
        if edge.kind != "abutment":
            continue
        (x0, y0), (x1, y1) = roof.side(k)
        spot = shapely.Point((x0 + x1) / 2, (y0 + y1) / 2)
        if all(wall.footprint.distance(spot) > AT_WALL for wall in plan.walls):
            message = f"no wall stands along this edge of {roof.block.name} to lie against; make it a gable or an eave"
            at = (spot.x, spot.y)
            yield Diagnostic("abutment-without-wall", message, roof.block.id, f"kind_{roof.edge_id(k)}", at=at)


AT_WALL = 300.0
"""An edge lies against a wall when its middle is this close to it (mm)."""


@lru_cache(maxsize=512)
def _edge_walls(corners: tuple[Point, ...], plate: str, plan: WallPlan) -> tuple[PlannedWall | None, ...]:
    """Per edge of an outline, the wall whose line lies along most of it; one that reaches up to its plate first."""
    walls: list[PlannedWall | None] = []
    ranked = sorted(
        (wall for wall in plan.walls if not wall.axis.is_arc), key=lambda wall: wall.wall.top.level == plate
    )
    for start, end in zip(corners, (*corners[1:], corners[0])):
        if math.dist(start, end) < ON_EDGE:
            walls.append(None)
            continue
        edge, length = line_through(start, end), math.dist(start, end)
        best = None
        for wall in ranked:
            first, last = sorted((edge.along(wall.start), edge.along(wall.end)))
            shared = min(last, length) - max(first, 0.0)
            near = max(abs(edge.left_of(wall.start)), abs(edge.left_of(wall.end))) < ON_EDGE
            if near and shared > min(length, wall.length) * 0.6:
                best = wall
        walls.append(best)
    return tuple(walls)


@dataclass(frozen=True, slots=True)
class _EdgeFaces:
    """Of the wall under a roof edge, outward from its set-out line: bearing line, sheathing, outer face."""

    bearing: float = 0.0
    sheathing: float = 0.0
    outer: float = 0.0

    def measured(self, face: OverhangFrom) -> float:
        """From the bearing line to what overhangs are measured from."""
        return {"bearing": self.bearing, "sheathing": self.sheathing, "face": self.outer}[face] - self.bearing


def _usual_faces(plate: str, plan: WallPlan, make_ups: dict[str, MakeUp]) -> _EdgeFaces:
    """Of the outer walls that reach up to a plate, or else of any, those whose skin is thickest.

    Eaves over no wall, as of a porch on posts, line up with those of the house when they go as far past it.
    """
    outer = [wall for wall in plan.walls if wall.wall.status == "outer"]
    walls = [wall for wall in outer if wall.wall.top.level == plate] or outer
    faces = (_edge_faces(wall, make_ups) for wall in walls)
    return max(faces, key=lambda held: held.sheathing - held.bearing, default=_EdgeFaces())


def _edge_faces(wall: PlannedWall | None, make_ups: dict[str, MakeUp]) -> _EdgeFaces:
    if wall is None:
        return _EdgeFaces()
    make_up = make_ups[wall.wall.make_up]
    layers = zip(make_up.layers, wall.layers)
    sheathing = max((p.outer for layer, p in layers if layer.function in ("sheathing", "structure")), default=0.0)
    return _EdgeFaces(wall.layers[bearing_layer(make_up)].outer, sheathing, wall.outer)
