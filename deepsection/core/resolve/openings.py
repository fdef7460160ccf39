"""Stage 3: openings in their walls, with sill and head heights, and what does not fit."""

from __future__ import annotations

from functools import lru_cache
from itertools import combinations

from ..model import MakeUp, Opening
from ..tolerance import TOL
from ..units import HeightSum, SumTerm
from .building import Diagnostic, Level, PlacedOpening, PlannedWall
from .wallplan import layer_bands


@lru_cache(maxsize=1024)
def place_openings(
    wall: PlannedWall, openings: tuple[Opening, ...], make_up: MakeUp, base: Level, top: HeightSum
) -> tuple[tuple[PlacedOpening, ...], tuple[Diagnostic, ...]]:
    """Openings of one wall, placed, and the diagnostics of those that do not fit."""
    placed = tuple(_place(wall, opening, make_up, base) for opening in openings)
    found = [diagnostic for opening in placed for diagnostic in _misfits(wall, opening, top)]
    found += [_overlap(first, second) for first, second in combinations(placed, 2) if _overlaps(first, second)]
    return placed, tuple(found)


def _place(wall: PlannedWall, opening: Opening, make_up: MakeUp, base: Level) -> PlacedOpening:
    centre = opening.distance if opening.end == "start" else wall.length - opening.distance
    foot = base.sum
    if wall.wall.base.offset:
        foot = foot.plus(f"foot:{wall.wall.id}", "foot of wall", SumTerm("offset", wall.wall.base.offset, wall.wall.id))
    sill = foot.plus(
        f"sill:{opening.id}", f"sill of {opening.number}", SumTerm("sill above floor", opening.sill, opening.id, "sill")
    )
    head = HeightSum(
        f"head:{opening.id}",
        f"head of {opening.number}",
        (*sill.terms, SumTerm("unit height", opening.height, opening.id, "height")),
    )
    return PlacedOpening(
        opening, centre - opening.width / 2, centre + opening.width / 2, sill, head, _face(wall, opening, make_up)
    )


def _face(wall: PlannedWall, opening: Opening, make_up: MakeUp) -> float:
    """Outward distance of the unit's outside: from its layer, by default the first that is no cladding."""
    bands = {id: (outer, inner) for id, outer, inner, _ in layer_bands(wall.wall, make_up)}
    layer = opening.set_in.layer
    if layer not in bands:
        behind = [held.id for held in make_up.layers if held.function in ("sheathing", "structure")]
        layer = behind[0] if behind else make_up.layers[0].id
    return bands[layer][0 if opening.set_in.face == "outer" else 1] - opening.set_in.distance


def _misfits(wall: PlannedWall, placed: PlacedOpening, top: HeightSum) -> list[Diagnostic]:
    opening, found = placed.opening, []
    if opening.width > wall.length:
        found.append(
            Diagnostic(
                "opening-too-wide",
                f"{opening.number} is wider than its wall",
                "blocking",
                opening.id,
                "width",
                opening.width,
                wall.length,
            )
        )
    elif placed.left < -TOL.point or placed.right > wall.length + TOL.point:
        nearest = opening.width / 2 if opening.distance < wall.length / 2 else wall.length - opening.width / 2
        found.append(
            Diagnostic(
                "opening-off-wall",
                f"{opening.number} reaches past the end of its wall",
                "blocking",
                opening.id,
                "distance",
                opening.distance,
                nearest,
            )
        )
    if placed.head.total > top.total + TOL.point:
        found.append(
            Diagnostic(
                "opening-too-high",
                f"the head of {opening.number} stands above the top of its wall",
                "blocking",
                opening.id,
                "height",
                placed.head.total,
                top.total,
            )
        )
    return found


def _overlaps(first: PlacedOpening, second: PlacedOpening) -> bool:
    along = min(first.right, second.right) - max(first.left, second.left)
    up = min(first.head.total, second.head.total) - max(first.sill.total, second.sill.total)
    return along > TOL.point and up > TOL.point


def _overlap(first: PlacedOpening, second: PlacedOpening) -> Diagnostic:
    names = sorted((first, second), key=lambda placed: placed.opening.id)
    return Diagnostic(
        "openings-overlap",
        f"{names[0].opening.number} and {names[1].opening.number} overlap",
        "blocking",
        names[0].opening.id,
        "distance",
        others=(names[1].opening.id,),
    )
