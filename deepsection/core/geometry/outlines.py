"""Plans of what stands at a point: turned rectangles and discs."""

from __future__ import annotations

import math
from functools import lru_cache

from shapely.geometry import Polygon

from . import Axis


def turned_rectangle(x: float, y: float, width: float, depth: float, turn: float) -> Polygon:
    """Width by depth about a point, turned by degrees counter-clockwise."""
    angle, half, deep = math.radians(turn), width / 2, depth / 2
    c, s = math.cos(angle), math.sin(angle)
    corners = [(-half, -deep), (half, -deep), (half, deep), (-half, deep)]
    return Polygon([(x + c * a - s * b, y + s * a + c * b) for a, b in corners])


@lru_cache(maxsize=1000)
def disc(x: float, y: float, diameter: float) -> Polygon:
    """A circle about a point, in chords."""
    west, east = (x - diameter / 2, y), (x + diameter / 2, y)
    return Polygon([*Axis(west, east, 1.0).points(), *Axis(east, west, 1.0).points()[1:-1]])
