"""What stands on nothing: walls in the air, ceilings over no room."""

from __future__ import annotations

from collections.abc import Iterator

from ...building.diagnostics import Diagnostic
from ...model import MakeUp, Project, bearing_layer
from ...units import format_length
from ..levels.placed import Level
from ..walls.planned import WallPlan
from .faces import foot_faces

IN_AIR = 500.0
"""A wall that stands more than this over the ground (mm) needs a floor or a wall below it."""


OVERHANGS = 25.0
"""A layer that bears may stand past its foundation wall by so much (mm). Common practice, no source."""


def on_nothing(
    project: Project, plan: WallPlan, levels: dict[str, Level], make_ups: dict[str, MakeUp]
) -> Iterator[Diagnostic]:
    """Walls at a level with neither floor nor foundation nor walls that reach it, or beside the foundation wall below
    them; ceilings that nothing reaches."""
    grade = next((level.z for level in levels.values() if level.surface == "grade"), 0.0)
    carried = {floor.level for floor in project.floors} | {held.level for held in project.foundations}
    carried |= {wall.wall.top.level for wall in plan.walls}
    for wall in plan.walls:
        base = levels[wall.wall.base.level]
        if wall.wall.base.on_roof or base.id in carried or base.z + wall.wall.base.offset < grade + IN_AIR:
            continue
        message = f"nothing carries this wall at {base.name}: lay a floor there, or start it from a level that has one"
        yield Diagnostic("wall-on-air", message, wall.wall.id, "foot", at=wall.at(wall.length / 2))
    for held in project.foundations:
        around = (plan.by_id[id] for outline in plan.outlines_on(held.level) for id in outline.walls)
        for wall in around:
            make_up = make_ups[wall.wall.make_up]
            feet = foot_faces(wall, make_up)
            past = feet.structure - held.bears_on - feet.inner
            if past > OVERHANGS and not wall.wall.outline:
                needs = held.bears_on + past
                bears, units = make_up.layers[bearing_layer(make_up)], project.units
                message = (
                    f"{bears.name} of {make_up.name} bears, and stands {format_length(past, units)} past the inside of "
                    f"the walls of {held.name}: make these {format_length(needs, units)} thick, or let another layer "
                    "bear"
                )
                field = "footing_width" if held.form == "deep edge" else "stem_thickness"
                yield Diagnostic(
                    "off-foundation", message, held.id, field, held.bears_on, needs,
                    (make_up.id,), at=wall.at(wall.length / 2),
                )  # fmt: skip
                break
    for ceiling in project.ceilings:
        if plan.outlines and not plan.outlines_under(ceiling.level):
            message = f"no closed walls reach up to {levels[ceiling.level].name}, so {ceiling.name} lies over nothing"
            yield Diagnostic("ceiling-over-nothing", message, ceiling.id, "level")
