"""The ground around the house: heights at points, and steps."""

from __future__ import annotations

from typing import Self

from pydantic import model_validator

from .values import Element, Id, Mm


class GroundSpot(Element):
    """A point of the ground, so much above (or below) the grade level.

    Between points the ground runs straight; beyond the outermost it runs level.
    """

    id: Id
    x: Mm
    y: Mm
    rise: Mm


class GroundStep(Element):
    """A step of the ground along an endless line through two points: to its left the ground lies `rise` higher."""

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
