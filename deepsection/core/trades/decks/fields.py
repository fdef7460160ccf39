"""Fields of decks."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...document.rebuilding import changed
from ...edits import CarryDeck, PutDeck, RailDeck
from ...model import Deck, Project
from ...rows.rows import Row, action_row, choice_row, length_row, level_options, text_row
from ..floors.fields import joist_fields


def deck_fields(project: Project, held: Deck) -> list[Row]:
    """Height, make-up and joists of a deck; a beam under it and rails round it."""

    def put(**changes: Any) -> Sequence[Any]:
        return [PutDeck(deck=changed(held, **changes))]

    make_ups = [(make_up.id, make_up.name) for make_up in project.make_ups if make_up.use == "floor"]
    return [
        text_row("name", "Name", held.name, lambda t: put(name=t)),
        choice_row("level", "Below", held.level, level_options(project), lambda t: put(level=t)),
        length_row("drop", "So much below it", held.drop, project.units, lambda v: put(drop=v)),
        choice_row("make_up", "Make-up", held.make_up, make_ups, lambda t: put(make_up=t)),
        *joist_fields(project, held, put),
        action_row("carry", "Lay a beam under its outer edge", [CarryDeck(deck=held.id)]),
        action_row("rails", "Put rails along its free edges", [RailDeck(deck=held.id)]),
    ]
