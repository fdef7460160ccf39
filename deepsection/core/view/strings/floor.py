"""Strings of dimensions of plans of floors: edges, what bears, holes and grid lines, below and at the left."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial

from ...drawing.chains import Place, String, distinct
from ...geometry import Point
from ...model import GridLine
from ...trades.floors.place import FloorPlan
from ..setting import Setting
from .axes import Axes
from .making import made

ROWS = (("bearing", 8.0), ("overall", 17.0))
"""The strings of a side, and how far they lie from the floor (paper mm)."""
SAME = 20.0
"""Places as near as this (mm) are one in a string."""


def floor_strings(axes: Axes, flat: FloorPlan, setting: Setting, *, holes: bool = False) -> Iterator[String]:
    """Below and at the left, along the axes of a floor: from edge to edge over what bears and the lines of the grid,
    then over all.

    `holes`: with the edges of holes.
    """
    low_a, low_b, *_ = axes.turned(flat.area).bounds
    for axis, side in enumerate(("bottom", "left")):
        apart = _edged(sorted(_places(axes, flat, setting.grid, axis, holes), key=lambda place: place.at))
        for (row, offset), places in zip(ROWS, (apart, [apart[0], apart[-1]])):
            name = f"{side}:{row}"
            if row == "overall" and len(apart) < 3:
                continue
            line, away = partial(_line, axes, axis, (low_a, low_b)), -offset if axis == 0 else offset
            yield made(setting, name, places, line, away, feature="string", part=f"{flat.floor.id}/bearing//")


def _line(axes: Axes, axis: int, corner: Point, start: float, end: float) -> tuple[float, float, float, float]:
    """The ends of a stretch at an edge of a floor, on the drawing."""
    a, b = ((at, corner[1]) if axis == 0 else (corner[0], at) for at in (start, end))
    return *axes.drawn(*a), *axes.drawn(*b)


def _edged(places: list[Place]) -> list[Place]:
    """Places that are apart, the last of them the edge itself."""
    apart = distinct(places, SAME)
    return [*apart[:-1], places[-1]] if len(apart) > 1 else apart


def _places(axes: Axes, flat: FloorPlan, grid: tuple[GridLine, ...], axis: int, holes: bool) -> Iterator[Place]:
    """Where edges, bearings and lines of the grid lie along an axis."""
    for bay in flat.bays:
        for id, area in ((bay.slot, bay.region), *(bay.holes if holes else ())):
            bounds = axes.turned(area).bounds
            yield from (Place(bounds[axis], f"{id}.start"), Place(bounds[axis + 2], f"{id}.end"))
        for support in bay.supports:
            start, end = (axes.local(*point)[axis] for point in (support.line[0], support.line[-1]))
            if abs(start - end) < SAME:
                yield Place((start + end) / 2, support.name)
    bounds = axes.turned(flat.area).bounds
    for line in grid:
        along = math.radians(line.angle)
        start, end = (
            axes.local(line.x + math.cos(along) * far, line.y + math.sin(along) * far)[axis] for far in (0.0, 1.0)
        )
        if abs(end - start) < 1e-6 and bounds[axis] - SAME < start < bounds[axis + 2] + SAME:
            yield Place(start, line.id)
