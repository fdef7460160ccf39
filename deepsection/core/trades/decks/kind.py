"""Decks: how they are placed, built and drawn in plan."""

from __future__ import annotations

from ...building.kind import ElementKind
from ...building.placed import Stage
from ...model import Deck
from ..floors.kind import outcome_of, own_title, parts_of
from ..levels.place import sum_id
from .checks import deck_advice
from .fields import deck_fields
from .parts import around_decks
from .place import DECKS, deck_sums, place_decks
from .plan import deck_marks

DECK_STAGE = Stage(DECKS, place_decks, sums=deck_sums)
DECK = ElementKind(
    Deck,
    title=own_title,
    fields=deck_fields,
    heights=lambda deck: (f"top:{deck.id}", f"under:{deck.id}", sum_id(deck.level)),
    outcome=outcome_of(DECKS),
    parts=parts_of(DECKS),
    cuts=around_decks,
    plan=deck_marks,
    advice=deck_advice,
)
