"""Doors that cannot open: their leaves swing into walls or into each other; doors at the very end of a wall."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterator
from functools import lru_cache
from itertools import combinations

import shapely
from shapely.geometry import Polygon

from ...building.diagnostics import Diagnostic
from ...geometry import polygons_of
from ...model import FreeJoint, Project
from ...units import Units, format_length
from ..walls.planned import PlannedWall, WallPlan
from .placed import PlacedOpening

STEPS = 12
"""Chords of a swing."""
SLACK = 30.0
"""A leaf may graze what is so much (mm) within its swing: stops and handles give way."""
LEAST = 1.5e4
"""A swing that runs into less than this (mm2) grazes it."""
JAMB = 60.0
"""A door needs so much wall (mm) beside it: jack and king stud, or a jamb. Common practice, no source."""

Swing = tuple[PlannedWall, PlacedOpening, Polygon]


def swing_faults(project: Project, plan: WallPlan, openings: dict[str, tuple[PlacedOpening, ...]]) -> list[Diagnostic]:
    """What is wrong with the doors of a house, storey by storey."""
    found: list[Diagnostic] = []
    swings = [
        (wall, placed, area)
        for wall in plan.walls
        if not wall.axis.is_arc
        for placed in openings[wall.wall.id]
        for area in _areas(wall, placed)
    ]
    found += _into_walls(swings, plan)
    found += _into_each_other(swings)
    met = Counter(joint for wall in project.walls for joint in (wall.start, wall.end))
    free = {joint.id for joint in project.joints if isinstance(joint, FreeJoint) and met[joint.id] == 1}
    for wall in plan.walls:
        if not wall.axis.is_arc and not wall.wall.outline:
            found += _at_the_end(wall, openings[wall.wall.id], free, project.units)
    return found


@lru_cache(maxsize=2000)
def _areas(wall: PlannedWall, placed: PlacedOpening) -> tuple[Polygon, ...]:
    """What the leaves of a hinged or double door pass, less a little."""
    design, opening = placed.design, placed.opening
    if opening.unit != "door" or design.operation not in ("hinged", "double") or opening.drawn_swing <= 0:
        return ()
    side, way = (wall.inner, -1.0) if opening.swing == "in" else (wall.outer, 1.0)
    middle = (placed.left + placed.right) / 2
    leaves = [(placed.left, placed.right), (placed.right, placed.left)]
    if design.operation == "double":
        leaves = [(placed.left, middle), (placed.right, middle)]
    else:
        leaves = leaves[:1] if opening.hinge == "start" else leaves[1:]
    areas = []
    for hinge, strike in leaves:
        width, angle = strike - hinge, math.radians(opening.drawn_swing)
        points = [(hinge, side)]
        for k in range(STEPS + 1):
            at = angle * k / STEPS
            points.append((hinge + width * math.cos(at), side + way * abs(width) * math.sin(at)))
        area = Polygon([wall.at(along, out) for along, out in points]).buffer(-SLACK)
        if isinstance(area, Polygon) and not area.is_empty:
            areas.append(area)
    return tuple(areas)


def _into_walls(swings: list[Swing], plan: WallPlan) -> Iterator[Diagnostic]:
    told = set()
    for wall, placed, area in swings:
        for other in plan.on(wall.wall.base.level):
            if other is wall or placed.opening.id in told or area.intersection(other.footprint).area < LEAST:
                continue
            told.add(placed.opening.id)
            message = (
                f"{placed.number} swings into a wall: hinge it at its other side, let it open the other way, or move it"
            )
            spot = area.intersection(other.footprint).representative_point()
            yield Diagnostic(
                "door-into-wall", message, placed.opening.id, "hinge",
                others=(other.wall.id,), at=(spot.x, spot.y),
            )  # fmt: skip


def _into_each_other(swings: list[Swing]) -> Iterator[Diagnostic]:
    areas = [area for *_, area in swings]
    if len(areas) < 2:
        return
    tree = shapely.STRtree(areas)
    near = {tuple(sorted(pair)) for pair in zip(*tree.query(areas, predicate="intersects").tolist())}
    for i, j in combinations(range(len(areas)), 2):
        (one, first, a), (two, second, b) = swings[i], swings[j]
        if (i, j) not in near or first is second or one.wall.base.level != two.wall.base.level:
            continue
        if a.intersection(b).area >= LEAST:
            message = f"{first.number} and {second.number} swing into each other: hinge one of them at its other side"
            spot = a.intersection(b).representative_point()
            yield Diagnostic(
                "doors-meet", message, first.opening.id, "hinge",
                others=(second.opening.id,), at=(spot.x, spot.y),
            )  # fmt: skip


def _at_the_end(
    wall: PlannedWall, openings: tuple[PlacedOpening, ...], free: set[str], units: Units
) -> Iterator[Diagnostic]:
    """Doors without a jamb of wall beside them: at an end of their wall that meets no other, or at a tee or corner."""
    first, last = _clear(wall)
    for placed in openings:
        beside = ((wall.wall.start, placed.left - first), (wall.wall.end, last - placed.right))
        for joint, rest in beside:
            if placed.opening.unit != "door" or rest >= JAMB:
                continue
            where = "at the end of its wall" if joint in free else "against the wall that its own wall meets"
            needs = format_length(JAMB, units)
            message = f"{placed.number} stands {where}: leave {needs} of wall beside it for its jamb"
            yield Diagnostic(
                "door-at-end", message, placed.opening.id, "distance", rest, JAMB,
                at=wall.at(placed.centre),
            )  # fmt: skip


def _clear(wall: PlannedWall) -> tuple[float, float]:
    """From-to distances along a wall between what it meets at its ends: where it has both of its faces."""
    alongs = [wall.axis.along(point) for polygon in polygons_of(wall.footprint) for point in polygon.exterior.coords]
    middle = wall.length / 2
    return (
        max((along for along in alongs if along < middle), default=0.0),
        min((along for along in alongs if along > middle), default=wall.length),
    )
