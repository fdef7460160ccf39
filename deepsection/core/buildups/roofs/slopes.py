"""The layers of a roof over its structure, as heights: every thickness plumb."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ...resolve import Building, ResolvedRoof
from ...trades.roofs.placed import ROOFS


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
