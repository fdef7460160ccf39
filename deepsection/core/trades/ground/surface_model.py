"""The surface of the ground, as heights over plan points and as profiles along lines."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import shapely
from shapely.geometry import MultiPoint, Polygon
from shapely.geometry import Point as ShapelyPoint

from ...geometry import Line, Plane3, Point, line_through, meet
from .model import GroundSpot, GroundStep

Profile = tuple[Point, ...]
"""(distance, z) along a line; two at one distance make a step."""
SIDEWAYS = 0.01
"""Which side of a step a place of a profile lies on is asked this far from it (mm)."""
FLAT = 0.01
"""Spots on a line this straight (mm) make a slope along it."""


@dataclass(frozen=True)
class Ground:
    """Flat at `grade`, but for spots and steps (heights in mm above the datum)."""

    grade: float
    spots: tuple[GroundSpot, ...] = ()
    steps: tuple[GroundStep, ...] = ()

    @property
    def is_flat(self) -> bool:
        """Whether it has one height everywhere."""
        return not self.steps and len({spot.rise for spot in self.spots}) < 2

    @property
    def level(self) -> float:
        """The height of a flat ground."""
        return self.grade + (self.spots[0].rise if self.spots else 0.0)

    def z(self, x: float, y: float) -> float:
        """The height at a plan point; on a step, that of its right side."""
        return self.grade + self._risen((x, y)) + self._slope((x, y))

    def _risen(self, point: Point) -> float:
        """What the steps that it lies above add up to."""
        return sum(step.rise for step in self.steps if _line(step).left_of(point) > 0)

    def profile(self, start: Point, end: Point) -> Profile:
        """Its heights along a straight line in plan, from start to end, exact between its breaks."""
        length = math.dist(start, end)
        if length < FLAT:
            return ((0.0, self.z(*start)),)
        along = line_through(start, end)
        places: list[Point] = []
        for at in (0.0, *self._breaks(along, length), length):
            slope = self.grade + self._slope(along.at(at))
            for beside in (at - SIDEWAYS, at + SIDEWAYS):
                risen = self._risen(along.at(min(max(beside, 0.0), length)))
                if places[-1:] != [(at, slope + risen)]:
                    places.append((at, slope + risen))
        return tuple(places)

    def _breaks(self, along: Line, length: float) -> list[float]:
        lines = [_line(step) for step in self.steps]
        edges = [line_through(a, b) for a, b in self._edges]
        # Beyond the outermost spots, the height is that of the nearest place on their outline.
        squares = [Line(*end, -edge.dy, edge.dx) for edge, ends in zip(edges, self._edges) for end in ends]
        found = (meet(along, line) for line in (*lines, *edges, *squares))
        return sorted({round(at, 6) for point in found if point and 0 < (at := along.along(point)) < length})

    # --- heights between spots ------------------------------------------------------------------

    @cached_property
    def _triangles(self) -> tuple[tuple[Polygon, Plane3], ...]:
        rises = {(spot.x, spot.y): spot.rise for spot in self.spots}
        if self._run is not None or len(rises) < 3:
            return ()
        shapes = shapely.get_parts(shapely.delaunay_triangles(MultiPoint(list(rises))))
        return tuple((shape, _plane(shape, rises)) for shape in shapes if shape.area > 1.0)

    @cached_property
    def _hull(self) -> shapely.Geometry:
        return MultiPoint([(spot.x, spot.y) for spot in self.spots]).convex_hull

    @cached_property
    def _edges(self) -> tuple[tuple[Point, Point], ...]:
        """Edges between spots."""
        if self._run is not None:
            points = [self._run[0].at(at) for at, _ in self._run[1]]
            return tuple(itertools.pairwise(points))
        rings = [list(shape.exterior.coords) for shape, _ in self._triangles]
        return tuple({_ordered(a, b) for ring in rings for a, b in itertools.pairwise(ring)})

    @cached_property
    def _run(self) -> tuple[Line, tuple[Point, ...]] | None:
        """Spots that lie on one line, as (distance, rise) along it; None for others, and for one."""
        points = {(spot.x, spot.y): spot.rise for spot in self.spots}
        if len(points) < 2:
            return None
        first = next(iter(points))
        far = max(points, key=lambda point: math.dist(point, first))
        line = line_through(first, far)
        if any(abs(line.left_of(point)) > FLAT for point in points):
            return None
        return line, tuple(sorted((line.along(point), rise) for point, rise in points.items()))

    def _slope(self, point: Point) -> float:
        if not self.spots:
            return 0.0
        if self._run is not None:
            return _between(self._run[1], self._run[0].along(point))
        if not self._triangles:
            return self.spots[0].rise
        spot = ShapelyPoint(point)
        if not self._hull.covers(spot):
            boundary = self._hull.boundary
            spot = boundary.interpolate(boundary.project(spot))
        _, plane = min(self._triangles, key=lambda held: held[0].distance(spot))
        return plane.z(spot.x, spot.y)


def _line(step: GroundStep) -> Line:
    return line_through((step.x1, step.y1), (step.x2, step.y2))


def _ordered(a: Point, b: Point) -> tuple[Point, Point]:
    return (a, b) if a < b else (b, a)


def _plane(shape: Polygon, rises: dict[Point, float]) -> Plane3:
    """The plane through the corners of a triangle."""
    (x0, y0), (x1, y1), (x2, y2) = shape.exterior.coords[:3]
    z0, z1, z2 = rises[x0, y0], rises[x1, y1], rises[x2, y2]
    turn = (x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0)
    a = ((z1 - z0) * (y2 - y0) - (z2 - z0) * (y1 - y0)) / turn
    b = ((x1 - x0) * (z2 - z0) - (x2 - x0) * (z1 - z0)) / turn
    return Plane3(a, b, z0 - a * x0 - b * y0)


def _between(places: Sequence[Point], at: float) -> float:
    """Straight between (distance, rise) places, level beyond the outermost."""
    if at <= places[0][0]:
        return places[0][1]
    for (a, low), (b, high) in itertools.pairwise(places):
        if at <= b:
            return low + (high - low) * (at - a) / (b - a)
    return places[-1][1]
