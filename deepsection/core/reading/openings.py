"""Openings in walls: gaps with what proves them, and units drawn over walls that go on."""

from __future__ import annotations

import bisect
import math
import re
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from shapely import STRtree, linestrings, points
from shapely.geometry import Point as Spot

from deepsection.core.geometry import Point

from .drawn import Placed, Stroke
from .found import OpeningKind
from .layers import Meaning, meaning_of
from .rails import Track
from .runs import NARROWEST, WIDEST, Bands, Gap, Near, Run
from .swings import RADII, Swing

DOORWAY = 1150.0
"""An empty gap in an inner wall is a doorway for a leaf up to this width (mm). Common practice, no source."""
OVER = 90.0
"""What belongs to an opening lies this near to its wall (mm)."""


@dataclass(slots=True)
class Held:
    """An opening that was found in a run, from lo to hi of its rail."""

    run: int
    lo: float
    hi: float
    kind: OpeningKind
    confidence: float
    reason: str
    strokes: set[int] = field(default_factory=set)
    block: int = -1
    leaves: int = 1
    hinge: float | None = None
    side: int = 0


class Evidence:
    """What is drawn where openings may be: swings, strokes to look for glass among, placed blocks."""

    def __init__(
        self, strokes: Sequence[Stroke], swings: Sequence[Swing], blocks: Sequence[Placed], meanings: dict[str, Meaning]
    ) -> None:
        self.strokes, self.swings, self.blocks, self.meanings = strokes, swings, blocks, meanings
        self._tree = STRtree(linestrings(np.array([(s.a, s.b) for s in strokes]).reshape(-1, 2, 2)))
        self.of_block: dict[int, list[int]] = defaultdict(list)
        for k, stroke in enumerate(strokes):
            if stroke.block >= 0:
                self.of_block[stroke.block].append(k)
        self.used_swings: set[int] = set()
        self._hinges = STRtree(points(np.array([swing.hinge for swing in swings]).reshape(-1, 2)))

    def along(self, run: Run, lo: float, hi: float) -> set[int]:
        """Strokes that run along a wall within a stretch of it, over most of that."""
        band = run.band(lo, hi, 30.0)
        found = set()
        for k in self._tree.query(band, predicate="intersects").tolist():
            stroke = self.strokes[k]
            if bool(stroke.bulge) != bool(run.rail.radius):
                continue
            ends = run.rail.flat(np.array([stroke.a, stroke.b]))
            (s0, c0), (s1, c1) = ends.tolist()
            if abs(c0 - c1) > 12.0 or abs((c0 + c1) / 2 - run.c) > run.t / 2 + 30.0:
                continue
            low, high = min(s0, s1), max(s0, s1)
            if min(high, hi) - max(low, lo) > 0.6 * (hi - lo) and low > lo - 120.0 and high < hi + 120.0:
                found.add(k)
        return found

    def swung(self, run: Run, lo: float, hi: float) -> list[tuple[int, float, int]]:
        """Swings whose hinge and lock lie in a stretch of a wall: (swing, s of the hinge, side it opens to)."""
        found = []
        for n in sorted(self._hinges.query(run.band(lo - 150.0, hi + 150.0, 150.0), predicate="intersects").tolist()):
            placed = self.shut(run, self.swings[n])
            if placed is None:
                continue
            hinge, other, side = placed
            low, high = min(hinge, other), max(hinge, other)
            if low > lo - 130.0 and high < hi + 130.0 and (high - low) > 0.3 * (hi - lo):
                found.append((n, hinge, side))
        return found

    def shut(self, run: Run, swing: Swing) -> tuple[float, float, int] | None:
        """Where a swing lies on a wall when it is shut: s of its hinge and of its lock, side that it opens to."""
        reach = run.t / 2 + OVER
        s, c = run.rail.spot(swing.hinge)
        if abs(c - run.c) > reach:
            return None
        ends = [run.rail.spot(end) for end in swing.ends]
        off = [abs(held[1] - run.c) for held in ends]
        shut = 0 if off[0] < off[1] else 1
        if swing.leaf is not None and off[1 - swing.leaf] < reach:
            shut = 1 - swing.leaf
        if off[shut] > reach or off[1 - shut] < 0.35 * swing.radius:
            return None
        if abs(abs(ends[shut][0] - s) - swing.radius) > 0.2 * swing.radius:
            return None
        return s, ends[shut][0], 1 if ends[1 - shut][1] > run.c else -1

    def within(self, runs: Sequence[Run]) -> set[int]:
        """Strokes that lie in walls: jambs, ends, lines between layers, hatching."""
        found: set[int] = set()
        for run in runs:
            band = run.band(run.s0 - run.t, run.s1 + run.t, 22.0)
            found.update(self._tree.query(band, predicate="contains_properly").tolist())
        return {k for k in found if self.meanings[self.strokes[k].layer] not in ("text", "dimension", "sheet")}

    def leaves(self) -> set[int]:
        """Strokes of the leaves of swings that were used: from the hinge, no longer than the leaf."""
        found: set[int] = set()
        for n in sorted(self.used_swings):
            swing = self.swings[n]
            round_hinge = Spot(swing.hinge).buffer(95.0)
            for k in self._tree.query(round_hinge, predicate="intersects").tolist():
                stroke = self.strokes[k]
                if not stroke.bulge and math.dist(stroke.a, stroke.b) < 1.15 * swing.radius:
                    found.add(k)
        return found

    def block_name(self, block: int) -> Meaning:
        """What a block calls itself, or its layer calls it."""
        held = self.blocks[block]
        own = meaning_of(held.name)
        return (
            own
            if own in ("door", "window", "wall", "furniture")
            else self.meanings.get(held.layer, meaning_of(held.layer))
        )


def in_gaps(runs: list[Run], bands: Bands, seen: Evidence) -> tuple[list[Held], list[Run]]:
    """Openings in the gaps of walls; a gap that nothing proves parts its wall in two."""
    found: list[Held] = []
    parted: list[Run] = []
    for run in runs:
        starts = [0]
        mine: list[Held] = []
        for n, gap in enumerate(run.gaps):
            held = _judged(run, gap, bands, seen, len(parted), runs)
            if held == "wall":
                continue
            if isinstance(held, Held):
                mine.append(held)
            else:
                starts.append(n + 1)
        for first, last in zip(starts, [*starts[1:], len(run.pieces)]):
            piece = run
            if len(starts) > 1:
                piece = Run(run.track, run.rail, run.c, run.t, run.pieces[first:last], run.strips, run.steps)
                piece.ends = [piece.pieces[0][0], piece.pieces[-1][1]]
            for held in mine:
                if piece.s0 < held.lo and held.hi < piece.s1:
                    held.run = len(parted)
                    found.append(held)
            parted.append(piece)
    return found, parted


def _judged(run: Run, gap: Gap, bands: Bands, seen: Evidence, at: int, runs: Sequence[Run]) -> Held | str | None:
    middle = (gap.lo + gap.hi) / 2
    across = [k for k in bands.near(run.at(middle), run.t / 2 + 30.0) if runs[k].track != run.track]
    if any(gap.width < runs[k].t * 1.8 + 60.0 for k in across):
        return "wall"
    if gap.width < 120.0:
        return "wall"
    if gap.face_on and (gap.width < NARROWEST or (gap.both_on and not all(gap.jambs))):
        return "wall"
    if not NARROWEST <= gap.width <= WIDEST:
        return None
    held = proved(run, gap.lo, gap.hi, seen, at)
    if held is not None:
        jambs = sum(gap.jambs)
        held.confidence = min(0.99, held.confidence + 0.04 * jambs)
        return held
    beside = [
        {k for k in bands.near(run.at(s), run.t / 2 + 30.0) if runs[k].track != run.track} for s in (gap.lo, gap.hi)
    ]
    if all(any(_ends_at(runs[k], run.at(s), run.t + 60.0) for k in held) for held, s in zip(beside, (gap.lo, gap.hi))):
        return None
    if all(gap.jambs):
        return Held(at, gap.lo, gap.hi, "opening", 0.8, "a gap between two jambs, with nothing drawn in it")
    if gap.face_on and gap.width < 2500.0:
        return Held(at, gap.lo, gap.hi, "opening", 0.5, "a break in one face") if any(gap.jambs) else "wall"
    if gap.width <= 1800.0 and not any(beside):
        return Held(at, gap.lo, gap.hi, "opening", 0.5, "a gap in a wall that goes on behind it")
    return None


def _ends_at(run: Run, place: Point, reach: float) -> bool:
    """Whether a wall ends there: with another one at the other end of a gap, the wall goes round it, as a bay does."""
    return any(math.dist(run.at(s), place) < reach for s in (run.s0, run.s1))


def proved(run: Run, lo: float, hi: float, seen: Evidence, at: int) -> Held | None:
    """The opening in a stretch of wall that is proved by a swing, glass lines or a block."""
    swings = seen.swung(run, lo, hi)
    if swings:
        seen.used_swings.update(n for n, _, _ in swings)
        strokes = {seen.swings[n].stroke for n, _, _ in swings}
        block = next((seen.swings[n].block for n, _, _ in swings if seen.swings[n].block >= 0), -1)
        hinges = {round(s, 0) for _, s, _ in swings}
        leaves = 2 if len(hinges) > 1 else 1
        _, hinge, side = swings[0]
        return Held(at, lo, hi, "door", 0.94, "a gap with a swing", strokes, block, leaves, hinge, side)
    lines = seen.along(run, lo, hi)
    named = {seen.meanings.get(seen.strokes[k].layer, "unknown") for k in lines}
    block = next((seen.strokes[k].block for k in lines if seen.strokes[k].block >= 0), -1)
    if block >= 0 and seen.block_name(block) in ("door", "window"):
        named.add(seen.block_name(block))
    if "door" in named and "window" not in named:
        return Held(at, lo, hi, "door", 0.85, "a gap with a door drawn in it", lines, block)
    if len(lines) >= 2 or "window" in named:
        return Held(at, lo, hi, "window", 0.9, f"a gap with {len(lines)} lines along it", lines, block)
    return None


def over_walls(
    runs: Sequence[Run],
    tracks: Sequence[Track],
    seen: Evidence,
    glass: dict[int, list[tuple[float, float, float, int]]],
) -> list[Held]:
    """Openings where walls go on: swings that shut on them, blocks across them, glass between their faces."""
    found: list[Held] = []
    near = Near(runs)
    for n, swing in enumerate(seen.swings):
        if n in seen.used_swings:
            continue
        held = _swing_over(runs, near, seen, swing)
        if held:
            seen.used_swings.add(n)
            found.append(held)
    taken = {held.block for held in found if held.block >= 0}
    for block, strokes in seen.of_block.items():
        if block not in taken and seen.block_name(block) in ("door", "window"):
            held = _block_over(runs, near, seen, block, strokes)
            if held:
                found.append(held)
    by_c = {track: sorted(panes) for track, panes in glass.items()}
    for k, run in enumerate(runs):
        spans: dict[tuple[int, int], list[tuple[float, float, int]]] = defaultdict(list)
        panes = by_c.get(run.track, [])
        first = bisect.bisect_left(panes, (run.c - run.t,))
        for c, lo, hi, stroke in panes[first : bisect.bisect_left(panes, (run.c + run.t,))]:
            if abs(c - run.c) < run.t / 2 + 2 and run.s0 - 5 < lo and hi < run.s1 + 5:
                spans[round(lo / 40), round(hi / 40)].append((lo, hi, stroke))
        for held_spans in spans.values():
            lo, hi = (float(np.mean([span[i] for span in held_spans])) for i in (0, 1))
            low, high = (tracks[run.track].crossed(s, run.c - run.t / 2, run.c + run.t / 2, 90.0) for s in (lo, hi))
            lo, hi = lo if low is None else low, hi if high is None else high
            if NARROWEST <= hi - lo <= WIDEST:
                found.append(
                    Held(
                        k,
                        lo,
                        hi,
                        "window",
                        0.9,
                        "lines from jamb to jamb between the faces",
                        {span[2] for span in held_spans},
                    )
                )
    return found


def _swing_over(runs: Sequence[Run], near: Near, seen: Evidence, swing: Swing) -> Held | None:
    best: tuple[float, Held] | None = None
    for k in near.at(swing.hinge):
        run = runs[k]
        placed = seen.shut(run, swing)
        if placed is None:
            continue
        hinge, lock, side = placed
        lo, hi = min(hinge, lock), max(hinge, lock)
        if lo < run.s0 - 60 or hi > run.s1 + 60:
            continue
        away = abs(run.rail.spot(swing.hinge)[1] - run.c)
        held = Held(
            k, lo, hi, "door", 0.85, "a swing that shuts on a wall", {swing.stroke}, swing.block, 1, hinge, side
        )
        if best is None or away < best[0]:
            best = away, held
    return best[1] if best else None


def _block_over(runs: Sequence[Run], near: Near, seen: Evidence, block: int, strokes: Sequence[int]) -> Held | None:
    spots = np.array([p for k in strokes for p in (seen.strokes[k].a, seen.strokes[k].b)])
    middle = spots.mean(axis=0)
    best: tuple[float, Held] | None = None
    for k in near.at((float(middle[0]), float(middle[1]))):
        run = runs[k]
        flat = run.rail.flat(spots)
        lo, hi = float(flat[:, 0].min()), float(flat[:, 0].max())
        away = abs(run.rail.spot((float(middle[0]), float(middle[1])))[1] - run.c)
        if away > run.t / 2 + 200 or lo < run.s0 - 60 or hi > run.s1 + 60 or not 250 <= hi - lo <= WIDEST:
            continue
        if float(np.ptp(flat[:, 1])) > max(hi - lo, 400.0):
            continue
        kind: OpeningKind = "window" if seen.block_name(block) == "window" else "door"
        held = Held(k, lo, hi, kind, 0.85, f"block {seen.blocks[block].name} on a wall", set(strokes), block)
        if best is None or away < best[0]:
            best = away, held
    return best[1] if best else None


def at_ends(runs: list[Run], seen: Evidence) -> list[Held]:
    """Doors between the end of a wall and another wall: the wall goes on over them. Runs are made longer."""
    found = []
    near_ends = Near(runs, beyond=RADII[1] + 100.0)
    for n, swing in enumerate(seen.swings):
        if n in seen.used_swings:
            continue
        for k in near_ends.at(swing.hinge):
            run = runs[k]
            if run.rail.radius:
                continue
            placed = seen.shut(run, swing)
            if placed is None:
                continue
            hinge, lock, side = placed
            lo, hi = min(hinge, lock), max(hinge, lock)
            for end in (0, 1):
                near, far = (lo, hi) if end else (hi, lo)
                if abs(near - run.ends[end]) < 90.0 and (far > run.s1 if end else far < run.s0):
                    seen.used_swings.add(n)
                    near = run.ends[end]
                    run.ends[end] = far
                    lo, hi = min(near, far), max(near, far)
                    found.append(
                        Held(
                            k,
                            lo,
                            hi,
                            "door",
                            0.8,
                            "a swing beside the end of a wall",
                            {swing.stroke},
                            swing.block,
                            1,
                            hinge,
                            side,
                        )
                    )
                    break
            else:
                continue
            break
    return found


_NUMBER = re.compile(r"\d+(?:[.,]\d+)?")
WIDTH_TAGS = {"WIDTH", "W", "BREITE", "B", "LARGEUR", "ANCHO", "LARGHEZZA", "BREEDTE", "LARGURA"}
HEIGHT_TAGS = {"HEIGHT", "H", "HÖHE", "HOEHE", "HAUTEUR", "ALTO", "ALTURA", "ALTEZZA", "HOOGTE"}
SILL_TAGS = {"SILL", "BRÜSTUNG", "BRUESTUNG", "BRH", "ALLEGE", "ALLÈGE", "ANTEPECHO", "DAVANZALE"}
NUMBER_TAGS = {"NUMBER", "NO", "NR", "MARK", "TAG", "ID", "NUM", "NUMMER", "NUMERO", "NÚMERO", "REF"}


def stated(block: Placed, tags: set[str], scale: float, low: float, high: float) -> float | None:
    """A length that an attribute states (mm), where it is plausible in the unit of the file, mm, m, or inches."""
    text = next((value for tag, value in block.attributes if tag in tags), "")
    match = _NUMBER.search(text)
    if match is None:
        return None
    value = float(match[0].replace(",", "."))
    for factor in (scale, 1.0, 1000.0, 10.0, 25.4):
        if low <= value * factor <= high:
            return value * factor
    return 0.0 if value == 0 and low <= 0 else None


def number(block: Placed) -> str:
    """The number that a block carries, as it is written."""
    return next((value.strip()[:40] for tag, value in block.attributes if tag in NUMBER_TAGS and value.strip()), "")


def guessed(found: list[Held], runs: Sequence[Run], outer: Sequence[bool], *, always: bool) -> None:
    """What empty gaps are, in a plan that draws neither leaves nor glass anywhere: the usual, at the usual places."""
    if not always and any(held.kind != "opening" for held in found):
        return
    for held in found:
        if held.kind != "opening":
            continue
        width = (held.hi - held.lo) * runs[held.run].rail.stretch(runs[held.run].c)
        kind: OpeningKind = "window" if outer[held.run] else "door" if width < DOORWAY else "opening"
        if kind != "opening":
            held.kind = kind
            held.confidence = round(held.confidence * 0.7, 2)
            held.reason += f"; a {kind} by where it is, as this plan draws no units"


def apart(found: list[Held]) -> list[Held]:
    """Openings that do not lie in each other, the surer ones first."""
    kept: dict[int, list[Held]] = defaultdict(list)
    for held in sorted(found, key=lambda one: (-one.confidence, one.run, one.lo)):
        beside = kept[held.run]
        if all(min(o.hi, held.hi) - max(o.lo, held.lo) < 20.0 for o in beside):
            beside.append(held)
    return sorted((held for beside in kept.values() for held in beside), key=lambda one: (one.run, one.lo))
