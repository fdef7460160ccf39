"""Pitch triangles over roofs that are seen or cut across their ridge."""

from __future__ import annotations

from collections.abc import Iterable

from ..drawing import PITCH_RUN, Symbol
from ..geometry import Frame
from ..resolve import Building, ResolvedRoof, part_key
from ..units import Units, format_pitch
from .visible import Face

CLEAR = 1.5
"""Paper mm between a pitch mark and the roof below it."""
END_ON = 0.02
"""A roof is seen end on when its slopes run this close to across the view (sine of the angle)."""


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


def pitch_marks(building: Building, frame: Frame, shown: set[str], scale: float, units: Units) -> list[Symbol]:
    """One triangle for each pitch among the roofs shown whose slopes run across the view, over the widest."""
    found: dict[float, ResolvedRoof] = {}
    for roof in building.roofs:
        inward = roof.planes[0].inward
        end_on = abs(inward[0] * frame.dx + inward[1] * frame.dy) < END_ON
        wider = roof.block.pitch not in found or roof.run > found[roof.block.pitch].run
        if end_on and wider and roof.block.id in shown:
            found[roof.block.pitch] = roof
    return [_pitch_mark(roof, frame, scale, units) for roof in found.values()]


def _pitch_mark(roof: ResolvedRoof, frame: Frame, scale: float, units: Units) -> Symbol:
    """The pitch triangle over the left slope of a roof, clear of it with its figures."""
    ridge_u = roof.ridge[0][0] * frame.ux + roof.ridge[0][1] * frame.uy
    rise = format_pitch(roof.block.pitch, units).split(":")[0]
    over = "12" if units == "ft-in" else ""
    u = ridge_u - roof.run * 0.75

    def slope(right: float) -> float:
        """Height of the covering, so many paper mm to the right of the triangle's tip."""
        return roof.ridge_top.total - roof.block.pitch * max(0.0, ridge_u - u - right * scale)

    beside, below = slope(PITCH_RUN + 1.8 + 1.7 * len(rise)), slope(PITCH_RUN / 2 + 2.0)
    v = max(beside + CLEAR * scale, below + (3.0 + CLEAR) * scale) if over else beside + CLEAR * scale
    key = part_key(roof.block.id, "roofing")
    return Symbol("pitch", u, v, (rise, over), values=(roof.block.pitch, 1.0), part=key)
