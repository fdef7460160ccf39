"""Elements that are drawn by the corners of an area in plan."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, Self

from pydantic import Field
from shapely.geometry import Polygon

from .declaring import Standing, revised
from .motion import Motion
from .values import Id, Mm

if TYPE_CHECKING:
    from ..model.project import Project

LEAST = 1e4
"""What is less (mm2) is no area."""


class Outlined(Standing):
    """What covers an area: its corners in plan, in order."""

    corners: Annotated[tuple[tuple[Mm, Mm], ...], Field(min_length=3, max_length=40)]

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id."""
        return revised(self, id=id, corners=tuple(motion.at(corner) for corner in self.corners))

    def check(self, project: Project) -> None:
        """Its corners go round an area. Raises: ValueError."""
        shape = Polygon(self.corners)
        if not shape.is_valid or shape.area < LEAST:
            id: Id = getattr(self, "id", "")
            raise ValueError(f"{id}: the corners of a {self.about.noun} go round an area, without crossing")
