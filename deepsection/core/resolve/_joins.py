"""How walls end where they meet, in the plane: one cap per wall end and layer role.

A cap is a short chain of points across the wall, from its left face to its right face as seen from
the joint along the wall. Structure runs through or butts; what lies outside and inside of it is
mitred on the corner of the structure, so that layers of different thickness leave no gap.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..geometry import Line, Point, meet, offset_line

LONGEST_MITRE = 12.0
"""A mitre longer than this many wall thicknesses is squared off instead."""


@dataclass(frozen=True, slots=True)
class Arm:
    """One wall end at a joint: the line outward from the joint, and faces as distances to its left."""

    wall: str
    end: str
    line: Line
    left: float
    right: float
    frame_left: float
    frame_right: float
    leaves: int = 1
    """How many structure layers it has: a cavity wall has two, which are mitred, each on its own."""

    @property
    def angle(self) -> float:
        return math.atan2(self.line.dy, self.line.dx)

    def point(self, left: float, along: float = 0.0) -> Point:
        """The point at a distance to the left of the line."""
        x, y = offset_line(self.line, left).at(along)
        return x, y


@dataclass(frozen=True, slots=True)
class Cap:
    """The end of a wall: for its structure, and for the layers around it."""

    frame: tuple[Point, ...]
    skin: tuple[Point, ...]


def square_cap(arm: Arm) -> Cap:
    """An end at right angles."""
    points = (arm.point(arm.left), arm.point(arm.right))
    return Cap(points, points)


def corner_caps(arms: list[Arm]) -> dict[tuple[str, str], Cap]:
    """Caps of all wall ends that share a free joint."""
    if len(arms) == 1:
        return {(arms[0].wall, arms[0].end): square_cap(arms[0])}
    around = sorted(arms, key=lambda arm: arm.angle)
    caps: dict[tuple[str, str], Cap] = {}
    for index, arm in enumerate(around):
        ahead, behind = around[(index + 1) % len(around)], around[index - 1]
        left = _corner(arm, arm.left, ahead, ahead.right)
        right = _corner(arm, arm.right, behind, behind.left)
        frame_left = _corner(arm, arm.frame_left, ahead, ahead.frame_right)
        frame_right = _corner(arm, arm.frame_right, behind, behind.frame_left)
        middle = ((arm.line.x, arm.line.y),) if len(around) > 2 else ()
        skin = (left, frame_left, *middle, frame_right, right)
        frame: tuple[Point, ...] = (frame_left, *middle, frame_right)
        if max(held.leaves for held in around) > 1:
            frame = skin
        elif len(around) == 2:
            frame = _through_or_butt(arm, ahead) or frame
        caps[arm.wall, arm.end] = Cap(frame, skin)
    return caps


def _corner(arm: Arm, left: float, other: Arm, other_left: float) -> Point:
    point = meet(offset_line(arm.line, left), offset_line(other.line, other_left))
    reach = LONGEST_MITRE * max(arm.left - arm.right, other.left - other.right)
    if point is None or math.dist(point, (arm.line.x, arm.line.y)) > reach:
        return arm.point(left)
    return point


def _through_or_butt(arm: Arm, other: Arm) -> tuple[Point, ...] | None:
    """Structure at a corner: the wall that comes first by id runs through, the other butts."""
    alongs = []
    for face in (other.frame_left, other.frame_right):
        crossing = meet(arm.line, offset_line(other.line, face))
        if crossing is None:
            return None
        alongs.append(arm.line.along(crossing))
    if max(map(abs, alongs)) > LONGEST_MITRE * (other.frame_left - other.frame_right):
        return None
    near = max(alongs) if (arm.wall, arm.end) > (other.wall, other.end) else min(alongs)
    face = other.frame_left if alongs[0] == near else other.frame_right
    line = offset_line(other.line, face)
    ends = [meet(offset_line(arm.line, offset), line) for offset in (arm.frame_left, arm.frame_right)]
    return None if ends[0] is None or ends[1] is None else (ends[0], ends[1])


def tee_cap(arm: Arm, host: Line, faces: tuple[float, float], frames: tuple[float, float]) -> Cap:
    """The end of a wall on a host: structure up to structure, the rest up to the host's face.

    `faces` and `frames` are the host's distances to the left of its line: (left, right).
    """
    from_left = host.left_of(arm.line.at(1000.0)) > 0
    face = offset_line(host, faces[0] if from_left else faces[1])
    frame = offset_line(host, frames[0] if from_left else frames[1])

    def across(line: Line) -> tuple[Point, ...]:
        ends = [meet(offset_line(arm.line, offset), line) for offset in (arm.left, arm.right)]
        return tuple(end for end in ends if end is not None)

    skin, inner = across(face), across(frame)
    return Cap(inner, skin) if len(skin) == 2 and len(inner) == 2 else square_cap(arm)
