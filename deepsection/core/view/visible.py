"""Visible surfaces: which regions of which facets are seen along a horizontal direction.

Exact and free of any depth order: each facet loses the union of what lies in front of it, and where two facets cross in
depth, the other one is first clipped along the line of equal depth. Only facets that are seen take part in that; the
rest are proved to be hidden.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Hashable, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import shapely
from numpy.typing import NDArray

from ..memo import LruCache
from ..tolerance import TOL
from .arrangement import arrangement_of
from .faces import Face
from .tiling import Scene, Tiling, extremes, tile, where_negative


def visible_faces(faces: Sequence[Face], view: Hashable = None) -> list[Face]:
    """The visible pieces of the faces; every piece is one polygon without slivers.

    Which faces are seen is guessed by samples. Of the guessed ones, each loses what others of them hide of it; the
    pieces tile the view. Every other face is then proved to lie behind all pieces that it overlaps, and within them.
    Where one does not, the nearest face of all is seen too, and the tiling is made anew. So no hidden face ever hides
    anything. `view` names the view: the guess starts from what was seen in it last, and what was proved then is proved
    again only where there are other pieces.
    """
    if not faces:
        return []
    last = _lately.get(view) if view is not None else None
    if last is not None and last.faces == tuple(faces):
        return list(last.pieces)
    scene = Scene(faces)
    chosen = _nearest(scene, _samples(scene, SAMPLES if last is None else SAMPLES // 2))
    names = _names(faces) if view is not None else []
    settled = np.zeros(len(faces), dtype=bool)
    if last is not None:
        chosen |= np.array([name in last.names for name in names])
        settled = np.array([face in last.hidden for face in faces])
    tiling = tile(scene, chosen)
    whole = np.ones(len(tiling.pieces), dtype=bool)
    fresh = whole if last is None else last.fresh(tiling.pieces)
    proved, rest = np.flatnonzero(~chosen & settled), np.flatnonzero(~chosen & ~settled)
    rest = rest[~_behind_one(scene, rest, chosen)]
    while True:
        # What was proved is proved but for the new tiles; what was not is asked about all of them.
        first = _not_behind(scene, proved, tiling, fresh)
        second = _not_behind(scene, rest, tiling, whole)
        spots = np.concatenate([first[1], second[1]])
        new = _nearest(scene, spots) & ~chosen if len(spots) else np.zeros(len(faces), dtype=bool)
        if not new.any():
            break  # Nothing is nearer, or by less than the tolerance.
        chosen |= new
        bare = np.concatenate([first[0], second[0]])
        held = np.concatenate([proved, rest])
        held = held[~new[held]]
        doubted = np.isin(held, bare)
        proved, rest = held[~doubted], held[doubted]
        tiling = tile(scene, chosen)
        whole, fresh = np.ones(len(tiling.pieces), dtype=bool), new[tiling.owner]
    seen = np.zeros(len(chosen), dtype=bool)
    seen[tiling.owner] = True
    if not tiling.is_plain:
        # The same pieces whatever was guessed, to the last vertex.
        tiling = tile(scene, seen)
    if view is not None:
        at = np.flatnonzero(seen).tolist()
        hidden = frozenset(faces).difference(faces[k] for k in at)
        _lately.put(view, _Last(tuple(faces), frozenset(names[k] for k in at), hidden, tuple(tiling.pieces)))
    return tiling.pieces


Name = tuple[str, float, float, float, int]


@dataclass(frozen=True, slots=True)
class _Last:
    """What was found in a view last: all faces, the names of those that were seen, those that were not, the pieces."""

    faces: tuple[Face, ...]
    names: frozenset[Name]
    hidden: frozenset[Face]
    pieces: tuple[Face, ...]

    def fresh(self, pieces: Sequence[Face]) -> NDArray[np.bool_]:
        """Which pieces are none of these: what was hidden is hidden by all others still."""
        known = frozenset(self.pieces)
        return np.array([piece not in known for piece in pieces])


_lately: LruCache[Hashable, _Last] = LruCache(size=60)
"""Per view, what was seen in it last: the better the guess, the fewer rounds; what was proved need not be again."""


def _names(faces: Sequence[Face]) -> list[Name]:
    """What faces are called from one time to the next: part, direction, and which of those alike."""
    alike: Counter[tuple[str, float, float, float]] = Counter()
    names = []
    for face in faces:
        stem = _stem(face)
        names.append((*stem, alike[stem]))
        alike[stem] += 1
    return names


@lru_cache(maxsize=50_000)
def _stem(face: Face) -> tuple[str, float, float, float]:
    x, y, z = face.normal
    return face.part.key, round(x, 2), round(y, 2), round(z, 2)


SAMPLES = 60
"""So many samples lie along the longer side of a view, and as close along the other."""


def _samples(scene: Scene, count: int) -> NDArray[np.float64]:
    """(n, 2) points: a grid over the view, so many along its longer side, and a point of every face."""
    x0, y0, x1, y1 = shapely.total_bounds(scene.polygons)
    step = max(x1 - x0, y1 - y0, 1.0) / count
    grid = np.meshgrid(np.arange(x0 + step / 3, x1, step), np.arange(y0 + step / 7, y1, step))
    own = shapely.get_coordinates(shapely.point_on_surface(scene.polygons))
    return np.concatenate([np.stack(grid, axis=-1).reshape(-1, 2), own])


def _nearest(scene: Scene, at: NDArray[np.float64]) -> NDArray[np.bool_]:
    """The faces that are nearest at one of some points at least."""
    # Which faces a point lies in is asked face by face: their preparation is used, and points are many.
    face, point = shapely.STRtree(shapely.points(at)).query(scene.polygons, predicate="contains")
    depth = (scene.planes[face, :2] * at[point]).sum(axis=1) + scene.planes[face, 2]
    ranked = np.lexsort((scene.order[face], np.round(depth / TOL.depth), point))
    first = np.ones(len(ranked), dtype=bool)
    first[1:] = point[ranked][1:] != point[ranked][:-1]
    chosen = np.zeros(len(scene.polygons), dtype=bool)
    chosen[face[ranked][first]] = True
    return chosen


def _behind_one(scene: Scene, rest: NDArray[np.int_], chosen: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Which of the other faces lie wholly behind one chosen face: most of what is hidden."""
    front = np.flatnonzero(chosen)
    n, k = shapely.STRtree(scene.polygons[front]).query(scene.polygons[rest])
    i, j = rest[n], front[k]
    inside = np.all(scene.boxes[j, :2] <= scene.boxes[i, :2] + TOL.grid, axis=1)
    inside &= np.all(scene.boxes[j, 2:] >= scene.boxes[i, 2:] - TOL.grid, axis=1)
    n, i, j = n[inside], i[inside], j[inside]
    least, most = extremes(scene.planes[i] - scene.planes[j], scene.boxes[i, :2], scene.boxes[i, 2:])
    tie = (most <= TOL.depth) & (scene.order[j] < scene.order[i])
    before = (least >= -TOL.depth) & ((most > TOL.depth) | tie)
    n, i, j = n[before], i[before], j[before]
    hidden = np.zeros(len(rest), dtype=bool)
    hidden[n[shapely.covers(scene.polygons[j], scene.polygons[i])]] = True
    return hidden


def _past(scene: Scene, rest: NDArray[np.int_], tiling: Tiling) -> tuple[NDArray[np.int_], NDArray[np.float64]]:
    """Which of the other faces, by their place, reach past the outline of a tiling, and places (n, 2) of them there.

    A point of each lies behind the tiles, so that those that do cross its outline. Slivers along it do not count.
    """
    outline = shapely.linestrings(arrangement_of(tuple(tiling.pieces)).outline(TOL.sliver_width))
    past, line = shapely.STRtree(outline).query(scene.polygons[rest], predicate="intersects")
    crossing = shapely.intersection(outline[line], scene.polygons[rest[past]])
    pieces, which = shapely.get_parts(crossing, return_index=True)
    long = shapely.length(pieces) > TOL.sliver_width
    spots = shapely.line_interpolate_point(pieces[long], 0.5, normalized=True)
    return past[which[long]], shapely.get_coordinates(spots)


def _not_behind(
    scene: Scene, rest: NDArray[np.int_], tiling: Tiling, keep: NDArray[np.bool_]
) -> tuple[NDArray[np.int_], NDArray[np.float64]]:
    """Which of the other faces are not proved to be hidden by some of the pieces, and places (n, 2) that show it.

    They lie past the silhouette there, or nearer than the piece.
    """
    if not len(rest):
        return rest, np.empty((0, 2))
    past, past_spots = _past(scene, rest, tiling)
    tiles = np.array([piece.polygon for piece, kept in zip(tiling.pieces, keep.tolist()) if kept], dtype=object)
    n, k = shapely.STRtree(tiles).query(scene.polygons[rest])
    i, j = rest[n], tiling.owner[keep][k]
    boxes = shapely.bounds(tiles)[k] if len(k) else np.empty((0, 4))
    low, high = np.maximum(scene.boxes[i, :2], boxes[:, :2]), np.minimum(scene.boxes[i, 2:], boxes[:, 2:])
    gap = scene.planes[i] - scene.planes[j]
    least, most = extremes(gap, low, high)
    real = np.all(high - low > TOL.grid, axis=1)
    same = (np.abs(least) <= TOL.depth) & (np.abs(most) <= TOL.depth)
    # Only their boxes may overlap, or the nearer part of the plane may lie beside the tile: look closely.
    at = np.flatnonzero(real & np.where(same, scene.order[i] < scene.order[j], least < -TOL.depth))
    at = at[same[at] | (scene.extremes_in(i[at], gap[at])[0] < -TOL.depth)]
    at = at[same[at] | (scene.extremes_in(j[at], gap[at])[0] < -TOL.depth)]
    at = at[shapely.intersects(scene.polygons[i[at]], tiles[k[at]])]
    at = at[~shapely.touches(scene.polygons[i[at]], tiles[k[at]])]
    shared = shapely.intersection(scene.polygons[i[at]], tiles[k[at]])
    crossing = ~same[at] & (most[at] > -TOL.depth)
    shared[crossing] = where_negative(shared[crossing], gap[at[crossing]] + [0.0, 0.0, TOL.depth])
    parts, part_of = shapely.get_parts(shared, return_index=True)
    wide = shapely.area(parts) > TOL.sliver_width * shapely.length(parts) / 2
    spots = shapely.get_coordinates(shapely.point_on_surface(parts[wide]))
    found = np.concatenate([past, n[at][part_of[wide]]])
    return np.unique(rest[found]), np.concatenate([past_spots, spots])
