"""Answers that carry what changed: of a drawing that the screen holds already, only the marks that are new."""

from __future__ import annotations

import dataclasses
from collections.abc import Sequence
from hashlib import blake2b
from typing import Any

import orjson

from deepsection.core.drawing import Drawing
from deepsection.core.memo import LruCache
from deepsection.core.model import Project

from .schemas import ViewWanted

Key = tuple[Project, str, float, float | None]
"""What a drawing was made of: the document, the name of the view, its scale, and the way it was turned."""

_sent: LruCache[Key, tuple[bytes, ...]] = LruCache(size=32)
"""The marks of drawings that were sent, each by its digest: the marks themselves would fill the memory."""

_placed: LruCache[Key, dict[str, tuple[float, float]]] = LruCache(size=32)
"""Where the lettering of drawings that were sent stands: how far from its own place (paper mm), by key."""

Step = tuple[int, int, int]
"""So many marks from a place of the drawing before, then so many new ones: (place, kept, new)."""


def answer(
    drawing: Drawing, project: Project, view: ViewWanted, base: Project | None, *, keep: bool = True
) -> dict[str, Any]:
    """A drawing ready to serialise: whole, or as steps from the one of `base` that the screen holds.

    What is sent is remembered, for the next answer to build on, unless it is but a preview (`keep` false).
    """
    marks = [orjson.dumps(mark) for mark in drawing.marks]
    digests = tuple(blake2b(mark, digest_size=16).digest() for mark in marks)
    names = (field.name for field in dataclasses.fields(drawing) if field.name not in ("marks", "sums"))
    content = {name: getattr(drawing, name) for name in names}
    before = _sent.get(_key(base, view)) if base is not None and view.have else None
    if keep:
        _sent.put(_key(project, view), digests)
        _placed.put(_key(project, view), {key: (dx, dy) for key, dx, dy in drawing.shifts})
    if before is None:
        return content | {"marks": [orjson.Fragment(mark) for mark in marks], "steps": None}
    steps, fresh = difference(before, digests)
    return content | {"marks": [orjson.Fragment(marks[place]) for place in fresh], "steps": steps}


def lettering_of(base: Project | None, view: ViewWanted) -> dict[str, tuple[float, float]] | None:
    """Where lettering stands in the drawing of `base` that the screen holds; None where that is not known."""
    return _placed.get(_key(base, view)) if base is not None else None


def _key(project: Project, view: ViewWanted) -> Key:
    return project, view.name, view.scale or project.scale, view.look_deg


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
