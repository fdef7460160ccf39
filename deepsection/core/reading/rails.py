"""Lines of one direction, or arcs about one centre: along each of these *rails* a plan is one-dimensional.

On a rail, `s` runs along it and `c` to its left: for arcs `s` is measured on a middle radius and `c` is inward.
A *face* is what is left of lines that lie on each other or follow each other.
"""

from __future__ import annotations

import bisect
import math
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from deepsection.core.geometry import Point

from .drawn import Stroke

Floats = NDArray[np.float64]
Ints = NDArray[np.intp]

SHORTEST = 20.0
"""Lines shorter than this (mm) tell no direction."""
SEED = 250.0
"""A direction is one that lines of this length take (mm)."""
STRAY = 3.0
"""A line belongs to a direction that it leaves by no more than this over its length (mm)."""
SQUARE_DEG = 0.2
"""Directions this close to a right angle were meant to be square, unless the drawing is more exact than that."""
MOST_DIRECTIONS = 120
SAME_LINE = 1.6
"""Lines of one layer this far apart (mm) are one."""
BRIDGED = 16.0
"""Lines that follow each other with such a gap are one (mm)."""


@dataclass(frozen=True, slots=True)
class Rail:
    """A direction (radians) through `centre`; or circles about it, measured along the one of `radius`."""

    centre: Point
    angle: float
    radius: float = 0.0

    def flat(self, points: Floats) -> Floats:
        """(n, 2) places of the plan as (s, c)."""
        moved = points - np.asarray(self.centre)
        if not self.radius:
            cos, sin = math.cos(self.angle), math.sin(self.angle)
            along: Floats = np.column_stack(
                (moved[:, 0] * cos + moved[:, 1] * sin, moved[:, 1] * cos - moved[:, 0] * sin)
            )
            return along
        turn = np.mod(np.arctan2(moved[:, 1], moved[:, 0]) - self.angle, math.tau)
        round_: Floats = np.column_stack((turn * self.radius, self.radius - np.hypot(moved[:, 0], moved[:, 1])))
        return round_

    def spot(self, point: Point) -> Point:
        """One place as (s, c)."""
        x, y = point[0] - self.centre[0], point[1] - self.centre[1]
        if not self.radius:
            cos, sin = math.cos(self.angle), math.sin(self.angle)
            return x * cos + y * sin, y * cos - x * sin
        return ((math.atan2(y, x) - self.angle) % math.tau) * self.radius, self.radius - math.hypot(x, y)

    def at(self, s: float, c: float) -> Point:
        """The place of (s, c)."""
        x, y = self.centre
        if not self.radius:
            cos, sin = math.cos(self.angle), math.sin(self.angle)
            return x + s * cos - c * sin, y + s * sin + c * cos
        turn, out = self.angle + s / self.radius, self.radius - c
        return x + out * math.cos(turn), y + out * math.sin(turn)

    def stretch(self, c: float) -> float:
        """Real length of one unit of s at c."""
        return 1.0 if not self.radius else (self.radius - c) / self.radius


@dataclass(slots=True)
class Face:
    """What lies on one line of a rail, without gaps: from s0 to s1 at c. `strokes` are those it was made of."""

    c: float
    s0: float
    s1: float
    layer: str
    strokes: list[int]

    @property
    def length(self) -> float:
        return self.s1 - self.s0


@dataclass(slots=True)
class Track:
    """A rail with its faces in order of c, and the short lines across it: (s, low c, high c)."""

    rail: Rail
    faces: list[Face]
    across: Floats

    def at(self, c: float, reach: float) -> list[Face]:
        """The faces no farther than this from c."""
        first = bisect.bisect_left(self.faces, c - reach, key=lambda face: face.c)
        last = bisect.bisect_right(self.faces, c + reach, key=lambda face: face.c)
        return self.faces[first:last]

    def crossed(self, s: float, low: float, high: float, reach: float = 18.0) -> float | None:
        """Where a line across ends what lies between two faces, near s."""
        held = self.across
        if not len(held):
            return None
        first, last = np.searchsorted(held[:, 0], (s - reach, s + reach))
        part = held[first:last]
        slack = min(reach, 0.2 * (high - low))
        fits = (part[:, 1] <= low + slack) & (part[:, 2] >= high - slack)
        fits &= (part[:, 1] >= low - 60.0) & (part[:, 2] <= high + 60.0)
        found = part[fits]
        return float(found[np.argmin(np.abs(found[:, 0] - s)), 0]) if len(found) else None


def tracks(strokes: Sequence[Stroke], usable: Sequence[bool]) -> list[Track]:
    """The rails of a drawing (mm) with what lies on them; only usable strokes make faces, all may lie across."""
    ends = np.array([(*s.a, *s.b) for s in strokes], dtype=float).reshape(-1, 4)
    bulges = np.array([s.bulge for s in strokes], dtype=float)
    wanted = np.asarray(usable, dtype=bool)
    found = [_straight(rail, held, strokes, ends, bulges) for rail, held in _directions(ends, bulges, wanted)]
    found += [_round(rail, held, strokes, ends, bulges) for rail, held in _centres(strokes, wanted)]
    return [track for track in found if len(track.faces) > 1]


def _directions(ends: Floats, bulges: Floats, wanted: NDArray[np.bool_]) -> list[tuple[Rail, Ints]]:
    """Directions with the lines that take them, the one with most lines first."""
    run = ends[:, 2:] - ends[:, :2]
    length = np.hypot(run[:, 0], run[:, 1])
    angle = np.mod(np.arctan2(run[:, 1], run[:, 0]), math.pi)
    left = np.flatnonzero(wanted & (bulges == 0) & (length > SHORTEST))
    if not len(left):
        return []
    middle = tuple(np.round((ends[left, :2].mean(axis=0) + ends[left, 2:].mean(axis=0)) / 2, 3))
    seeds: list[float] = []
    scatter: list[float] = []
    weights: list[float] = []
    rest = left[length[left] >= SEED]
    while len(rest) and len(seeds) < MOST_DIRECTIONS:
        bins = np.minimum((angle[rest] / math.pi * 3600).astype(int), 3599)
        sums = np.bincount(bins, length[rest], 3600)
        smooth = sums + np.roll(sums, 1) + np.roll(sums, -1)
        peak = (int(np.argmax(smooth)) + 0.5) / 3600 * math.pi
        near = _turn(angle[rest], peak)
        close = np.abs(near) < math.radians(0.15)
        if not close.any() or length[rest][close].sum() < 2 * SEED:
            break
        weight = length[rest][close] ** 2
        best = peak + float((near[close] * weight).sum() / weight.sum())
        off = _turn(angle[rest], best)
        mine = np.abs(np.sin(off)) * length[rest] < STRAY
        mine |= close & (np.abs(np.sin(off)) * length[rest] < 2 * STRAY)
        if not mine.any():
            break
        weight = length[rest][mine] ** 2
        best += float((off[mine] * weight).sum() / weight.sum())
        seeds.append(best)
        scatter.append(float(np.sqrt((weight * (_turn(angle[rest][mine], best)) ** 2).sum() / weight.sum())))
        weights.append(float(length[rest][mine].sum()))
        rest = rest[~mine]
    if not seeds:
        return []
    angles = _squared(seeds, scatter, weights)
    off = np.abs(np.stack([_turn(angle[left], held) for held in seeds]))
    nearest = np.argmin(off, axis=0)
    lateral = np.sin(off[nearest, np.arange(len(left))]) * length[left]
    kept = lateral < 2 * STRAY
    held = []
    for k, turn in enumerate(angles):
        lines = left[kept & (nearest == k)]
        if len(lines) > 1:
            held.append((Rail(middle, turn), lines))
    return held


def _turn(angles: Floats, base: float) -> Floats:
    """Differences of directions, from -90 to 90 degrees."""
    turned: Floats = np.mod(angles - base + math.pi / 2, math.pi) - math.pi / 2
    return turned


def _squared(seeds: list[float], scatter: list[float], weights: list[float]) -> list[float]:
    """Directions, those that were meant to be square with the main one made so."""
    main = max(range(len(seeds)), key=weights.__getitem__)
    exact = [0.0002 + 2 * (value + scatter[main]) for value in scatter]
    base = seeds[main]
    straight = math.remainder(base, math.pi / 2)
    if abs(straight) < min(math.radians(SQUARE_DEG), exact[main]):
        base -= straight
    found = []
    for k, value in enumerate(seeds):
        off = math.remainder(value - base, math.pi / 2)
        found.append(value - off if abs(off) < min(math.radians(SQUARE_DEG), exact[k]) else value)
    return found


def _straight(rail: Rail, held: Ints, strokes: Sequence[Stroke], ends: Floats, bulges: Floats) -> Track:
    first, last = rail.flat(ends[held, :2]), rail.flat(ends[held, 2:])
    c = (first[:, 1] + last[:, 1]) / 2
    low, high = np.minimum(first[:, 0], last[:, 0]), np.maximum(first[:, 0], last[:, 0])
    return Track(
        rail, faces_of(c, low, high, [strokes[k].layer for k in held], held.tolist()), _across(rail, ends, bulges)
    )


def faces_of(c: Floats, low: Floats, high: Floats, layers: Sequence[str], names: Sequence[int]) -> list[Face]:
    """Lines on a rail put together, layer by layer, in order of c."""
    groups: dict[str, list[int]] = defaultdict(list)
    for k, layer in enumerate(layers):
        groups[layer].append(k)
    found: list[Face] = []
    for layer, members in groups.items():
        order = np.asarray(members)[np.argsort(c[members], kind="stable")]
        breaks = np.flatnonzero(np.diff(c[order]) > SAME_LINE) + 1
        for run in np.split(order, breaks):
            run = run[np.argsort(low[run], kind="stable")]
            start = 0
            reach = high[run[0]]
            for k in range(1, len(run) + 1):
                if k < len(run) and low[run[k]] <= reach + BRIDGED:
                    reach = max(reach, high[run[k]])
                    continue
                part = run[start:k]
                weight = high[part] - low[part] + 1e-9
                at = float((c[part] * weight).sum() / weight.sum())
                found.append(Face(at, float(low[part].min()), float(high[part].max()), layer, [names[n] for n in part]))
                if k < len(run):
                    start, reach = k, high[run[k]]
    return sorted(found, key=lambda face: (face.c, face.s0))


def _across(rail: Rail, ends: Floats, bulges: Floats) -> Floats:
    """Short straight lines square to a rail, put together: (s, low c, high c), in order of s."""
    straight = np.flatnonzero(bulges == 0)
    first, last = rail.flat(ends[straight, :2]), rail.flat(ends[straight, 2:])
    along, over = np.abs(first[:, 0] - last[:, 0]), np.abs(first[:, 1] - last[:, 1])
    fits = (over > 5.0) & (along < np.maximum(3.0, 0.03 * over))
    if not fits.any():
        return np.zeros((0, 3))
    s, low, high = (
        (first[fits, 0] + last[fits, 0]) / 2,
        np.minimum(first[fits, 1], last[fits, 1]),
        np.maximum(first[fits, 1], last[fits, 1]),
    )
    joined = faces_of(s, low, high, [""] * len(s), list(range(len(s))))
    held: Floats = np.array([(face.c, face.s0, face.s1) for face in joined if 20.0 < face.length < 800.0]).reshape(
        -1, 3
    )
    return held


def _centres(strokes: Sequence[Stroke], wanted: NDArray[np.bool_]) -> list[tuple[Rail, Ints]]:
    """Arcs that share a centre; only where two of them lie at a distance of a wall."""
    arcs = [k for k, stroke in enumerate(strokes) if stroke.bulge and wanted[k]]
    groups: list[tuple[list[int], list[Point], list[float]]] = []
    cells: dict[tuple[int, int], list[int]] = defaultdict(list)
    for k in arcs:
        centre, radius = circle_of(strokes[k])
        slack = 3.0 + 0.002 * radius
        key = round(centre[0] / 200), round(centre[1] / 200)
        near = (n for dx in (-1, 0, 1) for dy in (-1, 0, 1) for n in cells[key[0] + dx, key[1] + dy])
        home = next((n for n in near if math.dist(groups[n][1][0], centre) < slack), None)
        if home is None:
            home = len(groups)
            groups.append(([], [], []))
            cells[key].append(home)
        groups[home][0].append(k)
        groups[home][1].append(centre)
        groups[home][2].append(radius)
    found = []
    for members, centres, radii in groups:
        if len(members) < 2 or max(radii) - min(radii) < 5.0:
            continue
        weights = np.array([abs(math.atan(strokes[k].bulge)) * r * r for k, r in zip(members, radii)])
        x, y = (np.asarray(centres) * weights[:, None]).sum(axis=0) / weights.sum()
        turns = sorted(_turns(strokes[k], (float(x), float(y))) for k in members)
        found.append((Rail((float(x), float(y)), _opening(turns), max(radii)), np.asarray(members)))
    return found


def circle_of(stroke: Stroke) -> tuple[Point, float]:
    """Centre and radius of an arc."""
    (x0, y0), (x1, y1), b = stroke.a, stroke.b, stroke.bulge
    offset = (1 / b - b) / 4
    centre = (x0 + x1) / 2 - (y1 - y0) * offset, (y0 + y1) / 2 + (x1 - x0) * offset
    return centre, math.dist(centre, stroke.a)


def _turns(stroke: Stroke, centre: Point) -> tuple[float, float]:
    """Where an arc begins, going left, and how far it goes (radians)."""
    a = stroke.a if stroke.bulge > 0 else stroke.b
    return math.atan2(a[1] - centre[1], a[0] - centre[0]) % math.tau, 4 * abs(math.atan(stroke.bulge))


def _opening(turns: list[tuple[float, float]]) -> float:
    """An angle at which nothing is drawn, where there is one, just before something is."""
    best, at = -1.0, turns[0][0]
    reach = max(a + b - math.tau for a, b in turns)
    for low, sweep in turns:
        if low - reach > best:
            best, at = low - reach, low
        reach = max(reach, low + sweep)
    return at - min(max(best, 0.0) / 2, 0.05)


def _round(rail: Rail, held: Ints, strokes: Sequence[Stroke], ends: Floats, bulges: Floats) -> Track:
    c, low, high = [], [], []
    for k in held:
        start, sweep = _turns(strokes[k], rail.centre)
        first = math.remainder(start - rail.angle - math.pi, math.tau) + math.pi
        low.append(first * rail.radius)
        high.append((first + sweep) * rail.radius)
        c.append(rail.radius - circle_of(strokes[k])[1])
    faces = faces_of(np.array(c), np.array(low), np.array(high), [strokes[k].layer for k in held], held.tolist())
    return Track(rail, faces, _across(rail, ends, bulges))
