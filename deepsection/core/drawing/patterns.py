"""Hatches placed on a region: families of parallel lines in the coordinates of the view."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

from ..catalog import HatchFamily, hatch

Axes = tuple[float, float, float, float]
"""Images of the pattern's x and y unit vectors in the view: (xx, xy, yx, yy)."""


JOINT = 0.6
"""Joints shorter than this on paper (mm) are left out. Common practice, no source."""


@dataclass(frozen=True, slots=True)
class PlacedHatch:
    """A pattern as it lies in a view: lines in real mm."""

    name: str
    families: tuple[HatchFamily, ...]


@lru_cache(maxsize=2048)
def place_hatch(
    name: str, scale: float, origin: tuple[float, float] = (0.0, 0.0), axes: Axes = (1.0, 0.0, 0.0, 1.0)
) -> PlacedHatch:
    """The pattern of this name at a drawing scale, from an origin, on a face with these axes.

    Paper-size patterns grow with the scale; real-size ones are foreshortened by the axes, and lose the joints
    between courses where these would print as a grey.
    """
    pattern = hatch(name)
    size = scale if pattern.size == "paper" else 1.0
    placed = (_placed(family, size, origin, axes) for family in pattern.families)
    families = [family for family in placed if family is not None]
    if pattern.size == "real":
        legible = [family for family in families if not family.dashes or _longest(family) >= JOINT * scale]
        families = legible or families
    return PlacedHatch(name, tuple(families))


def _longest(family: HatchFamily) -> float:
    """The longest dash of a family (mm)."""
    return max(family.dashes)


def _placed(family: HatchFamily, size: float, origin: tuple[float, float], axes: Axes) -> HatchFamily | None:
    angle = math.radians(family.angle)
    direction = _image((math.cos(angle), math.sin(angle)), axes)
    normal = (-math.sin(angle), math.cos(angle))
    step = (
        math.cos(angle) * family.offset[0] + normal[0] * family.offset[1],
        math.sin(angle) * family.offset[0] + normal[1] * family.offset[1],
    )
    step = _image((step[0] * size, step[1] * size), axes)
    base = _image((family.base[0] * size, family.base[1] * size), axes)
    stretch = math.hypot(*direction)
    if stretch < 1e-3:
        return None
    ux, uy = direction[0] / stretch, direction[1] / stretch
    across = -uy * step[0] + ux * step[1]
    if abs(across) < 1.0:
        return None
    return HatchFamily(
        angle=math.degrees(math.atan2(uy, ux)),
        base=(origin[0] + base[0], origin[1] + base[1]),
        offset=(ux * step[0] + uy * step[1], across),
        dashes=tuple(dash * size * stretch for dash in family.dashes),
    )


def _image(vector: tuple[float, float], axes: Axes) -> tuple[float, float]:
    return vector[0] * axes[0] + vector[1] * axes[2], vector[0] * axes[1] + vector[1] * axes[3]
