"""Edits of porch slabs."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from ...catalog import usual
from ...document.command import Command
from ...document.putting import PutElement
from ...document.rebuilding import get_element, put
from ...document.values import Id, Mm
from ...model.places import away_from_house
from ...model.project import Project
from ..levels.model import Rung
from .model import PorchSlab


class PutPorchSlab(PutElement):
    kind: Literal["put_porch_slab"] = "put_porch_slab"
    phrase: ClassVar[str] = "change {name}"
    slab: PorchSlab


class DrawPorchSlab(Command):
    """A slab at a level with usual sizes, which falls away from the walls of the house."""

    kind: Literal["draw_porch_slab"] = "draw_porch_slab"
    phrase: ClassVar[str] = "draw a porch slab"
    id: Id
    level: Id
    corners: Annotated[tuple[tuple[Mm, Mm], ...], Field(min_length=3, max_length=40)]

    def apply(self, project: Project) -> Project:
        """The project with the slab. Raises: RefusedEdit, UnknownElement."""
        get_element(project, self.level, Rung)
        units, taken = project.units, len(project.porch_slabs)
        slab = PorchSlab(
            id=self.id,
            name=f"Porch slab {taken + 1}" if taken else "Porch slab",
            level=self.level,
            corners=self.corners,
            drop=usual("slab_drop", units),
            thickness=usual("slab_thickness", units),
            fall_to=away_from_house(project, self.corners),
            edge_width=usual("slab_edge_width", units),
            edge_depth=usual("slab_edge_depth", units),
        )
        return put(project, slab)
