"""Rooms: the spaces that they name, and their names in plan."""

from __future__ import annotations

from ...building.diagnostics import Diagnostic
from ...building.kind import ElementKind
from ...building.placed import Placed, Stage
from ...model import Room
from ..levels.place import storeys
from ..walls.planned import WALLS
from .fields import room_fields
from .place import room_space
from .placed import ROOMS, RoomSpace
from .plan import room_marks


def _place(placed: Placed) -> tuple[RoomSpace, ...]:
    lowest = storeys(placed.project)[0].level
    rooms = tuple(room_space(room, placed[WALLS], lowest) for room in placed.project.rooms)
    for space in rooms:
        if space.space is None:
            room, message = space.room, f"{space.room.name} is not enclosed by walls"
            placed.findings.append(Diagnostic("room-open", message, room.id, at=(room.x, room.y)))
    return rooms


ROOM_STAGE = Stage(ROOMS, _place)
ROOM = ElementKind(Room, title=lambda project, room: (room.name, "room"), fields=room_fields, plan=room_marks)
