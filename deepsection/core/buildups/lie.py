"""Where pieces lie: along a run in plan, from end to end, cut off at corners."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from shapely.affinity import affine_transform, translate
from shapely.geometry import Polygon

from ..geometry import LevelFrame, Point, Solid, prism, prism_along, rising
from .pieces import Piece

LEAST = 0.5
"""What is no longer than this (mm) is no piece."""


@dataclass(frozen=True, slots=True)
class Trim:
    """An upright plane at which pieces end: what lies where normal . (x, y) > offset is kept."""

    normal: Point
    offset: float


Point3 = tuple[float, float, float]


@dataclass(frozen=True, slots=True)
class Lie:
    """A run in plan: where its u is 0 at its start, unit vector outward, length (mm). It goes to the right of outward.

    Pieces that reach higher than `over` stop at its `gaps`: at doors, and where walls run into it.

    Pieces that lie farther outward than `beyond` stop where it is `sheltered`: no weather is there.

    `rafters`: the near faces of the rafters along it. `vaults`: from-to along it where the room within is vaulted.

    `dz`: how much higher all lies at its start than at its site: where a foundation steps; from there on it rises by
    `rise` for each mm along.

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
    rise: float = 0.0
    vaults: tuple[tuple[float, float], ...] = ()
    rafters: tuple[float, ...] = ()
    sheltered: tuple[tuple[float, float], ...] = ()
    beyond: float = math.inf

    @property
    def along(self) -> Point:
        """Unit vector along it."""
        return self.out[1], -self.out[0]

    @property
    def axis(self) -> Point3:
        """The same in space."""
        return self.out[1], -self.out[0], 0.0

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
            if self._is_outside(piece):
                gaps = tuple(sorted((*gaps, *self.sheltered)))
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
        hidden = self.sheltered if self._is_outside(piece) else ()
        while at + piece.wide <= self.length + LEAST:
            free = piece.shape.bounds[3] <= self.over + LEAST or not self._open(at, at + piece.wide)
            if free and not any(first < at + piece.wide and last > at for first, last in hidden):
                yield at, at + piece.wide
            at += every

    def stops(self, piece: Piece, at: float) -> bool:
        """Whether a piece is interrupted at a distance along the run."""
        return piece.shape.bounds[3] > self.over + LEAST and self._open(at, at)

    def _is_outside(self, piece: Piece) -> bool:
        return bool(piece.shape.bounds[0] > self.beyond)

    def _open(self, low: float, high: float) -> bool:
        return any(first < high and last > low for first, last in self.gaps)

    def body(self, shape: Polygon, low: float, high: float, trims: tuple[Trim, ...]) -> Solid:
        """A shape from one distance along the run to another, within its ends."""
        shape = translate(shape, yoff=self.dz) if self.dz else shape
        solid = prism_along(shape, self.at(low), self.out, high - low)
        if self.rise:
            solid = rising(solid, self.start, self.along, self.rise)
        for trim in trims:
            solid = solid.beside(trim.normal, trim.offset)
        return solid


@dataclass(frozen=True, slots=True)
class UprightLie:
    """An upright run, from a height to another (mm): in plan u goes outward of its wall, and what is v of pieces that
    lie level goes `away` from what they are around, unit vectors both; both are 0 at its `start`.
    """

    start: Point
    out: Point
    away: Point
    low: float
    high: float
    wall: tuple[Trim, ...] = ()
    roof: tuple[Trim, ...] = ()

    @property
    def axis(self) -> Point3:
        """Unit vector along it in space."""
        return 0.0, 0.0, 1.0

    @property
    def length(self) -> float:
        """How high it is (mm)."""
        return self.high - self.low

    def spans(self, piece: Piece) -> Iterator[tuple[float, float]]:
        """From-to up the run of each body of a piece."""
        if not piece.every:
            low, high = -piece.past[0], self.length + piece.past[1]
            if high > low:
                yield low, high
            return
        at = piece.first
        while at + piece.wide <= self.length + LEAST:
            yield at, at + piece.wide
            at += piece.every

    def in_plan(self, shape: Polygon) -> Polygon:
        """A shape of a piece in plan."""
        (x, y), (ox, oy), (ax, ay) = self.start, self.out, self.away
        return affine_transform(shape, [ox, ax, oy, ay, x, y])

    def body(self, shape: Polygon, low: float, high: float, trims: tuple[Trim, ...]) -> Solid:
        """A shape from one height over its foot to another."""
        return prism(self.in_plan(shape), self.low + low, self.low + high)

    def shows(self, piece: Piece, frame: LevelFrame) -> Polygon | None:
        """What a fixing looks like in a level plane, wherever along the run it stands; None past the ends of that."""
        return frame.turn(self.in_plan(piece.shape)) if self.low <= frame.z <= self.high else None


AnyLie = Lie | UprightLie
"""Where pieces lie, whatever way their junction runs."""
