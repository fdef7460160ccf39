"""Rafters over a wall with a single top plate: such a plate is too weak to carry one between two studs."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from ...building.parts import Part
from ...geometry import Point
from ..roofs.placed import ResolvedRoof, RoofPlane
from .planned import PlannedWall

TOLERANCE = 25.4
"""A rafter may stand off the middle of a stud by so much (mm): IRC R602.3.2, exception (from memory)."""
SQUARE = 1e-3
"""A bearing line runs along a wall when it is askew by less than this (sine)."""
BESIDE = 500.0
"""It lies on the wall when it is nearer than this to its line (mm)."""
UNDER = 10.0
"""A slope bears on a wall that ends at the height of its plate, give or take this (mm)."""


def rafters_off_studs(
    wall: PlannedWall, plate: float, studs: Iterable[Part], roofs: Iterable[tuple[ResolvedRoof, Iterable[Part]]]
) -> Iterator[tuple[float, Point]]:
    """How far (mm) each rafter that bears on a wall stands off the nearest stud where that is too far, and where."""
    middles = [_along(wall, stud) for stud in studs if stud.role == "stud"]
    # Past the last studs of a wall a rafter stands on the wall that it meets.
    first, last = min(middles, default=0.0) - TOLERANCE, max(middles, default=0.0) + TOLERANCE
    for roof, parts in roofs:
        slopes = [roof.slot_of(plane) for plane in roof.planes if not plane.upper and _bears(wall, plate, plane)]
        for part in parts:
            if part.role != "rafter" or not any(part.key.split("/")[3].startswith(f"{slot}:") for slot in slopes):
                continue
            along = _along(wall, part)
            off = min((abs(along - middle) for middle in middles), default=0.0)
            if first <= along <= last and off > TOLERANCE:
                yield off, wall.at(along)


def _along(wall: PlannedWall, part: Part) -> float:
    """Where along a wall the middle of a member lies."""
    x0, y0, _, x1, y1, _ = part.solid.reach
    (x, y), (dx, dy) = wall.start, wall.run
    return ((x0 + x1) / 2 - x) * dx + ((y0 + y1) / 2 - y) * dy


def _bears(wall: PlannedWall, plate: float, plane: RoofPlane) -> bool:
    """Whether a slope bears on a wall."""
    (dx, dy), line = wall.run, plane.line
    (x, y), (u, v) = wall.start, plane.eave_start
    near = abs((u - x) * dy - (v - y) * dx) < BESIDE
    return near and abs(dx * line.dy - dy * line.dx) < SQUARE and abs(plane.plate - plate) < UNDER
