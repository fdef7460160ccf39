"""Where a wall section cuts, and how much of it is shown."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ...drawing.cropping import Band, Window
from ...geometry import Frame
from ...model import WallSection, along_from_start
from ...resolve import ROLES, Building, Part, PlannedWall
from .._ground import EARTH_DEPTH
from ..cut import CutPart, cut_parts

INSIDE = 750.0
"""So much of floor and ceiling is shown inside of a wall (mm)."""
PAST, LEAST, MOST = 250.0, 500.0, 1800.0
"""Outside a section goes so far past eave and footing, at the least and at the most so far from the wall (mm)."""
NOTES = 42.0
"""Outside at the least so much on paper (mm), for the notes of its pieces."""
UNDER, OVER = 1.0, 2.0
"""Paper mm of paper below the hatched earth and above the highest place."""
FINEST = 24.0
"""Scales that are smaller than 1 to this give notes no more room."""
REACHING = ("footing", "pad")
"""Roles that are shown whole, besides those that overhang."""


@dataclass(frozen=True, slots=True)
class StripPlace:
    """Where a wall section cuts its wall: u of its faces in the frame, and `out`, 1.0 where outside lies to the right.

    `along`: the distance from the start of the wall (mm).
    """

    held: WallSection
    wall: PlannedWall
    along: float
    frame: Frame

    @property
    def out(self) -> float:
        """1.0 where the outside lies to the right, else -1.0."""
        return 1.0 if self.u(self.wall.outer) > self.u(self.wall.inner_at(self.along)) else -1.0

    @property
    def outer(self) -> float:
        """u of the outer face."""
        return self.u(self.wall.outer)

    @property
    def inner(self) -> float:
        """u of the inner face."""
        return self.u(self.wall.inner_at(self.along))

    def u(self, outward: float) -> float:
        """u of a distance outward from the set-out line."""
        x, y = self.wall.at(self.along, outward)
        return x * self.frame.ux + y * self.frame.uy

    def window(self, outside: float, inside: float) -> Window:
        """From so far outside of the wall to so far inside of it, at all heights."""
        ends = sorted((self.outer + self.out * outside, self.inner - self.out * inside))
        return Window(ends[0], ends[1])


def strip_place(building: Building, held: WallSection) -> StripPlace | None:
    """Where a wall section cuts; None past the ends of its wall."""
    wall = building.plan.by_id[held.wall]
    along = along_from_start(held, wall.length)
    if not 0.0 <= along <= wall.length:
        return None
    stand = wall.stand(along)
    sign = 1.0 if held.look == "end" else -1.0
    dx, dy = stand.run
    return StripPlace(held, wall, along, Frame.facing((sign * dx, sign * dy), *wall.at(along)))


def strip_window(building: Building, place: StripPlace, scale: float) -> tuple[Window, list[CutPart]]:
    """What a wall section shows, whole, and what it cuts there: from under the footing to over what lies on the wall.

    Its window has no height where it cuts nothing.
    """
    held = place.held
    inside = held.inside or INSIDE
    outside = held.outside
    if outside is None:
        reaching = tuple(part for part in building.parts if reaches(part))
        probe = cut_parts(building.with_parts(reaching), place.frame, place.window(MOST, inside))
        outside = min(max(reach_outside(place, probe) + PAST, LEAST, NOTES * min(scale, FINEST)), MOST)
    sides = place.window(outside, inside)
    cut = cut_parts(building, place.frame, sides)
    faces = sorted((place.outer, place.inner))
    over = [held.polygon.bounds for held in cut]
    high = max((box[3] for box in over if box[0] < faces[1] and box[2] > faces[0]), default=0.0)
    low = min((box[1] for box in over), default=0.0)
    if not cut:
        return replace(sides, bands=(Band(low, high),)), []
    low = low - (EARTH_DEPTH + UNDER) * scale if held.bottom is None else max(held.bottom, low)
    high = high + OVER * scale if held.top is None else min(held.top, high)
    window = replace(sides, bands=(Band(low, high),))
    if held.bottom is not None or held.top is not None:
        cut = cut_parts(building, place.frame, window) if low < high else []
    return window, cut


def reaches(part: Part) -> bool:
    """Whether a part is shown whole where it goes past the wall."""
    return ROLES[part.role].overhangs or part.role in REACHING


def reach_outside(place: StripPlace, cut: Sequence[CutPart]) -> float:
    """How far outside of the wall eaves and footings reach (mm)."""
    outer, out = place.outer, place.out
    ends = [out * (end - outer) for held in cut if reaches(held.part) for end in held.polygon.bounds[::2]]
    return max(ends, default=0.0)
