"""Solids of one wall: its layers with their members, and the boards at its corners."""

from __future__ import annotations

from functools import lru_cache

from ...building.parts import Part
from ...model import MakeUp
from ..openings.placed import PlacedOpening
from .bodies import WallTop
from .corner_boards import corner_boards
from .layering import layer_parts
from .planned import PlannedWall


@lru_cache(maxsize=512)
def wall_parts(
    wall: PlannedWall, make_up: MakeUp, openings: tuple[PlacedOpening, ...], top: WallTop
) -> tuple[Part, ...]:
    """Every part of a wall but the units in its openings."""
    return (*layer_parts(wall, make_up, openings, top), *corner_boards(wall, make_up, top))
