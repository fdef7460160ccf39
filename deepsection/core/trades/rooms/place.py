"""Stage: the space that every room names."""

from __future__ import annotations

from shapely.geometry import Point as ShapelyPoint

from ..walls.planned import WallPlan
from .model import Room
from .placed import RoomSpace


def room_space(room: Room, plan: WallPlan, lowest: str) -> RoomSpace:
    """A room with the space around its point, on its level or on the lowest that walls may stand on."""
    spot = ShapelyPoint(room.x, room.y)
    level = room.level or lowest
    spaces = (space for outline in plan.outlines_on(level) for space in outline.spaces)
    return RoomSpace(room, level, next((space for space in spaces if space.contains(spot)), None))
