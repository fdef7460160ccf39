"""Edits of foundations."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from ...catalog import usual
from ...document.command import Command
from ...document.putting import PutElement
from ...document.rebuilding import get_element, put
from ...document.values import Id, Mm
from ...errors import RefusedEdit
from ...model.project import Project
from ..decks.edits import set_down
from ..levels.model import Rung
from ..makeups.model import MakeUp
from .model import Foundation, FoundationStep, SetDown


class PutFoundation(PutElement):
    kind: Literal["put_foundation"] = "put_foundation"
    phrase: ClassVar[str] = "change the foundation"
    foundation: Foundation


class PutFoundationStep(PutElement):
    kind: Literal["put_foundation_step"] = "put_foundation_step"
    phrase: ClassVar[str] = "change a step of the foundation"
    adding: ClassVar[str] = "step the foundation"
    step: FoundationStep


class PutSetDown(PutElement):
    kind: Literal["put_set_down"] = "put_set_down"
    phrase: ClassVar[str] = "change {name}"
    adding: ClassVar[str] = "set down the slab"
    set_down: SetDown


class DrawSetDown(Command):
    """The slab of a storey, on the ground or suspended, set down between corners by a usual height."""

    kind: Literal["draw_set_down"] = "draw_set_down"
    phrase: ClassVar[str] = "set down the slab"
    id: Id
    level: Id
    corners: Annotated[tuple[tuple[Mm, Mm], ...], Field(min_length=3, max_length=40)]

    def apply(self, project: Project) -> Project:
        """The project with the set-down. Raises: RefusedEdit, UnknownElement."""
        level = get_element(project, self.level, Rung)
        floor = next((held for held in project.floors if held.level == level.id), None)
        if floor is not None and get_element(project, floor.make_up, MakeUp).is_slab:
            return put(project, set_down(project, floor, self.id, self.corners))
        own = next((held for held in project.foundations if held.level == level.id and held.slab), None)
        if own is None or floor is not None:
            raise RefusedEdit(f"{level.name} is no slab to set down", element=level.id)
        taken = len(project.set_downs)
        name, drop = f"Set-down {taken + 1}" if taken else "Set-down", usual("set_down", project.units)
        return put(project, SetDown(id=self.id, name=name, foundation=own.id, corners=self.corners, drop=drop))
