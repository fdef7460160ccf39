"""Rooms in plan: their names and areas."""

from __future__ import annotations

from collections.abc import Iterator

import shapely
from shapely.geometry import Polygon

from ...building.kind import PlanOf
from ...drawing import FIRST, HERE, Label, Text, around, inside, text_width
from ...geometry import Frame
from ...units import Units, format_area
from .placed import ROOMS, RoomSpace


def room_marks(shown: PlanOf) -> Iterator[Label]:
    """The rooms of the storey."""
    rooms = [held for held in shown.placed[ROOMS] if held.level == shown.level]
    for held in rooms:
        others = [other.space for other in rooms if other.space is not None and other.space != held.space]
        yield _name(held, others, shown.frame, shown.scale, shown.project.units)


def _name(held: RoomSpace, others: list[Polygon], frame: Frame, scale: float, units: Units) -> Label:
    """Name over area, in the room; led to it from beside where it is too small, never from within another room."""
    room, id = held.room, held.room.id
    u, w = frame.plan_to_turned(room.x, room.y)
    size = "not enclosed" if held.area is None else format_area(held.area, units)
    texts = (
        Text(u, w + 0.6 * scale, room.name, NAME_SIZE, "centre", "bottom", 0, "bold", id),
        Text(u, w - 0.6 * scale, size, AREA_SIZE, "centre", "top", 0, "mono", id),
    )
    wide = max(text_width(room.name, NAME_SIZE, "bold"), text_width(size, AREA_SIZE)) * scale
    about = frame.turn(held.space) if held.space else shapely.Point(u, w)
    beside = inside(about, (u, w), SHARES) if held.space else ()
    never = frame.turn(shapely.union_all(others)) if others else None
    places = (HERE, *around(wide, ROW * scale), *beside)
    return Label(f"name:{id}", texts, places, FIRST, about, never=never)


SHARES = (0.5, 0.4, 0.6, 0.3, 0.7, 0.2, 0.8, 0.1, 0.9)
"""Where across a room its name may stand, both ways."""
NAME_SIZE, AREA_SIZE, ROW = 2.8, 2.2, 3.5
"""Heights of the lettering, and by how much it gives way up and down (paper mm)."""
