"""Flat faces of solids: from a mesh, or known beforehand for bodies of constant section."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..tolerance import TOL
from .plane import Point

Rings = Sequence[Sequence[Point]]
"""Rings of one polygon without closing points: outer one counter-clockwise, holes clockwise."""


Point3 = tuple[float, float, float]
Matrix = tuple[tuple[float, float, float, float], ...]
"""The three rows of a rigid motion: (x, y, z) = rows . (p, q, h, 1)."""


WEIGHTS = np.array([1.0, math.sqrt(2.0), math.sqrt(3.0), math.sqrt(5.0)])


@dataclass(frozen=True, slots=True)
class Facet:
    """A flat face: outward unit normal, plane offset (normal . point), rings of points."""

    normal: Point3
    offset: float
    rings: tuple[tuple[Point3, ...], ...]


Mesh = tuple[NDArray[np.float64], NDArray[np.int_]]
"""(n, 3) float points and (m, 3) int triangles, counter-clockwise from outside."""


def mesh_facets(points: NDArray[np.float64], triangles: NDArray[np.int_]) -> tuple[Facet, ...]:
    """Facets of a closed mesh: triangles of one plane make one facet, of one or more outer rings; slivers fall away."""
    return meshes_facets([(points, triangles)])[0]


def meshes_facets(meshes: Sequence[Mesh]) -> list[tuple[Facet, ...]]:
    """The facets of many meshes: together they cost a fraction of what they cost one by one."""
    found: list[list[Facet]] = [[] for _ in meshes]
    sizes_of = np.array([len(points) for points, _ in meshes])
    first = np.concatenate([[0], np.cumsum(sizes_of)])
    kept = [k for k, (_, triangles) in enumerate(meshes) if len(triangles)]
    if not kept:
        return [()] * len(meshes)
    points = np.concatenate([points for points, _ in meshes])
    triangles = np.concatenate([meshes[k][1] + first[k] for k in kept])
    body = np.repeat(kept, [len(meshes[k][1]) for k in kept])
    corners = points[triangles]
    normals = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    sizes = np.linalg.norm(normals, axis=1)
    normals = normals / np.where(sizes > 0, sizes, 1)[:, None]
    offsets = (normals * corners[:, 0]).sum(axis=1)
    group = _by_plane(normals, offsets, sizes > TOL.area, triangles, body)
    largest = _largest(group, sizes)
    for index, steps in _boundaries(triangles, group).items():
        best = int(largest[index])
        rings = [tuple((x, y, z) for x, y, z in points[ring].tolist()) for ring in _chain(steps)]
        if rings and sizes[best] > TOL.area:
            nx, ny, nz = normals[best].tolist()
            found[int(body[best])].append(Facet((nx, ny, nz), float(offsets[best]), tuple(rings)))
    return [tuple(held) for held in found]


def _by_plane(
    normals: NDArray[np.float64],
    offsets: NDArray[np.float64],
    solid: NDArray[np.bool_],
    triangles: NDArray[np.int_],
    body: NDArray[np.int_],
) -> NDArray[np.int_]:
    """A number per triangle, one for each plane of each body; triangles without area go with a neighbour."""
    planes = np.round(np.column_stack((normals / TOL.facet, offsets / TOL.grid)))
    # One number per plane: weights without a common measure keep different planes apart, and sort fast.
    weighed = planes @ WEIGHTS
    order = np.lexsort((weighed, body))
    starts = np.ones(len(order), dtype=bool)
    starts[1:] = (weighed[order][1:] != weighed[order][:-1]) | (body[order][1:] != body[order][:-1])
    group = np.empty(len(order), dtype=np.int64)
    group[order] = np.cumsum(starts) - 1
    for k in np.flatnonzero(~solid).tolist():
        own = slice(*np.searchsorted(body, (body[k], body[k] + 1)))
        shared = np.isin(triangles[own], triangles[k]).sum(axis=1) == 2
        near = np.flatnonzero(shared & solid[own])
        if len(near):
            group[k] = group[own][near[0]]
    return group


def _largest(group: NDArray[np.int_], sizes: NDArray[np.float64]) -> NDArray[np.int_]:
    """Per group, its largest triangle."""
    order = np.lexsort((sizes, group))
    largest = np.zeros(int(group.max()) + 1, dtype=np.int64)
    largest[group[order]] = order
    return largest


def _boundaries(triangles: NDArray[np.int_], group: NDArray[np.int_]) -> dict[int, dict[int, list[int]]]:
    """Per group, the steps from point to point along its boundary: edges without a partner in it."""
    start, end = triangles.reshape(-1), triangles[:, [1, 2, 0]].reshape(-1)
    owner = np.repeat(group, 3)
    count = int(triangles.max()) + 1
    ahead, back = (owner * count + start) * count + end, (owner * count + end) * count + start
    steps: dict[int, dict[int, list[int]]] = defaultdict(lambda: defaultdict(list))
    bare = ~np.isin(ahead, back)
    for index, a, b in zip(owner[bare].tolist(), start[bare].tolist(), end[bare].tolist()):
        steps[index][a].append(b)
    return steps


def extruded_facets(polygons: Iterable[Rings], length: float, matrix: Matrix) -> tuple[Facet, ...]:
    """Facets of profiles extruded from 0 to `length` along the third axis of a rigid motion.

    Plain arithmetic: most bodies are boxes, and an array of four points costs more than it saves.
    """
    turned = [(row[0], row[1], row[2]) for row in matrix]
    px, qx, hx = turned[0]
    py, qy, hy = turned[1]
    pz, qz, hz = turned[2]
    x0, y0, z0 = (row[3] for row in matrix)
    rise = (hx * length, hy * length, hz * length)
    facets = []
    for rings in polygons:
        low = [
            tuple((x0 + px * p + qx * q, y0 + py * p + qy * q, z0 + pz * p + qz * q) for p, q in ring) for ring in rings
        ]
        high = [tuple((x + rise[0], y + rise[1], z + rise[2]) for x, y, z in ring) for ring in low]
        facets += [facet_of((hx, hy, hz), high), facet_of((-hx, -hy, -hz), [ring[::-1] for ring in low])]
        for ring, foot, head in zip(rings, low, high):
            for k, (p, q) in enumerate(ring):
                after = (k + 1) % len(ring)
                dp, dq = ring[after][0] - p, ring[after][1] - q
                size = math.hypot(dp, dq)
                if size > TOL.grid:
                    np_, nq = dq / size, -dp / size
                    normal = (px * np_ + qx * nq, py * np_ + qy * nq, pz * np_ + qz * nq)
                    facets.append(facet_of(normal, [(foot[k], foot[after], head[after], head[k])]))
    return tuple(facets)


def facet_of(normal: Point3, rings: list[tuple[Point3, ...]]) -> Facet:
    """The facet of rings in one plane with an outward unit normal."""
    x, y, z = rings[0][0]
    return Facet(normal, normal[0] * x + normal[1] * y + normal[2] * z, tuple(rings))


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
