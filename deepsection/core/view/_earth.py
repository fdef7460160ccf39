"""The earth that a view shows: everything below the profile of the ground."""

from __future__ import annotations

import itertools
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import shapely
from shapely.geometry import LineString, Polygon

from ..geometry import Frame, Point
from ..resolve import Building, Ground

DEEP = 1e5
"""Below any house (mm)."""
STEP = 1e-6
"""Places closer than this along a view (mm) are one."""


@dataclass(frozen=True)
class Earth:
    """The ground line of a view as (u, v), from left to right; two points at one u make a step."""

    profile: tuple[Point, ...]

    @cached_property
    def flat(self) -> float | None:
        """Its height when it has one everywhere."""
        heights = [v for _, v in self.profile]
        return heights[0] if max(heights) - min(heights) < STEP else None

    @cached_property
    def line(self) -> LineString:
        """The ground line."""
        return LineString(self.profile)

    @cached_property
    def body(self) -> Polygon:
        """Everything below it, with a margin at both ends."""
        (u0, v0), (u1, v1) = self.profile[0], self.profile[-1]
        low = min(v for _, v in self.profile) - DEEP
        ring = [(u0 - DEEP, low), (u0 - DEEP, v0), *self.profile, (u1 + DEEP, v1), (u1 + DEEP, low)]
        held = Polygon(ring)
        shapely.prepare(held)
        return held

    def height_at(self, u: float) -> float:
        """Its height at a place; past an end, that of the end."""
        us, vs = zip(*self.profile)
        return float(np.interp(u, us, vs))

    @property
    def low(self) -> float:
        """Its lowest height."""
        return min(v for _, v in self.profile)

    @property
    def high(self) -> float:
        """Its highest height."""
        return max(v for _, v in self.profile)


def _in_plan(frame: Frame, u: float, depth: float) -> Point:
    """The plan point at u and at a depth measured from the world's origin."""
    return u * frame.ux + depth * frame.dx, u * frame.uy + depth * frame.dy


def earth_along(ground: Ground, frame: Frame, u0: float, u1: float) -> Earth:
    """The earth that the plane of a frame cuts, from u0 to u1."""
    if ground.is_flat:
        return Earth(((u0, ground.level), (u1, ground.level)))
    depth = frame.x0 * frame.dx + frame.y0 * frame.dy
    return Earth(tuple(_piece(ground, frame, (u0, depth), (u1, depth))))


def earth_before(building: Building, frame: Frame, u0: float, u1: float) -> Earth:
    """The earth before the house as it is seen along a frame: where the ground meets its nearest walls."""
    ground = building.ground
    if ground.is_flat:
        return Earth(((u0, ground.level), (u1, ground.level)))
    front = _front(building, frame)
    if not front:
        return earth_along(ground, frame, u0, u1)
    first, last = front[0][0], front[-1][1]
    pieces = [((u0, first[1]), first), *front, (last, (u1, last[1]))]
    places = [place for start, end in pieces if end[0] - start[0] > STEP for place in _piece(ground, frame, start, end)]
    return Earth(tuple(place for place, _ in itertools.groupby(places)))


def _piece(ground: Ground, frame: Frame, start: Point, end: Point) -> list[Point]:
    """The profile between two places (u, depth)."""
    found = ground.profile(_in_plan(frame, *start), _in_plan(frame, *end))
    length = found[-1][0] or 1.0
    return [(start[0] + (end[0] - start[0]) * at / length, z) for at, z in found]


def _front(building: Building, frame: Frame) -> list[tuple[Point, Point]]:
    """The nearest edges of the lowest storey's walls, left to right, as places (u, depth)."""
    walls = building.plan.walls
    lowest = min((building.levels[wall.wall.base.level].z for wall in walls), default=0.0)
    standing = [wall.footprint for wall in walls if building.levels[wall.wall.base.level].z < lowest + STEP]
    edges: list[tuple[Point, Point]] = []
    for polygon in standing:
        ring = [(x * frame.ux + y * frame.uy, x * frame.dx + y * frame.dy) for x, y in polygon.exterior.coords]
        edges += [(min(a, b), max(a, b)) for a, b in itertools.pairwise(ring) if abs(a[0] - b[0]) > STEP]
    stops = sorted({round(u, 6) for edge in edges for u, _ in edge})
    front: list[tuple[Point, Point]] = []
    for left, right in itertools.pairwise(stops):
        middle = (left + right) / 2
        spanning = [edge for edge in edges if edge[0][0] <= middle <= edge[1][0]]
        if not spanning:
            continue
        near = min(spanning, key=lambda edge: _depth(edge, middle))
        start, end = (left, _depth(near, left)), (right, _depth(near, right))
        if front and abs(front[-1][1][1] - start[1]) < STEP and abs(start[0] - front[-1][1][0]) < STEP:
            bend = abs(_depth((front[-1][0], end), start[0]) - start[1])
            if bend < STEP:
                front[-1] = (front[-1][0], end)
                continue
        front.append((start, end))
    return front


def _depth(edge: tuple[Point, Point], u: float) -> float:
    (u0, d0), (u1, d1) = edge
    return d0 + (d1 - d0) * (u - u0) / (u1 - u0)
