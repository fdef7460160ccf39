"""Numbers of make-ups at the walls of a plan and at what sections cut, with a legend of what they are made of."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence, Set
from typing import Any

from shapely.geometry import LineString, Polygon

from ..drawing import Label, Mark, Stroke, Text, along, path, text_width
from ..drawing.tables import TEXT, table_marks
from ..geometry import Frame, Point
from ..kinds import kind_for
from ..model import MakeUp, Project
from ..resolve import Building, Part, PlannedWall
from ..trades.makeups.wording import layer_words
from ..units import format_measured

RADIUS, SIZE = 2.5, 2.0
"""Of the hexagon around a number, and of its figure (paper mm): neither an opening's number nor a grid's bubble."""
BESIDE = 1.2
"""Paper mm between a wall and its number."""
STEP = 6.0
"""Places along a wall are so far apart (paper mm)."""
WIDEST = 110.0
"""How wide the layers of a make-up get in the legend before they go on below (paper mm)."""
BELOW = 12.0
"""Paper mm from all else to the legend."""


def make_up_of(project: Project, element: Any) -> str | None:
    """The id of the make-up that an element is built by."""
    model: type = type(element)
    return kind_for(model).make_up(project, element)


def make_ups_of(project: Project, elements: Iterable[str]) -> dict[str, str]:
    """The ids of the make-ups of those among some elements, by their ids, that are built by one; in order of ids."""
    found = ((id, make_up_of(project, project.find(id))) for id in sorted(set(elements)))
    return {id: name for id, name in found if name is not None}


def numbered_make_ups(project: Project) -> dict[str, str]:
    """The number of every make-up that something of the project is built by, by its id: those of walls first, the same
    in all drawings."""
    walls = {wall.make_up for wall in project.walls}
    used = {id for element in project.elements() if (id := make_up_of(project, element))}
    ordered = sorted((held for held in project.make_ups if held.id in used), key=lambda held: held.id not in walls)
    return {held.id: str(k) for k, held in enumerate(ordered, 1)}


def make_up_numbers(building: Building, level: str, frame: Frame, scale: float) -> Iterator[Label]:
    """A number at each wall of a storey, inside of it where there is room."""
    numbers = numbered_make_ups(building.placed.project)
    for wall in building.plan.on(level):
        yield _label(wall, numbers[wall.wall.make_up], frame, scale)


def _label(wall: PlannedWall, number: str, frame: Frame, scale: float) -> Label:
    middle, off = wall.length / 2, (RADIUS + BESIDE) * scale
    start, end = (frame.plan_to_turned(*wall.at(at)) for at in (0.0, wall.length))
    home = frame.plan_to_turned(*wall.at(middle, wall.inner - off))
    across = frame.plan_to_turned(*wall.at(middle, wall.outer + off))
    run = (end[0] - start[0], end[1] - start[1])
    slid = along(run, math.hypot(*run) - 4 * RADIUS * scale, STEP * scale)
    over = across[0] - home[0], across[1] - home[1]
    places = [*slid, *((u + over[0], v + over[1]) for u, v in slid)]
    line = LineString([start, end]).buffer(max(abs(wall.outer), abs(wall.inner)))
    marks = _numbered(home, number, wall.wall.id, scale)
    return Label(f"makeup:{wall.wall.id}", marks, places, about=line, beside=BESIDE + 1.0)


def _numbered(at: Point, number: str, part: str, scale: float) -> tuple[Mark, ...]:
    """A number in its hexagon."""
    return (
        Stroke(_hexagon(at, RADIUS * scale), "symbol", closed=True, part=part, feature="make_up"),
        Text(*at, number, SIZE, "centre", "middle", 0.0, "bold", part=part, feature="make_up"),
    )


def section_make_ups(building: Building, cut: Iterable[tuple[Part, Polygon]], scale: float) -> Iterator[Label]:
    """A number at everything with a make-up that a section cuts, beside it: at each wall, at floors, ceilings and roofs
    once."""
    project = building.placed.project
    numbers = numbered_make_ups(project)
    found: dict[str, list[Polygon]] = defaultdict(list)
    for part, polygon in cut:
        found[part.element].append(polygon)
    for id, make_up in make_ups_of(project, found).items():
        number = numbers[make_up]
        about = max(found[id], key=lambda held: (held.area, held.bounds))
        x0, y0, x1, y1 = about.bounds
        off = (RADIUS + BESIDE) * scale
        upright = y1 - y0 > x1 - x0
        home = (x1 + off, (y0 + y1) / 2) if upright else ((x0 + x1) / 2, y0 - off)
        far = (x0 - off - home[0], 0.0) if upright else (0.0, y1 + off - home[1])
        run = (0.0, y1 - y0) if upright else (x1 - x0, 0.0)
        slid = along(run, math.hypot(*run) - 4 * RADIUS * scale, STEP * scale)
        places = [*slid, *((u + far[0], v + far[1]) for u, v in slid)]
        yield Label(f"makeup:{id}", _numbered(home, number, id, scale), places, about=about, beside=BESIDE + 1.0)


def _hexagon(at: Point, radius: float) -> tuple[tuple[float, float, float], ...]:
    turns = (math.radians(60 * k) for k in range(6))
    return path(*((at[0] + radius * math.cos(a), at[1] + radius * math.sin(a)) for a in turns))


def make_up_legend(project: Project, used: Set[str], corner: Point, scale: float) -> Iterator[Mark]:
    """What the numbers of some make-ups stand for: name, thickness, layers from the outside in, from the top down."""
    numbers = numbered_make_ups(project)
    shown = sorted((held for held in project.make_ups if held.id in used), key=lambda held: int(numbers[held.id]))
    rows = [row for held in shown for row in _rows(numbers[held.id], held, project)]
    if rows:
        heads = ("No.", "make-up", "thick", "from the outside in, from the top down")
        yield from table_marks(corner, heads, rows, (), scale)


def _rows(number: str, held: MakeUp, project: Project) -> Iterator[Sequence[str]]:
    """A make-up with its layers, which go on in rows below where they are many."""
    lines = [""]
    for layer in held.layers:
        said = layer_words(layer, project.units)
        longer = f"{lines[-1]}, {said}" if lines[-1] else said
        lines[-1:] = [longer] if text_width(longer, TEXT) <= WIDEST else [f"{lines[-1]},", said]
    thick = format_measured(sum(layer.thickness for layer in held.layers), project.units)
    yield number, held.name, thick, lines[0]
    yield from (("", "", "", line) for line in lines[1:])
