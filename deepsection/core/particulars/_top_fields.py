"""Fields of the head of a wall: where it goes up to, its own height, raked or stepped."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

from ..errors import BadInput
from ..model import MakeUp, Project, TopStep, Wall, changed
from ..model.edits import PutWall
from ..resolve import resolve_levels
from ..units import format_length, parse_length
from ._wall_names import corner_name
from .rows import Field, Row, choice_row, length_row, level_options


def top_fields(project: Project, wall: Wall) -> list[Row]:
    """The level and kind of a wall's top, its height, its rake and its steps."""
    units, rule = project.units, wall.top
    height = _height(project, wall)

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
    steps = ", ".join(f"{format_length(s.distance, units)}: {format_length(s.rise, units)}" for s in rule.steps)
    example = "6': 2', 12': 4'" if units == "ft-in" else "1800: 600, 3600: 1200"
    label = f"Steps from its {corner_name(project, wall, 'start')} end, such as {example}"
    rows.append(Row(Field("steps", label, "text", steps), lambda text: put(steps=_steps(project, text))))
    thick = sum(layer.thickness for layer in _make_up(project, wall).layers)
    return [*rows, *(_batter(project, wall, side, thick, height) for side in ("outer", "inner"))]


def _make_up(project: Project, wall: Wall) -> MakeUp:
    return next(held for held in project.make_ups if held.id == wall.make_up)


def _batter(project: Project, wall: Wall, side: str, thick: float, height: float) -> Row:
    """How far a face leans in: degrees from plumb, or the thickness that it leaves at the top."""
    field, words = f"batter_{side}", "Outside" if side == "outer" else "Inside"
    angle = getattr(wall, field)
    other = wall.batter_inner if side == "outer" else wall.batter_outer

    def edits(text: str) -> Sequence[Any]:
        plain = text.strip().lower()
        for ending in ("°", "deg", "degrees"):
            if plain.endswith(ending):
                try:
                    return [PutWall(wall=changed(wall, **{field: float(plain.removesuffix(ending))}))]
                except ValueError:
                    raise BadInput(f"“{text}” is no angle", field=field, value=text) from None
        if plain in ("0", "none", "plumb"):
            return [PutWall(wall=changed(wall, **{field: 0.0}))]
        top = parse_length(text, project.units)
        lean = thick - height * math.tan(math.radians(other)) - top
        if not 0 <= lean <= height or top <= 0:
            message = "type degrees, such as 5°, or a thickness at the top that is less than at the foot"
            raise BadInput(message, field=field, value=text, limit=thick)
        return [PutWall(wall=changed(wall, **{field: math.degrees(math.atan2(lean, height))}))]

    return Row(Field(field, f"{words} leans in, degrees or top thickness", "text", f"{angle:.4g}°"), edits)


def _height(project: Project, wall: Wall) -> float:
    """From the foot of a wall to its top, as its rule states it (mm)."""
    levels = resolve_levels(project.rungs, tuple(held for held in project.make_ups if held.use == "floor"))
    if wall.top.kind == "fixed" and wall.top.height is not None:
        return wall.top.height
    return levels[wall.top.level].z + wall.top.offset - levels[wall.base.level].z - wall.base.offset


def _steps(project: Project, text: str) -> tuple[TopStep, ...]:
    """Steps as typed: distance from the start, a colon, and how much higher from there on."""
    steps = []
    for part in filter(None, (piece.strip() for piece in text.split(","))):
        distance, colon, rise = part.partition(":")
        if not colon:
            raise BadInput(f"“{part}” is no step: write its distance, a colon and its rise", field="steps", value=text)
        along, up = (parse_length(piece, project.units) for piece in (distance, rise))
        if along <= 0:
            raise BadInput("a step lies past the start of the wall", field="steps", value=text, limit=0.0)
        steps.append(TopStep(distance=along, rise=up))
    return tuple(sorted(steps, key=lambda step: step.distance))
