"""What the plan shows of the site: the grid with its bubbles, heights of the ground, and its steps."""

from __future__ import annotations

import math
from collections.abc import Iterator

import shapely

from ..drawing import Mark, Stroke, Text, path
from ..geometry import Frame, Line, Point
from ..model import Project
from ..resolve import Building
from ..units import Units, format_length

BUBBLE = 4.0
"""Radius of a grid bubble, paper mm. Common practice, no source."""
PAST = 27.0
"""Paper mm that a grid line runs past the house: clear of the dimensions."""
CROSS = 1.6
"""Half the size of the cross at a height of the ground, paper mm."""


def site_marks(building: Building, project: Project, level: str, frame: Frame, scale: float) -> Iterator[Mark]:
    """Marks of the grid and of the ground."""
    walls = (building.plan.on(level) or building.plan.walls) if project.grid or project.steps else ()
    held = [wall.footprint for wall in walls]
    if not held:
        held = [shapely.Point(line.x, line.y).buffer(3000.0) for line in project.grid]
    if held:
        box = frame.turn(shapely.union_all([shapely.box(*shape.bounds) for shape in held])).bounds
        for line in project.grid:
            along = math.radians(line.angle)
            u, w = frame.plan_to_turned(line.x, line.y)
            du, dw = frame.plan_to_turned(math.cos(along), math.sin(along))
            yield from _grid(line.id, line.name, Line(u, w, du, dw), box, scale)
        for step in project.steps:
            a, b = (frame.plan_to_turned(x, y) for x, y in ((step.x1, step.y1), (step.x2, step.y2)))
            yield from _step(step.id, a, b, step.rise, box, scale, project.units)
    for spot in project.spots:
        u, w = frame.plan_to_turned(spot.x, spot.y)
        part, reach = f"{spot.id}/ground//", CROSS * scale
        for du, dw in ((reach, reach), (reach, -reach)):
            yield Stroke(path((u - du, w - dw), (u + du, w + dw)), "edge", part=part, feature="ground")
        yield Text(u + 2.4 * scale, w, _signed(spot.rise, project.units), 2.2, "left", "middle", 0, "mono", part)


def _signed(rise: float, units: Units) -> str:
    text = format_length(abs(rise), units)
    return f"{'-' if rise < 0 else '+'}{text}"


def _within(line: Line, box: tuple[float, float, float, float], past: float) -> tuple[Point, Point] | None:
    """A line as far as it runs past a box."""
    reach = math.dist(box[:2], box[2:]) + math.dist((line.x, line.y), box[:2]) + past
    grown = shapely.box(box[0] - past, box[1] - past, box[2] + past, box[3] + past)
    piece = shapely.intersection(shapely.linestrings([line.at(-reach), line.at(reach)]), grown)
    return (piece.coords[0], piece.coords[-1]) if piece.length > 1.0 else None


def _grid(id: str, name: str, line: Line, box: tuple[float, float, float, float], scale: float) -> Iterator[Mark]:
    """A chain line past the house, with a bubble at both ends."""
    ends = _within(line, box, PAST * scale)
    if ends is None:
        return
    part, radius = f"{id}/grid//", BUBBLE * scale
    yield Stroke(path(*ends), "centre", part=part, feature="grid")
    for (u, w), way in zip(ends, (-1.0, 1.0)):
        cu, cw = u + line.dx * radius * way, w + line.dy * radius * way
        circle = ((cu - radius, cw, 1.0), (cu + radius, cw, 1.0))
        yield Stroke(circle, "symbol", closed=True, part=part, feature="grid")
        yield Text(cu, cw, name, 3.5 if len(name) < 3 else 2.5, "centre", "middle", 0, "bold", part)


def _step(
    id: str, a: Point, b: Point, rise: float, box: tuple[float, float, float, float], scale: float, units: Units
) -> Iterator[Mark]:
    """A step of the ground: its edge, ticks on its lower side, and its height."""
    length = math.dist(a, b)
    line = Line(a[0], a[1], (b[0] - a[0]) / length, (b[1] - a[1]) / length)
    ends = _within(line, box, PAST * scale / 2)
    if ends is None:
        return
    part = f"{id}/ground//"
    yield Stroke(path(*ends), "edge", part=part, feature="ground")
    down = -1.0 if rise > 0 else 1.0
    nu, nw = -line.dy * down, line.dx * down
    count = int(math.dist(*ends) / (6.0 * scale))
    for k in range(count):
        u, w = (ends[0][0] + line.dx * (k + 0.5) * 6.0 * scale, ends[0][1] + line.dy * (k + 0.5) * 6.0 * scale)
        yield Stroke(path((u, w), (u + nu * 2.0 * scale, w + nw * 2.0 * scale)), "fine", part=part, feature="ground")
    u, w = ends[1][0] - line.dx * 6 * scale - nu * 2.5 * scale, ends[1][1] - line.dy * 6 * scale - nw * 2.5 * scale
    yield Text(u, w, f"step {format_length(abs(rise), units)}", 2.2, "centre", "middle", 0, "mono", part)
