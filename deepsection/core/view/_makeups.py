"""Numbers of make-ups at the walls of a plan, with a legend of what they are made of."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

from shapely.geometry import LineString

from ..drawing import Label, Mark, Stroke, Text, along, path, text_width
from ..drawing.tables import TEXT, table_marks
from ..geometry import Frame, Point
from ..model import MakeUp, Project
from ..resolve import Building, PlannedWall
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


def numbered_make_ups(project: Project) -> dict[str, str]:
    """The number of every make-up that a wall of the project has, by its id: the same on all storeys."""
    used = {wall.make_up for wall in project.walls}
    return {held.id: str(k) for k, held in enumerate((m for m in project.make_ups if m.id in used), 1)}


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
    part = wall.wall.id
    marks: tuple[Mark, ...] = (
        Stroke(_hexagon(home, RADIUS * scale), "symbol", closed=True, part=part, feature="make_up"),
        Text(*home, number, SIZE, "centre", "middle", 0.0, "bold", part=part, feature="make_up"),
    )
    return Label(f"makeup:{wall.wall.id}", marks, places, about=line, beside=BESIDE + 1.0)


def _hexagon(at: Point, radius: float) -> tuple[tuple[float, float, float], ...]:
    turns = (math.radians(60 * k) for k in range(6))
    return path(*((at[0] + radius * math.cos(a), at[1] + radius * math.sin(a)) for a in turns))


def make_up_legend(project: Project, level: str, corner: Point, scale: float) -> Iterator[Mark]:
    """What the numbers of a storey stand for: name, thickness, layers from the outside in."""
    used = {wall.make_up for wall in project.walls if wall.base.level == level}
    numbers = numbered_make_ups(project)
    rows = [row for held in project.make_ups if held.id in used for row in _rows(numbers[held.id], held, project)]
    if rows:
        yield from table_marks(corner, ("No.", "wall", "thick", "from the outside in"), rows, (), scale)


def _rows(number: str, held: MakeUp, project: Project) -> Iterator[Sequence[str]]:
    """A make-up with its layers, which go on in rows below where they are many."""
    lines = [""]
    for layer in held.layers:
        said = f"{layer.name} {format_measured(layer.thickness, project.units)}"
        longer = f"{lines[-1]}, {said}" if lines[-1] else said
        lines[-1:] = [longer] if text_width(longer, TEXT) <= WIDEST else [f"{lines[-1]},", said]
    thick = format_measured(sum(layer.thickness for layer in held.layers), project.units)
    yield number, held.name, thick, lines[0]
    yield from (("", "", "", line) for line in lines[1:])
