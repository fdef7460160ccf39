"""The directions of a part: along the line of what it belongs to, out from it, and up.

They turn and mirror with the house, as a box along its axes would not.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..building.parts import Part
from ..geometry import Axis, Point
from ..model import Beam, Downpipe, Opening, Project, Wall
from ..model.places import beam_points, corner_point, joint_point
from .building import Building

LEVEL = 0.2
"""A member whose axis has so much of its length in plan (sine of its angle to the plumb line) runs along it."""


@dataclass(frozen=True, slots=True)
class OwnFrame:
    """Along an axis from its start, and out from it: to its left where `left` is 1.0, to its right where it is -1.0.

    `whole`: its ends are those of the part, as of the layers of a wall.
    """

    axis: Axis
    left: float = 1.0
    whole: bool = False

    def own(self, points: NDArray[np.float64]) -> NDArray[np.float64]:
        """(n, 3) float of distances along, out and up (mm) from (n, 3) float of x, y, z."""
        if self.axis.is_arc:
            plan = [(self.axis.along((x, y)), self.left * self.axis.left_of((x, y))) for x, y, _ in points.tolist()]
            return np.column_stack((np.array(plan), points[:, 2]))
        (fx, fy), (ox, oy) = self.directions(0.0)
        x, y = points[:, 0] - self.axis.start[0], points[:, 1] - self.axis.start[1]
        return np.column_stack((x * fx + y * fy, x * ox + y * oy, points[:, 2]))

    def at(self, along: float, out: float) -> Point:
        """The point in plan at such distances."""
        return self.axis.at(along, self.left * out)

    def directions(self, along: float) -> tuple[Point, Point]:
        """Forward and outward there: unit vectors in plan."""
        fx, fy = self.axis.direction(along)
        return (fx, fy), (-self.left * fy, self.left * fx)


def own_frame(building: Building, part: Part) -> OwnFrame:
    """The frame of a part: of a member that does not stand, along itself; else of what its slot or its element names,
    an edge, a wall; else as the first wall of the house lies."""
    project = building.placed.project
    base = next(_frames(building, project, part), None) or _usual(building, project)
    if part.axis is None or math.hypot(*part.axis[:2]) < LEVEL:
        return base
    ax, ay = part.axis[0], part.axis[1]
    size = math.hypot(ax, ay)
    (fx, fy), (ox, oy) = base.directions(0.0)
    onward, outward = ax * fx + ay * fy, ax * ox + ay * oy
    way = math.copysign(1.0, onward if abs(onward) > 0.5 * size else outward) / size
    x, y, _ = part.solid.mesh()[0].mean(axis=0).tolist()
    # Its own left is outside where that is so of what it belongs to: a mirrored house has mirrored members.
    return OwnFrame(Axis((x, y), (x + ax * way, y + ay * way)), base.left)


def _frames(building: Building, project: Project, part: Part) -> Iterator[OwnFrame]:
    element = project.find(part.element)
    for word in part.key.rsplit("/", 1)[1].split(":"):
        yield from _edges(project, element, word)
        named = project.walls_by_id.get(word)
        if named is not None and word != part.element:
            yield from _lines(building, project, named)
    yield from _lines(building, project, element, whole=True)


def _edges(project: Project, element: Any, word: str) -> Iterator[OwnFrame]:
    """The edge of an outline that has an id, or that begins at a corner that has it."""
    ring = _ring(element)
    edges = getattr(element, "edges", None) or ring
    for k, held in enumerate(edges):
        if getattr(held, "id", None) == word and len(edges) == len(ring):
            yield _along(project, ring, k)


def _lines(building: Building, project: Project, element: Any, *, whole: bool = False) -> Iterator[OwnFrame]:
    """The line of an element: of a wall or what stands in it, between two points, its first edge, its turn."""
    wall = building.plan.by_id.get(element.wall if isinstance(element, Opening) else element.id)
    if wall is not None:
        yield OwnFrame(wall.axis, wall.side, whole and isinstance(element, Wall))
    elif isinstance(element, Beam):
        yield _away(project, *beam_points(project, element))
    elif hasattr(element, "x2"):
        yield _away(project, (element.x1, element.y1), (element.x2, element.y2))
    elif ring := _ring(element):
        yield _along(project, ring, 0)
    elif hasattr(element, "turn"):
        c, s = math.cos(math.radians(element.turn)), math.sin(math.radians(element.turn))
        # What is turned by half a turn is often the same: it runs away from the middle of the house.
        middle = _middle(project)
        way = 1.0 if middle is None or (element.x - middle[0]) * c + (element.y - middle[1]) * s >= 0 else -1.0
        yield _away(project, (element.x, element.y), (element.x + way * c, element.y + way * s))
    elif isinstance(element, Downpipe):
        yield from _edges(project, project.find(element.roof), element.edge)


def _middle(project: Project) -> Point | None:
    """The middle of all corners of walls, where there are such."""
    corners = [joint_point(project, joint.id) for joint in project.joints]
    many = len(corners)
    return (sum(x for x, _ in corners) / many, sum(y for _, y in corners) / many) if many else None


def _away(project: Project, start: Point, end: Point) -> OwnFrame:
    """Of what has no outside by itself: the side away from the middle of the house."""
    axis, middle = Axis(start, end), _middle(project)
    return OwnFrame(axis, 1.0 if middle is None or axis.left_of(middle) <= 0 else -1.0)


def _ring(element: Any) -> tuple[Any, ...]:
    """The corners of what has an outline of its own."""
    held = getattr(element, "corners", None) or getattr(element, "outline", None)
    return held if isinstance(held, tuple) else ()


def _along(project: Project, ring: tuple[Any, ...], k: int) -> OwnFrame:
    """An edge of an outline, outwards from it; it runs from the corner whose name comes first: that of a mirrored house
    is gone round the other way."""
    points = [_point(project, corner) for corner in ring]
    turned = sum(x0 * y1 - x1 * y0 for (x0, y0), (x1, y1) in zip(points, (*points[1:], points[0])))
    after = (k + 1) % len(ring)
    names = [getattr(ring[n], "id", None) or f"{n:03}" for n in (k, after)]
    start, end = (k, after) if names[0] <= names[1] else (after, k)
    way = 1.0 if start == k else -1.0
    return OwnFrame(Axis(points[start], points[end]), math.copysign(way, -turned * way))


def _point(project: Project, corner: Any) -> Point:
    if isinstance(corner, tuple):
        return corner[0], corner[1]
    return corner_point(project, corner) if hasattr(corner, "joint") else (corner.x, corner.y)


def _usual(building: Building, project: Project) -> OwnFrame:
    wall = next((building.plan.by_id[held.id] for held in project.walls if held.id in building.plan.by_id), None)
    return OwnFrame(Axis(wall.start, wall.end), wall.side) if wall else OwnFrame(Axis((0.0, 0.0), (1.0, 0.0)))
