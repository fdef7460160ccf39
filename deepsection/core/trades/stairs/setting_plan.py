"""Setting out of a stair for the joiner: one string unfolded with its housings, goings, heights from finish, angles."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

import numpy as np
import shapely
from shapely import affinity

from ...building.parts import Part
from ...drawing import (
    LESSER,
    NUMBER,
    Dimension,
    Label,
    Lettered,
    Mark,
    Region,
    Stroke,
    Text,
    path,
    rings_of,
    text_width,
)
from ...drawing.chains import Measure, Place, stretches
from ...geometry import Frame, Point, polygons_of
from ...units import Units, format_length
from .layout import Flight, Step, straight
from .parts import stair_parts
from .placed import PlacedStair

Side = Literal["left", "right"]
LANDING = 450.0
"""Between strings beside a landing, as they are drawn side by side (mm)."""
ROD = 14.0
"""How far the rod of heights stands from the string (paper mm)."""
TICK = 3.0
"""Length of the ticks of the rod (paper mm)."""
BELOW = 9.0
"""How far the goings are written below (paper mm)."""
TEXT, SMALL = 2.2, 1.8
"""Heights of lettering (paper mm)."""
ROW = 4.6
"""Height of a line of words (paper mm)."""
BOARDS = ("string", "carriage", "stair_flight")


@dataclass(frozen=True, slots=True)
class _Laid:
    """A step on the unfolded side: where its riser stands and where its tread ends (mm from the first riser)."""

    step: Step
    start: float
    end: float


@dataclass(frozen=True, slots=True)
class _Unfolded:
    """A flight on the unfolded side: its steps, and where it begins."""

    flight: Flight
    start: float
    steps: tuple[_Laid, ...]

    @property
    def end(self) -> float:
        """Where its last tread ends."""
        return self.steps[-1].end


def longer_side(placed: PlacedStair) -> Side:
    """The side whose string is the longer: outside of the turns."""
    lengths = {
        side: sum(math.dist(a, b) for step in placed.layout.steps for a, b in itertools.pairwise(corners(step, side)))
        for side in ("left", "right")
    }
    return "left" if lengths["left"] >= lengths["right"] else "right"


def corners(step: Step, side: str) -> tuple[Point, ...]:
    """The corners along a side of a step."""
    return step.left if side == "left" else step.right


def setting_marks(placed: PlacedStair, units: Units, scale: float) -> list[Lettered]:
    """All of the drawing: 0 is the first riser, heights are above the finish at the foot."""
    side = longer_side(placed)
    flights = list(_unfolded(placed, side))
    marks: list[Lettered] = [mark for held in flights for mark in _boards(placed, held, side)]
    marks += [mark for held in flights for mark in _housings(placed, held)]
    marks += _goings(placed, flights, units, scale)
    marks += _rod(placed, flights, units, scale)
    marks += _angles(placed, flights, scale)
    marks += _words(placed, flights, side, units, scale)
    return marks


def _unfolded(placed: PlacedStair, side: Side) -> Iterator[_Unfolded]:
    at = 0.0
    for flight in placed.layout.flights:
        start, laid = at, []
        for step in flight.steps:
            length = sum(math.dist(a, b) for a, b in itertools.pairwise(corners(step, side)))
            laid.append(_Laid(step, at, at + length))
            at += length
        yield _Unfolded(flight, start, tuple(laid))
        at += LANDING


def _boards(placed: PlacedStair, held: _Unfolded, side: Side) -> Iterator[Mark]:
    """The boards of a flight at the side, each cut through its middle and laid in line."""
    line = held.flight.left if side == "left" else held.flight.right
    starts = [held.start]
    for piece in straight(line):
        starts.append(starts[-1] + math.dist(piece[0][:2], piece[-1][:2]))
    for part in stair_parts(placed):
        number, _, rest = part.key.split("/")[3].partition(":")
        if part.role not in BOARDS or part.axis is None or number != str(held.flight.number):
            continue
        where, _, last = rest.partition(":")
        if part.role == "string":
            if where != side:
                continue
            shift = starts[int(last)] - _along(part, straight(line)[int(last)][0][:2])
        elif last not in ("", "0"):
            continue
        else:
            run = held.flight.runs[int(where or 0)]
            first = next(laid for laid in held.steps if laid.step is run[0])
            shift = first.start - _along(part, run[0].front.middle)
        for polygon in polygons_of(affinity.translate(_cut(part), shift, -placed.base)):
            yield Region(rings_of(polygon), fill="paper", pen="cut", part=part.key, feature="board")


def _along(part: Part, point: Point) -> float:
    assert part.axis is not None
    return point[0] * part.axis[0] + point[1] * part.axis[1]


def _cut(part: Part) -> shapely.Geometry:
    """A board cut through its middle, along its length."""
    assert part.axis is not None
    rx, ry, _ = part.axis
    points, _ = part.solid.mesh()
    depths = points[:, 0] * -ry + points[:, 1] * rx
    middle = float(np.min(depths) + np.max(depths)) / 2
    return part.solid.cut(Frame(-ry, rx, -ry * middle, rx * middle))


def _housings(placed: PlacedStair, held: _Unfolded) -> Iterator[Mark]:
    """Where treads and risers lie, on the string."""
    stair, rise = placed.stair, placed.stepping.riser
    for laid in held.steps:
        nose = stair.nosing if laid.step.kind == "tread" else 0.0
        key = f"{stair.id}/tread//{laid.step.number}"
        yield _box(laid.start - nose, laid.end + stair.riser_board, laid.step.z - stair.tread, laid.step.z, key)
        if not stair.open_risers:
            yield _box(laid.start, laid.start + stair.riser_board, laid.step.z - rise, laid.step.z - stair.tread, key)


def _box(u0: float, u1: float, v0: float, v1: float, key: str) -> Mark:
    return Stroke(path((u0, v0), (u1, v0), (u1, v1), (u0, v1)), "fine", closed=True, part=key, feature="housing")


def _goings(placed: PlacedStair, flights: list[_Unfolded], units: Units, scale: float) -> Iterator[Mark]:
    """Each going below, and the length of each flight."""
    foot = min(0.0, *(held.flight.low for held in flights)) - placed.stair.depth * 0.1
    # A joiner cuts by tenths; equal goings that are too narrow for their figures are one.
    exact = Measure(units, whole=0.1, equal="narrow")
    for held in flights:
        edges = [Place(held.start, "foot"), *(Place(laid.end, str(laid.step.number)) for laid in held.steps)]
        for going in stretches(edges, exact, scale):
            key = f"{placed.stair.id}/tread//{going.name.rpartition('-')[2]}"
            yield Dimension(going.start, foot, going.end, foot, -BELOW, going.text, part=key, feature="going")
        if len(held.steps) > 1:
            (run,) = stretches([edges[0], edges[-1]], exact, scale)
            yield Dimension(run.start, foot, run.end, foot, -BELOW - 7.0, run.text, feature="run")


def _rod(placed: PlacedStair, flights: list[_Unfolded], units: Units, scale: float) -> Iterator[Lettered]:
    """A rod with the height of each tread above the finish at the foot, as far as the floor above."""
    stepping, key = placed.stepping, f"{placed.stair.id}/rise//"
    u = flights[0].start - placed.stair.depth - ROD * scale
    yield Stroke(path((u, 0.0), (u, placed.rise.total)), "dimension", part=key, feature="rod")
    heights = [0.0, *(k * stepping.riser for k in range(1, stepping.risers)), placed.rise.total]
    for number, z in enumerate(heights):
        yield Stroke(path((u - TICK / 2 * scale, z), (u + TICK / 2 * scale, z)), "symbol", part=key, feature="rod")
        name = "finish" if number == 0 else "floor" if number == len(heights) - 1 else str(number)
        place = u - (TICK / 2 + 1.0) * scale
        words = f"{name}  {format_length(z, units)}"
        text = Text(place, z, words, SMALL, "right", "middle", 0.0, "mono", key, placed.rise.id, feature="height")
        aside = (text_width(words, SMALL) + 3.0) * scale
        places = [(-k * aside, row * scale) for k in range(4) for row in (0.0, 2.0, -2.0)]
        rank = LESSER if name == str(number) else NUMBER
        tick = shapely.Point(u, z).buffer(TICK / 2 * scale)
        yield Label(f"setting:{placed.stair.id}:{number}", (text,), places, rank, tick)
    for held in flights:
        for laid in held.steps[:1]:
            yield Stroke(path((u, laid.step.z), (laid.start, laid.step.z)), "level", part=key, feature="rod")


def _angles(placed: PlacedStair, flights: list[_Unfolded], scale: float) -> Iterator[Lettered]:
    """The line of the nosings over each straight run, with its pitch."""
    key = f"{placed.stair.id}/stair//"
    for held in flights:
        for run in held.flight.runs:
            laid = [found for found in held.steps if found.step in run]
            if len(laid) < 2:
                continue
            (u0, v0), (u1, v1) = (laid[0].start, laid[0].step.z), (laid[-1].start, laid[-1].step.z)
            angle = math.degrees(math.atan2(v1 - v0, u1 - u0))
            yield Stroke(path((u0, v0), (u1, v1)), "centre", part=key, feature="nosings")
            a, off = math.radians(angle), 9.0 * scale
            place = ((u0 + u1) / 2 - math.sin(a) * off, (v0 + v1) / 2 + math.cos(a) * off)
            words = f"pitch {angle:.1f}°: level cut {angle:.1f}°, plumb cut {90 - angle:.1f}°"
            text = Text(*place, words, TEXT, "centre", "middle", angle, "mono", key, feature="pitch")
            up = (-math.sin(a) * scale, math.cos(a) * scale)
            places = [(up[0] * row, up[1] * row) for row in (0.0, 5.0, 10.0, 16.0, 24.0)]
            line = shapely.LineString([(u0, v0), (u1, v1)])
            yield Label(f"setting:{placed.stair.id}:pitch:{laid[0].step.number}", (text,), places, NUMBER, line)


def _words(placed: PlacedStair, flights: list[_Unfolded], side: Side, units: Units, scale: float) -> Iterator[Mark]:
    """What the joiner has to know beside it."""
    stair, stepping = placed.stair, placed.stepping
    key, x = f"{stair.id}/stair//", flights[0].start
    y = min(0.0, *(held.flight.low for held in flights)) - (BELOW + 20.0) * scale

    def of(length: float) -> str:
        return format_length(length, units)

    build = {"cut": "cut strings", "mono": "one carriage", "concrete": "concrete"}.get(stair.build, "housed strings")
    boards = f"{build} {of(stair.depth)} deep" + ("" if stair.build == "concrete" else f", {of(stair.string)} thick")
    if stair.build == "cut":
        boards += f", throat {of(placed.throat)}"
    lines = [
        f"{stepping.risers} risers of {of(stepping.riser)} from finish to finish, {of(placed.rise.total)} in all; "
        f"{placed.rule_name}",
        f"{stepping.treads} treads, going {of(stepping.going)}, nosing {of(stair.nosing)}; width {of(stair.width)}",
        f"treads {of(stair.tread)}"
        + (", open risers" if stair.open_risers else f", risers {of(stair.riser_board)}")
        + f"; {boards}",
        f"the {side} side going up, unfolded, seen from the stair",
    ]
    for k, words in enumerate(lines):
        yield Text(x, y - k * ROW * scale, words, TEXT, "left", "middle", part=key, feature="words")
