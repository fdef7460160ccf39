"""A tiling of a view by faces: what is seen of each behind the others, where they cross in depth as well."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import MultiPolygon, Polygon

from ..catalog import material
from ..geometry import polygons_of
from ..memo import BulkMemo
from ..tolerance import TOL
from .faces import Face


class Scene:
    """Faces with their polygons, boxes (n, 4), planes (n, 3), and their rank where they coincide."""

    def __init__(self, faces: Sequence[Face]) -> None:
        self.faces = faces
        self.polygons: NDArray[np.object_] = np.array([face.polygon for face in faces], dtype=object)
        shapely.prepare(self.polygons)
        self.boxes: NDArray[np.float64] = shapely.bounds(self.polygons)
        self.planes: NDArray[np.float64] = np.array([face.plane for face in faces])
        self.order = _front_order(faces)
        self._points, self._count = shapely.get_coordinates(self.polygons), shapely.get_num_coordinates(self.polygons)
        self._start = np.cumsum(self._count) - self._count

    def extremes_in(
        self, which: NDArray[np.int_], gap: NDArray[np.float64]
    ) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        """Least and greatest value of a u + b v + c over polygons, given by their index; `gap` (n, 3)."""
        if not len(which):
            return np.empty(0), np.empty(0)
        count = self._count[which]
        first = np.cumsum(count) - count
        at = self._points[np.arange(count.sum()) + np.repeat(self._start[which] - first, count)]
        values = (np.repeat(gap[:, :2], count, axis=0) * at).sum(axis=1) + np.repeat(gap[:, 2], count)
        return np.minimum.reduceat(values, first), np.maximum.reduceat(values, first)


@dataclass(frozen=True, slots=True)
class Tiling:
    """Pieces of faces that overlap nowhere, and which face of the scene each belongs to.

    `is_plain`: no face of which nothing is seen hid anything of one that is: without such faces it is the same.
    """

    owner: NDArray[np.int_]
    pieces: list[Face]
    is_plain: bool


def tile(scene: Scene, chosen: NDArray[np.bool_]) -> Tiling:
    """What is seen of the chosen faces when there are no others."""
    index = np.flatnonzero(chosen)
    behind, front, kind = _pairs(scene, index)
    hiding: dict[int, list[tuple[Face, int]]] = defaultdict(list)
    for i, j, how in zip(behind.tolist(), front.tolist(), kind.tolist()):
        hiding[i].append((scene.faces[j], how))
    partly = [i for i in index.tolist() if i in hiding]
    cut = dict(zip(partly, _seen_pieces([(scene.faces[i], tuple(hiding[i])) for i in partly])))
    owner, pieces = [], []
    for i in index.tolist():
        for piece in cut.get(i, (scene.faces[i],)):
            owner.append(i)
            pieces.append(piece)
    held = np.array(owner, dtype=int)
    seen = np.zeros(len(chosen), dtype=bool)
    seen[held] = True
    return Tiling(held, pieces, not bool((seen[behind] & ~seen[front]).any()))


def extremes(
    gap: NDArray[np.float64], low: NDArray[np.float64], high: NDArray[np.float64]
) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Least and greatest value of a u + b v + c over boxes."""
    corners = np.stack([low, high, np.column_stack((low[:, 0], high[:, 1])), np.column_stack((high[:, 0], low[:, 1]))])
    values = gap[:, 0] * corners[:, :, 0] + gap[:, 1] * corners[:, :, 1] + gap[:, 2]
    return values.min(axis=0), values.max(axis=0)


Hiding = tuple[Face, tuple[tuple[Face, int], ...]]
"""A face, and those before it with how they hide it."""


def _cut_pieces(wanted: Sequence[Hiding]) -> list[tuple[Face, ...]]:
    """What is left of faces behind others."""
    clips = [(other, face) for face, hiding in wanted for other, how in hiding if how == _CLIP]
    nearer = iter(_nearer_faces(clips))
    found = []
    for face, hiding in wanted:
        occluders = [other.polygon if how == _WHOLE else next(nearer) for other, how in hiding]
        occluders = [shape for shape in occluders if not shape.is_empty]
        shape = _without(face.polygon, occluders) if occluders else face.polygon
        pieces = (piece for piece in polygons_of(shape) if piece.area / piece.length > TOL.sliver_width / 2)
        found.append(tuple(Face(piece, face.plane, face.part, face.normal) for piece in pieces))
    return found


_seen_pieces: BulkMemo[Hiding, tuple[Face, ...]] = BulkMemo(_cut_pieces, size=30_000)


LARGE_FIRST = 3
"""So many of the largest occluders are taken off one by one: most hidden faces are gone by then."""


def _without(polygon: Polygon, occluders: list[shapely.Geometry]) -> shapely.Geometry:
    """A polygon less what lies in front of it."""
    held = sorted(occluders, key=lambda shape: -shape.area)
    shape: shapely.Geometry = polygon
    for taken in held[:LARGE_FIRST]:
        shape = _polygonal(shapely.difference(shape, taken))
        if shape.is_empty:
            return shape
    rest = held[LARGE_FIRST:]
    if rest:
        shape = shapely.difference(shape, _polygonal(shapely.union_all(rest)))
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


def _pairs(scene: Scene, index: NDArray[np.int_]) -> tuple[NDArray[np.int_], NDArray[np.int_], NDArray[np.int_]]:
    """Of some faces, (behind, front, how): the front face hides what it covers of the one behind, whole or in part."""
    held = scene.polygons[index]
    i, j = (index[side] for side in shapely.STRtree(held).query(held))
    i, j = i[i != j], j[i != j]
    low = np.maximum(scene.boxes[i, :2], scene.boxes[j, :2])
    high = np.minimum(scene.boxes[i, 2:], scene.boxes[j, 2:])
    real = np.all(high - low > TOL.grid, axis=1)
    i, j, low, high = i[real], j[real], low[real], high[real]
    gap = scene.planes[i] - scene.planes[j]
    least, most = extremes(gap, low, high)
    # In one order, whatever the tree: what hides a face is a key of what is left of it.
    near = np.lexsort((j, i))
    near = near[most[near] >= -TOL.depth]
    near = near[shapely.intersects(scene.polygons[i[near]], scene.polygons[j[near]])]
    i, j, gap, least, most = i[near], j[near], gap[near], least[near], most[near]
    # Where their boxes tell too little, their corners may tell that the planes cross beside them.
    close = np.flatnonzero((least < -TOL.depth) & (most > TOL.depth))
    for side in (i[close], j[close]):
        low_in, high_in = scene.extremes_in(side, gap[close])
        least[close], most[close] = np.maximum(least[close], low_in), np.minimum(most[close], high_in)
    whole = (least >= -TOL.depth) & (most > TOL.depth)
    tie = (np.abs(least) <= TOL.depth) & (np.abs(most) <= TOL.depth) & (scene.order[j] < scene.order[i])
    clip = (least < -TOL.depth) & (most > TOL.depth)
    kind = np.where(whole | tie, _WHOLE, np.where(clip, _CLIP, 0))
    kept = np.flatnonzero(kind)
    return i[kept], j[kept], kind[kept]


def _nearer_faces(pairs: Sequence[tuple[Face, Face]]) -> list[shapely.Geometry]:
    """Per pair of a face and another one, what of the first is nearer to the viewer than the plane of the other."""
    if not pairs:
        return []
    polygons = np.array([one.polygon for one, _ in pairs], dtype=object)
    gaps = np.array([one.plane for one, _ in pairs]) - np.array([other.plane for _, other in pairs])
    return [_polygonal(shape) for shape in where_negative(polygons, gaps).tolist()]


def where_negative(polygons: NDArray[np.object_], planes: NDArray[np.float64]) -> NDArray[np.object_]:
    """Of each polygon, where a u + b v + c < 0, for (n, 3) planes that are not level."""
    a, b, c = planes.T
    boxes = shapely.bounds(polygons)
    middle = (boxes[:, :2] + boxes[:, 2:]) / 2
    reach = 2 * np.abs(boxes[:, 2:] - boxes[:, :2]).sum(axis=1)[:, None]
    steep = np.hypot(a, b)[:, None]
    normal = np.column_stack((a, b)) / steep
    along = np.column_stack((-normal[:, 1], normal[:, 0])) * reach
    foot = middle - normal * ((a * middle[:, 0] + b * middle[:, 1] + c)[:, None] / steep)
    low = -2 * normal * reach
    corners = np.stack([foot - along, foot + along, foot + along + low, foot - along + low])
    halves = shapely.polygons(np.concatenate([corners, corners[:1]]).transpose(1, 0, 2))
    kept: NDArray[np.object_] = shapely.intersection(polygons, halves)
    return kept
