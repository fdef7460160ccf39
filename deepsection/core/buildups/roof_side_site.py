"""What the side of a roof at a wall is built around: the faces of the wall, and the slope beside it, plumb."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..junctions import Junction, Run
from ..resolve import Building, PlannedWall, ResolvedRoof
from ..trades.makeups.model import Tradition
from ..trades.roofs.placed import ROOFS
from .faces import WallFaces, wall_faces
from .lie import Lie

FACES = 0.99
"""A wall faces the roof beside it where its outside turns there (cosine)."""


@dataclass(frozen=True, slots=True)
class RoofSideSite:
    """Outward of the set-out line of the wall lies the roof (mm); heights over the structure of the roof, plumb: of its
    `deck`, of the `underlay` on that, of the top of its `covering`."""

    tradition: Tradition
    wall: WallFaces
    deck: float
    underlay: float
    covering: float


def roof_side_site(building: Building, junction: Junction) -> RoofSideSite | None:
    """What is built around at the side of a roof; None where no wall turns its outside to it."""
    found = _meeting(building, junction)
    if found is None:
        return None
    roof, wall = found
    run = junction.runs[0]
    slope = math.hypot(1.0, _rise(run))
    make_up = building.placed.make_ups[roof.block.make_up]
    thick = dict.fromkeys(("sheathing", "membrane"), 0.0)
    total = 0.0
    for layer in make_up.layers:
        if layer.function != "structure":
            total += layer.thickness * slope
            thick[layer.function] = thick.get(layer.function, 0.0) + layer.thickness * slope
    deck = thick["sheathing"]
    wall_at = wall_faces(building, wall)
    return RoofSideSite(building.placed.project.tradition, wall_at, deck, deck + thick["membrane"], total)


def roof_side_lies(building: Building, junction: Junction) -> list[Lie]:
    """Up or down each slope, on the set-out line of the wall."""
    found = _meeting(building, junction)
    return [_lie(found[1], run) for run in junction.runs] if found else []


def _meeting(building: Building, junction: Junction) -> tuple[ResolvedRoof, PlannedWall] | None:
    roof = next((held for held in building[ROOFS] if held.block.id == junction.ends[0].element), None)
    wall = next((building.plan.by_id[id] for id in junction.elements if id in building.plan.by_id), None)
    if roof is None or wall is None or wall.axis.is_arc or not wall.is_plumb:
        return None
    (ox, oy), (wx, wy) = junction.runs[0].out, wall.stand().out
    return (roof, wall) if ox * wx + oy * wy > FACES else None


def _rise(run: Run) -> float:
    """How much a run rises for each mm in plan, from its start on."""
    (x0, y0, z0), (x1, y1, z1) = run.start, run.end
    return (z1 - z0) / math.dist((x0, y0), (x1, y1))


def _lie(wall: PlannedWall, run: Run) -> Lie:
    (ox, oy), dx, dy = run.out, run.out[1], -run.out[0]
    ends = sorted((run.start, run.end), key=lambda end: end[0] * dx + end[1] * dy)
    (x0, y0, z0), (x1, y1, z1) = ends
    length = math.dist((x0, y0), (x1, y1))
    off = (x0 - wall.start[0]) * ox + (y0 - wall.start[1]) * oy
    return Lie((x0 - ox * off, y0 - oy * off), run.out, length, dz=z0, rise=(z1 - z0) / length)
