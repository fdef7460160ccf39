"""Stairs of a plan: built from its storey up to the next one, once though both plans show them."""

from __future__ import annotations

import math
from collections.abc import Collection, Mapping
from dataclasses import dataclass
from typing import Any

from shapely.geometry import Polygon
from shapely.ops import unary_union

from ..geometry import Point
from ..model import Project
from ..reading import FoundStair, ReadPlan
from ..trades.levels.place import storeys
from ..trades.levels.rises import height_of
from ..trades.stairs.model import Stair
from ..trades.stairs.usual import usual_stair

RISERS = (130.0, 225.0)
"""As many risers as are drawn are built where each is so high (mm); else as many as the rule asks for."""
SAME_FOOT = 400.0


@dataclass(frozen=True, slots=True)
class Drawn:
    """A stair by its number in the plan, with where it stands once the plans lie over each other, from which storey."""

    number: int
    stair: FoundStair
    foot: Point
    area: Polygon
    place: int


def stairs_built(
    project: Project,
    plan: ReadPlan,
    homes: Mapping[int, int],
    storey_at: Mapping[int, int],
    without: Collection[int],
    prefix: str,
) -> tuple[dict[int, Stair], list[str]]:
    """The stairs by their number in the plan, and what could not be built, in words.

    `homes`: for stairs by number the plan in which each is drawn; those of plans that are left out have none.
    `storey_at`: for plans by number the storey of the project, counted from below.
    """
    known = storeys(project)
    said: list[str] = []
    drawn: list[Drawn] = []
    for number, stair in enumerate(plan.stairs):
        if number not in homes or number in without:
            continue
        place = homes[number]
        top = place + 1 >= len(plan.storeys)
        low = storey_at[place] - (1 if stair.down or (top and place > 0) else 0)
        drawn.append(_laid(number, stair, plan.storeys[place].shift, low))
    made: dict[int, Stair] = {}
    for held in _once(drawn):
        if held.place < 0:
            said.append("a stair that leads down from the lowest storey")
            continue
        level, upper = (known[k].level if k < len(known) else "" for k in (held.place, held.place + 1))
        if not upper:
            said.append("a stair: no storey lies above it yet; add one, and read the file again")
            continue
        if _stands(project, held, level):
            continue
        made[held.number] = _built(project, held, level, upper, f"{prefix}-stair{held.number + 1}")
    return made, said


def _laid(number: int, stair: FoundStair, shift: Point, low: int) -> Drawn:
    def there(at: Point) -> Point:
        return at[0] + shift[0], at[1] + shift[1]

    area = unary_union([Polygon([there(spot) for spot in flight.outline]) for flight in stair.flights]).convex_hull
    return Drawn(number, stair, there(stair.foot), area, low)


def _once(drawn: list[Drawn]) -> list[Drawn]:
    """Of those that lie over each other between the same storeys, the one of which most is drawn."""
    found: list[Drawn] = []
    for held in sorted(drawn, key=lambda held: (-held.stair.risers, held.stair.down, held.number)):
        if not any(
            held.place == other.place
            and held.area.intersection(other.area).area > 0.3 * min(held.area.area, other.area.area)
            for other in found
        ):
            found.append(held)
    return sorted(found, key=lambda held: held.number)


def _stands(project: Project, held: Drawn, level: str) -> bool:
    return any(
        other.level == level
        and (math.dist((other.x, other.y), held.foot) < SAME_FOOT or held.area.covers(_middle(other)))
        for other in project.stairs
    )


def _middle(stair: Stair) -> Polygon:
    """About the middle of its first treads."""
    way = math.radians(stair.turn)
    x, y = stair.x + 500 * math.cos(way), stair.y + 500 * math.sin(way)
    return Polygon([(x - 5, y - 5), (x + 5, y - 5), (x, y + 5)])


def _built(project: Project, held: Drawn, level: str, upper: str, id: str) -> Stair:
    found = held.stair
    heights = [height_of(project.rungs, project.make_ups, id) for id in (level, upper)]
    whole = RISERS[0] <= (heights[1] - heights[0]) / found.risers <= RISERS[1]
    turns, count = [], 0
    for flight in found.flights[:-1]:
        count += flight.risers
        turn: dict[str, Any] = {"after": count, "side": flight.side, "kind": flight.turn}
        if flight.turn == "half landing":
            turn["well"] = flight.well
        if flight.turn == "winders":
            turn["winders"] = flight.winders
            count += flight.winders - 1
        turns.append(turn)
    return usual_stair(
        project,
        id,
        level,
        upper,
        (round(held.foot[0], 2), round(held.foot[1], 2)),
        found.turn,
        width=found.width,
        going=found.going,
        risers=found.risers if whole else None,
        turns=tuple(turns),
    )
