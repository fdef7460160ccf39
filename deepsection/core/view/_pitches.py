"""Pitch triangles over slopes that are seen or cut across their ridge."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import replace

import numpy as np
import shapely

from ..drawing import PITCH_RUN, Symbol
from ..geometry import Frame
from ..resolve import Building, ResolvedRoof, RoofPlane, part_key
from ..units import Units, format_pitch
from .faces import Face

CLEAR = 1.5
"""Paper mm between a pitch mark and the roof below it."""
BESIDE = 15.0
"""Paper mm by which the mark of a slope below a break stands farther out."""
LIFT = 11.0
"""Paper mm by which a pitch mark may be lifted over a roof behind it; one much higher it stands on."""
FIGURE = 3.2
"""Paper mm that the figure below a triangle takes."""
END_ON = 0.02
"""A slope is seen end on when it runs this close to across the view (sine of the angle)."""


def gables_shown(building: Building, faces: Iterable[Face]) -> set[str]:
    """Roofs of which a barge is seen more than halfway up: a foot that looks out behind another roof is none."""
    tops: dict[str, float] = {}
    for face in faces:
        if face.part.role == "barge":
            tops[face.part.element] = max(face.polygon.bounds[3], tops.get(face.part.element, -1e9))
    return {
        roof.block.id
        for roof in building.roofs
        if tops.get(roof.block.id, -1e9) > (roof.eave.total + roof.ridge_top.total) / 2
    }


def pitch_marks(
    building: Building,
    frame: Frame,
    shown: set[str],
    scale: float,
    units: Units,
    behind: Sequence[Face] = (),
    *,
    between: tuple[float, float] = (-math.inf, math.inf),
) -> list[Symbol]:
    """One triangle for each pitch among the roofs shown whose slopes run across the view, over the widest.

    It stands clear of what is seen `behind` it, where that is not much higher, and `between` the ends of the view.
    """
    found: dict[float, tuple[float, ResolvedRoof, RoofPlane]] = {}
    for roof in building.roofs:
        for plane in roof.planes:
            dx, dy = plane.inward
            end_on = abs(dx * frame.dx + dy * frame.dy) < END_ON
            run = _span(plane, frame, between)
            if run < _wide("12") * scale:
                continue
            # Of two slopes alike the one that rises to the right has its triangle: it stands left of the ridge.
            rank = run + (1.0 if dx * frame.ux + dy * frame.uy > 0 else 0.0)
            if end_on and roof.block.id in shown and (plane.pitch not in found or rank > found[plane.pitch][0]):
                found[plane.pitch] = (rank, roof, plane)
    marks = (_pitch_mark(roof, plane, frame, scale, units, between) for _, roof, plane in found.values())
    return [_cleared(mark, behind, scale) for mark in marks]


def _wide(rise: str) -> float:
    """Paper mm that a triangle takes with the figure beside it."""
    return PITCH_RUN + 1.8 + 1.7 * len(rise)


def _cleared(mark: Symbol, behind: Sequence[Face], scale: float) -> Symbol:
    """The mark over what is seen behind it, if it need not be lifted far from its slope."""
    (rise, over), side = mark.texts, mark.values[1]
    ends = sorted((mark.x, mark.x + side * _wide(rise) * scale))
    foot = mark.y - (FIGURE if over else 0.5) * scale
    paper = shapely.box(ends[0], foot, ends[1], mark.y + LIFT * scale)
    polygons = np.array([face.polygon for face in behind], dtype=object)
    seen = shapely.intersection(polygons[shapely.intersects(polygons, paper)], paper)
    high = float(np.nanmax(shapely.bounds(seen)[:, 3], initial=foot)) + CLEAR * scale
    lift = high - foot
    return replace(mark, y=mark.y + lift) if CLEAR * scale < lift <= LIFT * scale else mark


def _span(plane: RoofPlane, frame: Frame, between: tuple[float, float]) -> float:
    """How wide a slope is in the view, between its ends."""
    low, high = _reach(plane, frame)
    return min(high, between[1]) - max(low, between[0])


def _reach(plane: RoofPlane, frame: Frame) -> tuple[float, float]:
    """From-to of a slope across the view."""
    us = [float(x * frame.ux + y * frame.uy) for x, y in plane.whole.convex_hull.exterior.coords]
    return min(us), max(us)


def _pitch_mark(
    roof: ResolvedRoof, plane: RoofPlane, frame: Frame, scale: float, units: Units, between: tuple[float, float]
) -> Symbol:
    """The pitch triangle over a slope, clear of it with its figures."""
    low, high = _reach(plane, frame)
    others = [(held, *_reach(held, frame)) for held in roof.planes if held.upper != plane.upper]
    side = 1.0 if plane.inward[0] * frame.ux + plane.inward[1] * frame.uy > 0 else -1.0
    head = high if side > 0 else low
    peak = plane.heel + plane.pitch * (high - low - plane.reach) + plane.covering
    rise = format_pitch(plane.pitch, units).split(":")[0]
    over = "12" if units == "ft-in" else ""
    u = head - side * (high - low - plane.reach) * 0.75
    first, last = (
        (between[0], between[1] - _wide(rise) * scale) if side > 0 else (between[0] + _wide(rise) * scale, between[1])
    )
    u = max(min(u, last), first)
    if others and not plane.upper:
        # Clear of the mark over the slope above the break.
        u -= side * BESIDE * scale

    def slope(ahead: float) -> float:
        """Height of the covering, so many paper mm further up the slope than the triangle's tip, or past a break."""
        at = u + side * ahead * scale
        tops = [
            held.heel + held.covering + held.pitch * max(0.0, (at - a) if side > 0 else (b - at))
            for held, a, b in others
            if held.upper and a <= at <= b and (held.inward[0] * frame.ux + held.inward[1] * frame.uy) * side > 0
        ]
        return max([peak - plane.pitch * max(0.0, side * (head - u) - ahead * scale), *tops])

    beside, below = slope(_wide(rise)), slope(PITCH_RUN / 2 + 2.0)
    v = max(beside + CLEAR * scale, below + (FIGURE + CLEAR) * scale) if over else beside + CLEAR * scale
    key, note = part_key(roof.block.id, "roofing"), f"pitch:{roof.block.id}:{plane.edge}"
    return Symbol("pitch", u, v, (rise, over), values=(plane.pitch, side), part=key, annotation=note)
