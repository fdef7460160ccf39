"""What a plan showed of a storey when it was taken over last."""

from __future__ import annotations

from typing import Annotated, ClassVar

from pydantic import Field

from ...document.declaring import About, Declared
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
