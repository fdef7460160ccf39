"""A plan that is read again: what lies elsewhere in it now is brought there, and what it no longer has is told."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

import numpy as np

from ..document.rebuilding import changed
from ..edits import JointAt, MoveJoints, PutOpening
from ..errors import RefusedEdit
from ..geometry import Axis, Point
from ..model import Opening, Project, TeeJoint, along_from_start, joint_point, wall_axis
from ..reading import FoundOpening, FoundWall, ReadPlan
from .there import BESIDE, SAME_OPENING, TURNED, Stands, covered, drawn_axis, standing_walls, there

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

    `walls`: for walls of the plan, by number, what stands for them then; `openings`: those of it that stand; `stay`:
    walls of it whose walls stay elsewhere.
    """

    project: Project
    edits: list[Any] = field(default_factory=list)
    moved: list[Moved] = field(default_factory=list)
    gone: list[Gone] = field(default_factory=list)
    walls: dict[int, list[Stands]] = field(default_factory=dict)
    openings: set[int] = field(default_factory=set)
    stay: set[int] = field(default_factory=set)
    refused: list[str] = field(default_factory=list)


def reread(project: Project, plan: ReadPlan, levels: Mapping[int, str], left: frozenset[str]) -> Reread:
    """How a project follows a plan that it has been built from before, on the levels of its storeys by position.

    `left` are the ids of what stays where it is.
    """
    out = Reread(project)
    for place, level in levels.items():
        storey = plan.storeys[place]
        drawn = {k: plan.walls[k] for k in storey.walls}
        _walls(out, drawn, level, storey.shift, left)
        _openings(out, project, plan, drawn, level, storey.shift, left)
    return out


def _walls(out: Reread, drawn: Mapping[int, FoundWall], level: str, shift: Point, left: frozenset[str]) -> None:
    before = standing_walls(out.project, level)
    found = there(before, drawn, shift)
    used = {one.id for on in found.values() for one in on}
    new = {k: wall for k, wall in drawn.items() if k not in found}
    outer = {wall.id for wall in out.project.walls if wall.status == "outer"}
    pairs = sorted(
        (abs(off) + PARTLY * abs(_beside(one, axis) - 1.0), one.id, k)
        for one in before
        if one.id not in used
        for k, wall in new.items()
        if wall.outer == (one.id in outer)
        for axis in (drawn_axis(wall, shift),)
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
    for id, k in goals.items():
        if k not in found and k not in out.stay:
            # It is not built over the one that stands; what lies on that follows all the same.
            out.walls[k] = [one for one in after if one.id == id]
            out.refused.append("a wall is longer in the file than it stands: stretch it on the plan")
    used = {one.id for on in found.values() for one in on} | set(goals)
    out.gone += [Gone("wall", one.id, tuple(one.axis.points())) for one in after if one.id not in used]


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


def _openings(
    out: Reread,
    before: Project,
    plan: ReadPlan,
    drawn: Mapping[int, FoundWall],
    level: str,
    shift: Point,
    left: frozenset[str],
) -> None:
    hosts = {one.id: k for k, on in out.walls.items() if k in drawn for one in on}
    lines = {one.id: one.line for k, on in out.walls.items() if k in drawn for one in on}
    held = [opening for opening in out.project.openings if opening.wall in hosts]
    places = {opening.id: _place(before, opening) for opening in held}
    shown = {
        k: drawn_axis(plan.walls[o.wall], shift).at(o.distance) for k, o in enumerate(plan.openings) if o.wall in drawn
    }
    pairs = sorted(
        (0.0 if same else away, away, opening.id, k)
        for opening in held
        for k, at in shown.items()
        if plan.openings[k].wall == hosts[opening.wall]
        for away in (_apart(lines[opening.wall], places[opening.id], at),)
        for same in (bool(plan.openings[k].number) and plan.openings[k].number == out.project.number_of(opening),)
        if same or (away <= MOST_SHIFTED and _alike(opening, plan.openings[k]))
    )
    goals: dict[str, int] = {}
    for _, _, id, k in pairs:
        if id not in goals and k not in goals.values():
            goals[id] = k
    out.openings |= set(goals.values())
    for opening in held:
        if opening.id not in goals:
            out.gone.append(Gone("opening", opening.id, _ends(out.project, opening)))
            continue
        _follow(out, before, opening, goals[opening.id], plan, shown[goals[opening.id]], left)


def _follow(
    out: Reread,
    before: Project,
    opening: Opening,
    k: int,
    plan: ReadPlan,
    at: Point,
    left: frozenset[str],
) -> None:
    found = plan.openings[k]
    on = out.walls[found.wall]
    home = min(on, key=lambda one: _outside(one.line, at))
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
        if opening.id in left:
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
