"""Circular segments by themselves: what an arc over a chord is, from its rise or from three points."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..errors import BadInput
from ..tolerance import TOL
from .axis import Axis, bulge_of, through
from .plane import Point


@dataclass(frozen=True, slots=True)
class Segment:
    """An arc and the chord under it, in mm; `angle_deg` is what the arc turns, `area` lies between arc and chord."""

    chord: float
    rise: float
    radius: float
    angle_deg: float
    length: float
    area: float
    centre: Point | None = None


def segment(chord: float, rise: float) -> Segment:
    """The segment of a chord and a rise (mm): r = c^2 / 8h + h / 2.

    Source: circular segment, any handbook of geometry (from memory).

    >>> found = segment(8000.0, 2000.0)
    >>> found.radius, round(found.angle_deg, 3)
    (5000.0, 106.26)

    Raises: BadInput when the chord or the rise is nothing.
    """
    if chord < TOL.point:
        raise BadInput("an arc needs a chord of more than nothing", field="chord", value=chord, limit=0.0)
    if rise < TOL.point:
        raise BadInput("an arc of no rise is a straight line: give a rise", field="rise", value=rise, limit=0.0)
    return _of(Axis((0.0, 0.0), (chord, 0.0), bulge_of(chord, rise=rise)), placed=False)


def segment_through(start: Point, middle: Point, end: Point) -> Segment:
    """The segment whose arc runs from start to end through a third point (mm), with its centre.

    >>> segment_through((0.0, 0.0), (4000.0, -2000.0), (8000.0, 0.0)).rise
    2000.0

    Raises: BadInput when the points lie on a line, or two of them on one place.
    """
    axis = through(start, middle, end)
    if axis is None:
        raise BadInput("these three points lie on a line: an arc needs one beside the others", field="points")
    return _of(axis, placed=True)


def _of(axis: Axis, *, placed: bool) -> Segment:
    radius, angle = axis.radius(), axis.length / axis.radius()
    return Segment(
        chord=axis.chord,
        rise=round(axis.rise, 9),
        radius=round(radius, 9),
        angle_deg=math.degrees(angle),
        length=axis.length,
        area=radius**2 * (angle - math.sin(angle)) / 2,
        centre=axis.centre if placed else None,
    )
