"""Where lettering stands on a view, so that long lines can stop before it and go on behind it."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator

import shapely
from shapely import affinity
from shapely.geometry import LineString, Polygon

from ..geometry import Point
from . import LETTER, WIDE, Dimension, Drawing, Mark, Text, explode

MONO = LETTER / 2.5
"""The same of the mono face."""
AROUND = 0.8
"""Paper mm that stay free around lettering."""
SHORTEST = 3.0
"""Paper mm: a shorter piece of a line between two texts is left out."""


def lettered(marks: Iterable[Mark], scale: float) -> list[Polygon]:
    """Boxes around all lettering of some marks, strings of dimensions included."""
    held = tuple(mark for mark in marks if isinstance(mark, (Text, Dimension)))
    whole = explode(Drawing("", "", "plan", scale, held))
    return [_box(mark, scale) for mark in whole.marks if isinstance(mark, Text)]


def _box(mark: Text, scale: float) -> Polygon:
    share = MONO if mark.face == "mono" else WIDE
    width, height, room = len(mark.text) * mark.size * share * scale, mark.size * scale, AROUND * scale
    left = {"left": 0.0, "centre": -width / 2, "right": -width}[mark.align]
    low = {"bottom": 0.0, "middle": -height / 2, "top": -height}[mark.valign]
    box = shapely.box(left - room, low - room, left + width + room, low + height + room)
    turned = affinity.rotate(box, mark.angle, origin=(0.0, 0.0))
    return affinity.translate(turned, mark.x, mark.y)


def pieces_between(a: Point, b: Point, boxes: list[Polygon], scale: float) -> Iterator[tuple[Point, Point]]:
    """What of a line stays clear of some boxes, from its start on; a line that is all covered stays whole."""
    line = LineString([a, b])
    met = [box for box in boxes if box.intersects(line)]
    left = shapely.get_parts(line.difference(shapely.union_all(met))) if met else [line]
    kept = [part for part in left if part.length > SHORTEST * scale] or [line]
    for part in sorted(kept, key=lambda part: math.dist(a, part.coords[0])):
        (x0, y0), (x1, y1) = part.coords[0], part.coords[-1]
        yield (x0, y0), (x1, y1)
