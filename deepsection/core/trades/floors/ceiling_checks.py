"""How far the joists of ceilings span between what bears them, and how far they may."""

from __future__ import annotations

from collections.abc import Iterator

from ...building.diagnostics import Diagnostic
from ...building.placed import Placed
from ...model import Layer
from ...rows.outcome import OutcomeRow, OutcomeTable
from ...units import Units, format_length, format_measured
from .ceilings import CEILINGS, CeilingPlan
from .joists import joists_of
from .span_checks import SpanVerdict, farthest
from .spans import JoistSize, joist_reach, joist_sizes, size_of
from .turned import Turned


def _joists(placed: Placed, flat: CeilingPlan) -> Layer | None:
    layers = placed.make_ups[flat.ceiling.make_up].layers
    return next((layer for layer in layers if layer.framing and layer.framing.profile == "solid"), None)


def ceiling_spans(placed: Placed, flat: CeilingPlan) -> list[SpanVerdict]:
    """What is to be said of the spans of a ceiling, bay by bay; nothing where it has no joists."""
    layer = _joists(placed, flat)
    if layer is None or layer.framing is None:
        return []
    tradition, spacing, units = placed.project.tradition, layer.framing.spacing, placed.project.units
    size = size_of(layer, units)
    reach, by = joist_reach(tradition, size, spacing, "ceiling")
    found = []
    for bay in flat.bays:
        turned = Turned(bay.direction)
        own = joists_of(layer.framing, bay, bay.framed)
        lines = [turned.middle(piece) for joist in own for piece in joist.area.geoms]
        if not lines:
            continue
        span = farthest(bay.slot, lines, flat.bearing)
        sizes = (held for held in joist_sizes(tradition) if held.depth >= size.depth)
        does = (held for held in sizes if joist_reach(tradition, held, spacing, "ceiling")[0] >= span.clear)
        needs = next((JoistSize.of(held.thickness, held.depth, units) for held in does), None)
        found.append(SpanVerdict(span, size, reach, by, needs))
    return found


def ceiling_table(placed: Placed, flat: CeilingPlan) -> tuple[OutcomeTable, ...]:
    """How far the joists of each bay span and reach, as text."""
    units, said = placed.project.units, ceiling_spans(placed, flat)
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


def ceiling_checks(placed: Placed) -> Iterator[Diagnostic]:
    """Joists of ceilings that span too far; what an engineer sized is left to him."""
    for flat in placed[CEILINGS]:
        layer = _joists(placed, flat)
        if layer is None or layer.framing is None or flat.ceiling.sized != "by tables":
            continue
        for held in ceiling_spans(placed, flat):
            if not held.is_enough:
                yield _too_far(held, flat, layer.framing.spacing, placed.project.units)


def _too_far(held: SpanVerdict, flat: CeilingPlan, spacing: float, units: Units) -> Diagnostic:
    span, reach = format_measured(held.span.clear, units), format_measured(held.reach, units)
    does = f", or take {held.needs.name}" if held.needs else ""
    message = (
        f"joists of {flat.ceiling.name} span {span}; {held.size.name} at {format_length(spacing, units)} reach {reach} "
        f"({held.by}): let a wall below bear, lay a beam under them{does}"
    )
    return Diagnostic("ceiling-span", message, flat.ceiling.id, "make_up", held.span.clear, held.reach, at=held.span.at)
