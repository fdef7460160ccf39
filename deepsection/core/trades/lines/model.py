"""Lines to draw by: construction lines and the grid."""

from __future__ import annotations

from typing import Annotated, ClassVar, Self

from pydantic import Field, StringConstraints

from ...document.declaring import About, Declared, revised
from ...document.motion import Motion
from ...document.values import Id, Mm


class ConstructionLine(Declared):
    """An endless straight line in plan to snap to: through a point, at an angle counter-clockwise from east."""

    about: ClassVar[About] = About("construction line", "construction lines", movable=True, removable=True)
    id: Id
    x: Mm
    y: Mm
    angle: Annotated[float, Field(ge=-360, le=360)]
    level: Id | None = None

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id."""
        x, y = motion.at((self.x, self.y))
        return revised(self, id=id, x=x, y=y, angle=motion.angle(self.angle))


class GridLine(Declared):
    """A named line of the grid, through every storey: a point on it, and an angle counter-clockwise from east."""

    about: ClassVar[About] = About("grid line", "grid lines", movable=True, removable=True)
    id: Id
    name: Annotated[str, StringConstraints(min_length=1, max_length=6, strip_whitespace=True)]
    x: Mm
    y: Mm
    angle: Annotated[float, Field(ge=-360, le=360)]

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id."""
        x, y = motion.at((self.x, self.y))
        return revised(self, id=id, x=x, y=y, angle=motion.angle(self.angle))
