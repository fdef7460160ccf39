"""Pages of files under a drawing, as marks where they have lines: the same for every writer."""

from __future__ import annotations

import math
from collections.abc import Iterator

import shapely

from deepsection.core.drawing import Backdrop, Region, Ring, Stroke, Text, path
from deepsection.core.drawing.pictures import Picture
from deepsection.core.geometry import flatten, polygons_of

PEN, FILL = "background", "existing"
LEAST = 0.3
"""Lettering that would be lower than this on paper (mm) is not written."""


def backdrop_marks(held: Backdrop, picture: Picture, scale: float) -> Iterator[Stroke | Region | Text]:
    """What is shown of a page that has lines, in the view; lines that run out of the crop are cut off there."""
    x0, y0, x1, y1 = held.box
    crop = shapely.box(x0, y0, x1, y1)
    shapely.prepare(crop)
    size = math.hypot(held.place[0], held.place[1])

    def placed(ring: Ring) -> Ring:
        return tuple((*held.at(x, y), bulge) for x, y, bulge in ring)

    for rings in picture.areas:
        # A ring of two arcs is a circle.
        edge, *holes = (flatten((*ring, ring[0]), 16) for ring in rings)
        if len(edge) < 4:
            continue
        shape = shapely.Polygon(edge, [hole for hole in holes if len(hole) > 3])
        if not shape.is_valid:
            shape = shape.buffer(0)
        elif crop.contains(shape):
            yield Region(tuple(placed(ring) for ring in rings), fill=FILL)
            continue
        for piece in polygons_of(shape.intersection(crop)):
            whole = (piece.exterior, *piece.interiors)
            yield Region(tuple(path(*(held.at(*p[:2]) for p in ring.coords[:-1])) for ring in whole), fill=FILL)
    for line in picture.lines:
        if all(x0 <= x <= x1 and y0 <= y <= y1 for x, y, _ in line) and not any(b for *_, b in line):
            yield Stroke(placed(line), PEN)
            continue
        chain = shapely.LineString(flatten(line, 16))
        if crop.contains(chain):
            yield Stroke(placed(line), PEN)
        else:
            for cut in shapely.get_parts(chain.intersection(crop)):
                if cut.geom_type == "LineString" and not cut.is_empty:
                    yield Stroke(path(*(held.at(*p) for p in cut.coords)), PEN)
    turn = math.degrees(math.atan2(held.place[1], held.place[0]))
    for word in picture.words:
        height = word.height * size / scale
        if height >= LEAST and x0 <= word.x <= x1 and y0 <= word.y <= y1:
            angle = math.remainder(word.angle + turn, 360.0)
            yield Text(*held.at(word.x, word.y), word.text, height, "centre", "middle", angle, pen=PEN)


def frame_marks(held: Backdrop, words: str, scale: float) -> Iterator[Stroke | Text]:
    """The edge of a page that a file cannot hold, and why it cannot."""
    yield Stroke(path(*held.corners), PEN, closed=True)
    (ax, ay), (bx, by), *_ = held.corners
    angle = math.degrees(math.atan2(by - ay, bx - ax))
    yield Text(ax, ay - 3.5 * scale, words, 2.5, "left", "bottom", angle, pen=PEN)
