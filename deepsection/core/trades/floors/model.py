"""Floors and ceilings."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, ClassVar, Literal, Self

from pydantic import Field
from shapely.geometry import Polygon

from ...document.declaring import About, Ref, Standing, revised
from ...document.motion import Motion
from ...document.values import Id, Mm, Name

if TYPE_CHECKING:
    from ...model.project import Project

JoistSpan = Literal["short", "east-west", "north-south"]
Lap = Literal["lapped", "butted", "through"]
"""What joists do over a bearing between the ends of their bay."""


class Floor(Standing):
    """A joist floor under the outer walls of a storey: its top is the level, its joists bear at another.

    A rim joist closes it along the outside of the frames. `span` is the direction in which joists run. Inner walls
    that bear, and beams at the height of its bearing, divide them: `lap` says what they do there. `doubled`: two joists
    lie under each wall that runs along them; `blocked`: long ones have blocks between them.
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
    lap: Lap = "lapped"
    doubled: bool = True
    blocked: bool = True


class FloorHole(Standing):
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
    corners: Annotated[tuple[tuple[Mm, Mm], ...], Field(min_length=3, max_length=40)]

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id."""
        corners = tuple(motion.at(corner) for corner in self.corners)
        return revised(self, id=id, corners=corners)

    def check(self, project: Project) -> None:
        """Its corners go round an area. Raises: ValueError."""
        shape = Polygon(self.corners)
        if not shape.is_valid or shape.area < 1e4:
            raise ValueError(f"{self.id}: the corners of a hole go round an area, without crossing")


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
