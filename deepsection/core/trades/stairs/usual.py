"""A stair with the usual sizes of a project's tradition."""

from __future__ import annotations

from typing import Any

from ...catalog import usual
from ...geometry import Point
from ...model.project import Project
from .model import Stair
from .rules import rule_for


def usual_stair(project: Project, id: str, level: str, upper: str, foot: Point, turn: float, **stated: Any) -> Stair:
    """A stair between two levels from its foot on, `turn` degrees from east; what is `stated` of it is not usual."""
    units = project.units
    usually: dict[str, Any] = {
        "width": usual("stair_width", units),
        "rule": rule_for(project.tradition),
        "nosing": usual("stair_nosing", units),
        "tread": usual("stair_tread", units),
        "string": usual("member_thickness", units),
        "depth": usual("stair_string", units),
        "build": "cut" if project.tradition == "timber" else "housed",
    }
    return Stair.model_validate(
        {"id": id, "level": level, "upper": upper, "x": foot[0], "y": foot[1], "turn": turn, **usually, **stated}
    )
