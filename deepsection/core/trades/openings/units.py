"""Solids of what stands in an opening: frame, sashes, bars, glass, leaves, trim, sill, shutters."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace
from functools import lru_cache
from typing import TypeAlias

import shapely
from shapely.geometry import MultiPolygon, Polygon
from shapely.geometry import box as rectangle
from shapely.ops import unary_union

from ...building.parts import Part, part_key
from ...geometry import polygons_of
from ..walls.bodies import wall_solid
from ..walls.planned import PlannedWall
from .leaves import FRAME_FACE, TRACK, Leaf, frame_depth, inset, leaves, outline, posts
from .placed import PlacedOpening

SASH_FACE, SASH_DEPTH, SASH_SET = 45.0, 45.0, 12.0
BAR_FACE, BAR_DEPTH = 22.0, 28.0
GLASS_DEPTH, GLASS_SET = 20.0, 14.0
LEAF_DEPTH, LEAF_SET, PANEL_SET = 45.0, 14.0, 10.0
STILE = 110.0
REBATE = 20.0
TRIM_DEPTH = 19.05
SILL_DEPTH, SILL_OUT = 38.1, 32.0
STONE_SILL, STONE_OUT, STONE_END = 75.0, 40.0, 75.0
SHUTTER_DEPTH, SHUTTER_FRAME = 32.0, 60.0
"""Sizes of ordinary units and sills in mm. Common practice, no source."""

Shape: TypeAlias = Polygon | MultiPolygon


@lru_cache(maxsize=1024)
def unit_parts(wall: PlannedWall, placed: PlacedOpening, trimmed: bool, outside: bool) -> tuple[Part, ...]:
    """The parts in and around one opening; `trimmed` when the wall has an outside to trim."""
    unit = placed.opening.unit
    if unit == "niche":
        return ()
    parts = [*_unit(wall, placed)]
    if trimmed and placed.design.trim > 0:
        parts += _trim(wall, placed)
    elif not trimmed and wall.wall.status == "outer" and unit == "window":
        parts.append(_nib(wall, placed))
    if placed.design.shutters == "pair" and wall.wall.status == "outer":
        parts += _shutters(wall, placed)
    return tuple(parts if outside else (replace(part, outside=False) for part in parts))


def daylight(parts: Sequence[Part]) -> float:
    """The glass that is seen of a unit's parts (mm2): without the bars before it."""
    glass = sum(part.solid.volume for part in parts if part.role == "glass") / GLASS_DEPTH
    return max(glass - sum(part.solid.volume for part in parts if part.role == "bar") / BAR_DEPTH, 0.0)


def _part(
    wall: PlannedWall,
    placed: PlacedOpening,
    role: str,
    material: str,
    profile: Shape,
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


def _unit(wall: PlannedWall, placed: PlacedOpening) -> Iterator[Part]:
    """Frame, posts and what is in them."""
    shape, face, design = outline(placed), placed.face, placed.design
    door = placed.opening.unit == "door"
    if min(design.width, design.height) < 2 * (FRAME_FACE + SASH_FACE) + 20:
        yield _part(wall, placed, "glass", "glass", shape, face - 26.0 - GLASS_DEPTH, face - 26.0)
        return
    inside = inset(shape, FRAME_FACE, open_foot=door)
    held = leaves(placed)
    frame = shape.difference(inside)
    between = posts(placed)
    frame = frame.union(between) if between is not None else frame
    depth = frame_depth(placed)
    yield _part(wall, placed, "frame", "unit_frame", _whole(frame), face - depth, face)
    if door and design.threshold > 0:
        foot = rectangle(placed.left, placed.sill.total, placed.right, placed.sill.total + design.threshold)
        yield _part(wall, placed, "threshold", "softwood", foot, face - depth, face + 20.0)
    joints = _joints(held, inside)
    if joints is not None:
        back = face - LEAF_SET - LEAF_DEPTH
        yield _part(wall, placed, "leaf", "door_leaf", joints, back, face - LEAF_SET - REBATE, "joint")
    for leaf in held:
        slot = "" if len(held) == 1 else leaf.slot
        within = inside.intersection(leaf.box)
        if isinstance(within, Polygon) and not within.is_empty:
            make = _sash if leaf.glazed else _leaf
            yield from make(wall, placed, leaf, within, slot)


def _joints(held: tuple[Leaf, ...], inside: Polygon) -> Shape | None:
    """The rebates behind the joints between door leaves, so that nobody looks through; None where there are none."""
    doors = [leaf.box for leaf in held if leaf.slot.startswith(("leaf:", "section:"))]
    if len(doors) < 2:
        return None
    whole = unary_union(doors)
    strips = _whole(rectangle(*whole.bounds).intersection(inside).difference(whole))
    return None if strips.is_empty else strips


def _whole(shape: shapely.Geometry) -> Shape:
    pieces = list(polygons_of(shape))
    return pieces[0] if len(pieces) == 1 else MultiPolygon(pieces)


def _sash(wall: PlannedWall, placed: PlacedOpening, leaf: Leaf, within: Polygon, slot: str) -> Iterator[Part]:
    """A frame of its own with glass and bars in it; that of a door is wider."""
    door = placed.opening.unit == "door" and not leaf.slot.startswith("side")
    face = placed.face - SASH_SET - leaf.track * TRACK
    width = STILE if door and min(leaf.right - leaf.left, leaf.high - leaf.low) > 3 * STILE else SASH_FACE
    glass = inset(within, width)
    if glass.is_empty:
        yield _part(wall, placed, "sash", "unit_frame", within, face - SASH_DEPTH, face, slot)
        return
    yield _part(wall, placed, "sash", "unit_frame", within.difference(glass), face - SASH_DEPTH, face, slot)
    pane = face - GLASS_SET
    yield _part(wall, placed, "glass", "glass", glass, pane - GLASS_DEPTH, pane, slot)
    bars = _bars(placed, glass)
    if bars is not None:
        yield _part(wall, placed, "bar", "unit_frame", bars, pane, pane + BAR_DEPTH - 14, slot)


def _bars(placed: PlacedOpening, glass: Polygon) -> Shape | None:
    across, up = placed.design.bars_across, placed.design.bars_up
    a, b, c, d = glass.bounds
    strips = [
        rectangle(x - BAR_FACE / 2, b, x + BAR_FACE / 2, d)
        for x in (a + (c - a) * i / across for i in range(1, across))
    ]
    strips += [
        rectangle(a, y - BAR_FACE / 2, c, y + BAR_FACE / 2) for y in (b + (d - b) * i / up for i in range(1, up))
    ]
    if not strips:
        return None
    bars = _whole(unary_union(strips).intersection(glass))
    return None if bars.is_empty else bars


def _leaf(wall: PlannedWall, placed: PlacedOpening, leaf: Leaf, within: Polygon, slot: str) -> Iterator[Part]:
    """A leaf of boards, with two panels set back where it is large enough for them."""
    face = placed.face - LEAF_SET
    a, b, c, d = within.bounds
    width, height = c - a, d - b
    panels: list[Shape] = []
    if leaf.action == "lift":
        if placed.design.leaf == "panelled":
            count = max(2, round(width / 600))
            each = width / count
            cells = [rectangle(a + k * each + 60, b + 70, a + (k + 1) * each - 60, d - 70) for k in range(count)]
            panels = [_whole(unary_union(cells))]
    elif placed.design.leaf == "panelled" and width > 300 and height > 1500:
        m = 0.14 * width
        panels = [
            _whole(rectangle(a + m, b + 0.12 * height, c - m, b + 0.42 * height).intersection(within)),
            _whole(rectangle(a + m, b + 0.50 * height, c - m, d - 0.07 * height).intersection(within)),
        ]
    board = within.difference(unary_union(panels)) if panels else within.intersection(rectangle(a, b, c, d))
    yield _part(wall, placed, "leaf", "door_leaf", _whole(board), face - LEAF_DEPTH, face, slot)
    for name, panel in zip(("low", "high"), panels):
        back = face - PANEL_SET
        named = name if not slot else f"{slot}:{name}"
        yield _part(wall, placed, "panel", "door_leaf", panel, back - 20, back, named)


def _trim(wall: PlannedWall, placed: PlacedOpening) -> Iterator[Part]:
    shape, w = outline(placed), placed.design.trim
    x0, y0, x1, y1 = shape.bounds
    outer = wall.outer
    around = shape.buffer(w, join_style="mitre").difference(shape.union(rectangle(x0, y0 - 1, x1, y0 + 1)))
    around = around.intersection(rectangle(x0 - w, y0, x1 + w, y1 + w))
    yield _part(wall, placed, "trim", "trim", _whole(around), outer, outer + TRIM_DEPTH)
    if placed.opening.unit == "window":
        sill = rectangle(x0 - w - 20, y0 - SILL_DEPTH, x1 + w + 20, y0)
        yield _part(wall, placed, "sill", "trim", sill, outer, outer + SILL_OUT)
    yield from _reveal(wall, placed, min(placed.face, outer), outer)


def _nib(wall: PlannedWall, placed: PlacedOpening) -> Part:
    """The part of a masonry sill that stands out from the wall."""
    low = placed.sill.total - STONE_SILL
    box = rectangle(placed.left - STONE_END, low, placed.right + STONE_END, placed.sill.total)
    return _part(wall, placed, "sill", "concrete", box, wall.outer, wall.outer + STONE_OUT)


def _reveal(wall: PlannedWall, placed: PlacedOpening, face: float, outer: float) -> Iterator[Part]:
    """Boards that line the depth between the unit's face and the outer face of the wall."""
    if outer - face < 5:
        return
    shape = outline(placed)
    lined = shape.difference(inset(shape, 12.0, open_foot=placed.opening.unit == "door"))
    yield _part(wall, placed, "reveal", "trim", _whole(lined), face, outer)


def _shutters(wall: PlannedWall, placed: PlacedOpening) -> Iterator[Part]:
    """A pair of louvred shutters, open beside the window: each half as wide as it."""
    gap = placed.design.trim + 10.0
    half, outer = placed.design.width / 2, wall.outer
    low, high = placed.sill.total, placed.head.total - placed.design.arch
    for slot, left in (("start", placed.left - gap - half), ("end", placed.right + gap)):
        board = rectangle(left, low, left + half, high)
        field = inset(board, SHUTTER_FRAME)
        yield _part(wall, placed, "shutter", "trim", board.difference(field), outer, outer + SHUTTER_DEPTH, slot)
        yield _part(wall, placed, "louvre", "louvre", field, outer, outer + SHUTTER_DEPTH / 2, slot)
