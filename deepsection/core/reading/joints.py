"""Where walls meet: corners, tees on the side of another wall, ends that stand free."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from shapely import STRtree, box

from deepsection.core.geometry import Point

from .runs import Run

SLACK = 45.0
"""Walls that miss each other by no more (mm) were meant to meet."""
TEE = 30.0
"""A wall that goes on this far beyond another (mm) carries it; a shorter one shares a corner with it."""
BEYOND = 500.0
LEAST_SINE = 0.17
"""Walls at a flatter angle than this do not meet."""


@dataclass(frozen=True, slots=True)
class End:
    """How a wall ends: at s of its rail; on `other` at `other_s`, or sharing an end (0 or 1) of it."""

    kind: Literal["corner", "tee", "free"]
    s: float
    other: int = -1
    other_s: float = 0.0
    other_end: int = 0


@dataclass(frozen=True, slots=True)
class Meeting:
    """Two axes cross at these places of their rails; how far a wall may end from there."""

    s: float
    r: float
    reach_s: float
    reach_r: float


def meetings(one: Run, other: Run) -> Iterator[Meeting]:
    """Where the axes of two walls cross."""
    for spot in _crossings(one, other):
        s, r = one.rail.spot(spot)[0], other.rail.spot(spot)[0]
        turn = one.direction(s) - other.direction(r)
        sine, cosine = abs(math.sin(turn)), abs(math.cos(turn))
        if sine < LEAST_SINE:
            continue
        yield Meeting(
            s, r, (other.t + one.t * cosine) / 2 / sine + SLACK, (one.t + other.t * cosine) / 2 / sine + SLACK
        )


def _crossings(one: Run, other: Run) -> list[Point]:
    if one.rail.radius and other.rail.radius:
        return _circles(one.rail.centre, one.rail.radius - one.c, other.rail.centre, other.rail.radius - other.c)
    if one.rail.radius:
        return _crossings(other, one)
    x, y = one.at(0.0)
    cos, sin = math.cos(one.rail.angle), math.sin(one.rail.angle)
    if not other.rail.radius:
        p, q = other.at(0.0)
        dx, dy = math.cos(other.rail.angle), math.sin(other.rail.angle)
        cross = cos * dy - sin * dx
        if abs(cross) < LEAST_SINE:
            return []
        along = ((p - x) * dy - (q - y) * dx) / cross
        return [(x + cos * along, y + sin * along)]
    (cx, cy), radius = other.rail.centre, other.rail.radius - other.c
    foot = (cx - x) * cos + (cy - y) * sin
    off = math.hypot(cx - x - cos * foot, cy - y - sin * foot)
    if off > radius:
        return []
    half = math.sqrt(radius * radius - off * off)
    return [(x + cos * (foot + side * half), y + sin * (foot + side * half)) for side in (-1, 1)]


def _circles(a: Point, r: float, b: Point, q: float) -> list[Point]:
    apart = math.dist(a, b)
    if apart < 1.0 or apart > r + q or apart < abs(r - q):
        return []
    along = (r * r - q * q + apart * apart) / (2 * apart)
    half = math.sqrt(max(r * r - along * along, 0.0))
    ux, uy = (b[0] - a[0]) / apart, (b[1] - a[1]) / apart
    return [(a[0] + ux * along - uy * half * side, a[1] + uy * along + ux * half * side) for side in (-1, 1)]


def joined(runs: Sequence[Run], *, whole: bool = False) -> list[tuple[End, End]]:
    """How each wall starts and ends; nothing of the runs is changed.

    `whole`: they are as long as the bodies of the walls, which go on past where axes cross at a corner.
    """
    pairs = _close(runs)
    choices: dict[tuple[int, int], list[tuple[float, End]]] = {}
    for k, n in pairs:
        one, other = runs[k], runs[n]
        for held in meetings(one, other):
            # A body goes on past a corner as far as it may end before it.
            for a, b, s, r, reach_s, reach_r in (
                (k, n, held.s, held.r, held.reach_s, held.reach_r),
                (n, k, held.r, held.s, held.reach_r, held.reach_s),
            ):
                mine, host = runs[a], runs[b]
                tee = reach_r if whole else TEE
                for end in (0, 1):
                    off = s - mine.ends[end] if end else mine.ends[end] - s
                    if abs(off) > reach_s or not host.s0 - reach_r <= r <= host.s1 + reach_r:
                        continue
                    if host.s0 + tee < r < host.s1 - tee:
                        found = End("tee", s, b, r)
                    else:
                        found = End("corner", s, b, r, 0 if abs(r - host.s0) < abs(r - host.s1) else 1)
                    # Bodies overlap at corners: those that are alike were drawn to meet.
                    unlike = abs(mine.t - host.t) if whole else 0.0
                    choices.setdefault((a, end), []).append((_worth(found, off, reach_s) + unlike, found))
    ends = []
    for k, run in enumerate(runs):
        pair = []
        for end in (0, 1):
            ranked = sorted(choices.get((k, end), ()), key=lambda choice: choice[0])
            pair.append(ranked[0][1] if ranked else End("free", run.ends[end]))
        ends.append((pair[0], pair[1]))
    return [(_both(ends, k, pair[0]), _both(ends, k, pair[1])) for k, pair in enumerate(ends)]


def _both(ends: Sequence[tuple[End, End]], k: int, end: End) -> End:
    """The end of wall k; a corner where it butts on the end of a wall that turns there, however far that goes on."""
    if end.kind != "tee":
        return end
    for which, held in enumerate(ends[end.other]):
        if held.kind != "free" and held.other == k and abs(held.s - end.other_s) < 1.0:
            return End("corner", end.s, end.other, end.other_s, which)
    return end


def _worth(end: End, off: float, reach: float) -> float:
    """Corners and tees of walls that lie just before the end come first."""
    return abs(off) + (0.0 if end.kind == "corner" else 1.0)


def _close(runs: Sequence[Run]) -> list[tuple[int, int]]:
    """Pairs of walls of different rails that come near each other."""
    if not runs:
        return []
    shapes = []
    for run in runs:
        spots = [run.at(s) for s in (run.s0, (run.s0 + run.s1) / 2, run.s1)]
        if run.rail.radius:
            steps = [run.s0 + (run.s1 - run.s0) * k / 16 for k in range(17)]
            spots = [run.at(s) for s in steps]
        more = run.t + 200.0
        xs, ys = [p[0] for p in spots], [p[1] for p in spots]
        shapes.append(box(min(xs) - more, min(ys) - more, max(xs) + more, max(ys) + more))
    one, other = STRtree(shapes).query(shapes, predicate="intersects")
    pairs = zip(one.tolist(), other.tolist())
    return sorted((k, n) for k, n in pairs if k < n and runs[k].track != runs[n].track)


def crossings(runs: Sequence[Run]) -> int:
    """How many pairs of walls cross and go on, both of them, well beyond each other."""
    found = 0
    for k, n in _close(runs):
        one, other = runs[k], runs[n]
        for held in meetings(one, other):
            beyond = (
                min(held.s - one.s0, one.s1 - held.s),
                min(held.r - other.s0, other.s1 - held.r),
            )
            found += min(beyond) > BEYOND
    return found
