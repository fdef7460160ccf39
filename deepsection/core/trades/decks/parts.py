"""What gives way to decks: the cladding of a house to ledgers, the walls below to what of a slab is set down."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

from shapely.geometry import MultiPolygon, Polygon

from ...building.cutting import without
from ...building.parts import Part
from ...building.placed import Placed
from ...geometry import Solid, prism
from ...model import Deck
from .place import DECKS

CLADS = ("cladding", "membrane", "cavity", "corner_board", "insulation", "finish")
"""What is cut off around a ledger, which is fixed to the sheathing."""


def around_decks(placed: Placed, parts: Sequence[Part]) -> Sequence[Part]:
    """The parts of walls without what decks take from them; others as they are."""
    return _at_slab_parts(placed, _against_ledgers(placed, parts))


def _at_slab_parts(placed: Placed, parts: Sequence[Part]) -> Sequence[Part]:
    """Walls below end at the parts of a slab that reach down to them: these lie beside what bears of walls. Those above
    begin on the parts that reach up to them.
    """
    bodies: list[Solid] = []
    for flat in placed[DECKS]:
        part, deck = flat.upstand, flat.floor
        if part is None or not isinstance(deck, Deck):
            continue
        if part.lower:
            bodies.append(_body(part.under_slab, part.low, part.high))
        if deck.drop < 0:
            bodies.append(_body(part.over, flat.top.z + deck.drop, flat.top.z))
    if not bodies:
        return parts
    walls = placed.project.walls_by_id
    return tuple(without(part, tuple(bodies)) if part.element in walls else part for part in parts)


def _against_ledgers(placed: Placed, parts: Sequence[Part]) -> Sequence[Part]:
    """The parts of walls without what decks take from what clads them; others as they are."""
    walls = placed.project.walls_by_id
    bodies = tuple(_body(flat.area, flat.under.z, flat.top.z) for flat in placed[DECKS] if not flat.closed)
    if not bodies:
        return parts
    return tuple(without(part, bodies) if part.element in walls and part.role in CLADS else part for part in parts)


@lru_cache(maxsize=64)
def _body(area: Polygon | MultiPolygon, low: float, high: float) -> Solid:
    return prism(area, low, high)
