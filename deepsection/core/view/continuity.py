"""Continuity: whether the lines that keep out weather, air, cold and vapour close in what a plane cuts.

Computed on what is drawn: the regions that carry a function are joined where they touch; what comes in at one edge of
the window has to leave at the others. Where it does not, the nearest points of the two sides are the gap.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Literal

import shapely
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry

from ..catalog import material
from ..drawing.cropping import Window
from ..geometry import Point
from ..model import Layer
from ..resolve import Building, Part
from .cut import CutPart

LineName = Literal["weather", "air", "thermal", "vapour"]
LINES: tuple[LineName, ...] = ("weather", "air", "thermal", "vapour")
"""The lines that close around a house, in the order in which they are told."""

TOUCH = 2.0
"""Regions this near to each other (mm) touch: a bead or a nail closes it."""
EDGE = 1.5
"""A region reaches an edge of the window that is this near (mm)."""
OPEN_EDGE = 6.0
"""What carries a function over less of an edge than this (mm) counts only where it is a sheet."""

UNITS = ("frame", "sash", "glass", "leaf", "panel", "bar", "threshold", "roof_frame", "roof_glass")
WOOD = ("softwood", "plywood", "treated")
WEATHER_ROLES = ("roofing", "fascia", "soffit", "barge", "cladding", "ridge_flashing", "hip_flashing", "stem", "gutter")
AIR_MATERIALS = ("plywood", "gypsum", "vapour_control", "plaster", "concrete", "membrane", "screed")
THERMAL_MATERIALS = ("quilt", "rigid", "foam")
VAPOUR_MATERIALS = ("vapour_control",)


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
    """Where a line is open: the nearest points of its two sides (in the view), how far they lie apart (mm), and parts."""

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
    building: Building, cut: Sequence[CutPart], window: Window, lines: Iterable[LineName] = LINES
) -> list[Continuity]:
    """The lines in what a plane cuts within a window."""
    if not cut:
        return []
    outermost = _outermost(building, cut)
    roofs = frozenset(roof.block.id for roof in building.roofs)
    grounds = frozenset(held.id for held in building.placed.project.foundations)
    held = [(one, carried_by(one.part, outermost, roofs, grounds)) for one in cut]
    x0, y0, x1, y1 = shapely.total_bounds([one.polygon for one in cut]).tolist()
    box = max(window.left, x0), max(window.low, y0), min(window.right, x1), min(window.high, y1)
    wood = [one for one in cut if is_timber(one.part) and one.part.element not in roofs]
    return [_line(line, [one for one, does in held if line in does], wood, box) for line in lines]


def _outermost(building: Building, cut: Sequence[CutPart]) -> frozenset[str]:
    """The keys of what keeps the rain off walls by being before all others: render and the outer leaf with what is in
    it, brick and stone before a frame."""
    found = set()
    for one in cut:
        wall = building.plan.by_id.get(one.part.element)
        layers = building.placed.make_ups[wall.wall.make_up].layers if wall is not None else ()
        skin = [layer.id for layer in layers[: _leaf_of(layers) + 1]]
        if one.part.key.split("/")[2] in skin:
            found.add(one.part.key)
    return frozenset(found)


def _leaf_of(layers: Sequence[Layer]) -> int:
    """The place of the outermost layer that is laid in units; before all where none is."""
    return next((k for k, layer in enumerate(layers) if material(layer.material).coursing), -1)


def _line(
    line: LineName, own: list[CutPart], wood: list[CutPart], box: tuple[float, float, float, float]
) -> Continuity:
    pieces = [(one, one.polygon) for one in own]
    bridging = [(one, one.polygon) for one in wood] if line != "weather" else []
    nodes = [*pieces, *bridging]
    clusters = _clusters([polygon for _, polygon in nodes])
    members: dict[int, list[int]] = {}
    for k, cluster in enumerate(clusters):
        members.setdefault(cluster, []).append(k)
    reached: dict[int, set[str]] = {
        cluster: {edge for k in held if k < len(pieces) for edge in _edges(pieces[k][1], box)}
        for cluster, held in members.items()
    }
    edges = sorted({edge for found in reached.values() for edge in found})
    groups = _joined([found for found in reached.values() if found])
    gaps: list[Gap] = []
    if len(edges) > 1 and len(groups) > 1:
        shapes = []
        for group in groups:
            inside = [k for cluster, found in reached.items() if found & group for k in members[cluster]]
            shapes.append([nodes[k] for k in inside if k < len(pieces)] or [nodes[k] for k in inside])
        gaps = _gaps(shapes)
    touched = {k for cluster, held in members.items() if any(k < len(pieces) for k in held) for k in held}
    bridged = sum(nodes[k][1].area for k in touched if k >= len(pieces)) if line == "thermal" else 0.0
    return Continuity(line, tuple(edges), tuple(polygon for _, polygon in pieces), tuple(gaps), bridged)


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


def _gaps(shapes: Sequence[Sequence[tuple[CutPart, Polygon]]]) -> list[Gap]:
    """The least gaps that, closed, would join all groups."""
    unions: list[BaseGeometry] = [shapely.union_all([polygon for _, polygon in held]) for held in shapes]
    done, rest, found = [0], list(range(1, len(shapes))), list[Gap]()
    while rest:
        width, a, b = min((unions[i].distance(unions[j]), i, j) for i in done for j in rest)
        line = shapely.shortest_line(unions[a], unions[b])
        assert isinstance(line, LineString)
        start, end = ((x, y) for x, y in line.coords[:2])
        parts = _at(shapes[a], start), _at(shapes[b], end)
        found.append(Gap(start, end, float(width), parts))
        done.append(b)
        rest.remove(b)
    return found


def _at(held: Sequence[tuple[CutPart, Polygon]], point: Point) -> str:
    """The part at a place."""
    spot = shapely.Point(point)
    return min(held, key=lambda one: (one[1].distance(spot), one[0].part.key))[0].part.key
