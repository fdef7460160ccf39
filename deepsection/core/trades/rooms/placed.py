"""Rooms with the space that they name."""

from __future__ import annotations

from dataclasses import dataclass

from shapely.geometry import Polygon

from ...building.placed import Key
from .model import Room


@dataclass(frozen=True, slots=True)
class RoomSpace:
    """A room with its storey and the space that it names; None when nothing encloses its point."""

    room: Room
    level: str
    space: Polygon | None

    @property
    def area(self) -> float | None:
        """In mm2."""
        return self.space.area if self.space else None


ROOMS: Key[tuple[RoomSpace, ...]] = Key("rooms")
