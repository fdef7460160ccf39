"""Lines and polygons in plan. Points are (x, y) float in mm."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import NamedTuple

import shapely
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from ..errors import GeometryError
from ..tolerance import TOL

Point = tuple[float, float]


class Line(NamedTuple):
    """An endless line through (x, y) in the unit direction (dx, dy)."""

    x: float
    y: float
    dx: float
    dy: float

    def at(self, along: float) -> Point:
        """The point at a distance along."""
        return self.x + self.dx * along, self.y + self.dy * along

    def along(self, point: Point) -> float:
        """Distance along of the foot of a point."""
        return (point[0] - self.x) * self.dx + (point[1] - self.y) * self.dy

    def left_of(self, point: Point) -> float:
        """Signed distance of a point to the left."""
        return (point[1] - self.y) * self.dx - (point[0] - self.x) * self.dy


def line_through(start: Point, end: Point) -> Line:
    """The line from start towards end. Raises: GeometryError when they are one point."""
    length = math.dist(start, end)
    if length < TOL.point:
        raise GeometryError("a line needs two different points")
    return Line(start[0], start[1], (end[0] - start[0]) / length, (end[1] - start[1]) / length)


def offset_line(line: Line, left: float) -> Line:
    """The parallel at a distance to the left (negative: to the right)."""
    return Line(line.x - line.dy * left, line.y + line.dx * left, line.dx, line.dy)


def meet(first: Line, second: Line) -> Point | None:
    """Where two lines cross; None when they are parallel.

    >>> meet(Line(0, 0, 1, 0), Line(5, 5, 0, 1))
    (5.0, 0.0)
    """
    cross = first.dx * second.dy - first.dy * second.dx
    if abs(cross) < TOL.parallel:
        return None
    along = ((second.x - first.x) * second.dy - (second.y - first.y) * second.dx) / cross
    return first.x + first.dx * along, first.y + first.dy * along


def polygons_of(shape: BaseGeometry, *, min_area: float = TOL.area) -> Iterator[Polygon]:
    """The polygons of any result of an overlay; points, lines and slivers fall away."""
    if isinstance(shape, Polygon):
        if shape.area > min_area:
            yield shape
    elif hasattr(shape, "geoms"):
        for part in shape.geoms:
            yield from polygons_of(part, min_area=min_area)


def largest(shape: BaseGeometry) -> Polygon:
    """The largest polygon of any result of an overlay; an empty one when there is none."""
    return max(polygons_of(shape), key=lambda piece: piece.area, default=Polygon())


def half_plane(box: tuple[float, float, float, float], a: float, b: float, c: float) -> Polygon | None:
    """What of a box (x0, y0, x1, y1) lies where a x + b y + c > 0; None when nothing does.

    >>> half_plane((0, 0, 2, 2), 1.0, 0.0, -1.0).area
    2.0
    """
    x0, y0, x1, y1 = box
    ring: list[Point] = [(x0, y0), (x1, y0), (x1, y1), (x0, y1)]
    values = [a * x + b * y + c for x, y in ring]
    clipped: list[Point] = []
    for k in range(4):
        (p, d), (q, e) = (ring[k], values[k]), (ring[(k + 1) % 4], values[(k + 1) % 4])
        if d > 0:
            clipped.append(p)
        if (d > 0) != (e > 0):
            t = d / (d - e)
            clipped.append((p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t))
    return Polygon(clipped) if len(clipped) > 2 else None


def plain_rings(shape: BaseGeometry, *, min_area: float = TOL.area) -> list[list[Point]] | None:
    """The outer rings of all polygons of a shape, as `ring_of` has them, at once; None when one has a hole.

    What a wall with hundreds of guests is parted into is read in one go.
    """
    parts = shapely.get_parts(shape)
    parts = parts[(shapely.get_type_id(parts) == POLYGON) & (shapely.area(parts) > min_area)]
    if shapely.get_num_interior_rings(parts).any():
        return None
    rings = shapely.get_exterior_ring(parts)
    points, owner = shapely.get_coordinates(rings, return_index=True)
    found: list[list[Point]] = [[] for _ in range(len(parts))]
    for k, (x, y) in zip(owner.tolist(), points.tolist()):
        found[k].append((x, y))
    return [ring[:-1] if ccw else ring[:0:-1] for ring, ccw in zip(found, shapely.is_ccw(rings).tolist())]


POLYGON = 3
"""The number of polygons among the types of geometries."""


def ring_of(polygon: Polygon) -> list[list[Point]]:
    """Rings of a polygon without the closing point: the outer one counter-clockwise, then the holes."""
    if not shapely.get_num_interior_rings(polygon):
        plain = [(x, y) for x, y in shapely.get_coordinates(polygon)[:-1].tolist()]
        turn = sum(x0 * y1 - x1 * y0 for (x0, y0), (x1, y1) in zip(plain, plain[1:] + plain[:1]))
        return [plain if turn > 0 else plain[::-1]]
    oriented = shapely.orient_polygons(polygon)
    points, ring = shapely.get_coordinates(shapely.get_rings(oriented), return_index=True)
    rings: list[list[Point]] = [[] for _ in range(1 + len(oriented.interiors))]
    for k, (x, y) in zip(ring.tolist(), points.tolist()):
        rings[k].append((x, y))
    return [held[:-1] for held in rings]


def across_box(line: Line, box: tuple[float, float, float, float], past: float) -> tuple[Point, Point] | None:
    """An endless line as far as it runs in a box, and so far past it; none where it misses it."""
    reach = math.dist(box[:2], box[2:]) + math.dist((line.x, line.y), box[:2]) + past
    grown = shapely.box(box[0] - past, box[1] - past, box[2] + past, box[3] + past)
    piece = shapely.intersection(shapely.linestrings([line.at(-reach), line.at(reach)]), grown)
    return (piece.coords[0], piece.coords[-1]) if piece.length > 1.0 else None
