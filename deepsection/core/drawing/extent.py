"""How far marks reach, with their lettering."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

import numpy as np
from numpy.typing import NDArray

from ..geometry import flatten
from .explode import exploded
from .ink import text_corners
from .marks import Mark, Region, Ring, Stroke


def extent(marks: Iterable[Mark], scale: float) -> tuple[float, float, float, float]:
    """x0, y0, x1, y1 of marks, symbols and lettering included; a unit box when empty."""
    paths: list[Ring] = []
    points: list[tuple[float, float]] = []
    for mark in exploded(marks, scale):
        if isinstance(mark, Region):
            paths.append((*mark.rings[0], mark.rings[0][0]))
        elif isinstance(mark, Stroke):
            paths.append((*mark.path, mark.path[0]) if mark.closed else mark.path)
        else:
            points += text_corners(mark, scale, 0.0).tolist()
    vertices = np.array([vertex for held in paths for vertex in held]).reshape(-1, 3)
    points += _arcs_past(vertices, paths)
    reached = np.concatenate([vertices[:, :2], np.array(points).reshape(-1, 2)])
    if not len(reached):
        return 0.0, 0.0, 1.0, 1.0
    (x0, y0), (x1, y1) = reached.min(axis=0).tolist(), reached.max(axis=0).tolist()
    return x0, y0, x1, y1


def _arcs_past(vertices: NDArray[np.float64], paths: Sequence[Ring]) -> list[tuple[float, float]]:
    """Points along those paths whose arcs may reach past all vertices."""
    if not vertices[:, 2].any():
        return []
    owner = np.repeat(np.arange(len(paths)), [len(held) for held in paths])
    bent = np.flatnonzero((vertices[:-1, 2] != 0) & (owner[1:] == owner[:-1]))
    start, end = vertices[bent, :2], vertices[bent + 1, :2]
    reach = np.hypot(*(end - start).T) / 2 * np.maximum(1.0, np.abs(vertices[bent, 2]))
    middle = (start + end) / 2
    low, high = vertices[:, :2].min(axis=0), vertices[:, :2].max(axis=0)
    past = ((middle - reach[:, None] < low) | (middle + reach[:, None] > high)).any(axis=1)
    return [point for k in np.unique(owner[bent[past]]).tolist() for point in flatten(paths[k])]
