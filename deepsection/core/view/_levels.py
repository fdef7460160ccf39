"""Level marks beside an elevation or section, and the level lines that lead to them."""

from __future__ import annotations

from collections.abc import Iterable

from ..drawing import Mark, Stroke, Symbol, path
from ..resolve import Building
from ..units import HeightSum, Units, format_level

CLEAR = 8.2
"""Paper mm between the lettering of two level marks."""
GAP, STUB = 2.0, 6.0
"""Paper mm between the house and a level line, and from there to its mark."""


def level_heights(building: Building, elements: Iterable[str], *, without: Iterable[str] = ()) -> list[HeightSum]:
    """Levels, and the ridges of the roofs among some elements; low ones first, equal heights once.

    `without` names surfaces that a view does not mark; the top of a sill plate is never marked.
    """
    seen, left_out = set(elements), {"sill", *without}
    shown = (level for level in building.levels.values() if not level.hidden)
    heights = [level.sum for level in shown if level.surface not in left_out]
    heights += [roof.ridge_top for roof in building.roofs if roof.block.id in seen]
    found: dict[int, HeightSum] = {}
    for height in heights:
        found.setdefault(round(height.total * 10), height)
    return [found[key] for key in sorted(found)]


def level_marks(
    heights: list[HeightSum], u0: float, u1: float, scale: float, units: Units, *, sides: Iterable[int] = (1,)
) -> list[Mark]:
    """Marks at the sides (+1 right, -1 left) of a view that spans u0 to u1, each at the end of its level line.

    Triangles stand at the true heights; lettering that would touch is moved apart, with a leader.
    """
    shifts = [at - height.total for at, height in zip(spread([h.total for h in heights], CLEAR * scale), heights)]
    marks: list[Mark] = []
    for side in sides:
        edge = u1 if side > 0 else u0
        for height, shift in zip(heights, shifts):
            z, x = height.total, edge + side * (GAP + STUB) * scale
            key = f"level:{height.id}" if side > 0 else f"level:{height.id}:left"
            line = path((edge + side * GAP * scale, z), (x, z))
            marks.append(Stroke(line, "level", feature="level", sum=height.id, annotation=key))
            texts = (height.label[:1].upper() + height.label[1:], format_level(z, units))
            marks.append(
                Symbol("level", x, z, texts, values=(float(side), shift / scale), sum=height.id, annotation=key)
            )
    return marks


def spread(wanted: list[float], clear: float) -> list[float]:
    """Places at least `clear` apart, in order, as near as can be to the wanted ones (ascending).

    >>> spread([0.0, 1.0, 10.0], 4.0)
    [-1.5, 2.5, 10.0]
    """
    blocks: list[tuple[float, int]] = []
    for index, value in enumerate(wanted):
        mean, count = value - index * clear, 1
        while blocks and blocks[-1][0] > mean:
            other, held = blocks.pop()
            mean, count = (mean * count + other * held) / (count + held), count + held
        blocks.append((mean, count))
    means = [mean for mean, count in blocks for _ in range(count)]
    return [mean + index * clear for index, mean in enumerate(means)]
