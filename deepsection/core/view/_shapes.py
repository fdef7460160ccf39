"""What walls that are not plain show in plan besides their cut: the foot of one that leans, and mouldings."""

from __future__ import annotations

from collections.abc import Iterator

import shapely

from ..drawing import Mark, Stroke, path
from ..geometry import Frame
from ..resolve import Building, PlannedWall, moulding_plan

LEAST = 5.0
"""A piece of an outline shorter than this (mm) is not drawn."""


def shape_marks(building: Building, level: str, cut: float, frame: Frame) -> Iterator[Mark]:
    """Below the cut (a height in mm) in thin lines, above it dashed."""
    for wall in building.plan.on(level):
        if not wall.is_plumb:
            yield from _outline(wall, wall.footprint, "fine", "foot", frame)
        for moulding in wall.wall.mouldings:
            top = building.totals[f"moulding:{wall.wall.id}:{moulding.id}"]
            depth = max(spot.up for spot in moulding.section) - min(spot.up for spot in moulding.section)
            pen = "hidden" if top - depth > cut else "fine"
            for area in moulding_plan(wall, moulding, building.mitres[wall.wall.id, moulding.id]):
                yield from _outline(wall, area, pen, "moulding", frame)


def _outline(wall: PlannedWall, area: shapely.Geometry, pen: str, feature: str, frame: Frame) -> Iterator[Mark]:
    for line in shapely.get_parts(frame.turn(shapely.line_merge(area.boundary))):
        closed = bool(line.is_ring)
        if line.length > LEAST:
            points = list(line.coords)[: -1 if closed else None]
            yield Stroke(path(*points), pen, closed=closed, part=f"{wall.wall.id}/{feature}//", feature=feature)
