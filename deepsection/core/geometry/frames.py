"""Frames of reference for views.

For a horizontal look direction d: u = d x z (to the right on paper), v = z, depth along d.
The turned plan uses the same u, with d up, so that projection lines are vertical on paper.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any, Literal

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.affinity import affine_transform
from shapely.geometry.base import BaseGeometry

Side = Literal["south", "east", "north", "west"]

_LOOK_DEG = {"south": 90.0, "east": 180.0, "north": 270.0, "west": 0.0}
_EXACT = {0.0: (1.0, 0.0), 90.0: (0.0, 1.0), 180.0: (-1.0, 0.0), 270.0: (0.0, -1.0)}


@dataclass(frozen=True, slots=True)
class Frame:
    """A horizontal look direction (unit vector dx, dy) and the plan point where depth is zero."""

    dx: float
    dy: float
    x0: float = 0.0
    y0: float = 0.0

    @classmethod
    def looking(cls, angle_deg: float, x0: float = 0.0, y0: float = 0.0) -> Frame:
        """The frame that looks along an angle (deg, counter-clockwise from east); quarters are exact."""
        angle = angle_deg % 360.0
        if angle in _EXACT:
            return cls(*_EXACT[angle], x0, y0)
        return cls(math.cos(math.radians(angle)), math.sin(math.radians(angle)), x0, y0)

    @classmethod
    def facing(cls, direction: tuple[float, float], x0: float, y0: float) -> Frame:
        """The frame that looks along a unit vector; what is whole but for rounding is exact."""
        dx, dy = (float(round(part)) if abs(part - round(part)) < 1e-12 else part for part in direction)
        return cls(dx, dy, x0, y0)

    @property
    def ux(self) -> float:
        """x of the unit vector to the right."""
        return self.dy

    @property
    def uy(self) -> float:
        """y of the unit vector to the right."""
        return -self.dx

    def depth(self, x: float, y: float) -> float:
        """How far behind the plane of the frame a plan point lies."""
        return (x - self.x0) * self.dx + (y - self.y0) * self.dy

    def to_view(self, points: NDArray[np.float64]) -> NDArray[np.float64]:
        """(n, 3) float of u, v, depth from (n, 3) float of x, y, z; mm.

        u is measured from the world's origin, so that parallel views share their projection lines.
        """
        x, y, z = points[:, 0], points[:, 1], points[:, 2]
        return np.column_stack((x * self.ux + y * self.uy, z, (x - self.x0) * self.dx + (y - self.y0) * self.dy))

    def plan_to_turned(self, x: float, y: float) -> tuple[float, float]:
        """(u, w) of a plan point in the turned plan; w runs along the look direction."""
        return x * self.ux + y * self.uy, x * self.dx + y * self.dy

    def turn(self, shape: BaseGeometry) -> BaseGeometry:
        """A shape of the plan in the turned plan, as `plan_to_turned` turns points."""
        turned: BaseGeometry = shapely.transform(shape, lambda at: at @ [[self.ux, self.dx], [self.uy, self.dy]])
        return turned

    def turned_to_plan(self, u: float, w: float) -> tuple[float, float]:
        """Plan point (x, y) of a turned one: the inverse of `plan_to_turned`."""
        return u * self.ux + w * self.dx, u * self.uy + w * self.dy


COMPASS = ("east", "north-east", "north", "north-west", "west", "south-west", "south", "south-east")


def compass(dx: float, dy: float) -> str:
    """The side of the compass that a direction in plan points to, the nearest of eight.

    >>> compass(0.0, -1.0), compass(1.0, 1.0)
    ('south', 'north-east')
    """
    return COMPASS[round(math.degrees(math.atan2(dy, dx)) / 45) % 8]


def side_direction(side: Side) -> float:
    """Angle (deg) in which one looks to see the side of a house that faces `side`."""
    return _LOOK_DEG[side]


@dataclass(frozen=True, slots=True)
class LevelFrame:
    """A level plane at a height z (mm), seen from above: u along a unit vector in plan (ux, uy), v to its left."""

    ux: float
    uy: float
    z: float

    @classmethod
    def outside_left(cls, out: tuple[float, float], z: float) -> LevelFrame:
        """The one in which a direction in plan, outward of a wall, points to the left of the paper."""
        return cls(-out[0], -out[1], z)

    def to_view(self, x: Any, y: Any) -> tuple[Any, Any]:
        """(u, v) of a plan point, or of arrays of such."""
        return x * self.ux + y * self.uy, y * self.ux - x * self.uy

    def to_plan(self, u: float, v: float) -> tuple[float, float]:
        """Plan point (x, y) of a place in the view: the inverse of `to_view`."""
        return u * self.ux - v * self.uy, u * self.uy + v * self.ux

    def turn(self, shape: BaseGeometry) -> BaseGeometry:
        """A shape of the plan as it is seen."""
        turned: BaseGeometry = affine_transform(shape, [self.ux, self.uy, -self.uy, self.ux, 0.0, 0.0])
        return turned


CutFrame = Frame | LevelFrame
"""What a detail may be cut by."""
