"""The schedule of a floor's members, as lines and lettering under its framing plan."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Literal

from ...building.kind import PlanOf
from ...drawing import Mark, Stroke, Text, path
from ...geometry import Point
from ...model import Framing, Layer
from ...units import format_length
from ..makeups.profiles import PROFILES
from .lettering_plan import ROW, TEXT, WIDE
from .members import Members, hangers
from .place import FloorPlan
from .profiles import is_timber
from .schedule import numbered, schedule
from .spans import loads_said, size_of, timber_for

PAD = 1.2
"""On both sides of the text of a cell (paper mm)."""
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
    assert layer.framing is not None
    texts = [(row.number, str(row.count), row.what, row.size, row.length) for row in rows]
    says = list(_rests_on(shown, flat, layer, layer.framing, hung))
    yield from table_marks(corner, HEADS, texts, says, scale)


def table_marks(
    corner: Point, heads: Sequence[str], rows: Sequence[Sequence[str]], says: Sequence[str], scale: float
) -> Iterator[Mark]:
    """A table from its upper left corner on down, its columns as wide as what they hold, and lines of words below."""
    x0, y0 = corner
    columns = [
        max(len(text) for text in column) * TEXT * WIDE * scale + 2 * PAD * scale for column in zip(heads, *rows)
    ]
    width = sum(columns)

    def line(number: float, pen: str) -> Mark:
        y = y0 - number * ROW * scale
        return Stroke(path((x0, y), (x0 + width, y)), pen, feature="schedule")

    def cells(number: int, texts: Sequence[str], face: Literal["bold", "mono"]) -> Iterator[Mark]:
        x, y = x0, y0 - (number + 0.5) * ROW * scale
        for text, column in zip(texts, columns):
            yield Text(x + PAD * scale, y, text, TEXT, "left", "middle", 0.0, face, feature="schedule")
            x += column

    yield line(0, "edge")
    yield from cells(0, heads, "bold")
    yield line(1, "edge")
    for number, texts in enumerate(rows, 1):
        yield from cells(number, texts, "mono")
        yield line(number + 1, "edge" if number == len(rows) else "fine")
    for number, text in enumerate(says, len(rows) + 1):
        y = y0 - (number + 0.6) * ROW * scale
        yield Text(x0 + PAD * scale, y, text, TEXT, "left", "middle", feature="schedule")


def _rests_on(shown: PlanOf, flat: FloorPlan, layer: Layer, framing: Framing, hung: int) -> Iterator[str]:
    """What is said under the schedule: hangers, timber and loads."""
    units = shown.project.units
    size = size_of(layer, units).name
    what = f"joists {size}" if is_timber(layer) else size
    yield f"{what} at {format_length(framing.spacing, units)}, {LAPS[flat.bays[0].lap]}"
    if hung:
        yield f"{hung} hangers, each a stroke across its end"
    made = PROFILES[framing.profile]
    if made.by_maker:
        yield f"{made.members} by the tables of their maker"
        return
    if flat.floor.sized != "by tables":
        yield "sizes by an engineer"
        return
    tradition = shown.project.tradition
    yield f"{timber_for(tradition).name}; {loads_said(tradition, units)}"
