"""Visible surfaces: which regions of which facets are seen along a horizontal direction.

Exact and free of any depth order: each facet loses the union of what lies in front of it, and where
two facets cross in depth, the other one is first clipped along the line of equal depth. Facets that
lie wholly behind one other facet are dropped before.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon

from ..catalog import material
from ..geometry import Frame, Point, polygons_of
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


@lru_cache(maxsize=20_000)
def part_faces(part: Part, dx: float, dy: float) -> tuple[Face, ...]:
    """The facets of a part that look at a viewer who looks along (dx, dy); cached with the part."""
    frame = Frame(dx, dy)
    faces = []
    for facet in part.solid.facets:
        nx, ny, nz = facet.normal
        nd = nx * dx + ny * dy
        if nd > -EDGE_ON:
            continue
        nu = nx * frame.ux + ny * frame.uy
        rings = [np.round(frame.to_view(ring)[:, :2] / TOL.grid) * TOL.grid for ring in facet.rings]
        for polygon in _assemble(rings):
            faces.append(Face(polygon, (-nu / nd, -nz / nd, facet.offset / nd), part, facet.normal))
    return tuple(faces)


def _assemble(rings: Sequence[NDArray[np.float64]]) -> Iterable[Polygon]:
    """Polygons of rings that may be outer ones or holes, in any order."""
    shapes = [shapely.Polygon(ring) for ring in rings if len(ring) > 2]
    if len(shapes) == 1 and shapes[0].is_valid:
        return [shapes[0]] if shapes[0].area > TOL.area else []
    whole: shapely.Geometry = Polygon()
    for shape in sorted(shapes, key=lambda polygon: -polygon.area):
        whole = whole.symmetric_difference(shapely.make_valid(shape))
    return list(polygons_of(whole))


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
    occluders: dict[int, list[shapely.Geometry]] = defaultdict(list)
    for i, j, how in zip(behind.tolist(), front.tolist(), kind.tolist()):
        shape = polygons[j] if how == _WHOLE else _nearer_part(polygons[j], boxes[i], planes[i] - planes[j])
        if shape is not None and not shape.is_empty:
            occluders[i].append(shape)
    seen = []
    for i, face in enumerate(faces):
        if hidden[i]:
            continue
        shape = _without(face.polygon, occluders[i]) if i in occluders else face.polygon
        for piece in polygons_of(shape):
            if piece.area / piece.length > TOL.sliver_width / 2:
                seen.append(Face(piece, face.plane, face.part, face.normal))
    return seen


LARGE_FIRST = 3
"""So many of the largest occluders are taken off one by one: most hidden faces are gone by then."""


def _without(polygon: Polygon, occluders: list[shapely.Geometry]) -> shapely.Geometry:
    """A polygon less what lies in front of it, on the grid."""
    held = sorted(occluders, key=lambda shape: -shape.area)
    shape: shapely.Geometry = polygon
    for taken in held[:LARGE_FIRST]:
        shape = shapely.difference(shape, taken, grid_size=TOL.grid)
        if shape.is_empty:
            return shape
    rest = held[LARGE_FIRST:]
    return shapely.difference(shape, shapely.union_all(rest), grid_size=TOL.grid) if rest else shape


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


def _nearer_part(polygon: Polygon, box: NDArray[np.float64], gap: NDArray[np.float64]) -> shapely.Geometry | None:
    """What of a polygon, within a box, is nearer: where the depth of the face behind it is greater by `gap`."""
    x0, y0, x1, y1 = box
    ring: list[Point] = [(x0, y0), (x1, y0), (x1, y1), (x0, y1)]
    values = [gap[0] * x + gap[1] * y + gap[2] for x, y in ring]
    clipped: list[Point] = []
    for k in range(4):
        (p, d), (q, e) = (ring[k], values[k]), (ring[(k + 1) % 4], values[(k + 1) % 4])
        if d > 0:
            clipped.append(p)
        if (d > 0) != (e > 0):
            t = d / (d - e)
            clipped.append((p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t))
    return polygon.intersection(Polygon(clipped)) if len(clipped) > 2 else None
