"""The ground in a section: hatched earth, the line outside, and what is dug out below the lowest floor."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache

import shapely
from shapely.geometry import LineString, MultiPolygon, Polygon

from ..drawing import Mark, Region, Stroke, path, rings_of
from ..geometry import Frame, polygons_of
from ..resolve import Building, Part
from ..tolerance import TOL
from ._earth import Earth, earth_along
from .hatching import HatchTable

EARTH_DEPTH, EARTH_REACH = 4.5, 12.0
"""Paper mm of hatched earth along the ground and around footings, and how far it runs past the house."""
NEAR_GROUND = 500.0
"""What starts higher than this above grade (mm) does not meet the earth."""
FOUNDED = ("stem", "footing", "sill_plate", "chimney", "cap", "cricket")
"""Roles of what stands on footings and is no floor."""
HIGH = 1e5
"""Above any house (mm)."""


@dataclass(frozen=True, slots=True)
class Ground:
    """All earth; what of it is hatched, the surface outside, and the spaces over the lowest floors, with no earth."""

    whole: Earth
    earth: Polygon | MultiPolygon
    surface: shapely.Geometry
    dug: Polygon | MultiPolygon


def ground_under(
    building: Building, frame: Frame, cut: Iterable[tuple[Part, Polygon]], scale: float, u0: float, u1: float
) -> Ground:
    """The ground around what a section cuts, within the length of its line."""
    cut = list(cut)
    x0, y0, x1, _ = (float(value) for value in shapely.total_bounds([polygon for _, polygon in cut]))
    left, right = min(max(u0, x0 - EARTH_REACH * scale), x0), max(min(u1, x1 + EARTH_REACH * scale), x1)
    held = earth_along(building.ground, frame, left, right)
    near_ground = held.high + NEAR_GROUND
    lows = shapely.bounds([piece for _, piece in cut])[:, 1].tolist()
    # A drain is hollow, and no earth is in it.
    whole_pieces = [(Polygon(piece.exterior) if part.note else piece) for part, piece in cut]
    solid = _joined(tuple(piece for piece, low in zip(whole_pieces, lows) if low < near_ground))
    low = min(y0, held.low) - EARTH_DEPTH * scale
    floors = _below_floors(building, cut, low)
    return _ground(held, (left, right), low, solid, tuple(floors), EARTH_DEPTH * scale)


@lru_cache(maxsize=64)
def _ground(
    held: Earth,
    ends: tuple[float, float],
    low: float,
    solid: shapely.Geometry,
    floors: tuple[Polygon, ...],
    reach: float,
) -> Ground:
    """The ground along a profile, down to a height, around what stands in it, to a reach; below floors."""
    rooms = [shapely.box(box.bounds[0], box.bounds[3], box.bounds[2], held.high + HIGH) for box in floors]
    outside = Polygon([(ends[0], low), *held.profile, (ends[1], low)])
    whole = shapely.union_all([outside, *floors])
    earth = whole.difference(shapely.union_all([solid, *rooms]))
    surface = held.line.difference(shapely.union_all([solid, *floors, *rooms]))
    tops = [LineString([(box.bounds[0], box.bounds[3]), (box.bounds[2], box.bounds[3])]) for box in floors]
    near = shapely.union_all(
        [surface.buffer(reach), solid.buffer(reach, join_style="mitre"), *(top.buffer(reach) for top in tops)]
    )
    return Ground(held, earth.intersection(near), surface, shapely.union_all(rooms))


@lru_cache(maxsize=64)
def _joined(pieces: tuple[Polygon, ...]) -> shapely.Geometry:
    return shapely.union_all(pieces, grid_size=TOL.grid)


def ground_marks(building: Building, ground: Ground, hatches: HatchTable) -> list[Mark]:
    """Hatched earth, and the ground line."""
    hatch = hatches.add("earth")
    marks: list[Mark] = [
        Region(rings_of(polygon), hatch=hatch, feature="earth") for polygon in polygons_of(ground.earth)
    ]
    grade = ground_sum(building, ground.whole)
    marks += [
        Stroke(path(*piece.coords), "ground", feature="ground", sum=grade)
        for piece in shapely.get_parts(ground.surface)
        if not piece.is_empty
    ]
    return marks


def ground_sum(building: Building, earth: Earth) -> str | None:
    """The sum of a flat ground's height: the grade, or the one spot that states it."""
    if earth.flat is None:
        return None
    if building.ground.spots:
        return f"ground:{building.ground.spots[0].id}"
    return next((level.sum.id for level in building.levels.values() if level.surface == "grade"), None)


def _below_floors(building: Building, cut: list[tuple[Part, Polygon]], low: float) -> list[Polygon]:
    """Per cut slab or ground cover, the ground below its lowest layer."""
    depths: dict[tuple[float, float], float] = {}
    founded = {part.element for part in building.parts if part.role == "footing"}
    for part, polygon in cut:
        # Over a drain or another piece of a footing lies earth, no room.
        if part.element in founded and not part.note and part.role not in FOUNDED:
            x0, y0, x1, _ = polygon.bounds
            span = (round(x0, 1), round(x1, 1))
            depths[span] = min(y0, depths.get(span, y0))
    return [shapely.box(x0, low, x1, y) for (x0, x1), y in depths.items() if y > low]
