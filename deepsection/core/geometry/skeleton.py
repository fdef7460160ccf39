"""The weighted straight skeleton: what sloping planes over the edges of an outline meet in.

Every edge of a polygon (holes allowed) moves inward at a speed of its own, plan run per rise; 0 is a gable, which
stands. The front that they form shrinks with height. An edge that runs out of length is dropped, a reflex corner that
runs into an edge parts the front, or joins two rings of it. What the corners trace are hips and valleys; where two
edges close on each other is a ridge.

Source: Aichholzer, Aurenhammer, Alberts, Gaertner: A novel type of skeleton for polygons (1995), and Eppstein and
Erickson: Raising roofs, crashing cycles, and playing pool (1999), for the front and its events (from memory). Heights
of corners are solved from the lines of their two edges, never summed up.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ..errors import GeometryError
from .plane import Point

Point3 = tuple[float, float, float]
Kind = Literal["ridge", "hip", "valley", "rake", "seam", "break"]

CLOSE = 1e-7
"""Places closer than this share of the size of the outline are one; an edge shorter than this has no length."""
PARALLEL = 1e-10
"""Cross product of unit vectors below which two edges are parallel."""


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


@dataclass(slots=True, eq=False)
class _Node:
    """A piece of the front: of an edge, starting at `pos`, where it meets the piece before it."""

    edge: int
    pos: tuple[float, float]
    born: float = 0.0
    prev: _Node = field(init=False, repr=False)
    next: _Node = field(init=False, repr=False)


@dataclass(frozen=True, slots=True)
class Break:
    """At a height, an edge goes on at another speed: a gambrel, a half hip over a gable, a gable over a hip."""

    edge: int
    at: float
    speed: float


class _Front:
    """The front at a height, and what was traced below it."""

    def __init__(self, rings: Sequence[Sequence[Point]], speeds: Sequence[float], breaks: Sequence[Break]) -> None:
        points = [(float(x), float(y)) for ring in rings for x, y in ring]
        ends = [(float(x), float(y)) for ring in rings for x, y in (*ring[1:], ring[0])]
        start, end = np.array(points), np.array(ends)
        along = end - start
        length = np.hypot(along[:, 0], along[:, 1])
        self.size = float(np.ptp(start, axis=0).max())
        self.eps = self.size * CLOSE
        if (length < self.eps * 10).any():
            raise GeometryError("two corners of the outline lie on one point")
        self.dirs: NDArray[np.float64] = along / length[:, None]
        self.normals = np.column_stack((-self.dirs[:, 1], self.dirs[:, 0]))
        self.offsets = (self.normals * start).sum(axis=1)
        self.speeds = np.array(speeds, dtype=float)
        self.t = 0.0
        first = len(points)
        self.breaks = sorted((held.at, held.edge, held.speed, first + k) for k, held in enumerate(breaks))
        self.arcs: list[Arc] = []
        self.nodes: list[_Node] = []
        at = 0
        for ring in rings:
            held = [_Node(at + k, points[at + k]) for k in range(len(ring))]
            for node, after in zip(held, (*held[1:], held[0])):
                node.next, after.prev = after, node
            self.nodes += held
            at += len(ring)

    # --- where corners lie ----------------------------------------------------------------------

    def velocity(self, node: _Node) -> tuple[float, float]:
        """How the corner at the start of a piece moves per rise."""
        i, j = node.prev.edge, node.edge
        (ax, ay), (bx, by) = self.normals[i], self.normals[j]
        cross = ax * by - ay * bx
        wi, wj = self.speeds[i], self.speeds[j]
        if abs(cross) > PARALLEL:
            return float((wi * by - wj * ay) / cross), float((wj * ax - wi * bx) / cross)
        if ax * bx + ay * by > 0:
            if abs(wi - wj) > 1e-12:
                raise GeometryError("two edges on one line need one pitch, or a corner between them")
            return float(ax * wi), float(ay * wi)
        return 0.0, 0.0

    def placed(self, node: _Node, t: float) -> tuple[float, float]:
        """Where the corner at the start of a piece lies at a height."""
        i, j = node.prev.edge, node.edge
        (ax, ay), (bx, by) = self.normals[i], self.normals[j]
        cross = ax * by - ay * bx
        if abs(cross) > 1e-6:
            p, q = self.offsets[i] + self.speeds[i] * t, self.offsets[j] + self.speeds[j] * t
            return float((p * by - q * ay) / cross), float((q * ax - p * bx) / cross)
        vx, vy = self.velocity(node)
        return node.pos[0] + vx * (t - self.t), node.pos[1] + vy * (t - self.t)

    def reflex(self, node: _Node) -> bool:
        """Whether the front turns right at the start of a piece."""
        (ax, ay), (bx, by) = self.dirs[node.prev.edge], self.dirs[node.edge]
        return bool(ax * by - ay * bx < -PARALLEL)

    # --- events ---------------------------------------------------------------------------------

    def run(self) -> None:
        """Up to where nothing is left."""
        most = 40 * len(self.nodes) + 100 + len(self.breaks)
        for _ in range(most):
            if not self.nodes:
                return
            self.step()
        raise GeometryError("this outline could not be roofed")

    def step(self) -> None:
        """The next event."""
        count = len(self.nodes)
        index = {id(node): k for k, node in enumerate(self.nodes)}
        after = np.array([index[id(node.next)] for node in self.nodes])
        edges = np.array([node.edge for node in self.nodes])
        pos = np.array([node.pos for node in self.nodes])
        vel = np.array([self.velocity(node) for node in self.nodes])
        dirs = self.dirs[edges]
        lengths = ((pos[after] - pos) * dirs).sum(axis=1)
        rates = ((vel[after] - vel) * dirs).sum(axis=1)
        waits = np.full(count, np.inf)
        shrinking = rates < -1e-12
        waits[shrinking] = np.maximum(lengths[shrinking], 0.0) / -rates[shrinking]
        waits[(lengths <= self.eps) & (rates <= 1e-12)] = 0.0
        k = int(np.argmin(waits))
        best, hit = float(waits[k]), None
        reflex = [n for n, node in enumerate(self.nodes) if self.reflex(node)]
        if reflex:
            found = self._first_split(np.array(reflex), edges, pos, vel, after, dirs)
            if found and found[0] < best - self.eps * 1e-3:
                best, hit = found[0], (found[1], found[2])
        if self.breaks and self.breaks[0][0] - self.t <= best:
            self._bend(*self.breaks.pop(0))
            return
        if not math.isfinite(best):
            raise GeometryError("these slopes never meet: give one more edge a pitch")
        self._rise_to(self.t + best)
        if hit:
            self._split(self.nodes[hit[0]], self.nodes[hit[1]])
        else:
            self._drop(self.nodes[k])

    def _first_split(
        self,
        reflex: NDArray[np.int_],
        edges: NDArray[np.int_],
        pos: NDArray[np.float64],
        vel: NDArray[np.float64],
        after: NDArray[np.int_],
        dirs: NDArray[np.float64],
    ) -> tuple[float, int, int] | None:
        """The first reflex corner that runs into a piece: after which rise, which corner, which piece."""
        normals, speeds = self.normals[edges], self.speeds[edges]
        level = self.offsets[edges] + speeds * self.t
        gap = pos[reflex] @ normals.T - level[None, :]
        closing = speeds[None, :] - vel[reflex] @ normals.T
        with np.errstate(divide="ignore", invalid="ignore"):
            wait = np.where(closing > 1e-12, np.maximum(gap, 0.0) / closing, np.inf)
        wait[gap < -self.eps] = np.inf
        rows = np.arange(len(reflex))
        before = np.array([int(np.flatnonzero(after == n)[0]) for n in reflex])
        wait[rows, reflex] = np.inf
        wait[rows, before] = np.inf
        finite = np.isfinite(wait)
        held = np.where(finite, wait, 0.0)
        at = pos[reflex][:, None, :] + vel[reflex][:, None, :] * held[:, :, None]
        start = pos[None, :, :] + vel[None, :, :] * held[:, :, None]
        end = pos[after][None, :, :] + vel[after][None, :, :] * held[:, :, None]
        near = ((at - start) * dirs[None]).sum(axis=2)
        far = ((end - at) * dirs[None]).sum(axis=2)
        wait[~finite | (near < -self.eps) | (far < -self.eps)] = np.inf
        row, column = divmod(int(np.argmin(wait)), wait.shape[1])
        best = float(wait[row, column])
        return (best, int(reflex[row]), column) if math.isfinite(best) else None

    def _bend(self, at: float, edge: int, speed: float, number: int) -> None:
        """At a height, an edge goes on at another speed, as an edge of another number."""
        self._rise_to(max(at, self.t))
        while len(self.speeds) <= number:
            self.dirs = np.vstack((self.dirs, self.dirs[edge]))
            self.normals = np.vstack((self.normals, self.normals[edge]))
            self.offsets = np.append(self.offsets, 0.0)
            self.speeds = np.append(self.speeds, 0.0)
        self.dirs[number], self.normals[number] = self.dirs[edge], self.normals[edge]
        self.speeds[number] = speed
        self.offsets[number] = self.offsets[edge] + (self.speeds[edge] - speed) * self.t
        for node in self.nodes:
            if node.edge == edge:
                self.arcs.append(Arc(edge, number, (*node.pos, self.t), (*node.next.pos, self.t), "break"))
                node.edge = number

    def _rise_to(self, t: float) -> None:
        moved = [self.placed(node, t) for node in self.nodes] if t > self.t else [node.pos for node in self.nodes]
        for node, pos in zip(self.nodes, moved):
            self._trace(node, pos, t)
            node.pos = pos
        self.t = t

    def _trace(self, node: _Node, pos: tuple[float, float], t: float) -> None:
        if t <= self.t:
            return
        i, j = node.prev.edge, node.edge
        kind: Kind = "valley" if self.reflex(node) else "hip"
        cross = self.dirs[i][0] * self.dirs[j][1] - self.dirs[i][1] * self.dirs[j][0]
        if abs(cross) <= PARALLEL:
            kind = "seam"
        if not self.speeds[i] or not self.speeds[j]:
            kind = "rake"
        self.arcs.append(Arc(i, j, (*node.pos, self.t), (*pos, t), kind))

    def _remove(self, node: _Node) -> None:
        self.nodes = [held for held in self.nodes if held is not node]

    def _drop(self, node: _Node) -> None:
        """A piece without length: its neighbours meet where it was."""
        before, after = node.prev, node.next
        before.next, after.prev = after, before
        after.pos = node.pos if node.pos != after.pos else after.pos
        self._remove(node)
        self._close(after)

    def _split(self, corner: _Node, piece: _Node) -> None:
        """A reflex corner on a piece: it is parted there, and its parts go with the two sides of the corner."""
        rest = _Node(piece.edge, corner.pos)
        before = corner.prev
        rest.next, piece.next.prev = piece.next, rest
        piece.next, corner.prev = corner, piece
        before.next, rest.prev = rest, before
        self.nodes.append(rest)
        self._close(corner)
        self._close(rest)

    def _close(self, node: _Node) -> None:
        """What two neighbours have closed between them, at the start of a piece, is a ridge."""
        while any(held is node for held in self.nodes):
            before = node.prev
            if before is node:
                self._remove(node)
                return
            if before.prev is node:
                self._ridge(before.edge, node.edge, node.pos, before.pos)
                self._remove(node)
                self._remove(before)
                return
            (ax, ay), (bx, by) = self.dirs[before.edge], self.dirs[node.edge]
            if abs(ax * by - ay * bx) > PARALLEL or ax * bx + ay * by > 0:
                return
            # The two lie on each other from here back to whichever ends first.
            back, ahead = before.pos, node.next.pos
            mine = (node.pos[0] - back[0]) * ax + (node.pos[1] - back[1]) * ay
            theirs = (ahead[0] - node.pos[0]) * bx + (ahead[1] - node.pos[1]) * by
            if abs(mine - theirs) <= self.eps:
                self._ridge(before.edge, node.edge, node.pos, back)
                following, earlier = node.next, before.prev
                earlier.next, following.prev = following, earlier
                following.pos = back
                self._remove(node)
                self._remove(before)
                node = following
            elif mine < theirs:
                self._ridge(before.edge, node.edge, node.pos, back)
                earlier = before.prev
                earlier.next, node.prev = node, earlier
                node.pos = back
                self._remove(before)
            else:
                self._ridge(before.edge, node.edge, node.pos, ahead)
                following = node.next
                before.next, following.prev = following, before
                self._remove(node)
                node = following

    def _ridge(self, i: int, j: int, start: tuple[float, float], end: tuple[float, float]) -> None:
        if math.dist(start, end) > self.eps:
            self.arcs.append(Arc(i, j, (*start, self.t), (*end, self.t), "ridge"))


def skeleton(
    rings: Sequence[Sequence[Point]], speeds: Sequence[float], breaks: Sequence[Break] = ()
) -> tuple[Arc, ...]:
    """The lines in which planes over the edges of an outline meet, lowest first.

    `rings`: the outline counter-clockwise, holes clockwise, without closing points. `speeds`: per edge, in the order of
    the rings, the plan run for a rise of 1; 0 for a gable. Edges are numbered in that order; z is the rise above the
    outline. An edge goes on past a break as an edge of its own number, counted on from the others in the order of
    `breaks`. Raises: GeometryError for an outline or slopes that cannot be roofed.
    """
    if len(speeds) != sum(len(ring) for ring in rings):
        raise GeometryError("a pitch is wanted for each edge")
    if min(speeds) < 0 or not any(speeds):
        raise GeometryError("at least one edge needs a pitch")
    front = _Front(rings, speeds, breaks)
    front.run()
    return tuple(_joined(front.arcs, front.eps * 10))


def _joined(arcs: list[Arc], eps: float) -> Iterator[Arc]:
    """Arcs with those that run on in one line as one; those without length fall away."""
    waiting = [arc for arc in arcs if arc.length > eps]
    while waiting:
        arc = waiting.pop(0)
        grown = True
        while grown:
            grown = False
            for other in waiting:
                if {other.left, other.right} != {arc.left, arc.right} or other.kind != arc.kind:
                    continue
                if math.dist(arc.end, other.start) < eps and _straight(arc.start, other.start, other.end, eps):
                    arc = Arc(arc.left, arc.right, arc.start, other.end, arc.kind)
                elif math.dist(other.end, arc.start) < eps and _straight(other.start, arc.start, arc.end, eps):
                    arc = Arc(arc.left, arc.right, other.start, arc.end, arc.kind)
                else:
                    continue
                waiting.remove(other)
                grown = True
                break
        yield arc


def _straight(a: Point3, b: Point3, c: Point3, eps: float) -> bool:
    return math.dist(a, b) + math.dist(b, c) - math.dist(a, c) < eps
