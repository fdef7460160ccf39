"""Strings of dimensions around a plan: overall, grid, breaks and openings, from the outside in; each adds up."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import partial

import shapely
from shapely.geometry import LineString
from shapely.ops import unary_union

from ...drawing.chains import CLOSE, Place, String, distinct
from ...geometry import Point
from ...model import Dimensioning, Project
from ...resolve import Building, PlacedOpening, PlannedWall
from ...trades.decks.place import DECKS
from ...trades.outdoors.placed import STEPS
from ...trades.posts.placed import POSTS
from ...trades.slabs.placed import SLABS
from ..setting import Setting
from .axes import Axes
from .making import made

FIRST, STEP = 11.0, 7.5
"""Paper mm from the house to the first string, and from one to the next."""
PAST_TAGS = 7.0
"""Paper mm from the house at which the extension lines of openings begin: past their numbers."""
FACING = 0.9999
"""A wall faces a side when its outward direction lies this close to it (cosine)."""
POSTS_AT = 1200.0
"""Posts that stand at this height above the floor are measured (mm)."""
FAR = 1e6
ALONG = 1e-3
"""A line of the grid runs towards a side when it is askew by less than this (sine)."""


@dataclass(frozen=True, slots=True)
class Side:
    """A side of the plan along its axes: outward unit vector (da, db)."""

    name: str
    da: float
    db: float

    def along(self, point: Point) -> float:
        """Of a point along and across the axes, how far along the side it lies."""
        return point[0] if self.db else point[1]


SIDES = (Side("bottom", 0.0, -1.0), Side("right", 1.0, 0.0), Side("top", 0.0, 1.0), Side("left", -1.0, 0.0))


def outside_strings(building: Building, project: Project, level: str, axes: Axes, setting: Setting) -> Iterator[String]:
    """Every string around the walls of a storey, to the set-out faces: what the trade measures.

    Openings are measured as the project says: by tradition to their middles in timber, to their edges in masonry.
    Common practice, no source.
    """
    outlines = building.plan.outlines_on(level)
    if not outlines:
        return
    house = axes.turned(unary_union([outline.polygon for outline in outlines]))
    shapely.prepare(house)
    before = [axes.turned(held.outline) for held in building[STEPS] if held.steps.top.level == level]
    before += [axes.turned(held.area) for held in building[SLABS] if held.slab.level == level]
    before += [axes.turned(flat.area) for flat in building[DECKS] if flat.floor.level == level]
    clear = shapely.union_all([house, *before]).bounds
    around = {id for outline in outlines for id in outline.walls}
    walls = [wall for wall in building.plan.on(level) if wall.wall.id in around and not wall.axis.is_arc]
    for side in SIDES:
        offset, way = FIRST, 1.0 if side.name in ("top", "left") else -1.0
        ends = partial(line_beside, side, clear, axes)
        for row, places in _rows(building, project, side, axes, house, walls, level, setting):
            gap = PAST_TAGS if row in ("openings", "widths") else 1.0
            string = made(setting, f"{side.name}:{row}", places, ends, way * offset, feature=row, gap=gap)
            yield string
            offset += STEP if string.shown else 0.0


def _rows(
    building: Building,
    project: Project,
    side: Side,
    axes: Axes,
    house: shapely.Geometry,
    walls: Sequence[PlannedWall],
    level: str,
    setting: Setting,
) -> Iterator[tuple[str, list[Place]]]:
    """The strings of a side, from the inside out."""
    rule, box, cut = setting.rule_of(f"{side.name}:openings"), house.bounds, building.levels[level].z + POSTS_AT
    low, high = (box[0], box[2]) if side.db else (box[1], box[3])
    ends = [Place(low, "start"), Place(high, "end")]
    breaks, openings, edges = list(ends), list[Place](), list[Place]()
    for wall in walls:
        out = direction(wall.stand().out, axes)
        line = [axes.local(*point) for point in (wall.start, wall.end)]
        if out[0] * side.da + out[1] * side.db < FACING or not seen(middle(*line), side, house):
            continue
        breaks += [Place(side.along(point), wall.wall.id) for point in line]
        for placed in building.openings[wall.wall.id]:
            if placed.opening.unit == "niche" or not seen(axes.local(*wall.at(placed.centre)), side, house):
                continue
            for found, measured in ((openings, measured_places(placed, rule, project)), (edges, edges_of(placed))):
                found += [Place(side.along(axes.local(*wall.at(at))), name) for at, name in measured]
    for post in building[POSTS]:
        place = axes.local(*post.outline.centroid.coords[0])
        stands = post.foot.total < cut < post.top.total and low < side.along(place) < high
        if stands and not house.contains(shapely.Point(place)) and seen(place, side, house):
            openings.append(Place(side.along(place), post.post.id))
    if rule.widths == "shown" and measured_by(rule, project) != "sides" and edges:
        yield "widths", distinct([*breaks, *edges])
    if openings:
        yield "openings", distinct([*breaks, *openings])
    grid = _grid(project, side, axes)
    if len(grid) > 1:
        yield "grid", grid
    overall = distinct(ends)
    if len(string := distinct(breaks)) > len(overall):
        yield "breaks", string
    yield "overall", overall


def measured_by(rule: Dimensioning, project: Project) -> str:
    """To what of openings strings measure: `centres` or `sides`."""
    if rule.openings != "by tradition":
        return rule.openings
    return "sides" if project.tradition == "masonry" else "centres"


def measured_places(placed: PlacedOpening, rule: Dimensioning, project: Project) -> Sequence[tuple[float, str]]:
    """Where a string measures an opening, along its wall: at its sides, in its middle, or at all three."""
    measured, middle = measured_by(rule, project), ((placed.centre, placed.opening.id),)
    if rule.density == "denser":
        return (*edges_of(placed), *middle)
    return edges_of(placed) if measured == "sides" else middle


def edges_of(placed: PlacedOpening) -> tuple[tuple[float, str], ...]:
    """The sides of an opening along its wall, with their names in strings."""
    return (placed.left, f"{placed.opening.id}.left"), (placed.right, f"{placed.opening.id}.right")


def _grid(project: Project, side: Side, axes: Axes) -> list[Place]:
    """The lines of the grid that run towards a side, bay by bay."""
    found = []
    for line in project.grid:
        a, b = axes.local(line.x, line.y)
        turn = math.radians(line.angle)
        c, d = axes.local(line.x + math.cos(turn), line.y + math.sin(turn))
        if abs((c - a) * side.db - (d - b) * side.da) < ALONG:
            found.append(Place(side.along((a, b)), line.id))
    return distinct(found)


def direction(out: Point, axes: Axes) -> Point:
    """A direction in plan, along and across the axes."""
    (a0, b0), (a, b) = axes.local(0.0, 0.0), axes.local(*out)
    return a - a0, b - b0


def middle(a: Point, b: Point) -> Point:
    """The place half way between two."""
    return (a[0] + b[0]) / 2, (a[1] + b[1]) / 2


def seen(point: Point, side: Side, house: shapely.Geometry) -> bool:
    """Whether nothing of the house lies between a place on its outside and the side."""
    near, far = ((point[0] + side.da * reach, point[1] + side.db * reach) for reach in (10 * CLOSE, FAR))
    return not house.intersects(LineString([near, far]))


def line_beside(
    side: Side, box: tuple[float, float, float, float], axes: Axes, start: float, end: float
) -> tuple[float, float, float, float]:
    """The ends of a stretch at the edge of the house, on the drawing."""
    if side.db:
        across = box[1] if side.db < 0 else box[3]
        return *axes.drawn(start, across), *axes.drawn(end, across)
    across = box[2] if side.da > 0 else box[0]
    return *axes.drawn(across, start), *axes.drawn(across, end)
