"""The ground in plan: heights at points, and its steps."""

from __future__ import annotations

from collections.abc import Iterator

import shapely

from ...building.kind import PlanOf
from ...drawing import NUMBER, Label, Lettered, Stroke, Text, around, path, step_line, text_width
from ...units import Units, format_length
from ..levels.placed import LEVELS
from ..walls.planned import WALLS

LOWEST = 1.0
"""Storeys as near as this (mm) to each other are as low."""
CROSS = 1.6
"""Half the size of the cross at a height of the ground, paper mm."""


def spot_marks(shown: PlanOf) -> Iterator[Lettered]:
    """A cross at every height of the ground, with its figure."""
    for spot in shown.project.spots if _on_ground(shown) else ():
        u, w = shown.frame.plan_to_turned(spot.x, spot.y)
        part, reach = f"{spot.id}/ground//", CROSS * shown.scale
        for du, dw in ((reach, reach), (reach, -reach)):
            yield Stroke(path((u - du, w - dw), (u + du, w + dw)), "edge", part=part, feature="ground")
        text = _signed(spot.rise, shown.project.units)
        figure = Text(u + 2.4 * shown.scale, w, text, 2.2, "left", "middle", 0, "mono", part)
        wide, s = text_width(text, 2.2), shown.scale
        sides = [
            (0.0, 0.0),
            (-wide - 4.8, 0.0),
            (-wide / 2 - 2.4, 4.0),
            (-wide / 2 - 2.4, -4.0),
            (1.0, 4.0),
            (1.0, -4.0),
        ]
        places = (*((du * s, dw * s) for du, dw in sides), *around(wide * s, 4.0 * s))
        yield Label(f"spot:{spot.id}", (figure,), places, NUMBER, shapely.Point(u, w).buffer(CROSS * s))


def _on_ground(shown: PlanOf) -> bool:
    """Whether no storey stands lower than that of the plan: the ground is shown on the lowest one."""
    feet = [shown.placed[LEVELS][outline.level].z for outline in shown.placed[WALLS].outlines]
    return not feet or shown.base <= min(feet) + LOWEST


def step_marks(shown: PlanOf) -> Iterator[Lettered]:
    """Every step of the ground, past the walls of the storey, or of the house where it has none."""
    area = shown.placed[WALLS].reach_of(shown.level)
    if area.is_empty or not _on_ground(shown):
        return
    box = shown.frame.turn(area).bounds
    for step in shown.project.steps:
        a, b = (shown.frame.plan_to_turned(x, y) for x, y in ((step.x1, step.y1), (step.x2, step.y2)))
        text, low = f"step {format_length(abs(step.rise), shown.project.units)}", "right" if step.rise > 0 else "left"
        yield from step_line((a, b), box, shown.scale, text, low=low, part=f"{step.id}/ground//", feature="ground")


def _signed(rise: float, units: Units) -> str:
    text = format_length(abs(rise), units)
    return f"{'-' if rise < 0 else '+'}{text}"
