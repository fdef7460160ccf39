"""What rakes and verges are built around: boards, the wall below, the rafters beside it, in one plane."""

from __future__ import annotations

import math
from dataclasses import dataclass

import shapely

from ...junctions import Junction, Run
from ...resolve import Building, ResolvedRoof
from ...trades.makeups.model import Tradition
from ...trades.roofs.rafters import SOFFIT, SOFFIT_UP, rafter_places
from ..faces import WallFaces, wall_faces
from ..lie import Lie
from .slopes import SlopeLayers, edge_of, roof_of, slope_layers

INSIDE = 30.0
"""The slope is asked for so far within its edge (mm)."""
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
    """What a rake is built around; None where no slope comes to it."""
    roof = roof_of(building, junction.ends[0].element)
    edge = edge_of(roof, junction.ends[0].sub) if roof is not None else None
    if roof is None or edge is None or not junction.runs:
        return None
    run = junction.runs[0]
    (x0, y0, z0), (x1, y1, z1) = run.start, run.end
    pitch = abs(z1 - z0) / math.dist((x0, y0), (x1, y1))
    if any(abs(abs(held.end[2] - held.start[2]) / math.dist(held.start[:2], held.end[:2]) - pitch) > 1e-3
           for held in junction.runs):  # fmt: skip
        return None
    off = max(roof.reaches[edge], 0.0) - INSIDE
    ox, oy = run.out
    lx, ly = roof.side(edge)[0]
    at = (lx - x0) * ox + (ly - y0) * oy + off
    spot = shapely.Point((x0 + x1) / 2 + ox * at, (y0 + y1) / 2 + oy * at)
    plane = next((held for held in roof.planes if held.polygon.covers(spot)), None)
    if plane is None:
        return None
    wall = next((building.plan.by_id[id] for id in junction.elements if id in building.plan.by_id), None)
    faces = None
    if wall is not None:
        if wall.axis.is_arc or not wall.is_plumb:
            return None
        faces = wall_faces(building, wall, (lx - wall.start[0]) * ox + (ly - wall.start[1]) * oy)
    framing = next(
        (layer.framing for layer in building.placed.make_ups[roof.block.make_up].layers if layer.framing), None
    )
    rafters = []
    for near in rafter_places(roof, plane, framing.thickness, framing.spacing) if framing else ():
        ends = [plane.line.at(held) for held in (near, near + framing.thickness if framing else near)]
        low, high = sorted((x - lx) * ox + (y - ly) * oy for x, y in ends)
        rafters.append((low, high))
    return RakeSite(
        tradition=building.placed.project.tradition,
        pitch=pitch,
        reach=roof.reaches[edge],
        board=roof.block.fascia_thickness,
        fascia=roof.block.fascia_depth,
        is_boxed=roof.block.tails == "boxed",
        wall=faces,
        layers=slope_layers(building, roof, pitch),
        depth=plane.plumb_depth,
        rafters=tuple(sorted(rafters, reverse=True)[:CROSSED]),
    )


def rake_lies(building: Building, junction: Junction) -> list[Lie]:
    """Up or down each slope, on the bearing line."""
    roof = roof_of(building, junction.ends[0].element)
    edge = edge_of(roof, junction.ends[0].sub) if roof is not None else None
    return [_lie(roof, edge, run) for run in junction.runs] if roof is not None and edge is not None else []


def _lie(roof: ResolvedRoof, edge: int, run: Run) -> Lie:
    (ox, oy), dx, dy = run.out, run.out[1], -run.out[0]
    (x0, y0, z0), (x1, y1, z1) = sorted((run.start, run.end), key=lambda end: end[0] * dx + end[1] * dy)
    lx, ly = roof.side(edge)[0]
    off = (lx - x0) * ox + (ly - y0) * oy
    length = math.dist((x0, y0), (x1, y1))
    return Lie((x0 + ox * off, y0 + oy * off), run.out, length, dz=z0, rise=(z1 - z0) / length)
