"""Edges of true areas as lines and arcs, and how they go into a DXF file."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any

from .truth import Spot

NEAR = 0.06
"""A corner this close to a known circle lies on it (mm)."""


@dataclass(frozen=True)
class Edge:
    """From a to b, straight, or an arc of this bulge about `centre`."""

    a: Spot
    b: Spot
    bulge: float = 0.0
    centre: Spot = (0.0, 0.0)

    @property
    def radius(self) -> float:
        return math.dist(self.a, self.centre)


def edges(ring: Sequence[Spot], circles: Iterable[tuple[Spot, float]], *, closed: bool = True) -> list[Edge]:
    """The edges of a ring; chords of one circle that follow each other are one arc."""
    spots = [*ring, ring[0]] if closed else list(ring)
    on = [_circle(a, b, circles) for a, b in itertools.pairwise(spots)]
    if closed and on[0] is not None and all(held == on[0] for held in on):
        return [_arc(spots[k], spots[k + 1], on[k]) for k in range(len(on))]  # type: ignore[arg-type]
    if closed and on[0] is not None and on[-1] == on[0]:
        shift = next(k for k in range(len(on)) if on[k] != on[0])
        return edges([*ring[shift:], *ring[:shift]], circles)
    found: list[Edge] = []
    k = 0
    while k < len(on):
        last = k
        while on[k] is not None and last + 1 < len(on) and on[last + 1] == on[k]:
            last += 1
        held = on[k]
        found.append(
            Edge(spots[k], spots[k + 1]) if held is None else _arc(spots[k], spots[last + 1], held, spots[k + 1])
        )
        k = last + 1
    return found


def _circle(a: Spot, b: Spot, circles: Iterable[tuple[Spot, float]]) -> tuple[Spot, float] | None:
    for centre, radius in circles:
        short = math.dist(a, b) < radius * 0.03
        if short and abs(math.dist(a, centre) - radius) < NEAR and abs(math.dist(b, centre) - radius) < NEAR:
            return centre, radius
    return None


def _arc(a: Spot, b: Spot, circle: tuple[Spot, float], beside: Spot | None = None) -> Edge:
    (cx, cy), _ = circle
    second = beside or b
    turn = math.atan2(a[1] - cy, a[0] - cx)
    way = math.remainder(math.atan2(second[1] - cy, second[0] - cx) - turn, math.tau)
    sweep = math.remainder(math.atan2(b[1] - cy, b[0] - cx) - turn, math.tau)
    if sweep * way < 0:
        sweep += math.copysign(math.tau, way)
    return Edge(a, b, math.tan(sweep / 4), circle[0])


def draw_edge(space: Any, edge: Edge, layer: str) -> None:
    """A LINE or an ARC."""
    attribs = {"layer": layer}
    if not edge.bulge:
        space.add_line(edge.a, edge.b, dxfattribs=attribs)
        return
    a, b = (edge.a, edge.b) if edge.bulge > 0 else (edge.b, edge.a)
    first, last = (math.degrees(math.atan2(p[1] - edge.centre[1], p[0] - edge.centre[0])) for p in (a, b))
    space.add_arc(edge.centre, edge.radius, first, last, dxfattribs=attribs)


def draw_ring(space: Any, held: Sequence[Edge], layer: str) -> None:
    """A closed LWPOLYLINE with bulges."""
    points = [(*edge.a, edge.bulge) for edge in held]
    space.add_lwpolyline(points, format="xyb", close=True, dxfattribs={"layer": layer})
