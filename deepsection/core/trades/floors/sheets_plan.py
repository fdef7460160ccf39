"""The sheets of a subfloor in plan, with their numbers and a schedule; the joists below them."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator

from ...building.kind import PlanOf
from ...drawing import Lettered, Stroke, path, rings_of, text_width
from ...drawing.tables import table_marks
from ...geometry import Point
from ...model import Framing, Layer, MakeUp, Sheets
from ...units import format_measured
from .lettering_plan import SMALL, on_paper
from .members import Members
from .place import FloorPlan
from .sheets import Piece, laid_sheets, sheets_needed

HEADS = ("No.", "of", "size", "what")


def sheeted(make_up: MakeUp) -> Layer | None:
    """The layer over what carries that is laid in sheets."""
    above = make_up.layers[: make_up.carrying or 0]
    return next((layer for layer in reversed(above) if layer.sheets), None)


def sheet_marks(shown: PlanOf, flat: FloorPlan, layer: Layer, framing: Framing, members: Members) -> Iterator[Lettered]:
    """Every piece with its number; the middles of what they are nailed to dashed."""
    assert layer.sheets is not None
    key = f"{flat.floor.id}/{layer.function}/{layer.id}/"
    for member in members.all:
        if member.role not in ("blocking", "bridging"):
            for line in member.middles:
                ends = (shown.frame.plan_to_turned(*point) for point in line.coords)
                yield Stroke(path(*ends), "hidden", part=f"{flat.floor.id}/{member.role}//", feature="member")
    for number, piece in _numbered(shown, flat, framing, layer.sheets):
        for ring in rings_of(shown.frame.turn(piece.area)):
            yield Stroke(ring, "edge", closed=True, part=key, feature="sheet")
        if min(piece.length, piece.width) > text_width(number, SMALL) * shown.scale:
            middle = piece.area.centroid
            point = middle if piece.area.contains(middle) else piece.area.representative_point()
            place = shown.frame.plan_to_turned(point.x, point.y)
            yield on_paper(place, number, SMALL, 0.0, key)


def _numbered(shown: PlanOf, flat: FloorPlan, framing: Framing, sheets: Sheets) -> list[tuple[str, Piece]]:
    """Every piece with its number: whole sheets are S, those that are cut P1 (the largest), P2 and so on."""
    units = shown.project.units
    pieces = [piece for bay, over in zip(flat.bays, flat.over) for piece in laid_sheets(bay, over, framing, sheets)]
    sizes: dict[tuple[str, str, bool], float] = {}
    for piece in pieces:
        sizes[_size(piece, shown)] = piece.length * piece.width
    whole = (format_measured(sheets.length, units), format_measured(sheets.width, units), False)
    cut = sorted((size for size in sizes if size != whole), key=lambda size: (-sizes[size], size))
    numbers = {whole: "S", **{size: f"P{k}" for k, size in enumerate(cut, 1)}}
    return [(numbers[_size(piece, shown)], piece) for piece in pieces]


def _size(piece: Piece, shown: PlanOf) -> tuple[str, str, bool]:
    """Its size as text, and whether it is cut around something."""
    units = shown.project.units
    notched = piece.area.area < 0.995 * piece.length * piece.width
    return format_measured(piece.length, units), format_measured(piece.width, units), notched


def sheet_schedule(shown: PlanOf, flat: FloorPlan, layer: Layer, framing: Framing, corner: Point) -> Iterator[Lettered]:
    """How many pieces of which size, and how many sheets these are cut from."""
    assert layer.sheets is not None
    units = shown.project.units
    by_number: dict[str, list[Piece]] = defaultdict(list)
    for number, piece in _numbered(shown, flat, framing, layer.sheets):
        by_number[number].append(piece)
    rows = []
    for number, pieces in sorted(by_number.items(), key=lambda row: (row[0][0] != "S", int(row[0][1:] or 0))):
        length, width, notched = _size(pieces[0], shown)
        what = "whole sheet" if number == "S" else "cut around" if notched else "cut"
        rows.append((number, str(len(pieces)), f"{length} x {width}", what))
    count = sheets_needed([piece for pieces in by_number.values() for piece in pieces], layer.sheets)
    size = f"{format_measured(layer.sheets.length, units)} x {format_measured(layer.sheets.width, units)}"
    says = (
        f"{layer.name} in sheets {size}: {count} of them, offcuts used",
        "long sides across the joists, ends on joists, joints of neighbouring rows staggered",
    )
    yield from table_marks(corner, HEADS, rows, says, shown.scale)
