"""Solids of loft hatches: the lining of the opening, and the flap that closes it."""

from __future__ import annotations

from collections.abc import Iterator

from shapely.geometry import MultiPolygon

from ...building.parts import Part, part_key
from ...geometry import polygons_of, prism
from .place import PlacedHatch

GAP = 3.0
"""Between a flap and its lining (mm). Common practice, no source."""


def hatch_parts(held: PlacedHatch, depth: float) -> Iterator[Part]:
    """The parts of a hatch in a ceiling whose joists are so deep (mm)."""
    id, sums = held.hatch.id, (held.bearing.sum.id,)
    ring = MultiPolygon(list(polygons_of(held.framed.difference(held.opening))))
    lining = prism(ring, held.under, held.bearing.z + depth)
    flap = prism(held.opening.buffer(-GAP, join_style="mitre"), held.under, held.under + held.hatch.lining)
    yield Part(part_key(id, "hatch_lining"), id, "hatch_lining", "softwood", lining, sums=sums, outside=False)
    yield Part(part_key(id, "hatch"), id, "hatch", "plywood", flap, sums=sums, outside=False)
