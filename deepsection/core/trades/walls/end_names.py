"""What the ends of a wall are called."""

from __future__ import annotations

from ...model import Project, Wall, wall_axis, wall_points
from ...units import format_length


def corner_name(project: Project, wall: Wall, end: str) -> str:
    """Compass name of a wall's end: where it lies as seen from the middle of the wall."""
    start, stop = wall_points(project, wall)
    here, there = (start, stop) if end == "start" else (stop, start)
    dx, dy = here[0] - there[0], here[1] - there[1]
    if abs(dx) >= abs(dy):
        return "east" if dx > 0 else "west"
    return "north" if dy > 0 else "south"


def wall_name(project: Project, wall: Wall) -> str:
    """What a wall is called in a list: its status, the side that its outside faces, its length, and its storey."""
    axis = wall_axis(project, wall)
    dx, dy = axis.direction(axis.length / 2)
    ox, oy = (-dy, dx) if wall.outside == "left" else (dy, -dx)
    side = ("east" if ox > 0 else "west") if abs(ox) >= abs(oy) else ("north" if oy > 0 else "south")
    level = next(rung.name for rung in project.rungs if rung.id == wall.base.level)
    facing = f"to the {side}, " if wall.status == "outer" else ""
    return f"{wall.status} wall {facing}{format_length(axis.length, project.units)}, {level}"
