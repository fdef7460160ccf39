"""Edits of make-ups."""

from __future__ import annotations

from typing import ClassVar, Literal

from ...document.putting import PutElement
from ...model.project import Project
from ..levels.edits import keep_locked
from .model import MakeUp


class PutMakeUp(PutElement):
    kind: Literal["put_make_up"] = "put_make_up"
    phrase: ClassVar[str] = "change a make-up"
    make_up: MakeUp

    def apply(self, project: Project) -> Project:
        """The project with the make-up; locked heights that count its layers keep their totals. Raises: RefusedEdit."""
        return keep_locked(project, super().apply(project))
