"""What is to be said of the span of joists: how far they span, how far they reach, what size would do."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import groupby

from shapely.geometry import LineString, MultiPolygon, Polygon

from ...building.diagnostics import Diagnostic
from ...geometry import Point
from ...model import Ceiling, Deck, Floor
from ...rows.outcome import OutcomeRow, OutcomeTable
from ...units import Units, format_length, format_measured
from ..makeups.model import Tradition
from .spans import JoistSize, On, joist_reach, joist_sizes
from .supports import clear_spans


@dataclass(frozen=True, slots=True)
class BaySpan:
    """The farthest that a joist of a bay spans between what bears it (mm), and the middle of that joist."""

    bay: str
    clear: float
    at: Point


def farthest(bay: str, lines: list[LineString], bearing: Polygon | MultiPolygon) -> BaySpan:
    """The farthest span of some joists; those that are shorter than what was found need not be looked at."""
    best = BaySpan(bay, 0.0, lines[0].coords[0])
    for length, alike in groupby(sorted(lines, key=lambda line: -line.length), key=lambda line: round(line.length)):
        if length + 1.0 < best.clear:
            break
        own = list(alike)
        for line, clear in zip(own, clear_spans(own, bearing)):
            if clear > best.clear:
                middle = line.interpolate(0.5, normalized=True)
                best = BaySpan(bay, clear, (middle.x, middle.y))
    return best


@dataclass(frozen=True, slots=True)
class SpanVerdict:
    """A bay's farthest span, how far its joists reach there and by what, and the least size that would do."""

    span: BaySpan
    size: JoistSize
    reach: float
    by: str
    needs: JoistSize | None

    @property
    def is_enough(self) -> bool:
        """Whether they reach."""
        return self.span.clear <= self.reach + 1.0


def verdict(span: BaySpan, size: JoistSize, spacing: float, tradition: Tradition, units: Units, on: On) -> SpanVerdict:
    """What is to be said of joists of a size at a spacing (mm), and the least size, as deep at least, that would do."""
    reach, by = joist_reach(tradition, size, spacing, on)
    sizes = (held for held in joist_sizes(tradition) if on == "floor" or held.depth >= size.depth)
    does = (held for held in sizes if joist_reach(tradition, held, spacing, on)[0] >= span.clear)
    needs = next((JoistSize.of(held.thickness, held.depth, units) for held in does), None)
    return SpanVerdict(span, size, reach, by, needs)


def verdict_table(said: Sequence[SpanVerdict], units: Units) -> tuple[OutcomeTable, ...]:
    """How far the joists of each bay span and reach, as text."""
    if not said:
        return ()
    rows = []
    for number, held in enumerate(said, 1):
        text = format_measured(held.span.clear, units)
        if not held.is_enough:
            text += f", needs {held.needs.name}" if held.needs else ", needs a beam or a wall that bears"
        rows.append(OutcomeRow(f"bay {number}" if len(said) > 1 else "clear span", text))
    reach = format_measured(said[0].reach, units)
    return (OutcomeTable("Spans", f"{said[0].size.name} reach {reach}, {said[0].by}", tuple(rows)),)


def too_far(code: str, held: SpanVerdict, of: Floor | Deck | Ceiling, spacing: float, units: Units) -> Diagnostic:
    """Joists that span farther than they reach."""
    span, reach = format_measured(held.span.clear, units), format_measured(held.reach, units)
    does = f", or take {held.needs.name}" if held.needs else ""
    message = (
        f"joists of {of.name} span {span}; {held.size.name} at {format_length(spacing, units)} reach {reach} "
        f"({held.by}): let a wall below bear, lay a beam under them{does}"
    )
    return Diagnostic(code, message, of.id, "make_up", held.span.clear, held.reach, at=held.span.at)
