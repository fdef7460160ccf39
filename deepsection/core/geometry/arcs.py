"""Paths of lines and arcs: vertices (x, y, bulge), bulge = tan(angle / 4), as in DXF polylines."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence


def flatten(vertices: Sequence[tuple[float, float, float]], steps: int = 8) -> list[tuple[float, float]]:
    """Points along an open path of lines and arcs; each arc in `steps` pieces."""
    points = []
    for (x0, y0, bulge), (x1, y1, _) in itertools.pairwise(vertices):
        points.append((x0, y0))
        if bulge:
            cx, cy, radius, start, sweep = arc_of(x0, y0, x1, y1, bulge)
            points += [
                (cx + radius * math.cos(start + sweep * k / steps), cy + radius * math.sin(start + sweep * k / steps))
                for k in range(1, steps)
            ]
    points.append(vertices[-1][:2])
    return points


def arc_of(x0: float, y0: float, x1: float, y1: float, bulge: float) -> tuple[float, float, float, float, float]:
    """(centre x, centre y, radius, start angle, sweep), angles in radians, of a bulged piece.

    >>> [round(value, 6) for value in arc_of(0.0, 0.0, 2.0, 0.0, 1.0)]
    [1.0, 0.0, 1.0, 3.141593, 3.141593]
    """
    sweep = 4 * math.atan(bulge)
    chord = math.hypot(x1 - x0, y1 - y0)
    radius = chord / (2 * math.sin(abs(sweep) / 2))
    offset = chord / 2 * (1 - bulge * bulge) / (2 * bulge)
    cx = (x0 + x1) / 2 - offset * (y1 - y0) / chord
    cy = (y0 + y1) / 2 + offset * (x1 - x0) / chord
    return cx, cy, radius, math.atan2(y0 - cy, x0 - cx), sweep
