"""Runs along walls: where pieces lie that go on from corner to corner, and what parts them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

import shapely

from ..junctions import Run
from ..resolve import Building, PlannedWall
from .faces import wall_faces
from .lie import Lie, Trim

LOW, BESIDE = 20.0, 20.0
"""An opening whose sill is no higher over the foot of its wall (mm) parts what lies there; a wall that comes this near
to another runs into it."""


def wall_lies(building: Building, wall: PlannedWall, runs: tuple[Run, ...], *, parted: bool = False) -> list[Lie]:
    """Along a wall on its set-out line: mitred at corners with other outer walls of its storey, with gaps at doors.

    `parted`: and with gaps where other walls run into it.
    """
    base = building.levels[wall.wall.base.level].z + wall.wall.base.offset
    found = _lies(building, wall, runs)
    doors = [held for held in building.openings[wall.wall.id] if held.sill.total < base + LOW]
    inside = building.plan.sheltered(wall)
    if len(found) != 1 or not (doors or parted or inside):
        return found
    (lie,) = found
    if inside:
        spans = (sorted(along_lie(lie, wall.at(at)) for at in span) for span in inside)
        beyond = wall_faces(building, wall).frame.outer - 1.0
        lie = replace(lie, sheltered=tuple((low, high) for low, high in spans), beyond=beyond)
    if not (doors or parted):
        return [lie]
    gaps = []
    for held in doors:
        ends = [along_lie(lie, wall.at(at)) for at in (held.left, held.right)]
        gaps.append((min(ends) - held.design.rough, max(ends) + held.design.rough))
    if parted:
        gaps += list(_walls_into(building, wall, lie))
    return [replace(lie, gaps=tuple(merged(gaps)), over=base)]


def along_lie(lie: Lie, point: tuple[float, float]) -> float:
    """The distance of a place along a run."""
    dx, dy = lie.along
    return (point[0] - lie.start[0]) * dx + (point[1] - lie.start[1]) * dy


def merged(spans: list[tuple[float, float]]) -> list[tuple[float, float]]:
    """Spans in order, those that overlap as one."""
    found: list[tuple[float, float]] = []
    for low, high in sorted(spans):
        if found and low <= found[-1][1]:
            found[-1] = found[-1][0], max(found[-1][1], high)
        else:
            found.append((low, high))
    return found


def _walls_into(building: Building, wall: PlannedWall, lie: Lie) -> Iterator[tuple[float, float]]:
    """Where other walls of its storey stand beside the faces of a wall: from-to along it."""
    beside = wall.footprint.buffer(BESIDE, join_style="mitre")
    for other in building.plan.on(wall.wall.base.level):
        if other is wall or not other.footprint.intersects(beside):
            continue
        at = [along_lie(lie, (x, y)) for x, y in shapely.get_coordinates(other.footprint.intersection(beside)).tolist()]
        if at:
            yield min(at), max(at)


def _lies(building: Building, wall: PlannedWall, runs: tuple[Run, ...]) -> list[Lie]:
    if wall.axis.is_arc:
        found = []
        for run in runs:
            (x0, y0, _), (x1, y1, _) = run.start, run.end
            a, b = wall.axis.along((x0, y0)), wall.axis.along((x1, y1))
            dx, dy = run.out[1], -run.out[0]
            first, last = wall.at(a), wall.at(b)
            if (last[0] - first[0]) * dx + (last[1] - first[1]) * dy < 0:
                first, last = last, first
            length = (last[0] - first[0]) * dx + (last[1] - first[1]) * dy
            found.append(Lie(first, run.out, length))
        return found
    out = wall.stand().out
    dx, dy = out[1], -out[0]
    start, end = wall.start, wall.end
    if (end[0] - start[0]) * dx + (end[1] - start[1]) * dy < 0:
        start, end = end, start
    trims: list[Trim] = []
    past = [0.0, 0.0]
    middle = (start[0] + end[0]) / 2, (start[1] + end[1]) / 2
    for k, corner in enumerate((start, end)):
        trim = _mitre(building, wall, corner, middle)
        if trim is not None:
            trims.append(trim)
            past[k] = 2000.0
    return [Lie(start, out, wall.length, tuple(trims), tuple(trims), past[0], past[1])]


def _mitre(
    building: Building, wall: PlannedWall, corner: tuple[float, float], middle: tuple[float, float]
) -> Trim | None:
    """The plane that parts two walls at a corner; None where none, or one that runs straight on, ends there."""
    level = wall.wall.base.level
    for other in building.plan.walls:
        if other is wall or other.wall.status != "outer" or other.wall.base.level != level:
            continue
        ends = {"start": other.start, "end": other.end}
        here = next((name for name, at in ends.items() if abs(at[0] - corner[0]) + abs(at[1] - corner[1]) < 1.0), None)
        if here is None:
            continue
        along = 0.0 if here == "start" else other.length
        ox, oy = other.stand(along).out
        wx, wy = wall.stand().out
        # The plane holds the corners at which faces equally far out meet.
        mx, my = wx + ox, wy + oy
        size = (mx * mx + my * my) ** 0.5
        if size < 0.1 or abs(wx * oy - wy * ox) < 0.02:
            return None
        normal = -my / size, mx / size
        offset = normal[0] * corner[0] + normal[1] * corner[1]
        if normal[0] * middle[0] + normal[1] * middle[1] < offset:
            return Trim((-normal[0], -normal[1]), -offset)
        return Trim(normal, offset)
    return None
