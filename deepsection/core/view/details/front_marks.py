"""Where details of openings are cut, in the elevations that show them: a short line, number over sheet."""

from __future__ import annotations

from collections.abc import Iterator
from collections.abc import Set as AbstractSet

from shapely.geometry import LineString

from ...drawing import NUMBER, Label, Lettered, Stroke, Text, path
from ...geometry import Frame
from ...trades.drawings.plan import LETTER, named
from ..composing import Composition
from .place import AROUND_OPENINGS, DetailPlace, detail_place, junction_of

FACING = 0.9
"""Walls turn to the viewer from this cosine on."""
TICK = 1.8
"""Paper mm that the ends of a line reach to where the detail looks."""
AWAY = 5.0
"""Paper mm from a line to the middle of its number."""


def front_lines(view: Composition, seen: AbstractSet[str]) -> Iterator[Lettered]:
    """A line for each detail of an opening in a wall that turns to the viewer, of which something is seen."""
    building = view.building
    for detail in building.placed.project.details:
        if detail.kind not in AROUND_OPENINGS or view.changes.hides(f"section:{detail.id}"):
            continue
        junction = junction_of(building, detail)
        if junction is None or not seen & set(junction.elements):
            continue
        place = detail_place(building, detail, junction)
        (ox, oy), frame = junction.runs[0].out, view.frame
        if place is not None and -(ox * frame.dx + oy * frame.dy) >= FACING:
            yield from _line(view, detail.id, detail.name, place)


def _line(view: Composition, id: str, name: str, place: DetailPlace) -> Iterator[Lettered]:
    scale, cut = view.setting.scale, place.frame
    assert isinstance(cut, Frame)
    # It begins at the place of its junction.
    u = cut.x0 * view.frame.ux + cut.y0 * view.frame.uy
    low, high = place.window.low, place.window.high
    side = 1.0 if cut.dx * view.frame.ux + cut.dy * view.frame.uy > 0 else -1.0
    part, tick = f"{id}/section//", side * TICK * scale
    line = ((u + tick, low), (u, low), (u, high), (u + tick, high))
    yield Stroke(path(*line), "section", part=part, feature="window")
    middle, away = (low + high) / 2, AWAY * scale
    number = name.partition(",")[0]
    text = Text(u - side * away, middle, number, LETTER, "centre", "middle", 0, "bold", part, pen="section")
    words = named(view.building.placed.project, f"detail:{id}", text, scale)
    tall = (high - low) / 2 + away
    spots = [(0.0, 0.0), (2 * side * away, 0.0), (side * away, tall), (side * away, -tall)]
    spots += [(across, up) for across in (0.0, 2 * side * away) for up in (tall / 2, -tall / 2, tall, -tall)]
    yield Label(f"section:{id}", words, spots, NUMBER, about=LineString([(u, low), (u, high)]), backed=True)
