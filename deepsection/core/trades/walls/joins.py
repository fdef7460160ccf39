"""How walls end where they meet, in the plane: one cap per wall end and layer role.

A cap is a short chain of points across the wall, from its left face to its right face as seen from
the joint along the wall. Structure runs through or butts; what lies outside and inside of it is
mitred on the corner of the structure, so that layers of different thickness leave no gap.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from ...geometry import Axis, Curve, Line, Point, crossing

LONGEST_MITRE = 12.0
"""A mitre longer than this many wall thicknesses is squared off instead."""
SMOOTH = 1e-4
"""Walls whose directions differ by less (cross product) run on into each other, and are parted square: corners that
were rounded to a thousandth of a millimetre turn walls by less, and a wedge so thin is not seen."""

SQUARISH = 0.5
"""A wall ends on another one at a corner when it goes no nearer along it than this (cosine)."""


@dataclass(frozen=True, slots=True)
class Arm:
    """One wall end at a joint: its line outward from the joint, and faces as distances to its left."""

    wall: str
    end: str
    axis: Axis
    left: float
    right: float
    frame_left: float
    frame_right: float
    mitred: bool = False
    """Whether its structure is mitred at a corner too: faces that lean meet nowhere else."""
    leaves: int = 1
    """How many structure layers it has: a cavity wall has two, which are mitred, each on its own."""
    skew: Axis | None = None
    """Of a tapered wall, the line along which the faces on its inside run."""
    skew_left: bool = False
    """Whether those lie at its left."""

    def line(self, left: float, *, on_left: bool) -> Curve:
        """The face at a distance to the left, which is one of those on the left or on the right of the frame."""
        return (self.skew if self.skew and on_left == self.skew_left else self.axis).face(left)

    @property
    def at(self) -> Point:
        """The joint."""
        return self.axis.start

    @property
    def angle(self) -> float:
        """Where it goes from the joint; of two that touch there, the one that turns right comes first."""
        dx, dy = self.axis.direction(0.0)
        return math.atan2(dy, dx) + self.axis.turn / self.axis.radius() * 1e-3

    def point(self, left: float, *, on_left: bool) -> Point:
        """The point of a face square across from the joint."""
        square = self.axis.at(0.0, left)
        if self.skew is None or on_left != self.skew_left:
            return square
        dx, dy = self.axis.direction(0.0)
        return crossing(self.line(left, on_left=on_left), Line(*self.at, -dy, dx), square) or square


@dataclass(frozen=True, slots=True)
class Cap:
    """The end of a wall: for its structure, and for the layers around it."""

    frame: tuple[Point, ...]
    skin: tuple[Point, ...]


def square_cap(arm: Arm) -> Cap:
    """An end at right angles."""
    points = (arm.point(arm.left, on_left=True), arm.point(arm.right, on_left=False))
    return Cap(points, points)


def corner_caps(arms: list[Arm], through: str | None = None) -> dict[tuple[str, str], Cap]:
    """Caps of all wall ends that share a free joint; of two, the wall that is named `through` passes."""
    if len(arms) == 1:
        return {(arms[0].wall, arms[0].end): square_cap(arms[0])}
    around = sorted(arms, key=lambda arm: arm.angle)
    caps: dict[tuple[str, str], Cap] = {}
    for index, arm in enumerate(around):
        ahead, behind = around[(index + 1) % len(around)], around[index - 1]
        left = _corner(arm, arm.left, ahead, ahead.right, on_left=True)
        right = _corner(arm, arm.right, behind, behind.left, on_left=False)
        frame_left = _corner(arm, arm.frame_left, ahead, ahead.frame_right, on_left=True)
        frame_right = _corner(arm, arm.frame_right, behind, behind.frame_left, on_left=False)
        middle = (arm.at,) if len(around) > 2 else ()
        skin = (left, frame_left, *middle, frame_right, right)
        frame: tuple[Point, ...] = (frame_left, *middle, frame_right)
        if max(held.leaves for held in around) > 1:
            frame = skin
        elif len(around) == 2 and not (arm.mitred or ahead.mitred):
            own, theirs = _through_or_butt(arm, ahead, through), _through_or_butt(ahead, arm, through)
            frame = own if own and theirs else frame
        caps[arm.wall, arm.end] = Cap(frame, skin)
    return caps


def on_corner(arms: list[Arm], outer: frozenset[str]) -> list[tuple[Arm, Arm]]:
    """The walls that end on one of two outer ones at the back of their corner, each with that one; the corner is what
    it would be without them."""
    corner = [arm for arm in arms if arm.wall in outer]
    if len(corner) != 2 or len(arms) == 2:
        return []
    angles = [arm.angle for arm in corner]
    found = ((arm, back_host(arm.angle, (angles[0], angles[1]))) for arm in arms if arm.wall not in outer)
    return [(arm, corner[host]) for arm, host in found if host is not None]


def back_host(angle: float, corner: tuple[float, float]) -> int | None:
    """On which of two walls at a corner, by where they go from it (radians), another one ends that goes away from its
    back, as an inner wall does that runs on with one of them; None where it meets both as walls do."""
    turn = (corner[1] - corner[0]) % math.tau
    if abs(math.sin(turn)) < SMOOTH:
        return None
    first, back = (corner[0], turn) if turn > math.pi else (corner[1], math.tau - turn)
    if not 0.0 < (angle - first) % math.tau < back:
        return None
    along = [abs(math.cos(angle - held)) for held in corner]
    host = along.index(min(along))
    return host if along[host] < SQUARISH else None


def _run_on(arm: Arm, other: Arm) -> bool:
    (ax, ay), (bx, by) = arm.axis.direction(0.0), other.axis.direction(0.0)
    return abs(ax * by - ay * bx) < SMOOTH


def _corner(arm: Arm, left: float, other: Arm, other_left: float, *, on_left: bool) -> Point:
    """Where a face meets that of the next arm, which is its right one when this is a left one."""
    if _run_on(arm, other):
        return arm.point(left, on_left=on_left)
    point = crossing(arm.line(left, on_left=on_left), other.line(other_left, on_left=not on_left), arm.at)
    reach = LONGEST_MITRE * max(arm.left - arm.right, other.left - other.right)
    if point is None or math.dist(point, arm.at) > reach:
        return arm.point(left, on_left=on_left)
    return point


def _through_or_butt(arm: Arm, other: Arm, through: str | None) -> tuple[Point, ...] | None:
    """Structure at a corner: the wall that is named, or else comes first by id, runs through; the other butts.

    None when they cannot, such as where an arc all but touches the other one.
    """
    if _run_on(arm, other):
        return None
    alongs = []
    for face, on_left in ((other.frame_left, True), (other.frame_right, False)):
        point = crossing(arm.axis.face(0.0), other.line(face, on_left=on_left), arm.at)
        if point is None:
            return None
        alongs.append(arm.axis.along(point))
    if max(map(abs, alongs)) > LONGEST_MITRE * (other.frame_left - other.frame_right):
        return None
    butts = (arm.wall, arm.end) > (other.wall, other.end)
    if through in (arm.wall, other.wall):
        butts = through == other.wall
    near = max(alongs) if butts else min(alongs)
    on_left = alongs[0] == near
    axis = other.skew if other.skew and other.skew_left == on_left else other.axis
    return _across(arm, axis, other.frame_left if on_left else other.frame_right, "frame")


def _across(arm: Arm, other: Axis, face: float, of: str) -> tuple[Point, ...] | None:
    """Where a wall's left and right faces end on a face of another wall, and the chords of that face between."""
    offsets = (arm.frame_left, arm.frame_right) if of == "frame" else (arm.left, arm.right)
    near = crossing(arm.axis.face(sum(offsets) / 2), other.face(face), arm.at) or arm.at
    left, right = (
        crossing(arm.line(offset, on_left=on_left), other.face(face), near)
        for offset, on_left in zip(offsets, (True, False))
    )
    reach = LONGEST_MITRE * (max(map(abs, offsets)) + abs(face)) + arm.left - arm.right
    if left is None or right is None or max(math.dist(left, arm.at), math.dist(right, arm.at)) > reach:
        return None
    first, last = other.along(left), other.along(right)
    between = [other.at(along, face) for along in other.stations(min(first, last), max(first, last))]
    return (left, *(between if first < last else between[::-1]), right)


def tee_cap(arm: Arm, host: Arm) -> Cap:
    """The end of a wall on a host (as seen from its start): structure up to structure, the rest up to its face."""
    from_left = host.axis.left_of(arm.axis.at(min(1000.0, arm.axis.length / 2))) > 0
    axis = host.skew if host.skew and host.skew_left == from_left else host.axis
    skin = _across(arm, axis, host.left if from_left else host.right, "skin")
    inner = _across(arm, axis, host.frame_left if from_left else host.frame_right, "skin")
    return Cap(inner, skin) if skin and inner else square_cap(arm)
