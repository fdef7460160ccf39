"""The schedule of a floor's members, as lines and lettering under its framing plan."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Literal

from ...building.kind import PlanOf
from ...drawing import Mark, Stroke, Text, path
from ...geometry import Point
from ...model import Framing, Layer
from ...units import format_length
from .lettering_plan import ROW, TEXT
from .members import Members, hangers
from .place import FloorPlan
from .schedule import numbered, schedule
from .spans import loads_said, size_of, timber_for, usual_case

COLUMNS = (11.0, 10.0, 22.0, 24.0, 34.0)
"""Widths of the columns of the schedule (paper mm)."""
LAPS = {
    "lapped": "lapped over bearings",
    "butted": "butted over bearings",
    "through": "in one piece over bearings",
}
HEADS = ("No.", "of", "what", "size", "length")


def schedule_marks(shown: PlanOf, flat: FloorPlan, layer: Layer, members: Members, corner: Point) -> Iterator[Mark]:
    """The schedule of a floor's members, from its upper left corner on down, with what its spans rest on."""
    units, scale = shown.project.units, shown.scale
    rows = schedule(numbered(members.all, units), layer, units)
    hung = len(hangers(members))
    x0, y0 = corner
    width = sum(COLUMNS) * scale

    def line(number: float, pen: str) -> Mark:
        y = y0 - number * ROW * scale
        return Stroke(path((x0, y), (x0 + width, y)), pen, feature="schedule")

    def cells(number: int, texts: Sequence[str], face: Literal["bold", "mono"]) -> Iterator[Mark]:
        x, y = x0, y0 - (number + 0.5) * ROW * scale
        for text, column in zip(texts, COLUMNS):
            yield Text(x + 1.2 * scale, y, text, TEXT, "left", "middle", 0.0, face, feature="schedule")
            x += column * scale

    yield line(0, "edge")
    yield from cells(0, HEADS, "bold")
    yield line(1, "edge")
    for number, row in enumerate(rows, 1):
        texts = (row.number, str(row.count), row.what, row.size, row.length)
        yield from cells(number, texts, "mono")
        yield line(number + 1, "edge" if number == len(rows) else "fine")
    assert layer.framing is not None
    for number, text in enumerate(_rests_on(shown, flat, layer, layer.framing, hung), len(rows) + 1):
        y = y0 - (number + 0.6) * ROW * scale
        yield Text(x0 + 1.2 * scale, y, text, TEXT, "left", "middle", feature="schedule")


def _rests_on(shown: PlanOf, flat: FloorPlan, layer: Layer, framing: Framing, hung: int) -> Iterator[str]:
    """What is said under the schedule: hangers, timber and loads."""
    units = shown.project.units
    size = size_of(layer, units).name
    yield f"joists {size} at {format_length(framing.spacing, units)}, {LAPS[flat.floor.lap]}"
    if hung:
        yield f"{hung} hangers, each a stroke across its end"
    if framing.profile == "I":
        yield "I-joists by the tables of their maker"
        return
    if flat.floor.sized != "by tables":
        yield "sizes by an engineer"
        return
    tradition = shown.project.tradition
    case = usual_case(tradition, framing.thickness, layer.thickness, framing.spacing)
    yield f"{timber_for(tradition).name}; {loads_said(case, units)}"
