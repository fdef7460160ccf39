"""Porch slabs in plan: their outline, name and height, the arrow of their fall."""

from __future__ import annotations

import math
from collections.abc import Iterator

import numpy as np
import shapely

from ...building.kind import PlanOf
from ...drawing import NAME, Handle, Label, Lettered, Region, Stroke, Text, inside, path, readable, rings_of, text_width
from ...geometry import polygons_of
from ...units import Units, format_length
from .placed import SLABS, PlacedSlab, towards

ARROW, HEAD = 12.0, 2.6
"""Length of the arrow of a fall, and of its head (paper mm)."""
TEXT = 1.8
"""Height of lettering (paper mm), and width of a letter as a share of it."""


def slab_marks(shown: PlanOf) -> Iterator[Lettered]:
    """The slabs at the level of the plan."""
    for placed in shown.placed[SLABS]:
        if placed.slab.level == shown.level:
            yield from _one(shown, placed)


def _one(shown: PlanOf, placed: PlacedSlab) -> Iterator[Lettered]:
    slab, frame, units = placed.slab, shown.frame, shown.project.units
    key, handle = f"{slab.id}/porch_slab//", Handle("move_slab", slab.id, "corners", "free")
    for polygon in polygons_of(frame.turn(placed.area)):
        for ring in rings_of(polygon):
            yield Stroke(ring, "edge", closed=True, part=key, feature="slab", handle=handle, sum=placed.high.id)
    if slab.edge == "deep":
        for polygon in polygons_of(frame.turn(placed.edge)):
            for ring in rings_of(polygon):
                yield Stroke(ring, "hidden", closed=True, part=key, feature="edge", handle=handle)
    middle = max(polygons_of(placed.area), key=lambda piece: piece.area).representative_point()
    u, w = frame.plan_to_turned(middle.x, middle.y)
    dx, dy = towards(slab)
    du, dw = frame.plan_to_turned(dx, dy)
    if slab.fall:
        half = ARROW / 2 * shown.scale
        tip = (u + du * half, w + dw * half)
        yield Stroke(path((u - du * half, w - dw * half), tip), "symbol", part=key, feature="fall")
        wing = HEAD * shown.scale
        head = [(tip[0] - du * wing - s * dw * wing * 0.3, tip[1] - dw * wing + s * du * wing * 0.3) for s in (1, -1)]
        yield Region((path(tip, *head),), fill="ink", part=key, feature="fall")
    said = f"{format_length(placed.high.total, units)}" + (f", {fall_words(slab.fall, units)}" if slab.fall else "")
    # Words run along the longer side, beside the arrow.
    points = shapely.get_coordinates(frame.turn(placed.area)) @ ((du, -dw), (dw, du))
    across = np.ptp(points[:, 1]) > np.ptp(points[:, 0])
    run = (-dw, du) if across else (du, dw)
    angle = readable(math.degrees(math.atan2(run[1], run[0])))
    a = math.radians(angle)
    aside = (max(text_width(said, TEXT), text_width(slab.name, TEXT)) / 2 + 3.0) * shown.scale if across else 0.0
    words = []
    for text, off in ((slab.name, 1.0 + TEXT), (said, -1.0)):
        off = (off if across else off + math.copysign(1.0, off)) * shown.scale
        place = (u + math.cos(a) * aside - math.sin(a) * off, w + math.sin(a) * aside + math.cos(a) * off)
        words.append(Text(*place, text, TEXT, "centre", "top", angle, "mono", key, placed.high.id, feature="slab"))
    area = frame.turn(placed.area)
    yield Label(f"name:{slab.id}", tuple(words), inside(area, (words[0].x, words[0].y)), NAME, area, backed=True)


def fall_words(fall: float, units: Units) -> str:
    """A fall as the trade says it: inches per foot, or one in so many."""
    return f"{format_length(fall * 304.8, units)} per ft" if units == "ft-in" else f"1:{1 / fall:.0f}"
