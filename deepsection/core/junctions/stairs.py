"""Junctions of stairs with the floors at their foot and head."""

from __future__ import annotations

from collections.abc import Iterator

from ..resolve import Building
from ..trades.stairs.placed import STAIRS
from .facts import rounded
from .junction import End, Fact, Junction, Run


def stair_junctions(building: Building) -> Iterator[Junction]:
    """The foot and the head of every stair."""
    for held in building[STAIRS]:
        facts: tuple[tuple[str, Fact], ...] = (
            ("riser", rounded(held.stepping.riser)),
            ("going", rounded(held.stepping.going)),
            ("string", rounded(held.stair.depth)),
        )
        x, y = held.stair.x, held.stair.y
        run = Run((x, y, held.base), (x, y, held.base + 1.0), (0.0, -1.0))
        yield Junction("stair_foot", (End(held.stair.id, "foot"), End(held.stair.level, "level")), (run,), facts)
        last = held.layout.steps[-1].area.centroid if held.layout.steps else None
        if last is not None:
            top = Run((last.x, last.y, held.head), (last.x, last.y, held.head + 1.0), (0.0, -1.0))
            yield Junction("stair_head", (End(held.stair.id, "head"), End(held.stair.upper, "level")), (top,), facts)
