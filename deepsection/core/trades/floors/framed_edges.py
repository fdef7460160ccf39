"""The edge of a floor as a short framed wall: plates and studs that close the depth of its joists."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

import shapely
from shapely.geometry import MultiPolygon

from ...building.diagnostics import Diagnostic
from ...geometry import Point, Solid, polygons_of, prism
from ...model import Floor, Framing, MakeUp, bearing_layer
from ...tolerance import TOL
from ...units import Units, format_length
from ..walls.framing import stations
from ..walls.planned import PlannedWall
from .supports import BEARING
from .turned import Turned

THICKEST = 38.1
"""Plates and studs of a framed edge are no thicker than this (mm), whatever its joists are."""


def edge_bodies(
    run: Point, area: MultiPolygon, framing: Framing, low: float, high: float
) -> Iterator[tuple[str, str, Solid]]:
    """(role, slot, body) of the plates and studs of a framed edge along a wall, between two heights (mm).

    Its plates are as thick as its studs, and these stand at the spacing of the joists.
    """
    t = min(framing.thickness, THICKEST)
    if high - low <= 2 * t + TOL.point:
        yield "plate", "solid", prism(area, low, high)
        return
    yield "plate", "bottom", prism(area, low, low + t)
    yield "plate", "top", prism(area, high - t, high)
    turned = Turned(run)
    for piece in polygons_of(area):
        box = turned.box(piece)
        places = stations(box.s0, box.s1, framing.spacing, t)
        studs = turned.rectangles([type(box)(box.a0, box.a1, at, at + t) for _, at in places])
        for (slot, _), stud in zip(places, studs):
            own = shapely.intersection(stud, piece, grid_size=TOL.node)
            if own.area > 0.5 * stud.area:
                yield "stud", f"{slot}", prism(MultiPolygon(list(polygons_of(own))), low + t, high - t)


def edge_faults(
    floor: Floor, make_ups: dict[str, MakeUp], walls: Iterable[PlannedWall], units: Units
) -> Iterator[Diagnostic]:
    """A wall from which the framed edge of a floor takes the bearing of joists."""
    for wall in walls:
        layer = make_ups[wall.wall.make_up].layers[bearing_layer(make_ups[wall.wall.make_up])]
        left = layer.thickness - floor.edge_depth
        if layer.framing and left < BEARING - TOL.point:
            message = (
                f"the framed edge of {floor.name} leaves its joists {format_length(max(left, 0.0), units)} of this "
                f"wall to lie on, and they need {format_length(BEARING, units)}: close it with a rim joist, or take a "
                "deeper frame"
            )
            at, others = wall.at(wall.length / 2), (wall.wall.id,)
            yield Diagnostic("edge-bearing", message, floor.id, "edge_depth", floor.edge_depth, None, others, at=at)
            return
