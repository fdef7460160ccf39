"""Foundations in plan: the lines along which they step."""

from __future__ import annotations

from collections.abc import Iterator

from shapely.geometry import Polygon

from ...building.kind import PlanOf
from ...drawing import NAME, Handle, Label, Lettered, Stroke, Text, around, inside, path, step_line, text_width
from ...units import format_length
from ..walls.planned import WALLS


def step_marks(shown: PlanOf) -> Iterator[Lettered]:
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


def set_down_marks(shown: PlanOf) -> Iterator[Lettered]:
    """The edges of what is set down of the slab of a storey, and how far."""
    levels = {held.id: held.level for held in shown.project.foundations}
    for down in shown.project.set_downs:
        if levels[down.foundation] != shown.level:
            continue
        corners = [shown.frame.plan_to_turned(x, y) for x, y in down.corners]
        key, handle = f"{down.id}/set_down//", Handle("move_hole", down.id, "corners", "free")
        yield Stroke(path(*corners), "edge", closed=True, part=key, feature="set-down", handle=handle)
        place = Polygon(down.corners).representative_point()
        text = f"down {format_length(down.drop, shown.project.units)}"
        at = shown.frame.plan_to_turned(place.x, place.y)
        words = Text(*at, text, SIZE, "centre", "middle", part=key, feature="set-down", handle=handle)
        area = shown.frame.turn(Polygon(down.corners))
        beside = (*inside(area, at), *around(text_width(text, SIZE, "sans") * shown.scale, 2 * SIZE * shown.scale))
        yield Label(f"name:{down.id}", (words,), beside, NAME, area)


SIZE = 2.0
"""Height of the words (paper mm)."""
