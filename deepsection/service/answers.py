"""Answers that carry what changed: of a drawing that the screen holds already, only the marks that are new."""

from __future__ import annotations

import dataclasses
from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial
from hashlib import blake2b
from typing import Any

import orjson

from deepsection.core.drawing import Drawing
from deepsection.core.memo import LruCache

from .schemas import ViewWanted


@dataclass(frozen=True)
class Sent:
    """A drawing that was sent: the digests of its marks (they themselves would fill the memory), and where its
    lettering stands: how far from its own place (paper mm), by key."""

    marks: tuple[bytes, ...]
    placed: dict[str, tuple[float, float]]


_sent: LruCache[str, Sent] = LruCache(size=48)
"""Drawings that were sent, by their own digests: whoever names one holds it, whichever version or scale it is of."""

Step = tuple[int, int, int]
"""So many marks from a place of the drawing before, then so many new ones: (place, kept, new)."""


def answer(drawing: Drawing, view: ViewWanted, *, keep: bool = True) -> dict[str, Any]:
    """A drawing ready to serialise: whole, or as steps from the one that the screen holds.

    What is sent is remembered, for the next answer to build on, unless it is but a preview (`keep` false).
    """
    marks = [orjson.dumps(mark) for mark in drawing.marks]
    digests = tuple(_digest(mark).digest() for mark in marks)
    names = (field.name for field in dataclasses.fields(drawing) if field.name not in ("marks", "sums"))
    content = {name: getattr(drawing, name) for name in names} | {"digest": _digest(b"".join(digests)).hexdigest()}
    before = _sent.get(view.have) if view.have else None
    if keep:
        placed = {key: (dx, dy) for key, dx, dy in drawing.shifts}
        _sent.put(content["digest"], Sent(digests, placed))
    if before is None:
        return content | {"marks": [orjson.Fragment(mark) for mark in marks], "steps": None}
    steps, fresh = difference(before.marks, digests)
    return content | {"marks": [orjson.Fragment(marks[place]) for place in fresh], "steps": steps}


def lettering_of(view: ViewWanted) -> dict[str, tuple[float, float]] | None:
    """Where lettering stands in the drawing of a view that the screen holds; None where that is not known."""
    held = _sent.get(view.have) if view.have else None
    return held.placed if held else None


_digest = partial(blake2b, digest_size=16)


def difference(before: Sequence[bytes], after: Sequence[bytes]) -> tuple[list[Step], list[int]]:
    """The steps from some marks to others, and the places of the new ones among these.

    >>> difference([b"a", b"b", b"c"], [b"a", b"x", b"c"])
    ([(0, 1, 1), (2, 1, 0)], [1])
    """
    places = {mark: place for place, mark in enumerate(before)}
    steps: list[list[int]] = []
    fresh = []
    for index, mark in enumerate(after):
        place = places.get(mark)
        if place is None:
            if not steps:
                steps.append([0, 0, 0])
            steps[-1][2] += 1
            fresh.append(index)
        elif steps and not steps[-1][2] and steps[-1][0] + steps[-1][1] == place:
            steps[-1][1] += 1
        else:
            steps.append([place, 1, 0])
    return [(place, kept, new) for place, kept, new in steps], fresh
