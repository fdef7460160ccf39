"""Stairs in plan: their steps one after another, and the flights between landings with the lines of their nosings."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal, NamedTuple

from shapely.geometry import Polygon

from ...geometry import Point
from .model import Stair, StairTurn
from .rules import Stepping, stair_rules

Point3 = tuple[float, float, float]
StepKind = Literal["tread", "winder", "landing"]
LANDING_WELL = 100.0
"""Between the flights beside a half landing, where nothing is said (mm). Common practice, no source."""


class Front(NamedTuple):
    """Where a riser stands in plan, coming up: its left and its right end."""

    left: Point
    right: Point

    @property
    def middle(self) -> Point:
        """Half way between the two."""
        return (self.left[0] + self.right[0]) / 2, (self.left[1] + self.right[1]) / 2


@dataclass(frozen=True, slots=True)
class Step:
    """What one steps on: its number from below, its area, the riser before it and the one behind it.

    `z` is its top, above the foot of the stair (mm). `heading` is the way up over it.
    """

    number: int
    kind: StepKind
    z: float
    area: Polygon
    front: Front
    back: Front
    heading: Point
    left: tuple[Point, ...]
    """The corners along its left side, front and back included."""
    right: tuple[Point, ...]

    def along(self, point: Point) -> float:
        """How far over the step a point lies on the way up: 0 at its front, 1 at its back."""
        (x0, y0), (x1, y1) = self.front.left, self.front.right
        (u0, v0), (u1, v1) = self.back.left, self.back.right
        before = abs((x1 - x0) * (point[1] - y0) - (y1 - y0) * (point[0] - x0)) / (math.dist(*self.front) or 1.0)
        behind = abs((u1 - u0) * (point[1] - v0) - (v1 - v0) * (point[0] - u0)) / (math.dist(*self.back) or 1.0)
        return before / (before + behind) if before + behind > 0 else 0.0


@dataclass(frozen=True, slots=True)
class Flight:
    """Steps without a landing between them. Its sides are lines along the nosings: (x, y, z above the foot)."""

    number: int
    steps: tuple[Step, ...]
    left: tuple[Point3, ...]
    right: tuple[Point3, ...]
    end: Front
    low: float
    """What it stands on: the foot of the stair, or a landing (mm above the foot)."""

    @property
    def runs(self) -> tuple[tuple[Step, ...], ...]:
        """Its straight pieces: treads with one heading, one after another."""
        groups = itertools.groupby(self.steps, key=lambda step: (step.kind, _rounded(step.heading)))
        return tuple(tuple(group) for (kind, _), group in groups if kind == "tread")


def _rounded(point: Point) -> Point:
    return round(point[0], 6), round(point[1], 6)


@dataclass(frozen=True, slots=True)
class StairLayout:
    """A stair in plan: its steps, its flights, and where its last riser stands."""

    steps: tuple[Step, ...]
    flights: tuple[Flight, ...]
    foot: Front
    head: Front
    pivots: tuple[Point, ...]
    """About which winders turn."""

    @property
    def landings(self) -> tuple[Step, ...]:
        """The steps that are landings."""
        return tuple(step for step in self.steps if step.kind == "landing")


def narrow_radius(stair: Stair, turn: StairTurn) -> float:
    """How far the narrow ends of winders lie from the point about which they turn (mm)."""
    if turn.well is not None:
        return turn.well
    half = math.radians(90.0 / turn.winders / 2)
    return stair_rules()[stair.rule]["winder_narrow"] / (2 * math.sin(half))


@lru_cache(maxsize=256)
def lay_out(stair: Stair, stepping: Stepping) -> StairLayout:
    """The steps of a stair in plan. Turns after its last tread are left out."""
    turn = math.radians(stair.turn)
    walk = _Walk(stair, stepping, (stair.x, stair.y), (math.cos(turn), math.sin(turn)))
    foot = walk.front()
    for bend in stair.turns:
        if bend.after > stepping.treads:
            break
        walk.straight_to(bend.after)
        walk.bend(bend)
    walk.straight_to(stepping.risers)
    return StairLayout(
        tuple(walk.steps), tuple(_flights(walk.steps, foot, walk.front(), stepping)), foot, walk.front(), walk.pivots
    )


class _Walk:
    """Goes up a stair and leaves its steps behind: the middle of the next riser, and the way up."""

    def __init__(self, stair: Stair, stepping: Stepping, at: Point, heading: Point) -> None:
        self._stair, self._stepping, self._at, self._heading = stair, stepping, at, heading
        self.steps: list[Step] = []
        self.pivots: tuple[Point, ...] = ()

    @property
    def _number(self) -> int:
        return len(self.steps) + 1

    def front(self) -> Front:
        """The riser at which one stands."""
        half = self._stair.width / 2
        return Front(self._beside(half), self._beside(-half))

    def _beside(self, left: float, ahead: float = 0.0) -> Point:
        (x, y), (dx, dy) = self._at, self._heading
        return x + dx * ahead - dy * left, y + dy * ahead + dx * left

    def _leave(self, kind: StepKind, front: Front, heading: Point, left: list[Point], right: list[Point]) -> None:
        z = self._number * self._stepping.riser
        area = Polygon([*_apart(right), *reversed(_apart(left))])
        back = Front(left[-1], right[-1])
        self.steps.append(Step(self._number, kind, z, area, front, back, heading, tuple(left), tuple(right)))

    def straight_to(self, number: int) -> None:
        """Treads until the riser of a number is reached."""
        stair = self._stair
        while self._number < number:
            front, heading, going = self.front(), self._heading, self._stepping.going
            if stair.curve is None:
                self._at = self._beside(0.0, going)
            else:
                side = 1.0 if stair.curve_side == "left" else -1.0
                centre = self._beside(side * stair.curve)
                angle = side * going / stair.curve
                self._at = _turned(self._at, centre, angle)
                self._heading = _turned(self._heading, (0.0, 0.0), angle)
            back = self.front()
            self._leave("tread", front, heading, [front.left, back.left], [front.right, back.right])

    def bend(self, turn: StairTurn) -> None:
        """A landing, or winders, and the way on behind them."""
        if turn.kind == "winders":
            self._wind(turn)
            return
        stair, front = self._stair, self.front()
        side, half = 1.0 if turn.side == "left" else -1.0, stair.width / 2
        far, near = self._beside(-side * half, stair.width), self._beside(side * half)
        if turn.kind == "landing":
            inner, outer = [near], [self._beside(-side * half), far, self._beside(side * half, stair.width)]
            at, heading = self._beside(side * half, half), _turned(self._heading, (0.0, 0.0), side * math.pi / 2)
        else:
            well = LANDING_WELL if turn.well is None else turn.well
            reach = side * (half + well + stair.width)
            inner = [near, self._beside(side * (half + well))]
            outer = [self._beside(-side * half), far, self._beside(reach, stair.width), self._beside(reach)]
            at, heading = self._beside(side * (stair.width + well)), (-self._heading[0], -self._heading[1])
        left, right = (inner, outer) if side > 0 else (outer, inner)
        self._leave("landing", front, self._heading, left, right)
        self._at, self._heading = at, heading

    def _wind(self, turn: StairTurn) -> None:
        """Winders about a point beside the flight."""
        width, side = self._stair.width, 1.0 if turn.side == "left" else -1.0
        near = narrow_radius(self._stair, turn)
        far = near + width
        pivot = self._beside(side * (width / 2 + near))
        self.pivots += (pivot,)
        (vx, vy), (ux, uy) = self._heading, (side * self._heading[1], -side * self._heading[0])

        def at(u: float, v: float) -> Point:
            return pivot[0] + ux * u + vx * v, pivot[1] + uy * u + vy * v

        def ray(angle: float) -> tuple[Point, Point]:
            c, s = math.cos(angle), math.sin(angle)
            return at(near * c, near * s), at(*((far, far * s / c) if angle <= math.pi / 4 else (far * c / s, far)))

        def front(angle: float) -> Front:
            inner, outer = ray(angle)
            return Front(inner, outer) if side > 0 else Front(outer, inner)

        part = math.pi / 2 / turn.winders
        for k in range(turn.winders):
            a, b = k * part, (k + 1) * part if k + 1 < turn.winders else math.pi / 2
            inner, outer = [ray(a)[0], ray(b)[0]], [ray(a)[1], ray(b)[1]]
            if a < math.pi / 4 - 1e-9 and b > math.pi / 4 + 1e-9:
                outer.insert(1, at(far, far))
            heading = _turned(self._heading, (0.0, 0.0), side * (a + b) / 2)
            left, right = (inner, outer) if side > 0 else (outer, inner)
            self._leave("winder", front(a), heading, left, right)
        self._at = at(0.0, near + width / 2)
        self._heading = (-ux, -uy)


def _turned(point: Point, about: Point, angle: float) -> Point:
    c, s = math.cos(angle), math.sin(angle)
    if abs(abs(angle) - math.pi / 2) < 1e-12:
        c, s = 0.0, math.copysign(1.0, angle)
    x, y = point[0] - about[0], point[1] - about[1]
    return about[0] + c * x - s * y, about[1] + s * x + c * y


def _apart(points: list[Point]) -> list[Point]:
    """Points without those that lie on the one before."""
    kept: list[Point] = []
    for point in points:
        if not kept or math.dist(point, kept[-1]) > 1e-3:
            kept.append(point)
    return kept


def _flights(steps: list[Step], foot: Front, head: Front, stepping: Stepping) -> Iterator[Flight]:
    """The steps between landings; a riser that leads from a landing to the next one is a flight without steps."""
    number, low, own = 1, 0.0, list[Step]()
    for step in [*steps, None]:
        if step is not None and step.kind != "landing":
            own.append(step)
            continue
        if own:
            end = step.front if step is not None else head
            left, right = (_nosings(own, side, stepping) for side in ("left", "right"))
            yield Flight(number, tuple(own), left, right, end, low)
            number += 1
        own = []
        low = step.z if step is not None else low


def _nosings(steps: list[Step], side: str, stepping: Stepping) -> tuple[Point3, ...]:
    """The line along the nosings at one side; over a step it rises evenly."""
    found: list[Point3] = []
    for step in steps:
        corners = step.left if side == "left" else step.right
        lengths = [0.0, *itertools.accumulate(math.dist(a, b) for a, b in itertools.pairwise(corners))]
        for (x, y), length in zip(corners, lengths):
            z = step.z + (stepping.riser * length / lengths[-1] if lengths[-1] else 0.0)
            if not found or math.dist((x, y), found[-1][:2]) > 1e-3:
                found.append((x, y, z))
    return tuple(found)


def straight(line: tuple[Point3, ...]) -> tuple[tuple[Point3, ...], ...]:
    """A line along nosings, parted where it bends in plan."""
    pieces: list[list[Point3]] = []
    for a, b in itertools.pairwise(line):
        run = _unit(a, b)
        if pieces and math.dist(run, _unit(pieces[-1][-2], pieces[-1][-1])) < 1e-6:
            pieces[-1].append(b)
        else:
            pieces.append([a, b])
    return tuple(tuple(piece) for piece in pieces)


def _unit(a: Point3, b: Point3) -> Point:
    length = math.dist(a[:2], b[:2]) or 1.0
    return (b[0] - a[0]) / length, (b[1] - a[1]) / length
