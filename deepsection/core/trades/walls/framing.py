"""The members of a framed wall: plates, studs, headers, and what framing leaves free for units."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import shapely
from shapely.geometry import Polygon
from shapely.geometry import box as rectangle

from ...building.parts import Part, part_key
from ...catalog import lumber
from ...geometry import polygons_of
from ...model import Framing, Layer
from ...tolerance import TOL
from ...units import FOOT
from ..openings.placed import PlacedOpening
from .bodies import TopSpan, WallTop, leaning, standing, wall_bar, wall_solid
from .planned import PlannedLayer, PlannedWall

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


def frame_members(
    wall: PlannedWall,
    planned: PlannedLayer,
    layer: Layer,
    openings: tuple[PlacedOpening, ...],
    top: WallTop,
    inward: int = 0,
) -> Iterator[Part]:
    """Studs, plates, headers and rough sills of a framed layer; none of any other.

    `inward`: how many layers it lies inside of the one that bears. A frame outside of that one passes the edge of the
    floor, and ends under the rafters; one inside of it stops at a ceiling.
    """
    framing = layer.framing
    if framing is None or not isinstance(planned.polygon, Polygon) or planned.polygon.is_empty:
        return
    first, last = _extent(wall, planned)
    low = top.skirt if inward < 0 else top.base
    high = _under_rafters(wall, planned, top) if inward < 0 else top.plate
    foot = low + framing.bottom_plates * framing.thickness
    head = high - framing.top_plates * framing.thickness
    if head <= foot:
        return

    def member(
        role: str, slot: str, box: tuple[float, float, float, float], upright: bool, about: float | None
    ) -> Part:
        axis = (0.0, 0.0, 1.0) if upright else (*wall.stand(about or 0.0).run, 0.0)
        solid = leaning(wall, wall_bar(wall, box, planned.inner, planned.outer, about), top.base)
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
    yield from _plates(wall, planned, layer, framing, rough, top, low, high)
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
        if span.gable and not (inward > 0 and top.ceiled):
            yield from _gable_studs(wall, planned, layer, framing, (first, last), top, span)


def _under_rafters(wall: PlannedWall, planned: PlannedLayer, top: WallTop) -> float:
    """How high a frame goes that stands outside of the one that rafters bear on: to where they pass over it."""
    highest = top.plate
    for span in top.spans:
        if span.bears:
            middle = (max(span.start, 0.0) + min(span.end, wall.length)) / 2
            x, y = wall.stand(middle).at(middle, planned.outer)
            highest = min(highest, *(plane.z(x, y) for plane in span.under))
    return highest


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
    low: float,
    high: float,
) -> Iterator[Part]:
    levels = [("bottom", i, low + i * framing.thickness) for i in range(framing.bottom_plates)]
    levels += [("top", i, high - (i + 1) * framing.thickness) for i in range(framing.top_plates)]
    for where, index, z in levels:
        solid = standing(wall, planned.polygon, z, z + framing.thickness, top.base)
        gone = [
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
            solid.minus([leaning(wall, hole, top.base) for hole in gone]),
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
            if left < o.left - TOL.point or left + t > o.right + TOL.point:
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
                    leaning(wall, wall_solid(wall, profile, planned.inner, planned.outer), top.base),
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
        below = Polygon([(ends[0], low - 1e6), *slope, (ends[1], low - 1e6)])
        shape = shapely.intersection(shape, below, grid_size=TOL.node)
    return next(polygons_of(shape), Polygon())
