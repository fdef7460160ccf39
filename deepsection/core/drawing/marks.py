"""Marks: what a view draws. Coordinates are real mm in the view; lettering is in paper mm.

An `annotation` is the key of lettering that a view writes by itself: what a drafter may move, rewrite or hide.

A path is a tuple of vertices (x, y, bulge), as in DXF polylines: bulge is tan(angle / 4) of the
arc from this vertex to the next one, 0 for a straight piece.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from ..geometry import arcs_in, plain_rings, polygons_of, ring_of
from ..units import HeightSum
from .advances import text_width
from .patterns import PlacedHatch

Vertex = tuple[float, float, float]
Ring = tuple[Vertex, ...]
Align = Literal["left", "centre", "right"]


@dataclass(frozen=True, slots=True)
class Handle:
    """What a drag on a mark edits: edit kind, element, field, and the axis it follows."""

    edit: str
    element: str
    field: str
    axis: Literal["along", "across", "z", "free"] = "along"


@dataclass(frozen=True, slots=True)
class Stroke:
    """A line."""

    path: Ring
    pen: str
    closed: bool = False
    part: str | None = None
    feature: str | None = None
    sum: str | None = None
    handle: Handle | None = None
    schematic: bool = False
    annotation: str | None = None


@dataclass(frozen=True, slots=True)
class Region:
    """An area: outer ring and holes, with a tone, a hatch (index into the drawing's) and an outline."""

    rings: tuple[Ring, ...]
    fill: str | None = None
    hatch: int | None = None
    pen: str | None = None
    part: str | None = None
    feature: str | None = None
    depth: float | None = None
    sum: str | None = None
    handle: Handle | None = None
    schematic: bool = False
    annotation: str | None = None


@dataclass(frozen=True, slots=True)
class Text:
    """Lettering; `size` in paper mm, angle in degrees."""

    x: float
    y: float
    text: str
    size: float = 2.5
    align: Align = "left"
    valign: Literal["bottom", "middle", "top"] = "bottom"
    angle: float = 0.0
    face: Literal["sans", "bold", "mono"] = "sans"
    part: str | None = None
    sum: str | None = None
    pen: str = "note"
    feature: str | None = None
    handle: Handle | None = None
    annotation: str | None = None


@dataclass(frozen=True, slots=True)
class Dimension:
    """A measure between two points, its line `offset` paper mm to the left of first-to-second.

    Its text is `raised` so many paper mm more from the line, past that of a neighbour, and stands `aside` of the
    middle, first-to-second, `led` to it by a line; extension lines begin `gap` paper mm from the points. `between`: the
    names of what it runs from and to, of those that a typed length moves. `measures`: how long (mm) what it runs over
    is, where a break leaves out some of that: its line has a zigzag then.
    """

    x1: float
    y1: float
    x2: float
    y2: float
    offset: float
    text: str
    part: str | None = None
    feature: str | None = None
    sum: str | None = None
    handle: Handle | None = None
    raised: float = 0.0
    gap: float = 1.0
    aside: float = 0.0
    led: bool = False
    annotation: str | None = None
    between: tuple[str, str] | None = None
    measures: float | None = None


@dataclass(frozen=True, slots=True)
class Symbol:
    """A drawing symbol, sized in paper mm; `texts` fill its places, `angle` turns it (deg)."""

    kind: Literal["level", "section", "pitch", "scale_bar", "north", "view_title"]
    x: float
    y: float
    texts: tuple[str, ...] = ()
    angle: float = 0.0
    values: tuple[float, ...] = ()
    part: str | None = None
    sum: str | None = None
    annotation: str | None = None


Mark = Stroke | Region | Text | Dimension | Symbol


@dataclass(frozen=True, slots=True)
class Backdrop:
    """A page of a file under a drawing: which one, and where it lies.

    A point (x, y) of the page, from its lower left corner in the unit of the file, lies at (a x + c y + e,
    b x + d y + f) in the view (real mm), with `place` = (a, b, c, d, e, f). What is shown of it is the `box`: left,
    bottom, right, top on the page. `strength`: how dark it is, from 0 to 1.
    """

    id: str
    name: str
    file: str
    page: int
    place: tuple[float, float, float, float, float, float]
    box: tuple[float, float, float, float]
    strength: float
    printed: bool
    snapped: bool

    def at(self, x: float, y: float) -> tuple[float, float]:
        """Where a point of the page lies in the view (real mm)."""
        a, b, c, d, e, f = self.place
        return a * x + c * y + e, b * x + d * y + f

    @property
    def corners(self) -> tuple[tuple[float, float], ...]:
        """The corners of what is shown of it, around, in the view (real mm)."""
        x0, y0, x1, y1 = self.box
        return self.at(x0, y0), self.at(x1, y0), self.at(x1, y1), self.at(x0, y1)


@dataclass(frozen=True, slots=True)
class Drawing:
    """A view as marks. `bounds` is x0, y0, x1, y1 of everything drawn, in real mm."""

    name: str
    title: str
    kind: Literal["plan", "elevation", "section", "schedule", "sheet"]
    scale: float
    marks: tuple[Mark, ...]
    hatches: tuple[PlacedHatch, ...] = ()
    sums: tuple[HeightSum, ...] = ()
    bounds: tuple[float, float, float, float] = (0.0, 0.0, 1.0, 1.0)
    look: tuple[float, float] = (0.0, 1.0)
    messages: tuple[str, ...] = ()
    left_out: tuple[tuple[str, str], ...] = ()
    """(key, text) of lettering for which there is no room."""
    shifts: tuple[tuple[str, float, float], ...] = ()
    """(key, right, up) of lettering that stands away from its first place, paper mm."""
    strings: tuple[tuple[str, bool], ...] = ()
    """(name, whether it is shown) of every string of dimensions that the view may have: `side:row`."""
    backdrops: tuple[Backdrop, ...] = ()
    """What lies under it: pages of files."""


def path(*points: tuple[float, float]) -> Ring:
    """A path of straight pieces."""
    return tuple((float(x), float(y), 0.0) for x, y in points)


ARROW = 2.6
"""Length of the head of an arrow (paper mm)."""


def arrow_head(back: tuple[float, float], tip: tuple[float, float], scale: float) -> Ring:
    """The filled head of an arrow that comes from one point and ends at another, at a scale."""
    (u0, w0), (u, w) = back, tip
    length = math.dist(back, tip) or 1.0
    long, wing = ARROW * scale / length, ARROW * 0.28 * scale / length
    du, dw = u - u0, w - w0
    return path(tip, *((u - du * long - s * dw * wing, w - dw * long + s * du * wing) for s in (1, -1)))


def rings_of(polygon: Polygon, circles: Sequence[tuple[float, float, float]] = ()) -> tuple[Ring, ...]:
    """The rings of a polygon as paths, outer first; chords of the circles (x, y, radius) are drawn as the arcs."""
    if circles:
        return tuple(arcs_in(ring, circles) for ring in ring_of(polygon))
    return tuple(tuple((x, y, 0.0) for x, y in ring) for ring in ring_of(polygon))


def moved(mark: Mark, dx: float, dy: float) -> Mark:
    """The mark elsewhere (real mm)."""
    if isinstance(mark, Region):
        return replace(mark, rings=tuple(_shifted(ring, dx, dy) for ring in mark.rings))
    if isinstance(mark, Stroke):
        return replace(mark, path=_shifted(mark.path, dx, dy))
    if isinstance(mark, Dimension):
        return replace(mark, x1=mark.x1 + dx, y1=mark.y1 + dy, x2=mark.x2 + dx, y2=mark.y2 + dy)
    return replace(mark, x=mark.x + dx, y=mark.y + dy)


def _shifted(path: Ring, dx: float, dy: float) -> Ring:
    return tuple((x + dx, y + dy, bulge) for x, y, bulge in path)


def readable(angle: float) -> float:
    """An angle of lettering (deg) turned so that it reads from below or from the right.

    >>> readable(180.0), readable(-90.0), readable(90.0)
    (0.0, 90.0, 90.0)
    """
    if angle > 90.001 or angle <= -89.999:
        return angle + (180.0 if angle < 0 else -180.0)
    return angle


def every_ring(shape: BaseGeometry, circles: Sequence[tuple[float, float, float]] = ()) -> list[tuple[Ring, ...]]:
    """The rings of every polygon of a shape, as `rings_of` has them; many plain ones at once."""
    plain = None if circles else plain_rings(shape)
    if plain is None:
        return [rings_of(polygon, circles) for polygon in polygons_of(shape)]
    return [(tuple((x, y, 0.0) for x, y in ring),) for ring in plain]


PITCH_RUN = 9.0
"""Paper mm of the run of a pitch triangle."""
LEVEL_KNEE = 4.5
"""Paper mm from the tip of a level mark to its lettering."""


def level_width(texts: tuple[str, ...]) -> float:
    """Paper mm that a level mark takes beside its point."""
    return LEVEL_KNEE + max(text_width(texts[0], 2.5, "bold"), text_width(texts[1], 2.5))
