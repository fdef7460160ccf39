"""Names of rooms in a section, where the plane goes through them, clear of the windows and doors beyond."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace

import numpy as np
import shapely
from shapely.geometry import LineString

from ..drawing import NAME, Label, Text, along, text_width
from ..geometry import Frame, Point
from ..model import SectionLine
from ..resolve import Building

HEIGHTS = (1250.0, 1750.0, 650.0, 2250.0)
"""Heights of a name above its floor (mm), the usual one first."""
STEP = 150.0
"""Between the places that are tried along a room (mm)."""
SHORTEST = 300.0
"""A room that is cut over less than this (mm) is not named."""
LETTERING = 2.5

Box = tuple[float, float, float, float]


def room_names(
    building: Building, line: SectionLine, frame: Frame, scale: float, blocked: Sequence[Box]
) -> Iterator[Label]:
    """The name of every room that the line crosses; on `blocked` boxes (u, v) only where there is no other room."""
    plane = LineString([(line.x1, line.y1), (line.x2, line.y2)])
    for held in building.rooms:
        crossing = plane.intersection(held.space) if held.space else LineString()
        pieces = [piece for piece in shapely.get_parts(crossing) if piece.length >= SHORTEST]
        if not pieces:
            continue
        longest = max(pieces, key=lambda piece: piece.length)
        ends = sorted(x * frame.ux + y * frame.uy for x, y in longest.coords)
        half = text_width(held.room.name, LETTERING, "bold") / 2 * scale
        floor, u = building.levels[held.level].z, (ends[0] + ends[-1]) / 2
        text = Text(
            u,
            floor + HEIGHTS[0],
            held.room.name,
            LETTERING,
            "centre",
            "middle",
            0,
            "bold",
            held.room.id,
            feature="label",
        )
        boxed = (u - half, floor + HEIGHTS[0] - LETTERING * scale, u + half, floor + HEIGHTS[0] + LETTERING * scale)
        tried = _places(ends[-1] - ends[0] - 2 * half)
        places = [shift for shift, meets in zip(tried, _meet(boxed, tried, blocked)) if not meets] or list(tried)
        u0, v0 = places[0]
        text = replace(text, x=text.x + u0, y=text.y + v0)
        places = [(du - u0, dv - v0) for du, dv in places]
        about = shapely.box(ends[0], floor, ends[-1], floor + HEIGHTS[-1] + 500.0)
        yield Label(f"name:{held.room.id}", (text,), places, NAME, about, backed=True)


def _places(room: float) -> tuple[Point, ...]:
    """Shifts of a name, the middle of the room first, then farther and farther from it; at the other heights after."""
    return along((1.0, 0.0), max(0.0, room), STEP, tuple(height - HEIGHTS[0] for height in HEIGHTS))


def _meet(box: Box, shifts: Sequence[Point], blocked: Sequence[Box]) -> list[bool]:
    """Whether a box meets one of others, for each shift of it."""
    x0, y0, x1, y1 = np.array(blocked).reshape(-1, 4).T
    dx, dy = np.array(shifts).reshape(-1, 2).T[:, :, None]
    beside = (box[0] + dx < x1) & (x0 < box[2] + dx) & (box[1] + dy < y1) & (y0 < box[3] + dy)
    meets: list[bool] = beside.any(axis=1).tolist()
    return meets
