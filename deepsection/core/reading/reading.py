"""A drawing read as a plan, step by step: unit, faces, strips, runs of wall, openings, joints, the rest."""

from __future__ import annotations

import math
from collections import Counter, defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from shapely.geometry import Point as Spot

from deepsection.core.errors import BadInput
from deepsection.core.geometry import Point
from deepsection.core.progress import Told, silent

from .drawn import Drawn, Stroke
from .found import EndOn, FoundOpening, FoundWall, Left, ReadPlan, UnitFound
from .joints import End, crossings, joined
from .layers import Meaning
from .near import near
from .network import Enclosed, components, enclosed, outsides
from .openings import (
    HEIGHT_TAGS,
    SILL_TAGS,
    WIDTH_TAGS,
    Evidence,
    Held,
    apart,
    at_ends,
    guessed,
    in_gaps,
    number,
    over_walls,
    stated,
)
from .plans import above_each_other, groups_of, storeys_of
from .prepared import Filled, Prepared, prepared
from .rails import Track, tracks
from .rest import dimensions_of, grids_of, rooms_of
from .runs import Bands, Run, levelled, runs_of, within_others, without_overlaps
from .stairs import stairs_of
from .straightened import MOST, off_by
from .strips import SINGLE, THINNEST, single_lines, strips_of
from .swings import swings_of
from .units import UNITS, unit_of
from .written import levels_of, north_of

MOST_RUNS = 5_000
"""More walls than this in one file are not judged: it takes too long."""
MOST_ROUNDS = 3
MANY_CROSSINGS, CROSSING_SHARE = 5, 0.28
"""Walls of one plan mostly meet at corners and tees; where more cross and go on, there may be two."""
FEWEST = 3
NO_LESS = 0.8
"""Straightened, a drawing has this share of the length of walls that it has as it is, or more; as it is some lie
double."""
SAID = 1000.0
"""What somebody says to be a wall is worth so many times what else is."""
HOUSE = 4e6
"""Walls that hang together enclose at least this (mm2), or are none."""


ONE_LINE = (
    "walls with a thickness: no lines lie beside each other as the faces of a wall do, to 2 mm; they are read from "
    "single lines, and want a look"
)


def read_plan(
    drawn: Drawn,
    *,
    unit: str | None = None,
    factor: float | None = None,
    meanings: Mapping[str, Meaning] | None = None,
    pointed: Sequence[Point] = (),
    told: Told = silent,
) -> ReadPlan:
    """The plan in a drawing. `unit` or `factor` (mm per unit of the file) overrule what would be found, `meanings` what
    layers speak of. `pointed`: places (mm, as the plan tells them) between two faces of a wall, whatever else they are.
    `told` hears how far it is.

    Raises: BadInput for a unit that is none, and where no plan is found.
    """
    if unit is not None and unit not in UNITS:
        raise BadInput(f"“{unit}” is no unit; give mm, cm, m, in or ft", field="unit", value=unit)
    found = unit_of(drawn, unit) if factor is None else UnitFound("as measured", factor, 1.0, "as stated")
    held, origin, notes = near(drawn, found.factor)
    best: ReadPlan | None = None
    refused: BadInput | None = None
    chosen = _Chosen(dict(meanings or {}), tuple(pointed), told)
    ready = prepared(held, chosen.meanings)
    straight = ready.straight()
    for all_layers, single in ((False, False), (True, False), (False, True)):
        try:
            result = _read(held, ready, found, origin, chosen, all_layers=all_layers, single=single)
            if straight is not None:
                other = _read(held, straight, found, origin, chosen, all_layers=all_layers, single=single)
                result = other if other and (result is None or _holds(other, result)) else result
        except BadInput as error:
            refused = refused or error
            continue
        if result is not None and (best is None or _worth(result) > (4.0 if single else 1.5) * _worth(best)):
            best = result
        if best is not None and len(best.walls) >= FEWEST and best.enclosed:
            break
    if refused is not None and (best is None or not best.enclosed):
        raise refused
    # Who says how it is to be read is shown what that gives.
    told_how = bool(unit or factor or meanings or pointed)
    if best is None or len(best.walls) < FEWEST or not best.enclosed or (_bare(best) and not told_how):
        why = _why(held, best) if held.strokes or not drawn.strokes else f"in {found.name} it is too wide for a house"
        raise BadInput("no plan was found in this file: " + why, field="file")
    best.notes = [*notes, *best.notes]
    if not any(wall.thickness for wall in best.walls):
        best.notes.append(ONE_LINE)
    return best


def _worth(plan: ReadPlan) -> float:
    return sum(math.dist(wall.start, wall.end) for wall in plan.walls) * (2.0 if plan.enclosed else 1.0)


def _holds(straight: ReadPlan, as_it_is: ReadPlan) -> bool:
    """Whether a drawing that was straightened lost nothing: what really lies askew would leave its rooms open."""
    return straight.enclosed >= as_it_is.enclosed and _worth(straight) > NO_LESS * _worth(as_it_is)


def _bare(plan: ReadPlan) -> bool:
    """Whether a plan is but outlines of single lines, with nothing that divides them and no way in."""
    divided = any("tee" in (wall.start_on.kind, wall.end_on.kind) for wall in plan.walls)
    return not plan.openings and not divided and all(not wall.thickness for wall in plan.walls)


def _why(drawn: Drawn, plan: ReadPlan | None) -> str:
    if not drawn.strokes and not drawn.areas:
        return "no lines and no areas are drawn in it"
    if plan and plan.enclosed and _bare(plan):
        return "a plain outline is drawn in it, without rooms and openings; is it a frame or a title block?"
    walls = len(plan.walls) if plan else 0
    off = off_by(drawn.strokes)
    if off >= MOST:
        return f"the ends of its lines lie off by some {2 * off:.0f} mm: too far to tell which are the faces of a wall"
    if walls:
        return f"{walls} pieces of wall are drawn in it, but they enclose no room; is it an elevation or a detail?"
    return "no lines in it are as far apart as the faces of a wall, with rooms between; is it an elevation or a detail?"


@dataclass(frozen=True, slots=True)
class _Chosen:
    """What somebody said: meanings of layers, and places that lie in walls; and who hears how far it is."""

    meanings: Mapping[str, Meaning]
    pointed: tuple[Point, ...] = ()
    told: Told = silent

    def within(self, run: Run) -> bool:
        """Whether a place that somebody pointed at lies in a run of wall."""
        return bool(self.pointed) and any(
            run.band(lo, hi).covers(Spot(spot)) for spot in self.pointed for lo, hi in run.pieces
        )


def _read(
    drawn: Drawn, ready: Prepared, unit: UnitFound, origin: Point, chosen: _Chosen, *, all_layers: bool, single: bool
) -> ReadPlan | None:
    swings = swings_of(ready.strokes)
    usable = ready.usable(all_layers=all_layers, beside=chosen.pointed)
    for swing in swings:
        for k in swing.leaf_strokes:
            usable[k] = False
    if sum(usable) < 4:
        return None
    chosen.told(f"sorting {len(ready.strokes):,} lines", 0.1)
    lines = tracks(ready.strokes, usable)
    chosen.told("looking for walls", 0.25)
    strips, glass = (single_lines(lines), {}) if single else strips_of(lines, _Quality(lines, ready, chosen.pointed))
    runs = without_overlaps(runs_of(lines, strips), lines)
    runs = [run for run in runs if _stands(run) or chosen.within(run)]
    if not runs:
        return None
    if len(runs) > MOST_RUNS:
        message = f"{len(runs):,} pieces in it look like walls, up to {MOST_RUNS:,} are judged; leave layers out"
        raise BadInput(message, field="file", value=len(runs), limit=MOST_RUNS)
    chosen.told(f"looking for openings in {len(runs):,} walls", 0.5)
    seen = Evidence(ready.strokes, swings, drawn.blocks, ready.meanings)
    held, runs = in_gaps(runs, Bands(runs), seen)
    held += at_ends(runs, seen)
    panes = {k: _panes(lines[k], faces) for k, faces in glass.items()}
    held += over_walls(runs, lines, seen, panes)
    chosen.told("joining walls", 0.7)
    ends = joined(runs)
    held = apart(held)
    for _ in range(MOST_ROUNDS):  # A wall that met one that was none may be none itself.
        count = len(runs)
        runs, ends, held = _kept(runs, ends, held, ready, chosen)
        if not runs or len(runs) == count:
            break
    if not runs:
        return None
    chosen.told("rooms, stairs and what is left", 0.85)
    around = enclosed(runs, ends)
    plan = _told(drawn, ready, seen, unit, origin, runs, ends, held, around, single=single)
    _point_out(plan, runs, chosen)
    over = crossings(runs)
    if over > max(MANY_CROSSINGS, CROSSING_SHARE * len(runs)):
        plan.notes.append(
            f"{over} of its {len(runs)} walls cross others: if two plans lie over each other, leave out one"
        )
    return plan


class _Quality:
    """How much speaks for a strip: names of layers, filling between its faces."""

    def __init__(self, lines: Sequence[Track], ready: Prepared, pointed: Sequence[Point]) -> None:
        self.lines, self.meanings, self.pointed = lines, ready.meanings, pointed
        self.filled = Filled(ready.filled)

    def __call__(self, track: int, faces: Sequence[int], lo: float, hi: float, c0: float, c1: float) -> float:
        held = self.lines[track]
        worth = 1.0
        for face in (faces[0], faces[-1]):
            meaning = self.meanings[held.faces[face].layer]
            worth *= 1.8 if meaning in ("wall", "hatch") else 1.0 if meaning == "unknown" else 0.35
        if held.faces[faces[0]].layer != held.faces[faces[-1]].layer:
            worth *= 0.4
        if self.filled:
            spots = [held.rail.at(lo + (hi - lo) * k / 4, (c0 + c1) / 2) for k in (1, 2, 3)]
            worth *= 1.0 + 3.0 * self.filled.share(spots)
        places = (held.rail.spot(spot) for spot in self.pointed)
        return worth * (SAID if any(lo <= s <= hi and c0 <= c <= c1 for s, c in places) else 1.0)


def _point_out(plan: ReadPlan, runs: Sequence[Run], chosen: _Chosen) -> None:
    """Walls that somebody pointed at are sure; where there is none, that is said."""
    for k, run in enumerate(runs):
        if chosen.within(run):
            plan.walls[k] = replace(plan.walls[k], confidence=1.0, reason="said to be a wall")
    for spot in chosen.pointed:
        if not any(run.band(lo, hi).covers(Spot(spot)) for run in runs for lo, hi in run.pieces):
            plan.notes.append(
                "one of the places that were said to lie in a wall has no two lines beside each other about it"
            )


def _stands(run: Run) -> bool:
    """Whether a run is long enough beside its thickness to be a wall."""
    return max(b - a for a, b in run.pieces) > 0.8 * run.t or run.drawn > 2.5 * run.t


def _panes(track: Track, faces: set[int]) -> list[tuple[float, float, float, int]]:
    held = (track.faces[k] for k in sorted(faces))
    return [(face.c, face.s0, face.s1, face.strokes[0]) for face in held]


def _kept(
    runs: list[Run], ends: list[tuple[End, End]], held: list[Held], ready: Prepared, chosen: _Chosen
) -> tuple[list[Run], list[tuple[End, End]], list[Held]]:
    """Walls that hang together, or are like those that do; furniture that is drawn like a wall is none."""
    said = {id(run) for run in runs if chosen.within(run)}
    inside = {k for k in within_others(runs) if id(runs[k]) not in said}
    if inside:
        runs, held = _only(runs, held, [k for k in range(len(runs)) if k not in inside])
        ends = joined(runs)
    groups = components(runs, ends)
    sizes: Counter[int] = Counter()
    for run, group in zip(runs, groups):
        sizes[group] += int(run.length)
    main = _main(runs, ends, groups, sizes)
    usual = {run.t for run, group in zip(runs, groups) if group in main and run.length > 2000}
    held_together = [k for k in range(len(runs)) if groups[k] in main]
    around = enclosed([runs[k] for k in held_together], [ends[k] for k in held_together])
    opened = {o.run for o in held}
    named = any(ready.meanings[stroke.layer] == "wall" for stroke in ready.strokes)

    def sure(k: int) -> bool:
        run = runs[k]
        if id(run) in said:
            return True
        joined_ends = sum(end.kind != "free" for end in ends[k])
        wall_named = named and _layer(run, ready) == "wall"
        if abs(ends[k][1].s - ends[k][0].s) * run.rail.stretch(run.c) < max(0.6 * run.t, 100.0):
            return False
        if groups[k] not in main and not (wall_named and run.length > 500):
            alike = any(abs(run.t - other) < 2.0 for other in usual)
            middle = Spot(run.at((run.s0 + run.s1) / 2))
            if not (alike and run.length > 600 and around.outline.contains(middle)):
                return False
        if joined_ends == 0:
            return (wall_named and run.length > 500) or (run.common > 0.3 and (k in opened or run.length > 2500))
        if joined_ends == 1 and not wall_named:
            return k in opened or run.length > (600 if run.common > 0.12 else 2.5 * run.t + 800)
        return True

    kept, left = _only(runs, held, [k for k in range(len(runs)) if sure(k)])
    return kept, joined(kept), left


def _only(runs: Sequence[Run], held: Sequence[Held], keep: Sequence[int]) -> tuple[list[Run], list[Held]]:
    """Some of the runs, with the openings in them."""
    at = {k: n for n, k in enumerate(keep)}
    left = [o for o in held if o.run in at]
    for o in left:
        o.run = at[o.run]
    return [runs[k] for k in keep], left


def _main(
    runs: Sequence[Run], ends: Sequence[tuple[End, End]], groups: Sequence[int], sizes: Mapping[int, int]
) -> set[int]:
    """The groups of walls that are houses: they enclose rooms, or are the largest."""
    found = {max(sizes, key=lambda group: (sizes[group], -group))}
    held: dict[int, list[int]] = defaultdict(list)
    for k, group in enumerate(groups):
        held[group].append(k)
    for group, members in held.items():
        if len(members) >= FEWEST and group not in found:
            own = enclosed([runs[k] for k in members], [ends[k] for k in members])
            if sum(room.area for room in own.rooms) > HOUSE:
                found.add(group)
    return found


def _layer(run: Run, ready: Prepared) -> Meaning:
    return ready.meanings[_layer_name(run, ready)]


def _layer_name(run: Run, ready: Prepared) -> str:
    counts: Counter[str] = Counter()
    for strip in run.strips:
        counts[strip.layer] += int(strip.length) + 1
    return counts.most_common(1)[0][0]


def _told(
    drawn: Drawn,
    ready: Prepared,
    seen: Evidence,
    unit: UnitFound,
    origin: Point,
    runs: list[Run],
    ends: list[tuple[End, End]],
    held: list[Held],
    around: Enclosed,
    *,
    single: bool,
) -> ReadPlan:
    """All of it in words and numbers that somebody can check."""
    plan = ReadPlan(unit, origin)
    if ready.off:
        plan.remarks.append(
            f"its lines were drawn by eye, their ends off by up to {2 * ready.off:.0f} mm: they were straightened; "
            "look at lengths and thicknesses"
        )
    plan.enclosed = len(around.rooms)
    thick = [0.0] * len(runs) if single else levelled(runs, ready.off)
    filled = Filled(ready.filled)
    sides = outsides(runs, around)
    guessed(held, runs, [outer for outer, _ in sides], always=single)
    for k, (run, (first, last)) in enumerate(zip(runs, ends)):
        confidence, reason = _sure(run, (first, last), ready, filled)
        s0, s1 = first.s, last.s
        start, end = ((float(x), float(y)) for x, y in (run.at(s0), run.at(s1)))
        sweep = (s1 - s0) / run.rail.radius if run.rail.radius else 0.0
        plan.walls.append(
            FoundWall(
                start,
                end,
                math.tan(sweep / 4) if sweep else 0.0,
                float(thick[k]),
                tuple(round(step, 1) for step in reversed(run.steps)),
                confidence,
                reason,
                _layer_name(run, ready),
                EndOn(first.kind, first.other),
                EndOn(last.kind, last.other),
                sides[k][0],
                sides[k][1],  # type: ignore[arg-type]
            )
        )
    used: set[int] = set()
    for o in held:
        plan.openings.append(_opening(o, runs[o.run], ends[o.run][0].s, drawn, unit))
        used |= o.strokes
    used |= {stroke for run in runs for strip in run.strips for stroke in strip.strokes}
    units = {o.block for o in held if o.block >= 0 and seen.block_name(o.block) in ("door", "window")}
    used |= seen.within(runs) | seen.leaves() | {k for block in units for k in seen.of_block[block]}
    plan.stairs, steps = stairs_of(ready.strokes[: ready.first_made], used, ready.meanings, drawn.words)
    used |= steps
    plan.rooms, plan.grids = rooms_of(drawn, around), grids_of(drawn)
    plan.levels = levels_of(drawn.words, around.rooms)
    plan.north, arrow = north_of(drawn.words, ready.strokes[: ready.first_made], plan.grids)
    used |= arrow
    plan.storeys = above_each_other(
        storeys_of(plan.walls, groups_of(plan.walls), drawn.words, plan.grids), plan.walls, plan.levels
    )
    plan.dimensions = dimensions_of(drawn)
    plan.layers = {layer: ready.meanings[layer] for layer in drawn.layers}
    _leave(plan, drawn, ready, used)
    return plan


def _opening(o: Held, run: Run, start: float, drawn: Drawn, unit: UnitFound) -> FoundOpening:
    stretch = run.rail.stretch(run.c)
    width = (o.hi - o.lo) * stretch
    height = sill = None
    name = ""
    if o.block >= 0:
        block = drawn.blocks[o.block]
        said = stated(block, WIDTH_TAGS, unit.factor, 250.0, 7000.0)
        width = said if said is not None and abs(said - width) < 0.35 * width else width
        height = stated(block, HEIGHT_TAGS, unit.factor, 300.0, 4000.0)
        sill = stated(block, SILL_TAGS, unit.factor, 0.0, 2500.0)
        name = number(block)
    hinge = "end" if o.hinge is not None and o.hinge > (o.lo + o.hi) / 2 else "start"
    return FoundOpening(
        o.run,
        float(((o.lo + o.hi) / 2 - start) * stretch),
        float(width),
        o.kind,
        round(o.confidence, 2),
        o.reason,
        name,
        height,
        sill,
        o.leaves,
        hinge,  # type: ignore[arg-type]
        "left" if o.side >= 0 else "right",
    )


def _sure(run: Run, ends: tuple[End, End], ready: Prepared, filled: Filled) -> tuple[float, str]:
    if run.t <= SINGLE:
        return 0.4, "drawn as one line: how thick it is the drawing does not say"
    reasons = ["two faces" if not run.steps else f"{len(run.steps)} layers between two faces"]
    sure = 0.55
    if _layer(run, ready) == "wall":
        sure += 0.14
        reasons.append(f"on layer {_layer_name(run, ready)}")
    spots = [run.at((a + b) / 2) for a, b in run.pieces]
    if filled and filled.share(spots) > 0.5:
        sure += 0.14
        reasons.append("filled")
    met = sum(end.kind != "free" for end in ends)
    sure += 0.08 * met
    reasons.append(("stands free", "meets a wall at one end", "meets walls at both ends")[met])
    if run.common > 0.1:
        sure += 0.1
        reasons.append(f"{run.t:.0f} mm is common here")
    return round(min(sure, 0.99), 2), ", ".join(reasons)


def _leave(plan: ReadPlan, drawn: Drawn, ready: Prepared, used: set[int]) -> None:
    """What nothing was made of, by layer and kind.

    Entities of which any line was used are not left; a block may hold a whole plan: of that each line counts.
    """
    taken = {ready.strokes[k].entity for k in used}
    used_ids = {id(ready.as_drawn[k]) for k in used}

    def is_left(stroke: Stroke) -> bool:
        whole = stroke.block < 0 or stroke.width >= THINNEST
        return stroke.entity not in taken if whole else id(stroke) not in used_ids

    left: dict[tuple[str, str], set[int]] = {}
    for stroke in drawn.strokes:
        plan.lines.append((stroke.a, stroke.b, stroke.bulge, stroke.layer, is_left(stroke)))
        if not is_left(stroke):
            continue
        what = "lines in blocks" if stroke.block >= 0 else "arcs" if stroke.bulge else "lines"
        left.setdefault((stroke.layer, what), set()).add(stroke.entity if stroke.block < 0 else id(stroke))
    for area in drawn.areas:
        for ring in area.rings:
            plan.lines += [
                (a[:2], b[:2], a[2], area.layer, area.entity not in taken) for a, b in zip(ring, [*ring[1:], ring[0]])
            ]
        if area.entity not in taken:
            left.setdefault((area.layer, "hatchings"), set()).add(area.entity)
    named = {room.at for room in plan.rooms} | {level.at for level in plan.levels}
    named |= {plan.north.at} if plan.north else set()
    titles = {storey.title for storey in plan.storeys} | {grid.label for grid in plan.grids}
    for word in drawn.words:
        if word.at not in named and word.text not in titles and word.block < 0:
            left.setdefault((word.layer, "texts"), set()).add(word.entity)
    plan.left = [Left(layer, what, len(held)) for (layer, what), held in sorted(left.items())]
    plan.left += [Left(layer, kind.lower(), count) for (kind, layer), count in sorted(drawn.others.items())]
    plan.notes += drawn.notes
