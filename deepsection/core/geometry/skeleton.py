"""The weighted straight skeleton: what sloping planes over the edges of an outline meet in.

Every edge of a polygon (holes allowed) moves inward at a speed of its own, plan run per rise; 0 is a gable, which
stands. The front that they form shrinks with height. An edge that runs out of length is dropped, a reflex corner that
runs into an edge parts the front, or joins two rings of it. What the corners trace are hips and valleys; where two
edges close on each other is a ridge.

Nothing is compared within a tolerance. Corners of the outline are snapped to a grid; from there on lines, corners and
the heights of events are whole numbers and fractions (`exact`). All events of one height are taken together: around
each place that the front touches itself in, its edges are sorted by direction, and every sector of the inside between
two of them is a corner of the new front. The face of an edge is the sum of the arcs along it, so it closes by
construction.

Source: Aichholzer, Aurenhammer, Alberts, Gaertner: A novel type of skeleton for polygons (1995), and Eppstein and
Erickson: Raising roofs, crashing cycles, and playing pool (1999), for the front and its events (from memory).
"""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Hashable, Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction

from ..errors import GeometryError
from ._aligned import Straight, aligned
from ._front import Front, Node, Trace, Turned
from ._planes import Kind, Planes, SkeletonFace, apart
from .exact import Grid, MovingLine, Place, grid_for, speed_along
from .plane import Line, Point

Point3 = tuple[float, float, float]


@dataclass(frozen=True, slots=True)
class Arc:
    """A line in which the planes over two edges meet, from its lower end to its upper one.

    In a break, an edge takes another slope: `left` is the edge, `right` the number of what it goes on as.
    """

    left: int
    right: int
    start: Point3
    end: Point3
    kind: Kind

    @property
    def length(self) -> float:
        """True length."""
        return math.dist(self.start, self.end)


@dataclass(frozen=True, slots=True)
class Break:
    """At a height, an edge goes on at another speed: a gambrel, a half hip over a gable, a gable over a hip."""

    edge: int
    at: float
    speed: float


@dataclass(frozen=True, slots=True)
class Skeleton:
    """The outline that the front started from, the lines that were traced, and the faces that they enclose.

    `lines`: per edge, the line of the outline that its slope is measured from. Edges that stand have no face.
    """

    start: tuple[tuple[Point, ...], ...]
    lines: tuple[Line, ...]
    arcs: tuple[Arc, ...]
    faces: tuple[SkeletonFace, ...]


def skeleton(
    rings: Sequence[Sequence[Point]],
    speeds: Sequence[float],
    breaks: Sequence[Break] = (),
    *,
    outward: Sequence[float] = (),
    grid: Grid | None = None,
) -> Skeleton:
    """The lines in which planes over the edges of an outline meet, lowest first, and what they enclose.

    `rings`: the outline counter-clockwise, holes clockwise, without closing points. `speeds`: per edge, in the order of
    the rings, the plan run for a rise of 1; 0 for a gable. `outward`: per edge, how far outside of the outline it
    starts. Edges are numbered in that order; z is the rise above the start. An edge goes on past a break as an edge of
    its own number, counted on from the others in the order of `breaks`. Raises: GeometryError for an outline or slopes
    that cannot be roofed.
    """
    edges = sum(len(ring) for ring in rings)
    if len(speeds) != edges:
        raise GeometryError("a pitch is wanted for each edge")
    if min(speeds) < 0 or not any(speeds):
        raise GeometryError("at least one edge needs a pitch")
    grid = grid or grid_for([point for ring in rings for point in ring])
    lines = _Lines(grid, speeds, breaks)
    straight = aligned([[grid.snapped(point) for point in ring] for ring in rings], grid.step)
    sides: list[list[tuple[int, MovingLine]]] = []
    for ring in rings:
        first = sum(len(held) for held in sides)
        numbers = range(first, first + len(ring))
        sides.append([(k, lines.of(k, straight[k], outward[k] if outward else 0.0)) for k in numbers])
    front = Front(sides, lines.turns(), edges + len(breaks))
    start = tuple(tuple(grid.point(place) for place in ring) for ring in front.corners())
    front.rise()
    planes = Planes(front, lines.by_edge, grid)
    arcs = _arcs(front.traces, planes, grid)
    return Skeleton(start, tuple(grid.line(*line) for line in straight), tuple(arcs), tuple(planes.faces()))


class _Lines:
    """The lines of edges: those that lie on one line and move alike are one."""

    def __init__(self, grid: Grid, speeds: Sequence[float], breaks: Sequence[Break]) -> None:
        self._grid, self._speeds = grid, speeds
        self._breaks = {held.edge: (round(held.at / grid.step), held.speed) for held in breaks}
        self._numbers = {held.edge: len(speeds) + k for k, held in enumerate(breaks)}
        self._known: dict[Hashable, MovingLine] = {}
        self._turns: dict[MovingLine, Turned] = {}
        self.by_edge: dict[int, MovingLine] = {}

    def of(self, edge: int, straight: Straight, outward: float) -> MovingLine:
        """The line of an edge."""
        dx, dy, c = straight
        out = speed_along(dx, dy, Fraction(abs(outward)) / Fraction(self._grid.step))
        c -= out if outward > 0 else -out
        s = speed_along(dx, dy, Fraction(self._speeds[edge]))
        turn = self._breaks.get(edge)
        line = self._known.setdefault((dx, dy, c, s, turn), MovingLine(dx, dy, c, s))
        self.by_edge[edge] = line
        if turn:
            height, speed = turn
            after = speed_along(dx, dy, Fraction(speed))
            onto = MovingLine(dx, dy, c + (s - after) * height, after)
            held = self._turns.setdefault(line, Turned(height, line, onto, {}))
            held.numbers[edge] = self._numbers[edge]
            self.by_edge[self._numbers[edge]] = held.onto
        return line

    def turns(self) -> list[Turned]:
        """What turns at which height."""
        return list(self._turns.values())


def _arcs(traces: Sequence[Trace], planes: Planes, grid: Grid) -> Iterator[Arc]:
    """Traces between two planes; those that run on between the same two are one line, the shortest are none."""
    found: dict[tuple[int, int, Kind], list[tuple[Node, Node, Trace]]] = defaultdict(list)
    for trace in traces:
        left, right = planes.root(trace.left), planes.root(trace.right)
        if left == right:
            continue
        kind = planes.kind(trace)
        pair = (left, right) if left < right or kind == "break" else (right, left)
        found[(*pair, kind)].append((trace.start, trace.end, trace))
    for (_, _, kind), pieces in found.items():
        for start, end, trace in _run_on(pieces):
            if apart(start[0], end[0]) <= planes.same:
                continue
            ends = [(*grid.point(place), grid.height(height)) for place, height in (start, end)]
            low, high = ends if kind == "break" else sorted(ends, key=lambda point: point[2])
            yield Arc(trace.left, trace.right, low, high, kind)


def _run_on(pieces: list[tuple[Node, Node, Trace]]) -> Iterator[tuple[Node, Node, Trace]]:
    """Pieces of lines in one direction, from where each begins to where no other goes on."""
    beginning: dict[Place, list[int]] = defaultdict(list)
    for k, (start, end, _) in enumerate(pieces):
        beginning[start[0]].append(k)
        beginning[end[0]].append(k)
    used: set[int] = set()

    def onward(node: Node) -> Node:
        while True:
            following = [k for k in beginning[node[0]] if k not in used]
            if len(following) != 1:
                return node
            used.add(following[0])
            start, end, _ = pieces[following[0]]
            node = end if start[0] == node[0] else start

    for k, (start, end, trace) in enumerate(pieces):
        if k not in used:
            used.add(k)
            yield onward(start), onward(end), trace
