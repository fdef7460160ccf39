"""What a drag on a line or surface of an elevation edits."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, lru_cache

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


@dataclass(frozen=True)
class Heights:
    """The heights of a building that lines of its views lie at, and what dragging these edits."""

    levels: tuple[tuple[float, str], ...]
    """(height, id of its sum) of the levels."""
    totals: tuple[tuple[str, float], ...]
    """(id, height) of every sum."""
    ridges: tuple[tuple[str, float, float | None], ...]
    """(roof, height of its ridge, how high that lies over the bearing line, where it does)."""
    tops: tuple[tuple[str, float], ...]
    """(wall, height of its top)."""

    @cached_property
    def total(self) -> dict[str, float]:
        """The height of every sum."""
        return dict(self.totals)

    @cached_property
    def _ridge(self) -> dict[str, tuple[float, float | None]]:
        return {roof: (total, rise) for roof, total, rise in self.ridges}

    @cached_property
    def _top(self) -> dict[str, float]:
        return dict(self.tops)

    def handle_of(self, part: Part, v: float | None) -> Handle | None:
        """What dragging a line of a part edits; `v` is the height of a level one (mm).

        Of a ridge the field is its rise over the bearing line, of an eave its edge.
        """
        held = face_handle(part)
        if held is not None or v is None or ROLES[part.role].drag not in ("level", "eave"):
            return held
        if ROLES[part.role].drag == "eave" and ":upper" not in part.key:
            slot = part.key.rpartition("/")[2].split(":")
            return Handle("raise_eave", part.element, slot[1], "z")
        if part.element in self._ridge:
            total, rise = self._ridge[part.element]
            if rise is None or abs(total - v) > RIDGE:
                return None
            return Handle("raise_ridge", part.element, f"{rise:.3f}", "z")
        top = self._top.get(part.element)
        return Handle("move_top", part.element, "top", "z") if top is not None and abs(top - v) < SAME_HEIGHT else None


def heights_of(building: Building) -> Heights:
    """The heights of a building."""
    levels, totals = building.levels, building.totals
    ridges = []
    for roof in building.roofs:
        slope = roof.ridge_top.slope
        ridges.append((roof.block.id, roof.ridge_top.total, slope[1][-1] - slope[0][-1] if slope else None))
    walls = building.plan.walls
    tops = ((held.wall.id, totals.get(f"top:{held.wall.id}", levels[held.wall.top.level].z)) for held in walls)
    return Heights(
        tuple((level.z, level.sum.id) for level in levels.values()),
        tuple(totals.items()),
        tuple(ridges),
        tuple(tops),
    )
