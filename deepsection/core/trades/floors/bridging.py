"""Cross bridging: pairs of bars between joists, each from the top of one to the bottom of the next."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator

from shapely.geometry import MultiPolygon, Polygon

from ...geometry import Point, Solid, prism_along
from .turned import Box, Turned

BAR = 38.0
"""Bars are so thick and so deep (mm). Source: IRC R502.7.1 asks for bridging where joists run far, from memory; the
size is common practice, no source."""


def bridging_bodies(across: Point, area: MultiPolygon, low: float, high: float) -> Iterator[tuple[str, Solid]]:
    """(name, body) of the bars of a row of pairs, over the areas of the pairs in plan: those that rise the same way at
    the same place along the joists lie in one plane, and are one body.
    """
    turned = Turned((-across[1], across[0]))
    rows: dict[tuple[float, float], list[Box]] = defaultdict(list)
    for box in turned.boxes(area):
        rows[round(box.s0, 1), round(box.s1, 1)].append(box)
    for number, ((s0, s1), boxes) in enumerate(sorted(rows.items())):
        middle = (s0 + s1) / 2
        for name, start, rising in (("up", s0, True), ("down", middle, False)):
            profile = MultiPolygon([_bar(box, low, high, rising=rising) for box in boxes])
            # To the right of the line across the joists lies what comes before it along them.
            origin, run = turned.at(0.0, start + (s1 - s0) / 2), (turned.across.dx, turned.across.dy)
            yield f"{name}:{number}", prism_along(profile, origin, run, (s1 - s0) / 2)


def _bar(box: Box, low: float, high: float, *, rising: bool) -> Polygon:
    """A bar in the plane across the joists: from foot to head, as deep as it is thick."""
    width, rise = box.a1 - box.a0, high - low
    # Measured upright, a bar is deeper the steeper it stands; its ends lie within the depth of the joists.
    upright = BAR
    for _ in range(4):
        steep = max(rise - upright, 0.0) / width
        upright = min(BAR * (1.0 + steep**2) ** 0.5, rise)
    near, far = (box.a0, box.a1) if rising else (box.a1, box.a0)
    return Polygon([(near, low), (far, high - upright), (far, high), (near, low + upright)])
