"""The drawn line of something long: straight, or an arc of a circle, with faces at distances to its left.

An arc is stated by its bulge, tan(angle / 4), as in DXF polylines: positive when it turns left from
start to end. Places on it are (distance along, distance to the left).
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from typing import NamedTuple

from shapely.geometry import LineString, Polygon

from ..tolerance import TOL
from .arcs import arc_of
from .plane import Line, Point, line_through, meet, offset_line

SPREAD = 1000.0
"""Faces within this distance of an arc (mm) keep the chord error: all of them are parted at the same angles."""
THINNEST = 0.01
"""A face never shrinks to less than this radius (mm)."""


class Circle(NamedTuple):
    """A circle around (x, y)."""

    x: float
    y: float
    radius: float


Curve = Line | Circle


@dataclass(frozen=True)
class Axis:
    """From start to end, straight when the bulge is 0."""

    start: Point
    end: Point
    bulge: float = 0.0

    @cached_property
    def _arc(self) -> tuple[float, float, float, float, float]:
        return arc_of(*self.start, *self.end, self.bulge)

    @cached_property
    def _line(self) -> Line:
        return line_through(self.start, self.end)

    @property
    def is_arc(self) -> bool:
        """Whether it is curved."""
        return self.bulge != 0.0

    @property
    def chord(self) -> float:
        """Straight from start to end (mm)."""
        return math.dist(self.start, self.end)

    @cached_property
    def length(self) -> float:
        """Along itself (mm).

        >>> round(Axis((0.0, 0.0), (2.0, 0.0), 1.0).length, 6)
        3.141593
        """
        return self._arc[2] * abs(self._arc[4]) if self.is_arc else self.chord

    @property
    def turn(self) -> float:
        """1.0 for an arc that turns left, -1.0 for one that turns right, 0.0 for a straight line."""
        return math.copysign(1.0, self.bulge) if self.is_arc else 0.0

    @property
    def centre(self) -> Point | None:
        """The centre of an arc."""
        return self._arc[:2] if self.is_arc else None

    def radius(self, left: float = 0.0) -> float:
        """Radius of the face at a distance to the left (mm); infinite for a straight line."""
        return max(self._arc[2] - self.turn * left, THINNEST) if self.is_arc else math.inf

    @property
    def rise(self) -> float:
        """From the middle of the chord to the arc (mm)."""
        return self.chord / 2 * abs(self.bulge)

    def reversed(self) -> Axis:
        """The same line from end to start."""
        return Axis(self.end, self.start, -self.bulge if self.bulge else 0.0)

    def at(self, along: float, left: float = 0.0) -> Point:
        """The point at a distance along and to the left; it goes on past the ends, an arc on its circle."""
        if not self.is_arc:
            return offset_line(self._line, left).at(along)
        x, y, radius, begin, _ = self._arc
        angle, reach = begin + self.turn * along / radius, self.radius(left)
        return x + reach * math.cos(angle), y + reach * math.sin(angle)

    def direction(self, along: float) -> Point:
        """Unit vector forward at a distance along."""
        if not self.is_arc:
            return self._line.dx, self._line.dy
        angle = self._arc[3] + self.turn * along / self._arc[2]
        return -math.sin(angle) * self.turn, math.cos(angle) * self.turn

    def along(self, point: Point) -> float:
        """Distance along of the place that is nearest to a point; for arcs, within half a turn of the middle."""
        if not self.is_arc:
            return self._line.along(point)
        x, y, radius, begin, _ = self._arc
        middle = self.length / radius / 2
        angle = (math.atan2(point[1] - y, point[0] - x) - begin) * self.turn
        return (middle + math.remainder(angle - middle, math.tau)) * radius

    def left_of(self, point: Point) -> float:
        """Signed distance of a point to the left."""
        if not self.is_arc:
            return self._line.left_of(point)
        return (self._arc[2] - math.dist(point, self._arc[:2])) * self.turn

    def tangent(self, along: float) -> Line:
        """The straight line that touches it at a distance along, on which that place has the same distance."""
        (x, y), (dx, dy) = self.at(along), self.direction(along)
        return Line(x - dx * along, y - dy * along, dx, dy) if self.is_arc else self._line

    def face(self, left: float) -> Curve:
        """The endless line or whole circle at a distance to the left."""
        if not self.is_arc:
            return offset_line(self._line, left)
        return Circle(self._arc[0], self._arc[1], self.radius(left))

    def stations(self, first: float, last: float) -> list[float]:
        """Distances strictly between two, at which every face of an arc is parted into chords; none when straight.

        They divide the arc evenly, so that it has the same chords read from its end. The chord error is at most
        `TOL.chord` for faces up to `SPREAD` outside of it.
        """
        if not self.is_arc:
            return []
        step = 2 * math.acos(max(1 - TOL.chord / (self._arc[2] + SPREAD), -1.0))
        part = self.length / math.ceil(self.length / self._arc[2] / step)
        low, high = math.floor(first / part) + 1, math.ceil(last / part)
        return [k * part for k in range(low, high) if first + TOL.grid < k * part < last - TOL.grid]

    def points(self, first: float | None = None, last: float | None = None, left: float = 0.0) -> list[Point]:
        """Points from one distance along to another, at a distance to the left: chords of an arc."""
        a, b = 0.0 if first is None else first, self.length if last is None else last
        return [self.at(along, left) for along in (a, *self.stations(a, b), b)]

    def line_string(self) -> LineString:
        """The line in chords."""
        return LineString(self.points())

    def strip(self, first: float, last: float, left: float, right: float, also: tuple[float, ...] = ()) -> Polygon:
        """The area between two distances along and two to the left; `also` names more places to part it at."""
        between = {along for along in also if first < along < last}
        alongs = [first, *sorted({*self.stations(first, last), *between}), last]
        ring = [self.at(along, left) for along in alongs] + [self.at(along, right) for along in reversed(alongs)]
        return Polygon(ring)

    def part(self, first: float, last: float) -> Axis:
        """The piece between two distances along."""
        bulge = math.tan(math.atan(self.bulge) * (last - first) / self.length) if self.is_arc else 0.0
        return Axis(self.at(first), self.at(last), bulge)


def crossing(first: Curve, second: Curve, near: Point) -> Point | None:
    """Where two curves cross, the nearest to a point; None when they do not.

    >>> crossing(Line(0, 0, 1, 0), Circle(0, 0, 5), (4, 1))
    (5.0, 0.0)
    """
    if isinstance(first, Line) and isinstance(second, Line):
        return meet(first, second)
    return min(_crossings(first, second), key=lambda point: math.dist(point, near), default=None)


def _crossings(first: Curve, second: Curve) -> Iterator[Point]:
    if isinstance(first, Circle) and isinstance(second, Circle):
        apart = math.dist(first[:2], second[:2])
        if apart < TOL.grid:
            return
        along = (apart**2 + first.radius**2 - second.radius**2) / (2 * apart)
        dx, dy = (second.x - first.x) / apart, (second.y - first.y) / apart
        line, circle = Line(first.x + dx * along, first.y + dy * along, -dy, dx), first
    else:
        line, circle = (first, second) if isinstance(first, Line) else (second, first)  # type: ignore[assignment]
    along, off = line.along(circle[:2]), line.left_of(circle[:2])
    if abs(off) > circle.radius:
        return
    half = math.sqrt(circle.radius**2 - off**2)
    yield line.at(along - half)
    yield line.at(along + half)


def bulge_of(chord: float, *, rise: float | None = None, radius: float | None = None) -> float:
    """Bulge (positive) of an arc over a chord, from its rise or from its radius; the lesser arc of that radius.

    >>> bulge_of(2.0, rise=1.0), round(bulge_of(2.0, radius=1.0), 9)
    (1.0, 1.0)
    """
    if rise is not None:
        return 2 * rise / chord
    half = chord / 2
    if radius is None or radius < half:
        raise ValueError("an arc needs a rise, or a radius of at least half its chord")
    return (radius - math.sqrt(radius * radius - half * half)) / half


def through(start: Point, middle: Point, end: Point) -> Axis | None:
    """The arc from start to end through a point between them; None when the three lie on a line."""
    a, b = math.dist(start, middle), math.dist(middle, end)
    cross = (middle[0] - start[0]) * (end[1] - middle[1]) - (middle[1] - start[1]) * (end[0] - middle[0])
    dot = (middle[0] - start[0]) * (end[0] - middle[0]) + (middle[1] - start[1]) * (end[1] - middle[1])
    if min(a, b) < TOL.point or abs(cross) < TOL.point * math.dist(start, end):
        return None
    # The angle between the two chords is half of the angle that the whole arc turns.
    return Axis(start, end, math.tan(math.atan2(cross, dot) / 2))
