"""What each piece of a detail is: in a column at each side, in order of height, led to by lines that cross nothing."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import shapely
from shapely.geometry import LineString, Polygon

from ...drawing import Align, Mark, Region, Stroke, Text, path, text_width
from ...drawing.advances import wrapped
from ...drawing.explode import circle
from ...geometry import Point
from ...resolve import ROLES, Building
from ...trades.makeups.wording import layer_words
from ...units import format_measured, format_thickness
from .._annotations import LINE, Annotations
from .._levels import spread_by
from .._makeups import make_ups_of
from ..cut import CutPart

SIZE, ROW, LINES = 2.2, 3.9, 3.1
"""Height of the letters of a note, from note to note, and from line to line of one (paper mm)."""
WIDEST = 60.0
"""A note gets no wider than this (paper mm)."""
CHANNEL = 9.0
"""From the window to its notes (paper mm)."""
DOT = 0.5
"""Radius of the dot in a piece (paper mm)."""
LEAST = 0.2
"""What covers less than this on paper (mm2) is not noted: it cannot be seen."""
ROUNDS = 200


@dataclass(frozen=True, slots=True)
class PieceNote:
    """What a piece is, the part that it is, and a place in it."""

    words: str
    part: str
    dot: Point


def piece_notes(cut: Sequence[CutPart], building: Building, scale: float) -> list[PieceNote]:
    """A note for each kind of piece that a detail cuts, at the largest of them; those of a layer are one."""
    project = building.placed.project
    layers = {
        (id, layer.id): layer
        for id, name in make_ups_of(project, (one.part.element for one in cut)).items()
        for layer in building.placed.make_ups[name].layers
    }
    for foundation in project.foundations:
        pony = building.placed.make_ups[foundation.pony].layers if foundation.pony else ()
        layers |= {(foundation.id, layer.id): layer for layer in pony if (foundation.id, layer.id) not in layers}
    by_part: dict[str, list[Polygon]] = defaultdict(list)
    for one in cut:
        by_part[one.part.key].append(one.whole)
    largest: dict[str, tuple[float, CutPart]] = {}
    for one in cut:
        if not one.part.note and (one.polygon.area < LEAST * scale * scale or _is_sliver(one)):
            continue
        layer = layers.get((one.part.element, one.part.key.split("/")[2]))
        own = layer is None or _is_own(one)
        if own or layer is None:
            words = one.part.note or _sized(one, _undrilled(one.whole, by_part[one.part.key]), building)
        else:
            words = one.part.note or layer_words(layer, project.units)
        if words not in largest or one.polygon.area > largest[words][0]:
            largest[words] = one.polygon.area, one
    return [PieceNote(words, held.part.key, _inside(held.polygon)) for words, (_, held) in largest.items()]


def staggered(notes: Sequence[PieceNote], cut: Sequence[CutPart], middle: float, scale: float) -> list[PieceNote]:
    """Notes whose dots would be led to from one height, one over the other as far as their pieces go on: level leaders
    run beside each other. `middle`: what lies to the left of it is noted at the left."""
    shapes: dict[str, list[Polygon]] = {}
    for one in cut:
        shapes.setdefault(one.part.key, []).append(one.polygon)
    found = list(notes)
    for side in (True, False):
        own = sorted(
            (k for k, note in enumerate(notes) if (note.dot[0] < middle) == side), key=lambda k: notes[k].dot[1]
        )
        while own:
            low = notes[own[0]].dot[1]
            level = [k for k in own if notes[k].dot[1] < low + ROW * scale]
            own = own[len(level) :]
            level.sort(key=lambda k: notes[k].dot[0])
            for row, k in enumerate(level if len(level) > 1 else ()):
                u, v = notes[k].dot
                spot = u, v + ((len(level) - 1) / 2 - row) * ROW * scale
                if any(shape.covers(shapely.Point(spot)) for shape in shapes[notes[k].part]):
                    found[k] = replace(notes[k], dot=spot)
    return found


OWN = ("wall_plate", "sill_plate", "header", "lintel", "rim_joist", "blocking", "trimmer", "ridge_board",
       "hip_rafter", "valley_rafter", "ledger")  # fmt: skip
"""Roles of pieces that are noted by themselves, though a layer holds them."""


BOARDS = ("soffit",)
"""Roles of boards that are known by their thickness, however they are parted."""


STACK = ("chimney", "cricket")
"""Roles of what the window of a detail shows only a part of."""


SLIVER = 2.0
"""What is left of a part beside pieces and narrower than this (mm) is not noted."""


def _is_sliver(one: CutPart) -> bool:
    thin = one.part.function in ("membrane", "sheet") or one.part.role.endswith("_flashing")
    return not thin and one.polygon.buffer(-SLIVER / 2).is_empty


def _is_own(one: CutPart) -> bool:
    return one.part.role in OWN


DRILLED = 1.0, 16.0
"""Pieces of a part so far apart (from, to; mm) are one, through which a bolt goes."""


def _undrilled(piece: Polygon, others: Sequence[Polygon]) -> Polygon:
    """The box around a piece of a part and what bolts cut off it; the piece itself where none does."""
    least, most = DRILLED
    whole, rest = piece, list(others)
    while beyond := [one for one in rest if least < one.distance(whole) <= most]:
        whole = shapely.union_all([whole, *beyond]).envelope
        rest = [one for one in rest if one not in beyond]
    return whole


def _sized(one: CutPart, whole: Polygon, building: Building) -> str:
    """What a part is called, with what it measures where it is cut across: all of it, however much the window shows."""
    units = building.placed.project.units
    x0, y0, x1, y1 = whole.bounds
    words = ROLES[one.part.role].words
    if one.part.role in BOARDS:
        return f"{format_thickness(min(x1 - x0, y1 - y0), units)} {words} board"
    if one.part.role == "frame":
        unit = next((held.unit for held in building.placed.project.openings if held.id == one.part.element), "")
        return f"{unit} frame".strip()
    if one.part.function == "unit" or one.part.role in STACK or whole.area < 0.85 * (x1 - x0) * (y1 - y0):
        return words
    return f"{words} {format_measured(x1 - x0, units)} x {format_measured(y1 - y0, units)}"


def _inside(polygon: Polygon) -> Point:
    """A place well within a polygon: its middle, where that lies in it."""
    middle = polygon.centroid
    at = middle if polygon.buffer(-0.1).contains(middle) else polygon.representative_point()
    return at.x, at.y


def note_columns(
    notes: Sequence[PieceNote], box: tuple[float, float, float, float], scale: float, changes: Annotations
) -> Iterator[Mark]:
    """The notes at the two sides of a box, those of what lies in its left half at the left, in lines of a width."""
    left, _, right, _ = box
    middle = (left + right) / 2
    for side in (-1.0, 1.0):
        own = [note for note in notes if (note.dot[0] < middle) == (side < 0)]
        end = (left if side < 0 else right) + side * (CHANNEL - 1.0) * scale
        own.sort(key=lambda note: note.dot[1])
        lines = [wrapped(_said(note, changes), SIZE, WIDEST, "sans") for note in own]
        align: Align = "right" if side < 0 else "left"
        order, places = _placed(own, lines, end, scale)
        for note, held, v in zip((own[k] for k in order), (lines[k] for k in order), places):
            key = f"piece:{note.words}"
            yield Stroke(path(note.dot, (end, v)), "note", part=note.part, feature="leader", annotation=key)
            yield Region((circle(*note.dot, DOT * scale),), fill="poche", feature="leader", annotation=key)
            feature = "note" if len(held) == 1 else LINE
            for number, text in enumerate(held):
                at = v - number * LINES * scale
                yield Text(end + side * scale, at, text, SIZE, align, "middle", part=note.part, feature=feature,
                           annotation=key)  # fmt: skip


def _said(note: PieceNote, changes: Annotations) -> str:
    """What a note says: as it was reworded, where it was."""
    return changes.change(f"piece:{note.words}").text or note.words


def _placed(
    own: Sequence[PieceNote], lines: Sequence[list[str]], end: float, scale: float
) -> tuple[list[int], list[float]]:
    """Notes from below upward, and the height of the first line of each, so that no two leaders cross."""
    order = list(range(len(own)))
    places: list[float] = []
    for _ in range(ROUNDS):
        # A note hangs down from its first line, to which it is led.
        gaps = [(ROW + (len(lines[k]) - 1) * LINES) * scale for k in order]
        places = spread_by(sorted(own[k].dot[1] for k in order), gaps)
        ordered = uncrossed([own[k].dot for k in order], [(end, v) for v in places])
        if ordered == list(range(len(own))):
            break
        swapped = [0] * len(order)
        for k, row in zip(order, ordered):
            swapped[row] = k
        order = swapped
    return order, places


def uncrossed(dots: Sequence[Point], rows: Sequence[Point]) -> list[int]:
    """Which row each dot is led to, so that no two lines cross: where two do they change places, and get shorter."""
    order = list(range(len(dots)))
    if len(dots) < 2:
        return order
    for _ in range(ROUNDS):
        lines = [LineString([dot, rows[k]]) for dot, k in zip(dots, order)]
        tree = shapely.STRtree(lines)
        a, b = tree.query(lines, predicate="crosses")
        pair = next(((i, j) for i, j in zip(a.tolist(), b.tolist()) if i < j), None)
        if pair is None:
            break
        i, j = pair
        order[i], order[j] = order[j], order[i]
    return order


def column_width(notes: Sequence[PieceNote], box: tuple[float, float, float, float], side: float) -> float:
    """Paper mm that the notes at a side take."""
    middle = (box[0] + box[2]) / 2
    own = [note for note in notes if (note.dot[0] < middle) == (side < 0)]
    return (
        CHANNEL
        + max(
            (text_width(line, SIZE, "sans") for note in own for line in wrapped(note.words, SIZE, WIDEST, "sans")),
            default=0.0,
        )
        if own
        else 0.0
    )
