"""Lines in plan along which something steps down: the ground, a foundation."""

from __future__ import annotations

import math
from collections.abc import Iterator

from shapely.geometry import LineString

from ..geometry import Point, line_through
from ..geometry.plane import across_box
from .advances import text_width
from .labels import HERE, NUMBER, Label, Lettered, around
from .marks import Stroke, Text, path

PAST, EVERY, TICK = 13.5, 6.0, 2.0
"""Paper mm that such a line runs past the house, between its ticks, and of these."""


def step_line(
    ends: tuple[Point, Point],
    box: tuple[float, float, float, float],
    scale: float,
    text: str,
    *,
    low: str,
    part: str,
    feature: str,
    pen: str = "edge",
) -> Iterator[Lettered]:
    """An endless line through two points as far as it runs in a box, ticks on its `low` side (left or right), words at
    its end."""
    line = line_through(*ends)
    drawn = across_box(line, box, PAST * scale)
    if drawn is None:
        return
    yield Stroke(path(*drawn), pen, part=part, feature=feature)
    side = 1.0 if low == "left" else -1.0
    nu, nw = -line.dy * side, line.dx * side
    every, tick = EVERY * scale, TICK * scale
    for k in range(int(math.dist(*drawn) / every)):
        u, w = drawn[0][0] + line.dx * (k + 0.5) * every, drawn[0][1] + line.dy * (k + 0.5) * every
        yield Stroke(path((u, w), (u + nu * tick, w + nw * tick)), "fine", part=part, feature=feature)
    u, w = (drawn[1][0] - line.dx * every - nu * 2.5 * scale, drawn[1][1] - line.dy * every - nw * 2.5 * scale)
    words = Text(u, w, text, 2.2, "centre", "middle", 0, "mono", part)
    # Along the line from this end to the other, on either side of it.
    steps = [k * every for k in range(int(math.dist(*drawn) / every) - 1)]
    places = [(-line.dx * k + nu * c * scale, -line.dy * k + nw * c * scale) for c in (0.0, -2.0, 7.0) for k in steps]
    beside = (*(places or [HERE]), *around(text_width(text, 2.2) * scale, 4.4 * scale))
    yield Label(f"step:{part}", (words,), beside, NUMBER, LineString(drawn))
