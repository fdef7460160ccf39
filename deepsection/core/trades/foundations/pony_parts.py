"""Pony walls: framed walls between a foundation that steps down and the floor that it carries."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import replace

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.parts import Part
from ...geometry import largest, polygons_of
from ...model import Band, Bands, Joint, MakeUp, bearing_layer
from ...tolerance import TOL
from ..walls.bodies import TopSpan, WallTop
from ..walls.corner_boards import corner_boards
from ..walls.layering import layer_parts
from ..walls.place import join_strips
from ..walls.planned import PlannedWall
from .place import PlacedFoundation
from .stretches import FAR, Stretch


def pony_walls(
    placed: PlacedFoundation, joints: tuple[Joint, ...], over: Callable[[float], Polygon | MultiPolygon]
) -> Iterator[Part]:
    """Their layers and members, stretch by stretch; the frame stands in line with that of the wall above.

    `over`: the foundation walls in plan that end above a height, to which they give way.
    """
    make_up = placed.pony
    if make_up is None or placed.levels.sill is None:
        return
    bands = {wall.wall.id: _bands(make_up, foot.outer) for wall, foot in zip(placed.walls, placed.feet)}
    plain = tuple(wall.wall for wall in placed.walls)
    planned = join_strips(plain, joints, bands, {wall.wall.id: wall.axis for wall in placed.walls})
    own = {wall.wall.id: stretches for wall, stretches in zip(placed.walls, placed.stretches)}
    for wall in planned:
        for k, stretch in enumerate(own[wall.wall.id], 1):
            if placed.is_pony(stretch):
                piece, top = _cut(wall, stretch, over(placed.stem_top(stretch))), _top(placed, stretch)
                for part in (*layer_parts(piece, make_up, (), top), *corner_boards(piece, make_up, top)):
                    yield _named(part, placed.foundation.id, f"{wall.wall.id}:{k}")


def _bands(make_up: MakeUp, face: float) -> Bands:
    """The layers of a make-up whose bearing layer has its outside at a distance outward."""
    bears = bearing_layer(make_up)
    at = face + sum(layer.thickness for layer in make_up.layers[:bears])
    bands = []
    for position, layer in enumerate(make_up.layers):
        structure = layer.function == "structure"
        bands.append(Band(layer.id, at, at - layer.thickness, structure, position == bears))
        at -= layer.thickness
    return tuple(bands)


def _cut(wall: PlannedWall, stretch: Stretch, gone: Polygon | MultiPolygon) -> PlannedWall:
    """What of a wall in plan lies in a stretch, without what is gone."""
    if stretch.first <= -FAR and stretch.last >= FAR and not wall.footprint.intersects(gone):
        return wall
    across = wall.strip(stretch.first, stretch.last, wall.inner - 1e4, wall.outer + 1e4)

    def cut(shape: Polygon | MultiPolygon) -> Polygon:
        left = shapely.difference(shapely.intersection(shape, across, grid_size=TOL.node), gone, grid_size=TOL.node)
        pieces = MultiPolygon(list(polygons_of(left)))
        return largest(pieces) if not pieces.is_empty else Polygon()

    layers = tuple(replace(layer, polygon=cut(layer.polygon), whole=cut(layer.whole)) for layer in wall.layers)
    return PlannedWall(wall.wall, wall.axis, layers, cut(wall.footprint), wall.drifts)


def _top(placed: PlacedFoundation, stretch: Stretch) -> WallTop:
    """From its plate up to what it carries; what lies outside of its frame covers the sill plate too."""
    levels, low = placed.levels, placed.stem_top(stretch)
    sill = levels.sill or levels.top
    span = TopSpan(-FAR, FAR, "", gable=False, under=(), deck=(), peak=sill.z)
    return WallTop(
        base=low + placed.plate,
        skirt=low,
        courses=low,
        leaf=low,
        plate=sill.z,
        spans=(span,),
        base_sum=levels.top.sum.id,
        plate_sum=sill.sum.id,
        ceiled=False,
        enclosed=True,
    )


def _named(part: Part, foundation: str, wall: str) -> Part:
    """A part of a wall as one of its foundation."""
    _, role, layer, slot = part.key.split("/", 3)
    key = f"{foundation}/{role}/{layer}/{wall}:{slot}" if slot else f"{foundation}/{role}/{layer}/{wall}"
    return replace(part, key=key, element=foundation)
