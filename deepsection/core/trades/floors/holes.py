"""Holes in joist floors: trimmers beside them from bearing to bearing, headers between these, joists cut short."""

from __future__ import annotations

from dataclasses import dataclass

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...geometry import Line, polygons_of
from ...model import Framing
from ...tolerance import TOL
from .bays import Bay

PLIES = 2
"""Trimmers and headers are of so many joists. Source: IRC R502.10, for headers longer than 4 ft; from memory."""
WHOLE = 0.98
"""What is left of a member beside others is one when it has this share of its thickness."""


@dataclass(frozen=True, slots=True)
class HoleFrame:
    """What frames a hole: plies of trimmers and of headers, each with its name; the hole itself, square to joists."""

    name: str
    area: Polygon
    trimmers: tuple[tuple[str, MultiPolygon], ...]
    headers: tuple[tuple[str, MultiPolygon], ...]

    @property
    def taken(self) -> shapely.Geometry:
        """Where no other joist lies."""
        return shapely.union_all([self.area, *(area for _, area in (*self.trimmers, *self.headers))])


def hole_frames(bay: Bay, within: Polygon | MultiPolygon, framing: Framing) -> tuple[HoleFrame, ...]:
    """How the holes of a bay are framed, as far as the space within its rims reaches."""
    return tuple(_frame(name, hole, bay, within, framing.thickness) for name, hole in bay.holes)


def square_to(direction: tuple[float, float], hole: Polygon) -> Polygon:
    """The rectangle along a direction that holds a hole: what joists of that direction can be framed around."""
    return _rectangle(_Turned(direction), *_Turned(direction).box(hole))


class _Turned:
    """Places in a bay: (across the joists, along them)."""

    def __init__(self, direction: tuple[float, float]) -> None:
        dx, dy = direction
        self.across, self.span = Line(0.0, 0.0, dy, -dx), Line(0.0, 0.0, dx, dy)

    def box(self, area: Polygon) -> tuple[float, float, float, float]:
        """Least and greatest of both."""
        points = list(area.exterior.coords)
        a, s = [self.across.along(point) for point in points], [self.span.along(point) for point in points]
        return min(a), max(a), min(s), max(s)


def _rectangle(turned: _Turned, a0: float, a1: float, s0: float, s1: float) -> Polygon:
    across, span = turned.across, turned.span
    return Polygon(
        [
            (across.dx * a + span.dx * s, across.dy * a + span.dy * s)
            for a, s in ((a0, s0), (a1, s0), (a1, s1), (a0, s1))
        ]
    )


def _frame(name: str, hole: Polygon, bay: Bay, within: Polygon | MultiPolygon, t: float) -> HoleFrame:
    turned = _Turned(bay.direction)
    a0, a1, s0, s1 = turned.box(hole)
    far = turned.box(bay.region)
    trimmers, headers = [], []
    for ply in range(PLIES):
        for side, low in (("low", a0 - (ply + 1) * t), ("high", a1 + ply * t)):
            strip = _rectangle(turned, low, low + t, far[2] - 1.0, far[3] + 1.0)
            beside = _rectangle(turned, low, low + t, s0, s1)
            member = _whole(turned, shapely.intersection(strip, within, grid_size=TOL.node), t, 0, beside)
            if not member.is_empty:
                trimmers.append((f"{side}:{ply}", member))
        for side, low in (("start", s0 - (ply + 1) * t), ("end", s1 + ply * t)):
            strip = _rectangle(turned, a0, a1, low, low + t)
            member = _whole(turned, shapely.intersection(strip, within, grid_size=TOL.node), t, 2, strip)
            if not member.is_empty:
                headers.append((f"{side}:{ply}", member))
    return HoleFrame(name, hole, tuple(trimmers), tuple(headers))


def _whole(turned: _Turned, shape: shapely.Geometry, t: float, axis: int, beside: Polygon) -> MultiPolygon:
    """The pieces as thick as a member that lie beside the hole."""
    kept = []
    for piece in polygons_of(shape):
        box = turned.box(piece)
        if box[axis + 1] - box[axis] > WHOLE * t and piece.intersects(beside):
            kept.append(piece)
    return MultiPolygon(kept)
