"""Stairs in place."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.placed import Key
from ...memo import hashed_once
from ...tolerance import TOL
from ...units import HeightSum
from .layout import StairLayout
from .model import Stair
from .rules import Stepping


@hashed_once
@dataclass(frozen=True)
class PlacedStair:
    """A stair between its two levels, with the hole that its headroom needs in the floor above.

    `rise` is the total rise with its terms. `under`: the underside of the upper floor; none where there is no floor.
    """

    stair: Stair
    rule_name: str
    base: float
    """mm above the datum of the level at its foot."""
    rise: HeightSum
    stepping: Stepping
    layout: StairLayout
    under: float | None
    hole: Polygon | None

    @property
    def head(self) -> float:
        """mm above the datum of the level at its head."""
        return self.base + self.rise.total

    @property
    def throat(self) -> float:
        """What is left of a cut string below its notches, square to its length (mm); may be negative."""
        rise, going = self.stepping.riser, self.stepping.going
        return self.stair.depth - rise * going / math.hypot(rise, going)

    @cached_property
    def area(self) -> Polygon | MultiPolygon:
        """What it covers in plan."""
        return covered(self.layout)


def covered(layout: StairLayout) -> Polygon | MultiPolygon:
    """What the steps of a stair cover in plan."""
    return shapely.union_all([step.area for step in layout.steps], grid_size=TOL.grid)


STAIRS: Key[tuple[PlacedStair, ...]] = Key("stairs")
