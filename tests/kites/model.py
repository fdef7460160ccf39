"""What the drafter states of a kite."""

from __future__ import annotations

from typing import ClassVar, Self

from ...document.declaring import About, Ref, Standing, revised
from ...document.motion import Motion
from ...document.values import Id, Mm, Positive
from ..levels.model import LevelRule


class Kite(Standing):
    """A square kite on a string from a level."""

    about: ClassVar[About] = About(
        "kite", "kites", refs=(Ref("base.level", "rungs", "string"),), movable=True, removable=True, group="outdoors"
    )
    id: Id
    x: Mm
    y: Mm
    size: Positive
    base: LevelRule

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id."""
        x, y = motion.at((self.x, self.y))
        return revised(self, id=id, x=x, y=y)
