"""What single pieces of a wall section are, beside each: fascia, rim joist, sill plate, header, a cut course."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import shapely
from shapely.geometry import Polygon

from ...drawing import LESSER, Label, Text, around, text_width
from ...drawing.cropping import Window
from ...resolve import ROLES
from ...units import Units, format_measured
from ..cut import CutPart
from ..cut_lines import course_height
from .place import StripPlace
from .stacks import ROW, SIZE

SIZED = ("fascia", "footing", "header", "ledger", "lintel", "rim_joist", "sill_plate", "wall_plate")
THICK = ("stem",)
NAMED = ("gutter", "soffit", "sill")
"""Roles that are noted with what they measure, with their thickness, and by their word alone."""
RINGS, BESIDE = 6, 3.0
"""How far around a piece its note is tried, and how far beside it it stands first (paper mm)."""
CUT_FROM, ALMOST = 26.0, 2.0
"""The scale from which cut courses are noted; one that lacks less than this (mm) is whole."""


def piece_notes(
    cut: Sequence[CutPart], place: StripPlace, window: Window, scale: float, units: Units
) -> Iterator[Label]:
    """A note at each kind of piece that a strip cuts, those alike once: at the highest of them."""
    said = set[str]()
    for held in sorted(cut, key=lambda one: (-one.polygon.bounds[3], one.part.key)):
        role = held.part.role
        if role not in (*SIZED, *THICK, *NAMED):
            continue
        x0, y0, x1, y1 = held.polygon.bounds
        words = ROLES[role].words
        # What it measures in whole, however much of it the strip shows.
        left, low, right, high = held.whole.bounds
        if role in SIZED or role in THICK:
            words = f"{words} {format_measured(right - left, units)}"
        if role in SIZED:
            words = f"{words} x {format_measured(high - low, units)}"
        words = held.part.note or words
        if words in said or not window.shows_height((y0 + y1) / 2) or not window.shows_across((x0 + x1) / 2):
            continue
        said.add(words)
        about = window.drawn(held.polygon)
        yield _note(f"piece:{held.part.element}:{role}", words, held.part.key, about, place, window, scale)


def course_notes(
    cut: Sequence[CutPart], place: StripPlace, window: Window, scale: float, units: Units
) -> Iterator[Label]:
    """What is left of each course that is cut at a head, a sill or a plate."""
    said = set[tuple[str, int]]()
    for held in sorted(cut, key=lambda one: one.part.key) if scale <= CUT_FROM else ():
        height = course_height(held)
        if height is None:
            continue
        x0, y0, x1, y1 = held.polygon.bounds
        start = held.part.origin[2]
        for v, rest, up in ((y1, (y1 - start) % height, -1.0), (y0, (start - y0) % height, 1.0)):
            words = f"course cut to {format_measured(rest, units)}"
            whole = not ALMOST < rest < height - ALMOST or not _is_level(held.polygon, v)
            shown = window.shows_height(v) and window.shows_across((x0 + x1) / 2)
            if whole or not shown or (words, round(v)) in said:
                continue
            said.add((words, round(v)))
            at = window.at(v)
            aside = window.across((x0 + x1) / 2) - (x0 + x1) / 2
            about = shapely.box(x0 + aside, min(at, at + up * rest), x1 + aside, max(at, at + up * rest))
            yield _note(f"piece:{held.part.element}:{round(v)}", words, held.part.key, about, place, window, scale)


def _is_level(polygon: Polygon, v: float) -> bool:
    """Whether a polygon ends level at a height."""
    x0, _, x1, _ = polygon.bounds
    edge = polygon.boundary.intersection(shapely.box(x0, v - 0.1, x1, v + 0.1))
    return bool(edge.length > (x1 - x0) / 2)


def _note(key: str, words: str, part: str, about: Polygon, place: StripPlace, window: Window, scale: float) -> Label:
    """Outside of what it names, where there is most air; within the strip."""
    x0, y0, x1, y1 = about.bounds
    wide = text_width(words, SIZE) * scale
    u = (x1 if place.out > 0 else x0) + place.out * (wide / 2 + BESIDE * scale)
    text = Text(u, (y0 + y1) / 2, words, SIZE, "centre", "middle", part=part, feature="note")
    sides = window.across(window.left), window.across(window.right)
    room = shapely.box(sides[0], window.at(window.low), sides[1], window.at(window.high))
    return Label(key, (text,), around(wide / 2, ROW * scale, RINGS), LESSER, about, room, backed=True)
