"""Answers that carry what changed: of a drawing that the screen holds already, only the marks that are new."""

from __future__ import annotations

import dataclasses
from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial
from hashlib import blake2b
from typing import NamedTuple

import orjson

from deepsection.core.drawing import Drawing, explode
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


class Answer(NamedTuple):
    """A drawing ready to be sent: its digest, its JSON, and what is remembered of it."""

    digest: str
    json: bytes
    sent: Sent


def answer(drawing: Drawing, before: Sent | None) -> Answer:
    """A drawing ready to be sent: whole, or as steps from the one that the screen holds."""
    drawing = explode(drawing)
    marks = [orjson.dumps(mark) for mark in drawing.marks]
    digests = tuple(_digest(mark).digest() for mark in marks)
    names = (field.name for field in dataclasses.fields(drawing) if field.name not in ("marks", "sums"))
    digest = _digest(b"".join(digests)).hexdigest()
    content = {name: getattr(drawing, name) for name in names} | {"digest": digest}
    steps, fresh = (None, range(len(marks))) if before is None else difference(before.marks, digests)
    content |= {"marks": [orjson.Fragment(marks[place]) for place in fresh], "steps": steps}
    placed = {key: (dx, dy) for key, dx, dy in drawing.shifts}
    return Answer(digest, orjson.dumps(content), Sent(digests, placed))


def sent_before(view: ViewWanted) -> Sent | None:
    """The drawing of a view that the screen holds; None where that is not known."""
    return _sent.get(view.have) if view.have else None


def remember(held: Answer) -> None:
    """Keep what is sent, for the next answer to build on."""
    _sent.put(held.digest, held.sent)


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
