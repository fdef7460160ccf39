"""What the ends of a wall are called."""

from __future__ import annotations

from ..model import Project, Wall, wall_points


def corner_name(project: Project, wall: Wall, end: str) -> str:
    """Compass name of a wall's end: where it lies as seen from the middle of the wall."""
    start, stop = wall_points(project, wall)
    here, there = (start, stop) if end == "start" else (stop, start)
    dx, dy = here[0] - there[0], here[1] - there[1]
    if abs(dx) >= abs(dy):
        return "east" if dx > 0 else "west"
    return "north" if dy > 0 else "south"
