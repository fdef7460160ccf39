"""Places in a bay: how far across its joists, and how far along them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

import numpy as np
import shapely
from shapely.geometry import LineString, Polygon

from ...geometry import Line, Point, polygons_of
from ...tolerance import TOL


class Box(NamedTuple):
    """From least to greatest across the joists, and along them (mm)."""

    a0: float
    a1: float
    s0: float
    s1: float

    def meets(self, other: Box) -> bool:
        """Whether they overlap by more than points do."""
        near = TOL.point
        return (
            self.a0 < other.a1 - near
            and other.a0 < self.a1 - near
            and self.s0 < other.s1 - near
            and other.s0 < self.s1 - near
        )

    def cut_off(self, others: Sequence[Box]) -> list[Box]:
        """The stretches of it along which none of some others lies in its way."""
        left = [self]
        for other in others:
            if not self.meets(other):
                continue
            ends = [(held, (held.s0, min(held.s1, other.s0)), (max(held.s0, other.s1), held.s1)) for held in left]
            left = [Box(held.a0, held.a1, *end) for held, *both in ends for end in both if end[1] - end[0] > TOL.point]
        return left


SQUARE = 0.9999
"""What fills this share of its box is cut square."""


class Turned:
    """The frame of the joists of one direction."""

    def __init__(self, direction: tuple[float, float]) -> None:
        dx, dy = direction
        self.across, self.span = Line(0.0, 0.0, dy, -dx), Line(0.0, 0.0, dx, dy)

    def box(self, area: shapely.Geometry) -> Box:
        """The least box around an area."""
        points = shapely.get_coordinates(area)
        a = points[:, 0] * self.across.dx + points[:, 1] * self.across.dy
        s = points[:, 0] * self.span.dx + points[:, 1] * self.span.dy
        return Box(float(a.min()), float(a.max()), float(s.min()), float(s.max()))

    def boxes(self, area: shapely.Geometry) -> Iterator[Box]:
        """Those around each piece of an area."""
        return (self.box(piece) for piece in polygons_of(area))

    def at(self, across: float, along: float) -> Point:
        """The point in plan of a place."""
        a, s = self.across, self.span
        return a.dx * across + s.dx * along, a.dy * across + s.dy * along

    def middle(self, area: shapely.Geometry) -> LineString:
        """The line along the middle of a member, as far as it goes where its ends are cut at an angle."""
        box = self.box(area)
        across = (box.a0 + box.a1) / 2
        line = LineString([self.at(across, box.s0), self.at(across, box.s1)])
        if area.area > SQUARE * (box.a1 - box.a0) * (box.s1 - box.s0):
            return line
        inside = line.intersection(area)
        return inside if isinstance(inside, LineString) and not inside.is_empty else line

    def rectangle(self, a0: float, a1: float, s0: float, s1: float) -> Polygon:
        """The area between two places."""
        found: Polygon = self.rectangles([Box(a0, a1, s0, s1)])[0]
        return found

    def rectangles(self, boxes: Sequence[Box]) -> np.ndarray:
        """The areas of boxes: an array of polygons."""
        a0, a1, s0, s1 = np.array(boxes, dtype=float).reshape(-1, 4).T
        a, s = np.stack([a0, a1, a1, a0, a0], axis=1), np.stack([s0, s0, s1, s1, s0], axis=1)
        x = self.across.dx * a + self.span.dx * s
        y = self.across.dy * a + self.span.dy * s
        return np.asarray(shapely.polygons(np.stack([x, y], axis=2)))
