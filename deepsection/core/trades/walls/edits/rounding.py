"""A corner of two walls made an arc."""

from __future__ import annotations

import math
from typing import Any, ClassVar, Literal

from ....document.command import Command
from ....document.rebuilding import changed, get_element, put, rebuild
from ....document.values import Id, Positive
from ....errors import RefusedEdit
from ....model.places import standing_on, wall_axis
from ....model.project import Project
from ....tolerance import TOL
from ...drawings.model import WallSection
from ...openings.model import Opening
from ...roofs.corners import with_corners
from ..model import FreeJoint, Wall
from .splitting import SHORTEST


class RoundCorner(Command):
    """The corner of two straight walls rounded: an arc of a radius to the set-out line touches both."""

    kind: Literal["round_corner"] = "round_corner"
    phrase: ClassVar[str] = "round a corner"
    joint: Id
    radius: Positive
    wall: Id
    joints: tuple[Id, Id]

    def apply(self, project: Project) -> Project:
        """The project with the arc. Raises: RefusedEdit, UnknownElement."""
        joint = get_element(project, self.joint, FreeJoint)
        walls = [wall for wall in project.walls if joint.id in (wall.start, wall.end)]
        if len(walls) != 2 or any(wall.bulge for wall in walls):
            raise RefusedEdit("a corner of two straight walls can be rounded, no other", element=joint.id)
        axes = [wall_axis(project, w) if w.start == joint.id else wall_axis(project, w).reversed() for w in walls]
        (ax, ay), (bx, by) = (axis.direction(0.0) for axis in axes)
        turn, along = ax * by - ay * bx, ax * bx + ay * by
        if abs(turn) < TOL.parallel:
            raise RefusedEdit("these two walls run straight on: there is no corner to round", element=joint.id)
        inside = math.atan2(abs(turn), along)
        back = self.radius / math.tan(inside / 2)
        for wall, axis in zip(walls, axes):
            if back > axis.length - SHORTEST:
                message = "that radius takes more than one of the walls has"
                most = (axis.length - SHORTEST) * math.tan(inside / 2)
                raise RefusedEdit(message, element=wall.id, field="round", value=self.radius, limit=most)
        first, second = (FreeJoint(id=id, x=x, y=y) for id, (x, y) in zip(self.joints, (a.at(back) for a in axes)))
        # From the first wall's new end to the second's: it turns by what is left of a half turn.
        bulge = math.tan((math.pi - inside) / 4) * (-1.0 if turn > 0 else 1.0)
        ends = [changed(w, **_end(w, joint.id, new.id)) for w, new in zip(walls, (first, second))]
        like = walls[0]
        arc = changed(like, id=self.wall, start=first.id, end=second.id, bulge=bulge, outside=self._outside(like))
        moved = [m for w in walls for m in _standing(project, w, joint.id, back)]
        staged = put(project, first, second, *ends, arc, *moved)
        roofs = [with_corners(roof, lambda corner: _untied(corner, joint)) for roof in staged.roofs]
        kept = tuple(held for held in staged.joints if held.id != joint.id)
        return rebuild(staged, joints=kept, roofs=tuple(roofs))

    def _outside(self, like: Wall) -> Literal["left", "right"]:
        """The arc runs on from the first wall towards its joint: the other way round when that wall starts there."""
        if like.end == self.joint:
            return like.outside
        return "left" if like.outside == "right" else "right"


def _untied(corner: Any, joint: FreeJoint) -> Any:
    """A roof keeps its corner where it was."""
    return type(corner)(x=joint.x, y=joint.y) if corner.joint == joint.id else corner


def _end(wall: Wall, old: str, new: str) -> dict[str, str]:
    return {"start": new} if wall.start == old else {"end": new}


def _standing(project: Project, wall: Wall, joint: str, back: float) -> list[Any]:
    """What stands on a wall and is measured from the corner: it keeps its place."""
    end = "start" if wall.start == joint else "end"
    moved = []
    for each in standing_on(project, wall.id):
        if each.end != end:
            continue
        if isinstance(each, WallSection):
            moved.append(changed(each, distance=max(each.distance - back, 0.0)))
            continue
        if each.distance < back:
            name = project.number_of(each) if isinstance(each, Opening) else "a wall"
            message = f"{name} stands where the corner would be rounded: move it first, or take a smaller radius"
            raise RefusedEdit(message, element=wall.id, field="round", value=back, limit=each.distance)
        moved.append(changed(each, distance=each.distance - back))
    return moved
