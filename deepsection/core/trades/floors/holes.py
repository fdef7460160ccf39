"""Holes in joist floors: trimmers beside them from bearing to bearing, headers between these, joists cut short."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...geometry import Point, largest, polygons_of
from ...model import Framing
from ...tolerance import TOL
from .bays import Bay, without
from .joists import PLIES, WHOLE, runs_at
from .supports import Run
from .turned import Box, Turned


@dataclass(frozen=True, slots=True)
class HoleFrame:
    """What frames a hole: plies of trimmers and of headers, each with its name; the hole itself, square to joists."""

    name: str
    area: Polygon
    trimmers: tuple[tuple[str, MultiPolygon], ...]
    headers: tuple[tuple[str, MultiPolygon], ...]

    @property
    def members(self) -> list[Polygon | MultiPolygon]:
        """Where no other joist lies: the hole, and each member of its frame."""
        return [self.area, *(area for _, area in (*self.trimmers, *self.headers))]


def hole_frames(bay: Bay, within: Polygon | MultiPolygon, framing: Framing) -> tuple[HoleFrame, ...]:
    """How the holes of a bay are framed, as far as the space within its rims reaches.

    The largest is framed first; the members of others end at its members.
    """
    framed: list[HoleFrame] = []
    within = without(within, [hole for _, hole in bay.holes]) if len(bay.holes) > 1 else within
    for name, hole in sorted(bay.holes, key=lambda held: -held[1].area):
        framed.append(
            _frame(name, hole, bay, within, [area for held in framed for area in held.members], framing.thickness)
        )
    return tuple(framed)


def square_to(direction: tuple[float, float], hole: Polygon) -> Polygon:
    """The rectangle along a direction that holds a hole: what joists of that direction can be framed around."""
    turned = Turned(direction)
    return turned.rectangle(*turned.box(hole))


SMALLEST_HOLE = 1e4
"""What lies less (mm2) within a floor is no hole of it."""


def holes_in(region: Polygon, along: Point, holes: Iterable[tuple[str, Polygon]]) -> tuple[tuple[str, Polygon], ...]:
    """The holes of a bay, each square to its joists, as far as they lie within it."""
    found = []
    for name, hole in holes:
        inside = largest(shapely.intersection(square_to(along, hole), region, grid_size=TOL.node))
        if inside.area > SMALLEST_HOLE:
            found.append((name, inside))
    return tuple(found)


def _frame(
    name: str,
    hole: Polygon,
    bay: Bay,
    within: Polygon | MultiPolygon,
    others: list[Polygon | MultiPolygon],
    t: float,
) -> HoleFrame:
    turned = Turned(bay.direction)
    a0, a1, s0, s1 = turned.box(hole)
    far = turned.box(bay.region)
    trimmers: list[tuple[str, MultiPolygon]] = []
    headers: list[tuple[str, MultiPolygon]] = []

    taken = [box for other in others for box in turned.boxes(other)]

    def pieces(low: float, run: Run) -> Iterator[Polygon]:
        for box in Box(low, low + t, run.start, run.end).cut_off(taken):
            yield from polygons_of(shapely.intersection(turned.rectangle(*box), within, grid_size=TOL.node))

    for ply in range(PLIES):
        for side, low in (("low", a0 - (ply + 1) * t), ("high", a1 + ply * t)):
            beside = turned.rectangle(low, low + t, s0, s1)
            runs = runs_at(turned, bay, low + t / 2, far.s0 - 1.0, far.s1 + 1.0, "butted")
            member = _whole(turned, (piece for run in runs for piece in pieces(low, run)), t, 0, beside)
            if not member.is_empty:
                trimmers.append((f"{side}:{ply}", member))
    # Without a trimmer of its own at a side, a header goes on to what is there.
    beyond = {
        side: 0.0 if any(held.startswith(side) for held, _ in trimmers) else PLIES * t for side in ("low", "high")
    }
    for ply in range(PLIES):
        for side, low in (("start", s0 - (ply + 1) * t), ("end", s1 + ply * t)):
            strip = turned.rectangle(a0 - beyond["low"], a1 + beyond["high"], low, low + t)
            # A header is as thick along the joists as joists are across them.
            own = shapely.intersection(shapely.difference(strip, shapely.union_all(others)), within, grid_size=TOL.node)
            member = _whole(turned, polygons_of(own), t, 2, turned.rectangle(a0, a1, low, low + t))
            if not member.is_empty:
                headers.append((f"{side}:{ply}", member))
    return HoleFrame(name, hole, tuple(trimmers), tuple(headers))


def _whole(turned: Turned, pieces: Iterable[Polygon], t: float, axis: int, beside: Polygon) -> MultiPolygon:
    """The pieces as thick as a member that lie beside the hole."""
    kept = []
    for piece in pieces:
        box = turned.box(piece)
        if box[axis + 1] - box[axis] > WHOLE * t and shapely.intersection(piece, beside).area > 0.0:
            kept.append(piece)
    return MultiPolygon(kept)
