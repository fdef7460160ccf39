"""Pieces that lie in each other or in other parts: errors of a build-up, found in the plane of a detail."""

from __future__ import annotations

from dataclasses import dataclass

import shapely
from shapely.geometry import Polygon

from ..geometry import CutFrame, crosses, polygons_of
from ..resolve import Building, Part

DEEP = 1.0
"""Pieces may lie in other parts by this much (mm): sheets that lie on each other."""


@dataclass(frozen=True, slots=True)
class Clash:
    """Two parts that lie in each other, where, and how far (mm)."""

    first: Part
    second: Part
    at: tuple[float, float]
    depth: float


def clashes_in(building: Building, frame: CutFrame, window: Polygon) -> list[Clash]:
    """The pieces among the parts of a building that lie in other parts, where a plane cuts them within a window."""
    held: list[tuple[Part, Polygon]] = []
    for part in building.parts:
        if crosses(part.solid.reach, frame):
            shape = part.solid.section(frame)
            if not shape.is_empty:
                held += [(part, piece) for piece in polygons_of(shapely.make_valid(shape).intersection(window))]
    tree = shapely.STRtree([polygon for _, polygon in held])
    found = []
    for k, (part, polygon) in enumerate(held):
        if not part.note:
            continue
        for n in tree.query(polygon, predicate="intersects").tolist():
            other, second = held[n]
            if n == k or (other.note and n < k) or other.key == part.key:
                continue
            both = polygon.intersection(second)
            core = both.buffer(-DEEP / 2 - 0.05)
            if core.is_empty:
                continue
            at = core.representative_point()
            depth = 2 * shapely.maximum_inscribed_circle(largest_of(both)).length
            found.append(Clash(part, other, (at.x, at.y), depth))
    return found


def largest_of(shape: shapely.Geometry) -> Polygon:
    """The largest piece of a shape."""
    return max(polygons_of(shape), key=lambda piece: float(piece.area))
