"""What a plan offers to snap to: ends and middles of walls, lines, edges of roofs."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from ..geometry import Frame
from ..model import ConstructionLine, GridLine, Project
from ..resolve import Building, PlannedWall, storeys
from ..trades.levels.place import storey_below
from ..trades.roofs.model import ROOF_EDGES
from ..trades.roofs.plan import RoofSide, roof_sides


@dataclass(frozen=True, slots=True)
class SnapPoint:
    """A point in the turned plan to snap to, with what it is and the joint or wall it belongs to."""

    u: float
    w: float
    kind: Literal["joint", "middle"]
    label: str
    joint: str | None = None
    wall: str | None = None


@dataclass(frozen=True, slots=True)
class SnapLine:
    """The set-out line of a wall in the turned plan, start to end; `bulge` of an arc as in paths."""

    u1: float
    w1: float
    u2: float
    w2: float
    wall: str
    bulge: float = 0.0


@dataclass(frozen=True, slots=True)
class GuideLine:
    """A construction line in the turned plan: through a point, in a unit direction."""

    u: float
    w: float
    du: float
    dw: float
    id: str
    label: str = "a construction line"


@dataclass(frozen=True, slots=True)
class Snaps:
    """What the plan offers to snap to; `axes` are the lines of all storeys, along which openings are dragged.

    `sides` are the edges of the roofs over the storey, `treatments` what an edge can be.
    """

    points: tuple[SnapPoint, ...]
    lines: tuple[SnapLine, ...]
    axes: tuple[SnapLine, ...]
    guides: tuple[GuideLine, ...] = ()
    sides: tuple[RoofSide, ...] = ()
    treatments: tuple[tuple[str, str], ...] = tuple(ROOF_EDGES.items())


def plan_snaps(building: Building, project: Project, level: str, look_deg: float) -> Snaps:
    """Ends and middles of set-out lines, and the lines themselves, in the turned plan of a storey.

    The ends of walls below are offered too, so that walls can stand on each other.
    """
    frame = Frame.looking(look_deg)
    points: dict[str, SnapPoint] = {}
    middles = []

    def ends(walls: tuple[PlannedWall, ...], label: str) -> None:
        for wall in walls:
            for joint, point in ((wall.wall.start, wall.start), (wall.wall.end, wall.end)):
                u, w = frame.plan_to_turned(*point)
                points.setdefault(joint, SnapPoint(u, w, "joint", label, joint, wall.wall.id))

    own = building.plan.on(level)
    ends(own, "end of wall")
    plate = next((held.plate for held in storeys(project) if held.level == level), None)
    ends(building.plan.on(storey_below(project, level) or ""), "end of wall below")
    for wall in own:
        middles.append(_middle_snap(wall, frame))
    axes = tuple(_line_snap(wall, frame) for wall in building.plan.walls)
    guides = (
        *(_guide(held, frame) for held in project.construction if held.level in (None, level)),
        *(_guide(held, frame, f"grid {held.name}") for held in project.grid),
    )
    sides = roof_sides([roof for roof in building.roofs if plate and roof.block.plate == plate], frame)
    return Snaps((*points.values(), *middles), tuple(_line_snap(wall, frame) for wall in own), axes, guides, sides)


@lru_cache(maxsize=4096)
def _line_snap(wall: PlannedWall, frame: Frame) -> SnapLine:
    ends = (frame.plan_to_turned(*point) for point in (wall.start, wall.end))
    (u1, w1), (u2, w2) = ends
    return SnapLine(u1, w1, u2, w2, wall.wall.id, wall.wall.bulge)


@lru_cache(maxsize=4096)
def _middle_snap(wall: PlannedWall, frame: Frame) -> SnapPoint:
    middle = frame.plan_to_turned(*wall.at(wall.length / 2))
    return SnapPoint(*middle, "middle", "middle of wall", None, wall.wall.id)


def _guide(line: ConstructionLine | GridLine, frame: Frame, label: str = "a construction line") -> GuideLine:
    angle = math.radians(line.angle)
    along = frame.plan_to_turned(math.cos(angle), math.sin(angle))
    return GuideLine(*frame.plan_to_turned(line.x, line.y), *along, line.id, label)
