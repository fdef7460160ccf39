"""Strings of dimensions around a plan: overall, breaks and openings, from the outside in; each adds up."""

from __future__ import annotations

import itertools
from collections.abc import Iterator
from dataclasses import dataclass

import shapely
from shapely.geometry import LineString
from shapely.ops import unary_union

from ..drawing import LETTER, Dimension
from ..geometry import Frame, Point
from ..model import Project
from ..resolve import Building, PlacedOpening, PlannedWall
from ..trades.decks.place import DECKS
from ..trades.outdoors.placed import STEPS
from ..trades.slabs.placed import SLABS
from ..units import INCH, Units, format_length, rounded

FIRST, STEP, RAISE = 11.0, 7.5, 3.3
"""Paper mm from the house to the first string, from one to the next, and by which lettering is raised past another."""
PAST_TAGS = 7.0
"""Paper mm from the house at which the extension lines of openings begin: past their numbers."""
CLOSE = 1.0
"""Places closer than this (mm) are one."""
FACING = 0.9999
"""A wall faces a side when its outward direction lies this close to it (cosine)."""
FAR = 1e6


@dataclass(frozen=True, slots=True)
class _Side:
    """A side of the turned plan: outward unit vector (du, dw)."""

    name: str
    du: float
    dw: float

    @property
    def inward_text(self) -> bool:
        """Whether lettering over the line lies between it and the house: it reads from below and from the right."""
        return self.dw < 0 or self.du > 0

    def along(self, point: Point) -> float:
        """Of a point (u, w), how far along the side it lies."""
        return point[0] if self.dw else point[1]


SIDES = (_Side("bottom", 0.0, -1.0), _Side("right", 1.0, 0.0), _Side("top", 0.0, 1.0), _Side("left", -1.0, 0.0))


def dimension_strings(
    building: Building, project: Project, level: str, frame: Frame, scale: float
) -> Iterator[Dimension]:
    """Every string around the walls of a storey, to the set-out faces: what the trade measures.

    Openings are measured to their middles in timber, to their edges in masonry. Common practice, no source.
    """
    outlines = building.plan.outlines_on(level)
    if not outlines:
        return
    house = frame.turn(unary_union([outline.polygon for outline in outlines]))
    shapely.prepare(house)
    box = house.bounds
    before = [frame.turn(held.outline) for held in building[STEPS] if held.steps.top.level == level]
    before += [frame.turn(held.area) for held in building[SLABS] if held.slab.level == level]
    before += [frame.turn(flat.area) for flat in building[DECKS] if flat.floor.level == level]
    clear = shapely.union_all([house, *before]).bounds
    around = {id for outline in outlines for id in outline.walls}
    walls = [wall for wall in building.plan.on(level) if wall.wall.id in around and not wall.axis.is_arc]
    for side in SIDES:
        yield from _side(building, project, side, frame, scale, house, box, clear, walls)


def _side(
    building: Building,
    project: Project,
    side: _Side,
    frame: Frame,
    scale: float,
    house: shapely.Geometry,
    box: tuple[float, float, float, float],
    clear: tuple[float, float, float, float],
    walls: list[PlannedWall],
) -> Iterator[Dimension]:
    ends = (box[0], box[2]) if side.dw else (box[1], box[3])
    breaks, openings = list(ends), list[float]()
    for wall in walls:
        out = frame.plan_to_turned(*wall.stand().out)
        line = [frame.plan_to_turned(*point) for point in (wall.start, wall.end)]
        if out[0] * side.du + out[1] * side.dw < FACING or not _seen(_middle(*line), side, house):
            continue
        breaks += [side.along(point) for point in line]
        for placed in building.openings[wall.wall.id]:
            if placed.opening.unit == "niche":
                continue
            centre = frame.plan_to_turned(*wall.at(placed.centre))
            if _seen(centre, side, house):
                openings += [
                    side.along(frame.plan_to_turned(*wall.at(at))) for at in _measured(placed, project.tradition)
                ]
    rows = [("breaks", breaks), ("overall", list(ends))]
    if openings:
        rows.insert(0, ("openings", [*breaks, *openings]))
    strings = [(feature, _round(_distinct(places), project.units)) for feature, places in rows]
    overall = strings[-1][1]
    offset = FIRST
    for feature, string in strings:
        if feature == "breaks" and string == overall:
            continue
        held = list(_lettered(string, project.units, scale))
        high = max(row for *_, row in held) * RAISE
        if offset > FIRST and side.inward_text:
            offset += high
        for start, end, text, row in held:
            yield _dimension(side, clear, start, end, offset, text, row * RAISE, feature)
        offset += STEP + (0.0 if side.inward_text else high)


def _measured(placed: PlacedOpening, tradition: str) -> tuple[float, ...]:
    return (placed.left, placed.right) if tradition == "masonry" else (placed.centre,)


def _middle(a: Point, b: Point) -> Point:
    return (a[0] + b[0]) / 2, (a[1] + b[1]) / 2


def _seen(point: Point, side: _Side, house: shapely.Geometry) -> bool:
    """Whether nothing of the house lies between a place on its outside and the side."""
    near, far = ((point[0] + side.du * reach, point[1] + side.dw * reach) for reach in (10 * CLOSE, FAR))
    return not house.intersects(LineString([near, far]))


def _distinct(places: list[float]) -> list[float]:
    found: list[float] = []
    for place in sorted(places):
        if not found or place - found[-1] > CLOSE:
            found.append(place)
    return found


def _round(places: list[float], units: Units) -> list[float]:
    """Places to the drawn fraction, counted from the first: what lies between them adds up to the whole."""
    step = INCH / 16 if units == "ft-in" else 1.0
    return [places[0] + rounded((place - places[0]) / step) * step for place in places]


def _lettered(string: list[float], units: Units, scale: float) -> Iterator[tuple[float, float, str, int]]:
    """Stretches as (from, to, text, row): lettering that would touch that of another is raised by rows."""
    ends: list[float] = []
    for start, end in itertools.pairwise(string):
        text = format_length(end - start, units)
        half = (len(text) + 1) * LETTER * scale / 2
        middle = (start + end) / 2
        row = next((k for k, taken in enumerate(ends) if middle - half >= taken), len(ends))
        ends[row : row + 1] = [middle + half]
        yield start, end, text, row


def _dimension(
    side: _Side,
    box: tuple[float, float, float, float],
    start: float,
    end: float,
    offset: float,
    text: str,
    raised: float,
    feature: str,
) -> Dimension:
    gap = PAST_TAGS if feature == "openings" else 1.0
    if side.dw:
        w = box[1] if side.dw < 0 else box[3]
        return Dimension(start, w, end, w, offset * side.dw, text, feature=feature, raised=raised, gap=gap)
    u = box[2] if side.du > 0 else box[0]
    return Dimension(u, start, u, end, -offset * side.du, text, feature=feature, raised=raised, gap=gap)
