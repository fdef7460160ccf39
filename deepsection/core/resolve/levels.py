"""Stage 1: the height ladder as levels with their sums."""

from __future__ import annotations

from functools import lru_cache

from ..model import Rung
from ..units import HeightSum, SumTerm
from .building import Level


def sum_id(rung: str) -> str:
    """The id of the sum of a level."""
    return f"level:{rung}"


@lru_cache(maxsize=256)
def resolve_levels(rungs: tuple[Rung, ...]) -> dict[str, Level]:
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
                    sign * term.count * term.value,
                    rung.id,
                    term.id,
                )
                for term in rung.terms
            ]
            height = base.sum.plus(sum_id(rung.id), rung.name, *terms)
        levels[rung.id] = Level(rung.id, rung.name, rung.surface, height.total, height)
        return levels[rung.id]

    for rung in rungs:
        resolve(rung)
    return levels
