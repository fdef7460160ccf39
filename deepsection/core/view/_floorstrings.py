"""Strings of dimensions of plans of floors: edges, what bears, holes and grid lines, below and at the left."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import pairwise

import numpy as np
import shapely
from numpy.typing import NDArray

from ..building.kind import PlanOf
from ..drawing import LETTER, Dimension, Mark
from ..trades.floors.place import FloorPlan
from ..units import format_measured

STRINGS = (7.0, 14.0)
"""How far strings of dimensions lie from the floor (paper mm)."""
RAISED = 3.0
"""How far a narrow figure is raised (paper mm)."""
SAME = 20.0
"""Places as near as this (mm) are one in a string."""


def floor_strings(shown: PlanOf, flat: FloorPlan, *, holes: bool = False) -> Iterator[Mark]:
    """Below and at the left, square to the joists of the largest bay however the house is turned: from edge to edge
    over what bears and the lines of the grid, then over all.

    `holes`: with the edges of holes.
    """
    axes = _axes(shown, flat)
    low = _local(shown, axes, flat.area).min(axis=0)
    for axis in (0, 1):
        places = sorted(_places(shown, flat, axes, axis, holes))
        apart = [at for k, at in enumerate(places) if not k or at - places[k - 1] > SAME]
        if apart and places[-1] - apart[-1] > 0.0:
            apart[-1] = places[-1]
        chains = [list(pairwise(apart)), [(apart[0], apart[-1])]] if len(apart) > 2 else [list(pairwise(apart))]
        for offset, chain in zip(STRINGS, chains):
            high = False
            for a, b in chain:
                ends = ((a, low[1]), (b, low[1])) if axis == 0 else ((low[0], b), (low[0], a))
                (u0, w0), (u1, w1) = (np.array(ends) @ axes).tolist()
                text = format_measured(b - a, shown.project.units)
                # Of figures wider than their measure, each other one is raised past its neighbour.
                high = len(text) * LETTER * shown.scale > b - a and not high
                raised, key = (RAISED if high else 0.0), f"{flat.floor.id}/bearing//"
                yield Dimension(u0, w0, u1, w1, -offset, text, part=key, feature="string", raised=raised)


def _axes(shown: PlanOf, flat: FloorPlan) -> NDArray[np.float64]:
    """Unit vectors on the drawing, one below the other: that of the largest bay which leads most to the right, and the
    one to its left."""
    bay = max(flat.bays, key=lambda held: held.region.area)
    du, dw = shown.frame.plan_to_turned(*bay.direction)
    u, w = max(((du, dw), (-du, -dw), (-dw, du), (dw, -du)), key=lambda held: round(held[0], 9))
    return np.array([[u, w], [-w, u]])


def _local(shown: PlanOf, axes: NDArray[np.float64], area: shapely.Geometry) -> NDArray[np.float64]:
    """(n, 2) places of the corners of an area along the axes."""
    found: NDArray[np.float64] = shapely.get_coordinates(shown.frame.turn(area)) @ axes.T
    return found


def _places(shown: PlanOf, flat: FloorPlan, axes: NDArray[np.float64], axis: int, holes: bool) -> Iterator[float]:
    """Where edges, bearings and lines of the grid lie along an axis."""
    for bay in flat.bays:
        for area in (bay.region, *((hole for _, hole in bay.holes) if holes else ())):
            points = _local(shown, axes, area)[:, axis]
            yield from (float(points.min()), float(points.max()))
        for support in bay.supports:
            ends = _local(shown, axes, shapely.LineString([support.line[0], support.line[-1]]))[:, axis]
            if abs(ends[0] - ends[1]) < SAME:
                yield float(ends.mean())
    whole = _local(shown, axes, flat.area)[:, axis]
    for line in shown.project.grid:
        along = math.radians(line.angle)
        far = line.x + math.cos(along), line.y + math.sin(along)
        a, b = _local(shown, axes, shapely.LineString([(line.x, line.y), far]))[:, axis]
        if abs(b - a) < 1e-6 and whole.min() - SAME < a < whole.max() + SAME:
            yield float(a)
