"""Evidence of walls: strips between two faces of one rail, plain or of several layers, the likeliest first."""

from __future__ import annotations

import itertools
from collections import Counter, defaultdict
from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np

from deepsection.core.errors import BadInput

from .rails import Face, Floats, Track

THINNEST, THICKEST = 40.0, 640.0
"""Walls are between these (mm)."""
NEXT = 4.0
"""Faces closer than this (mm) are one."""
MOST_LAYERS = 9
SAME_THICKNESS = 2.6
"""Distances this close (mm) count as one when it is asked how common they are."""
BUCKET = 800.0
SILL = 40.0
"""Glass ends this near to its jambs (mm)."""
MOST_PAIRS = 100_000
HATCHED = 25
"""As many short lines at one distance are hatching."""
SINGLE = 1.0
"""Walls that are drawn as one line count as so thick (mm) while they are joined."""
SHORTEST_SINGLE = 400.0
FAMILY = 6
"""As many lines at equal distances are treads, tiles or hatching."""


@dataclass(frozen=True, slots=True)
class Cell:
    """Two faces of a rail with nothing between them, from lo to hi."""

    low: int
    high: int
    lo: float
    hi: float
    t: float


@dataclass(slots=True)
class Strip:
    """What may be a piece of wall: its faces by position, low c first, along with those between; its score."""

    track: int
    faces: tuple[int, ...]
    lo: float
    hi: float
    c0: float
    c1: float
    score: float
    common: float
    ends: tuple[bool, bool] = (False, False)
    steps: tuple[float, ...] = ()
    layer: str = ""
    strokes: tuple[int, ...] = ()

    @property
    def thickness(self) -> float:
        return self.c1 - self.c0

    @property
    def length(self) -> float:
        return self.hi - self.lo


def cells_of(faces: Sequence[Face], gone: set[int]) -> list[Cell]:
    """Pairs of faces that see each other across a plausible distance. Faces in `gone` are not there."""
    kept = np.array([k for k in range(len(faces)) if k not in gone], dtype=np.intp)
    at = np.array([(faces[k].c, faces[k].s0, faces[k].s1) for k in kept]).reshape(-1, 3)
    last = np.searchsorted(at[:, 0], at[:, 0] + THICKEST, side="right")
    first = np.searchsorted(at[:, 0], at[:, 0] + NEXT, side="left")
    found = []
    for n, (c, s0, s1) in enumerate(at.tolist()):
        window = at[first[n] : last[n]]
        beside = np.flatnonzero((window[:, 1] < s1 - 1.0) & (window[:, 2] > s0 + 1.0))
        seen = [(s0, s1)]
        for m in beside.tolist():
            other, o0, o1 = window[m].tolist()
            left = []
            for a, b in seen:
                lo, hi = max(a, o0), min(b, o1)
                if hi - lo < 1.0:
                    left.append((a, b))
                    continue
                found.append(Cell(int(kept[n]), int(kept[first[n] + m]), lo, hi, other - c))
                if lo - a > 1.0:
                    left.append((a, lo))
                if b - hi > 1.0:
                    left.append((hi, b))
            seen = left
            if not seen:
                break
    return found


def families(faces: Sequence[Face], cells: Sequence[Cell]) -> set[int]:
    """Faces that stand at equal distances, many in a row: treads, tiles, boards, hatching."""
    nexts: dict[int, Cell] = {}
    for cell in cells:
        length = min(faces[cell.low].length, faces[cell.high].length)
        alike = max(faces[cell.low].length, faces[cell.high].length) < 1.35 * length + 30
        if alike and cell.hi - cell.lo > 0.7 * length and cell.low not in nexts:
            nexts[cell.low] = cell
    gone: set[int] = set()
    begun: set[int] = set()
    for first, cell in nexts.items():
        if first in begun:
            continue
        chain, step = [first], cell.t
        while (after := nexts.get(chain[-1])) and abs(after.t - step) < 0.04 * step + 0.5:
            chain.append(after.high)
            begun.add(after.high)
        if len(chain) >= FAMILY:
            gone.update(chain)
    return gone | _hatching(faces, cells)


def _hatching(faces: Sequence[Face], cells: Sequence[Cell]) -> set[int]:
    """Faces in rows at the one distance at which very many short ones lie: hatching that was taken apart."""
    below: dict[int, list[float]] = defaultdict(list)
    above: dict[int, list[float]] = defaultdict(list)
    for cell in cells:
        if cell.t < 200.0:
            above[cell.low].append(cell.t)
            below[cell.high].append(cell.t)
    # Faces of walls are two, with glass between them three; lines of hatching follow each other at one distance.
    rows = {
        (k, round(t))
        for k, steps in above.items()
        for t in steps
        if any(abs(t - other) < 1.2 for other in below.get(k, ()))
    }
    near = [(cell, round(cell.t)) for cell in cells if cell.t < 200.0]
    chained = {
        (k, t)
        for cell, t in near
        for k, other in ((cell.low, cell.high), (cell.high, cell.low))
        if (k, t) in rows and any((other, t + off) in rows for off in (-1, 0, 1))
    }
    short = Counter(t for k, t in chained if faces[k].length < 900.0)
    steps = [t for t, count in short.items() if count + short[t - 1] + short[t + 1] >= HATCHED]
    inner = {k for k, t in chained if any(abs(t - step) < 1.2 for step in steps)}
    found = set(inner)
    for cell in cells:
        if (cell.low in inner or cell.high in inner) and any(abs(cell.t - step) < 1.2 for step in steps):
            found |= {cell.low, cell.high}
    return found


class Commonness:
    """How much of a drawing is at which distance (mm)."""

    def __init__(self, values: Floats, weights: Floats) -> None:
        order = np.argsort(values, kind="stable")
        self._values, self._sums = values[order], np.concatenate(([0.0], np.cumsum(weights[order])))

    def of(self, t: float) -> float:
        low, high = np.searchsorted(self._values, (t - SAME_THICKNESS, t + SAME_THICKNESS))
        return float(self._sums[high] - self._sums[low])


Quality = Callable[[int, Sequence[int], float, float, float, float], float]
"""Of a strip: track, its faces, lo, hi, c0, c1; 1 is usual."""


def strips_of(tracks: Sequence[Track], quality: Quality) -> tuple[list[Strip], dict[int, set[int]]]:
    """The strips that may stand together, and by track the faces that are glass: lines from jamb to jamb."""
    cells = {k: cells_of(track.faces, set()) for k, track in enumerate(tracks)}
    gone = {k: families(track.faces, cells[k]) for k, track in enumerate(tracks)}
    cells |= {k: cells_of(tracks[k].faces, held) for k, held in gone.items() if held}
    dense = sum(len(held) for held in cells.values())
    if dense > MOST_PAIRS:
        message = (
            f"its lines lie too densely to tell walls among them: {dense:,} pairs as far apart as the faces of walls, "
            f"up to {MOST_PAIRS:,} are judged; leave layers out, or take the plan alone"
        )
        raise BadInput(message, field="file", value=dense, limit=MOST_PAIRS)
    stacks = [stack for k, track in enumerate(tracks) for stack in _stacks(k, track, cells[k])]
    sound, layered = _sound(stacks)
    glass = _glass(stacks, layered, tracks)
    for k in glass:
        between = {face for stack in sound if stack.track == k for face in stack.faces[1:-1]}
        gone[k] |= glass[k] - between
        if glass[k]:
            cells[k] = cells_of(tracks[k].faces, gone[k])
    flat = [(k, cell) for k, held in cells.items() for cell in held if cell.t >= THINNEST]
    values, weights = np.array([c.t for _, c in flat]), np.array([c.hi - c.lo for _, c in flat])
    common = Commonness(values, weights)
    peak = max((common.of(t) for t in values[np.argsort(-weights)][:200]), default=1.0)
    found = [_plain(k, tracks[k], cell, common.of(cell.t) / peak) for k, cell in flat]
    found += sound
    for strip in found:
        worth = quality(strip.track, strip.faces, strip.lo, strip.hi, strip.c0, strip.c1)
        size = 0.3 if strip.thickness > 460 else 0.6 if strip.thickness < 55 else 1.0
        layers = 1.5 * (len(strip.faces) - 1) if len(strip.faces) > 2 else 1.0
        strip.score = min(strip.length, 4000.0) * worth * size * layers * (0.15 + strip.common)
    kept = _apart(found)
    for strip in kept:
        held = [tracks[strip.track].faces[face] for face in strip.faces]
        strip.layer = max((face.length, face.layer) for face in held)[1]
        strip.strokes = tuple(stroke for face in held for stroke in face.strokes)
    return kept, glass


def single_lines(tracks: Sequence[Track]) -> list[Strip]:
    """Faces taken as walls of no thickness, for plans that draw each wall as one line."""
    found = []
    for k, track in enumerate(tracks):
        gone = families(track.faces, cells_of(track.faces, set()))
        for n, face in enumerate(track.faces):
            if n not in gone and face.length >= SHORTEST_SINGLE:
                strip = Strip(k, (n,), face.s0, face.s1, face.c - SINGLE / 2, face.c + SINGLE / 2, face.length, 1.0)
                strip.layer, strip.strokes = face.layer, tuple(face.strokes)
                found.append(strip)
    return found


def _plain(k: int, track: Track, cell: Cell, common: float) -> Strip:
    low, high = track.faces[cell.low], track.faces[cell.high]
    return Strip(k, (cell.low, cell.high), cell.lo, cell.hi, low.c, high.c, 0.0, common)


def _stacks(k: int, track: Track, cells: Sequence[Cell]) -> list[Strip]:
    """Chains of cells, of three faces or more, that go together over most of their length."""
    over: dict[int, list[Cell]] = defaultdict(list)
    for cell in cells:
        over[cell.low].append(cell)
    faces = track.faces
    found = []
    for first in cells:
        chain, lo, hi = [first.low, first.high], first.lo, first.hi
        while len(chain) <= MOST_LAYERS:
            best = max(over.get(chain[-1], ()), key=lambda held: min(hi, held.hi) - max(lo, held.lo), default=None)
            if best is None or faces[best.high].c - faces[chain[0]].c > THICKEST:
                break
            a, b = max(lo, best.lo), min(hi, best.hi)
            if b - a < 0.8 * min(hi - lo, best.hi - best.lo) or b - a < 60.0:
                break
            lo, hi = a, b
            chain.append(best.high)
            c0, c1 = faces[chain[0]].c, faces[chain[-1]].c
            if c1 - c0 >= THINNEST:
                jambs = track.crossed(lo, c0, c1) is not None, track.crossed(hi, c0, c1) is not None
                steps = tuple(faces[q].c - faces[p].c for p, q in itertools.pairwise(chain))
                found.append(Strip(k, tuple(chain), lo, hi, c0, c1, 0.0, 1.0, jambs, steps))
    return found


def _sound(stacks: list[Strip]) -> tuple[list[Strip], list[Strip]]:
    """The stacks that are walls of several layers: often drawn alike, and not from jamb to jamb wherever they are.

    And all those that are parts of such.
    """
    totals: Counter[tuple[int, ...]] = Counter()
    counts: Counter[tuple[int, ...]] = Counter()
    free: Counter[tuple[int, ...]] = Counter()
    keys = {id(held): _key(held) for held in stacks}
    for held in stacks:
        key = keys[id(held)]
        totals[key] += int(held.length)
        counts[key] += 1
        free[key] += 2 - sum(held.ends)
    good = {
        key
        for key, total in totals.items()
        if total > 5000 and counts[key] > 2 and free[key] >= 3 and (len(key) > 2 or _parted(free[key], counts[key]))
    }
    # Where the innermost face is broken by what stands against it, all but it goes on: that is the same wall.
    less = {
        key
        for key in good
        for more in good
        if len(more) > len(key) and _within(key, more) and 2 * totals[more] > totals[key]
    }
    layered = [held for held in stacks if keys[id(held)] in good]
    return [held for held in layered if keys[id(held)] not in less], layered


def _parted(free: int, count: int) -> bool:
    """Whether walls of two layers end at jambs as well as elsewhere: a line of dimensions along a wall has no jambs."""
    return 0.4 * count < free <= 2 * count - 2


def _within(key: tuple[int, ...], more: tuple[int, ...]) -> bool:
    size = len(key)
    runs = [more[k : k + size] for k in range(len(more) - size + 1)]
    return key in runs or key[::-1] in runs


def _key(strip: Strip) -> tuple[int, ...]:
    """Its layers, as often as they are drawn alike: rounded, the same from either side."""
    steps = tuple(round(step / 4) for step in strip.steps)
    return min(steps, steps[::-1])


def _glass(stacks: list[Strip], layered: list[Strip], tracks: Sequence[Track]) -> dict[int, set[int]]:
    """Lines between two faces that run from jamb to jamb and are no layer of a wall."""
    layers = {id(held) for held in layered}
    found: dict[int, set[int]] = defaultdict(set)
    for held in stacks:
        if all(held.ends) and id(held) not in layers:
            for k in held.faces[1:-1]:
                face = tracks[held.track].faces[k]
                if face.s0 > held.lo - SILL and face.s1 < held.hi + SILL:
                    found[held.track].add(k)
    return found


def _apart(strips: list[Strip]) -> list[Strip]:
    """The best strips that do not lie in each other; a face has a wall on one of its sides only."""
    taken: dict[tuple[int, int, int], list[Strip]] = defaultdict(list)
    kept = []
    for strip in sorted(strips, key=lambda held: (-held.score, held.track, held.lo, held.c0)):
        deep = range(int((strip.c0 - NEXT) // BUCKET), int((strip.c1 + NEXT) // BUCKET) + 1)
        along = range(int(strip.lo // BUCKET), int(strip.hi // BUCKET) + 1)
        places = [(strip.track, k, n) for k in along for n in deep]
        if any(_clash(strip, held) for place in places for held in taken[place]):
            continue
        for place in places:
            taken[place].append(strip)
        kept.append(strip)
    return kept


def _clash(one: Strip, other: Strip) -> bool:
    along = min(one.hi, other.hi) - max(one.lo, other.lo)
    if along < 2.0:
        return False
    deep = min(one.c1, other.c1) - max(one.c0, other.c0)
    if deep > 1.0:
        return True
    shared = {one.faces[0], one.faces[-1]} & {other.faces[0], other.faces[-1]}
    return bool(shared) or abs(deep) < NEXT
