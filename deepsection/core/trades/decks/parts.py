"""What the cladding of a house gives way to: the ledgers of decks and what lies behind them."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

from shapely.geometry import MultiPolygon, Polygon

from ...building.cutting import without
from ...building.parts import Part
from ...building.placed import Placed
from ...geometry import Solid, prism
from .place import DECKS

CLADS = ("cladding", "membrane", "cavity", "corner_board", "insulation", "finish")
"""What is cut off around a ledger, which is fixed to the sheathing."""


def against_ledgers(placed: Placed, parts: Sequence[Part]) -> Sequence[Part]:
    """The parts of walls without what decks take from what clads them; others as they are."""
    walls = placed.project.walls_by_id
    bodies = tuple(_body(flat.area, flat.under.z, flat.top.z) for flat in placed[DECKS] if not flat.closed)
    if not bodies:
        return parts
    return tuple(without(part, bodies) if part.element in walls and part.role in CLADS else part for part in parts)


@lru_cache(maxsize=64)
def _body(area: Polygon | MultiPolygon, low: float, high: float) -> Solid:
    return prism(area, low, high)
