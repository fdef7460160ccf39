"""Walls as whole bodies, before openings: what model files are made of."""

from __future__ import annotations

from ...building.placed import Placed
from ...geometry import Solid
from ..openings.placed import OPENINGS, PlacedOpening
from ..roofs.placed import ROOFS
from .bodies import WALL_TOPS, leaning, opening_hole
from .layering import layer_bodies
from .mouldings import MOULDINGS, moulding_parts
from .on_roofs import above_all, decks_below
from .planned import WALLS


def wall_bodies(placed: Placed, id: str) -> tuple[tuple[str, Solid], ...]:
    """The layers of a wall before openings, and its mouldings: (layer or moulding id, solid)."""
    wall, top = placed[WALLS].by_id[id], placed[WALL_TOPS][id]
    layers = layer_bodies(wall, placed.make_ups[wall.wall.make_up], top)
    lines = placed[MOULDINGS].lines_of(wall.wall)
    run = zip(wall.wall.mouldings, moulding_parts(wall, placed[OPENINGS][id], top, lines))
    decks = decks_below(wall, placed[ROOFS])
    return (
        *((name, above_all(body, decks)) for name, body in layers),
        *((moulding.id, part.solid) for moulding, part in run),
    )


def hole_in(placed: Placed, id: str, opening: PlacedOpening) -> Solid | None:
    """What an opening takes from the wall of an id; None where a niche does not reach."""
    wall = placed[WALLS].by_id[id]
    body = opening_hole(wall, opening, wall.inner, wall.outer)
    return leaning(wall, body, placed[WALL_TOPS][id].base) if body is not None else None
