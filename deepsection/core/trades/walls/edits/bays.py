"""Edits that draw walls from a wall: bays cut into it, and parallels of it."""

from __future__ import annotations

import itertools
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from ....document.command import Command
from ....document.rebuilding import changed, get_element, put, rebuild
from ....document.values import Id, Mm, Positive
from ....errors import RefusedEdit
from ....geometry import Axis, Point, bulge_of
from ....model.places import OnWall, along_from_start, standing_on, wall_axis
from ....model.project import Project
from ...drawings.model import WallSection
from ...openings.model import Opening
from ..model import FreeJoint, Wall
from .splitting import SHORTEST

Shape = Literal["square", "angled", "bowed"]


class AddBay(Command):
    """A bay in a straight wall: its middle at a distance from the wall's start, its width, and how far it stands out.

    Square: three walls at right angles. Angled: the front is `front` wide (by default its sides lie at 45 degrees).
    Bowed: one arc that rises by `out`. The wall keeps its id before the bay, and is `rest` after it; the bay's walls
    are built alike. `out` below 0 is a recess.
    """

    kind: Literal["add_bay"] = "add_bay"
    phrase: ClassVar[str] = "add a bay"
    wall: Id
    distance: Mm
    width: Positive
    out: Mm
    shape: Shape = "square"
    front: Positive | None = None
    joints: Annotated[tuple[Id, ...], Field(min_length=2, max_length=4)]
    walls: Annotated[tuple[Id, ...], Field(min_length=1, max_length=3)]
    rest: Id

    def apply(self, project: Project) -> Project:
        """The project with the bay. Raises: RefusedEdit, UnknownElement."""
        wall = get_element(project, self.wall, Wall)
        axis = wall_axis(project, wall)
        first, last = self.distance - self.width / 2, self.distance + self.width / 2
        self._check(wall, axis, first, last)
        self._check_free(project, wall, axis.length, first, last)
        points = [axis.at(along, out) for along, out in self._corners(wall, first, last)]
        if len(self.joints) != len(points) or len(self.walls) != len(points) - 1:
            raise RefusedEdit(f"a {self.shape} bay has {len(points)} corners", element=wall.id, field="joints")
        bulges = [0.0] * len(self.walls)
        if self.shape == "bowed":
            # An arc that bows to the left of its chord turns right.
            side = 1.0 if (self.out > 0) == (wall.outside == "left") else -1.0
            bulges = [-side * bulge_of(self.width, rise=abs(self.out))]
        pieces = [
            changed(wall, id=id, start=a, end=b, bulge=bulge)
            for id, (a, b), bulge in zip(self.walls, itertools.pairwise(self.joints), bulges)
        ]
        moved = [self._placed(standing, axis.length, last) for standing in standing_on(project, wall.id)]
        return put(
            project,
            *(FreeJoint(id=id, x=x, y=y) for id, (x, y) in zip(self.joints, points)),
            changed(wall, end=self.joints[0]),
            *pieces,
            changed(wall, id=self.rest, start=self.joints[-1]),
            *moved,
        )

    def _check(self, wall: Wall, axis: Axis, first: float, last: float) -> None:
        def refuse(message: str, field: str, value: float, limit: float) -> None:
            raise RefusedEdit(message, element=wall.id, field=field, value=value, limit=limit)

        if axis.is_arc:
            raise RefusedEdit("a bay is cut into a straight wall; straighten this one", element=wall.id, field="rise")
        if self.width > axis.length - 2 * SHORTEST:
            refuse("the bay is wider than its wall", "width", self.width, axis.length)
        if first < SHORTEST or last > axis.length - SHORTEST:
            nearest = self.width / 2 + SHORTEST
            refuse("the bay reaches past the end of its wall", "distance", self.distance, nearest)
        if abs(self.out) < SHORTEST:
            refuse("the bay does not stand out: give a distance", "out", self.out, SHORTEST)
        if self.shape == "angled" and not SHORTEST < self._front() < self.width:
            message = "the front of an angled bay is narrower than the bay, and wider than nothing"
            refuse(message, "front", self._front(), self.width)
        if self.shape == "bowed" and abs(self.out) > self.width:
            refuse("a bow this deep comes round to itself", "out", self.out, self.width)

    def _front(self) -> float:
        return self.width - 2 * abs(self.out) if self.front is None else self.front

    def _corners(self, wall: Wall, first: float, last: float) -> list[tuple[float, float]]:
        """Its corners as (along, to the left of the wall's line)."""
        out = self.out if wall.outside == "left" else -self.out
        if self.shape == "bowed":
            return [(first, 0.0), (last, 0.0)]
        inset = 0.0 if self.shape == "square" else (self.width - self._front()) / 2
        return [(first, 0.0), (first + inset, out), (last - inset, out), (last, 0.0)]

    def _check_free(self, project: Project, wall: Wall, length: float, first: float, last: float) -> None:
        """Nothing may stand where the wall is cut."""
        for standing in standing_on(project, wall.id):
            if isinstance(standing, WallSection):
                continue
            along = along_from_start(standing, length)
            half = project.design_of(standing).width / 2 if isinstance(standing, Opening) else 0.0
            if along + half > first and along - half < last:
                name = project.number_of(standing) if isinstance(standing, Opening) else "a wall"
                raise RefusedEdit(
                    f"{name} stands where the bay would be; move it first",
                    element=wall.id,
                    field="distance",
                    value=self.distance,
                )

    def _placed(self, standing: OnWall, length: float, last: float) -> Any:
        """What stands on the wall before or after the bay, measured from the same end as before."""
        along = standing.distance if standing.end == "start" else length - standing.distance
        if along < last:
            before = last - self.width
            return changed(standing, distance=along if standing.end == "start" else before - along)
        rest = along - last
        after = length - last - rest
        return changed(standing, wall=self.rest, distance=rest if standing.end == "start" else after)


class OffsetWall(Command):
    """A wall parallel to another one, at a distance outward of its set-out line (inward below 0)."""

    kind: Literal["offset_wall"] = "offset_wall"
    phrase: ClassVar[str] = "draw a parallel wall"
    wall: Id
    id: Id
    joints: tuple[Id, Id]
    distance: Mm

    def apply(self, project: Project) -> Project:
        """The project with the new wall. Raises: RefusedEdit, UnknownElement."""
        wall = get_element(project, self.wall, Wall)
        axis = wall_axis(project, wall)
        left = self.distance if wall.outside == "left" else -self.distance
        if abs(left) < 1.0:
            raise RefusedEdit(
                "a parallel wall needs a distance: this one would lie on the other", element=wall.id, field="offset_by"
            )
        if axis.radius() - axis.turn * left < SHORTEST:
            raise RefusedEdit(
                "that far in, nothing is left of the arc",
                element=wall.id,
                field="offset_by",
                value=self.distance,
                limit=axis.radius(),
            )
        ends: list[Point] = [axis.at(0.0, left), axis.at(axis.length, left)]
        joints = [FreeJoint(id=id, x=x, y=y) for id, (x, y) in zip(self.joints, ends)]
        return put(project, *joints, changed(wall, id=self.id, start=self.joints[0], end=self.joints[1]))


class ClearConstruction(Command):
    """All construction lines taken away together."""

    kind: Literal["clear_construction"] = "clear_construction"
    phrase: ClassVar[str] = "clear the construction lines"

    def apply(self, project: Project) -> Project:
        """The project without construction lines."""
        return rebuild(project, construction=())
