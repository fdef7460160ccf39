"""Where each piece of lettering may stand: its boxes on a drawing in order of preference, some at the end of a line."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray

from .advances import text_width
from .explode import FIGURE_SIZE, exploded, figure_axes, figure_of, foot_of, middle_of, nearest_on
from .ink import joint_corners, polygons, text_corners
from .labels import FIGURE, FIRM, Label
from .marks import Dimension, Mark, Region, Stroke, moved, path

ROW = 3.3
"""From one row of figures over a line of dimensions to the next (paper mm)."""
NUDGE = 1.5
"""How far a figure that is wider than its stretch stands aside, over it, where the next one begins (paper mm)."""
UNDER = -(FIGURE_SIZE + 2.2)
"""How a figure under its line is raised (paper mm)."""
SAME_PLACE = 0.5
"""A place as near as this (paper mm) to one of a drawing before is that."""
GAP = 0.9
"""Paper mm between a figure and the end of the stretch that it stands beside."""


@dataclass(slots=True, eq=False)
class Candidate:
    """One piece of lettering: where it may stand."""

    mark: Label | Dimension
    key: str
    text: str
    rank: int
    variants: Sequence[Any]
    """Of a label its shifts, of a dimension (aside, raised, led)."""
    home: NDArray[np.float64]
    """(4, 2) corners of its box at the first of them."""
    scale: float
    first: Any = None
    """Its box at the first of them."""
    _boxes: NDArray[Any] | None = field(default=None)
    _leaders: dict[int, Any] = field(default_factory=dict)

    @property
    def boxes(self) -> NDArray[Any]:
        """(n,) boxes, per variant."""
        if self._boxes is None:
            self._boxes = polygons(self.home + self._shifts()[:, None, :])
        return self._boxes

    def _shifts(self) -> NDArray[np.float64]:
        if isinstance(self.mark, Label):
            return np.array(self.variants, dtype=np.float64).reshape(-1, 2)
        along, up, _ = figure_axes(self.mark)
        offsets = np.array([(aside, raised) for aside, raised, _ in self.variants])
        return np.asarray(offsets @ np.array([along, up]) * self.scale)

    def box(self, choice: int) -> Any:
        """The box at one place; the first without making the others."""
        return self.first if choice == 0 else self.boxes[choice]

    def leader(self, choice: int) -> Any:
        """The line that leads back from one place; the others are not made for it."""
        if choice in self._leaders:
            return self._leaders[choice]
        return self._leaders_at((choice,), np.array([self.box(choice)], dtype=object))[0]

    def _leaders_at(self, choices: Sequence[int], boxes: NDArray[Any]) -> NDArray[Any]:
        found = np.full(len(choices), None, dtype=object)
        if isinstance(self.mark, Label):
            return found if self.mark.about is None else _lines_back(boxes, [self] * len(boxes))
        led = [n for n, choice in enumerate(choices) if self.variants[choice][2]]
        if led:
            to = np.array(middle_of(self.mark, self.scale))
            shifts = self._shifts()[[choices[n] for n in led]]
            start, end = np.array(foot_of(figure_of(self.mark, self.scale), self.scale))
            at = nearest_on(start + shifts, end - start, to)
            found[led] = shapely.linestrings(np.stack([np.broadcast_to(to, at.shape), at], axis=1))
        return found

    @property
    def is_backed(self) -> bool:
        """Whether blank paper lies under it."""
        return isinstance(self.mark, Label) and self.mark.backed

    @property
    def is_over(self) -> bool:
        """Whether it is a figure that is wider than its stretch."""
        if not isinstance(self.mark, Dimension):
            return False
        length = math.hypot(self.mark.x2 - self.mark.x1, self.mark.y2 - self.mark.y1) / self.scale
        return text_width(self.mark.text, FIGURE_SIZE) + 2 * GAP > length

    def within(self, boxes: Any) -> Any:
        """Whether boxes lie where it has to stay."""
        allowed = np.ones(len(boxes), dtype=bool)
        if isinstance(self.mark, Label):
            if self.mark.within is not None:
                shapely.prepare(self.mark.within)
                allowed &= shapely.covers(self.mark.within, boxes)
            if self.mark.never is not None:
                shapely.prepare(self.mark.never)
                allowed &= ~shapely.intersects(self.mark.never, boxes)
        return allowed

    def nearest(self, shift: tuple[float, float]) -> int | None:
        """The place that stands so far from the first (paper mm); none where there is none."""
        away = np.hypot(*(self._shifts() / self.scale - shift).T)
        found = int(np.argmin(away))
        return found if away[found] < SAME_PLACE else None

    def widen(self) -> bool:
        """Add places farther off, at the ends of lines; whether there are such."""
        stays = isinstance(self.mark, Label) and (self.mark.about is None or self.mark.within is not None)
        if stays or self.rank == FIRM:
            return False
        far = far_figures(self.mark) if isinstance(self.mark, Dimension) else far_places(self.home, self.scale)
        self.variants, self._boxes, self._leaders = (*self.variants, *far), None, {}
        return True

    def shift(self, choice: int | None) -> tuple[str, float, float] | None:
        """How far from its first place it stands, with its key; none where it stands there."""
        if not choice:
            return None
        first, held = shapely.get_coordinates(shapely.centroid(self.boxes[[0, choice]])).tolist()
        return self.key, (held[0] - first[0]) / self.scale, (held[1] - first[1]) / self.scale

    def drawn(self, choice: int | None) -> Iterator[Mark]:
        """Its marks at one of its places; of a dimension without place, its lines."""
        if isinstance(self.mark, Dimension):
            yield replace(self.mark, text="") if choice is None else _varied(self.mark, self.variants[choice])
        elif choice is not None:
            leader, held = self.leader(choice), self.mark.texts[0]
            if leader is not None:
                yield Stroke(path(*leader.coords), "note", part=held.part, feature="leader", annotation=self.key)
            if self.mark.backed:
                ring = path(*shapely.get_coordinates(self.box(choice))[:4].tolist())
                yield Region((ring,), fill="paper", part=held.part, feature=held.feature, annotation=self.key)
            for mark in self.mark.marks:
                yield replace(moved(mark, *self.variants[choice]), annotation=self.key)


def candidates(
    marks: Iterable[Label | Dimension], scale: float, ranks: Mapping[str, int]
) -> tuple[list[Candidate], list[Mark]]:
    """Pieces of lettering, and what stays whatever becomes of them: the lines of dimensions. `ranks` are those that
    differ from the usual, by key."""
    items = [candidate(mark, scale, ranks) for mark in marks]
    for item, box in zip(items, polygons([item.home for item in items])):
        item.first = box
    led = [item for item in items if isinstance(item.mark, Label) and item.mark.about is not None]
    if led:
        for item, line in zip(led, _lines_back(np.array([item.first for item in led], dtype=object), led)):
            item._leaders[0] = line
    return items, [mark for item in items if isinstance(item.mark, Dimension) for mark in item.drawn(None)]


def lay_out(items: Sequence[Candidate]) -> None:
    """Make the boxes of many at once."""
    items = [item for item in items if item._boxes is None]
    if not items:
        return
    many = np.array([len(item.variants) for item in items])
    boxes = polygons(np.concatenate([item.home + item._shifts()[:, None, :] for item in items]))
    for item, own in zip(items, np.split(boxes, np.cumsum(many)[:-1])):
        item._boxes = own


def lead(items: Sequence[Candidate], wanted: NDArray[np.bool_]) -> NDArray[Any]:
    """The lines that lead back from the places of many, in a row; None where there is none, or it is not `wanted`."""
    found = np.full(len(wanted), None, dtype=object)
    labels: list[tuple[Candidate, int, int]] = []
    start = 0
    for item in items:
        choices = np.flatnonzero(wanted[start : start + len(item.variants)]).tolist()
        if isinstance(item.mark, Dimension):
            found[[start + choice for choice in choices]] = item._leaders_at(choices, item.boxes[choices])
        elif item.mark.about is not None:
            labels += [(item, choice, start + choice) for choice in choices]
        start += len(item.variants)
    if labels:
        boxes = np.array([item.boxes[choice] for item, choice, _ in labels], dtype=object)
        found[[at for _, _, at in labels]] = _lines_back(boxes, [item for item, _, _ in labels])
    start = 0
    for item in items:
        own = np.flatnonzero(wanted[start : start + len(item.variants)]).tolist()
        item._leaders = {choice: found[start + choice] for choice in own}
        start += len(item.variants)
    return found


def _lines_back(boxes: NDArray[Any], items: Sequence[Candidate]) -> NDArray[Any]:
    """The lines from boxes of labels to what each is about, where it stands away from that; else None."""
    labels = [item.mark for item in items if isinstance(item.mark, Label)]
    about = np.array([label.about for label in labels], dtype=object)
    beside = np.array([label.beside for label in labels]) * items[0].scale
    far = np.flatnonzero(~shapely.dwithin(boxes, about, beside))
    to = about[far]
    areas = shapely.get_type_id(to) == shapely.GeometryType.POLYGON
    to[areas] = shapely.boundary(to[areas])
    found = np.full(len(boxes), None, dtype=object)
    found[far] = shapely.shortest_line(boxes[far], to)
    return found


def _varied(mark: Dimension, variant: tuple[float, float, bool]) -> Dimension:
    aside, raised, led = variant
    return replace(mark, aside=mark.aside + aside, raised=mark.raised + raised, led=led)


def candidate(mark: Label | Dimension, scale: float, ranks: Mapping[str, int]) -> Candidate:
    """A piece of lettering; `ranks` are those that differ from the usual, by key. What is firm has one place."""
    if isinstance(mark, Dimension):
        key = mark.annotation or ""
        rank = ranks.get(key, FIGURE)
        variants = ((0.0, 0.0, False),) if rank == FIRM else figure_places(mark, scale)
        return Candidate(mark, key, mark.text, rank, variants, text_corners(figure_of(mark, scale), scale), scale)
    rank = ranks.get(mark.key, mark.rank)
    places = mark.places[:1] if rank == FIRM else mark.places
    return Candidate(mark, mark.key, mark.text, rank, places, _label_corners(mark, scale), scale)


def _label_corners(mark: Label, scale: float) -> NDArray[np.float64]:
    """(4, 2) corners of the box around all of a label; that of its texts, or of what is drawn around them."""
    more = [held for held in exploded(mark.marks, scale) if isinstance(held, (Region, Stroke))]
    return joint_corners(mark.texts, scale, also=[(x, y) for held in more for x, y, _ in _round(held)])


def _round(mark: Region | Stroke) -> list[tuple[float, float, float]]:
    """The vertices of an outline; of a circle of two arcs, the corners of its box."""
    ring = mark.rings[0] if isinstance(mark, Region) else mark.path
    if len(ring) == 2 and abs(ring[0][2]) == 1.0:
        (x0, y0, _), (x1, _, _) = ring
        radius = abs(x1 - x0) / 2
        return [(x0, y0 - radius, 0.0), (x1, y0 + radius, 0.0)]
    return list(ring)


def figure_places(mark: Dimension, scale: float) -> tuple[tuple[float, float, bool], ...]:
    """(aside, raised, led) of the places that a figure may take, paper mm: in its stretch; over it; under it; farther
    over it and past its ends, led back."""
    length = math.hypot(mark.x2 - mark.x1, mark.y2 - mark.y1) / scale
    wide = text_width(mark.text, FIGURE_SIZE)
    slide = (length - wide) / 2 - GAP
    within = [(way * share * slide, 0.0, False) for share in (0.5, 1.0) for way in (-1, 1)] if slide > 1.0 else []
    past = (length + wide) / 2 + GAP + 1.0
    beside = [(way * past, rise, True) for rise in (0.0, ROW, UNDER, 2 * ROW) for way in (1, -1)]
    farther = [(way * (past + wide + 2.0), rise, True) for rise in (ROW, 2 * ROW, UNDER - ROW) for way in (1, -1)]
    return (
        (0.0, 0.0, False),
        *within,
        (0.0, ROW, False),
        *((way * NUDGE, ROW, False) for way in (-1, 1) if slide < 0.0),
        (0.0, UNDER, False),
        (0.0, 2 * ROW, True),
        *beside,
        (0.0, UNDER - ROW, True),
        *farther,
    )


FAR = (9.0, 15.0, 23.0, 33.0)
"""How far off lettering is led out (paper mm)."""
WAYS = 12
"""In so many directions."""


def far_places(home: NDArray[np.float64], scale: float) -> tuple[tuple[float, float], ...]:
    """Shifts of a box to all sides of where it would stand, the near ones first."""
    wide, tall = (np.ptp(home, axis=0) / 2).tolist()
    turns = [2 * math.pi * k / WAYS for k in range(WAYS)]
    return tuple(
        (math.cos(turn) * (far * scale + wide), math.sin(turn) * (far * scale + tall)) for far in FAR for turn in turns
    )


def far_figures(mark: Dimension) -> tuple[tuple[float, float, bool], ...]:
    """(aside, raised, led) of places farther off for a figure, paper mm."""
    wide = text_width(mark.text, FIGURE_SIZE)
    rows = [way * k * ROW for k in (3, 4, 6, 8) for way in (1, -1)]
    return tuple((way * wide * k, row, True) for row in rows for k in (0.0, 0.8, 1.6) for way in (1, -1))
