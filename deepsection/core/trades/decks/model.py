"""Decks and balconies: joist floors with an outline of their own, beside a house."""

from __future__ import annotations

from itertools import pairwise
from typing import TYPE_CHECKING, Annotated, ClassVar, Self

from pydantic import Field
from shapely.geometry import Polygon

from ...document.declaring import About, Ref, revised
from ...document.motion import Motion
from ...document.values import Element, Id, Mm
from ..floors.model import Joisted, turned_span

if TYPE_CHECKING:
    from ...model.project import Project


class DeckCorner(Element):
    """A corner of a deck in plan; the edge from it to the next one has its id."""

    id: Id
    x: Mm
    y: Mm


class Deck(Joisted):
    """A deck or balcony: its outline in plan, its top so much below a level.

    Its joists begin at a ledger where it lies against the house, and bear on beams. What lies within the house falls
    away. A rim joist closes its other edges. Where its middle lies within a joist floor of its level it is a floor of
    its own, set into that one, which is framed around it.
    """

    about: ClassVar[About] = About(
        "deck",
        "decks",
        refs=(Ref("level", "rungs", "level"), Ref("make_up", "make_ups", "make-up")),
        movable=True,
        removable=True,
        group="floors",
    )
    id: Id
    corners: Annotated[tuple[DeckCorner, ...], Field(min_length=3, max_length=60)]
    drop: Mm = 0.0

    @property
    def outline(self) -> Polygon:
        """Its outline as drawn."""
        return Polygon([(corner.x, corner.y) for corner in self.corners])

    @property
    def edges(self) -> tuple[tuple[DeckCorner, DeckCorner], ...]:
        """Each edge from the corner that names it to the next."""
        return tuple(pairwise((*self.corners, self.corners[0])))

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan with its joists, under an id."""
        places = [(corner, motion.at((corner.x, corner.y))) for corner in self.corners]
        corners = tuple(revised(corner, x=x, y=y) for corner, (x, y) in places)
        return revised(self, id=id, corners=corners, **turned_span(self.span, self.angle, motion))

    def check(self, project: Project) -> None:
        """Its corners go round an area, each with an id of its own. Raises: ValueError."""
        if not self.outline.is_valid or self.outline.area < 1e4:
            raise ValueError(f"{self.id}: the corners of a deck go round an area, without crossing")
        if len({corner.id for corner in self.corners}) != len(self.corners):
            raise ValueError(f"{self.id}: two corners of a deck have one id")
