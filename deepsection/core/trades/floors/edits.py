"""Edits of floors and ceilings."""

from __future__ import annotations

from typing import ClassVar, Literal

from ...document.command import Command
from ...document.putting import PutElement
from ...document.rebuilding import get_element, put
from ...document.values import Id
from ...model.project import Project
from .model import Ceiling, Floor, FloorHole


class PutFloor(PutElement):
    kind: Literal["put_floor"] = "put_floor"
    phrase: ClassVar[str] = "change {name}"
    floor: Floor


class TurnJoists(Command):
    """The joists of a floor laid at right angles to how they run."""

    kind: Literal["turn_joists"] = "turn_joists"
    phrase: ClassVar[str] = "turn the joists of {name}"
    floor: Id

    def apply(self, project: Project) -> Project:
        """The project with them turned. Raises: UnknownElement."""
        return put(project, get_element(project, self.floor, Floor).across)


class PutFloorHole(PutElement):
    kind: Literal["put_floor_hole"] = "put_floor_hole"
    phrase: ClassVar[str] = "change {name}"
    adding: ClassVar[str] = "cut a hole"
    hole: FloorHole


class PutCeiling(PutElement):
    kind: Literal["put_ceiling"] = "put_ceiling"
    phrase: ClassVar[str] = "change {name}"
    ceiling: Ceiling
