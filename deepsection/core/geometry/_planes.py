"""The planes of a skeleton: which edges share one, and what of the plan lies under each."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal, TypeAlias

from ._front import Front, Trace
from .exact import BITS, Grid, MovingLine, Place
from .plane import Point

Kind: TypeAlias = Literal["ridge", "hip", "valley", "rake", "break"]

SAME = 0.05
"""Neighbouring slopes that lie closer than this (mm) over both of them are one plane, and a line that rises less is
level; over outlines smaller than 20 m, in proportion less."""
SAME_SHARE = 2.5e-6
NEARLY_LEVEL = 1e-3
"""A line that rises by more than this share of its plan length is not level, however short it is."""


@dataclass(frozen=True, slots=True)
class SkeletonFace:
    """What rises from edges in one plane, in plan.

    `edges`: those edges, in order; the plane is measured from the first. `rings`: its boundary, the inside to the left.
    """

    edges: tuple[int, ...]
    rings: tuple[tuple[Point, ...], ...]


class Planes:
    """The planes over the edges of a front that has risen."""

    def __init__(self, front: Front, lines: Mapping[int, MovingLine], grid: Grid) -> None:
        self._front, self._lines, self._grid = front, lines, grid
        size = max(max(abs(x), abs(y)) / scale for x, y, scale in (place for _, *ends in front.base for place in ends))
        self.same = min(SAME / grid.step, size * SAME_SHARE)
        """In steps of the grid."""
        self._upper = {trace.right for trace in front.traces if trace.kind == "break"}
        self._join_near()

    def root(self, edge: int) -> int:
        """The name of the plane of an edge."""
        return self._front.root(edge)

    def kind(self, trace: Trace) -> Kind:
        """What a trace is; a line between two slopes that hardly rises is a ridge."""
        if trace.kind in ("hip", "ridge", "seam"):
            rise, run = abs(_height(trace.end[1]) - _height(trace.start[1])), apart(trace.start[0], trace.end[0])
            return "ridge" if rise <= min(self.same, run * NEARLY_LEVEL) else "hip"
        assert trace.kind != "seam"
        return trace.kind

    # --- one plane for neighbours that hardly differ ----------------------------------------------

    def _join_near(self) -> None:
        corners: dict[int, set[Place]] = defaultdict(set)
        for edge, start, end in self._front.base:
            corners[self.root(edge)] |= {start, end}
        for trace in self._front.traces:
            for edge in (trace.left, trace.right):
                corners[self.root(edge)] |= {trace.start[0], trace.end[0]}
        for trace in self._front.traces:
            first, second = self.root(trace.left), self.root(trace.right)
            if first == second or trace.kind not in ("hip", "valley") or not self._alike(first, second):
                continue
            if (trace.left in self._upper) != (trace.right in self._upper):
                continue
            if any(self._gap(first, second, place) > self.same for place in corners[first] | corners[second]):
                continue
            self._front.join(first, second)
            corners[self.root(first)] = corners[first] | corners[second]

    def _alike(self, first: int, second: int) -> bool:
        """Whether two slopes rise nearly the same way."""
        (a, b), (c, d) = self._fall(first), self._fall(second)
        return math.hypot(a - c, b - d) < NEARLY_LEVEL * 10 * math.hypot(a, b)

    def _fall(self, root: int) -> tuple[float, float]:
        line = self._lines[root]
        return -(line.dy << BITS) / line.s, (line.dx << BITS) / line.s

    def _gap(self, first: int, second: int, place: Place) -> float:
        return abs(self._over(first, place) - self._over(second, place))

    def _over(self, root: int, place: Place) -> float:
        """The height of a plane over a place, in steps of the grid."""
        line, (x, y, scale) = self._lines[root], place
        return (((line.dx * y - line.dy * x) << BITS) - line.c * scale) / (line.s * scale)

    # --- faces -------------------------------------------------------------------------------------

    def faces(self) -> Iterator[SkeletonFace]:
        """What rises over each plane; edges that stand have nothing."""
        sides: dict[int, list[tuple[Place, Place]]] = defaultdict(list)
        for edge, start, end in self._front.base:
            sides[self.root(edge)].append((start, end))
        for trace in self._front.traces:
            left, right = self.root(trace.left), self.root(trace.right)
            if left == right or trace.start[0] == trace.end[0]:
                continue
            if trace.kind == "break":
                left, right = right, left
            sides[left].append((trace.start[0], trace.end[0]))
            sides[right].append((trace.end[0], trace.start[0]))
        members: dict[int, list[int]] = defaultdict(list)
        for edge in sorted(self._lines):
            members[self.root(edge)].append(edge)
        for root in sorted(sides):
            if self._lines[root].stands:
                continue
            rings = tuple(tuple(self._grid.point(place) for place in ring) for ring in _chained(sides[root]))
            yield SkeletonFace(tuple(members[root]), rings)


def _height(height: tuple[int, int]) -> float:
    return height[0] / height[1]


def apart(first: Place, second: Place) -> float:
    """How far two places lie from each other, in steps of the grid."""
    return math.dist(_plain(first), _plain(second))


def _plain(place: Place) -> Point:
    return place[0] / place[2], place[1] / place[2]


def _chained(sides: list[tuple[Place, Place]]) -> Iterator[list[Place]]:
    """The rings that directed sides make; where several go on from a place, the inside stays in one piece at each."""
    onward: dict[Place, list[Place]] = defaultdict(list)
    for start, end in sides:
        onward[start].append(end)
    for first in list(onward):
        while onward[first]:
            ring, before, place = [first], first, onward[first].pop()
            while place != first:
                ring.append(place)
                choices = onward[place]
                following = (
                    choices[0] if len(choices) == 1 else min(choices, key=lambda to: _clockwise(before, place, to))
                )
                choices.remove(following)
                before, place = place, following
            yield ring


def _clockwise(before: Place, place: Place, to: Place) -> float:
    """The angle from the way back to the way on, clockwise."""
    (ax, ay), (x, y), (bx, by) = _plain(before), _plain(place), _plain(to)
    turn = math.atan2(ay - y, ax - x) - math.atan2(by - y, bx - x)
    return turn % math.tau
