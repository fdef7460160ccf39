"""Holes in the frame of a roof: trimmers beside them, headers above and below, and what they keep clear."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import shapely
from shapely.geometry import Polygon
from shapely.geometry import box as rectangle

from .placed import RoofPlane
from .slopes import local

Holes = tuple[tuple[str, Polygon], ...]
"""What goes through a roof, by its id: where no member may be, in plan."""
WHOLE = 0.9
"""A header of which less than this share lies on the slope is none."""


@dataclass(frozen=True)
class HoleFrame:
    """The frame around a hole in the coordinates of its slope.

    `open` is where no rafter lies. `trimmers` are (name, near edge), as rafters are laid; `headers` (name, plan).
    """

    open: shapely.Geometry
    trimmers: tuple[tuple[str, float], ...]
    headers: tuple[tuple[str, Polygon], ...]


def hole_frames(
    plane: RoofPlane, region: shapely.Geometry, holes: Holes, laid: tuple[float, ...], thickness: float
) -> Iterator[HoleFrame]:
    """The frames of the holes through a slope that cut rafters; `laid` are the near edges of these.

    A rafter that lies close beside a hole does for its trimmer.
    """
    for id, hole in holes:
        if not hole.intersects(plane.under):
            continue
        first, low, last, high = local(plane, hole).bounds
        if not any(near < last and near + thickness > first for near in laid):
            continue
        sides, trimmers = [], []
        for where, near in (("left", first - thickness), ("right", last)):
            clear = [at for at in laid if at >= last or at + thickness <= first]
            close = [at for at in clear if abs(at - near) < thickness]
            sides.append(close[0] if close else near)
            if not close:
                trimmers.append((f"hole:{id}:{where}", near))
        left, right = sides[0] + thickness, sides[1]
        headers = [
            (f"hole:{id}:{where}", area)
            for where, area in (
                ("low", rectangle(left, low - thickness, right, low)),
                ("high", rectangle(left, high, right, high + thickness)),
            )
            if area.bounds[1] > plane.seat and area.intersection(region).area > WHOLE * area.area
        ]
        open = shapely.union_all([rectangle(left, low, right, high), *(area for _, area in headers)])
        yield HoleFrame(open, tuple(trimmers), tuple((where, area.intersection(region)) for where, area in headers))
