"""Walls as a network: which hang together, which rooms they enclose, which of them face the outside."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from shapely import Polygon, contains_xy, prepare, unary_union
from shapely.geometry.base import BaseGeometry

from .groups import Groups
from .joints import End
from .runs import Run

SMALLEST_ROOM = 0.8e6
"""Rooms are larger than this (mm2)."""


@dataclass(frozen=True, slots=True)
class Enclosed:
    """The outline of all that walls enclose, and the rooms in it."""

    outline: BaseGeometry
    rooms: tuple[Polygon, ...]


def components(runs: Sequence[Run], ends: Sequence[tuple[End, End]]) -> list[int]:
    """For each wall the number of the group of walls that it hangs together with."""
    groups = Groups(len(runs))
    for k, pair in enumerate(ends):
        for end in pair:
            if end.kind != "free":
                groups.join(k, end.other)
    return [groups.of(k) for k in range(len(runs))]


def enclosed(runs: Sequence[Run], ends: Sequence[tuple[End, End]]) -> Enclosed:
    """What walls enclose, their openings taken as closed."""
    bands = []
    for run, (first, last) in zip(runs, ends):
        lo = min(run.s0, first.s) - (run.t / 2 if first.kind == "corner" else 0)
        hi = max(run.s1, last.s) + (run.t / 2 if last.kind == "corner" else 0)
        if hi - lo > 1:
            bands.append(run.band(lo, hi, 1.0).buffer(0))
    body = unary_union(bands).buffer(2.0, join_style="mitre")
    shapes = [body] if body.geom_type == "Polygon" else list(getattr(body, "geoms", []))
    shapes = [shape for shape in shapes if isinstance(shape, Polygon)]
    rooms = [Polygon(ring) for shape in shapes for ring in shape.interiors]
    return Enclosed(
        unary_union([Polygon(shape.exterior) for shape in shapes if shape.interiors]),
        tuple(room for room in rooms if room.area > SMALLEST_ROOM),
    )


def outsides(runs: Sequence[Run], around: Enclosed) -> list[tuple[bool, str]]:
    """For each wall whether it faces the outside, and on which side it does."""
    prepare(around.outline)
    found = []
    for run in runs:
        shares = []
        for side in (1, -1):
            spots = [run.at(run.s0 + (run.s1 - run.s0) * k / 10, side * (run.t / 2 + 60.0)) for k in range(1, 10)]
            shares.append(float((~contains_xy(around.outline, np.array(spots))).mean()))
        outer = max(shares) > 0.5
        found.append((outer, "left" if shares[0] >= shares[1] else "right"))
    return found
