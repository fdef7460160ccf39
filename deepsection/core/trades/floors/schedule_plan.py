"""The schedule of a floor's members, as lines and lettering under its framing plan."""

from __future__ import annotations

from collections.abc import Iterator

from ...building.kind import PlanOf
from ...drawing import Mark
from ...drawing.tables import table_marks
from ...geometry import Point
from ...model import Framing, Layer
from ...units import format_length
from ..makeups.profiles import PROFILES
from .members import Members, hangers
from .place import FloorPlan
from .profiles import is_timber
from .schedule import numbered, schedule
from .spans import loads_said, size_of, timber_for

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
