"""Where joists lie in a bay: at their spacing, doubled under walls, divided and lapped over what bears."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import groupby

import numpy as np
import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...geometry import Line, polygons_of
from ...model import Framing
from ...tolerance import TOL
from ..walls.framing import stations
from .bays import Bay
from .model import Lap
from .supports import SHORTEST, Run, crossings, runs_between

RIPPED = 0.6
"""A joist that would be narrower than this share of its thickness is left out: the rim joist beside it does."""
WHOLE = 0.98
"""What is left of a member beside others is one when it has this share of its thickness."""
PLIES = 2
"""Trimmers, headers and joists under walls are of so many joists. Source: IRC R502.10, for headers longer than 4 ft,
and R502.4; from memory."""
ON_BEARINGS = 150.0
"""So much of the length of a joist (mm), about, lies on its bearings at both ends, and spans nothing."""
BLOCK = 60.0
"""Nothing shorter than this (mm) is set between two joists."""


@dataclass(frozen=True, slots=True)
class Joist:
    """A joist in plan: the name of it within its bay, which run between bearings it is, and its area."""

    slot: str
    run: Run
    area: MultiPolygon


class Turned:
    """Places in a bay: (across the joists, along them)."""

    def __init__(self, direction: tuple[float, float]) -> None:
        dx, dy = direction
        self.across, self.span = Line(0.0, 0.0, dy, -dx), Line(0.0, 0.0, dx, dy)

    def box(self, area: Polygon | MultiPolygon) -> tuple[float, float, float, float]:
        """Least and greatest of both."""
        points = shapely.get_coordinates(area)
        a = points[:, 0] * self.across.dx + points[:, 1] * self.across.dy
        s = points[:, 0] * self.span.dx + points[:, 1] * self.span.dy
        return float(a.min()), float(a.max()), float(s.min()), float(s.max())

    def rectangle(self, a0: float, a1: float, s0: float, s1: float) -> Polygon:
        """The area between two places."""
        across, span = self.across, self.span
        corners = ((a0, s0), (a1, s0), (a1, s1), (a0, s1))
        return Polygon([(across.dx * a + span.dx * s, across.dy * a + span.dy * s) for a, s in corners])

    def runs(self, bay: Bay, at: float, start: float, end: float, lap: Lap | None = None) -> tuple[Run, ...]:
        """How the line of a joist at a place across is divided by what bears between the ends of its bay."""
        across = self.across.dx, self.across.dy
        crossed = [(s, support) for support in bay.supports for s in crossings(support, across, at)]
        return runs_between(start, end, crossed, lap or bay.lap)


def joists_of(
    framing: Framing, bay: Bay, within: Polygon | MultiPolygon, taken: Sequence[Polygon | MultiPolygon] = ()
) -> list[Joist]:
    """The joists of a bay, as far as they lie within an area and not where other members are.

    They are on the layout of the bay, one flush at each side; under a wall that runs along them lie two more.
    """
    t, turned = framing.thickness, Turned(bay.direction)
    doubled = [held for name, at in bay.along for held in _doubled(turned, framing, bay, name, at)]
    doubled = _kept(turned, _apart(turned, doubled), within, taken, WHOLE * t)
    near, far, start, end = turned.box(bay.region)
    places = layout(near, far, framing.spacing, t, bay.shift)
    ordinary = []
    for number, at in places:
        # Those flush with a side have a rim, or nothing, beside them: they butt.
        flush = at in (places[0][1], places[-1][1])
        runs = turned.runs(bay, at + t / 2, start, end, "butted" if flush and bay.lap == "lapped" else None)
        for run, low in _shifted(runs, at, t):
            area = MultiPolygon([turned.rectangle(low, low + t, run.start, run.end)])
            ordinary.append(Joist(f"{number}", run, area))
    others = [*taken, *(held.area for held in doubled)]
    return [*_kept(turned, _apart(turned, ordinary), within, others, RIPPED * t), *doubled]


def layout(first: float, last: float, spacing: float, thickness: float, shift: float) -> list[tuple[int, float]]:
    """(slot, near edge) of joists from `first` to `last`: one flush at each side, the rest on centre from a shift on.

    >>> [(slot, at) for slot, at in layout(0.0, 1000.0, 400.0, 38.0, 150.0)]
    [(0, 0.0), (1, 131.0), (2, 531.0), (3, 962.0)]
    """
    begin = shift % spacing
    if begin < thickness:
        return stations(first, last, spacing, thickness)
    count = int((last - first) // spacing) + 1
    places = [first, *(first + begin - thickness / 2 + k * spacing for k in range(count))]
    kept = [at for at in places if at < last - 2 * thickness]
    return list(enumerate([*kept, last - thickness]))


def _doubled(turned: Turned, framing: Framing, bay: Bay, name: str, at: float) -> Iterator[Joist]:
    """Two joists side by side under a wall whose middle runs at a place across."""
    t = framing.thickness
    _, _, start, end = turned.box(bay.region)
    for ply in range(PLIES):
        low = at + (ply - PLIES / 2) * t
        for run, edge in _shifted(turned.runs(bay, at, start, end), low, PLIES * t):
            area = MultiPolygon([turned.rectangle(edge, edge + t, run.start, run.end)])
            yield Joist(f"under:{name}:{ply}", run, area)


def _shifted(runs: tuple[Run, ...], at: float, by: float) -> Iterator[tuple[Run, float]]:
    """Runs that lap lie beside each other: each other one is shifted."""
    for run in runs:
        yield run, at + by * (run.laps % 2)


def _apart(turned: Turned, joists: list[Joist]) -> list[Joist]:
    """Those that lie on no other one before them."""
    if not any(joist.run.laps for joist in joists):
        return joists
    kept: list[Joist] = []
    tree: dict[int, list[tuple[float, float, float, float]]] = {}
    for joist in joists:
        a0, a1, s0, s1 = turned.box(joist.area)
        beside = tree.setdefault(joist.run.laps, [])
        near = TOL.point
        if all(
            a1 <= b0 + near or b1 <= a0 + near or s1 <= c0 + near or c1 <= s0 + near for b0, b1, c0, c1 in beside[-3:]
        ):
            kept.append(joist)
            beside.append((a0, a1, s0, s1))
    return kept


def _kept(
    turned: Turned,
    joists: list[Joist],
    within: Polygon | MultiPolygon,
    taken: Sequence[Polygon | MultiPolygon],
    least: float,
) -> list[Joist]:
    """The pieces of joists within an area that are as thick as asked, cut off square before other members."""
    if not joists:
        return []
    areas = np.array([joist.area for joist in joists], dtype=object)
    others = shapely.STRtree(list(taken))
    hits: dict[int, list[int]] = {}
    for k, other in zip(*others.query(areas, predicate="intersects")):
        hits.setdefault(int(k), []).append(int(other))
    for k, found in hits.items():
        for other in found:
            areas[k] = squared_off(turned, areas[k], taken[other])
    shapely.prepare(within)
    out = ~shapely.contains(within, areas)
    areas[out] = shapely.intersection(areas[out], within, grid_size=TOL.node)
    kept = []
    for joist, shape in zip(joists, areas):
        pieces = []
        for piece in polygons_of(shape):
            a0, a1, s0, s1 = turned.box(piece)
            if a1 - a0 > least and s1 - s0 > SHORTEST:
                pieces.append(piece)
        if pieces:
            kept.append(Joist(joist.slot, joist.run, MultiPolygon(pieces)))
    return kept


def squared_off(turned: Turned, area: Polygon | MultiPolygon, other: shapely.Geometry) -> MultiPolygon:
    """A member without the stretch over which it would lie in another one."""
    if area.is_empty:
        return MultiPolygon()
    a0, a1, _, _ = turned.box(area)
    for piece in polygons_of(shapely.intersection(area, other, grid_size=TOL.node)):
        near, far, start, end = turned.box(piece)
        if far - near > TOL.point:
            area = shapely.difference(area, turned.rectangle(a0 - 1.0, a1 + 1.0, start, end), grid_size=TOL.node)
    return MultiPolygon(list(polygons_of(area)))


def blocks_over(bay: Bay, free: shapely.Geometry, thickness: float) -> Iterator[tuple[str, MultiPolygon]]:
    """(name, areas) of the blocks between joists over each wall or dropped beam that crosses a bay."""
    for support in bay.supports:
        if support.flush:
            continue
        strip = shapely.LineString(support.line).buffer(thickness / 2, cap_style="flat", join_style="mitre")
        (x0, y0), (x1, y1) = support.line[0], support.line[-1]
        length = math.dist((x0, y0), (x1, y1)) or 1.0
        along = Turned(((x1 - x0) / length, (y1 - y0) / length))
        pieces = []
        for piece in polygons_of(shapely.intersection(strip, free, grid_size=TOL.node)):
            a0, a1, s0, s1 = along.box(piece)
            if s1 - s0 > BLOCK and a1 - a0 > WHOLE * thickness:
                pieces.append(piece)
        if pieces:
            yield f"over:{support.name}", MultiPolygon(pieces)


def _faces(left: _Piece, right: _Piece) -> bool:
    """Whether two pieces run beside each other, with room for a block between them."""
    return right[1] > left[2] + BLOCK and min(right[4], left[4]) - max(right[3], left[3]) > ROWS / 2


_Piece = tuple[int, float, float, float, float]
ROWS = 2438.4
"""Joists that run farther than this (mm) between bearings have blocks between them. Source: IRC R502.7.1, 8 ft, from
memory; that it is asked of all joists, not only of those deeper than 12 in: common practice."""


def blocks_between(
    bay: Bay, joists: Sequence[Joist], free: shapely.Geometry, thickness: float
) -> Iterator[tuple[str, MultiPolygon]]:
    """(name, areas) of rows of blocks between neighbours that run far between their bearings."""
    turned = Turned(bay.direction)
    pieces: list[_Piece] = [(joist.run.number, *turned.box(piece)) for joist in joists for piece in joist.area.geoms]
    blocks: dict[int, list[Polygon]] = {}
    for _, beside in groupby(sorted(pieces), key=lambda held: held[0]):
        row = list(beside)
        for k, left in enumerate(row):
            right = next((held for held in row[k + 1 :] if _faces(left, held)), None)
            if right is None:
                continue
            start, end = max(left[3], right[3]), min(left[4], right[4])
            count = int((end - start - ON_BEARINGS) // ROWS)
            for k in range(count):
                middle = start + (end - start) * (k + 1) / (count + 1)
                block = turned.rectangle(left[2], right[1], middle - thickness / 2, middle + thickness / 2)
                blocks.setdefault(k, []).append(block)
    for k, found in sorted(blocks.items()):
        cut = shapely.intersection(np.array(found, dtype=object), free, grid_size=TOL.node)
        whole = [p for shape, block in zip(cut, found) for p in polygons_of(shape) if p.area > 0.95 * block.area]
        if whole:
            yield f"row:{k}", MultiPolygon(whole)
