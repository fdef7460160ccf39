"""Junctions of decks: where a ledger lies along a wall of the house."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator

import shapely
from shapely.geometry import LineString, MultiPolygon

from ..geometry import Point, polygons_of
from ..resolve import Building, PlannedWall
from ..trades.decks.place import DECKS, ledger_face
from ..trades.floors.bays import Bay
from ..trades.floors.place import FloorPlan
from .facts import layers_of, rounded
from .junction import End, Fact, Junction, Run

AT = 2.0
"""A ledger lies at the face of a wall within this distance (mm)."""
SHORT = 100.0
"""What is no longer than this (mm) is no ledger."""
FAR = 3e4
"""Farther than any joist runs (mm)."""
ACROSS = 0.7
"""Joists that run out from a ledger by more than this (cosine) hang on it."""


def deck_junctions(building: Building) -> Iterator[Junction]:
    """Where the ledgers of decks lie along walls of the house."""
    walls = building.plan.by_id
    for flat in building[DECKS]:
        by_wall: dict[str, list[MultiPolygon]] = defaultdict(list)
        for rim in flat.rims:
            if rim.role == "ledger":
                by_wall[rim.wall.partition(":")[0]].append(rim.area)
        for id, areas in sorted(by_wall.items()):
            wall = walls.get(id)
            if wall is not None and not wall.axis.is_arc:
                yield from _ledger(building, flat, wall, areas)


def _ledger(building: Building, flat: FloorPlan, wall: PlannedWall, areas: list[MultiPolygon]) -> Iterator[Junction]:
    face = ledger_face(wall, building.placed.make_ups)
    line = LineString([wall.at(0.0, face), wall.at(wall.length, face)])
    beside = shapely.union_all(areas).intersection(line.buffer(AT, cap_style="flat"))
    out, runs = wall.stand().out, []
    for piece in polygons_of(beside):
        along = [line.project(shapely.Point(at)) for at in piece.exterior.coords]
        if max(along) - min(along) > SHORT:
            first, last = (line.interpolate(at) for at in (min(along), max(along)))
            runs.append(Run((first.x, first.y, flat.top.z), (last.x, last.y, flat.top.z), out))
    if runs:
        facts: tuple[tuple[str, Fact], ...] = (
            ("wall", layers_of(building, wall.wall.make_up)),
            ("deck", layers_of(building, flat.floor.make_up)),
            ("below the floor", rounded(building.levels[flat.floor.level].z - flat.top.z)),
            ("joists run out", rounded(max(runs_out(flat, run) for run in runs))),
        )
        yield Junction("deck_ledger", (End(flat.floor.id, "edge"), End(wall.wall.id, "side")), tuple(runs), facts)


def runs_out(flat: FloorPlan, run: Run) -> float:
    """How far the joists of a deck run out from a ledger to what bears them next (mm); none that run along it: 0."""
    (x, y, _), (ox, oy) = run.middle, run.out
    inside = shapely.Point(x + ox * SHORT, y + oy * SHORT)
    bay = next((held for held in flat.bays if held.region.contains(inside)), None)
    if bay is None or abs(bay.direction[0] * ox + bay.direction[1] * oy) < ACROSS:
        return 0.0
    return _first(bay, (x, y), (ox, oy))


def _first(bay: Bay, at: Point, out: Point) -> float:
    ray = LineString([at, (at[0] + out[0] * FAR, at[1] + out[1] * FAR)])
    met = ray.intersection(shapely.union_all([held.area for held in bay.supports]))
    if not met.is_empty:
        return float(shapely.Point(at).distance(met))
    inside = max(shapely.get_parts(ray.intersection(bay.region)), key=lambda piece: piece.length, default=None)
    return float(inside.length) if inside is not None else 0.0
