"""Lettering that may stand in more than one place: what it says, where it may go, how much it matters."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any

import shapely
from shapely import affinity

from ..geometry import Point
from .marks import Mark, Text, moved

FIRM, FIRST, FIGURE, NUMBER, NAME, LESSER, LAST = range(7)
"""Ranks: the lower one stays where there is no room for both. What is firm was put there by the drafter, who also says
what stays first and goes last."""
HERE: Point = (0.0, 0.0)


@dataclass(frozen=True, slots=True, eq=False)
class Label:
    """Lettering as it stands at its first place, and the shifts (real mm) to the others, in order of preference.

    `key` names it, as an annotation does. It stays `within` an area where one is given, and is `never` on another: the
    name of a room not in the next one. Away from what it is `about`
    by more than `beside` (paper mm) it is led back to it by a line. `backed`: blank paper lies under it.
    """

    key: str
    marks: tuple[Mark, ...]
    places: Sequence[Point] = (HERE,)
    rank: int = NAME
    about: Any = None
    within: Any = None
    never: Any = None
    backed: bool = False
    beside: float = 2.2

    @property
    def texts(self) -> tuple[Text, ...]:
        """Its lines of text."""
        return tuple(mark for mark in self.marks if isinstance(mark, Text))

    @property
    def text(self) -> str:
        """What it says."""
        return " ".join(mark.text for mark in self.texts)

    def moved(self, dx: float, dy: float) -> Label:
        """It elsewhere (real mm), with what it is about."""
        about = None if self.about is None else affinity.translate(self.about, dx, dy)
        within = None if self.within is None else affinity.translate(self.within, dx, dy)
        never = None if self.never is None else affinity.translate(self.never, dx, dy)
        marks = tuple(moved(mark, dx, dy) for mark in self.marks)
        return replace(self, marks=marks, about=about, within=within, never=never)

    def reworded(self, text: str) -> Label:
        """It, with another first line."""
        first = self.texts[0]
        return replace(self, marks=tuple(replace(m, text=text) if m is first else m for m in self.marks))


Lettered = Mark | Label


def along(direction: Point, length: float, step: float, across: Sequence[float] = (0.0,)) -> tuple[Point, ...]:
    """Shifts along a line from its middle to its ends, by steps; then the same `across` it, for each in order."""
    size = math.hypot(*direction) or 1.0
    dx, dy = direction[0] / size, direction[1] / size
    many = int(length / 2 / step) if step else 0
    ways = [0.0, *(way * k * step for k in range(1, many + 1) for way in (1.0, -1.0))]
    return tuple((dx * a - dy * c, dy * a + dx * c) for c in across for a in ways)


@lru_cache(maxsize=4096)
def around(wide: float, tall: float, rings: int = 2) -> tuple[Point, ...]:
    """Shifts around a place, nearest first: by heights up and down, by widths to the sides."""
    found = [
        (i * wide, j * tall)
        for i in (0.0, -0.5, 0.5, *(way * k for k in range(1, rings + 1) for way in (1.0, -1.0)))
        for j in range(-2 * rings, 2 * rings + 1)
    ]
    return tuple(sorted(found, key=lambda shift: (round(math.hypot(*shift), 6), shift[1], shift[0])))


def inside(area: Any, home: Point, shares: Sequence[float] = (0.5, 0.35, 0.65, 0.2, 0.8)) -> tuple[Point, ...]:
    """Shifts from a home to it, to a point within an area, and over the box of that area."""
    return tuple((u - home[0], v - home[1]) for u, v in (home, *_points(area, shares)))


def _points(area: Any, shares: Sequence[float]) -> Iterator[Point]:
    inner = area.representative_point()
    yield inner.x, inner.y
    x0, y0, x1, y1 = shapely.bounds(area).tolist()
    yield from ((x0 + (x1 - x0) * a, y0 + (y1 - y0) * b) for b in shares for a in shares)
