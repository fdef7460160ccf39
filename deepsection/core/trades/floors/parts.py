"""Solids of floors: joists at their spacing, rim joists or a slab, boards, what fills the bays."""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.parts import Part, part_key
from ...geometry import Solid, polygons_of, prism
from ...model import Deck, Floor, Framing, Layer, MakeUp
from ...tolerance import TOL
from ..levels.placed import Level
from .bays import Bay, Boards, Rim, covered
from .bridging import bridging_bodies
from .framed_edges import edge_bodies
from .members import Member, floor_members
from .profiles import profiled, webs
from .set_downs import SlabPart


@lru_cache(maxsize=64)
def floor_parts(
    floor: Floor | Deck,
    make_up: MakeUp,
    bays: tuple[Bay, ...],
    rims: tuple[Rim, ...],
    boards: tuple[tuple[Boards, ...], tuple[Boards, ...]],
    bearing: Level,
    level: Level,
    closed: bool,
    upstand: SlabPart | None = None,
) -> tuple[Part, ...]:
    """What carries, at the bearing level: joists within a rim joist, or a slab; layers on it, boards below it.

    `boards`: where layers lie over what carries, and below it between the walls. `closed`: walls stand on the floor,
    and their cladding covers its edge. `upstand`: of a part of a slab, what joins it to the rest.
    """
    at, (over, below) = make_up.carrying, boards
    if at is None:
        return ()
    carrying, framing = make_up.layers[at], make_up.layers[at].framing
    if framing is None:
        parts = [*_slab(floor.id, carrying, bays, bearing), *_upstand(floor.id, carrying, upstand, bearing)]
    else:
        members = floor_members(bays, rims, framing, floor.between)
        parts = []
        for member in members.all:
            parts += _member(floor.id, carrying, member, bearing, level, seen=not closed)
        for bay, inner, frames, top in zip(bays, members.within, members.frames, over):
            own = [_filled_beside(held, framing) for held in members.all if held.lies_in(bay)]
            open_ = [held.area for held in frames]
            # Within masonry nothing lies between members but masonry.
            between = shapely.intersection(inner, top.area) if framing.infill else inner
            parts += infill(floor.id, carrying, framing, bay, between, [*own, *open_], bearing)
    z = bearing.z + carrying.thickness
    for layer in reversed(make_up.layers[:at]):
        z += layer.thickness
        parts += sheets(floor.id, layer, over, z, level, outside=not closed)
    z = bearing.z
    for layer in make_up.layers[at + 1 :]:
        parts += sheets(floor.id, layer, below, z, bearing)
        z -= layer.thickness
    return tuple(parts)


def _slab(element: str, layer: Layer, bays: tuple[Bay, ...], bearing: Level) -> Iterator[Part]:
    """A slab that spans, without its holes."""
    for bay in covered(bays):
        if not bay.area.is_empty:
            key = part_key(element, "slab", layer.id, bay.slot)
            solid = prism(bay.area, bearing.z, bearing.z + layer.thickness)
            sums = (bearing.sum.id,)
            yield Part(key, element, "slab", layer.material, solid, None, sums, outside=False, function="structure")


def _upstand(element: str, layer: Layer, held: SlabPart | None, bearing: Level) -> Iterator[Part]:
    """The upright concrete round a part of a slab."""
    if held is None or held.upstand.is_empty:
        return
    key, solid = part_key(element, "upstand", layer.id), prism(held.upstand, held.low, held.high)
    sums = (bearing.sum.id,)
    yield Part(key, element, "upstand", layer.material, solid, None, sums, outside=False, function="structure")


def _filled_beside(member: Member, framing: Framing) -> Polygon | MultiPolygon:
    """What of a member in plan keeps out what fills the bays: blocks lie on the toes of concrete beams."""
    return webs(member.direction, member.area, framing) if framing.profile == "T" else member.area


def sheets(
    element: str, layer: Layer, boards: tuple[Boards, ...], top: float, level: Level, *, outside: bool = False
) -> Iterator[Part]:
    """The sheets of a layer over some areas, their top at a height (mm)."""
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


def _member(element: str, layer: Layer, member: Member, bearing: Level, level: Level, *, seen: bool) -> Iterator[Part]:
    """What a member of a floor is made of; its rims are seen from outside where no cladding covers them."""
    rim, edge = member.role in ("rim_joist", "ledger"), member.role == "framed_edge"
    sums = (bearing.sum.id, level.sum.id) if rim or edge else (bearing.sum.id,)
    for role, slot, axis, body in _bodies(layer, member, bearing.z, bearing.z + layer.thickness):
        key = part_key(element, role, layer.id, f"{member.slot}{slot}")
        yield Part(key, element, role, layer.material, body, axis, sums, outside=rim and seen, function="structure")


Axis3 = tuple[float, float, float]
UPRIGHT: Axis3 = (0.0, 0.0, 1.0)


def _bodies(layer: Layer, member: Member, low: float, high: float) -> Iterator[tuple[str, str, Axis3 | None, Solid]]:
    """(role, end of the slot, axis, body) of what a member is made of, between two heights (mm)."""
    framing, run = layer.framing, (*member.direction, 0.0)
    assert framing is not None
    if member.role == "framed_edge":
        for role, name, body in edge_bodies(member.direction, member.area, framing, low, high):
            yield role, f":{name}", run if role == "plate" else UPRIGHT, body
    elif member.role == "bridging":
        for name, body in bridging_bodies(member.direction, member.area, low, high):
            yield member.role, f":{name}", None, body
    elif member.role == "joist" or (member.role == "trimmer_joist" and framing.profile == "T"):
        yield member.role, "", run, profiled(member.direction, member.area, framing, low, high)
    else:
        yield member.role, "", run, prism(member.area, low, high)


def infill(
    element: str,
    layer: Layer,
    framing: Framing,
    bay: Bay,
    within: Polygon | MultiPolygon,
    taken: list[shapely.Geometry],
    level: Level,
) -> Iterator[Part]:
    """What fills the space between members."""
    if not framing.infill:
        return
    top = level.z + layer.thickness
    low = level.z + (framing.flange if framing.profile == "T" else 0.0)
    rest = shapely.difference(within, shapely.union_all(taken), grid_size=TOL.node)
    between = MultiPolygon(list(polygons_of(rest)))
    if not between.is_empty:
        over = [prism(trim.area, level.z - 1.0, top + 1.0).above(trim.top) for trim in bay.roof]
        key, solid = part_key(element, "infill", layer.id, bay.slot), prism(between, low, top).minus(over)
        sums = (level.sum.id,)
        yield Part(key, element, "infill", framing.infill, solid, None, sums, outside=False, function="insulation")
