"""Joists that run out past what bears them: of decks past their beam, of floors past the wall below."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ...building.diagnostics import Diagnostic
from ...model import Deck
from ...units import Units, format_length, format_measured
from ..floors.lying import Lying
from ..floors.place import FloorPlan

SHARE = 0.25
"""Joists of decks run past their beam by this share of their span at most. Source: IRC R507.6, from memory."""
APART = 300.0
"""Joists need bearings farther apart than this (mm) to lie still."""


def _farthest(lying: Sequence[Lying]) -> Lying | None:
    """Of those that lie still, the joist that runs farthest past what bears it."""
    return max(
        (joist for joist in lying if joist.length > APART and joist.between >= APART),
        key=lambda joist: joist.past,
        default=None,
    )


def too_far_out(flat: FloorPlan, lying: Sequence[Lying], units: Units) -> Iterator[Diagnostic]:
    """The joist that runs farthest past what bears it, where that is too far; not where an engineer sized them."""
    held = flat.floor
    worst = _farthest(lying)
    if worst is None or held.sized != "by tables" or worst.past <= SHARE * worst.between + 1.0:
        return
    past, limit = format_measured(worst.past, units), SHARE * worst.between
    message = (
        f"joists of {held.name} run {past} past what bears them, more than a quarter of their span, "
        f"{format_measured(limit, units)}"
    )
    field = "carry" if isinstance(held, Deck) else "bearing"
    yield Diagnostic("cantilever-long", message, held.id, field, worst.past, limit, at=worst.middle)


def deep_overhang(flat: FloorPlan, lying: Sequence[Lying], depth: float, units: Units) -> Iterator[Diagnostic]:
    """A floor that stands out over the wall below by more than its joists are deep, and was sized by nobody."""
    held = flat.floor
    worst = _farthest(lying)
    if worst is None or held.sized != "by tables" or worst.past <= depth + 1.0:
        return
    message = (
        f"joists of {held.name} stand out {format_measured(worst.past, units)} over the wall below: more than they are "
        f"deep, {format_length(depth, units)}, an engineer sizes them"
    )
    yield Diagnostic("floor-overhang", message, held.id, "bearing", worst.past, depth, at=worst.middle)
