"""What covers the ground within foundations: the layers of a slab, with its set-downs and what is deeper of it."""

from __future__ import annotations

from collections.abc import Iterator

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.cutting import without
from ...building.parts import Part, part_key
from ...geometry import Solid, prism
from ...model import Layer
from ...tolerance import TOL
from .place import PlacedFoundation
from .set_downs import Lower, lowered, steps_at
from .stretches import stepped_areas


def ground_parts(placed: PlacedFoundation, within: Polygon | MultiPolygon, deep: tuple[Part, ...]) -> Iterator[Part]:
    """The layers inside of foundation walls or deep edges, from the top down: under pony walls they step with them, in
    set-downs they lie lower. They give way to what is `deep` of the slab, and to the steps of its concrete.
    """
    slab = placed.slab
    if slab is None:
        return
    for outline in placed.outlines:
        inner = shapely.difference(outline.polygon, within, grid_size=TOL.node)
        stepped = stepped_areas(inner, placed.steps if placed.pony else ())
        named = [Lower(area, drop, f":{k}" if len(stepped) > 1 else "") for k, (area, drop) in enumerate(stepped, 1)]
        pieces = [piece for held in named for piece in lowered(held, placed.set_downs)]
        slot = f"outline:{outline.name}"
        steps = tuple(_steps(placed, pieces, slot)) if placed.set_downs else ()
        below = tuple(part.solid for part in deep)
        yield from (_given_way(step, below) for step in steps)
        # To steps as they are before they give way themselves: they share no slopes with what is deep then.
        around = (*below, *(step.solid for step in steps))
        for piece in pieces:
            z = placed.levels.ground.z - piece.drop
            for layer in slab.layers:
                solid = prism(piece.area, z - layer.thickness, z)
                yield _given_way(_part(placed, layer, layer.function, f"{slot}{piece.name}", solid), around)
                z -= layer.thickness


def _given_way(part: Part, around: tuple[Solid, ...]) -> Part:
    return without(part, around, singly=True) if around else part


def _steps(placed: PlacedFoundation, pieces: list[Lower], slot: str) -> Iterator[Part]:
    """The upright concrete at the edges of set-downs, as if nothing were in its way."""
    slab, under = placed.slab, placed.slab_under
    if slab is None or under is None or slab.carrying is None:
        return
    layer = slab.layers[slab.carrying]
    for k, (low, ring, rise) in enumerate(steps_at(pieces, layer.thickness), 1):
        solid = prism(ring, under - low.drop, under - low.drop + rise)
        yield _part(placed, layer, "slab_edge", f"{slot}{low.name}:step:{k}", solid)


def _part(placed: PlacedFoundation, layer: Layer, role: str, slot: str, solid: Solid) -> Part:
    id, sums = placed.foundation.id, (placed.levels.ground.sum.id,)
    key = part_key(id, role, layer.id, slot)
    return Part(key, id, role, layer.material, solid, sums=sums, outside=False, function=layer.function)
