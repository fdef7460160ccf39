"""What stands on nothing: walls in the air, ceilings over no room."""

from __future__ import annotations

from collections.abc import Iterator

from ..model import Project
from .building import Diagnostic, Level, WallPlan

IN_AIR = 500.0
"""A wall that stands more than this over the ground (mm) needs a floor or a wall below it."""


def on_nothing(project: Project, plan: WallPlan, levels: dict[str, Level]) -> Iterator[Diagnostic]:
    """Walls at a level with neither floor nor foundation nor walls that reach it; ceilings that nothing reaches."""
    grade = next((level.z for level in levels.values() if level.surface == "grade"), 0.0)
    carried = {floor.level for floor in project.floors} | {held.level for held in project.foundations}
    carried |= {wall.wall.top.level for wall in plan.walls}
    for wall in plan.walls:
        base = levels[wall.wall.base.level]
        if wall.wall.base.on_roof or base.id in carried or base.z + wall.wall.base.offset < grade + IN_AIR:
            continue
        message = f"nothing carries this wall at {base.name}: lay a floor there, or start it from a level that has one"
        yield Diagnostic("wall-on-air", message, "warning", wall.wall.id, "foot", at=wall.at(wall.length / 2))
    for ceiling in project.ceilings:
        if plan.outlines and not plan.outlines_under(ceiling.level):
            message = f"no closed walls reach up to {levels[ceiling.level].name}, so {ceiling.name} lies over nothing"
            yield Diagnostic("ceiling-over-nothing", message, "warning", ceiling.id, "level")
