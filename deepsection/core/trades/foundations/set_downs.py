"""Where the slab within a foundation lies lower: set-downs, and the concrete that steps at their edges."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.diagnostics import Diagnostic
from ...geometry import polygons_of
from ...model import SetDown
from ...tolerance import TOL
from ...units import Units, format_length
from .place import PlacedFoundation

OFF = 1e4
"""A set-down may reach out of its slab by this much (mm2) before it is pointed out."""


@dataclass(frozen=True, slots=True)
class Lower:
    """A piece of the ground within a foundation: its area, how much lower it lies, the name of its parts."""

    area: MultiPolygon
    drop: float
    name: str = ""


def lowered(held: Lower, downs: Iterable[SetDown]) -> Iterator[Lower]:
    """A piece with what of it is set down parted from the rest; of set-downs that overlap the first counts."""
    rest: shapely.Geometry = held.area
    for down in downs:
        inner = shapely.intersection(rest, Polygon(down.corners), grid_size=TOL.node)
        if inner.area > TOL.point:
            rest = shapely.difference(rest, Polygon(down.corners), grid_size=TOL.node)
            yield Lower(_pieces(inner), held.drop + down.drop, f"{held.name}:{down.id}")
    if not rest.is_empty:
        yield Lower(_pieces(rest), held.drop, held.name)


def steps_at(pieces: list[Lower], thickness: float) -> Iterator[tuple[Lower, MultiPolygon, float]]:
    """(lower piece, ring around it, how high) of the upright concrete between a lower piece of a slab and higher ones,
    as thick as the slab, under the higher ones."""
    for low in pieces:
        for high in pieces:
            rise = low.drop - high.drop
            if rise > TOL.point:
                around = low.area.buffer(thickness, join_style="mitre")
                ring = shapely.intersection(around, high.area, grid_size=TOL.node)
                if ring.area > TOL.point:
                    yield low, _pieces(ring), rise


def set_down_faults(held: PlacedFoundation, units: Units) -> Iterator[Diagnostic]:
    """Set-downs that reach out of their slab, that overlap, or that dig deeper than the footings around them."""
    within = shapely.union_all([outline.polygon for outline in held.outlines])
    thick = sum(layer.thickness for layer in held.slab.layers) if held.slab else 0.0
    for k, down in enumerate(held.set_downs):
        shape = Polygon(down.corners)
        at = (shape.centroid.x, shape.centroid.y)
        off = shape.difference(within).area
        if off > OFF or held.slab is None:
            what = "has no slab" if held.slab is None else "does not reach so far"
            message = f"{down.name} lies partly outside of the slab: {held.foundation.name} {what} here; move it in"
            yield Diagnostic("set-down-off", message, down.id, "corners", off, OFF, at=at)
            continue
        if any(shape.intersection(Polygon(other.corners)).area > OFF for other in held.set_downs[:k]):
            message = f"{down.name} lies over another set-down: move them apart"
            yield Diagnostic("set-down-off", message, down.id, "corners", at=at)
        deep, limit = held.levels.ground.z - down.drop - thick, held.levels.footing.z
        if deep < limit - TOL.point:
            most = max(0.0, down.drop - (limit - deep))
            message = (
                f"{down.name} digs {format_length(limit - deep, units)} below the footings around it: set it down by "
                f"{format_length(most, units)} at most, or let the footings lie deeper"
            )
            yield Diagnostic("set-down-deep", message, down.id, "drop", down.drop, most, at=at)


def _pieces(shape: shapely.Geometry) -> MultiPolygon:
    return MultiPolygon(list(polygons_of(shape)))
