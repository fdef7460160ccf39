"""Stage: decks beside the house, what of their outline is left, their ledgers and rims, what bears their joists."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise

import shapely
from shapely.geometry import LineString, MultiPolygon, Polygon

from ...building.diagnostics import Diagnostic
from ...building.placed import Key, Placed
from ...catalog import material
from ...geometry import Line, Point, line_through, polygons_of
from ...model import Deck, MakeUp
from ...tolerance import TOL
from ...units import HeightSum, SumTerm
from ..floors.bays import Bay, Rim, covered, direction_of
from ..floors.place import FLOORS, FloorPlan
from ..floors.reach import moved_to
from ..floors.supports import bearing_beams, supports_in
from ..levels.placed import LEVELS, Level
from ..posts.placed import BEAMS
from ..walls.planned import WALLS, PlannedWall, WallPlan
from .set_in import set_in

LEAST = 1e4
"""What lies less (mm2) beside the house is no deck."""
LEAST_BOARD = 100.0
"""What is smaller in plan (mm2) is no board, but what turning left of a corner."""
STRAIGHT = 0.5
"""A corner that lies as near as this (mm) to the line between its neighbours is none."""
AT_HOUSE = 2.0
"""An edge as near as this (mm) to the house lies against it."""
ON_EDGE = 1.0
"""A piece of the outline lies on an edge of it as drawn within this distance (mm)."""


def place_decks(placed: Placed) -> tuple[FloorPlan, ...]:
    """The decks that lie beside the house; others are added to what is found wrong."""
    return tuple(held for deck in placed.project.decks for held in _one(placed, deck))


def deck_sums(decks: tuple[FloorPlan, ...], placed: Placed) -> Iterator[HeightSum]:
    """The heights of decks: of their tops, and of what their joists bear on."""
    for flat in decks:
        yield from (flat.top.sum, flat.under.sum)


def _one(placed: Placed, deck: Deck) -> Iterator[FloorPlan]:
    make_up, plan = placed.make_ups[deck.make_up], placed[WALLS]
    at = (deck.outline.centroid.x, deck.outline.centroid.y)
    top, under = _heights(placed[LEVELS][deck.level], deck, make_up)
    for flat in placed[FLOORS]:
        for bay in flat.bays:
            hole = next((hole for id, hole in bay.holes if id == deck.id), None)
            if hole is not None:
                yield set_in(placed, deck, (top, under), flat, bay, hole)
                return
    if any(held.element == deck.id and held.code.startswith("set-in-") for held in placed.findings):
        # The slab that it lies in has said why it is no part of that.
        return
    if make_up.carrying is None or (framing := make_up.layers[make_up.carrying].framing) is None:
        message = f"the make-up of {deck.name} has no joists"
        placed.findings.append(Diagnostic("floor-unframed", message, deck.id, "make_up", at=at))
        return
    house = house_faces(plan, placed.make_ups, deck.level)
    area = MultiPolygon(
        [p for p in polygons_of(shapely.difference(deck.outline, house, grid_size=TOL.node)) if p.area > LEAST]
    )
    if area.is_empty:
        message = f"{deck.name} lies within the house, where no floor of its kind is: move it out, or lay a floor"
        placed.findings.append(Diagnostic("deck-inside", message, deck.id, "corners", at=at))
        return
    laid = placed[BEAMS]
    beams = list(bearing_beams(laid, under, make_up.layers[make_up.carrying].thickness))
    bays, rims, ledgers = [], list[Rim](), list[Polygon | MultiPolygon]()
    for k, piece in enumerate(polygons_of(area), 1):
        own = tuple(_rims(deck, piece, house, plan, framing.thickness))
        ledger = shapely.union_all([rim.area for rim in own if rim.role == "ledger"])
        along = direction_of(deck, piece, (deck.corners[0].x, deck.corners[0].y))
        held = supports_in(beams, piece, along)
        bays.append(
            Bay(f"part:{k}", piece, along, supports=held, lap=deck.lap, shift=deck.shift, borne=_pieces(ledger))
        )
        rims += own
        ledgers.append(ledger)
    bearing = shapely.union_all([*ledgers, *(held.area for bay in bays for held in bay.supports)])
    yield FloorPlan(
        deck, top, under, (), tuple(bays), tuple(rims), (), covered(bays), closed=False, bearing=_pieces(bearing)
    )


def _heights(level: Level, deck: Deck, make_up: MakeUp) -> tuple[Level, Level]:
    """Its top, and what its joists or its slab bear on, as levels of its own."""
    top = level.sum.plus(f"top:{deck.id}", f"top of {deck.name}", SumTerm("drop", -deck.drop, deck.id, "drop"))
    terms = [
        SumTerm(layer.name, -layer.thickness, make_up.id) for layer in make_up.layers[: (make_up.carrying or 0) + 1]
    ]
    under = top.plus(f"under:{deck.id}", f"{deck.name} bears", *terms)
    return (
        Level(f"top:{deck.id}", f"Top of {deck.name}", "deck", top.total, top),
        Level(f"under:{deck.id}", f"Bearing of {deck.name}", "sill", under.total, under),
    )


def house_faces(plan: WallPlan, make_ups: dict[str, MakeUp], level: str) -> Polygon | MultiPolygon:
    """The house in plan as far as the faces to which ledgers are fixed."""
    by_id = plan.by_id
    found = []
    for outline in plan.outlines_on(level):
        walls = tuple(by_id[id] for id in outline.walls)
        found.append(moved_to(outline.polygon, walls, tuple(ledger_face(wall, make_ups) for wall in walls)))
    return shapely.union_all([*found, *_strips(plan, make_ups, level)])


def _strips(plan: WallPlan, make_ups: dict[str, MakeUp], level: str) -> Iterator[Polygon]:
    for wall in plan.on(level):
        if wall.wall.status == "outer":
            yield wall.strip(0.0, wall.length, wall.inner, ledger_face(wall, make_ups))


def ledger_face(wall: PlannedWall, make_ups: dict[str, MakeUp]) -> float:
    """How far outward a ledger is fixed to a wall: on its sheathing or frame, on cladding laid in units. Common
    practice, no source."""
    for planned, layer in zip(wall.layers, make_ups[wall.wall.make_up].layers):
        if layer.function in ("sheathing", "structure") or material(layer.material).coursing:
            return planned.outer
    return wall.outer


@dataclass(frozen=True, slots=True)
class _Edge:
    """A side of what is left of a deck: its name, whether it lies against the house, its line and length."""

    name: str
    at_house: bool
    line: Line
    length: float


def _rims(deck: Deck, piece: Polygon, house: Polygon | MultiPolygon, plan: WallPlan, thickness: float) -> Iterator[Rim]:
    """The boards round a piece of a deck, edge by edge: ledgers first, so that rims butt against them."""
    edges = sorted(_edges(deck, piece, house, plan), key=lambda edge: not edge.at_house)
    ring = _pieces(piece.difference(piece.buffer(-thickness, join_style="mitre")))
    names: dict[str, int] = {}
    for edge in edges:
        strip = _inside(edge, thickness)
        area = _pieces(shapely.intersection(ring, strip, grid_size=TOL.node))
        if area.area < LEAST_BOARD:
            continue
        ring = _pieces(shapely.difference(ring, strip, grid_size=TOL.node))
        names[edge.name] = count = names.get(edge.name, 0) + 1
        name = edge.name if count == 1 else f"{edge.name}:{count}"
        yield Rim(name, (edge.line.dx, edge.line.dy), area, "ledger" if edge.at_house else "rim_joist")


def _edges(deck: Deck, piece: Polygon, house: Polygon | MultiPolygon, plan: WallPlan) -> Iterator[_Edge]:
    drawn = [(a.id, LineString([(a.x, a.y), (b.x, b.y)])) for a, b in deck.edges]
    walls = [wall for wall in plan.on(deck.level) if wall.wall.status == "outer"]
    whole = shapely.orient_polygons(piece.simplify(STRAIGHT))
    for ring in (whole.exterior, *whole.interiors):
        # Its inside lies to the left of each.
        for a, b in pairwise(ring.coords):
            length = shapely.Point(a).distance(shapely.Point(b))
            if length < TOL.point * 10:
                continue
            middle = shapely.Point((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
            at_house = not house.is_empty and house.distance(middle) < AT_HOUSE
            if at_house and walls:
                name = min(walls, key=lambda wall: wall.axis.line_string().distance(middle)).wall.id
            else:
                name = next((id for id, line in drawn if line.distance(middle) < ON_EDGE), "edge")
            yield _Edge(name, at_house, line_through(a, b), length)


def _inside(edge: _Edge, thickness: float) -> Polygon:
    """A strip along an edge on its inside, which lies to its left, and past its ends."""
    line, past = edge.line, thickness + 1.0

    def at(along: float, left: float) -> Point:
        x, y = line.at(along)
        return x - line.dy * left, y + line.dx * left

    return Polygon(
        [at(-past, -1.0), at(edge.length + past, -1.0), at(edge.length + past, thickness), at(-past, thickness)]
    )


def _pieces(shape: shapely.Geometry) -> MultiPolygon:
    return MultiPolygon(list(polygons_of(shape)))


DECKS: Key[tuple[FloorPlan, ...]] = Key("decks")
