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


@dataclass(frozen=True, slots=True)
class Facet:
    """A flat face: outward unit normal, plane offset (normal . point), rings of points."""

    normal: Point3
    offset: float
    rings: tuple[tuple[Point3, ...], ...]


def mesh_facets(points: NDArray[np.float64], triangles: NDArray[np.int_]) -> tuple[Facet, ...]:
    """Facets of a closed mesh: (n, 3) float points, (m, 3) int triangles, counter-clockwise from outside.

    Triangles are linked across coplanar edges, and boundaries chained; slivers fall away.
    """
    if not len(triangles):
        return ()
    _, first, same = np.unique(np.round(points, 6), axis=0, return_index=True, return_inverse=True)
    return tuple(_linked(points[first], np.asarray(same).reshape(-1)[triangles]))


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
        facets += [_facet((hx, hy, hz), high), _facet((-hx, -hy, -hz), [ring[::-1] for ring in low])]
        for ring, foot, head in zip(rings, low, high):
            for k, (p, q) in enumerate(ring):
                after = (k + 1) % len(ring)
                dp, dq = ring[after][0] - p, ring[after][1] - q
                size = math.hypot(dp, dq)
                if size > TOL.grid:
                    np_, nq = dq / size, -dp / size
                    normal = (px * np_ + qx * nq, py * np_ + qy * nq, pz * np_ + qz * nq)
                    facets.append(_facet(normal, [(foot[k], foot[after], head[after], head[k])]))
    return tuple(facets)


def _facet(normal: Point3, rings: list[tuple[Point3, ...]]) -> Facet:
    x, y, z = rings[0][0]
    return Facet(normal, normal[0] * x + normal[1] * y + normal[2] * z, tuple(rings))


def _linked(points: NDArray[np.float64], triangles: NDArray[np.int_]) -> Iterable[Facet]:
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
        rings = [tuple((x, y, z) for x, y, z in points[ring].tolist()) for ring in _chain(step)]
        if rings:
            nx, ny, nz = normals[best].tolist()
            yield Facet((nx, ny, nz), float(normals[best] @ points[triangles[best][0]]), tuple(rings))


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
