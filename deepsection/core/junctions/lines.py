"""Runs along walls and edges of roofs."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Sequence

import numpy as np

from ..geometry import Point
from ..resolve import PlannedWall
from .junction import Run

CHORD = 300.0
"""An arc is followed by chords at the most this long (mm)."""
NEAR = 60.0
"""A wall stands under an edge of a roof when it is this near to it (mm)."""
PARALLEL = 1e-3
"""And runs along it when it is askew by less than this (sine)."""
SHORT = 1.0
"""What is no longer than this (mm) is no run."""


def along_wall(wall: PlannedWall, left: float, right: float, outward: float, z: float) -> tuple[Run, ...]:
    """From one distance along a wall to another, so far outward of its set-out line, at a height."""
    if right - left <= SHORT:
        return ()
    count = max(1, math.ceil((right - left) / CHORD)) if wall.axis.is_arc else 1
    places = np.linspace(left, right, count + 1).tolist()
    runs = []
    for a, b in itertools.pairwise(places):
        (x0, y0), (x1, y1) = wall.at(a, outward), wall.at(b, outward)
        runs.append(Run((x0, y0, z), (x1, y1, z), wall.stand((a + b) / 2).out))
    return tuple(runs)


def upright(wall: PlannedWall, along: float, low: float, high: float) -> tuple[Run, ...]:
    """Up a wall at a distance along it, at its outer face."""
    if high - low <= SHORT:
        return ()
    x, y = wall.at(along, wall.outer)
    return (Run((x, y, low), (x, y, high), wall.stand(along).out),)


def shared(wall: PlannedWall, start: Point, end: Point, near: float = NEAR) -> tuple[float, float] | None:
    """From-to along a line in plan where a straight wall runs along it, near it; None where it does not."""
    length = math.dist(start, end)
    if wall.axis.is_arc or length <= SHORT:
        return None
    dx, dy = (end[0] - start[0]) / length, (end[1] - start[1]) / length
    ux, uy = wall.run
    if abs(dx * uy - dy * ux) > PARALLEL:
        return None
    off = [abs((x - start[0]) * dy - (y - start[1]) * dx) for x, y in (wall.start, wall.end)]
    if min(off) > near:
        return None
    ends = sorted((x - start[0]) * dx + (y - start[1]) * dy for x, y in (wall.start, wall.end))
    low, high = max(ends[0], 0.0), min(ends[1], length)
    return (low, high) if high - low > SHORT else None


def both(some: Sequence[tuple[float, float]], others: Sequence[tuple[float, float]]) -> list[tuple[float, float]]:
    """What of some stretches of a line lies in others."""
    pairs = ((max(a, c), min(b, d)) for a, b in some for c, d in others)
    return [(low, high) for low, high in pairs if high - low > SHORT]


def rest_of(length: float, taken: list[tuple[float, float]]) -> Iterator[tuple[float, float]]:
    """What of a line is left beside some stretches of it."""
    at = 0.0
    for low, high in sorted(taken):
        if low - at > SHORT:
            yield at, low
        at = max(at, high)
    if length - at > SHORT:
        yield at, length
