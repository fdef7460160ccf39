"""A depth-buffer raster that shares no code with the views: the oracle of what is seen.

It reads meshes straight from the solid engine, works in NumPy, and knows neither facets nor polygons.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from deepsection.core.resolve import Part


@dataclass(frozen=True)
class Raster:
    """Samples (n, 2) of u, v; the nearest depth at each (inf: nothing), and the parts that lie there within `TIE`."""

    points: NDArray[np.float64]
    depth: NDArray[np.float64]
    seen: list[set[str]]


TIE = 0.06
"""Depths closer than this (mm) coincide."""


def rasterise(parts: Sequence[Part], look_deg: float, box: tuple[float, float, float, float], step: float) -> Raster:
    """Nearest parts on a grid of samples over a box in (u, v)."""
    dx, dy = math.cos(math.radians(look_deg)), math.sin(math.radians(look_deg))
    us, vs = np.arange(box[0] + step / 3, box[2], step), np.arange(box[1] + step / 7, box[3], step)
    nearest = np.full((len(us), len(vs)), np.inf)
    layers: list[tuple[str, NDArray[np.float64]]] = []
    for part in parts:
        own = np.full_like(nearest, np.inf)
        points, triangles = part.solid.mesh()
        u, v, d = points[:, 0] * dy - points[:, 1] * dx, points[:, 2], points[:, 0] * dx + points[:, 1] * dy
        for a, b, c in triangles:
            _fill(own, us, vs, np.array([[u[k], v[k], d[k]] for k in (a, b, c)]))
        layers.append((part.key, own))
        nearest = np.minimum(nearest, own)
    seen: list[set[str]] = [set() for _ in range(nearest.size)]
    for key, own in layers:
        for k in np.flatnonzero((own <= nearest + TIE) & np.isfinite(own)):
            seen[k].add(key)
    grid = np.stack(np.meshgrid(us, vs, indexing="ij"), axis=-1).reshape(-1, 2)
    return Raster(grid, nearest.reshape(-1), seen)


def _fill(
    depth: NDArray[np.float64], us: NDArray[np.float64], vs: NDArray[np.float64], corners: NDArray[np.float64]
) -> None:
    """Lower the depth where a triangle is nearer, by barycentric coordinates."""
    (u0, v0, d0), (u1, v1, d1), (u2, v2, d2) = corners
    area = (u1 - u0) * (v2 - v0) - (u2 - u0) * (v1 - v0)
    if abs(area) < 1e-6:
        return
    i0, i1 = np.searchsorted(us, [min(u0, u1, u2), max(u0, u1, u2)])
    j0, j1 = np.searchsorted(vs, [min(v0, v1, v2), max(v0, v1, v2)])
    if i0 == i1 or j0 == j1:
        return
    u, v = us[i0:i1, None], vs[None, j0:j1]
    s = ((u - u0) * (v2 - v0) - (u2 - u0) * (v - v0)) / area
    t = ((u1 - u0) * (v - v0) - (u - u0) * (v1 - v0)) / area
    inside = (s >= 0) & (t >= 0) & (s + t <= 1)
    value = d0 + s * (d1 - d0) + t * (d2 - d0)
    window = depth[i0:i1, j0:j1]
    window[inside] = np.minimum(window[inside], value[inside])


@dataclass(frozen=True)
class Buffer:
    """A fine depth buffer: samples at (us[i], vs[j]), the number of the nearest part (-1: none) and its depth."""

    us: NDArray[np.float64]
    vs: NDArray[np.float64]
    part: NDArray[np.int32]
    depth: NDArray[np.float64]


def depth_buffer(
    parts: Sequence[Part], look_deg: float, box: tuple[float, float, float, float], samples: int
) -> Buffer:
    """The nearest part at so many samples over a box in (u, v), triangle by triangle."""
    dx, dy = math.cos(math.radians(look_deg)), math.sin(math.radians(look_deg))
    step = math.sqrt((box[2] - box[0]) * (box[3] - box[1]) / samples)
    us, vs = np.arange(box[0] + step / 3, box[2], step), np.arange(box[1] + step / 7, box[3], step)
    depth = np.full((len(us), len(vs)), np.inf)
    owner = np.full(depth.shape, -1, dtype=np.int32)
    for number, part in enumerate(parts):
        points, triangles = part.solid.mesh()
        turned = np.column_stack(
            (points[:, 0] * dy - points[:, 1] * dx, points[:, 2], points[:, 0] * dx + points[:, 1] * dy)
        )
        for corners in turned[triangles]:
            _nearer(depth, owner, number, us, vs, corners)
    return Buffer(us, vs, owner, depth)


def _nearer(
    depth: NDArray[np.float64],
    owner: NDArray[np.int32],
    number: int,
    us: NDArray[np.float64],
    vs: NDArray[np.float64],
    corners: NDArray[np.float64],
) -> None:
    (u0, v0, d0), (u1, v1, d1), (u2, v2, d2) = corners.tolist()
    area = (u1 - u0) * (v2 - v0) - (u2 - u0) * (v1 - v0)
    if area < 1e-6:  # Counter-clockwise from outside: the others look away.
        return
    i0, i1 = np.searchsorted(us, (min(u0, u1, u2), max(u0, u1, u2)))
    j0, j1 = np.searchsorted(vs, (min(v0, v1, v2), max(v0, v1, v2)))
    if i0 == i1 or j0 == j1:
        return
    u, v = us[i0:i1, None], vs[None, j0:j1]
    a = ((u1 - u) * (v2 - v) - (u2 - u) * (v1 - v)) / area
    b = ((u2 - u) * (v0 - v) - (u0 - u) * (v2 - v)) / area
    c = 1.0 - a - b
    own = a * d0 + b * d1 + c * d2
    near = (a >= 0) & (b >= 0) & (c >= 0) & (own < depth[i0:i1, j0:j1])
    depth[i0:i1, j0:j1][near] = own[near]
    owner[i0:i1, j0:j1][near] = number
