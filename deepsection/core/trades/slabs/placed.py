"""Porch slabs in place."""

from __future__ import annotations

import math
from dataclasses import dataclass

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.placed import Key
from ...geometry import Plane3
from ...units import HeightSum
from .model import PorchSlab


@dataclass(frozen=True, slots=True)
class PlacedSlab:
    """A slab beside the house: its area in plan, its free edge, its top as a plane, and the height of its high side."""

    slab: PorchSlab
    area: Polygon | MultiPolygon
    edge: Polygon | MultiPolygon
    top: Plane3
    high: HeightSum

    @property
    def low(self) -> float:
        """mm above the datum of the lowest place of its top."""
        return min(self.top.z(x, y) for x, y in shapely.get_coordinates(self.area).tolist())


def towards(slab: PorchSlab) -> tuple[float, float]:
    """Unit vector down the fall of a slab."""
    angle = math.radians(slab.fall_to)
    return math.cos(angle), math.sin(angle)


SLABS: Key[tuple[PlacedSlab, ...]] = Key("porch slabs")
