"""Openings that somebody marks by both of their ends, in walls that were found."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from deepsection.core.geometry import Axis, Point

from .found import FoundOpening, OpeningKind, ReadPlan

BESIDE = 150.0
"""An end is marked within this of the faces of its wall (mm)."""
NARROWEST = 100.0


@dataclass(frozen=True, slots=True)
class Marked:
    """Both ends of an opening, and what it is."""

    start: Point
    end: Point
    kind: OpeningKind


def with_openings(plan: ReadPlan, marked: Sequence[Marked]) -> ReadPlan:
    """The plan with openings that were marked, after those that were found; what lies in no wall is noted."""
    if not marked:
        return plan
    openings, notes = list(plan.openings), list(plan.notes)
    for held in marked:
        made = _opening(plan, held)
        if made is None:
            notes.append(f"a {held.kind} that was marked lies in no wall with both of its ends")
        elif any(
            other.wall == made.wall and abs(other.distance - made.distance) < (other.width + made.width) / 2 - 1.0
            for other in openings
        ):
            notes.append(f"a {held.kind} that was marked lies in an opening that was found; take that out first")
        else:
            openings.append(made)
    return replace(plan, openings=openings, notes=notes)


def _opening(plan: ReadPlan, held: Marked) -> FoundOpening | None:
    best: tuple[float, FoundOpening] | None = None
    for k, wall in enumerate(plan.walls):
        axis = Axis(wall.start, wall.end, wall.bulge)
        ends = [axis.along(point) for point in (held.start, held.end)]
        away = max(math.dist(axis.at(s), point) for s, point in zip(ends, (held.start, held.end)))
        low, high = max(min(ends), 0.0), min(max(ends), axis.length)
        if high - low < NARROWEST or away > wall.thickness / 2 + BESIDE:
            continue
        if best is None or away < best[0]:
            found = FoundOpening(k, (low + high) / 2, high - low, held.kind, 1.0, "marked by its ends")
            best = away, found
    return best[1] if best else None
