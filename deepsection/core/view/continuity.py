"""Continuity: whether the lines that keep out weather, air, cold and vapour close in what a plane cuts.

Computed on what is drawn: the regions that carry a function are joined where they touch; what comes in at one edge of
the window has to leave at the others. Where it does not, the nearest points of the two sides are the gap.
"""

from __future__ import annotations

import heapq
import itertools
import math
from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

import shapely
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry

from ..catalog import material
from ..drawing.cropping import Window
from ..geometry import CutFrame, LevelFrame, Point
from ..model import Layer
from ..resolve import Building, Part, PlannedWall
from ..trades.drawings.model import LineName
from .cut import CutPart

LINES: tuple[LineName, ...] = ("weather", "air", "thermal", "vapour")
"""The lines that close around a house, in the order in which they are told."""

TOUCH = 3.0
"""Regions this near to each other (mm) touch: a bead or a nail closes it."""
EDGE = 1.5
"""A region reaches an edge of the window that is this near (mm)."""
UNITS = ("frame", "sash", "glass", "leaf", "panel", "bar", "threshold", "roof_frame", "roof_glass")
WOOD = ("softwood", "plywood", "treated")
WEATHER_ROLES = ("roofing", "fascia", "soffit", "barge", "cladding", "ridge_flashing", "hip_flashing", "stem", "gutter",
                 "chimney", "cricket")  # fmt: skip
AIR_MATERIALS = ("plywood", "gypsum", "vapour_control", "plaster", "concrete", "membrane", "screed")
THERMAL_MATERIALS = ("quilt", "rigid", "foam")
VAPOUR_MATERIALS = ("vapour_control", "plaster")
ALONG, OPEN = ("air", "vapour"), ("quilt", "rigid", "air")
"""Lines that go on past inner walls which part them; what of these is no part of that."""


def carried_by(
    part: Part,
    outermost: frozenset[str],
    roofs: frozenset[str] = frozenset(),
    grounds: frozenset[str] = frozenset(),
) -> frozenset[LineName]:
    """Which lines a part belongs to: a piece what it does, a unit all, a layer by what it is and where it lies.

    `outermost`: the keys of the layers that are the outside of a wall; `roofs`, `grounds`: the ids of roofs and of what
    lies on the ground.
    """
    if part.note:
        return frozenset(line for line in LINES if line in part.does)
    if part.role in UNITS:
        return frozenset(LINES)
    found: set[LineName] = set()
    if part.element in roofs:
        # Roofs are vented over their insulation: what covers them keeps out weather alone.
        weather = part.role in (*WEATHER_ROLES, "membrane")
        return frozenset({"weather"} if weather else {"thermal"} if part.material in THERMAL_MATERIALS else ())
    if part.role in WEATHER_ROLES or part.key in outermost:
        found.add("weather")
    if part.function == "membrane" and part.material != "vapour_control":
        found |= {"weather", "air"}
        # Under slabs it keeps out the damp of the ground too.
        found |= {"vapour"} if part.element in grounds else set()
    if part.material in AIR_MATERIALS and part.role not in ("fascia", "soffit"):
        found.add("air")
    if part.material in THERMAL_MATERIALS:
        found.add("thermal")
    if part.material in VAPOUR_MATERIALS:
        found.add("vapour")
    return frozenset(found)


def is_timber(part: Part) -> bool:
    """Whether a part is solid wood or board within a wall or a floor.

    Within insulation that is a bridge, counted and no gap; air and vapour do not go through it, and what is sealed to
    it goes on. Common practice, no source.
    """
    return part.material in WOOD and part.function in ("structure", "sheathing")


@dataclass(frozen=True, slots=True)
class Gap:
    """Where a line is open: the nearest points of its two sides in the view, how far apart (mm), and their parts."""

    start: Point
    end: Point
    width: float
    parts: tuple[str, str]


@dataclass(frozen=True, slots=True)
class Continuity:
    """A line in what a plane cuts: its regions, whether it closes, its gaps, and the timber that bridges it (mm2).

    `edges`: those of the window that it comes to; a line that comes to fewer than two is none there.
    """

    line: LineName
    edges: tuple[str, ...]
    regions: tuple[Polygon, ...]
    gaps: tuple[Gap, ...]
    bridged: float

    @property
    def is_there(self) -> bool:
        """Whether it runs from edge to edge."""
        return len(self.edges) > 1

    @property
    def closes(self) -> bool:
        """Whether nothing is open."""
        return not self.gaps


def continuity_in(
    building: Building,
    cut: Sequence[CutPart],
    window: Window,
    lines: Iterable[LineName] = LINES,
    inside: str | None = None,
    frame: CutFrame | None = None,
) -> list[Continuity]:
    """The lines in what a plane cuts within a window: what comes in at one edge leaves at the others.

    `inside`: of a wall section the edge that lies within the house, "left" or "right": what leaves there
    highest up comes in there lowest down. `frame`: of the plane: walls have no weather
    where another part of the house lies outside of them. Inner walls carry no line, and part none.
    """
    if not cut:
        return []
    outermost = _outermost(building, cut)
    roofs = frozenset(roof.block.id for roof in building.roofs)
    grounds = frozenset(held.id for held in building.placed.project.foundations)
    inner, sheltered = _indoors(building, cut, frame)
    held = [(one, carried_by(one.part, outermost, roofs, grounds)) for one in cut]
    held = [
        (one, does - {"weather"} if k in sheltered else frozenset() if k in inner and not one.part.note else does)
        for k, (one, does) in enumerate(held)
    ]
    between = [cut[k] for k in sorted(inner) if not cut[k].part.note and cut[k].part.material not in OPEN]
    x0, y0, x1, y1 = shapely.total_bounds([one.polygon for one in cut]).tolist()
    box = max(window.left, x0), max(window.low, y0), min(window.right, x1), min(window.high, y1)
    wood = [
        one for k, one in enumerate(cut) if is_timber(one.part) and one.part.element not in roofs and k not in inner
    ]
    return [
        _line(line, [one for one, does in held if line in does], wood, between if line in ALONG else [], box, inside)
        for line in lines
    ]


def _on(frame: CutFrame, u: float, v: float) -> Point:
    """The place in plan of a place in a view."""
    if isinstance(frame, LevelFrame):
        return frame.to_plan(u, v)
    return frame.turned_to_plan(u, frame.x0 * frame.dx + frame.y0 * frame.dy)


def _wall_of(building: Building, element: str) -> PlannedWall | None:
    """The wall that an element is, or that an opening is in."""
    opening = next((held for held in building.placed.project.openings if held.id == element), None)
    return building.plan.by_id.get(opening.wall if opening is not None else element)


def _indoors(
    building: Building, cut: Sequence[CutPart], frame: CutFrame | None
) -> tuple[frozenset[int], frozenset[int]]:
    """The places in what is cut of what belongs to inner walls and their openings; and of what belongs to outer ones
    where another part of their storey lies outside of them."""
    inner, sheltered = set(), set()
    walls = {id: _wall_of(building, id) for id in {one.part.element for one in cut}}
    inside = {id: building.plan.sheltered(wall) for id, wall in walls.items() if wall is not None and frame is not None}
    for k, one in enumerate(cut):
        wall = walls[one.part.element]
        if wall is None:
            continue
        if wall.wall.status != "outer":
            inner.add(k)
        elif frame is not None and inside[one.part.element]:
            top = building.levels[wall.wall.top.level].z if wall.wall.top.level else math.inf
            if not isinstance(frame, LevelFrame) and one.polygon.bounds[3] > top + TOUCH:
                continue
            u, v = one.polygon.representative_point().coords[0]
            at = wall.axis.along(_on(frame, u, v))
            if any(low <= at <= high for low, high in inside[one.part.element]):
                sheltered.add(k)
    return frozenset(inner), frozenset(sheltered)


def _outermost(building: Building, cut: Sequence[CutPart]) -> frozenset[str]:
    """The keys of what keeps the rain off walls by being before all others: render and the outer leaf with what is in
    it, brick and stone before a frame."""
    found = set()
    for one in cut:
        wall = building.plan.by_id.get(one.part.element)
        outer = wall is not None and wall.wall.status == "outer"
        layers = building.placed.make_ups[wall.wall.make_up].layers if wall is not None and outer else ()
        skin = [layer.id for layer in layers[: _leaf_of(layers) + 1]]
        if one.part.key.split("/")[2] in skin:
            found.add(one.part.key)
    return frozenset(found)


def _leaf_of(layers: Sequence[Layer]) -> int:
    """The place of the outermost layer that is laid in units; before all where none is."""
    return next((k for k, layer in enumerate(layers) if material(layer.material).coursing), -1)


def _line(
    line: LineName,
    own: list[CutPart],
    wood: list[CutPart],
    between: list[CutPart],
    box: tuple[float, float, float, float],
    inside: str | None,
) -> Continuity:
    nodes = [*own, *between, *(wood if line != "weather" else ())]
    firm = len(own) + len(between)
    members: dict[int, list[int]] = defaultdict(list)
    for k, cluster in enumerate(_clusters([one.polygon for one in nodes])):
        members[cluster].append(k)
    reached = {
        cluster: {edge for k in held if k < len(own) for edge in _edges(own[k].polygon, box)}
        for cluster, held in members.items()
    }
    edges = tuple(sorted({edge for found in reached.values() for edge in found}))
    if inside is None:
        groups = _joined([found for found in reached.values() if found])
        sides = [[k for c, found in reached.items() if found & group for k in members[c]] for group in groups]
        gaps = _gaps([[nodes[k] for k in held] for held in sides]) if len(edges) > 1 and len(groups) > 1 else []
    else:
        ends = _ends(own, members, reached, inside)
        edges = ("top", "bottom") if ends else ()
        whole = [[nodes[k] for k in held] for held in members.values()]
        order = list(members)
        gaps = _way(whole, order.index(ends[0]), order.index(ends[1])) if ends else []
    touched = {k for held in members.values() if any(k < len(own) for k in held) for k in held}
    bridged = sum(nodes[k].polygon.area for k in touched if k >= firm) if line == "thermal" else 0.0
    return Continuity(line, edges, tuple(one.polygon for one in own), tuple(gaps), bridged)


def _ends(
    own: Sequence[CutPart], members: Mapping[int, list[int]], reached: Mapping[int, set[str]], inside: str
) -> tuple[int, int] | None:
    """The clusters in which a line leaves a wall section inward: the highest, and the lowest."""
    heights = [
        (own[k].polygon.bounds[3], cluster)
        for cluster, held in members.items()
        if inside in reached[cluster]
        for k in held
        if k < len(own)
    ]
    return (max(heights)[1], min(heights)[1]) if len(heights) > 1 else None


def _way(clusters: Sequence[Sequence[CutPart]], start: int, goal: int) -> list[Gap]:
    """The least gaps on the way from one cluster to another, over those between."""
    if start == goal:
        return []
    unions = [shapely.union_all([one.polygon for one in held]) for held in clusters]
    before: dict[int, int] = {}
    cost = {start: 0.0}
    heap, done = [(0.0, start)], set[int]()
    while heap:
        far, at = heapq.heappop(heap)
        if at in done:
            continue
        done.add(at)
        if at == goal:
            break
        for other, away in enumerate(shapely.distance(unions[at], unions).tolist()):
            # Two gaps of 10 are rather on the way than one of 30.
            if other not in done and far + away < cost.get(other, math.inf):
                cost[other], before[other] = far + away, at
                heapq.heappush(heap, (far + away, other))
    way = [goal]
    while way[-1] != start:
        way.append(before[way[-1]])
    pairs = [(b, a) for a, b in itertools.pairwise(way)]
    return [gap for a, b in reversed(pairs) for gap in _gaps([clusters[a], clusters[b]])]


def _clusters(polygons: Sequence[Polygon]) -> list[int]:
    """The cluster of each polygon, of those that touch."""
    parent = list(range(len(polygons)))

    def root(k: int) -> int:
        while parent[k] != k:
            parent[k] = parent[parent[k]]
            k = parent[k]
        return k

    if polygons:
        first, second = shapely.STRtree(polygons).query(polygons, predicate="dwithin", distance=TOUCH)
        for a, b in zip(first.tolist(), second.tolist()):
            parent[root(a)] = root(b)
    return [root(k) for k in range(len(polygons))]


def _edges(polygon: Polygon, box: tuple[float, float, float, float]) -> set[str]:
    """The edges of a window that a region comes to."""
    x0, y0, x1, y1 = polygon.bounds
    left, low, right, high = box
    sides = {
        "left": x0 <= left + EDGE,
        "bottom": y0 <= low + EDGE,
        "right": x1 >= right - EDGE,
        "top": y1 >= high - EDGE,
    }
    return {name for name, there in sides.items() if there}


def _joined(sets: Iterable[set[str]]) -> list[set[str]]:
    """Sets of edges, those that share one as one."""
    groups: list[set[str]] = []
    for found in sets:
        touching = [group for group in groups if group & found]
        groups = [group for group in groups if not group & found]
        groups.append(found.union(*touching))
    return groups


def _gaps(sides: Sequence[Sequence[CutPart]]) -> list[Gap]:
    """The least gaps that, closed, would join all sides."""
    unions: list[BaseGeometry] = [shapely.union_all([one.polygon for one in held]) for held in sides]
    done, rest, found = [0], list(range(1, len(sides))), list[Gap]()
    while rest:
        width, a, b = min((unions[i].distance(unions[j]), i, j) for i in done for j in rest)
        line = shapely.shortest_line(unions[a], unions[b])
        assert isinstance(line, LineString)
        start, end = ((x, y) for x, y in line.coords[:2])
        found.append(Gap(start, end, float(width), (_at(sides[a], start), _at(sides[b], end))))
        done.append(b)
        rest.remove(b)
    return found


def _at(held: Sequence[CutPart], point: Point) -> str:
    """The part at a place."""
    spot = shapely.Point(point)
    return min(held, key=lambda one: (one.polygon.distance(spot), one.part.key)).part.key
