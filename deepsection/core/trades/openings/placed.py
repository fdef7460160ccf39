"""Openings in their walls."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ...building.placed import Key
from ...memo import hashed_once
from ...units import HeightSum
from ..walls.planned import PlannedWall
from .model import Design, Opening


@hashed_once
@dataclass(frozen=True)
class PlacedOpening:
    """An opening with its extent along the wall from the start, and its heights with their sums."""

    opening: Opening
    design: Design
    number: str
    left: float
    right: float
    sill: HeightSum
    head: HeightSum
    face: float
    """Outward distance of the outside of the unit's frame."""
    deep: float = 0.0
    """How deep its frame is at least (mm): as its wall, in inner walls."""

    @property
    def centre(self) -> float:
        """Distance along the wall of its middle."""
        return (self.left + self.right) / 2

    def back(self, wall: PlannedWall) -> float:
        """How far outward it goes: the back of a niche; without end for what goes through its wall."""
        return wall.inner + self.design.depth if self.opening.unit == "niche" else math.inf


OPENINGS: Key[dict[str, tuple[PlacedOpening, ...]]] = Key("openings")


"""Per wall, its openings."""
