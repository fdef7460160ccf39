"""The lines of an outline, as they were meant: what is collinear or parallel but for rounding is so exactly.

A house that is turned and rounded to a thousandth of a millimetre has no two edges on one line any more, and its
slopes would be parted by slivers thinner than a hair. Lines move by less than `MEANT` for this, never further.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

from ..errors import GeometryError
from .exact import BITS, START, MovingLine, cross, meeting

MEANT = 0.002
"""Corners that lie this close (mm) to a line are on it; over outlines smaller than 12.5 m, in proportion less."""
MEANT_SHARE = 1.6e-7
TURN = 1e-3
"""Edges that differ by more than this (radians) are not compared any closer."""
SHIFT = 4.0
"""A corner may move by so many times what lines may; edges that meet at a shallow angle stay as they are."""

Spot = tuple[int, int]
Straight = tuple[int, int, int]
"""A line: primitive direction, and its offset to the left, `BITS` below the grid."""


@dataclass(slots=True, eq=False)
class _Row:
    """Edges on one line: their ends, the first and the last of them, and the direction of that line."""

    points: list[Spot]
    first: Spot
    last: Spot
    line: Straight = (0, 0, 0)

    @property
    def angle(self) -> float:
        return math.atan2(self.last[1] - self.first[1], self.last[0] - self.first[0])

    @property
    def span(self) -> float:
        return math.dist(self.first, self.last)


def aligned(rings: Sequence[Sequence[Spot]], step: float) -> list[Straight]:
    """The line of each edge of an outline with corners on a grid; edges are numbered through all rings.

    Raises: GeometryError for an edge without length.
    """
    sides = [side for ring in rings for side in pairwise((*ring, ring[0]))]
    for k, (start, end) in enumerate(sides):
        if start == end:
            raise GeometryError(f"edge {k} has no length: two corners lie on one point")
    xs, ys = [x for ring in rings for x, _ in ring], [y for ring in rings for _, y in ring]
    size = max(max(xs) - min(xs), max(ys) - min(ys))
    near = min(MEANT / step, size * MEANT_SHARE)
    lines = _meant(sides, near)
    return _undone(rings, sides, lines, near)


def _through(start: Spot, end: Spot) -> Straight:
    dx, dy = end[0] - start[0], end[1] - start[1]
    common = math.gcd(dx, dy)
    dx, dy = dx // common, dy // common
    return dx, dy, (start[1] * dx - start[0] * dy) << BITS


def _meant(sides: Sequence[tuple[Spot, Spot]], near: float) -> list[Straight]:
    rows: list[_Row] = []
    of: dict[int, _Row] = {}
    for k in sorted(range(len(sides)), key=lambda k: -math.dist(*sides[k])):
        side = _Row([*sides[k]], *sides[k])
        row = next((held for held in rows if _taken(held, side, near)), None)
        if row is None:
            rows.append(side)
        of[k] = row or side
    known: list[_Row] = []
    for row in sorted(rows, key=lambda row: -row.span):
        row.line = _through(row.first, row.last)
        for other in known:
            turn = math.remainder(row.angle - other.angle, math.pi)
            if abs(turn) * row.span / 2 > near:
                continue
            dx, dy, _ = other.line
            if math.cos(row.angle - other.angle) < 0:
                dx, dy = -dx, -dy
            middle = sum(y * dx - x * dy for x, y in (row.first, row.last))
            row.line = dx, dy, middle << (BITS - 1)
            break
        else:
            known.append(row)
    return [of[k].line for k in range(len(sides))]


def _taken(row: _Row, side: _Row, near: float) -> bool:
    """Whether a side lies on the line of a row; then the row holds it."""
    turn = math.remainder(row.angle - side.angle, math.tau)
    if abs(turn) > TURN:
        return False
    (x, y), (x1, y1) = row.first, row.last
    dx, dy = (x1 - x) / row.span, (y1 - y) / row.span
    points = [*row.points, *side.points]
    points.sort(key=lambda spot: (spot[0] - x) * dx + (spot[1] - y) * dy)
    first, last = points[0], points[-1]
    span = math.dist(first, last)
    dx, dy = last[0] - first[0], last[1] - first[1]
    if any(abs((py - first[1]) * dx - (px - first[0]) * dy) > near * span for px, py in points):
        return False
    row.points, row.first, row.last = points, first, last
    return True


def _undone(
    rings: Sequence[Sequence[Spot]], sides: Sequence[tuple[Spot, Spot]], lines: list[Straight], near: float
) -> list[Straight]:
    """The lines, but those of edges whose corners would move too far as they are drawn."""
    waiting = True
    while waiting:
        waiting = False
        for before, edge in _neighbours(rings):
            drawn = [_through(*sides[k]) for k in (before, edge)]
            if lines[before] == lines[edge] or [lines[before], lines[edge]] == drawn:
                continue
            if _shifted(lines[before], lines[edge], sides[edge][0]) > near * SHIFT:
                lines[before], lines[edge] = drawn
                waiting = True
    return lines


def _neighbours(rings: Sequence[Sequence[Spot]]) -> Iterator[tuple[int, int]]:
    first = 0
    for ring in rings:
        for k in range(len(ring)):
            yield first + (k - 1) % len(ring), first + k
        first += len(ring)


def _shifted(before: Straight, after: Straight, corner: Spot) -> float:
    """How far from a corner two lines meet."""
    one, two = (MovingLine(*line, 0) for line in (before, after))
    if not cross(one, two):
        return math.inf
    x, y, scale = meeting(one, two).place(START)
    return math.hypot((x - corner[0] * scale) / scale, (y - corner[1] * scale) / scale)
