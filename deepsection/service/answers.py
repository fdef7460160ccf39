"""Answers that carry what changed: of a drawing that the screen holds already, only the marks that are new."""

from __future__ import annotations

import dataclasses
from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial
from hashlib import blake2b
from itertools import islice
from typing import NamedTuple

import orjson

from deepsection.core.drawing import Drawing, Mark, explode
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
    digests = tuple(map(_mark_digest, drawing.marks))
    names = (field.name for field in dataclasses.fields(drawing) if field.name not in ("marks", "sums"))
    digest = _digest(b"".join(digests)).hexdigest()
    content = {name: getattr(drawing, name) for name in names} | {"digest": digest}
    steps, fresh = (None, range(len(digests))) if before is None else difference(before.marks, digests)
    content |= {"marks": [drawing.marks[place] for place in fresh], "steps": steps}
    placed = {key: (dx, dy) for key, dx, dy in drawing.shifts}
    return Answer(digest, orjson.dumps(content), Sent(digests, placed))


_known: dict[int, tuple[Mark, bytes]] = {}
"""The digests of marks, by identity: most marks of a drawing are those of the one before."""
KNOWN = 60_000
"""So many are kept; the oldest fall away."""


def _mark_digest(mark: Mark) -> bytes:
    known = _known.get(id(mark))
    if known is not None and known[0] is mark:
        return known[1]
    digest = _digest(orjson.dumps(mark)).digest()
    if len(_known) >= KNOWN:
        for old in list(islice(_known, KNOWN // 4)):
            del _known[old]
    _known[id(mark)] = mark, digest
    return digest


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
