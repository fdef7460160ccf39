"""More than walls: names of rooms, dimensions as a check of what was read, grid lines with their bubbles."""

from __future__ import annotations

import math
import re

from shapely import STRtree
from shapely.geometry import Point as Spot

from .drawn import Drawn, Words
from .found import Checked, FoundGrid, FoundRoom
from .layers import meaning_of
from .network import Enclosed
from .rails import circle_of
from .units import between, lengths_of

_AREA = re.compile(r"(\d+(?:[.,]\d+)?)\s*(m²|m2|qm|sq\.?\s*m|sq\.?\s*ft|sf|ft²|ft2)", re.IGNORECASE)
_LETTERS = re.compile(r"[^\W\d_]{2,}")
UNITS_NAMED = ("door", "window", "sheet", "furniture")
"""Texts in blocks that call themselves so name no room."""
SQUARE_FOOT = 0.09290304


def rooms_of(drawn: Drawn, around: Enclosed) -> list[FoundRoom]:
    """Names that stand in rooms: of several texts in one, the largest that is no number; areas from those beside it."""
    if not around.rooms:
        return []
    tree = STRtree(list(around.rooms))
    held: dict[int, list[Words]] = {}
    for word in drawn.words:
        if word.block >= 0 and (
            drawn.blocks[word.block].attributes or meaning_of(drawn.blocks[word.block].name) in UNITS_NAMED
        ):
            continue
        for k in tree.query(Spot(word.at), predicate="within").tolist():
            held.setdefault(k, []).append(word)
    found = []
    for words in held.values():
        names = [word for word in words if _LETTERS.search(_AREA.sub("", word.text)) and not lengths_of(word.text)]
        if not names:
            continue
        name = max(names, key=lambda word: (word.height, -len(word.text), word.at))
        areas = [match for word in words if (match := _AREA.search(word.text))]
        area = None
        if areas:
            value, unit = float(areas[0][1].replace(",", ".")), areas[0][2].lower()
            area = value * SQUARE_FOOT if "f" in unit else value
        found.append(FoundRoom(_AREA.sub("", name.text).strip(" ,-:")[:80], name.at, area))
    return sorted(found, key=lambda room: (room.at[1], room.at[0]))


def dimensions_of(drawn: Drawn) -> list[Checked]:
    """Each dimension whose text says a length: what it says beside what is drawn."""
    found = []
    for held in drawn.measures:
        measured = between(held.a, held.b, held.angle)
        said = [mm for mm, _ in lengths_of(held.text)]
        if not said or measured < 1.0:
            continue
        stated = min(said, key=lambda mm: abs(math.log(mm / measured)) if mm > 0 else math.inf)
        middle = (held.a[0] + held.b[0]) / 2, (held.a[1] + held.b[1]) / 2
        found.append(Checked(held.text, stated, round(measured, 1), middle))
    return found


def grids_of(drawn: Drawn) -> list[FoundGrid]:
    """Lines that end at a circle with a short text in it."""
    bubbles = []
    for stroke in drawn.strokes:
        if stroke.bulge and abs(abs(stroke.bulge) - 1.0) < 1e-3:
            centre, radius = circle_of(stroke)
            inside = [word for word in drawn.words if math.dist(word.at, centre) < radius and len(word.text) <= 3]
            if inside and 50.0 < radius < 1500.0:
                bubbles.append((centre, radius, inside[0].text))
    found: list[FoundGrid] = []
    lines = [s for s in drawn.strokes if not s.bulge and math.dist(s.a, s.b) > 2500.0] if bubbles else []
    for centre, radius, label in bubbles:
        for line in lines:
            near = [abs(math.dist(end, centre) - radius) < 0.3 * radius for end in (line.a, line.b)]
            if any(near) and not any(g.label == label and {g.start, g.end} == {line.a, line.b} for g in found):
                start, end = (line.a, line.b) if near[0] else (line.b, line.a)
                found.append(FoundGrid(label, start, end))
    return sorted(found, key=lambda grid: (grid.label, grid.start))
