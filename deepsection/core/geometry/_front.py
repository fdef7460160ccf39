"""The front of a roof as it rises: its edges and corners, and the events at which they change."""

from __future__ import annotations

import heapq
from collections import defaultdict
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from functools import cmp_to_key, partial
from itertools import count
from typing import Literal, NamedTuple

from ..errors import GeometryError
from .exact import (
    START,
    Height,
    Motion,
    MovingLine,
    Place,
    ahead,
    cross,
    drifting,
    earlier,
    equal,
    length_along,
    meeting,
    place_along,
    same_way,
)

Node = tuple[Place, Height]
"""A place at a height."""


@dataclass(slots=True, eq=False)
class Piece:
    """A stretch of the front: of an edge, on its line, between two corners."""

    edge: int
    line: MovingLine
    tail: Corner = field(init=False, repr=False)
    head: Corner = field(init=False, repr=False)
    alive: bool = True


@dataclass(slots=True, eq=False)
class Corner:
    """Where a piece of the front ends and the next begins; `motion` is None where the two close on each other."""

    before: Piece
    after: Piece
    born: Node
    motion: Motion | None
    alive: bool = True
    last: tuple[Height, Place] | None = None

    def place(self, height: Height) -> Place:
        """Where it is; asked several times at one height."""
        if self.motion is None or equal(self.born[1], height):
            return self.born[0]
        if self.last is None or self.last[0] != height:
            self.last = height, self.motion.place(height)
        return self.last[1]


class Trace(NamedTuple):
    """What was traced between two edges; the edge on the left has it as a side from `start` to `end`.

    A seam lies between two edges of one plane. In a break, `right` is what `left` goes on as, and has the side.
    """

    left: int
    right: int
    start: Node
    end: Node
    kind: Literal["ridge", "hip", "valley", "rake", "break", "seam"]


class Event(NamedTuple):
    """What is expected at a height: a piece without length between two corners, or a corner that reaches a line.

    The first two tell their order as far as a float can.
    """

    key: float
    number: int
    height: Height
    what: Piece | Corner
    tail: Corner | None = None
    head: Corner | None = None
    line: MovingLine | None = None


class Turned(NamedTuple):
    """At a height, what is on a line goes on on another, and each edge under another number."""

    height: int
    line: MovingLine
    onto: MovingLine
    numbers: dict[int, int]


class Front:
    """The front at a height, and what was traced below it."""

    def __init__(self, rings: Iterable[list[tuple[int, MovingLine]]], turns: Iterable[Turned], edges: int) -> None:
        self.traces: list[Trace] = []
        self.base: list[tuple[int, Place, Place]] = []
        """What the faces of edges start from: edge, and the ends of it."""
        self.group = list(range(edges))
        """Edges in one plane that came to meet: each with one before it, as in a forest."""
        self._turns = sorted(turns, key=lambda turn: turn.height)
        self._events: list[Event] = []
        self._number = count()
        self._on: dict[MovingLine, list[Piece]] = defaultdict(list)
        """The pieces on each line."""
        self._height = START
        self._alive = 0
        self._outline = [self._ring(ring) for ring in rings]

    # --- the outline --------------------------------------------------------------------------------

    def _ring(self, sides: list[tuple[int, MovingLine]]) -> list[Piece]:
        """A ring of the outline; neighbours on one line that move alike are one piece."""
        first = next((k for k in range(len(sides)) if sides[k][1] is not sides[k - 1][1]), 0)
        pieces: list[Piece] = []
        for edge, line in (*sides[first:], *sides[:first]):
            if pieces and pieces[-1].line is line:
                self.join(pieces[-1].edge, edge)
                continue
            pieces.append(self._piece(edge, line))
        corners = []
        for k, piece in enumerate(pieces):
            before = pieces[k - 1]
            if not cross(before.line, piece.line):
                raise self._collinear(before, piece)
            motion = meeting(before.line, piece.line)
            corners.append(Corner(before, piece, (motion.place(START), START), motion))
        for corner in corners:
            corner.before.head = corner.after.tail = corner
        return pieces

    def corners(self) -> list[list[Place]]:
        """The corners of the outline, ring by ring."""
        return [[piece.tail.born[0] for piece in ring] for ring in self._outline]

    def _piece(self, edge: int, line: MovingLine) -> Piece:
        piece = Piece(edge, line)
        self._on[line].append(piece)
        self._alive += 1
        return piece

    def _end(self, piece: Piece) -> None:
        if piece.alive:
            piece.alive = False
            self._on[piece.line].remove(piece)
            self._alive -= 1

    def root(self, edge: int) -> int:
        """The first of the edges in one plane that an edge has come to meet."""
        while self.group[edge] != edge:
            edge = self.group[edge]
        return edge

    def join(self, first: int, second: int) -> None:
        """Two edges are of one plane."""
        low, high = sorted((self.root(first), self.root(second)))
        self.group[high] = low

    # --- rising -------------------------------------------------------------------------------------

    def rise(self) -> None:
        """Up to where nothing is left. Raises: GeometryError."""
        for ring in self._outline:
            for piece in ring:
                way = place_along(piece.line, piece.tail.born[0], piece.head.born[0])
                if way < 0:
                    raise GeometryError("the overhang is wider than a part of the outline: make it less")
                self.base.append((piece.edge, piece.tail.born[0], piece.head.born[0]))
                if way == 0:
                    self._expect(START, piece)
                self._watch(piece)
                self._look_out(piece.tail)
        while self._alive:
            self._step()

    def _step(self) -> None:
        events = self._next()
        turn = self._turns[0] if self._turns else None
        if turn and (not events or turn.height * events[0].height[1] < events[0].height[0]):
            for event in events:
                heapq.heappush(self._events, event)
            self._height = (turn.height, 1)
            turns = []
            while self._turns and self._turns[0].height == turn.height:
                turns.append(self._turns.pop(0))
            self._bend(turns)
            return
        if not events:
            raise GeometryError("these slopes never meet: give one more edge a pitch")
        self._height = events[0].height
        self._meet(self._touching(events))

    def _expect(self, height: Height, piece: Piece) -> None:
        event = Event(height[0] / height[1], next(self._number), height, piece, piece.tail, piece.head)
        heapq.heappush(self._events, event)

    def _next(self) -> list[Event]:
        """All events that come next, at one height, without those that have fallen away."""
        while self._events:
            first = heapq.heappop(self._events)
            if not _stands(first):
                continue
            found = [first]
            # Rounding keeps the order of fractions: those of one float are compared as they are.
            while self._events and self._events[0].key == first.key:
                event = heapq.heappop(self._events)
                if _stands(event):
                    found.append(event)
            low = first.height
            for event in found:
                if earlier(event.height, low):
                    low = event.height
            for event in found:
                if not equal(event.height, low):
                    heapq.heappush(self._events, event)
            return [event for event in found if equal(event.height, low)]
        return []

    def _watch(self, piece: Piece) -> None:
        """Expect a piece to run out of length, where it does."""
        tail, head = piece.tail, piece.head
        if tail.motion is None or head.motion is None:
            return
        length, rate = length_along(piece.line, tail.motion, head.motion)
        if rate < 0 and length * self._height[1] + rate * self._height[0] > 0:
            self._expect((length, -rate), piece)

    def _look_out(self, corner: Corner) -> None:
        """Expect a reflex corner to run into the lines before it."""
        if corner.motion is None or cross(corner.before.line, corner.after.line) > 0:
            return
        for line in self._on:
            self._run_into(corner, line)

    def _run_into(self, corner: Corner, line: MovingLine) -> None:
        if line is corner.before.line or line is corner.after.line or corner.motion is None:
            return
        gap, rate = ahead(line, corner.motion)
        if rate < 0 and gap * self._height[1] + rate * self._height[0] > 0:
            height = gap, -rate
            event = Event(gap / -rate, next(self._number), height, corner, line=line)
            heapq.heappush(self._events, event)

    # --- events -------------------------------------------------------------------------------------

    def _touching(self, events: Iterable[Event]) -> dict[Place, tuple[dict[Corner, None], list[Piece]]]:
        """The places in which the front touches itself: the corners there, and the pieces that pass there."""
        found: dict[Place, tuple[dict[Corner, None], list[Piece]]] = {}
        for event in events:
            if isinstance(event.what, Piece):
                corners, _ = found.setdefault(event.what.tail.place(self._height), ({}, []))
                corners.update({event.what.tail: None, event.what.head: None})
                continue
            place = event.what.place(self._height)
            for piece in self._on[event.line] if event.line else ():
                start, end = piece.tail.place(self._height), piece.head.place(self._height)
                after = place_along(piece.line, start, place)
                if after < 0 or (before := place_along(piece.line, place, end)) < 0:
                    continue
                corners, passing = found.setdefault(place, ({}, []))
                corners[event.what] = None
                if after == 0:
                    corners[piece.tail] = None
                if before == 0:
                    corners[piece.head] = None
                if after and before and piece not in passing:
                    passing.append(piece)
        for place, (corners, _) in found.items():
            waiting = list(corners)
            while waiting:
                corner = waiting.pop()
                for other in (corner.before.tail, corner.after.head):
                    if other not in corners and other.place(self._height) == place:
                        corners[other] = None
                        waiting.append(other)
        return found

    def _meet(self, touching: dict[Place, tuple[dict[Corner, None], list[Piece]]]) -> None:
        """The front as it goes on from the places in which it touches itself."""
        ends = self._parted(touching)
        made = []
        for place, (corners, _) in touching.items():
            ins = [corner.before for corner in corners if corner.before.tail not in corners]
            outs = [corner.after for corner in corners if corner.after.head not in corners]
            for corner in corners:
                self._trace(corner, place)
                if corner.after.head in corners:
                    self._end(corner.after)
            passed, passing = ends.get(place, ([], []))
            made += [self._corner(*pair, place) for pair in _sectors([*ins, *passed], [*outs, *passing], place)]
        self._settle(made)

    def _parted(
        self, touching: dict[Place, tuple[dict[Corner, None], list[Piece]]]
    ) -> dict[Place, tuple[list[Piece], list[Piece]]]:
        """Pieces that are run into, parted at the places in which they are: what ends, and what begins at each."""
        at: dict[Piece, list[Place]] = defaultdict(list)
        for place, (_, passing) in touching.items():
            for piece in passing:
                at[piece].append(place)
        ends: dict[Place, tuple[list[Piece], list[Piece]]] = defaultdict(lambda: ([], []))
        for piece, places in at.items():
            line = piece.line
            places.sort(key=cmp_to_key(partial(_behind, line)))
            last, head = piece, piece.head
            for place in places:
                rest = self._piece(piece.edge, line)
                rest.tail = Corner(last, rest, (place, self._height), None)
                ends[place][0].append(last)
                ends[place][1].append(rest)
                last = rest
            last.head, head.before = head, last
        return ends

    def _corner(self, before: Piece, after: Piece, place: Place) -> Corner:
        """A new corner between two pieces. Raises: GeometryError where two pitches come to meet on one line."""
        first, second = before.line, after.line
        if cross(first, second):
            motion: Motion | None = meeting(first, second)
        elif not same_way(first, second):
            motion = None
        elif first.s == second.s:
            motion = drifting(first, place, self._height)
        else:
            raise self._collinear(before, after)
        corner = Corner(before, after, (place, self._height), motion)
        before.head = after.tail = corner
        return corner

    def _collinear(self, before: Piece, after: Piece) -> GeometryError:
        first, second = sorted((before.edge, after.edge))
        return GeometryError(
            f"edges {first} and {second} come to lie on one line: two edges on one line need one pitch and one eave "
            "height, or a corner between them"
        )

    def _settle(self, made: list[Corner]) -> None:
        """New corners in the front: pieces of one line go on as one, what has closed is a ridge; what comes next."""
        for corner in made:
            if corner.before.line is corner.after.line:
                self._join_pieces(corner)
        for corner in made:
            if corner.alive and corner.motion is None:
                self._close(corner)
        touched = {piece for corner in made if corner.alive for piece in (corner.before, corner.after)}
        touched |= {corner.before for corner in made if corner.before.alive}
        for piece in sorted(touched, key=lambda piece: piece.edge):
            self._watch(piece)
        for corner in made:
            if corner.alive:
                self._look_out(corner)

    def _join_pieces(self, corner: Corner) -> None:
        before, after = corner.before, corner.after
        corner.alive = False
        before.head = after.head
        before.head.before = before
        self.join(before.edge, after.edge)
        self._end(after)

    def _close(self, corner: Corner) -> None:
        """Two pieces that lie on each other vanish in a ridge."""
        first, second = corner.before, corner.after
        far = second.head
        if far.motion is not None or far.after is not first:
            raise GeometryError("this outline could not be roofed: two edges close without an end")
        corner.alive = far.alive = False
        self.traces.append(Trace(first.edge, second.edge, corner.born, far.born, "ridge"))
        self._end(first)
        self._end(second)

    def _trace(self, corner: Corner, place: Place) -> None:
        corner.alive = False
        if corner.born[0] == place and equal(corner.born[1], self._height):
            return
        turn = cross(corner.before.line, corner.after.line)
        kind: Literal["valley", "hip", "rake", "seam"] = "valley" if turn < 0 else "hip" if turn else "seam"
        if corner.before.line.stands or corner.after.line.stands:
            kind = "rake"
        self.traces.append(Trace(corner.before.edge, corner.after.edge, corner.born, (place, self._height), kind))

    def _bend(self, turns: list[Turned]) -> None:
        """At a height, edges go on at other speeds, as edges of other numbers."""
        bent = [(turn, piece) for turn in turns for piece in self._on[turn.line]]
        ends = {corner: corner.place(self._height) for _, piece in bent for corner in (piece.tail, piece.head)}
        for corner, place in ends.items():
            self._trace(corner, place)
        for turn, piece in bent:
            number, start, end = turn.numbers[piece.edge], ends[piece.tail], ends[piece.head]
            self.traces.append(Trace(piece.edge, number, (start, self._height), (end, self._height), "break"))
            for edge, other in turn.numbers.items():
                if self.root(edge) == self.root(piece.edge):
                    self.join(number, other)
            self._on[turn.line].remove(piece)
            self._on[turn.onto].append(piece)
            piece.edge, piece.line = number, turn.onto
        fresh = [turn.onto for turn in turns if turn.onto in self._on]
        self._settle([self._corner(corner.before, corner.after, place) for corner, place in ends.items()])
        for corner in self._reflex():
            for line in fresh:
                self._run_into(corner, line)

    def _reflex(self) -> Iterator[Corner]:
        for piece in (piece for pieces in self._on.values() for piece in pieces):
            if cross(piece.tail.before.line, piece.line) <= 0:
                yield piece.tail


def _behind(line: MovingLine, first: Place, second: Place) -> int:
    """The order of places along a line."""
    return place_along(line, second, first)


def _stands(event: Event) -> bool:
    """Whether what was expected may still come: nothing that it speaks of has ended."""
    if isinstance(event.what, Corner):
        return event.what.alive
    piece = event.what
    return piece.alive and piece.tail is event.tail and piece.head is event.head


def _sectors(ins: list[Piece], outs: list[Piece], place: Place) -> Iterator[tuple[Piece, Piece]]:
    """Around a place, the sectors of the inside: the piece that ends there, and the one that begins.

    Counter-clockwise from a piece that begins, the inside lies to its left, up to one that ends. Two of one direction
    have nothing between them: what begins comes first.
    """
    rays = [(piece.line.dx, piece.line.dy, piece, True) for piece in outs]
    rays += [(-piece.line.dx, -piece.line.dy, piece, False) for piece in ins]
    rays.sort(key=cmp_to_key(_turning))
    for (_, _, piece, begins), (_, _, after, begins_after) in zip(rays, (*rays[1:], *rays[:1])):
        if begins == begins_after:
            raise GeometryError("this outline could not be roofed: its edges cross")
        if begins:
            yield after, piece


Ray = tuple[int, int, Piece, bool]


def _turning(first: Ray, second: Ray) -> int:
    """The order of rays counter-clockwise, from straight right."""
    half, other = _lower(first), _lower(second)
    if half != other:
        return half - other
    turn = first[0] * second[1] - first[1] * second[0]
    return -turn or second[3] - first[3]


def _lower(ray: Ray) -> int:
    """1 for directions from straight left on, counter-clockwise, to straight right; 0 for the others."""
    return int(ray[1] < 0 or (ray[1] == 0 and ray[0] < 0))
