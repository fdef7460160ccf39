"""Rigid motions in plan."""

from __future__ import annotations

import math
from typing import Annotated

from pydantic import Field

from ..geometry import Point
from .values import Element, Mm


class Motion(Element):
    """A rigid motion in plan: mirrored in a line, or not; turned; then shifted.

    `mirror` is the angle of the line through (x, y) to mirror in, and `turn` an angle about (x, y), both in degrees
    counter-clockwise from east.
    """

    dx: Mm = 0.0
    dy: Mm = 0.0
    x: Mm = 0.0
    y: Mm = 0.0
    turn: Annotated[float, Field(ge=-360, le=360)] = 0.0
    mirror: Annotated[float, Field(ge=-360, le=360)] | None = None

    def at(self, point: Point) -> Point:
        """Where a point comes to lie."""
        x, y = self.along(point[0] - self.x, point[1] - self.y)
        return x + self.x + self.dx, y + self.y + self.dy

    def along(self, x: float, y: float) -> Point:
        """What becomes of a vector."""
        if self.mirror is not None:
            c, s = _cos_sin(2 * self.mirror)
            x, y = c * x + s * y, s * x - c * y
        c, s = _cos_sin(self.turn)
        return c * x - s * y, s * x + c * y

    def angle(self, degrees: float) -> float:
        """What becomes of a direction."""
        c, s = _cos_sin(degrees)
        x, y = self.along(c, s)
        return round(math.degrees(math.atan2(y, x)), 9)

    def back(self, point: Point) -> Point:
        """Which point comes to lie there."""
        x, y = point[0] - self.x - self.dx, point[1] - self.y - self.dy
        c, s = _cos_sin(-self.turn)
        x, y = c * x - s * y, s * x + c * y
        if self.mirror is not None:
            c, s = _cos_sin(2 * self.mirror)
            x, y = c * x + s * y, s * x - c * y
        return x + self.x, y + self.y

    def times(self, k: int) -> Motion:
        """The motion done k times over; a mirror once."""
        if self.turn:
            return Motion(x=self.x, y=self.y, turn=math.remainder(self.turn * k, 360.0))
        return Motion(dx=self.dx * k, dy=self.dy * k, x=self.x, y=self.y, mirror=self.mirror)


def _cos_sin(degrees: float) -> tuple[float, float]:
    """Exact for quarters."""
    exact = {0.0: (1.0, 0.0), 90.0: (0.0, 1.0), 180.0: (-1.0, 0.0), 270.0: (0.0, -1.0)}.get(degrees % 360.0)
    return exact or (math.cos(math.radians(degrees)), math.sin(math.radians(degrees)))
