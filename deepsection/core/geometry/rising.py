"""Bodies that rise along a level direction: every upright section across it stays as it is, higher by so much."""

from __future__ import annotations

from typing import Any

from shapely.affinity import affine_transform
from shapely.geometry.base import BaseGeometry

from ..tolerance import TOL
from .frames import Frame
from .plane import Point
from .solids import Solid


def rising(body: Solid, origin: Point, run: Point, rise: float) -> Solid:
    """A body lifted by `rise` for each mm that it lies farther along the unit vector `run` from an origin in plan."""
    return _Rising(body, origin, run, rise)


class _Rising(Solid):
    """A body that is lifted by more and more along a direction; its volume stays."""

    def __init__(self, body: Solid, origin: Point, run: Point, rise: float) -> None:
        self._body, self._slope = body, (rise * run[0], rise * run[1])
        self._base = -(self._slope[0] * origin[0] + self._slope[1] * origin[1])
        lifts = [self._lift(x, y) for x, y in body.reach.corners()]
        self.reach = body.reach._replace(z0=body.reach.z0 + min(lifts), z1=body.reach.z1 + max(lifts))

    def _lift(self, x: float, y: float) -> float:
        return self._slope[0] * x + self._slope[1] * y + self._base

    def _build(self) -> Any:
        a, b = self._slope
        rows = ((1.0, 0.0, 0.0, 0.0), (0.0, 1.0, 0.0, 0.0), (a, b, 1.0, self._base))
        return self._body.manifold.transform(rows)

    def cut(self, frame: Frame) -> BaseGeometry:
        """The section of the body, each place of it as much higher as that lies farther along."""
        shape = self._body.cut(frame)
        if shape.is_empty:
            return shape
        depth = frame.x0 * frame.dx + frame.y0 * frame.dy + TOL.cut
        per_u = self._slope[0] * frame.ux + self._slope[1] * frame.uy
        lift = self._lift(frame.dx * depth, frame.dy * depth)
        return affine_transform(shape, [1.0, 0.0, per_u, 1.0, 0.0, lift])
