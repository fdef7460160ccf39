"""Solids below and inside the walls: footings, stem walls, slab, ceiling."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from functools import lru_cache

import shapely
from shapely.geometry import Polygon
from shapely.ops import unary_union

from ..geometry import Line, Plane3, bar_along, polygons_of, prism
from ..model import Ceiling, Foundation, Joint, Layer, MakeUp
from ._walls import stations
from .building import Level, Part, PlannedWall, part_key
from .wallplan import Bands, join_strips


@lru_cache(maxsize=64)
def foundation_parts(
    foundation: Foundation,
    slab: MakeUp,
    walls: tuple[PlannedWall, ...],
    joints: tuple[Joint, ...],
    frames: tuple[float, ...],
    outlines: tuple[Polygon, ...],
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
    for number, outline in enumerate(outlines):
        z = level.z
        for layer in slab.layers:
            for polygon in polygons_of(outline.difference(within), min_area=1e4):
                parts.append(_sheet(foundation.id, layer, polygon, z, f"outline:{number}", (level.sum.id,)))
            z -= layer.thickness
    return tuple(parts)


def _sheet(element: str, layer: Layer, polygon: Polygon, top: float, slot: str, sums: tuple[str, ...]) -> Part:
    return Part(
        part_key(element, layer.function, layer.id, slot),
        element,
        layer.function,
        layer.material,
        prism(polygon, top - layer.thickness, top),
        sums=sums,
        outside=False,
        function=layer.function,
    )


@lru_cache(maxsize=64)
def ceiling_parts(
    ceiling: Ceiling,
    make_up: MakeUp,
    outlines: tuple[Polygon, ...],
    spaces: tuple[Polygon, ...],
    gables: tuple[Polygon, ...],
    directions: tuple[tuple[float, float] | None, ...],
    roofs: tuple[tuple[Plane3, ...], ...],
    level: Level,
) -> tuple[Part, ...]:
    """Joists on the plates beside the rafters, quilt between them, boards below between the walls.

    Per outline: the direction the joists run (None: across the short side) and the roof that ends them.
    """
    parts: list[Part] = []
    for number, (outline, direction, planes) in enumerate(zip(outlines, directions, roofs)):
        inside = outline.difference(unary_union(gables)) if gables else outline
        region = max(polygons_of(inside), key=lambda polygon: polygon.area, default=None)
        if region is None:
            continue
        for layer in make_up.layers:
            if layer.framing:
                parts += _joists(ceiling, layer, region, direction, planes, level, number)
    for layer in make_up.layers:
        if not layer.framing:
            for number, space in enumerate(spaces):
                parts.append(_sheet(ceiling.id, layer, space, level.z, f"space:{number}", (level.sum.id,)))
    return tuple(parts)


def short_direction(outline: Polygon) -> tuple[float, float]:
    """Unit vector along the short side of the smallest rectangle around an outline."""
    corners = list(shapely.oriented_envelope(outline).exterior.coords)
    sides = [(math.dist(a, b), a, b) for a, b in itertools.pairwise(corners)]
    length, a, b = min(sides)
    return (b[0] - a[0]) / length, (b[1] - a[1]) / length


def _joists(
    ceiling: Ceiling,
    layer: Layer,
    region: Polygon,
    direction: tuple[float, float] | None,
    planes: tuple[Plane3, ...],
    level: Level,
    number: int,
) -> Iterator[Part]:
    framing = layer.framing
    if framing is None:
        return
    dx, dy = direction or short_direction(region)
    across = Line(0.0, 0.0, dy, -dx)
    span = Line(0.0, 0.0, dx, dy)
    reach = [across.along(point) for point in region.exterior.coords]
    far = [span.along(point) for point in region.exterior.coords]
    top = level.z + layer.thickness
    joists = []
    for slot, near in stations(min(reach), max(reach), framing.spacing, framing.thickness):
        origin = (across.dx * near, across.dy * near)
        strip = bar_along((min(far), level.z, max(far), top), origin, (dx, dy), framing.thickness)
        for plane in planes:
            strip = strip.below(plane)
        joists.append(
            Part(
                part_key(ceiling.id, "joist", layer.id, f"{number}:{slot}"),
                ceiling.id,
                "joist",
                layer.material,
                strip,
                (dx, dy, 0.0),
                (level.sum.id,),
                outside=False,
                function="structure",
            )
        )
    yield from joists
    if framing.infill:
        solid = prism(region, level.z, top)
        for plane in planes:
            solid = solid.below(plane)
        yield Part(
            part_key(ceiling.id, "infill", layer.id, f"{number}"),
            ceiling.id,
            "infill",
            framing.infill,
            solid.minus(joist.solid for joist in joists),
            sums=(level.sum.id,),
            outside=False,
            function="insulation",
        )
