"""Stage: what carries what. Walls stand on foundations, on walls and beams below, on joists; floors on walls and beams;
beams on posts and walls; posts on pads, walls, beams; roofs on walls and beams. What stands on nothing is pointed out.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from functools import lru_cache

from shapely.geometry import LineString, Point

from ...building.diagnostics import Diagnostic
from ...building.placed import Placed
from ...geometry import Point as Spot
from ...model import Deck, Foundation
from ...tolerance import TOL
from ..decks.place import DECKS
from ..floors.place import FLOORS, FloorPlan
from ..floors.supports import ALONG
from ..levels.placed import LEVELS
from ..posts.placed import BEAMS, POSTS, PlacedBeam, PlacedPost
from ..roofs.placed import ROOFS, ResolvedRoof
from ..slabs.placed import SLABS, PlacedSlab
from ..walls.planned import WALLS, PlannedWall, WallPlan
from .placed import Loads

NEAR = 60.0
"""What ends as near as this (mm) to what carries it stands on it."""
STACKED = 300.0
"""A wall stands on another one, or a beam, that runs along it within this distance (mm)."""
UNDER_POST = 150.0
"""A post stands on a wall or beam whose middle is as near as this (mm)."""
AT_EAVE = 600.0
"""A roof stands on walls as near as this (mm) to its outline."""


@dataclass(frozen=True, slots=True)
class _House:
    """All that loads follow from; its levels by id and height."""

    plan: WallPlan
    floors: tuple[FloorPlan, ...]
    beams: tuple[PlacedBeam, ...]
    posts: tuple[PlacedPost, ...]
    roofs: tuple[ResolvedRoof, ...]
    foundations: tuple[Foundation, ...]
    slabs: tuple[PlacedSlab, ...]
    levels: tuple[tuple[str, float], ...]

    def z(self, level: str) -> float:
        """The height of a level (mm)."""
        return next(z for id, z in self.levels if id == level)


def place_loads(placed: Placed) -> Loads:
    """Who carries whom; what nothing carries goes to what is found."""
    levels = tuple((id, level.z) for id, level in placed[LEVELS].items())
    house = _House(
        placed[WALLS],
        (*placed[FLOORS], *placed[DECKS]),
        placed[BEAMS],
        placed[POSTS],
        placed[ROOFS],
        placed.project.foundations,
        placed[SLABS],
        levels,
    )
    loads, found = _loads(house)
    placed.findings += found
    return loads


@lru_cache(maxsize=8)
def _loads(house: _House) -> tuple[Loads, tuple[Diagnostic, ...]]:
    carriers: dict[str, tuple[str, ...]] = {}
    found: list[Diagnostic] = []
    for roof in house.roofs:
        carriers[roof.block.id] = tuple(_under_roof(house, roof))
    for flat in house.floors:
        carriers[flat.floor.id] = tuple(_under_floor(house, flat))
    for wall in house.plan.walls:
        carried = {id for id, held in carriers.items() if wall.wall.id in held}
        carriers[wall.wall.id] = tuple(id for id in _under_wall(house, wall, found) if id not in carried)
    for beam in house.beams:
        carriers[beam.beam.id] = tuple(_under_beam(house, beam, found))
    for post in house.posts:
        carriers[post.post.id] = tuple(_under_post(house, post, found))
    carriers |= {held.id: () for held in house.foundations}
    carriers |= {held.slab.id: () for held in house.slabs}
    return Loads(carriers), tuple(found)


def _founded(house: _House, level: str) -> Foundation | None:
    return next((held for held in house.foundations if held.level == level), None)


def _floor_at(house: _House, level: str, point: Point) -> FloorPlan | None:
    """The floor of a level; the deck there, where a place lies on one."""
    own = [flat for flat in house.floors if flat.floor.level == level]
    decks = (
        flat
        for flat in own
        if isinstance(flat.floor, Deck) and flat.area.distance(point) < (TOL.point if flat.closed else NEAR)
    )
    return next(decks, None) or next((flat for flat in own if not isinstance(flat.floor, Deck)), None)


def _under_floor(house: _House, flat: FloorPlan) -> Iterator[str]:
    plan, under = house.plan, flat.under.id
    founded = _founded(house, flat.floor.level)
    if isinstance(flat.floor, Deck) and flat.closed:
        here = flat.floor.id
        holders = (own for own in house.floors for bay in own.bays if any(id == here for id, _ in bay.holes))
        yield from dict.fromkeys(own.floor.id for own in holders)
    elif isinstance(flat.floor, Deck):
        yield from dict.fromkeys(rim.wall.partition(":")[0] for rim in flat.rims if rim.role == "ledger")
    elif founded and under in (founded.sill, founded.top):
        yield founded.id
    else:
        around = {id for outline in plan.outlines_under(under) for id in outline.walls}
        yield from (wall.wall.id for wall in plan.walls if wall.wall.id in around and _touches(flat, wall))
    yield from dict.fromkeys(support.name for bay in flat.bays for support in bay.supports)


def _touches(flat: FloorPlan, wall: PlannedWall) -> bool:
    return bool(flat.area.intersects(wall.footprint))


def _under_wall(house: _House, wall: PlannedWall, found: list[Diagnostic]) -> Iterator[str]:
    plan, level = house.plan, wall.wall.base.level
    middle = Point(wall.at(wall.length / 2))
    if wall.wall.base.on_roof:
        over = (roof for roof in house.roofs if roof.outline.intersects(wall.footprint))
        yield from (roof.block.id for roof in over)
        return
    founded = _founded(house, level)
    around = {id for outline in plan.outlines_on(level) for id in outline.walls}
    floor = _floor_at(house, level, middle)
    if founded and (floor is None or wall.wall.id in around):
        yield founded.id
        return
    bearing = floor.under.id if floor else level
    names = frozenset(held.name for bay in floor.bays for held in bay.supports) if floor else frozenset[str]()
    below = list(_walls_below(house.plan.walls, wall, bearing))
    below += _beams_below(tuple(beam for beam in house.beams if beam.beam.id in names), wall)
    if below:
        yield from below
    elif floor and floor.area.distance(middle) < NEAR:
        yield floor.floor.id
        _across_joists(wall, floor, found)


@lru_cache(maxsize=1024)
def _walls_below(walls: tuple[PlannedWall, ...], wall: PlannedWall, bearing: str) -> tuple[str, ...]:
    """The walls up to a level that run along under a wall."""
    beside = wall.axis.line_string().buffer(STACKED, cap_style="flat")
    found = []
    for held in walls:
        under = held.wall.top.level == bearing and held.wall.id != wall.wall.id and _in_line(held.run, wall.run)
        if under and beside.intersection(held.axis.line_string()).length > STACKED:
            found.append(held.wall.id)
    return tuple(found)


def _beams_below(beams: tuple[PlacedBeam, ...], wall: PlannedWall) -> Iterator[str]:
    """Of the beams that carry a floor those that run along under a wall on it."""
    if not beams:
        return
    line = wall.axis.line_string().buffer(STACKED, cap_style="flat")
    for beam in beams:
        if line.intersection(LineString([beam.start, beam.end])).length > STACKED:
            yield beam.beam.id


def _in_line(a: Spot, b: Spot) -> bool:
    return abs(a[0] * b[1] - a[1] * b[0]) < ALONG


def _across_joists(wall: PlannedWall, floor: FloorPlan, found: list[Diagnostic]) -> None:
    """A wall that bears, across joists and off what bears these, is pointed out."""
    if not wall.wall.bears:
        return
    spot = Point(wall.at(wall.length / 2))
    bay = next((held for held in floor.bays if held.region.distance(spot) < NEAR), None)
    if bay is None or _in_line(bay.direction, wall.run):
        return
    message = (
        f"this wall bears, and stands across the joists of {floor.floor.name} with no wall or beam under it: "
        "let one run below it, or let an engineer size these joists"
    )
    if floor.floor.sized == "by tables":
        found.append(Diagnostic("bearing-offset", message, wall.wall.id, "bearing", at=(spot.x, spot.y)))


def _under_beam(house: _House, beam: PlacedBeam, wrong: list[Diagnostic]) -> Iterator[str]:
    found: dict[str, None] = {}
    for end, spot in ((beam.beam.start, beam.start), (beam.beam.end, beam.end)):
        own = [end.post] if end.post else list(_at_end(house, beam, spot))
        if not own:
            message = "nothing carries this end of the beam: a post under it, a wall, or another beam would"
            wrong.append(Diagnostic("beam-end-free", message, beam.beam.id, "end", at=spot))
        found |= dict.fromkeys(own)
    yield from found


def _at_end(house: _House, beam: PlacedBeam, spot: Spot) -> Iterator[str]:
    """What carries a beam at one of its ends, where that is no post's."""
    point = Point(spot)
    top, bottom = beam.top.total, beam.top.total - beam.beam.depth
    for wall in house.plan.walls:
        held = wall.wall
        high = math.inf if held.top.kind == "roof" else house.z(held.top.level)
        if house.z(held.base.level) - NEAR < bottom < high + NEAR and wall.footprint.distance(point) < NEAR:
            yield held.id
    for founded in house.foundations:
        low, high = house.z(founded.footing), house.z(founded.sill or founded.top or founded.level)
        rings = [outline.polygon.exterior for outline in house.plan.outlines_on(founded.level)]
        reach = founded.bears_on + NEAR
        if low < bottom < high + NEAR and any(ring.distance(point) < reach for ring in rings):
            yield founded.id
    for other in house.beams:
        meets = abs(other.top.total - bottom) < NEAR or abs(other.top.total - top) < NEAR
        if other is not beam and meets and other.outline.distance(point) < NEAR and not _shares(other, spot):
            yield other.beam.id


def _shares(other: PlacedBeam, spot: Spot) -> bool:
    """Whether another beam ends at the same place, so that neither carries the other."""
    return any(math.dist(end, spot) < NEAR for end in (other.start, other.end))


def _under_post(house: _House, post: PlacedPost, found: list[Diagnostic]) -> Iterator[str]:
    point, level = Point(post.post.x, post.post.y), post.post.base.level
    floor = _floor_at(house, level, point)
    on = next((held for held in house.slabs if held.area.intersects(point) and held.low < post.foot.total + NEAR), None)
    if on and not post.post.pad:
        yield on.slab.id
        return
    if floor is None:
        founded = next((f for f in house.foundations if f.level == level and not f.sill), None)
        if founded and not post.post.pad:
            yield founded.id
        return
    supports = [held for bay in floor.bays for held in bay.supports if _beside(held.line, point)]
    walls = (wall for wall in house.plan.walls if wall.wall.top.level == floor.under.id)
    below = [held.name for held in supports]
    below += [wall.wall.id for wall in walls if _beside([wall.start, wall.end], point)]
    if below:
        yield from dict.fromkeys(below)
    elif floor.area.distance(point) < NEAR:
        yield floor.floor.id
        message = (
            f"this post stands on the joists of {floor.floor.name} alone: a wall or a beam under it would carry it "
            "down, or an engineer sizes these joists"
        )
        if floor.floor.sized == "by tables":
            at = (point.x, point.y)
            found.append(Diagnostic("post-on-joists", message, post.post.id, "base", at=at))


def _beside(line: Iterable[Spot], point: Point) -> bool:
    return bool(LineString(list(line)).distance(point) < UNDER_POST)


def _under_roof(house: _House, roof: ResolvedRoof) -> Iterator[str]:
    edge = roof.outline.exterior
    for wall in house.plan.walls:
        up_to_it = wall.wall.top.level == roof.block.plate and wall.wall.bears
        if up_to_it and edge.distance(Point(wall.at(wall.length / 2))) < AT_EAVE:
            yield wall.wall.id
    for beam in house.beams:
        if abs(beam.top.total - roof.plate.total) < NEAR and edge.distance(beam.outline) < AT_EAVE:
            yield beam.beam.id
