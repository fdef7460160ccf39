"""Planes that cut a house, and what of a line in them is cut."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
import shapely
from shapely.geometry import LineString, Polygon

from ..drawing.cropping import Window
from ..geometry import Frame, Point, polygons_of
from .sights import Sight


@dataclass(frozen=True, slots=True)
class Plane:
    """A plane that cuts a house, its line in plan, how it sees points in space; drawn where it lies."""

    frame: Frame
    plane: LineString
    sight: Sight
    shift: float = 0.0


def plane_of(frame: Frame, window: Window) -> Plane:
    """The plane of a frame, as far from left to right as a window shows it."""
    base = -frame.depth(0.0, 0.0)
    ends = ((u * frame.ux + base * frame.dx, u * frame.uy + base * frame.dy) for u in (window.left, window.right))
    return Plane(frame, LineString(ends), Sight(frame, start=0.0, between=(window.left, window.right)))


def cut_spans(polygons: Sequence[Polygon], start: Point, end: Point) -> Iterator[tuple[Point, Point]]:
    """From-to along a level or an upright line of what it meets of some polygons, joined where they touch."""
    line = LineString([start, end])
    met = shapely.intersection(np.array(polygons, dtype=object), line)
    for span in polygons_of(shapely.union_all(met).buffer(1.0, cap_style="flat")):
        x0, y0, x1, y1 = span.bounds
        yield ((start[0], y0), (start[0], y1)) if start[0] == end[0] else ((x0, start[1]), (x1, start[1]))
