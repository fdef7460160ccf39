"""Door swings: a quarter arc about a hinge, most often with the leaf as a line or a thin box."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from shapely import STRtree, points
from shapely.geometry import Point as Spot

from deepsection.core.geometry import Point

from .drawn import Stroke
from .rails import circle_of

RADII = (380.0, 1500.0)
SWEEPS = (math.radians(25), math.radians(135))


@dataclass(frozen=True, slots=True)
class Swing:
    """A quarter arc: hinge, its two ends, radius, its stroke; which end the leaf goes to (0, 1), where it is drawn."""

    hinge: Point
    ends: tuple[Point, Point]
    radius: float
    stroke: int
    leaf: int | None
    block: int
    leaf_strokes: tuple[int, ...] = ()


def swings_of(strokes: Sequence[Stroke]) -> list[Swing]:
    """The arcs that look like door swings (mm)."""
    arcs = []
    for k, stroke in enumerate(strokes):
        if not stroke.bulge:
            continue
        centre, radius = circle_of(stroke)
        sweep = 4 * abs(math.atan(stroke.bulge))
        if RADII[0] <= radius <= RADII[1] and SWEEPS[0] <= sweep <= SWEEPS[1]:
            arcs.append((k, centre, radius))
    if not arcs:
        return []
    lines = [k for k, s in enumerate(strokes) if not s.bulge and 300.0 < math.dist(s.a, s.b) < 1600.0]
    starts = np.array([p for k in lines for p in (strokes[k].a, strokes[k].b)]).reshape(-1, 2)
    tree = STRtree(points(starts)) if len(starts) else None
    found: list[Swing] = []
    seen: dict[tuple[int, int], list[Swing]] = defaultdict(list)
    for k, centre, radius in arcs:
        ends = strokes[k].a, strokes[k].b
        leaf = None
        boards = []
        if tree is not None:
            for n in tree.query(Spot(centre), predicate="dwithin", distance=90.0).tolist():
                line = strokes[lines[n // 2]]
                far = line.b if n % 2 == 0 else line.a
                if abs(math.dist(line.a, line.b) - radius) > 0.15 * radius:
                    continue
                near = [end for end in (0, 1) if math.dist(ends[end], far) < 0.15 * radius]
                if near:
                    leaf = near[0]
                    boards.append(lines[n // 2])
        swing = Swing(centre, ends, radius, k, leaf, strokes[k].block, tuple(boards))
        x, y = round(centre[0] / 60.0), round(centre[1] / 60.0)
        beside = (other for dx in (-1, 0, 1) for dy in (-1, 0, 1) for other in seen[x + dx, y + dy])
        if not any(_same(swing, other) for other in beside):
            found.append(swing)
            seen[x, y].append(swing)
    return found


def _same(one: Swing, other: Swing) -> bool:
    return (
        math.dist(one.hinge, other.hinge) < 30.0
        and abs(one.radius - other.radius) < 60.0
        and min(math.dist(one.ends[0], other.ends[0]), math.dist(one.ends[0], other.ends[1])) < 60.0
    )
