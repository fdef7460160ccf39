"""Upright boxes around bodies, which of them meet, and sloping planes."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from .plane import Point

Boxes = NDArray[np.float64]
"""(n, 6): upright boxes, from the lowest to the highest x, y, z."""


class Box(NamedTuple):
    """An upright box around something."""

    x0: float
    y0: float
    z0: float
    x1: float
    y1: float
    z1: float

    def corners(self) -> tuple[Point, Point, Point, Point]:
        """Its corners in plan."""
        return (self.x0, self.y0), (self.x1, self.y0), (self.x1, self.y1), (self.x0, self.y1)

    def meets(self, other: Box) -> bool:
        """Whether the two overlap or touch."""
        return (
            self.x0 <= other.x1
            and self.x1 >= other.x0
            and self.y0 <= other.y1
            and self.y1 >= other.y0
            and self.z0 <= other.z1
            and self.z1 >= other.z0
        )


class Plane3(NamedTuple):
    """z = a x + b y + c: a surface that is not upright."""

    a: float
    b: float
    c: float

    def z(self, x: float, y: float) -> float:
        """Height at a plan point."""
        return self.a * x + self.b * y + self.c

    def lifted(self, dz: float) -> Plane3:
        """The parallel plane, dz higher (measured plumb)."""
        return Plane3(self.a, self.b, self.c + dz)


def plane_under(start: Point, end: Point, z: float, pitch: float) -> Plane3:
    """The plane through the line start-end at height z that rises by `pitch` to the left of it."""
    length = ((end[0] - start[0]) ** 2 + (end[1] - start[1]) ** 2) ** 0.5
    nx, ny = -(end[1] - start[1]) / length, (end[0] - start[0]) / length
    return Plane3(pitch * nx, pitch * ny, z - pitch * (nx * start[0] + ny * start[1]))


def meetings(these: Boxes, others: Boxes) -> list[list[int]]:
    """For each of some boxes (n, 6), the indices of those others (m, 6) that overlap or touch it."""
    found: list[list[int]] = [[] for _ in these]
    if not len(others):
        return found
    low, high = others[:, :3].min(axis=0), others[:, 3:].max(axis=0)
    near = np.flatnonzero(((these[:, :3] <= high) & (these[:, 3:] >= low)).all(axis=1))
    a, b = these[near, None, :], others[None, :, :]
    met = (a[..., 0] <= b[..., 3]) & (a[..., 3] >= b[..., 0]) & (a[..., 1] <= b[..., 4]) & (a[..., 4] >= b[..., 1])
    met &= (a[..., 2] <= b[..., 5]) & (a[..., 5] >= b[..., 2])
    for one, other in zip(*(held.tolist() for held in np.nonzero(met))):
        found[near[one]].append(other)
    return found
