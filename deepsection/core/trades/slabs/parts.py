"""Solids of porch slabs."""

from __future__ import annotations

from functools import lru_cache

from ...building.parts import Part, part_key
from ...geometry import prism
from .placed import PlacedSlab


@lru_cache(maxsize=128)
def slab_parts(placed: PlacedSlab) -> tuple[Part, ...]:
    """The slab, as thick all over, and its deep edge below it."""
    slab, sums = placed.slab, (placed.high.id,)
    bottom = placed.top.lifted(-slab.thickness)
    low, high = placed.low - slab.thickness - 1.0, placed.high.total + 1.0
    body = prism(placed.area, low, high).below(placed.top).above(bottom)
    own = Part(
        part_key(slab.id, "porch_slab"), slab.id, "porch_slab", slab.material, body, sums=sums, function="structure"
    )
    if slab.edge == "plain" or placed.edge.is_empty:
        return (own,)
    deep = prism(placed.edge, placed.low - slab.edge_depth, high).below(bottom)
    key = part_key(slab.id, "slab_edge")
    return own, Part(key, slab.id, "slab_edge", slab.material, deep, sums=sums, function="structure")
