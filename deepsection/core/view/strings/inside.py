"""Strings of dimensions through the rooms of a plan: they locate every wall that runs across them."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import partial

import numpy as np
import shapely
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry

from ...building.kind import PlanOf
from ...drawing import Dimension, text_width
from ...drawing.chains import CLOSE, Place, String, distinct
from ...drawing.detail import shown_from
from ...model import Dimensioning, Project, bearing_layer
from ...resolve import Building, PlannedWall
from ...trades.floors.place import FLOORS
from ...trades.posts.placed import POSTS
from ...trades.posts.plan import beams_shown
from ...trades.rooms.plan import NAME_SIZE
from ...trades.stairs.placed import STAIRS
from ..setting import Setting
from .axes import Axes
from .making import made
from .outside import POSTS_AT

SQUARE = 1e-3
"""A wall runs across a string when it is askew by less than this (cosine)."""
STEP = 150.0
"""Strings are tried at places this far apart (mm)."""
BESIDE = 3.0
"""Paper mm that stay free between a string and a wall along it, for its figures; on the other side half of that."""
APART = 9.0
"""Paper mm between two strings."""
ON_WALL = 250.0
"""What lies this near to the face of a wall (mm) is set out by it."""
NAME_TALL, NAME_CLEAR = 4.5, 1.5
"""Half the height of the name and area of a room with what stays clear of them, and beside them (paper mm)."""
MOST = 6
"""So many strings at the most in either direction."""
CROSSED = 1500.0
"""What counts against a string per thing that it crosses, as mm of its way to the middle of the house."""


@dataclass(frozen=True, slots=True)
class _Across:
    """A wall that runs across a string: where it is measured, and over what it is met."""

    id: str
    faces: tuple[float, ...]
    low: float
    high: float


def inside_strings(building: Building, shown: PlanOf, axes: Axes, setting: Setting) -> Iterator[String]:
    """As few strings in each direction as meet every inner wall of a storey, where they cross as little as can be.

    They end at the outer walls, where the strings outside are measured. A wall is measured to the face that the project
    says: by tradition one face of the frame in timber, both of the structure in masonry. Common practice, no source.
    """
    level, scale = shown.level, setting.scale
    outlines = building.plan.outlines_on(level)
    if not outlines or setting.rule.walls == "none" or not shown_from("strings inside", scale):
        return
    house = axes.turned(shapely.union_all([outline.polygon for outline in outlines]))
    straight = [wall for wall in building.plan.on(level) if not wall.axis.is_arc]
    inner = [wall for wall in straight if wall.wall.status == "inner"]
    along, crossed = _in_the_way(building, level, axes, inner)
    crossed += _names(building, level, axes, scale)
    for name, way in (("inside:across", 0), ("inside:along", 1)):
        if not setting.shows(name):
            yield String(name, False, ())
            continue
        faces = face_measured(setting.rule_of(name), shown.project)
        walls = [held for wall in inner if (held := _across(wall, building, faces, axes, way))]
        walls += _standing(building, shown, axes, way, house, walls)
        passed = [held for wall in straight if wall not in inner and (held := _set_out(wall, axes, way))]
        taken, marks = list[float](), list[Dimension]()
        while walls and len(taken) < MOST:
            at = _best(walls, way, house, along[1 - way], crossed, taken, scale)
            if at is None:
                break
            met = [wall for wall in walls if wall.low < at < wall.high]
            also = [wall for wall in passed if wall.low < at < wall.high]
            marks += _string([*met, *also], at, way, house, axes, setting, name)
            walls = [wall for wall in walls if wall not in met]
            taken.append(at)
        if marks:
            yield String(name, True, tuple(marks))


def _across(wall: PlannedWall, building: Building, rule: str, axes: Axes, way: int) -> _Across | None:
    """A wall that runs across the axis `way`, as it is measured along that, to such faces."""
    start, end = axes.local(*wall.start), axes.local(*wall.end)
    if abs(end[way] - start[way]) > SQUARE * wall.length:
        return None
    make_up = building.placed.make_ups[wall.wall.make_up]
    bearing = wall.layers[bearing_layer(make_up)]
    finish = wall.layers[0].outer, wall.layers[-1].inner
    outward = finish if rule == "finish" else (bearing.outer, bearing.inner)
    places = sorted(axes.local(*wall.at(wall.length / 2, out))[way] for out in outward)
    low, high = sorted((start[1 - way], end[1 - way]))
    # At an opening a string meets no wall.
    return _Across(wall.wall.id, tuple(places[:1] if rule == "frame" else places), low, high)


def _standing(
    building: Building, shown: PlanOf, axes: Axes, way: int, house: BaseGeometry, walls: Sequence[_Across]
) -> Iterator[_Across]:
    """What else is set out within a storey: posts and beams by their middles, stairs and holes of the floor by their
    edges, those that lie on no wall."""
    level, z = shown.level, building.levels[shown.level].z
    taken = [(face, wall.low, wall.high) for wall in walls for face in wall.faces]
    bounds = house.bounds
    for post in building[POSTS]:
        place = axes.local(*post.outline.centroid.coords[0])
        if post.foot.total < z + POSTS_AT < post.top.total and house.contains(shapely.Point(place)):
            box = axes.turned(post.outline).bounds
            if _free(place[way], place[1 - way], taken, bounds, way):
                yield _Across(post.post.id, (place[way],), box[1 - way], box[3 - way])
    for beam in beams_shown(shown):
        ends = [axes.local(*beam.start), axes.local(*beam.end)]
        middle = (ends[0][1 - way] + ends[1][1 - way]) / 2
        if abs(ends[0][way] - ends[1][way]) > SQUARE * math.dist(*ends):
            continue
        if house.contains(shapely.LineString(ends).centroid) and _free(ends[0][way], middle, taken, bounds, way):
            low, high = sorted(end[1 - way] for end in ends)
            yield _Across(beam.beam.id, (ends[0][way],), low, high)
    areas = [(f"stair:{held.stair.id}", held.area) for held in building[STAIRS] if held.stair.level == level]
    for flat in building[FLOORS]:
        if flat.floor.level == level:
            areas += [(name, hole) for bay in flat.bays for name, hole in bay.holes]
    for name, area in areas:
        box = axes.turned(area).bounds
        middle = (box[1 - way] + box[3 - way]) / 2
        faces = tuple(face for face in (box[way], box[2 + way]) if _free(face, middle, taken, bounds, way))
        if faces:
            yield _Across(name, faces, box[1 - way], box[3 - way])


def _free(
    at: float, across: float, taken: Sequence[tuple[float, float, float]], box: Sequence[float], way: int
) -> bool:
    """Whether a place is within the house, and not that of a wall beside it."""
    if not box[way] + ON_WALL < at < box[2 + way] - ON_WALL:
        return False
    return all(abs(at - face) > ON_WALL or not low - ON_WALL < across < high + ON_WALL for face, low, high in taken)


def _set_out(wall: PlannedWall, axes: Axes, way: int) -> _Across | None:
    """An outer wall, as a string is measured that passes it within the house: to its set-out line."""
    start, end = axes.local(*wall.start), axes.local(*wall.end)
    if abs(end[way] - start[way]) > SQUARE * wall.length:
        return None
    low, high = sorted((start[1 - way], end[1 - way]))
    return _Across(wall.wall.id, (start[way],), low, high)


def face_measured(rule: Dimensioning, project: Project) -> str:
    """Which faces of inner walls are measured: one of the `frame`, both of the `structure`, or of the `finish`."""
    if rule.density == "denser" and rule.walls in ("by tradition", "frame"):
        return "structure"
    if rule.walls != "by tradition":
        return rule.walls
    return "structure" if project.tradition == "masonry" else "frame"


def _in_the_way(
    building: Building, level: str, axes: Axes, inner: Sequence[PlannedWall]
) -> tuple[tuple[list[Polygon], list[Polygon]], list[BaseGeometry]]:
    """(walls that run along each of the axes, what no string should cross: openings, stairs and holes)."""
    along: tuple[list[Polygon], list[Polygon]] = [], []
    crossed: list[BaseGeometry] = []
    for wall in inner:
        start, end = axes.local(*wall.start), axes.local(*wall.end)
        along[0 if abs(end[0] - start[0]) > abs(end[1] - start[1]) else 1].append(axes.turned(wall.footprint))
        for placed in building.openings[wall.wall.id]:
            # With the swing of its leaf.
            reach = placed.right - placed.left
            swept = wall.stand(placed.centre).panel(placed.left, placed.right, wall.inner - reach, wall.outer + reach)
            crossed.append(axes.turned(swept))
    for stair in building[STAIRS]:
        if level in (stair.stair.level, stair.stair.upper):
            crossed += [axes.turned(step.area) for step in stair.layout.steps]
    for flat in building[FLOORS]:
        if flat.floor.level == level:
            crossed += [axes.turned(hole) for bay in flat.bays for _, hole in bay.holes]
    return along, crossed


def _names(building: Building, level: str, axes: Axes, scale: float) -> Iterator[Polygon]:
    """Where the names of rooms stand, if nothing is in their way."""
    for held in building.rooms:
        if held.level == level:
            a, b = axes.local(held.room.x, held.room.y)
            half = (text_width(held.room.name, NAME_SIZE, "bold") / 2 + NAME_CLEAR) * scale
            yield shapely.box(a - half, b - NAME_TALL * scale, a + half, b + NAME_TALL * scale)


def _best(
    walls: Sequence[_Across],
    way: int,
    house: BaseGeometry,
    beside: Sequence[Polygon],
    crossed: Sequence[BaseGeometry],
    taken: Sequence[float],
    scale: float,
) -> float | None:
    """Where the next string runs: where it meets most walls, then where it crosses least."""
    low, high = min(wall.low for wall in walls), max(wall.high for wall in walls)
    room = BESIDE * scale
    narrow = [(wall.low + wall.high) / 2 for wall in walls if wall.high - wall.low < 2 * STEP]
    tried = [*np.arange(low + STEP, high, STEP).tolist(), *narrow] or [(low + high) / 2]
    bounds = house.bounds
    middle = (bounds[1 - way] + bounds[3 - way]) / 2
    beside_at = [(b[1 - way] - room, b[3 - way] + room) for b in (held.bounds for held in beside)]
    crossed_at = [(b[1 - way], b[3 - way]) for b in (held.bounds for held in crossed)]
    best: tuple[float, float] | None = None
    for at in tried:
        met = sum(1.0 for wall in walls if wall.low + room < at < wall.high - room)
        met = met or sum(0.5 for wall in walls if wall.low < at < wall.high)
        if not met or any(abs(at - other) < APART * scale for other in taken):
            continue
        bad = sum(1 for a, b in crossed_at if a < at < b) + 2 * sum(1 for a, b in beside_at if a < at < b)
        score = met - (bad * CROSSED + abs(at - middle)) / 1e5 - 0.2 * bad
        if best is None or score > best[0] + 1e-9:
            best = score, at
    return best[1] if best else None


def _string(
    walls: Sequence[_Across],
    at: float,
    way: int,
    house: BaseGeometry,
    axes: Axes,
    setting: Setting,
    name: str,
) -> Iterator[Dimension]:
    """The string at a place, from outer wall to outer wall."""
    bounds = house.bounds
    ends = [(end, at) if way == 0 else (at, end) for end in (bounds[way] - 1.0, bounds[2 + way] + 1.0)]
    for piece in shapely.get_parts(shapely.intersection(LineString(ends), house)):
        if piece.geom_type != "LineString" or piece.length < 1.0:
            continue
        low, high = sorted(point[way] for point in piece.coords)
        own = [Place(face, wall.id) for wall in walls for face in wall.faces if low + CLOSE < face < high - CLOSE]
        if not own:
            continue
        places = distinct([Place(low, "start"), Place(high, "end"), *own])
        yield from made(setting, name, places, partial(_line, axes, way, at), 0.0, feature="inside").marks


def _line(axes: Axes, way: int, at: float, start: float, end: float) -> tuple[float, float, float, float]:
    """The ends of a stretch at a place, on the drawing."""
    a, b = ((start, at), (end, at)) if way == 0 else ((at, start), (at, end))
    return *axes.drawn(*a), *axes.drawn(*b)
