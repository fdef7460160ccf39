"""Bodies between two parallel sloping planes over an outline in plan: coverings, decks, boards along a slope."""

from __future__ import annotations

import math
from functools import cached_property
from typing import Any

import manifold3d
import numpy as np
import shapely
from shapely.geometry import MultiPolygon, Polygon
from shapely.geometry.base import BaseGeometry

from ..tolerance import TOL
from .boxes import Box, Plane3
from .facets import Facet, Point3, facet_of
from .frames import Frame
from .plane import Point, polygons_of, ring_of
from .solids import LineInPlan, Solid


class _Slab(Solid):
    """Upright sides, and a plane below and above: an extrusion that is sheared, so that nothing need be cut."""

    def __init__(self, shape: Polygon | MultiPolygon, low: Plane3, thick: float) -> None:
        self._shape, self._low, self._thick = shape, low, thick
        x0, y0, x1, y1 = shape.bounds
        heights = [low.z(x, y) for x in (x0, x1) for y in (y0, y1)]
        self.reach = Box(x0, y0, min(heights), x1, y1, max(heights) + thick)

    @cached_property
    def _polygons(self) -> tuple[Polygon, ...]:
        return tuple(polygons_of(self._shape))

    @property
    def is_empty(self) -> bool:
        """Known without the engine."""
        return not self._polygons or self._thick < TOL.grid

    def _build(self) -> Any:
        rings = [np.array(ring) for polygon in self._polygons for ring in ring_of(polygon)]
        section = manifold3d.CrossSection(rings, manifold3d.FillRule.Positive)
        a, b, c = self._low
        shear = ((1.0, 0.0, 0.0, 0.0), (0.0, 1.0, 0.0, 0.0), (a, b, 1.0, c))
        return manifold3d.Manifold.extrude(section, self._thick).transform(shear)

    @cached_property
    def facets(self) -> tuple[Facet, ...]:
        """Flat faces, each with its boundary rings."""
        a, b, _ = self._low
        size = math.sqrt(a * a + b * b + 1.0)
        up = (-a / size, -b / size, 1.0 / size)
        found = []
        for polygon in self._polygons:
            rings = ring_of(polygon)
            low = [self._lifted(ring, 0.0) for ring in rings]
            high = [self._lifted(ring, self._thick) for ring in rings]
            found.append(facet_of(up, high))
            found.append(facet_of((-up[0], -up[1], -up[2]), [ring[::-1] for ring in low]))
            for ring, foot, head in zip(rings, low, high):
                for k, (x, y) in enumerate(ring):
                    after = (k + 1) % len(ring)
                    dx, dy = ring[after][0] - x, ring[after][1] - y
                    length = math.hypot(dx, dy)
                    if length > TOL.grid:
                        side = (foot[k], foot[after], head[after], head[k])
                        found.append(facet_of((dy / length, -dx / length, 0.0), [side]))
        return tuple(found)

    def _lifted(self, ring: list[Point], by: float) -> tuple[Point3, ...]:
        return tuple((x, y, self._low.z(x, y) + by) for x, y in ring)

    def cut(self, frame: Frame) -> BaseGeometry:
        """The cut in (u, v): over each span in plan, between the planes."""
        depth = frame.x0 * frame.dx + frame.y0 * frame.dy + TOL.cut
        line = LineInPlan(frame.dx * depth, frame.dy * depth, frame.ux, frame.uy)
        shapes = []
        for polygon in self._polygons:
            for first, last in line.spans(polygon):
                low = [(u, self._low.z(line.p0 + u * line.dp, line.q0 + u * line.dq)) for u in (first, last)]
                shapes.append(Polygon([*low, *((u, v + self._thick) for u, v in reversed(low))]))
        return shapes[0] if len(shapes) == 1 else shapely.union_all(shapes)


def slab(shape: Polygon | MultiPolygon, low: Plane3, thick: float) -> Solid:
    """The body over plan polygons (holes allowed) from a plane up to its parallel, `thick` higher measured plumb."""
    return _Slab(shape, low, thick)
