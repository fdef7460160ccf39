"""How a plan may be turned when it is first taken over: its walls square to the sheet, or north up."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from ..reading import ReadPlan

LEAST = 0.1
"""A plan that is turned by less (degrees) is straight."""


Way = Literal["square", "north"]
WAYS: dict[Way, str] = {"square": "walls square", "north": "north up"}
"""How a plan can be laid, besides as it is drawn."""


@dataclass(frozen=True, slots=True)
class Turn:
    """A turn of a plan (degrees counter-clockwise), and how it lies then."""

    ways: tuple[Way, ...]
    degrees: float

    @property
    def words(self) -> str:
        """How it lies then, in words."""
        return ", ".join(WAYS[way] for way in self.ways)


def turns_of(plan: ReadPlan) -> list[Turn]:
    """How a plan could be turned, besides lying as it is drawn; nothing where it lies so already."""
    square, north = _square(plan), math.remainder(plan.north.angle, 360.0) if plan.north else 0.0
    found = []
    if plan.north and abs(north - square) < 1.0 and abs(square) > LEAST:
        return [Turn(("north", "square"), square)]
    if abs(square) > LEAST:
        found.append(Turn(("square",), square))
    if abs(north) > LEAST:
        found.append(Turn(("north",), round(north, 4)))
    return found


def _square(plan: ReadPlan) -> float:
    """The least turn by which most of the walls, by length, lie along the sheet or across it (degrees)."""
    lengths: dict[int, list[tuple[float, float]]] = {}
    for wall in plan.walls:
        if not wall.bulge:
            angle = math.degrees(math.atan2(wall.end[1] - wall.start[1], wall.end[0] - wall.start[0])) % 90.0
            lengths.setdefault(round(angle) % 90, []).append((math.remainder(angle - round(angle), 90.0), wall.length))
    if not lengths:
        return 0.0
    most = max(lengths, key=lambda cell: sum(length for _, length in lengths[cell]))
    held = lengths[most]
    angle = most + sum(off * length for off, length in held) / sum(length for _, length in held)
    return round(-math.remainder(angle, 90.0), 4) + 0.0
