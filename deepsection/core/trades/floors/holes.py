"""Holes in joist floors: trimmers beside them from bearing to bearing, headers between these, joists cut short."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from itertools import pairwise

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...geometry import Point, largest, line_through, polygons_of
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
    turned = Turned(bay.direction)
    pieces = [
        (name if not k else f"{name}:{k + 1}", piece)
        for name, hole in bay.holes
        for k, piece in enumerate(rectangles_of(turned, hole))
    ]
    within = without(within, [hole for _, hole in bay.holes]) if len(pieces) > 1 else within
    for name, piece in sorted(pieces, key=lambda held: -held[1].area):
        others = [area for held in framed for area in held.members]
        framed.append(_frame(name, piece, bay, within, others, framing.thickness))
    return _joined(turned, framed) if len(pieces) > len(bay.holes) else tuple(framed)


def _joined(turned: Turned, framed: list[HoleFrame]) -> tuple[HoleFrame, ...]:
    """The frames of holes with re-entrant corners, headers in line with each other made one."""
    rows: dict[tuple[str, float], list[tuple[int, str, MultiPolygon]]] = defaultdict(list)
    for k, frame in enumerate(framed):
        for name, area in frame.headers:
            rows[frame.name.partition(":")[0], round(turned.box(area).s0, 1)].append((k, name, area))
    headers: list[list[tuple[str, MultiPolygon]]] = [[] for _ in framed]
    for (_, _), row in sorted(rows.items()):
        whole = shapely.union_all([area for _, _, area in row], grid_size=TOL.node)
        k, name, _ = row[0]
        headers[k].append((name, MultiPolygon(list(polygons_of(whole)))))
    return tuple(replace(frame, headers=tuple(own)) for frame, own in zip(framed, headers))


def rectangles_of(turned: Turned, hole: Polygon) -> list[Polygon]:
    """The rectangles along joists that a hole is made of, the largest first: one, unless it has re-entrant corners."""
    box = turned.box(hole)
    if hole.area > SQUARE * (box.a1 - box.a0) * (box.s1 - box.s0):
        return [hole]
    across = sorted(turned.across.along(point) for point in hole.exterior.coords)
    edges = [at for k, at in enumerate(across) if not k or at - across[k - 1] > SAME]
    found: list[Box] = []
    for a0, a1 in pairwise(edges):
        strip = turned.rectangle(a0, a1, box.s0 - 1.0, box.s1 + 1.0)
        for piece in polygons_of(shapely.intersection(hole, strip, grid_size=TOL.node)):
            own = turned.box(piece)
            before = next((k for k, held in enumerate(found) if _goes_on(held, own)), None)
            if before is None:
                found.append(own)
            else:
                found[before] = Box(found[before].a0, own.a1, own.s0, own.s1)
    largest_first = sorted(found, key=lambda held: -(held.a1 - held.a0) * (held.s1 - held.s0))
    return [turned.rectangle(*held) for held in largest_first]


def _goes_on(held: Box, own: Box) -> bool:
    """Whether a strip of a hole goes on beside another one, as long as that."""
    near = SAME
    return abs(held.a1 - own.a0) < near and abs(held.s0 - own.s0) < near and abs(held.s1 - own.s1) < near


SAME = 0.5
"""Corners as near as this (mm) to each other across the joists are in line."""
SQUARE = 0.999
"""A hole that fills this share of its box along the joists is a rectangle."""
IN_LINE = 0.03
"""An edge runs along or across joists where it leaves their direction by less than this (rad)."""


def square_to(direction: Point, hole: Polygon) -> Polygon:
    """What of a hole joists of a direction can be framed around: the rectangle along them that holds it; of one with
    re-entrant corners whose edges run along or across them, or nearly, itself made square."""
    turned = Turned(direction)
    box = turned.rectangle(*turned.box(hole))
    corners = list(hole.simplify(TOL.point).exterior.coords)[:-1]
    if len(corners) < 5:
        return box
    across, along = ([line.along(point) for point in corners] for line in (turned.across, turned.span))
    for k, point in enumerate(corners):
        after = (k + 1) % len(corners)
        line = line_through(point, corners[after])
        lean = line.dx * turned.span.dx + line.dy * turned.span.dy
        held = across if abs(lean) > 0.5 else along
        if min(abs(lean), math.sqrt(max(0.0, 1.0 - lean**2))) > IN_LINE:
            return box
        held[k] = held[after] = (held[k] + held[after]) / 2
    square = Polygon([turned.at(a, s) for a, s in zip(across, along)])
    return square if square.is_valid else box


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


def holes_of_slab(region: Polygon, holes: Iterable[tuple[str, Polygon]]) -> tuple[tuple[str, Polygon], ...]:
    """The holes of a slab, each as it was drawn, as far as they lie within it."""
    inside = ((name, largest(shapely.intersection(hole, region, grid_size=TOL.node))) for name, hole in holes)
    return tuple((name, area) for name, area in inside if area.area > SMALLEST_HOLE)


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
        if box[axis + 1] - box[axis] > WHOLE * t and shapely.intersection(piece, beside).area > SAME * t:
            kept.append(piece)
    return MultiPolygon(kept)
