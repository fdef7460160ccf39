"""Where what clads walls begins at the edge of a floor, and where its courses do."""

from __future__ import annotations

from collections import defaultdict

import shapely

from ...model import Floor, Foundation, MakeUp
from ...tolerance import TOL
from ..levels.placed import Level
from ..walls.planned import PlannedWall, WallPlan
from .profiles import is_timber


def floor_edges(
    floors: tuple[Floor, ...], foundations: tuple[Foundation, ...], levels: dict[str, Level]
) -> dict[str, float]:
    """Per level of a floor, the height down to which cladding covers its edge: the plate, or the foundation."""
    edges = {floor.level: levels[floor.bearing].z for floor in floors}
    for held in foundations:
        if held.level in edges and held.top:
            edges[held.level] = levels[held.top].z
    return edges


def masonry_feet(
    floors: tuple[Floor, ...], levels: dict[str, Level], make_ups: dict[str, MakeUp]
) -> dict[tuple[str, str], float]:
    """Per level of a floor and status of walls, where the masonry begins that bears: of outer walls at what carries the
    floor, which is built into it; of inner ones on what carries, where that is concrete.
    """
    feet = {}
    for floor in floors:
        make_up, low = make_ups[floor.make_up], levels[floor.bearing].z
        feet[floor.level, "outer"] = low
        if make_up.carrying is not None and not is_timber(carrying := make_up.layers[make_up.carrying]):
            feet[floor.level, "inner"] = low + carrying.thickness
    return feet


def course_starts(
    floors: tuple[Floor, ...],
    edges: dict[str, float],
    plan: WallPlan,
    levels: dict[str, Level],
    make_ups: dict[str, MakeUp],
) -> dict[str, float]:
    """Per wall, the height at which its courses and boards start: where they stand.

    On a wall of the storey below that has the same outside they run through from there.
    """
    bearings = {floor.level: floor.bearing for floor in floors}
    below: dict[tuple[str, str], list[PlannedWall]] = defaultdict(list)
    for wall in plan.walls:
        if wall.wall.status == "outer" and not wall.wall.base.offset:
            below[wall.wall.top.level, _outside(wall, make_ups)].append(wall)

    def start(wall: PlannedWall, above: frozenset[str] = frozenset()) -> float:
        level = wall.wall.base.level
        under = below.get((bearings.get(level, ""), _outside(wall, make_ups)), [])
        stands_on = next((held for held in under if held.wall.id not in above and _stacked(held, wall)), None)
        if stands_on is None:
            return edges.get(level, levels[level].z)
        return start(stands_on, above | {wall.wall.id})

    return {wall.wall.id: start(wall) for wall in plan.walls}


def _outside(wall: PlannedWall, make_ups: dict[str, MakeUp]) -> str:
    """The material of what is seen of a wall from outside."""
    return make_ups[wall.wall.make_up].layers[0].material


STACKED = 300.0
"""A wall stands on another one that runs along it within this distance (mm)."""


def _stacked(below: PlannedWall, above: PlannedWall) -> bool:
    """Whether the middle of a wall lies over another one that runs the same way, or one of an arc over an arc."""
    (ax, ay), (bx, by) = above.run, below.run
    along = below.axis.is_arc or above.axis.is_arc or abs(ax * by - ay * bx) < TOL.parallel * 1e3
    middle = shapely.Point(above.at(above.length / 2))
    return along and below.axis.line_string().distance(middle) < STACKED
