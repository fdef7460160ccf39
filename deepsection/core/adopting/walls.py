"""Walls that were read, as walls that stand: joints on set-out lines, one for each corner, tees on their hosts."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from ..geometry import Axis, Point, crossing
from ..model import FreeJoint, Joint, MakeUp, TeeJoint
from ..reading import FoundWall
from ..trades.levels.model import BaseRule
from ..trades.walls.bands import layer_bands
from ..trades.walls.edits.walls import default_set_out
from ..trades.walls.model import TopRule, Wall
from .make_ups import thickness_of
from .there import Stands, drawn_axis

ONE = 4.0
"""Ends of walls this close together (mm) share a joint."""
SHARED = 40.0
"""A new wall ends at a joint of the project that lies this near to where it meets a wall (mm)."""
LEVEL = 0.35
"""The sine of the angle below which two walls run on in one direction."""


@dataclass(frozen=True, slots=True)
class Heights:
    """The levels between which the walls of a storey stand."""

    base: str
    top: str


@dataclass(slots=True)
class Piece:
    """A wall that was read, or what is left of it between others that pass through it: from lo to hi of its axis.

    `tees` are the numbers of the walls that its start and end stand on. The set-out line lies `left` of its axis.
    """

    number: int
    found: FoundWall
    axis: Axis
    make_up: MakeUp
    left: float
    lo: float
    hi: float
    tees: list[int | None]
    id: str
    moved: float = 0.0
    """How far to the left its line lies from where its make-up would have it; what is built stays in its place."""


@dataclass(slots=True)
class Built:
    """Joints and walls to be put; `of` tells for the number of each wall that was read what stands for it."""

    joints: list[Joint]
    walls: list[Wall]
    of: dict[int, list[Stood]]


@dataclass(frozen=True, slots=True)
class Stood:
    """A wall that stands for a piece of one that was read: from lo to hi of its axis, set out along `line`."""

    id: str
    axis: Axis
    lo: float
    hi: float
    line: Axis


def built(
    walls: Mapping[int, FoundWall],
    make_ups: Mapping[int, MakeUp],
    prefix: str,
    heights: Heights,
    shift: Point,
    stands: Mapping[int, Sequence[Stands]],
) -> Built:
    """The walls of one storey by number; what each meets is told by `FoundWall.start_on`, where that is here.

    `stands` are walls of the project that stand for others of the plan: new ones may end on them.
    """
    pieces = _pieces(walls, make_ups, prefix, shift)
    hosts = _hosts(pieces)
    out = Built([], [], defaultdict(list))
    names: dict[tuple[int, int], str] = {}
    spots: dict[str, Point] = {}

    def joint(joint: Joint, place: Point, *members: tuple[int, int]) -> None:
        out.joints.append(joint)
        spots[joint.id] = place
        names.update(dict.fromkeys(members, joint.id))

    ends = {(k, end): piece.axis.at((piece.lo, piece.hi)[end]) for k, piece in enumerate(pieces) for end in (0, 1)}
    for (k, end), at in ends.items():
        on = _on_standing(pieces[k], end, at, stands) if (k, end) not in hosts else None
        if on is None:
            continue
        place, held, shared = on
        if shared:
            names[k, end], spots[shared] = shared, place
        else:
            id = f"{prefix}-joint{len(out.joints) + 1}"
            joint(TeeJoint(id=id, wall=held.id, end="start", distance=held.line.along(place)), place, (k, end))
    for members in _corners([key for key in ends if key not in hosts and key not in names], ends):
        place = _corner([pieces[k] for k, _ in members], ends[members[0]])
        stays = [key for key in members if _drawn_to(pieces[key[0]], place, alone=(key[0], 1 - key[1]) in hosts)]
        joint(FreeJoint(id=f"{prefix}-joint{len(out.joints) + 1}", x=place[0], y=place[1]), place, *stays)
        for k, end in members:
            if (k, end) not in stays:
                own = pieces[k].axis.at((pieces[k].lo, pieces[k].hi)[end], pieces[k].left)
                joint(FreeJoint(id=f"{prefix}-joint{len(out.joints) + 1}", x=own[0], y=own[1]), own, (k, end))
    for k in _hosts_first(len(pieces), hosts):
        for end in (0, 1):
            if (k, end) in hosts:
                piece, host = pieces[k], pieces[hosts[k, end]]
                place = _on(piece, host, ends[k, end])
                id = f"{prefix}-joint{len(out.joints) + 1}"
                line = [spots.get(names.get((hosts[k, end], at), "")) for at in (0, 1)]
                joint(_tee(id, host, place, line), place, (k, end))
    for k, piece in enumerate(pieces):
        first, last = names[k, 0], names[k, 1]
        if first != last and math.dist(spots[first], spots[last]) > 1.0:
            bulge = _bulge(piece, spots[first], spots[last])
            wall = _wall(piece.id, (first, last), piece.found, piece.make_up, heights, bulge)
            off = -piece.moved if piece.found.outside == "left" else piece.moved
            out.walls.append(wall.model_copy(update={"offset": round(off, 6)}) if piece.moved else wall)
            set_out = Axis(spots[first], spots[last], bulge)
            out.of[piece.number].append(Stood(piece.id, piece.axis, piece.lo, piece.hi, set_out))
    standing = {wall.id for wall in out.walls} | {held.id for on in stands.values() for held in on}
    out.joints = [
        FreeJoint(id=held.id, x=spots[held.id][0], y=spots[held.id][1])
        if isinstance(held, TeeJoint) and held.wall not in standing
        else held
        for held in out.joints
    ]
    used = {id for wall in out.walls for id in (wall.start, wall.end)}
    out.joints = [held for held in out.joints if held.id in used]
    return out


def _pieces(walls: Mapping[int, FoundWall], make_ups: Mapping[int, MakeUp], prefix: str, shift: Point) -> list[Piece]:
    whole = []
    for number, found in walls.items():
        axis = drawn_axis(found, shift)
        tees = [on.wall if on.kind == "tee" and on.wall in walls else None for on in (found.start_on, found.end_on)]
        left = _set_out(found, make_ups[number])
        whole.append(
            Piece(number, found, axis, make_ups[number], left, 0.0, axis.length, tees, f"{prefix}-wall{number + 1}")
        )
    cuts: dict[int, list[tuple[float, int]]] = defaultdict(list)
    for k, one in enumerate(whole):
        for n in range(k + 1, len(whole)):
            other = whole[n]
            at = _crossed(one, other)
            if at is not None:
                less, more, along = (k, n, at[0]) if _rank(one) <= _rank(other) else (n, k, at[1])
                cuts[less].append((along, whole[more].number))
    pieces = []
    for k, one in enumerate(whole):
        lo, first = 0.0, one.tees[0]
        for n, (along, through) in enumerate(sorted(cuts.get(k, ()))):
            id = one.id if n == 0 else f"{one.id}-{n + 1}"
            pieces.append(
                Piece(one.number, one.found, one.axis, one.make_up, one.left, lo, along, [first, through], id)
            )
            lo, first = along, through
        id = one.id if k not in cuts else f"{one.id}-{len(cuts[k]) + 1}"
        pieces.append(
            Piece(one.number, one.found, one.axis, one.make_up, one.left, lo, one.hi, [first, one.tees[1]], id)
        )
    return pieces


def _rank(piece: Piece) -> tuple[bool, float, float]:
    """Which of two walls that cross passes: the outer, the thicker, the longer."""
    return piece.found.outer, piece.found.thickness, piece.axis.length


def _crossed(one: Piece, other: Piece) -> tuple[float, float] | None:
    """Where two straight walls cross between their ends, along each."""
    if one.found.bulge or other.found.bulge:
        return None
    place = crossing(one.axis.face(0.0), other.axis.face(0.0), one.axis.start)
    if place is None:
        return None
    along = one.axis.along(place), other.axis.along(place)
    room = (other.found.thickness, one.found.thickness)
    inside = all(more < at < held.hi - more for at, held, more in zip(along, (one, other), room))
    return along if inside else None


def _set_out(found: FoundWall, make_up: MakeUp) -> float:
    """How far to the left of its axis a wall's set-out line lies; the axis stays the middle, however thick it becomes.

    A wall that was drawn as one line is set out on that.
    """
    if not found.thickness:
        return 0.0
    outer = layer_bands(_wall("w", ("a", "b"), found, make_up, Heights("l", "t"), 0.0), make_up)[0].outer
    out = thickness_of(make_up) / 2 - outer
    return out if found.outside == "left" else -out


def _wall(id: str, joints: tuple[str, str], found: FoundWall, make_up: MakeUp, heights: Heights, bulge: float) -> Wall:
    status: Literal["outer", "inner"] = "outer" if found.outer else "inner"
    return Wall(
        id=id,
        start=joints[0],
        end=joints[1],
        bulge=bulge,
        make_up=make_up.id,
        set_out=default_set_out(make_up, status),
        outside=found.outside,
        status=status,
        base=BaseRule(level=heights.base),
        top=TopRule(kind="roof" if found.outer else "level", level=heights.top),
    )


def _bulge(piece: Piece, start: Point, end: Point) -> float:
    """That of the arc about the same centre, between its joints."""
    centre = piece.axis.centre
    if not piece.found.bulge or centre is None:
        return 0.0
    turn = math.atan2(end[1] - centre[1], end[0] - centre[0]) - math.atan2(start[1] - centre[1], start[0] - centre[0])
    sweep = turn % math.tau if piece.found.bulge > 0 else -(-turn % math.tau)
    return math.tan(sweep / 4)


def _hosts(pieces: Sequence[Piece]) -> dict[tuple[int, int], int]:
    """For the ends that stand on walls the piece that carries each; of walls that carry each other, one stands free."""
    of: dict[int, list[int]] = defaultdict(list)
    for k, piece in enumerate(pieces):
        of[piece.number].append(k)
    found: dict[tuple[int, int], int] = {}
    for k, piece in enumerate(pieces):
        for end in (0, 1):
            number = piece.tees[end]
            if number is None:
                continue
            at = piece.axis.at((piece.lo, piece.hi)[end])
            for host in of[number]:
                along = pieces[host].axis.along(at)
                if pieces[host].lo - 1.0 <= along <= pieces[host].hi + 1.0:
                    found[k, end] = host
                    break
    for key in sorted(found):
        seen, left = {key[0]}, [found[key]]
        while left:
            here = left.pop()
            if here in seen:
                del found[key]
                break
            left += [found[here, end] for end in (0, 1) if (here, end) in found]
    return found


def _on_standing(
    piece: Piece, end: int, at: Point, stands: Mapping[int, Sequence[Stands]]
) -> tuple[Point, Stands, str] | None:
    """The wall of the project on which a new wall ends, and where; the joint, where that is an end of both."""
    met = (piece.found.start_on, piece.found.end_on)[end]
    for held in stands.get(met.wall, ()) if met.kind != "free" else ():
        place = crossing(piece.axis.face(piece.left), held.line.face(0.0), at)
        if place is None or math.dist(place, at) > 1500.0:
            continue
        for own, id in zip((held.line.start, held.line.end), held.joints):
            if math.dist(own, place) < SHARED:
                return own, held, id
        if 0.0 < held.line.along(place) < held.line.length:
            return place, held, ""
    return None


def _on(piece: Piece, host: Piece, near: Point) -> Point:
    """Where the set-out line of a wall meets that of the one it stands on."""
    place = crossing(piece.axis.face(piece.left), host.axis.face(host.left), near)
    return place if place is not None and math.dist(place, near) < 2000.0 else near


def _tee(id: str, host: Piece, place: Point, line: Sequence[Point | None]) -> Joint:
    """A tee as far along the set-out line of its host as it stands; a free joint where that is not between its ends."""
    start, end = line
    if start is not None and end is not None and start != end:
        axis = Axis(start, end, _bulge(host, start, end))
        along = axis.along(place)
        if 1.0 < along < axis.length - 1.0:
            return TeeJoint(id=id, wall=host.id, end="start", distance=along)
    return FreeJoint(id=id, x=place[0], y=place[1])


def _corners(keys: Sequence[tuple[int, int]], ends: Mapping[tuple[int, int], Point]) -> list[list[tuple[int, int]]]:
    """Ends of walls that lie together."""
    groups: list[list[tuple[int, int]]] = []
    cells: dict[tuple[int, int], list[int]] = defaultdict(list)
    for key in keys:
        x, y = ends[key]
        cell = round(x / ONE), round(y / ONE)
        near = (n for dx in (-1, 0, 1) for dy in (-1, 0, 1) for n in cells[cell[0] + dx, cell[1] + dy])
        home = next((n for n in near if math.dist(ends[groups[n][0]], (x, y)) < ONE), None)
        if home is None:
            home = len(groups)
            groups.append([])
            cells[cell].append(home)
        groups[home].append(key)
    return groups


def _corner(walls: Sequence[Piece], near: Point) -> Point:
    """Where the set-out lines of the walls of a corner cross; at its place where they run on into each other."""
    best: tuple[tuple[int, float], Piece, Piece] | None = None
    for k, one in enumerate(walls):
        for other in walls[k + 1 :]:
            a, b = one.axis.direction(one.axis.along(near)), other.axis.direction(other.axis.along(near))
            sine = abs(a[0] * b[1] - a[1] * b[0])
            worth = one.found.outer + other.found.outer, sine
            if sine > LEVEL and (best is None or worth > best[0]):
                best = worth, one, other
    if best is not None:
        place = crossing(best[1].axis.face(best[1].left), best[2].axis.face(best[2].left), near)
        if place is not None and math.dist(place, near) < 1500.0:
            return place
    first = max(walls, key=lambda wall: wall.found.outer)
    return first.axis.at(first.axis.along(near), first.left)


def _drawn_to(piece: Piece, place: Point, *, alone: bool) -> bool:
    """Whether a wall can end at the joint of a corner: its set-out line does, or is moved beside itself until it does.

    It can be moved when nothing but a tee, which moves with it, is at its other end.
    """
    off = piece.axis.left_of(place) - piece.left
    if abs(off) < 0.5:
        return True
    if piece.found.bulge or not alone or piece.moved:
        return False
    piece.moved, piece.left = off, piece.left + off
    return True


def _hosts_first(count: int, hosts: Mapping[tuple[int, int], int]) -> list[int]:
    done: list[int] = []
    left = list(range(count))
    while left:
        waiting = set(left)
        ready = [k for k in left if all(hosts.get((k, end)) not in waiting for end in (0, 1))] or left[:1]
        done += ready
        left = [k for k in left if k not in set(ready)]
    return done
