"""Level marks and level lines beside an elevation or section."""

from __future__ import annotations

from collections.abc import Iterable

from ..drawing import Mark, Stroke, Symbol, path
from ..resolve import Building
from ..units import HeightSum, Units, format_length

CLEAR = 8.6
"""Paper mm between two level marks that stand over each other."""
SIDE_STEP = 30.0
"""Paper mm that a crowded mark moves outward."""


def level_heights(building: Building) -> list[HeightSum]:
    """Levels and what the roofs add to them, low ones first; equal heights once."""
    heights = [level.sum for level in building.levels.values()]
    heights += [roof.ridge_top for roof in building.roofs]
    found: dict[int, HeightSum] = {}
    for height in heights:
        found.setdefault(round(height.total * 10), height)
    return [found[key] for key in sorted(found)]


def level_marks(
    building: Building, u0: float, u1: float, scale: float, units: Units, *, sides: Iterable[int] = (1,)
) -> list[Mark]:
    """Marks at the sides (+1 right, -1 left) of a view that spans u0 to u1, and lines across for the levels."""
    marks: list[Mark] = []
    levels = {level.sum.id for level in building.levels.values() if level.surface not in ("grade", "footing")}
    for side in sides:
        taken: list[tuple[float, int]] = []
        for height in level_heights(building):
            step = 0
            while any(abs(height.total - z) < CLEAR * scale and step == other for z, other in taken):
                step += 1
            taken.append((height.total, step))
            edge = u1 if side > 0 else u0
            x = edge + side * (6.0 + step * SIDE_STEP) * scale
            name = height.label[:1].upper() + height.label[1:]
            if step:
                marks.append(
                    Stroke(
                        path((edge + side * 4.0 * scale, height.total), (x, height.total)),
                        "level",
                        feature="level_mark",
                        sum=height.id,
                    )
                )
            marks.append(
                Symbol(
                    "level",
                    x,
                    height.total,
                    (name, format_length(height.total, units)),
                    values=(float(side),),
                    sum=height.id,
                )
            )
    for height in level_heights(building):
        if height.id in levels:
            reach = 4.0 * scale
            marks.append(
                Stroke(
                    path((u0 - reach, height.total), (u1 + reach, height.total)),
                    "level",
                    feature="level",
                    sum=height.id,
                )
            )
    return marks
