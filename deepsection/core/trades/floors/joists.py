"""Where joists lie in a bay: at their spacing, doubled under walls, divided and lapped over what bears."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np
import shapely
from shapely.geometry import LineString, MultiPolygon, Polygon

from ...geometry import polygons_of
from ...model import Framing
from ...tolerance import TOL
from ..walls.framing import stations
from .bays import Bay
from .model import Lap
from .supports import SHORTEST, Run, Support, crossings, runs_between
from .turned import Box, Turned

RIPPED = 0.6
"""A joist that would be narrower than this share of its thickness is left out: the rim joist beside it does."""
WHOLE = 0.98
"""What is left of a member beside others is one when it has this share of its thickness."""
PLIES = 2
"""Trimmers, headers and joists under walls are of so many joists. Source: IRC R502.10, for headers longer than 4 ft,
and R502.4; from memory."""


NOWHERE = MultiPolygon()
Crossing = tuple[float, Support]
"""Where a line of joists crosses what bears it (mm along it)."""


@dataclass(frozen=True, slots=True)
class Joist:
    """A joist in plan: the name of it within its bay, which run between bearings it is, the boxes of its pieces in the
    frame of its bay, and its area, which ends with the bay."""

    slot: str
    run: Run
    boxes: tuple[Box, ...]
    area: MultiPolygon = NOWHERE


def joists_of(
    framing: Framing, bay: Bay, within: Polygon | MultiPolygon, taken: Sequence[Polygon | MultiPolygon] = ()
) -> list[Joist]:
    """The joists of a bay, as far as they lie within an area and not where other members are.

    They are on the layout of the bay, one flush at each side; under a wall that runs along them lie two more.
    """
    t, turned = framing.thickness, Turned(bay.direction)
    reach, others = turned.box(bay.region), [box for held in taken for box in turned.boxes(held)]
    doubled = [held for name, at in bay.along for held in _doubled(turned, t, bay, name, at, reach)]
    doubled = _kept(turned, _apart(doubled), within, others, WHOLE * t)
    others += [box for held in doubled for box in held.boxes]
    return [*_kept(turned, _apart(_laid(turned, framing, bay, reach)), within, others, RIPPED * t), *doubled]


def runs_at(turned: Turned, bay: Bay, at: float, start: float, end: float, lap: Lap | None = None) -> tuple[Run, ...]:
    """How the line of a joist at a place across is divided by what bears between the ends of its bay."""
    across = turned.across.dx, turned.across.dy
    crossed: list[Crossing] = [(s, support) for support in bay.supports for s in crossings(support, across, at)]
    if bay.borne is not None:
        crossed = _held_down(turned, bay, at, crossed)
    return runs_between(start, end, crossed, lap or bay.lap)


def _held_down(turned: Turned, bay: Bay, at: float, crossed: list[Crossing]) -> list[Crossing]:
    """What a line of joists is divided by where its ends may stand out free: over the last bearing before a free end
    it runs through, so that the piece beyond is held down."""
    box = turned.box(bay.region)
    line = LineString([turned.at(at, box.s0 - 1.0), turned.at(at, box.s1 + 1.0)]).intersection(bay.region)
    places = sorted(turned.span.along(point) for point in shapely.get_coordinates(line).tolist())
    own = sorted(crossed, key=lambda held: held[0])
    if not places or bay.borne is None:
        return own
    for end, last in ((places[0], 0), (places[-1], -1)):
        free = bay.borne.is_empty or bay.borne.distance(shapely.Point(turned.at(at, end))) > ENDS
        if free and own and not own[last][1].flush:
            outmost = own[last][0]
            own = [held for held in own if abs(held[0] - outmost) > SHORTEST]
    return own


ENDS = 50.0
"""The end of a joist bears where what bears it is as near as this (mm)."""


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


def _laid(turned: Turned, framing: Framing, bay: Bay, reach: Box) -> list[Joist]:
    """The joists of the layout, from bearing to bearing."""
    t = framing.thickness
    places = layout(reach.a0, reach.a1, framing.spacing, t, bay.shift)
    found = []
    for number, at in places:
        # Those flush with a side have a rim, or nothing, beside them: they butt.
        flush = at in (places[0][1], places[-1][1])
        lap: Lap | None = "butted" if flush and bay.lap == "lapped" else None
        runs = runs_at(turned, bay, at + t / 2, reach.s0, reach.s1, lap)
        found += [Joist(f"{number}", run, (_lying(run, at, t, t),)) for run in runs]
    return found


def _doubled(turned: Turned, t: float, bay: Bay, name: str, at: float, reach: Box) -> Iterator[Joist]:
    """Two joists side by side under a wall whose middle runs at a place across."""
    runs = runs_at(turned, bay, at, reach.s0, reach.s1)
    for ply in range(PLIES):
        for run in runs:
            yield Joist(f"under:{name}:{ply}", run, (_lying(run, at + (ply - PLIES / 2) * t, t, PLIES * t),))


def _lying(run: Run, at: float, t: float, shift: float) -> Box:
    """Where a run of a joist lies: of those that lap, each other one is shifted beside the one before."""
    low = at + shift * (run.laps % 2)
    return Box(low, low + t, run.start, run.end)


def _apart(joists: list[Joist]) -> list[Joist]:
    """Those that lie on no other one before them."""
    kept: list[Joist] = []
    beside: dict[int, list[Box]] = {}
    for joist in joists:
        before = beside.setdefault(joist.run.laps, [])
        if not any(joist.boxes[0].meets(other) for other in before[-3:]):
            kept.append(joist)
            before.append(joist.boxes[0])
    return kept


def _kept(
    turned: Turned, joists: list[Joist], within: Polygon | MultiPolygon, taken: Sequence[Box], least: float
) -> list[Joist]:
    """The pieces of joists within an area that are as thick as asked, cut off square before other members."""
    cut = [(joist, box) for joist in joists for whole in joist.boxes for box in whole.cut_off(taken)]
    if not cut:
        return []
    areas = turned.rectangles([box for _, box in cut])
    shapely.prepare(within)
    out = ~shapely.contains(within, areas)
    areas[out] = shapely.intersection(areas[out], within, grid_size=TOL.node)
    pieces: dict[int, list[tuple[Box, Polygon]]] = {}
    for (joist, box), area, clipped in zip(cut, areas, np.asarray(out)):
        for piece in polygons_of(area):
            held = turned.box(piece) if clipped else box
            if held.a1 - held.a0 > least and held.s1 - held.s0 > SHORTEST:
                pieces.setdefault(id(joist), []).append((held, piece))
    return [
        replace(joist, boxes=tuple(box for box, _ in own), area=MultiPolygon([piece for _, piece in own]))
        for joist in joists
        if (own := pieces.get(id(joist)))
    ]
