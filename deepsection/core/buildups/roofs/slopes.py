"""The layers of a roof over its structure, as heights: every thickness plumb."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ...geometry import Point
from ...junctions import Run
from ...resolve import Building, ResolvedRoof
from ...trades.roofs.placed import ROOFS
from ..lie import Lie, Trim


@dataclass(frozen=True, slots=True)
class SlopeLayers:
    """Heights over the structure (mm), plumb: of the top of the `deck`, of the `underlay` on that, of the `covering`;
    of what that is made; how thick it is, plumb too; length along the slope for each mm in plan."""

    deck: float
    underlay: float
    covering: float
    material: str
    thick: float
    slope: float


def slope_layers(building: Building, roof: ResolvedRoof, pitch: float) -> SlopeLayers:
    """The layers of a roof over a slope of a pitch."""
    slope = math.hypot(1.0, pitch)
    layers = building.placed.make_ups[roof.block.make_up].layers
    thick = dict.fromkeys(("sheathing", "membrane"), 0.0)
    total = 0.0
    for layer in layers:
        if layer.function != "structure":
            total += layer.thickness * slope
            thick[layer.function] = thick.get(layer.function, 0.0) + layer.thickness * slope
    deck, underlay = thick["sheathing"], thick["sheathing"] + thick["membrane"]
    return SlopeLayers(deck, underlay, total, layers[0].material, total - underlay, slope)


def roof_of(building: Building, id: str) -> ResolvedRoof | None:
    """A roof by its id."""
    return next((held for held in building[ROOFS] if held.block.id == id), None)


def edge_of(roof: ResolvedRoof, sub: str) -> int | None:
    """The place of an edge of a roof, by its id."""
    return next((k for k in range(len(roof.block.edges)) if roof.edge_id(k) == sub), None)


def lie_along(run: Run, through: Point | None = None, trims: tuple[Trim, ...] = ()) -> Lie:
    """Along a run, up or down it: its u is 0 on that, or on the line beside it through a place."""
    (ox, oy), dx, dy = run.out, run.out[1], -run.out[0]
    (x0, y0, z0), (x1, y1, z1) = sorted((run.start, run.end), key=lambda end: end[0] * dx + end[1] * dy)
    x, y = through or (x0, y0)
    off, length = (x - x0) * ox + (y - y0) * oy, math.dist((x0, y0), (x1, y1))
    return Lie((x0 + ox * off, y0 + oy * off), run.out, length, trims, trims, dz=z0, rise=(z1 - z0) / length)


def rise_of(run: Run) -> float:
    """How much a run rises for each mm in plan, from its start on."""
    (x0, y0, z0), (x1, y1, z1) = run.start, run.end
    return (z1 - z0) / math.dist((x0, y0), (x1, y1))
