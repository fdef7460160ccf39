"""What the corner of two outer walls is built around, in plan: u outward of the one wall, v along it from the joint."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ...geometry import Point
from ...junctions import Junction
from ...junctions.facts import layers_of
from ...resolve import Building, PlannedWall
from ...trades.makeups.model import Tradition
from ..faces import WallFaces, wall_faces
from ..lie import UprightLie

LEAST_ANGLE = 20.0
"""Walls that meet sharper, or go on straighter (degrees), have no corner of usual pieces."""


@dataclass(frozen=True, slots=True)
class CornerSite:
    """Both walls, the angle between them (degrees), whether it is a corner inside of the house's outline, and the
    width of the boards on it."""

    tradition: Tradition
    one: WallFaces
    other: WallFaces
    angle: float
    inside: bool
    boards: float

    @property
    def _turn(self) -> tuple[float, float]:
        """Cosine of the angle, and its sine: positive where the other wall goes outward."""
        angle = math.radians(self.angle)
        return math.cos(angle), math.sin(angle) if self.inside else -math.sin(angle)

    def meet(self, one: float, other: float) -> Point:
        """Where faces at distances outward of both walls meet."""
        c, s = self._turn
        return one, (other + c * one) / s

    def past(self, corner: Point, along: float, out: float = 0.0) -> Point:
        """A place at a distance from a corner along the other wall, and outward of that."""
        c, s = self._turn
        return corner[0] + s * along - c * out, corner[1] + c * along + s * out

    def around(self, one: float, other: float, reach: float) -> list[Point]:
        """Along faces of both walls: from a distance along the one to the corner and on along the other."""
        corner = self.meet(one, other)
        return [(corner[0], corner[1] + reach), corner, self.past(corner, reach)]


def corner_walls(building: Building, junction: Junction) -> list[tuple[PlannedWall, float]] | None:
    """Both walls with where along them they meet, ordered by their layers; None where one is no straight plumb wall."""
    found = []
    for end in junction.ends:
        wall = building.plan.by_id.get(end.element)
        if wall is None or wall.axis.is_arc or not wall.is_plumb:
            return None
        found.append((wall, 0.0 if wall.wall.start == end.sub else wall.length))
    return sorted(found, key=lambda held: repr(layers_of(building, held[0].wall.make_up)))


def corner_site(building: Building, junction: Junction) -> CornerSite | None:
    """What is built around at a corner of outer walls."""
    walls, facts = corner_walls(building, junction), dict(junction.facts)
    angle = facts["angle"]
    if walls is None or facts["turn"] == "straight on" or not isinstance(angle, float):
        return None
    (one, _), (other, _) = walls
    boards = [building.placed.make_ups[wall.wall.make_up].corner_boards for wall, _ in walls]
    return CornerSite(
        building.placed.project.tradition,
        wall_faces(building, one),
        wall_faces(building, other),
        angle,
        facts["turn"] == "inside",
        0.0 if facts["turn"] == "inside" else min(boards),
    )


def corner_lies(building: Building, junction: Junction) -> list[UprightLie]:
    """Up the corner."""
    walls = corner_walls(building, junction)
    if walls is None:
        return []
    wall, at = walls[0]
    dx, dy = wall.axis.direction(at)
    away = (dx, dy) if at == 0.0 else (-dx, -dy)
    run = junction.runs[0]
    low, high = sorted((run.start[2], run.end[2]))
    return [UprightLie(wall.at(at, 0.0), wall.stand(at).out, away, low, high)]
