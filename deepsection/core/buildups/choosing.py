"""How a junction is built: the build-up that is chosen for it or fits it first, with what was set of it."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Any
from weakref import WeakKeyDictionary

from ..building.placed import Placed
from ..junctions import Junction
from ..junctions.junction import Fact
from ..resolve import Building
from ..units import Units
from .buildup import BuildUp, Found, OtherKind
from .library import BUILD_UPS, BY_ID, SITES
from .parameters import Values
from .pieces import Piece
from .settings import Stated, stated_of


@dataclass(frozen=True, slots=True)
class Built:
    """How a junction is built: by which build-up and why, with which values; what is off; what rules say; its pieces.

    `chosen`: whether it was chosen. `fault`: why the one that was chosen does not fit. `others`: the rest that there
    are for its kind, each with why it does not fit, or nothing. `tells`: what its pieces depend on besides.
    """

    build_up: BuildUp
    chosen: bool
    fault: str
    values: tuple[tuple[str, float], ...]
    off: tuple[str, ...]
    pieces: tuple[Piece, ...]
    rules: tuple[Found, ...]
    others: tuple[tuple[BuildUp, str], ...]
    tells: tuple[Fact, ...] = ()

    @property
    def shown(self) -> tuple[Piece, ...]:
        """The pieces that are not switched off."""
        return tuple(piece for piece in self.pieces if piece.id not in self.off)


_known: WeakKeyDictionary[Placed, dict[str, Built | None]] = WeakKeyDictionary()


def built_of(building: Building, junction: Junction) -> Built | None:
    """How a junction is built; None where nothing fits."""
    known = _known.setdefault(building.placed, {})
    if junction.id not in known:
        kind = SITES.get(junction.kind)
        site = kind.site(building, junction) if kind else None
        stated = stated_of(building.placed.project, junction)
        units = building.placed.project.units
        known[junction.id] = _chosen(junction.kind, site, stated, units) if site is not None else None
    return known[junction.id]


def built_fact(building: Building, junction: Junction) -> Fact:
    """How a junction is built, as a fact that tells it from others."""
    built = built_of(building, junction)
    return (built.build_up.id, built.values, built.off, *built.tells) if built is not None else ()


@lru_cache(maxsize=4096)
def _chosen(kind: Any, site: Any, stated: Stated, units: Units) -> Built | None:
    barred = [(held, held.bars(site, Values(held.parameters, within(held, stated), units))) for held in BUILD_UPS[kind]]
    usual = next((held for held, why in barred if not why), None)
    wanted = BY_ID.get(stated.build_up) if stated.build_up else None
    fault = dict((held.id, why) for held, why in barred).get(wanted.id, "") if wanted else ""
    taken = wanted if wanted is not None and not fault else usual
    if taken is None:
        return _misfit(barred, stated)
    fault = fault or _beyond(taken, stated)
    values = Values(taken.parameters, within(taken, stated), units)
    return Built(
        taken,
        wanted is taken,
        fault,
        values.items(),
        stated.off,
        tuple(taken.pieces(site, values)),
        tuple(taken.rules(site, values)),
        tuple((held, why) for held, why in barred if held is not taken),
        tuple(taken.tells(site, values)),
    )


def _misfit(barred: list[tuple[BuildUp, str]], stated: Stated) -> Built | None:
    """What would be built if it did fit, without its pieces, and why not; None where nothing is for the site."""
    nearest = next(((held, why) for held, why in barred if not isinstance(why, OtherKind)), None)
    if nearest is None:
        return None
    held, why = nearest
    values = Values(held.parameters, within(held, stated)).items()
    others = tuple((other, said) for other, said in barred if other is not held)
    return Built(held, False, f"does not fit: {why}", values, stated.off, (), (), others)


def within(held: BuildUp, stated: Stated) -> dict[str, float]:
    """The values that were stated of a build-up and lie within its limits."""
    limits = {one.id: one for one in held.parameters}
    return {id: value for id, value in stated.values if id in limits and limits[id].holds(value)}


def _beyond(held: BuildUp, stated: Stated) -> str:
    """What was stated beyond the limits of a build-up, in words."""
    values = dict(stated.values)
    wrong = (one for one in held.parameters if one.id in values and not one.holds(values[one.id]))
    return "; ".join(f"{one.words.lower()} lies beyond its limits, the usual one is taken" for one in wrong)
