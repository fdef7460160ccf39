"""What a window shows of the marks of a view: cut off at its edges, and pushed together where it has breaks.

Marks are cut after geometry and before lettering: quilt and diagonals are those of the whole piece, and an edge that
the window makes carries no pen.
"""

from __future__ import annotations

import itertools
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np
import shapely
from shapely import affinity
from shapely.geometry import LineString, Point, Polygon

from .clipping import Extent, areas_within, lines_within, made_valid
from .marks import Dimension, Mark, Region, Stroke, moved, rings_of
from .outlines import Shapes, areas_of, closed, lines_of

NEAR = 1e-6
"""Heights closer than this (mm) are one."""


FAR = 1e6
"""Below and above any house (mm)."""


@dataclass(frozen=True, slots=True)
class Band:
    """What is shown from one height to another (mm in the view), drawn so much higher; or from left to right, aside."""

    low: float
    high: float
    shift: float = 0.0


@dataclass(frozen=True, slots=True)
class Window:
    """From left to right, and some bands of heights from the lowest to the highest, which overlap nowhere.

    `columns`: bands from left to right, where some of that is left out too; none where all is shown.
    """

    left: float
    right: float
    bands: tuple[Band, ...] = (Band(-FAR, FAR),)
    columns: tuple[Band, ...] = ()

    @property
    def low(self) -> float:
        """The lowest height that it shows."""
        return self.bands[0].low

    @property
    def high(self) -> float:
        """The highest height that it shows."""
        return self.bands[-1].high

    @property
    def tall(self) -> float:
        """How high all of it is as it is drawn (mm in the view)."""
        first, last = self.bands[0], self.bands[-1]
        return last.high + last.shift - first.low - first.shift

    @property
    def outline(self) -> Polygon:
        """All of it, breaks included."""
        return shapely.box(self.left, self.low, self.right, self.high)

    def at(self, v: float) -> float:
        """Where a height is drawn: one that a break leaves out in the middle of that, one past an end as far past it.

        >>> window = Window(0.0, 1.0, (Band(0.0, 10.0, 5.0), Band(50.0, 60.0, -25.0)))
        >>> [window.at(v) for v in (0.0, 10.0, 30.0, 50.0, 61.0)]
        [5.0, 15.0, 20.0, 25.0, 36.0]
        """
        return _drawn(self.bands, v)

    def across(self, u: float) -> float:
        """Where a place from left to right is drawn, in the same way."""
        return _drawn(self.columns, u) if self.columns else u

    def holds(self, u: float, v: float) -> bool:
        """Whether it shows a place, one on its edge too."""
        return self.left - NEAR <= u <= self.right + NEAR and self.shows_height(v)

    def shows_across(self, u: float) -> bool:
        """Whether a place from left to right is in none of its breaks."""
        return not self.columns or any(held.low - NEAR <= u <= held.high + NEAR for held in self.columns)

    def drawn(self, shape: Polygon) -> Polygon:
        """A shape where its middle is drawn."""
        x0, y0, x1, y1 = shape.bounds
        u, v = (x0 + x1) / 2, (y0 + y1) / 2
        return affinity.translate(shape, self.across(u) - u, self.at(v) - v)

    def shows_height(self, v: float) -> bool:
        """Whether a height is in none of its breaks, nor past its ends."""
        return any(band.low - NEAR <= v <= band.high + NEAR for band in self.bands)


def _drawn(bands: Sequence[Band], at: float) -> float:
    """Where a place is drawn that lies in one of some bands, between two of them, or past their ends."""
    for band, after in itertools.pairwise(bands):
        if at <= band.high:
            return at + band.shift
        if at < after.low:
            share = (at - band.high) / (after.low - band.high)
            return band.high + band.shift + share * (after.low + after.shift - band.high - band.shift)
    return at + bands[-1].shift


Rehatch = Callable[[int, float, float], int]
"""The index of a hatch that lies so far to the right of another one, and so much higher."""


def cropped(marks: Sequence[Mark], window: Window, rehatch: Rehatch) -> list[Mark]:
    """Strokes and regions as a window shows them, in their order; other marks where their place is shown."""
    shapes = _shapes(marks)
    boxes = shapely.bounds(shapes)
    shown: list[list[Mark]] = [[] for _ in marks]
    for column, band in itertools.product(window.columns or (Band(window.left, window.right),), window.bands):
        if column.high <= column.low or band.high <= band.low:
            continue
        out = (boxes[:, 0] > column.high) | (boxes[:, 2] < column.low)
        out |= (boxes[:, 1] > band.high) | (boxes[:, 3] < band.low)
        whole = (boxes[:, 0] >= column.low) & (boxes[:, 2] <= column.high)
        whole &= (boxes[:, 1] >= band.low) & (boxes[:, 3] <= band.high)
        part = np.flatnonzero(~out & ~whole)
        cut = _pieces([marks[k] for k in part.tolist()], shapes[part], (column.low, band.low, column.high, band.high))
        held = dict(zip(part.tolist(), cut))
        for k in np.flatnonzero(~out).tolist():
            pieces = held.get(k, [marks[k]])
            shown[k] += [_moved(piece, column.shift, band.shift, rehatch) for piece in pieces]
    return [piece for pieces in shown for piece in pieces]


def _shapes(marks: Sequence[Mark]) -> Shapes:
    """(n,) areas of regions, lines of strokes, points of lettering."""
    shapes = np.empty(len(marks), dtype=object)
    areas = [k for k, mark in enumerate(marks) if isinstance(mark, Region)]
    lines = [k for k, mark in enumerate(marks) if isinstance(mark, Stroke)]
    shapes[areas] = areas_of([marks[k].rings for k in areas])  # type: ignore[union-attr]
    strokes = [marks[k] for k in lines]
    paths = [closed(held.path) if held.closed else held.path for held in strokes if isinstance(held, Stroke)]
    shapes[lines] = lines_of(paths)
    for k, mark in enumerate(marks):
        if isinstance(mark, Dimension):
            shapes[k] = LineString([(mark.x1, mark.y1), (mark.x2, mark.y2)])
        elif not isinstance(mark, (Region, Stroke)):
            shapes[k] = Point(mark.x, mark.y)
    return shapes


def _pieces(marks: Sequence[Mark], shapes: Shapes, box: Extent) -> list[list[Mark]]:
    """What lies in a box of each of some marks that reach past it."""
    found: list[list[Mark]] = [[] for _ in marks]
    areas = [(k, mark) for k, mark in enumerate(marks) if isinstance(mark, Region)]
    whole = made_valid(shapes[[k for k, _ in areas]])
    for (k, mark), pieces in zip(areas, areas_within(whole, box)):
        found[k] += [replace(mark, rings=rings_of(piece), pen=None) for piece in pieces]
    penned = [n for n, (_, mark) in enumerate(areas) if mark.pen]
    drawn = [(areas[n][0], _outline(areas[n][1])) for n in penned]
    strokes = [(k, mark) for k, mark in enumerate(marks) if isinstance(mark, Stroke)]
    lines = np.concatenate([shapely.boundary(whole[penned]), shapes[[k for k, _ in strokes]]])
    for (k, stroke), held in zip((*drawn, *strokes), lines_within(lines, box)):
        found[k] += [replace(stroke, path=own, closed=False) for own in held]
    return found


def _outline(mark: Region) -> Stroke:
    """The stroke around a region, its path yet to be told."""
    assert mark.pen
    return Stroke((), mark.pen, part=mark.part, feature=mark.feature, sum=mark.sum, annotation=mark.annotation)


def _moved(mark: Mark, aside: float, rise: float, rehatch: Rehatch) -> Mark:
    if aside == 0.0 and rise == 0.0:
        return mark
    if isinstance(mark, Region) and mark.hatch is not None:
        mark = replace(mark, hatch=rehatch(mark.hatch, aside, rise))
    return moved(mark, aside, rise)
