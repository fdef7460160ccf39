"""Six invented houses: walls by their axes, openings on them, rooms. Millimetres, outer walls counter-clockwise."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray
from shapely import LineString, Point, Polygon, affinity, unary_union
from shapely.geometry.base import BaseGeometry

Spot = tuple[float, float]
FINE_DEG = 0.25
"""Arcs are faceted this finely where areas are worked out."""


@dataclass(frozen=True)
class TrueWall:
    """A wall by its axis; `bulge` is tan(angle / 4), positive turning left; `layers` from its left inward."""

    start: Spot
    end: Spot
    thickness: float
    bulge: float = 0.0
    layers: tuple[float, ...] = ()

    @property
    def circle(self) -> tuple[Spot, float]:
        """Centre and radius of an arc."""
        (x0, y0), (x1, y1), b = self.start, self.end, self.bulge
        offset = (1 / b - b) / 4
        centre = ((x0 + x1) / 2 - (y1 - y0) * offset, (y0 + y1) / 2 + (x1 - x0) * offset)
        return centre, math.dist(centre, self.start)

    @property
    def length(self) -> float:
        chord = math.dist(self.start, self.end)
        return chord if not self.bulge else self.circle[1] * 4 * abs(math.atan(self.bulge))

    def at(self, along: float) -> Spot:
        """The place on the axis."""
        share = along / self.length
        if not self.bulge:
            return tuple(a + (b - a) * share for a, b in zip(self.start, self.end))  # type: ignore[return-value]
        (cx, cy), radius = self.circle
        turn = math.atan2(self.start[1] - cy, self.start[0] - cx) + 4 * math.atan(self.bulge) * share
        return cx + radius * math.cos(turn), cy + radius * math.sin(turn)

    def direction(self, along: float) -> float:
        """Radians of the axis there."""
        if not self.bulge:
            return math.atan2(self.end[1] - self.start[1], self.end[0] - self.start[0])
        (cx, cy), _ = self.circle
        x, y = self.at(along)
        return math.atan2(y - cy, x - cx) + math.copysign(math.pi / 2, self.bulge)

    def axis(self) -> list[Spot]:
        if not self.bulge:
            return [self.start, self.end]
        steps = max(2, math.ceil(math.degrees(4 * abs(math.atan(self.bulge))) / FINE_DEG))
        return [self.at(self.length * k / steps) for k in range(steps + 1)]


@dataclass(frozen=True)
class TrueOpening:
    """An opening on a wall: distance from the start of its axis to its middle."""

    wall: int
    distance: float
    width: float
    kind: str
    number: str = ""


@dataclass(frozen=True)
class TrueHouse:
    """All of it; `rooms` are names at places."""

    name: str
    walls: tuple[TrueWall, ...]
    openings: tuple[TrueOpening, ...]
    rooms: tuple[tuple[str, Spot], ...]
    layered: tuple[float, ...] = field(default=())

    def turned(self, degrees: float, shift: Spot = (0.0, 0.0)) -> TrueHouse:
        turn = math.radians(degrees)
        cos, sin = math.cos(turn), math.sin(turn)

        def move(spot: Spot) -> Spot:
            return spot[0] * cos - spot[1] * sin + shift[0], spot[0] * sin + spot[1] * cos + shift[1]

        walls = tuple(replace(wall, start=move(wall.start), end=move(wall.end)) for wall in self.walls)
        return replace(self, walls=walls, rooms=tuple((name, move(at)) for name, at in self.rooms))

    def body(self, *, opened: bool) -> BaseGeometry:
        """The area that the walls cover, with or without their openings."""
        pieces = [
            LineString(wall.axis()).buffer(wall.thickness / 2, cap_style="flat", join_style="mitre")
            for wall in self.walls
        ]
        for i, one in enumerate(self.walls):
            for other in self.walls[i + 1 :]:
                pieces += self._corner(one, other)
        solid = (
            unary_union([piece.buffer(0) for piece in pieces])
            .buffer(0.01, join_style="mitre")
            .buffer(-0.01, join_style="mitre")
        )
        return solid.difference(unary_union([self.hole(held) for held in self.openings])) if opened else solid

    @staticmethod
    def _corner(one: TrueWall, other: TrueWall) -> list[BaseGeometry]:
        for a in (one.axis(), one.axis()[::-1]):
            for b in (other.axis(), other.axis()[::-1]):
                if math.dist(a[-1], b[0]) < 1e-6:
                    thick, thin = sorted((one.thickness, other.thickness))[::-1]
                    if thick == thin:
                        line = LineString([a[-2], a[-1], b[1]])
                        return [line.buffer(thick / 2, cap_style="flat", join_style="mitre", mitre_limit=9)]
                    out = [_on(a[-1], a[-2], other.thickness / 2), _on(b[0], b[1], one.thickness / 2)]
                    return [
                        LineString([a[-2], out[0]]).buffer(one.thickness / 2, cap_style="flat"),
                        LineString([b[1], out[1]]).buffer(other.thickness / 2, cap_style="flat"),
                    ]
        return []

    def hole(self, opening: TrueOpening) -> Polygon:
        """The plan of an opening, a little deeper than its wall."""
        wall = self.walls[opening.wall]
        low, high = opening.distance - opening.width / 2, opening.distance + opening.width / 2
        deep = wall.thickness * 0.6 + 5
        if not wall.bulge:
            line = LineString([wall.at(low), wall.at(high)])
            return line.buffer(deep, cap_style="flat")
        centre, radius = wall.circle
        fine = [low + (high - low) * k / 200 for k in range(201)]
        rim = [wall.at(value) for value in fine]

        def out(by: float) -> list[Spot]:
            return [tuple(c + (p - c) * (radius + by) / radius for c, p in zip(centre, spot)) for spot in rim]  # type: ignore[misc]

        return Polygon(out(deep) + out(-deep)[::-1])

    def circles(self) -> list[tuple[Spot, float]]:
        """Circles on which edges of the body may lie: the faces of bowed walls."""
        found = []
        for wall in self.walls:
            if wall.bulge:
                centre, radius = wall.circle
                found += [(centre, radius + wall.thickness / 2), (centre, radius - wall.thickness / 2)]
        return found


def _on(spot: Spot, before: Spot, by: float) -> Spot:
    length = math.dist(spot, before)
    return tuple(a + (a - b) / length * by for a, b in zip(spot, before))  # type: ignore[return-value]


def ring(
    corners: Sequence[Spot], thickness: float, bulges: dict[int, float] | None = None, layers: tuple[float, ...] = ()
) -> list[TrueWall]:
    """Outer walls around corners of their axes."""
    pairs = zip(corners, [*corners[1:], corners[0]])
    return [TrueWall(a, b, thickness, (bulges or {}).get(k, 0.0), layers) for k, (a, b) in enumerate(pairs)]


def inner(thickness: float, *lines: tuple[float, float, float, float]) -> list[TrueWall]:
    return [TrueWall((x0, y0), (x1, y1), thickness) for x0, y0, x1, y1 in lines]


def _openings(*given: tuple[int, float, float, str]) -> tuple[TrueOpening, ...]:
    letters = {"window": "W", "door": "D", "opening": "O"}
    return tuple(TrueOpening(w, d, b, k, f"{letters[k]}{n}") for n, (w, d, b, k) in enumerate(given, 1))


def houses() -> list[TrueHouse]:
    """The six: a cottage, an L of stud walls, one with a bow, a cavity house, a skew one, a row of rooms in inches."""
    cottage = TrueHouse(
        "cottage",
        (
            *ring([(0, 0), (9000, 0), (9000, 7000), (0, 7000)], 300),
            *inner(120, (5000, 0, 5000, 7000), (5000, 3600, 9000, 3600), (0, 4200, 5000, 4200)),
        ),
        _openings(
            (0, 2200, 1800, "window"),
            (0, 7000, 1500, "window"),
            (1, 1800, 1200, "window"),
            (1, 5300, 900, "window"),
            (2, 6500, 1010, "door"),
            (2, 2000, 1500, "window"),
            (3, 1500, 1200, "window"),
            (3, 5000, 1200, "window"),
            (4, 2600, 885, "door"),
            (4, 5200, 885, "door"),
            (6, 3400, 885, "door"),
        ),
        (("Kitchen", (2500, 2000)), ("Living", (2500, 5600)), ("Bath", (7000, 1800)), ("Bedroom", (7000, 5300))),
    )
    ell = TrueHouse(
        "ell",
        (
            *ring([(0, 0), (14000, 0), (14000, 8000), (8500, 8000), (8500, 12000), (0, 12000)], 190),
            *inner(
                115,
                (4200, 0, 4200, 12000),
                (4200, 5000, 14000, 5000),
                (9500, 0, 9500, 5000),
                (0, 7000, 4200, 7000),
                (8500, 8000, 8500, 5000),
            ),
            *inner(90, (0, 4000, 4200, 4000), (6800, 0, 6800, 5000)),
        ),
        _openings(
            (0, 2000, 1500, "window"),
            (0, 8200, 1800, "window"),
            (0, 12000, 1800, "window"),
            (1, 2500, 1200, "window"),
            (2, 2500, 2400, "window"),
            (3, 2000, 915, "door"),
            (4, 2200, 1500, "window"),
            (4, 6400, 1500, "window"),
            (5, 2500, 1200, "window"),
            (5, 6500, 600, "window"),
            (6, 5600, 815, "door"),
            (6, 9000, 815, "door"),
            (6, 2500, 815, "door"),
            (7, 1300, 1600, "opening"),
            (7, 7500, 815, "door"),
            (10, 1400, 815, "door"),
            (11, 2800, 760, "door"),
            (8, 2500, 760, "door"),
        ),
        (
            ("Kitchen", (2000, 2000)),
            ("Hall", (6000, 7000)),
            ("Study", (11500, 2500)),
            ("Store", (2000, 5500)),
            ("Living", (2000, 9500)),
            ("Dining", (11500, 6500)),
        ),
    )
    bow = TrueHouse(
        "bow",
        (
            *ring([(0, 0), (3500, 0), (7500, 0), (11000, 0), (11000, 9000), (0, 9000)], 365, {1: 0.45}),
            *inner(175, (0, 4500, 11000, 4500)),
            *inner(115, (5500, 4500, 5500, 9000), (8000, 4500, 8000, 9000)),
        ),
        _openings(
            (0, 1700, 1200, "window"),
            (1, 2350, 1600, "window"),
            (2, 1800, 1200, "window"),
            (3, 2500, 1500, "window"),
            (3, 6800, 1200, "window"),
            (4, 4200, 900, "window"),
            (4, 7800, 1100, "door"),
            (5, 2500, 1500, "window"),
            (5, 6800, 1500, "window"),
            (6, 2200, 1500, "opening"),
            (6, 6700, 885, "door"),
            (7, 2000, 885, "door"),
            (8, 1500, 760, "door"),
        ),
        (("Living", (5500, 2200)), ("Hall", (2800, 6800)), ("Bath", (6700, 7000)), ("Bedroom", (9500, 7000))),
    )
    cavity = TrueHouse(
        "cavity",
        (
            *ring(
                [(0, 0), (10200, 0), (10200, 6200), (13200, 6200), (13200, 10400), (0, 10400)],
                315,
                layers=(102.5, 100, 100, 12.5),
            ),
            *inner(125, (4800, 0, 4800, 6200), (0, 6200, 10200, 6200), (7200, 6200, 7200, 10400)),
        ),
        _openings(
            (0, 2300, 1810, "window"),
            (0, 7600, 1810, "window"),
            (1, 3000, 1210, "window"),
            (2, 1500, 1010, "door"),
            (3, 2100, 1210, "window"),
            (4, 3000, 1810, "window"),
            (4, 9500, 1210, "window"),
            (5, 2000, 1210, "window"),
            (5, 7400, 1210, "window"),
            (6, 4900, 838, "door"),
            (7, 2500, 838, "door"),
            (7, 6500, 838, "door"),
            (8, 2000, 762, "door"),
        ),
        (("Kitchen", (2400, 3000)), ("Dining", (7500, 3000)), ("Living", (3500, 8300)), ("Hall", (10000, 8300))),
        (102.5, 100, 100, 12.5),
    )
    skew = TrueHouse(
        "skew",
        (
            *ring([(0, 0), (8000, 0), (11500, 3500), (11500, 9500), (4000, 9500), (0, 6500)], 240),
            *inner(100, (0, 4800, 11500, 4800), (6000, 4800, 6000, 9500), (4500, 0, 4500, 4800)),
        ),
        _openings(
            (0, 2200, 1500, "window"),
            (0, 6200, 1500, "window"),
            (1, 2600, 1800, "window"),
            (2, 3500, 1200, "window"),
            (3, 2500, 1500, "window"),
            (3, 5200, 1000, "door"),
            (4, 2500, 1200, "window"),
            (5, 3000, 1200, "window"),
            (6, 2500, 810, "door"),
            (6, 8000, 810, "door"),
            (7, 2200, 810, "door"),
            (8, 3500, 1400, "opening"),
        ),
        (("Kitchen", (2200, 2400)), ("Living", (7500, 2600)), ("Study", (3500, 7200)), ("Bedroom", (8700, 7200))),
    )
    inch = 25.4
    k = 12 * inch
    row = TrueHouse(
        "row",
        (
            *ring([(0, 0), (40 * k, 0), (40 * k, 26 * k), (0, 26 * k)], 6.5 * inch),
            *inner(
                4.5 * inch,
                (0, 13 * k, 40 * k, 13 * k),
                (12 * k, 0, 12 * k, 13 * k),
                (26 * k, 0, 26 * k, 26 * k),
                (10 * k, 13 * k, 10 * k, 26 * k),
                (33 * k, 13 * k, 33 * k, 26 * k),
            ),
            *inner(6.5 * inch, (18 * k, 0, 18 * k, 13 * k)),
        ),
        _openings(
            (0, 6 * k, 5 * k, "window"),
            (0, 15 * k, 3 * k, "window"),
            (0, 32 * k, 6 * k, "window"),
            (1, 6 * k, 3 * k, "window"),
            (1, 20 * k, 4 * k, "window"),
            (2, 4 * k, 3 * k, "window"),
            (2, 20 * k, 3 * k, "door"),
            (2, 34 * k, 5 * k, "window"),
            (3, 6 * k, 3 * k, "window"),
            (3, 20 * k, 3 * k, "window"),
            (4, 8 * k, 2.5 * k, "door"),
            (4, 15 * k, 2.5 * k, "door"),
            (4, 22 * k, 5 * k, "opening"),
            (4, 30 * k, 2.5 * k, "door"),
            (4, 37 * k, 2.5 * k, "door"),
            (6, 20 * k, 2.5 * k, "door"),
            (7, 10 * k, 2.5 * k, "door"),
        ),
        (
            ("Kitchen", (6 * k, 6 * k)),
            ("Bath", (15 * k, 6 * k)),
            ("Bedroom", (33 * k, 6 * k)),
            ("Living", (18 * k, 20 * k)),
        ),
    )
    return [cottage, ell, bow, cavity, skew, row]


def rings(area: BaseGeometry) -> list[list[Spot]]:
    """Every ring of an area without its closing point, without corners that are none."""
    found = []
    for polygon in getattr(area, "geoms", [area]):
        for held in (polygon.exterior, *polygon.interiors):
            spots: NDArray[np.float64] = np.asarray(held.coords)[:-1]
            keep = [
                k
                for k in range(len(spots))
                if LineString([spots[k - 1], spots[(k + 1) % len(spots)]]).distance(Point(spots[k])) > 0.005
            ]
            found.append([tuple(map(float, spots[k])) for k in keep])
    return found  # type: ignore[return-value]


def mirrored(house: TrueHouse) -> TrueHouse:
    """The house in a mirror (x to -x): arcs turn the other way."""
    flip = lambda spot: (-spot[0], spot[1])  # noqa: E731
    walls = tuple(replace(w, start=flip(w.start), end=flip(w.end), bulge=-w.bulge) for w in house.walls)
    return replace(house, walls=walls, rooms=tuple((name, flip(at)) for name, at in house.rooms))


__all__ = ["Spot", "TrueHouse", "TrueOpening", "TrueWall", "affinity", "houses", "mirrored", "rings"]
