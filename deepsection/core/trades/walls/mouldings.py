"""Plinths, bands and cornices: sections run along the faces of walls, mitred where two alike meet."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

from shapely.geometry import Polygon
from shapely.geometry.polygon import orient

from ...building.diagnostics import Diagnostic
from ...building.parts import Part, part_key
from ...building.placed import Key
from ...geometry import Line, Point, Solid, line_through, meet, polygons_of, prism, prism_along, revolved, shared
from ...model import Moulding
from ...tolerance import TOL
from ...units import HeightSum, SumTerm
from ..openings.placed import PlacedOpening
from .bodies import WallTop, leaning, wall_bar
from .model import Wall
from .planned import PlannedWall, WallPlan

Mitres = tuple[Line, Line]
"""The lines in plan that end a moulding at the start and at the end of its wall."""
SAME = 0.05
"""Sections that differ by less in height (mm) meet."""


def moulding_sum(wall: PlannedWall, moulding: Moulding, foot: HeightSum, plate: HeightSum) -> HeightSum:
    """The height of the top of a moulding, with its terms."""
    start = foot if moulding.at == "foot" else plate
    id = wall.wall.id
    if moulding.offset:
        start = start.plus("", "", SumTerm("offset", moulding.offset, id))
    rise = max(spot.up for spot in moulding.section)
    return start.plus(f"moulding:{id}:{moulding.id}", f"top of {moulding.name}", SumTerm("its section", rise, id))


def mitres_of(plan: WallPlan, feet: dict[str, float]) -> dict[tuple[str, str], Mitres]:
    """Per wall and moulding, the lines that end it; `feet` are the heights at which mouldings start (wall:id)."""
    found: dict[tuple[str, str], Mitres] = {}
    meeting: dict[str, list[PlannedWall]] = {}
    for wall in plan.walls:
        for joint in (wall.wall.start, wall.wall.end):
            meeting.setdefault(joint, []).append(wall)
    for wall in plan.walls:
        for held in wall.wall.mouldings:
            ends = []
            for which, joint in (("start", wall.wall.start), ("end", wall.wall.end)):
                others = [other for other in meeting[joint] if other is not wall]
                mitres = (_mitre(wall, held, other, feet) for other in others if len(others) == 1)
                ends.append(next((line for line in mitres if line), None) or _square(wall, held, which == "start"))
            found[wall.wall.id, held.id] = (ends[0], ends[1])
    return found


def _face(wall: PlannedWall, moulding: Moulding) -> tuple[float, float]:
    """Distance outward of the face that a moulding lies on, and which way it stands out of it."""
    return (wall.outer, 1.0) if moulding.face == "outer" else (wall.inner, -1.0)


def _mitre(wall: PlannedWall, moulding: Moulding, other: PlannedWall, feet: dict[str, float]) -> Line | None:
    """The line through the corners of the faces of two walls with the same section at the same height."""
    if wall.axis.is_arc or other.axis.is_arc:
        return None
    z = feet[f"{wall.wall.id}:{moulding.id}"]
    alike = (
        held
        for held in other.wall.mouldings
        if held.section == moulding.section and abs(feet[f"{other.wall.id}:{held.id}"] - z) < SAME
    )
    for held in alike:
        (mine, way), (theirs, other_way) = _face(wall, moulding), _face(other, held)
        corners = [
            meet(_line(wall, mine + way * reach), _line(other, theirs + other_way * reach)) for reach in (0.0, 100.0)
        ]
        if corners[0] and corners[1] and math.dist(corners[0], corners[1]) > TOL.point:
            return line_through(corners[0], corners[1])
    return None


def _line(wall: PlannedWall, outward: float) -> Line:
    face = wall.axis.face(wall.side * outward)
    assert isinstance(face, Line)
    return face


def _square(wall: PlannedWall, moulding: Moulding, first: bool) -> Line:
    """Square across where the face ends."""
    face, _ = _face(wall, moulding)
    places = [(wall.axis.along(p), wall.side * wall.axis.left_of(p)) for p in wall.footprint.exterior.coords]
    alongs = [along for along, out in places if abs(out - face) < 1.0] or [0.0, wall.length]
    along = min(alongs) if first else max(alongs)
    return line_through(wall.at(along, 0.0), wall.at(along, 1000.0))


@lru_cache(maxsize=512)
def moulding_parts(
    wall: PlannedWall, openings: tuple[PlacedOpening, ...], top: WallTop, mitres: tuple[Mitres, ...]
) -> tuple[Part, ...]:
    """The mouldings of a wall, without what its openings and their trim take from them."""
    parts = []
    for moulding, lines in zip(wall.wall.mouldings, mitres):
        face, way = _face(wall, moulding)
        low = (top.base if moulding.at == "foot" else top.plate) + moulding.offset
        ring = [(spot.out, low + spot.up) for spot in moulding.section]
        solid = _body(wall, _on_face(wall, ring, face, way, top.base), lines)
        reach = max(spot.out for spot in moulding.section)
        gone = [leaning(wall, hole, top.base) for hole in _holes(wall, openings, face, way * reach)]
        parts.append(
            Part(
                part_key(wall.wall.id, "moulding", moulding.id),
                wall.wall.id,
                "moulding",
                moulding.material,
                solid.minus(gone),
                sums=(f"moulding:{wall.wall.id}:{moulding.id}", top.base_sum, top.plate_sum),
                origin=(*wall.at(0.0), low),
                outside=moulding.face == "outer" or not top.enclosed,
                function="finish",
                curve=wall.curve,
            )
        )
    return tuple(parts)


def _on_face(wall: PlannedWall, ring: list[Point], face: float, way: float, base: float) -> Polygon:
    """A section as (outward, z), following a face that leans or is battered."""
    batter = wall.wall.batter_outer if way > 0 else wall.wall.batter_inner
    steep = math.tan(math.radians(wall.wall.lean)) - way * math.tan(math.radians(batter))
    steep = 0.0 if wall.axis.is_arc else steep
    return orient(Polygon([(face + way * out + steep * (z - base), z) for out, z in ring]))


def _body(wall: PlannedWall, section: Polygon, lines: Mitres) -> Solid:
    low, high = section.bounds[0], section.bounds[2]
    ends = [[wall.axis.along(point) for point in _across(wall, line, low, high)] for line in lines]
    first, last = min(ends[0]), max(ends[1])
    if wall.axis.centre is not None:
        radii = [wall.axis.radius(wall.side * out) for out in (low, high)]
        grows = 1.0 if radii[1] > radii[0] else -1.0
        turned = orient(Polygon([(radii[0] + grows * (out - low), z) for out, z in section.exterior.coords[:-1]]))
        wedge = prism(wall.strip(first, last, low - 1.0, high + 1.0), section.bounds[1] - 1, section.bounds[3] + 1)
        return shared(revolved(turned, wall.axis.centre), wedge)
    stand = wall.stand()
    origin = stand.at(first if wall.side > 0 else last)
    body = prism_along(section, origin, stand.out, last - first)
    middle = wall.at((first + last) / 2, (low + high) / 2)
    for line in lines:
        side = math.copysign(1.0, line.left_of(middle))
        normal = (-line.dy * side, line.dx * side)
        body = body.beside(normal, normal[0] * line.x + normal[1] * line.y)
    return body


def _across(wall: PlannedWall, line: Line, low: float, high: float) -> Iterator[Point]:
    """Where a line that ends a moulding crosses its innermost and outermost faces."""
    for out in (low, high):
        if wall.axis.is_arc:
            yield line.at(0.0)
        else:
            yield meet(_line(wall, out), line) or line.at(0.0)


def _holes(wall: PlannedWall, openings: tuple[PlacedOpening, ...], face: float, reach: float) -> Iterator[Solid]:
    low, high = sorted((face, face + reach))
    for placed in openings:
        if placed.back(wall) < high and reach > 0:
            continue
        trim = placed.design.trim if reach > 0 else 0.0
        foot = placed.sill.total - (0.0 if placed.opening.unit == "door" else trim)
        past = 1.0 + wall.bulging(placed.right - placed.left)
        box = (placed.left - trim, foot, placed.right + trim, placed.head.total + trim)
        yield wall_bar(wall, box, low - past, high + past, placed.centre)


def moulding_faults(plan: WallPlan, tops: dict[str, WallTop]) -> Iterator[Diagnostic]:
    """Mouldings that stand past the top or the foot of their wall."""
    for wall in plan.walls:
        for held in wall.wall.mouldings:
            top = tops[wall.wall.id]
            low = (top.base if held.at == "foot" else top.plate) + held.offset + min(spot.up for spot in held.section)
            high = low + max(spot.up for spot in held.section) - min(spot.up for spot in held.section)
            peak = max([top.plate, *(span.peak for span in top.spans)])
            if low > peak - 1.0 or high < min(top.base, top.skirt) + 1.0:
                message = (
                    f"the {held.name} stands {'above' if low > top.plate else 'below'} its wall: change its height"
                )
                at = wall.at(wall.length / 2)
                yield Diagnostic("moulding-off", message, wall.wall.id, f"moulding:{held.id}:offset", at=at)


def moulding_plan(wall: PlannedWall, moulding: Moulding, lines: Mitres) -> list[Polygon]:
    """What a moulding covers in plan, at the foot of its wall."""
    face, way = _face(wall, moulding)
    reach = max(spot.out for spot in moulding.section)
    low, high = sorted((face, face + way * reach))
    if wall.axis.is_arc:
        ends = [wall.axis.along(line.at(0.0)) for line in lines]
        return [wall.strip(ends[0], ends[1], low, high)]
    corners = [list(_across(wall, line, low, high)) for line in lines]
    return list(polygons_of(Polygon([*corners[0], *reversed(corners[1])]).buffer(0)))


@dataclass(frozen=True)
class Mouldings:
    """The heights of the tops of all mouldings, and per wall and moulding the lines in plan that end it."""

    tops: tuple[HeightSum, ...]
    mitres: dict[tuple[str, str], Mitres]

    def lines_of(self, wall: Wall) -> tuple[Mitres, ...]:
        """The lines that end each moulding of a wall, in its order."""
        return tuple(self.mitres[wall.id, moulding.id] for moulding in wall.mouldings)


MOULDINGS: Key[Mouldings] = Key("mouldings")
