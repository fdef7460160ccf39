"""Where joints stand and how long walls are: plain arithmetic on the document."""

from __future__ import annotations

import math

from .elements import Corner, FreeJoint, Wall
from .project import Project

Point = tuple[float, float]


def joint_point(project: Project, id: str) -> tuple[float, float]:
    """Plan point (x, y) mm of a joint; a hosted one is measured along its wall."""
    joint = next(joint for joint in project.joints if joint.id == id)
    if isinstance(joint, FreeJoint):
        return joint.x, joint.y
    host = next(wall for wall in project.walls if wall.id == joint.wall)
    return along_wall(project, host, joint.end, joint.distance)


def wall_points(project: Project, wall: Wall) -> tuple[tuple[float, float], tuple[float, float]]:
    """Start and end (x, y) mm of the set-out line of a wall."""
    return joint_point(project, wall.start), joint_point(project, wall.end)


def wall_length(project: Project, wall: Wall) -> float:
    """Length in mm of the set-out line, joint to joint."""
    start, end = wall_points(project, wall)
    return math.dist(start, end)


def along_wall(project: Project, wall: Wall, end: str, distance: float) -> tuple[float, float]:
    """Plan point at a distance from the named end along the set-out line."""
    start, stop = wall_points(project, wall)
    if end == "end":
        start, stop = stop, start
    length = math.dist(start, stop) or 1.0
    ratio = distance / length
    return start[0] + (stop[0] - start[0]) * ratio, start[1] + (stop[1] - start[1]) * ratio


def corner_point(project: Project, corner: Corner) -> tuple[float, float]:
    """Plan point (x, y) mm of an outline's corner."""
    return joint_point(project, corner.joint) if corner.joint else (corner.x, corner.y)
