"""The plan of a storey, turned so that the drawn side faces down: what every kind of element shows there.

It is drawn from the wall plan alone, so that it can follow a drag without any solid being built.
"""

from __future__ import annotations

import math

from shapely.geometry import Polygon

from ..building.kind import PlanOf
from ..drawing import Drawing, Handle, Mark, Stroke, Symbol, extent, path
from ..drawing.clearings import lettered, pieces_between
from ..geometry import Frame
from ..kinds import KINDS
from ..model import Project, SectionLine
from ..resolve import Building, Storey, storeys
from ..trades.levels.placed import LEVELS
from ..trades.walls.planned import WALLS
from ..units import FOOT
from ._strings import dimension_strings

CUT_HEIGHT = 4 * FOOT
"""Height of the plan's cut above the floor. Common practice, no source."""


def plan_of(building: Building, level: str, look_deg: float, scale: float) -> PlanOf:
    """What the plan of a storey is drawn from, by the level that its walls stand on."""
    placed = building.placed
    storey = next(held for held in storeys(placed.project) if held.level == level)
    base = placed[LEVELS][level].z if placed[WALLS].on(level) else 0.0
    return PlanOf(placed, level, storey.plate, base, base + CUT_HEIGHT, Frame.looking(look_deg), scale)


def draw_plan(building: Building, level: str, name: str, look_deg: float, scale: float) -> Drawing:
    """The plan of a storey, by the level that its walls stand on, turned so that the look direction points up."""
    shown = plan_of(building, level, look_deg, scale)
    project = shown.project
    storey = next(held for held in storeys(project) if held.level == level)
    marks: list[Mark] = [mark for kind in KINDS for mark in kind.plan(shown)]
    marks += dimension_strings(building, project, level, shown.frame, scale)
    boxes = lettered(marks, scale) if project.sections else []
    for line in project.sections:
        marks += _section_marks(line, boxes, shown.frame, scale)
    return Drawing(
        name=name,
        title=plan_title(storey),
        kind="plan",
        scale=scale,
        marks=tuple(marks),
        bounds=extent(marks, scale),
        look=(shown.frame.dx, shown.frame.dy),
        messages=() if building.plan.on(level) else (_empty(project, storey),),
    )


def plan_title(storey: Storey) -> str:
    """The plan's name: that of the floor it shows."""
    return f"{storey.name} plan"


def _empty(project: Project, storey: Storey) -> str:
    """What a plan without walls says."""
    such = "34'" if project.units == "ft-in" else "9.6m"
    start = "Draw the outer walls" if not project.walls else f"{storey.name} has no walls yet. Draw them"
    return f"{start}: choose Outer wall, click the first corner, then type a length such as {such}."


def _section_marks(line: SectionLine, boxes: list[Polygon], frame: Frame, scale: float) -> list[Mark]:
    """The line of a section, which stops before lettering, and a mark at each of its ends."""
    from_to = (line.x1, line.y1), (line.x2, line.y2)
    id, name, look = line.id, line.name, line.look
    a, b = (frame.plan_to_turned(*point) for point in from_to)
    length = math.dist(a, b) or 1.0
    dx, dy = (b[0] - a[0]) / length, (b[1] - a[1]) / length
    side = (-dy, dx) if look == "left" else (dy, -dx)
    angle = math.degrees(math.atan2(side[1], side[0]))
    marks: list[Mark] = [
        Stroke(
            path(*piece),
            "section",
            part=f"{id}/section//",
            feature="line",
            handle=Handle("move_section", id, "line", "across"),
        )
        for piece in pieces_between(a, b, boxes, scale)
    ]
    for end, point, out in (("start", a, (-dx, -dy)), ("end", b, (dx, dy))):
        marks.append(Symbol("section", point[0], point[1], (name,), angle, out, part=f"{id}/section//{end}"))
    return marks
