"""Junctions of roofs: their edges over walls and over nothing, where slopes meet, what goes through them."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator
from functools import lru_cache, partial

import shapely

from ..geometry import Point
from ..memo import IdentityMemo
from ..resolve import Building, PlannedWall, ResolvedRoof, RoofPlane, RoofSeam
from ..trades.onroofs.placed import ROOF_FITTINGS, PlacedChimney
from ..trades.roofs.model import RAKED, SLOPING
from ..trades.roofs.slopes import local
from .facts import layers_of, rounded
from .junction import End, Fact, Junction, Point3, Run
from .kinds import KindName
from .lines import both, rest_of, shared

AT_END, LOOSE = 5.0, 900.0
"""The end of a slope is looked at so far before it (mm); overhangs at corners make it longer or shorter by so much."""
AGAINST = 400.0
"""A roof leans on a wall that is this near to its top (mm)."""
RAKE_OFF = 1500.0
"""A rake lies at most so far outward of its side (mm)."""
AT_SIDE = 60.0
"""The end of a slope against a wall lies this near to its side (mm), or to what it goes past that."""
MEETING: dict[str, KindName] = {"ridge": "ridge", "hip": "hip", "valley": "valley", "break": "roof_break"}

_known: IdentityMemo[list[Junction]] = IdentityMemo(size=256)


def roof_junctions(building: Building) -> Iterator[Junction]:
    """Eaves, rakes, ridges, hips, valleys, breaks; chimneys and openings in roofs."""
    for roof in building.roofs:
        of = (roof, building.plan, building.levels, *building.placed.project.make_ups)
        yield from _known(of, partial(_of_roof, building, roof))
    held = building[ROOF_FITTINGS]
    yield from (_chimney(building, stack, stack.plane) for stack in held.chimneys if stack.plane is not None)
    for fitting in held.fittings:
        x, y = fitting.outline.centroid.coords[0]
        z = fitting.plane.covered(x, y)
        ends = (End(fitting.fitting.id, "frame"), End(fitting.plane.roof, "slope"))
        facts: tuple[tuple[str, Fact], ...] = (
            ("pitch", rounded(fitting.plane.pitch, 5)),
            ("kind", fitting.fitting.fitting),
        )
        yield Junction("roof_fitting", ends, (Run((x, y, z), (x, y, z + 1.0), (0.0, -1.0)),), facts)


def _chimney(building: Building, stack: PlacedChimney, plane: RoofPlane) -> Junction:
    """Across a stack at the middle of its outline, outward down the slope that it goes through."""
    x, y = stack.outline.centroid.coords[0]
    z, (ox, oy) = plane.covered(x, y), (-plane.inward[0], -plane.inward[1])
    first, low, last, high = local(plane, stack.outline).bounds
    half, middle = (last - first) / 2, local(plane, shapely.Point(x, y)).y
    ends = (End(stack.chimney.id, "sides"), End(plane.roof, "slope"))
    run = Run((x + oy * half, y - ox * half, z), (x - oy * half, y + ox * half, z), (ox, oy))
    facts: tuple[tuple[str, Fact], ...] = (
        ("pitch", rounded(plane.pitch, 5)),
        ("cricket", stack.cricket is not None),
        ("make-up", layers_of(building, stack.make_up)),
        ("material", stack.chimney.material),
        ("down", rounded(middle - low)),
        ("up", rounded(high - middle)),
        ("across", rounded(last - first)),
    )
    return Junction("chimney", ends, (run,), facts)


def _of_roof(building: Building, roof: ResolvedRoof) -> list[Junction]:
    return [*_edges(building, roof), *_sides(building, roof), *_meetings(building, roof)]


def _edges(building: Building, roof: ResolvedRoof) -> Iterator[Junction]:
    """Eaves and rakes, one for each wall that stands under an edge, and one for what stands over none."""
    walls = [wall for wall in building.plan.walls if wall.wall.status == "outer"]
    dying = {edge for edge, _ in roof.dying}
    for number, edge in enumerate(roof.block.edges):
        if number in dying or edge.kind not in (*SLOPING, *RAKED):
            continue
        start, end = roof.drawn_side(number)
        length, z = math.dist(start, end), roof.plate.total
        taken: list[tuple[float, float]] = []
        found: list[tuple[PlannedWall | None, list[tuple[float, float]]]] = []
        for wall in sorted(walls, key=lambda held: (-building.levels[held.wall.base.level].z, held.wall.id)):
            span = shared(wall, start, end)
            free = [] if span is None else list(_free(span, taken))
            taken += free
            found.append((wall, free))
        found.append((None, list(rest_of(length, taken))))
        for beneath, spans in found:
            ends = [(_on(start, end, low, z), _on(start, end, high, z)) for low, high in spans]
            if edge.kind in SLOPING:
                there = _there(roof, number, start, end)
                ends = [(_on(start, end, low, z), _on(start, end, high, z)) for low, high in both(spans, there)]
            if edge.kind in RAKED:
                ends = [up for span in spans for up in _raked(roof, start, end, span)] or ends
            if ends:
                yield _edge(building, roof, number, beneath, ends)


def _free(span: tuple[float, float], taken: list[tuple[float, float]]) -> Iterator[tuple[float, float]]:
    """What of a stretch no wall higher up stands on already."""
    inside = [(max(low, span[0]) - span[0], min(high, span[1]) - span[0]) for low, high in taken]
    for low, high in rest_of(span[1] - span[0], [held for held in inside if held[1] > held[0]]):
        yield low + span[0], high + span[0]


def _on(start: Point, end: Point, at: float, z: float) -> Point3:
    share = at / math.dist(start, end)
    return start[0] + (end[0] - start[0]) * share, start[1] + (end[1] - start[1]) * share, z


@lru_cache(maxsize=512)
def _there(roof: ResolvedRoof, number: int, start: Point, end: Point) -> tuple[tuple[float, float], ...]:
    """From-to along a side where the slope reaches its end: nowhere under another roof."""
    length = math.dist(start, end)
    dx, dy = (end[0] - start[0]) / length, (end[1] - start[1]) / length
    off = roof.reaches[number] - AT_END
    ends = [(x + dy * off, y - dx * off) for x, y in roof.side(number)]
    slopes = shapely.union_all([plane.polygon for plane in roof.planes])
    pieces = shapely.get_parts(shapely.LineString(ends).intersection(slopes))
    spans = []
    for piece in pieces:
        at = sorted((x - start[0]) * dx + (y - start[1]) * dy for x, y in piece.coords)
        low, high = at[0], at[-1]
        spans.append((low - LOOSE if low < LOOSE else low, high + LOOSE if high > length - LOOSE else high))
    return tuple(spans)


def _sides(building: Building, roof: ResolvedRoof) -> Iterator[Junction]:
    """Where slopes end against a wall along their fall: outward of the wall lies the roof."""
    dying = {edge for edge, _ in roof.dying}
    for number, edge in enumerate(roof.block.edges):
        if edge.kind != "abutment" or number in dying:
            continue
        start, end = roof.drawn_side(number)
        length = math.dist(start, end)
        near = abs(roof.reaches[number]) + AT_SIDE
        slopes = list(_raked(roof, start, end, (0.0, length), near))
        if not slopes:
            continue
        out = (start[1] - end[1]) / length, (end[0] - start[0]) / length
        wall = _beside(building, start, end, sum(high[2] + low[2] for low, high in slopes) / len(slopes) / 2)
        by_pitch: dict[float, list[Run]] = defaultdict(list)
        for low, high in slopes:
            by_pitch[rounded(abs(high[2] - low[2]) / math.dist(low[:2], high[:2]), 5)].append(Run(low, high, out))
        names = ("",) if len(by_pitch) == 1 else ("flatter", *("steeper",) * (len(by_pitch) - 1))
        for name, (pitch, runs) in zip(names, sorted(by_pitch.items())):
            meets: tuple[End, ...] = (End(roof.block.id, "edge", roof.edge_id(number)),)
            meets += (End(wall.wall.id, "side", name),) if wall else ()
            facts: tuple[tuple[str, Fact], ...] = (
                ("pitch", pitch),
                ("roof", layers_of(building, roof.block.make_up)),
                ("wall", layers_of(building, wall.wall.make_up if wall else None)),
            )
            yield Junction("roof_side", meets, tuple(runs), facts)


def _beside(building: Building, start: Point, end: Point, z: float, most: float = math.inf) -> PlannedWall | None:
    """The outer wall along a line, of several storeys the one nearest to a height, no farther from it than `most`."""
    found = []
    for wall in building.plan.walls:
        top = wall.wall.top.level
        if wall.wall.status == "outer" and top is not None and shared(wall, start, end, near=AGAINST):
            low, high = building.levels[wall.wall.base.level].z, building.levels[top].z
            found.append((max(low - z, z - high, 0.0), wall.wall.id, wall))
    away, _, nearest = min(found, default=(math.inf, "", None), key=lambda held: held[:2])
    return nearest if away < most else None


def _raked(
    roof: ResolvedRoof, start: Point, end: Point, span: tuple[float, float], near: float | None = None
) -> Iterator[tuple[Point3, Point3]]:
    """The slopes of a rake over a stretch of its side, at the top of the structure, in the plane of the side; as near
    to that as is said, or about at it."""
    length = math.dist(start, end)
    dx, dy = (end[0] - start[0]) / length, (end[1] - start[1]) / length
    for seam in roof.of("rake"):
        (x0, y0, z0), (x1, y1, z1) = seam.start, seam.end
        off = max(abs((x - start[0]) * dy - (y - start[1]) * dx) for x, y in ((x0, y0), (x1, y1)))
        a, b = ((x - start[0]) * dx + (y - start[1]) * dy for x, y in ((x0, y0), (x1, y1)))
        if off > (max(roof.reaches) + RAKE_OFF if near is None else near) or abs(b - a) <= 1.0:
            continue
        low, high = max(min(a, b), span[0]), min(max(a, b), span[1])
        if high - low > 1.0:
            z = [z0 + (z1 - z0) * (at - a) / (b - a) for at in (low, high)]
            yield _on(start, end, low, z[0]), _on(start, end, high, z[1])


def _edge(
    building: Building,
    roof: ResolvedRoof,
    number: int,
    beneath: PlannedWall | None,
    ends: list[tuple[Point3, Point3]],
) -> Junction:
    block, edge = roof.block, roof.block.edges[number]
    (x0, y0, _), (x1, y1, _) = ends[0]
    length = math.dist((x0, y0), (x1, y1))
    # Corners of outlines go counter-clockwise: outward lies to the right.
    out = (y1 - y0) / length, -(x1 - x0) / length
    kind: KindName = "eave" if edge.kind in SLOPING else "rake"
    meets: tuple[End, ...] = (End(block.id, "edge", roof.edge_id(number)),)
    if beneath is not None:
        meets += (End(beneath.wall.id, "top"),)
    pitch = edge.pitch if edge.pitch is not None else block.pitch
    facts: tuple[tuple[str, Fact], ...] = (
        ("form", edge.kind),
        ("pitch", rounded(pitch, 5)),
        ("overhang", rounded(edge.overhang)),
        ("overhang from", block.overhang_from),
        ("heel", rounded(roof.heel.total - roof.plate.total + edge.raised)),
        ("fascia", rounded(block.fascia_depth)),
        ("tails", block.tails),
        ("height", rounded(edge.height or 0.0)),
        ("upper pitch", rounded(edge.upper_pitch or 0.0, 5)),
        ("roof", layers_of(building, block.make_up)),
        ("wall", layers_of(building, beneath.wall.make_up if beneath else None)),
    )
    return Junction(kind, meets, tuple(Run(a, b, out) for a, b in ends), facts)


def _meetings(building: Building, roof: ResolvedRoof) -> Iterator[Junction]:
    """Where slopes of a roof meet, or run into another one: one for each pair of slopes."""
    found: dict[tuple[KindName, tuple[End, ...]], list[RoofSeam]] = {}
    for seam in roof.seams:
        kind = MEETING.get(seam.kind)
        if kind is None or seam.length <= 1.0:
            continue
        if kind == "ridge" and len(set(seam.edges)) == 1:
            kind = "roof_top"
        ends = tuple(sorted(End(roof.block.id, "edge", roof.edge_id(edge)) for edge in set(seam.edges)))
        ends += tuple(End(other, "slope") for other in sorted(seam.others))
        if kind == "roof_top":
            wall = _beside(building, seam.start[:2], seam.end[:2], seam.start[2], AGAINST)
            ends += (End(wall.wall.id, "side"),) if wall else ()
        found.setdefault((kind, ends), []).append(seam)
    for (kind, ends), seams in found.items():
        runs = tuple(Run(seam.start, seam.end, _outward(building, roof, seam, ends)) for seam in seams)
        edges = [roof.block.edges[edge] for edge in sorted({edge for seam in seams for edge in seam.edges})]
        pitches = sorted(rounded(edge.pitch if edge.pitch is not None else roof.block.pitch, 5) for edge in edges)
        facts: tuple[tuple[str, Fact], ...] = (
            ("pitches", tuple(pitches)),
            ("other roof", bool(seams[0].others)),
            ("roof", layers_of(building, roof.block.make_up)),
        )
        yield Junction(kind, ends, runs, facts)


def _outward(building: Building, roof: ResolvedRoof, seam: RoofSeam, ends: tuple[End, ...]) -> Point:
    """Across a seam in plan: outward of the wall that a roof leans on there; up its slope where another roof meets it;
    else to its right."""
    x, y = _aside(seam)
    wall = building.plan.by_id.get(ends[-1].element) if ends[-1].feature == "side" else None
    own = next((held for held in roof.planes if set(held.edges) & set(seam.edges)), None)
    if wall is not None:
        ox, oy = wall.stand().out
    elif seam.others and own is not None:
        ox, oy = own.inward
    else:
        return x, y
    return (x, y) if x * ox + y * oy >= 0 else (-x, -y)


def _aside(seam: RoofSeam) -> Point:
    """Across a seam in plan, to its right."""
    dx, dy = seam.end[0] - seam.start[0], seam.end[1] - seam.start[1]
    length = math.hypot(dx, dy)
    return (dy / length, -dx / length) if length > 1e-6 else (0.0, -1.0)
