"""Stage: porch slabs, beside the walls of the house; what is wrong with them."""

from __future__ import annotations

from collections.abc import Iterator

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.diagnostics import Diagnostic
from ...building.placed import Placed
from ...geometry import Plane3, polygons_of
from ...tolerance import TOL
from ...units import SumTerm, format_length
from ..levels.placed import LEVELS
from ..walls.planned import WALLS
from .model import PorchSlab
from .placed import PlacedSlab, towards

LEAST = 1e4
"""What lies less (mm2) beside the house is no slab."""


def place_slabs(placed: Placed) -> tuple[PlacedSlab, ...]:
    """The slabs that lie beside the house; others are added to what is found wrong."""
    plan, project = placed[WALLS], placed.project
    if not project.porch_slabs:
        return ()
    return tuple(held for slab in project.porch_slabs for held in _one(placed, slab, plan.house))


def _one(placed: Placed, slab: PorchSlab, house: shapely.Geometry) -> Iterator[PlacedSlab]:
    shape, level = Polygon(slab.corners), placed[LEVELS][slab.level]
    area = _pieces(shapely.difference(shape, house, grid_size=TOL.node))
    at = (shape.centroid.x, shape.centroid.y)
    if area.area < LEAST:
        message = f"{slab.name} lies within the house: move it out beside its walls"
        placed.findings.append(Diagnostic("slab-inside", message, slab.id, "corners", at=at))
        return
    dx, dy = towards(slab)
    begin = min(x * dx + y * dy for x, y in shapely.get_coordinates(area).tolist())
    high = level.sum.plus(f"top:{slab.id}", f"top of {slab.name}", SumTerm("drop", -slab.drop, slab.id, "drop"))
    top = Plane3(-slab.fall * dx, -slab.fall * dy, high.total + slab.fall * begin)
    inner = area.buffer(-slab.edge_width, join_style="mitre")
    edge = shapely.difference(area, inner, grid_size=TOL.node)
    # Against the house it has no edge of its own.
    edge = shapely.difference(edge, house.buffer(slab.edge_width, join_style="mitre"), grid_size=TOL.node)
    if slab.drop < 0.0:
        above = format_length(-slab.drop, placed.project.units)
        message = f"{slab.name} lies {above} above {level.name}: water runs in; let it lie below"
        placed.findings.append(Diagnostic("slab-high", message, slab.id, "drop", slab.drop, 0.0, at=at))
    if slab.fall and _falls_in(slab, area, house):
        message = f"{slab.name} falls towards the house: turn its fall"
        placed.findings.append(Diagnostic("slab-falls-in", message, slab.id, "fall_to", at=at))
    yield PlacedSlab(slab, area, _pieces(edge), top, high)


def _falls_in(slab: PorchSlab, area: MultiPolygon, house: shapely.Geometry) -> bool:
    """Whether the low side of a slab is nearer to the house than its high side."""
    if house.is_empty:
        return False
    dx, dy = towards(slab)
    points = shapely.get_coordinates(area)
    along = points @ (dx, dy)
    near = shapely.distance(shapely.points(points), house)
    low, high = near[along > along.max() - 1.0].min(), near[along < along.min() + 1.0].min()
    return bool(low + 1.0 < high)


def _pieces(shape: shapely.Geometry) -> MultiPolygon:
    return MultiPolygon(list(polygons_of(shape)))
