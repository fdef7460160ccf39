"""Lettering that a view writes by itself, as the drafter moved, rewrote or hid it, alone or with its kind.

An annotation is named by a key, `kind:what`, that stays while the model changes: `number:window-3`, `level:plate`.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import replace

from ..drawing import Dimension, Mark, Region, Ring, Stroke, Text, moved
from ..model import Annotation, ShowKind, ViewShow

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
    "note": "notes",
}
"""Which kind of lettering the first word of a key belongs to."""


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

    def applied(self, marks: Iterable[Mark]) -> Iterator[Mark]:
        """Marks with what was changed of them; those without a key as they are."""
        for mark in marks:
            if mark.annotation is None or self._is_plain(mark.annotation):
                yield mark
            elif not self.hides(mark.annotation):
                yield self._moved(mark, self.change(mark.annotation))

    def _is_plain(self, key: str) -> bool:
        return key not in self._changed and not self.hides(key)

    def _moved(self, mark: Mark, held: Annotation) -> Mark:
        dx, dy = held.dx * self._scale, held.dy * self._scale
        if isinstance(mark, Text):
            return moved(replace(mark, text=held.text or mark.text), dx, dy)
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
    length = math.hypot(mark.x2 - mark.x1, mark.y2 - mark.y1) or 1.0
    ux, uy = (mark.x2 - mark.x1) / length, (mark.y2 - mark.y1) / length
    across, along = held.dy * ux - held.dx * uy, held.dx * ux + held.dy * uy
    return replace(mark, offset=mark.offset + across, aside=mark.aside + along, text=held.text or mark.text)


def annotated(marks: Iterable[Mark], key: str) -> Iterator[Mark]:
    """Marks under one key."""
    for mark in marks:
        yield replace(mark, annotation=key)
