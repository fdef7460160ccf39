"""Loft hatches: the ways up into a loft, with their ladders."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field

from ...document.declaring import About, Ref, Standing, revised
from ...document.motion import Motion
from ...document.values import Id, Mm, Name, Positive


class LoftHatch(Standing):
    """A hatch in the ceiling over a storey: the middle of its opening in plan, its size along and across its ladder.

    The ladder comes down in the direction of `turn` (degrees counter-clockwise from east), at a `pitch` to the level.
    """

    about: ClassVar[About] = About(
        "loft hatch",
        "loft hatches",
        refs=(Ref("level", "rungs", "level"),),
        movable=True,
        removable=True,
        group="stairs",
    )
    id: Id
    name: Name = "Loft hatch"
    level: Id
    x: Mm
    y: Mm
    turn: Annotated[float, Field(ge=-360, le=360)] = 0.0
    length: Annotated[float, Field(ge=300, le=3000)]
    width: Annotated[float, Field(ge=300, le=3000)]
    ladder: Literal["folding", "none"] = "folding"
    pitch: Annotated[float, Field(ge=45, le=85)] = 65.0
    lining: Positive = 18.0

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id."""
        x, y = motion.at((self.x, self.y))
        return revised(self, id=id, x=x, y=y, turn=motion.angle(self.turn))
