"""The layers of a wall as solids with the holes of openings, and the members of its frame."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import lru_cache

import shapely
from shapely.geometry import MultiPolygon

from ...building.parts import Part, part_key
from ...geometry import Plane3, Solid, polygons_of
from ...model import Layer, MakeUp, bearing_layer
from ...tolerance import TOL
from ..openings.placed import PlacedOpening
from ..openings.returns import closers
from .bodies import TopSpan, WallTop, leaning, opening_hole, standing, wall_bar
from .framing import frame_members
from .planned import PlannedLayer, PlannedWall

AIR = "air"
"""The material of a residual cavity: it is measured, and holds no part."""


def layer_parts(
    wall: PlannedWall, make_up: MakeUp, openings: tuple[PlacedOpening, ...], top: WallTop
) -> Iterator[Part]:
    """The parts of every layer, outside first."""
    for planned, layer in zip(wall.layers, make_up.layers):
        yield from _layer_parts(wall, planned, layer, make_up, openings, top)


def _layer_parts(
    wall: PlannedWall,
    planned: PlannedLayer,
    layer: Layer,
    make_up: MakeUp,
    openings: tuple[PlacedOpening, ...],
    top: WallTop,
) -> Iterator[Part]:
    position = make_up.layers.index(layer)
    bears = bearing_layer(make_up)
    shown = top.shows(wall, position, make_up)
    members = (
        *frame_members(wall, planned, layer, openings, top, position - bears),
        *_masonry(
            wall, planned, layer, openings, top, bears=position == bears, seen=top.shows(wall, position, make_up)
        ),
    )
    yield from members
    bare = layer.framing is not None and layer.framing.infill is None
    if planned.polygon.is_empty or bare or layer.material == AIR:
        return
    taken = (opening_hole(wall, placed, planned.inner, planned.outer) for placed in openings)
    gone = closers(wall, make_up, openings, position)
    holes = [leaning(wall, hole, top.base) for hole in taken if hole is not None]
    role = "infill" if layer.framing else layer.function
    for span in top.spans:
        rising = span.gable and not (top.ceiled and position > bears)
        clads = position < bears
        leaf = top.leaf if position == bears and not layer.framing else top.base
        solid = _body(wall, planned, top, span, rising, top.skirt if clads else leaf)
        if solid is None:
            continue
        if rising or clads:
            for plane in span.deck if rising and clads and not layer.framing else span.under:
                solid = solid.below(plane)
        for plane in batters(wall, top.base):
            solid = solid.below(plane)
        yield Part(
            key=part_key(wall.wall.id, role, layer.id, span.roof),
            element=wall.wall.id,
            role=role,
            material=layer.framing.infill if layer.framing and layer.framing.infill else layer.material,
            solid=solid.minus([*holes, *gone, *(member.solid for member in members)]),
            sums=(top.base_sum, top.plate_sum, *(o.head.id for o in openings), *(o.sill.id for o in openings)),
            origin=(*wall.at(0.0), top.courses if clads else top.base),
            outside=shown,
            function=layer.function,
            curve=wall.curve,
        )


@lru_cache(maxsize=512)
def layer_bodies(wall: PlannedWall, make_up: MakeUp, top: WallTop) -> tuple[tuple[str, Solid], ...]:
    """Each layer of a wall as one body before openings, by its id: what is framed as if it were solid."""
    solid = tuple(
        layer.model_copy(update={"framing": None, "wall_plate": None, "lintels": None}) for layer in make_up.layers
    )
    bears = make_up.layers[bearing_layer(make_up)].id
    plain = make_up.model_copy(update={"layers": solid, "bearing": bears})
    found: list[tuple[str, Solid]] = []
    for planned, layer in zip(wall.layers, plain.layers):
        parts = _layer_parts(wall, planned, layer, plain, (), top)
        found += [(layer.id, part.solid) for part in parts]
    return tuple(found)


def batters(wall: PlannedWall, base: float) -> tuple[Plane3, ...]:
    """The leaning faces of a battered wall, as planes that it lies under: a face moves in by tan(batter) per rise."""
    if wall.axis.is_arc:
        return ()
    stand, planes = wall.stand(), []
    for angle, face, way in ((wall.wall.batter_outer, wall.outer, 1.0), (wall.wall.batter_inner, wall.inner, -1.0)):
        if angle:
            steep = way / math.tan(math.radians(angle))
            ox, oy = stand.out
            x, y = stand.at(0.0, face)
            planes.append(Plane3(-steep * ox, -steep * oy, base + steep * (ox * x + oy * y)))
    return tuple(planes)


def _masonry(
    wall: PlannedWall,
    planned: PlannedLayer,
    layer: Layer,
    openings: tuple[PlacedOpening, ...],
    top: WallTop,
    *,
    bears: bool,
    seen: bool,
) -> Iterator[Part]:
    """What is built into a leaf: its wall plate where rafters bear on it, and lintels over its openings."""

    def part(role: str, slot: str, material: str, solid: Solid) -> Part:
        axis = (*wall.run, 0.0)
        key = part_key(wall.wall.id, role, layer.id, slot)
        sums = (top.base_sum, top.plate_sum)
        return Part(key, wall.wall.id, role, material, solid, axis, sums, outside=seen, function="structure")

    if layer.wall_plate and bears and not planned.polygon.is_empty:
        low = top.plate - layer.wall_plate.depth
        for span in top.spans:
            if span.bears:
                strip = wall.strip(span.start, span.end, planned.inner - 1e4, planned.outer + 1e4)
                area = MultiPolygon(list(polygons_of(planned.polygon.intersection(strip))))
                if not area.is_empty:
                    slot = span.roof
                    yield part(
                        "wall_plate", slot, layer.wall_plate.material, standing(wall, area, low, top.plate, top.base)
                    )
    if layer.lintels:
        for held in openings:
            head = held.head.total
            rise = min(head + layer.lintels.depth, top.plate)
            box = (held.left - layer.lintels.bearing, head, held.right + layer.lintels.bearing, rise)
            if rise - head > 1:
                solid = wall_bar(wall, box, planned.inner, planned.outer, held.centre)
                yield part("lintel", held.opening.id, layer.lintels.material, leaning(wall, solid, top.base))


def _body(
    wall: PlannedWall, planned: PlannedLayer, top: WallTop, span: TopSpan, rising: bool, low: float
) -> Solid | None:
    """The body of a layer in a span from `low` up, before holes: parted where other walls stand on it, whole above
    them and above the plate."""
    polygon, whole = planned.polygon, planned.whole
    if len(top.spans) > 1:
        strip = wall.strip(span.start, span.end, planned.inner - 1e4, planned.outer + 1e4)
        polygon, whole = (MultiPolygon(list(polygons_of(p.intersection(strip)))) for p in (polygon, whole))
    if polygon.is_empty:
        return None
    if not rising and not top.slots:
        return standing(wall, polygon, low, top.plate, top.base)
    high = span.peak if rising else top.plate
    if polygon.equals(whole):
        return standing(wall, whole, low, high, top.base)
    gaps = shapely.difference(whole, polygon, grid_size=TOL.node)
    taken = []
    for slot in top.slots:
        for gap in polygons_of(shapely.intersection(gaps, slot.area, grid_size=TOL.node)):
            taken.append(standing(wall, gap, max(slot.low, low - 1.0), min(slot.high, top.plate), top.base))
        gaps = shapely.difference(gaps, slot.area, grid_size=TOL.node)
    taken += [standing(wall, gap, low - 1.0, top.plate, top.base) for gap in polygons_of(gaps)]
    return standing(wall, whole, low, high, top.base).minus(taken)
