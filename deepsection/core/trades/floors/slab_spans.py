"""How far suspended slabs span between what bears them, and how far their thickness lets them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import shapely
from shapely.geometry import LineString, MultiPolygon, Polygon

from ...building.diagnostics import Diagnostic
from ...geometry import Point
from ...model import Layer
from ...rows.outcome import OutcomeRow, OutcomeTable
from ...units import Units, format_length, format_measured
from .bays import Bay
from .place import FloorPlan
from .turned import Turned

RATIO = 20.0
"""A slab on simple bearings spans so many times its effective depth. Source: BS 8110-1, table 3.9, from memory."""
COVER = 30.0
"""From the underside of a slab to the middle of its bars (mm). Common practice, no source: 25 and half a bar of 10."""
STEP = 250.0
"""Spans of a slab are measured so far apart (mm)."""
LEAST = 150.0
"""What is not borne for less than this (mm) is no span."""


@dataclass(frozen=True, slots=True)
class SlabSpan:
    """The farthest clear span of a slab in a bay (mm), where it begins and ends."""

    clear: float
    start: Point
    end: Point


def slab_reach(thickness: float) -> float:
    """How far a slab of a thickness spans clear (mm)."""
    return max(0.0, RATIO * (thickness - COVER))


def slab_spans(flat: FloorPlan, bay: Bay) -> tuple[SlabSpan, ...]:
    """Each stretch that a slab spans along the line of its farthest span, the farthest first.

    A slab whose way is not stated spans the way that is less far.
    """
    own = _spans(bay.region, bay.direction, flat.bearing)
    if flat.floor.span != "short":
        return own
    other = _spans(bay.region, (-bay.direction[1], bay.direction[0]), flat.bearing)
    return other if other and (not own or other[0].clear < own[0].clear - 1.0) else own


@lru_cache(maxsize=64)
def _spans(region: Polygon, way: Point, bearing: Polygon | MultiPolygon) -> tuple[SlabSpan, ...]:
    turned = Turned(way)
    box = turned.box(region)
    count = max(1, int((box.a1 - box.a0) // STEP))
    ways = box.a0 + (np.arange(count) + 0.5) * (box.a1 - box.a0) / count
    best: list[SlabSpan] = []
    # Of lines with the same span that in the middle: there its arrow is looked for.
    for at in sorted(ways.tolist(), key=lambda a: abs(a - (box.a0 + box.a1) / 2)):
        line = LineString([turned.at(at, box.s0 - 1.0), turned.at(at, box.s1 + 1.0)])
        free = shapely.get_parts(shapely.difference(shapely.intersection(line, region), bearing))
        own = sorted((_span(piece) for piece in free if piece.length > LEAST), key=lambda held: -held.clear)
        if own and (not best or own[0].clear > best[0].clear + 1.0):
            best = own
    return tuple(best)


def _span(piece: LineString) -> SlabSpan:
    return SlabSpan(piece.length, piece.coords[0], piece.coords[-1])


def slab_table(flat: FloorPlan, layer: Layer, units: Units) -> tuple[OutcomeTable, ...]:
    """How far the slab of each bay spans and reaches, as text."""
    rows = []
    for number, bay in enumerate(flat.bays, 1):
        for held in slab_spans(flat, bay)[:1]:
            text = format_measured(held.clear, units)
            if held.clear > slab_reach(layer.thickness) + 1.0:
                text += f", needs {format_length(_needs(held), units)}"
            rows.append(OutcomeRow(f"bay {number}" if len(flat.bays) > 1 else "clear span", text))
    reach = format_measured(slab_reach(layer.thickness), units)
    about = f"{format_length(layer.thickness, units)} of concrete reach {reach}, {RATIO:g} times the effective depth"
    return (OutcomeTable("Spans", about, tuple(rows)),) if rows else ()


def slab_faults(flat: FloorPlan, layer: Layer, units: Units) -> Iterator[Diagnostic]:
    """A slab that is too thin for how far it spans; what an engineer sized is left to him."""
    if flat.floor.sized != "by tables":
        return
    reach = slab_reach(layer.thickness)
    for bay in flat.bays:
        for held in slab_spans(flat, bay)[:1]:
            if held.clear > reach + 1.0:
                message = (
                    f"the slab of {flat.floor.name} spans {format_measured(held.clear, units)}; "
                    f"{format_length(layer.thickness, units)} reach {format_measured(reach, units)} "
                    f"({RATIO:g} times the effective depth): let a wall below bear, lay a beam under it, or take "
                    f"{format_length(_needs(held), units)}"
                )
                at = ((held.start[0] + held.end[0]) / 2, (held.start[1] + held.end[1]) / 2)
                yield Diagnostic("slab-span", message, flat.floor.id, "make_up", held.clear, reach, at=at)


def _needs(held: SlabSpan) -> float:
    """The thickness that reaches, in whole 5 mm."""
    return float(np.ceil((held.clear / RATIO + COVER) / 5.0) * 5.0)
