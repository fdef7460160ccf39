"""Places lettering: none on another, none on a heavy line; what finds no place is left out by rank, and named.

Texts alone on their first place stay there; the others take the cheapest that is free, those of low rank and few places
first. One that finds none may send another to a place of its own. The same input gives the same page.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from types import MappingProxyType
from typing import Any, NamedTuple

import numpy as np
import shapely
from numpy.typing import NDArray

from .candidates import Candidate, candidates, lay_out, lead
from .extent import extent
from .labels import FIRM, HERE, Label, Lettered
from .marks import Dimension, Mark
from .obstacles import Obstacles

ORDER_COST, LED_COST, LONG_COST, OVER_COST = 0.2, 4.0, 0.15, 3.0
"""What it costs to stand one place later in the order of preference, at the end of a line, per mm of that, or wider
than its stretch."""
NO_RANKS: Mapping[str, int] = MappingProxyType({})


class PlacedMarks(NamedTuple):
    """Marks with all lettering at its place, the lettering last: as a drawing holds them."""

    marks: tuple[Mark, ...]
    bounds: tuple[float, float, float, float]
    """x0, y0, x1, y1 of them all."""
    left_out: tuple[tuple[str, str], ...] = ()
    """(key, text) of lettering for which there is no room."""
    shifts: tuple[tuple[str, float, float], ...] = ()
    """(key, right, up) of what stands away from its first place, paper mm."""


def place(
    marks: Iterable[Lettered],
    scale: float,
    ranks: Mapping[str, int] = NO_RANKS,
    held: Mapping[str, tuple[float, float]] | None = None,
) -> PlacedMarks:
    """Marks and labels with lettering where it reads; `ranks` are those that differ from the usual, by key.

    What is firm stays where it is. `held`: the shifts (paper mm) of a drawing before, by key, none for what stood at
    its first place: while something is dragged, what still can stays there.
    """
    kept: list[Mark] = []
    lettering: list[Label | Dimension] = []
    for mark in marks:
        if isinstance(mark, (Label, Dimension)):
            lettering.append(mark)
        else:
            kept.append(mark)
    if not lettering:
        return PlacedMarks(tuple(kept), extent(kept, scale))
    items, fixed = candidates(lettering, scale, ranks)
    obstacles = Obstacles([*kept, *fixed], scale)
    places = _Places(items, obstacles)
    places.settle(held)
    placed = list(zip(items, places.chosen))
    # Lines of strings first: the blank paper under words interrupts them.
    placed.sort(key=lambda held: isinstance(held[0].mark, Label))
    drawn = [mark for item, choice in placed for mark in item.drawn(choice)]
    left = tuple((item.key, item.text) for item, choice in placed if choice is None)
    shifts = tuple(stood for item, choice in placed if (stood := item.shift(choice)) is not None)
    return PlacedMarks((*kept, *drawn), extent(drawn, scale, obstacles.reached), left, shifts)


class _Places:
    """What stands where."""

    def __init__(self, items: Sequence[Candidate], obstacles: Obstacles) -> None:
        self._items, self._obstacles = items, obstacles
        self.chosen: list[int | None] = [None] * len(items)
        self._judged: dict[int, tuple[NDArray[np.bool_], NDArray[np.float64]]] = {}
        self._shapes = np.full(len(items), None, dtype=object)
        self._bounds = np.full((len(items), 4), np.nan)

    def settle(self, held: Mapping[str, tuple[float, float]] | None) -> None:
        """Choose a place for each, or none."""
        for k, item in enumerate(self._items):
            if item.rank == FIRM:
                self._put(k, 0)
        if held is not None:
            self._settle_held(held)
        self._settle_clear()
        waiting = [k for k, choice in enumerate(self.chosen) if choice is None]
        self._judge_all(waiting)
        waiting.sort(key=lambda k: (self._items[k].rank, int(self._judge(k)[0].sum()), k))
        for k in waiting:
            if not (self._take(k) or self._send_away(k) or self._lead_out(k)):
                self._put_out(k, waiting)

    def _settle_held(self, held: Mapping[str, tuple[float, float]]) -> None:
        """Those that can stay where they were, as long as nothing that stays is in their way."""
        named = [(k, item) for k, item in enumerate(self._items) if item.key and self.chosen[k] is None]
        known = [(k, choice) for k, item in named if (choice := item.nearest(held.get(item.key, HERE))) is not None]
        self._settle_at(known, np.array([self._items[k].box(choice) for k, choice in known], dtype=object))

    def _settle_clear(self) -> None:
        """Those whose first place is nobody's but theirs, and lies on nothing."""
        firsts = np.array([item.box(0) for item in self._items], dtype=object)
        over = np.array([item.is_over for item in self._items])
        alone = ~over
        a, b = shapely.STRtree(firsts).query(firsts, predicate="intersects")
        # A figure that is wider than its stretch gives way to one that is not.
        alone[a[(a != b) & ~over[b]]] = False
        clear = [k for k in np.flatnonzero(alone).tolist() if self.chosen[k] is None]
        self._settle_at([(k, 0) for k in clear], firsts[clear], on_nothing=True)

    def _settle_at(self, known: Sequence[tuple[int, int]], boxes: NDArray[Any], *, on_nothing: bool = False) -> None:
        """Those of some places that are free, one after the other."""
        if not known:
            return
        leaders = np.full(len(known), None, dtype=object)
        if not on_nothing:
            leaders[:] = [self._items[k].leader(choice) for k, choice in known]
        free, cost = self._obstacles.judge(boxes, backed=False)
        free &= ~self._obstacles.writes_on(leaders)
        if on_nothing:
            free &= cost == 0.0
        for n in np.flatnonzero(free).tolist():
            k, choice = known[n]
            if self._items[k].within(boxes[n : n + 1])[0] and not self._blockers(k, choice):
                self._put(k, choice)

    def _judge(self, k: int) -> tuple[NDArray[np.bool_], NDArray[np.float64]]:
        """(free of what is fixed, cost) of each place of an item."""
        if k not in self._judged:
            self._judge_all([k])
        return self._judged[k]

    def _judge_all(self, waiting: Sequence[int]) -> None:
        """Judge the places of many at once; lines back are made for those that are free."""
        lay_out([self._items[k] for k in waiting])
        for backed in (False, True):
            own = [k for k in waiting if self._items[k].is_backed == backed]
            if not own:
                continue
            items = [self._items[k] for k in own]
            ends = np.cumsum([len(item.variants) for item in items])[:-1]
            free, cost = self._obstacles.judge(np.concatenate([item.boxes for item in items]), backed=backed)
            for item, may in zip(items, np.split(free, ends)):
                may[may] = item.within(item.boxes[may])
            leaders = lead(items, free)
            free &= ~self._obstacles.writes_on(leaders)
            lengths = shapely.length(leaders) / items[0].scale
            cost += np.where(np.isnan(lengths), 0.0, LED_COST + LONG_COST * lengths)
            for k, item, may, costs in zip(own, items, np.split(free, ends), np.split(cost, ends)):
                costs = costs + np.arange(len(costs)) * ORDER_COST
                costs[0] += OVER_COST * item.is_over
                self._judged[k] = may, costs

    def _shape(self, k: int, choice: int) -> Any:
        box, leader = self._items[k].box(choice), self._items[k].leader(choice)
        return box if leader is None else shapely.geometrycollections([box, leader])

    def _put(self, k: int, choice: int) -> None:
        self.chosen[k] = choice
        self._shapes[k] = self._shape(k, choice)
        self._bounds[k] = shapely.bounds(self._shapes[k])

    def _blockers(self, k: int, choice: int) -> list[int]:
        """What stands where an item would."""
        shape = self._shape(k, choice)
        x0, y0, x1, y1 = shapely.bounds(shape)
        held = self._bounds
        near = np.flatnonzero((held[:, 0] < x1) & (held[:, 2] > x0) & (held[:, 1] < y1) & (held[:, 3] > y0))
        near = near[near != k]
        return [int(j) for j in near[shapely.intersects(self._shapes[near], shape)]] if len(near) else []

    def _by_cost(self, k: int) -> Iterator[int]:
        free, cost = self._judge(k)
        return (int(choice) for choice in np.argsort(cost, kind="stable") if free[choice])

    def _take(self, k: int) -> bool:
        """The cheapest free place, if there is one."""
        for choice in self._by_cost(k):
            if not self._blockers(k, choice):
                self._put(k, choice)
                return True
        return False

    def _send_away(self, k: int) -> bool:
        """A place from which one other can go elsewhere."""
        for choice, other in self._held_by_one(k):
            before = self.chosen[other]
            self._put(k, choice)
            if self._take(other):
                return True
            assert before is not None
            self._put(other, before)
            self._remove(k)
        return False

    def _put_out(self, k: int, waiting: list[int]) -> None:
        """The place of one that matters less, which waits again."""
        for choice, other in self._held_by_one(k):
            if self._items[other].rank > self._items[k].rank:
                self._remove(other)
                self._put(k, choice)
                waiting.append(other)
                return

    def _held_by_one(self, k: int) -> Iterator[tuple[int, int]]:
        """Places where one other stands that may move, with that."""
        for choice in self._by_cost(k):
            blockers = self._blockers(k, choice)
            if len(blockers) == 1 and self._items[blockers[0]].rank != FIRM:
                yield choice, blockers[0]

    def _lead_out(self, k: int) -> bool:
        """A place farther off, at the end of a line."""
        if not self._items[k].widen():
            return False
        self._judged.pop(k, None)
        return self._take(k)

    def _remove(self, k: int) -> None:
        self.chosen[k] = None
        self._shapes[k] = None
        self._bounds[k] = np.nan
