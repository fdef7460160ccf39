"""Quilt insulation: its looping curve, drawn at the real thickness of its cavity."""

from __future__ import annotations

import math
from functools import lru_cache

import shapely
from shapely.geometry import LineString, Polygon

from ..drawing import Mark, Stroke, path
from ..geometry import flatten

LOOP = 0.38
"""Radius of a loop over the thickness of the cavity, up to what keeps it round. Common practice."""
BOX_LIKE = 0.95


@lru_cache(maxsize=5000)
def quilt_strokes(polygon: Polygon, key: str) -> tuple[Mark, ...]:
    """Loops across the narrow side, along the long one: straight legs joined by half circles.

    In a cavity that is no rectangle the curve is clipped to it.
    """
    corners = list(shapely.oriented_envelope(polygon).exterior.coords)[:4]
    a, b, d = corners[0], corners[1], corners[3]
    if math.dist(a, b) < math.dist(a, d):
        b, d = d, b
    length, thickness = math.dist(a, b), math.dist(a, d)
    if length < thickness * 0.4 or thickness < 5.0:
        return ()
    ux, uy = (b[0] - a[0]) / length, (b[1] - a[1]) / length
    vx, vy = (d[0] - a[0]) / thickness, (d[1] - a[1]) / thickness
    count = max(2, round(length / (2 * min(thickness * LOOP, 70.0))))
    radius = length / count / 2
    low, high = radius, max(thickness - radius, radius)
    turn = 1.0 if ux * vy - uy * vx > 0 else -1.0
    vertices = []
    for index in range(count + 1):
        s = index * 2 * radius
        rising = index % 2 == 0
        ends = (low, high) if rising else (high, low)
        bulge = (-1.0 if rising else 1.0) * turn
        x, y = a[0] + ux * s, a[1] + uy * s
        vertices.append((x + vx * ends[0], y + vy * ends[0], 0.0))
        vertices.append((x + vx * ends[1], y + vy * ends[1], bulge if index < count else 0.0))
    if polygon.area > BOX_LIKE * length * thickness:
        return (Stroke(tuple(vertices), "hatch", part=key, feature="quilt"),)
    inside = LineString(flatten(vertices)).intersection(polygon)
    return tuple(
        Stroke(path(*piece.coords), "hatch", part=key, feature="quilt")
        for piece in getattr(inside, "geoms", [inside])
        if isinstance(piece, LineString) and not piece.is_empty
    )
