"""An outline of right angles as rectangles under gable roofs of their own: the widest first, the others into it."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import combinations, pairwise

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon

from ....geometry import Point, line_through

SQUARE = 1e-3
"""Sine of the angle by which a corner may miss a right one."""
ALIKE = 2.0
"""Sides this close to one line (mm) lie on it."""
MOST = 40
"""An outline of more corners is no plain house."""

Cells = tuple[int, int, int, int]
"""A rectangle of the grid of all sides: first and last line along, first and last line across."""


@dataclass(frozen=True, slots=True)
class Wing:
    """A rectangle, counter-clockwise; `joined`: its side that runs into one before it, None for the first."""

    corners: tuple[Point, Point, Point, Point]
    joined: int | None

    @property
    def gables(self) -> tuple[int, ...]:
        """The sides under its gables: the short ones of the first, the end of all others."""
        if self.joined is not None:
            return ((self.joined + 2) % 4,)
        a, b, c, _ = self.corners
        return (1, 3) if math.dist(a, b) >= math.dist(b, c) else (0, 2)


def wings_of(ring: Sequence[Point]) -> tuple[Wing, ...]:
    """The rectangles of an outline of right angles, turned by any angle; none where it is no such outline.

    The first has the widest span, so that no other one has a higher ridge at the same pitch; each of the others is at
    most as wide as the one whose side it runs into.
    """
    if not 4 < len(ring) <= MOST:
        return ()
    line = line_through(*max(zip(ring, (*ring[1:], ring[0])), key=lambda side: math.dist(*side)))
    if any(
        min(abs(line.dx * (y1 - y0) - line.dy * (x1 - x0)), abs(line.dx * (x1 - x0) + line.dy * (y1 - y0)))
        > max(SQUARE * math.dist((x0, y0), (x1, y1)), ALIKE)
        for (x0, y0), (x1, y1) in zip(ring, (*ring[1:], ring[0]))
    ):
        return ()
    local = [(line.along(point), line.left_of(point)) for point in ring]
    us, vs = (_lines([spot[axis] for spot in local]) for axis in (0, 1))
    polygon = Polygon(local)
    middles = [[shapely.Point((a + b) / 2, (c + d) / 2) for c, d in pairwise(vs)] for a, b in pairwise(us)]
    free = np.array([[polygon.contains(spot) for spot in column] for column in middles])
    placed: list[tuple[Cells, int | None]] = []
    while free.any():
        best = _next(free, us, vs, [cells for cells, _ in placed])
        if best is None:
            return ()
        placed.append(best)
        a, b, c, d = best[0]
        free[a:b, c:d] = False

    def corner(u: float, v: float) -> Point:
        x, y = line.at(u)
        return x - line.dy * v, y + line.dx * v

    return tuple(
        Wing((corner(us[a], vs[c]), corner(us[b], vs[c]), corner(us[b], vs[d]), corner(us[a], vs[d])), joined)
        for (a, b, c, d), joined in placed
    )


def _lines(values: list[float]) -> list[float]:
    """Values in order, those that are alike once."""
    found: list[float] = []
    for value in sorted(values):
        if not found or value - found[-1] > ALIKE:
            found.append(value)
    return found


def _next(
    free: NDArray[np.bool_], us: list[float], vs: list[float], placed: list[Cells]
) -> tuple[Cells, int | None] | None:
    """The widest rectangle that is free, and the side by which it runs into one that is placed; then the largest."""
    best: tuple[tuple[float, float], Cells, int | None] | None = None
    for cells in _rectangles(free):
        a, b, c, d = cells
        wide, deep = us[b] - us[a], vs[d] - vs[c]
        sides: list[tuple[float, int | None]] = (
            [(wide if side in (0, 2) else deep, side) for side in _on(cells, us, vs, placed)]
            if placed
            else [(min(wide, deep), None)]
        )
        for span, side in sides:
            key = (round(span), wide * deep)
            if best is None or key > best[0]:
                best = (key, cells, side)
    return best[1:] if best else None


def _rectangles(free: NDArray[np.bool_]) -> Iterator[Cells]:
    """All rectangles of free cells."""
    counts = np.pad(free.astype(int).cumsum(0).cumsum(1), ((1, 0), (1, 0)))
    for a, b in combinations(range(free.shape[0] + 1), 2):
        for c, d in combinations(range(free.shape[1] + 1), 2):
            if counts[b, d] - counts[a, d] - counts[b, c] + counts[a, c] == (b - a) * (d - c):
                yield a, b, c, d


def _on(cells: Cells, us: list[float], vs: list[float], placed: list[Cells]) -> Iterator[int]:
    """The sides of a rectangle that lie whole on a side of one that is placed and spans no less."""
    a, b, c, d = cells
    for p, q, r, s in placed:
        span = min(us[q] - us[p], vs[s] - vs[r]) + ALIKE
        if p <= a and b <= q and us[b] - us[a] <= span:
            if c == s:
                yield 0
            if d == r:
                yield 2
        if r <= c and d <= s and vs[d] - vs[c] <= span:
            if b == p:
                yield 1
            if a == q:
                yield 3
