"""Solids of one wall: its layers with the holes of openings, and the members of its frame."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

import shapely
from shapely.geometry import MultiPolygon, Polygon
from shapely.geometry import box as rectangle

from ..catalog import lumber
from ..geometry import Plane3, Solid, bar_along, polygons_of, prism, prism_along
from ..model import Framing, Layer, MakeUp
from ..tolerance import TOL
from ..units import FOOT
from ._leaves import outline
from .building import Part, PlacedOpening, PlannedLayer, PlannedWall, part_key

AIR = "air"
"""The material of a residual cavity: it is measured, and holds no part."""
HEADER_SHORT_SPAN = 6 * FOOT
"""Up to this opening width a header is a pair of 2x8, above it of 2x12. Common practice, no source."""


@dataclass(frozen=True, slots=True)
class RoughOpening:
    """What framing leaves free for a unit: the unit and its clearance on each side and above."""

    id: str
    left: float
    right: float
    sill: float
    head: float
    centre: float

    @property
    def width(self) -> float:
        """Between jacks."""
        return self.right - self.left


def rough_openings(openings: tuple[PlacedOpening, ...], wall: PlannedWall, face: float) -> tuple[RoughOpening, ...]:
    """The rough openings in a framing layer with its inside at a face; niches that do not reach it need none."""
    found = []
    for held in openings:
        if held.back(wall) <= face:
            continue
        gap = held.design.rough
        sill = held.sill.total - gap if held.opening.unit != "door" else held.sill.total
        head = held.head.total + gap
        found.append(RoughOpening(held.opening.id, held.left - gap, held.right + gap, sill, head, held.centre))
    return tuple(found)


@dataclass(frozen=True, slots=True)
class TopSpan:
    """A stretch of a wall under one roof (or none): from-to distances along it, and the surfaces that end it.

    Under a gable the wall is filled up to `under`, the underside of the rafters; what lies outside of its frame goes
    on up to `deck`, past the last rafter. Elsewhere it stops at the plate, and its outer layers under the rafters.
    """

    start: float
    end: float
    roof: str
    gable: bool
    under: tuple[Plane3, ...]
    deck: tuple[Plane3, ...]
    peak: float
    bears: bool = False
    """Whether rafters bear on its plate."""


@dataclass(frozen=True, slots=True)
class WallTop:
    """How high a wall goes: its foot and plate, and the spans of its top.

    Outside of its frame it comes down to `skirt`, over the edge of the floor that it stands on; its boards are laid
    out from `courses`.
    """

    base: float
    skirt: float
    courses: float
    plate: float
    spans: tuple[TopSpan, ...]
    base_sum: str
    plate_sum: str
    ceiled: bool
    """Whether a ceiling closes the room at the plate, so that what lines it stops there."""
    enclosed: bool
    """Whether closed outlines hold the wall: then its inside is never seen from outside."""

    def shows(self, wall: PlannedWall, position: int, make_up: MakeUp) -> bool:
        """Whether the layer at a position may be seen from outside the house, its reveals included."""
        if not self.enclosed:
            return position in (0, len(make_up.layers) - 1) or make_up.layers[position].function == "structure"
        if wall.wall.status != "outer":
            return False
        trimmed = make_up.layers[0].function == "cladding"
        return position == 0 or (not trimmed and position <= first_structure(make_up))


def first_structure(make_up: MakeUp) -> int:
    """Position of the outermost structure layer."""
    return next((i for i, held in enumerate(make_up.layers) if held.function == "structure"), 0)


def bearing_layer(make_up: MakeUp) -> int:
    """Position of the layer that carries: the frame; the inner leaf of a cavity wall."""
    return max((i for i, held in enumerate(make_up.layers) if held.function == "structure"), default=0)


def wall_bar(
    wall: PlannedWall, box: tuple[float, float, float, float], inner: float, outer: float, about: float | None = None
) -> Solid:
    """A body of a rectangle (along, z) between two distances outward from the set-out line.

    On an arc it stands square to the wall at its own middle, or at a distance along that it is built `about`.
    """
    stand = wall.stand((box[0] + box[2]) / 2 if about is None else about)
    return bar_along(box, stand.at(0.0, inner if wall.side < 0 else outer), stand.run, outer - inner)


def wall_solid(wall: PlannedWall, profile: Polygon, inner: float, outer: float, about: float = 0.0) -> Solid:
    """A body of a profile (distance along, z) between two distances outward from the set-out line."""
    stand = wall.stand(about)
    return prism_along(profile, stand.at(0.0, inner if wall.side < 0 else outer), stand.run, outer - inner)


def opening_hole(wall: PlannedWall, placed: PlacedOpening, inner: float, outer: float) -> Solid | None:
    """What an opening takes from a layer: its jambs are parallel, in arcs too. None where a niche does not reach."""
    past = 1.0 + wall.bulging(placed.right - placed.left)
    low, high = inner - past, min(outer + past, placed.back(wall))
    if high <= inner:
        return None
    if placed.design.arch > 0:
        return wall_solid(wall, outline(placed), low, high, placed.centre)
    box = (placed.left, placed.sill.total, placed.right, placed.head.total)
    return wall_bar(wall, box, low, high, placed.centre)


@lru_cache(maxsize=512)
def wall_parts(
    wall: PlannedWall, make_up: MakeUp, openings: tuple[PlacedOpening, ...], top: WallTop
) -> tuple[Part, ...]:
    """Every part of a wall but the units in its openings."""
    return tuple(
        part
        for planned, layer in zip(wall.layers, make_up.layers)
        for part in _layer_parts(wall, planned, layer, make_up, openings, top)
    )


def _layer_parts(
    wall: PlannedWall,
    planned: PlannedLayer,
    layer: Layer,
    make_up: MakeUp,
    openings: tuple[PlacedOpening, ...],
    top: WallTop,
) -> Iterator[Part]:
    position = make_up.layers.index(layer)
    structure = bearing_layer(make_up)
    members = (*_members(wall, planned, layer, openings, top), *_masonry(wall, planned, layer, openings, top))
    yield from members
    bare = layer.framing is not None and layer.framing.infill is None
    if planned.polygon.is_empty or bare or layer.material == AIR:
        return
    taken = (opening_hole(wall, placed, planned.inner, planned.outer) for placed in openings)
    holes = [hole for hole in taken if hole is not None]
    role = "infill" if layer.framing else layer.function
    for span in top.spans:
        rising = span.gable and not (top.ceiled and position > structure)
        clads = position < first_structure(make_up)
        solid = _body(wall, planned, top, span, rising, top.skirt if clads else top.base)
        if solid is None:
            continue
        if rising or position < structure:
            for plane in span.deck if rising and position < structure else span.under:
                solid = solid.below(plane)
        for plane in batters(wall, top.base):
            solid = solid.below(plane)
        yield Part(
            key=part_key(wall.wall.id, role, layer.id, span.roof if len(top.spans) > 1 else ""),
            element=wall.wall.id,
            role=role,
            material=layer.framing.infill if layer.framing and layer.framing.infill else layer.material,
            solid=solid.minus([*holes, *(member.solid for member in members)]),
            sums=(top.base_sum, top.plate_sum, *(o.head.id for o in openings), *(o.sill.id for o in openings)),
            origin=(*wall.at(0.0), top.courses if clads else top.base),
            outside=top.shows(wall, position, make_up),
            function=layer.function,
            curve=wall.curve,
        )


@lru_cache(maxsize=512)
def layer_bodies(wall: PlannedWall, make_up: MakeUp, top: WallTop) -> tuple[tuple[str, Solid], ...]:
    """Each layer of a wall as one body before openings, by its id: what is framed as if it were solid."""
    solid = tuple(
        layer.model_copy(update={"framing": None, "wall_plate": None, "lintels": None}) for layer in make_up.layers
    )
    plain = make_up.model_copy(update={"layers": solid})
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
    wall: PlannedWall, planned: PlannedLayer, layer: Layer, openings: tuple[PlacedOpening, ...], top: WallTop
) -> Iterator[Part]:
    """What is built into a leaf: its wall plate where rafters bear on it, and lintels over its openings."""

    def part(role: str, slot: str, material: str, solid: Solid) -> Part:
        axis = (*wall.run, 0.0)
        key = part_key(wall.wall.id, role, layer.id, slot)
        sums = (top.base_sum, top.plate_sum)
        return Part(key, wall.wall.id, role, material, solid, axis, sums, outside=False, function="structure")

    if layer.wall_plate and not planned.polygon.is_empty:
        low = top.plate - layer.wall_plate.depth
        for span in top.spans:
            if span.bears:
                strip = wall.strip(span.start, span.end, planned.inner - 1e4, planned.outer + 1e4)
                area = MultiPolygon(list(polygons_of(planned.polygon.intersection(strip))))
                if not area.is_empty:
                    slot = span.roof if len(top.spans) > 1 else ""
                    yield part("wall_plate", slot, layer.wall_plate.material, prism(area, low, top.plate))
    if layer.lintels:
        for held in openings:
            head = held.head.total
            rise = min(head + layer.lintels.depth, top.plate)
            box = (held.left - layer.lintels.bearing, head, held.right + layer.lintels.bearing, rise)
            if rise - head > 1:
                solid = wall_bar(wall, box, planned.inner, planned.outer, held.centre)
                yield part("lintel", held.opening.id, layer.lintels.material, solid)


def _body(
    wall: PlannedWall, planned: PlannedLayer, top: WallTop, span: TopSpan, rising: bool, low: float
) -> Solid | None:
    """The body of a layer in a span from `low` up, before holes: parted where other walls stand on it, whole above
    the plate."""
    polygon, whole = planned.polygon, planned.whole
    if len(top.spans) > 1:
        strip = wall.strip(span.start, span.end, planned.inner - 1e4, planned.outer + 1e4)
        polygon, whole = (MultiPolygon(list(polygons_of(p.intersection(strip)))) for p in (polygon, whole))
    if polygon.is_empty:
        return None
    if not rising:
        return prism(polygon, low, top.plate)
    if polygon.equals(whole):
        return prism(whole, low, span.peak)
    gaps = [prism(gap, low - 1, top.plate) for gap in polygons_of(whole.difference(polygon))]
    return prism(whole, low, span.peak).minus(gaps)


def _members(
    wall: PlannedWall, planned: PlannedLayer, layer: Layer, openings: tuple[PlacedOpening, ...], top: WallTop
) -> Iterator[Part]:
    framing = layer.framing
    if framing is None or not isinstance(planned.polygon, Polygon) or planned.polygon.is_empty:
        return
    first, last = _extent(wall, planned)
    foot = top.base + framing.bottom_plates * framing.thickness
    head = top.plate - framing.top_plates * framing.thickness
    if head <= foot:
        return

    def member(
        role: str, slot: str, box: tuple[float, float, float, float], upright: bool, about: float | None
    ) -> Part:
        axis = (0.0, 0.0, 1.0) if upright else (*wall.stand(about or 0.0).run, 0.0)
        solid = wall_bar(wall, box, planned.inner, planned.outer, about)
        return Part(
            part_key(wall.wall.id, role, layer.id, slot),
            wall.wall.id,
            role,
            layer.material,
            solid,
            axis,
            (top.base_sum, top.plate_sum),
            outside=False,
            function="structure",
        )

    rough = rough_openings(openings, wall, planned.inner)
    yield from _plates(wall, planned, layer, framing, rough, top)
    if last - first < framing.thickness:
        return
    doors = [o for o in rough if o.sill <= foot]
    centres = {gap.id: gap.centre for gap in rough}
    for slot, left, right, low, high in _upright(framing, first, last, foot, head, rough, doors, wall.wall.bears):
        yield member("stud", slot, (left, low, right, high), True, centres.get(slot.rpartition(":")[2]))
    for gap in rough:
        t = framing.thickness
        left, right = max(gap.left - t, first), min(gap.right + t, last)
        header_top = min(gap.head + header_depth(gap.width, bears=wall.wall.bears, flat=t), head)
        if header_top > gap.head + 1:
            yield member("header", gap.id, (left, gap.head, right, header_top), False, gap.centre)
        if gap not in doors and gap.sill - t > foot:
            yield member("rough_sill", gap.id, (gap.left, gap.sill - t, gap.right, gap.sill), False, gap.centre)
    for span in top.spans:
        if span.gable:
            yield from _gable_studs(wall, planned, layer, framing, (first, last), top, span)


def header_depth(width: float, *, bears: bool, flat: float) -> float:
    """Depth of the header over an opening: by its width, or one member laid flat in a wall that bears nothing.

    Common practice, no source.
    """
    if not bears:
        return flat
    return lumber()["2x8" if width <= HEADER_SHORT_SPAN else "2x12"].depth


def _extent(wall: PlannedWall, planned: PlannedLayer) -> tuple[float, float]:
    """From-to distances along the wall between which a layer has its whole thickness."""
    places = [(wall.axis.along(p), wall.side * wall.axis.left_of(p)) for p in planned.polygon.exterior.coords]
    alongs = [a for a, out in places if planned.inner + TOL.point < out < planned.outer - TOL.point]
    for face in (planned.inner, planned.outer):
        on = [a for a, out in places if abs(out - face) <= TOL.point]
        alongs += [min(on), max(on)] if on else []
    middle = (min(alongs) + max(alongs)) / 2
    return max(a for a in alongs if a < middle), min(a for a in alongs if a > middle)


def _plates(
    wall: PlannedWall,
    planned: PlannedLayer,
    layer: Layer,
    framing: Framing,
    openings: tuple[RoughOpening, ...],
    top: WallTop,
) -> Iterator[Part]:
    levels = [("bottom", i, top.base + i * framing.thickness) for i in range(framing.bottom_plates)]
    levels += [("top", i, top.plate - (i + 1) * framing.thickness) for i in range(framing.top_plates)]
    for where, index, z in levels:
        solid = prism(planned.polygon, z, z + framing.thickness)
        holes = [
            wall_bar(
                wall,
                (o.left, z - 1, o.right, z + framing.thickness + 1),
                planned.inner - 1 - wall.bulging(o.right - o.left),
                planned.outer + 1 + wall.bulging(o.right - o.left),
                o.centre,
            )
            for o in openings
            if where == "bottom" and o.sill < z + framing.thickness
        ]
        yield Part(
            part_key(wall.wall.id, "plate", layer.id, f"{where}:{index}"),
            wall.wall.id,
            "plate",
            layer.material,
            solid.minus(holes),
            (*wall.run, 0.0),
            (top.base_sum, top.plate_sum),
            outside=False,
            function="structure",
        )


def stations(first: float, last: float, spacing: float, thickness: float) -> list[tuple[int, float]]:
    """(slot, near edge) of members from `first` to `last`: one flush at each end, the rest on centre.

    The slot counts the layout grid, so that it stays when a member in between falls away.

    >>> [slot for slot, _ in stations(0.0, 1000.0, 400.0, 38.0)]
    [0, 1, 2, 3]
    """
    last_edge = last - thickness
    found = [(0, first)]
    slot = 1
    while first + slot * spacing - thickness / 2 < last_edge - thickness - TOL.point:
        found.append((slot, first + slot * spacing - thickness / 2))
        slot += 1
    if last_edge > first + thickness:
        found.append((slot, last_edge))
    return found


def _upright(
    framing: Framing,
    first: float,
    last: float,
    foot: float,
    head: float,
    openings: tuple[RoughOpening, ...],
    doors: list[RoughOpening],
    bears: bool,
) -> Iterator[tuple[str, float, float, float, float]]:
    """(slot, left, right, foot, head) of studs: common ones, cripples, jacks and kings beside openings."""
    t = framing.thickness
    for number, left in stations(first, last, framing.spacing, t):
        hit = [o for o in openings if left < o.right + 2 * t and left + t > o.left - 2 * t]
        if not hit:
            yield f"{number}", left, left + t, foot, head
        for o in hit:
            if left < o.left or left + t > o.right:
                continue
            over = min(o.head + header_depth(o.width, bears=bears, flat=t), head)
            if head - over > 1:
                yield f"{number}:over:{o.id}", left, left + t, over, head
            if o not in doors and o.sill - t - foot > 1:
                yield f"{number}:under:{o.id}", left, left + t, foot, o.sill - t
    for o in openings:
        for side, jack, king in (("start", o.left - t, o.left - 2 * t), ("end", o.right, o.right + t)):
            if first <= jack and jack + t <= last:
                yield f"jack:{side}:{o.id}", jack, jack + t, foot, min(o.head, head)
            if first <= king and king + t <= last:
                yield f"king:{side}:{o.id}", king, king + t, foot, head


def _gable_studs(
    wall: PlannedWall,
    planned: PlannedLayer,
    layer: Layer,
    framing: Framing,
    extent: tuple[float, float],
    top: WallTop,
    span: TopSpan,
) -> Iterator[Part]:
    roofed = _under_roof(wall, (planned.inner + planned.outer) / 2, top, span)
    for number, left in stations(*extent, framing.spacing, framing.thickness):
        stud = rectangle(left, top.plate, left + framing.thickness, span.peak).intersection(roofed)
        for profile in polygons_of(stud):
            if profile.bounds[3] - profile.bounds[1] > framing.thickness:
                yield Part(
                    part_key(wall.wall.id, "stud", layer.id, f"gable:{number}"),
                    wall.wall.id,
                    "stud",
                    layer.material,
                    wall_solid(wall, profile, planned.inner, planned.outer),
                    (0.0, 0.0, 1.0),
                    outside=False,
                    function="structure",
                )


def _under_roof(wall: PlannedWall, outward: float, top: WallTop, span: TopSpan) -> Polygon:
    """What lies under the roof along a span, as (distance along, z): the gable's own outline."""
    ends, low = (max(span.start, -wall.length), min(span.end, 2 * wall.length)), top.base - wall.length
    shape: shapely.Geometry = rectangle(ends[0], low, ends[1], span.peak)
    for plane in span.under:
        slope = [(along, plane.z(*wall.stand().at(along, outward))) for along in ends]
        shape = shape.intersection(Polygon([(ends[0], low - 1e6), *slope, (ends[1], low - 1e6)]))
    return next(polygons_of(shape), Polygon())
