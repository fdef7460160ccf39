"""Joists that run out past what bears them: of decks past their beam, of floors past the wall below."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import shapely
from shapely.geometry import LineString

from ...building.diagnostics import Diagnostic
from ...geometry import Point
from ...model import Deck, Framing
from ...units import Units, format_length, format_measured
from .members import floor_members
from .place import FloorPlan
from .turned import Turned

SHARE = 0.25
"""Joists of decks run past their beam by this share of their span at most. Source: IRC R507.6, from memory."""
APART = 300.0
"""Joists need bearings farther apart than this (mm) to lie still."""
TOUCH = 3.0
"""What bears a joist is as near as this (mm) to its end."""


@dataclass(frozen=True, slots=True)
class Lying:
    """A joist by its middle line: from where to where along it bearings lie, and how far it runs past them, at the
    worse end."""

    line: LineString
    places: tuple[float, ...]
    past: float

    @property
    def between(self) -> float:
        """The stretch between the outer two bearings (mm)."""
        return self.places[-1] - self.places[0] if self.places else 0.0

    @property
    def middle(self) -> Point:
        """Its middle in plan."""
        spot = self.line.interpolate(0.5, normalized=True)
        return spot.x, spot.y


def lying_joists(flat: FloorPlan, framing: Framing) -> list[Lying]:
    """The joists of a floor or deck that are long enough to need two bearings."""
    members, found = floor_members(flat.bays, flat.rims, framing, flat.floor.blocked), []
    near = flat.bearing.buffer(TOUCH)
    for member in members.of("joist"):
        for length, piece in member.pieces:
            if length <= APART:
                continue
            line = Turned(member.direction).middle(piece)
            on = shapely.get_coordinates(shapely.intersection(line, near)).tolist()
            places = sorted(line.project(shapely.Point(point)) for point in on)
            past = max(places[0], line.length - places[-1]) if places else line.length
            found.append(Lying(line, tuple(places), past))
    return found


def _farthest(lying: list[Lying]) -> Lying | None:
    """Of those that lie still, the joist that runs farthest past what bears it."""
    return max((joist for joist in lying if joist.between >= APART), key=lambda joist: joist.past, default=None)


def too_far_out(flat: FloorPlan, lying: list[Lying], units: Units) -> Iterator[Diagnostic]:
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


def deep_overhang(flat: FloorPlan, lying: list[Lying], depth: float, units: Units) -> Iterator[Diagnostic]:
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
