"""Solids: a small typed wrap of the solid engine (manifold3d). Millimetres, z up.

A `Solid` is immutable; its mesh, facets and bounds are worked out once, on demand.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property
from typing import Any, NamedTuple

import manifold3d
import numpy as np
from numpy.typing import NDArray
from shapely.geometry import Polygon

from ..tolerance import TOL
from .frames import Frame
from .plane import Point, ring_of


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


@dataclass(frozen=True, slots=True)
class Facet:
    """A flat face: outward unit normal, plane offset (normal . point), rings as (n, 3) float."""

    normal: tuple[float, float, float]
    offset: float
    rings: tuple[NDArray[np.float64], ...]


class Solid:
    """A closed body. Compare and cache by identity: it is made by stages that are memoised."""

    def __init__(self, manifold: Any) -> None:
        self._manifold = manifold

    @cached_property
    def bounds(self) -> tuple[float, float, float, float, float, float]:
        """x0, y0, z0, x1, y1, z1."""
        box = self._manifold.bounding_box()
        return (box[0], box[1], box[2], box[3], box[4], box[5])

    @cached_property
    def volume(self) -> float:
        """mm3."""
        return float(self._manifold.volume())

    @property
    def is_empty(self) -> bool:
        """True when nothing solid is left: touching bodies intersect as slivers."""
        return self._manifold.is_empty() or self.volume < TOL.volume

    def minus(self, others: Iterable[Solid]) -> Solid:
        """This solid without the others."""
        bodies = [other._manifold for other in others]
        if not bodies:
            return self
        return Solid(manifold3d.Manifold.batch_boolean([self._manifold, *bodies], manifold3d.OpType.Subtract))

    def meets(self, other: Solid) -> bool:
        """Whether the boxes of the two overlap."""
        a, b = self.bounds, other.bounds
        return all(a[axis] < b[axis + 3] and b[axis] < a[axis + 3] for axis in range(3))

    def below(self, plane: Plane3) -> Solid:
        """What lies under a sloping plane."""
        length = (plane.a**2 + plane.b**2 + 1) ** 0.5
        normal = (plane.a / length, plane.b / length, -1 / length)
        return Solid(self._manifold.trim_by_plane(normal, -plane.c / length))

    def above(self, plane: Plane3) -> Solid:
        """What lies over a sloping plane."""
        length = (plane.a**2 + plane.b**2 + 1) ** 0.5
        normal = (-plane.a / length, -plane.b / length, 1 / length)
        return Solid(self._manifold.trim_by_plane(normal, plane.c / length))

    def behind(self, frame: Frame, depth: float) -> Solid:
        """What lies farther than a depth along the look direction of a frame."""
        offset = depth + frame.x0 * frame.dx + frame.y0 * frame.dy
        return Solid(self._manifold.trim_by_plane((frame.dx, frame.dy, 0.0), offset))

    def before(self, frame: Frame, depth: float) -> Solid:
        """What lies nearer than a depth along the look direction of a frame."""
        offset = depth + frame.x0 * frame.dx + frame.y0 * frame.dy
        return Solid(self._manifold.trim_by_plane((-frame.dx, -frame.dy, 0.0), -offset))

    def cut(self, frame: Frame) -> list[NDArray[np.float64]]:
        """Rings (n, 2) float of u, v where the plane of the frame, set back by `TOL.cut`, cuts this."""
        matrix = [
            [frame.ux, frame.uy, 0.0, 0.0],
            [0.0, 0.0, 1.0, 0.0],
            [-frame.dx, -frame.dy, 0.0, frame.x0 * frame.dx + frame.y0 * frame.dy],
        ]
        turned = self._manifold.transform(matrix)
        return [np.asarray(ring, dtype=float) for ring in turned.slice(-TOL.cut).to_polygons()]

    @cached_property
    def facets(self) -> tuple[Facet, ...]:
        """Flat faces, with triangles linked across coplanar edges and boundaries chained."""
        mesh = self._manifold.to_mesh64()
        points = np.asarray(mesh.vert_properties, dtype=float)[:, :3]
        triangles = np.asarray(mesh.tri_verts, dtype=int)
        if not len(triangles):
            return ()
        _, first, same = np.unique(np.round(points, 6), axis=0, return_index=True, return_inverse=True)
        points, triangles = points[first], np.asarray(same).reshape(-1)[triangles]
        return tuple(_facets(points, triangles))


def _facets(points: NDArray[np.float64], triangles: NDArray[np.int_]) -> Iterable[Facet]:
    edges = points[triangles]
    normals = np.cross(edges[:, 1] - edges[:, 0], edges[:, 2] - edges[:, 0])
    lengths = np.linalg.norm(normals, axis=1)
    normals = normals / np.where(lengths > 0, lengths, 1)[:, None]
    owner: dict[tuple[int, int], int] = {}
    for index, (a, b, c) in enumerate(triangles.tolist()):
        owner[a, b] = owner[b, c] = owner[c, a] = index
    group = list(range(len(triangles)))

    def root(index: int) -> int:
        while group[index] != index:
            group[index] = group[group[index]]
            index = group[index]
        return index

    for (a, b), index in owner.items():
        other = owner.get((b, a))
        if other is not None and (
            float(normals[index] @ normals[other]) > 1 - TOL.facet**1.5
            or min(lengths[index], lengths[other]) < TOL.area
        ):
            group[root(index)] = root(other)
    members: dict[int, list[int]] = defaultdict(list)
    for index in range(len(triangles)):
        members[root(index)].append(index)
    for held in members.values():
        best = max(held, key=lambda index: float(lengths[index]))
        if lengths[best] < TOL.area:
            continue
        inside = set(held)
        step: dict[int, list[int]] = defaultdict(list)
        for index in held:
            a, b, c = triangles[index].tolist()
            for start, end in ((a, b), (b, c), (c, a)):
                if owner.get((end, start)) not in inside:
                    step[start].append(end)
        rings = tuple(points[ring] for ring in _chain(step))
        if rings:
            normal = normals[best]
            offset = float(normal @ points[triangles[best][0]])
            yield Facet((float(normal[0]), float(normal[1]), float(normal[2])), offset, rings)


def _chain(step: dict[int, list[int]]) -> Iterable[list[int]]:
    while step:
        start = next(iter(step))
        ring, current = [], start
        while current in step:
            ring.append(current)
            following = step[current].pop()
            if not step[current]:
                del step[current]
            current = following
        if len(ring) > 2:
            yield ring


def prism(polygon: Polygon, z0: float, z1: float) -> Solid:
    """An upright body over a plan polygon (holes allowed) from z0 to z1."""
    section = manifold3d.CrossSection([np.array(ring) for ring in ring_of(polygon)], manifold3d.FillRule.Positive)
    return Solid(manifold3d.Manifold.extrude(section, z1 - z0).translate((0.0, 0.0, z0)))


def box(origin: Point, along: Point, lengths: tuple[float, float], z0: float, z1: float) -> Solid:
    """A box from a plan corner: `lengths` along the unit vector `along` and to its left, z0 to z1."""
    (x, y), (ax, ay), (length, width) = origin, along, lengths
    corners = [
        (x, y),
        (x + ax * length, y + ay * length),
        (x + ax * length - ay * width, y + ay * length + ax * width),
        (x - ay * width, y + ax * width),
    ]
    return prism(Polygon(corners), z0, z1)


def prism_along(profile: Polygon, origin: Point, run: Point, thickness: float) -> Solid:
    """A profile in an upright plane (holes allowed), given thickness.

    Profile points are (distance along the unit vector `run` from `origin`, z); the body lies to the
    right of `run`, from the plane to `thickness` away.
    """
    section = manifold3d.CrossSection([np.array(ring) for ring in ring_of(profile)], manifold3d.FillRule.Positive)
    body = manifold3d.Manifold.extrude(section, thickness)
    (x, y), (rx, ry) = origin, run
    return Solid(body.transform([[rx, 0.0, ry, x], [ry, 0.0, -rx, y], [0.0, 1.0, 0.0, 0.0]]))


def plane_under(start: Point, end: Point, z: float, pitch: float) -> Plane3:
    """The plane through the line start-end at height z that rises by `pitch` to the left of it."""
    length = ((end[0] - start[0]) ** 2 + (end[1] - start[1]) ** 2) ** 0.5
    nx, ny = -(end[1] - start[1]) / length, (end[0] - start[0]) / length
    return Plane3(pitch * nx, pitch * ny, z - pitch * (nx * start[0] + ny * start[1]))
