"""Views by name: `plan`, `elevation:south`, `section:ID`."""

from __future__ import annotations

import math
from typing import NamedTuple, cast

from ..drawing import Drawing
from ..errors import UnknownElement
from ..geometry import Side, side_direction
from ..model import Project
from ..resolve import Building
from .elevation import draw_elevation
from .plan import draw_plan, plan_title
from .section import draw_section, section_frame

SIDES: tuple[Side, ...] = ("south", "east", "north", "west")


class ViewName(NamedTuple):
    """A view that a project has: its name and title."""

    name: str
    title: str


def list_views(project: Project) -> list[ViewName]:
    """Every view of a project, in the order of work."""
    views = [ViewName("plan", plan_title(project))]
    views += [ViewName(f"elevation:{side}", f"{side.capitalize()} elevation") for side in SIDES]
    views += [ViewName(f"section:{line.id}", f"Section {line.name}") for line in project.sections]
    return views


def look_of(project: Project, name: str) -> float:
    """The look direction (deg, counter-clockwise from east) of a view. Raises: UnknownElement."""
    kind, _, which = name.partition(":")
    if kind == "elevation" and which in SIDES:
        return side_direction(which)
    if kind == "section":
        line = next((line for line in project.sections if line.id == which), None)
        if line is not None:
            frame = section_frame(line)
            return math.degrees(math.atan2(frame.dy, frame.dx))
    if kind == "plan":
        return side_direction("south")
    raise UnknownElement(f"this project has no view “{name}”", field="view", value=name)


def draw_view(
    building: Building, project: Project, name: str, scale: float, *, look_deg: float | None = None
) -> Drawing:
    """The drawing of a view at a scale; `look_deg` turns the plan. Raises: UnknownElement."""
    look = look_of(project, name)
    kind, _, which = name.partition(":")
    if kind == "plan":
        return draw_plan(building, project, look if look_deg is None else look_deg, scale)
    if kind == "elevation":
        return draw_elevation(building, cast("Side", which), scale, project.units, project.notes)
    line = next(line for line in project.sections if line.id == which)
    return draw_section(building, line, scale, project.units, project.notes)
