"""Members of a joist floor in plan: rims, trimmers and headers about holes, joists at their spacing, hangers."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache
from typing import Literal

import shapely
from shapely.geometry import LineString, MultiPolygon, Polygon

from ...geometry import Line, Point, polygons_of
from ...model import Framing
from .bays import Bay, Rim, RimRole, without
from .blocks import blocks_between, blocks_over
from .bridging import BAR
from .holes import HoleFrame, hole_frames
from .joists import joists_of
from .model import Between
from .turned import Turned

REACH = 2.0
"""Members whose ends come this near to each other (mm) meet."""

MemberRole = RimRole | Literal["joist", "trimmer_joist", "header_joist", "blocking", "bridging"]


@dataclass(frozen=True)
class Member:
    """A member of a floor in plan: what it is, the name of its part, its area, the way that it runs."""

    role: MemberRole
    slot: str
    area: MultiPolygon
    direction: Point

    def lies_in(self, bay: Bay) -> bool:
        """Whether it is a member of a bay; rims are of none."""
        return self.slot.startswith(f"{bay.slot}:")

    @cached_property
    def pieces(self) -> tuple[tuple[float, Polygon], ...]:
        """Length (mm) and area of each of its pieces: a joist over a hole is in two."""
        line = Line(0.0, 0.0, *self.direction)
        found = []
        for piece in polygons_of(self.area):
            along = [line.along(point) for point in piece.exterior.coords]
            found.append((max(along) - min(along), piece))
        return tuple(found)

    @cached_property
    def middles(self) -> tuple[LineString, ...]:
        """The line along the middle of each of its pieces."""
        turned = Turned(self.direction)
        return tuple(turned.middle(piece) for _, piece in self.pieces)


@dataclass(frozen=True, slots=True)
class Members:
    """The members of a floor, and the space between its rims, bay by bay."""

    all: tuple[Member, ...]
    bays: tuple[Bay, ...]
    within: tuple[Polygon | MultiPolygon, ...]
    frames: tuple[tuple[HoleFrame, ...], ...]

    def of(self, role: MemberRole) -> tuple[Member, ...]:
        """Those of a role."""
        return tuple(member for member in self.all if member.role == role)


@lru_cache(maxsize=64)
def floor_members(
    bays: tuple[Bay, ...], rims: tuple[Rim, ...], framing: Framing, between: Between = "nothing"
) -> Members:
    """How a floor is framed; `between`: what stands in rows between long joists."""
    ring = shapely.union_all([rim.area for rim in rims])
    members = [Member(rim.role, rim.wall, rim.area, rim.run) for rim in rims]
    spaces, frames = [], []
    for bay in bays:
        inner = without(bay.framed, [ring])
        own = hole_frames(bay, inner, framing)
        across = (bay.direction[1], -bay.direction[0])
        for frame in own:
            named = f"{bay.slot}:{frame.name}"
            members += [Member("trimmer_joist", f"{named}:{k}", area, bay.direction) for k, area in frame.trimmers]
            members += [Member("header_joist", f"{named}:{k}", area, across) for k, area in frame.headers]
        members += _in_bay(framing, bay, inner, own, between)
        spaces.append(inner)
        frames.append(own)
    return Members(tuple(members), bays, tuple(spaces), tuple(frames))


def _in_bay(
    framing: Framing, bay: Bay, within: shapely.Geometry, frames: tuple[HoleFrame, ...], rows: Between
) -> _Found:
    """The joists of a bay beside the frames of its holes, and what stands between them."""
    taken = [area for frame in frames for area in frame.members]
    joists = joists_of(framing, bay, within, taken)
    across = (bay.direction[1], -bay.direction[0])
    for joist in joists:
        number = f":{joist.run.number}" if joist.run.number else ""
        yield Member("joist", f"{bay.slot}:{joist.slot}{number}", joist.area, bay.direction)
    others = [*taken, *(held.area for held in joists)]
    over = list(blocks_over(bay, within, others, framing.thickness)) if framing.timber else []
    for name, area in over:
        yield Member("blocking", f"{bay.slot}:{name}", area, across)
    if rows != "nothing" and framing.timber:
        turned = Turned(bay.direction)
        boxes = [box for area in taken for box in turned.boxes(area)]
        set_over = shapely.union_all([area for _, area in over])
        role: MemberRole = "bridging" if rows == "bridging" else "blocking"
        wide = 2 * BAR if rows == "bridging" else framing.thickness
        for name, area in blocks_between(bay, joists, within, boxes, set_over, wide):
            yield Member(role, f"{bay.slot}:{name}", area, across)


_Found = Iterator[Member]


def hangers(members: Members) -> tuple[tuple[Point, Point], ...]:
    """Where a member hangs on another one, and the way that it runs: joists on headers, headers on trimmers, all of
    them on flush beams and ledgers; plies of one beam do not."""
    headers, trimmers = members.of("header_joist"), members.of("trimmer_joist")
    beams = [held.area for bay in members.bays for held in bay.supports if held.flush]
    beams += [held.area for held in members.of("ledger")]
    beams += [bay.hung for bay in members.bays if bay.hung]
    found = list(_ends_at(members.of("joist"), [*beams, *(held.area for held in headers)]))
    return tuple([*found, *_ends_at(headers, [held.area for held in trimmers]), *_ends_at(trimmers, beams)])


def _ends_at(members: Sequence[Member], carriers: Sequence[shapely.Geometry]) -> Iterator[tuple[Point, Point]]:
    """The middles of the ends of members that lie against what carries them."""
    if not carriers:
        return
    carried = shapely.union_all(list(carriers)).buffer(REACH)
    shapely.prepare(carried)
    for member in members:
        line = Line(0.0, 0.0, *member.direction)
        for _, piece in member.pieces:
            corners = list(piece.exterior.coords)[:-1]
            along = [line.along(point) for point in corners]
            for end in (min(along), max(along)):
                own = [point for point, at in zip(corners, along) if abs(at - end) < REACH]
                middle = (sum(x for x, _ in own) / len(own), sum(y for _, y in own) / len(own))
                if shapely.Point(middle).within(carried):
                    yield middle, member.direction
