"""Edits that make a wall an arc, or straight again."""

from __future__ import annotations

import math
from typing import ClassVar, Literal

from ....document.command import Command
from ....document.rebuilding import changed, get_element, put
from ....document.values import Id, Mm, Positive
from ....errors import RefusedEdit
from ....geometry import Axis, bulge_of
from ....model.places import standing_on, wall_axis, wall_points
from ....model.project import Project
from ..model import Wall

FLATTEST = 0.1
"""An arc that rises less than this (mm) is a straight line."""


class BendWall(Command):
    """A wall made an arc that rises from its chord, or another arc: to the left from start to end, or to the right.

    What stands on it keeps its share of the length. A rise below 0 is one to the right.
    """

    kind: Literal["bend_wall"] = "bend_wall"
    phrase: ClassVar[str] = "bend a wall"
    wall: Id
    rise: Mm | None = None
    radius: Positive | None = None

    def apply(self, project: Project) -> Project:
        """The project with the wall bent. Raises: RefusedEdit, UnknownElement."""
        wall = get_element(project, self.wall, Wall)
        chord = wall_axis(project, wall).chord
        if self.radius is not None:
            if self.radius < chord / 2:
                raise RefusedEdit(
                    "an arc needs a radius of at least half its chord",
                    element=wall.id,
                    field="radius",
                    value=self.radius,
                    limit=chord / 2,
                )
            return bent(project, wall, math.copysign(bulge_of(chord, radius=self.radius), wall.bulge or 1.0))
        rise = self.rise or 0.0
        if abs(rise) < FLATTEST:
            raise RefusedEdit(
                "an arc of no rise is a straight wall: straighten it instead, or give a rise",
                element=wall.id,
                field="rise",
                value=rise,
                limit=FLATTEST,
            )
        most = 1.25 * chord
        if abs(rise) > most:
            raise RefusedEdit(
                "an arc this deep comes round to itself; part it into two walls",
                element=wall.id,
                field="rise",
                value=rise,
                limit=most,
            )
        # An arc that turns right bows out to the left of its chord.
        return bent(project, wall, -2 * rise / chord)


class StraightenWall(Command):
    """An arc made straight along its chord."""

    kind: Literal["straighten_wall"] = "straighten_wall"
    phrase: ClassVar[str] = "straighten a wall"
    wall: Id

    def apply(self, project: Project) -> Project:
        """The project with the wall straight. Raises: UnknownElement."""
        return bent(project, get_element(project, self.wall, Wall), 0.0)


def bent(project: Project, wall: Wall, bulge: float) -> Project:
    """The project with another bulge for a wall; openings and tees keep their share of its length."""
    before, after = wall_axis(project, wall), Axis(*wall_points(project, wall), bulge)
    share = after.length / before.length
    moved = [changed(held, distance=held.distance * share) for held in standing_on(project, wall.id)]
    return put(project, changed(wall, bulge=bulge), *moved)
