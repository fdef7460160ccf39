"""Solids of floors and ceilings: joists at their spacing, rim joists or a slab, boards, what fills the bays."""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.parts import Part, part_key
from ...geometry import Point, Solid, polygons_of, prism
from ...model import Ceiling, Deck, Floor, Framing, Layer, MakeUp
from ...tolerance import TOL
from ..levels.placed import Level
from .bays import Bay, Boards, Rim, Trim, covered
from .bridging import bridging_bodies
from .framed_edges import edge_bodies
from .holes import hole_frames
from .joists import joists_of
from .members import Member, floor_members
from .profiles import profiled, webs


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
            parts += _joists(ceiling.id, joists, joists.framing, bay, bay.framed, level)
    z = level.z + (joists.thickness if joists.framing else 0.0)
    for layer in reversed(make_up.layers[:frame]):
        z += layer.thickness
        over = tuple(Boards(bay.slot, MultiPolygon(list(polygons_of(bay.covered)))) for bay in bays)
        parts += _sheets(ceiling.id, layer, over, z, level)
    z = level.z
    for layer in make_up.layers[frame + 1 if joists.framing else 0 :]:
        parts += _sheets(ceiling.id, layer, boards, z, level)
        z -= layer.thickness
    return tuple(parts)


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
) -> tuple[Part, ...]:
    """What carries, at the bearing level: joists within a rim joist, or a slab; layers on it, boards below it.

    `boards`: where layers lie over what carries, and below it between the walls. `closed`: walls stand on the floor,
    and their cladding covers its edge.
    """
    at, (over, below) = make_up.carrying, boards
    if at is None:
        return ()
    carrying, framing = make_up.layers[at], make_up.layers[at].framing
    if framing is None:
        parts = list(_slab(floor.id, carrying, bays, bearing))
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
            parts += _infill(floor.id, carrying, framing, bay, between, [*own, *open_], bearing)
    z = bearing.z + carrying.thickness
    for layer in reversed(make_up.layers[:at]):
        z += layer.thickness
        parts += _sheets(floor.id, layer, over, z, level, outside=not closed)
    z = bearing.z
    for layer in make_up.layers[at + 1 :]:
        parts += _sheets(floor.id, layer, below, z, bearing)
        z -= layer.thickness
    return tuple(parts)


def _slab(element: str, layer: Layer, bays: tuple[Bay, ...], bearing: Level) -> Iterator[Part]:
    """A slab that spans, without its holes."""
    for bay in covered(bays):
        if not bay.area.is_empty:
            key, solid = (
                part_key(element, "slab", layer.id, bay.slot),
                prism(bay.area, bearing.z, bearing.z + layer.thickness),
            )
            sums = (bearing.sum.id,)
            yield Part(key, element, "slab", layer.material, solid, None, sums, outside=False, function="structure")


def _filled_beside(member: Member, framing: Framing) -> Polygon | MultiPolygon:
    """What of a member in plan keeps out what fills the bays: blocks lie on the toes of concrete beams."""
    return webs(member.direction, member.area, framing) if framing.profile == "T" else member.area


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


def _joists(
    element: str, layer: Layer, framing: Framing, bay: Bay, within: Polygon | MultiPolygon, level: Level
) -> Iterator[Part]:
    """The joists of a ceiling, under the roof over them, and what lies between them."""
    top, taken = level.z + layer.thickness, list[shapely.Geometry]()
    along, across = bay.direction, (bay.direction[1], -bay.direction[0])

    def member(role: str, slot: str, shape: MultiPolygon, run: Point) -> Part:
        solid = _trimmed(prism(shape, level.z, top), shape, bay.roof)
        key = part_key(element, role, layer.id, f"{bay.slot}:{slot}")
        sums = (level.sum.id,)
        return Part(key, element, role, layer.material, solid, (*run, 0.0), sums, outside=False, function="structure")

    frames = hole_frames(bay, within, framing)
    for frame in frames:
        taken += frame.members
        for k, area in frame.trimmers:
            yield member("trimmer_joist", f"{frame.name}:{k}", area, along)
        for k, area in frame.headers:
            yield member("header_joist", f"{frame.name}:{k}", area, across)
    for joist in joists_of(framing, bay, within, [area for frame in frames for area in frame.members]):
        taken.append(joist.area)
        slot = f"{joist.slot}:{joist.run.number}" if joist.run.number else joist.slot
        yield member("joist", slot, joist.area, along)
    yield from _infill(element, layer, framing, bay, within, taken, level)


def _infill(
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


def _trimmed(solid: Solid, shape: MultiPolygon, roof: tuple[Trim, ...]) -> Solid:
    """A joist cut off under the rafters whose feet it reaches."""
    for trim in roof:
        if shape.intersects(trim.area):
            solid = solid.below(trim.top)
    return solid
