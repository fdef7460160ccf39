"""Every kind of view: the views of it that a project has, where each looks, and how it is drawn."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from ..drawing import Drawing
from ..geometry import Frame, Side, side_direction
from ..model import Deck, Floor, Project, along_from_start, wall_axis
from ..resolve import Building, storeys
from ..trades.floors.sheets_plan import sheeted
from .details.detail import draw_detail
from .details.place import detail_sights
from .elevation import draw_elevation
from .framingplan import Sort, draw_floor_plan, framing_title, sheets_title, structure_title
from .interior import draw_interior, draw_room_section, interior_sights
from .openingschedule import NAME as SCHEDULE_NAME
from .openingschedule import TITLE as SCHEDULE_TITLE
from .openingschedule import draw_opening_schedule
from .plan import draw_plan, plan_sight, plan_title
from .roofplan import ROOF_PLAN, draw_roof_plan
from .section import draw_section
from .section_panels import section_frame, section_sights
from .setting import Setting
from .settingout import draw_setting_out, setting_title
from .sights import Sight
from .strips.strip import draw_strip, strip_sights
from .unfolded import draw_unfolded, unfolded_sights

SIDES: tuple[Side, ...] = ("south", "east", "north", "west")
ROOF = "plan:roof"
"""The name of the roof plan."""


@dataclass(frozen=True, slots=True)
class View:
    """A view that a project has: its name and title, and what it shows (a level, a side, or an element)."""

    name: str
    title: str
    subject: Any = None


@dataclass(frozen=True, slots=True)
class ViewKind:
    """A kind of view. `look` is a direction in degrees counter-clockwise from east; a view that `turns` may be drawn
    along another one. `sights`: how it sees points in space; none where it is a drawing of its own. `over_files`: pages
    of files may lie under it."""

    views: Callable[[Project], Iterable[View]]
    look: Callable[[View], float]
    draw: Callable[[Building, View, float, Setting], Drawing]
    turns: bool = False
    sights: Callable[[Building, View, float], Sequence[Sight]] = lambda building, view, look: (
        Sight(Frame.looking(look)),
    )
    over_files: bool = False


def _from_above(building: Building, view: View, look: float) -> tuple[Sight]:
    return (Sight(Frame.looking(look), above=True),)


def plan_name(project: Project, level: str) -> str:
    """The name of the plan of a storey: the lowest has the plain one."""
    return "plan" if level == storeys(project)[0].level else f"plan:{level}"


def _plans(project: Project) -> Iterator[View]:
    for storey in storeys(project):
        yield View(plan_name(project, storey.level), plan_title(storey), storey.level)


def _roof_plan(project: Project) -> Iterator[View]:
    if project.roofs:
        yield View(ROOF, ROOF_PLAN)


def framing_name(floor: str) -> str:
    """The name of the framing plan of a floor, by its id."""
    return f"plan:framing:{floor}"


def _joisted(project: Project) -> tuple[Floor | Deck, ...]:
    return (*project.floors, *project.decks)


def _framed(project: Project) -> Iterator[Floor | Deck]:
    """Those with members: not slabs."""
    make_ups = {held.id: held for held in project.make_ups}
    for floor in _joisted(project):
        make_up = make_ups[floor.make_up]
        if make_up.carrying is None or make_up.layers[make_up.carrying].framing:
            yield floor


def _framing_plans(project: Project) -> Iterator[View]:
    for floor in _framed(project):
        yield View(framing_name(floor.id), framing_title(floor), floor)


def _structural_plans(project: Project) -> Iterator[View]:
    for floor in _joisted(project):
        yield View(f"plan:structure:{floor.id}", structure_title(floor), floor)


def _sheet_plans(project: Project) -> Iterator[View]:
    make_ups = {held.id: held for held in project.make_ups}
    for floor in _framed(project):
        if sheeted(make_ups[floor.make_up]):
            yield View(f"plan:sheets:{floor.id}", sheets_title(floor), floor)


def _sides(project: Project) -> Iterator[View]:
    for side in SIDES:
        yield View(f"elevation:{side}", f"{side.capitalize()} elevation", side)


def _own(sort: str) -> Callable[[Project], Iterator[View]]:
    """The elevations that a drafter made: `outside`, of a `room`, or of `walls`."""

    def views(project: Project) -> Iterator[View]:
        for held in project.elevations:
            if sort == ("room" if held.room else "walls" if held.walls else "outside"):
                yield View(f"elevation:{held.id}", held.name, held)

    return views


def _sections(project: Project) -> Iterator[View]:
    for line in project.sections:
        yield View(f"section:{line.id}", f"Section {line.name}", line)


def _wall_sections(project: Project) -> Iterator[View]:
    for held in project.wall_sections:
        axis = wall_axis(project, project.walls_by_id[held.wall])
        dx, dy = axis.direction(min(max(along_from_start(held, axis.length), 0.0), axis.length))
        look = math.degrees(math.atan2(dy, dx)) + (0.0 if held.look == "end" else 180.0)
        yield View(f"section:{held.id}", f"Wall section {held.name}", (held, math.remainder(look, 360.0)))


def _details(project: Project) -> Iterator[View]:
    for held in project.details:
        yield View(f"detail:{held.id}", f"Detail {held.name}", held)


def _settings_out(project: Project) -> Iterator[View]:
    for stair in project.stairs:
        yield View(f"section:setting:{stair.id}", setting_title(stair), stair)


def _section_look(view: View) -> float:
    frame = section_frame(view.subject)
    return math.degrees(math.atan2(frame.dy, frame.dx))


def _south(view: View) -> float:
    return side_direction("south")


def _drawn_elevation(building: Building, view: View, look: float, setting: Setting) -> Drawing:
    return draw_elevation(building, view.name, view.title, look, setting)


PLAN = ViewKind(
    _plans,
    look=_south,
    draw=lambda building, view, look, setting: draw_plan(building, view.subject, view.name, look, setting),
    turns=True,
    sights=lambda building, view, look: (plan_sight(building, view.subject, look),),
    over_files=True,
)
ROOF_PLAN_VIEW = ViewKind(
    _roof_plan,
    look=_south,
    draw=lambda building, view, look, setting: draw_roof_plan(building, view.name, look, setting),
    turns=True,
    sights=_from_above,
    over_files=True,
)


def _floor_drawing(sort: Sort) -> Callable[[Building, View, float, Setting], Drawing]:
    return lambda building, view, look, setting: draw_floor_plan(building, view.subject, view.name, look, setting, sort)


FRAMING_PLAN = ViewKind(_framing_plans, look=_south, draw=_floor_drawing("framing"), turns=True, sights=_from_above)
STRUCTURAL_PLAN = ViewKind(
    _structural_plans, look=_south, draw=_floor_drawing("structure"), turns=True, sights=_from_above
)
SHEET_PLAN = ViewKind(_sheet_plans, look=_south, draw=_floor_drawing("sheets"), turns=True, sights=_from_above)
ELEVATION = ViewKind(_sides, look=lambda view: side_direction(view.subject), draw=_drawn_elevation, over_files=True)
OWN_ELEVATION = ViewKind(
    _own("outside"), look=lambda view: float(view.subject.look), draw=_drawn_elevation, over_files=True
)
INTERIOR = ViewKind(
    _own("room"),
    look=lambda view: float(view.subject.look),
    draw=lambda building, view, look, setting: draw_interior(building, view.subject, setting),
    sights=lambda building, view, look: interior_sights(building, view.subject),
)
UNFOLDED = ViewKind(
    _own("walls"),
    look=lambda view: float(view.subject.look),
    draw=lambda building, view, look, setting: draw_unfolded(building, view.subject, setting),
    sights=lambda building, view, look: unfolded_sights(building, view.subject),
)
SECTION = ViewKind(
    _sections,
    look=_section_look,
    draw=lambda building, view, look, setting: (draw_room_section if view.subject.room else draw_section)(
        building, view.subject, setting
    ),
    sights=lambda building, view, look: section_sights(view.subject),
)

WALL_SECTION = ViewKind(
    _wall_sections,
    look=lambda view: float(view.subject[1]),
    draw=lambda building, view, look, setting: draw_strip(building, view.subject[0], setting),
    sights=lambda building, view, look: strip_sights(building, view.subject[0]),
)

DETAIL = ViewKind(
    _details,
    look=_south,
    draw=lambda building, view, look, setting: draw_detail(building, view.subject, setting),
    sights=lambda building, view, look: detail_sights(building, view.subject),
)

SETTING_OUT = ViewKind(
    _settings_out,
    look=lambda view: float(view.subject.turn),
    draw=lambda building, view, look, setting: draw_setting_out(building, view.subject, view.name, setting),
    sights=lambda building, view, look: (),
)

SCHEDULE = ViewKind(
    lambda project: [View(SCHEDULE_NAME, SCHEDULE_TITLE)] if project.openings else [],
    look=_south,
    draw=lambda building, view, look, setting: draw_opening_schedule(building, setting),
    sights=lambda building, view, look: (),
)

VIEW_KINDS: tuple[ViewKind, ...] = (
    PLAN,
    FRAMING_PLAN,
    STRUCTURAL_PLAN,
    SHEET_PLAN,
    ROOF_PLAN_VIEW,
    ELEVATION,
    OWN_ELEVATION,
    INTERIOR,
    UNFOLDED,
    SECTION,
    WALL_SECTION,
    DETAIL,
    SETTING_OUT,
    SCHEDULE,
)
"""In the order of work."""
