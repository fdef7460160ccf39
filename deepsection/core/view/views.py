"""Views by name: `plan` (of the lowest storey), `plan:LEVEL`, `plan:roof`, `elevation:south`, `section:ID`."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import NamedTuple

from ..drawing import Drawing
from ..errors import UnknownElement
from ..geometry import Side, side_direction
from ..model import Project, ViewShow
from ..resolve import Building, storeys
from ._kinds import kind_of_part, part_kinds
from .elevation import draw_elevation
from .interior import draw_interior
from .plan import draw_plan, plan_title
from .roofplan import ROOF_PLAN, draw_roof_plan
from .section import draw_section, section_frame
from .setting import Setting
from .unfolded import draw_unfolded

SIDES: tuple[Side, ...] = ("south", "east", "north", "west")


ROOF = "plan:roof"
"""The name of the roof plan."""


class ViewName(NamedTuple):
    """A view that a project has: its name and title."""

    name: str
    title: str


def list_views(project: Project) -> list[ViewName]:
    """Every view of a project, in the order of work."""
    views = [ViewName(plan_name(project, held.level), plan_title(held)) for held in storeys(project)]
    if project.roofs:
        views.append(ViewName(ROOF, ROOF_PLAN))
    views += [ViewName(f"elevation:{side}", f"{side.capitalize()} elevation") for side in SIDES]
    views += [ViewName(f"elevation:{view.id}", view.name) for view in project.elevations]
    views += [ViewName(f"section:{line.id}", f"Section {line.name}") for line in project.sections]
    return views


def plan_name(project: Project, level: str) -> str:
    """The name of the plan of a storey: the lowest has the plain one."""
    return "plan" if level == storeys(project)[0].level else f"plan:{level}"


def plan_level(project: Project, name: str) -> str:
    """The level that a plan shows, by the name of the view. Raises: UnknownElement."""
    _, _, which = name.partition(":")
    levels = [held.level for held in storeys(project)]
    if name == ROOF:
        return levels[-1]
    if not which or which in levels:
        return which or levels[0]
    raise _unknown(name)


def _unknown(name: str) -> UnknownElement:
    return UnknownElement(f"this project has no view “{name}”", field="view", value=name)


def standing_name(project: Project, name: str) -> str:
    """The view itself while the project has it, else the plain one of its sort: what a screen shows after an undo."""
    if any(view.name == name for view in list_views(project)):
        return name
    return "plan" if name.startswith("plan:") else f"elevation:{SIDES[0]}"


def look_of(project: Project, name: str) -> float:
    """The look direction (deg, counter-clockwise from east) of a view. Raises: UnknownElement."""
    kind, _, which = name.partition(":")
    if kind == "elevation" and which in SIDES:
        return side_direction(which)
    if kind == "elevation":
        own = next((view for view in project.elevations if view.id == which), None)
        if own is not None:
            return own.look
    if kind == "section":
        line = next((line for line in project.sections if line.id == which), None)
        if line is not None:
            frame = section_frame(line)
            return math.degrees(math.atan2(frame.dy, frame.dx))
    if kind == "plan":
        plan_level(project, name)
        return side_direction("south")
    raise _unknown(name)


def _shown(building: Building, project: Project, show: ViewShow | None) -> Building:
    """The building as a view that leaves out elements or kinds of parts shows it."""
    if show is None or not (show.hidden or show.alone or show.kinds):
        return building
    kinds = part_kinds(project)
    kept = tuple(
        part
        for part in building.parts
        if part.element not in show.hidden
        and (not show.alone or part.element in show.alone)
        and kind_of_part(part, kinds) not in show.kinds
    )
    return replace(building, make_parts=lambda: kept)


def draw_view(
    building: Building, project: Project, name: str, scale: float, *, look_deg: float | None = None
) -> Drawing:
    """The drawing of a view at a scale; `look_deg` turns the plan. Raises: UnknownElement."""
    look = look_of(project, name)
    kind, _, which = name.partition(":")
    show = project.show_of(name)
    whole, building = building, _shown(building, project, show)
    left_out = frozenset[str]()
    if building is not whole:
        left_out = frozenset(part.element for part in whole.parts) - {part.element for part in building.parts}
    setting = Setting(scale, project.units, project.notes, project.grid, show, left_out)
    if kind == "plan":
        turned = look if look_deg is None else look_deg
        if name == ROOF:
            return draw_roof_plan(building, project, name, turned, scale)
        return draw_plan(building, project, plan_level(project, name), name, turned, scale)
    if kind == "elevation":
        own = next((view for view in project.elevations if view.id == which), None)
        if own is not None and own.room is not None:
            return draw_interior(building, own, setting)
        if own is not None and own.walls:
            return draw_unfolded(building, own, setting)
        title = own.name if own is not None else f"{which.capitalize()} elevation"
        return draw_elevation(building, name, title, look, setting)
    line = next(line for line in project.sections if line.id == which)
    return draw_section(building, line, setting)
