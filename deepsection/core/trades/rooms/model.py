"""Rooms: spaces with a name."""

from __future__ import annotations

from typing import ClassVar, Self

from ...document.declaring import About, Declared, Ref, revised
from ...document.motion import Motion
from ...document.values import Id, Mm, Name, RoofPitch


class Room(Declared):
    """A named space: the one that encloses the point, on the storey of a level or the lowest one.

    `vault`: the pitch at which its ceiling rises from the plates, under a roof that bears on them; flat when none.
    """

    about: ClassVar[About] = About(
        "room", "rooms", refs=(Ref("level", "rungs", "level"),), movable=True, removable=True
    )
    id: Id
    name: Name
    x: Mm
    y: Mm
    level: Id | None = None
    vault: RoofPitch | None = None

    def moved(self, motion: Motion, id: str) -> Self:
        """It, moved in plan, under an id."""
        x, y = motion.at((self.x, self.y))
        return revised(self, id=id, x=x, y=y)
