"""Moving lines and their corners in whole numbers: nothing is rounded after the corners of the outline are.

Coordinates are integers of a grid that is a power of two; heights count in the same grid. A line moves to its left as
it rises: (n . p) << BITS = c + s h, with n its primitive normal. Where lines meet, and when, are fractions.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from .plane import Line, Point

BITS = 48
"""Speeds and offsets of lines carry so many bits below the grid: what is irrational in them is 1e-11 of it."""
SIZE_BITS = 35
"""An outline is two to the power of this many steps of its grid wide at the most: 1e-6 mm for a house of 30 m."""

Height = tuple[int, int]
"""A fraction: numerator, and denominator greater than 0."""
START: Height = (0, 1)
Place = tuple[int, int, int]
"""A place in plan: x and y over a common denominator greater than 0, in lowest terms."""


@dataclass(frozen=True, slots=True)
class Grid:
    """A grid fine enough for an outline: its step (a power of two) and its origin, on the grid itself."""

    step: float
    x: float
    y: float

    def snapped(self, point: Point) -> tuple[int, int]:
        """The nearest place of the grid."""
        return round((point[0] - self.x) / self.step), round((point[1] - self.y) / self.step)

    def point(self, place: Place) -> Point:
        """A place in the unit of the outline."""
        x, y, scale = place
        return x / scale * self.step + self.x + 0.0, y / scale * self.step + self.y + 0.0

    def height(self, height: Height) -> float:
        """A height in the unit of the outline."""
        return height[0] / height[1] * self.step

    def rounded(self, point: Point) -> Point:
        """A point moved onto the grid."""
        x, y = self.snapped(point)
        return self.point((x, y, 1))

    def line(self, dx: int, dy: int, c: int) -> Line:
        """A line in the unit of the outline: of all that lie on it, the foot of the origin is its point."""
        squared, away = dx * dx + dy * dy, c >> BITS
        rest = (c - (away << BITS)) / (1 << BITS)
        length = math.sqrt(squared)
        x, y = (-dy * away / squared - dy * rest / squared), (dx * away / squared + dx * rest / squared)
        return Line(x * self.step + self.x, y * self.step + self.y, dx / length, dy / length)


def grid_for(points: Sequence[Point]) -> Grid:
    """The grid for an outline.

    >>> grid_for([(0, 0), (30_000, 0), (0, 8_000)]).step < 1e-6
    True
    """
    xs, ys = [point[0] for point in points], [point[1] for point in points]
    size = max(max(xs) - min(xs), max(ys) - min(ys), 1e-9)
    step = 2.0 ** (math.ceil(math.log2(size)) - SIZE_BITS)
    return Grid(step, round(min(xs) / step) * step, round(min(ys) / step) * step)


@dataclass(slots=True, eq=False)
class MovingLine:
    """A line with its primitive direction (dx, dy), its normal to the left of that, and how it moves."""

    dx: int
    dy: int
    c: int
    s: int

    @property
    def stands(self) -> bool:
        """Whether it does not move."""
        return self.s == 0


def speed_along(dx: int, dy: int, run: Fraction) -> int:
    """What a line moves to its left per height, for a plan run per rise, in its own measure."""
    squared = (dx * dx + dy * dy) * run * run
    return math.isqrt((squared.numerator << (2 * BITS)) // squared.denominator)


def cross(first: MovingLine, second: MovingLine) -> int:
    """Positive where the second turns left of the first; 0 where they are parallel."""
    return first.dx * second.dy - first.dy * second.dx


def same_way(first: MovingLine, second: MovingLine) -> bool:
    """Of two parallel lines, whether they run in one direction."""
    return first.dx * second.dx + first.dy * second.dy > 0


@dataclass(frozen=True, slots=True)
class Motion:
    """How a corner moves: ((x0 + x1 h) / scale, (y0 + y1 h) / scale), scale greater than 0."""

    x0: int
    x1: int
    y0: int
    y1: int
    scale: int

    def place(self, height: Height) -> Place:
        """Where it is at a height."""
        p, q = height
        x, y, scale = self.x0 * q + self.x1 * p, self.y0 * q + self.y1 * p, self.scale * q
        common = math.gcd(x, y, scale)
        return x // common, y // common, scale // common


def meeting(first: MovingLine, second: MovingLine) -> Motion:
    """How the place moves in which two lines meet that are not parallel."""
    turn = cross(first, second)
    # The normal of (dx, dy) is (-dy, dx), and the determinant of two normals is that of their directions.
    a, b = (first, second) if turn > 0 else (second, first)
    return Motion(
        a.c * b.dx - b.c * a.dx,
        a.s * b.dx - b.s * a.dx,
        a.c * b.dy - b.c * a.dy,
        a.s * b.dy - b.s * a.dy,
        abs(turn) << BITS,
    )


def drifting(line: MovingLine, start: Place, height: Height) -> Motion:
    """How a place on a line moves that goes straight along with it."""
    x, y, scale = start
    p, q = height
    squared = line.dx * line.dx + line.dy * line.dy
    # place + normal * s (h - p / q) / (|n|^2 << BITS), all over one denominator.
    wide = squared << BITS
    nx, ny = -line.dy * line.s * scale, line.dx * line.s * scale
    return Motion(x * wide * q - nx * p, nx * q, y * wide * q - ny * p, ny * q, scale * wide * q)


def ahead(line: MovingLine, motion: Motion) -> tuple[int, int]:
    """How far a corner lies to the left of a line, as (a, b) of a + b h; only signs and ratios mean anything."""
    return (
        ((motion.y0 * line.dx - motion.x0 * line.dy) << BITS) - line.c * motion.scale,
        ((motion.y1 * line.dx - motion.x1 * line.dy) << BITS) - line.s * motion.scale,
    )


def length_along(line: MovingLine, start: Motion, end: Motion) -> tuple[int, int]:
    """How far along a line from one corner to another, as (a, b) of a + b h; only signs and ratios mean anything."""
    return (
        (line.dx * end.x0 + line.dy * end.y0) * start.scale - (line.dx * start.x0 + line.dy * start.y0) * end.scale,
        (line.dx * end.x1 + line.dy * end.y1) * start.scale - (line.dx * start.x1 + line.dy * start.y1) * end.scale,
    )


def place_along(line: MovingLine, start: Place, end: Place) -> int:
    """The sign of the way along a line from one place to another."""
    way = (line.dx * end[0] + line.dy * end[1]) * start[2] - (line.dx * start[0] + line.dy * start[1]) * end[2]
    return (way > 0) - (way < 0)


def earlier(first: Height, second: Height) -> bool:
    """Whether a height lies below another one."""
    return first[0] * second[1] < second[0] * first[1]


def equal(first: Height, second: Height) -> bool:
    """Whether two heights are one."""
    return first[0] * second[1] == second[0] * first[1]
