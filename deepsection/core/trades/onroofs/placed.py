"""What goes through roofs and hangs on them, in place."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from shapely.geometry import Polygon

from ...building.placed import Key
from ...geometry import Point
from ...model import Chimney, Downpipe, RoofFitting
from ...units import HeightSum
from ..roofs.placed import ResolvedRoof, RoofPlane
from ..roofs.slopes import place

KEPT_OFF = 2 * 25.4
"""Framing stays this far from a chimney (mm): IRC R1003.18, from memory."""


@dataclass(frozen=True, slots=True)
class Cricket:
    """The small roof behind a chimney: its plan, where its ridge starts and ends, and the height of that ridge."""

    outline: Polygon
    start: Point
    end: Point
    foot: float
    ridge: float
    base: tuple[Point, Point]


@dataclass(frozen=True, slots=True)
class PlacedChimney:
    """A chimney in plan with its foot, its top and its cricket; `plane` is the slope over its middle, of a make-up."""

    chimney: Chimney
    outline: Polygon
    flue: Polygon
    foot: HeightSum
    top: HeightSum
    plane: RoofPlane | None = None
    make_up: str | None = None
    cricket: Cricket | None = None


@dataclass(frozen=True, slots=True)
class PlacedFitting:
    """A roof window, pipe or vent on its slope; `outline` in plan at the covering, (along, inward) of its middle."""

    fitting: RoofFitting
    plane: RoofPlane
    outline: Polygon
    along: float
    inward: float
    top: HeightSum


@dataclass(frozen=True, slots=True)
class PlacedDownpipe:
    """A downpipe: the slope it drains, its distance along the bearing line of the edge, and the heights it joins."""

    pipe: Downpipe
    roof: ResolvedRoof
    plane: RoofPlane
    edge: int
    along: float
    foot: float

    def at(self, outward: float) -> Point:
        """The place so far outward of the bearing line."""
        return place(self.plane, self.along, -outward)


@dataclass(frozen=True, slots=True)
class OnRoofs:
    """Everything that goes through roofs or hangs on them."""

    chimneys: tuple[PlacedChimney, ...] = ()
    fittings: tuple[PlacedFitting, ...] = ()
    downpipes: tuple[PlacedDownpipe, ...] = ()

    @property
    def sums(self) -> Iterator[HeightSum]:
        """Their heights."""
        yield from (height for held in self.chimneys for height in (held.foot, held.top))
        yield from (held.top for held in self.fittings)


ROOF_FITTINGS: Key[OnRoofs] = Key("on roofs")
