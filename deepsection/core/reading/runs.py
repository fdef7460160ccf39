"""Runs of wall: strips of one axis and thickness put together, with the gaps between them."""

from __future__ import annotations

import itertools
import math
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from shapely import STRtree, polygons
from shapely.geometry import Point as Spot
from shapely.geometry import Polygon

from deepsection.core.geometry import Point

from .rails import Rail, Track
from .strips import Strip

SAME_AXIS, SAME_DEPTH = 5.0, 6.0
"""Strips of one rail whose axes and thicknesses differ by no more (mm) are one wall."""
WIDEST = 7000.0
"""No opening is wider (mm)."""
NARROWEST = 330.0
TOUCH = 25.0
"""Pieces of wall this close follow each other without a gap (mm)."""
BY_EYE = 2.5
"""Walls whose thicknesses differ by this many times what their lines are off were meant to be alike."""


@dataclass(slots=True)
class Gap:
    """A gap of a run from lo to hi; `jambs` are those found at its ends, `face_on` whether one face
    goes on, `both_on` whether both do over most of it."""

    lo: float
    hi: float
    jambs: tuple[bool, bool]
    face_on: bool = False
    both_on: bool = False

    @property
    def width(self) -> float:
        return self.hi - self.lo


@dataclass(slots=True)
class Run:
    """A wall along a rail: axis at c, thickness, pieces of evidence in order, gaps between them."""

    track: int
    rail: Rail
    c: float
    t: float
    pieces: list[tuple[float, float]]
    strips: list[Strip]
    steps: tuple[float, ...] = ()
    gaps: list[Gap] = field(default_factory=list)
    ends: list[float] = field(default_factory=list)

    @property
    def s0(self) -> float:
        return self.ends[0]

    @property
    def s1(self) -> float:
        return self.ends[1]

    @property
    def length(self) -> float:
        return (self.s1 - self.s0) * self.rail.stretch(self.c)

    @property
    def drawn(self) -> float:
        """How much of it is drawn as wall (mm)."""
        return sum(b - a for a, b in self.pieces)

    @property
    def common(self) -> float:
        return max(strip.common for strip in self.strips)

    def at(self, s: float, left: float = 0.0) -> Point:
        return self.rail.at(s, self.c + left)

    def direction(self, s: float) -> float:
        """Radians of the axis at s."""
        return self.rail.angle if not self.rail.radius else self.rail.angle + s / self.rail.radius + math.pi / 2

    def band(self, lo: float, hi: float, more: float = 0.0) -> Polygon:
        """The plan of it between two places."""
        deep = self.t / 2 + more
        if not self.rail.radius:
            (x, y), cos, sin = self.rail.centre, math.cos(self.rail.angle), math.sin(self.rail.angle)
            corners = ((lo, self.c - deep), (hi, self.c - deep), (hi, self.c + deep), (lo, self.c + deep))
            found: Polygon = polygons([(x + s * cos - c * sin, y + s * sin + c * cos) for s, c in corners])
            return found
        steps = max(2, math.ceil((hi - lo) / self.rail.radius / 0.05))
        along = [lo + (hi - lo) * k / steps for k in range(steps + 1)]
        return Polygon([self.at(s, -deep) for s in along] + [self.at(s, deep) for s in reversed(along)])


def runs_of(tracks: Sequence[Track], strips: Sequence[Strip]) -> list[Run]:
    """Strips put together to runs, gaps not yet judged."""
    found: dict[tuple[int, int], list[Run]] = defaultdict(list)
    for strip in sorted(strips, key=lambda held: (-held.length, held.track, held.lo)):
        middle = (strip.c0 + strip.c1) / 2
        place = round(middle / 10.0)
        near = (run for k in (place - 1, place, place + 1) for run in found[strip.track, k])
        home = next(
            (run for run in near if abs(run.c - middle) < SAME_AXIS and abs(run.t - strip.thickness) < SAME_DEPTH), None
        )
        if home is None:
            rail = tracks[strip.track].rail
            run = Run(strip.track, rail, middle, strip.thickness, [], [strip], strip.steps)
            found[strip.track, place].append(run)
        else:
            home.strips.append(strip)
            home.steps = home.steps or strip.steps
    runs = [run for held in found.values() for run in held]
    for run in runs:
        settle(run, tracks[run.track])
    return [run for run in runs if run.pieces]


def settle(run: Run, track: Track) -> None:
    """Its axis and thickness by the mean of its strips, its pieces from jamb to jamb, its gaps."""
    weights = np.array([strip.length for strip in run.strips])
    run.c = float(np.dot([(s.c0 + s.c1) / 2 for s in run.strips], weights) / weights.sum())
    run.t = float(np.dot([s.thickness for s in run.strips], weights) / weights.sum())
    low, high = run.c - run.t / 2, run.c + run.t / 2
    pieces: list[tuple[float, float]] = []
    for strip in sorted(run.strips, key=lambda held: held.lo):
        lo, hi = strip.lo, strip.hi
        if pieces and lo <= pieces[-1][1] + TOUCH:
            pieces[-1] = pieces[-1][0], max(pieces[-1][1], hi)
        else:
            pieces.append((lo, hi))
    edges = [(track.crossed(lo, low, high), track.crossed(hi, low, high)) for lo, hi in pieces]
    run.pieces = [(lo if a is None else a, hi if b is None else b) for (lo, hi), (a, b) in zip(pieces, edges)]
    run.ends = [run.pieces[0][0], run.pieces[-1][1]]
    on = [[(face.s0, face.s1) for face in track.at(c, 4.0)] for c in (low, high)] if len(pieces) > 1 else []
    run.gaps = []
    for (one, other), (left, right) in zip(zip(run.pieces, run.pieces[1:]), itertools.pairwise(edges)):
        lo, hi = one[1], other[0]
        face_on = any(a <= lo + TOUCH and b >= hi - TOUCH for spans in on for a, b in spans)
        both = all(sum(max(min(b, hi) - max(a, lo), 0.0) for a, b in spans) > 0.8 * (hi - lo) for spans in on)
        run.gaps.append(Gap(one[1], other[0], (left[1] is not None, right[0] is not None), face_on, both))


class Near:
    """Walls as whole, to ask which of them a place may belong to."""

    def __init__(self, runs: Sequence[Run], beyond: float = 0.0) -> None:
        self._tree = STRtree([run.band(run.s0 - beyond, run.s1 + beyond, 320.0) for run in runs])

    def at(self, point: Point) -> list[int]:
        """Positions of walls that a place lies on or beside."""
        found: list[int] = sorted(self._tree.query(Spot(point), predicate="intersects").tolist())
        return found


class Bands:
    """The plans of all pieces of wall, to ask which wall covers a place."""

    def __init__(self, runs: Sequence[Run]) -> None:
        self._owners: list[int] = []
        shapes = []
        for k, run in enumerate(runs):
            for lo, hi in run.pieces:
                shapes.append(run.band(lo - 2.0, hi + 2.0))
                self._owners.append(k)
        self._tree = STRtree(shapes)

    def near(self, point: Point, reach: float) -> set[int]:
        """Runs a piece of which is this near to a place."""
        spot = Spot(point)
        found = self._tree.query(spot, predicate="dwithin", distance=reach)
        return {self._owners[k] for k in found.tolist()}


def without_overlaps(runs: list[Run], tracks: Sequence[Track]) -> list[Run]:
    """Runs less the pieces that lie, for most of their area, in a better run of another direction."""
    shapes, owners = [], []
    for k, run in enumerate(runs):
        for n, (lo, hi) in enumerate(run.pieces):
            shapes.append(run.band(lo, hi))
            owners.append((k, n))
    if not shapes:
        return []
    tree = STRtree(shapes)
    worth = [sum(strip.score for strip in run.strips) for run in runs]
    gone: set[tuple[int, int]] = set()
    one, other = tree.query(shapes, predicate="intersects")
    for a, b in zip(one.tolist(), other.tolist()):
        (i, m), (j, n) = owners[a], owners[b]
        if i == j or worth[i] > worth[j] or (worth[i] == worth[j] and i < j):
            continue
        if (j, n) in gone or (i, m) in gone:
            continue
        common = shapes[a].intersection(shapes[b]).area
        if common > 0.5 * shapes[a].area:
            gone.add((i, m))
    for k, run in enumerate(runs):
        lost = [n for n in range(len(run.pieces)) if (k, n) in gone]
        if lost:
            spans = [run.pieces[n] for n in lost]
            run.strips = [s for s in run.strips if not any(a - 30 <= (s.lo + s.hi) / 2 <= b + 30 for a, b in spans)]
            if run.strips:
                settle(run, tracks[run.track])
    return [run for run in runs if run.strips]


def within_others(runs: Sequence[Run]) -> set[int]:
    """Runs that lie in a thicker one for most of what is drawn of them: ends of walls and frames of windows in it."""
    whole = [run.band(run.s0 - run.t, run.s1 + run.t, 2.0) for run in runs]
    tree = STRtree(whole)
    found = set()
    for k, run in enumerate(runs):
        pieces = [run.band(lo, hi) for lo, hi in run.pieces]
        area = sum(piece.area for piece in pieces)
        for n in tree.query(whole[k], predicate="intersects").tolist():
            if n == k or runs[n].t <= run.t + 5.0:
                continue
            if sum(piece.intersection(whole[n]).area for piece in pieces) > 0.7 * area:
                found.add(k)
                break
    return found


def levelled(runs: Sequence[Run], off: float) -> list[float]:
    """Thicknesses, those that were meant to be one made so: to a tenth of a millimetre, to a whole one by eye."""
    values, weights = [run.t for run in runs], [run.drawn for run in runs]
    near, steps = (2.0, 10) if not off else (max(2.0, BY_EYE * off), 1)
    order = sorted(range(len(values)), key=values.__getitem__)
    found = list(values)
    run: list[int] = []
    for k in [*order, -1]:
        if run and (k < 0 or values[k] - values[run[0]] > near):
            total = sum(weights[n] for n in run) or 1.0
            mean = round(sum(values[n] * weights[n] for n in run) / total * steps) / steps
            for n in run:
                found[n] = mean
            run = []
        run.append(k)
    return found
