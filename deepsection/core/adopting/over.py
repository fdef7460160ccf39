"""Where a plan comes to lie over what stands: over the house that it shows, though its file counts from another place
now, and never over another house."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence

import numpy as np
from shapely import MultiPoint

from ..errors import BadInput
from ..geometry import Axis, Point
from ..model import PlanRead, Project
from ..reading import ReadPlan
from .remembered import AS_BEFORE, axis_of, share_as_before
from .there import TURNED, covered, drawn_axis, standing_walls

LIKE = 300.0
"""A wall that lies so near to one of a plan (mm), along most of it, may be that."""
ALONG = 0.6
"""And most of it is so much."""
FEW, SUM = 0.5, 0.8
"""A house is another one than that of a plan where of neither this share of walls is in the other, or of both together
not that."""
MOST = 0.5
"""A plan has been laid elsewhere when this share of its walls is as before there, and less than `LOST` where it is."""
LOST = 0.25
OVERLAP = 0.1
"""Houses stand beside each other where they share less than this of the smaller one."""
CELL = 20.0
"""Ways that differ by less (mm) are one."""


def laid_over(project: Project, plan: ReadPlan, levels: Mapping[int, str], reads: Mapping[str, PlanRead]) -> Point:
    """How far a plan is to be moved (mm) to lie over what was read before, on the levels of its storeys by position.

    Raises: BadInput where another house stands there.
    """
    by = 0.0, 0.0
    for place, level in levels.items():
        read = reads.get(level)
        if read is not None and read.walls:
            by = _moved_by(read, plan, place)
            break
    for place, level in levels.items():
        storey = plan.storeys[place]
        shift = storey.shift[0] + by[0], storey.shift[1] + by[1]
        drawn = [drawn_axis(plan.walls[k], shift) for k in storey.walls]
        standing = [one.axis for one in standing_walls(project, level)]
        read = reads.get(level)
        if not standing or not drawn:
            continue
        if read is not None and share_as_before(read, {k: plan.walls[k] for k in storey.walls}, shift) >= MOST:
            continue
        if _share_ground(standing, drawn) and not _same_house(standing, drawn):
            raise BadInput(
                "another house stands where this plan lies: most of its walls are not in the plan. Read the plan into a"
                " project of its own, or remove what stands there first",
                field="file",
            )
    return by


def _moved_by(read: PlanRead, plan: ReadPlan, place: int) -> Point:
    """How far a plan lies from where it was read last (mm); nothing where it is not the same elsewhere."""
    storey = plan.storeys[place]
    drawn = {k: plan.walls[k] for k in storey.walls}
    if share_as_before(read, drawn, storey.shift) >= LOST:
        return 0.0, 0.0
    by = _vote([axis_of(held) for held in read.walls], [drawn_axis(wall, storey.shift) for wall in drawn.values()])
    shift = storey.shift[0] + by[0], storey.shift[1] + by[1]
    return by if share_as_before(read, drawn, shift) >= MOST else (0.0, 0.0)


def _vote(before: Sequence[Axis], now: Sequence[Axis]) -> Point:
    """The way from walls to walls of the same length and direction that most length speaks for (mm)."""
    votes: dict[tuple[int, int], list[tuple[float, float, float]]] = defaultdict(list)
    lengths = np.array([axis.length for axis in before])
    middles = np.array([axis.at(axis.length / 2) for axis in before])
    ways = np.array([axis.direction(axis.length / 2) for axis in before])
    for axis in now:
        dx, dy = axis.direction(axis.length / 2)
        x, y = axis.at(axis.length / 2)
        like = (abs(lengths - axis.length) < AS_BEFORE) & (abs(ways[:, 0] * dy - ways[:, 1] * dx) < TURNED)
        for mx, my in middles[like]:
            way = float(mx) - x, float(my) - y
            votes[round(way[0] / CELL), round(way[1] / CELL)].append((*way, axis.length))
    if not votes:
        return 0.0, 0.0
    best = np.array(max(votes.values(), key=lambda held: sum(vote[2] for vote in held)))
    east, north = np.average(best[:, :2], axis=0, weights=best[:, 2])
    return round(float(east), 1), round(float(north), 1)


def _same_house(standing: Sequence[Axis], drawn: Sequence[Axis]) -> bool:
    """Whether most of what stands is in the plan, or most of the plan stands."""
    shares = _share(standing, drawn), _share(drawn, standing)
    return max(shares) >= FEW and sum(shares) >= SUM


def _share(axes: Sequence[Axis], others: Sequence[Axis]) -> float:
    """How much of walls, by length, has a wall like it among others."""
    like = sum(axis.length for axis in axes if any(_like(axis, other) for other in others))
    return like / max(sum(axis.length for axis in axes), 1.0)


def _like(axis: Axis, other: Axis) -> bool:
    if axis.is_arc != other.is_arc or covered(axis, other) < ALONG * axis.length:
        return False
    middle = axis.at(axis.length / 2)
    a, b = axis.direction(axis.length / 2), other.direction(other.along(middle))
    return abs(other.left_of(middle)) <= LIKE and abs(a[0] * b[1] - a[1] * b[0]) < TURNED


def _share_ground(standing: Sequence[Axis], drawn: Sequence[Axis]) -> bool:
    """Whether what stands and a plan cover some of the same ground."""
    one, other = (
        MultiPoint([end for axis in axes for end in (axis.start, axis.end)]).convex_hull for axes in (standing, drawn)
    )
    return bool(one.intersection(other).area > OVERLAP * min(one.area, other.area))
