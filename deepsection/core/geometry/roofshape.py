"""A roof over an outline: planes from its eaves, the lines they meet in, areas, heights and volume."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

import shapely
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry

from ..errors import GeometryError
from .exact import grid_for
from .plane import Line, Point, meet, offset_line, polygons_of
from .skeleton import Arc, Break, Point3, skeleton

LineKind = Literal["ridge", "hip", "valley", "rake", "eave", "break"]
STEEPEST, FLATTEST = 60.0, 0.001
"""Pitches (rise over run) that a roof can have."""
STRAIGHT = 1e-9
"""Sine of the angle below which a corner turns nothing."""


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

    Corners are taken on a grid (see `exact`). What comes back covers the outline with its overhangs exactly once.
    Source: the straight skeleton (see `skeleton`). Raises: GeometryError, which says why.
    """
    _check_slopes(rings, slopes)
    grid = grid_for([point for ring in rings for point in ring])
    rings = [[grid.rounded(point) for point in ring] for ring in rings]
    held = _checked(rings)
    # The front starts from the lowest eave; planes that are cut off before it are clipped by the overhang.
    low = min(slope.low for slope in slopes if slope.pitch)
    past = [(slope.raised - low) / slope.pitch if slope.pitch else slope.overhang for slope in slopes]
    covered = moved_out(rings, [slope.overhang for slope in slopes])
    cover = Polygon(covered[0], covered[1:])
    breaks, numbers = _breaks(slopes, low)
    speeds = [1 / slope.pitch if slope.pitch else 0.0 for slope in slopes]
    found = skeleton(rings, speeds, breaks, outward=past, grid=grid)
    start = Polygon(found.start[0], found.start[1:])
    if not start.is_valid or not cover.is_valid:
        raise GeometryError("the overhang is wider than a part of the outline: make it less")
    speeds += [held.speed for held in breaks]
    base = eave_height + low
    bases = [(edge, eave_height + slope.raised) for edge, slope in zip(found.lines, slopes)]
    bases += [_turned(bases[k], slopes[k]) for k in numbers]
    owner = [*range(len(slopes)), *numbers]
    whole, past_wall = all(far == slope.overhang for far, slope in zip(past, slopes)), any(past)
    # Sides of a face lie on sides of the outline but for the last digits: overlays need a grid to agree on that.
    node = grid.step * NODE
    planes: list[Plane] = []
    volume = below = 0.0
    for face in found.faces:
        leading = face.edges[0]
        pitch, (line, height) = 1 / speeds[leading], bases[leading]
        own = tuple(sorted({owner[k] for k in face.edges}))
        for piece in _pieces(face.rings, None if whole else cover, node):
            ring = [(x, y) for x, y in shapely.orient_polygons(piece).exterior.coords[:-1]]
            corners = [(x, y, height + line.left_of((x, y)) * pitch) for x, y in _turning(ring)]
            plane = Plane(own, pitch, tuple(corners), float(piece.area), leading >= len(slopes), (line, height))
            planes.append(plane)
            inside = shapely.intersection(piece, held, grid_size=node) if past_wall else piece
            if not inside.is_empty:
                below += inside.area
                volume += inside.area * (plane.z(inside.centroid.x, inside.centroid.y) - eave_height)
    _prove(planes, start if whole else cover)
    roofed = shapely.intersection(cover, held, grid_size=node).area if past_wall else held.area
    if abs(below - roofed) > SHARE * roofed:
        raise GeometryError("its planes do not cover the outline once")
    lines = [*_eaves(rings, covered, slopes, eave_height), *_lines(found.arcs, speeds, cover, base, owner)]
    top = max((z for plane in planes for _, _, z in plane.vertices), default=eave_height)
    return RoofShape(tuple(planes), tuple(lines), top, volume)


def _pieces(rings: Sequence[Sequence[Point]], cover: Polygon | None, node: float) -> list[Polygon]:
    """A face as polygons, as far as the roof reaches. Rings that numbers pinch are parted there."""
    found: list[Polygon] = []
    for ring in rings:
        if len(ring) < 3:
            continue
        polygon: BaseGeometry = Polygon(ring)
        if not polygon.is_valid:
            polygon = shapely.make_valid(polygon)
        found += polygons_of(
            polygon if cover is None else shapely.intersection(polygon, cover, grid_size=node), min_area=0.0
        )
    return found


NODE = 64
"""So many steps of the grid of an outline are a step of the overlays with it: 1e-4 mm at the most."""
LEVEL = 0.2
"""A slope ends at its top where that rises by less than this share of its pitch: up to 11 degrees off its fall."""
SHARE = 1e-6
"""Planes cover what they should when their areas add up to it within this share."""


def _prove(planes: Sequence[Plane], cover: Polygon) -> None:
    """Nothing, when planes cover an outline exactly once. Raises: GeometryError with the place that is left open."""
    total = sum(plane.plan_area for plane in planes)
    if abs(total - cover.area) <= SHARE * cover.area:
        return
    left = cover.difference(shapely.union_all([Polygon([v[:2] for v in plane.vertices]).buffer(0) for plane in planes]))
    spot = left.representative_point() if not left.is_empty else cover.representative_point()
    raise GeometryError(f"its planes do not cover the outline near ({spot.x:.0f}, {spot.y:.0f})")


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


def _check_slopes(rings: Sequence[Sequence[Point]], slopes: Sequence[Slope]) -> None:
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


def _checked(rings: Sequence[Sequence[Point]]) -> Polygon:
    """What rings hold. Raises: GeometryError for what is no outline."""
    sides = [(a, b) for ring in rings for a, b in zip(ring, (*ring[1:], ring[0]))]
    for k, (a, b) in enumerate(sides):
        if a == b:
            raise GeometryError(f"edge {k} has no length: two corners lie on one point")
    polygon = Polygon(rings[0], rings[1:])
    if not polygon.is_valid:
        raise GeometryError("the outline crosses or touches itself")
    if not polygon.exterior.is_ccw:
        raise GeometryError("the corners of the outline run clockwise: list them the other way round")
    if any(ring.is_ccw for ring in polygon.interiors):
        raise GeometryError("the corners of a court run clockwise")
    return polygon


def _line(start: Point, end: Point) -> Line:
    """The line from one corner to another, however close they are. Raises: GeometryError when they are one."""
    length = math.dist(start, end)
    if not length:
        raise GeometryError("an edge of the outline has no length: two corners lie on one point")
    return Line(start[0], start[1], (end[0] - start[0]) / length, (end[1] - start[1]) / length)


def moved_out(rings: Sequence[Sequence[Point]], outward: Sequence[float]) -> list[list[Point]]:
    """Rings with each edge moved outward by its own distance, numbered through all rings; inward where negative.

    Raises: GeometryError for an edge without length.
    """
    found: list[list[Point]] = []
    at = 0
    for ring in rings:
        edges = [_line(a, b) for a, b in zip(ring, (*ring[1:], ring[0]))]
        moved = [offset_line(edge, -by) for edge, by in zip(edges, outward[at : at + len(ring)])]
        corners = []
        for k, line in enumerate(moved):
            before = moved[k - 1]
            point = meet(before, line)
            if point is None:
                point = (line.x, line.y)
            corners.append(point)
        found.append(corners)
        at += len(ring)
    return found


def _turning(ring: list[Point]) -> list[Point]:
    """A ring without the corners that turn nothing: where lines of its neighbours end on it."""
    kept = []
    for k, (x, y) in enumerate(ring):
        (x0, y0), (x1, y1) = ring[k - 1], ring[(k + 1) % len(ring)]
        turn = (x - x0) * (y1 - y) - (y - y0) * (x1 - x)
        if abs(turn) > STRAIGHT * math.dist((x0, y0), (x, y)) * math.dist((x, y), (x1, y1)):
            kept.append((x, y))
    return kept if len(kept) > 2 else ring


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
    reach = cover.buffer(cover.length * SHARE)
    for arc in arcs:
        if not (speeds[arc.left] or speeds[arc.right]):
            continue
        piece = LineString([arc.start, arc.end]).intersection(reach)
        if piece.is_empty or piece.geom_type != "LineString":
            continue
        ends = [(x, y, base + z) for x, y, z in (piece.coords[0], piece.coords[-1])]
        start, end = sorted(ends, key=lambda point: point[2])
        planes = tuple(sorted({owner[k] for k in (arc.left, arc.right) if speeds[k]}))
        kind: LineKind = "eave" if arc.kind == "break" and not speeds[arc.left] else arc.kind
        steepest = math.dist(start[:2], end[:2]) / max(speeds[arc.left], speeds[arc.right])
        if kind == "rake" and end[2] - start[2] < LEVEL * steepest:
            # The top of a slope that ends at an upright side nearly across its fall.
            kind = "ridge"
        yield RoofLine(kind, planes, start, end)
