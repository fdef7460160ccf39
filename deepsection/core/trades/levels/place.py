"""Stage: the height ladder as levels with their sums."""

from __future__ import annotations

from functools import lru_cache

from ...model import MakeUp, Project, Rung, plate_of, term_value
from ...units import HeightSum, SumTerm
from .placed import Level, Storey


def sum_id(rung: str) -> str:
    """The id of the sum of a level."""
    return f"level:{rung}"


@lru_cache(maxsize=256)
def resolve_levels(rungs: tuple[Rung, ...], make_ups: tuple[MakeUp, ...]) -> dict[str, Level]:
    """Levels by rung id; each sum starts from the level it stands on (or hangs below)."""
    by_id = {rung.id: rung for rung in rungs}
    levels: dict[str, Level] = {}

    def resolve(rung: Rung) -> Level:
        if rung.id in levels:
            return levels[rung.id]
        if rung.from_rung is None:
            height = HeightSum(sum_id(rung.id), rung.name, (SumTerm("datum", 0.0, rung.id),))
        else:
            base = resolve(by_id[rung.from_rung])
            sign = 1 if rung.direction == "up" else -1
            terms = [
                SumTerm(
                    term.name if term.count == 1 else f"{term.count} x {term.name}",
                    sign * term.count * term_value(term, make_ups),
                    rung.id,
                    term.id,
                )
                for term in rung.terms
            ]
            height = base.sum.plus(sum_id(rung.id), rung.name, *terms)
        levels[rung.id] = Level(rung.id, rung.name, rung.surface, height.total, height, rung.hidden)
        return levels[rung.id]

    for rung in rungs:
        resolve(rung)
    return levels


def storeys(project: Project) -> tuple[Storey, ...]:
    """The levels that walls stand on or may stand on, low ones first, each with its plate; never none."""
    levels = resolve_levels(project.rungs, project.make_ups)
    named = {foundation.level for foundation in project.foundations} | {floor.level for floor in project.floors}
    named |= {wall.base.level for wall in project.walls if not wall.base.on_roof}
    if not named:
        named = {rung.id for rung in project.rungs if rung.surface in ("slab", "deck")}
    found = []
    for id in sorted(named, key=lambda id: (levels[id].z, id)):
        plate = plate_of(project.rungs, id)
        found.append(Storey(id, levels[id].name, plate.id if plate else None))
    return tuple(found) or (Storey("", "Floor", None),)


def storey_below(project: Project, level: str) -> str | None:
    """The level of the storey whose walls carry the floor of the one on a level; None for the lowest."""
    floor = next((floor for floor in project.floors if floor.level == level), None)
    carrying = (held.level for held in storeys(project) if floor and held.plate == floor.bearing)
    return next(carrying, None)
