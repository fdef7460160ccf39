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
from ...model.project import Project
from ..levels.model import Rung
from ..levels.place import resolve_levels, storeys
from .model import Stair, StairTurn
from .rules import choose, riser_set, rule_for, stair_rules, usual_going


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
        levels = resolve_levels(project.rungs, project.make_ups)
        above = [held.level for held in storeys(project) if held.level in levels]
        above = [level for level in above if levels[level].z > levels[low.id].z + 50.0]
        if not above:
            raise RefusedEdit(
                f"no storey lies above {low.name}: add a level with a floor on the ladder first", field="level"
            )
        if math.dist((self.x1, self.y1), (self.x2, self.y2)) < 50.0:
            raise RefusedEdit("a stair needs a direction: click its foot, then a point on its way up", field="x2")
        rule_id = rule_for(project.tradition)
        rule, units = stair_rules()[rule_id], project.units
        rise = levels[above[0]].z - levels[low.id].z
        chosen = choose(rule, rise, None, units)
        going = usual_going(rule, riser_set(rule, rise, chosen.risers, units))
        turn = math.degrees(math.atan2(self.y2 - self.y1, self.x2 - self.x1))
        width = usual("stair_width", units)
        stair = Stair(
            id=self.id,
            level=low.id,
            upper=above[0],
            x=self.x1,
            y=self.y1,
            turn=round(turn, 6),
            width=width,
            rule=rule_id,
            turns=self._turns(width, going, chosen.treads),
            nosing=usual("stair_nosing", units),
            tread=usual("stair_tread", units),
            string=usual("member_thickness", units),
            depth=usual("stair_string", units),
            build="cut" if project.tradition == "timber" else "housed",
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
