"""Steps and rails in plan: treads with the way down, and the line of a rail."""

from __future__ import annotations

import shapely

from ...building.kind import PlanOf
from ...drawing import NUMBER, Handle, Label, Lettered, Region, Stroke, Text, around, path, text_width
from .placed import RAILS, STEPS, PlacedSteps

ARROW = 2.0
"""Length of the barbs of the arrow down (paper mm)."""


def steps_marks(shown: PlanOf) -> list[Lettered]:
    """The steps that lead to the level."""
    marks: list[Lettered] = []
    frame, scale = shown.frame, shown.scale
    for placed in shown.placed[STEPS]:
        steps = placed.steps
        if steps.top.level != shown.level:
            continue
        key, handle = f"{steps.id}/steps//", Handle("move_steps", steps.id, "x", "free")
        half = steps.width / 2

        lines = [
            [frame.plan_to_turned(*placed.at(down, side)) for side in (-half, half)]
            for down in (0.0, placed.run, *_edges(placed))
        ]
        outline = [*lines[0], *reversed(lines[1])]
        marks.append(Region((path(*outline),), fill="paper", pen="edge", part=key, feature="steps", handle=handle))
        for line in lines[2:] if steps.landing or placed.is_ramp else lines[3:]:
            marks.append(Stroke(path(*line), "fine", part=key, feature="steps", handle=handle, sum=placed.top.id))
        tail, tip = (frame.plan_to_turned(*placed.at(down, 0.0)) for down in (placed.run * 0.15, placed.run * 0.95))
        dx, dy = frame.plan_to_turned(*placed.way)
        barb = ARROW * scale
        for side in (-0.4, 0.4):
            end = (tip[0] - (dx + dy * side) * barb, tip[1] - (dy - dx * side) * barb)
            marks.append(Stroke(path(end, tip), "fine", part=key, feature="steps"))
        marks.append(Stroke(path(tail, tip), "fine", part=key, feature="steps", handle=handle))
        u, v = frame.plan_to_turned(*placed.at(placed.run + 2.5 * scale, 0.0))
        words = f"ramp 1:{1 / steps.slope:.3g}" if placed.is_ramp else f"{placed.risers} down"
        text = Text(u, v, words, 1.8, "centre", "middle", 0, "mono", key)
        beside = around(text_width(words, 1.8) * scale, 3.6 * scale)
        marks.append(Label(f"stepping:{steps.id}", (text,), beside, NUMBER, shapely.Polygon(outline)))
    return marks


def _edges(placed: PlacedSteps) -> list[float]:
    """How far down the edges of treads lie; of a ramp, that of its landing."""
    steps = placed.steps
    if placed.is_ramp:
        return [steps.landing] if steps.landing else []
    return [steps.landing + k * steps.going for k in range(placed.risers - 1)]


def rail_marks(shown: PlanOf) -> list[Lettered]:
    """The rails that stand on the level."""
    marks: list[Lettered] = []
    for placed in shown.placed[RAILS]:
        rail = placed.rail
        if rail.base.level == shown.level:
            ends = [shown.frame.plan_to_turned(x, y) for x, y in ((rail.x1, rail.y1), (rail.x2, rail.y2))]
            handle = Handle("move_rail", rail.id, "x1", "free")
            key = f"{rail.id}/rail//"
            marks.append(Stroke(path(*ends), "edge", part=key, feature="rail", handle=handle, sum=placed.foot.id))
    return marks
