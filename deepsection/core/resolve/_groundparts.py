"""Solids below and inside the walls: footings, stem walls, slab, ceiling."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

import shapely
from shapely.geometry import MultiPolygon, Polygon
from shapely.ops import unary_union

from ..geometry import Line, Plane3, Solid, polygons_of, prism
from ..model import Ceiling, Foundation, Framing, Joint, Layer, MakeUp
from ._walls import stations
from .building import Level, Outline, Part, PlannedWall, part_key
from .wallplan import Bands, join_strips


@lru_cache(maxsize=64)
def foundation_parts(
    foundation: Foundation,
    slab: MakeUp,
    walls: tuple[PlannedWall, ...],
    joints: tuple[Joint, ...],
    frames: tuple[float, ...],
    outlines: tuple[Outline, ...],
    level: Level,
    footing: Level,
) -> tuple[Part, ...]:
    """Stem walls flush with the outside of the frame, footings centred under them, slab layers within.

    `frames`: outward distance of the outside of the frame, per wall.
    """
    margin = (foundation.footing_width - foundation.stem_thickness) / 2
    plain = tuple(wall.wall for wall in walls)

    def strips(grow: float) -> tuple[PlannedWall, ...]:
        bands: dict[str, Bands] = {
            wall.wall.id: (("strip", frame + grow, frame - foundation.stem_thickness - grow, True),)
            for wall, frame in zip(walls, frames)
        }
        return join_strips(plain, joints, bands)

    foot, top = footing.z, footing.z + foundation.footing_depth
    parts = []
    stems = strips(0.0)
    for role, strip, low, high in (("stem", stems, top, level.z), ("footing", strips(margin), foot, top)):
        for wall in strip:
            for polygon in polygons_of(wall.footprint):
                parts.append(
                    Part(
                        part_key(foundation.id, role, "", wall.wall.id),
                        foundation.id,
                        role,
                        "concrete",
                        prism(polygon, low, high),
                        sums=(level.sum.id, footing.sum.id),
                        function="structure",
                    )
                )
    within = unary_union([wall.footprint for wall in stems]) if stems else Polygon()
    for outline in outlines:
        z = level.z
        inside = outline.polygon.difference(within)
        for layer in slab.layers:
            parts.append(_sheet(foundation.id, layer, inside, z, f"outline:{outline.name}", (level.sum.id,)))
            z -= layer.thickness
    return tuple(parts)


def _sheet(element: str, layer: Layer, shape: Polygon, top: float, slot: str, sums: tuple[str, ...]) -> Part:
    return Part(
        part_key(element, layer.function, layer.id, slot),
        element,
        layer.function,
        layer.material,
        prism(shape, top - layer.thickness, top),
        sums=sums,
        outside=False,
        function=layer.function,
    )


@dataclass(frozen=True, slots=True)
class Ceiled:
    """An outline under a ceiling: where joists may lie, which way they run, and the roof that ends them."""

    outline: Outline
    region: Polygon
    direction: tuple[float, float]
    roof: tuple[Plane3, ...]
    under: str
    """The id of that roof, or nothing."""


@lru_cache(maxsize=64)
def ceiling_parts(
    ceiling: Ceiling, make_up: MakeUp, outlines: tuple[Outline, ...], ceiled: tuple[Ceiled, ...], level: Level
) -> tuple[Part, ...]:
    """Joists on the plates beside the rafters, quilt between them, boards below between the walls."""
    parts: list[Part] = []
    for layer in make_up.layers:
        if layer.framing:
            for held in ceiled:
                parts += _joists(ceiling, layer, layer.framing, held, level)
            continue
        for outline in outlines:
            boards, slot = MultiPolygon(outline.spaces), f"outline:{outline.name}"
            if outline.spaces:
                parts.append(_sheet(ceiling.id, layer, boards, level.z, slot, (level.sum.id,)))
    return tuple(parts)


def short_direction(outline: Polygon) -> tuple[float, float]:
    """Unit vector along the short side of the smallest rectangle around an outline."""
    corners = list(shapely.oriented_envelope(outline).exterior.coords)
    sides = [(math.dist(a, b), a, b) for a, b in itertools.pairwise(corners)]
    length, a, b = min(sides)
    return (b[0] - a[0]) / length, (b[1] - a[1]) / length


def _joists(ceiling: Ceiling, layer: Layer, framing: Framing, held: Ceiled, level: Level) -> Iterator[Part]:
    dx, dy = held.direction
    across, span = Line(0.0, 0.0, dy, -dx), Line(0.0, 0.0, dx, dy)
    reach = [across.along(point) for point in held.region.exterior.coords]
    far = [span.along(point) for point in held.region.exterior.coords]
    top = level.z + layer.thickness
    slot = f"outline:{held.outline.name}" + (f":{held.under}" if held.under else "")

    def part(role: str, material: str, solid: Solid, slot: str, axis: tuple[float, float, float] | None) -> Part:
        key = part_key(ceiling.id, role, layer.id, slot)
        function = "structure" if axis else "insulation"
        return Part(key, ceiling.id, role, material, solid, axis, (level.sum.id,), outside=False, function=function)

    joists = []
    for number, near in stations(min(reach), max(reach), framing.spacing, framing.thickness):
        corners = [(near, min(far)), (near + framing.thickness, min(far))]
        corners += [(near + framing.thickness, max(far)), (near, max(far))]
        strip = Polygon([(across.dx * a + dx * s, across.dy * a + dy * s) for a, s in corners])
        shape = MultiPolygon(list(polygons_of(strip.intersection(held.region))))
        if not shape.is_empty:
            solid = _under(prism(shape, level.z, top), held.roof)
            joists.append(part("joist", layer.material, solid, f"{slot}:{number}", (dx, dy, 0.0)))
    yield from joists
    if framing.infill:
        solid = _under(prism(held.region, level.z, top), held.roof).minus(joist.solid for joist in joists)
        yield part("infill", framing.infill, solid, slot, None)


def _under(solid: Solid, planes: tuple[Plane3, ...]) -> Solid:
    for plane in planes:
        solid = solid.below(plane)
    return solid
