"""What a plan showed when it was read last: what it still shows so is no news, whatever was done to it in the project
since."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal

from shapely import LineString, STRtree
from shapely import Point as Spot

from ..geometry import Axis, Point
from ..model import MOST_READ, PlanRead, Project, ReadOpening, ReadWall
from ..reading import FoundWall, ReadPlan
from .there import BESIDE, TURNED, Stands, covered, drawn_axis

AS_BEFORE = 5.0
"""A wall, an opening or its width that differs by less from what the file had last (mm) is as it was."""
ENDS = 30.0
"""Ends of a wall follow those that it meets; they may lie so far from where they were (mm)."""


@dataclass(frozen=True, slots=True)
class Own:
    """A wall or an opening that the file has as before, but the project has elsewhere, of another width, or no more:
    its number in the plan, its id where it is still there, how far it was moved and how much wider it is (mm)."""

    kind: Literal["wall", "opening"]
    number: int
    id: str | None
    by: float = 0.0
    wider: float = 0.0


@dataclass(slots=True)
class LastRead:
    """What was read for a level last, beside the plan that is read now.

    `walls`: for walls of the plan that are as they were, by number, which of the walls read last they are; `openings`
    the same. `elements`: all ids that came from it.
    """

    read: PlanRead
    walls: dict[int, ReadWall] = field(default_factory=dict)
    openings: dict[int, ReadOpening] = field(default_factory=dict)
    elements: frozenset[str] = frozenset()

    def had(self, one: Stands) -> bool:
        """Whether a wall that stands came from what was read, or is a piece of one that did."""
        return one.id in self.elements or any(_same_line(one.axis, axis_of(held)) for held in self.read.walls)


def compared(
    read: PlanRead,
    plan: ReadPlan,
    drawn: Mapping[int, FoundWall],
    shift: Point,
    but_walls: Collection[int] = (),
    but_openings: Collection[int] = (),
) -> LastRead:
    """What of a plan is as it was when it was read last, but for some that are not to count as such, by number."""
    elements = {id for held in read.walls for id in held.elements} | {o.element for o in read.openings if o.element}
    out = LastRead(read, elements=frozenset(elements))
    places = STRtree([Spot(held.x, held.y) for held in read.openings])
    as_before = _walls_as_before(read, {k: wall for k, wall in drawn.items() if k not in but_walls}, shift)
    out.walls = {k: read.walls[n] for k, n in as_before.items()}
    pairs = []
    for k, opening in enumerate(plan.openings):
        if opening.wall not in drawn or opening.wall in but_walls or k in but_openings:
            continue
        axis = drawn_axis(drawn[opening.wall], shift)
        at = axis.at(opening.distance)
        for n in places.query(Spot(at), predicate="dwithin", distance=AS_BEFORE + BESIDE):
            held = read.openings[n]
            along = abs(axis.along((held.x, held.y)) - axis.along(at))
            if along <= AS_BEFORE and abs(held.width - opening.width) <= AS_BEFORE:
                pairs.append((along, int(n), k))
    used: set[int] = set()
    for _, n, k in sorted(pairs):
        if n not in used and k not in out.openings:
            used.add(n)
            out.openings[k] = read.openings[n]
    return out


def share_as_before(read: PlanRead, drawn: Mapping[int, FoundWall], shift: Point) -> float:
    """How much of the walls that were read last, by length, is as it was."""
    lengths = [axis_of(held).length for held in read.walls]
    return sum(lengths[n] for n in set(_walls_as_before(read, drawn, shift).values())) / max(sum(lengths), 1.0)


def _walls_as_before(read: PlanRead, drawn: Mapping[int, FoundWall], shift: Point) -> dict[int, int]:
    """Walls of a plan, by number, that lie where one was read last: which one that is, by its place."""
    walls = [axis_of(held) for held in read.walls]
    near = STRtree([LineString([was.start, was.end]) for was in walls])
    found: dict[int, int] = {}
    for k, wall in drawn.items():
        axis = drawn_axis(wall, shift)
        beside = near.query(LineString([axis.start, axis.end]), predicate="dwithin", distance=BESIDE)
        same = next((int(n) for n in sorted(beside) if _as_before(axis, walls[n])), None)
        if same is not None:
            found[k] = same
    return found


def read_now(
    id: str,
    level: str,
    plan: ReadPlan,
    numbers: Sequence[int],
    shift: Point,
    walls: Mapping[int, Iterable[str]],
    openings: Mapping[int, str],
) -> PlanRead | None:
    """A plan of a level, to be kept: its walls by number, and the ids of what stands for them and for its openings.

    Nothing where it has more than can be kept.
    """
    places = {k: n for n, k in enumerate(numbers)}
    found = [(k, held) for k, held in enumerate(plan.openings) if held.wall in places and held.width > 0]
    if max(len(numbers), len(found)) > MOST_READ:
        return None
    axes = {k: drawn_axis(plan.walls[k], shift) for k in numbers}
    return PlanRead(
        id=id,
        level=level,
        walls=tuple(
            ReadWall(
                ends=(*_rounded(axes[k].start), *_rounded(axes[k].end)),
                bulge=axes[k].bulge,
                elements=tuple(sorted(walls.get(k, ()))),
            )
            for k in numbers
        ),
        openings=tuple(
            ReadOpening(x=x, y=y, width=held.width, wall=places[held.wall], element=openings.get(k) or None)
            for k, held in found
            for x, y in (_rounded(axes[held.wall].at(held.distance)),)
        ),
    )


def last_reads(project: Project) -> dict[str, PlanRead]:
    """What was read last, by level."""
    return {held.level: held for held in project.plans_read}


def _rounded(point: Point) -> Point:
    return round(point[0], 2), round(point[1], 2)


def axis_of(held: ReadWall) -> Axis:
    """A wall as it was read."""
    x0, y0, x1, y1 = held.ends
    return Axis((x0, y0), (x1, y1), held.bulge)


def _as_before(axis: Axis, was: Axis) -> bool:
    """Whether a wall lies where one was read, but for ends that follow what they meet."""
    return (
        _same_line(axis, was)
        and covered(was, axis) > 0.8 * max(axis.length, was.length) - ENDS
        and abs(axis.left_of(was.at(was.length / 2))) <= AS_BEFORE
    )


def _same_line(axis: Axis, was: Axis) -> bool:
    if axis.is_arc != was.is_arc or covered(was, axis) <= 0.0:
        return False
    middle = was.at(was.length / 2)
    a, b = was.direction(was.length / 2), axis.direction(axis.along(middle))
    return abs(axis.left_of(middle)) <= BESIDE and abs(a[0] * b[1] - a[1] * b[0]) < TURNED
