"""What members of floors are like across: solid, I-joists, open-web joists, concrete beams that blocks lie on."""

from __future__ import annotations

import shapely
from shapely.geometry import LineString, MultiPolygon, Polygon

from ...geometry import Point, Solid, polygons_of, prism, prism_along
from ...model import Framing, Layer
from .turned import Box, Turned

PANEL = 600.0
"""The webs of an open-web joist meet a chord at least so far apart (mm). Common practice, no source."""


def is_timber(carrying: Layer | None) -> bool:
    """Whether what carries a floor is joists of wood: not a slab, nor concrete beams."""
    return carrying is not None and carrying.framing is not None and carrying.framing.timber


def profiled(direction: Point, area: MultiPolygon, framing: Framing, low: float, high: float) -> Solid:
    """The body of members of a profile over their areas in plan, between two heights (mm)."""
    solid = prism(area, low, high)
    if framing.profile == "solid" or high - low <= 2 * framing.flange:
        return solid
    turned = Turned(direction)
    if framing.profile == "open":
        return solid.minus(
            held for box in turned.boxes(area) for held in _between_webs(turned, box, framing, low, high)
        )
    if framing.web >= framing.thickness:
        return solid
    top = high + 1.0 if framing.profile == "T" else high - framing.flange
    return solid.minus([prism(MultiPolygon(_beside(turned, area, framing)), low + framing.flange, top)])


def _beside(turned: Turned, area: MultiPolygon, framing: Framing) -> list[Polygon]:
    """What lies beside the webs of members."""
    near = (framing.thickness - framing.web) / 2
    return [
        turned.rectangle(a0, a1, box.s0 - 1.0, box.s1 + 1.0)
        for box in turned.boxes(area)
        for a0, a1 in ((box.a0 - 1.0, box.a0 + near), (box.a1 - near, box.a1 + 1.0))
    ]


def webs(direction: Point, area: MultiPolygon, framing: Framing) -> Polygon | MultiPolygon:
    """The webs of members in plan."""
    beside = _beside(Turned(direction), area, framing)
    return MultiPolygon(list(polygons_of(shapely.difference(area, shapely.union_all(beside)))))


def _between_webs(turned: Turned, box: Box, framing: Framing, low: float, high: float) -> list[Solid]:
    """The triangles between the webs of an open-web joist, and its chords; a post stands at each of its ends."""
    z0, z1, first, last = low + framing.flange, high - framing.flange, box.s0 + framing.flange, box.s1 - framing.flange
    if last - first <= framing.flange:
        return []
    panels = max(1, int((last - first) // max(PANEL, 2 * (z1 - z0))))
    step = (last - first) / (2 * panels)
    line = LineString([(first + k * step, z1 if k % 2 else z0) for k in range(2 * panels + 1)])
    opened = shapely.difference(
        shapely.box(first, z0, last, z1), line.buffer(framing.web / 2, cap_style="flat", join_style="mitre")
    )
    profile = MultiPolygon([held for held in polygons_of(opened) if held.area > 1.0])
    if profile.is_empty:
        return []
    return [prism_along(profile, turned.at(box.a0 - 1.0, 0.0), (turned.span.dx, turned.span.dy), box.a1 - box.a0 + 2.0)]
