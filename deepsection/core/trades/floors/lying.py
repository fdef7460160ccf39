"""Joists by their middle lines, and from where to where along them something bears them."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import shapely
from shapely.geometry import LineString, MultiPolygon, Polygon

from ...geometry import Point
from ...model import Framing
from .bays import Bay, Rim
from .members import floor_members
from .model import Between
from .place import FloorPlan

TOUCH = 3.0
"""What bears a joist is as near as this (mm) to it."""


@dataclass(frozen=True, slots=True)
class Lying:
    """A joist by its middle line: from-to distances along it of what bears it, in order."""

    line: LineString
    length: float
    bearings: tuple[tuple[float, float], ...]

    @property
    def between(self) -> float:
        """The stretch between the outer two places that bear it (mm)."""
        return self.bearings[-1][1] - self.bearings[0][0] if self.bearings else 0.0

    @property
    def past(self) -> float:
        """How far it runs past what bears it, at the worse end (mm)."""
        if not self.bearings:
            return self.length
        return max(self.bearings[0][0], self.length - self.bearings[-1][1])

    @property
    def middle(self) -> Point:
        """Its middle in plan."""
        (x0, y0), (x1, y1) = self.line.coords
        return (x0 + x1) / 2, (y0 + y1) / 2


def lying_joists(flat: FloorPlan, framing: Framing) -> tuple[Lying, ...]:
    """The joists of a floor or deck."""
    return _lying(flat.bays, flat.rims, framing, flat.floor.between, flat.bearing)


@lru_cache(maxsize=64)
def _lying(
    bays: tuple[Bay, ...], rims: tuple[Rim, ...], framing: Framing, between: Between, bearing: Polygon | MultiPolygon
) -> tuple[Lying, ...]:
    members = floor_members(bays, rims, framing, between)
    lines = [middle for member in members.of("joist") for middle in member.middles]
    if not lines:
        return ()
    near = bearing.buffer(TOUCH)
    shapely.prepare(near)
    found = []
    for line, on in zip(lines, shapely.intersection(np.array(lines), near)):
        start = line.coords[0]
        parts = [sorted(math.dist(start, point) for point in part.coords) for part in shapely.get_parts(on)]
        held = tuple(sorted((part[0], part[-1]) for part in parts if part))
        found.append(Lying(line, line.length, held))
    return tuple(found)
