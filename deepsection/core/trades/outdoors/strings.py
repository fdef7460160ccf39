"""Bodies of open steps: treads on cut strings, which hang on a board at their head and stand on a pad."""

from __future__ import annotations

import math
from collections.abc import Iterator

import shapely
from shapely.geometry import Polygon

from ...building.parts import Part, part_key
from ...geometry import prism_along
from .placed import PlacedSteps

BOARD = 38.0
"""Thickness of treads, strings and the board at the head (mm). Source: PS 20, dressed thickness of 2x lumber; from
memory."""
THROAT = 100.0
"""What is left of a string below its notches (mm), square to the slope. Common practice, no source."""
APART = 406.4
"""Strings under a tread of this thickness are no farther apart (mm). Common practice, no source."""
PAD = (300.0, 100.0)
"""The pad at the foot: how far it reaches back under the strings, and its thickness (mm). Common practice, no
source."""


def treads(placed: PlacedSteps) -> list[tuple[float, float, float]]:
    """(from, to, top) of the treads from the uppermost down: the landing first, where there is one."""
    steps, top = placed.steps, placed.top.total
    found = [(0.0, steps.landing, top)] if steps.landing else []
    for k in range(1, placed.risers):
        start = steps.landing + (k - 1) * steps.going
        found.append((start, start + steps.going, top - k * placed.rise))
    return found


def string_profile(placed: PlacedSteps) -> Polygon:
    """A string between the board at the head and the pad, as (down, z): notched for each tread, and a throat below."""
    own, run, foot = treads(placed), placed.run, placed.foot
    upper = [(down, z - BOARD) for start, end, z in own for down in (start, end)]
    plumb = THROAT * math.hypot(1.0, placed.falls)
    # The lower edge runs through the inner corners of the notches, a throat lower: level under a landing.
    first = placed.steps.landing
    head = placed.top.total - placed.rise - BOARD - plumb
    lower = [(run, head - (run - first) * placed.falls), (first, head), (0.0, head)]
    whole = Polygon([*upper, *dict.fromkeys(lower)])
    found: Polygon = whole.intersection(shapely.box(BOARD, foot, run, placed.top.total))
    return found


def string_places(placed: PlacedSteps) -> list[float]:
    """Where the strings lie aside from the middle, by their middles: at both sides, and between them evenly."""
    reach = placed.steps.width - BOARD
    count = max(1, math.ceil(reach / APART - 1e-9))
    return [-reach / 2 + reach * k / count for k in range(count + 1)]


def open_parts(placed: PlacedSteps) -> Iterator[Part]:
    """Treads, strings, the board at the head and the pad; nothing where one steps down at once."""
    steps, sums = placed.steps, (placed.top.id,)
    own = treads(placed)
    if not own:
        return

    def part(role: str, slot: str, material: str, profile: Polygon, aside: float, wide: float) -> Part:
        body = prism_along(profile, placed.at(0.0, aside + wide), placed.way, wide)
        key = part_key(steps.id, role, "", slot)
        return Part(key, steps.id, role, material, body, sums=sums, function="structure")

    half = steps.width / 2
    for k, (start, end, z) in enumerate(own, 1):
        yield part("tread", str(k), steps.material, shapely.box(start, z - BOARD, end, z), -half, steps.width)
    string = string_profile(placed)
    for k, middle in enumerate(string_places(placed), 1):
        yield part("carriage", str(k), steps.material, string, middle - BOARD / 2, BOARD)
    low = min(z for down, z in string.exterior.coords if down < BOARD + 1.0)
    board = shapely.box(0.0, low, BOARD, own[0][2] - BOARD)
    yield part("header", "head", steps.material, board, -half, steps.width)
    back, thick = PAD
    pad = shapely.box(max(BOARD, placed.run - back), placed.foot - thick, placed.run + BOARD, placed.foot)
    yield part("pad", "foot", "concrete", pad, -half, steps.width)
