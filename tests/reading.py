"""What somebody reads on a sheet: where ink of letters lies, by the font files alone, and what spoils it.

Shares nothing with what places lettering: letters are measured as Pillow draws them.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from importlib.resources import files

import shapely
from PIL import ImageFont
from shapely import affinity
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry

from deepsection.core.drawing import PENS, Drawing, Region, Ring, Stroke, Text, explode
from deepsection.core.geometry import flatten

DRAWN = 200
"""Letters are measured at this size (px)."""
HEAVY = 0.25
"""Solid lines as wide as this (mm) spoil what they cross."""
TOUCH = 0.12
"""Ink may come as near as this to other ink (paper mm) before it counts."""


@dataclass(frozen=True)
class Fault:
    """Lettering that cannot be read: what spoils it, and where."""

    kind: str
    text: str
    other: str
    at: tuple[float, float]


@cache
def _face(name: str) -> ImageFont.FreeTypeFont:
    with (files("deepsection") / "fonts" / f"{name}.ttf").open("rb") as file:
        return ImageFont.truetype(file, DRAWN)


@cache
def _capital(name: str) -> float:
    _, top, _, foot = _face(name).getbbox("H", anchor="ls")
    return foot - top


@cache
def _ink(text: str, face: str) -> tuple[float, float, float, float]:
    """Left, low, right, high of the ink of a line of text, from its start on its base line, in heights of capitals."""
    left, top, right, foot = _face(face).getbbox(text, anchor="ls")
    tall = _capital(face)
    return left / tall, -foot / tall, right / tall, -top / tall


def ink_of(mark: Text, scale: float) -> Polygon:
    """The ink of a text on the drawing, shrunk by what may touch."""
    x0, y0, x1, y1 = (size * mark.size * scale for size in _ink(mark.text, mark.face))
    wide = x1 + x0
    near = TOUCH * scale
    foot = {"bottom": 0.0, "middle": -mark.size / 2 * scale, "top": -mark.size * scale}[mark.valign]
    left = {"left": 0.0, "centre": -wide / 2, "right": -wide}[mark.align]
    box = shapely.box(left + x0 + near, foot + y0 + near, left + x1 - near, foot + y1 - near)
    return affinity.translate(affinity.rotate(box, mark.angle, origin=(0.0, 0.0)), mark.x, mark.y)


def faults(drawing: Drawing) -> list[Fault]:
    """What cannot be read on a drawing: text on text, text cut by a heavy line, text upside down."""
    marks = explode(drawing).marks
    scale = drawing.scale
    texts = [(k, mark, ink_of(mark, scale)) for k, mark in enumerate(marks) if isinstance(mark, Text) and mark.text]
    found = [
        Fault("upside down", mark.text, f"{mark.angle:.1f} deg", (mark.x, mark.y))
        for _, mark, _ in texts
        if not -90.01 < mark.angle <= 90.01
    ]
    if not texts:
        return []
    tree = shapely.STRtree([ink for *_, ink in texts])
    for a, b in zip(*tree.query([ink for *_, ink in texts], predicate="intersects")):
        if a < b:
            one, other = texts[a][1], texts[b][1]
            found.append(Fault("on text", one.text, other.text, (one.x, one.y)))
    blanks = [(k, _polygon(mark)) for k, mark in enumerate(marks) if isinstance(mark, Region) and mark.fill]
    covers = shapely.STRtree([blank for _, blank in blanks])
    for k, name, shape in _heavy(marks):
        for t in tree.query(shape, predicate="intersects"):
            j, mark, ink = texts[t]
            over = covers.query(ink, predicate="covered_by")
            # Paper that lies over the line and under the text interrupts it.
            if k < j and any(k < blanks[c][0] < j for c in over):
                continue
            found.append(Fault("cut by a line", mark.text, name, (mark.x, mark.y)))
    return found


def _heavy(marks: tuple[object, ...]) -> Iterator[tuple[int, str, BaseGeometry]]:
    """Heavy lines and filled heads and ticks, with their places in the order of drawing."""
    for k, mark in enumerate(marks):
        if isinstance(mark, Stroke) and _spoils(mark.pen):
            yield k, f"{mark.pen} of {mark.part} {mark.feature}", _line(mark.path, closed=mark.closed)
        elif isinstance(mark, Region):
            if mark.fill in ("ink", "section", "poche"):
                yield k, f"filled {mark.part} {mark.feature}", _polygon(mark)
            elif mark.pen and _spoils(mark.pen):
                for ring in mark.rings:
                    yield k, f"{mark.pen} of {mark.part} {mark.feature}", _line(ring, closed=True)


def _spoils(pen: str) -> bool:
    return PENS[pen].width >= HEAVY and not PENS[pen].dashes


def _line(ring: Ring, *, closed: bool) -> BaseGeometry:
    points = flatten((*ring, ring[0]) if closed else ring)
    return LineString(points) if len(points) > 1 else shapely.Point(points[0])


def _polygon(mark: Region) -> BaseGeometry:
    outer, *holes = (flatten((*ring, ring[0])) for ring in mark.rings)
    held = Polygon(outer, holes)
    return held if held.is_valid else held.buffer(0)
