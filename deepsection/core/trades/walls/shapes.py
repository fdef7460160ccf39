"""Walls that are not plain: free outlines, tapers, and how far the ends of leaning walls move as they rise."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping

from shapely.geometry import Polygon
from shapely.geometry.polygon import orient

from ...building.diagnostics import Diagnostic
from ...geometry import Axis, Point, line_through, offset_line
from ...model import MakeUp, Wall, bearing_layer, drift_of, outward_of
from .joins import SMOOTH
from .planned import PlannedWall

PLUMB = ((0.0, 0.0), (0.0, 0.0))
"""The drifts of a wall that stands plumb between others that do."""
THINNEST_END = 20.0
"""A bearing layer thinner than this at its thin end (mm) tapers to nothing."""
SMALLEST_PLAN = 100.0
"""An outline that holds less (mm2) is none."""


def end_drift(wall: Wall, axis: Axis, others: list[tuple[Wall, Axis]]) -> Point:
    """How far the end of a wall moves per mm of rise, so that it stays on its own faces and on those it meets there."""
    own = drift_of(wall, axis)
    if axis.is_arc:
        return own
    nx, ny = outward_of(wall, axis)
    for other, held in others:
        if held.is_arc or not (wall.lean or other.lean):
            continue
        mx, my = outward_of(other, held)
        cross = nx * my - ny * mx
        if abs(cross) > SMOOTH:
            a, b = math.tan(math.radians(wall.lean)), math.tan(math.radians(other.lean))
            return (a * my - b * ny) / cross, (b * nx - a * mx) / cross
    return own


def skew_axis(wall: Wall, axis: Axis, inner: float) -> Axis | None:
    """The line along which the faces on the inside of a tapered wall run, from its start to its end.

    That of its bearing layer lies `inner` outward of the set-out line at the start, and `taper` farther at the end; the
    rest of its inside is parallel to it.
    """
    if not wall.taper or axis.is_arc:
        return None
    side = 1.0 if wall.outside == "left" else -1.0
    face = line_through(axis.at(0.0, side * inner), axis.at(axis.length, side * (inner + wall.taper)))
    line = offset_line(face, -side * inner)
    return Axis((line.x, line.y), line.at(axis.length))


def outline_area(wall: Wall, axis: Axis, grown: float = 0.0) -> Polygon:
    """The plan of a wall with an outline of its own, as far `grown` all around (mm)."""
    side = 1.0 if wall.outside == "left" else -1.0
    polygon = orient(Polygon([axis.at(spot.along, side * spot.out) for spot in wall.outline]))
    return polygon.buffer(grown, join_style="mitre") if grown else polygon


Fault = tuple[str, str, str, float | None, float | None]
"""Code, message, field, value, limit."""


def shape_faults(planned: tuple[PlannedWall, ...], make_ups: Mapping[str, MakeUp]) -> Iterator[Diagnostic]:
    """What is wrong with walls that are not plain."""
    for wall in planned:
        held, make_up, at = wall.wall, make_ups[wall.wall.make_up], wall.at(wall.length / 2)
        found: list[Fault] = []
        if held.lean and wall.axis.is_arc:
            found.append(("arc-leans", "an arc cannot lean: part it into straight walls", "lean", None, None))
        if held.taper:
            found += _taper_faults(held, wall.axis, make_up)
        if held.outline:
            found += _outline_faults(held, wall.axis, make_up)
        for code, message, field, value, limit in found:
            yield Diagnostic(code, message, held.id, field, value, limit, at=at)


def _taper_faults(wall: Wall, axis: Axis, make_up: MakeUp) -> Iterator[Fault]:
    bearing = make_up.layers[bearing_layer(make_up)]
    if axis.is_arc:
        yield "arc-tapers", "an arc cannot taper: part it into straight walls", "taper", None, None
    elif bearing.framing:
        message = f"the studs of {bearing.name} cannot taper: build this wall of a solid layer"
        yield "frame-tapers", message, "taper", None, None
    if bearing.thickness - wall.taper < THINNEST_END:
        message = f"{bearing.name} tapers to nothing at the end of this wall: make the taper less"
        yield "taper-to-nothing", message, "taper", wall.taper, bearing.thickness - THINNEST_END


def _outline_faults(wall: Wall, axis: Axis, make_up: MakeUp) -> Iterator[Fault]:
    area = outline_area(wall, axis)
    if not area.is_valid or area.area < SMALLEST_PLAN:
        message = "the outline of this wall crosses itself or holds no area"
        yield "outline-crosses", message, "outline", None, None
    if len(make_up.layers) > 1:
        message = f"a wall with an outline of its own is of one layer; {make_up.name} has {len(make_up.layers)}"
        yield "outline-layered", message, "make_up", len(make_up.layers), 1
    if axis.is_arc or wall.lean or wall.taper:
        message = "a wall with an outline of its own is straight, upright and not tapered"
        yield "outline-shaped", message, "outline", None, None
