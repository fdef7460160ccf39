"""Parts of slabs made as much thinner as they are set down, so that what bears the floor bears them too."""

from __future__ import annotations

from typing import ClassVar, Literal

from ...document.command import Command
from ...document.ids import free_ids
from ...document.rebuilding import changed, get_element, put
from ...document.values import Id
from ...errors import RefusedEdit
from ...model.places import house_area
from ...model.project import Project
from ...tolerance import TOL
from ...units import format_length
from ..floors.model import Floor
from ..makeups.model import Layer, MakeUp
from .model import Deck

LEAST_SLAB = 75.0
"""A slab is no thinner than this (mm). Common practice, no source."""


class LevelDeck(Command):
    """A part of a slab gets a make-up of its own, whose slab ends where that of the floor around it does."""

    kind: Literal["level_deck"] = "level_deck"
    phrase: ClassVar[str] = "level the underside of {name}"
    deck: Id

    def apply(self, project: Project) -> Project:
        """The project with the make-up. Raises: RefusedEdit, UnknownElement."""
        deck, units = get_element(project, self.deck, Deck), project.units
        floor = slab_around(project, deck)
        if floor is None:
            raise RefusedEdit(f"{deck.name} is no part of a slab", element=deck.id, field="make_up")
        own = get_element(project, deck.make_up, MakeUp)
        assert own.carrying is not None
        slab = own.layers[own.carrying]
        thickness = slab.thickness + below_level(project, deck, floor)
        if thickness < LEAST_SLAB - TOL.point:
            most = deck.drop - (LEAST_SLAB - thickness)
            raise RefusedEdit(
                f"a slab of {format_length(max(thickness, 0.0), units)} would be left: set {deck.name} down by "
                f"{format_length(most, units)} at most",
                element=deck.id,
                field="drop",
                value=deck.drop,
                limit=most,
            )
        layers = tuple(changed(held, thickness=thickness) if held is slab else held for held in own.layers)
        same = next((held.id for held in project.make_ups if held.use == own.use and _alike(held.layers, layers)), None)
        if same is not None:
            return put(project, changed(deck, make_up=same))
        thin = changed(
            own,
            id=next(free_ids(project, own.id[:40])),
            name=f"{own.name}, slab of {format_length(thickness, units)}"[:60],
            layers=layers,
        )
        return put(project, thin, changed(deck, make_up=thin.id))


def slab_around(project: Project, deck: Deck) -> Floor | None:
    """The floor that a deck is a part of, both of them slabs; None where it is none."""
    make_ups = {held.id: held for held in project.make_ups}
    if not make_ups[deck.make_up].is_slab:
        return None
    if not house_area(project, deck.level).contains(deck.outline.centroid):
        return None
    floors = (held for held in project.floors if held.level == deck.level and make_ups[held.make_up].is_slab)
    return next(floors, None)


def below_level(project: Project, deck: Deck, floor: Floor) -> float:
    """How much higher than that of the floor around it the underside of a part of a slab lies (mm)."""
    own, around = (get_element(project, held.make_up, MakeUp) for held in (deck, floor))
    return around.depth - deck.drop - own.depth


def _alike(one: tuple[Layer, ...], other: tuple[Layer, ...]) -> bool:
    """Whether layers are the same but for their ids."""
    return [changed(held, id="same") for held in one] == [changed(held, id="same") for held in other]
