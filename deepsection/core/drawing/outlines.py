"""The paths of marks as points, lines and areas, many at once; arcs in short pieces."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import chain
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray

from .marks import Ring

PIECES = 8
"""An arc is so many chords."""

Shapes = NDArray[Any]


def closed(ring: Ring) -> Ring:
    """A ring that comes back to where it began."""
    x, y, _ = ring[0]
    return (*ring, (x, y, 0.0))


def closed_area(ring: Ring) -> Ring:
    """A ring that comes back to where it began, of as many points as a ring of the library needs."""
    return closed(closed(ring) if len(ring) < 3 else ring)


def points_along(paths: Sequence[Ring]) -> tuple[NDArray[np.float64], NDArray[np.int_]]:
    """(n, 2) points along open paths, and of which path each is."""
    owner = np.repeat(np.arange(len(paths)), [len(path) for path in paths])
    flat = chain.from_iterable(chain.from_iterable(paths))
    vertices = np.fromiter(flat, dtype=np.float64, count=3 * len(owner)).reshape(-1, 3)
    bent = np.flatnonzero((vertices[:-1, 2] != 0.0) & (owner[1:] == owner[:-1]))
    if not len(bent):
        return vertices[:, :2], owner
    pieces = np.ones(len(vertices), dtype=np.int_)
    pieces[bent] = PIECES
    at = np.repeat(np.arange(len(vertices)), pieces)
    step = np.arange(len(at)) - np.repeat(np.cumsum(pieces) - pieces, pieces)
    points = vertices[at, :2]
    within = np.flatnonzero(step > 0)
    points[within] = _on_arcs(vertices[at[within]], vertices[at[within] + 1, :2], step[within] / PIECES)
    return points, owner[at]


def _on_arcs(start: NDArray[np.float64], end: NDArray[np.float64], share: NDArray[np.float64]) -> NDArray[np.float64]:
    """(n, 2) points at a share of the way along arcs; the third column of their starts is tan(angle / 4)."""
    bulge, chord = start[:, 2], end - start[:, :2]
    sweep, offset = 4 * np.arctan(bulge), (1 - bulge**2) / (4 * bulge)
    centre = (start[:, :2] + end) / 2 + offset[:, None] * np.stack([-chord[:, 1], chord[:, 0]], axis=1)
    x, y = (start[:, :2] - centre).T
    c, s = np.cos(sweep * share), np.sin(sweep * share)
    on: NDArray[np.float64] = centre + np.stack([x * c - y * s, x * s + y * c], axis=1)
    return on


def lines_of(paths: Sequence[Ring]) -> Shapes:
    """(n,) lines along open paths."""
    return Paths(paths).lines(range(len(paths)))


def areas_of(held: Sequence[Sequence[Ring]]) -> Shapes:
    """(n,) areas by their rings, the outer one of each first."""
    ends = np.cumsum([len(rings) for rings in held]).tolist()
    return Paths([closed_area(ring) for rings in held for ring in rings]).areas(list(map(range, [0, *ends], ends)))


class Paths:
    """Many paths as points, worked out once: from these come the lines along some of them, and the areas in others."""

    def __init__(self, paths: Sequence[Ring]) -> None:
        self.points, owner = points_along([path if len(path) > 1 else path * 2 for path in paths])
        """(n, 2) points along all of them."""
        self._starts = np.searchsorted(owner, np.arange(len(paths) + 1))

    def lines(self, which: Sequence[int]) -> Shapes:
        """(n,) lines along some of them, of two points at the least."""
        if not len(which):
            return np.empty(0, dtype=object)
        points, owner = self._along(which)
        return np.asarray(shapely.linestrings(points, indices=owner))

    def areas(self, which: Sequence[Sequence[int]]) -> Shapes:
        """(n,) areas within closed ones of four points at the least, the outer ring of each first."""
        if not len(which):
            return np.empty(0, dtype=object)
        points, owner = self._along(list(chain.from_iterable(which)))
        made = shapely.linearrings(points, indices=owner)
        return np.asarray(shapely.polygons(made, indices=np.repeat(np.arange(len(which)), [len(r) for r in which])))

    def _along(self, which: Sequence[int]) -> tuple[NDArray[np.float64], NDArray[np.int_]]:
        """(n, 2) points along some of them, and of which of these each is."""
        starts = self._starts[list(which)]
        many = self._starts[np.array(which) + 1] - starts
        owner = np.repeat(np.arange(len(which)), many)
        within = np.arange(len(owner)) - np.repeat(np.cumsum(many) - many, many)
        return self.points[np.repeat(starts, many) + within], owner
