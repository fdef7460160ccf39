"""Edits of stairs: put as they are, or drawn from foot and head."""

from __future__ import annotations

import math
from typing import ClassVar, Literal

from ...catalog import usual
from ...document.command import Command
from ...document.putting import PutElement
from ...document.rebuilding import get_element, put
from ...document.values import Id, Mm
from ...errors import RefusedEdit
from ...model.places import wall_points
from ...model.project import Project
from ..levels.model import Rung
from ..levels.rises import height_of
from ..walls.model import Wall
from .model import Stair, StairTurn
from .rules import choose, riser_set, rule_for, stair_rules, usual_going
from .usual import usual_stair


class PutStair(PutElement):
    kind: Literal["put_stair"] = "put_stair"
    phrase: ClassVar[str] = "change {name}"
    adding: ClassVar[str] = "draw a stair"
    stair: Stair


class DrawStair(Command):
    """A stair up from a level, from its foot towards a point, with usual sizes; it turns where `x3`, `y3` says.

    Two points: straight, as long as its rule has it. Three: a quarter turn at the second one, towards the third.
    """

    kind: Literal["draw_stair"] = "draw_stair"
    phrase: ClassVar[str] = "draw a stair"
    id: Id
    level: Id
    x1: Mm
    y1: Mm
    x2: Mm
    y2: Mm
    x3: Mm | None = None
    y3: Mm | None = None
    turning: Literal["landing", "half landing", "winders"] = "landing"

    def apply(self, project: Project) -> Project:
        """The project with the stair. Raises: RefusedEdit, UnknownElement."""
        low = get_element(project, self.level, Rung)
        upper, rise = _storey_above(project, low)
        if upper is None:
            raise RefusedEdit(
                f"no storey lies above {low.name}: add a level with a floor on the ladder first", field="level"
            )
        if math.dist((self.x1, self.y1), (self.x2, self.y2)) < 50.0:
            raise RefusedEdit("a stair needs a direction: click its foot, then a point on its way up", field="x2")
        rule_id = rule_for(project.tradition)
        rule, units = stair_rules()[rule_id], project.units
        chosen = choose(rule, rise, None, units)
        going = usual_going(rule, riser_set(rule, rise, chosen.risers, units))
        turn = _along_walls(project, math.degrees(math.atan2(self.y2 - self.y1, self.x2 - self.x1)))
        stair = usual_stair(
            project,
            self.id,
            low.id,
            upper,
            (self.x1, self.y1),
            turn,
            turns=self._turns(usual("stair_width", units), going, chosen.treads),
        )
        return put(project, stair)

    def _turns(self, width: float, going: float, treads: int) -> tuple[StairTurn, ...]:
        if self.x3 is None or self.y3 is None:
            return ()
        dx, dy = self.x2 - self.x1, self.y2 - self.y1
        cross = dx * (self.y3 - self.y2) - dy * (self.x3 - self.x2)
        after = round((math.hypot(dx, dy) - width / 2) / going) + 1
        after = max(1, min(after, treads))
        return (StairTurn(after=after, side="left" if cross > 0 else "right", kind=self.turning),)


LEAST = 50.0
"""A storey lies above another one by more than this (mm)."""


def _storey_above(project: Project, low: Rung) -> tuple[str | None, float]:
    """The next level above that something stands on, and how much higher it lies (mm)."""
    named = {floor.level for floor in project.floors} | {wall.base.level for wall in project.walls}
    height = height_of(project.rungs, project.make_ups, low.id)
    rises = {id: height_of(project.rungs, project.make_ups, id) - height for id in named}
    above = sorted((rise, id) for id, rise in rises.items() if rise > LEAST)
    return (above[0][1], above[0][0]) if above else (None, 0.0)


NEAR = 8.0
"""A way that is this near (deg) to that of a wall, or square to it, is meant to be so."""


def _along_walls(project: Project, turn: float) -> float:
    """An angle, or that of the walls where it is near to one."""
    best = min(
        (math.remainder(turn - _angle_of(project, wall), 90.0) for wall in project.walls), key=abs, default=math.inf
    )
    return round(math.remainder(turn - best if abs(best) < NEAR else turn, 360.0), 6)


def _angle_of(project: Project, wall: Wall) -> float:
    a, b = wall_points(project, wall)
    return math.degrees(math.atan2(b[1] - a[1], b[0] - a[0]))
