"""Strings of dimensions of plans of floors: edges, what bears, holes and grid lines, below and at the left."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import pairwise

import shapely

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
    """Below and at the left: from edge to edge over what bears and the lines of the grid, then over all.

    `holes`: with the edges of holes.
    """
    box = shown.frame.turn(flat.area).bounds
    for axis in (0, 1):
        places = sorted(_places(shown, flat, axis, holes))
        apart = [at for k, at in enumerate(places) if not k or at - places[k - 1] > SAME]
        if apart and places[-1] - apart[-1] > 0.0:
            apart[-1] = places[-1]
        chains = [list(pairwise(apart)), [(apart[0], apart[-1])]] if len(apart) > 2 else [list(pairwise(apart))]
        for offset, chain in zip(STRINGS, chains):
            high = False
            for a, b in chain:
                (u0, w0), (u1, w1) = ((a, box[1]), (b, box[1])) if axis == 0 else ((box[0], b), (box[0], a))
                text = format_measured(b - a, shown.project.units)
                # Of figures wider than their measure, each other one is raised past its neighbour.
                high = len(text) * LETTER * shown.scale > b - a and not high
                raised, key = (RAISED if high else 0.0), f"{flat.floor.id}/bearing//"
                yield Dimension(u0, w0, u1, w1, -offset, text, part=key, feature="string", raised=raised)


def _places(shown: PlanOf, flat: FloorPlan, axis: int, holes: bool) -> Iterator[float]:
    """Where edges, bearings and lines of the grid lie along an axis of the drawing."""
    frame = shown.frame
    for bay in flat.bays:
        for area in (bay.region, *((hole for _, hole in bay.holes) if holes else ())):
            points = shapely.get_coordinates(frame.turn(area))
            yield from (float(points[:, axis].min()), float(points[:, axis].max()))
        for support in bay.supports:
            ends = [frame.plan_to_turned(*point)[axis] for point in (support.line[0], support.line[-1])]
            if abs(ends[0] - ends[1]) < SAME:
                yield sum(ends) / 2
    low, high = (frame.turn(flat.area).bounds[k] for k in (axis, axis + 2))
    for line in shown.project.grid:
        along = math.radians(line.angle)
        run = frame.plan_to_turned(math.cos(along), math.sin(along))
        at = frame.plan_to_turned(line.x, line.y)[axis]
        if abs(run[axis]) < 1e-6 and low - SAME < at < high + SAME:
            yield at
