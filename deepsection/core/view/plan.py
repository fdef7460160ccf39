"""The plan of a storey, turned so that the drawn side faces down: what every kind of element shows there.

It is drawn from the wall plan alone, so that it can follow a drag without any solid being built.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import replace

import numpy as np
from shapely.geometry import Polygon

from ..building.kind import PlanOf
from ..drawing import NUMBER, Drawing, Handle, Label, Lettered, Mark, Stroke, Symbol, Text, extent, path, text_width
from ..drawing.chains import String
from ..drawing.clearings import boxes_around, pieces_between
from ..geometry import Frame, Point
from ..kinds import KINDS
from ..model import Project, SectionLine
from ..resolve import Building, Storey, storeys
from ..trades.drawings.plan import named
from ..trades.levels.placed import LEVELS
from ..trades.walls.planned import WALLS
from ..units import FOOT
from ._annotations import Annotations, lettered
from ._makeups import BELOW, make_up_legend, make_up_numbers
from .details.plan_marks import level_windows
from .setting import Setting
from .sights import Sight
from .strings.axes import axes_of
from .strings.inside import inside_strings
from .strings.outside import outside_strings

CUT_HEIGHT = 4 * FOOT
"""Height of the plan's cut above the floor. Common practice, no source."""


def plan_of(building: Building, level: str, look_deg: float, scale: float) -> PlanOf:
    """What the plan of a storey is drawn from, by the level that its walls stand on."""
    placed = building.placed
    every = storeys(placed.project)
    storey = next(held for held in every if held.level == level)
    base = placed[LEVELS][level].z if placed[WALLS].on(level) else 0.0
    higher = [placed[LEVELS][held.level].z for held in every if held.level and placed[LEVELS][held.level].z > base]
    next_cut = min(higher, default=math.inf) + CUT_HEIGHT
    return PlanOf(placed, level, storey.plate, base, base + CUT_HEIGHT, Frame.looking(look_deg), scale, next_cut)


def draw_plan(building: Building, level: str, name: str, look_deg: float, setting: Setting) -> Drawing:
    """The plan of a storey, by the level that its walls stand on, turned so that the look direction points up."""
    scale = setting.scale
    shown = plan_of(building, level, look_deg, scale)
    project = shown.project
    storey = next(held for held in storeys(project) if held.level == level)
    held: list[Lettered] = [mark for kind in KINDS for mark in kind.plan(shown)]
    held += level_windows(building, shown, Annotations(setting.show, scale))
    strings = _strings(shown, building, setting)
    held += [mark for string in strings for mark in string.marks]
    for line in project.sections:
        held += _section_ends(project, line, shown.frame, scale)
    if setting.show and setting.show.make_ups:
        held += make_up_numbers(building, level, shown.frame, scale)
        x0, y0, *_ = extent((mark for mark in held if not isinstance(mark, Label)), scale)
        used = {wall.wall.make_up for wall in building.plan.on(level)}
        held += make_up_legend(project, used, (x0, y0 - BELOW * scale), scale)
    placed, bounds, left_out, shifts = lettered([*held, *setting.notes], setting)
    boxes = boxes_around(placed, scale) if project.sections else []
    lines = [mark for line in project.sections for mark in _section_line(line, boxes, shown.frame, scale)]
    return Drawing(
        name=name,
        title=plan_title(storey),
        kind="plan",
        scale=scale,
        marks=(*placed, *lines),
        bounds=extent(lines, scale, np.array(bounds).reshape(2, 2) if placed else None),
        look=(shown.frame.dx, shown.frame.dy),
        messages=() if building.plan.on(level) else (_empty(project, storey),),
        left_out=left_out,
        shifts=shifts,
        strings=tuple((string.name, string.shown) for string in strings),
    )


def plan_with_sections(before: Drawing, project: Project, look_deg: float) -> Drawing:
    """A plan that was drawn before, with the lines of sections where they are now; the rest of it stays as it was."""
    frame, scale = Frame.looking(look_deg), before.scale
    lines = tuple(f"{line.id}/section//" for line in project.sections)
    marks: list[Mark] = [mark for mark in before.marks if not (mark.part or "").startswith(lines)] if lines else []
    for line in project.sections:
        for mark in (*_section_line(line, [], frame, scale), *_section_ends(project, line, frame, scale)):
            marks += mark.marks if isinstance(mark, Label) else (mark,)
    return replace(before, marks=tuple(marks))


def plan_sight(building: Building, level: str, look_deg: float) -> Sight:
    """What a plan shows: from the height at which it is cut, down."""
    shown = plan_of(building, level, look_deg, 1.0)
    return Sight(shown.frame, above=True, start=-shown.cut)


def _strings(shown: PlanOf, building: Building, setting: Setting) -> list[String]:
    """The strings of dimensions around a storey and through its rooms, along the axes of the house."""
    axes = axes_of(building.plan.on(shown.level), shown.frame)
    return [
        *outside_strings(building, shown.project, shown.level, axes, setting),
        *inside_strings(building, shown, axes, setting),
    ]


def plan_title(storey: Storey) -> str:
    """The plan's name: that of the floor it shows."""
    return f"{storey.name} plan"


def _empty(project: Project, storey: Storey) -> str:
    """What a plan without walls says."""
    such = "34'" if project.units == "ft-in" else "9.6m"
    start = "Draw the outer walls" if not project.walls else f"{storey.name} has no walls yet. Draw them"
    return f"{start}: choose Outer wall, click the first corner, then type a length such as {such}."


def _ends_of(line: SectionLine, frame: Frame) -> tuple[Point, Point]:
    a, b = (frame.plan_to_turned(*point) for point in ((line.x1, line.y1), (line.x2, line.y2)))
    return a, b


STEP = 3.0
"""Paper mm of a section line on both sides of a step that are heavy."""


def _section_line(line: SectionLine, boxes: list[Polygon], frame: Frame, scale: float) -> Iterator[Mark]:
    """The line of a section, which stops before lettering; where it steps it is heavy."""
    handle, part = Handle("move_section", line.id, "line", "across"), f"{line.id}/section//"
    ends = [_ends_of(held, frame) for held in line.parts]
    for a, b in ends:
        for piece in pieces_between(a, b, boxes, scale):
            yield Stroke(path(*piece), "section", part=part, feature="line", handle=handle)
    for (before, at), (after, on) in itertools.pairwise(ends):
        turn = (at,) if math.dist(at, after) < 1e-6 else (at, after)
        knees = (_towards(at, before, STEP * scale), *turn, _towards(after, on, STEP * scale))
        yield Stroke(path(*knees), "section_mark", part=part, feature="step", handle=handle)


def _towards(start: Point, end: Point, far: float) -> Point:
    """A place so far (mm) from one to another, at the most there."""
    share = min(1.0, far / (math.dist(start, end) or 1.0))
    return start[0] + (end[0] - start[0]) * share, start[1] + (end[1] - start[1]) * share


LETTER, LETTER_OUT, LETTER_ON = 4.0, 3.2, 2.45
"""Height of the letter of a section, and how far it stands past the end of its line and on the side of the arrow."""


def _section_ends(project: Project, line: SectionLine, frame: Frame, scale: float) -> Iterator[Lettered]:
    """A mark at each of the ends of a section line, its letter past the arrow."""
    parts = line.parts
    for which, held, back in (("start", parts[0], -1.0), ("end", parts[-1], 1.0)):
        start, end = _ends_of(held, frame)
        length = math.dist(start, end) or 1.0
        dx, dy = (end[0] - start[0]) / length, (end[1] - start[1]) / length
        side = (-dy, dx) if line.look == "left" else (dy, -dx)
        angle = math.degrees(math.atan2(side[1], side[0]))
        point, out = (start if back < 0 else end), (dx * back, dy * back)
        part = f"{line.id}/section//{which}"
        yield Symbol("section", point[0], point[1], (), angle, out, part=part)
        past = LETTER_OUT + max(0.0, text_width(line.name, LETTER, "bold") - LETTER) / 2 * abs(out[0])
        spots = [
            (out[0] * a + side[0] * b, out[1] * a + side[1] * b)
            for a, b in ((past, LETTER_ON), (past + 2.0, LETTER_ON), (past, 0.0), (past + 2.0, -3.0), (0.0, 11.0))
        ] + [(out[0] * -4.0 - side[0] * 5.0, out[1] * -4.0 - side[1] * 5.0), (out[0] * 9.0, out[1] * 9.0)]
        u, w = point[0] + spots[0][0] * scale, point[1] + spots[0][1] * scale
        text = Text(u, w, line.name, LETTER, "centre", "middle", 0, "bold", part, pen="section")
        places = [((du - spots[0][0]) * scale, (dw - spots[0][1]) * scale) for du, dw in spots]
        words = named(project, f"section:{line.id}", text, scale)
        yield Label(f"section:{line.id}:{which}", words, places, NUMBER)
