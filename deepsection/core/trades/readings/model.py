"""What a plan showed of a storey when it was taken over last."""

from __future__ import annotations

from typing import Annotated, ClassVar

from pydantic import Field

from ...document.declaring import About, Declared
from ...document.motion import Motion
from ...document.rebuilding import changed
from ...document.values import Element, Id, Mm, Positive

MOST_READ = 20_000


class ReadWall(Element):
    """A wall of a plan: the ends of its axis (mm, where the house stands) and its bulge, and what was built of it."""

    ends: tuple[Mm, Mm, Mm, Mm]
    bulge: Annotated[float, Field(ge=-10, le=10)] = 0.0
    elements: tuple[Id, ...] = ()


class ReadOpening(Element):
    """An opening of a plan: its middle and its width (mm), which of the walls it lies in, and what was built of it."""

    x: Mm
    y: Mm
    width: Positive
    wall: Annotated[int, Field(ge=0, lt=MOST_READ)]
    element: Id | None = None


class PlanRead(Declared):
    """The walls and openings that a plan had for a storey, built or not, by the level that they stand on.

    What names no element of the project any more was removed in it.
    """

    about: ClassVar[About] = About("plan as it was read", "plans as they were read")
    id: Id
    level: Id
    walls: Annotated[tuple[ReadWall, ...], Field(max_length=MOST_READ)] = ()
    openings: Annotated[tuple[ReadOpening, ...], Field(max_length=MOST_READ)] = ()

    def gone_along(self, motion: Motion) -> PlanRead:
        """It, moved with the house that was built of it."""
        walls = []
        for held in self.walls:
            x0, y0, x1, y1 = held.ends
            bulge = -held.bulge if motion.mirror is not None and held.bulge else held.bulge
            walls.append(changed(held, ends=(*motion.at((x0, y0)), *motion.at((x1, y1))), bulge=bulge))
        places = [motion.at((held.x, held.y)) for held in self.openings]
        openings = tuple(changed(held, x=x, y=y) for held, (x, y) in zip(self.openings, places))
        moved: PlanRead = changed(self, walls=tuple(walls), openings=openings)
        return moved

    def built(self) -> frozenset[str]:
        """The ids of the walls that were built of it."""
        return frozenset(id for held in self.walls for id in held.elements)
