"""Solids of what stands in an opening: frame, sash, bars, glass, leaf, trim, sill."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from functools import lru_cache

from shapely.geometry import Polygon
from shapely.geometry import box as rectangle
from shapely.ops import unary_union

from ..geometry import largest
from ._walls import wall_solid
from .building import Part, PlacedOpening, PlannedWall, part_key

FRAME_FACE, FRAME_DEPTH = 44.0, 90.0
SASH_FACE, SASH_DEPTH, SASH_SET = 45.0, 45.0, 12.0
BAR_FACE, BAR_DEPTH = 22.0, 28.0
GLASS_DEPTH, GLASS_SET = 20.0, 26.0
LEAF_DEPTH, LEAF_SET, PANEL_SET = 45.0, 14.0, 10.0
TRIM_DEPTH = 19.05
SILL_DEPTH, SILL_OUT = 38.1, 32.0
STONE_SILL, STONE_OUT, STONE_END = 75.0, 40.0, 75.0
"""Sizes of ordinary units and sills in mm. Common practice, no source."""


@lru_cache(maxsize=1024)
def unit_parts(wall: PlannedWall, placed: PlacedOpening, trimmed: bool, outside: bool) -> tuple[Part, ...]:
    """The parts in and around one opening; `trimmed` when the wall has an outside to trim."""
    make = _window if placed.opening.unit == "window" else _door
    parts = [*make(wall, placed)]
    if trimmed and placed.opening.trim > 0:
        parts += _trim(wall, placed)
    elif not trimmed and wall.wall.status == "outer" and placed.opening.unit == "window":
        parts.append(_nib(wall, placed))
    return tuple(parts if outside else (replace(part, outside=False) for part in parts))


def _part(
    wall: PlannedWall,
    placed: PlacedOpening,
    role: str,
    material: str,
    profile: Polygon,
    inner: float,
    outer: float,
    slot: str = "",
) -> Part:
    id = placed.opening.id
    return Part(
        part_key(id, role, "", slot),
        id,
        role,
        material,
        wall_solid(wall, profile, inner, outer, placed.centre),
        sums=(placed.head.id, placed.sill.id),
        origin=(*wall.stand(placed.centre).at(placed.left, outer), placed.sill.total),
        function="unit",
    )


def _ring(x0: float, y0: float, x1: float, y1: float, face: float, *, foot: float | None = None) -> Polygon:
    low = y0 + (face if foot is None else foot)
    inner = rectangle(x0 + face, low if low > y0 else y0 - 1, x1 - face, y1 - face)
    return largest(rectangle(x0, y0, x1, y1).difference(inner))


def _window(wall: PlannedWall, placed: PlacedOpening) -> Iterator[Part]:
    x0, x1, y0, y1 = placed.left, placed.right, placed.sill.total, placed.head.total
    face, opening = placed.face, placed.opening
    if min(x1 - x0, y1 - y0) < 2 * (FRAME_FACE + SASH_FACE) + 20:
        yield _part(
            wall, placed, "glass", "glass", rectangle(x0, y0, x1, y1), face - GLASS_SET - GLASS_DEPTH, face - GLASS_SET
        )
        return
    yield _part(wall, placed, "frame", "unit_frame", _ring(x0, y0, x1, y1, FRAME_FACE), face - FRAME_DEPTH, face)
    a, b, c, d = x0 + FRAME_FACE, y0 + FRAME_FACE, x1 - FRAME_FACE, y1 - FRAME_FACE
    yield _part(
        wall, placed, "sash", "unit_frame", _ring(a, b, c, d, SASH_FACE), face - SASH_SET - SASH_DEPTH, face - SASH_SET
    )
    a, b, c, d = a + SASH_FACE, b + SASH_FACE, c - SASH_FACE, d - SASH_FACE
    yield _part(wall, placed, "glass", "glass", rectangle(a, b, c, d), face - GLASS_SET - GLASS_DEPTH, face - GLASS_SET)
    bars = [
        rectangle(
            a + (c - a) * i / opening.bars_across - BAR_FACE / 2,
            b,
            a + (c - a) * i / opening.bars_across + BAR_FACE / 2,
            d,
        )
        for i in range(1, opening.bars_across)
    ]
    bars += [
        rectangle(
            a, b + (d - b) * i / opening.bars_up - BAR_FACE / 2, c, b + (d - b) * i / opening.bars_up + BAR_FACE / 2
        )
        for i in range(1, opening.bars_up)
    ]
    if bars:
        outer = face - GLASS_SET + BAR_DEPTH - 14
        yield _part(wall, placed, "bar", "unit_frame", unary_union(bars), face - GLASS_SET, outer)


def _door(wall: PlannedWall, placed: PlacedOpening) -> Iterator[Part]:
    x0, x1, y0, y1 = placed.left, placed.right, placed.sill.total, placed.head.total
    face = placed.face
    frame = _ring(x0, y0, x1, y1, FRAME_FACE, foot=0.0)
    yield _part(wall, placed, "frame", "unit_frame", frame, face - FRAME_DEPTH - 20, face)
    a, b, c, d = x0 + FRAME_FACE, y0, x1 - FRAME_FACE, y1 - FRAME_FACE
    width, height = c - a, d - b
    panels = []
    if width > 500 and height > 1500:
        m = 0.14 * width
        panels = [
            rectangle(a + m, b + 0.12 * height, c - m, b + 0.42 * height),
            rectangle(a + m, b + 0.50 * height, c - m, d - 0.07 * height),
        ]
    leaf = rectangle(a, b, c, d).difference(unary_union(panels)) if panels else rectangle(a, b, c, d)
    yield _part(wall, placed, "leaf", "door_leaf", leaf, face - LEAF_SET - LEAF_DEPTH, face - LEAF_SET)
    for slot, panel in zip(("low", "high"), panels):
        back = face - LEAF_SET - PANEL_SET
        yield _part(wall, placed, "panel", "door_leaf", panel, back - 20, back, slot)


def _trim(wall: PlannedWall, placed: PlacedOpening) -> Iterator[Part]:
    x0, x1, y0, y1, w = placed.left, placed.right, placed.sill.total, placed.head.total, placed.opening.trim
    window = placed.opening.unit == "window"
    outer = wall.outer
    around = rectangle(x0 - w, y0, x1 + w, y1 + w).difference(rectangle(x0, y0 - 1, x1, y1))
    yield _part(wall, placed, "trim", "trim", around, outer, outer + TRIM_DEPTH)
    reach = min(placed.face, outer)
    if window:
        sill = rectangle(x0 - w - 20, y0 - SILL_DEPTH, x1 + w + 20, y0)
        yield _part(wall, placed, "sill", "trim", sill, outer, outer + SILL_OUT)
    yield from _reveal(wall, placed, reach, outer)


def _nib(wall: PlannedWall, placed: PlacedOpening) -> Part:
    """The part of a masonry sill that stands out from the wall."""
    low = placed.sill.total - STONE_SILL
    box = rectangle(placed.left - STONE_END, low, placed.right + STONE_END, placed.sill.total)
    return _part(wall, placed, "sill", "concrete", box, wall.outer, wall.outer + STONE_OUT)


def _reveal(wall: PlannedWall, placed: PlacedOpening, face: float, outer: float) -> Iterator[Part]:
    """Boards that line the depth between the unit's face and the outer face of the wall."""
    if outer - face < 5:
        return
    x0, x1, y0, y1 = placed.left, placed.right, placed.sill.total, placed.head.total
    lined = _ring(x0, y0, x1, y1, 12.0, foot=12.0 if placed.opening.unit == "window" else 0.0)
    yield _part(wall, placed, "reveal", "trim", lined, face, outer)
