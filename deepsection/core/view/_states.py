"""What is existing and what is to be removed in a drawing: existing parts light, removed ones dashed over the rest.

Source of the manner: common practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import replace
from functools import lru_cache

from ..document.declaring import STATES, State
from ..drawing import Drawing, Mark, Region, Ring, Stroke, Text, extent, path
from ..model import Project

LIGHTER = {"cut": "existing", "outline": "existing", "cut_layer": "fine", "edge": "crease", "section_mark": "existing"}
"""The pens of what exists already."""
OUTLINES = ("cut", "cut_layer", "outline", "edge", "beyond", "existing")
"""Pens whose lines are shown of what is removed; finer ones are left out."""
SWATCH, ROW, GAP, WIDE = 3.2, 5.0, 8.0, 7.0
"""Height of a swatch of the key, of its rows, the room above it, and the width of a swatch (paper mm)."""


@lru_cache(maxsize=16)
def states_of(project: Project) -> Mapping[str, State]:
    """The state of every element that is not new."""
    return {held.id: held.state for held in project.elements() if getattr(held, "state", "new") != "new"}


def shown_by_state(drawing: Drawing, before: Drawing | None, states: Mapping[str, State]) -> Drawing:
    """A drawing of the finished house with what exists light, what is removed dashed from one of the house before the
    work, and a key."""
    marks = [_lighter(mark) if _state(mark, states) == "existing" else mark for mark in drawing.marks]
    if before is not None:
        marks += _removed(mark for mark in before.marks if _state(mark, states) == "removed")
    x0, y0, *_ = extent(marks, drawing.scale)
    marks += _key(sorted(set(states.values())), x0, y0, drawing.scale)
    return replace(drawing, marks=tuple(marks), bounds=extent(marks, drawing.scale))


def _state(mark: Mark, states: Mapping[str, State]) -> State | None:
    part = getattr(mark, "part", None)
    return states.get(part.partition("/")[0]) if part else None


def _lighter(mark: Mark) -> Mark:
    """A mark of something that exists: its cut grey without hatch, its lines light."""
    if isinstance(mark, Region):
        cut = mark.feature == "cut" and mark.fill != "paper"
        pen = LIGHTER.get(mark.pen or "", mark.pen)
        return replace(mark, fill="existing" if cut else mark.fill, hatch=None if cut else mark.hatch, pen=pen)
    return replace(mark, pen=LIGHTER.get(mark.pen, mark.pen)) if isinstance(mark, Stroke) else mark


def _removed(marks: Iterable[Mark]) -> Iterator[Mark]:
    """The outlines of what is to be removed, dashed; a line that two parts share is drawn once."""
    drawn: set[tuple[Ring, bool]] = set()
    for mark in marks:
        rings: tuple[tuple[Ring, bool], ...] = ()
        if isinstance(mark, Region) and mark.pen in OUTLINES:
            rings = tuple((ring, True) for ring in mark.rings)
        elif isinstance(mark, Stroke) and mark.pen in OUTLINES:
            rings = ((mark.path, mark.closed),)
        for ring, closed in rings:
            if (ring, closed) not in drawn:
                drawn.add((ring, closed))
                yield Stroke(ring, "removed", closed=closed, part=mark.part, feature="removed")


def _key(states: list[State], x: float, y: float, scale: float) -> Iterator[Mark]:
    """What is existing, new and removed looks like, in rows below a drawing."""
    row = y - GAP * scale
    for state in (held for held in STATES if held != "removed" or held in states):
        right, top = x + WIDE * scale, row + SWATCH * scale
        ring = path((x, row), (right, row), (right, top), (x, top))
        if state == "removed":
            yield Stroke(ring, "removed", closed=True, feature="key")
        else:
            fill, pen = ("existing", "existing") if state == "existing" else ("poche", "cut")
            yield Region((ring,), fill=fill, pen=pen, feature="key")
        yield Text(right + 2 * scale, (row + top) / 2, STATES[state], 2.5, "left", "middle", feature="key")
        row -= ROW * scale
