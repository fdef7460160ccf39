"""Slabs beside a house: of porches and terraces."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, ClassVar, Literal, Self

from pydantic import Field

from ...document.declaring import About, Ref, revised
from ...document.motion import Motion
from ...document.outlined import Outlined
from ...document.values import Id, MaterialId, Mm, Name, Positive

if TYPE_CHECKING:
    from ...model.project import Project


class PorchSlab(Outlined):
    """A slab on the ground: its corners in plan, its top so much below a level at its high side.

    From there it falls towards a direction (degrees counter-clockwise from east), so much per unit of length. Its free
    edge is plain, or goes down to a depth below its top over a width.
    """

    about: ClassVar[About] = About(
        "porch slab",
        "porch slabs",
        refs=(Ref("level", "rungs", "level"),),
        movable=True,
        removable=True,
        group="outdoors",
    )
    id: Id
    name: Name = "Porch slab"
    level: Id
    drop: Mm
    thickness: Positive
    fall: Annotated[float, Field(ge=0, le=0.2)] = 1 / 48
    fall_to: Annotated[float, Field(ge=-360, le=360)] = 0.0
    edge: Literal["plain", "deep"] = "plain"
    edge_width: Positive = 300.0
    edge_depth: Positive = 450.0
    material: MaterialId = "concrete"

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id; its fall turns with it."""
        return revised(super().moved(motion, id), fall_to=motion.angle(self.fall_to))

    def check(self, project: Project) -> None:
        """Its corners go round an area, and a deep edge is deeper than it. Raises: ValueError."""
        super().check(project)
        if self.edge == "deep" and self.edge_depth <= self.thickness:
            raise ValueError(f"{self.id}: the edge of {self.name} goes deeper than the slab is thick")
