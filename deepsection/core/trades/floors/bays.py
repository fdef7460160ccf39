"""Bays of joists in plan: their regions, rims, boards and directions."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...geometry import Plane3, Point, polygons_of
from ...tolerance import TOL
from ..ceilings.model import Ceiling
from .model import AXES, Joisted, Lap
from .supports import Support


@dataclass(frozen=True, slots=True)
class Trim:
    """The top of a roof's structure, where it comes down to a ceiling."""

    top: Plane3
    area: Polygon | MultiPolygon


@dataclass(frozen=True, slots=True)
class Bay:
    """Where joists lie in plan: the area up to the outside of the frames, the direction in which they run.

    `slot` begins the names of their parts; `roof` ends them where they run under one.
    """

    slot: str
    region: Polygon
    direction: Point
    roof: tuple[Trim, ...] = ()
    holes: tuple[tuple[str, Polygon], ...] = ()
    """What is left open, each by the id of what needs it."""
    supports: tuple[Support, ...] = ()
    """What joists bear on between the ends."""
    along: tuple[tuple[str, float], ...] = ()
    """The walls on it that run along the joists, each with the place of its middle across them (mm)."""
    lap: Lap = "lapped"
    shift: float = 0.0
    """How far from its side the layout of joists begins (mm)."""
    hung: MultiPolygon | None = None
    """Along the edges where joists hang on members of the floor around it."""
    borne: Polygon | MultiPolygon | None = None
    """Where joists bear at the ends of the bay; none where all of them do."""

    @property
    def framed(self) -> Polygon | MultiPolygon:
        """The region without the flush beams in it: where joists and what fills the space between them may lie."""
        flush = [held.area for held in self.supports if held.flush]
        return without(self.region, flush) if flush else self.region

    @property
    def covered(self) -> Polygon | MultiPolygon:
        """The region without its holes."""
        if not self.holes:
            return self.region
        return shapely.difference(self.region, shapely.union_all([hole for _, hole in self.holes]))


RimRole = Literal["rim_joist", "ledger", "framed_edge"]


@dataclass(frozen=True, slots=True)
class Rim:
    """A rim joist in plan, a ledger, or a framed edge: the wall or edge that it follows, its direction, its area."""

    wall: str
    run: Point
    area: MultiPolygon
    role: RimRole = "rim_joist"


@dataclass(frozen=True, slots=True)
class Boards:
    """An area that boards cover, and the slot that names it."""

    slot: str
    area: MultiPolygon


def without(area: shapely.Geometry, others: Iterable[shapely.Geometry]) -> MultiPolygon:
    """What is left of an area."""
    return MultiPolygon(
        list(polygons_of(shapely.difference(area, shapely.union_all(list(others)), grid_size=TOL.node)))
    )


def covered(bays: Iterable[Bay]) -> tuple[Boards, ...]:
    """All of some bays but their holes."""
    return tuple(Boards(bay.slot, MultiPolygon(list(polygons_of(bay.covered)))) for bay in bays)


def direction_of(held: Joisted | Ceiling, outline: Polygon, start: Point) -> Point:
    """Unit vector along the joists of a floor, deck or ceiling over an outline."""
    if held.span in AXES or held.span == "angle":
        angle = math.radians(AXES.get(held.span, held.angle))
        return (math.cos(angle), math.sin(angle)) if angle % (math.pi / 2) else _square(angle)
    short = short_direction(outline, start)
    return (short[1], -short[0]) if held.span == "long" else short


def _square(angle: float) -> Point:
    return round(math.cos(angle)) + 0.0, round(math.sin(angle)) + 0.0


def short_direction(outline: Polygon, start: Point) -> Point:
    """Unit vector along the short side of the smallest rectangle around an outline.

    It points so that joists are laid out from the side that is nearer to a point, however the house is turned.
    """
    corners = list(shapely.oriented_envelope(outline).exterior.coords)
    sides = [(math.dist(a, b), a, b) for a, b in itertools.pairwise(corners)]
    length, a, b = min(sides[:2], key=lambda side: round(side[0], 2))
    dx, dy = (b[0] - a[0]) / length, (b[1] - a[1]) / length
    middle = Polygon(corners).centroid
    away = (start[0] - middle.x) * dy - (start[1] - middle.y) * dx
    return (dx, dy) if away <= 0 else (-dx, -dy)
