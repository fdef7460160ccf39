"""Where a wall section is cut short on paper: in plain stretches, so that nothing that matters is left out."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

import numpy as np
import shapely
from shapely.geometry import Polygon

from ...drawing.cropping import Band, Window
from ...geometry import Point

KEEP = 7.0
"""So much stays on paper (mm) between what matters and a break."""
GAP = 3.0
"""What a break leaves between its two lines (paper mm)."""
LEAST = 8.0
"""A break saves at least so much (paper mm)."""
LEVEL = 0.01
"""An edge is level or upright when its ends differ by less than this (mm)."""


@dataclass(frozen=True, slots=True)
class Feature:
    """Heights that no break leaves out, and what is there: a level, an edge, a slope from low to high."""

    low: float
    high: float
    name: str


def features_of(cut: Iterable[tuple[str, Polygon]], heights: Iterable[tuple[str, float]]) -> list[Feature]:
    """What matters of what is cut (name, polygon): level edges, slopes from end to end; and some heights."""
    found = [Feature(height, height, name) for name, height in heights]
    for name, polygon in cut:
        for ring in (polygon.exterior, *polygon.interiors):
            points = shapely.get_coordinates(ring)
            low, high = np.minimum(points[:-1], points[1:]), np.maximum(points[:-1], points[1:])
            # The end of a sheet is thinner than that, and level all the same.
            upright = (high[:, 0] - low[:, 0] < LEVEL) & (high[:, 1] - low[:, 1] >= LEVEL)
            spans = {(float(a), float(b)) for a, b in zip(low[~upright, 1], high[~upright, 1])}
            found += [Feature(a, b, name) for a, b in sorted(spans)]
    return found


def plain_stretches(features: Iterable[Feature], low: float, high: float, keep: float) -> list[Point]:
    """From-to of what lies between features, so far (mm) from each of them, within low and high."""
    free, at = list[Point](), low
    for feature in sorted(features, key=lambda held: held.low):
        if feature.low - keep > at:
            free.append((at, min(feature.low - keep, high)))
        at = max(at, feature.high + keep)
    if at < high:
        free.append((at, high))
    return [(a, b) for a, b in free if b - a > LEVEL]


def breaks_to_fit(stretches: Sequence[Point], excess: float, gap: float, least: float) -> list[Point] | None:
    """From-to of breaks that save so much (mm), the longest stretches cut first and to one length; None where all of
    them do not save enough.

    Each leaves `gap` in the place of what it takes, and takes away at least `least` more than that.
    """
    if excess <= 0:
        return []
    lengths = [b - a for a, b in stretches]

    def cuts(rest: float) -> list[float]:
        """What is taken of each stretch where this much is left of it."""
        taken = (max(length - rest, 0.0) for length in lengths)
        return [take if take >= gap + least else 0.0 for take in taken]

    def saved(rest: float) -> float:
        return sum(take - gap for take in cuts(rest) if take)

    if saved(0.0) < excess:
        return None
    # What is saved falls as more is left: of what is left, the most that saves enough.
    low, high = 0.0, max(lengths)
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if saved(middle) >= excess else (low, middle)
    return [((a + b) / 2 - take / 2, (a + b) / 2 + take / 2) for (a, b), take in zip(stretches, cuts(low)) if take]


def most_saved(stretches: Sequence[Point], gap: float, least: float) -> float:
    """How much all breaks together can save (mm)."""
    return sum(b - a - gap for a, b in stretches if b - a >= gap + least)


def within_plain(low: float, high: float, features: Iterable[Feature], keep: float) -> tuple[Point | None, str]:
    """What may be left out of a break from low to high: the longest plain stretch of it; and what stands in its way."""
    held = [one for one in features if one.high + keep > low and one.low - keep < high]
    free = plain_stretches(held, low, high, keep)
    longest = max(free, key=lambda span: span[1] - span[0], default=None)
    inside = [one.name for one in held if one.high > low and one.low < high]
    return longest, inside[0] if inside else ""


def broken(window: Window, breaks: Sequence[Point], gap: float) -> Window:
    """A window without what some breaks leave out, pushed together but for a gap at each; its low end stays."""
    bands, low, shift = list[Band](), window.low, window.bands[0].shift
    for start, end in sorted(breaks):
        bands.append(Band(low, start, shift))
        low, shift = end, shift - (end - start) + gap
    return replace(window, bands=(*bands, Band(low, window.high, shift)))


def broken_across(window: Window, breaks: Sequence[Point], gap: float, stays: float) -> Window:
    """A window without what some breaks leave out from left to right; what lies at `stays` stays at its place."""
    if not breaks:
        return window
    turned = broken(Window(0.0, 0.0, (Band(window.left, window.right),)), breaks, gap)
    back = next(band.shift for band in turned.bands if band.low <= stays <= band.high)
    return replace(window, columns=tuple(replace(band, shift=band.shift - back) for band in turned.bands))
