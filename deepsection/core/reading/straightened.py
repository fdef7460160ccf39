"""Lines that were drawn by eye, made straight: turned to the directions that they were meant to take, put on one line.

Ends of such lines lie off by some millimetres, each on its own, or whole lines that were kept level. How far is
measured on the drawing: by how much long lines leave the directions that most of them take, and how far lines lie
aside of those that go on where they end. One that was drawn with snaps is left as it is.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from .drawn import Stroke

Floats = NDArray[np.float64]
Ints = NDArray[np.intp]

LONG, SHORT = 600.0, 20.0
"""Lines of this length tell directions; shorter ones than the other are left as they are (mm)."""
LOOSE_DEG, SHORT_DEG = 2.0, 9.0
"""Long lines leave their direction by up to so much, short ones by up to the other."""
LEAST, MOST = 0.35, 10.0
"""Ends that are off by less (mm, standard deviation) were drawn with snaps; by more, nothing can be told."""
PIECE, ASIDE, GOES_ON = 200.0, 25.0, 5000.0
"""Lines of this length go on where others end that lie aside by no more than so much, within so far (mm)."""
FEWEST = 8
"""Fewer differences than this tell nothing."""
ASKED = 1000
"""About so many lines of a direction are asked, of more every so-manyth."""
ONE_SIDE = 0.2
"""Nor do those of which fewer than this share lie to one side."""
SPREAD = 3.5
"""Lines that lie aside of each other by this many times what their ends are off were meant to be one."""
AXIS = 4.0
"""Lines lie along an axis where they leave it by this many times what their ends tell, or less."""
BIN_DEG = 0.5
DIRECTIONS = 24


def off_by(strokes: Sequence[Stroke]) -> float:
    """By how much ends of lines lie off, each way (mm, standard deviation); 0 where nothing tells."""
    ends = _ends(strokes)
    length, angle = _run(ends)
    straight = np.array([not stroke.bulge for stroke in strokes], dtype=bool)
    long = np.flatnonzero(straight & (length >= LONG))
    directions = _directions(angle[long], length[long])
    if not len(directions):
        return 0.0
    which, turn = _nearest(angle, directions)
    meant = straight & (np.abs(turn) < math.radians(LOOSE_DEG))
    turned = meant & (length >= LONG)
    askew = np.sin(turn[turned]) * length[turned]
    apart: list[float] = []
    for k, direction in enumerate(directions):
        lines = np.flatnonzero(meant & (which == k) & (length >= PIECE))
        layers = [strokes[n].layer for n in lines.tolist()]
        apart += _apart(*_flat(ends[lines], direction), layers)
    return max(_scatter(askew), _scatter(np.array(apart)))


def _scatter(differences: Floats) -> float:
    """The standard deviation of places whose differences, two by two, are these (mm); 0 where they tell nothing.

    By eye as many lie off to one side as to the other; what was drawn to another direction lies off to one alone.
    """
    sides = [np.count_nonzero(differences > LEAST), np.count_nonzero(differences < -LEAST)]
    if len(differences) < FEWEST or min(sides) < ONE_SIDE * sum(sides):
        return 0.0
    return float(np.median(np.abs(differences)) / 0.6745 / math.sqrt(2))


def _apart(along: Floats, across: Floats, layers: Sequence[str]) -> list[float]:
    """By how much lines lie aside of the next one of their layer that goes on where they end."""
    found = []
    low, high = along.min(axis=1), along.max(axis=1)
    order = np.argsort(across, kind="stable")
    low, high, level, names = low[order], high[order], across[order], _numbered(layers)[order]
    for k in range(0, len(order), max(1, len(order) // ASKED)):
        first, last = np.searchsorted(level, (level[k] - ASIDE, level[k] + ASIDE))
        gap = low[first:last] - high[k]
        fits = (gap > 0.0) & (gap < GOES_ON) & (names[first:last] == names[k])
        if fits.any():
            near = first + int(np.argmin(np.where(fits, gap, np.inf)))
            found.append(float(level[near] - level[k]))
    return found


def _numbered(layers: Sequence[str]) -> Ints:
    """A number for each layer."""
    numbers = {name: k for k, name in enumerate(dict.fromkeys(layers))}
    return np.array([numbers[name] for name in layers], dtype=np.intp)


def _flat(ends: Floats, direction: float) -> tuple[Floats, Floats]:
    """Lines along a direction: from where to where along it, and how far to its left."""
    cos, sin = math.cos(direction), math.sin(direction)
    spots = ends.reshape(-1, 2, 2)
    return spots @ np.array([cos, sin]), (spots @ np.array([-sin, cos])).mean(axis=1)


def straightened(strokes: Sequence[Stroke], off: float) -> list[Stroke]:
    """The lines of a drawing (mm) whose ends lie off by so much: along the directions they were meant to take, those of
    one layer that were meant to lie on one line on it. Arcs, and lines that take no direction, stay."""
    ends = _ends(strokes)
    length, angle = _run(ends)
    straight = np.array([not stroke.bulge for stroke in strokes], dtype=bool)
    long = np.flatnonzero(straight & (length >= LONG))
    directions = _directions(angle[long], length[long], off)
    found = list(strokes)
    if not len(directions):
        return found
    which, turn = _nearest(angle, directions)
    aside = np.abs(np.sin(turn)) * length
    limit = np.where(length >= LONG, math.radians(LOOSE_DEG), math.radians(SHORT_DEG))
    meant = straight & (length > SHORT) & (np.abs(turn) < limit) & (aside < 6 * off + 1.0)
    for k, direction in enumerate(directions):
        lines = np.flatnonzero(meant & (which == k))
        cos, sin = math.cos(direction), math.sin(direction)
        along, across = _flat(ends[lines], direction)
        layers = [strokes[n].layer for n in lines.tolist()]
        level = _levelled(across, length[lines], layers, SPREAD * off)
        for n, (s0, s1), c in zip(lines.tolist(), along.tolist(), level.tolist()):
            a, b = (s0 * cos - c * sin, s0 * sin + c * cos), (s1 * cos - c * sin, s1 * sin + c * cos)
            found[n] = replace(found[n], a=a, b=b)
    return found


def _ends(strokes: Sequence[Stroke]) -> Floats:
    return np.array([(*stroke.a, *stroke.b) for stroke in strokes], dtype=float).reshape(-1, 4)


def _run(ends: Floats) -> tuple[Floats, Floats]:
    """Lengths, and directions from 0 to 180 degrees (radians)."""
    run = ends[:, 2:] - ends[:, :2]
    return np.hypot(run[:, 0], run[:, 1]), np.mod(np.arctan2(run[:, 1], run[:, 0]), math.pi)


def _nearest(angle: Floats, directions: Floats) -> tuple[Ints, Floats]:
    """The direction nearest to each of some, and by how much it leaves that (radians)."""
    off = np.mod(angle[:, None] - directions[None, :] + math.pi / 2, math.pi) - math.pi / 2
    which = np.argmin(np.abs(off), axis=1)
    return which, off[np.arange(len(angle)), which]


def _directions(angle: Floats, length: Floats, off: float = 0.0) -> Floats:
    """The directions that long lines were meant to take, the one of most of them first; square ones made so, and
    those that lie along an axis of the drawing as near as lines tell whose ends are off by so much."""
    found: list[float] = []
    left = np.ones(len(angle), dtype=bool)
    count = int(180 / BIN_DEG)
    while left.any() and len(found) < DIRECTIONS:
        bins = np.minimum((angle[left] / math.pi * count).astype(int), count - 1)
        sums = np.bincount(bins, length[left], count)
        smooth = sums + np.roll(sums, 1) + np.roll(sums, -1)
        peak = (int(np.argmax(smooth)) + 0.5) / count * math.pi
        turn = np.mod(angle - peak + math.pi / 2, math.pi) - math.pi / 2
        close = left & (np.abs(turn) < math.radians(LOOSE_DEG))
        if not close.any() or length[close].sum() < 2 * LONG:
            break
        # The longer a line, the truer it tells: its ends are off by as much as those of a short one.
        weight = length[close] ** 2
        best = peak + _middle(turn[close], weight)
        if found:
            beside = math.remainder(best - found[0], math.pi / 2)
            best -= beside if abs(beside) < math.radians(LOOSE_DEG) / 2 else 0.0
        else:
            beside = math.remainder(best, math.pi / 2)
            best -= beside if abs(beside) < AXIS * off * math.sqrt(2 / weight.sum()) else 0.0
        found.append(best)
        left &= ~close
    return np.array(found)


def _middle(values: Floats, weights: Floats) -> float:
    """The value below which half of the weights lie: what few others say does not move it."""
    order = np.argsort(values, kind="stable")
    sums = np.cumsum(weights[order])
    return float(values[order][np.searchsorted(sums, sums[-1] / 2)])


def _levelled(across: Floats, length: Floats, layers: Sequence[str], near: float) -> Floats:
    """Where parallel lines lie, those of a layer that lie as near as this to each other on one line."""
    level = across.copy()
    numbers = _numbered(layers)
    order = np.lexsort((across, numbers))
    for own in np.split(order, np.flatnonzero(np.diff(numbers[order])) + 1) if len(order) else ():
        first = 0
        for k in range(1, len(own) + 1):
            if k < len(own):
                step, wide = across[own[k]] - across[own[k - 1]], across[own[k]] - across[own[first]]
                if step < near and wide < 2 * near:
                    continue
            group = own[first:k]
            level[group] = np.average(across[group], weights=length[group])
            first = k
    return level
