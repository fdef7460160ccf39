"""What a drag on a line or surface of an elevation edits."""

from __future__ import annotations

from functools import lru_cache

from ..drawing import Handle
from ..resolve import ROLES, Building, Part

SAME_HEIGHT = 5.0
"""A line belongs to the top of a wall when it lies this close to it (mm)."""
RIDGE = 40.0
"""A line belongs to a ridge when it lies this close to it (mm): caps lie on the covering."""


@lru_cache(maxsize=20_000)
def face_handle(part: Part) -> Handle | None:
    """What dragging a surface of this part sideways edits."""
    if part.function == "unit":
        return Handle("move_opening", part.element, "distance", "along")
    drag = ROLES[part.role].drag
    if drag and drag not in ("level", "eave"):
        return Handle(drag, part.element, "x", "free")
    return None


class LineHandles:
    """What dragging a line of a building edits."""

    def __init__(self, building: Building) -> None:
        self._building = building
        self._roofs = {roof.block.id: roof for roof in building.roofs}

    def of(self, part: Part, v: float | None) -> Handle | None:
        """What dragging a line of a part edits; `v` is the height of a level one (mm).

        Of a ridge the field is its rise over the bearing line, of an eave its edge.
        """
        held = face_handle(part)
        if held is not None or v is None or ROLES[part.role].drag not in ("level", "eave"):
            return held
        if ROLES[part.role].drag == "eave" and ":upper" not in part.key:
            slot = part.key.rpartition("/")[2].split(":")
            return Handle("raise_eave", part.element, slot[1], "z")
        roof = self._roofs.get(part.element)
        if roof is not None:
            slope = roof.ridge_top.slope
            if slope is None or abs(roof.ridge_top.total - v) > RIDGE:
                return None
            (*_, low), (*_, high) = slope
            return Handle("raise_ridge", part.element, f"{high - low:.3f}", "z")
        building = self._building
        wall = building.plan.by_id.get(part.element)
        if wall is None:
            return None
        top = building.totals.get(f"top:{part.element}", building.levels[wall.wall.top.level].z)
        return Handle("move_top", part.element, "top", "z") if abs(top - v) < SAME_HEIGHT else None
