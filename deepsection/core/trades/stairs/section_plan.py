"""What sections write of the stairs that they run along: the line that headroom keeps free, risers and goings."""

from __future__ import annotations

import math
from collections.abc import Iterator

import shapely

from ...building.kind import SectionOf
from ...drawing import NUMBER, Label, Lettered, Stroke, Text, along, path, readable, text_width
from ...geometry import Frame
from ...units import format_length
from .layout import Step
from .placed import STAIRS, PlacedStair
from .rules import stair_rules

ALONG = 0.9
"""A flight runs along a section when the cosine between the two is more than this."""
ABOVE, BELOW = 1.6, 3.0
"""Words stand so far above the line of headroom, and below the flight (paper mm)."""


def stair_section_marks(shown: SectionOf) -> Iterator[Lettered]:
    """Of every straight run that is cut along its length: the line of headroom, dashed, and how it steps."""
    for placed in shown.placed[STAIRS]:
        for flight in placed.layout.flights:
            for steps in flight.runs:
                if len(steps) > 1 and _is_cut_along(shown.frame, steps):
                    yield from _run_marks(shown, placed, steps)


def _is_cut_along(frame: Frame, steps: tuple[Step, ...]) -> bool:
    dx, dy = steps[0].heading
    corners = shapely.get_coordinates([step.area for step in steps]).tolist()
    depths = [frame.depth(x, y) for x, y in corners]
    return abs(dx * frame.ux + dy * frame.uy) > ALONG and min(depths) < 0.0 < max(depths)


def _run_marks(shown: SectionOf, placed: PlacedStair, steps: tuple[Step, ...]) -> Iterator[Lettered]:
    units, scale, rule = shown.project.units, shown.scale, stair_rules()[placed.stair.rule]
    frame, headroom = shown.frame, rule["headroom"]
    key = f"{placed.stair.id}/stair//"

    def at(point: tuple[float, float], z: float) -> tuple[float, float]:
        return point[0] * frame.ux + point[1] * frame.uy, placed.base + z

    (u0, v0), (u1, v1) = (
        at(steps[0].front.middle, steps[0].z),
        at(steps[-1].back.middle, steps[-1].z + placed.stepping.riser),
    )
    low, high = shown.between
    if min(u0, u1) < low or max(u0, u1) > high:
        return
    line = path((u0, v0 + headroom), (u1, v1 + headroom))
    annotation = f"headroom:{placed.stair.id}:{steps[0].number}"
    yield Stroke(line, "hidden", part=key, feature="headroom", annotation=annotation)
    angle = readable(math.degrees(math.atan2(v1 - v0, u1 - u0)))
    a = math.radians(angle)
    nx, ny = -math.sin(a) * scale, math.cos(a) * scale
    u, v = (u0 + u1) / 2, (v0 + v1) / 2
    words = f"headroom {format_length(headroom, units)}"
    text = Text(u + nx * ABOVE, v + headroom + ny * ABOVE, words, 1.8, "centre", "middle", angle, "mono", key)
    yield _along(text, math.dist((u0, v0), (u1, v1)), annotation, scale)
    stepping = placed.stepping
    words = (
        f"{len(steps) + 1} risers {format_length(stepping.riser, units)}, "
        f"{len(steps)} goings {format_length(stepping.going, units)}"
    )
    down = placed.stair.depth + BELOW * scale
    text = Text(u - nx / scale * down, v - ny / scale * down, words, 1.8, "centre", "middle", angle, "mono", key)
    yield _along(text, math.dist((u0, v0), (u1, v1)), f"stepping:{placed.stair.id}:{steps[0].number}", scale)


def _along(text: Text, length: float, key: str, scale: float) -> Label:
    """Words along a flight, where they are clear; led to it from beside."""
    a, wide = math.radians(text.angle), text_width(text.text, text.size) * scale
    places = along((math.cos(a), math.sin(a)), length, wide / 4, [row * scale for row in ROWS])
    reach = (math.cos(a) * length / 2, math.sin(a) * length / 2)
    line = shapely.LineString([(text.x - reach[0], text.y - reach[1]), (text.x + reach[0], text.y + reach[1])])
    return Label(key, (text,), places, NUMBER, line, backed=True)


ROWS = (0.0, -4.0, 4.0, -8.0, 8.0, -14.0, 14.0, -20.0, 20.0, -28.0, 28.0)
"""How far words may stand aside of their flight (paper mm)."""
