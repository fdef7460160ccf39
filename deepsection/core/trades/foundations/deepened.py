"""Where a slab on the ground is deeper: along its edges that carry the house, and under inner walls that bear."""

from __future__ import annotations

from collections.abc import Iterator

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.diagnostics import Diagnostic
from ...building.parts import Part, part_key
from ...geometry import Line, Plane3, Point, Solid, line_through, polygons_of, prism
from ...tolerance import TOL
from ...units import Units, format_length
from .place import PlacedFoundation

LEAST = 1e4
"""What is less (mm2) is not deepened."""


def sloped(line: Line, towards: Point, low: float) -> Plane3:
    """The plane through a line at a height that rises 1 in 1 on the side of a place."""
    if line.left_of(towards) > 0:
        line = Line(line.x, line.y, -line.dx, -line.dy)
    # left_of is -dy x + dx y + c, and less than 0 to the right.
    at = -line.dy * line.x + line.dx * line.y
    return Plane3(line.dy, -line.dx, low + at)


def under_walls(placed: PlacedFoundation, within: Polygon | MultiPolygon) -> Iterator[Part]:
    """The slab deepened under inner walls that bear: as wide as stated at its bottom, its sides 1 in 1.

    `within`: where foundation walls or deep edges stand.
    """
    held, slab = placed.foundation, placed.slab_under
    if held.under_walls == "plain" or slab is None or held.deep_depth <= placed.slab_depth:
        return
    low, rise = slab - (held.deep_depth - placed.slab_depth), held.deep_depth - placed.slab_depth
    whole = shapely.union_all([outline.polygon for outline in placed.outlines], grid_size=TOL.node)
    inside = shapely.difference(whole, within, grid_size=TOL.node)
    taken: list[Solid] = []
    for wall in placed.inner:
        middle = (wall.outer + wall.inner) / 2
        half = held.deep_width / 2
        strip = wall.strip(0.0, wall.length, middle - half - rise, middle + half + rise)
        area = _pieces(shapely.intersection(strip, inside, grid_size=TOL.node))
        if area.area < LEAST:
            continue
        solid = prism(area, low, slab)
        if not wall.axis.is_arc:
            for off, way in ((middle + half, 1.0), (middle - half, -1.0)):
                line = line_through(wall.at(0.0, off), wall.at(wall.length, off))
                # The slope rises away from the middle of the wall.
                solid = solid.above(sloped(line, wall.at(0.0, off + way), low))
        solid = solid.minus([other for other in taken if other.reach.meets(solid.reach)])
        taken.append(solid)
        key, sums = part_key(held.id, "slab_edge", "", f"under:{wall.wall.id}"), (placed.levels.ground.sum.id,)
        yield Part(key, held.id, "slab_edge", "concrete", solid, sums=sums, outside=False, function="structure")


def bearing_on_slab(held: PlacedFoundation, units: Units) -> Iterator[Diagnostic]:
    """Inner walls that bear and stand on a slab that is no deeper under them."""
    deep = held.foundation.under_walls == "deep" and held.foundation.deep_depth > held.slab_depth
    if held.slab_under is None or deep:
        return
    for wall in held.inner:
        message = (
            f"this wall bears, and stands on {format_length(held.slab_depth, units)} of slab: let "
            f"{held.foundation.name} be deeper under walls that bear"
        )
        at = wall.at(wall.length / 2)
        others = (held.foundation.id,)
        yield Diagnostic("wall-on-slab", message, wall.wall.id, "bearing", held.slab_depth, None, others, at=at)


def _pieces(shape: shapely.Geometry) -> MultiPolygon:
    return MultiPolygon(list(polygons_of(shape)))
