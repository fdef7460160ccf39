"""What joists bear on between the ends of their bay: inner walls that bear, and beams, dropped or flush."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Literal

import shapely
from shapely.geometry import LineString, MultiPolygon, Polygon

from ...geometry import Point
from ...model import MakeUp, bearing_layer
from ..levels.placed import Level
from ..posts.placed import PlacedBeam
from ..walls.planned import PlannedWall, WallPlan
from .model import Lap

MEETS = 3.0
"""A beam carries joists where its top is as near as this (mm) to what it carries."""
NEAR = 60.0
"""A beam whose top is as near as this (mm) was meant to carry them."""
ALONG = math.sin(math.radians(15.0))
"""What runs within 15 degrees along joists carries none of them. Common practice, no source."""

BEARING = 38.1
"""Joists lie on wood or metal for at least this (mm). Source: IRC R502.6, 1 1/2 in, from memory."""

Bears = Literal["wall", "dropped", "flush"]


@dataclass(frozen=True, slots=True)
class Support:
    """A wall or beam under joists, or between them: its middle in plan, and how wide it is (mm).

    Joists run over a wall or a dropped beam, and hang on both sides of a flush one.
    """

    name: str
    sort: Bears
    line: tuple[Point, ...]
    width: float
    area: Polygon | MultiPolygon

    @property
    def flush(self) -> bool:
        """Whether joists end at it."""
        return self.sort == "flush"

    def crosses(self, direction: Point) -> bool:
        """Whether it runs across joists of a direction, not along them."""
        (x0, y0), (x1, y1) = self.line[0], self.line[-1]
        length = math.dist((x0, y0), (x1, y1)) or 1.0
        return abs((x1 - x0) * direction[1] - (y1 - y0) * direction[0]) / length > ALONG


def bearing_walls(
    plan: WallPlan, make_ups: dict[str, MakeUp], level: str, status: Literal["inner", "outer"] = "inner"
) -> Iterator[Support]:
    """The walls of a status that reach up to a level and bear; under a floor outer ones end at their plate."""
    ends = ("level",) if status == "inner" else ("level", "roof")
    for wall in plan.walls:
        top = wall.wall.top
        if wall.wall.status == status and wall.wall.bears and top.kind in ends and top.level == level:
            if top.offset or top.end_rise or top.steps or not wall.is_plumb:
                continue
            layer = wall.layers[bearing_layer(make_ups[wall.wall.make_up])]
            yield Support(
                wall.wall.id,
                "wall",
                middle_of(wall, layer.outer, layer.inner),
                layer.outer - layer.inner,
                layer.polygon,
            )


def middle_of(wall: PlannedWall, outer: float, inner: float) -> tuple[Point, ...]:
    """Points along the middle between two faces of a wall; an arc in chords."""
    count = CHORDS if wall.axis.is_arc else 1
    return tuple(wall.at(wall.length * k / count, (outer + inner) / 2) for k in range(count + 1))


CHORDS = 32


def bearing_beams(beams: Iterable[PlacedBeam], bearing: Level, depth: float) -> Iterator[Support]:
    """The beams whose tops are where joists of a depth bear, or where these end above."""
    for placed in beams:
        off = placed.top.total - bearing.z
        sort: Bears | None = "dropped" if abs(off) < MEETS else "flush" if abs(off - depth) < MEETS else None
        if sort:
            yield Support(placed.beam.id, sort, (placed.start, placed.end), placed.beam.width, placed.outline)


def nearly_bearing(beams: Iterable[PlacedBeam], bearing: Level, depth: float) -> Iterator[tuple[PlacedBeam, float]]:
    """(beam, how far its top is too high) of those that just fail to carry joists."""
    for placed in beams:
        for off in (placed.top.total - bearing.z, placed.top.total - bearing.z - depth):
            if MEETS <= abs(off) < NEAR:
                yield placed, off


@dataclass(frozen=True, slots=True)
class Run:
    """A joist from bearing to bearing along its line: its number there, how many it laps before it, from where to where
    it runs (mm along the joists), and whether each end laps over a bearing."""

    number: int
    laps: int
    start: float
    end: float


def runs_between(low: float, high: float, crossed: Iterable[tuple[float, Support]], lap: Lap) -> tuple[Run, ...]:
    """How a line of joists from one end to another is divided by what it crosses, each at a place along it."""
    found: list[Run] = []
    start, number, laps = low, 0, 0
    for at, support in _apart(crossed):
        if support.flush:
            end, after, lapped = at - support.width / 2, at + support.width / 2, 0
        elif lap == "through":
            continue
        else:
            past = max(support.width / 2, LAP / 2) if lap == "lapped" else 0.0
            end, after, lapped = at + past, at - past, int(lap == "lapped")
        if end - start < SHORTEST or high - after < SHORTEST:
            continue
        found.append(Run(number, laps, start, end))
        start, number, laps = after, number + 1, laps + lapped
    found.append(Run(number, laps, start, high))
    return tuple(found)


def _apart(crossed: Iterable[tuple[float, Support]]) -> list[tuple[float, Support]]:
    """What is crossed, in order; of supports in one place, such as a beam that ends on a wall, the wall."""
    found: list[tuple[float, Support]] = []
    for at, support in sorted(crossed, key=lambda held: (held[0], held[1].name)):
        if not found or at - found[-1][0] >= SHORTEST:
            found.append((at, support))
        elif (found[-1][1].sort != "wall", found[-1][1].name) > (support.sort != "wall", support.name):
            found[-1] = (at, support)
    return found


LAP = 76.2
"""Joists lap over a bearing by this much (mm). Source: IRC R502.6.1, 3 in, from memory."""
SHORTEST = 150.0
"""Nothing shorter than this (mm) is cut off a joist, and supports as near as this to each other are one."""


def supports_in(supports: Iterable[Support], region: Polygon, direction: Point) -> tuple[Support, ...]:
    """Those that run across the joists of a bay, for more than a little within it."""
    own = (
        held
        for held in supports
        if held.crosses(direction) and LineString(held.line).intersection(region).length > LEAST_WITHIN
    )
    return tuple(reaching(held, region) for held in own)


LEAST_WITHIN = 300.0
"""What runs less than this (mm) within a bay ends at its edge."""


def reaching(support: Support, region: Polygon) -> Support:
    """A support whose ends go on to the edge of a bay that they nearly reach: into the walls around it."""
    line = list(support.line)
    for end, before in ((0, 1), (-1, -2)):
        (x, y), (ox, oy) = line[end], line[before]
        length = math.dist((x, y), (ox, oy)) or 1.0
        far = x + (x - ox) / length * INTO_WALL, y + (y - oy) / length * INTO_WALL
        if not region.contains(shapely.Point(far)):
            line[end] = far
    return replace(support, line=tuple(line))


INTO_WALL = 300.0
"""A bearing wall or beam that ends as near as this (mm) to the edge of a floor goes on into the wall there."""


def crossings(support: Support, across: Point, at: float) -> tuple[float, ...]:
    """Where the middle of a support crosses the line of a joist: distances along the joists.

    `across` is the unit vector across the joists, `at` the distance of the line along it.
    """
    ax, ay = across
    found = []
    for (x0, y0), (x1, y1) in pairwise(support.line):
        d0, d1 = x0 * ax + y0 * ay - at, x1 * ax + y1 * ay - at
        if d0 == d1:
            continue
        t, past = d0 / (d0 - d1), TOUCH / abs(d0 - d1)
        if -past <= t <= 1.0 + past:
            x, y = x0 + (x1 - x0) * t, y0 + (y1 - y0) * t
            found.append(-x * ay + y * ax)
    return tuple(found)


TOUCH = 20.0
"""A joist lies on a support whose middle line ends as near as this (mm) to its own."""


def clear_spans(pieces: list[LineString], bearing: shapely.Geometry) -> list[float]:
    """The longest stretch (mm) of each joist, by its middle line, that nothing bears."""
    free = shapely.difference(pieces, bearing) if pieces else []
    return [max((part.length for part in getattr(held, "geoms", [held])), default=0.0) for held in free]
