"""Names of rooms in a section, where the plane goes through them, clear of the windows and doors beyond."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import shapely
from shapely.geometry import LineString

from ..drawing import Mark, Region, Text, path
from ..geometry import Frame
from ..model import SectionLine
from ..resolve import Building
from ._annotations import annotated

HEIGHTS = (1250.0, 1750.0, 2250.0, 650.0)
"""Heights of a name above its floor (mm), the usual one first."""
STEP = 150.0
"""Between the places that are tried along a room (mm)."""
SHORTEST = 300.0
"""A room that is cut over less than this (mm) is not named."""
LETTERING = 2.5

Box = tuple[float, float, float, float]


def room_names(building: Building, line: SectionLine, frame: Frame, scale: float, blocked: Sequence[Box]) -> list[Mark]:
    """Name and backing of every room that the line crosses; `blocked` are boxes (u, v) to keep clear of."""
    plane = LineString([(line.x1, line.y1), (line.x2, line.y2)])
    marks: list[Mark] = []
    for held in building.rooms:
        crossing = plane.intersection(held.space) if held.space else LineString()
        pieces = [piece for piece in shapely.get_parts(crossing) if piece.length >= SHORTEST]
        if not pieces:
            continue
        longest = max(pieces, key=lambda piece: piece.length)
        ends = sorted(x * frame.ux + y * frame.uy for x, y in longest.coords)
        half, tall = (len(held.room.name) * 0.85 + 1.0) * scale, 2.2 * scale
        floor = building.levels[held.level].z
        u, v = _free(list(_places(ends[0], ends[-1], half, floor)), half, tall, blocked)
        back = path((u - half, v - tall), (u + half, v - tall), (u + half, v + tall), (u - half, v + tall))
        paper = Region((back,), fill="paper", part=held.room.id, feature="label")
        text = Text(u, v, held.room.name, LETTERING, "centre", "middle", 0, "bold", held.room.id)
        marks += annotated([paper, text], f"name:{held.room.id}")
    return marks


def _places(start: float, end: float, half: float, floor: float) -> Iterator[tuple[float, float]]:
    """Places for a name, the middle of the room first, then farther and farther from it; then at other heights."""
    middle = (start + end) / 2
    room = max(0.0, (end - start) / 2 - half)
    for height in HEIGHTS:
        yield middle, floor + height
        for k in range(1, int(room / STEP) + 1):
            yield middle + k * STEP, floor + height
            yield middle - k * STEP, floor + height


def _free(
    places: Sequence[tuple[float, float]], half: float, tall: float, blocked: Sequence[Box]
) -> tuple[float, float]:
    """The first place whose box touches nothing; the first of all when there is none."""
    for u, v in places:
        box = (u - half, v - tall, u + half, v + tall)
        if not any(box[0] < b[2] and b[0] < box[2] and box[1] < b[3] and b[1] < box[3] for b in blocked):
            return u, v
    return places[0]
