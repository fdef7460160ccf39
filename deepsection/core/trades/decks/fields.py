"""Fields of decks."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from ...document.ids import free_ids
from ...document.rebuilding import changed
from ...edits import CarryDeck, LevelDeck, PutDeck, RailDeck, StepDeck
from ...model import Deck, Project
from ...rows.rows import Row, action_row, choice_row, length_row, level_options, text_row
from ...tolerance import TOL
from ..floors.fields import joist_fields
from .level_edits import below_level, slab_around
from .step_edits import free_edges, way_of


def deck_fields(project: Project, held: Deck) -> list[Row]:
    """Height, make-up and joists of a deck; a beam under it and rails round it."""

    def put(**changes: Any) -> Sequence[Any]:
        return [PutDeck(deck=changed(held, **changes))]

    id = next(free_ids(project, "steps"))
    make_ups = [(make_up.id, make_up.name) for make_up in project.make_ups if make_up.use == "floor"]
    return [
        text_row("name", "Name", held.name, lambda t: put(name=t)),
        choice_row("level", "Below", held.level, level_options(project), lambda t: put(level=t)),
        length_row("drop", "So much below it", held.drop, project.units, lambda v: put(drop=v)),
        choice_row("make_up", "Make-up", held.make_up, make_ups, lambda t: put(make_up=t)),
        *joist_fields(project, held, put),
        *_level(project, held),
        action_row("carry", "Lay a beam under its outer edge", [CarryDeck(deck=held.id)]),
        action_row("rails", "Put rails along its free edges", [RailDeck(deck=held.id)]),
        *(
            action_row(f"steps:{corner}", f"Steps from its {way} edge", [StepDeck(deck=held.id, corner=corner, id=id)])
            for corner, way in _ways(project, held)
        ),
    ]


def _level(project: Project, held: Deck) -> Iterator[Row]:
    """Offered where the underside of a part of a slab lies higher or lower than that around it."""
    floor = slab_around(project, held)
    if floor is not None and abs(below_level(project, held, floor)) > TOL.point:
        yield action_row("level_under", "Level its underside with that around it", [LevelDeck(deck=held.id)])


def _ways(project: Project, held: Deck) -> Iterator[tuple[str, str]]:
    """The free edges of a deck, each by its corner and to which side it looks."""
    named: dict[str, int] = {}
    for corner, edge in free_edges(project, held):
        way = way_of(edge)
        named[way] = count = named.get(way, 0) + 1
        yield corner, way if count == 1 else f"{way} edge {count},"
