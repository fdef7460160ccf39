"""Lines of a view, from its visible faces: what kind of edge lies between the two sides of each segment."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import shapely
from numpy.typing import NDArray

from ..geometry import Point
from ..tolerance import TOL
from .faces import Face

PROBE = 0.02
"""How far from a segment its two sides are looked at (mm)."""
FAR_BEHIND = 600.0
"""A depth jump of more than this is an outline, as against the sky."""
NEAR_BEHIND = 26.0
"""A depth jump of less than this is a fine edge: trims, frames, boards."""

CHORD_BEND = 0.3
"""Faces of a bent part that turn by less (difference of unit normals) are chords of one arc: no line between them."""


@dataclass(frozen=True, slots=True)
class Edge:
    """A straight visible line: ends, pen, the nearer face and (where there is one) the face behind it."""

    start: Point
    end: Point
    pen: str
    face: Face
    other: Face | None


@lru_cache(maxsize=64)
def visible_edges(faces: tuple[Face, ...], *, backdrop: bool = False) -> tuple[Edge, ...]:
    """The lines between visible faces, each once, longest straight pieces.

    With `backdrop` the outline against nothing is drawn as an ordinary edge (behind a cut).
    """
    if not faces:
        return ()
    polygons = np.array([face.polygon for face in faces], dtype=object)
    segments = _segments(polygons)
    if not len(segments):
        return ()
    planes = np.array([face.plane for face in faces])
    left, right = _sides(segments, polygons, planes)
    pen, near, far = _classify(segments.mean(axis=1), faces, planes, left, right, backdrop)
    drawn = pen >= 0
    count = len(faces) + 1
    keys, owner = np.unique((pen[drawn] * count + near[drawn]) * count + far[drawn] + 1, return_inverse=True)
    edges: list[Edge] = []
    for key, lines in zip(keys.tolist(), _straight(segments[drawn], owner, len(keys))):
        rest, behind = divmod(key, count)
        name, before = divmod(rest, count)
        other = faces[behind - 1] if behind else None
        edges += [Edge(start, end, PENS[name], faces[before], other) for start, end in lines]
    return tuple(edges)


def _segments(polygons: NDArray[np.object_]) -> NDArray[np.float64]:
    """(n, 2, 2) float: all boundaries, noded on the grid, each piece once."""
    noded = shapely.unary_union(shapely.boundary(polygons), grid_size=TOL.grid)
    coordinates, index = shapely.get_coordinates(shapely.get_parts(noded), return_index=True)
    same = index[1:] == index[:-1]
    pieces: NDArray[np.float64] = np.stack([coordinates[:-1][same], coordinates[1:][same]], axis=1)
    return pieces


def _sides(
    segments: NDArray[np.float64], polygons: NDArray[np.object_], planes: NDArray[np.float64]
) -> tuple[NDArray[np.int_], NDArray[np.int_]]:
    """Index of the face on the left and on the right of each segment; -1 for none."""
    along = segments[:, 1] - segments[:, 0]
    length = np.linalg.norm(along, axis=1)
    normal = np.column_stack((-along[:, 1], along[:, 0])) / np.maximum(length, TOL.grid)[:, None]
    middle = segments.mean(axis=1)
    tree = shapely.STRtree(polygons)
    found = []
    for sign in (1.0, -1.0):
        at = middle + sign * PROBE * normal
        side = np.full(len(segments), -1)
        best = np.full(len(segments), np.inf)
        point, face = tree.query(shapely.points(at), predicate="intersects")
        depth = (planes[face, :2] * at[point]).sum(axis=1) + planes[face, 2]
        for k in np.argsort(-depth, kind="stable"):
            if depth[k] <= best[point[k]]:
                best[point[k]], side[point[k]] = depth[k], face[k]
        found.append(side)
    return found[0], found[1]


PENS = ("outline", "edge", "crease", "fine")
_OUTLINE, _EDGE, _CREASE, _FINE, _NONE = 0, 1, 2, 3, -1


def _classify(
    middles: NDArray[np.float64],
    faces: Sequence[Face],
    planes: NDArray[np.float64],
    left: NDArray[np.int_],
    right: NDArray[np.int_],
    backdrop: bool,
) -> tuple[NDArray[np.int_], NDArray[np.int_], NDArray[np.int_]]:
    """Per segment its pen (-1: no line), the nearer face beside it, and the other one (-1: none)."""
    alone = (left < 0) | (right < 0)
    one, two = np.where(alone, np.maximum(left, right), left), np.where(alone, np.maximum(left, right), right)
    depths = [(planes[side, :2] * middles).sum(axis=1) + planes[side, 2] for side in (one, two)]
    gap = depths[1] - depths[0]
    near, far = np.where(gap >= 0, one, two), np.where(gap >= 0, two, one)
    steep = np.abs(planes[:, :2]).max(axis=1)
    far_off = np.abs(gap)
    jump = far_off > 1.0 + np.maximum(steep[near], steep[far]) * PROBE * 4
    jumped = np.where(far_off > FAR_BEHIND, _OUTLINE, np.where(far_off > NEAR_BEHIND, _EDGE, _CREASE))
    normals = np.array([face.normal for face in faces])
    bent = np.array([face.part.curve is not None for face in faces])
    kinds = {name: k for k, name in enumerate(dict.fromkeys(face.part.material for face in faces))}
    made_of = np.array([kinds[face.part.material] for face in faces])
    bend = np.abs(normals[near] - normals[far]).max(axis=1)
    chord = (bend < CHORD_BEND) & (bent[near] | bent[far])
    flush = np.where((bend > 1e-3) & ~chord, _CREASE, np.where(made_of[near] != made_of[far], _FINE, _NONE))
    pen = np.where(jump, jumped, flush)
    pen = np.where(alone, _EDGE if backdrop else _OUTLINE, pen)
    return np.where(left == right, _NONE, pen), near, np.where(alone, -1, far)


def _straight(segments: NDArray[np.float64], owner: NDArray[np.int_], count: int) -> list[list[tuple[Point, Point]]]:
    """Per chain, the pieces of it joined and parted again at their bends; `owner` is the chain of each segment."""
    if not count:
        return []
    order = np.argsort(owner, kind="stable")
    pieces = shapely.linestrings(segments[order])
    merged = shapely.simplify(shapely.line_merge(shapely.multilinestrings(pieces, indices=owner[order])), TOL.grid * 2)
    lines, chain_of = shapely.get_parts(merged, return_index=True)
    points, line_of = shapely.get_coordinates(lines, return_index=True)
    found: list[list[tuple[Point, Point]]] = [[] for _ in range(count)]
    within = line_of[1:] == line_of[:-1]
    long = np.abs(points[1:] - points[:-1]).sum(axis=1) > TOL.point
    at = np.flatnonzero(within & long)
    chains = chain_of[line_of[at]].tolist()
    for chain, (x0, y0), (x1, y1) in zip(chains, points[at].tolist(), points[at + 1].tolist()):
        found[chain].append(((x0, y0), (x1, y1)))
    return found
