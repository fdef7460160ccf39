"""What the ledger of a deck is built around, in one plane."""

from __future__ import annotations

from dataclasses import dataclass

from ...junctions import Junction
from ...junctions.decks import runs_out
from ...resolve import Building
from ...trades.decks.place import DECKS, ledger_face
from ..faces import WallFaces, wall_faces
from ..lie import Lie
from .site import lies_at, wall_of


@dataclass(frozen=True, slots=True)
class DeckSite:
    """The ledger of a deck at a wall; distances outward from the set-out line of the wall (mm), and heights.

    `face`: where the ledger is fixed; `ledger`: its thickness; `top`: of the deck, `high` and `low`: of its ledger;
    `floor`: top of the floor inside; `span`: how far its joists run out to what bears them next, 0 if they run along.
    """

    wall: WallFaces
    face: float
    ledger: float
    top: float
    high: float
    low: float
    floor: float
    span: float


def deck_site(building: Building, junction: Junction) -> DeckSite | None:
    """What is built around where a deck lies at a wall."""
    wall = wall_of(building, junction)
    flat = next((held for held in building[DECKS] if held.floor.id == junction.ends[0].element), None)
    make_up = building.placed.make_ups[flat.floor.make_up] if flat is not None else None
    if wall is None or flat is None or make_up is None or make_up.carrying is None:
        return None
    carrying = make_up.layers[make_up.carrying]
    if carrying.framing is None:
        return None
    high = flat.top.z - sum(layer.thickness for layer in make_up.layers[: make_up.carrying])
    return DeckSite(
        wall_faces(building, wall),
        ledger_face(wall, building.placed.make_ups),
        carrying.framing.thickness,
        flat.top.z,
        high,
        high - carrying.thickness,
        building.levels[flat.floor.level].z,
        max(runs_out(flat, run) for run in junction.runs),
    )


def ledger_lies(building: Building, junction: Junction) -> list[Lie]:
    """Along the wall as far as the ledger lies at it."""
    wall = wall_of(building, junction)
    return lies_at(junction, ledger_face(wall, building.placed.make_ups)) if wall is not None else []
