"""How a junction is built: the build-up that is chosen for it or fits it first, with what was set of it."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Any
from weakref import WeakKeyDictionary

from ..junctions import Junction, found_junctions
from ..resolve import Building
from .buildup import BuildUp, Found
from .library import BUILD_UPS, BY_ID, SITES
from .parameters import Values
from .pieces import Piece
from .settings import Stated, stated_of


@dataclass(frozen=True, slots=True)
class Built:
    """How a junction is built: by which build-up and why, with which values; what is off; what rules say; its pieces.

    `chosen`: whether it was chosen. `fault`: why the one that was chosen does not fit. `others`: the rest that there
    are for its kind, each with why it does not fit, or nothing.
    """

    build_up: BuildUp
    chosen: bool
    fault: str
    values: tuple[tuple[str, float], ...]
    off: tuple[str, ...]
    pieces: tuple[Piece, ...]
    rules: tuple[Found, ...]
    others: tuple[tuple[BuildUp, str], ...]

    @property
    def shown(self) -> tuple[Piece, ...]:
        """The pieces that are not switched off."""
        return tuple(piece for piece in self.pieces if piece.id not in self.off)


_known: WeakKeyDictionary[Building, dict[str, Built]] = WeakKeyDictionary()


def all_built(building: Building) -> dict[str, Built]:
    """How the junctions of a building are built, by their ids: those for which a build-up fits."""
    found = _known.get(building)
    if found is None:
        found = {}
        for junction in found_junctions(building):
            built = _built(building, junction)
            if built is not None:
                found[junction.id] = built
        _known[building] = found
    return found


def _built(building: Building, junction: Junction) -> Built | None:
    kind = SITES.get(junction.kind)
    site = kind.site(building, junction) if kind else None
    return _chosen(junction.kind, site, stated_of(building.placed.project, junction)) if site is not None else None


@lru_cache(maxsize=4096)
def _chosen(kind: Any, site: Any, stated: Stated) -> Built | None:
    barred = [(held, held.bars(site, Values(held.parameters, dict(stated.values)))) for held in BUILD_UPS[kind]]
    usual = next((held for held, why in barred if not why), None)
    wanted = BY_ID.get(stated.build_up) if stated.build_up else None
    fault = dict((held.id, why) for held, why in barred).get(wanted.id, "") if wanted else ""
    taken = wanted if wanted is not None and not fault else usual
    if taken is None:
        return None
    values = Values(taken.parameters, dict(stated.values))
    return Built(
        taken,
        wanted is taken,
        fault,
        values.items(),
        stated.off,
        tuple(taken.pieces(site, values)),
        tuple(taken.rules(site, values)),
        tuple((held, why) for held, why in barred if held is not taken),
    )
