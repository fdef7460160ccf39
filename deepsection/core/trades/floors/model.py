"""Floors, and the holes in them."""

from __future__ import annotations

import math
from typing import Annotated, Any, ClassVar, Literal, Self

from pydantic import Field

from ...document.declaring import About, Ref, Standing, revised
from ...document.motion import Motion
from ...document.outlined import Outlined
from ...document.values import Id, Mm, Name, Positive

JoistSpan = Literal["short", "long", "east-west", "north-south", "angle"]
AXES = {"east-west": 0.0, "north-south": 90.0}
"""Directions of joists by name: degrees counter-clockwise from east."""
ACROSS: dict[JoistSpan, JoistSpan] = {
    "short": "long",
    "long": "short",
    "east-west": "north-south",
    "north-south": "east-west",
}
Between = Literal["blocks", "bridging", "nothing"]
"""What stands in rows between joists that run far: solid blocks, or pairs of crossing bars."""
Sized = Literal["by tables", "by an engineer"]
"""Who says how far joists span: tables and first principles, or an engineer."""
Lap = Literal["lapped", "butted", "through"]
"""What joists do over a bearing between the ends of their bay."""


Angle = Annotated[float, Field(ge=-360, le=360)]
"""Of joists whose direction is `angle`: degrees counter-clockwise from east."""


class Joisted(Standing):
    """What floors and decks say of their joists.

    `span` is the direction in which they run. What bears them divides them: `lap` says what they do there. The layout
    begins at a side of each bay; `shift` is how far from there (mm), not counting whole spacings. `between`: what
    keeps long ones upright. What an engineer sized is not held against tables of spans.
    """

    name: Name
    level: Id
    make_up: Id
    span: JoistSpan = "short"
    angle: Angle = 0.0
    shift: Mm = 0.0
    lap: Lap = "lapped"
    between: Between = "blocks"
    sized: Sized = "by tables"

    @property
    def across(self) -> Self:
        """It, with its joists at right angles to how they run now."""
        if self.span == "angle":
            return revised(self, angle=math.remainder(self.angle + 90.0, 360.0))
        return revised(self, span=ACROSS[self.span])


class Floor(Joisted):
    """A joist floor under the outer walls of a storey: its top is the level, its joists bear at another.

    A rim joist closes it along the outside of the frames, or a short framed wall as high as its joists. It bears on the
    walls around it, on inner walls that bear, and on beams at the height of its bearing. `doubled`: two joists lie
    under each wall that runs along them.
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
    bearing: Id
    doubled: bool = True
    ends: Literal["built in", "hung"] = "built in"
    """What its joists do at walls of masonry: they go into it, or hang on its inside."""
    edge: Literal["rim joist", "framed"] = "rim joist"
    edge_depth: Positive = 89.0
    """How deep the studs of a framed edge are (mm)."""

    def turned(self, motion: Motion) -> Self:
        """It, with its joists turned as the house around it is."""
        return revised(self, **turned_span(self.span, self.angle, motion))


class FloorHole(Outlined):
    """A hole in a floor: its corners in plan, in order. Joists are framed around it."""

    about: ClassVar[About] = About(
        "hole",
        "holes",
        refs=(Ref("floor", "floors", "floor"),),
        movable=True,
        removable=True,
    )
    id: Id
    name: Name = "Hole"
    floor: Id


def turned_span(span: str, angle: float, motion: Motion) -> dict[str, Any]:
    """What a direction of joists becomes; one that the outline gives stays."""
    if span not in AXES and span != "angle":
        return {}
    before = AXES.get(span, angle)
    after = motion.angle(before)
    return {"span": "angle", "angle": after} if abs(math.remainder(after - before, 360.0)) > 1e-9 else {}
