"""Bodies of steps and rails."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import lru_cache

import shapely
from shapely.geometry import Polygon

from ...building.parts import Part, part_key
from ...geometry import Solid, prism_along
from .place import POST
from .placed import PlacedRail, PlacedSteps
from .strings import open_parts

INTO_GROUND = 150.0
"""How far steps go down into the ground (mm)."""
BAR = 38.0
"""Thickness of the bars and balusters of rails (mm)."""
LOW = 75.0
"""From the floor to the lower bar of a rail (mm)."""
RAIL = "softwood"
"""What the rails of steps are made of."""


@lru_cache(maxsize=256)
def steps_parts(placed: PlacedSteps) -> tuple[Part, ...]:
    """The body of steps, or treads and strings, and the rails at their sides."""
    steps = placed.steps
    parts = list(open_parts(placed) if placed.is_open else _body(placed))
    sides = {"none": (), "left": (1.0,), "right": (-1.0,), "both": (1.0, -1.0)}[steps.rails]
    for side in sides if placed.risers > 1 or placed.is_ramp else ():
        # As one comes up, the left is at the left of the way up.
        slot = "left" if side < 0 else "right"
        aside = (-1.0 if side > 0 else 1.0) * (steps.width / 2 - POST)
        for name, profile, thick in _sloped(placed):
            solid = _along(placed, profile, aside - thick / 2, thick)
            key = part_key(steps.id, f"rail_{name}", "", slot)
            sums = (placed.top.id,)
            parts.append(Part(key, steps.id, f"rail_{name}", RAIL, solid, sums=sums, function="finish"))
    return tuple(parts)


def _body(placed: PlacedSteps) -> Iterator[Part]:
    """Steps or a ramp as one body."""
    steps, rise, low = placed.steps, placed.rise, placed.foot - INTO_GROUND
    corners = [(0.0, low)]
    if placed.is_ramp:
        corners += [(0.0, placed.top.total), (steps.landing, placed.top.total), (placed.run, placed.foot)]
    for k in () if placed.is_ramp else range(placed.risers):
        start = 0.0 if k == 0 else steps.landing + (k - 1) * steps.going
        z = placed.top.total - k * rise
        if k or steps.landing:
            corners += [(start, z), (steps.landing + k * steps.going, z)]
    corners.append((placed.run, low))
    if placed.run:
        body = _along(placed, Polygon(corners), -steps.width / 2, steps.width)
        key = part_key(steps.id, steps.form)
        yield Part(key, steps.id, steps.form, steps.material, body, sums=(placed.top.id,), function="structure")


def _sloped(placed: PlacedSteps) -> Iterator[tuple[str, Polygon | shapely.MultiPolygon, float]]:
    """Posts, bars and balusters of a rail along the slope of steps: (name, profile, thickness)."""
    start, end = placed.steps.landing, placed.run - POST / 2
    slope, height, gap = placed.falls, placed.rail_height, placed.rail_gap

    def nosing(down: float) -> float:
        return placed.top.total - max(0.0, down - start) * slope

    def tread(down: float) -> float:
        if placed.is_ramp:
            return nosing(down)
        count = 0 if down < start else 1 + math.floor((down - start) / placed.steps.going + 1e-9)
        return placed.top.total - min(count, placed.risers) * placed.rise

    def bar(low: float, high: float) -> Polygon:
        upper = [(down, nosing(down)) for down in sorted({POST / 2, max(start, POST / 2), end})]
        return Polygon([*((d, z + low) for d, z in upper), *((d, z + high) for d, z in reversed(upper))])

    posts = [shapely.box(at - POST / 2, tread(at), at + POST / 2, nosing(at) + height + BAR) for at in (POST / 2, end)]
    yield "posts", shapely.union_all(posts), POST
    top = bar(height - BAR, height)
    space = end - POST - POST / 2
    count = max(1, math.ceil((space - gap) / (gap + BAR)))
    pitch = (space + BAR) / (count + 1)
    bars = []
    for k in range(1, count + 1):
        left = POST + k * pitch - BAR
        foot = min(tread(left), tread(left + BAR))
        bars.append(shapely.box(left, foot, left + BAR, nosing(left + BAR) + height - BAR / 2))
    yield "bars", shapely.union_all([top, *bars]), BAR


def _along(placed: PlacedSteps, profile: Polygon | shapely.MultiPolygon, aside: float, thick: float) -> Solid:
    """A profile of (down, z) as a body from so far aside (left of the way down) over a thickness."""
    # The body lies to the right of its run.
    return prism_along(profile, placed.at(0.0, aside + thick), placed.way, thick)


@lru_cache(maxsize=256)
def rail_parts(placed: PlacedRail) -> tuple[Part, ...]:
    """Posts at both ends, an upper and a lower bar, and balusters between them."""
    rail, foot = placed.rail, placed.foot.total
    length = math.dist((rail.x1, rail.y1), (rail.x2, rail.y2))
    run = ((rail.x2 - rail.x1) / length, (rail.y2 - rail.y1) / length)
    top = foot + rail.height
    posts = shapely.union_all([shapely.box(at, foot, at + POST, top + BAR) for at in (0.0, length - POST)])
    space = length - 2 * POST
    count = max(0, math.ceil((space - rail.gap) / (rail.gap + BAR) - 1e-9))
    pitch = (space + BAR) / (count + 1)
    lefts = [POST + k * pitch - BAR for k in range(1, count + 1)]
    bars = [
        shapely.box(POST, top - BAR, length - POST, top),
        shapely.box(POST, foot + LOW, length - POST, foot + LOW + BAR),
        *(shapely.box(left, foot + LOW, left + BAR, top) for left in lefts),
    ]
    sums = (placed.foot.id,)
    parts = []
    for name, profile, thick in (("posts", posts, POST), ("bars", shapely.union_all(bars), BAR)):
        origin = (rail.x1 - run[1] * thick / 2, rail.y1 + run[0] * thick / 2)
        solid = prism_along(profile, origin, run, thick)
        key = part_key(rail.id, f"rail_{name}")
        parts.append(Part(key, rail.id, f"rail_{name}", rail.material, solid, sums=sums, function="finish"))
    return tuple(parts)
