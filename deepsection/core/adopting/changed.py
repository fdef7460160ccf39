"""A plan that is read again: what lies elsewhere in it now is brought there, and what it no longer has is told."""

from __future__ import annotations

import math
from collections import Counter, defaultdict
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

import numpy as np

from ..document.rebuilding import changed
from ..edits import JointAt, MoveJoints, PutOpening
from ..errors import RefusedEdit
from ..geometry import Axis, Point
from ..model import Opening, PlanRead, Project, TeeJoint, along_from_start, joint_point, wall_axis
from ..reading import FoundOpening, FoundWall, ReadPlan
from .remembered import LastRead, Own, compared
from .there import BESIDE, SAME_OPENING, TURNED, Near, Stands, covered, drawn_axis, standing_walls, there

MOST_MOVED = 3000.0
"""A wall farther from where one stands (mm) is another one."""
ALONG = 0.6
"""And it lies beside this share of the one that stands."""
PARTLY = 200.0
"""A wall that lies all beside one comes before one that lies so much nearer (mm)."""
MOST_SHIFTED = 1500.0
"""An opening of no number farther from one that stands (mm) is another one."""
SURE = 1000.0
"""How much more a wall that is moved says of its joints than one that is not."""
FOLLOWED = 5.0
"""Openings of walls that were moved are brought to the file when they lie farther from it than this (mm)."""
WIDER = 5.0
"""And get its width where that differs by more (mm)."""


@dataclass(frozen=True, slots=True)
class Moved:
    """A wall or an opening that lies elsewhere in the file, or is of another width: which number of the plan it has,
    how far it lies from where it stood (mm), and the ends of where it stood."""

    kind: Literal["wall", "opening"]
    id: str
    number: int
    by: float
    line: tuple[Point, Point]
    wider: float = 0.0


@dataclass(frozen=True, slots=True)
class Gone:
    """A wall or an opening that the file does not have, and the points along it."""

    kind: Literal["wall", "opening"]
    id: str
    points: tuple[Point, ...]


@dataclass(slots=True)
class Reread:
    """What is to be done to a project before what is new of a plan is built: edits, and the project after them.

    `walls`: for walls of the plan, by number, what stands for them then; `openings`: those of it that stand, with what
    stands for them; `stay`: walls of it whose walls stay elsewhere, or away; `own`: what the file has as it had it
    last, and the project has otherwise.
    """

    project: Project
    edits: list[Any] = field(default_factory=list)
    moved: list[Moved] = field(default_factory=list)
    gone: list[Gone] = field(default_factory=list)
    walls: dict[int, list[Stands]] = field(default_factory=dict)
    openings: dict[int, str] = field(default_factory=dict)
    stay: set[int] = field(default_factory=set)
    own: list[Own] = field(default_factory=list)
    refused: list[str] = field(default_factory=list)


def reread(
    project: Project,
    plan: ReadPlan,
    levels: Mapping[int, str],
    left: frozenset[str],
    reads: Mapping[str, PlanRead],
    back: tuple[frozenset[int], frozenset[int]],
) -> Reread:
    """How a project follows a plan that it has been built from before, on the levels of its storeys by position.

    `left` are the ids of what stays where it is; `reads` what was read last, by level; `back`
    are walls and openings of the plan that are brought back, though the file had them as it has them.
    """
    out = Reread(project)
    for place, level in levels.items():
        storey = plan.storeys[place]
        drawn = {k: plan.walls[k] for k in storey.walls}
        last = compared(reads[level], plan, drawn, storey.shift, *back) if level in reads else None
        _walls(out, drawn, level, storey.shift, left, last)
        _Openings(out, project, plan, drawn, storey.shift, left, last).follow()
    return out


def _walls(
    out: Reread,
    drawn: Mapping[int, FoundWall],
    level: str,
    shift: Point,
    left: frozenset[str],
    last: LastRead | None,
) -> None:
    before = standing_walls(out.project, level)
    found = there(before, drawn, shift)
    own = _own_walls(out, before, found, drawn, shift, last) if last else {}
    used = {one.id for on in (*found.values(), *own.values()) for one in on}
    new = {k: wall for k, wall in drawn.items() if k not in found and k not in own}
    outer = {wall.id for wall in out.project.walls if wall.status == "outer"}
    left_over = [one for one in before if one.id not in used]
    near = Near([one.axis for one in left_over])
    pairs = sorted(
        (abs(off) + PARTLY * abs(_beside(one, axis) - 1.0), one.id, k)
        for k, wall in new.items()
        for axis in (drawn_axis(wall, shift),)
        for one in (left_over[n] for n in near.to(axis, MOST_MOVED))
        if wall.outer == (one.id in outer)
        for off in _off(one, axis)
    )
    goals: dict[str, int] = {}
    for _, id, k in pairs:
        goals.setdefault(id, k)
    stood = {one.id: one for one in before}
    shifts: dict[str, float] = {}
    for id, k in goals.items():
        one, goal = stood[id], drawn_axis(drawn[k], shift)
        middle = one.axis.at(one.axis.length / 2)
        # To the left of the wall that stands, whichever way the other was drawn.
        off = -goal.left_of(middle) * _ahead(one, goal)
        if abs(off) <= BESIDE:
            continue
        out.moved.append(Moved("wall", id, k, abs(off), (one.axis.start, one.axis.end)))
        if id in left:
            out.stay.add(k)
        else:
            shifts[id] = off
    if shifts and not _move(out, _targets(out.project, shifts)):
        out.stay |= {goals[id] for id in shifts}
    elif shifts:
        found = there(standing_walls(out.project, level), drawn, shift)
        _move(out, _ends_to(out.project, found, drawn, shift, max(abs(off) for off in shifts.values())))
    after = standing_walls(out.project, level)
    found = there(after, drawn, shift)
    out.walls |= found
    now = {one.id: one for one in after}
    out.walls |= {k: [now[one.id] for one in on] for k, on in own.items() if on}
    for id, k in goals.items():
        if k not in found and k not in out.stay:
            # It is not built over the one that stands; what lies on that follows all the same.
            out.walls[k] = [one for one in after if one.id == id]
            out.refused.append("a wall is longer in the file than it stands: stretch it on the plan")
    used = {one.id for on in (*found.values(), *own.values()) for one in on} | set(goals)
    out.gone += [
        Gone("wall", one.id, tuple(one.axis.points()))
        for one in after
        if one.id not in used and (last is None or last.had(one))
    ]


def _own_walls(
    out: Reread,
    before: list[Stands],
    found: Mapping[int, list[Stands]],
    drawn: Mapping[int, FoundWall],
    shift: Point,
    last: LastRead,
) -> dict[int, list[Stands]]:
    """Walls of the plan that are as they were read, and do not stand there: what came of them, elsewhere or nothing."""
    used = {one.id for on in found.values() for one in on}
    own: dict[int, list[Stands]] = {}
    for k, held in last.walls.items():
        if k in found:
            continue
        own[k] = [one for one in before if one.id in held.elements and one.id not in used]
        axis = drawn_axis(drawn[k], shift)
        by = max((abs(axis.left_of(one.axis.at(one.axis.length / 2))) for one in own[k]), default=0.0)
        out.own.append(Own("wall", k, own[k][0].id if own[k] else None, by))
        out.stay.add(k)
    return own


def _move(out: Reread, targets: Mapping[str, Point]) -> bool:
    """Joints moved to their places. False where the document refuses that."""
    if targets:
        edit = MoveJoints(joints=tuple(JointAt(joint=id, x=x, y=y) for id, (x, y) in sorted(targets.items())))
        try:
            out.project = edit.apply(out.project)
        except RefusedEdit as error:
            out.refused.append(error.message)
            return False
        out.edits.append(edit)
    return True


def _ends_to(
    project: Project, found: Mapping[int, list[Stands]], drawn: Mapping[int, FoundWall], shift: Point, most: float
) -> dict[str, Point]:
    """Where ends go that share no joint with what was moved, although they met it: to where the file has them."""
    used = Counter(joint for wall in project.walls for joint in (wall.start, wall.end))
    targets: dict[str, Point] = {}
    for k, on in found.items():
        axis = drawn_axis(drawn[k], shift)
        for one in on:
            for id, end in zip(one.joints, (one.axis.start, one.axis.end)):
                if used[id] > 1 or isinstance(project.joints_by_id[id], TeeJoint) or one.axis.is_arc:
                    continue
                along = axis.along(end)
                goal = 0.0 if along < axis.length / 2 else axis.length
                beyond = any(
                    other is not one and abs(axis.along(e) - goal) < abs(along - goal) - 1.0
                    for other in on
                    for e in (other.axis.start, other.axis.end)
                )
                if not beyond and FOLLOWED < abs(goal - along) <= most + BESIDE:
                    place = joint_point(project, id)
                    targets[id] = one.line.at(one.line.along(place) + _ahead(one, axis) * (goal - along))
    return targets


def _ahead(one: Stands, axis: Axis) -> float:
    a, b = one.axis.direction(0.0), axis.direction(0.0)
    return 1.0 if a[0] * b[0] + a[1] * b[1] > 0 else -1.0


def _targets(project: Project, shifts: Mapping[str, float]) -> dict[str, Point]:
    """Where joints come to lie when walls go so far to their left (mm): where the lines of all that meets there cross.

    Walls that do not go stay on their lines, and stretch.
    """
    meeting: dict[str, list[str]] = defaultdict(list)
    for wall in project.walls:
        meeting[wall.start].append(wall.id)
        meeting[wall.end].append(wall.id)
    for joint in project.joints:
        if isinstance(joint, TeeJoint):
            meeting[joint.id].append(joint.wall)
    found: dict[str, Point] = {}
    for id, walls in meeting.items():
        if not shifts.keys() & walls:
            continue
        place = joint_point(project, id)
        normals, offs = [], []
        for name in walls:
            axis = wall_axis(project, project.walls_by_id[name])
            dx, dy = axis.direction(min(max(axis.along(place), 0.0), axis.length))
            # Of two on one line of which but one goes, that one says where to.
            sure = SURE if name in shifts else 1.0
            normals.append((-dy * sure, dx * sure))
            offs.append(shifts.get(name, 0.0) * sure)
        (sx, sy), *_ = np.linalg.lstsq(np.array(normals), np.array(offs), rcond=1e-6)
        found[id] = place[0] + float(sx), place[1] + float(sy)
    return found


def _off(one: Stands, axis: Axis) -> Iterator[float]:
    """How far a drawn wall lies beside one that stands, where it may be that one moved (mm)."""
    if one.axis.is_arc or axis.is_arc or _beside(one, axis) < ALONG:
        return
    a, b = one.axis.direction(0.0), axis.direction(0.0)
    off = axis.left_of(one.axis.at(one.axis.length / 2))
    if abs(a[0] * b[1] - a[1] * b[0]) < TURNED and abs(off) <= MOST_MOVED:
        yield off


def _beside(one: Stands, axis: Axis) -> float:
    return covered(one.axis, axis) / max(one.axis.length, 1.0)


# --- openings -----------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class _Openings:
    """The openings of a storey, which follow its plan: the project is as it is after its walls did.

    `before` is the project as it was, `drawn` the walls of the storey by number.
    """

    out: Reread
    before: Project
    plan: ReadPlan
    drawn: Mapping[int, FoundWall]
    shift: Point
    left: frozenset[str]
    last: LastRead | None

    def follow(self) -> None:
        out = self.out
        hosts = {one.id: (k, one.line) for k, on in out.walls.items() if k in self.drawn for one in on}
        shown = {
            k: drawn_axis(self.drawn[o.wall], self.shift).at(o.distance)
            for k, o in enumerate(self.plan.openings)
            if o.wall in self.drawn
        }
        own = self._own()
        held = [opening for opening in out.project.openings if opening.wall in hosts and opening.id not in own.values()]
        goals = self._goals(held, hosts, {k: at for k, at in shown.items() if k not in own})
        stand = own | {k: id for id, k in goals.items()}
        for k in self.last.openings.keys() - stand.keys() if self.last else ():
            # It was removed in the project, and stays away.
            stand[k] = ""
            if out.walls.get(self.plan.openings[k].wall):
                out.own.append(Own("opening", k, None))
        out.openings |= stand
        for opening in held:
            if opening.id in goals:
                self._bring(opening, goals[opening.id], shown[goals[opening.id]])
            elif self.last is None or opening.id in self.last.elements:
                out.gone.append(Gone("opening", opening.id, _ends(out.project, opening)))

    def _own(self) -> dict[int, str]:
        """Openings of the plan that are as they were read, and that the project has elsewhere, or of another width."""
        own: dict[int, str] = {}
        there_ = {opening.id: opening for opening in self.before.openings}
        for k, held in self.last.openings.items() if self.last else ():
            opening = there_.get(held.element or "")
            if opening is None:
                continue
            by = math.dist(_place(self.before, opening), (held.x, held.y))
            wall = wall_axis(self.before, self.before.walls_by_id[opening.wall])
            along = _apart(wall, _place(self.before, opening), (held.x, held.y))
            wider = self.before.design_of(opening).width - held.width
            wider = wider if abs(wider) > WIDER else 0.0
            host = self.out.walls.get(self.plan.openings[k].wall, ())
            elsewhere = all(one.id != opening.wall for one in host)
            if elsewhere or along > SAME_OPENING or wider:
                own[k] = opening.id
                self.out.own.append(Own("opening", k, opening.id, by, wider))
        return own

    def _goals(
        self, held: list[Opening], hosts: Mapping[str, tuple[int, Axis]], shown: Mapping[int, Point]
    ) -> dict[str, int]:
        """Which of the plan an opening that stands is, by id."""
        project, last = self.out.project, self.last
        pairs = []
        for opening in held:
            wall, line = hosts[opening.wall]
            place = _place(self.before, opening)
            for k, at in shown.items():
                found = self.plan.openings[k]
                if found.wall != wall:
                    continue
                away = _apart(line, place, at)
                was = last.openings.get(k) if last else None
                same = bool(found.number) and found.number == project.number_of(opening)
                if was is not None:
                    # Nothing but what was built of it, or what was put in its place, stands for it.
                    if was.element == opening.id or away <= SAME_OPENING:
                        pairs.append((0.0 if was.element == opening.id else away, away, opening.id, k))
                elif same or (away <= MOST_SHIFTED and _alike(opening, found)):
                    pairs.append((0.0 if same else away, away, opening.id, k))
        goals: dict[str, int] = {}
        for _, _, id, k in sorted(pairs):
            if id not in goals and k not in goals.values():
                goals[id] = k
        return goals

    def _bring(self, opening: Opening, k: int, at: Point) -> None:
        out, before = self.out, self.before
        found = self.plan.openings[k]
        home = min(out.walls[found.wall], key=lambda one: _outside(one.line, at))
        along = home.line.along(at)
        distance = along if opening.end == "start" else home.line.length - along
        away = _apart(home.line, _place(out.project, opening), at)
        wall = out.project.walls_by_id[opening.wall]
        still = wall_axis(before, before.walls_by_id[opening.wall]) == wall_axis(out.project, wall)
        far = away > (SAME_OPENING if still else FOLLOWED)
        wider = found.width - before.design_of(opening).width
        wider = wider if abs(wider) > WIDER else 0.0
        if not far and not wider:
            return
        was = _apart(home.line, _place(before, opening), at)
        if was > FOLLOWED or wider:
            out.moved.append(Moved("opening", opening.id, k, was, _ends(before, opening), wider))
            if opening.id in self.left:
                return
        changes: dict[str, Any] = {"wall": home.id, "distance": distance} if far else {}
        if wider:
            changes["width"] = round(found.width, 2)
        edit = PutOpening(opening=changed(opening, **changes))
        out.project = edit.apply(out.project)
        out.edits.append(edit)


def _apart(line: Axis, a: Point, b: Point) -> float:
    """How far two points are apart along a wall (mm)."""
    return abs(line.along(a) - line.along(b))


def _outside(line: Axis, at: Point) -> float:
    along = line.along(at)
    return max(-along, along - line.length, 0.0)


def _alike(opening: Opening, found: FoundOpening) -> bool:
    return (opening.unit == "window") == (found.kind == "window")


def _place(project: Project, opening: Opening) -> Point:
    axis = wall_axis(project, project.walls_by_id[opening.wall])
    return axis.at(along_from_start(opening, axis.length))


def _ends(project: Project, opening: Opening) -> tuple[Point, Point]:
    axis = wall_axis(project, project.walls_by_id[opening.wall])
    along = along_from_start(opening, axis.length)
    half = project.design_of(opening).width / 2
    return axis.at(along - half), axis.at(along + half)
