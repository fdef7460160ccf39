"""Visible surfaces: which regions of which facets are seen along a horizontal direction.

Exact and free of any depth order: each facet loses the union of what lies in front of it, and where
two facets cross in depth, the other one is first clipped along the line of equal depth. Facets that
lie wholly behind one other facet are dropped before.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import MultiPolygon, Polygon

from ..catalog import material
from ..geometry import Facet, Point, half_plane, polygons_of
from ..memo import BulkMemo
from ..resolve import Part
from ..tolerance import TOL

EDGE_ON = 1e-4
"""Facets whose normal is this close to square with the look direction are not seen."""


@dataclass(frozen=True, eq=False, slots=True)
class Face:
    """A facet in the view: polygon in (u, v), depth = a u + b v + c, its part and outward normal."""

    polygon: Polygon
    plane: tuple[float, float, float]
    part: Part
    normal: tuple[float, float, float]

    def depth(self, u: float, v: float) -> float:
        """Depth at a point of the view."""
        a, b, c = self.plane
        return a * u + b * v + c


def faces_of(parts: Sequence[Part], dx: float, dy: float) -> list[tuple[Face, ...]]:
    """Per part, the facets that look at a viewer who looks along (dx, dy); remembered with the part."""
    return _part_faces([(part, dx, dy) for part in parts])


def _make_faces(wanted: Sequence[tuple[Part, float, float]]) -> list[tuple[Face, ...]]:
    """Polygons of all parts are made in one call: one by one they cost ten times as much."""
    rings: list[list[Point]] = []
    outlines = [(k, facet, range(start, len(rings))) for k, facet, start in _turned(wanted, rings)]
    shapes = _polygons(rings)
    valid = shapely.is_valid(shapes)
    faces: list[list[Face]] = [[] for _ in wanted]
    for k, facet, held in outlines:
        part, dx, dy = wanted[k]
        nx, ny, nz = facet.normal
        nd = nx * dx + ny * dy
        plane = (-(nx * dy - ny * dx) / nd, -nz / nd, facet.offset / nd)
        if len(held) == 1 and valid[held[0]]:
            polygons = [shapes[held[0]]] if shapely.area(shapes[held[0]]) > TOL.area else []
        else:
            polygons = _assemble([shapes[index] for index in held])
        faces[k] += [Face(polygon, plane, part, facet.normal) for polygon in polygons]
    return [tuple(held) for held in faces]


def _turned(wanted: Sequence[tuple[Part, float, float]], rings: list[list[Point]]) -> Iterator[tuple[int, Facet, int]]:
    """(index of the part, facet, first of its rings) of facets that look at the viewer; rings are added in (u, v)."""
    for k, (part, dx, dy) in enumerate(wanted):
        for facet in part.solid.facets:
            nx, ny, _ = facet.normal
            if nx * dx + ny * dy > -EDGE_ON:
                continue
            start = len(rings)
            rings += [[(x * dy - y * dx, z) for x, y, z in ring] for ring in facet.rings if len(ring) > 2]
            yield k, facet, start


def _polygons(rings: list[list[Point]]) -> NDArray[np.object_]:
    """A polygon per ring, snapped to the grid."""
    if not rings:
        return np.empty(0, dtype=object)
    points = np.round(np.array([point for ring in rings for point in ring]) / TOL.grid) * TOL.grid
    owner = np.repeat(np.arange(len(rings)), [len(ring) for ring in rings])
    polygons: NDArray[np.object_] = shapely.polygons(shapely.linearrings(points, indices=owner))
    return polygons


_part_faces: BulkMemo[tuple[Part, float, float], tuple[Face, ...]] = BulkMemo(_make_faces, size=20_000)


def _assemble(shapes: Sequence[Polygon]) -> list[Polygon]:
    """Polygons of rings that may be outer ones or holes, in any order."""
    whole: shapely.Geometry = Polygon()
    for shape in sorted(shapes, key=lambda polygon: -polygon.area):
        whole = whole.symmetric_difference(shapely.make_valid(shape))
    return list(polygons_of(whole))


@lru_cache(maxsize=10_000)
def behind(face: Face, depth: float) -> tuple[Face, ...]:
    """The pieces of a face that lie farther than a depth from the viewer's origin."""
    a, b, c = face.plane
    x0, y0, x1, y1 = face.polygon.bounds
    values = [a * x + b * y + c - depth for x in (x0, x1) for y in (y0, y1)]
    if min(values) >= 0:
        return (face,)
    kept = half_plane((x0, y0, x1, y1), a, b, c - depth)
    if kept is None:
        return ()
    pieces = polygons_of(face.polygon.intersection(kept))
    return tuple(Face(piece, face.plane, face.part, face.normal) for piece in pieces)


def visible_faces(faces: Sequence[Face]) -> list[Face]:
    """The visible pieces of the faces; every piece is one polygon without slivers."""
    if not faces:
        return []
    polygons = np.array([face.polygon for face in faces], dtype=object)
    planes = np.array([face.plane for face in faces])
    order = _front_order(faces)
    boxes = shapely.bounds(polygons)
    behind, front, kind = _pairs(polygons, boxes, planes, order)
    hidden = _hidden(polygons, boxes, behind, front, kind)
    keep = ~(hidden[behind] | hidden[front])
    behind, front, kind = behind[keep], front[keep], kind[keep]
    hiding: dict[int, list[tuple[Face, int]]] = defaultdict(list)
    for i, j, how in zip(behind.tolist(), front.tolist(), kind.tolist()):
        hiding[i].append((faces[j], how))
    return [
        piece
        for i, face in enumerate(faces)
        if not hidden[i]
        for piece in (_seen_pieces(face, tuple(hiding[i])) if i in hiding else (face,))
    ]


@lru_cache(maxsize=60_000)
def _seen_pieces(face: Face, hiding: tuple[tuple[Face, int], ...]) -> tuple[Face, ...]:
    """What is left of a face behind others. Cached, since faces keep their identity: an edit changes few."""
    occluders = []
    for other, how in hiding:
        shape = other.polygon if how == _WHOLE else _nearer_part(other, face)
        if shape is not None and not shape.is_empty:
            occluders.append(shape)
    shape = _without(face.polygon, occluders) if occluders else face.polygon
    pieces = (piece for piece in polygons_of(shape) if piece.area / piece.length > TOL.sliver_width / 2)
    return tuple(Face(piece, face.plane, face.part, face.normal) for piece in pieces)


LARGE_FIRST = 3
"""So many of the largest occluders are taken off one by one: most hidden faces are gone by then."""


def _without(polygon: Polygon, occluders: list[shapely.Geometry]) -> shapely.Geometry:
    """A polygon less what lies in front of it, on the grid."""
    held = sorted(occluders, key=lambda shape: -shape.area)
    shape: shapely.Geometry = polygon
    for taken in held[:LARGE_FIRST]:
        shape = _polygonal(shapely.difference(shape, taken, grid_size=TOL.grid))
        if shape.is_empty:
            return shape
    rest = held[LARGE_FIRST:]
    if rest:
        shape = shapely.difference(shape, _polygonal(shapely.union_all(rest)), grid_size=TOL.grid)
    return shape


def _polygonal(shape: shapely.Geometry) -> shapely.Geometry:
    """A result without the lines and points that an overlay may leave: the next overlay would refuse them."""
    if shape.geom_type in ("Polygon", "MultiPolygon"):
        return shape
    return MultiPolygon(list(polygons_of(shape))) if shape.geom_type == "GeometryCollection" else Polygon()


_WHOLE, _CLIP = 1, 2


def _front_order(faces: Sequence[Face]) -> NDArray[np.int_]:
    """Rank for faces that coincide: cladding before sheathing before frame, then by key."""
    ranked = sorted(range(len(faces)), key=lambda i: (material(faces[i].part.material).order, faces[i].part.key, i))
    order = np.empty(len(faces), dtype=int)
    order[ranked] = np.arange(len(faces))
    return order


def _pairs(
    polygons: NDArray[np.object_], boxes: NDArray[np.float64], planes: NDArray[np.float64], order: NDArray[np.int_]
) -> tuple[NDArray[np.int_], NDArray[np.int_], NDArray[np.int_]]:
    """(behind, front, how): the front face hides what it covers of the one behind, whole or in part."""
    i, j = shapely.STRtree(polygons).query(polygons)
    i, j = i[i != j], j[i != j]
    low = np.maximum(boxes[i, :2], boxes[j, :2])
    high = np.minimum(boxes[i, 2:], boxes[j, 2:])
    real = np.all(high - low > TOL.grid, axis=1)
    i, j, low, high = i[real], j[real], low[real], high[real]
    difference = planes[i] - planes[j]
    corners = np.stack([low, high, np.column_stack((low[:, 0], high[:, 1])), np.column_stack((high[:, 0], low[:, 1]))])
    gaps = difference[:, 0] * corners[:, :, 0] + difference[:, 1] * corners[:, :, 1] + difference[:, 2]
    least, most = gaps.min(axis=0), gaps.max(axis=0)
    whole = (least >= -TOL.depth) & (most > TOL.depth)
    tie = (np.abs(least) <= TOL.depth) & (np.abs(most) <= TOL.depth) & (order[j] < order[i])
    clip = (least < -TOL.depth) & (most > TOL.depth)
    kind = np.where(whole | tie, _WHOLE, np.where(clip, _CLIP, 0))
    held = kind > 0
    return i[held], j[held], kind[held]


def _hidden(
    polygons: NDArray[np.object_],
    boxes: NDArray[np.float64],
    behind: NDArray[np.int_],
    front: NDArray[np.int_],
    kind: NDArray[np.int_],
) -> NDArray[np.bool_]:
    """Faces that lie wholly behind one other face, and so hide nothing that it does not hide."""
    inside = (
        (kind == _WHOLE)
        & np.all(boxes[front, :2] <= boxes[behind, :2] + TOL.grid, axis=1)
        & np.all(boxes[front, 2:] >= boxes[behind, 2:] - TOL.grid, axis=1)
    )
    i, j = behind[inside], front[inside]
    shapely.prepare(polygons)
    covered = shapely.covers(polygons[j], polygons[i])
    hidden = np.zeros(len(polygons), dtype=bool)
    hidden[i[covered]] = True
    return hidden


def _nearer_part(face: Face, than: Face) -> shapely.Geometry | None:
    """What of a face is nearer to the viewer than another one, where the two overlap."""
    a, b, c = (p - q for p, q in zip(than.plane, face.plane))
    kept = half_plane(than.polygon.bounds, a, b, c)
    if kept is None:
        return None
    return _polygonal(face.polygon.intersection(kept))
