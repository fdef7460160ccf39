"""Sheets of a subfloor: laid across the joists in rows, their ends on joists, no joint in line with that beside it."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...geometry import polygons_of
from ...model import Framing, Sheets
from ...tolerance import TOL
from .bays import Bay, Boards
from .joists import layout
from .turned import Box, Turned

LEAST = 100.0
"""A piece smaller than this (mm2) is dust."""
NEAR = 1.0
"""Joints as near as this (mm) are in line."""


@dataclass(frozen=True, slots=True)
class Piece:
    """A piece of a sheet: its row, its size across and along the joists (mm), its area in plan."""

    row: int
    length: float
    width: float
    area: Polygon


@lru_cache(maxsize=32)
def laid_sheets(bay: Bay, over: Boards, framing: Framing, sheets: Sheets) -> tuple[Piece, ...]:
    """The pieces that cover an area of a bay, row by row along its joists, each from joist to joist."""
    if over.area.is_empty:
        return ()
    turned = Turned(bay.direction)
    reach, lies = turned.box(over.area), turned.box(bay.region)
    t = framing.thickness
    places = [at + t / 2 for _, at in layout(lies.a0, lies.a1, framing.spacing, t, bay.shift)]
    found: list[Piece] = []
    joints: list[float] = []
    for row, (low, high) in enumerate(_rows(reach, sheets.width)):
        ends = _ends(reach, places, joints, sheets.length, framing.spacing, halved=row % 2 == 1)
        joints = ends[:-1]
        boxes = [Box(a0, a1, low, high) for a0, a1 in zip([reach.a0, *joints], ends)]
        with np.errstate(divide="ignore", invalid="ignore"):
            # Sheets that only touch the floor leave a flag behind.
            cut = shapely.intersection(turned.rectangles(boxes), over.area, grid_size=TOL.node)
        for held in cut:
            for area in polygons_of(held):
                if area.area > LEAST:
                    own = turned.box(area)
                    found.append(Piece(row, own.a1 - own.a0, own.s1 - own.s0, area))
    return tuple(found)


def _rows(reach: Box, width: float) -> Iterator[tuple[float, float]]:
    count = max(1, math.ceil((reach.s1 - reach.s0 - NEAR) / width))
    for row in range(count):
        yield reach.s0 + row * width, reach.s1 if row == count - 1 else reach.s0 + (row + 1) * width


def _ends(
    reach: Box, places: Sequence[float], before: Sequence[float], length: float, spacing: float, *, halved: bool
) -> list[float]:
    """Where the sheets of a row end across the joists: on joists, off the joints of the row before, the last at the
    edge; no piece is left that spans less than one bay where that can be helped."""
    ends: list[float] = []
    start, most = reach.a0, length / 2 if halved else length
    while reach.a1 - start > most + NEAR:
        on = [at for at in places if start + NEAR < at <= start + most + NEAR]
        apart = [at for at in on if all(abs(at - joint) > spacing / 2 for joint in before)]
        whole = [at for at in apart if reach.a1 - at > spacing]
        start = max(whole or apart or on or [start + most])
        ends.append(start)
        most = length
    return [*ends, reach.a1]


def sheets_needed(pieces: Sequence[Piece], sheets: Sheets) -> int:
    """How many sheets the pieces are cut from: the longest first, each from the first offcut that is long enough."""
    left: list[float] = []
    for piece in sorted(pieces, key=lambda held: -held.length):
        k = next((k for k, rest in enumerate(left) if rest + NEAR >= piece.length), None)
        if k is None:
            left.append(sheets.length - piece.length)
        else:
            left[k] -= piece.length
    return len(left)


def covered_by(pieces: Sequence[Piece]) -> MultiPolygon:
    """All that some pieces cover."""
    return MultiPolygon(list(polygons_of(shapely.union_all([piece.area for piece in pieces]))))
