"""What the masonry of walls gives way to: the ends of joists and beams, and slabs, that are built into it."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

import shapely

from ...building.cutting import without
from ...building.parts import Part
from ...building.placed import Placed
from ...geometry import Solid, polygons_of, prism
from ...model import Framing, Layer
from ..decks.place import DECKS
from ..walls.planned import WALLS
from .bays import Bay, Boards, Rim
from .members import floor_members
from .model import Between
from .place import FLOORS
from .reach import is_masonry


def around_floors(placed: Placed, parts: Sequence[Part]) -> Sequence[Part]:
    """The masonry of walls around what is built into it; other parts as they are."""
    masonry = {wall.wall.id: wall.wall.base.level for wall in placed[WALLS].walls if is_masonry(wall, placed.make_ups)}
    bodies: dict[str, tuple[Solid, ...]] = {}
    for flat in (*placed[FLOORS], *(deck for deck in placed[DECKS] if deck.closed)):
        make_up = placed.make_ups[flat.floor.make_up]
        if flat.floor.level in masonry.values() and make_up.carrying is not None:
            layer = make_up.layers[make_up.carrying]
            own = _bodies(flat.bays, flat.rims, flat.over, layer, flat.under.z, between=flat.floor.between)
            bodies[flat.floor.level] = (*bodies.get(flat.floor.level, ()), *own)
    if not bodies:
        return parts
    return tuple(
        without(part, bodies[level])
        if part.role == "structure" and (level := masonry.get(part.element, "")) in bodies
        else part
        for part in parts
    )


@lru_cache(maxsize=64)
def _bodies(
    bays: tuple[Bay, ...],
    rims: tuple[Rim, ...],
    over: tuple[Boards, ...],
    layer: Layer,
    low: float,
    *,
    between: Between,
) -> tuple[Solid, ...]:
    """What of a floor lies within masonry, as far as it goes past the layers over it."""
    areas = [bay.covered for bay in bays] if layer.framing is None else _members(bays, rims, layer.framing, between)
    found = []
    for area, top in zip(areas, over):
        within = shapely.difference(area, top.area)
        found += [prism(piece, low, low + layer.thickness) for piece in polygons_of(within) if piece.area > LEAST]
    return tuple(found)


def _members(
    bays: tuple[Bay, ...], rims: tuple[Rim, ...], framing: Framing, between: Between
) -> list[shapely.Geometry]:
    members = floor_members(bays, rims, framing, between)
    return [shapely.union_all([held.area for held in members.all if held.lies_in(bay)]) for bay in bays]


LEAST = 100.0
"""What lies less (mm2) in a wall is not built into it."""
