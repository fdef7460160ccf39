"""Stairs inside a house: from one level to another, straight or turning."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING, Annotated, ClassVar, Literal, Self

from pydantic import Field

from ...document.declaring import About, Ref, Standing, revised
from ...document.motion import Motion
from ...document.values import Element, Id, MaterialId, Mm, Name, NotNegative, Positive

if TYPE_CHECKING:
    from ...model.project import Project

Side = Literal["left", "right"]
Turning = Literal["landing", "half landing", "winders"]


class StairTurn(Element):
    """Where a stair turns, coming up: a quarter on a landing or on winders, or half round on a half landing.

    It is reached by the riser of number `after`. `well`: the clear width between the flights beside a half landing;
    of winders, how far their narrow ends lie from the point about which they turn (none: as the rule asks).
    `winders`: how many of them make the quarter.
    """

    after: Annotated[int, Field(ge=1, le=200)]
    side: Side = "left"
    kind: Turning = "landing"
    well: NotNegative | None = None
    winders: Annotated[int, Field(ge=2, le=5)] = 3


class Stair(Standing):
    """A stair from a level up to another one.

    `x`, `y` is the middle of its first riser, `turn` the way up (degrees counter-clockwise from east). `risers` and
    `going`: none as the rule has it, the fewest legal ones and the least usual going for them. `curve`: the radius of
    the walking line of a stair that winds all the way, to a side; it has no turns.

    `build`: treads between housed strings, on cut strings, on one carriage in the middle, or a concrete flight whose
    waist is `depth` thick; `depth` is that of the strings, square to their length, else. `carriages`: the spacing at
    most of cut strings. `below`: whether the space below the first flight is closed by panels.
    """

    about: ClassVar[About] = About(
        "stair",
        "stairs",
        refs=(Ref("level", "rungs", "foot"), Ref("upper", "rungs", "head")),
        movable=True,
        removable=True,
        group="stairs",
    )
    id: Id
    name: Name = "Stair"
    level: Id
    upper: Id
    x: Mm
    y: Mm
    turn: Annotated[float, Field(ge=-360, le=360)] = 0.0
    width: Annotated[float, Field(ge=300, le=10_000)]
    rule: Literal["irc", "adk"] = "irc"
    risers: Annotated[int, Field(ge=1, le=200)] | None = None
    going: Annotated[float, Field(ge=100, le=1000)] | None = None
    turns: Annotated[tuple[StairTurn, ...], Field(max_length=6)] = ()
    curve: Positive | None = None
    curve_side: Side = "left"
    build: Literal["housed", "cut", "mono", "concrete"] = "housed"
    open_risers: bool = False
    nosing: Annotated[float, Field(ge=0, le=100)] = 25.0
    tread: Annotated[float, Field(ge=5, le=200)] = 28.0
    riser_board: Annotated[float, Field(ge=3, le=100)] = 18.0
    string: Annotated[float, Field(ge=10, le=500)] = 38.0
    depth: Annotated[float, Field(ge=50, le=1000)] = 235.0
    carriages: Annotated[float, Field(ge=100, le=5000)] = 457.2
    material: MaterialId = "softwood"
    rails: Literal["none", "left", "right", "both"] = "both"
    guard: bool = True
    hole: bool = True
    below: Literal["open", "closed"] = "open"

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id; mirrored, its turns go to the other side."""
        x, y = motion.at((self.x, self.y))
        changes = {"x": x, "y": y, "turn": math.remainder(motion.angle(self.turn), 360.0)}
        if motion.mirror is None:
            return revised(self, id=id, **changes)
        turns = tuple(revised(turn, side=_other(turn.side)) for turn in self.turns)
        rails = {"left": "right", "right": "left"}.get(self.rails, self.rails)
        return revised(self, id=id, **changes, turns=turns, curve_side=_other(self.curve_side), rails=rails)

    def check(self, project: Project) -> None:
        """It leads from one level to another, and its turns follow each other. Raises: ValueError."""
        if self.level == self.upper:
            raise ValueError(f"{self.id}: a stair leads from one level to another one")
        if self.curve is not None and self.turns:
            raise ValueError(f"{self.id}: a stair that winds all the way has no turns")
        if self.curve is not None and self.curve <= self.width / 2:
            raise ValueError(f"{self.id}: the radius of a curved stair must be greater than half of its width")
        taken = 0
        for turn in self.turns:
            if turn.after <= taken:
                raise ValueError(f"{self.id}: a turn must come after the treads of the one before it")
            taken = turn.after + (turn.winders - 1 if turn.kind == "winders" else 0)


def _other(side: Side) -> Side:
    return "right" if side == "left" else "left"
