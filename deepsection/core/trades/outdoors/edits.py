"""Edits of steps and rails: put as they are, or made for a door or under a beam with usual sizes."""

from __future__ import annotations

import math
from typing import ClassVar, Literal

from ...catalog import usual
from ...document.command import Command
from ...document.putting import PutElement
from ...document.rebuilding import get_element, put
from ...document.values import Id
from ...errors import RefusedEdit
from ...model.places import along_from_start, beam_points, wall_axis
from ...model.project import Project
from ..levels.model import LevelRule
from ..makeups.model import MakeUp
from ..openings.model import Opening
from ..posts.model import Beam
from ..walls.bands import layer_bands
from ..walls.model import Wall
from .model import OutsideSteps, Rail


class PutOutsideSteps(PutElement):
    kind: Literal["put_outside_steps"] = "put_outside_steps"
    phrase: ClassVar[str] = "change steps"
    steps: OutsideSteps


class PutRail(PutElement):
    kind: Literal["put_rail"] = "put_rail"
    phrase: ClassVar[str] = "change a rail"
    adding: ClassVar[str] = "put a rail"
    rail: Rail


class AddSteps(Command):
    """Steps with usual sizes before a door of an outer wall, down to the ground."""

    kind: Literal["add_steps"] = "add_steps"
    phrase: ClassVar[str] = "put steps to {name}"
    door: Id
    id: Id

    def apply(self, project: Project) -> Project:
        """The project with the steps. Raises: RefusedEdit, UnknownElement."""
        door = get_element(project, self.door, Opening)
        wall = get_element(project, door.wall, Wall)
        if door.unit != "door" or wall.status != "outer":
            raise RefusedEdit("steps lead to a door in an outer wall", element=door.id, field="steps")
        axis = wall_axis(project, wall)
        at = along_from_start(door, axis.length)
        outer = layer_bands(wall, get_element(project, wall.make_up, MakeUp))[0].outer
        side = 1.0 if wall.outside == "left" else -1.0
        x, y = axis.at(at, side * outer)
        dx, dy = axis.direction(at)
        units = project.units
        width = project.design_of(door).width + usual("steps_past_door", units)
        steps = OutsideSteps(
            id=self.id,
            x=x,
            y=y,
            turn=round(math.degrees(math.atan2(side * dx, -side * dy)), 6),
            width=width,
            going=usual("going", units),
            most_rise=usual("riser", units),
            landing=usual("landing", units),
            top=LevelRule(level=wall.base.level, offset=wall.base.offset + door.sill),
        )
        return put(project, steps)


class AddRail(Command):
    """A rail with usual sizes under a beam, from end to end of it, on the floor that its posts stand at."""

    kind: Literal["add_rail"] = "add_rail"
    phrase: ClassVar[str] = "put a rail"
    beam: Id
    id: Id

    def apply(self, project: Project) -> Project:
        """The project with the rail. Raises: RefusedEdit, UnknownElement."""
        beam = get_element(project, self.beam, Beam)
        (x1, y1), (x2, y2) = beam_points(project, beam)
        posts = {post.id: post for post in project.posts}
        ends = [posts[end.post] for end in (beam.start, beam.end) if end.post]
        level = ends[0].base.level if ends else project.walls[0].base.level if project.walls else beam.top.level
        # Between the faces of its posts.
        length = math.dist((x1, y1), (x2, y2)) or 1.0
        dx, dy = (x2 - x1) / length, (y2 - y1) / length
        a, b = (posts[end.post].width / 2 if end.post else 0.0 for end in (beam.start, beam.end))
        rail = Rail(
            id=self.id,
            x1=x1 + dx * a,
            y1=y1 + dy * a,
            x2=x2 - dx * b,
            y2=y2 - dy * b,
            base=LevelRule(level=level),
            height=usual("rail_height", project.units),
            gap=usual("rail_gap", project.units),
        )
        return put(project, rail)
