"""Reads a floor plan from DXF: closed outlines, wall lines with their gaps, and blocks of windows and doors.

An outline is the outside of the frames of outer walls, drawn as one closed line or as lines end to end; any other line
is the middle of an inner wall, and two lines of one direction with a gap between them are one wall with a doorway.
Layers may be left out. What is not understood is listed, never dropped in silence.
"""

from __future__ import annotations

import io
import math
from collections import Counter, defaultdict
from collections.abc import Collection, Iterator
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Any

import ezdxf
import ezdxf.bbox
import ezdxf.recover
from shapely.geometry import Polygon

from deepsection.core.errors import BadInput
from deepsection.core.geometry import Point, line_through

UNITS = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": 25.4, "ft": 304.8}
INSUNITS = {1: "in", 2: "ft", 4: "mm", 5: "cm", 6: "m"}
"""Units by the code in the header. Source: DXF reference, $INSUNITS (from memory)."""
MOST_ENTITIES = 20_000
SAME = 15.0
"""Points this close are one, and lines this close to each other in one direction are one wall (mm)."""
GAP = (500.0, 4000.0)
"""A gap between two lines of one direction is a doorway when it is this wide (mm)."""
UNIT_WIDTH = (300.0, 6000.0)
"""A block is a window or door when it is this wide (mm)."""
FAR = 1e6
"""A plan drawn farther than this from the origin (mm), at survey coordinates, is read as if it were drawn there."""
SPREAD = 1e6
"""What lies farther than this from the middle of the rest (mm) belongs to no house."""
SMALLEST_OUTLINE = 4e6
"""A closed outline smaller than this (mm2) is no house."""


@dataclass(frozen=True, slots=True)
class FoundOutline:
    """The outside of outer walls: corners counter-clockwise, and the layer that they are drawn on."""

    corners: tuple[Point, ...]
    layer: str


@dataclass(frozen=True, slots=True)
class FoundWall:
    """A wall line with the gaps in it, as (from, to) distances from its start, and its layer."""

    start: Point
    end: Point
    gaps: tuple[Point, ...] = ()
    layer: str = "0"


@dataclass(frozen=True, slots=True)
class FoundUnit:
    """A window or door block: where it stands, how wide it is, and its layer."""

    kind: str
    at: Point
    width: float
    layer: str = "0"


@dataclass(slots=True)
class FoundPlan:
    """What was read of a plan, in mm, and what was not, in words."""

    unit: str
    outlines: list[FoundOutline] = field(default_factory=list)
    walls: list[FoundWall] = field(default_factory=list)
    units: list[FoundUnit] = field(default_factory=list)
    skipped: list[str] = field(default_factory=list)

    @property
    def layers(self) -> list[str]:
        """The layers on which something was found, those with outlines first."""
        drawn = [held.layer for held in self.outlines] + [held.layer for held in self.walls]
        return list(dict.fromkeys(drawn + [held.layer for held in self.units]))


def read_plan(data: bytes, unit: str | None = None, *, without: Collection[str] = ()) -> FoundPlan:
    """The plan in a DXF file; `unit` is needed when the header names none, and wins when it does.

    Layers in `without` are left out, and said to be. Raises: BadInput for what is no DXF, holds nothing, holds too
    much, or does not say its unit.
    """
    document = _opened(data)
    named = unit or INSUNITS.get(int(document.header.get("$INSUNITS", 0)))
    if named is None:
        raise BadInput("this file does not say its unit; give mm, cm, m, in or ft", field="unit")
    if named not in UNITS:
        raise BadInput(f"“{named}” is no unit; give mm, cm, m, in or ft", field="unit", value=named)
    entities = list(document.modelspace())
    if not entities:
        raise BadInput("there is nothing in the model space of this file", field="file")
    if len(entities) > MOST_ENTITIES:
        message = f"this file holds {len(entities)} things; a plan of more than {MOST_ENTITIES} is not read"
        raise BadInput(message, field="file", value=len(entities), limit=MOST_ENTITIES)
    found = FoundPlan(named)
    kept = [entity for entity in entities if entity.dxf.layer not in without]
    found.skipped += [f"layer {layer}, left out" for layer in sorted(without)]
    for layer, lines in sorted(_sorted_out(*_near(kept, UNITS[named], found), found).items()):
        found.walls += _joined(_loops(lines, layer, found), layer)
    _keep_outer(found)
    if not found.outlines and not found.walls:
        raise BadInput("no closed outline and no wall line was found in this file", field="file")
    return found


def _opened(data: bytes) -> Any:
    if not data.strip():
        raise BadInput("this file is empty", field="file")
    if b"SECTION" not in data[:100_000]:
        raise BadInput("this is not a DXF file that can be read: it holds no sections", field="file")
    if b"EOF" not in data[-200:]:
        message = f"this DXF file is cut short at byte {len(data)}: its end is missing; save or send it again"
        raise BadInput(message, field="file", value=len(data))
    try:
        document, auditor = ezdxf.recover.read(io.BytesIO(data))
    except Exception as error:  # What a broken file can do to a reader has no end.
        raise BadInput("this is not a DXF file that can be read", field="file") from error
    if auditor.has_errors:
        raise BadInput("this DXF file is broken: " + str(auditor.errors[0].message), field="file")
    return document


Segment = tuple[Point, Point]
Placing = tuple[float, Point]
"""From the unit of a file to mm, and the place in mm that becomes the origin."""


def _near(entities: list[Any], factor: float, found: FoundPlan) -> tuple[list[Any], Placing]:
    """What lies together, and how it is placed; what has no place, or lies far from all else, is listed."""
    placed = [(entity, _places(entity, factor)) for entity in entities]
    xs = sorted(x for _, held in placed for x, _ in held if math.isfinite(x))
    ys = sorted(y for _, held in placed for _, y in held if math.isfinite(y))
    if not xs or not ys:
        return entities, (factor, (0.0, 0.0))
    middle = xs[len(xs) // 2], ys[len(ys) // 2]
    origin = (0.0, 0.0)
    if max(map(abs, middle)) > FAR:
        origin = tuple(math.floor(value / 1000) * 1000.0 for value in (xs[len(xs) // 20], ys[len(ys) // 20]))  # type: ignore[assignment]
        east, north = (value / 1000 for value in origin)
        found.skipped.append(f"its place: it is drawn {east:,.0f} m east and {north:,.0f} m north of the origin")
    kept = []
    for entity, held in placed:
        away = [abs(value - at) for point in held for value, at in zip(point, middle)]
        if all(math.isfinite(value) and value <= SPREAD for value in away):
            kept.append(entity)
        else:
            kind, layer = entity.dxftype(), entity.dxf.layer
            found.skipped.append(f"a {kind} on layer {layer} that lies nowhere, or more than 1 km from the rest")
    return kept, (factor, origin)


def _places(entity: Any, factor: float) -> list[Point]:
    """The points of what can be read of a plan (mm)."""
    kind = entity.dxftype()
    if kind == "LINE":
        raw = [entity.dxf.start, entity.dxf.end]
    elif kind in ("LWPOLYLINE", "POLYLINE"):
        raw = list(_vertices(entity))
    else:
        raw = [entity.dxf.insert] if kind == "INSERT" else []
    return [(float(point[0]) * factor, float(point[1]) * factor) for point in raw]


def _sorted_out(entities: list[Any], placing: Placing, found: FoundPlan) -> dict[str, list[Segment]]:
    """Wall lines by layer; outlines and units go into what is found, all else is counted as skipped."""
    lines: dict[str, list[Segment]] = defaultdict(list)
    left: Counter[str] = Counter()
    for entity in entities:
        kind, layer = entity.dxftype(), entity.dxf.layer
        if kind == "LINE":
            lines[layer].append((_point(entity.dxf.start, placing), _point(entity.dxf.end, placing)))
        elif kind in ("LWPOLYLINE", "POLYLINE") and not entity.has_arc:
            corners = [_point(point, placing) for point in _vertices(entity)]
            closed = bool(entity.closed if kind == "LWPOLYLINE" else entity.is_closed)
            if len(corners) > 3 and math.dist(corners[0], corners[-1]) < SAME:
                corners, closed = corners[:-1], True
            if closed and len(corners) > 2:
                _outline(corners, layer, found)
            else:
                lines[layer] += list(pairwise(corners))
        elif kind == "INSERT" and (unit := _unit(entity, placing)):
            found.units.append(unit)
        else:
            left[f"{kind} on layer {layer}"] += 1
    found.skipped += [f"{count} x {name}" for name, count in sorted(left.items())]
    return {layer: [(a, b) for a, b in held if math.dist(a, b) > SAME] for layer, held in lines.items()}


def _vertices(entity: Any) -> Iterator[Any]:
    if entity.dxftype() == "LWPOLYLINE":
        yield from entity.get_points("xy")
    else:
        yield from (vertex.dxf.location for vertex in entity.vertices)


def _point(value: Any, placing: Placing) -> Point:
    factor, (x, y) = placing
    return float(value[0]) * factor - x, float(value[1]) * factor - y


def _outline(corners: list[Point], layer: str, found: FoundPlan) -> None:
    polygon = Polygon(corners)
    if not polygon.is_valid:
        found.skipped.append(f"an outline on layer {layer} that crosses itself")
    elif polygon.area < SMALLEST_OUTLINE:
        found.skipped.append(f"a small closed outline on layer {layer}")
    else:
        found.outlines.append(FoundOutline(tuple(corners if polygon.exterior.is_ccw else corners[::-1]), layer))


def _keep_outer(found: FoundPlan) -> None:
    """Outlines within another one are rooms or furniture: they are listed, and the outer one is kept."""
    polygons = [Polygon(outline.corners) for outline in found.outlines]
    inner = {
        k
        for k, polygon in enumerate(polygons)
        if any(other is not polygon and other.buffer(1.0).contains(polygon) for other in polygons)
    }
    found.skipped += ["a closed outline within another one"] * len(inner)
    found.outlines = [outline for k, outline in enumerate(found.outlines) if k not in inner]


def _unit(entity: Any, placing: Placing) -> FoundUnit | None:
    """A block that calls itself a window or a door, when its width is clear."""
    name = f"{entity.dxf.name} {entity.dxf.layer}".lower()
    kind = "window" if "win" in name or "glaz" in name else "door" if "door" in name else None
    if kind is None:
        return None
    box = ezdxf.bbox.extents([entity])
    if not box.has_data:
        return None
    width = max(box.size.x, box.size.y) * placing[0]
    if not UNIT_WIDTH[0] <= width <= UNIT_WIDTH[1]:
        return None
    return FoundUnit(kind, _point(box.center, placing), width, entity.dxf.layer)


def _loops(lines: list[Segment], layer: str, found: FoundPlan) -> list[Segment]:
    """Lines that follow each other end to end into a closed loop are an outline; the rest are returned."""
    spots: list[Point] = []

    def spot(point: Point) -> int:
        for index, known in enumerate(spots):
            if math.dist(point, known) < SAME:
                return index
        spots.append(point)
        return len(spots) - 1

    ends = [(spot(a), spot(b)) for a, b in lines]
    at: dict[int, list[int]] = defaultdict(list)
    for index, pair in enumerate(ends):
        for end in set(pair):
            at[end].append(index)
    used: set[int] = set()
    for first in range(len(lines)):
        chain, (start, here) = [first], ends[first]
        while here != start and len(at[here]) == 2 and len(chain) <= len(lines):
            following = next(index for index in at[here] if index != chain[-1])
            chain.append(following)
            here = next(end for end in ends[following] if end != here) if len(set(ends[following])) == 2 else start
        if here == start and len(at[start]) == 2 and len(chain) > 2 and not used & set(chain):
            corners = [lines[first][0]]
            for index in chain[:-1]:
                corners.append(next(p for p in lines[index] if math.dist(p, corners[-1]) >= SAME))
            used |= set(chain)
            _outline(corners, layer, found)
    return [line for index, line in enumerate(lines) if index not in used]


def _joined(lines: list[Segment], layer: str) -> list[FoundWall]:
    """Lines of one direction that follow each other, with doorways where there are gaps between them."""
    left = sorted({tuple(sorted(line)) for line in lines})
    walls = []
    while left:
        start, end = left.pop(0)
        pieces = [(start, end)]
        for other in list(left):
            if _in_line(start, end, other):
                pieces.append((other[0], other[1]))
        chain = _chain(start, end, pieces)
        used = {tuple(sorted(piece)) for piece, _ in chain}
        left = [line for line in left if line not in used]
        line = line_through(start, end)
        along = [(line.along(p), line.along(q)) for (p, q), _ in chain]
        first, last = min(min(pair) for pair in along), max(max(pair) for pair in along)
        spans = sorted((min(pair), max(pair)) for pair in along)
        gaps = [(a[1] - first, b[0] - first) for a, b in pairwise(spans) if b[0] - a[1] > GAP[0]]
        walls.append(FoundWall(line.at(first), line.at(last), tuple(gaps), layer))
    return walls


def _chain(start: Point, end: Point, pieces: list[tuple[Point, Point]]) -> list[tuple[tuple[Point, Point], float]]:
    """The pieces that hang together with the first one, over gaps no wider than a doorway."""
    line = line_through(start, end)
    placed = sorted(((piece, min(line.along(p) for p in piece)) for piece in pieces), key=lambda held: held[1])
    own = next(k for k, (piece, _) in enumerate(placed) if piece == (start, end))

    def clear(before: tuple[Point, Point], after: tuple[Point, Point]) -> bool:
        gap = min(line.along(p) for p in after) - max(line.along(p) for p in before)
        return gap < SAME or GAP[0] <= gap <= GAP[1]

    low = high = own
    while low > 0 and clear(placed[low - 1][0], placed[low][0]):
        low -= 1
    while high + 1 < len(placed) and clear(placed[high][0], placed[high + 1][0]):
        high += 1
    return placed[low : high + 1]


def _in_line(start: Point, end: Point, other: Any) -> bool:
    line = line_through(start, end)
    return all(abs(line.left_of(point)) < SAME for point in other)
