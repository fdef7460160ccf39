"""Stairs in a drawing: treads that follow each other at equal distances, flights of them, landings between flights."""

from __future__ import annotations

import math
import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
import shapely
from shapely import STRtree
from shapely.geometry import LineString, Polygon
from shapely.geometry import Point as Spot
from shapely.ops import unary_union
from shapely.prepared import prep

from deepsection.core.geometry import Point

from .drawn import Stroke, Words
from .found import FoundFlight, FoundStair
from .layers import Meaning

TREADS = (550.0, 2600.0)
"""Treads are this wide (mm). Common practice, no source."""
GOINGS = (190.0, 380.0)
"""And follow each other at such distances. Common practice, no source."""
FEWEST = 4
NOSED = 60.0
"""Lines of treads that are closer to each other than this (mm) are nosing and riser of one."""
SAME = 40.0
BEYOND = 600.0
"""Words and arrows stand so far (mm) beyond the ends of a flight at most."""
SPREAD = 700.0
"""A landing reaches so far (mm) beyond the flights, with the line that is walked on it."""
EVEN = 8.0
NOT_TREADS: frozenset[Meaning] = frozenset(
    ("dimension", "text", "grid", "hatch", "sheet", "above", "nothing", "window")
)
_UP = re.compile(r"^\W*(up|auf|hoch|aufw[äa]rts|mont[ée]e|sube|sale|op)\b", re.IGNORECASE)
_DOWN = re.compile(r"^\W*(dn|down|ab|abw[äa]rts|descend|descente|baja|scende|neer)\b", re.IGNORECASE)


@dataclass(slots=True)
class _Flight:
    """Risers of one flight: the middle of the first, the way along them, the strokes.

    `up`, `down`: which way that leads, where it is known; `begins`, `ends`: a stair does so with it; `above`: what is
    written looks down from there.
    """

    at: np.ndarray
    along: np.ndarray
    going: float
    risers: int
    width: float
    strokes: set[int]
    up: bool = False
    down: bool = False
    begins: bool = False
    ends: bool = False
    above: bool = False
    reasons: tuple[str, ...] = ()

    @property
    def across(self) -> np.ndarray:
        return np.array([-self.along[1], self.along[0]])

    @property
    def length(self) -> float:
        return self.going * (self.risers - 1)

    @property
    def end(self) -> np.ndarray:
        return self.at + self.along * self.length

    @property
    def outline(self) -> Polygon:
        return self.around(0.0)

    def turned(self) -> _Flight:
        return replace(self, at=self.end, along=-self.along, up=self.down, down=self.up)

    def around(self, more: float) -> Polygon:
        """Its outline, longer by so much at both ends."""
        half, on = self.across * self.width / 2, self.along * more
        return Polygon([self.at + half - on, self.at - half - on, self.end - half + on, self.end + half + on])


def stairs_of(
    strokes: Sequence[Stroke], used: set[int], meanings: Mapping[str, Meaning], words: Sequence[Words]
) -> tuple[list[FoundStair], set[int]]:
    """The stairs among strokes (mm) of which no wall and no opening was made, and the strokes that they take."""
    flights = _flights(strokes, used, meanings)
    if not flights:
        return [], set()
    _ways(flights, strokes, words)
    named = {
        k for k, flight in enumerate(flights) if any(meanings[strokes[n].layer] == "stair" for n in flight.strokes)
    }
    found: list[FoundStair] = []
    taken: set[int] = set()
    for chain, turns in _chains(flights, strokes):
        ways = [flights[k].turned() if back else flights[k] for k, back in chain]
        stair = _told(ways, turns, named=any(k in named for k, _ in chain))
        if stair is not None:
            found.append(stair)
            taken |= _all_of(ways, strokes, used)
    return sorted(found, key=lambda stair: stair.foot), taken


def _all_of(flights: Sequence[_Flight], strokes: Sequence[Stroke], used: set[int]) -> set[int]:
    """The treads, and what else lies within the stair on their layers: strings, the line that is walked, its head."""
    treads = {n for flight in flights for n in flight.strokes}
    layers = {strokes[n].layer for n in treads}
    within = prep(unary_union([flight.around(SPREAD) for flight in flights]).convex_hull.buffer(SAME))
    more = {
        k
        for k, s in enumerate(strokes)
        if k not in used and s.layer in layers and within.covers(LineString((s.a, s.b)))
    }
    return treads | more


def _flights(strokes: Sequence[Stroke], used: set[int], meanings: Mapping[str, Meaning]) -> list[_Flight]:
    """Lines of equal length beside each other at equal distances."""
    usable = [
        k
        for k, s in enumerate(strokes)
        if k not in used
        and not s.bulge
        and TREADS[0] <= math.dist(s.a, s.b) <= TREADS[1]
        and meanings[s.layer] not in NOT_TREADS
    ]
    if len(usable) < FEWEST:
        return []
    ends = np.array([(*strokes[k].a, *strokes[k].b) for k in usable])
    angle = np.arctan2(ends[:, 3] - ends[:, 1], ends[:, 2] - ends[:, 0]) % math.pi
    angle[angle > math.pi - 0.003] -= math.pi
    found: list[_Flight] = []
    order = np.argsort(angle, kind="stable")
    for rows in np.split(order, np.flatnonzero(np.diff(angle[order]) > 0.005) + 1):
        if len(rows) < FEWEST:
            continue
        mean = float(np.mean(angle[rows]))
        across, along = np.array([math.cos(mean), math.sin(mean)]), np.array([-math.sin(mean), math.cos(mean)])
        first, last = ends[rows, :2] @ across, ends[rows, 2:] @ across
        low, high = np.minimum(first, last), np.maximum(first, last)
        off = (ends[rows, :2] + ends[rows, 2:]) / 2 @ along
        for members in _alike(low, high):
            for line in _even(members, off):
                lo, hi = (float(np.median(side[[n for n, _ in line]])) for side in (low, high))
                at = across * (lo + hi) / 2 + along * line[0][1]
                held = {usable[rows[k]] for n, at_off in line for k in members if abs(off[k] - at_off) < NOSED}
                going = (line[-1][1] - line[0][1]) / (len(line) - 1)
                found.append(_Flight(at, along, going, len(line), hi - lo, held))
    return _not_tiles(found)


def _alike(low: np.ndarray, high: np.ndarray) -> Iterable[list[int]]:
    """Lines that begin and end beside each other."""
    groups: list[list[int]] = []
    open_: list[int] = []
    for k in np.argsort(low, kind="stable").tolist():
        open_ = [g for g in open_ if low[k] - low[groups[g][0]] < SAME]
        home = next((g for g in open_ if abs(high[k] - high[groups[g][0]]) < SAME), None)
        if home is None:
            open_.append(len(groups))
            groups.append([k])
        else:
            groups[home].append(k)
    return (group for group in groups if len(group) >= FEWEST)


def _even(members: list[int], off: np.ndarray) -> Iterable[list[tuple[int, float]]]:
    """Of lines beside each other, runs at equal distances; of a nosing and a riser, the first."""
    places: list[tuple[int, float]] = []
    for k in sorted(members, key=lambda k: float(off[k])):
        if not places or off[k] - places[-1][1] > NOSED:
            places.append((k, float(off[k])))
    run = places[:1]
    for place in places[1:]:
        step = place[1] - run[-1][1]
        even = len(run) < 2 or abs(step - (run[-1][1] - run[0][1]) / (len(run) - 1)) < EVEN
        if GOINGS[0] <= step <= GOINGS[1] and even:
            run.append(place)
            continue
        if len(run) >= FEWEST:
            yield run
        run = [run[-1], place] if GOINGS[0] <= step <= GOINGS[1] and len(run) < FEWEST else [place]
    if len(run) >= FEWEST:
        yield run


def _not_tiles(flights: list[_Flight]) -> list[_Flight]:
    """Those that no other run of even lines crosses: tiles and paving are drawn in two directions."""
    outlines = [flight.outline for flight in flights]
    tree = STRtree(outlines)

    def crossed(k: int) -> bool:
        for n in tree.query(outlines[k], predicate="intersects").tolist():
            across = n != k and abs(float(flights[k].along @ flights[n].along)) < 0.1
            least = 0.3 * min(outlines[k].area, outlines[n].area)
            if across and outlines[k].intersection(outlines[n]).area > least:
                return True
        return False

    return [held for k, held in enumerate(flights) if not crossed(k)]


def _ways(flights: list[_Flight], strokes: Sequence[Stroke], words: Sequence[Words]) -> None:
    """Which way each flight goes up: by the head of the line that is walked along, by what is written at its ends."""
    own = {n for flight in flights for n in flight.strokes}
    others = [k for k, s in enumerate(strokes) if k not in own and not s.bulge and math.dist(s.a, s.b) > 15.0]
    ends = np.array([(*strokes[k].a, *strokes[k].b) for k in others]).reshape(-1, 4)
    xs, ys = ends[:, 0::2], ends[:, 1::2]
    tree = STRtree(shapely.box(xs.min(axis=1), ys.min(axis=1), xs.max(axis=1) + 0.01, ys.max(axis=1) + 0.01))
    said = STRtree([Spot(word.at) for word in words])
    for flight in flights:
        around = flight.around(BEYOND)
        near = [others[k] for k in tree.query(around, predicate="intersects").tolist()]
        texts = [words[k] for k in said.query(around, predicate="intersects").tolist()]
        flight.above = any(_DOWN.match(word.text) for word in texts)
        head = _head(flight, strokes, near)
        if head:
            flight.up, flight.down = (head > 0) != flight.above, (head < 0) != flight.above
            flight.begins, flight.ends = flight.above, not flight.above
            flight.reasons = ("an arrow leads down it" if flight.above else "an arrow leads up it",)
            continue
        for word in texts:
            up = bool(_UP.match(word.text))
            if up or _DOWN.match(word.text):
                at = float((np.array(word.at) - flight.at) @ flight.along)
                flight.up = (at < flight.length / 2) == up
                flight.down, flight.begins, flight.ends = not flight.up, up, not up
                flight.reasons = (f"“{word.text.strip()}” stands at its {'foot' if up else 'head'}",)
                break


def _head(flight: _Flight, strokes: Sequence[Stroke], near: Sequence[int]) -> int:
    """1 where the line along the flight has its head towards the last riser, -1 the first, 0 where it has none."""
    for k in near:
        a, b = np.array(strokes[k].a), np.array(strokes[k].b)
        span = b - a
        length = float(np.hypot(*span))
        if length < 0.5 * flight.length or abs(float(span @ flight.along)) < 0.98 * length:
            continue
        if abs(float((a - flight.at) @ flight.across)) > 0.42 * flight.width:
            continue
        way = 1 if float(span @ flight.along) > 0 else -1
        heads = [_barbs(end, back, strokes, near) for end, back in ((b, -span / length), (a, span / length))]
        if (heads[0] >= 2) != (heads[1] >= 2):
            return way if heads[0] >= 2 else -way
    return 0


def _barbs(end: np.ndarray, back: np.ndarray, strokes: Sequence[Stroke], near: Sequence[int]) -> int:
    """How many short lines lead back from the end of a line, slanting."""
    count = 0
    for k in near:
        for a, b in ((strokes[k].a, strokes[k].b), (strokes[k].b, strokes[k].a)):
            length = math.dist(a, b)
            if length < 500.0 and math.dist(a, end) < 25.0:
                count += 0.5 < float((np.array(b) - np.array(a)) @ back) / length < 0.995
    return count


def _chains(flights: list[_Flight], strokes: Sequence[Stroke]) -> list[tuple[list[tuple[int, bool]], list[_Turn]]]:
    """Flights that follow each other over a landing: each by position, and whether it is walked the other way."""
    links: dict[tuple[int, bool], list[tuple[float, int, bool, _Turn]]] = {}
    tree = STRtree([flight.outline for flight in flights])
    for k, first in enumerate(flights):
        for n in sorted(tree.query(first.outline, predicate="dwithin", distance=NEXT_FLIGHT).tolist()):
            if n == k:
                continue
            second = flights[n]
            for back in (False, True):
                for on in (False, True):
                    lower = first.turned() if back else first
                    upper = second.turned() if on else second
                    wrong = lower.down or upper.down or lower.ends or upper.begins
                    turn = None if wrong else _turn(lower, upper)
                    if turn is not None:
                        links.setdefault((k, back), []).append((turn.gap, n, on, turn))
    free = set(range(len(flights)))
    found = []
    for k in sorted(free, key=lambda k: (not _starts(flights, links, k), k)):
        if k not in free:
            continue
        free.discard(k)
        held = flights[k]
        starts = [False, True] if not (held.up or held.down) else [held.down]
        back = next((way for way in starts if (k, way) in links), starts[0])
        chain, turns = [(k, back)], []
        while options := [link for link in links.get(chain[-1], ()) if link[1] in free]:
            _, n, on, turn = min(options, key=lambda link: link[:3])
            free.discard(n)
            chain.append((n, on))
            turns.append(_winding(turn, flights[chain[-2][0]], chain[-2][1], strokes))
        found.append((chain, turns))
    return found


def _starts(
    flights: list[_Flight], links: Mapping[tuple[int, bool], list[tuple[float, int, bool, _Turn]]], k: int
) -> bool:
    """Whether a stair may begin with a flight: it is said so, or others follow it as it is walked."""
    ways = [flights[k].down] if flights[k].up or flights[k].down else [False, True]
    return flights[k].begins or any((k, way) in links for way in ways)


@dataclass(frozen=True, slots=True)
class _Turn:
    """How one flight follows another: to which side, with a quarter or half turn, with what between."""

    side: str
    kind: str
    gap: float
    winders: int = 0


NEXT_FLIGHT = 3200.0
"""Flights that follow each other lie no farther from each other (mm)."""
REACH = 250.0
"""A flight begins so near (mm) to where the landing of the one below it lets it."""


def _turn(lower: _Flight, upper: _Flight) -> _Turn | None:
    """The turn from the end of a flight to the start of another; none where they do not meet."""
    apart = upper.at - lower.end
    on, aside = float(apart @ lower.along), float(apart @ lower.across)
    facing = float(lower.along @ upper.along)
    side = "left" if aside > 0 else "right"
    if abs(lower.width - upper.width) > 250.0:
        return None
    if facing < -0.99:
        well = abs(aside) - (lower.width + upper.width) / 2
        if abs(on) < REACH and -60.0 < well < 600.0:
            return _Turn(side, "half landing", max(well, 0.0))
    elif abs(facing) < 0.1:
        turns = "left" if float(upper.along @ lower.across) > 0 else "right"
        square = abs(on - upper.width / 2), abs(abs(aside) - lower.width / 2)
        if turns == side and max(square) < REACH:
            return _Turn(side, "landing", sum(square))
    return None


def _winding(turn: _Turn, flight: _Flight, back: bool, strokes: Sequence[Stroke]) -> _Turn:
    """The turn, as winders where lines fan out from its inner corner."""
    if turn.kind != "landing":
        return turn
    lower = flight.turned() if back else flight
    inner = lower.end + lower.across * (lower.width / 2 if turn.side == "left" else -lower.width / 2)
    fan = set()
    for stroke in strokes:
        for a, b in ((stroke.a, stroke.b), (stroke.b, stroke.a)):
            if math.dist(a, inner) < 90.0 and 0.7 * lower.width < math.dist(a, b) < 1.6 * lower.width:
                lean = abs(float((np.array(b) - np.array(a)) @ lower.along)) / math.dist(a, b)
                if 0.15 < lean < 0.99:
                    fan.add(round(math.degrees(math.acos(min(lean, 1.0))) / 3))
    return _Turn(turn.side, "winders", turn.gap, min(len(fan) + 1, 5)) if fan else turn


def _told(flights: list[_Flight], turns: list[_Turn], *, named: bool) -> FoundStair | None:
    """A stair in numbers, with what speaks for it."""
    reasons = [f"{sum(flight.risers for flight in flights)} treads at equal distances"]
    sure = 0.35 + 0.02 * min(sum(flight.risers for flight in flights), 12)
    known = [flight for flight in flights if flight.up or flight.down]
    for flight in known[:1]:
        reasons += flight.reasons
        sure += 0.25
    if named:
        reasons.append("on a layer of stairs")
        sure += 0.2
    if turns:
        reasons.append(" and ".join(turn.kind for turn in turns))
        sure += 0.15
    if not known:
        reasons.append("which way it goes up is not drawn")
    if sure < 0.5:
        return None
    first = flights[0]
    return FoundStair(
        foot=_point(first.at),
        turn=round(math.degrees(math.atan2(first.along[1], first.along[0])), 4) + 0.0,
        width=round(float(np.mean([flight.width for flight in flights])), 1),
        going=round(sum(flight.length for flight in flights) / sum(flight.risers - 1 for flight in flights), 1),
        flights=tuple(
            FoundFlight(
                flight.risers,
                tuple(_point(spot) for spot in flight.outline.exterior.coords[:-1]),
                turn.kind if turn else "",  # type: ignore[arg-type]
                turn.side if turn else "left",  # type: ignore[arg-type]
                round(turn.gap, 1) if turn else 0.0,
                turn.winders if turn else 0,
            )
            for flight, turn in zip(flights, [*turns, None])
        ),
        confidence=round(min(sure, 0.99), 2),
        reason=", ".join(reasons),
        down=any(flight.above for flight in flights),
    )


def _point(at: Sequence[float] | np.ndarray) -> Point:
    return float(at[0]), float(at[1])
