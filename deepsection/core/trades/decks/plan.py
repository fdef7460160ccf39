"""Decks in the plan of their storey: edge, boards, name and height."""

from __future__ import annotations

import math
from collections.abc import Iterator

import shapely

from ...building.kind import PlanOf
from ...drawing import NAME, Handle, Label, Lettered, Stroke, Text, inside, path, readable, rings_of
from ...geometry import polygons_of
from ...units import format_length
from ..floors.place import FloorPlan
from ..floors.turned import Turned
from .place import DECKS

BOARD = 140.0
"""From board to board (mm)."""
FINEST = 1.0
"""Boards are drawn as near as this to each other (paper mm), no nearer."""
TEXT = 1.8
"""Height of lettering (paper mm)."""


def deck_marks(shown: PlanOf) -> Iterator[Lettered]:
    """The decks below the level of the plan."""
    for flat in shown.placed[DECKS]:
        if flat.floor.level == shown.level:
            yield from _one(shown, flat)


def _one(shown: PlanOf, flat: FloorPlan) -> Iterator[Lettered]:
    deck, frame = flat.floor, shown.frame
    key, handle = f"{deck.id}/deck//", Handle("move_deck", deck.id, "corners", "free")
    for polygon in polygons_of(frame.turn(flat.area)):
        for ring in rings_of(polygon):
            yield Stroke(ring, "edge", closed=True, part=key, feature="deck", handle=handle, sum=flat.top.sum.id)
    for bay in () if flat.closed else flat.bays:
        # Boards run across the joists.
        turned, step = Turned(bay.direction), max(BOARD, FINEST * shown.scale)
        box = turned.box(bay.region)
        for k in range(1, math.ceil((box.s1 - box.s0) / step)):
            line = shapely.LineString([turned.at(a, box.s0 + k * step) for a in (box.a0, box.a1)])
            for piece in shapely.get_parts(shapely.intersection(line, bay.region)):
                ends = [frame.plan_to_turned(*point) for point in piece.coords]
                if len(ends) > 1:
                    yield Stroke(path(*ends), "fine", part=key, feature="boards", handle=handle)
    middle = max(flat.bays, key=lambda bay: bay.region.area).region.representative_point()
    u, w = frame.plan_to_turned(middle.x, middle.y)
    du, dw = frame.plan_to_turned(-flat.bays[0].direction[1], flat.bays[0].direction[0])
    angle = readable(math.degrees(math.atan2(dw, du)))
    a = math.radians(angle)
    said = []
    for text, off in ((deck.name, 2.0 + TEXT), (format_length(flat.top.z, shown.project.units), -0.6)):
        place = (u - math.sin(a) * off * shown.scale, w + math.cos(a) * off * shown.scale)
        said.append(Text(*place, text, TEXT, "centre", "top", angle, "mono", key, flat.top.sum.id, feature="deck"))
    area = frame.turn(flat.area)
    yield Label(f"name:{deck.id}", tuple(said), inside(area, (u, w)), NAME, area, backed=True)
