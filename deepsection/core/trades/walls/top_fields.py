"""Fields of the head of a wall: where it goes up to, its own height, raked or stepped."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...edits import PutWall, changed
from ...errors import BadInput
from ...model import Project, TopStep, Wall
from ...rows.pairs import read_pairs, write_pairs
from ...rows.rows import Field, Row, choice_row, length_row, level_options
from ..levels.place import resolve_levels
from .end_names import corner_name


def top_fields(project: Project, wall: Wall) -> list[Row]:
    """The level and kind of a wall's top, its height, its rake and its steps."""
    units, rule = project.units, wall.top
    height = wall_height(project, wall)

    def put(**changes: Any) -> Sequence[Any]:
        return [PutWall(wall=changed(wall, top=changed(rule, **changes)))]

    def kind(text: str) -> Sequence[Any]:
        return put(kind=text, height=(rule.height or height) if text == "fixed" else rule.height)

    options = [("level", "the plate"), ("roof", "the plate and on to the roof"), ("fixed", "a height of its own")]
    rows = [
        choice_row("top_level", "Plate at", rule.level, level_options(project), lambda t: put(level=t)),
        choice_row("top", "Goes up to", rule.kind, options, kind),
        length_row("height", "Height", height, units, lambda v: put(kind="fixed", height=v), least=0.0),
    ]
    if rule.kind != "fixed":
        rows.append(length_row("top_offset", "Above the plate", rule.offset, units, lambda v: put(offset=v)))
    higher = f"Higher at its {corner_name(project, wall, 'end')} end by"
    rows.append(length_row("end_rise", higher, rule.end_rise, units, lambda v: put(end_rise=v)))
    steps = write_pairs([(step.distance, step.rise) for step in rule.steps], units)
    example = "6': 2', 12': 4'" if units == "ft-in" else "1800: 600, 3600: 1200"
    label = f"Steps from its {corner_name(project, wall, 'start')} end, such as {example}"
    rows.append(Row(Field("steps", label, "text", steps), lambda text: put(steps=_steps(project, text))))
    return rows


def wall_height(project: Project, wall: Wall) -> float:
    """From the foot of a wall to its top, as its rule states it (mm)."""
    levels = resolve_levels(project.rungs, tuple(held for held in project.make_ups if held.use == "floor"))
    if wall.top.kind == "fixed" and wall.top.height is not None:
        return wall.top.height
    return levels[wall.top.level].z + wall.top.offset - levels[wall.base.level].z - wall.base.offset


def _steps(project: Project, text: str) -> tuple[TopStep, ...]:
    """Steps as typed: distance from the start, a colon, and how much higher from there on."""
    what = "step: write its distance, a colon and its rise"
    steps = []
    for along, up in read_pairs(text, project.units, "steps", what):
        if along <= 0:
            raise BadInput("a step lies past the start of the wall", field="steps", value=text, limit=0.0)
        steps.append(TopStep(distance=along, rise=up))
    return tuple(sorted(steps, key=lambda step: step.distance))
