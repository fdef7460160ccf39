"""Several plans in one drawing: told apart by the gaps between them, named by their titles, laid over each other."""

from __future__ import annotations

import itertools
import math
import re
from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import replace

from shapely.geometry import MultiPoint
from shapely.geometry.base import BaseGeometry

from deepsection.core.geometry import Point

from .drawn import Words
from .found import FoundGrid, FoundLevel, FoundWall, Storey
from .groups import Groups
from .written import height_of

APART = 1500.0
"""Walls farther from each other than this (mm) belong to plans of their own, where each encloses rooms."""
TITLE_REACH = 6000.0
LEAST_RISE = 1500.0
"""A storey lies at least so far (mm) above the one below it."""
_RANKS: list[tuple[int, str]] = [
    (
        -1,
        r"basement|cellar|lower ground|souterrain|"
        r"untergeschoss|keller(?:geschoss)?|ug|kg|sous-sol|s[oó]tano|interrato|kelder",
    ),
    (0, r"ground|erdgeschoss|eg|rez-de-chauss[eé]e|rdc|planta baja|piano terra|begane grond|main"),
    (
        1,
        r"first|1st|1\.?\s*(?:og|floor|level|[eé]tage)|level 1|upper|obergeschoss|og|1er [eé]tage|primera|"
        r"primo piano|verdieping",
    ),
    (2, r"second|2nd|2\.?\s*(?:og|floor|level|[eé]tage)|level 2|segunda|secondo piano"),
    (3, r"third|3rd|3\.?\s*(?:og|floor|level|[eé]tage)|level 3|attic|loft|dachgeschoss|dg|combles|mansarda|zolder"),
]
_TITLE = re.compile(
    r"\b(?:floor|level|storey|story|plan|geschoss|grundriss|[eé]tage|planta|piano|verdieping|"
    + "|".join(pattern for _, pattern in _RANKS)
    + r")\b",
    re.IGNORECASE,
)

Box = tuple[float, float, float, float]


class _Squared:
    """Places as they are where the longest wall lies along an axis: plans beside each other then have boxes apart."""

    def __init__(self, walls: Sequence[FoundWall]) -> None:
        longest = max(walls, key=lambda wall: math.dist(wall.start, wall.end))
        turn = math.atan2(longest.end[1] - longest.start[1], longest.end[0] - longest.start[0])
        turn = math.remainder(turn, math.pi / 2)
        self._cos, self._sin = math.cos(turn), math.sin(turn)

    def at(self, point: Point) -> Point:
        return self._cos * point[0] + self._sin * point[1], self._cos * point[1] - self._sin * point[0]

    def box(self, wall: FoundWall, more: float = 0.0) -> Box:
        return _box([self.at(wall.start), self.at(wall.end)], more)


def hull_of(walls: Sequence[FoundWall], members: Iterable[int], more: float = 0.0) -> BaseGeometry:
    """The ground that walls enclose at most, and so much more around (mm)."""
    return MultiPoint([p for k in members for p in (walls[k].start, walls[k].end)]).convex_hull.buffer(more)


def groups_of(walls: Sequence[FoundWall]) -> list[list[int]]:
    """Walls by the plan that they belong to: those that come near each other are of one."""
    if not walls:
        return []
    squared = _Squared(walls)
    boxes = [squared.box(wall, wall.thickness) for wall in walls]
    groups = Groups(len(walls))
    order = sorted(range(len(walls)), key=lambda k: boxes[k][0])
    open_: list[int] = []
    for k in order:
        open_ = [n for n in open_ if boxes[n][2] >= boxes[k][0] - APART]
        for n in open_:
            if _near(boxes[k], boxes[n]):
                groups.join(k, n)
        open_.append(k)
    held: dict[int, list[int]] = defaultdict(list)
    for k in range(len(walls)):
        held[groups.of(k)].append(k)
    merged = sorted(held.values(), key=len, reverse=True)
    # What lies within the bounds of a plan belongs to it, however far from its walls.
    plans: list[list[int]] = []
    bounds: list[Box] = []
    for members in merged:
        box = _all([boxes[k] for k in members])
        home = next((n for n, held_box in enumerate(bounds) if _near(held_box, box)), None)
        if home is not None:
            plans[home] += members
            bounds[home] = _all([bounds[home], box])
        else:
            plans.append(members)
            bounds.append(box)
    largest = len(plans[0]) if plans else 0
    main = [sorted(plan) for plan in plans if len(plan) >= max(4, 0.2 * largest)]
    return sorted(main, key=lambda plan: (min(boxes[k][0] for k in plan), min(boxes[k][1] for k in plan))) or plans[:1]


def _near(one: Box, other: Box) -> bool:
    return (
        one[0] - APART <= other[2]
        and other[0] - APART <= one[2]
        and one[1] - APART <= other[3]
        and other[1] - APART <= one[3]
    )


def _box(points: Sequence[Point], more: float = 0.0) -> Box:
    xs, ys = [p[0] for p in points], [p[1] for p in points]
    return min(xs) - more, min(ys) - more, max(xs) + more, max(ys) + more


def _all(boxes: Sequence[Box]) -> Box:
    return min(b[0] for b in boxes), min(b[1] for b in boxes), max(b[2] for b in boxes), max(b[3] for b in boxes)


def storeys_of(
    walls: Sequence[FoundWall], groups: Sequence[Sequence[int]], words: Sequence[Words], grids: Sequence[FoundGrid]
) -> list[Storey]:
    """The plans, low storeys first, each with the shift that lays it over the first."""
    named = []
    squared = _Squared(walls)
    boxes = [_all([squared.box(walls[k]) for k in members]) for members in groups]
    words = [replace(word, at=squared.at(word.at)) for word in words if _TITLE.search(word.text)]
    for n, box in enumerate(boxes):
        title, rank = _title(box, words, boxes)
        named.append((rank if rank is not None else 100 + n, n, title, box))
    found: list[Storey] = []
    order = sorted(named)
    base = groups[order[0][1]]
    for place, (_, n, title, box) in enumerate(order):
        shift = (
            (0.0, 0.0)
            if place == 0
            else _by_grids(grids, squared, order[0][3], box)
            or _shift([walls[k] for k in base], [walls[k] for k in groups[n]])
        )
        found.append(Storey(title or f"Plan {place + 1}", shift, tuple(groups[n])))
    return found


def _title(box: Box, words: Sequence[Words], others: Sequence[Box]) -> tuple[str, int | None]:
    """The title of a plan: the largest text about storeys that lies in it or nearer to it than to any other."""
    best: tuple[float, str] | None = None
    for word in words:
        away = _away(box, word.at)
        if away > TITLE_REACH or any(_away(other, word.at) < away for other in others if other != box):
            continue
        if best is None or word.height > best[0]:
            best = word.height, word.text
    if best is None:
        return "", None
    rank = next((rank for rank, pattern in _RANKS if re.search(rf"\b(?:{pattern})\b", best[1], re.IGNORECASE)), None)
    return best[1][:80], rank


def above_each_other(
    storeys: Sequence[Storey], walls: Sequence[FoundWall], levels: Sequence[FoundLevel]
) -> list[Storey]:
    """The plans, each as far above the lowest as the levels in them say, where each says one and they rise; and with
    the ceilings that are written in them."""
    grounds = [hull_of(walls, held.walls) for held in storeys]
    floors = [height_of(levels, ground, "floor") for ground in grounds]
    ceilings = [height_of(levels, ground, "ceiling") for ground in grounds]
    held = [replace(storey, ceiling=ceiling) for storey, ceiling in zip(storeys, ceilings)]
    known = [floor for floor in floors if floor is not None]
    if len(known) < len(storeys) or any(high - low < LEAST_RISE for low, high in itertools.pairwise(known)):
        return held
    return [replace(storey, above=round(floor - known[0], 3)) for storey, floor in zip(held, known)]


def _away(box: Box, at: Point) -> float:
    return math.hypot(max(box[0] - at[0], 0.0, at[0] - box[2]), max(box[1] - at[1], 0.0, at[1] - box[3]))


def _shift(base: Sequence[FoundWall], walls: Sequence[FoundWall]) -> Point:
    """What moves a plan over the first one, by the walls that then coincide."""
    longest = max(base, key=lambda wall: math.dist(wall.start, wall.end))
    turn = math.atan2(longest.end[1] - longest.start[1], longest.end[0] - longest.start[0])
    cos, sin = math.cos(turn), math.sin(turn)
    moved = []
    for axis in ((cos, sin), (-sin, cos)):
        at = [
            (wall.start[0] * axis[0] + wall.start[1] * axis[1], math.dist(wall.start, wall.end))
            for wall in base
            if _across(wall, axis)
        ]
        to = [
            (wall.start[0] * axis[0] + wall.start[1] * axis[1], math.dist(wall.start, wall.end))
            for wall in walls
            if _across(wall, axis)
        ]
        votes = sorted((a - b, min(m, n)) for a, m in at for b, n in to)
        best, value = 0.0, 0.0
        for k, (shift, _) in enumerate(votes):
            near = [v for v in votes[max(0, k - 40) : k + 40] if abs(v[0] - shift) < 15.0]
            weight = sum(v[1] for v in near)
            if weight > best:
                best, value = weight, sum(v[0] * v[1] for v in near) / weight
        moved.append(value)
    return float(moved[0] * cos - moved[1] * sin), float(moved[0] * sin + moved[1] * cos)


def _across(wall: FoundWall, axis: Point) -> bool:
    dx, dy = wall.end[0] - wall.start[0], wall.end[1] - wall.start[1]
    return not wall.bulge and abs(dx * axis[0] + dy * axis[1]) < 0.01 * math.hypot(dx, dy)


def _by_grids(grids: Sequence[FoundGrid], squared: _Squared, one: Box, other: Box) -> Point | None:
    """What moves a plan over the first one, by grid lines that both have; none where they do not tell both ways."""
    at = [(squared.at(g.start), squared.at(g.end)) for g in grids]
    held = [
        {g.label: g for g, (a, b) in zip(grids, at) if _away(box, ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)) < 3000.0}
        for box in (one, other)
    ]
    shifts = []
    for label in sorted(held[0].keys() & held[1].keys()):
        a, b = held[0][label], held[1][label]
        length = math.dist(a.start, a.end) or 1.0
        normal = (-(a.end[1] - a.start[1]) / length, (a.end[0] - a.start[0]) / length)
        shifts.append((normal, sum((p - q) * n for p, q, n in zip(a.start, b.start, normal))))
    upright = [s for s in shifts if abs(s[0][0]) > 0.7]
    level = [s for s in shifts if abs(s[0][1]) > 0.7]
    if not upright or not level:
        return None
    return sum(n[0] * s for n, s in upright) / len(upright), sum(n[1] * s for n, s in level) / len(level)
