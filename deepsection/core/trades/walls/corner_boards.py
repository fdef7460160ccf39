"""Boards on the outside corners of clad walls."""

from __future__ import annotations

from collections.abc import Iterator

import shapely

from ...building.parts import Part, part_key
from ...model import MakeUp
from .bodies import TopSpan, WallTop, standing
from .planned import PlannedWall

BOARD = 19.0
"""Thickness of a corner board (mm). Common practice, no source."""
OUT = 1.0
"""A corner is an outside one when the cladding goes on past the end of the set-out line by more (mm)."""


def corner_boards(wall: PlannedWall, make_up: MakeUp, top: WallTop) -> Iterator[Part]:
    """A board at each end of a straight outer wall that is an outside corner, over its cladding.

    The board at the end of a wall runs over the edge of the one at the start of the next.
    """
    width, cladding = make_up.corner_boards, wall.layers[0]
    if not width or wall.axis.is_arc or wall.wall.status != "outer" or cladding.whole.is_empty or not wall.is_plumb:
        return
    alongs = [wall.axis.along((x, y)) for x, y in shapely.get_coordinates(cladding.whole).tolist()]
    first, last = min(alongs), max(alongs)
    ends = []
    if first < -OUT:
        ends.append(("start", first, first + width))
    if last > wall.length + OUT:
        ends.append(("end", last - width, last + BOARD))
    for slot, left, right in ends:
        span = _span_at(top, (left + right) / 2)
        area = wall.strip(left, right, wall.outer, wall.outer + BOARD)
        solid = standing(wall, area, top.skirt, span.peak if span.gable else top.plate, top.base)
        for plane in span.deck if span.gable else span.under:
            solid = solid.below(plane)
        key = part_key(wall.wall.id, "corner_board", "", slot)
        sums = (top.base_sum, top.plate_sum)
        yield Part(key, wall.wall.id, "corner_board", "trim", solid, (0.0, 0.0, 1.0), sums, function="finish")


def _span_at(top: WallTop, along: float) -> TopSpan:
    """The span of the top of a wall over a place, or the nearest."""
    return min(top.spans, key=lambda span: max(span.start - along, along - span.end, 0.0))
