"""Vaults that are open to the attic beside them: walls around a vaulted room that stop at the plate."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator

import shapely

from ...building.diagnostics import Diagnostic
from ...geometry import Point
from ...model import Project
from ...units import format_length
from ..rooms.placed import RoomSpace
from ..walls.bodies import WallTop
from ..walls.planned import PlannedWall, WallPlan
from .vaults import Vault

STEP = 250.0
"""How far apart places along the edge of a vault are looked at (mm)."""
BESIDE = 20.0
"""How far outside of it the wall is looked for (mm)."""
OPEN = 75.0
"""A wall may end this far below the vault (mm): the depth of what lies on its plate."""
LEAST_OPEN = 600.0
"""An opening shorter than this (mm) is where a slope starts."""


def open_vaults(
    project: Project,
    rooms: tuple[RoomSpace, ...],
    vaults: dict[str, tuple[Vault, ...]],
    plan: WallPlan,
    tops: dict[str, WallTop],
) -> Iterator[Diagnostic]:
    """Rooms whose vault rises over a wall beside it with no other vault beyond: what is between is open to an attic."""
    held = [vault for own in vaults.values() for vault in own]
    for space in rooms:
        own = [vault for vault in held if vault.room == space.room.id]
        if not own or space.space is None:
            continue
        beside = [wall for wall in plan.on(space.level) if wall.footprint.distance(space.space) < BESIDE]
        length, first, walls = 0.0, None, dict[str, None]()
        for spot, out, long in _edge(space.space):
            wall = _wall_at(beside, (spot[0] + out[0] * BESIDE, spot[1] + out[1] * BESIDE))
            over = [vault.plane.z(*spot) for vault in own if vault.area.distance(shapely.Point(spot)) < 1.0]
            high = min(over, default=-math.inf)
            if wall is None or tops[wall.wall.id].height_at(wall, wall.axis.along(spot)) > high - OPEN:
                continue
            past = wall.outer - wall.inner + 2 * BESIDE
            beyond = shapely.Point(spot[0] + out[0] * past, spot[1] + out[1] * past)
            if any(vault.room != space.room.id and vault.area.contains(beyond) for vault in held):
                continue
            length, first = length + long, first or spot
            walls[wall.wall.id] = None
        if length > LEAST_OPEN:
            message = (
                f"the vault of {space.room.name} is open to the attic over {format_length(length, project.units)} of "
                "its walls, which stop at their plate: let them end under the roof, or vault the room beyond as well"
            )
            yield Diagnostic("vault-open", message, space.room.id, "vault", length, LEAST_OPEN, tuple(walls), at=first)


def _wall_at(walls: list[PlannedWall], point: Point) -> PlannedWall | None:
    spot = shapely.Point(point)
    return next((wall for wall in walls if wall.footprint.contains(spot)), None)


def _edge(space: shapely.Polygon) -> Iterator[tuple[Point, Point, float]]:
    """Places along the edge of a space, with the direction outward there and the length that each stands for."""
    whole = shapely.orient_polygons(space)
    for ring in (whole.exterior, *whole.interiors):
        points = list(ring.coords)
        for (x0, y0), (x1, y1) in itertools.pairwise(points):
            long = math.dist((x0, y0), (x1, y1))
            count = max(1, round(long / STEP))
            out = ((y1 - y0) / long, (x0 - x1) / long)
            for k in range(count):
                share = (k + 0.5) / count
                yield (x0 + (x1 - x0) * share, y0 + (y1 - y0) * share), out, long / count
