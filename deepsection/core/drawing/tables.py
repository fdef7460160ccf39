"""Tables as lines and lettering, in paper mm."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import Literal

from ..geometry import Point
from .advances import text_width
from .marks import Mark, Stroke, Text, path

TEXT, ROW = 2.2, 4.6
"""Height of letters, and from row to row (paper mm)."""
NARROW: Mapping[str, float] = {}
PAD = 1.2
"""On both sides of the text of a cell (paper mm)."""


def table_marks(
    corner: Point,
    heads: Sequence[str],
    rows: Sequence[Sequence[str]],
    says: Sequence[str],
    scale: float,
    *,
    least: Mapping[str, float] = NARROW,
) -> Iterator[Mark]:
    """A table from its upper left corner on down, its columns as wide as what they hold, and lines of words below.

    `least`: by their heads, how wide columns are at the least (paper mm).
    """
    x0, y0 = corner
    columns = []
    for head, *cells in zip(heads, *rows):
        wide = [text_width(head, TEXT, "bold"), *(text_width(text, TEXT) for text in cells)]
        columns.append(max(max(wide) + 2 * PAD, least.get(head, 0.0)) * scale)
    width = sum(columns)

    def line(number: float, pen: str) -> Mark:
        y = y0 - number * ROW * scale
        return Stroke(path((x0, y), (x0 + width, y)), pen, feature="schedule")

    def row(number: int, texts: Sequence[str], face: Literal["bold", "mono"]) -> Iterator[Mark]:
        x, y = x0, y0 - (number + 0.5) * ROW * scale
        for text, column in zip(texts, columns):
            if text:
                yield Text(x + PAD * scale, y, text, TEXT, "left", "middle", 0.0, face, feature="schedule")
            x += column

    yield line(0, "edge")
    yield from row(0, heads, "bold")
    yield line(1, "edge")
    for number, texts in enumerate(rows, 1):
        yield from row(number, texts, "mono")
        yield line(number + 1, "edge" if number == len(rows) else "fine")
    for number, text in enumerate(says, len(rows) + 1):
        y = y0 - (number + 0.6) * ROW * scale
        yield Text(x0 + PAD * scale, y, text, TEXT, "left", "middle", feature="schedule")
