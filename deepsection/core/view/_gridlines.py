"""The grid in elevations and sections."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator

from ..drawing import Mark, Stroke, Text, path
from ..geometry import Frame
from ..model import GridLine
from ._annotations import annotated

STEM, BUBBLE = 4.0, 4.0
"""Length of a grid line over the house, and radius of its bubble (paper mm)."""
ALONG = 1e-3
"""A grid line that runs this nearly along the view (sine) is seen as one upright."""


def grid_bubbles(
    grid: Iterable[GridLine], frame: Frame, box: tuple[float, float, float, float], scale: float, *, ends: bool = False
) -> Iterator[Mark]:
    """The grid lines that run along the view: an upright chain line through the house with a bubble over it.

    `ends`: of those between the sides of the box alone, and by their upper ends alone.
    """
    for line in grid:
        dx, dy = math.cos(math.radians(line.angle)), math.sin(math.radians(line.angle))
        if abs(dx * frame.dy - dy * frame.dx) > ALONG:
            continue
        u, _ = frame.plan_to_turned(line.x, line.y)
        if ends and not box[0] <= u <= box[2]:
            continue
        part, top, radius = f"{line.id}/grid//", box[3] + STEM * scale, BUBBLE * scale
        circle = ((u - radius, top + radius, 1.0), (u + radius, top + radius, 1.0))
        size = 3.5 if len(line.name) < 3 else 2.5
        marks: list[Mark] = [
            Stroke(path((u, box[3] if ends else box[1]), (u, top)), "centre", part=part, feature="grid"),
            Stroke(circle, "symbol", closed=True, part=part, feature="grid"),
            Text(u, top + radius, line.name, size, "centre", "middle", 0, "bold", part, feature="grid"),
        ]
        yield from annotated(marks, f"grid:{line.id}")
