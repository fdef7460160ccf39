"""Solids of ceilings: joists under the roof over them, boards, what fills the bays."""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.parts import Part, part_key
from ...geometry import Point, Solid, prism
from ...model import Ceiling, Framing, Layer, MakeUp
from ..floors.bays import Bay, Boards, Trim, covered
from ..floors.holes import hole_frames
from ..floors.joists import joists_of
from ..floors.parts import infill, sheets
from ..levels.placed import Level


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
        parts += sheets(ceiling.id, layer, covered(bays), z, level)
    z = level.z
    for layer in make_up.layers[frame + 1 if joists.framing else 0 :]:
        parts += sheets(ceiling.id, layer, boards, z, level)
        z -= layer.thickness
    return tuple(parts)


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
    yield from infill(element, layer, framing, bay, within, taken, level)


def _trimmed(solid: Solid, shape: MultiPolygon, roof: tuple[Trim, ...]) -> Solid:
    """A joist cut off under the rafters whose feet it reaches."""
    for trim in roof:
        if shape.intersects(trim.area):
            solid = solid.below(trim.top)
    return solid
