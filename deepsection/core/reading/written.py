"""What is written in a plan of heights and of north: levels of floors, heights of ceilings, the letter of an arrow."""

from __future__ import annotations

import math
import re
from collections.abc import Sequence
from typing import Literal

import numpy as np
from shapely import STRtree
from shapely.geometry import Point as Spot
from shapely.geometry import box
from shapely.geometry.base import BaseGeometry

from .drawn import Stroke, Words
from .found import FoundGrid, FoundLevel, FoundNorth
from .units import lengths_of

_FLOOR = (
    r"f\.?\s*f\.?\s*l\.?|s\.?\s*s\.?\s*l\.?|fin(?:ished)?\.?\s*fl(?:oo)?r\.?(?:\s*lvl\.?|\s*level|\s*el\.?)?|"
    r"floor\s*(?:level|lvl\.?)|t\.?o\.?\s*(?:slab|floor|conc\.?|sub-?floor)|ok\s*f+b?|okfb?|okrd|el(?:ev)?\.?|lvl\.?|level|"
    r"niveau|nivel|quota|peil|h[öo]he"
)
_CEILING = r"c\.?\s*h\.?|c(?:ei)?lg\.?(?:\s*h(?:t|eight)\.?)?|ceiling(?:\s*h(?:t|eight)\.?)?|lichte?\s*h[öo]he|rh|hsp"
_SIGNED = re.compile(
    rf"^\W*?(?P<word>{_FLOOR})?\s*[:=@]?\s*(?P<sign>±|\+\s*/\s*-|\+|-|−)?\s*(?P<rest>\d[^a-z]*(?:mm|cm|m)?)\s*$",
    re.IGNORECASE,
)
_HIGH = re.compile(rf"^\W*(?:{_CEILING})\s*[:=@]?\s*(?P<rest>\d[^a-z]*(?:mm|cm|m)?)\s*$", re.IGNORECASE)
DEEPEST, HIGHEST = 12_000.0, 5_000_000.0
"""Floors lie so far (mm) below and above their datum at most."""
CEILINGS = (1900.0, 6000.0)
_NORTH = re.compile(r"^\W*(n|north|nord|norte)\W*$", re.IGNORECASE)


def levels_of(words: Sequence[Words], rooms: Sequence[BaseGeometry]) -> list[FoundLevel]:
    """Levels of floors and heights of ceilings that are written in rooms.

    A number alone is none: a level has a sign or a word before it. Without a unit it is in metres where it has a
    fraction, else in millimetres. Common practice, no source.
    """
    if not rooms:
        return []
    tree = STRtree(list(rooms))
    found = []
    for word in words:
        if not any(letter.isdigit() for letter in word.text) or len(word.text) > 40:
            continue
        told = height_in(word.text)
        if told is not None and tree.query(Spot(word.at), predicate="within").size:
            found.append(FoundLevel(word.text.strip(), word.at, told[0], "ceiling" if told[1] else "floor"))
    return found


def height_in(text: str) -> tuple[float, bool] | None:
    """The height that a text states (mm), and whether it is that of a ceiling; none where it states none.

    >>> height_in("FFL +2.75"), height_in("CH 2400"), height_in("2400")
    ((2750.0, False), (2400.0, True), None)
    """
    high = _HIGH.match(text)
    if high:
        value = _mm(high["rest"])
        return (value, True) if value is not None and CEILINGS[0] <= value <= CEILINGS[1] else None
    level = _SIGNED.match(text)
    if not level or not (level["word"] or level["sign"]):
        return None
    value = _mm(level["rest"])
    if value is None:
        return None
    value = -value if level["sign"] in ("-", "−") else value
    return (value, False) if -DEEPEST <= value <= HIGHEST else None


def _mm(text: str) -> float | None:
    said = lengths_of(text.strip().rstrip("."))
    if not said:
        return None
    if len(said) == 1:
        return said[0][0]
    plain = next(mm for mm, unit in said if unit == "mm")
    fraction = re.search(r"[.,]\d{1,3}\s*$", text) is not None
    return round(plain * 1000.0, 3) if fraction else plain


def height_of(levels: Sequence[FoundLevel], ground: BaseGeometry, of: Literal["floor", "ceiling"]) -> float | None:
    """The level of most floors within a plan, or the height of most ceilings; of as many, the highest."""
    inside = [held.value for held in levels if held.of == of and ground.covers(Spot(held.at))]
    return max(inside, key=lambda value: (inside.count(value), value)) if inside else None


NEAR = 4.0
"""The arrow of north stands within so many heights of its letter."""


def north_of(
    words: Sequence[Words], strokes: Sequence[Stroke], grids: Sequence[FoundGrid]
) -> tuple[FoundNorth | None, set[int]]:
    """Where north is: the way of the longest line beside the letter, towards the letter; and the strokes of its arrow.

    A letter without lines beside it is none, nor is one in a bubble of the grid.
    """
    letters = [word for word in words if _NORTH.match(word.text)]
    if not letters or any(grid.label.casefold() == "n" for grid in grids):
        return None, set()
    tree = STRtree([box(*_bounds(stroke)) for stroke in strokes])
    best: tuple[float, FoundNorth, set[int]] | None = None
    for word in letters:
        reach = NEAR * max(word.height, 50.0)
        around = box(word.at[0] - reach, word.at[1] - reach, word.at[0] + reach, word.at[1] + reach)
        # What reaches farther is no part of an arrow.
        found = tree.query(around, predicate="intersects").tolist()
        near = {k for k in found if word.height / 2 < math.dist(strokes[k].a, strokes[k].b) < 3 * reach}
        arrow = _arrow(word, [strokes[k] for k in sorted(near)])
        if arrow and (best is None or arrow[0] > best[0]):
            best = *arrow, near
    return (best[1], best[2]) if best else (None, set())


def _arrow(word: Words, near: Sequence[Stroke]) -> tuple[float, FoundNorth] | None:
    straight = [stroke for stroke in near if not stroke.bulge]
    if not straight or len(straight) > 60:
        return None
    ends = np.array([point for stroke in near for point in (stroke.a, stroke.b)])
    middle = (ends.min(axis=0) + ends.max(axis=0)) / 2
    way = np.array(word.at) - middle
    if float(np.hypot(*way)) < 0.3 * word.height:
        return None
    best: tuple[float, float] | None = None
    for stroke in straight:
        span = np.array(stroke.b) - np.array(stroke.a)
        length = float(np.hypot(*span))
        towards = float(span @ way) / length / float(np.hypot(*way))
        if abs(towards) > 0.94 and (best is None or length > best[0] + 1.0):
            lead = span if towards > 0 else -span
            best = length, math.degrees(math.atan2(lead[0], lead[1]))
    if best is None:
        return None
    angle = round(best[1], 3) + 0.0
    return best[0], FoundNorth(angle, word.at, f"the line beside the letter {word.text.strip()}")


def _bounds(stroke: Stroke) -> tuple[float, float, float, float]:
    (x1, y1), (x2, y2) = stroke.a, stroke.b
    return min(x1, x2), min(y1, y2), max(x1, x2) + 0.01, max(y1, y2) + 0.01
