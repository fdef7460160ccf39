"""Ceilings."""

from __future__ import annotations

from typing import ClassVar, Literal, Self

from ...document.declaring import About, Ref, Standing, revised
from ...document.motion import Motion
from ...document.values import Id, Name
from ..floors.model import Angle, JoistSpan, Sized, turned_span


class Ceiling(Standing):
    """A flat ceiling whose joists bear at a level, over every closed outline of outer walls that reaches it.

    Joists run along the rafters above, or as `span` says; spans of what an engineer sized are left to him.
    """

    about: ClassVar[About] = About(
        "ceiling",
        "ceilings",
        refs=(Ref("level", "rungs", "level"), Ref("make_up", "make_ups", "make-up")),
        group="floors",
    )
    id: Id
    name: Name
    level: Id
    make_up: Id
    span: Literal["roof"] | JoistSpan = "roof"
    angle: Angle = 0.0
    sized: Sized = "by tables"

    def turned(self, motion: Motion) -> Self:
        """It, with its joists turned as the house around it is."""
        return revised(self, **turned_span(self.span, self.angle, motion))
