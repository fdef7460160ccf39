"""Blocks between joists: over what bears them, and in rows where they run far."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from itertools import groupby

import numpy as np
import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...geometry import polygons_of
from ...tolerance import TOL
from .bays import Bay
from .joists import WHOLE, Joist
from .turned import Box, Turned

ON_BEARINGS = 150.0
"""So much of the length of a joist (mm), about, lies on its bearings at both ends, and spans nothing."""
BLOCK = 60.0
"""Nothing shorter than this (mm) is set between two joists."""
ROWS = 2438.4
"""Joists that run farther than this (mm) between bearings have blocks between them. Source: IRC R502.7.1, 8 ft, from
memory; that it is asked of all joists, not only of those deeper than 12 in: common practice."""


def blocks_over(
    bay: Bay, within: Polygon | MultiPolygon, others: Sequence[shapely.Geometry], thickness: float
) -> Iterator[tuple[str, MultiPolygon]]:
    """(name, areas) of the blocks between members over each wall or dropped beam that crosses a bay."""
    for support in bay.supports:
        if support.flush:
            continue
        strip = shapely.LineString(support.line).buffer(thickness / 2, cap_style="flat", join_style="mitre")
        crossing = shapely.union_all([held for held in others if held.intersects(strip)])
        free = shapely.difference(shapely.intersection(strip, within), crossing, grid_size=TOL.node)
        (x0, y0), (x1, y1) = support.line[0], support.line[-1]
        length = math.dist((x0, y0), (x1, y1)) or 1.0
        along = Turned(((x1 - x0) / length, (y1 - y0) / length))
        boxes = ((piece, along.box(piece)) for piece in polygons_of(free))
        pieces = [p for p, box in boxes if box.s1 - box.s0 > BLOCK and box.a1 - box.a0 > WHOLE * thickness]
        if pieces:
            yield f"over:{support.name}", MultiPolygon(pieces)


def blocks_between(
    bay: Bay,
    joists: Sequence[Joist],
    within: Polygon | MultiPolygon,
    taken: Sequence[Box],
    over: shapely.Geometry,
    thickness: float,
) -> Iterator[tuple[str, MultiPolygon]]:
    """(name, areas) of rows of blocks between neighbours that run far between their bearings; none in other members,
    nor in the blocks over bearings."""
    turned, rows = Turned(bay.direction), dict[int, list[Box]]()
    pieces = sorted((joist.run.number, box) for joist in joists for box in joist.boxes)
    wanted = list(_wanted(pieces, thickness))
    free = _clear([block for _, block in wanted], [*taken, *(box for _, box in pieces)])
    for (number, block), is_free in zip(wanted, free):
        if is_free:
            rows.setdefault(number, []).append(block)
    shapely.prepare(within)
    for number, blocks in sorted(rows.items()):
        areas = turned.rectangles(blocks)
        whole = areas[shapely.covers(within, areas) & ~shapely.intersects(areas, over)]
        if len(whole):
            yield f"row:{number}", MultiPolygon(list(whole))


def _wanted(pieces: Sequence[tuple[int, Box]], thickness: float) -> Iterator[tuple[int, Box]]:
    """(row, block) between each two neighbours of one run that face each other over a long stretch."""
    for _, beside in groupby(pieces, key=lambda held: held[0]):
        row = [box for _, box in beside]
        for k, left in enumerate(row):
            right = next((held for held in row[k + 1 :] if _faces(left, held)), None)
            if right is None:
                continue
            start, end = max(left.s0, right.s0), min(left.s1, right.s1)
            count = int((end - start - ON_BEARINGS) // ROWS)
            for number in range(count):
                middle = start + (end - start) * (number + 1) / (count + 1)
                yield number, Box(left.a1, right.a0, middle - thickness / 2, middle + thickness / 2)


def _clear(boxes: Sequence[Box], others: Sequence[Box]) -> list[bool]:
    """Which of some boxes meet none of others."""
    if not boxes or not others:
        return [True] * len(boxes)
    own, near = np.array(boxes)[:, None, :], TOL.point
    them = np.array(others)[None, :, :]
    across = (own[..., 0] < them[..., 1] - near) & (them[..., 0] < own[..., 1] - near)
    along = (own[..., 2] < them[..., 3] - near) & (them[..., 2] < own[..., 3] - near)
    return [not met for met in np.any(across & along, axis=1)]


def _faces(left: Box, right: Box) -> bool:
    """Whether two pieces run beside each other, with room for a block between them."""
    return right.a0 > left.a1 + BLOCK and min(right.s1, left.s1) - max(right.s0, left.s0) > ROWS / 2
