"""Edits that add an element, or replace it whole, by its id."""

from __future__ import annotations

from typing import TYPE_CHECKING

from .command import Command
from .rebuilding import put

if TYPE_CHECKING:
    from ..model.project import Project


class PutElement(Command):
    """An element added, or replaced by its id."""

    def apply(self, project: Project) -> Project:
        """The project with this element added, or replaced by id. Raises: RefusedEdit."""
        return put(project, getattr(self, self.__class__._carries()))

    @classmethod
    def _carries(cls) -> str:
        return next(name for name in cls.model_fields if name != "kind")
