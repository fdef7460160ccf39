"""Where a detail cuts its junction, and how much of it is shown."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import shapely
from shapely.geometry import Polygon

from ...drawing.cropping import Band, Window
from ...geometry import CutFrame, Frame, LevelFrame, Point
from ...junctions import Junction, Run, junction_called
from ...junctions.sizes import DETAIL_SIZES, DetailSize
from ...model import Detail
from ...resolve import Building, PlannedWall
from ..planes import cut_spans, plane_of
from ..sights import Sight

SHARES = (0.5, 0.4, 0.6, 0.3, 0.7, 0.2, 0.8, 0.1, 0.9, *(k / 40 for k in range(1, 40)))
"""Where along its run a junction is cut, the first at which no opening and no other wall is in the way, and no other
part of the house outside; where there is none such, no opening."""
CLEAR = 150.0
"""So far from openings (mm)."""
LEAST = 3.0
"""What goes on past an edge over less than this (mm) has no break line."""
AROUND_OPENINGS = ("head", "sill", "threshold")
UP = (0.4, 0.5, 0.6, 0.7, 0.8, 0.9)
"""Upright junctions are cut at a share of their height, between heads, sills and floors: the first at which their wall
stands there; those on roofs begin higher up."""


@dataclass(frozen=True, slots=True)
class DetailPlace:
    """Where a detail cuts: the place of its junction in the frame (mm), outside at the left; its window.

    `along`: the distance along its runs from the start of the first one.
    """

    junction: Junction
    along: float
    frame: CutFrame
    u: float
    v: float
    window: Window


def junction_of(building: Building, detail: Detail) -> Junction | None:
    """The junction of a detail; None where it is not there any more."""
    return junction_called(building, detail.junction)


def detail_place(building: Building, detail: Detail, junction: Junction) -> DetailPlace | None:
    """Where a detail cuts; None where the place lies past the ends of its runs."""
    along = usual_along(building, junction) if detail.along is None else detail.along
    at = _on_runs(junction, along)
    if at is None or junction.kind not in DETAIL_SIZES:
        return None
    (x, y, z), run = at
    if junction.about.cut == "level":
        return _level_place(building, detail, junction, along, (x, y, z), run.out)
    ox, oy = run.out
    # Outside lies at the left: it is looked at along the run with that at one's left hand.
    frame = Frame.facing((oy, -ox), x, y)
    u = x * frame.ux + y * frame.uy
    outward, inward, below, above = window_around(building, detail, junction)
    return DetailPlace(junction, along, frame, u, z, Window(u - outward, u + inward, (Band(z - below, z + above),)))


def _level_place(
    building: Building,
    detail: Detail,
    junction: Junction,
    along: float,
    at: tuple[float, float, float],
    out: Point,
) -> DetailPlace:
    """Where a detail cuts level, outside of its first wall at the left."""
    frame = LevelFrame.outside_left(out, at[2])
    u, v = frame.to_view(at[0], at[1])
    outward, inward, past, along_wall = window_around(building, detail, junction)
    # At its outer face a wall goes on up from what ends there, or down.
    up = _goes_up(building, junction, frame, u, v)
    low, high = (past, along_wall) if up else (along_wall, past)
    window = Window(u - outward, u + inward, (Band(v - low, v + high),))
    return DetailPlace(junction, along, frame, u, v, window)


def _goes_up(building: Building, junction: Junction, frame: LevelFrame, u: float, v: float) -> bool:
    """Whether the first wall of an upright junction goes on up the paper from it."""
    wall = wall_of(building, junction)
    if wall is None:
        return True
    spots = [shapely.Point(frame.to_plan(u + CLEAR / 3, v + way * CLEAR)) for way in (1.0, -1.0)]
    openings = building.openings[wall.wall.id]
    above, below = (
        wall.footprint.contains(spot)
        and not any(held.left < wall.axis.along((spot.x, spot.y)) < held.right for held in openings)
        for spot in spots
    )
    return above or not below


def window_around(building: Building, detail: Detail, junction: Junction) -> tuple[float, float, float, float]:
    """How much a detail shows outward and inward of a junction, below and above it (mm)."""
    size = DETAIL_SIZES[junction.kind]
    outward, inward = _reach(junction, size, wall_of(building, junction))
    below = max(size.below, _eave_drop(junction), _edge_drop(junction), size.below + _slope_past(junction, "down"))
    return (
        detail.outward or outward,
        detail.inward or inward,
        detail.below or below,
        detail.above or size.above + _slope_past(junction, "up"),
    )


def usual_along(building: Building, junction: Junction) -> float:
    """The middle of its longest run, or beside it where an opening is; of upright ones a share of their height."""
    if junction.about.cut == "level":
        return _up_the_usual_side(building, junction)
    longest = max(junction.runs, key=lambda run: run.length)
    before = sum(run.length for run in junction.runs[: junction.runs.index(longest)])
    if junction.kind in AROUND_OPENINGS:
        return junction.length / 2
    wall = wall_of(building, junction)
    if wall is not None:
        (x0, y0, _), (x1, y1, _) = longest.start, longest.end
        spots = [(x0 + (x1 - x0) * share, y0 + (y1 - y0) * share) for share in SHARES]
        solid = [at for at in spots if not _in_opening(building, wall, at)]
        inside = building.plan.sheltered(wall)
        outside = [at for at in solid if not any(low < wall.axis.along(at) < high for low, high in inside)]
        best = (at for at in outside if not _at_wall(building, wall, at))
        at = next(best, next(iter((*outside, *solid)), spots[0]))
        return before + math.dist((x0, y0), at)
    return before + longest.length / 2


def _usual_run(junction: Junction) -> int:
    """The run beyond which, outside at the left, the wall goes on up the paper: of two jambs one."""
    frame = LevelFrame.outside_left(junction.runs[0].out, 0.0)
    places = [frame.to_view(*run.start[:2])[1] for run in junction.runs]
    return max(range(len(places)), key=lambda k: (round(places[k], 3), -k))


def _up_the_usual_side(building: Building, junction: Junction) -> float:
    """A share up the usual run."""
    number = _usual_run(junction)
    run, wall = junction.runs[number], wall_of(building, junction)
    reaches = [part.solid.reach for part in building.parts_of(wall.wall.id)] if wall is not None else []
    (x, y, low), (_, _, high) = run.start, run.end

    def stands(share: float) -> bool:
        z = low + (high - low) * share
        near = (
            box for box in reaches if box.x0 - CLEAR <= x <= box.x1 + CLEAR and box.y0 - CLEAR <= y <= box.y1 + CLEAR
        )
        return any(box.z0 <= z <= box.z1 for box in near)

    share = next((share for share in UP if stands(share)), UP[0])
    return sum(held.length for held in junction.runs[:number]) + run.length * share


def window_in_plan(building: Building, detail: Detail, junction: Junction) -> list[Point]:
    """The corners in plan of what a detail that is cut level shows; no solid is made for it."""
    at = _on_runs(junction, detail.along) if detail.along is not None else None
    run = junction.runs[_usual_run(junction)] if at is None else at[1]
    place = _level_place(building, detail, junction, 0.0, run.start, run.out)
    frame, window = place.frame, place.window
    assert isinstance(frame, LevelFrame)
    corners = (
        (window.left, window.low),
        (window.right, window.low),
        (window.right, window.high),
        (window.left, window.high),
    )
    return [frame.to_plan(u, v) for u, v in corners]


def _on_runs(junction: Junction, along: float) -> tuple[tuple[float, float, float], Run] | None:
    """The place at a distance along the runs of a junction, and the run there."""
    rest = along
    for run in junction.runs:
        if -1e-6 <= rest <= run.length + 1e-6:
            share = rest / (run.length or 1.0)
            return tuple(a + (b - a) * share for a, b in zip(run.start, run.end, strict=True)), run  # type: ignore[return-value]
        rest -= run.length
    return None


def wall_of(building: Building, junction: Junction) -> PlannedWall | None:
    """The wall that meets there, if one does."""
    return next((building.plan.by_id[id] for id in junction.elements if id in building.plan.by_id), None)


def _in_opening(building: Building, wall: PlannedWall, at: Point) -> bool:
    along = wall.axis.along(at)
    return any(placed.left - CLEAR < along < placed.right + CLEAR for placed in building.openings[wall.wall.id])


def _at_wall(building: Building, wall: PlannedWall, at: Point) -> bool:
    """Whether another wall of its storey runs into a wall at a place."""
    spot = shapely.Point(at)
    others = (held for held in building.plan.on(wall.wall.base.level) if held is not wall)
    return any(held.footprint.distance(spot) < CLEAR + wall.outer - wall.inner for held in others)


def _reach(junction: Junction, size: DetailSize, wall: PlannedWall | None) -> tuple[float, float]:
    """How much is shown outward and inward: past an overhang, and past the faces of the wall."""
    facts = dict(junction.facts)
    overhang = facts.get("overhang", 0.0)
    thick = wall.outer - wall.inner if wall is not None else 0.0
    if facts.get("turn") == "inside":
        # The other wall of the corner goes on outward.
        return size.inward, size.outward + thick
    outward = size.outward + (float(overhang) if isinstance(overhang, (int, float)) else 0.0)
    if junction.kind == "chimney":
        return outward + _size(junction, "down"), size.inward + _size(junction, "up")
    at_inner = junction.kind in ("ceiling_edge",)
    return outward + (thick if at_inner else 0.0), size.inward + (0.0 if at_inner else thick)


UNDER_EAVE = 200.0
"""So much is shown below the fascia of an eave (mm)."""
UNDER_EDGE = 150.0
"""And below the edge of a slab."""


def _eave_drop(junction: Junction) -> float:
    """How far below its plate an eave reaches with its fascia, and some more; nothing of other junctions."""
    facts = {name: fact for name, fact in junction.facts if isinstance(fact, (int, float))}
    if junction.kind != "eave":
        return 0.0
    drop = facts["overhang"] * facts["pitch"] + facts["fascia"] - facts["heel"]
    return drop + UNDER_EAVE


def _size(junction: Junction, name: str) -> float:
    """A length among the facts of a junction (mm), or 0."""
    fact = dict(junction.facts).get(name)
    return fact if isinstance(fact, float) else 0.0


def _slope_past(junction: Junction, way: str) -> float:
    """How far a slope falls or rises from the middle of what goes through it to its face (mm)."""
    return _size(junction, way) * _size(junction, "pitch")


def _edge_drop(junction: Junction) -> float:
    """How far below its top the free edge of a slab goes, and some more; nothing of other junctions."""
    deep = dict(junction.facts).get("edge depth")
    return deep + UNDER_EDGE if isinstance(deep, float) and deep else 0.0


def detail_sights(building: Building, detail: Detail) -> tuple[Sight, ...]:
    """What a detail shows: from its plane on, from side to side; nothing beyond where it is cut level."""
    junction = junction_of(building, detail)
    place = None if junction is None else detail_place(building, detail, junction)
    return () if place is None or isinstance(place.frame, LevelFrame) else (plane_of(place.frame, place.window).sight,)


def crossed(place: DetailPlace, polygons: Sequence[Polygon]) -> Iterator[tuple[Point, Point]]:
    """Where what is cut goes on past the sides, the top and the bottom of a detail: from-to along its edge."""
    window = place.window
    low, high, left, right = window.low, window.high, window.left, window.right
    edges = (
        ((left, low), (left, high)), ((right, low), (right, high)),
        ((left, low), (right, low)), ((left, high), (right, high)),
    )  # fmt: skip
    for start, end in edges:
        for span in cut_spans(polygons, start, end):
            if math.dist(*span) > LEAST:
                yield span
