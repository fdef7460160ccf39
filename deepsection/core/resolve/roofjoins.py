"""Roof blocks together: the higher surface wins, a lower gable dies into the slope that it runs into."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import lru_cache
from itertools import pairwise

import shapely
from shapely import affinity
from shapely.geometry import LineString, MultiLineString, Polygon
from shapely.ops import unary_union

from ..geometry import Point, half_plane, largest, line_through, polygons_of
from ..tolerance import TOL
from .building import Diagnostic, ResolvedRoof, RoofJoin, RoofPlane, Valley

ON_ROOF = 60.0
"""An end runs into a roof when its middle lies within this distance of that roof's outline (mm)."""


SAME_HEIGHT = 1.0
"""Slopes meet in a valley where their heights differ by less than this (mm)."""


@lru_cache(maxsize=128)
def join_roofs(roofs: tuple[ResolvedRoof, ...]) -> tuple[tuple[ResolvedRoof, ...], tuple[Diagnostic, ...]]:
    """The blocks with the surfaces that are left of them, their valleys, and what does not meet."""
    held = {roof.block.id: roof for roof in roofs}
    found: list[Diagnostic] = []
    for roof in roofs:
        for end in (0, 1):
            if roof.block.edges[roof.ends[end]].kind != "joined":
                continue
            host = _host(held[roof.block.id], end, held)
            if host is None:
                found.append(_meets_nothing(roof, end))
                continue
            if roof.ridge_top.total > host.ridge_top.total + TOL.point:
                found.append(_too_high(roof, host))
            guest, host = _joined(held[roof.block.id], end, host)
            held[guest.block.id], held[host.block.id] = guest, host
    return tuple(held.values()), tuple(found)


def _edge(roof: ResolvedRoof, end: int) -> tuple[Point, Point]:
    corners = list(roof.outline.exterior.coords)[:4]
    edge = roof.ends[end]
    return corners[edge], corners[(edge + 1) % 4]


def _host(roof: ResolvedRoof, end: int, held: dict[str, ResolvedRoof]) -> ResolvedRoof | None:
    """The highest roof that an end lies on or in."""
    start, stop = _edge(roof, end)
    middle = shapely.Point((start[0] + stop[0]) / 2, (start[1] + stop[1]) / 2)
    others = [
        other
        for other in held.values()
        if other.block.id != roof.block.id and other.outline.buffer(ON_ROOF).contains(middle)
    ]
    return max(others, key=lambda other: other.ridge_top.total, default=None)


def _joined(guest: ResolvedRoof, end: int, host: ResolvedRoof) -> tuple[ResolvedRoof, ResolvedRoof]:
    """Both roofs after a guest has run into its host."""
    reach = 4 * host.run + 2 * host.reach
    whole = unary_union([plane.polygon for plane in host.planes])
    planes, valleys = [], []
    for plane in guest.planes:
        longer = _lengthened(plane, guest, end, reach)
        taken, won = [], []
        for other in host.planes:
            shared = longer.intersection(other.polygon)
            above = _above(shared, guest, plane, host, other)
            won.append(above)
            taken.append(shared.difference(above))
        kept = unary_union([plane.polygon.difference(unary_union(taken)), *won]).buffer(0)
        pieces = list(polygons_of(shapely.set_precision(kept, TOL.grid)))
        best = max(pieces, key=lambda piece: piece.intersection(plane.polygon).area, default=Polygon())
        planes.append(replace(plane, polygon=best, under=best))
    covered = unary_union([plane.polygon for plane in planes])
    outside = covered.union(guest.outline).difference(host.outline)
    left = []
    for other in host.planes:
        polygon = _largest_on_grid(other.polygon.difference(covered))
        left.append(replace(other, polygon=polygon, under=_largest_on_grid(other.under.difference(outside))))
    for plane in planes:
        for other in left:
            valleys += _valleys(plane, guest, other, host)
    far = _far_end(guest, end, covered, whole)
    ends = (far, guest.ridge[1]) if end == 0 else (guest.ridge[0], far)
    near = max(host.planes, key=lambda other: other.polygon.intersection(covered).area)
    join = RoofJoin(host.block.id, end, math.dist(far, guest.ridge[end]), near.top.lifted(host.deck))
    below = shapely.union_all([covered, guest.outline])
    return (
        replace(
            guest,
            planes=tuple(planes),
            ridge=ends,
            joins=(*guest.joins, join),
            valleys=(*guest.valleys, *valleys),
        ),
        replace(host, planes=tuple(left), guests=(*host.guests, below)),
    )


def _lengthened(plane: RoofPlane, roof: ResolvedRoof, end: int, reach: float) -> Polygon:
    """The plan of a slope, carried on past an end."""
    start, stop = roof.ridge
    along = line_through(start, stop)
    shift = -reach if end == 0 else reach
    moved = affinity.translate(plane.polygon, along.dx * shift, along.dy * shift)
    return unary_union([plane.polygon, moved]).convex_hull


def _above(
    shared: shapely.Geometry, guest: ResolvedRoof, plane: RoofPlane, host: ResolvedRoof, other: RoofPlane
) -> shapely.Geometry:
    """Where, of what two slopes share in plan, the covering of the first lies over that of the second."""
    if shared.is_empty:
        return shared
    rise = guest.covering - host.covering
    a, b, c = (p - q for p, q in zip(plane.top, other.top))
    kept = half_plane(shared.bounds, a, b, c + rise)
    return Polygon() if kept is None else shared.intersection(kept)


def _valleys(plane: RoofPlane, guest: ResolvedRoof, other: RoofPlane, host: ResolvedRoof) -> list[Valley]:
    """The edges of a guest's slope along which it is as high as the slope beside it, in one piece where they are."""
    corners = list(plane.polygon.exterior.coords)

    def meets(point: tuple[float, float]) -> bool:
        gap = plane.top.z(*point) + guest.covering - other.top.z(*point) - host.covering
        return abs(gap) < SAME_HEIGHT and other.polygon.distance(shapely.Point(point)) < SAME_HEIGHT

    edges = [
        LineString([p, q])
        for p, q in pairwise(corners)
        if meets(p) and meets(q) and meets(((p[0] + q[0]) / 2, (p[1] + q[1]) / 2))
    ]
    found = []
    for line in shapely.get_parts(shapely.line_merge(MultiLineString(edges))):
        if line.length > ON_ROOF:
            start, end = line.coords[0], line.coords[-1]
            heights = [plane.top.z(*point) + guest.covering for point in (start, end)]
            found.append(Valley(start, end, heights[0], heights[1]))
    return found


def _largest_on_grid(shape: shapely.Geometry) -> Polygon:
    return largest(shapely.set_precision(shape, TOL.grid))


def _far_end(guest: ResolvedRoof, end: int, covered: shapely.Geometry, host: shapely.Geometry) -> Point:
    """Where the ridge of a guest dies into its host."""
    start, stop = guest.ridge
    along = line_through(start, stop)
    origin = start if end == 0 else stop
    sign = -1.0 if end == 0 else 1.0
    size = math.hypot(*(high - low for low, high in zip(host.bounds[:2], host.bounds[2:])))
    ray = LineString([origin, (origin[0] + sign * along.dx * size, origin[1] + sign * along.dy * size)])
    reached = ray.intersection(covered.buffer(TOL.point))
    points = [point for part in shapely.get_parts(reached) if part.geom_type == "LineString" for point in part.coords]
    far = max((math.dist(point, origin) for point in points), default=TOL.point) - TOL.point
    return origin[0] + sign * along.dx * far, origin[1] + sign * along.dy * far


def _meets_nothing(roof: ResolvedRoof, end: int) -> Diagnostic:
    start, stop = _edge(roof, end)
    return Diagnostic(
        "roof-meets-nothing",
        f"{roof.block.name} is said to run into another roof here, but there is none; make this end a gable",
        "warning",
        roof.block.id,
        f"end_{roof.ends[end]}",
        at=((start[0] + stop[0]) / 2, (start[1] + stop[1]) / 2),
    )


def _too_high(roof: ResolvedRoof, host: ResolvedRoof) -> Diagnostic:
    return Diagnostic(
        "roof-too-high",
        f"{roof.block.name} stands higher than {host.block.name}, which it runs into; "
        "let the higher one run through, and the lower one into it",
        "warning",
        roof.block.id,
        "pitch",
        roof.ridge_top.total,
        host.ridge_top.total,
        others=(host.block.id,),
        at=roof.ridge[0],
    )
