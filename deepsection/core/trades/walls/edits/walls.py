"""Edits of walls: drawn in chains, moved, flipped, built otherwise."""

from __future__ import annotations

import itertools
import math
from collections import defaultdict
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from ....document.command import Command
from ....document.putting import PutElement
from ....document.rebuilding import changed, get_element, put
from ....document.values import Element, Id, Mm, Positive
from ....errors import RefusedEdit
from ....geometry import Axis, Point
from ....model.places import joint_point, wall_axis, wall_points
from ....model.project import Project
from ....tolerance import TOL
from ...levels.model import BaseRule
from ...makeups.model import MakeUp
from ...openings.model import Opening
from ..bands import set_out_layer
from ..model import Bulge, FreeJoint, Joint, SetOut, TeeJoint, TopRule, Wall


class PutJoint(PutElement):
    kind: Literal["put_joint"] = "put_joint"
    phrase: ClassVar[str] = "change a joint"
    joint: Joint


class PutWall(PutElement):
    kind: Literal["put_wall"] = "put_wall"
    phrase: ClassVar[str] = "change a wall"
    wall: Wall


class DrawWalls(Command):
    """A chain of walls through joints, new ones given here; closed when it returns to its first.

    A closed chain has its outside on the outside of the loop; an open one on the left. `flipped` puts it
    on the other side. `bulges`, one per wall, bend some of them into arcs.
    """

    kind: Literal["draw_walls"] = "draw_walls"
    phrase: ClassVar[str] = "draw walls"
    joints: tuple[Joint, ...] = ()
    chain: Annotated[tuple[Id, ...], Field(min_length=2)]
    walls: Annotated[tuple[Id, ...], Field(min_length=1)]
    bulges: tuple[Bulge, ...] = ()
    flipped: bool = False
    make_up: Id
    status: Literal["outer", "inner"] = "outer"
    base: Id
    top: Id

    def apply(self, project: Project) -> Project:
        """The project with the chain built. Raises: RefusedEdit."""
        if len(self.walls) != len(self.chain) - 1:
            raise RefusedEdit("a chain of walls has one wall between each two joints", field="walls")
        if self.bulges and len(self.bulges) != len(self.walls):
            raise RefusedEdit("a chain with arcs has one bulge for each wall", field="bulges")
        bulges = self.bulges or (0.0,) * len(self.walls)
        make_up = next((known for known in project.make_ups if known.id == self.make_up), None)
        if make_up is None:
            raise RefusedEdit(f"no make-up is called “{self.make_up}”", field="make_up")
        staged = put(project, *self.joints) if self.joints else project
        points = [self._point(staged, id) for id in self.chain]
        closed = self.chain[0] == self.chain[-1]
        inside_left = closed and _area(points, bulges) > 0
        outside: Literal["left", "right"] = "right" if inside_left != self.flipped else "left"
        for index, (start, end) in enumerate(itertools.pairwise(points)):
            if math.dist(start, end) < 1.0:
                raise RefusedEdit(
                    "a wall needs a length", element=self.walls[index], field="length", value=0.0, limit=1.0
                )
        walls = [
            Wall(
                id=id,
                start=start,
                end=end,
                bulge=bulge,
                make_up=make_up.id,
                set_out=default_set_out(make_up, self.status),
                outside=outside,
                status=self.status,
                base=BaseRule(level=self.base),
                top=TopRule(kind="roof" if self.status == "outer" else "level", level=self.top),
            )
            for id, start, end, bulge in zip(self.walls, self.chain, self.chain[1:], bulges)
        ]
        return put(staged, *walls)

    @staticmethod
    def _point(project: Project, id: str) -> tuple[float, float]:
        if all(joint.id != id for joint in project.joints):
            raise RefusedEdit(f"no joint is called “{id}”", field="chain", value=id)
        return joint_point(project, id)


def default_set_out(make_up: MakeUp, status: str) -> SetOut:
    """The usual set-out face: outside of the frame that bears; the middle of it for inner walls."""
    layer = make_up.layers[set_out_layer(make_up)]
    return SetOut(layer=layer.id, face="outer" if status == "outer" else "middle")


def _area(points: list[Point], bulges: tuple[float, ...]) -> float:
    """Signed area (mm2) within a ring of lines and arcs."""
    pieces = [Axis(a, b, bulge).points() for (a, b), bulge in zip(itertools.pairwise(points), bulges)]
    ring = [point for piece in pieces for point in piece]
    return sum(a[0] * b[1] - b[0] * a[1] for a, b in itertools.pairwise(ring)) / 2


class MoveJoint(Command):
    """A joint moved to a point; a hosted one slides along its wall to the nearest place."""

    kind: Literal["move_joint"] = "move_joint"
    phrase: ClassVar[str] = "move a corner"
    joint: Id
    x: Mm
    y: Mm

    def apply(self, project: Project) -> Project:
        """The project with the joint moved. Raises: RefusedEdit, UnknownElement."""
        if project.collection_of(self.joint) != "joints":
            raise RefusedEdit("only a joint can be moved to a point", element=self.joint)
        return with_joints_at(project, {self.joint: (self.x, self.y)})


class JointAt(Element):
    """A joint, and the point that it goes to."""

    joint: Id
    x: Mm
    y: Mm


class MoveJoints(Command):
    """Several joints moved to their points at once, as when a plan was drawn anew."""

    kind: Literal["move_joints"] = "move_joints"
    phrase: ClassVar[str] = "move corners"
    joints: Annotated[tuple[JointAt, ...], Field(min_length=1)]

    def apply(self, project: Project) -> Project:
        """The project with the joints moved. Raises: RefusedEdit, UnknownElement."""
        for held in self.joints:
            if project.collection_of(held.joint) != "joints":
                raise RefusedEdit("only a joint can be moved to a point", element=held.joint)
        return with_joints_at(project, {held.joint: (held.x, held.y) for held in self.joints})


class MoveWall(Command):
    """A wall shifted in plan; walls that share its joints stretch.

    One piece of a side that is parted by bays takes the whole side along, but for `alone`.
    """

    kind: Literal["move_wall"] = "move_wall"
    phrase: ClassVar[str] = "move a wall"
    wall: Id
    dx: Mm
    dy: Mm
    alone: bool = False

    def apply(self, project: Project) -> Project:
        """The project with both joints of the wall shifted. Raises: RefusedEdit, UnknownElement."""
        wall = get_element(project, self.wall, Wall)
        walls = [wall] if self.alone else side_of(project, wall)
        return with_joints_at(project, _shifted(project, walls, (self.dx, self.dy)))


MOST_OF_A_BAY = 5
"""A bay has at most so many walls."""


def side_of(project: Project, wall: Wall) -> list[Wall]:
    """A wall with the other pieces of its side: those on its line, of its make-up, that bays part it from."""
    if wall.bulge:
        return [wall]
    line = wall_axis(project, wall)

    def on_line(other: Wall) -> bool:
        ends = wall_points(project, other)
        return not other.bulge and all(abs(line.left_of(end)) < 1.0 for end in ends)

    alike = [w for w in project.walls if (w.base.level, w.make_up) == (wall.base.level, wall.make_up)]
    meeting: dict[str, list[Wall]] = {}
    for other in alike:
        for joint in (other.start, other.end):
            meeting.setdefault(joint, []).append(other)
    found, ends = {wall.id: wall}, [wall.start, wall.end]
    while ends:
        joint, bay = ends.pop(), list[Wall]()
        for _ in range(MOST_OF_A_BAY):
            taken = {held.id for held in (*found.values(), *bay)}
            ways = [other for other in meeting[joint] if other.id not in taken]
            if len(ways) != 1:
                break
            after = ways[0]
            joint = after.end if after.start == joint else after.start
            if on_line(after):
                found.update({held.id: held for held in (*bay, after)})
                ends.append(joint)
                break
            bay.append(after)
    return list(found.values())


class SetWallLength(Command):
    """Another length for a wall, joint to joint: the walls across its end move along, so that corners stay square.

    An end that stands on another wall stays; then the start moves.
    """

    kind: Literal["set_wall_length"] = "set_wall_length"
    phrase: ClassVar[str] = "change the length of a wall"
    wall: Id
    length: Positive

    def apply(self, project: Project) -> Project:
        """The project with the wall of this length. Raises: RefusedEdit, UnknownElement."""
        wall = get_element(project, self.wall, Wall)
        free = {joint.id for joint in project.joints if isinstance(joint, FreeJoint)}
        if wall.end not in free and wall.start not in free:
            raise RefusedEdit(
                "both ends of this wall stand on other walls; move those instead", element=wall.id, field="length"
            )
        stays, goes = (wall.start, wall.end) if wall.end in free else (wall.end, wall.start)
        (x0, y0), (x1, y1) = joint_point(project, stays), joint_point(project, goes)
        more = self.length / wall_axis(project, wall).length - 1
        shift = ((x1 - x0) * more, (y1 - y0) * more)
        across = [
            other
            for other in project.walls
            if goes in (other.start, other.end) and other.id != wall.id and not _parallel(project, wall, other)
        ]
        targets = {goes: (x1 + shift[0], y1 + shift[1]), **_shifted(project, across, shift)}
        targets.pop(stays, None)
        return with_joints_at(project, targets)


def _shifted(project: Project, walls: list[Wall], by: Point) -> dict[str, Point]:
    """Where the joints of walls come to lie when these are shifted."""
    targets = {}
    for wall in walls:
        for id, (x, y) in zip((wall.start, wall.end), wall_points(project, wall)):
            targets[id] = (x + by[0], y + by[1])
    return targets


def _parallel(project: Project, first: Wall, second: Wall) -> bool:
    """Whether the chords of two walls are parallel."""
    (a, b), (c, d) = wall_points(project, first), wall_points(project, second)
    cross = (b[0] - a[0]) * (d[1] - c[1]) - (b[1] - a[1]) * (d[0] - c[0])
    return abs(cross) < TOL.parallel * math.dist(a, b) * math.dist(c, d)


def with_joints_at(project: Project, targets: dict[str, Point]) -> Project:
    """The project with joints moved. What stands on a wall that stretches keeps its place in plan.

    Free joints go where they are told; hosted ones to the nearest place on their wall.
    """
    free = [
        changed(joint, x=targets[joint.id][0], y=targets[joint.id][1])
        for joint in project.joints
        if isinstance(joint, FreeJoint) and joint.id in targets
    ]
    staged = put(project, *free) if free else project
    ends: dict[str, set[str]] = defaultdict(set)
    for wall in project.walls:
        ends[wall.start].add(wall.id)
        ends[wall.end].add(wall.id)
    stretched = {wall.id for wall in project.walls if wall.start in targets or wall.end in targets}
    for joints in _hosts_first(project):
        moved = []
        for joint in joints:
            if joint.id not in targets and joint.wall not in stretched:
                continue
            place = targets.get(joint.id) or joint_point(project, joint.id)
            distance = _nearest(staged, staged.walls_by_id[joint.wall], joint, place)
            stretched |= ends[joint.id]
            if abs(distance - joint.distance) > TOL.grid:
                moved.append(changed(joint, distance=distance))
        staged = put(staged, *moved) if moved else staged
    return staged


def _hosts_first(project: Project) -> list[list[TeeJoint]]:
    """Hosted joints in groups, those that a host's own ends depend on before those that stand on it."""
    joints, walls = project.joints_by_id, project.walls_by_id

    def depth(id: str) -> int:
        joint = joints[id]
        if isinstance(joint, FreeJoint):
            return 0
        return 1 + max(depth(walls[joint.wall].start), depth(walls[joint.wall].end))

    groups: dict[int, list[TeeJoint]] = defaultdict(list)
    for joint in project.joints:
        if isinstance(joint, TeeJoint):
            groups[depth(joint.id)].append(joint)
    return [groups[key] for key in sorted(groups)]


def _nearest(project: Project, host: Wall, joint: TeeJoint, to: Point) -> float:
    """Distance from its named end to the place on the host that is nearest to a point."""
    axis = wall_axis(project, host)
    if joint.end == "end":
        axis = axis.reversed()
    return min(max(axis.along(to), 0.0), axis.length) if axis.chord > TOL.point else 0.0


class FlipWall(Command):
    """The outside of a wall put on the other side of its line."""

    kind: Literal["flip_wall"] = "flip_wall"
    phrase: ClassVar[str] = "flip a wall"
    wall: Id

    def apply(self, project: Project) -> Project:
        """The project with the wall flipped. Raises: UnknownElement."""
        wall = get_element(project, self.wall, Wall)
        return put(project, changed(wall, outside="right" if wall.outside == "left" else "left"))


class UseMakeUp(Command):
    """Another make-up for a wall, on its usual set-out face; openings measure set-in from the frame."""

    kind: Literal["use_make_up"] = "use_make_up"
    phrase: ClassVar[str] = "choose a make-up"
    wall: Id
    make_up: Id

    def apply(self, project: Project) -> Project:
        """The project with the wall built otherwise. Raises: RefusedEdit, UnknownElement."""
        wall, make_up = get_element(project, self.wall, Wall), project.find(self.make_up)
        if not isinstance(make_up, MakeUp) or make_up.use != "wall":
            raise RefusedEdit("that make-up is not one for walls", element=self.wall, field="make_up")
        layers = {layer.id for layer in make_up.layers}
        openings = [
            changed(opening, set_in=changed_set_in(opening, layers))
            for opening in project.openings
            if opening.wall == wall.id
        ]
        set_out = default_set_out(make_up, wall.status)
        return put(project, changed(wall, make_up=make_up.id, set_out=set_out), *openings)


def changed_set_in(opening: Opening, layers: set[str]) -> Any:
    """The set-in of an opening, measured from the whole wall when its layer is gone."""
    keep = opening.set_in.layer is None or opening.set_in.layer in layers
    return opening.set_in if keep else type(opening.set_in)()
