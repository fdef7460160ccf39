"""What stands before a house: steps or a ramp up to a floor, and rails."""

from __future__ import annotations

import math
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field

from ...document.declaring import About, Ref, Standing, revised
from ...document.motion import Motion
from ...document.values import Id, MaterialId, Mm, NotNegative, Positive
from ..levels.model import LevelRule


class OutsideSteps(Standing):
    """Steps from the ground up to a level, all of one rise, at most `most_rise`; or a ramp that falls by a slope.

    `x`, `y` is the middle of their upper edge, `turn` (degrees counter-clockwise from east) the way down; `landing`
    is how deep the uppermost tread is, at the level itself; none when one steps over a sill. `rails` stand at the
    sides as one comes up. `build`: one body, or treads on cut strings.
    """

    about: ClassVar[About] = About(
        "flight of steps",
        "flights of steps",
        refs=(Ref("top.level", "rungs", "top"),),
        movable=True,
        removable=True,
        group="outdoors",
    )
    id: Id
    x: Mm
    y: Mm
    turn: Annotated[float, Field(ge=-360, le=360)] = 0.0
    width: Positive
    going: Annotated[float, Field(ge=100, le=3000)]
    most_rise: Annotated[float, Field(ge=50, le=1000)]
    landing: NotNegative = 0.0
    top: LevelRule
    material: MaterialId = "concrete"
    rails: Literal["none", "left", "right", "both"] = "none"
    form: Literal["steps", "ramp"] = "steps"
    slope: Annotated[float, Field(ge=0.01, le=0.5)] = 1 / 12
    build: Literal["solid", "strings"] = "solid"

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id."""
        x, y = motion.at((self.x, self.y))
        return revised(self, id=id, x=x, y=y, turn=math.remainder(motion.angle(self.turn), 360.0))


class Rail(Standing):
    """A level rail between two points: its height over a level, balusters at most `gap` apart."""

    about: ClassVar[About] = About(
        "rail", "rails", refs=(Ref("base.level", "rungs", "foot"),), movable=True, removable=True, group="outdoors"
    )
    id: Id
    x1: Mm
    y1: Mm
    x2: Mm
    y2: Mm
    base: LevelRule
    height: Annotated[float, Field(ge=200, le=5000)]
    gap: Annotated[float, Field(ge=10, le=5000)]
    material: MaterialId = "softwood"

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id."""
        (x1, y1), (x2, y2) = motion.at((self.x1, self.y1)), motion.at((self.x2, self.y2))
        return revised(self, id=id, x1=x1, y1=y1, x2=x2, y2=y2)
