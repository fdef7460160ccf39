"""Decks whose joists lie on too little, or that lie high and unguarded."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import shapely
from shapely.geometry import LineString

from ...building.diagnostics import Diagnostic
from ...building.placed import Placed
from ...model import Deck
from ...units import Units, format_length
from ..floors.lying import Lying, lying_joists
from ..floors.place import FloorPlan
from ..floors.span_checks import carrying_in
from ..floors.turned import Turned
from ..ground.place import GROUND
from .overhangs import APART, too_far_out
from .place import DECKS

GUARDED = {"ft-in": 762.0, "mm": 600.0}
"""A deck higher than this over the ground (mm) has guards. Source: IRC R312.1.1, 30 in; Approved Document K, 600 mm;
both from memory."""
BESIDE = 914.4
"""The ground is asked so far out from the edge (mm). Source: IRC R312.1.1, 36 in, from memory."""
REACH = 200.0
"""A rail or a flight of steps as near as this (mm) to an edge guards it."""
LEFT_OPEN = 300.0
"""So much of an edge (mm) may be left beside posts and steps."""


def deck_advice(placed: Placed) -> Iterator[Diagnostic]:
    """What is wrong with the decks."""
    units = placed.project.units
    for flat in placed[DECKS]:
        if flat.closed:
            # Set into a floor, which holds it.
            continue
        layer = carrying_in(placed, flat)
        if layer is not None and layer.framing is not None:
            lying = lying_joists(flat, layer.framing)
            yield from _unborne(flat, lying)
            yield from too_far_out(flat, lying, units)
        yield from _unguarded(placed, flat, units)


def _unborne(flat: FloorPlan, lying: Sequence[Lying]) -> Iterator[Diagnostic]:
    """Joists that nothing bears, or only in one place."""
    deck = flat.floor
    loose = next((held for held in lying if held.length > APART and held.between < APART), None)
    if loose is None:
        return
    how = "lie on nothing" if not loose.bearings else "lie on one bearing alone"
    message = f"joists of {deck.name} {how}: lay a beam under them, its top where they bear"
    yield Diagnostic("deck-unborne", message, deck.id, "carry", at=loose.middle)


def _unguarded(placed: Placed, flat: FloorPlan, units: Units) -> Iterator[Diagnostic]:
    """The first free edge that lies high over the ground and has no rail."""
    deck, ground, project = flat.floor, placed[GROUND], placed.project
    assert isinstance(deck, Deck)
    rails = [LineString([(rail.x1, rail.y1), (rail.x2, rail.y2)]) for rail in project.rails]
    steps = [shapely.Point(held.x, held.y).buffer(held.width / 2) for held in project.outside_steps]
    guards = shapely.union_all([*(line.buffer(REACH) for line in rails), *steps])
    for rim in flat.rims:
        if rim.role == "ledger":
            continue
        box = Turned(rim.run).middle(rim.area)
        middle = box.interpolate(0.5, normalized=True)
        dx, dy = rim.run
        out = (middle.x + dy * BESIDE, middle.y - dx * BESIDE)
        high = flat.top.z - min(ground.z(middle.x, middle.y), ground.z(*out))
        if high > GUARDED[units] and box.length - box.intersection(guards).length > LEFT_OPEN:
            message = (
                f"{deck.name} lies {format_length(high, units)} over the ground here with no rail: higher than "
                f"{format_length(GUARDED[units], units)} it needs one"
            )
            yield Diagnostic("guard-missing", message, deck.id, "rails", high, GUARDED[units], at=(middle.x, middle.y))
            return
