"""The arrangement of a tiling: every line between its tiles, in elementary pieces with the tile on either side.

Tiles overlap nowhere, so their boundaries cross nowhere: pieces end only where tiles on one and the same line do.
Lines are found by sorting, and each of them is parted by itself; no overlay is needed.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import shapely
from numpy.typing import NDArray

from ..tolerance import TOL
from .faces import Face

PROBE = 0.06
"""How far from a piece its sides are looked at where no tile borders on it (mm): past a sliver there may be one."""
STRAIGHT = 1e-4
"""A boundary that runs aside by less than this is level, or upright (mm)."""
ALONG = 0.9
"""Cosine of the turn up to which a short side on the line of another runs along it."""

Floats = NDArray[np.float64]
Ints = NDArray[np.int_]


@dataclass(frozen=True, slots=True)
class Arrangement:
    """Pieces of lines: (n, 2, 2) ends, the tile on the left and on the right of each (-1: none), and its line.

    Pieces of a line follow each other in the direction in which the line runs; lines are numbered from zero.
    """

    pieces: Floats
    left: Ints
    right: Ints
    line: Ints

    def outline(self, clear: float) -> Floats:
        """(n, 2, 2) the pieces with a tile on one side only, shifted so far to the other, clear of what meets there."""
        alone = (self.left < 0) != (self.right < 0)
        ends = self.pieces[alone]
        along = ends[:, 1] - ends[:, 0]
        length = np.hypot(*along.T)
        along /= length[:, None]
        aside = np.column_stack((-along[:, 1], along[:, 0])) * np.where(self.left[alone] < 0, clear, -clear)[:, None]
        inwards = along * np.where(length > 4 * clear, clear, 0.0)[:, None]
        return np.stack([ends[:, 0] + aside + inwards, ends[:, 1] + aside - inwards], axis=1)


@lru_cache(maxsize=16)
def arrangement_of(faces: tuple[Face, ...]) -> Arrangement:
    """The arrangement of visible faces; their number is their place."""
    polygons = np.array([face.polygon for face in faces], dtype=object)
    return arrangement(polygons, np.array([face.plane for face in faces]))


def arrangement(polygons: NDArray[np.object_], planes: Floats) -> Arrangement:
    """The lines between polygons that overlap by no more than slivers; where two do, the one with less depth counts.

    `planes` (n, 3): depth = a u + b v + c of each polygon.
    """
    planes = planes.reshape(-1, 3)
    start, end, owner, inside_left = _sides_of(polygons)
    line, order, t = _lines(start, end)
    start, end, owner, inside_left = start[order], end[order], owner[order], inside_left[order]
    node, place = _nodes(line, t[:, 0], t[:, 1], start, end)
    first, last = node[:, 0], node[:, 1]
    # Each side of a polygon covers the elementary pieces between its nodes.
    span = last - first
    side = np.repeat(np.arange(len(first)), span)
    piece = first[side] + np.arange(len(side)) - np.repeat(np.cumsum(span) - span, span)
    middle = (place[piece] + place[piece + 1]) / 2
    plane = planes[owner[side]]
    depth = (plane[:, :2] * middle).sum(axis=1) + plane[:, 2]
    on_left, whose = inside_left[side], owner[side]
    kept = ~_spikes(piece, whose)
    left, right = (_first(piece[at], depth[at], whose[at], len(place)) for at in (kept & on_left, kept & ~on_left))
    held = np.flatnonzero((left >= 0) | (right >= 0))
    line_of = np.zeros(len(place), dtype=int)
    line_of[piece] = line[side]
    pieces = np.stack([place[held], place[held + 1]], axis=1)
    left, right = left[held], right[held]
    _look_past_slivers(pieces, left, right, polygons, planes)
    return Arrangement(pieces, left, right, line_of[held])


def _sides_of(polygons: NDArray[np.object_]) -> tuple[Floats, Floats, Ints, NDArray[np.bool_]]:
    """Starts and ends (n, 2) of all sides, each turned to run rightwards (upright ones upwards), whose it is, and
    whether the polygon lies on its left."""
    rings, polygon_of = shapely.get_rings(polygons, return_index=True)
    outer = np.ones(len(rings), dtype=bool)
    outer[1:] = polygon_of[1:] != polygon_of[:-1]
    points, ring_of = shapely.get_coordinates(rings, return_index=True)
    within = ring_of[1:] == ring_of[:-1]
    start, end, ring = points[:-1][within], points[1:][within], ring_of[:-1][within]
    # By their areas: a ring with a spike at its top has no other sign that can be trusted.
    origin = points[np.searchsorted(ring_of, np.arange(len(rings)))]
    area = np.bincount(ring, _cross(start - origin[ring], end - origin[ring]), len(rings))
    left_of_ring = (area > 0) == outer
    along = end - start
    long = np.abs(along).max(axis=1) > STRAIGHT
    start, end, ring, along = start[long], end[long], ring[long], along[long]
    upright = np.abs(along[:, 0]) < STRAIGHT
    turned = np.where(upright, along[:, 1] < 0, along[:, 0] < 0)
    start, end = np.where(turned[:, None], end, start), np.where(turned[:, None], start, end)
    return start, end, polygon_of[ring], left_of_ring[ring] != turned


def _lines(start: Floats, end: Floats) -> tuple[Ints, Ints, Floats]:
    """The line on which each side lies, an order of the sides by lines, and (n, 2) where on its line each begins and
    ends; line and places in that order."""
    along = end - start
    direction = along / np.hypot(*along.T)[:, None]
    level, upright = np.abs(along[:, 1]) < STRAIGHT, np.abs(along[:, 0]) < STRAIGHT
    direction[level], direction[upright] = (1.0, 0.0), (0.0, 1.0)
    line = np.empty(len(start), dtype=int)
    slanted = np.flatnonzero(~level & ~upright)
    first = 0
    for held, offset in ((level, start[:, 1]), (upright, start[:, 0])):
        at = np.flatnonzero(held)
        at = at[np.argsort(offset[at], kind="stable")]
        line[at] = first + _groups(offset[at], TOL.point / 2)
        first += len(at)
    leader = slanted[_leaders(start[slanted], end[slanted], direction[slanted])]
    line[slanted], direction[slanted] = first + leader, direction[leader]
    order = np.argsort(line, kind="stable")
    t = np.stack([(direction * start).sum(axis=1), (direction * end).sum(axis=1)], axis=1)
    return line[order], order, t[order]


def _leaders(start: Floats, end: Floats, direction: Floats) -> Ints:
    """Per slanted side the longest one on its line, which it meets itself or by way of others.

    Their ends lie on a grid, so that short ones point aside: a side belongs to a longer one whose line holds its ends.
    """
    sides = shapely.linestrings(np.stack([start, end], axis=1))
    i, j = shapely.STRtree(sides).query(sides)
    rank = np.empty(len(sides), dtype=int)
    rank[np.argsort(-shapely.length(sides), kind="stable")] = np.arange(len(sides))
    longer = rank[j] < rank[i]
    i, j = i[longer], j[longer]
    for ends in (start, end):
        aside = np.abs(_cross(direction[j], ends[i] - start[j])) < TOL.point / 2
        i, j = i[aside], j[aside]
    ahead = (direction[i] * direction[j]).sum(axis=1) > ALONG
    i, j = i[ahead], j[ahead]
    leader = np.arange(len(sides))
    shortest_first = np.argsort(-rank[j], kind="stable")
    leader[i[shortest_first]] = j[shortest_first]
    while (following := leader[leader]).tolist() != leader.tolist():
        leader = following
    return leader


def _cross(a: Floats, b: Floats) -> Floats:
    crossed: Floats = a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0]
    return crossed


def _groups(values: Floats, gap: float, parted: NDArray[np.bool_] | None = None) -> Ints:
    """Sorted values in groups: a new one begins after a gap, and where `parted` says so."""
    if not len(values):
        return np.empty(0, dtype=int)
    begins = np.zeros(len(values), dtype=bool)
    begins[1:] = np.diff(values) > gap
    if parted is not None:
        begins |= parted
    return np.cumsum(begins)


def _nodes(line: Ints, begin: Floats, finish: Floats, start: Floats, end: Floats) -> tuple[Ints, Floats]:
    """(n, 2) the nodes at which each side begins and ends, and where (m, 2) the nodes lie, those of a line in a row."""
    lines, t = np.concatenate([line, line]), np.concatenate([begin, finish])
    order = np.lexsort((t, lines))
    parted = np.r_[False, lines[order][1:] != lines[order][:-1]] if len(order) else np.empty(0, dtype=bool)
    node = np.empty(len(t), dtype=int)
    node[order] = _groups(t[order], TOL.point / 2, parted)
    count = int(node.max()) + 1 if len(node) else 0
    place = np.empty((count, 2))
    place[node] = np.concatenate([start, end])
    return node.reshape(2, -1).T, place


def _spikes(piece: Ints, owner: Ints) -> NDArray[np.bool_]:
    """Where a polygon lies on both sides of a piece of its own boundary: it has a spike there, without any area."""
    key = piece * (int(owner.max(initial=0)) + 1) + owner
    _, which, count = np.unique(key, return_inverse=True, return_counts=True)
    found: NDArray[np.bool_] = count[which] > 1
    return found


def _first(piece: Ints, depth: Floats, owner: Ints, count: int) -> Ints:
    """Per elementary piece, the nearest of the polygons beside it; -1 for none."""
    found = np.full(count, -1)
    far_first = np.lexsort((-owner, -depth))
    found[piece[far_first]] = owner[far_first]
    return found


def _look_past_slivers(pieces: Floats, left: Ints, right: Ints, polygons: NDArray[np.object_], planes: Floats) -> None:
    """Fill in the sides on which no tile borders, but lies a sliver away."""
    along = pieces[:, 1] - pieces[:, 0]
    aside = np.column_stack((-along[:, 1], along[:, 0])) / np.maximum(np.hypot(*along.T), TOL.grid)[:, None]
    middle = pieces.mean(axis=1)
    for side, sign in ((left, PROBE), (right, -PROBE)):
        bare = np.flatnonzero(side < 0)
        at = middle[bare] + sign * aside[bare]
        polygon, point = shapely.STRtree(shapely.points(at)).query(polygons, predicate="intersects")
        depth = (planes[polygon, :2] * at[point]).sum(axis=1) + planes[polygon, 2]
        side[bare] = _first(point, depth, polygon, len(bare))
