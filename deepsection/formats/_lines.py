"""A hatch family as lines within a box, for media that clip but do not repeat patterns."""

from __future__ import annotations

import math
from collections.abc import Iterator

from deepsection.core.catalog import HatchFamily

MOST_LINES = 4000
"""More rows than this in one region are left out: they would print as a solid tone."""


def family_lines(
    family: HatchFamily, box: tuple[float, float, float, float]
) -> Iterator[tuple[float, float, float, float, float]]:
    """(x0, y0, x1, y1, dash phase) of the lines of a family that cross a box; real mm."""
    turn = math.radians(family.angle)
    ux, uy = math.cos(turn), math.sin(turn)
    along_step, across_step = family.offset
    corners = [(x, y) for x in (box[0], box[2]) for y in (box[1], box[3])]
    alongs = [(x - family.base[0]) * ux + (y - family.base[1]) * uy for x, y in corners]
    acrosses = [(y - family.base[1]) * ux - (x - family.base[0]) * uy for x, y in corners]
    first, last = sorted((min(acrosses) / across_step, max(acrosses) / across_step))
    rows = range(math.ceil(first - 1e-9), math.floor(last + 1e-9) + 1)
    if len(rows) > MOST_LINES:
        return
    period = sum(abs(dash) for dash in family.dashes)
    for row in rows:
        ox = family.base[0] + row * (along_step * ux - across_step * uy)
        oy = family.base[1] + row * (along_step * uy + across_step * ux)
        start, end = min(alongs) - row * along_step, max(alongs) - row * along_step
        phase = start % period if period else 0.0
        yield ox + ux * start, oy + uy * start, ox + ux * end, oy + uy * end, phase
