"""Rooms in plan: their names and areas."""

from __future__ import annotations

from collections.abc import Iterator

from ...building.kind import PlanOf
from ...drawing import Mark, Text
from ...geometry import Frame
from ...units import Units, format_area
from .placed import ROOMS


def room_marks(shown: PlanOf) -> Iterator[Mark]:
    """The rooms of the storey."""
    for held in shown.placed[ROOMS]:
        if held.level == shown.level:
            at = (held.room.x, held.room.y)
            yield from _name(held.room.name, held.room.id, held.area, at, shown.frame, shown.scale, shown.project.units)


def _name(
    name: str, id: str, area: float | None, at: tuple[float, float], frame: Frame, scale: float, units: Units
) -> list[Mark]:
    u, w = frame.plan_to_turned(*at)
    size = "not enclosed" if area is None else format_area(area, units)
    return [
        Text(u, w + 0.6 * scale, name, 2.8, "centre", "bottom", 0, "bold", id),
        Text(u, w - 0.6 * scale, size, 2.2, "centre", "top", 0, "mono", id),
    ]
