"""What typing another length for a figure of a string moves: the window, wall, post or level that it runs to."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import Any

from ..document.motion import Motion
from ..drawing import Dimension
from ..edits import MoveOpening, MoveWall, ResizeOpening, SetTotal, Transform, apply_edits
from ..errors import BadInput, RefusedEdit
from ..geometry import Frame, Point
from ..model import Opening, Project, Rung, Wall, joint_point, wall_axis
from ..particulars import enter
from ..trades.levels.rises import rise
from ..units import parse_length
from .opening import drawn, opened
from .views import look_of

NEAR = 0.5
"""A length is what was typed when it is so near (mm)."""
SQUARE = 0.99
"""An opening is moved by a figure that runs along its wall (cosine)."""


def figure_edits(
    project: Project, view: str, key: str, text: str, scale: float, look_deg: float | None = None
) -> Sequence[Any]:
    """The edits that make what a figure of a view measures as long as a text says.

    What it runs to moves, else what it runs from. Raises: BadInput, RefusedEdit, UnknownElement.
    """
    value = parse_length(text, project.units)
    mark = _figure(project, view, key, scale, look_deg)
    if mark is None or mark.between is None:
        raise BadInput("this is no figure of a string of dimensions", field="key", value=key)
    if value <= 0:
        raise BadInput("a length of more than nothing is needed", field="text", value=text)
    if abs(value - _length(mark)) < NEAR:
        return []
    look = look_of(project, view) if look_deg is None or not view.startswith("plan") else look_deg
    refused: RefusedEdit | None = None
    for edits in _ways(project, view, mark, mark.between, value, Frame.looking(look)):
        try:
            found = _figure(apply_edits(project, edits), view, key, scale, look_deg)
        except RefusedEdit as error:
            refused = error
            continue
        # What stands on what is moved moves too: it is held against what was asked for.
        if found is not None and abs(_length(found) - value) < NEAR:
            return edits
    raise refused or RefusedEdit("nothing that this figure measures can be moved by it", field="text", value=value)


def _figure(project: Project, view: str, key: str, scale: float, look_deg: float | None) -> Dimension | None:
    """A figure of a view as the screen has it: of what can be drawn of a project."""
    drawing, _ = drawn(opened(project), view, scale, look_deg=look_deg)
    return next((m for m in drawing.marks if isinstance(m, Dimension) and m.annotation == key), None)


def _length(mark: Dimension) -> float:
    return math.dist((mark.x1, mark.y1), (mark.x2, mark.y2))


def _ways(
    project: Project, view: str, mark: Dimension, between: tuple[str, str], value: float, frame: Frame
) -> Iterator[Sequence[Any]]:
    """The edits that may do it, those that move what it runs to first."""
    length = _length(mark)
    by, way = value - length, ((mark.x2 - mark.x1) / length, (mark.y2 - mark.y1) / length)
    start, end = (_element(project, name) for name in between)
    if isinstance(start, Opening) and start is end and not between[0].endswith((".sill", ".head")):
        yield [ResizeOpening(opening=start.id, width=value)]
    plan = view.startswith("plan")
    upright = not plan and abs(way[1]) > SQUARE
    along = frame.turned_to_plan(*way) if plan else (frame.ux * way[0], frame.uy * way[0])
    for name, sign, (x, y) in ((between[1], 1.0, (mark.x2, mark.y2)), (between[0], -1.0, (mark.x1, mark.y1))):
        at = x * way[0] + (y * way[1] if plan else 0.0)
        made = _upwards(project, name, by * sign * way[1]) if upright else _in_plan(project, name, along, by * sign, at)
        if made:
            yield made


def _element(project: Project, name: str) -> Any:
    """The element that a place of a string is of: `w1.left` is of w1, `stair:main` of main."""
    id = name.partition(".")[0].rpartition(":")[2]
    return next((held for held in project.elements() if held.id == id), None)


def _in_plan(project: Project, name: str, way: Point, by: float, at: float) -> Sequence[Any]:
    """What moves a place by so much along a direction in plan, along which it lies at `at`."""
    held, (dx, dy) = _element(project, name), (way[0] * by, way[1] * by)
    if isinstance(held, Opening):
        axis = wall_axis(project, project.walls_by_id[held.wall])
        along = dot(axis.direction(axis.length / 2), way)
        if abs(along) < SQUARE:
            return []
        return [MoveOpening(opening=held.id, distance=held.distance + (along if held.end == "start" else -along) * by)]
    if isinstance(held, Wall):
        wall = held if _faces(project, held, way) else _at_end(project, held, way, at)
        return [MoveWall(wall=wall.id, dx=dx, dy=dy)] if wall else []
    if held is not None and held.about.movable:
        return [Transform(elements=(held.id,), motion=Motion(dx=dx, dy=dy))]
    return []


def dot(a: Point, b: Point) -> float:
    """How much of one vector lies along the other, a unit vector."""
    return a[0] * b[0] + a[1] * b[1]


def _faces(project: Project, wall: Wall, way: Point) -> bool:
    """Whether a wall is straight and runs square to a direction."""
    axis = wall_axis(project, wall)
    return not axis.is_arc and abs(dot(axis.direction(0.0), way)) < 1.0 - SQUARE


def _at_end(project: Project, wall: Wall, way: Point, at: float) -> Wall | None:
    """The wall square to a direction that stands at the end of another which lies nearest to a place along it."""
    joint = min((wall.start, wall.end), key=lambda id: abs(dot(joint_point(project, id), way) - at))
    others = (held for held in project.walls if joint in (held.start, held.end) and held.id != wall.id)
    return next((held for held in others if _faces(project, held, way)), None)


def _upwards(project: Project, name: str, by: float) -> Sequence[Any]:
    held, field = _element(project, name), name.rpartition(".")[2]
    if isinstance(held, Opening) and field in ("sill", "head"):
        sill = held.sill if field == "sill" else held.sill + project.design_of(held).height
        return enter(project, held.id, field, f"{sill + by:.6f}mm")
    if isinstance(held, Rung) and held.from_rung:
        higher = by if held.direction == "up" else -by
        return [SetTotal(rung=held.id, total=rise(held, project.make_ups) + higher)]
    return []
