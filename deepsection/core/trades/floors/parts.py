"""Solids of joist floors and ceilings: joists at their spacing, rim joists, boards, what fills the bays."""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.parts import Part, part_key
from ...geometry import Line, Solid, polygons_of, prism
from ...model import Ceiling, Floor, Framing, Layer, MakeUp
from ...tolerance import TOL
from ..levels.placed import Level
from ..walls.framing import stations
from .bays import Bay, Boards, Rim, Trim
from .holes import WHOLE, HoleFrame, hole_frames

RIPPED = 0.6
"""A joist that would be narrower than this share of its thickness is left out: the rim joist beside it does."""


@lru_cache(maxsize=64)
def ceiling_parts(
    ceiling: Ceiling, make_up: MakeUp, bays: tuple[Bay, ...], boards: tuple[Boards, ...], level: Level
) -> tuple[Part, ...]:
    """Joists on the plates beside the rafters, quilt between them; layers over and under them, each on the last."""
    parts: list[Part] = []
    frame = next((k for k, layer in enumerate(make_up.layers) if layer.framing), 0)
    joists = make_up.layers[frame]
    if joists.framing:
        for bay in bays:
            parts += _joists(ceiling.id, joists, joists.framing, bay, bay.region, level)
    z = level.z + (joists.thickness if joists.framing else 0.0)
    for layer in reversed(make_up.layers[:frame]):
        z += layer.thickness
        over = tuple(Boards(bay.slot, MultiPolygon([bay.region])) for bay in bays)
        parts += _sheets(ceiling.id, layer, over, z, level)
    z = level.z
    for layer in make_up.layers[frame + 1 if joists.framing else 0 :]:
        parts += _sheets(ceiling.id, layer, boards, z, level)
        z -= layer.thickness
    return tuple(parts)


@lru_cache(maxsize=64)
def floor_parts(
    floor: Floor,
    make_up: MakeUp,
    bays: tuple[Bay, ...],
    rims: tuple[Rim, ...],
    below: tuple[Boards, ...],
    bearing: Level,
    level: Level,
    closed: bool,
) -> tuple[Part, ...]:
    """Joists within a rim joist at the bearing level, boards on them, boards below between the walls.

    `closed`: walls stand on the floor, and their cladding covers its edge.
    """
    at = next((k for k, layer in enumerate(make_up.layers) if layer.framing), None)
    if at is None:
        return ()
    joists, framing = make_up.layers[at], make_up.layers[at].framing
    assert framing is not None
    parts: list[Part] = []
    ring = shapely.union_all([rim.area for rim in rims])
    for bay in bays:
        inner = shapely.difference(bay.region, ring, grid_size=TOL.node)
        frames = hole_frames(bay, inner, framing)
        for frame in frames:
            parts += _hole_members(floor.id, joists, bay, frame, bearing)
        parts += _joists(floor.id, joists, framing, bay, inner, bearing, frames)
    for rim in rims:
        key = part_key(floor.id, "rim_joist", joists.id, rim.wall)
        solid = prism(rim.area, bearing.z, bearing.z + joists.thickness)
        axis, sums = (*rim.run, 0.0), (bearing.sum.id, level.sum.id)
        parts.append(
            Part(
                key, floor.id, "rim_joist", joists.material, solid, axis, sums, outside=not closed, function="structure"
            )
        )
    z = bearing.z + joists.thickness
    decked = tuple(Boards(bay.slot, MultiPolygon(list(polygons_of(bay.covered)))) for bay in bays)
    for layer in reversed(make_up.layers[:at]):
        z += layer.thickness
        parts += _sheets(floor.id, layer, decked, z, level, outside=not closed)
    z = bearing.z
    for layer in make_up.layers[at + 1 :]:
        parts += _sheets(floor.id, layer, below, z, bearing)
        z -= layer.thickness
    return tuple(parts)


def _sheets(
    element: str, layer: Layer, boards: tuple[Boards, ...], top: float, level: Level, *, outside: bool = False
) -> Iterator[Part]:
    for held in boards:
        if held.area.is_empty:
            continue
        key = part_key(element, layer.function, layer.id, held.slot)
        solid = prism(held.area, top - layer.thickness, top)
        sums = (level.sum.id,)
        yield Part(
            key,
            element,
            layer.function,
            layer.material,
            solid,
            sums=sums,
            outside=outside,
            function=layer.function,
        )


def joist_strips(
    framing: Framing, bay: Bay, within: Polygon | MultiPolygon, least: float = RIPPED
) -> Iterator[tuple[int, MultiPolygon]]:
    """(slot, area) of joists: on the layout of the bay, one flush at each side, as far as they lie within an area and
    are left with at least a share of their thickness."""
    dx, dy = bay.direction
    across, span = Line(0.0, 0.0, dy, -dx), Line(0.0, 0.0, dx, dy)
    reach = [across.along(point) for point in bay.region.exterior.coords]
    far = [span.along(point) for point in bay.region.exterior.coords]
    for number, near in stations(min(reach), max(reach), framing.spacing, framing.thickness):
        corners = [(near, min(far)), (near + framing.thickness, min(far))]
        corners += [(near + framing.thickness, max(far)), (near, max(far))]
        strip = Polygon([(across.dx * a + dx * s, across.dy * a + dy * s) for a, s in corners])
        pieces = []
        for piece in polygons_of(shapely.intersection(strip, within, grid_size=TOL.node)):
            wide = [across.along(point) for point in piece.exterior.coords]
            if max(wide) - min(wide) > least * framing.thickness:
                pieces.append(piece)
        if pieces:
            yield number, MultiPolygon(pieces)


def _joists(
    element: str,
    layer: Layer,
    framing: Framing,
    bay: Bay,
    within: Polygon | MultiPolygon,
    level: Level,
    frames: tuple[HoleFrame, ...] = (),
) -> Iterator[Part]:
    top = level.z + layer.thickness

    def part(role: str, material: str, solid: Solid, slot: str, axis: tuple[float, float, float] | None) -> Part:
        key = part_key(element, role, layer.id, slot)
        function = "structure" if axis else "insulation"
        return Part(key, element, role, material, solid, axis, (level.sum.id,), outside=False, function=function)

    taken: list[shapely.Geometry] = []
    least = RIPPED
    if frames:
        within = shapely.difference(within, shapely.union_all([held.taken for held in frames]), grid_size=TOL.node)
        least = WHOLE
    for number, shape in joist_strips(framing, bay, within, least):
        taken.append(shape)
        solid = _trimmed(prism(shape, level.z, top), shape, bay.roof)
        yield part("joist", layer.material, solid, f"{bay.slot}:{number}", (*bay.direction, 0.0))
    if framing.infill:
        between = MultiPolygon(
            list(polygons_of(shapely.difference(within, shapely.union_all(taken), grid_size=TOL.node)))
        )
        if not between.is_empty:
            over = [prism(trim.area, level.z - 1.0, top + 1.0).above(trim.top) for trim in bay.roof]
            yield part("infill", framing.infill, prism(between, level.z, top).minus(over), bay.slot, None)


def _hole_members(element: str, layer: Layer, bay: Bay, frame: HoleFrame, level: Level) -> Iterator[Part]:
    """The trimmers and headers of a hole."""
    dx, dy = bay.direction
    top = level.z + layer.thickness
    for role, members, axis in (
        ("trimmer_joist", frame.trimmers, (dx, dy, 0.0)),
        ("header_joist", frame.headers, (dy, -dx, 0.0)),
    ):
        for name, area in members:
            key = part_key(element, role, layer.id, f"{bay.slot}:{frame.name}:{name}")
            solid = prism(area, level.z, top)
            yield Part(
                key,
                element,
                role,
                layer.material,
                solid,
                axis,
                (level.sum.id,),
                outside=False,
                function="structure",
            )


def _trimmed(solid: Solid, shape: MultiPolygon, roof: tuple[Trim, ...]) -> Solid:
    """A joist cut off under the rafters whose feet it reaches."""
    for trim in roof:
        if shape.intersects(trim.area):
            solid = solid.below(trim.top)
    return solid
