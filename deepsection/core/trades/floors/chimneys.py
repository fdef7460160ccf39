"""What chimneys leave open of floors and ceilings."""

from __future__ import annotations

from shapely.geometry import Polygon

from ...building.placed import Placed
from ...geometry.outlines import turned_rectangle
from ..levels.placed import LEVELS
from ..onroofs.placed import KEPT_OFF


def chimney_holes(placed: Placed, z: float) -> tuple[tuple[str, Polygon], ...]:
    """The chimneys that begin below a height, each with what framing keeps off."""
    levels = placed[LEVELS]
    return tuple(
        (held.id, turned_rectangle(held.x, held.y, held.width + 2 * KEPT_OFF, held.depth + 2 * KEPT_OFF, held.turn))
        for held in placed.project.chimneys
        if levels[held.base.level].z + held.base.offset < z
    )
