"""The lines that close around a house, drawn over what is cut: each in a colour, with its gaps."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import shapely

from ..drawing import Mark, Region, Stroke, Text, path, rings_of
from ..geometry import polygons_of
from ..resolve import ROLES, Building
from ..trades.drawings.model import LineName
from ..units import format_measured
from .continuity import Continuity

COLOURS: dict[LineName, str] = {
    "weather": "#2c6fb3",
    "air": "#3f8f5b",
    "thermal": "#d0822a",
    "vapour": "#8a4fa0",
}
"""Of the pen strokes of the lines."""
LEAST = 0.5
"""What a line goes through is drawn at least so wide (paper mm)."""
BAND = 0.9
"""Width of the stroke along a thicker region (paper mm)."""
FIGURE, BESIDE = 2.2, 2.0
"""Height of the figure at a gap, and how far beside it that stands (paper mm)."""


def line_marks(found: Sequence[Continuity], building: Building, scale: float) -> Iterator[Mark]:
    """A coloured stroke along each line, along the edge of what is thick; a gap as a heavy line with its width."""
    for line in found:
        if not line.regions:
            continue
        whole = shapely.union_all([region.buffer(LEAST / 2 * scale) for region in line.regions])
        # What is thick keeps its inside free: the stroke follows its boundary.
        core = whole.buffer(-BAND * scale)
        for piece in polygons_of(whole.difference(core)):
            yield Region(rings_of(piece), fill=COLOURS[line.line], feature=f"line:{line.line}")
        for gap in line.gaps:
            (x0, y0), (x1, y1) = gap.start, gap.end
            yield Stroke(path(gap.start, gap.end), "section_mark", feature="gap")
            words = f"{line.line} open {format_measured(gap.width, building.placed.project.units)}"
            yield Text((x0 + x1) / 2 + BESIDE * scale, (y0 + y1) / 2, words, FIGURE, feature="gap")


def gap_words(line: Continuity, building: Building) -> Iterator[str]:
    """Where a line is open, in words: how far, and between what."""
    units = building.placed.project.units
    for gap in line.gaps:
        one, other = (_called(building, key) for key in gap.parts)
        yield f"the {line.line} line is open by {format_measured(gap.width, units)} between {one} and {other}"


def _called(building: Building, key: str) -> str:
    """What a part is called, in words."""
    part = building.by_key.get(key)
    if part is None:
        return key
    return f"“{part.note}”" if part.note else f"{ROLES[part.role].words} of {part.element}"
