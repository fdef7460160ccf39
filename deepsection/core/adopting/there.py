"""What of a plan stands already: walls of the project that lie where the file has them, when it is read again."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from shapely import LineString, STRtree

from ..geometry import Axis, Point
from ..model import Project, joint_point
from ..reading import FoundWall
from ..trades.walls.bands import layer_bands

BESIDE = 15.0
"""A wall stands where one was drawn when their middles lie no farther apart than this (mm)."""
SHARE = 0.8
"""And when it covers this share of it."""
TURNED = math.sin(math.radians(0.5))
FACETED = 100.0
"""Walls that are arcs are looked for by chords, which lie no farther from them than this (mm)."""
SAME_OPENING = 150.0
"""An opening whose middle lies this near to where the file has it (mm) stays, in a wall that does."""


@dataclass(frozen=True, slots=True)
class Stands:
    """A wall of the project: its joints, its set-out line, and the middle of its body as an axis."""

    id: str
    joints: tuple[str, str]
    line: Axis
    axis: Axis


def standing_walls(project: Project, level: str) -> list[Stands]:
    """The walls of a storey as they stand."""
    make_ups = {held.id: held for held in project.make_ups}
    found = []
    for wall in project.walls:
        if wall.base.level != level or wall.base.on_roof:
            continue
        line = Axis(joint_point(project, wall.start), joint_point(project, wall.end), wall.bulge)
        bands = layer_bands(wall, make_ups[wall.make_up])
        out = (bands[0].outer + bands[-1].inner) / 2
        left = out if wall.outside == "left" else -out
        found.append(
            Stands(
                wall.id, (wall.start, wall.end), line, Axis(line.at(0.0, left), line.at(line.length, left), wall.bulge)
            )
        )
    return found


def drawn_axis(wall: FoundWall, shift: Point) -> Axis:
    """The middle of a wall of a plan, laid over the lowest one by its shift."""
    (x0, y0), (x1, y1) = wall.start, wall.end
    return Axis((x0 + shift[0], y0 + shift[1]), (x1 + shift[0], y1 + shift[1]), wall.bulge)


def there(standing: list[Stands], walls: Mapping[int, FoundWall], shift: Point) -> dict[int, list[Stands]]:
    """For each wall of a plan, by number, the walls that stand for it already; those of which none do are left out."""
    found: dict[int, list[Stands]] = {}
    near = Near([held.axis for held in standing])
    for number, wall in walls.items():
        drawn = drawn_axis(wall, shift)
        on = [standing[k] for k in near.to(drawn, BESIDE) if _lies_on(standing[k].axis, drawn)]
        share = sum(covered(held.axis, drawn) for held in on) / max(drawn.length, 1.0)
        if share >= SHARE:
            found[number] = on
    return found


class Near:
    """Which of many walls lie near to one: those that are looked at one by one, be there never so many."""

    def __init__(self, axes: Sequence[Axis]) -> None:
        self._tree = STRtree([LineString(axis.points()) for axis in axes])

    def to(self, axis: Axis, away: float) -> list[int]:
        """The positions of those that may lie so near to a wall (mm), in order."""
        found = self._tree.query(LineString(axis.points()), predicate="dwithin", distance=away + FACETED)
        return sorted(int(k) for k in found)


def _lies_on(axis: Axis, drawn: Axis) -> bool:
    if axis.is_arc != drawn.is_arc or covered(axis, drawn) < min(300.0, 0.5 * axis.length):
        return False
    middle = axis.at(axis.length / 2)
    if abs(drawn.left_of(middle)) > BESIDE:
        return False
    a, b = axis.direction(axis.length / 2), drawn.direction(drawn.along(middle))
    return abs(a[0] * b[1] - a[1] * b[0]) < TURNED


def covered(axis: Axis, drawn: Axis) -> float:
    """How much of a drawn wall lies beside one that stands (mm)."""
    low, high = sorted((drawn.along(axis.start), drawn.along(axis.end)))
    return max(min(high, drawn.length) - max(low, 0.0), 0.0)
