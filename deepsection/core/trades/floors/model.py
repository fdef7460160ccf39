"""Floors and ceilings."""

from __future__ import annotations

from typing import ClassVar, Literal

from ...document.declaring import About, Ref, Standing
from ...document.values import Id, Name

JoistSpan = Literal["short", "east-west", "north-south"]


class Floor(Standing):
    """A joist floor under the outer walls of a storey: its top is the level, its joists bear at another.

    A rim joist closes it along the outside of the frames. `span` is the direction in which joists run.
    """

    about: ClassVar[About] = About(
        "floor",
        "floors",
        refs=(
            Ref("level", "rungs", "level"),
            Ref("bearing", "rungs", "bearing level"),
            Ref("make_up", "make_ups", "make-up"),
        ),
        group="floors",
    )
    id: Id
    name: Name
    level: Id
    bearing: Id
    make_up: Id
    span: JoistSpan = "short"


class Ceiling(Standing):
    """A flat ceiling whose joists bear at a level, over every closed outline of outer walls that reaches it.

    Joists run along the rafters above, or as `span` says.
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
