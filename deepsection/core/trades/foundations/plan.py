"""Foundations in plan: the lines along which they step."""

from __future__ import annotations

from collections.abc import Iterator

from ...building.kind import PlanOf
from ...drawing import Mark, step_line
from ...units import format_length
from ..walls.planned import WALLS


def step_marks(shown: PlanOf) -> Iterator[Mark]:
    """The steps of the foundations under the level of the plan."""
    area = shown.placed[WALLS].reach_of(shown.level)
    levels = {held.id: held.level for held in shown.project.foundations}
    if area.is_empty:
        return
    box = shown.frame.turn(area).bounds
    for step in shown.project.foundation_steps:
        if levels[step.foundation] == shown.level:
            a, b = (shown.frame.plan_to_turned(x, y) for x, y in ((step.x1, step.y1), (step.x2, step.y2)))
            text, part = f"footing down {format_length(step.drop, shown.project.units)}", f"{step.id}/foundation//"
            yield from step_line(
                (a, b), box, shown.scale, text, low="left", part=part, feature="foundation", pen="hidden"
            )
