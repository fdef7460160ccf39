"""Edits of floors."""

from __future__ import annotations

from typing import ClassVar, Literal

from ...document.command import Command
from ...document.putting import PutElement
from ...document.rebuilding import put
from ...document.values import Id
from ...errors import RefusedEdit
from ...model.project import Project
from ..decks.model import Deck
from .model import Floor, FloorHole


class PutFloor(PutElement):
    kind: Literal["put_floor"] = "put_floor"
    phrase: ClassVar[str] = "change {name}"
    floor: Floor


class TurnJoists(Command):
    """The joists of a floor or deck laid at right angles to how they run."""

    kind: Literal["turn_joists"] = "turn_joists"
    phrase: ClassVar[str] = "turn the joists of {name}"
    floor: Id

    def apply(self, project: Project) -> Project:
        """The project with them turned. Raises: RefusedEdit, UnknownElement."""
        held = project.find(self.floor)
        if not isinstance(held, Floor | Deck):
            raise RefusedEdit("joists lie in floors and decks", element=self.floor)
        return put(project, held.across)


class PutFloorHole(PutElement):
    kind: Literal["put_floor_hole"] = "put_floor_hole"
    phrase: ClassVar[str] = "change {name}"
    adding: ClassVar[str] = "cut a hole"
    hole: FloorHole
