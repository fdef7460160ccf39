"""Stage: how high walls go: to their plate, and on to the roofs that lie over them, span by span."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.diagnostics import Diagnostic
from ...geometry import Plane3, line_through, polygons_of
from ...model import RAKED, SLOPING, TopRule
from ...units import HeightSum, SumTerm
from ..levels.placed import Level
from ..roofs.placed import ResolvedRoof, RoofPlane
from .bodies import TopSpan, WallTop
from .planned import PlannedWall

ON_EDGE = 60.0
"""A wall belongs to a roof edge when its line lies this close to it (mm)."""
LOWEST = 100.0
"""A wall lower than this (mm) is no wall."""
FAR_OFF = 1000.0
"""A wall that ends this far above or below its plate (mm) is pointed out: a parapet or a low wall may be meant."""
ACROSS = 0.02
"""A wall is a gable wall when it runs this close to square with the eaves (cosine of the angle)."""
FAR = 1e6
LEVEL = 1.0
"""Heights this close (mm) are one."""


def plate_sum(wall: PlannedWall, levels: dict[str, Level]) -> HeightSum:
    """The height of a wall's plate, with its terms: of its lowest stretch when it is raked or stepped."""
    id, rule = wall.wall.id, wall.wall.top
    if rule.kind == "fixed" and rule.height is not None:
        height = foot_sum(wall, levels).plus(f"top:{id}", "top of wall", SumTerm("height of wall", rule.height, id))
    else:
        height = levels[rule.level].sum
        if rule.offset:
            height = height.plus(f"top:{id}", "top of wall", SumTerm("offset", rule.offset, id))
    fall = _fall(rule)
    return height.plus(f"top:{id}", "top of wall, lowest", SumTerm("falls by", fall, id)) if fall else height


def _fall(rule: TopRule) -> float:
    """How far the lowest stretch of a raked or stepped top lies from its start (0 or less)."""
    return min(0.0, rule.end_rise, *(step.rise for step in rule.steps))


def _steps(rule: TopRule) -> Iterator[tuple[float, float, float]]:
    """Stretches of a stepped top as (from, to, rise over its start); one of no rise when it has no steps."""
    stops = [-FAR, *(step.distance for step in rule.steps), FAR]
    rises = [0.0, *(step.rise for step in rule.steps)]
    for (first, last), rise in zip(itertools.pairwise(stops), rises):
        yield first, last, rise


def foot_sum(wall: PlannedWall, levels: dict[str, Level]) -> HeightSum:
    """The height of a wall's foot, with its terms."""
    id, base = wall.wall.id, wall.wall.base
    foot = levels[base.level].sum
    return foot.plus(f"foot:{id}", "foot of wall", SumTerm("offset", base.offset, id)) if base.offset else foot


@dataclass(frozen=True, slots=True)
class Surroundings:
    """What of the rest of the building decides where walls start and end."""

    levels: dict[str, Level]
    roofs: tuple[ResolvedRoof, ...]
    ceiled: frozenset[str]
    """Levels under a ceiling or a floor."""
    floored: dict[str, Polygon | MultiPolygon]
    """Per level on which a floor lies, what it covers in plan, to the set-out lines of walls."""
    edges: dict[str, float]
    """Per level of a floor, the height down to which cladding covers its edge."""
    masonry: dict[tuple[str, str], float]
    """Per level of a floor and status of walls on it, where the masonry begins that bears."""
    courses: dict[str, float]
    """Per wall, the height at which its courses and boards start."""
    inside: dict[str, Polygon | MultiPolygon]
    """Per level that walls stand on, what closed outlines hold."""


def wall_top(wall: PlannedWall, around: Surroundings, found: list[Diagnostic]) -> WallTop:
    """The top of a wall; one that is too low is added to what is found wrong."""
    level, rule = wall.wall.base.level, wall.wall.top
    top, faults = _top(
        wall,
        foot_sum(wall, around.levels),
        plate_sum(wall, around.levels),
        around.levels[rule.level],
        _over(wall, around) if rule.kind == "roof" else (),
        around.floored.get(rule.level),
        around.edges.get(level),
        around.masonry.get((level, wall.wall.status)),
        around.courses[wall.wall.id],
        rule.level in around.ceiled,
        around.inside[level],
    )
    found += faults
    return top


@lru_cache(maxsize=2048)
def _top(
    wall: PlannedWall,
    base: HeightSum,
    plate: HeightSum,
    storey: Level,
    roofs: tuple[ResolvedRoof, ...],
    floor: Polygon | MultiPolygon | None,
    edge: float | None,
    masonry: float | None,
    courses: float,
    ceiled: bool,
    inside: Polygon | MultiPolygon,
) -> tuple[WallTop, tuple[Diagnostic, ...]]:
    """The top of a wall under roofs and a floor, and what is wrong with it."""
    foot, rule, found = base.total, wall.wall.top, list[Diagnostic]()
    if plate.total - foot < LOWEST:
        message = "the top of this wall is not above its foot"
        height = plate.total - foot
        found.append(Diagnostic("wall-too-low", message, wall.wall.id, "top", height, LOWEST))
    off = plate.total - storey.z
    if abs(off) > FAR_OFF and not wall.wall.base.on_roof:
        message = f"this wall ends far {'above' if off > 0 else 'below'} {storey.name}, the plate of its storey"
        field = "height" if rule.kind == "fixed" else "top_offset"
        found.append(Diagnostic("wall-off-plate", message, wall.wall.id, field, off, FAR_OFF))
    top = max(plate.total, foot + LOWEST)
    found += _batter_faults(wall, foot, plate.total)
    sloped = rule.end_rise or rule.steps
    if rule.end_rise and wall.axis.is_arc:
        message = "an arc cannot be raked: step it, or part it into straight walls"
        found.append(Diagnostic("arc-raked", message, wall.wall.id, "end_rise"))
    spans = tuple(_shaped(wall, top) if sloped else _spans(wall, roofs, floor or Polygon(), top))
    found += _through(wall, roofs, spans, plate.total)
    on_level = not wall.wall.base.offset and not wall.wall.base.on_roof
    skirted = wall.wall.status == "outer" and on_level
    held = WallTop(
        foot,
        edge if skirted and edge is not None else foot,
        courses if skirted else foot,
        masonry if on_level and masonry is not None else foot,
        top,
        spans,
        base.id,
        plate.id,
        ceiled,
        wall.wall.base.on_roof or bool(inside.covers(wall.axis.line_string())),
    )
    return held, tuple(found)


THINNEST = 10.0
"""A battered wall thinner than this at its top (mm) tapers to nothing."""


def _batter_faults(wall: PlannedWall, foot: float, top: float) -> list[Diagnostic]:
    held = wall.wall
    if not (held.batter_outer or held.batter_inner):
        return []
    field = "batter_outer" if held.batter_outer else "batter_inner"
    if wall.axis.is_arc:
        message = "an arc cannot be battered yet: part it into straight walls"
        return [Diagnostic("arc-battered", message, held.id, field)]
    lean = sum(math.tan(math.radians(angle)) for angle in (held.batter_outer, held.batter_inner))
    left = wall.outer - wall.inner - lean * (top - foot)
    if left < THINNEST:
        message = "this wall tapers to nothing before its top: make the batter less, or the wall thicker or lower"
        return [Diagnostic("batter-to-nothing", message, held.id, field, left, THINNEST)]
    return []


def _through(
    wall: PlannedWall, roofs: tuple[ResolvedRoof, ...], spans: tuple[TopSpan, ...], top: float
) -> Iterator[Diagnostic]:
    """A wall that stands higher than the eave that it carries."""
    for span in spans:
        roof = next((held for held in roofs if held.block.id == span.roof.partition(":")[0]), None)
        if roof is None or not span.bears:
            continue
        plates = [p.plate for p in roof.planes if p.top in span.deck and any(_on_eave(wall, roof, k) for k in p.edges)]
        low = min(plates, default=top)
        if top > low + LEVEL:
            message = f"this wall stands through {roof.block.name}: its eave is lower here; end the wall lower"
            at = wall.at(wall.length / 2)
            yield Diagnostic("wall-through-roof", message, wall.wall.id, "top_offset", top, low, at=at)


def _over(wall: PlannedWall, around: Surroundings) -> tuple[ResolvedRoof, ...]:
    """The roofs that may end a wall: those on its plate, else those that start no lower."""
    level = wall.wall.top.level
    own = tuple(roof for roof in around.roofs if roof.block.plate == level)
    if own:
        top = plate_sum(wall, around.levels).total
        bearing = tuple(roof for roof in own if abs(roof.plate.total - top) < ON_EDGE)
        return bearing or (() if wall.wall.base.on_roof else own)
    return tuple(roof for roof in around.roofs if roof.plate.total > around.levels[level].z - ON_EDGE)


def _plain(start: float, end: float, top: float) -> TopSpan:
    return TopSpan(start, end, "", False, (), (), top)


def _spans(
    wall: PlannedWall, roofs: tuple[ResolvedRoof, ...], floor: Polygon | MultiPolygon, top: float
) -> Iterator[TopSpan]:
    """Spans from end to end: a floor on the wall ends it at its plate; where roofs overlap, one that has a gable on the
    wall comes first, then the highest."""
    taken: list[tuple[float, float, ResolvedRoof | None]] = [(a, b, None) for a, b in _stretches(wall, floor)]
    for roof in sorted(roofs, key=lambda roof: (not _has_gable_on(wall, roof), -roof.ridge_top.total)):
        for stretch in _stretches(wall, roof.outline):
            for start, end in _free(stretch, [(a, b) for a, b, _ in taken]):
                taken.append((start, end, roof))
    at = -FAR
    for start, end, held in sorted(taken, key=lambda span: span[0]):
        start = -FAR if start < ON_EDGE else start
        end = FAR if end > wall.length - ON_EDGE else end
        if start > at + ON_EDGE:
            yield _plain(at, start, top)
            at = start
        if held:
            yield from _under(wall, held, at, end, top)
        else:
            yield _plain(at, end, top)
        at = end
    if at < wall.length:
        yield _plain(at, FAR, top)


def top_over(wall: PlannedWall, plate: HeightSum, left: float, right: float) -> float:
    """How high a wall goes at least between two distances along it, not counting what a roof lets it rise."""
    rule = wall.wall.top
    rake = min(rule.end_rise * along / wall.length for along in (left, right))
    # An opening may have left its wall: then it stands under no step of its top.
    step = min((rise for first, last, rise in _steps(rule) if first < right and last > left), default=0.0)
    return plate.total - _fall(rule) + rake + step


def _shaped(wall: PlannedWall, low: float) -> Iterator[TopSpan]:
    """Spans of a raked or stepped wall over its lowest height: each is filled up to a plane."""
    rule = wall.wall.top
    start = low - _fall(rule)
    if rule.end_rise and not wall.axis.is_arc:
        slope, (dx, dy), (x, y) = rule.end_rise / wall.length, wall.run, wall.start
        plane = Plane3(slope * dx, slope * dy, start - slope * (dx * x + dy * y))
        past = abs(slope) * 1000.0
        yield TopSpan(-FAR, FAR, "rake", True, (plane,), (plane,), max(start, start + rule.end_rise) + past)
        return
    for k, (first, last, rise) in enumerate(_steps(rule)):
        top = start + rise
        plane = Plane3(0.0, 0.0, top)
        yield TopSpan(first, last, f"step:{k}", top > low + 1.0, (plane,), (plane,), top)


def _stretches(wall: PlannedWall, area: Polygon | MultiPolygon) -> Iterator[tuple[float, float]]:
    """From-to distances along a wall that lie under an area."""
    along, line = wall.axis, wall.axis.line_string()
    for piece in polygons_of(area):
        reach = [along.along(point) for point in piece.exterior.coords]
        for part in shapely.get_parts(line.intersection(piece.buffer(ON_EDGE, join_style="mitre"))):
            if part.geom_type == "LineString" and part.length >= 2 * ON_EDGE:
                ends = [along.along(point) for point in part.coords]
                low, high = (min(reach), max(reach)) if not along.is_arc else (min(ends), max(ends))
                yield max(min(ends), low), min(max(ends), high)


def _free(stretch: tuple[float, float], taken: list[tuple[float, float]]) -> list[tuple[float, float]]:
    """What of a stretch is not taken yet."""
    free = [stretch]
    for a, b in taken:
        free = [piece for s, e in free for piece in ((s, min(e, a)), (max(s, b), e)) if piece[1] - piece[0] > ON_EDGE]
    return free


def _under(wall: PlannedWall, roof: ResolvedRoof, start: float, end: float, top: float) -> Iterator[TopSpan]:
    """Spans of a stretch under a roof: a wall on an eave bears the rafters, any other one rises to their underside.

    A span has the slopes that its end is the lowest of; where they meet in a valley, another span begins.
    """
    groups = _groups(wall, roof, max(start, 0.0), min(end, wall.length))
    for k, (first, last, planes) in enumerate(groups):
        eave = any(_on_eave(wall, roof, edge) for plane in planes for edge in plane.edges if not plane.upper)
        deck = tuple(plane.top for plane in planes)
        under = tuple(plane.top.lifted(-plane.plumb_depth) for plane in planes)
        peak = top if eave else max(top, roof.ridge_top.total)
        slot = f"{roof.block.id}:{k}" if k else roof.block.id
        low, high = start if k == 0 else first, end if k == len(groups) - 1 else last
        yield TopSpan(low, high, slot, not eave, under, deck, peak, bears=eave)


def _on_eave(wall: PlannedWall, roof: ResolvedRoof, edge: int) -> bool:
    """Whether rafters bear on a wall: it stands below an eave that is not raised over it."""
    treatment = roof.block.edges[edge]
    if treatment.kind not in SLOPING or treatment.raised > 0:
        return False
    if wall.axis.is_arc:
        return True
    line = line_through(*roof.side(edge))
    if abs(line.dx * wall.run[1] - line.dy * wall.run[0]) > ACROSS:
        return False
    outer = wall.at(wall.length / 2, wall.outer), wall.at(wall.length / 2, wall.inner)
    ways = sorted(line.left_of(point) for point in outer)
    return ways[0] - ON_EDGE < 0 < ways[1] + ON_EDGE


def _has_gable_on(wall: PlannedWall, roof: ResolvedRoof) -> bool:
    """Whether a roof that runs into another one has its gable on a wall, which goes up into it."""
    if not roof.joins or wall.axis.is_arc:
        return False
    line = wall.axis.line_string().buffer(ON_EDGE)
    edges = enumerate(roof.block.edges)
    return any(edge.kind in RAKED and line.contains(shapely.LineString(roof.drawn_side(k))) for k, edge in edges)


def _groups(
    wall: PlannedWall, roof: ResolvedRoof, start: float, end: float
) -> list[tuple[float, float, tuple[RoofPlane, ...]]]:
    """Stretches with their slopes, lowest-of-all within each."""
    line, axis = wall.axis.line_string(), wall.axis
    found = []
    for plane in roof.planes:
        for part in shapely.get_parts(line.intersection(plane.whole)):
            if part.geom_type == "LineString" and part.length > 1.0:
                first, last = sorted(axis.along(point) for point in (part.coords[0], part.coords[-1]))
                if min(last, end) - max(first, start) > 1.0:
                    found.append((max(first, start), min(last, end), plane))
    found.sort(key=lambda held: (held[0], held[1]))
    if not found:
        return [(start, end, roof.planes)]

    def rate(plane: RoofPlane) -> float:
        (x0, y0), (x1, y1) = wall.axis.at(0.0), wall.axis.at(wall.length)
        return (plane.top.z(x1, y1) - plane.top.z(x0, y0)) / max(wall.length, 1.0)

    groups: list[tuple[float, float, tuple[RoofPlane, ...]]] = []
    for first, last, plane in found:
        if groups and (wall.axis.is_arc or rate(plane) <= rate(groups[-1][2][-1]) + 1e-9):
            groups[-1] = (groups[-1][0], max(last, groups[-1][1]), (*groups[-1][2], plane))
        else:
            groups.append((first, last, (plane,)))
    return groups


def gable_footprints(wall: PlannedWall, top: WallTop) -> Iterator[Polygon]:
    """The plan of a wall where it rises past its plate."""
    for span in top.spans:
        if span.gable:
            low, high = max(span.start, -FAR), min(span.end, FAR)
            strip = wall.strip(low, high, -FAR, FAR)
            yield wall.footprint.intersection(strip)
