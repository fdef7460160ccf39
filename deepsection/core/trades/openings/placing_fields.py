"""Fields that place an opening by what is around it: rooms, grid lines, other levels."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import Any

from ...edits import CopyOpening, MoveOpening, copies_of
from ...geometry import Axis, Line, meet
from ...model import Opening, Project, Wall, along_from_start, wall_axis
from ...rows.rows import Row, action_row, choice_row, length_row
from ..levels.place import storeys
from ..rooms.place import room_space
from ..walls.place import plan_walls

ON_LINE = 300.0
"""A wall of another storey stands over (or under) an opening when its line passes it this close (mm)."""
NOWHERE = "-"


def placing_fields(project: Project, opening: Opening) -> list[Row]:
    """Distances from grid lines, the middle of each room beside it, and copies on other levels."""
    wall = next(held for held in project.walls if held.id == opening.wall)
    axis = wall_axis(project, wall)
    return [*_grids(project, opening, axis), *_rooms(project, opening, wall), *_levels(project, opening, wall, axis)]


def _to(opening: Opening, length: float, centre: float) -> Sequence[Any]:
    return [MoveOpening(opening=opening.id, distance=centre if opening.end == "start" else length - centre)]


def _grids(project: Project, opening: Opening, axis: Axis) -> Iterator[Row]:
    line = axis.face(0.0)
    if not isinstance(line, Line):
        return
    centre = along_from_start(opening, axis.length)
    for held in project.grid:
        angle = math.radians(held.angle)
        point = meet(line, Line(held.x, held.y, math.cos(angle), math.sin(angle)))
        if point is None:
            continue
        at = axis.along(point)
        side = -1.0 if centre < at else 1.0
        label, distance = f"Middle from grid {held.name}", abs(centre - at)

        def edits(value: float, at: float = at, side: float = side) -> Sequence[Any]:
            return _to(opening, axis.length, at + side * value)

        yield length_row(f"grid:{held.id}", label, distance, project.units, edits)


def _rooms(project: Project, opening: Opening, wall: Wall) -> Iterator[Row]:
    plan = plan_walls(project.walls, project.joints, tuple(m for m in project.make_ups if m.use == "wall"))
    planned, level = plan.by_id.get(opening.wall), wall.base.level
    if planned is None:
        return
    lowest = storeys(project)[0].level
    for room in project.rooms:
        held = room_space(room, plan, lowest)
        if held.level != level:
            continue
        space = held.space
        shared = space.buffer(2.0).intersection(planned.footprint) if space else None
        if shared is None or shared.is_empty or shared.geom_type != "Polygon":
            continue
        alongs = [planned.axis.along(point) for point in shared.exterior.coords]
        if max(alongs) - min(alongs) > project.design_of(opening).width:
            edits = _to(opening, planned.length, (min(alongs) + max(alongs)) / 2)
            yield action_row(f"centre_room:{room.id}", f"Centre it on {room.name}", edits)


def _levels(project: Project, opening: Opening, wall: Wall, axis: Axis) -> Iterator[Row]:
    """Copies on the walls of other storeys that stand over or under this one."""
    point = axis.at(along_from_start(opening, axis.length))
    dx, dy = axis.direction(along_from_start(opening, axis.length))
    over: dict[str, tuple[str, float]] = {}
    for other in project.walls:
        held = wall_axis(project, other)
        along = held.along(point)
        ox, oy = held.direction(along)
        parallel = abs(dx * oy - dy * ox) < 1e-3
        if other.base.level == wall.base.level or not parallel or not 0 < along < held.length:
            continue
        if abs(held.left_of(point)) < ON_LINE:
            over.setdefault(other.base.level, (other.id, along))
    if not over:
        return
    names = {rung.id: rung.name for rung in project.rungs}
    copy = copies_of(project, opening, 1)[0]

    def edits(text: str) -> Sequence[Any]:
        if text == NOWHERE:
            return []
        id, along = over[text]
        return [CopyOpening(opening=opening.id, id=copy, wall=id, end="start", distance=along)]

    options = [(NOWHERE, "no other level"), *((level, names[level]) for level in over)]
    yield choice_row("copy_level", "Copy it to", NOWHERE, options, edits)
