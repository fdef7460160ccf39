"""Lettering that a view writes by itself, as the drafter moved, rewrote or hid it, alone or with its kind.

An annotation is named by a key, `kind:what`, that stays while the model changes: `number:window-3`, `level:plate`.
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import replace

from ..drawing import (
    FIGURE_SIZE,
    FIRM,
    FIRST,
    LAST,
    Dimension,
    Label,
    Lettered,
    Mark,
    PlacedMarks,
    Region,
    Ring,
    Stroke,
    Text,
    moved,
    place,
    readable,
)
from ..model import Annotation, ShowKind, ViewShow
from ..trades.drawings.model import FIGURE_MARKS
from .setting import Setting

KIND_OF_KEY: dict[str, ShowKind] = {
    "level": "levels",
    "height": "heights",
    "width": "widths",
    "fold": "widths",
    "number": "numbers",
    "material": "materials",
    "legend": "materials",
    "pitch": "pitches",
    "headroom": "stepping",
    "stepping": "stepping",
    "grid": "grid",
    "name": "names",
    "downpipe": "names",
    "open": "names",
    "fall": "pitches",
    "ridge": "heights",
    "length": "widths",
    "string": "strings",
    "spot": "levels",
    "step": "levels",
    "framing": "numbers",
    "setting": "stepping",
    "section": "numbers",
    "note": "notes",
    "makeup": "numbers",
    "stack": "materials",
    "piece": "materials",
}
"""Which kind of lettering the first word of a key belongs to."""
LINE = "line"
"""The feature of a line of a note that has several."""


class Annotations:
    """What was changed of the lettering of one view."""

    def __init__(self, show: ViewShow | None, scale: float) -> None:
        self._scale = scale
        self._changed = {held.key: held for held in show.annotations} if show else {}
        self._kinds = frozenset(show.kinds) if show else frozenset()
        self.keyed = bool(show and show.materials == "keys")

    def hides(self, key: str) -> bool:
        """Whether this lettering is left out, alone or with its kind."""
        held = self._changed.get(key)
        return KIND_OF_KEY[key.partition(":")[0]] in self._kinds or bool(held and held.hidden)

    def change(self, key: str) -> Annotation:
        """What was changed of this lettering; a plain one when nothing was."""
        return self._changed.get(key) or Annotation(key=key)

    def shift(self, key: str) -> tuple[float, float]:
        """How far (real mm) this lettering was moved."""
        held = self._changed.get(key)
        return (held.dx * self._scale, held.dy * self._scale) if held else (0.0, 0.0)

    @property
    def ranks(self) -> dict[str, int]:
        """Those that differ from the usual, by key: what was moved stands where the drafter put it."""
        given = {"first": FIRST, "last": LAST}
        changed = self._changed.items()
        ranks = {key: given[held.rank] for key, held in changed if held.rank in given}
        return ranks | {key: FIRM for key, held in changed if held.dx or held.dy}

    def applied(self, marks: Iterable[Lettered]) -> Iterator[Lettered]:
        """Marks and labels with what was changed of them; those without a key as they are."""
        for mark in marks:
            key = mark.key if isinstance(mark, Label) else mark.annotation
            if key is None or self._is_plain(key):
                yield mark
            elif not self.hides(key):
                held = self.change(key)
                yield self._relabelled(mark, held) if isinstance(mark, Label) else self._moved(mark, held)

    def _relabelled(self, label: Label, held: Annotation) -> Label:
        dx, dy = held.dx * self._scale, held.dy * self._scale
        label = label.reworded(held.text) if held.text else label
        return replace(label, marks=tuple(moved(mark, dx, dy) for mark in label.marks)) if dx or dy else label

    def _is_plain(self, key: str) -> bool:
        return key not in self._changed and not self.hides(key)

    def _moved(self, mark: Mark, held: Annotation) -> Mark:
        dx, dy = held.dx * self._scale, held.dy * self._scale
        if isinstance(mark, Text):
            # A line of several has the new words already.
            text = mark.text if mark.feature == LINE else held.text or mark.text
            return moved(replace(mark, text=text), dx, dy)
        if isinstance(mark, Stroke) and not mark.closed:
            return replace(mark, path=_led(mark.path, dx, dy))
        if isinstance(mark, Dimension):
            return _dimension(mark, held)
        if isinstance(mark, (Region, Stroke)):
            return moved(mark, dx, dy)
        texts = (held.text or mark.texts[0], *mark.texts[1:])
        if mark.kind == "level":
            side, knee = mark.values
            return replace(mark, x=mark.x + dx, values=(side, knee + held.dy), texts=texts)
        return moved(replace(mark, texts=texts), dx, dy)


def _led(path: Ring, dx: float, dy: float) -> Ring:
    """A line of which the far end is moved: it is led on from where it ended when it would turn."""
    (x0, y0, _), (x1, y1, _) = path[-2], path[-1]
    turns = abs(dx * (y1 - y0) - dy * (x1 - x0)) > 1e-6
    end = (x1 + dx, y1 + dy, 0.0)
    return (*path, end) if turns else (*path[:-1], end)


def _dimension(mark: Dimension, held: Annotation) -> Dimension:
    """A dimension of which the line is moved away from or to what it measures, and the text along it."""
    text = held.text or mark.text
    if held.mark and text:
        text = f"{text} {FIGURE_MARKS[held.mark]}"
    length = math.hypot(mark.x2 - mark.x1, mark.y2 - mark.y1) or 1.0
    ux, uy = (mark.x2 - mark.x1) / length, (mark.y2 - mark.y1) / length
    across, along = held.dy * ux - held.dx * uy, held.dx * ux + held.dy * uy
    if (mark.annotation or "").startswith("string:"):
        # Its line belongs to a string: the figure alone moves.
        turn = math.degrees(math.atan2(uy, ux))
        up = across if abs(readable(turn) - turn) < 1.0 else -across
        far = math.hypot(along, up) > FIGURE_SIZE
        return replace(mark, raised=mark.raised + up, aside=mark.aside + along, text=text, led=far)
    return replace(mark, offset=mark.offset + across, aside=mark.aside + along, text=text)


def annotated(marks: Iterable[Mark], key: str) -> Iterator[Mark]:
    """Marks under one key."""
    for mark in marks:
        yield replace(mark, annotation=key)


def lettered(marks: Iterable[Lettered], setting: Setting) -> PlacedMarks:
    """Marks with all lettering as it was changed, each at its place; what finds none; what stands away from its own."""
    changes = Annotations(setting.show, setting.scale)
    return place(changes.applied(_told_apart(marks)), setting.scale, changes.ranks, setting.held)


def _told_apart(marks: Iterable[Lettered]) -> Iterator[Lettered]:
    """Labels with keys of their own: the second of one key is `KEY#2`."""
    seen: Counter[str] = Counter()
    for mark in marks:
        if isinstance(mark, Label):
            seen[mark.key] += 1
            if seen[mark.key] > 1:
                mark = replace(mark, key=f"{mark.key}#{seen[mark.key]}")
        yield mark
