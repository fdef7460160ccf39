"""How far floors and ceilings reach: to the faces of the layers that bear."""

from __future__ import annotations

import itertools
from functools import lru_cache

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...geometry import Point, largest, line_through, meet, offset_line
from ...model import MakeUp, bearing_layer
from ..walls.planned import Outline, PlannedWall, WallPlan
from .supports import ALONG


def within_bearing(outline: Outline, plan: WallPlan, make_ups: dict[str, MakeUp]) -> Polygon:
    """What lies within the bearing lines of an outline's walls: as far as joists reach."""
    walls = [plan.by_id[id] for id in outline.walls]
    return moved_to(outline.polygon, tuple(walls), tuple(_bearing_line(wall, make_ups) for wall in walls))


def _bearing_line(wall: PlannedWall, make_ups: dict[str, MakeUp]) -> float:
    """How far outward of its set-out line the outside of the layer lies that bears."""
    return wall.layers[bearing_layer(make_ups[wall.wall.make_up])].outer


def bearing_ring(outline: Outline, plan: WallPlan, make_ups: dict[str, MakeUp]) -> Polygon | MultiPolygon:
    """The layers that bear around an outline, as if no other wall ran into them."""
    walls = tuple(plan.by_id[id] for id in outline.walls)
    layers = [wall.layers[bearing_layer(make_ups[wall.wall.make_up])] for wall in walls]
    outer, inner = (
        moved_to(outline.polygon, walls, tuple(faces))
        for faces in ((layer.outer for layer in layers), (layer.inner for layer in layers))
    )
    return shapely.difference(outer, inner)


BUILT_IN = 100.0
"""Joists, beams and slabs are built into masonry by this much (mm), less where it is thinner. Common practice, no
source: 90 at least, and not into the cavity."""


def is_masonry(wall: PlannedWall, make_ups: dict[str, MakeUp]) -> bool:
    """Whether what bears of a wall is no frame: floors are built into it, and it goes on around them."""
    make_up = make_ups[wall.wall.make_up]
    return make_up.layers[bearing_layer(make_up)].framing is None


def floor_reach(
    outline: Outline, plan: WallPlan, make_ups: dict[str, MakeUp], along: Point | None = None, *, hung: bool = False
) -> tuple[Polygon, Polygon]:
    """How far a floor goes under or over an outline of walls: what carries it, and the layers on that.

    Both end flush with frames. Into masonry only what carries goes, unless it is `hung` on its inside; members that run
    `along` a wall lie beside it.
    """
    walls = tuple(plan.by_id[id] for id in outline.walls)
    faces, inside = [], []
    for wall in walls:
        layer = wall.layers[bearing_layer(make_ups[wall.wall.make_up])]
        if not is_masonry(wall, make_ups):
            faces.append(layer.outer)
            inside.append(layer.outer)
            continue
        beside = hung or (along is not None and abs(wall.run[0] * along[1] - wall.run[1] * along[0]) < ALONG)
        faces.append(layer.inner if beside else min(layer.outer, layer.inner + BUILT_IN))
        inside.append(layer.inner)
    region = moved_to(outline.polygon, walls, tuple(faces))
    return region, region if faces == inside else moved_to(outline.polygon, walls, tuple(inside))


@lru_cache(maxsize=256)
def moved_to(polygon: Polygon, walls: tuple[PlannedWall, ...], faces: tuple[float, ...]) -> Polygon:
    """A ring of set-out lines with each side moved out to the face of the wall that it runs along."""
    if len(set(faces)) == 1:
        return polygon.buffer(faces[0], join_style="mitre") if faces[0] else polygon
    ring = list(shapely.orient_polygons(polygon).exterior.coords)
    lines = []
    for start, end in itertools.pairwise(ring):
        middle = shapely.Point((start[0] + end[0]) / 2, (start[1] + end[1]) / 2)
        beside = min(zip(walls, faces), key=lambda held: held[0].axis.line_string().distance(middle))
        lines.append((offset_line(line_through(start, end), -beside[1]), start))
    corners = []
    for k, (line, start) in enumerate(lines):
        before = lines[k - 1][0]
        met = meet(before, line)
        # Walls that run on in line with each other part at a step.
        corners += [met] if met else [before.at(before.along(start)), line.at(line.along(start))]
    return largest(Polygon(corners).buffer(0))
