"""Everyday edits, each a function of the project and a round, so that no round repeats another."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

import orjson

from deepsection.core.edits import MoveOpening, MoveWall, PutRoof, PutSection, SetTerm, UseMakeUp, changed
from deepsection.core.model import Project, wall_length
from deepsection.service.schemas import ViewWanted


def move_window(project: Project, step: int) -> MoveOpening:
    """The first window, a little along its wall."""
    opening = next(held for held in project.openings if held.unit == "window")
    return MoveOpening(opening=opening.id, distance=opening.distance + 3.0 * step)


def move_wall(project: Project, step: int) -> MoveWall:
    """The longest outer wall, a little across; its neighbours, the roof and the foundation follow."""
    outer = [wall for wall in project.walls if wall.status == "outer"]
    wall = max(outer, key=lambda wall: wall_length(project, wall))
    return MoveWall(wall=wall.id, dx=0.0, dy=-2.0 * step)


def change_height(project: Project, step: int) -> SetTerm:
    """The free part of the plate height: every wall and the roof follow."""
    rung = next(held for held in project.rungs if held.surface == "plate")
    term = next(held for held in rung.terms if held.id == rung.free)
    return SetTerm(rung=rung.id, term=term.id, value=term.value + 2.0 * step)


def change_pitch(project: Project, step: int) -> PutRoof:
    """The pitch of the first roof."""
    roof = project.roofs[0]
    return PutRoof(roof=changed(roof, pitch=roof.pitch + 0.002 * step))


def change_make_up(project: Project, step: int) -> UseMakeUp:
    """Another make-up for the first wall and back, by turns."""
    walls = [held.id for held in project.make_ups if held.use == "wall"]
    return UseMakeUp(wall=project.walls[0].id, make_up=walls[step % 2])


def drag_section(project: Project, step: int) -> PutSection:
    """The first section line, a little across."""
    line = project.sections[0]
    return PutSection(section=changed(line, x1=line.x1 + 11.0 * step, x2=line.x2 + 11.0 * step))


EDIT_CASES: dict[str, Callable[[Project, int], object]] = {
    "move a window": move_window,
    "move an outer wall": move_wall,
    "change the stud height": change_height,
    "change a pitch": change_pitch,
    "change a make-up": change_make_up,
    "drag the section line": drag_section,
}

LOCAL = ("move a window", "change a make-up", "drag the section line")
"""Edits that touch one wall, or one line: the others reach through the whole house."""


def held_of(answer: dict[str, Any], wanted: Sequence[ViewWanted]) -> list[ViewWanted]:
    """The views that are wanted, as a screen asks for them that holds the drawings of an answer."""
    drawings = orjson.loads(orjson.dumps(answer["drawings"]))
    return [view.model_copy(update={"have": drawing["digest"]}) for view, drawing in zip(wanted, drawings)]


__all__ = ["EDIT_CASES", "LOCAL", "held_of"]
