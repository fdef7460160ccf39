"""Ceilings in plan: over which walls they lie, which way their joists run, where roofs come down to them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.placed import Key
from ...geometry import Point, largest, polygons_of
from ...model import Ceiling, MakeUp, bearing_layer
from ...tolerance import TOL
from ..floors.bays import Bay, Boards, Trim, direction_of
from ..floors.holes import holes_in
from ..floors.place import ON_PLATE
from ..floors.reach import within_bearing
from ..floors.supports import bearing_beams, bearing_walls, supports_in
from ..floors.turned import Turned
from ..levels.placed import Level
from ..posts.placed import PlacedBeam
from ..roofs.placed import ResolvedRoof
from ..roofs.slopes import FAR, band, world
from ..walls.planned import WallPlan

SMALLEST_BAY = 1e6
"""A place smaller than this (mm2) gets no ceiling joists of its own."""


@dataclass(frozen=True, slots=True)
class CeilingPlan:
    """A ceiling in plan: bays of joists, and the boards below them."""

    ceiling: Ceiling
    bays: tuple[Bay, ...]
    boards: tuple[Boards, ...]
    level: Level
    bearing: Polygon | MultiPolygon
    """What its joists bear on, in plan."""


@lru_cache(maxsize=32)
def plan_ceiling(
    ceiling: Ceiling,
    plan: WallPlan,
    make_ups_of: tuple[MakeUp, ...],
    floored: Polygon | MultiPolygon,
    roofs: tuple[ResolvedRoof, ...],
    gables: Polygon | MultiPolygon,
    vaulted: Polygon | MultiPolygon,
    beams: tuple[PlacedBeam, ...],
    chimneys: tuple[tuple[str, Polygon], ...],
    hatches: tuple[tuple[str, Polygon], ...],
    level: Level,
) -> CeilingPlan:
    """A ceiling over the walls that reach up to it, where they are not `floored`; joists run along the rafters.

    None lie over what is `vaulted`; they are framed around `chimneys` and `hatches`, and boards end at these too.
    """
    make_ups = {held.id: held for held in make_ups_of}
    holes, open_ = (*chimneys, *hatches), shapely.union_all([hatch for _, hatch in hatches])
    over = [roof for roof in roofs if roof.block.plate == ceiling.level and not roof.block.offset]
    bays, boards = [], []
    depth = next((layer.thickness for layer in make_ups[ceiling.make_up].layers if layer.framing), 0.0)
    bears = [*bearing_walls(plan, make_ups, ceiling.level), *bearing_beams(beams, level, depth)]
    for outline in plan.outlines_under(ceiling.level):
        start = plan.by_id[outline.name].start
        slot = f"outline:{outline.name}"
        rest = within_bearing(outline, plan, make_ups).difference(shapely.union_all([gables, floored]))
        # What a floor leaves along the plates is no place for joists.
        rest = MultiPolygon([piece for piece in polygons_of(rest) if not piece.buffer(-ON_PLATE / 2).is_empty])
        if vaulted.intersects(rest):
            # No joists on the plates alone, beside what is vaulted.
            rest = rest.difference(vaulted).buffer(-ON_PLATE).buffer(ON_PLATE, join_style="mitre")
        for roof in sorted(over, key=lambda roof: -roof.ridge_top.total):
            region = largest(rest.intersection(roof.outline))
            if region.area > SMALLEST_BAY:
                trims = tuple(_trims(roof, region, sum(layer.thickness for layer in make_ups[ceiling.make_up].layers)))
                along = _along_rafters(roof, region) if ceiling.span == "roof" else direction_of(ceiling, region, start)
                own = supports_in(bears, region, along)
                around = holes_in(region, along, holes)
                bays.append(Bay(f"{slot}:{roof.block.id}", region, along, trims, holes=around, supports=own))
                rest = rest.difference(roof.outline.buffer(TOL.point, join_style="mitre"))
        region = largest(rest)
        if region.area > SMALLEST_BAY:
            along = direction_of(ceiling, region, start)
            around = holes_in(region, along, holes)
            bays.append(Bay(slot, region, along, holes=around, supports=supports_in(bears, region, along)))
        if outline.spaces:
            boards.append(
                Boards(
                    slot, _pieces(MultiPolygon(outline.spaces).difference(shapely.union_all([floored, vaulted, open_])))
                )
            )
    below = [plan.by_id[id] for outline in plan.outlines_under(ceiling.level) for id in outline.walls]
    ends = [wall.layers[bearing_layer(make_ups[wall.wall.make_up])].polygon for wall in below]
    bearing = shapely.union_all([*ends, *(held.area for bay in bays for held in bay.supports)])
    return CeilingPlan(ceiling, tuple(bays), tuple(boards), level, bearing)


CEILINGS: Key[tuple[CeilingPlan, ...]] = Key("ceilings")


def _along_rafters(roof: ResolvedRoof, region: Polygon) -> Point:
    """The direction of the rafters over a region; where slopes run two ways, as in a hip roof, the shorter one."""

    def reach(way: Point) -> float:
        _, _, s0, s1 = Turned(way).box(region)
        return round(s1 - s0)

    return min((plane.inward for plane in roof.planes), key=reach)


def _trims(roof: ResolvedRoof, region: Polygon, depth: float) -> Iterator[Trim]:
    """The feet of the slopes over a region, as far in as they lie below the top of what is so deep."""
    for plane in roof.planes:
        inward = (roof.plate.total + depth - plane.heel) / plane.pitch
        foot = plane.whole.intersection(world(plane, band(plane, -FAR, inward)))
        if inward > 0 and not plane.upper and foot.intersects(region):
            yield Trim(plane.top, foot)


def _pieces(shape: shapely.Geometry) -> MultiPolygon:
    return MultiPolygon(list(polygons_of(shape)))
