"""Walls that stand on a roof, such as those of dormers: whatever lies below its deck falls away."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from ..geometry import Plane3, Solid
from .building import Part, PlannedWall
from .roofmodel import ResolvedRoof

LEAST = 0.1
"""A slope is stood on by a wall of which it carries at least this share in plan."""


def decks_below(wall: PlannedWall, roofs: tuple[ResolvedRoof, ...]) -> tuple[Plane3, ...]:
    """The decks of the slopes that a wall stands on; none for a wall that stands on a level."""
    if not wall.wall.base.on_roof:
        return ()
    own = wall.wall.top.offset
    return tuple(
        plane.top.lifted(plane.deck)
        for roof in roofs
        if roof.block.offset < own
        for plane in roof.planes
        if plane.whole.intersection(wall.footprint).area > LEAST * wall.footprint.area
    )


def above_all(body: Solid, decks: Iterable[Plane3]) -> Solid:
    """What of a body lies above every deck."""
    for deck in decks:
        body = body.above(deck)
    return body


def on_roofs(wall: PlannedWall, roofs: tuple[ResolvedRoof, ...], parts: tuple[Part, ...]) -> tuple[Part, ...]:
    """The parts of a wall, as far as they lie above the roofs that it stands on."""
    decks = decks_below(wall, roofs)
    if not decks:
        return parts
    cut = (replace(part, solid=above_all(part.solid, decks)) for part in parts)
    return tuple(part for part in cut if not part.solid.is_empty)
