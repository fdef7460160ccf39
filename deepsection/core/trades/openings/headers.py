"""What stands in the way of openings: plates over their headers, and roofs before them."""

from __future__ import annotations

from collections.abc import Container, Iterator, Sequence
from functools import lru_cache

from ...building.diagnostics import Diagnostic
from ...geometry import Point
from ...model import MakeUp, Project, bearing_layer
from ...units import format_length
from ..roofs.placed import ResolvedRoof, RoofPlane
from ..walls.bodies import WallTop
from ..walls.framing import header_depth
from ..walls.planned import PlannedWall
from .placed import PlacedOpening

BEFORE = 60.0
"""How far before a wall a roof is looked for (mm)."""
PLACES = 7
"""So many places along an opening are looked at."""
SLACK = 2.0
"""Less than this (mm) is no trouble."""


def squeezed_headers(
    project: Project,
    wall: PlannedWall,
    make_up: MakeUp,
    openings: tuple[PlacedOpening, ...],
    top: WallTop,
) -> Iterator[Diagnostic]:
    """Openings of a framed wall without room for their header under the top plates; not those that pass its top."""
    framed = make_up.layers[bearing_layer(make_up)].framing
    if framed is None:
        return
    plates = top.plate - framed.top_plates * framed.thickness
    for placed in openings:
        if placed.opening.unit == "niche":
            continue
        gap = placed.design.rough
        wide = placed.right - placed.left + 2 * gap
        # A gable carries nothing but itself.
        bears = wall.wall.bears and not any(span.gable for span in top.spans)
        needs = header_depth(wide, bears=bears, flat=framed.thickness)
        room = plates - placed.head.total - gap
        if room > needs - SLACK or placed.head.total > top.plate + SLACK:
            continue
        units = project.units
        has = format_length(room, units) if room > SLACK else "nothing"
        message = (
            f"the header over {placed.number} needs {format_length(needs, units)}, and there is {has} below the top "
            "plates: lower its head, or raise the plate"
        )
        yield Diagnostic("header-squeezed", message, placed.opening.id, "head", room, needs)


Slopes = Sequence[tuple[ResolvedRoof, RoofPlane, tuple[float, float, float, float]]]
"""Slopes with their roofs and the boxes of their plans."""


@lru_cache(maxsize=64)
def _slopes_of(roofs: tuple[ResolvedRoof, ...]) -> Slopes:
    """All slopes of some roofs."""
    return [(roof, plane, plane.polygon.bounds) for roof in roofs for plane in roof.planes]


@lru_cache(maxsize=2000)
def roofs_before(
    wall: PlannedWall, openings: tuple[PlacedOpening, ...], roofs: tuple[ResolvedRoof, ...]
) -> tuple[Diagnostic, ...]:
    """Openings that a roof in front of their wall runs into; one that lies over the wall itself is its top."""
    return tuple(_roofs_before(wall, openings, _slopes_of(roofs)))


def _roofs_before(wall: PlannedWall, openings: tuple[PlacedOpening, ...], slopes: Slopes) -> Iterator[Diagnostic]:
    for placed in openings if wall.wall.status == "outer" else ():
        stand, wide = wall.stand(placed.centre), placed.right - placed.left
        own = {roof.block.id for roof, _ in _over(stand.at(placed.centre, wall.inner), slopes)}
        spots = [stand.at(placed.left + wide * k / (PLACES - 1), wall.outer + BEFORE) for k in range(PLACES)]
        found = ((roof, plane, spot) for spot in spots for roof, plane in _over(spot, slopes, own))
        met = next((roof for roof, plane, spot in found if _meets(plane, spot, placed)), None)
        if met is not None:
            message = f"{met.block.name} runs into {placed.number}: raise its sill, lower the roof, or move one of them"
            yield Diagnostic("opening-meets-roof", message, placed.opening.id, "sill", others=(met.block.id,))


def _over(spot: Point, slopes: Slopes, without: Container[str] = ()) -> Iterator[tuple[ResolvedRoof, RoofPlane]]:
    """The slopes over a place, but for those of some roofs."""
    x, y = spot
    for roof, plane, (x0, y0, x1, y1) in slopes:
        if x0 <= x <= x1 and y0 <= y <= y1 and roof.block.id not in without and plane.has(x, y):
            yield roof, plane


def _meets(plane: RoofPlane, spot: Point, placed: PlacedOpening) -> bool:
    """Whether a slope stands before an opening at a place."""
    high = plane.covered(*spot)
    low = high - plane.covering - plane.plumb_depth
    return low < placed.head.total - SLACK and high > placed.sill.total + SLACK
