"""All junctions of a building, from the records of its stages; none of its parts is made for them."""

from __future__ import annotations

from weakref import WeakKeyDictionary

from ..building.placed import House
from ..resolve import Building
from .decks import deck_junctions
from .junction import Junction
from .kinds import JUNCTION_KINDS
from .openings import opening_junctions
from .roofs import roof_junctions
from .slabs import slab_junctions
from .stairs import stair_junctions
from .walls import wall_junctions

FINDERS = (roof_junctions, opening_junctions, wall_junctions, slab_junctions, deck_junctions, stair_junctions)

_known: WeakKeyDictionary[House, tuple[Junction, ...]] = WeakKeyDictionary()


def junction_called(building: Building, id: str) -> Junction | None:
    """The junction of an id; None where nothing meets so any more."""
    return next((held for held in found_junctions(building) if held.id == id), None)


def found_junctions(building: Building) -> tuple[Junction, ...]:
    """Every junction of a building, by kind from the roof down, then by id; each id once."""
    found = _known.get(building.placed.house)
    if found is None:
        order = {name: number for number, name in enumerate(JUNCTION_KINDS)}
        every = [junction for find in FINDERS for junction in find(building) if junction.runs]
        found = tuple(sorted(every, key=lambda held: (order[held.kind], held.id)))
        _known[building.placed.house] = found
    return found
