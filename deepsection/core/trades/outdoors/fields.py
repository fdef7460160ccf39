"""Fields of steps and rails."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ...edits import PutOutsideSteps, PutRail, changed
from ...errors import BadInput
from ...model import OutsideSteps, Project, Rail
from ...rows.rows import Row, choice_row, length_row, level_options, text_row
from ..posts.fields import materials_of_posts

BUILDS = [("solid", "one body"), ("strings", "treads on cut strings")]
SIDES = [("none", "none"), ("left", "at the left, coming up"), ("right", "at the right, coming up"), ("both", "both")]


def steps_fields(project: Project, steps: OutsideSteps) -> list[Row]:
    """Sizes, rails, material and place of steps."""
    units = project.units

    def put(**changes: Any) -> Sequence[Any]:
        return [PutOutsideSteps(steps=changed(steps, **changes))]

    def top(**changes: Any) -> Sequence[Any]:
        return put(top=changed(steps.top, **changes))

    turns = sorted({0.0, 90.0, 180.0, -90.0, steps.turn})
    own = [
        length_row("going", "Going of a tread", steps.going, units, lambda v: put(going=v), least=0.0),
        length_row("most_rise", "Risers at most", steps.most_rise, units, lambda v: put(most_rise=v), least=0.0),
        choice_row("build", "Made as", steps.build, BUILDS, lambda t: put(build=t)),
    ]
    if steps.form == "ramp":
        own = [text_row("slope", "Falls by one in", f"{1 / steps.slope:.4g}", lambda t: put(slope=_slope(t)))]
    return [
        choice_row("form", "Built as", steps.form, [("steps", "steps"), ("ramp", "a ramp")], lambda t: put(form=t)),
        length_row("width", "Width", steps.width, units, lambda v: put(width=v), least=0.0),
        *own,
        length_row("landing", "Depth of the landing", steps.landing, units, lambda v: put(landing=v)),
        choice_row("rails", "Rails", steps.rails, SIDES, lambda t: put(rails=t)),
        choice_row("material", "Material", steps.material, materials_of_posts(), lambda t: put(material=t)),
        choice_row("top", "Lead up to", steps.top.level, level_options(project), lambda t: top(level=t)),
        length_row(
            "top_offset", "Above that", steps.top.offset, units, lambda v: put(top=changed(steps.top, offset=v))
        ),
        choice_row(
            "turn",
            "Down towards",
            f"{steps.turn:g}",
            [(f"{a:g}", _way(a)) for a in turns],
            lambda t: put(turn=float(t)),
        ),
        length_row("x", "From the origin, east", steps.x, units, lambda v: put(x=v)),
        length_row("y", "From the origin, north", steps.y, units, lambda v: put(y=v)),
    ]


def _slope(text: str) -> float:
    """`12`, or `1:12`, as a slope."""
    try:
        runs = float(text.rpartition(":")[2].strip())
    except ValueError:
        runs = 0.0
    if not 2.0 <= runs <= 100.0:
        raise BadInput("type how far the ramp runs for one of height, 2 to 100", field="slope", value=text)
    return 1.0 / runs


def _way(turn: float) -> str:
    named = {0.0: "east", 90.0: "north", 180.0: "west", -180.0: "west", -90.0: "south", 270.0: "south"}
    return named.get(turn, f"{turn:g}°")


def rail_fields(project: Project, rail: Rail) -> list[Row]:
    """Height, gaps, level, material and ends of a rail."""
    units = project.units

    def put(**changes: Any) -> Sequence[Any]:
        return [PutRail(rail=changed(rail, **changes))]

    def base(**changes: Any) -> Sequence[Any]:
        return put(base=changed(rail.base, **changes))

    def end(name: str, label: str) -> Row:
        return length_row(name, label, getattr(rail, name), units, lambda v: put(**{name: v}))

    return [
        length_row("height", "Height", rail.height, units, lambda v: put(height=v), least=0.0),
        length_row("gap", "Maximum spacing of balusters", rail.gap, units, lambda v: put(gap=v), least=0.0),
        choice_row(
            "base", "Stands on", rail.base.level, level_options(project),
            lambda t: base(level=t),
        ),
        length_row("base_offset", "Above that", rail.base.offset, units, lambda v: base(offset=v)),
        choice_row("material", "Material", rail.material, materials_of_posts(), lambda t: put(material=t)),
        end("x1", "Start, east"),
        end("y1", "Start, north"),
        end("x2", "End, east"),
        end("y2", "End, north"),
    ]  # fmt: skip
