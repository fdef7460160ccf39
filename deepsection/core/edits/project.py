"""Edits of the project itself."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from ..document.command import Command
from ..document.rebuilding import rebuild
from ..document.values import Name
from ..model.project import Project
from ..trades.drawings.model import Dimensioning
from ..units import Units


class SetProject(Command):
    """Name, place, author, units, working scale or rules of dimensions of the project."""

    kind: Literal["set_project"] = "set_project"
    phrase: ClassVar[str] = "change the project"
    name: Name | None = None
    place: str | None = Field(default=None, max_length=120)
    author: str | None = Field(default=None, max_length=120)
    units: Units | None = None
    scale: float | None = Field(default=None, ge=1, le=2000)
    dimensioning: Dimensioning | None = None

    def apply(self, project: Project) -> Project:
        """The project with what is given replaced."""
        given = {
            name: getattr(self, name)
            for name in ("name", "place", "author", "units", "scale", "dimensioning")
            if getattr(self, name) is not None
        }
        return rebuild(project, **given)
