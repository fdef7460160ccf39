"""The ground in plan: heights at points, and its steps."""

from __future__ import annotations

import math
from collections.abc import Iterator

from ...building.kind import PlanOf
from ...drawing import Mark, Stroke, Text, path
from ...geometry import Line, Point
from ...geometry.plane import across_box
from ...units import Units, format_length
from ..walls.planned import WALLS

PAST = 13.5
"""Paper mm that a step runs past the house."""
CROSS = 1.6
"""Half the size of the cross at a height of the ground, paper mm."""


def spot_marks(shown: PlanOf) -> Iterator[Mark]:
    """A cross at every height of the ground, with its figure."""
    for spot in shown.project.spots:
        u, w = shown.frame.plan_to_turned(spot.x, spot.y)
        part, reach = f"{spot.id}/ground//", CROSS * shown.scale
        for du, dw in ((reach, reach), (reach, -reach)):
            yield Stroke(path((u - du, w - dw), (u + du, w + dw)), "edge", part=part, feature="ground")
        text = _signed(spot.rise, shown.project.units)
        yield Text(u + 2.4 * shown.scale, w, text, 2.2, "left", "middle", 0, "mono", part)


def step_marks(shown: PlanOf) -> Iterator[Mark]:
    """Every step of the ground, past the walls of the storey, or of the house where it has none."""
    area = shown.placed[WALLS].reach_of(shown.level)
    if area.is_empty:
        return
    box = shown.frame.turn(area).bounds
    for step in shown.project.steps:
        a, b = (shown.frame.plan_to_turned(x, y) for x, y in ((step.x1, step.y1), (step.x2, step.y2)))
        yield from _step(step.id, a, b, step.rise, box, shown.scale, shown.project.units)


def _signed(rise: float, units: Units) -> str:
    text = format_length(abs(rise), units)
    return f"{'-' if rise < 0 else '+'}{text}"


def _step(
    id: str, a: Point, b: Point, rise: float, box: tuple[float, float, float, float], scale: float, units: Units
) -> Iterator[Mark]:
    """A step of the ground: its edge, ticks on its lower side, and its height."""
    length = math.dist(a, b)
    line = Line(a[0], a[1], (b[0] - a[0]) / length, (b[1] - a[1]) / length)
    ends = across_box(line, box, PAST * scale)
    if ends is None:
        return
    part = f"{id}/ground//"
    yield Stroke(path(*ends), "edge", part=part, feature="ground")
    down = -1.0 if rise > 0 else 1.0
    nu, nw = -line.dy * down, line.dx * down
    count = int(math.dist(*ends) / (6.0 * scale))
    for k in range(count):
        u, w = (ends[0][0] + line.dx * (k + 0.5) * 6.0 * scale, ends[0][1] + line.dy * (k + 0.5) * 6.0 * scale)
        yield Stroke(path((u, w), (u + nu * 2.0 * scale, w + nw * 2.0 * scale)), "fine", part=part, feature="ground")
    u, w = ends[1][0] - line.dx * 6 * scale - nu * 2.5 * scale, ends[1][1] - line.dy * 6 * scale - nw * 2.5 * scale
    yield Text(u, w, f"step {format_length(abs(rise), units)}", 2.2, "centre", "middle", 0, "mono", part)
