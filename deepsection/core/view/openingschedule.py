"""The schedule of windows and doors: one row for all that are made alike."""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from typing import NamedTuple

from ..catalog import lumber
from ..drawing import Drawing, extent
from ..drawing.tables import table_marks
from ..model import Design, Project
from ..resolve import Building, PlacedOpening
from ..trades.openings.fields import OPERATION_WORDS
from ..trades.openings.units import daylight
from ..units import Units, format_area, format_length
from .setting import Setting

TITLE = "Windows and doors"
NAME = "schedule:openings"
UNITS = ("window", "door", "niche")
BY_HAND = {"maker": 32.0, "note": 48.0}
"""Columns in which somebody may write, and how wide they are (paper mm)."""
EMPTY = "No windows and doors yet: they are listed here once they stand in walls."


@dataclass(frozen=True, slots=True)
class OpeningRow:
    """Openings made alike: their number, how many, sizes in mm, of their glass in mm2 each, and words.

    `hole` is the rough opening of a framed wall, the masonry opening of another: unit and clearance. `sills`, `heads`:
    each height over the floor that one of them has.
    """

    number: str
    count: int
    unit: str
    opens: str
    width: float
    height: float
    hole_width: float
    hole_height: float
    daylight: float
    sills: tuple[float, ...]
    heads: tuple[float, ...]
    header: str
    maker: str
    note: str


class _Alike(NamedTuple):
    """What openings of one row have in common."""

    unit: str
    number: str
    design: Design
    maker: str
    note: str
    header: str


def opening_rows(building: Building) -> tuple[OpeningRow, ...]:
    """The rows of the schedule: windows, then doors, then niches, by their numbers."""
    project = building.placed.project
    alike: dict[_Alike, list[tuple[PlacedOpening, str]]] = defaultdict(list)
    for wall in building.plan.walls:
        for placed in building.openings[wall.wall.id]:
            header = _header(building, wall.wall.id, placed, project.units)
            key = _Alike(placed.opening.unit, placed.number, placed.design, *project.words_of(placed.opening), header)
            alike[key].append((placed, wall.wall.base.level))
    rows = []
    for (unit, number, design, maker, note, header), held in alike.items():
        floors = [building.levels[level].z for _, level in held]
        rows.append(
            OpeningRow(
                number=number,
                count=len(held),
                unit=unit,
                opens=OPERATION_WORDS[design.operation],
                width=design.width,
                height=design.height,
                hole_width=design.width + 2 * design.rough,
                hole_height=design.height + design.rough,
                daylight=daylight(building.parts_of(held[0][0].opening.id)),
                sills=_heights(placed.sill.total - floor for (placed, _), floor in zip(held, floors)),
                heads=_heights(placed.head.total - floor for (placed, _), floor in zip(held, floors)),
                header=header,
                maker=maker,
                note=note,
            )
        )
    return tuple(sorted(rows, key=lambda row: (UNITS.index(row.unit), _natural(row.number), row.width, row.height)))


def _heights(values: Iterable[float]) -> tuple[float, ...]:
    return tuple(sorted({round(value, 3) + 0.0 for value in values}))


def _natural(number: str) -> list[tuple[int, int, str]]:
    """W2 before W10."""
    return [(0, int(piece), "") if piece.isdigit() else (1, 0, piece) for piece in re.findall(r"\d+|\D+", number)]


def _header(building: Building, wall: str, placed: PlacedOpening, units: Units) -> str:
    """What carries the wall over it: the lumber of its header by name, or the depth of its lintels."""
    found = []
    for part in building.parts_of(wall):
        if part.role in ("header", "lintel") and part.key.rsplit("/", 1)[1] == placed.opening.id:
            deep = part.solid.bounds.z1 - part.solid.bounds.z0
            named = [name for name, size in lumber().items() if part.role == "header" and abs(size.depth - deep) < 0.5]
            found.append(named[0] if named and units == "ft-in" else f"{format_length(deep, units)} {part.role}")
    return " + ".join(dict.fromkeys(found))


def heads_of(project: Project) -> tuple[str, ...]:
    """The heads of its columns, in the words of the tradition."""
    hole = "rough opening" if project.tradition == "timber" else "masonry opening"
    return ("No.", "of", "what", "opens", "unit", hole, "glass", "sill", "head", "header", "maker", "note")


def cells_of(row: OpeningRow, units: Units) -> tuple[str, ...]:
    """A row as it is written."""

    def size(width: float, height: float) -> str:
        return f"{format_length(width, units)} x {format_length(height, units)}"

    def heights(values: tuple[float, ...]) -> str:
        return ", ".join(format_length(value, units) for value in values)

    return (
        row.number,
        str(row.count),
        row.unit,
        row.opens,
        size(row.width, row.height),
        size(row.hole_width, row.hole_height) if row.unit != "niche" else "",
        format_area(row.daylight, units) if row.daylight > 0 else "",
        heights(row.sills) if row.unit != "door" or any(row.sills) else "",
        heights(row.heads),
        row.header,
        row.maker,
        row.note,
    )


def opening_table(building: Building) -> tuple[tuple[str, ...], list[tuple[str | int, ...]]]:
    """(heads, rows) of the schedule as a table of its own: how many there are are numbers."""
    project = building.placed.project
    rows = opening_rows(building)
    cells = [cells_of(row, project.units) for row in rows]
    return heads_of(project), [(number, row.count, *rest) for row, (number, _, *rest) in zip(rows, cells)]


def draw_opening_schedule(building: Building, setting: Setting) -> Drawing:
    """The schedule as a drawing, its letters as high on paper at any scale."""
    project, rows = building.placed.project, opening_rows(building)
    cells = [cells_of(row, project.units) for row in rows]
    heads = heads_of(project)
    # A column in which nothing is written is left out, but for what somebody fills in by hand.
    kept = [k for k, head in enumerate(heads) if head in ("maker", "note") or any(row[k] for row in cells)]
    total = sum(row.count for row in rows)
    said = [f"{total} in all; sizes are width x height, sills and heads over the floor of their storey"]
    texts = [[row[k] for k in kept] for row in cells]
    table = table_marks((0.0, 0.0), [heads[k] for k in kept], texts, said, setting.scale, least=BY_HAND)
    marks = tuple(table) if rows else ()
    return Drawing(
        name=NAME,
        title=TITLE,
        kind="schedule",
        scale=setting.scale,
        marks=marks,
        bounds=extent(marks, setting.scale),
        messages=() if rows else (EMPTY,),
    )
