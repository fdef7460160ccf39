"""Stage: openings in their walls, with sill and head heights, and what does not fit."""

from __future__ import annotations

from functools import lru_cache
from itertools import combinations

from ...building.diagnostics import Diagnostic
from ...model import Kind, MakeUp, Opening, layer_bands
from ...tolerance import TOL
from ...units import HeightSum, SumTerm
from ..levels.placed import Level
from ..walls.planned import PlannedWall
from ..walls.tops import foot_sum, top_over
from .model import design_of, number_of
from .placed import PlacedOpening
from .set_in import fills_wall, set_in_layer


@lru_cache(maxsize=1024)
def place_openings(
    wall: PlannedWall,
    openings: tuple[tuple[Opening, Kind | None], ...],
    make_up: MakeUp,
    base: Level,
    top: HeightSum,
) -> tuple[tuple[PlacedOpening, ...], tuple[Diagnostic, ...]]:
    """Openings of one wall, each with its kind, placed, and the diagnostics of those that do not fit."""
    placed = tuple(_place(wall, opening, kind, make_up, base) for opening, kind in openings)
    found = [diagnostic for opening in placed for diagnostic in _misfits(wall, opening, top)]
    found += [_overlap(first, second) for first, second in combinations(placed, 2) if _overlaps(first, second)]
    return placed, tuple(found)


def _place(wall: PlannedWall, opening: Opening, kind: Kind | None, make_up: MakeUp, base: Level) -> PlacedOpening:
    design, number = design_of(opening, kind), number_of(opening, kind)
    centre = opening.distance if opening.end == "start" else wall.length - opening.distance
    foot = foot_sum(wall, {wall.wall.base.level: base})
    sill = foot.plus(
        f"sill:{opening.id}", f"sill of {number}", SumTerm("sill above floor", opening.sill, opening.id, "sill")
    )
    head = HeightSum(
        f"head:{opening.id}",
        f"head of {number}",
        (*sill.terms, SumTerm("unit height", design.height, opening.id, "height")),
    )
    return PlacedOpening(
        opening,
        design,
        number,
        centre - design.width / 2,
        centre + design.width / 2,
        sill,
        head,
        _face(wall, opening, make_up),
        wall.outer - wall.inner if fills_wall(wall.wall, opening) else 0.0,
    )


def _face(wall: PlannedWall, opening: Opening, make_up: MakeUp) -> float:
    """Outward distance of the unit's outside."""
    bands = {band.id: (band.outer, band.inner) for band in layer_bands(wall.wall, make_up)}
    outer, inner = bands[set_in_layer(wall.wall, opening, make_up).id]
    return (outer if opening.set_in.face == "outer" else inner) - opening.set_in.distance


def _misfits(wall: PlannedWall, placed: PlacedOpening, top: HeightSum) -> list[Diagnostic]:
    opening, design, found = placed.opening, placed.design, []

    def fault(code: str, message: str, field: str, value: float, limit: float) -> None:
        words = message.format(placed.number)
        found.append(Diagnostic(code, words, opening.id, field, value, limit))

    if design.width > wall.length:
        fault("opening-too-wide", "{} is wider than its wall", "width", design.width, wall.length)
    elif placed.left < -TOL.point or placed.right > wall.length + TOL.point:
        nearest = design.width / 2 if opening.distance < wall.length / 2 else wall.length - design.width / 2
        fault("opening-off-wall", "{} reaches past the end of its wall", "distance", opening.distance, nearest)
    highest = top_over(wall, top, placed.left, placed.right)
    if placed.head.total > highest + TOL.point:
        message = "the head of {} stands above the top of its wall"
        fault("opening-too-high", message, "height", placed.head.total, highest)
    if design.arch > min(design.width / 2, design.height):
        message = "{} has an arch that rises more than half its width"
        fault("arch-too-high", message, "arch", design.arch, min(design.width / 2, design.height))
    lights = {"none": 0, "both": 2}.get(design.side_lights, 1)
    if lights * design.side_width > 0.8 * design.width:
        fault(
            "side-lights-too-wide",
            "{} has no room between its side lights",
            "side_width",
            design.side_width,
            0.8 * design.width / lights,
        )
    if opening.unit == "niche" and design.depth >= wall.outer - wall.inner:
        message = "{} goes through its wall: make it shallower, or a plain opening"
        fault("niche-too-deep", message, "depth", design.depth, wall.outer - wall.inner)
    return found


def _overlaps(first: PlacedOpening, second: PlacedOpening) -> bool:
    along = min(first.right, second.right) - max(first.left, second.left)
    up = min(first.head.total, second.head.total) - max(first.sill.total, second.sill.total)
    return along > TOL.point and up > TOL.point


def _overlap(first: PlacedOpening, second: PlacedOpening) -> Diagnostic:
    names = sorted((first, second), key=lambda placed: placed.opening.id)
    return Diagnostic(
        "openings-overlap",
        f"{names[0].number} and {names[1].number} overlap",
        names[0].opening.id,
        "distance",
        others=(names[1].opening.id,),
    )
