"""Junctions of walls with each other, with floors, ceilings and the ground."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator

import shapely

from ..resolve import Building, PlannedWall, storeys
from ..trades.ceilings.place import CEILINGS
from ..trades.floors.bays import Bay
from ..trades.floors.place import FLOORS, FloorPlan
from ..trades.foundations.place import FOUNDATIONS
from ..trades.walls.joins import back_host
from ..trades.walls.model import TeeJoint
from .facts import layers_of, rounded
from .junction import End, Fact, Junction
from .lines import along_wall, upright

ACROSS = 0.7
"""Joists lie across a wall when they turn to it by more than this (cosine), else along it."""
BESIDE = 300.0
"""A ceiling lies at a wall when its joists come this near to it (mm)."""
TOUCH = 40.0
"""A floor lies at a wall when it is this near to its inner face (mm)."""


def wall_junctions(building: Building) -> Iterator[Junction]:
    """Corners, walls on walls, feet, footings, floor edges, ceilings at walls."""
    yield from _corners(building)
    yield from _ceilings(building)
    for floor in building[FLOORS]:
        yield from _floor(building, floor)
    yield from _feet(building)


def _height(building: Building, wall: PlannedWall) -> tuple[float, float]:
    """From the foot of a wall to the level that it ends at, or to its own height."""
    base = building.levels[wall.wall.base.level].z + wall.wall.base.offset
    top = wall.wall.top
    if top.height is not None:
        return base, base + top.height
    return base, building.levels[top.level].z + top.offset if top.level else base


def _corners(building: Building) -> Iterator[Junction]:
    """Where two outer walls of a storey end at one point, and where a wall ends on another one."""
    by_joint: dict[tuple[str, str], list[tuple[PlannedWall, float]]] = defaultdict(list)
    tees = {joint.id: joint for joint in building.placed.project.joints if isinstance(joint, TeeJoint)}
    for wall in building.plan.walls:
        for joint, along in ((wall.wall.start, 0.0), (wall.wall.end, wall.length)):
            by_joint[joint, wall.wall.base.level].append((wall, along))
    for (joint, _), held in sorted(by_joint.items()):
        outer = [one for one in held if one[0].wall.status == "outer"]
        if joint in tees:
            for wall, along in held:
                other = building.plan.by_id.get(tees[joint].wall)
                if other is not None:
                    yield _on_wall(building, joint, wall, along, other)
        elif len(outer) == 2:
            yield _corner(building, joint, outer)
            for wall, along in (one for one in held if one[0].wall.status != "outer"):
                host = back_host(_goes(wall, along), (_goes(*outer[0]), _goes(*outer[1])))
                if host is not None:
                    yield _on_wall(building, joint, wall, along, outer[host][0])


def _goes(wall: PlannedWall, along: float) -> float:
    """Where a wall goes from one of its ends (radians)."""
    dx, dy = wall.axis.direction(along)
    return math.atan2(dy, dx) if along == 0.0 else math.atan2(-dy, -dx)


def _corner(building: Building, joint: str, held: list[tuple[PlannedWall, float]]) -> Junction:
    (one, at), (other, there) = sorted(held, key=lambda each: each[0].wall.id)
    ways = []
    for wall, along in ((one, at), (other, there)):
        dx, dy = wall.axis.direction(along)
        # Away from the corner, along the wall.
        ways.append((dx, dy) if along == 0.0 else (-dx, -dy))
    (ax, ay), (bx, by) = ways
    between = math.degrees(math.acos(max(-1.0, min(1.0, ax * bx + ay * by))))
    ox, oy = one.stand(at).out
    inside = bx * ox + by * oy > 0
    low, high = _height(building, one)
    ends = tuple(End(wall.wall.id, "end", joint) for wall in (one, other))
    make_ups = sorted((layers_of(building, wall.wall.make_up) for wall in (one, other)), key=repr)
    facts: tuple[tuple[str, Fact], ...] = (
        ("angle", rounded(between)),
        ("turn", "inside" if inside else "outside" if between < 179.95 else "straight on"),
        ("walls", tuple(make_ups)),
    )
    return Junction("wall_corner", ends, upright(one, at, low, high), facts)


def _on_wall(building: Building, joint: str, wall: PlannedWall, along: float, other: PlannedWall) -> Junction:
    low, high = _height(building, wall)
    facts: tuple[tuple[str, Fact], ...] = (
        ("wall", layers_of(building, wall.wall.make_up)),
        ("on", layers_of(building, other.wall.make_up)),
        ("outer", wall.wall.status == "outer"),
    )
    ends = End(wall.wall.id, "end", joint), End(other.wall.id, "side")
    return Junction("wall_on_wall", ends, upright(wall, along, low, high), facts)


def _ceilings(building: Building) -> Iterator[Junction]:
    for ceiling in building[CEILINGS]:
        for wall in building.plan.walls:
            if wall.wall.status != "outer" or wall.wall.top.level != ceiling.level.id or wall.wall.base.on_roof:
                continue
            if min((bay.region.distance(wall.footprint) for bay in ceiling.bays), default=math.inf) > BESIDE:
                continue
            ends = End(ceiling.ceiling.id, "edge"), End(wall.wall.id, "top")
            facts: tuple[tuple[str, Fact], ...] = (
                ("ceiling", layers_of(building, ceiling.ceiling.make_up)),
                ("wall", layers_of(building, wall.wall.make_up)),
                ("joists", _lie(ceiling.bays, wall)),
            )
            runs = along_wall(wall, 0.0, wall.length, wall.inner, ceiling.level.z)
            yield Junction("ceiling_edge", ends, runs, facts)


def _lie(bays: tuple[Bay, ...], wall: PlannedWall) -> str:
    """How the joists of a floor lie at a wall: those of its bay that is nearest to the middle of the wall."""
    if not bays:
        return "none"
    middle = shapely.Point(wall.at(wall.length / 2, wall.inner))
    bay = min(bays, key=lambda held: (held.region.distance(middle), held.slot))
    out = wall.stand(wall.length / 2).out
    return "across" if abs(bay.direction[0] * out[0] + bay.direction[1] * out[1]) > ACROSS else "along"


def _floor(building: Building, floor: FloorPlan) -> Iterator[Junction]:
    """Edges of a floor at the outer walls that stand on it, and inner walls that it bears on."""
    id, make_up, area = floor.floor.id, layers_of(building, floor.floor.make_up), floor.area
    for wall in building.plan.walls if floor.bays else ():
        outer = wall.wall.status == "outer"
        stands = outer and wall.wall.base.level == floor.floor.level
        bears = not outer and wall.wall.bears and wall.wall.top.level == floor.under.id
        # It stands along or under what the floor covers.
        if not (stands or bears) or shapely.distance(wall.footprint, area) >= wall.outer - wall.inner + TOUCH:
            continue
        facts: tuple[tuple[str, Fact], ...] = (
            ("floor", make_up),
            ("wall", layers_of(building, wall.wall.make_up)),
            ("joists", _lie(floor.bays, wall)),
        )
        if stands:
            runs = along_wall(wall, 0.0, wall.length, wall.outer, floor.top.z)
            below = building.plan.outlines_under(floor.under.id)
            more: tuple[tuple[str, Fact], ...] = (("on", "wall" if below else "foundation"),)
            yield Junction("floor_edge", (End(id, "edge"), End(wall.wall.id, "foot")), runs, (*facts, *more))
        else:
            runs = along_wall(wall, 0.0, wall.length, 0.0, floor.under.z)
            yield Junction("floor_on_wall", (End(id, "over"), End(wall.wall.id, "top")), runs, facts)


def _feet(building: Building) -> Iterator[Junction]:
    """Feet of outer walls of the lowest storey and of all inner walls, and the footings under them."""
    founded: set[str] = set()
    for held in building[FOUNDATIONS]:
        foundation = held.foundation
        size: tuple[tuple[str, Fact], ...] = (
            ("form", foundation.form),
            ("stem", rounded(foundation.stem_thickness)),
            ("slab", layers_of(building, foundation.slab)),
            ("sill plate", foundation.sill is not None),
            ("pony", layers_of(building, foundation.pony)),
        )
        for wall, stretches in zip(held.walls, held.stretches):
            founded.add(wall.wall.id)
            drop = rounded(min(stretch.drop for stretch in stretches)) if held.pony else 0.0
            layers = layers_of(building, wall.wall.make_up)
            top = building.levels[wall.wall.base.level].z
            over = rounded(top - held.levels.top.z)
            ends = End(wall.wall.id, "foot"), End(foundation.id, "top")
            runs = along_wall(wall, 0.0, wall.length, wall.outer, top)
            yield Junction(
                "wall_foot", ends, runs, (("wall", layers), *size, ("over the foundation", over), ("lower by", drop))
            )
            low = held.levels.footing.z
            wide: tuple[tuple[str, Fact], ...] = (
                ("width", rounded(foundation.footing_width)),
                ("depth", rounded(foundation.footing_depth)),
                ("wall", layers),
            )
            runs = along_wall(wall, 0.0, wall.length, wall.outer, low)
            yield Junction("footing", (End(foundation.id, "footing"), End(wall.wall.id, "foot")), runs, (*wide, *size))
    lowest = storeys(building.placed.project)[0].level
    for wall in building.plan.walls:
        level = wall.wall.base.level
        if wall.wall.status == "outer" and level == lowest and wall.wall.id not in founded:
            runs = along_wall(wall, 0.0, wall.length, wall.outer, building.levels[level].z)
            yield Junction(
                "wall_foot", (End(wall.wall.id, "foot"),), runs, (("wall", layers_of(building, wall.wall.make_up)),)
            )
        elif wall.wall.status == "inner":
            floor = next((one for one in building[FLOORS] if one.floor.level == level), None)
            on: tuple[End, ...] = (End(floor.floor.id, "top"),) if floor else ()
            facts: tuple[tuple[str, Fact], ...] = (
                ("wall", layers_of(building, wall.wall.make_up)),
                ("bears", wall.wall.bears),
                ("floor", layers_of(building, floor.floor.make_up if floor else None)),
                ("joists", _lie(floor.bays, wall) if floor else "none"),
            )
            runs = along_wall(wall, 0.0, wall.length, 0.0, building.levels[level].z)
            yield Junction("inner_foot", (End(wall.wall.id, "foot"), *on), runs, facts)
