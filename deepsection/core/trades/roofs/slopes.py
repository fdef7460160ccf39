"""A slope in its own coordinates: how far along its bearing line, and how far inward of it."""

from __future__ import annotations

import itertools
from collections.abc import Iterator

import shapely
from shapely import affinity
from shapely.geometry import Polygon
from shapely.geometry import box as rectangle

from ...geometry import Plane3, Point, Solid, polygons_of, prism, prism_along, slab
from .placed import ResolvedRoof, RoofPlane

FAR = 1e5
SQUARE = 1e-3
"""Share of its box that a rectangle may miss."""


def local(plane: RoofPlane, shape: shapely.Geometry) -> shapely.Geometry:
    """A shape in plan in (along, inward)."""
    line = plane.line
    matrix = [line.dx, line.dy, -line.dy, line.dx]
    away = (-(line.x * line.dx + line.y * line.dy), line.x * line.dy - line.y * line.dx)
    return affinity.affine_transform(shape, [*matrix, *away])


def world(plane: RoofPlane, shape: shapely.Geometry) -> shapely.Geometry:
    """The inverse."""
    line = plane.line
    return affinity.affine_transform(shape, [line.dx, -line.dy, line.dy, line.dx, line.x, line.y])


def place(plane: RoofPlane, along: float, inward: float = 0.0) -> Point:
    """A point in plan."""
    x, y = plane.line.at(along)
    return x + plane.inward[0] * inward, y + plane.inward[1] * inward


def band(plane: RoofPlane, first: float, last: float) -> Polygon:
    """All along a slope, between two distances inward, in its own coordinates."""
    return rectangle(-FAR, first, FAR, last)


def past_rake(roof: ResolvedRoof, edge: int, first: float, last: float) -> Polygon:
    """In plan: along an edge, between two distances outward of its bearing line."""
    (x0, y0), (x1, y1) = roof.side(edge)
    before, after = (max(0.0, roof.reaches[k]) + last + 1.0 for k in roof.neighbours(edge))
    length = ((x1 - x0) ** 2 + (y1 - y0) ** 2) ** 0.5
    dx, dy = (x1 - x0) / length, (y1 - y0) / length
    return Polygon(
        [
            (x0 - dx * before + dy * first, y0 - dy * before - dx * first),
            (x0 - dx * before + dy * last, y0 - dy * before - dx * last),
            (x1 + dx * after + dy * last, y1 + dy * after - dx * last),
            (x1 + dx * after + dy * first, y1 + dy * after - dx * first),
        ]
    )


def sheets(
    plane: RoofPlane, area: shapely.Geometry, over: float, under: float, foot: float | None = None
) -> Iterator[Solid]:
    """Bodies over an area (own coordinates) between two depths plumb below the top of the structure.

    With a `foot` they go down to that height instead, where they would end above it.
    """
    top = plane.top.lifted(-over)
    for piece in polygons_of(area):
        x0, low, x1, high = piece.bounds
        heights = [plane.heel + plane.pitch * at for at in (low, high)]
        if piece.area > (1 - SQUARE) * (x1 - x0) * (high - low):
            ends = [z - under for z in heights] if foot is None else [foot, foot]
            if foot is None or foot < heights[0] - over:
                profile = Polygon(
                    [(low, ends[0]), (high, ends[1]), (high, heights[1] - over), (low, heights[0] - over)]
                )
                yield prism_along(profile, place(plane, x0), plane.inward, x1 - x0)
            continue
        if foot is None:
            yield slab(world(plane, piece), plane.top.lifted(-under), under - over)
        else:
            yield prism(world(plane, piece), foot, heights[1] + 1.0).below(top)


def cut_to(solid: Solid, plane: RoofPlane, piece: Polygon) -> Solid:
    """A member of a slope, cut plumb along the oblique edges of its plan (own coordinates)."""
    ring = list(shapely.orient_polygons(shapely.convex_hull(piece)).exterior.coords)
    for (a, i), (b, j) in itertools.pairwise(ring):
        if abs(b - a) < 0.01 or abs(j - i) < 0.01:
            continue
        (x0, y0), (x1, y1) = place(plane, a, i), place(plane, b, j)
        length = ((x1 - x0) ** 2 + (y1 - y0) ** 2) ** 0.5
        normal = (-(y1 - y0) / length, (x1 - x0) / length)
        solid = solid.beside(normal, normal[0] * x0 + normal[1] * y0)
    return solid


def along_plane(start: tuple[float, float, float], end: tuple[float, float, float]) -> Plane3:
    """The plane through a sloping line that is level across it."""
    dx, dy, dz = (b - a for a, b in zip(start, end))
    square = dx * dx + dy * dy
    a, b = dz * dx / square, dz * dy / square
    return Plane3(a, b, start[2] - a * start[0] - b * start[1])
