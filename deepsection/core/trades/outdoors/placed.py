"""Steps and rails in place."""

from __future__ import annotations

import math
from dataclasses import dataclass

from shapely.geometry import Polygon

from ...building.placed import Key
from ...geometry import Point
from ...model import OutsideSteps, Rail
from ...units import HeightSum


@dataclass(frozen=True, slots=True)
class PlacedSteps:
    """Steps in place: their top, the ground at their foot, and how many risers lie between."""

    steps: OutsideSteps
    top: HeightSum
    foot: float
    risers: int
    rail_height: float
    """Of their rails over the nosings (mm)."""
    rail_gap: float
    """Between balusters at most (mm)."""

    @property
    def rise(self) -> float:
        """Of each riser (mm)."""
        return (self.top.total - self.foot) / self.risers

    @property
    def is_ramp(self) -> bool:
        """Whether it falls without steps."""
        return self.steps.form == "ramp"

    @property
    def is_open(self) -> bool:
        """Whether it is built of treads on strings."""
        return self.steps.build == "strings" and not self.is_ramp

    @property
    def falls(self) -> float:
        """How much it falls per unit of its run."""
        return self.steps.slope if self.is_ramp else self.rise / self.steps.going

    @property
    def run(self) -> float:
        """How far they reach from their upper edge (mm)."""
        if self.is_ramp:
            return self.steps.landing + max(0.0, self.top.total - self.foot) / self.steps.slope
        return self.steps.landing + (self.risers - 1) * self.steps.going

    @property
    def way(self) -> Point:
        """Unit vector of the way down."""
        turn = math.radians(self.steps.turn)
        return math.cos(turn), math.sin(turn)

    @property
    def outline(self) -> Polygon:
        """What they cover in plan."""
        half = self.steps.width / 2
        return Polygon([self.at(0.0, -half), self.at(self.run, -half), self.at(self.run, half), self.at(0.0, half)])

    def at(self, down: float, aside: float) -> Point:
        """The place so far down from the middle of the upper edge, and to the left of the way down."""
        dx, dy = self.way
        return self.steps.x + dx * down - dy * aside, self.steps.y + dy * down + dx * aside


@dataclass(frozen=True, slots=True)
class PlacedRail:
    """A rail in place, with the height that it stands on."""

    rail: Rail
    foot: HeightSum


STEPS: Key[tuple[PlacedSteps, ...]] = Key("steps")


RAILS: Key[tuple[PlacedRail, ...]] = Key("rails")
