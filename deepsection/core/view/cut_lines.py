"""Lines over what is cut: membranes, drawn apart so that they read, and the courses of masonry."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import lru_cache

import shapely
from shapely.geometry import LineString, Polygon

from ..catalog import material
from ..drawing import Mark, Region, Stroke, path, rings_of
from ..geometry import Point
from .cut import CutPart

APART = 0.75
"""Blank paper along a membrane (paper mm)."""
THIN = 0.9
"""A membrane that fills less of its smallest rectangle is drawn as it is."""
COURSES_FROM, JOINTS_FROM = 26.0, 10.0
"""Scales from which courses, and the two sides of their joints, are drawn. Common practice, no source."""
JOINT = 10.0
"""Thickness of a mortar joint (mm): BS 4729 and BIA Technical Note 10 (3/8 in), from memory."""
COURSED = ("structure", "cladding")
"""Roles of walls that are laid in courses."""


def membrane_marks(held: CutPart, scale: float) -> tuple[Mark, ...]:
    """A heavy dashed line with blank paper along it; nothing for one that is no straight strip."""
    middle = _middle_line(held.whole)
    if middle is None:
        return ()
    blank = LineString(middle).buffer(APART / 2 * scale, cap_style="flat")
    key = held.part.key
    return (
        Region(rings_of(blank), fill="paper", part=key, feature="cut"),
        Stroke(path(*middle), "membrane", part=key, feature="membrane"),
    )


@lru_cache(maxsize=5000)
def _middle_line(polygon: Polygon) -> tuple[Point, Point] | None:
    """Along the middle of a thin strip."""
    around = shapely.oriented_envelope(polygon)
    if polygon.area < THIN * around.area:
        return None
    a, b, c, d = list(around.exterior.coords)[:4]
    if math.dist(a, b) > math.dist(b, c):
        a, b, c, d = b, c, d, a
    return ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2), ((c[0] + d[0]) / 2, (c[1] + d[1]) / 2)


def course_height(held: CutPart) -> float | None:
    """The height of a course of a layer of a wall that is laid in courses (mm)."""
    coursing = material(held.part.material).coursing
    return coursing.height if coursing and held.part.role in COURSED else None


def course_lines(held: CutPart, scale: float) -> Iterator[Mark]:
    """The joints between the courses of a layer, from where these start."""
    height = course_height(held)
    if height is None or scale > COURSES_FROM:
        return
    x0, y0, x1, y1 = held.whole.bounds
    start = held.part.origin[2]
    sides = (0.0,) if scale > JOINTS_FROM else (-JOINT, 0.0)
    levels = [
        start + k * height for k in range(math.ceil((y0 - start) / height), math.floor((y1 - start) / height) + 1)
    ]
    lines = [LineString([(x0, v + side), (x1, v + side)]) for v in levels for side in sides]
    for line in shapely.intersection(lines, held.whole) if lines else ():
        for piece in shapely.get_parts(line):
            if isinstance(piece, LineString) and piece.length > JOINT:
                yield Stroke(path(*piece.coords), "fine", part=held.part.key, feature="course")
