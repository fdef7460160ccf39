"""Where a plan comes to lie over what stands: over the house that it shows, though its file counts from another place
now, and never over another house."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator, Mapping, Sequence

import numpy as np
from shapely import MultiPoint

from ..document.motion import Motion
from ..errors import BadInput
from ..geometry import Axis, Point
from ..model import PlanRead, Project
from ..reading import ReadPlan
from .laid import STILL, laid
from .remembered import AS_BEFORE, axis_of, compared, share_as_before
from .there import TURNED, Near, covered, drawn_axis, standing_walls

LIKE = 300.0
"""A wall that lies so near to one of a plan (mm), along most of it, may be that."""
ALONG = 0.6
"""And most of it is so much."""
FEW, SUM = 0.5, 0.8
"""A house is another one than that of a plan where of neither this share of walls is in the other, or of both together
not that."""
MOST, SURE = 0.5, 0.9
"""A plan was laid elsewhere when this share of its walls is as before there; not when that of all is where it is."""
LOST = 0.25
"""And when so much more of its walls and openings are."""
OVERLAP = 0.1
"""Houses stand beside each other where they share less than this of the smaller one."""
CELL = 20.0
"""Ways that differ by less (mm) are one."""
CELL_TURN = 0.2
"""And turns that differ by less (degrees)."""
MOST_TURNS = 4
"""So many turns are tried, each either way round: walls that are square to each other speak for more than one."""


def laid_over(
    project: Project, plan: ReadPlan, levels: Mapping[int, str], reads: Mapping[str, PlanRead], chosen: Motion
) -> Motion:
    """How a plan comes to lie over what was read before, on the levels of its storeys by position; else as is chosen.

    Raises: BadInput where another house stands there.
    """
    where = chosen
    for place, level in levels.items():
        read = reads.get(level)
        if read is not None and read.walls:
            where = _elsewhere(read, plan, place)
            break
    plan = laid(plan, where)
    for place, level in levels.items():
        storey = plan.storeys[place]
        shift = storey.shift
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
    return where


def _elsewhere(read: PlanRead, plan: ReadPlan, place: int) -> Motion:
    """How a plan comes to where it was read last: moved, or turned and moved; as it is where neither says more."""
    numbers, shift = plan.storeys[place].walls, plan.storeys[place].shift
    before = [axis_of(held) for held in read.walls]
    now = [drawn_axis(plan.walls[k], shift) for k in numbers]
    _, all_ = _as_read(read, plan, place)
    if all_ >= 2 * SURE:
        return STILL
    best = all_ + LOST, STILL
    for turn in (0.0, *_turns(before, now)):
        turned = laid(plan, Motion(turn=turn))
        shift = turned.storeys[place].shift
        dx, dy = _vote(before, [drawn_axis(turned.walls[k], shift) for k in numbers])
        walls, all_ = _as_read(read, laid(turned, Motion(dx=dx, dy=dy)), place)
        if walls >= MOST and all_ > best[0]:
            best = all_, Motion(dx=dx, dy=dy, turn=turn)
    return best[1]


def _as_read(read: PlanRead, plan: ReadPlan, place: int) -> tuple[float, float]:
    """How much of the walls that were read last, by length, is as it was; and the same of walls and openings."""
    storey = plan.storeys[place]
    drawn = {k: plan.walls[k] for k in storey.walls}
    walls = share_as_before(read, drawn, storey.shift)
    same = len(compared(read, plan, drawn, storey.shift).openings)
    return walls, walls + same / max(len(read.openings), 1)


def _turns(before: Sequence[Axis], now: Sequence[Axis]) -> Iterator[float]:
    """The turns (degrees) from walls to walls of the same length that most length speaks for, either way round."""
    cells = round(180.0 / CELL_TURN)
    said, turns = np.zeros(cells), np.zeros(cells)
    lengths = np.array([axis.length for axis in before])
    headings = np.array([_heading(axis) for axis in before])
    for axis in now:
        like = (headings[abs(lengths - axis.length) < AS_BEFORE] - _heading(axis)) % 180.0
        # A turn counts for both cells that it lies between, so that none is parted.
        for cell in (np.floor(like / CELL_TURN).astype(int), np.ceil(like / CELL_TURN).astype(int)):
            np.add.at(said, cell % cells, axis.length)
            np.add.at(turns, cell % cells, axis.length * (like - cell * CELL_TURN))
    for best in np.argsort(-said)[:MOST_TURNS]:
        if said[best] > 0.0:
            turn = float(best * CELL_TURN + turns[best] / said[best])
            yield from (round(math.remainder(way, 360.0), 4) for way in (turn, turn + 180.0))


def _heading(axis: Axis) -> float:
    """Which way a wall runs, from its start to its end (degrees)."""
    return math.degrees(math.atan2(axis.end[1] - axis.start[1], axis.end[0] - axis.start[0]))


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
    near = Near(others)
    like = sum(axis.length for axis in axes if any(_like(axis, others[k]) for k in near.to(axis, LIKE)))
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
