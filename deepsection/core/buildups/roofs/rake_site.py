"""What rakes and verges are built around: boards, the wall below, the rafters beside it, in one plane."""

from __future__ import annotations

from dataclasses import dataclass

import shapely

from ...geometry import Point
from ...junctions import Junction, Run
from ...model import Framing
from ...resolve import Building, ResolvedRoof, RoofPlane
from ...trades.makeups.model import Tradition
from ...trades.roofs.rafters import SOFFIT, SOFFIT_UP, rafter_places
from ..faces import WallFaces, wall_faces
from ..lie import Lie
from .slopes import SlopeLayers, edge_of, lie_along, rise_of, roof_of, slope_layers

INSIDE = 30.0
"""The slope is asked for so far within its edge (mm)."""
ALIKE = 1e-3
"""Slopes whose rise differs by no more than this are of one pitch."""
CROSSED = 5
"""What carries a rake lies over no more rafters than this."""
BOXED = 60.0
"""An overhang that is no wider than this (mm) has no box: its barge lies on the wall. Common practice, no source."""


@dataclass(frozen=True, slots=True)
class RakeSite:
    """Distances outward from the bearing line (u), heights over the top of the structure beside it, plumb (mm).

    `reach`: to the outer face of the barge, which is `board` thick and `fascia` deep; `rafters`: from-to of the one
    over the wall and of the next ones within; `depth`: of them, plumb; `pitch`: how the edge rises.
    """

    tradition: Tradition
    pitch: float
    reach: float
    board: float
    fascia: float
    is_boxed: bool
    wall: WallFaces | None
    layers: SlopeLayers
    depth: float
    rafters: tuple[tuple[float, float], ...]

    @property
    def slope(self) -> float:
        """Length along the slope for each mm in plan."""
        return self.layers.slope

    @property
    def face(self) -> float:
        """To the outer face of the wall, or of the outermost rafter where none stands there."""
        if self.wall is None:
            return self.rafters[0][1] if self.rafters else self.reach - self.board
        return self.wall.outer

    @property
    def overhang(self) -> float:
        """From the wall to the inner face of the barge."""
        return self.reach - self.board - self.face

    @property
    def has_box(self) -> bool:
        """Whether there is room between wall and barge for what carries the barge."""
        return self.overhang > BOXED

    @property
    def soffit(self) -> float:
        """Height of the underside of the soffit, or of where the barge ends."""
        return -(self.fascia - SOFFIT_UP) if self.is_boxed else -self.fascia

    @property
    def soffit_top(self) -> float:
        """Height of the upper face of the soffit, or of where the barge ends."""
        return self.soffit + SOFFIT if self.is_boxed else -self.fascia

    @property
    def out(self) -> float:
        """How far what carries the barge stands out from the rafter over the wall."""
        return self.reach - self.board - self.rafters[0][1]

    @property
    def carrier(self) -> tuple[float, float]:
        """The rafter to which lookouts reach back: twice as far as they stand out, where there is one."""
        first = self.rafters[0]
        back = (held for held in self.rafters[1:] if first[1] - held[1] >= 2 * self.out - 1.0)
        return next(back, self.rafters[-1])

    @property
    def is_tiled(self) -> bool:
        """Whether what covers it are tiles on battens."""
        return self.layers.material == "tile"


def rake_site(building: Building, junction: Junction) -> RakeSite | None:
    """What a rake is built around; None where no slope comes to it, or slopes of two pitches do."""
    roof = roof_of(building, junction.ends[0].element)
    edge = edge_of(roof, junction.ends[0].sub) if roof is not None else None
    if roof is None or edge is None or not junction.runs:
        return None
    run, line = junction.runs[0], roof.side(edge)[0]
    pitch = abs(rise_of(run))
    plane = _slope_beside(roof, edge, run, line)
    if plane is None or any(abs(abs(rise_of(held)) - pitch) > ALIKE for held in junction.runs):
        return None
    wall = next((building.plan.by_id[id] for id in junction.elements if id in building.plan.by_id), None)
    if wall is not None and (wall.axis.is_arc or not wall.is_plumb):
        return None
    make_up = building.placed.make_ups[roof.block.make_up]
    framing = next((layer.framing for layer in make_up.layers if layer.framing), None)
    return RakeSite(
        tradition=building.placed.project.tradition,
        pitch=pitch,
        reach=roof.reaches[edge],
        board=roof.block.fascia_thickness,
        fascia=roof.block.fascia_depth,
        is_boxed=roof.block.tails == "boxed",
        wall=wall_faces(building, wall, _aside(run, wall.start, line)) if wall is not None else None,
        layers=slope_layers(building, roof, pitch),
        depth=plane.plumb_depth,
        rafters=_rafters(roof, plane, framing, run, line) if framing else (),
    )


def _aside(run: Run, start: Point, end: Point) -> float:
    """How far outward of a run a place lies from another one."""
    return (end[0] - start[0]) * run.out[0] + (end[1] - start[1]) * run.out[1]


def _slope_beside(roof: ResolvedRoof, edge: int, run: Run, line: Point) -> RoofPlane | None:
    """The slope that comes to a rake at the middle of a run along it."""
    (x0, y0, _), (x1, y1, _) = run.start, run.end
    at = _aside(run, (x0, y0), line) + max(roof.reaches[edge], 0.0) - INSIDE
    spot = shapely.Point((x0 + x1) / 2 + run.out[0] * at, (y0 + y1) / 2 + run.out[1] * at)
    return next((held for held in roof.planes if held.polygon.covers(spot)), None)


def _rafters(
    roof: ResolvedRoof, plane: RoofPlane, framing: Framing, run: Run, line: Point
) -> tuple[tuple[float, float], ...]:
    """From-to of the outermost rafters of a slope, outward of the bearing line, from the outside in."""
    found = []
    for near in rafter_places(roof, plane, framing.thickness, framing.spacing):
        ends = sorted(_aside(run, line, plane.line.at(at)) for at in (near, near + framing.thickness))
        found.append((ends[0], ends[1]))
    return tuple(sorted(found, reverse=True)[:CROSSED])


def rake_lies(building: Building, junction: Junction) -> list[Lie]:
    """Up or down each slope, on the bearing line."""
    roof = roof_of(building, junction.ends[0].element)
    edge = edge_of(roof, junction.ends[0].sub) if roof is not None else None
    if roof is None or edge is None:
        return []
    return [lie_along(run, roof.side(edge)[0]) for run in junction.runs]
