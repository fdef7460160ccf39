"""How far the joists of each bay span, how far they may, what would do; and joists that nothing carries."""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache

import shapely
from shapely.geometry import LineString, MultiPolygon, Polygon

from ...building.diagnostics import Diagnostic
from ...building.placed import Placed
from ...geometry import Point, polygons_of
from ...model import Deck, Framing, Layer
from ...rows.outcome import OutcomeTable
from ...tolerance import TOL
from ...units import Units, format_length
from ..decks.overhangs import deep_overhang
from ..decks.place import DECKS
from ..makeups.profiles import PROFILES
from ..posts.placed import BEAMS
from ..walls.planned import WALLS
from .bays import Bay, Rim
from .framed_edges import edge_faults
from .lying import lying_joists
from .members import REACH, floor_members
from .model import Between
from .place import FLOORS, FloorPlan
from .slab_spans import slab_faults, slab_table
from .spans import size_of
from .supports import BEARING, nearly_bearing
from .turned import Box, Turned
from .verdicts import BaySpan, SpanVerdict, farthest, too_far, verdict, verdict_table


@lru_cache(maxsize=64)
def bay_spans(
    bays: tuple[Bay, ...],
    rims: tuple[Rim, ...],
    framing: Framing,
    between: Between,
    bearing: Polygon | MultiPolygon,
) -> tuple[BaySpan, ...]:
    """The farthest span of each bay that has joists."""
    members = floor_members(bays, rims, framing, between)
    found = []
    for bay in bays:
        lines = [middle for member in members.of("joist") if member.lies_in(bay) for middle in member.middles]
        if lines:
            found.append(farthest(bay.slot, lines, bearing))
    return tuple(found)


def free_stretches(turned: Turned, box: Box, bearing: Polygon | MultiPolygon) -> list[tuple[float, float]]:
    """From where to where along a joist nothing bears it, stretch by stretch."""
    middle = (box.a0 + box.a1) / 2
    line = LineString([turned.at(middle, s) for s in (box.s0, box.s1)])
    parts = shapely.get_parts(shapely.difference(line, bearing))
    ends = (sorted(turned.span.along(point) for point in part.coords) for part in parts)
    return sorted((low, high) for low, high in ends if high - low > LEAST_SPAN)


LEAST_SPAN = 150.0
"""What is not borne for less than this (mm), such as behind a rim, is no span."""


def verdicts(placed: Placed, flat: FloorPlan) -> tuple[SpanVerdict, ...]:
    """What is to be said of the spans of a floor; nothing where it has no joists."""
    layer = carrying_in(placed, flat)
    if layer is None or layer.framing is None or PROFILES[layer.framing.profile].by_maker:
        return ()
    tradition, spacing, units = placed.project.tradition, layer.framing.spacing, placed.project.units
    size = size_of(layer, units)
    spans = bay_spans(flat.bays, flat.rims, layer.framing, flat.floor.between, flat.bearing)
    return tuple(verdict(span, size, spacing, tradition, units, "floor") for span in spans)


def carrying_in(placed: Placed, flat: FloorPlan) -> Layer | None:
    """The layer that carries of a floor: its joists, or its slab."""
    make_up = placed.make_ups[flat.floor.make_up]
    return make_up.layers[make_up.carrying] if make_up.carrying is not None else None


def span_table(placed: Placed, flat: FloorPlan) -> tuple[OutcomeTable, ...]:
    """How far the joists of each bay span and reach, as text."""
    units, layer = placed.project.units, carrying_in(placed, flat)
    if layer is not None and layer.framing is None:
        return slab_table(flat, layer, units)
    return verdict_table(verdicts(placed, flat), units)


def floor_advice(placed: Placed) -> Iterator[Diagnostic]:
    """Joists that span too far, or that nothing carries at an end; beams that just miss them."""
    for flat in (*placed[FLOORS], *placed[DECKS]):
        layer = carrying_in(placed, flat)
        if layer is None:
            continue
        if layer.framing is None:
            yield from slab_faults(flat, layer, placed.project.units)
            continue
        for held in verdicts(placed, flat):
            if not held.is_enough and flat.floor.sized == "by tables":
                yield too_far("joist-span", held, flat.floor, layer.framing.spacing, placed.project.units)
        for at in free_ends(flat.bays, flat.rims, layer.framing, flat.floor.between, flat.bearing)[:1]:
            message = f"a joist of {flat.floor.name} ends in the air: nothing bears it there, and it hangs on nothing"
            yield Diagnostic("joist-end-free", message, flat.floor.id, "bearing", at=at)
        if not isinstance(flat.floor, Deck) and any(bay.borne is not None for bay in flat.bays):
            lying = lying_joists(flat, layer.framing)
            yield from deep_overhang(flat, lying, layer.thickness, placed.project.units)
        if not isinstance(flat.floor, Deck) and flat.floor.edge == "framed":
            around = (placed[WALLS].by_id[id] for outline in flat.outlines for id in outline.walls)
            yield from edge_faults(flat.floor, placed.make_ups, around, placed.project.units)
        yield from _missing(placed, flat, layer.thickness)
        yield from _short(flat, placed.project.units)


def _short(flat: FloorPlan, units: Units) -> Iterator[Diagnostic]:
    """Inner bearings that are too narrow for what lies on them: of joists that butt, each has half."""
    for bay in flat.bays:
        for support in bay.supports:
            bears = support.width / 2 if bay.lap == "butted" else support.width
            if support.flush or bears >= BEARING - TOL.point:
                continue
            how = "butt" if bay.lap == "butted" else "lie"
            message = (
                f"joists of {flat.floor.name} {how} on {format_length(bears, units)} here, and need "
                f"{format_length(BEARING, units)}: let them lap, or make this wider"
            )
            x, y = support.line[0]
            others = (flat.floor.id,)
            yield Diagnostic(
                "joist-bearing-short", message, support.name, "width", bears, BEARING, others, at=(x, y)
            )  # fmt: skip


def _missing(placed: Placed, flat: FloorPlan, depth: float) -> Iterator[Diagnostic]:
    """Beams under a floor whose tops are a little off its joists."""
    units, beams = placed.project.units, placed[BEAMS]
    for beam, off in nearly_bearing(beams, flat.under, depth):
        if flat.area.intersects(beam.outline):
            how = f"{format_length(abs(off), units)} too {'high' if off > 0 else 'low'}"
            message = f"this beam lies {how} for the joists of {flat.floor.name}, and carries none: set its top"
            yield Diagnostic("beam-misses", message, beam.beam.id, "top_offset", off, 0.0, at=beam.start)


SPANNING = ("joist", "blocking", "bridging")
"""What carries no end of another member."""


@lru_cache(maxsize=64)
def free_ends(
    bays: tuple[Bay, ...],
    rims: tuple[Rim, ...],
    framing: Framing,
    between: Between,
    bearing: Polygon | MultiPolygon,
) -> tuple[Point, ...]:
    """Where joists, trimmers and headers end on nothing: on no bearing, and against no member."""
    members = floor_members(bays, rims, framing, between)
    ends: list[tuple[int, Point]] = []
    for k, member in enumerate(members.all):
        if member.role in ("joist", "trimmer_joist", "header_joist"):
            ends += [(k, (x, y)) for line in member.middles for x, y in line.coords]
    if not ends:
        return ()
    crossing = [(k, held.area) for k, held in enumerate(members.all) if held.role not in SPANNING]
    others = [*(held.area for bay in bays for held in bay.supports), *polygons_of(bearing)]
    own = [k for k, _ in crossing] + [-1] * len(others)
    carrying = shapely.STRtree([*(area for _, area in crossing), *others])
    points = shapely.points([end for _, end in ends])
    found, held = carrying.query(points, predicate="dwithin", distance=REACH)
    # No member carries itself.
    borne = {end for end, by in zip(found.tolist(), held.tolist()) if own[by] != ends[end][0]}
    return tuple(end for k, (_, end) in enumerate(ends) if k not in borne)
