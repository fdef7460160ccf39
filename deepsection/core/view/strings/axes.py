"""The axes along which a plan is dimensioned: those of the house, however it is turned on the drawing."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from typing import TypeVar

import shapely
from shapely.geometry.base import BaseGeometry

from ...geometry import Frame, Point
from ...resolve import PlannedWall

G = TypeVar("G", bound=BaseGeometry)


@dataclass(frozen=True, slots=True)
class Axes:
    """`run` is the unit vector on the drawing that leads most to the right, of the two in which walls run."""

    frame: Frame
    run: Point

    def local(self, x: float, y: float) -> Point:
        """A point in plan, along and across the axes."""
        u, w = self.frame.plan_to_turned(x, y)
        return u * self.run[0] + w * self.run[1], -u * self.run[1] + w * self.run[0]

    def drawn(self, a: float, b: float) -> Point:
        """A place along and across the axes, on the drawing."""
        return a * self.run[0] - b * self.run[1], a * self.run[1] + b * self.run[0]

    def turned(self, shape: BaseGeometry) -> BaseGeometry:
        """A shape in plan, along and across the axes."""
        turned = self.frame.turn(shape)
        c, s = self.run
        return shapely.transform(turned, lambda points: points @ [[c, -s], [s, c]])


def axes_along(direction: Point, frame: Frame) -> Axes:
    """Those of a direction in plan and of the one across it."""
    u, w = frame.plan_to_turned(*direction)
    return Axes(frame, max(((u, w), (-u, -w), (-w, u), (w, -u)), key=lambda held: round(held[0], 9)))


def axes_of(walls: Iterable[PlannedWall], frame: Frame) -> Axes:
    """Those in which most of the length of straight walls runs."""
    lengths: dict[float, float] = {}
    for wall in walls:
        if not wall.axis.is_arc:
            u, w = frame.plan_to_turned(*wall.run)
            turn = round(math.degrees(math.atan2(w, u)), 2) % 90.0
            lengths[turn] = lengths.get(turn, 0.0) + wall.length
    turn = max(sorted(lengths), key=lambda held: lengths[held], default=0.0)
    turn = math.radians(turn if turn < 45.0 else turn - 90.0)
    exact = min((_exact(wall, frame, turn) for wall in walls if not wall.axis.is_arc), key=abs, default=0.0)
    return Axes(frame, (math.cos(turn + exact), math.sin(turn + exact)))


def _exact(wall: PlannedWall, frame: Frame, turn: float) -> float:
    """By how much the direction of a wall, or the one across it, differs from a turn (rad)."""
    u, w = frame.plan_to_turned(*wall.run)
    return math.remainder(math.atan2(w, u) - turn, math.pi / 2)
