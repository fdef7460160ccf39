"""A plan that was read becomes edits: make-ups, walls, openings, rooms, grid lines, storey by storey."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from shapely.geometry import Point as Spot

from ..document.motion import Motion
from ..edits import PutGrid, PutJoint, PutMakeUp, PutOpening, PutPlanRead, PutRoom, PutStair, PutWall, Remove
from ..errors import BadInput
from ..geometry import Point
from ..model import GridLine, MakeUp, Opening, Project, Room
from ..reading import FoundOpening, FoundWall, ReadPlan, hull_of
from ..trades.levels.place import storeys
from .changed import Gone, Moved, reread
from .laid import laid
from .make_ups import AS_DRAWN, groups_of, key_of, made_to_measure
from .over import laid_over
from .remembered import Own, last_reads, read_now
from .stairs import stairs_built
from .storeys import with_storeys
from .there import Stands, drawn_axis
from .walls import Heights, Stood, built

DOOR_HEAD, WINDOW_HEAD, WINDOW_HEIGHT = 2100.0, 2100.0, 1200.0
"""Heights that a plan does not tell (mm). Common practice, no source."""
NO_NAME = 40
RENAMED = 100.0
"""A room whose name stands so near to one of the plan (mm) is that, whatever it is called."""
AROUND = 500.0
"""What lies so near to the walls of a plan (mm) is of it."""
NEW = "+"
"""Chosen as the level of a plan: the storey that is made for it."""


@dataclass(frozen=True, slots=True)
class Choices:
    """What somebody chose of a plan: make-ups by the key of their group, walls and openings left out by position.

    `storeys` names the level of each of its plans, by position; a plan without one is left out.
    """

    make_ups: Mapping[str, str] = field(default_factory=dict)
    without_walls: frozenset[int] = frozenset()
    without_openings: frozenset[int] = frozenset()
    without_stairs: frozenset[int] = frozenset()
    storeys: Mapping[int, str] = field(default_factory=dict)
    rooms: bool = True
    grids: bool = True
    unmoved: frozenset[str] = frozenset()
    """Walls and openings of the project that stay where they are, wherever the file has them."""
    removed: frozenset[str] = frozenset()
    """Those that go, since the file does not have them."""
    back_walls: frozenset[int] = frozenset()
    back_openings: frozenset[int] = frozenset()
    """Those of the plan, by position, that are built or moved although the file had them so when it was read last."""
    turn: float = 0.0
    """By how much the plan is turned where it was not read before (degrees counter-clockwise)."""


@dataclass(slots=True)
class Adopted:
    """The edits, what they build, what of the plan they leave out, in words. `walls` ...: ids by position."""

    edits: list[Any] = field(default_factory=list)
    skipped: list[str] = field(default_factory=list)
    walls: dict[int, str] = field(default_factory=dict)
    openings: dict[int, str] = field(default_factory=dict)
    stairs: dict[int, str] = field(default_factory=dict)
    counts: dict[str, int] = field(default_factory=dict)
    level: str = ""
    """That of the lowest of its plans."""
    model_parts: set[str] = field(default_factory=set)
    """The names of what of a model, besides its walls, is built."""
    placed: dict[int, str] = field(default_factory=dict)
    """The level of each of its plans that is taken over."""
    stands: dict[int, list[Stands]] = field(default_factory=dict)
    """For walls of the plan by number, what stands for them."""
    standing_openings: dict[int, str] = field(default_factory=dict)
    """For openings of the plan by number, what stands for them; nothing where they stay away."""
    away: set[int] = field(default_factory=set)
    """Walls of the plan that stay away, or elsewhere."""
    own: list[Own] = field(default_factory=list)
    laid: Motion = field(default_factory=Motion)
    """How it comes from where the file has it to lie over what was read of it before, or as it was chosen."""
    known: bool = False
    """Whether one of its levels was read before."""
    moved: list[Moved] = field(default_factory=list)
    gone: list[Gone] = field(default_factory=list)


def adopted(project: Project, plan: ReadPlan, choices: Choices, *, prefix: str) -> Adopted:
    """Edits that build a plan into a project; new ids begin with `prefix`. Raises: BadInput where it has no storey."""
    out = Adopted()
    project, levels, said = with_storeys(project, plan)
    out.edits += levels
    out.skipped += said
    placed = _placed(project, plan, choices, out)
    if not placed:
        raise BadInput("no storey of this project is chosen for a plan of the file", field="storeys")
    out.placed = {k: level for k, (level, _) in placed.items()}
    out.level = next(iter(out.placed.values()))
    reads = last_reads(project)
    out.known = any(level in reads for level in out.placed.values())
    out.laid = laid_over(project, plan, out.placed, reads, Motion(turn=choices.turn))
    plan = laid(plan, out.laid)
    back = choices.back_walls, choices.back_openings
    known = reread(project, plan, out.placed, choices.unmoved, reads, back)
    project = known.project
    out.edits += known.edits
    out.skipped += known.refused
    out.stands, out.standing_openings, out.moved, out.gone = known.walls, known.openings, known.moved, known.gone
    out.own, out.away = known.own, known.stay
    away = choices.without_walls | known.walls.keys() | known.stay
    new = {k: wall for k, wall in enumerate(plan.walls) if k not in away}
    ups = _make_ups(project, list(new.values()), choices, prefix, out)
    spots: dict[int, list[Stood]] = {}
    names = {k: [one.id for one in on] for k, on in known.walls.items()}
    numbers = _Numbers(project)
    for place, (level, top) in placed.items():
        storey = plan.storeys[place]
        mine = {k: new[k] for k in storey.walls if k in new}
        stands = {k: known.walls[k] for k in storey.walls if k in known.walls}
        spots |= {k: _stood(plan.walls[k], on, storey.shift) for k, on in stands.items()}
        held = built(
            mine,
            {k: ups[key_of(wall)] for k, wall in mine.items()},
            f"{prefix}{'' if place == 0 else f's{place}'}",
            Heights(level, top),
            storey.shift,
            stands,
        )
        out.edits += [PutJoint(joint=joint) for joint in _free_first(held.joints)[0]]
        out.edits += _in_order(held.joints, held.walls)
        spots |= held.of
        out.walls |= {k: pieces[0].id for k, pieces in held.of.items()}
        names |= {k: [piece.id for piece in pieces] for k, pieces in held.of.items()}
    out.counts["walls"] = sum(isinstance(edit, PutWall) for edit in out.edits)
    for k, opening in enumerate(plan.openings):
        if k in choices.without_openings or opening.wall in choices.without_walls or k in known.openings:
            continue
        host = _host(opening, spots.get(opening.wall, ()))
        if host is None:
            if opening.wall in spots:
                out.skipped.append(f"a {opening.kind} of {opening.width:.0f} mm that lies across a junction of walls")
            continue
        made = _opening(project, plan.walls[opening.wall], opening, host, f"{prefix}-opening{k + 1}", numbers)
        out.openings[k] = made.id
        out.edits.append(PutOpening(opening=made))
    out.counts["openings"] = len(out.openings)
    _rooms(project, plan, choices, placed, prefix, out)
    _stairs(project, plan, choices, placed, prefix, out)
    went = [held.id for held in known.gone if held.id in choices.removed]
    if went:
        out.edits.append(Remove(elements=tuple(went)))
    openings = known.openings | out.openings
    for place, (level, _) in placed.items():
        storey, was = plan.storeys[place], reads.get(level)
        id = was.id if was else f"{prefix}-read{place + 1}"
        now = read_now(id, level, plan, storey.walls, storey.shift, names, openings)
        if now is not None and now != was:
            out.edits.append(PutPlanRead(read=now))
    out.counts["moved"] = sum(held.id not in choices.unmoved for held in known.moved)
    out.counts["removed"] = len(went)
    return out


def _stood(wall: FoundWall, on: Sequence[Stands], shift: Point) -> list[Stood]:
    """The walls that stand for one of the plan, along its axis as it was drawn."""
    drawn = drawn_axis(wall, shift)
    found = []
    for held in on:
        low, high = sorted((drawn.along(held.axis.start), drawn.along(held.axis.end)))
        found.append(Stood(held.id, drawn, low, high, held.line))
    return found


def _make_ups(
    project: Project, walls: Sequence[FoundWall], choices: Choices, prefix: str, out: Adopted
) -> dict[str, MakeUp]:
    """The make-up of each group of walls; those made to measure are put."""
    known = {held.id: held for held in project.make_ups if held.use == "wall"}
    found: dict[str, MakeUp] = {}
    for number, group in enumerate(groups_of(project, walls), 1):
        chosen = choices.make_ups.get(group.key, group.make_up)
        if chosen == AS_DRAWN:
            made = made_to_measure(project, group, f"{prefix}-makeup{number}")
            out.edits.append(PutMakeUp(make_up=made))
            found[group.key] = made
        elif chosen in known:
            found[group.key] = known[chosen]
        else:
            raise BadInput(f"no make-up for walls is called “{chosen}”", field="make_up", value=chosen)
    return found


def _placed(project: Project, plan: ReadPlan, choices: Choices, out: Adopted) -> dict[int, tuple[str, str]]:
    """For each plan the level that its walls stand on, and that of their tops."""
    known = storeys(project)
    plates = {held.level: held.plate for held in known}
    usual = {k: held.level for k, held in zip(range(len(plan.storeys)), known)}
    added = {place for place in usual if choices.storeys.get(place) == NEW}
    found: dict[int, tuple[str, str]] = {}
    for k, storey in enumerate(plan.storeys):
        level = choices.storeys.get(k, "" if choices.storeys else usual.get(k, ""))
        level = usual[k] if k in added else level
        if not level:
            if k not in choices.storeys:
                out.skipped.append(
                    f"{storey.title}: this project has no storey for it yet; add one, and take it over then"
                )
            continue
        plate = plates.get(level)
        if plate is None:
            raise BadInput("this project has no floor and plate to set walls between", field="storeys", value=level)
        found[k] = level, plate
    return found


def _free_first(joints: Sequence[Any]) -> tuple[list[Any], list[Any]]:
    return [held for held in joints if held.kind == "free"], [held for held in joints if held.kind == "tee"]


def _in_order(joints: Sequence[Any], walls: Sequence[Any]) -> list[Any]:
    """Walls after their joints, tees after the walls that carry them."""
    _, tees = _free_first(joints)
    there = {held.id for held in joints if held.kind == "free"}
    # Joints and walls that are not among these are the project's own.
    there |= {id for wall in walls for id in (wall.start, wall.end)} - {held.id for held in joints}
    hosts = {tee.wall for tee in tees} - {wall.id for wall in walls}
    left_walls, left_tees = list(walls), list(tees)
    edits: list[Any] = []
    built_: set[str] = set()
    while left_walls or left_tees:
        ready = [wall for wall in left_walls if wall.start in there and wall.end in there]
        edits += [PutWall(wall=wall) for wall in ready]
        built_ |= {wall.id for wall in ready}
        left_walls = [wall for wall in left_walls if wall.id not in built_]
        now = [tee for tee in left_tees if tee.wall in built_ or tee.wall in hosts]
        edits += [PutJoint(joint=tee) for tee in now]
        there |= {tee.id for tee in now}
        left_tees = [tee for tee in left_tees if tee.id not in there]
        if not ready and not now:
            break
    return edits


def _host(opening: FoundOpening, pieces: Sequence[Stood]) -> tuple[str, float] | None:
    """The wall that an opening lies in, and its distance along the set-out line of that."""
    low, high = opening.distance - opening.width / 2, opening.distance + opening.width / 2
    home = next((held for held in pieces if low > held.lo - 60.0 and high < held.hi + 60.0), None)
    return (home.id, home.line.along(home.axis.at(opening.distance))) if home else None


class _Numbers:
    """Numbers of openings that are free: the one that was drawn, else the next."""

    def __init__(self, project: Project) -> None:
        self._taken = {held.number for held in project.openings}

    def next(self, letter: str, drawn: str) -> str:
        free = drawn[:NO_NAME] if drawn and drawn not in self._taken else ""
        free = free or next(f"{letter}{n}" for n in range(1, len(self._taken) + 2) if f"{letter}{n}" not in self._taken)
        self._taken.add(free)
        return free


def _opening(
    project: Project, wall: FoundWall, found: FoundOpening, host: tuple[str, float], id: str, numbers: _Numbers
) -> Opening:
    window = found.kind == "window"
    sill = found.sill if found.sill is not None else WINDOW_HEAD - WINDOW_HEIGHT if window else 0.0
    height = found.height or (
        WINDOW_HEAD - sill if window and sill < WINDOW_HEAD - 300.0 else WINDOW_HEIGHT if window else DOOR_HEAD
    )
    operation = None if window else "plain" if found.kind == "opening" else "double" if found.leaves > 1 else "hinged"
    out = (found.swing == wall.outside) if wall.outer else found.swing == "left"
    return Opening.model_validate(
        {
            "id": id,
            "wall": host[0],
            "end": "start",
            "distance": host[1],
            "width": round(found.width, 2),
            "height": height,
            "sill": sill if window else 0.0,
            "unit": "window" if window else "door",
            "operation": operation,
            "number": numbers.next("W" if window else "D", found.number),
            "hinge": found.hinge,
            "swing": "out" if out else "in",
            "trim": 88.9 if wall.outer and project.tradition == "timber" else 0.0,
        }
    )


def _homes(plan: ReadPlan, placed: Iterable[int], spots: Sequence[Point]) -> list[int | None]:
    """For each place, which of the plans that are taken over it lies in."""
    grounds = {k: hull_of(plan.walls, plan.storeys[k].walls, AROUND) for k in placed}
    return [next((k for k, ground in grounds.items() if ground.covers(Spot(at))), None) for at in spots]


def _rooms(
    project: Project,
    plan: ReadPlan,
    choices: Choices,
    placed: Mapping[int, tuple[str, str]],
    prefix: str,
    out: Adopted,
) -> None:
    lowest = storeys(project)[0].level
    if choices.rooms:
        for number, (room, home) in enumerate(zip(plan.rooms, _homes(plan, placed, [r.at for r in plan.rooms])), 1):
            if home is not None:
                (x, y), level = room.at, placed[home][0]
                shift = plan.storeys[home].shift
                if any(
                    (held.level or lowest) == level
                    and (held.name == room.name or math.dist((held.x, held.y), (x + shift[0], y + shift[1])) < RENAMED)
                    for held in project.rooms
                ):
                    continue
                made = Room(
                    id=f"{prefix}-room{number}",
                    name=room.name,
                    x=x + shift[0],
                    y=y + shift[1],
                    level=None if level == lowest else level,
                )
                out.edits.append(PutRoom(room=made))
        out.counts["rooms"] = sum(isinstance(edit, PutRoom) for edit in out.edits)
    if choices.grids and 0 in placed:
        names = {held.name for held in project.grid}
        for number, grid in enumerate(plan.grids, 1):
            if grid.label in names:
                continue
            names.add(grid.label)
            angle = math.degrees(math.atan2(grid.end[1] - grid.start[1], grid.end[0] - grid.start[0]))
            made_grid = GridLine(
                id=f"{prefix}-grid{number}", name=grid.label, x=grid.start[0], y=grid.start[1], angle=angle
            )
            out.edits.append(PutGrid(line=made_grid))


def _stairs(
    project: Project,
    plan: ReadPlan,
    choices: Choices,
    placed: Mapping[int, tuple[str, str]],
    prefix: str,
    out: Adopted,
) -> None:
    found = enumerate(_homes(plan, placed, [stair.foot for stair in plan.stairs]))
    homes = {number: home for number, home in found if home is not None}
    levels = [held.level for held in storeys(project)]
    at = {k: levels.index(level) for k, (level, _) in placed.items()}
    made, said = stairs_built(project, plan, homes, at, choices.without_stairs, prefix)
    out.skipped += said
    out.edits += [PutStair(stair=stair) for stair in made.values()]
    out.stairs = {number: stair.id for number, stair in made.items()}
    out.counts["stairs"] = len(made)
