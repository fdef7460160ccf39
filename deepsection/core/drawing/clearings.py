"""Where lettering stands on a view, so that long lines can stop before it and go on behind it."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator

import shapely
from shapely.geometry import LineString, Polygon

from ..geometry import Point
from . import Dimension, Mark, Text
from .explode import exploded
from .ink import text_box

CLEAR = 0.8
"""Paper mm that stay free around lettering that a line stops at."""
SHORTEST = 3.0
"""Paper mm: a shorter piece of a line between two texts is left out."""


def boxes_around(marks: Iterable[Mark], scale: float) -> list[Polygon]:
    """Boxes around all lettering of some marks, strings of dimensions included."""
    held = (mark for mark in marks if isinstance(mark, (Text, Dimension)))
    return [text_box(mark, scale, CLEAR) for mark in exploded(held, scale) if isinstance(mark, Text)]


def pieces_between(a: Point, b: Point, boxes: list[Polygon], scale: float) -> Iterator[tuple[Point, Point]]:
    """What of a line stays clear of some boxes, from its start on; a line that is all covered stays whole."""
    line = LineString([a, b])
    met = [box for box in boxes if box.intersects(line)]
    left = shapely.get_parts(line.difference(shapely.union_all(met))) if met else [line]
    kept = [part for part in left if part.length > SHORTEST * scale] or [line]
    for part in sorted(kept, key=lambda part: math.dist(a, part.coords[0])):
        (x0, y0), (x1, y1) = part.coords[0], part.coords[-1]
        yield (x0, y0), (x1, y1)
