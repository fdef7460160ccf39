"""Rails of stairs: handrails along the nosings on balusters, newels at their ends, guards round the hole above."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Sequence
from functools import lru_cache

import numpy as np
import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.parts import Part, part_key
from ...geometry import Point, Solid, prism, prism_along
from ...geometry.outlines import turned_rectangle
from ...tolerance import TOL
from .layout import Point3, straight
from .parts import MARGIN
from .placed import PlacedStair
from .rules import stair_rules

BAR = 35.0
"""Thickness of handrails and balusters (mm). Common practice, no source."""
NEWEL = 90.0
"""Thickness of newels (mm). Common practice, no source."""
PAST = 60.0
"""Newels end so far above the handrail (mm)."""
SHORTEST = 250.0
"""Along a shorter line (mm) there is no rail: the newel is it."""
NEAR_WALL = 200.0
"""An edge of the hole this near a wall (mm) needs no guard."""


@lru_cache(maxsize=256)
def rail_parts(placed: PlacedStair, walls: MultiPolygon | Polygon) -> tuple[Part, ...]:
    """Rails of the flights and landings at the sides that have one, and guards of the hole where no wall stands."""
    stair, rule = placed.stair, stair_rules()[placed.stair.rule]
    sides = {"none": (), "left": ("left",), "right": ("right",), "both": ("left", "right")}[stair.rails]
    parts: list[Part] = []
    for side in sides:
        for flight in placed.layout.flights:
            line = flight.left if side == "left" else flight.right
            parts += _rail(placed, f"{flight.number}:{side}", side, line, rule["handrail"], rule["gap"])
        for step in placed.layout.landings:
            corners = step.left if side == "left" else step.right
            level = tuple((x, y, step.z) for x, y in corners)
            parts += _rail(placed, f"landing:{step.number}:{side}", side, level, rule["guard"], rule["gap"])
    if stair.guard and placed.hole is not None:
        parts += _guards(placed, walls, rule["guard"], rule["gap"])
    return tuple(part for part in parts if not part.solid.is_empty)


def _part(placed: PlacedStair, role: str, slot: str, solid: Solid) -> Part:
    stair = placed.stair
    material = "softwood" if stair.material == "concrete" else stair.material
    return Part(
        part_key(stair.id, role, "", slot), stair.id, role, material, solid, outside=False, function="structure"
    )


def _rail(
    placed: PlacedStair, slot: str, side: str, line: Sequence[Point3], height: float, gap: float
) -> Iterator[Part]:
    """Along a line on the left or right of what it guards: within it by half of its thickness."""
    inset = placed.stair.string / 2
    for k, piece in enumerate(straight(tuple(line))):
        (x0, y0, z0), (x1, y1, z1) = piece[0], piece[-1]
        length = math.dist((x0, y0), (x1, y1))
        if length < SHORTEST:
            continue
        run = ((x1 - x0) / length, (y1 - y0) / length)
        inward = (run[1], -run[0]) if side == "left" else (-run[1], run[0])
        start = (x0 + inward[0] * inset, y0 + inward[1] * inset)
        yield from _bars(placed, f"{slot}:{k}", piece, start, run, length, height, gap)
        for end, (x, y, z) in (("foot", piece[0]), ("head", piece[-1])):
            at = (x + inward[0] * inset, y + inward[1] * inset)
            into = 1.0 if end == "foot" else -1.0
            middle = (at[0] + run[0] * into * NEWEL / 2, at[1] + run[1] * into * NEWEL / 2)
            low = z - (placed.stepping.riser if end == "foot" and z1 > z0 else 0.0)
            post = _square(middle, run, NEWEL)
            top = placed.base + z + height + PAST
            yield _part(placed, "newel", f"{slot}:{k}:{end}", prism(post, placed.base + low, top))


def _bars(
    placed: PlacedStair,
    slot: str,
    piece: Sequence[Point3],
    start: Point,
    run: Point,
    length: float,
    height: float,
    gap: float,
) -> Iterator[Part]:
    """The handrail and its balusters between two newels."""
    (_, _, z0), (_, _, z1) = piece[0], piece[-1]
    slope = (z1 - z0) / length
    a, b = NEWEL, length - NEWEL
    if b - a < BAR:
        return
    plumb = BAR * math.hypot(1.0, slope)

    def line(s: float) -> float:
        return z0 + slope * s

    rail = Polygon(
        [
            (a, line(a) + height - plumb),
            (b, line(b) + height - plumb),
            (b, line(b) + height),
            (a, line(a) + height),
        ]
    )
    foots = [(math.dist(piece[0][:2], (x, y)), z) for x, y, z in piece]
    count = max(0, math.ceil((b - a - gap) / (gap + BAR) - 1e-9))
    clear = (b - a - count * BAR) / (count + 1)
    shapes = []
    lift = MARGIN * math.hypot(1.0, slope) if placed.stair.build == "housed" and slope else 0.0
    for k in range(count):
        s = a + clear + k * (BAR + clear)
        e = s + BAR
        stands = max(z for at, z in foots if at <= s + 1e-6) if not lift else 0.0
        bottom = [(s, line(s) + lift), (e, line(e) + lift)] if lift else [(s, stands), (e, stands)]
        shapes.append(Polygon([*bottom, (e, line(e) + height - plumb), (s, line(s) + height - plumb)]))
    for role, profile in (("handrail", [rail]), ("balusters", shapes)):
        if profile:
            raised = shapely.transform(MultiPolygon(profile), lambda at: at + np.array([0.0, placed.base]))
            left = (start[0] - run[1] * BAR / 2, start[1] + run[0] * BAR / 2)
            yield _part(placed, role, slot, prism_along(raised, left, run, BAR))


def _square(middle: Point, run: Point, size: float) -> Polygon:
    return turned_rectangle(*middle, size, size, math.degrees(math.atan2(run[1], run[0])))


def guarded_edges(placed: PlacedStair, walls: MultiPolygon | Polygon) -> list[tuple[Point, Point]]:
    """The edges of the hole, counter-clockwise, where neither a wall stands nor the stair arrives."""
    assert placed.hole is not None
    ring = shapely.orient_polygons(placed.hole).exterior
    head = shapely.LineString(placed.layout.head).buffer(NEWEL / 2)
    free = ring.difference(shapely.set_precision(walls, TOL.node).buffer(NEAR_WALL)).difference(head)
    found = []
    for piece in shapely.get_parts(shapely.line_merge(free)):
        corners = list(shapely.simplify(piece, 1.0).coords)
        found += [(a, b) for a, b in itertools.pairwise(corners) if math.dist(a, b) > SHORTEST]
    return found


def _guards(placed: PlacedStair, walls: MultiPolygon | Polygon, height: float, gap: float) -> Iterator[Part]:
    """On the floor beside the hole: its edge lies to the left of them."""
    level = placed.head - placed.base
    for k, (a, b) in enumerate(guarded_edges(placed, walls)):
        line = ((*a, level), (*b, level))
        yield from _rail(placed, f"guard:{k}", "left", line, height, gap)
