"""Members of a joist floor in plan: rims, trimmers and headers about holes, joists at their spacing, hangers."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...geometry import Line, Point, polygons_of
from ...model import Framing
from ...tolerance import TOL
from ..walls.framing import stations
from .bays import Bay, Rim
from .holes import WHOLE, HoleFrame, hole_frames

RIPPED = 0.6
"""A joist that would be narrower than this share of its thickness is left out: the rim joist beside it does."""
REACH = 2.0
"""Members whose ends come this near to each other (mm) meet."""

MemberRole = Literal["joist", "rim_joist", "trimmer_joist", "header_joist"]


@dataclass(frozen=True, slots=True)
class Member:
    """A member of a floor in plan: what it is, the name of its part, its area, the way that it runs."""

    role: MemberRole
    slot: str
    area: MultiPolygon
    direction: Point

    @property
    def pieces(self) -> tuple[tuple[float, Polygon], ...]:
        """Length (mm) and area of each of its pieces: a joist over a hole is in two."""
        line = Line(0.0, 0.0, *self.direction)
        found = []
        for piece in polygons_of(self.area):
            along = [line.along(point) for point in piece.exterior.coords]
            found.append((max(along) - min(along), piece))
        return tuple(found)


@dataclass(frozen=True, slots=True)
class Members:
    """The members of a floor, and the space between its rims, bay by bay."""

    all: tuple[Member, ...]
    within: tuple[Polygon | MultiPolygon, ...]
    frames: tuple[tuple[HoleFrame, ...], ...]

    def of(self, role: MemberRole) -> tuple[Member, ...]:
        """Those of a role."""
        return tuple(member for member in self.all if member.role == role)


@lru_cache(maxsize=64)
def floor_members(bays: tuple[Bay, ...], rims: tuple[Rim, ...], framing: Framing) -> Members:
    """How a floor is framed."""
    ring = shapely.union_all([rim.area for rim in rims])
    members = [Member("rim_joist", rim.wall, rim.area, rim.run) for rim in rims]
    spaces, frames = [], []
    for bay in bays:
        inner = shapely.difference(bay.region, ring, grid_size=TOL.node)
        own = hole_frames(bay, inner, framing)
        across = (bay.direction[1], -bay.direction[0])
        for frame in own:
            named = f"{bay.slot}:{frame.name}"
            members += [Member("trimmer_joist", f"{named}:{k}", area, bay.direction) for k, area in frame.trimmers]
            members += [Member("header_joist", f"{named}:{k}", area, across) for k, area in frame.headers]
        members += _joists(framing, bay, inner, own)
        spaces.append(inner)
        frames.append(own)
    return Members(tuple(members), tuple(spaces), tuple(frames))


def _joists(
    framing: Framing, bay: Bay, within: Polygon | MultiPolygon, frames: tuple[HoleFrame, ...]
) -> Iterator[Member]:
    least = RIPPED
    if frames:
        within = shapely.difference(within, shapely.union_all([held.taken for held in frames]), grid_size=TOL.node)
        least = WHOLE
    for number, area in joist_strips(framing, bay, within, least):
        yield Member("joist", f"{bay.slot}:{number}", area, bay.direction)


def joist_strips(
    framing: Framing, bay: Bay, within: Polygon | MultiPolygon, least: float = RIPPED
) -> Iterator[tuple[int, MultiPolygon]]:
    """(slot, area) of joists: on the layout of the bay, one flush at each side, as far as they lie within an area and
    are left with at least a share of their thickness."""
    dx, dy = bay.direction
    across, span = Line(0.0, 0.0, dy, -dx), Line(0.0, 0.0, dx, dy)
    reach = [across.along(point) for point in bay.region.exterior.coords]
    far = [span.along(point) for point in bay.region.exterior.coords]
    for number, near in stations(min(reach), max(reach), framing.spacing, framing.thickness):
        corners = [(near, min(far)), (near + framing.thickness, min(far))]
        corners += [(near + framing.thickness, max(far)), (near, max(far))]
        strip = Polygon([(across.dx * a + dx * s, across.dy * a + dy * s) for a, s in corners])
        pieces = []
        for piece in polygons_of(shapely.intersection(strip, within, grid_size=TOL.node)):
            wide = [across.along(point) for point in piece.exterior.coords]
            if max(wide) - min(wide) > least * framing.thickness:
                pieces.append(piece)
        if pieces:
            yield number, MultiPolygon(pieces)


def hangers(members: Members) -> tuple[Point, ...]:
    """Where a member hangs on another one: joists on headers, headers on trimmers; plies of one beam do not."""
    headers, trimmers = members.of("header_joist"), members.of("trimmer_joist")
    found = list(_ends_at(members.of("joist"), headers))
    return tuple([*found, *_ends_at(headers, trimmers)])


def _ends_at(members: Sequence[Member], carriers: Sequence[Member]) -> Iterator[Point]:
    """The middles of the ends of members that lie against carriers."""
    carried = shapely.union_all([member.area for member in carriers]).buffer(REACH)
    for member in members:
        line = Line(0.0, 0.0, *member.direction)
        for _, piece in member.pieces:
            corners = list(piece.exterior.coords)[:-1]
            along = [line.along(point) for point in corners]
            for end in (min(along), max(along)):
                own = [point for point, at in zip(corners, along) if abs(at - end) < REACH]
                middle = (sum(x for x, _ in own) / len(own), sum(y for _, y in own) / len(own))
                if shapely.Point(middle).within(carried):
                    yield middle
