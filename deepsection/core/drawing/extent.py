"""How far marks reach, with their lettering."""

from __future__ import annotations

from collections.abc import Iterable

import numpy as np
from numpy.typing import NDArray

from .explode import exploded
from .ink import text_corners
from .marks import Mark, Region, Ring, Stroke
from .outlines import closed, points_along


def extent(
    marks: Iterable[Mark], scale: float, also: NDArray[np.float64] | None = None
) -> tuple[float, float, float, float]:
    """x0, y0, x1, y1 of marks, symbols and lettering included, and of (n, 2) other points; a unit box when empty."""
    paths: list[Ring] = []
    points: list[tuple[float, float]] = []
    for mark in exploded(marks, scale):
        if isinstance(mark, Region):
            paths.append(closed(mark.rings[0]))
        elif isinstance(mark, Stroke):
            paths.append(closed(mark.path) if mark.closed else mark.path)
        else:
            points += text_corners(mark, scale, 0.0).tolist()
    along, _ = points_along(paths)
    reached = np.concatenate([along, np.array(points).reshape(-1, 2), *([] if also is None else [also])])
    if not len(reached):
        return 0.0, 0.0, 1.0, 1.0
    (x0, y0), (x1, y1) = reached.min(axis=0).tolist(), reached.max(axis=0).tolist()
    return x0, y0, x1, y1
