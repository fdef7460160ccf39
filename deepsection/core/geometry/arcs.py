"""Paths of lines and arcs: vertices (x, y, bulge), bulge = tan(angle / 4), as in DXF polylines."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence

from ..tolerance import TOL


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


LONGEST = math.radians(170)
"""Arcs found in chords are parted before they turn by more."""


def arcs_in(
    ring: Sequence[tuple[float, float]], circles: Sequence[tuple[float, float, float]]
) -> tuple[tuple[float, float, float], ...]:
    """A closed ring of points as vertices (x, y, bulge): chords of the circles (x, y, radius) made arcs again.

    >>> from math import cos, sin
    >>> half = [(cos(k / 50), sin(k / 50)) for k in range(51)]
    >>> len(arcs_in([*half, (0.0, 0.0)], [(0.0, 0.0, 1.0)]))
    3
    """
    points = list(ring)
    owners = [_owner(a, b, circles) for a, b in zip(points, points[1:] + points[:1])]
    first = next((k for k in range(len(points)) if owners[k] != owners[k - 1]), 0)
    points, owners = points[first:] + points[:first], owners[first:] + owners[:first]
    vertices: list[tuple[float, float, float]] = []
    held, turned = None, 0.0
    for k, ((x, y), owner) in enumerate(zip(points, owners)):
        after = points[(k + 1) % len(points)]
        turn = _turn((x, y), after, circles[owner[0]]) if owner else 0.0
        if owner and owner == held and abs(turned + turn) < LONGEST:
            turned += turn
            vertices[-1] = (*vertices[-1][:2], math.tan(turned / 4))
        else:
            turned = turn
            vertices.append((x, y, math.tan(turn / 4)))
        held = owner
    return tuple(vertices)


def _owner(
    a: tuple[float, float], b: tuple[float, float], circles: Sequence[tuple[float, float, float]]
) -> tuple[int, bool] | None:
    """The circle that two points are a short chord of, and whether it is followed counter-clockwise."""
    for index, (x, y, radius) in enumerate(circles):
        on = all(abs(math.dist(point, (x, y)) - radius) < TOL.point for point in (a, b))
        if on and math.dist(a, b) ** 2 <= 8 * radius * TOL.chord * 1.2:
            return index, (a[0] - x) * (b[1] - y) > (a[1] - y) * (b[0] - x)
    return None


def _turn(a: tuple[float, float], b: tuple[float, float], circle: tuple[float, float, float]) -> float:
    x, y, _ = circle
    return math.remainder(math.atan2(b[1] - y, b[0] - x) - math.atan2(a[1] - y, a[0] - x), math.tau)
