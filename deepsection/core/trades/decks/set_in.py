"""Decks within a house: floors of their own, set into the one around them."""

from __future__ import annotations

from collections.abc import Iterator

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.diagnostics import Diagnostic
from ...building.placed import Placed
from ...geometry import largest, polygons_of
from ...model import Deck
from ...tolerance import TOL
from ...units import format_length
from ..floors.bays import Bay, Boards, direction_of, without
from ..floors.place import FloorPlan
from ..floors.set_downs import SlabPart
from ..floors.supports import MEETS, supports_in
from ..levels.placed import Level
from ..walls.planned import WALLS

TOUCHES = 2.0
"""What is as near as this (mm) to a part of a floor lies against it."""
STANDS_ON = 1e4
"""A wall of which more than this (mm2) lies over a part of a floor stands on it."""


def set_in(
    placed: Placed, deck: Deck, heights: tuple[Level, Level], around: FloorPlan, bay: Bay, hole: Polygon
) -> FloorPlan:
    """A deck within a house. Joists are framed into the floor around it, whose rims and trimmers hold it; a slab is
    joined to that around it by an upstand.
    """
    top, under = heights
    part = next((held for held in around.parts if held.deck == deck.id), None)
    rims = shapely.union_all([rim.area for rim in around.rims])
    region = hole if part else largest(_pieces(shapely.difference(hole, rims, grid_size=TOL.node)))
    along = direction_of(deck, region, (deck.corners[0].x, deck.corners[0].y))
    same = part.is_level if part else abs(under.z - around.under.z) < MEETS
    supports = supports_in([held for held in bay.supports if same], region, along)
    # Its joists hang on trimmers and headers, and lie on the walls beside the rims.
    held = shapely.difference(region.buffer(TOUCHES, join_style="mitre"), region)
    on_walls = shapely.intersection(region, around.bearing) if same else Polygon()
    if not same and region.distance(around.bearing if part else rims) < TOUCHES:
        placed.findings.append(_rise(placed, deck, region, around, under.z - around.under.z, slab=part is not None))
    placed.findings += _walls_over(placed, deck, region)
    hung = _pieces(shapely.difference(held, around.bearing if same else Polygon(), grid_size=TOL.node))
    own = Bay("part:1", region, along, supports=supports, lap=deck.lap, shift=deck.shift, hung=hung)
    return FloorPlan(
        deck,
        top,
        under,
        around.outlines,
        (own,),
        (),
        _below(placed, around, region, part),
        (Boards("part:1", part.over if part else _pieces(region)),),
        closed=True,
        bearing=_pieces(shapely.union_all([held, on_walls])),
        upstand=part,
    )


def _below(placed: Placed, around: FloorPlan, region: Polygon, part: SlabPart | None) -> tuple[Boards, ...]:
    """Where boards lie below it: within rooms, under the upstand too where that goes as low."""
    rooms = [space for outline in placed[WALLS].outlines_under(around.under.id) for space in outline.spaces]
    bare: Polygon | MultiPolygon = region
    if part is not None:
        bare = part.under_slab if part.lower else without(region, [part.upstand])
    return (Boards("part:1", _pieces(shapely.intersection(bare, shapely.union_all(rooms)))),) if rooms else ()


def _rise(placed: Placed, deck: Deck, region: Polygon, around: FloorPlan, off: float, *, slab: bool) -> Diagnostic:
    """It ends beside what carries the floor around it, at another height than that."""
    units = placed.project.units
    how = f"{format_length(abs(off), units)} {'above' if off > 0 else 'below'}"
    drop = deck.drop + off
    higher = f"let it lie {format_length(-drop, units)} higher than that floor"
    by = f"set it down by {format_length(drop, units)}" if drop > 0 else higher
    remedy = by if abs(drop) > TOL.point else "let it lie level with that floor"
    if slab:
        message = (
            f"the slab of {deck.name} ends {how} what carries {around.floor.name} beside it: {remedy}, level "
            "its underside with that around it, or keep it off the wall"
        )
    else:
        message = (
            f"joists of {deck.name} end {how} the plate that carries {around.floor.name} beside them: "
            f"{remedy}, or take other joists"
        )
    at = (region.representative_point().x, region.representative_point().y)
    return Diagnostic("set-in-rise", message, deck.id, "drop", deck.drop, drop, at=at)


def _walls_over(placed: Placed, deck: Deck, region: Polygon) -> Iterator[Diagnostic]:
    """Inner walls that stand partly on it, whose foot is at another height."""
    if abs(deck.drop) < TOL.point:
        return
    for wall in placed[WALLS].on(deck.level):
        over = shapely.intersection(region, wall.footprint)
        if wall.wall.status == "inner" and over.area > STANDS_ON:
            drop = format_length(abs(deck.drop), placed.project.units)
            where = "in the air over" if deck.drop > 0 else "with its foot in"
            message = (
                f"a wall stands {where} {deck.name}, which lies {drop} {'lower' if deck.drop > 0 else 'higher'} than "
                "its foot: let the part end at the wall, or move the wall"
            )
            at = (over.representative_point().x, over.representative_point().y)
            yield Diagnostic("set-in-wall", message, deck.id, "corners", others=(wall.wall.id,), at=at)


def _pieces(shape: shapely.Geometry) -> MultiPolygon:
    return MultiPolygon(list(polygons_of(shape)))
