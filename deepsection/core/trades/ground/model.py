"""The ground around the house: heights at points, and steps."""

from __future__ import annotations

from typing import ClassVar, Self

from pydantic import model_validator

from ...document.declaring import About, Declared, revised
from ...document.motion import Motion
from ...document.values import Id, Mm


class GroundSpot(Declared):
    """A point of the ground, so much above (or below) the grade level.

    Between points the ground runs straight; beyond the outermost it runs level.
    """

    about: ClassVar[About] = About("ground height", "ground heights", movable=True, removable=True)
    id: Id
    x: Mm
    y: Mm
    rise: Mm

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id."""
        x, y = motion.at((self.x, self.y))
        return revised(self, id=id, x=x, y=y)


class GroundStep(Declared):
    """A step of the ground along an endless line through two points: to its left the ground lies `rise` higher."""

    about: ClassVar[About] = About("step of the ground", "steps of the ground", movable=True, removable=True)
    id: Id
    x1: Mm
    y1: Mm
    x2: Mm
    y2: Mm
    rise: Mm

    @model_validator(mode="after")
    def _runs(self) -> Self:
        if abs(self.x1 - self.x2) + abs(self.y1 - self.y2) < 1.0:
            raise ValueError(f"{self.id}: a step of the ground needs two points")
        return self

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id."""
        (x1, y1), (x2, y2) = motion.at((self.x1, self.y1)), motion.at((self.x2, self.y2))
        return revised(self, id=id, x1=x1, y1=y1, x2=x2, y2=y2, rise=self.rise if motion.mirror is None else -self.rise)
