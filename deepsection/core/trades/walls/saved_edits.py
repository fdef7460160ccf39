"""Walls kept under a name, and used again."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from ...document.command import Command
from ...document.putting import PutElement
from ...document.rebuilding import changed, get_element, put
from ...document.values import Id, Name
from ...errors import RefusedEdit
from ...model import Project, Wall
from .edits.walls import changed_set_in
from .saved_model import SavedWall, facts_of


class PutSavedWall(PutElement):
    kind: Literal["put_saved_wall"] = "put_saved_wall"
    phrase: ClassVar[str] = "change the saved wall {name}"
    adding: ClassVar[str] = "add the saved wall {name}"
    saved: SavedWall


class SaveWall(Command):
    """All that makes a wall but its place, kept under a name; what had that name is replaced."""

    kind: Literal["save_wall"] = "save_wall"
    phrase: ClassVar[str] = "save {name} for other walls"
    wall: Id
    id: Id
    name: Name

    def apply(self, project: Project) -> Project:
        """The project with the saved wall. Raises: RefusedEdit, UnknownElement."""
        wall = get_element(project, self.wall, Wall)
        if wall.outline:
            raise RefusedEdit("a wall with an outline of its own is like no other", element=wall.id, field="save_as")
        same = (own.id for own in project.saved_walls if own.name.casefold() == self.name.casefold())
        return put(project, SavedWall(id=next(same, self.id), name=self.name, **facts_of(wall)))  # type: ignore[arg-type]


class UseSavedWall(Command):
    """Walls become as a saved one says; where they stand and what they reach up to stays."""

    kind: Literal["use_saved_wall"] = "use_saved_wall"
    phrase: ClassVar[str] = "use {name}"
    saved: Id
    walls: Annotated[tuple[Id, ...], Field(min_length=1, max_length=2000)]

    def apply(self, project: Project) -> Project:
        """The project with the walls built so. Raises: RefusedEdit, UnknownElement."""
        saved = get_element(project, self.saved, SavedWall)
        layers = {layer.id for layer in project.find(saved.make_up).layers}
        new = [self._of(saved, get_element(project, id, Wall)) for id in self.walls]
        openings = [
            changed(opening, set_in=changed_set_in(opening, layers))
            for opening in project.openings
            if opening.wall in self.walls
        ]
        return put(project, *new, *openings)

    @staticmethod
    def _of(saved: SavedWall, wall: Wall) -> Wall:
        if wall.outline:
            message = "a wall with an outline of its own is of one layer: straighten it first"
            raise RefusedEdit(message, element=wall.id, field="saved")
        facts = {name: value for name, value in saved.facts.items() if name not in ("base_offset", "top")}
        top = changed(wall.top, **{name: getattr(saved.top, name) for name in ("kind", "offset", "height", "end_rise")})
        if saved.top.end_rise:
            top = changed(top, steps=())
        made: Wall = changed(wall, **facts, base=changed(wall.base, offset=saved.base_offset), top=top)
        return made
