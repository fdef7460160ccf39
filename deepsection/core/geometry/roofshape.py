"""A roof over an outline: planes from its eaves, the lines they meet in, areas, heights and volume."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import LineString, Polygon

from ..errors import GeometryError
from .plane import Line, Point, line_through, meet, offset_line, polygons_of
from .skeleton import CLOSE, Arc, Break, Point3, skeleton

LineKind = Literal["ridge", "hip", "valley", "rake", "eave", "break"]
STEEPEST, FLATTEST = 60.0, 0.001
"""Pitches (rise over run) that a roof can have."""
LEVEL = 1e-6
"""A line rises less than this share of its length when it is level."""


@dataclass(frozen=True, slots=True)
class Turn:
    """At a height above the eaves an edge goes on at another pitch; None: as a gable."""

    height: float
    pitch: float | None


@dataclass(frozen=True, slots=True)
class Slope:
    """What starts from an edge of an outline: its pitch (rise over run; None for a gable) and how far it goes past it.

    `raised`: how much higher than the others its eave lies. `turn`: a gambrel or mansard has a second pitch, a half hip
    a first pitch of None, a gable over a hip a second one of None.
    """

    pitch: float | None
    overhang: float = 0.0
    raised: float = 0.0
    turn: Turn | None = None

    @property
    def low(self) -> float:
        """Where it ends past the outline, above the eaves."""
        return self.raised - self.overhang * (self.pitch or 0.0)


@dataclass(frozen=True, slots=True)
class Plane:
    """A slope: the edges that it starts from, its corners (x, y, z) counter-clockwise, and its areas.

    `upper` when it starts from the turn of its edges; `base`: a line in it, level, and the height of that line.
    """

    edges: tuple[int, ...]
    pitch: float
    vertices: tuple[Point3, ...]
    plan_area: float
    upper: bool
    base: tuple[Line, float]

    @property
    def true_area(self) -> float:
        """Plan area times the slope factor sqrt(1 + pitch^2)."""
        return self.plan_area * math.sqrt(1 + self.pitch**2)

    def z(self, x: float, y: float) -> float:
        """Its height over a place."""
        line, height = self.base
        return height + self.pitch * line.left_of((x, y))


@dataclass(frozen=True, slots=True)
class RoofLine:
    """A line of a roof, from its lower end to its upper one; `planes` are edge numbers (one for eave and rake)."""

    kind: LineKind
    planes: tuple[int, ...]
    start: Point3
    end: Point3

    @property
    def length(self) -> float:
        """True length."""
        return math.dist(self.start, self.end)


@dataclass(frozen=True, slots=True)
class RoofShape:
    """Planes and lines of a roof; `ridge_height` is its highest point, `volume` what it holds over the eave height."""

    planes: tuple[Plane, ...]
    lines: tuple[RoofLine, ...]
    ridge_height: float
    volume: float

    def total(self, kind: str) -> float:
        """The true length of all lines of a kind."""
        return sum(line.length for line in self.lines if line.kind == kind)


def roof_over(
    outline: Sequence[Point], pitches: Sequence[float | None], *, eave_height: float = 0.0, overhang: float = 0.0
) -> RoofShape:
    """The roof over an outline (counter-clockwise), in its own unit of length.

    `pitches`: rise over run per edge, edge i from corner i to i + 1; None for a gable. All planes start from the
    outline at `eave_height`; with an overhang they go on down, past it. Raises: GeometryError, which says why.
    """
    if len(pitches) != len(outline) and len(outline) > 2:
        raise GeometryError(f"{len(outline)} corners need {len(outline)} edges, not {len(pitches)}")
    return roof_shape([outline], [Slope(pitch, overhang) for pitch in pitches], eave_height)


def roof_shape(rings: Sequence[Sequence[Point]], slopes: Sequence[Slope], eave_height: float = 0.0) -> RoofShape:
    """The roof over an outline (counter-clockwise) and its courts (clockwise); edges are numbered through all rings.

    Source: the straight skeleton (see `skeleton`). Raises: GeometryError, which says why.
    """
    _check(rings, slopes)
    edges = [line_through(a, b) for ring in rings for a, b in zip(ring, (*ring[1:], ring[0]))]
    # The front starts from the lowest eave; planes that are cut off before it are clipped by the overhang.
    low = min(slope.low for slope in slopes if slope.pitch)
    past = [(slope.raised - low) / slope.pitch if slope.pitch else slope.overhang for slope in slopes]
    start = moved_out(rings, past)
    covered = moved_out(rings, [slope.overhang for slope in slopes])
    cover, held = Polygon(covered[0], covered[1:]), Polygon(rings[0], rings[1:])
    if not Polygon(start[0], start[1:]).is_valid or not cover.is_valid:
        raise GeometryError("the overhang is wider than a part of the outline: make it less")
    breaks, numbers = _breaks(slopes, low)
    speeds = [1 / slope.pitch if slope.pitch else 0.0 for slope in slopes]
    arcs = skeleton(start, speeds, breaks)
    speeds += [held.speed for held in breaks]
    base = eave_height + low
    grid = _grid(rings[0])
    faces = dict(_faces(start, arcs, speeds, grid))
    bases = [(edge, eave_height + slope.raised) for edge, slope in zip(edges, slopes)]
    bases += [_turned(bases[k], slopes[k]) for k in numbers]
    planes = []
    nodes = np.array([*(point[:2] for arc in arcs for point in (arc.start, arc.end)), *np.concatenate(covered)])
    volume = 0.0
    for group in _merged(arcs, speeds):
        whole = shapely.union_all([faces[k] for k in group if k in faces], grid_size=grid)
        pitch, (line, height) = 1 / speeds[group[0]], bases[group[0]]
        own = tuple(sorted({numbers[k - len(edges)] if k >= len(edges) else k for k in group}))
        for piece in polygons_of(whole.intersection(cover), min_area=0.0):
            ring = [(x, y) for x, y in shapely.orient_polygons(piece).exterior.coords[:-1]]
            corners = [(x, y, height + line.left_of((x, y)) * pitch) for x, y in _simple(ring, nodes, grid * 1e4)]
            plane = Plane(own, pitch, tuple(corners), float(piece.area), group[0] >= len(edges), (line, height))
            planes.append(plane)
            inside = piece.intersection(held)
            if not inside.is_empty:
                volume += inside.area * (plane.z(inside.centroid.x, inside.centroid.y) - eave_height)
    lines = [
        *_eaves(rings, covered, slopes, eave_height),
        *_lines(arcs, speeds, cover, base, [*range(len(edges)), *numbers]),
    ]
    top = max((z for plane in planes for _, _, z in plane.vertices), default=eave_height)
    return RoofShape(tuple(planes), tuple(lines), top, volume)


def _breaks(slopes: Sequence[Slope], low: float) -> tuple[list[Break], list[int]]:
    """Where edges turn, above the start of the front, and the edges of those turns."""
    breaks = []
    for k, slope in enumerate(slopes):
        if slope.turn:
            # What starts over a gable passes over the outline at that height, so it starts lower past it.
            past = slope.overhang * (slope.turn.pitch or 0.0) if slope.pitch is None else 0.0
            at = slope.raised + slope.turn.height - past - low
            breaks.append(Break(k, max(at, 0.0), 1 / slope.turn.pitch if slope.turn.pitch else 0.0))
    breaks.sort(key=lambda held: (held.at, held.edge))
    return breaks, [held.edge for held in breaks]


def _turned(base: tuple[Line, float], slope: Slope) -> tuple[Line, float]:
    """A level line in the plane that an edge goes on in."""
    line, height = base
    assert slope.turn is not None
    inward = slope.turn.height / slope.pitch if slope.pitch else 0.0
    return offset_line(line, inward), height + slope.turn.height


def _check(rings: Sequence[Sequence[Point]], slopes: Sequence[Slope]) -> None:
    for outline in rings:
        if len(outline) < 3:
            raise GeometryError("an outline has at least three corners")
    count = sum(len(ring) for ring in rings)
    if len(slopes) != count:
        raise GeometryError(f"{count} corners need {count} edges, not {len(slopes)}")
    for k, slope in enumerate(slopes):
        for pitch in (slope.pitch, slope.turn.pitch if slope.turn else None):
            if pitch is not None and not FLATTEST <= pitch <= STEEPEST:
                raise GeometryError(f"edge {k}: a pitch lies between {FLATTEST} and {STEEPEST} (rise over run)")
        if slope.turn and (slope.turn.height <= 0 or slope.turn.pitch == slope.pitch):
            raise GeometryError(f"edge {k}: it turns above its eave, into another pitch")
        if slope.pitch is not None and slope.overhang < 0:
            raise GeometryError("an overhang is not less than nothing")
    if not any(slope.pitch for slope in slopes):
        raise GeometryError("at least one edge needs a pitch: gables alone hold no roof")
    size = max(math.dist(rings[0][0], point) for point in rings[0])
    sides = [(a, b) for ring in rings for a, b in zip(ring, (*ring[1:], ring[0]))]
    for k, (a, b) in enumerate(sides):
        if math.dist(a, b) <= size * CLOSE * 10:
            raise GeometryError(f"edge {k} has no length: two corners lie on one point")
    polygon = Polygon(rings[0], rings[1:])
    if not polygon.is_valid:
        raise GeometryError("the outline crosses or touches itself")
    if not polygon.exterior.is_ccw:
        raise GeometryError("the corners of the outline run clockwise: list them the other way round")
    if any(ring.is_ccw for ring in polygon.interiors):
        raise GeometryError("the corners of a court run clockwise")


def _grid(outline: Sequence[Point]) -> float:
    """Faces are noded on so fine a grid: far below what is built, far above what numbers lose."""
    return float(max(math.dist(outline[0], point) for point in outline)) * 1e-9


def moved_out(rings: Sequence[Sequence[Point]], outward: Sequence[float]) -> list[list[Point]]:
    """Rings with each edge moved outward by its own distance, numbered through all rings; inward where negative."""
    found: list[list[Point]] = []
    at = 0
    for ring in rings:
        edges = [line_through(a, b) for a, b in zip(ring, (*ring[1:], ring[0]))]
        moved = [offset_line(edge, -by) for edge, by in zip(edges, outward[at : at + len(ring)])]
        corners = []
        for k, line in enumerate(moved):
            before = moved[k - 1]
            point = meet(before, line)
            if point is None or abs(before.dx * line.dy - before.dy * line.dx) < CLOSE:
                point = (line.x, line.y)
            corners.append(point)
        found.append(corners)
        at += len(ring)
    return found


def _faces(
    start: Sequence[Sequence[Point]], arcs: Sequence[Arc], speeds: Sequence[float], grid: float
) -> Iterator[tuple[int, Polygon]]:
    """Per sloping edge, its face in plan: what its arcs and itself enclose."""
    around: dict[int, list[LineString]] = defaultdict(list)
    for arc in arcs:
        for edge in (arc.left, arc.right):
            around[edge].append(LineString([arc.start[:2], arc.end[:2]]))
    sides = [(a, b) for ring in start for a, b in zip(ring, (*ring[1:], ring[0]))]
    for k, (a, b) in enumerate(sides):
        around[k].append(LineString([a, b]))
    for k, held in sorted(around.items()):
        if speeds[k] == 0:
            continue
        lines = shapely.union_all(held, grid_size=grid)
        pieces = list(shapely.get_parts(shapely.polygonize(shapely.get_parts(lines))))
        if pieces:
            yield k, shapely.union_all(pieces, grid_size=grid)


def _merged(arcs: Sequence[Arc], speeds: Sequence[float]) -> list[list[int]]:
    """Sloping edges in groups that share a plane: those of one line and pitch."""
    group = {k: k for k, speed in enumerate(speeds) if speed}
    for arc in arcs:
        if arc.kind == "seam" and arc.left in group and arc.right in group:
            a, b = group[arc.left], group[arc.right]
            group = {k: min(a, b) if held in (a, b) else held for k, held in group.items()}
    found: dict[int, list[int]] = defaultdict(list)
    for k, held in group.items():
        found[held].append(k)
    return [sorted(held) for _, held in sorted(found.items())]


def _simple(ring: list[Point], nodes: NDArray[np.float64], eps: float) -> list[Point]:
    """A ring on the places that lines meet in, without those that turn nothing."""
    kept: list[Point] = []
    for point in ring:
        away = np.hypot(nodes[:, 0] - point[0], nodes[:, 1] - point[1])
        k = int(np.argmin(away))
        place = (float(nodes[k, 0]), float(nodes[k, 1])) if away[k] < eps else point
        if not kept or math.dist(place, kept[-1]) > eps:
            kept.append(place)
    if len(kept) > 1 and math.dist(kept[0], kept[-1]) <= eps:
        kept.pop()
    turning = []
    for k, point in enumerate(kept):
        before, after = kept[k - 1], kept[(k + 1) % len(kept)]
        turn = (point[0] - before[0]) * (after[1] - point[1]) - (point[1] - before[1]) * (after[0] - point[0])
        if abs(turn) > eps * math.dist(before, after):
            turning.append(point)
    return turning


def _eaves(
    rings: Sequence[Sequence[Point]], covered: Sequence[Sequence[Point]], slopes: Sequence[Slope], eave_height: float
) -> Iterator[RoofLine]:
    k = 0
    for ring in covered:
        for (x0, y0), (x1, y1) in zip(ring, (*ring[1:], ring[0])):
            if slopes[k].pitch is not None:
                z = eave_height + slopes[k].low
                yield RoofLine("eave", (k,), (x0, y0, z), (x1, y1, z))
            k += 1


def _lines(
    arcs: Sequence[Arc], speeds: Sequence[float], cover: Polygon, base: float, owner: Sequence[int]
) -> Iterator[RoofLine]:
    """Ridges, hips, valleys, rakes and breaks, as far as the roof reaches; `owner`: the edge of each number."""
    reach = cover.buffer(cover.length * CLOSE)
    for arc in arcs:
        if arc.kind == "seam" or not (speeds[arc.left] or speeds[arc.right]):
            continue
        piece = LineString([arc.start, arc.end]).intersection(reach)
        if piece.is_empty or piece.geom_type != "LineString":
            continue
        ends = [(x, y, base + z) for x, y, z in (piece.coords[0], piece.coords[-1])]
        start, end = sorted(ends, key=lambda point: point[2])
        planes = tuple(sorted({owner[k] for k in (arc.left, arc.right) if speeds[k]}))
        yield RoofLine(_kind(arc, speeds, start, end), planes, start, end)


def _kind(arc: Arc, speeds: Sequence[float], start: Point3, end: Point3) -> LineKind:
    if arc.kind == "break":
        return "break" if speeds[arc.left] else "eave"
    level = end[2] - start[2] <= LEVEL * math.dist(start, end)
    return "ridge" if level or arc.kind == "seam" else arc.kind
