"""Break lines: where something is cut short, a thin line with a zigzag."""

from __future__ import annotations

import math

from ..geometry import Point
from .marks import Ring, path

PAST, ZIG, HIGH = 2.0, 1.2, 2.4
"""How far a break line runs past what is cut short, half the width of its zigzag, and its height (paper mm)."""


def break_line(a: Point, b: Point, scale: float, *, past: float = PAST) -> Ring:
    """A line from one place to another, a zigzag in its middle, and so far past both."""
    length = math.dist(a, b) or 1.0
    ux, uy = (b[0] - a[0]) / length, (b[1] - a[1]) / length
    middle = ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)

    def at(from_: Point, along: float, across: float) -> Point:
        return from_[0] + (ux * along - uy * across) * scale, from_[1] + (uy * along + ux * across) * scale

    zig = ((-ZIG, 0.0), (-ZIG / 2, HIGH / 2), (ZIG / 2, -HIGH / 2), (ZIG, 0.0))
    return path(at(a, -past, 0.0), *(at(middle, along, across) for along, across in zig), at(b, past, 0.0))
