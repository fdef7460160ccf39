"""Walls that stand on a roof, such as those of dormers: whatever lies below its deck falls away."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from ..geometry import Plane3, Solid
from .building import Part, PlannedWall
from .roofmodel import ResolvedRoof, RoofPlane

ON_EDGE = 60.0
"""A wall whose line lies this close to an eave stands on the plate (mm)."""
BEFORE_FRAME = ("cladding", "cavity", "membrane", "sheathing")
LEAST = 0.1
"""A slope is stood on by a wall of which it carries at least this share in plan."""


def decks_below(wall: PlannedWall, roofs: tuple[ResolvedRoof, ...], function: str = "structure") -> tuple[Plane3, ...]:
    """What a layer of a wall stands on: the decks of the slopes below it; none for a wall that stands on a level.

    Over an eave its frame stands on the plate, and what lies before the frame goes down to meet the wall below.
    """
    if not wall.wall.base.on_roof:
        return ()
    own, line = wall.wall.top.offset, wall.axis.line_string()
    return tuple(
        _bed(roof, plane, function)
        if roof.outline.exterior.buffer(ON_EDGE).contains(line)
        else plane.top.lifted(plane.deck)
        for roof in roofs
        if roof.block.offset < own
        for plane in roof.planes
        if plane.whole.intersection(wall.footprint).area > LEAST * wall.footprint.area
    )


def _bed(roof: ResolvedRoof, plane: RoofPlane, function: str) -> Plane3:
    if function in BEFORE_FRAME:
        return plane.top.lifted(-plane.plumb_depth)
    return Plane3(0.0, 0.0, roof.plate.total)


def above_all(body: Solid, decks: Iterable[Plane3]) -> Solid:
    """What of a body lies above every deck."""
    for deck in decks:
        body = body.above(deck)
    return body


def on_roofs(wall: PlannedWall, roofs: tuple[ResolvedRoof, ...], parts: tuple[Part, ...]) -> tuple[Part, ...]:
    """The parts of a wall, as far as they lie above the roofs that it stands on."""
    if not decks_below(wall, roofs):
        return parts
    cut = (replace(part, solid=above_all(part.solid, decks_below(wall, roofs, part.function))) for part in parts)
    return tuple(part for part in cut if not part.solid.is_empty)
