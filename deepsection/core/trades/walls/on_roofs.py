"""Walls that stand on a roof, such as those of dormers: whatever lies below its deck falls away."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from functools import lru_cache

from ...building.parts import Part
from ...geometry import Plane3, Solid
from ..roofs.placed import ResolvedRoof, RoofPlane
from .planned import PlannedWall
from .tops import ON_EDGE

BEFORE_FRAME = ("cladding", "cavity", "membrane", "sheathing")
LEAST = 0.1
"""A slope is stood on by a wall of which it carries at least this share in plan."""


@lru_cache(maxsize=4000)
def decks_below(wall: PlannedWall, roofs: tuple[ResolvedRoof, ...], *, before: bool = False) -> tuple[Plane3, ...]:
    """What a wall stands on: the decks of the slopes below it; none for a wall that stands on a level.

    Over an eave its frame stands on the plate, and what lies `before` it goes down to meet the wall below.
    """
    if not wall.wall.base.on_roof:
        return ()
    own, line = wall.wall.top.offset, wall.axis.line_string()
    return tuple(
        _bed(roof, plane, before)
        if roof.outline.exterior.buffer(ON_EDGE).contains(line)
        else plane.top.lifted(plane.deck)
        for roof in roofs
        if roof.block.offset < own
        for plane in roof.planes
        if plane.whole.intersection(wall.footprint).area > LEAST * wall.footprint.area
    )


def _bed(roof: ResolvedRoof, plane: RoofPlane, before: bool) -> Plane3:
    if before:
        return plane.top.lifted(-plane.plumb_depth)
    return Plane3(0.0, 0.0, roof.plate.total)


def above_all(body: Solid, decks: Iterable[Plane3]) -> Solid:
    """What of a body lies above every deck."""
    for deck in decks:
        body = body.above(deck)
    return body


def on_roofs(wall: PlannedWall, roofs: tuple[ResolvedRoof, ...], parts: tuple[Part, ...]) -> tuple[Part, ...]:
    """The parts of a wall, as far as they lie above the roofs that it stands on."""
    frame, before = decks_below(wall, roofs), decks_below(wall, roofs, before=True)
    if not frame:
        return parts
    cut = (_cut(part, before if part.function in BEFORE_FRAME else frame) for part in parts)
    return tuple(part for part in cut if not part.solid.is_empty)


@lru_cache(maxsize=4000)
def _cut(part: Part, decks: tuple[Plane3, ...]) -> Part:
    """A part above decks. Remembered: while neither changes it is the same part, and what was drawn of it holds."""
    return replace(part, solid=above_all(part.solid, decks))
