"""Lines of a view, from its visible faces: what kind of edge lies between the two sides of each segment."""

from __future__ import annotations

from collections import defaultdict
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
    sides = _sides(segments, polygons, np.array([face.plane for face in faces]))
    chains: dict[tuple[str, int, int], list[NDArray[np.float64]]] = defaultdict(list)
    middles = segments.mean(axis=1).tolist()
    for segment, middle, left, right in zip(segments, middles, sides[0].tolist(), sides[1].tolist()):
        found = _classify(middle, faces, left, right, backdrop)
        if found:
            chains[found].append(segment)
    if not chains:
        return ()
    edges: list[Edge] = []
    for (pen, near, far), lines in zip(chains, _straight(list(chains.values()))):
        other = faces[far] if far >= 0 else None
        edges += [Edge(start, end, pen, faces[near], other) for start, end in lines]
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


def _classify(
    middle: Sequence[float], faces: Sequence[Face], left: int, right: int, backdrop: bool
) -> tuple[str, int, int] | None:
    if left == right:
        return None
    if left < 0 or right < 0:
        return ("edge" if backdrop else "outline"), max(left, right), -1
    u, v = middle
    gap = faces[right].depth(u, v) - faces[left].depth(u, v)
    near, far = (left, right) if gap >= 0 else (right, left)
    slope = max(abs(term) for face in (faces[near], faces[far]) for term in face.plane[:2])
    if abs(gap) > 1.0 + slope * PROBE * 4:
        if abs(gap) > FAR_BEHIND:
            return "outline", near, far
        return ("edge" if abs(gap) > NEAR_BEHIND else "crease"), near, far
    first, second = faces[near], faces[far]
    bend = max(abs(p - q) for p, q in zip(first.normal, second.normal))
    if bend > 1e-3 and not (bend < CHORD_BEND and (first.part.curve or second.part.curve)):
        return "crease", near, far
    if first.part.material != second.part.material:
        return "fine", near, far
    return None


def _straight(chains: list[list[NDArray[np.float64]]]) -> list[list[tuple[Point, Point]]]:
    """Per chain, its pieces joined and parted again at their bends."""
    owner = np.repeat(np.arange(len(chains)), [len(chain) for chain in chains])
    pieces = shapely.linestrings(np.concatenate([np.stack(chain) for chain in chains]))
    merged = shapely.simplify(shapely.line_merge(shapely.multilinestrings(pieces, indices=owner)), TOL.grid * 2)
    lines, chain_of = shapely.get_parts(merged, return_index=True)
    points, line_of = shapely.get_coordinates(lines, return_index=True)
    found: list[list[tuple[Point, Point]]] = [[] for _ in chains]
    within = line_of[1:] == line_of[:-1]
    long = np.abs(points[1:] - points[:-1]).sum(axis=1) > TOL.point
    for k in np.flatnonzero(within & long).tolist():
        (x0, y0), (x1, y1) = points[k].tolist(), points[k + 1].tolist()
        found[chain_of[line_of[k]]].append(((x0, y0), (x1, y1)))
    return found
