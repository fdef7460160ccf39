"""A drawing about its own place, in mm: without what lies far away from the rest."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Sequence

import numpy as np

from deepsection.core.geometry import Point

from .drawn import Drawn, moved

FAR = 1e5
"""A plan drawn farther than this from the origin (mm) is read as if it were drawn there."""
SPREAD = 2e5
"""What lies farther than this from the middle of the rest (mm) belongs to no house."""


def near(drawn: Drawn, factor: float) -> tuple[Drawn, Point, list[str]]:
    """The drawing in mm about its own place, less what lies far away from the rest."""
    spots = np.array(
        [p for s in drawn.strokes for p in (s.a, s.b)]
        + [(x, y) for held in drawn.areas for ring in held.rings for x, y, _ in ring]
    ).reshape(-1, 2)
    if not len(spots):
        return moved(drawn, factor, (0.0, 0.0)), (0.0, 0.0), []
    middle = np.median(spots, axis=0)
    origin = (0.0, 0.0)
    notes = []
    if max(abs(middle)) * factor > FAR:
        low = np.percentile(spots, 5, axis=0) * factor
        origin = (
            math.floor(float(low[0]) / 1000) * 1000.0 / factor,
            math.floor(float(low[1]) / 1000) * 1000.0 / factor,
        )
    at = moved(drawn, factor, origin)
    centre = (float(middle[0]) - origin[0]) * factor, (float(middle[1]) - origin[1]) * factor

    def close(point: Sequence[float]) -> bool:
        return abs(point[0] - centre[0]) < SPREAD and abs(point[1] - centre[1]) < SPREAD

    lost = Counter(s.layer for s in at.strokes if not (close(s.a) and close(s.b)))
    at.strokes = [s for s in at.strokes if close(s.a) and close(s.b)]
    at.areas = [held for held in at.areas if all(close(spot[:2]) for spot in held.rings[0])]
    at.words = [held for held in at.words if close(held.at)]
    at.measures = [held for held in at.measures if close(held.a) and close(held.b)]
    notes += [
        f"{count} lines on layer {layer} lie more than {SPREAD / 1000:.0f} m away from the rest"
        for layer, count in sorted(lost.items())
    ]
    return at, (origin[0] * factor, origin[1] * factor), notes
