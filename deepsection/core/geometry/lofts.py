"""Solids that are no plain extrusions: what leans, and what two bodies share. Their cuts are the engine's slices."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Any

import manifold3d
import numpy as np
from numpy.typing import NDArray
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from ..tolerance import TOL
from .boxes import Box
from .frames import Frame
from .plane import Point, ring_of
from .solids import Solid, rings_as_areas


class _Meshed(Solid):
    """A body known only to the engine."""

    def cut(self, frame: Frame) -> BaseGeometry:
        """The slice of the engine: u to the right, v up, depth away from the viewer."""
        depth = frame.x0 * frame.dx + frame.y0 * frame.dy + TOL.cut
        turn = (
            (frame.ux, frame.uy, 0.0, 0.0),
            (0.0, 0.0, 1.0, 0.0),
            (-frame.dx, -frame.dy, 0.0, depth),
        )
        return rings_as_areas(self.manifold.transform(turn).slice(0.0).to_polygons())


Ring = list[Point]


class _Loft(_Meshed):
    """Between polygons and the same ones with their corners moved, at two heights."""

    def __init__(self, rings: list[tuple[Ring, Ring]], z0: float, z1: float) -> None:
        self._rings, self._z0, self._z1 = rings, z0, z1
        xs, ys = zip(*(point for pair in rings for ring in pair for point in ring))
        self.reach = Box(min(xs), min(ys), z0, max(xs), max(ys), z1)

    def _build(self) -> Any:
        bodies = [self._between(np.array(low), np.array(high)) for low, high in self._rings]
        return bodies[0] if len(bodies) == 1 else manifold3d.Manifold.batch_boolean(bodies, manifold3d.OpType.Add)

    def _between(self, low: NDArray[np.float64], high: NDArray[np.float64]) -> Any:
        count = len(low)
        flat = manifold3d.triangulate([low])
        steps = np.arange(count)
        after = (steps + 1) % count
        sides = (np.column_stack((steps, after, after + count)), np.column_stack((steps, after + count, steps + count)))
        triangles = np.vstack((flat[:, ::-1], flat + count, *sides))
        foot, head = (np.column_stack((ring, np.full(count, z))) for ring, z in ((low, self._z0), (high, self._z1)))
        return manifold3d.Manifold(manifold3d.Mesh64(np.vstack((foot, head)), triangles.astype(np.uint64)))


class _Sheared(_Meshed):
    """A body whose points move sideways as they rise."""

    def __init__(self, body: Solid, drift: Point, base: float) -> None:
        self._body, self._drift, self._base = body, drift, base
        held = body.reach
        (dx, dy), rises = drift, (held.z0 - base, held.z1 - base)
        self.reach = Box(
            held.x0 + min(dx * rise for rise in rises),
            held.y0 + min(dy * rise for rise in rises),
            held.z0,
            held.x1 + max(dx * rise for rise in rises),
            held.y1 + max(dy * rise for rise in rises),
            held.z1,
        )

    def _build(self) -> Any:
        (dx, dy), base = self._drift, self._base
        matrix = ((1.0, 0.0, dx, -dx * base), (0.0, 1.0, dy, -dy * base), (0.0, 0.0, 1.0, 0.0))
        return self._body.manifold.transform(matrix)


class _Shared(Solid):
    """What two bodies have in common."""

    def __init__(self, first: Solid, second: Solid) -> None:
        self._first, self._second = first, second
        a, b = first.reach, second.reach
        low = [max(a[k], b[k]) for k in range(3)]
        self.reach = Box(*low, *(max(low[k], min(a[k + 3], b[k + 3])) for k in range(3)))

    def _build(self) -> Any:
        return self._first.manifold ^ self._second.manifold

    def cut(self, frame: Frame) -> BaseGeometry:
        """The section of what is shared is what the sections share."""
        return self._first.cut(frame).intersection(self._second.cut(frame))


def lofted(polygons: Iterable[Polygon], at: Callable[[Point, float], Point], z0: float, z1: float) -> Solid:
    """A body over polygons without holes, from z0 to z1, whose corners lie in plan where `at` puts them at a height.

    Edges must stay parallel from foot to head, or their sides are split into two triangles each.
    """
    rings = []
    for polygon in polygons:
        ring = ring_of(polygon)[0]
        rings.append(([at(point, z0) for point in ring], [at(point, z1) for point in ring]))
    return _Loft(rings, z0, z1)


def sheared(body: Solid, drift: Point, base: float) -> Solid:
    """A body that moves by `drift` (x, y) for each mm that it rises above `base`; itself when it does not."""
    return body if drift == (0.0, 0.0) else _Sheared(body, drift, base)


def shared(first: Solid, second: Solid) -> Solid:
    """What two bodies have in common."""
    return _Shared(first, second)


def revolved(section: Polygon, centre: Point) -> Solid:
    """A section (radius, z), all of it at a radius above 0, turned once around an upright axis."""
    return _Revolved(section, centre)


class _Revolved(_Meshed):
    def __init__(self, section: Polygon, centre: Point) -> None:
        self._section, self._centre = section, centre
        _, z0, radius, z1 = section.bounds
        x, y = centre
        self.reach = Box(x - radius, y - radius, z0, x + radius, y + radius, z1)

    def _build(self) -> Any:
        radius = self._section.bounds[2]
        step = 2 * np.arccos(1 - min(TOL.chord / radius, 1.0))
        count = 4 * int(np.ceil(2 * np.pi / step / 4))
        rings = [np.array(ring) for ring in ring_of(self._section)]
        section = manifold3d.CrossSection(rings, manifold3d.FillRule.Positive)
        x, y = self._centre
        return manifold3d.Manifold.revolve(section, count).translate((x, y, 0.0))
