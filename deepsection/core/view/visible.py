"""Visible surfaces: which regions of which facets are seen along a horizontal direction.

Exact and free of any depth order: each facet loses the union of what lies in front of it, and where two facets cross in
depth, the other one is first clipped along the line of equal depth. Only facets that are seen take part in that; the
rest are proved to be hidden.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Hashable, Iterable, Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import MultiPolygon, Polygon

from ..catalog import material
from ..geometry import Facet, Point, half_plane, polygons_of, prepare_facets
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
    prepare_facets(part.solid for part, _, _ in wanted)
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


def visible_faces(faces: Sequence[Face], view: Hashable = None) -> list[Face]:
    """The visible pieces of the faces; every piece is one polygon without slivers.

    Which faces are seen is guessed by samples. Of the guessed ones, each loses what others of them hide of it; the
    pieces tile the view. Every other face is then proved to lie behind all pieces that it overlaps, and within them:
    the one that is not is seen too, and the tiling is made anew. So no hidden face ever hides anything. `view` names
    the view, so that the guess may start from what was seen in it last.
    """
    if not faces:
        return []
    held = np.array([face.polygon for face in faces], dtype=object)
    shapely.prepare(held)
    scene = _Scene(faces, held, shapely.bounds(held), np.array([face.plane for face in faces]), _front_order(faces))
    names, known = [_name(face) for face in faces], _lately.get(view, frozenset())
    chosen = _sampled(scene) | np.array([name in known for name in names])
    rest = np.flatnonzero(~chosen)
    rest = rest[~_behind_one(scene, rest, chosen)]
    added: set[int] = set()
    while True:
        owner, pieces = _tiling(scene, chosen)
        missed = _not_behind(scene, rest, chosen, owner, pieces)
        if not len(missed):
            break
        chosen[missed] = True
        added |= set(missed.tolist())
        rest = np.setdiff1d(rest, missed, assume_unique=True)
    seen = np.zeros(len(chosen), dtype=bool)
    seen[owner] = True
    if not np.array_equal(seen, chosen):
        # The same pieces whatever was guessed, to the last vertex.
        owner, pieces = _tiling(scene, seen)
    # Also what could not be proved hidden and is: it would take another round next time.
    _remember(view, (names[k] for k in {*owner.tolist(), *added}))
    return pieces


Name = tuple[str, float, float, float]
_lately: dict[Hashable, frozenset[Name]] = {}
"""Per view, what was seen in it last: the better the guess, the fewer rounds. It changes no result."""
VIEWS = 200


def _name(face: Face) -> Name:
    x, y, z = face.normal
    return face.part.key, round(x, 2), round(y, 2), round(z, 2)


def _remember(view: Hashable, names: Iterable[Name]) -> None:
    _lately.pop(view, None)
    _lately[view] = frozenset(names)
    for old in list(_lately)[: max(0, len(_lately) - VIEWS)]:
        del _lately[old]


@dataclass(frozen=True, slots=True)
class _Scene:
    """Faces with their polygons, boxes, planes, and their rank where they coincide."""

    faces: Sequence[Face]
    polygons: NDArray[np.object_]
    boxes: NDArray[np.float64]
    planes: NDArray[np.float64]
    order: NDArray[np.int_]


SAMPLES = 40
"""So many samples lie along the longer side of a view, and as close along the other."""


def _sampled(scene: _Scene) -> NDArray[np.bool_]:
    """The faces that are nearest at one sample at least: a grid over the view, and a point of every face."""
    x0, y0, x1, y1 = shapely.total_bounds(scene.polygons)
    step = max(x1 - x0, y1 - y0, 1.0) / SAMPLES
    grid = np.meshgrid(np.arange(x0 + step / 3, x1, step), np.arange(y0 + step / 7, y1, step))
    own = shapely.get_coordinates(shapely.point_on_surface(scene.polygons))
    at = np.concatenate([np.stack(grid, axis=-1).reshape(-1, 2), own])
    # Which faces a point lies in is asked face by face: their preparation is used, and points are many.
    face, point = shapely.STRtree(shapely.points(at)).query(scene.polygons, predicate="contains")
    depth = (scene.planes[face, :2] * at[point]).sum(axis=1) + scene.planes[face, 2]
    ranked = np.lexsort((scene.order[face], np.round(depth / TOL.depth), point))
    first = np.ones(len(ranked), dtype=bool)
    first[1:] = point[ranked][1:] != point[ranked][:-1]
    chosen = np.zeros(len(scene.polygons), dtype=bool)
    chosen[face[ranked][first]] = True
    return chosen


def _tiling(scene: _Scene, chosen: NDArray[np.bool_]) -> tuple[NDArray[np.int_], list[Face]]:
    """What is seen of the chosen faces when there are no others, and the face of each piece."""
    index = np.flatnonzero(chosen)
    behind, front, kind = _pairs(scene, index)
    hiding: dict[int, list[tuple[Face, int]]] = defaultdict(list)
    for i, j, how in zip(behind.tolist(), front.tolist(), kind.tolist()):
        hiding[i].append((scene.faces[j], how))
    keys = [(scene.faces[i], tuple(hiding[i])) for i in index.tolist() if i in hiding]
    cut = dict(zip((i for i in index.tolist() if i in hiding), _seen_pieces(keys)))
    owner, pieces = [], []
    for i in index.tolist():
        for piece in cut.get(i, (scene.faces[i],)):
            owner.append(i)
            pieces.append(piece)
    return np.array(owner, dtype=int), pieces


def _behind_one(scene: _Scene, rest: NDArray[np.int_], chosen: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Which of the other faces lie wholly behind one chosen face: most of what is hidden."""
    front = np.flatnonzero(chosen)
    n, k = shapely.STRtree(scene.polygons[front]).query(scene.polygons[rest])
    i, j = rest[n], front[k]
    inside = np.all(scene.boxes[j, :2] <= scene.boxes[i, :2] + TOL.grid, axis=1)
    inside &= np.all(scene.boxes[j, 2:] >= scene.boxes[i, 2:] - TOL.grid, axis=1)
    n, i, j = n[inside], i[inside], j[inside]
    least, most = _extremes(scene.planes[i] - scene.planes[j], scene.boxes[i, :2], scene.boxes[i, 2:])
    tie = (most <= TOL.depth) & (scene.order[j] < scene.order[i])
    before = (least >= -TOL.depth) & ((most > TOL.depth) | tie)
    n, i, j = n[before], i[before], j[before]
    hidden = np.zeros(len(rest), dtype=bool)
    hidden[n[shapely.covers(scene.polygons[j], scene.polygons[i])]] = True
    return hidden


def _not_behind(
    scene: _Scene, rest: NDArray[np.int_], chosen: NDArray[np.bool_], owner: NDArray[np.int_], pieces: list[Face]
) -> NDArray[np.int_]:
    """Those of the other faces that are not proved to be hidden by the pieces."""
    if not len(rest):
        return rest
    silhouette = shapely.union_all(scene.polygons[chosen]).buffer(2 * TOL.grid)
    shapely.prepare(silhouette)
    failed = ~shapely.covers(silhouette, scene.polygons[rest])
    tiles = np.array([piece.polygon for piece in pieces], dtype=object)
    n, k = shapely.STRtree(tiles).query(scene.polygons[rest])
    keep = ~failed[n]
    n, k = n[keep], k[keep]
    i, j = rest[n], owner[k]
    low = np.maximum(scene.boxes[i, :2], shapely.bounds(tiles)[k, :2])
    high = np.minimum(scene.boxes[i, 2:], shapely.bounds(tiles)[k, 2:])
    gap = scene.planes[i] - scene.planes[j]
    least, most = _extremes(gap, low, high)
    real = np.all(high - low > TOL.grid, axis=1)
    same = (np.abs(least) <= TOL.depth) & (np.abs(most) <= TOL.depth)
    doubtful = np.flatnonzero(real & np.where(same, scene.order[i] < scene.order[j], least < -TOL.depth))
    # Only their boxes may overlap, or the nearer part of the plane may lie beside the tile: look closely.
    doubtful = doubtful[shapely.intersects(scene.polygons[i[doubtful]], tiles[k[doubtful]])]
    doubtful = doubtful[~shapely.touches(scene.polygons[i[doubtful]], tiles[k[doubtful]])]
    shared = shapely.intersection(scene.polygons[i[doubtful]], tiles[k[doubtful]])
    parts, part_of = shapely.get_parts(shared, return_index=True)
    wide = shapely.area(parts) > TOL.sliver_width * shapely.length(parts) / 2
    points, at = shapely.get_coordinates(parts[wide], return_index=True)
    pair = doubtful[part_of[wide][at]]
    depth = (gap[pair, :2] * points).sum(axis=1) + gap[pair, 2]
    before = np.where(same[pair], scene.order[i[pair]] < scene.order[j[pair]], depth < -TOL.depth)
    failed[n[pair[before]]] = True
    missed: NDArray[np.int_] = rest[failed]
    return missed


def _extremes(
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
    nearer = iter(_nearer_parts(clips))
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


def _pairs(scene: _Scene, index: NDArray[np.int_]) -> tuple[NDArray[np.int_], NDArray[np.int_], NDArray[np.int_]]:
    """Of some faces, (behind, front, how): the front face hides what it covers of the one behind, whole or in part."""
    held = scene.polygons[index]
    i, j = (index[side] for side in shapely.STRtree(held).query(held))
    i, j = i[i != j], j[i != j]
    low = np.maximum(scene.boxes[i, :2], scene.boxes[j, :2])
    high = np.minimum(scene.boxes[i, 2:], scene.boxes[j, 2:])
    real = np.all(high - low > TOL.grid, axis=1)
    i, j, low, high = i[real], j[real], low[real], high[real]
    least, most = _extremes(scene.planes[i] - scene.planes[j], low, high)
    whole = (least >= -TOL.depth) & (most > TOL.depth)
    tie = (np.abs(least) <= TOL.depth) & (np.abs(most) <= TOL.depth) & (scene.order[j] < scene.order[i])
    clip = (least < -TOL.depth) & (most > TOL.depth)
    kind = np.where(whole | tie, _WHOLE, np.where(clip, _CLIP, 0))
    kept = kind > 0
    return i[kept], j[kept], kind[kept]


def _nearer_parts(pairs: Sequence[tuple[Face, Face]]) -> list[shapely.Geometry]:
    """Per pair of a face and another one, what of the first is nearer to the viewer than the plane of the other."""
    if not pairs:
        return []
    polygons = np.array([one.polygon for one, _ in pairs], dtype=object)
    a, b, c = (np.array([one.plane for one, _ in pairs]) - np.array([other.plane for _, other in pairs])).T
    boxes = shapely.bounds(polygons)
    middle = (boxes[:, :2] + boxes[:, 2:]) / 2
    reach = 2 * np.abs(boxes[:, 2:] - boxes[:, :2]).sum(axis=1)[:, None]
    steep = np.hypot(a, b)[:, None]
    normal = np.column_stack((a, b)) / steep
    along = np.column_stack((-normal[:, 1], normal[:, 0])) * reach
    foot = middle - normal * ((a * middle[:, 0] + b * middle[:, 1] + c)[:, None] / steep)
    # The gap falls away from where it is nearer: the half plane lies on the low side.
    corners = np.stack(
        [foot - along, foot + along, foot + along - 2 * normal * reach, foot - along - 2 * normal * reach]
    )
    halves = shapely.polygons(np.concatenate([corners, corners[:1]]).transpose(1, 0, 2))
    return [_polygonal(shape) for shape in shapely.intersection(polygons, halves).tolist()]
