"""What a chimney through a slope is built around: its faces and the layers of the roof, in the plane down the fall."""

from __future__ import annotations

from dataclasses import dataclass

import shapely

from ...catalog import material
from ...junctions import Junction
from ...resolve import Building
from ...trades.makeups.model import Tradition
from ...trades.onroofs.placed import KEPT_OFF, ROOF_FITTINGS, PlacedChimney
from ...trades.roofs.placed import RoofPlane
from ...trades.roofs.slopes import local
from ..lie import Lie
from .slopes import SlopeLayers, roof_of, slope_layers

ASKEW = 0.995
"""A chimney stands along a slope where it fills so much of the box around it there."""


@dataclass(frozen=True, slots=True)
class ChimneySite:
    """Distances down the fall from the middle of the stack, heights over the covering there (mm).

    `down`, `up`: to its lower and to its upper face; `half`: to its sides; `flue`: to its
    lower and to its upper face; `gap`: kept free of timber; `depth`: of the
    rafters, plumb.
    """

    tradition: Tradition
    down: float
    up: float
    half: float
    flue: tuple[float, float]
    pitch: float
    layers: SlopeLayers
    depth: float
    gap: float
    has_cricket: bool

    def covering(self, u: float) -> float:
        """Height of the top of the covering."""
        return -self.pitch * u

    def underlay(self, u: float) -> float:
        """Height of the top of the underlay."""
        return self.covering(u) - self.layers.covering + self.layers.underlay

    def structure(self, u: float) -> float:
        """Height of the top of the structure."""
        return self.covering(u) - self.layers.covering


def _stack(building: Building, junction: Junction) -> tuple[PlacedChimney, RoofPlane] | None:
    id = junction.ends[0].element
    stack = next((held for held in building[ROOF_FITTINGS].chimneys if held.chimney.id == id), None)
    return (stack, stack.plane) if stack is not None and stack.plane is not None else None


def chimney_site(building: Building, junction: Junction) -> ChimneySite | None:
    """What is built around at a chimney; None where it stands askew, goes through a ridge, or is not of masonry."""
    found = _stack(building, junction)
    roof = roof_of(building, found[1].roof) if found else None
    if found is None or roof is None:
        return None
    stack, plane = found
    first, low, last, high = local(plane, stack.outline).bounds
    whole = plane.polygon.buffer(1.0).contains(stack.outline)
    if stack.outline.area < ASKEW * (last - first) * (high - low) or not whole or plane.pitch < 0.01:
        return None
    if material(stack.chimney.material).coursing is None:
        return None
    middle = local(plane, shapely.Point(stack.outline.centroid)).y
    return ChimneySite(
        tradition=building.placed.project.tradition,
        down=middle - low,
        up=high - middle,
        half=(last - first) / 2,
        flue=(middle - local(plane, stack.flue).bounds[1], middle - local(plane, stack.flue).bounds[3]),
        pitch=plane.pitch,
        layers=slope_layers(building, roof, plane.pitch),
        depth=plane.plumb_depth,
        gap=KEPT_OFF,
        has_cricket=stack.cricket is not None,
    )


def chimney_lies(building: Building, junction: Junction) -> list[Lie]:
    """Across the stack at its middle; up its one side, down its other one."""
    found = _stack(building, junction)
    if found is None:
        return []
    (run,), (stack, plane) = junction.runs, found
    (ox, oy), (x, y), z = run.out, stack.outline.centroid.coords[0], run.start[2]
    ax, ay = oy, -ox
    first, low, last, high = local(plane, stack.outline).bounds
    middle, half = local(plane, shapely.Point(x, y)).y, (last - first) / 2
    down, up = middle - low, high - middle
    across = Lie((x - ax * half, y - ay * half), run.out, 2 * half, dz=z)
    # Outward of the one side it goes on up the fall, of the other down.
    one = Lie((x + ox * down, y + oy * down), (ax, ay), down + up, dz=z - plane.pitch * down, rise=plane.pitch)
    other = Lie((x - ox * up, y - oy * up), (-ax, -ay), down + up, dz=z + plane.pitch * up, rise=-plane.pitch)
    return [across, one, other]
