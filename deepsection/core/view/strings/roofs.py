"""Strings of dimensions around a roof plan: spans from wall to ridge to wall with the overhangs, and overall."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

import shapely
from shapely.geometry import LineString

from ...drawing.chains import Place, String, distinct
from ...geometry import Frame, Point
from ...resolve import Building, ResolvedRoof
from ..setting import Setting
from .axes import Axes, axes_of
from .making import made
from .outside import FACING, FAR, FIRST, SIDES, STEP, Side, direction, line_beside, middle, seen

INWARD = 5.0
"""A place on the edge of a roof is asked for so far within it (mm)."""
LEVEL = 1e-3
"""A ridge runs towards a side when it is askew by less than this (sine)."""


def roof_strings(building: Building, frame: Frame, setting: Setting) -> Iterator[String]:
    """The strings of all sides; of two opposite ones that measure the same, one is shown as usual."""
    outer = [wall for wall in building.plan.walls if wall.wall.status == "outer" and not wall.axis.is_arc]
    roofs = building.roofs
    if not outer or not roofs:
        return
    axes = axes_of(outer, frame)
    house = axes.turned(shapely.union_all([outline.polygon for outline in building.plan.outlines]))
    covers = [axes.turned(shapely.union_all([plane.polygon for plane in roof.planes])) for roof in roofs]
    box = shapely.union_all([house, *covers]).bounds
    reach = shapely.union_all(covers).bounds
    others = [shapely.union_all(covers[:k] + covers[k + 1 :]) for k in range(len(covers))]
    known: list[list[float]] = []
    for side in SIDES:
        low, high = (reach[0], reach[2]) if side.db else (reach[1], reach[3])
        ends = [Place(low, "eave"), Place(high, "eave")]
        walls = []
        for wall in outer:
            out, line = direction(wall.stand().out, axes), [axes.local(*point) for point in (wall.start, wall.end)]
            if out[0] * side.da + out[1] * side.db > FACING and seen(middle(*line), side, house):
                walls += [Place(side.along(point), wall.wall.id) for point in line]
        ridges = [place for roof, held in zip(roofs, others) for place in _ridges(roof, side, axes, held)]
        usual = [round(place.at, 1) for place in distinct([*ends, *walls, *ridges])]
        shown = usual not in known
        known.append(usual)
        offset, way = FIRST, 1.0 if side.name in ("top", "left") else -1.0
        for row, places in (("spans", [*ends, *walls, *ridges]), ("overall", ends)):
            apart = distinct(places)
            if len(apart) < 3 and row == "spans":
                continue
            line_at = partial(line_beside, side, box, axes)
            string = made(
                setting, f"{side.name}:{row}", apart, line_at, way * offset, feature="roof", usual=shown
            )  # fmt: skip
            yield string
            offset += STEP if string.shown else 0.0


def _ridges(roof: ResolvedRoof, side: Side, axes: Axes, others: shapely.Geometry) -> Iterator[Place]:
    """Ridges that run towards a side, with nothing but their own roof before them."""
    for seam in roof.of("ridge"):
        a, b = (axes.local(*point[:2]) for point in (seam.start, seam.end))
        length = LineString([a, b]).length or 1.0
        if abs((b[0] - a[0]) * side.db - (b[1] - a[1]) * side.da) > LEVEL * length:
            continue
        near: Point = max((a, b), key=lambda point: point[0] * side.da + point[1] * side.db)
        begin = near[0] + side.da * INWARD, near[1] + side.db * INWARD
        if not others.intersects(LineString([begin, (near[0] + side.da * FAR, near[1] + side.db * FAR)])):
            yield Place(side.along(near), f"ridge:{roof.block.id}")
