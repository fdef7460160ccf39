"""The grid in plan: chain lines past the house, with bubbles."""

from __future__ import annotations

import math
from collections.abc import Iterator

import shapely

from ...building.kind import PlanOf
from ...drawing import NUMBER, Label, Lettered, Stroke, Text, path
from ...geometry import Line
from ...geometry.plane import across_box
from ..walls.planned import WALLS

BUBBLE = 4.0
"""Radius of a grid bubble, paper mm. Common practice, no source."""
STEP = 6.0
"""By which a bubble stands farther out where there is no room (paper mm)."""
PAST = 36.0
"""Paper mm that a grid line runs past the house: clear of the dimensions."""
ALONE = 3000.0
"""Around the places of grid lines without a house (mm)."""


def grid_marks(shown: PlanOf) -> Iterator[Lettered]:
    """Every line of the grid, past the walls of the storey, or of the house where it has none."""
    grid, frame = shown.project.grid, shown.frame
    if not grid:
        return
    area = shown.placed[WALLS].reach_of(shown.level)
    if area.is_empty:
        area = shapely.union_all([shapely.Point(line.x, line.y).buffer(ALONE) for line in grid])
    box = frame.turn(area).bounds
    for line in grid:
        along = math.radians(line.angle)
        u, w = frame.plan_to_turned(line.x, line.y)
        du, dw = frame.plan_to_turned(math.cos(along), math.sin(along))
        yield from _grid(line.id, line.name, Line(u, w, du, dw), box, shown.scale)


def _grid(id: str, name: str, line: Line, box: tuple[float, float, float, float], scale: float) -> Iterator[Lettered]:
    """A chain line past the house, with a bubble at both ends."""
    ends = across_box(line, box, PAST * scale)
    if ends is None:
        return
    part, radius = f"{id}/grid//", BUBBLE * scale
    yield Stroke(path(*ends), "centre", part=part, feature="grid")
    for (u, w), way in zip(ends, (-1.0, 1.0)):
        cu, cw = u + line.dx * radius * way, w + line.dy * radius * way
        circle = ((cu - radius, cw, 1.0), (cu + radius, cw, 1.0))
        ring = Stroke(circle, "symbol", closed=True, part=part, feature="grid")
        text = Text(cu, cw, name, 3.5 if len(name) < 3 else 2.5, "centre", "middle", 0, "bold", part)
        # Farther out where something stands.
        places = [(line.dx * way * k * STEP * scale, line.dy * way * k * STEP * scale) for k in range(5)]
        yield Label(f"grid:{id}:{'start' if way < 0 else 'end'}", (ring, text), places, NUMBER, shapely.Point(u, w))
