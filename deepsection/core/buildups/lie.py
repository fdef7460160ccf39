"""Where pieces lie: along a run in plan, from end to end, cut off at corners."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from shapely.affinity import translate
from shapely.geometry import Polygon

from ..geometry import Point, Solid, prism_along
from .pieces import Piece

LEAST = 0.5
"""What is no longer than this (mm) is no piece."""


@dataclass(frozen=True, slots=True)
class Trim:
    """An upright plane at which pieces end: what lies where normal . (x, y) > offset is kept."""

    normal: Point
    offset: float


@dataclass(frozen=True, slots=True)
class Lie:
    """A run in plan: where its u is 0 at its start, unit vector outward, length (mm). It goes to the right of outward.

    Pieces that reach higher than `over` stop at its `gaps`: at doors, and where walls run into it.

    `rafters`: the near faces of the rafters along it. `vaults`: from-to along it where the room within is vaulted.

    `dz`: how much higher all lies than at its site: where a foundation steps.

    `wall` and `roof`: planes at which pieces end that end with the wall, or with the boards of the roof; where the run
    ends at no corner it ends square.
    """

    start: Point
    out: Point
    length: float
    wall: tuple[Trim, ...] = ()
    roof: tuple[Trim, ...] = ()
    before: float = 0.0
    after: float = 0.0
    gaps: tuple[tuple[float, float], ...] = ()
    over: float = math.inf
    dz: float = 0.0
    vaults: tuple[tuple[float, float], ...] = ()
    rafters: tuple[float, ...] = ()

    @property
    def along(self) -> Point:
        """Unit vector along it."""
        return self.out[1], -self.out[0]

    def at(self, along: float) -> Point:
        """Plan point at a distance from its start."""
        (x, y), (dx, dy) = self.start, self.along
        return x + dx * along, y + dy * along

    def spans(self, piece: Piece) -> Iterator[tuple[float, float]]:
        """From-to along the run of each body of a piece."""
        if not piece.every:
            low, high = -piece.past[0], self.length + piece.past[1]
            if piece.ends != "run":
                low, high = low - self.before, high + self.after
            if piece.within == "vault":
                yield from ((max(first, low), min(last, high)) for first, last in self.vaults)
                return
            gaps = self.gaps if piece.shape.bounds[3] > self.over + LEAST else ()
            gaps = self.vaults if piece.within == "ceiling" else gaps
            for first, last in gaps:
                if first > low:
                    yield low, min(first, high)
                low = max(low, last)
            if high > low:
                yield low, high
            return
        if piece.at_rafters:
            yield from ((near + piece.first, near + piece.first + piece.wide) for near in self.rafters)
            return
        at, every = piece.first, piece.every
        room = self.length - 2 * piece.first - piece.wide
        if piece.even and room > 0:
            every = room / math.ceil(room / piece.every - 1e-9)
        while at + piece.wide <= self.length + LEAST:
            if piece.shape.bounds[3] <= self.over + LEAST or not self._open(at, at + piece.wide):
                yield at, at + piece.wide
            at += every

    def stops(self, piece: Piece, at: float) -> bool:
        """Whether a piece is interrupted at a distance along the run."""
        return piece.shape.bounds[3] > self.over + LEAST and self._open(at, at)

    def _open(self, low: float, high: float) -> bool:
        return any(first < high and last > low for first, last in self.gaps)

    def body(self, shape: Polygon, low: float, high: float, trims: tuple[Trim, ...]) -> Solid:
        """A shape from one distance along the run to another, within its ends."""
        shape = translate(shape, yoff=self.dz) if self.dz else shape
        solid = prism_along(shape, self.at(low), self.out, high - low)
        for trim in trims:
            solid = solid.beside(trim.normal, trim.offset)
        return solid
