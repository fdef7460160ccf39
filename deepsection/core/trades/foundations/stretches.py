"""Where the walls of a foundation step down, wall by wall."""

from __future__ import annotations

import itertools
from collections.abc import Iterable
from dataclasses import dataclass

import shapely
from shapely.geometry import LineString, MultiPolygon, Polygon

from ...geometry import Line, half_plane, line_through, meet, polygons_of
from ...model import FoundationStep
from ...tolerance import TOL
from ...units import Units
from ..walls.planned import PlannedWall

FAR = 1e6
"""Past any wall (mm)."""
LEAST = 100.0
"""What stands on a stretch between a step and the corner is longer than this (mm)."""

SAME = 1.0
"""Steps that cross a wall as near as this (mm) to each other are one."""


@dataclass(frozen=True, slots=True)
class Stretch:
    """A stretch of a foundation wall between steps: from-to distances along its wall, and how much lower it lies."""

    first: float
    last: float
    drop: float


def stretches_of(wall: PlannedWall, steps: Iterable[FoundationStep], thickness: float) -> tuple[Stretch, ...]:
    """The stretches of a wall from its start to its end, on a foundation wall of a thickness.

    Steps cut it square; one that crosses it within a corner does not.
    """
    held = [(step.line, step.drop) for step in steps]
    corner = max(thickness, wall.outer - wall.inner) + LEAST
    cuts = sorted(cut for line, _ in held for cut in _crossings(wall, line) if corner < cut < wall.length - corner)
    apart = [cut for k, cut in enumerate(cuts) if not k or cut - cuts[k - 1] > SAME]
    found: list[Stretch] = []
    for a, b in itertools.pairwise((-FAR, *apart, FAR)):
        middle = wall.at((max(a, 0.0) + min(b, wall.length)) / 2)
        drop = sum(drop for line, drop in held if line.left_of(middle) > 0)
        if found and abs(found[-1].drop - drop) < 1e-6:
            found[-1] = Stretch(found[-1].first, b, drop)
        else:
            found.append(Stretch(a, b, drop))
    return tuple(found)


def _crossings(wall: PlannedWall, line: Line) -> list[float]:
    """Where a line crosses a wall, as distances along it."""
    if not wall.axis.is_arc:
        met = meet(line_through(wall.start, wall.end), line)
        return [wall.axis.along(met)] if met else []
    across = LineString([line.at(-FAR), line.at(FAR)])
    points = shapely.get_coordinates(across.intersection(wall.axis.line_string())).tolist()
    return [wall.axis.along(point) for point in points]


def stepped_areas(area: Polygon | MultiPolygon, steps: Iterable[FoundationStep]) -> list[tuple[MultiPolygon, float]]:
    """An area in plan, parted by the lines of steps: (what of it, how much lower)."""
    found = [(MultiPolygon(list(polygons_of(area))), 0.0)]
    for step in steps:
        line = step.line
        # left_of is -dy x + dx y + c, positive to the left.
        a, b = -line.dy, line.dx
        parted = []
        for held, drop in found:
            left = half_plane(held.bounds, a, b, -(a * line.x + b * line.y)) or Polygon()
            low, high = (
                MultiPolygon(list(polygons_of(piece)))
                for piece in (
                    shapely.intersection(held, left, grid_size=TOL.node),
                    shapely.difference(held, left, grid_size=TOL.node),
                )
            )
            parted += [(piece, of) for piece, of in ((low, drop + step.drop), (high, drop)) if not piece.is_empty]
        found = parted
    return found


def overlap(drop: float, thickness: float, units: Units) -> float:
    """How far the footing above a step runs on over the one below it (mm).

    In feet and inches as far as it is thick. Common practice, no source. Else twice the step, the thickness, or 300 mm,
    whichever is more: Approved Document A, 2E2 (from memory).
    """
    return thickness if units == "ft-in" else max(2 * drop, thickness, 300.0)
