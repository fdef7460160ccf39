"""Walls drawn by the outline of their plan."""

from __future__ import annotations

import math
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from ....document.command import Command
from ....document.rebuilding import put
from ....document.values import Element, Id, Mm
from ....errors import RefusedEdit
from ....geometry import Axis
from ....model.project import Project
from ...levels.model import BaseRule
from ...makeups.model import MakeUp
from ..model import FreeJoint, PlanSpot, SetOut, TopRule, Wall


class PlanPoint(Element):
    """A point in plan."""

    x: Mm
    y: Mm


class DrawOutline(Command):
    """A wall whose plan is a ring of points; the first edge becomes its set-out line, what it holds is inside of it."""

    kind: Literal["draw_outline"] = "draw_outline"
    phrase: ClassVar[str] = "draw a wall by its outline"
    wall: Id
    joints: tuple[Id, Id]
    points: Annotated[tuple[PlanPoint, ...], Field(min_length=3, max_length=60)]
    make_up: Id
    status: Literal["outer", "inner"] = "inner"
    base: Id
    top: Id

    def apply(self, project: Project) -> Project:
        """The project with the wall. Raises: RefusedEdit."""
        make_up = next((held for held in project.make_ups if held.id == self.make_up), None)
        if not isinstance(make_up, MakeUp) or len(make_up.layers) != 1:
            message = "a wall with an outline of its own is of one layer: choose such a make-up, or make one"
            raise RefusedEdit(message, field="make_up", value=self.make_up)
        first, second = self.points[:2]
        if math.dist((first.x, first.y), (second.x, second.y)) < 1.0:
            raise RefusedEdit("the first edge of an outline needs a length", field="points")
        ring = [(point.x, point.y) for point in self.points]
        turn = sum(ax * by - ay * bx for (ax, ay), (bx, by) in zip(ring, (*ring[1:], ring[0])))
        side = -1.0 if turn > 0 else 1.0
        axis = Axis(ring[0], ring[1])
        spots = tuple(PlanSpot(along=axis.along(point), out=side * axis.left_of(point)) for point in ring)
        wall = Wall(
            id=self.wall,
            start=self.joints[0],
            end=self.joints[1],
            make_up=make_up.id,
            set_out=SetOut(layer=make_up.layers[0].id),
            outside="right" if turn > 0 else "left",
            status=self.status,
            outline=spots,
            base=BaseRule(level=self.base),
            top=TopRule(kind="level", level=self.top),
        )
        joints = (FreeJoint(id=id, x=x, y=y) for id, (x, y) in zip(self.joints, ring))
        return put(project, *joints, wall)
