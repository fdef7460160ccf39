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
from .skeleton import CLOSE, Arc, Point3, skeleton

LineKind = Literal["ridge", "hip", "valley", "rake", "eave"]
STEEPEST, FLATTEST = 60.0, 0.001
"""Pitches (rise over run) that a roof can have."""
LEVEL = 1e-6
"""A line rises less than this share of its length when it is level."""


@dataclass(frozen=True, slots=True)
class Plane:
    """A slope: the edges that it starts from, its corners (x, y, z) counter-clockwise, and its areas."""

    edges: tuple[int, ...]
    pitch: float
    vertices: tuple[Point3, ...]
    plan_area: float

    @property
    def true_area(self) -> float:
        """Plan area times the slope factor sqrt(1 + pitch^2)."""
        return self.plan_area * math.sqrt(1 + self.pitch**2)


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
    _check(outline, pitches, overhang)
    speeds = [0.0 if pitch is None else 1 / pitch for pitch in pitches]
    edges = [line_through(a, b) for a, b in zip(outline, (*outline[1:], outline[0]))]
    # The front starts from the lowest eave; planes that are cut off before it are clipped by the overhang.
    low = -overhang * max((pitch for pitch in pitches if pitch), default=0.0)
    start = _moved(edges, [overhang if speed == 0 else -speed * low for speed in speeds]) if overhang else list(outline)
    cover = Polygon(_moved(edges, [overhang] * len(edges)) if overhang else outline)
    if not Polygon(start).is_valid or not cover.is_valid:
        raise GeometryError("the overhang is wider than a part of the outline: make it less")
    arcs = skeleton([start], speeds)
    base = eave_height + low
    faces = dict(_faces(start, arcs, speeds))
    groups = _merged(arcs, speeds)
    planes, held = [], Polygon(outline)
    nodes = np.array([*(point[:2] for arc in arcs for point in (arc.start, arc.end)), *cover.exterior.coords])
    near = _grid(outline) * 1e4
    volume = 0.0
    for group in groups:
        whole = shapely.union_all([faces[k] for k in group if k in faces], grid_size=_grid(outline))
        pitch, line = 1 / speeds[group[0]], edges[group[0]]
        for piece in polygons_of(whole.intersection(cover), min_area=0.0):
            ring = [(x, y) for x, y in shapely.orient_polygons(piece).exterior.coords[:-1]]
            corners = [(x, y, eave_height + line.left_of((x, y)) * pitch) for x, y in _simple(ring, nodes, near)]
            planes.append(Plane(tuple(group), pitch, tuple(corners), float(piece.area)))
            inside = piece.intersection(held)
            if not inside.is_empty:
                volume += inside.area * line.left_of((inside.centroid.x, inside.centroid.y)) * pitch
    lines = [*_eaves(edges, pitches, cover, eave_height, overhang, outline), *_lines(arcs, speeds, cover, base)]
    top = max((z for plane in planes for _, _, z in plane.vertices), default=eave_height)
    return RoofShape(tuple(planes), tuple(lines), top, volume)


def _check(outline: Sequence[Point], pitches: Sequence[float | None], overhang: float) -> None:
    if len(outline) < 3:
        raise GeometryError("an outline has at least three corners")
    if len(pitches) != len(outline):
        raise GeometryError(f"{len(outline)} corners need {len(outline)} edges, not {len(pitches)}")
    for k, pitch in enumerate(pitches):
        if pitch is not None and not FLATTEST <= pitch <= STEEPEST:
            raise GeometryError(f"edge {k}: a pitch lies between {FLATTEST} and {STEEPEST} (rise over run)")
    if not any(pitches):
        raise GeometryError("at least one edge needs a pitch: gables alone hold no roof")
    if overhang < 0:
        raise GeometryError("an overhang is not less than nothing")
    size = max(math.dist(outline[0], point) for point in outline)
    for k, (a, b) in enumerate(zip(outline, (*outline[1:], outline[0]))):
        if math.dist(a, b) <= size * CLOSE * 10:
            raise GeometryError(f"edge {k} has no length: two corners lie on one point")
    polygon = Polygon(outline)
    if not polygon.is_valid:
        raise GeometryError("the outline crosses or touches itself")
    if not polygon.exterior.is_ccw:
        raise GeometryError("the corners of the outline run clockwise: list them the other way round")


def _grid(outline: Sequence[Point]) -> float:
    """Faces are noded on so fine a grid: far below what is built, far above what numbers lose."""
    return float(max(math.dist(outline[0], point) for point in outline)) * 1e-9


def _moved(edges: Sequence[Line], outward: Sequence[float]) -> list[Point]:
    """The outline with each edge moved outward by its own distance."""
    moved = [offset_line(edge, -distance) for edge, distance in zip(edges, outward)]
    corners = []
    for k, line in enumerate(moved):
        before = moved[k - 1]
        point = meet(before, line)
        if point is None or abs(before.dx * line.dy - before.dy * line.dx) < CLOSE:
            point = (line.x, line.y)
        corners.append(point)
    return corners


def _faces(start: Sequence[Point], arcs: Sequence[Arc], speeds: Sequence[float]) -> Iterator[tuple[int, Polygon]]:
    """Per sloping edge, its face in plan: what its arcs and itself enclose."""
    around: dict[int, list[LineString]] = defaultdict(list)
    for arc in arcs:
        for edge in (arc.left, arc.right):
            around[edge].append(LineString([arc.start[:2], arc.end[:2]]))
    for k, (a, b) in enumerate(zip(start, (*start[1:], start[0]))):
        if speeds[k] == 0:
            continue
        grid = _grid(start)
        lines = shapely.union_all([*around[k], LineString([a, b])], grid_size=grid)
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
    edges: Sequence[Line],
    pitches: Sequence[float | None],
    cover: Polygon,
    eave_height: float,
    overhang: float,
    outline: Sequence[Point],
) -> Iterator[RoofLine]:
    corners = list(_moved(edges, [overhang] * len(edges))) if overhang else list(outline)
    for k, pitch in enumerate(pitches):
        if pitch is not None:
            z = eave_height - overhang * pitch
            (x0, y0), (x1, y1) = corners[k], corners[(k + 1) % len(corners)]
            yield RoofLine("eave", (k,), (x0, y0, z), (x1, y1, z))


def _lines(arcs: Sequence[Arc], speeds: Sequence[float], cover: Polygon, base: float) -> Iterator[RoofLine]:
    """Ridges, hips, valleys and rakes, as far as the roof reaches."""
    reach = cover.buffer(cover.length * CLOSE)
    for arc in arcs:
        if arc.kind == "seam" or not (speeds[arc.left] or speeds[arc.right]):
            continue
        piece = LineString([arc.start, arc.end]).intersection(reach)
        if piece.is_empty or piece.geom_type != "LineString":
            continue
        ends = [(x, y, base + z) for x, y, z in (piece.coords[0], piece.coords[-1])]
        start, end = sorted(ends, key=lambda point: point[2])
        level = end[2] - start[2] <= LEVEL * math.dist(start, end)
        kind: LineKind = "ridge" if level else arc.kind
        planes = tuple(sorted(k for k in (arc.left, arc.right) if speeds[k]))
        yield RoofLine(kind, planes, start, end)
