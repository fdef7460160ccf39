"""The triangles that heights along slopes come from, on the plan and in the view below it."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from ..geometry import Frame
from ..resolve import Building
from ..units import HeightSum, Units, format_length


@dataclass(frozen=True, slots=True)
class SlopeTriangle:
    """Where a height is found along a slope: its foot and its head in the turned plan (u, w) and in the view (u, v),
    with its run, its rise and the length of the slope as text. `sums` are the heights that it explains."""

    sums: tuple[str, ...]
    u0: float
    w0: float
    v0: float
    u1: float
    w1: float
    v1: float
    run: str
    rise: str
    slope: str


def slope_triangles(building: Building, look_deg: float, units: Units) -> tuple[SlopeTriangle, ...]:
    """Of every height that is found along a slope; a ridge is explained from all of its sides."""
    frame = Frame.looking(look_deg)
    return tuple(
        _triangle(height, sums, frame, units)
        for height, sums in _explained(building)
        if height.slope and height.slope[0] != height.slope[1]
    )


def _explained(building: Building) -> Iterator[tuple[HeightSum, tuple[str, ...]]]:
    proved = set()
    for roof in building.roofs:
        for proof in roof.proofs:
            same = abs(proof.total - roof.ridge_top.total) < 0.01
            if same:
                proved.add(roof.ridge_top.id)
            yield proof, (proof.id, roof.ridge_top.id) if same else (proof.id,)
    for height in building.sums.values():
        if height.slope and not height.id.startswith("proof:") and height.id not in proved:
            yield height, (height.id,)


def _triangle(height: HeightSum, sums: tuple[str, ...], frame: Frame, units: Units) -> SlopeTriangle:
    assert height.slope is not None
    (x0, y0, z0), (x1, y1, z1) = height.slope
    (u0, w0), (u1, w1) = frame.plan_to_turned(x0, y0), frame.plan_to_turned(x1, y1)
    run, rise = math.dist((x0, y0), (x1, y1)), z1 - z0
    texts = (format_length(value, units) for value in (run, rise, math.hypot(run, rise)))
    return SlopeTriangle(sums, u0, w0, z0, u1, w1, z1, *texts)
