"""A wall put flush with another one, or with a post, by the faces that are pointed at."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import ClassVar, Literal

from ....document.command import Command
from ....document.rebuilding import get_element
from ....document.values import Id, Mm
from ....errors import RefusedEdit
from ....geometry import Line, Point, line_through, offset_line
from ....model.places import wall_axis
from ....model.project import Project
from ...posts.model import Post
from ..bands import layer_bands
from ..model import Wall
from .walls import MoveWall

PARALLEL = 1e-4
"""Faces whose directions differ by less (cross product) can be flush."""
NEAR = 300.0
"""A face is meant when it is pointed at from this close (mm)."""


class AlignWall(Command):
    """A straight wall moved across, until the face of it nearest to one point is flush with a face near another.

    The other face is one of a parallel wall or of a square post.
    """

    kind: Literal["align_wall"] = "align_wall"
    phrase: ClassVar[str] = "align a wall"
    wall: Id
    x: Mm
    y: Mm
    to_x: Mm
    to_y: Mm

    def apply(self, project: Project) -> Project:
        """The project with the wall moved. Raises: RefusedEdit, UnknownElement."""
        wall = get_element(project, self.wall, Wall)
        own = list(_wall_faces(project, wall))
        if not own:
            message = "an arc is flush with nothing: align a straight wall"
            raise RefusedEdit(message, element=wall.id, field="align")
        mine = min(own, key=lambda face: abs(face.left_of((self.x, self.y))))
        to: Point = (self.to_x, self.to_y)
        found = [face for face in _other_faces(project, wall, to) if _parallel(mine, face)]
        target = min(found, key=lambda face: abs(face.left_of(to)), default=None)
        if target is None or abs(target.left_of(to)) > NEAR:
            message = "point at a face that runs parallel to this wall: of another wall, or of a square post"
            raise RefusedEdit(message, element=wall.id, field="align")
        across = mine.left_of((target.x, target.y))
        return MoveWall(wall=wall.id, dx=-mine.dy * across, dy=mine.dx * across).apply(project)


def _parallel(first: Line, second: Line) -> bool:
    return abs(first.dx * second.dy - first.dy * second.dx) < PARALLEL


def _wall_faces(project: Project, wall: Wall) -> Iterator[Line]:
    """The faces of all layers of a straight wall."""
    axis = wall_axis(project, wall)
    if axis.is_arc:
        return
    line = line_through(axis.start, axis.end)
    make_up = next(held for held in project.make_ups if held.id == wall.make_up)
    side = 1.0 if wall.outside == "left" else -1.0
    bands = layer_bands(wall, make_up)
    for outward in sorted({face for band in bands for face in (band.outer, band.inner)}):
        yield offset_line(line, side * outward)


def _other_faces(project: Project, wall: Wall, to: Point) -> Iterator[Line]:
    for other in project.walls:
        if other.id != wall.id and other.base.level == wall.base.level:
            axis = wall_axis(project, other)
            if not axis.is_arc and -NEAR < axis.along(to) < axis.length + NEAR:
                yield from _wall_faces(project, other)
    for post in project.posts:
        if math.dist((post.x, post.y), to) < NEAR + post.width:
            yield from _post_faces(post)


def _post_faces(post: Post) -> Iterator[Line]:
    if post.shape == "round":
        return
    for degrees, reach in ((0.0, (post.depth or post.width) / 2), (90.0, post.width / 2)):
        angle = math.radians(post.turn + degrees)
        line = Line(post.x, post.y, math.cos(angle), math.sin(angle))
        yield offset_line(line, reach)
        yield offset_line(line, -reach)
