"""Edits of loft hatches."""

from __future__ import annotations

from typing import ClassVar, Literal

from ...catalog import usual
from ...document.command import Command
from ...document.putting import PutElement
from ...document.rebuilding import get_element, put
from ...document.values import Id, Mm
from ...errors import RefusedEdit
from ...model.project import Project
from ..levels.model import Rung
from ..levels.rises import plate_of
from .model import LoftHatch


class PutLoftHatch(PutElement):
    kind: Literal["put_loft_hatch"] = "put_loft_hatch"
    phrase: ClassVar[str] = "change {name}"
    hatch: LoftHatch


class DrawLoftHatch(Command):
    """A hatch with a folding ladder in the ceiling over a place, of usual sizes."""

    kind: Literal["draw_loft_hatch"] = "draw_loft_hatch"
    phrase: ClassVar[str] = "cut a loft hatch"
    id: Id
    level: Id
    x: Mm
    y: Mm

    def apply(self, project: Project) -> Project:
        """The project with the hatch. Raises: RefusedEdit, UnknownElement."""
        level = get_element(project, self.level, Rung)
        plate = plate_of(project.rungs, level.id)
        if plate is None or not any(held.level == plate.id for held in project.ceilings):
            raise RefusedEdit(f"no ceiling lies over {level.name} to cut a hatch in", element=level.id)
        taken, units = len(project.loft_hatches), project.units
        hatch = LoftHatch(
            id=self.id,
            name=f"Loft hatch {taken + 1}" if taken else "Loft hatch",
            level=level.id,
            x=self.x,
            y=self.y,
            length=usual("hatch_length", units),
            width=usual("hatch_width", units),
            lining=usual("hatch_lining", units),
        )
        return put(project, hatch)
