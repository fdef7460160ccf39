"""How far the joists of ceilings span between what bears them, and how far they may."""

from __future__ import annotations

from collections.abc import Iterator

from ...building.diagnostics import Diagnostic
from ...building.placed import Placed
from ...model import Layer
from ...rows.outcome import OutcomeTable
from ..floors.joists import joists_of
from ..floors.spans import size_of
from ..floors.turned import Turned
from ..floors.verdicts import SpanVerdict, farthest, too_far, verdict, verdict_table
from .place import CEILINGS, CeilingPlan


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
    found = []
    for bay in flat.bays:
        turned = Turned(bay.direction)
        own = joists_of(layer.framing, bay, bay.framed)
        lines = [turned.middle(piece) for joist in own for piece in joist.area.geoms]
        if not lines:
            continue
        span = farthest(bay.slot, lines, flat.bearing)
        found.append(verdict(span, size, spacing, tradition, units, "ceiling"))
    return found


def ceiling_table(placed: Placed, flat: CeilingPlan) -> tuple[OutcomeTable, ...]:
    """How far the joists of each bay span and reach, as text."""
    return verdict_table(ceiling_spans(placed, flat), placed.project.units)


def ceiling_advice(placed: Placed) -> Iterator[Diagnostic]:
    """Joists of ceilings that span too far; what an engineer sized is left to him."""
    for flat in placed[CEILINGS]:
        layer = _joists(placed, flat)
        if layer is None or layer.framing is None or flat.ceiling.sized != "by tables":
            continue
        for held in ceiling_spans(placed, flat):
            if not held.is_enough:
                yield too_far("ceiling-span", held, flat.ceiling, layer.framing.spacing, placed.project.units)
