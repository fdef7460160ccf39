"""What is wrong with stairs: rules that they break, headroom, what stands in their way, what carries them."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import lru_cache
from typing import NamedTuple

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.diagnostics import Diagnostic
from ...building.placed import Placed
from ...geometry import Point
from ...units import Units, format_length
from ..floors.place import FLOORS
from ..levels.placed import LEVELS
from ..openings.placed import OPENINGS
from ..posts.placed import BEAMS
from ..roofs.placed import ROOFS
from ..walls.bodies import WALL_TOPS
from ..walls.planned import WALLS, PlannedWall
from .layout import Step, narrow_radius
from .placed import STAIRS, PlacedStair
from .rules import StairRule, stair_rules, why_illegal

SLACK = 1.0
"""Less than this (mm) is no trouble."""
EDGE = 0.5
"""What reaches less far over a step (mm) does not hang over it."""
INTO_WALL = 2.0
"""A flight may stand so deep in a wall (mm), and no deeper."""
LEAST_AREA = 500.0
"""Where less than this (mm2) lies over a step, nothing lies over it."""
LEAST_THROAT = 89.0
"""A cut string is at least this deep below its notches (mm): 3 1/2 in. Common practice, no source."""
BEFORE_WINDOW = 150.0
"""A flight that comes this near an opening of a wall (mm) is beside it."""


def stair_checks(placed: Placed) -> Iterator[Diagnostic]:
    """Everything that is wrong with the stairs of a house."""
    for stair in placed[STAIRS]:
        rule = stair_rules()[stair.stair.rule]
        yield from _by_rule(stair, rule, placed.project.units)
        yield from _headroom(stair, rule, placed)
        yield from _in_the_way(stair, placed)
        yield from _carried(stair, placed)


def _fault(
    stair: PlacedStair,
    code: str,
    message: str,
    field: str,
    value: float | None = None,
    limit: float | None = None,
    at: Point | None = None,
    others: tuple[str, ...] = (),
) -> Diagnostic:
    own = stair.stair
    return Diagnostic(code, message, own.id, field, value, limit, others, at or (own.x, own.y))


def _by_rule(stair: PlacedStair, rule: StairRule, units: Units) -> Iterator[Diagnostic]:
    own, stepping = stair.stair, stair.stepping
    name = own.name
    whys = why_illegal(rule, stepping, units)
    if whys:
        message = f"{name} breaks its rule: {'; '.join(whys)}"
        yield _fault(stair, "stair-illegal", message, "going" if own.going else "risers")
    if own.width < rule["width"] - SLACK:
        message = f"{name} is {format_length(own.width, units)} wide: {rule.name} asks for " + _length(
            rule, "width", units
        )
        yield _fault(stair, "stair-narrow", message, "width", own.width, rule["width"])
    most = rule.get("flight_rise", math.inf)
    for low, high, step in _flight_rises(stair):
        if high - low > most + SLACK:
            message = (
                f"a flight of {name} rises {format_length(high - low, units)}: put a landing in it, "
                f"{rule.name} asks for one every {_length(rule, 'flight_rise', units)}"
            )
            yield _fault(stair, "stair-flight-high", message, "turns", high - low, most, step)
    if own.width < rule["landing"] - SLACK and stair.layout.landings:
        at = _middle(stair.layout.landings[0].area)
        message = f"the landing of {name} is too short: {rule.name} asks for {_length(rule, 'landing', units)}"
        yield _fault(stair, "stair-landing", message, "width", own.width, rule["landing"], at)
    for turn in own.turns:
        if turn.after > stepping.treads:
            message = f"{name} has no riser {turn.after} to turn at: its last tread is number {stepping.treads}"
            yield _fault(stair, "stair-turn", message, "turns", float(turn.after), float(stepping.treads))
        elif turn.kind == "winders":
            yield from _winders(stair, rule, narrow_radius(own, turn), turn.winders, units)
    if own.open_risers and stepping.riser - own.tread > rule["gap"] + SLACK:
        gap = stepping.riser - own.tread
        message = f"between the treads of {name} are {format_length(gap, units)}: {_length(rule, 'gap', units)} at most"
        yield _fault(stair, "stair-gap", message, "open_risers", gap, rule["gap"])
    if own.build in ("cut", "mono") and stair.throat < LEAST_THROAT:
        has = max(0.0, stair.throat)
        deep = own.depth + LEAST_THROAT - stair.throat
        message = (
            f"the notches leave {format_length(has, units)} of the strings of {name}: "
            f"make them {format_length(math.ceil(deep), units)} deep"
        )
        yield _fault(stair, "stair-throat", message, "depth", has, LEAST_THROAT)


def _length(rule: StairRule, name: str, units: Units) -> str:
    return format_length(rule[name], units)


def _middle(area: Polygon) -> Point:
    return area.centroid.x, area.centroid.y


def _flight_rises(stair: PlacedStair) -> Iterator[tuple[float, float, Point]]:
    """From landing to landing: heights above the foot, and a place."""
    low, at = 0.0, stair.layout.foot.middle
    for step in stair.layout.landings:
        yield low, step.z, at
        low, at = step.z, step.back.middle
    yield low, stair.rise.total, at


def _winders(stair: PlacedStair, rule: StairRule, near: float, count: int, units: Units) -> Iterator[Diagnostic]:
    part = math.radians(90.0 / count)
    narrow = 2 * near * math.sin(part / 2)
    line = near + (rule["winder_line"] if "winder_line" in rule.limits else stair.stair.width / 2)
    going = line * part
    if narrow < rule["winder_narrow"] - SLACK:
        message = (
            f"winders of {stair.stair.name} are {format_length(narrow, units)} deep at their narrow end: "
            f"{rule.name} asks for {_length(rule, 'winder_narrow', units)}"
        )
        yield _fault(stair, "stair-winders", message, "turns", narrow, rule["winder_narrow"])
    asked = rule["going_min"] if "winder_line" in rule.limits else stair.stepping.going
    if going < asked - SLACK:
        message = (
            f"winders of {stair.stair.name} have a going of {format_length(going, units)} on the walking line, and "
            f"{format_length(asked, units)} is asked for: take fewer winders, or widen the well"
        )
        yield _fault(stair, "stair-winders", message, "turns", going, asked)


class Over(NamedTuple):
    """Something over a stair: where, its underside (mm above the datum) there, what it is, its id."""

    area: Polygon | MultiPolygon
    plane: tuple[float, float, float]
    words: str
    id: str


def _over(stair: PlacedStair, placed: Placed) -> Iterator[Over]:
    """What may hang over a stair: floors around their holes, beams, roofs, ceilings."""
    levels = placed[LEVELS]
    for flat in placed[FLOORS]:
        layers = placed.make_ups[flat.floor.make_up].layers
        low = levels[flat.floor.level].z - sum(layer.thickness for layer in layers)
        if low > stair.base:
            yield Over(flat.covered, (0.0, 0.0, low), flat.floor.name, flat.floor.id)
    for beam in placed[BEAMS]:
        low = beam.top.total - beam.beam.depth
        if low > stair.base:
            yield Over(beam.outline, (0.0, 0.0, low), "a beam", beam.beam.id)
    for roof in placed[ROOFS]:
        for plane in roof.planes:
            a, b, c = plane.top.lifted(-plane.plumb_depth)
            yield Over(plane.under, (a, b, c), roof.block.name, roof.block.id)


def clearances(stair: PlacedStair, placed: Placed) -> Iterator[tuple[float, Point, Over]]:
    """Per thing over a stair: the least height from the line along the nosings to it, and where (mm)."""
    for over in _over(stair, placed):
        least = _least_clear(stair, over.area, over.plane)
        if least is not None:
            yield least[0], least[1], over


@lru_cache(maxsize=500)
def _least_clear(
    stair: PlacedStair, area: Polygon | MultiPolygon, plane: tuple[float, float, float]
) -> tuple[float, Point] | None:
    """The least height from the line along the nosings to a plane over an area, and where (mm)."""
    if not shapely.intersects(area, stair.area):
        return None
    a, b, c = plane
    best: tuple[float, Point] | None = None
    for step in stair.layout.steps:
        # Slivers along edges that meet hang over nothing.
        piece = shapely.intersection(step.area, area, grid_size=1e-3).buffer(-EDGE, join_style="mitre")
        if piece.area < LEAST_AREA:
            continue
        for x, y in shapely.get_coordinates(piece).tolist():
            clear = a * x + b * y + c - stair.base - _nosing(stair, step, (x, y))
            if clear > -stair.rise.total and (best is None or clear < best[0]):
                best = clear, (x, y)
    return best


def _nosing(stair: PlacedStair, step: Step, point: Point) -> float:
    """Height of the line along the nosings over a step, above the foot."""
    return step.z + (0.0 if step.kind == "landing" else stair.stepping.riser * step.along(point))


def _headroom(stair: PlacedStair, rule: StairRule, placed: Placed) -> Iterator[Diagnostic]:
    units = placed.project.units
    for clear, at, over in clearances(stair, placed):
        if clear < rule["headroom"] - SLACK:
            message = (
                f"headroom on {stair.stair.name} under {over.words} is {format_length(clear, units)}: "
                f"{_length(rule, 'headroom', units)} is asked for ({rule.limits['headroom'].source})"
            )
            yield _fault(stair, "stair-headroom", message, "hole", clear, rule["headroom"], at, (over.id,))


def _in_the_way(stair: PlacedStair, placed: Placed) -> Iterator[Diagnostic]:
    """Walls that a flight runs through, and windows that it passes."""
    own, tops = stair.area, placed[WALL_TOPS]
    inner = own.buffer(-INTO_WALL, join_style="mitre")
    for wall in placed[WALLS].walls:
        top = tops.get(wall.wall.id)
        if top is None or not shapely.intersects(wall.footprint, own.buffer(BEFORE_WINDOW)):
            continue
        low, high = top.base, top.plate
        hit = [
            step
            for step in stair.layout.steps
            if stair.base + step.z > low + SLACK
            and stair.base + step.z - stair.stepping.riser < high - SLACK
            and step.area.intersection(inner).intersection(wall.footprint).area > LEAST_AREA
        ]
        doors = _doorways(wall, placed)
        hit = [step for step in hit if step.area.intersection(wall.footprint).difference(doors).area > LEAST_AREA]
        if hit:
            message = f"{stair.stair.name} runs through a wall at riser {hit[0].number}: move it, or its turns"
            yield _fault(stair, "stair-through-wall", message, "x", at=_middle(hit[0].area), others=(wall.wall.id,))
            continue
        yield from _past_windows(stair, wall, placed)


def _doorways(wall: PlannedWall, placed: Placed) -> shapely.Geometry:
    """Where one walks through a wall."""
    doors = [held for held in placed[OPENINGS].get(wall.wall.id, ()) if held.opening.unit == "door"]
    return shapely.union_all([wall.strip(held.left, held.right, wall.inner, wall.outer) for held in doors])


def _past_windows(stair: PlacedStair, wall: PlannedWall, placed: Placed) -> Iterator[Diagnostic]:
    units = placed.project.units
    for held in placed[OPENINGS].get(wall.wall.id, ()):
        if held.opening.unit != "window":
            continue
        before = wall.strip(held.left, held.right, wall.inner - BEFORE_WINDOW, wall.outer)
        for step in stair.layout.steps:
            z = stair.base + step.z
            if step.area.intersection(before).area > LEAST_AREA and held.sill.total - SLACK < z < held.head.total:
                above = format_length(z - held.sill.total, units)
                message = (
                    f"{stair.stair.name} passes before window {held.number}, {above} above its sill: guard or move it"
                )
                yield _fault(stair, "stair-at-window", message, "x", at=_middle(step.area), others=(held.opening.id,))
                break


def _carried(stair: PlacedStair, placed: Placed) -> Iterator[Diagnostic]:
    """Its head leads onto a floor, and its foot stands on one."""
    units = placed.project.units
    own = stair.stair
    levels = placed[LEVELS]
    head = shapely.Point(stair.layout.head.middle).buffer(300.0)
    floors = [flat for flat in placed[FLOORS] if flat.floor.level == own.upper]
    if not any(shapely.intersects(flat.covered, head) for flat in floors):
        rise, name = format_length(stair.rise.total, units), levels[own.upper].name
        message = f"{own.name} ends {rise} up where {name} has no floor: move its head onto one"
        yield _fault(stair, "stair-no-floor", message, "upper", at=stair.layout.head.middle)
    if stair.hole is not None:
        out = [flat for flat in floors if shapely.intersects(flat.area, stair.hole)]
        off = stair.hole.difference(shapely.union_all([flat.area for flat in out])) if out else None
        if off is not None and off.area > 1e4:
            message = (
                f"the hole that {own.name} needs lies partly outside of {levels[own.upper].name}: move the stair in"
            )
            yield _fault(stair, "hole-off-floor", message, "x", at=_middle(stair.hole))
