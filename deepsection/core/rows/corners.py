"""Rows of rectangles that are drawn by their corners."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from typing import Any

from ..geometry import Point
from ..units import Units
from .rows import Row, length_row


def rectangle_rows(
    corners: Sequence[Point], units: Units, put: Callable[[tuple[Point, ...]], Sequence[Any]]
) -> list[Row]:
    """Length and width of a rectangle, measured from its first corner on; none where it has not four corners."""
    if len(corners) != 4:
        return []
    a, b, c, d = corners

    def sized(other: Point, moved: tuple[int, int], value: float) -> Sequence[Any]:
        length = math.dist(a, other)
        dx, dy = ((end - start) / length * (value - length) for start, end in zip(a, other))
        return put(tuple((x + dx, y + dy) if k in moved else (x, y) for k, (x, y) in enumerate((a, b, c, d))))

    return [
        length_row("length", "Length", math.dist(a, b), units, lambda v: sized(b, (1, 2), v), least=0.0),
        length_row("width", "Width", math.dist(a, d), units, lambda v: sized(d, (2, 3), v), least=0.0),
    ]
