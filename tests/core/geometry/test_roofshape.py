"""Roofs by straight skeleton: closed forms, the check values, and an independent reference library (SFCGAL)."""

from __future__ import annotations

import itertools
import math
import random
import warnings
from collections.abc import Sequence
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import LineString, Polygon
from shapely.geometry import Point as ShapelyPoint

from deepsection.core.errors import GeometryError
from deepsection.core.geometry import RoofShape, roof_over

with warnings.catch_warnings():
    warnings.simplefilter("ignore")
    from pysfcgal import geometry as sfcgal

Outline = list[tuple[float, float]]
near = pytest.approx

RECTANGLE: Outline = [(0, 0), (12_000, 0), (12_000, 8000), (0, 8000)]
L: Outline = [(0, 0), (12_000, 0), (12_000, 6000), (6000, 6000), (6000, 14_000), (0, 14_000)]
T: Outline = [
    (0, 0), (16_000, 0), (16_000, 6000), (10_500, 6000), (10_500, 11_000), (5500, 11_000), (5500, 6000), (0, 6000)
]  # fmt: skip
CROSS: Outline = [
    (4, 0), (8, 0), (8, 4), (12, 4), (12, 8), (8, 8), (8, 12), (4, 12), (4, 8), (0, 8), (0, 4), (4, 4)
]  # fmt: skip
U: Outline = [(0, 0), (14, 0), (14, 12), (9, 12), (9, 5), (5, 5), (5, 12), (0, 12)]


def totals(roof: RoofShape) -> dict[str, float]:
    return {kind: roof.total(kind) for kind in ("ridge", "hip", "valley")}


# --- closed forms ---------------------------------------------------------------------------------


def test_a_hip_roof_over_a_rectangle() -> None:
    """Check value 1: ridge 2000 high and 4000 long, four hips of 6000, 107.331 m2, 74.667 m3."""
    roof = roof_over(RECTANGLE, [0.5] * 4)
    assert roof.ridge_height == near(2000) and totals(roof) == near({"ridge": 4000, "hip": 24_000, "valley": 0})
    assert sum(plane.true_area for plane in roof.planes) == near(107.331e6, rel=1e-5)
    assert roof.volume == near(74.667e9, rel=1e-5)


def test_a_hip_roof_over_an_l() -> None:
    """Check value 2: height 1500; ridges 14,000; hips 22,500; a valley of 4500, at 45 degrees from the corner."""
    roof = roof_over(L, [0.5] * 6)
    assert roof.ridge_height == near(1500) and totals(roof) == near({"ridge": 14_000, "hip": 22_500, "valley": 4500})
    valley = next(line for line in roof.lines if line.kind == "valley")
    assert valley.start == near((6000, 6000, 0)) and valley.end[0] - 6000 == near(valley.end[1] - 6000)


def test_a_t_merges_the_planes_of_one_line() -> None:
    """Check value 3: 8 edges, 7 planes; ridges 15,000; hips 25,500; valleys 7500; 78.625 m3."""
    roof = roof_over(T, [0.5] * 8)
    assert len(roof.planes) == 7 and (2, 6) in {plane.edges for plane in roof.planes}
    assert totals(roof) == near({"ridge": 15_000, "hip": 25_500, "valley": 7500})
    assert roof.volume == near(78.625e9)


def test_a_cross_of_equal_arms_by_symmetry() -> None:
    """Arms 4 wide, 12 over all: ridges 4 x 4 long and 1 high; 8 hips and 4 valleys, each of sqrt(2^2 + 2^2 + 1)."""
    roof = roof_over(CROSS, [0.5] * 12)
    assert totals(roof) == near({"ridge": 16, "hip": 8 * 3, "valley": 4 * 3})
    assert roof.ridge_height == near(1)


@given(st.floats(2, 40), st.floats(2, 40), st.floats(0.1, 2), st.floats(0.1, 2))
def test_a_gable_of_two_pitches_has_its_ridge_where_they_meet(a: float, b: float, p: float, q: float) -> None:
    """Run over run as pitch to pitch: the ridge lies b q / (p + q) from the first eave."""
    roof = roof_over([(0, 0), (a, 0), (a, b), (0, b)], [p, None, q, None])
    ridge = next(line for line in roof.lines if line.kind == "ridge")
    assert ridge.start[1] == near(b * q / (p + q)) and ridge.length == near(a)
    assert roof.ridge_height == near(b * p * q / (p + q))
    assert roof.volume == near(a * b * roof.ridge_height / 2)


@given(st.floats(0.2, 2), st.floats(0.2, 2))
def test_a_valley_between_two_pitches_turns_by_their_ratio(p: float, q: float) -> None:
    """From an inside corner: tan of its angle from one eave = ratio of the pitches (framing practice)."""
    roof = roof_over([(x * 1e-3, y * 1e-3) for x, y in L], [p, q, p, q, p, q])
    valley = next(line for line in roof.lines if line.kind == "valley")
    dx, dy = valley.end[0] - valley.start[0], valley.end[1] - valley.start[1]
    # Edge 2 runs along x with pitch p, edge 3 along y with pitch q: p dy = q dx.
    assert p * abs(dy) == near(q * abs(dx), rel=1e-6)


def test_a_single_pitch_and_an_overhang() -> None:
    roof = roof_over(RECTANGLE, [0.25, None, None, None])
    assert len(roof.planes) == 1 and roof.ridge_height == near(2000) and roof.volume == near(96e6 * 1000)
    wide = roof_over(RECTANGLE, [0.5] * 4, eave_height=3000, overhang=600)
    assert wide.ridge_height == near(5000), "all planes start from the wall: the overhang lowers its eave"
    assert {round(line.start[2], 6) for line in wide.lines if line.kind == "eave"} == {2700.0}
    assert sum(plane.plan_area for plane in wide.planes) == near(13_200 * 9200)


def test_hips_of_unequal_pitches_run_to_their_own_eaves() -> None:
    """With 6 and 12 in 12 and one overhang, eaves lie at two heights, and the hip leaves the corner of the fascia."""
    roof = roof_over(RECTANGLE, [0.5, 1.0, 0.5, 1.0], overhang=500)
    eaves = {line.planes[0]: line.start[2] for line in roof.lines if line.kind == "eave"}
    assert eaves == near({0: -250, 1: -500, 2: -250, 3: -500})
    assert sum(plane.plan_area for plane in roof.planes) == near(13_000 * 9000)


# --- against the reference library ----------------------------------------------------------------


def extruded(outline: Outline, pitches: Sequence[float | None]) -> Any:
    """The roof that SFCGAL extrudes. Its angles belong to the edge that ends at a vertex: they are shifted by one."""
    angles = [90.0 if pitch is None else math.degrees(math.atan(pitch)) for pitch in pitches]
    return sfcgal.Polygon(outline).extrude_straight_skeleton_with_angles(1e6, [[angles[-1], *angles[:-1]]])


def reference(outline: Outline, pitches: Sequence[float | None]) -> tuple[float, float, dict[int, float]]:
    """Height, volume, and the plan area per sloping edge of the roof that SFCGAL extrudes."""
    body = extruded(outline, pitches)
    areas = dict.fromkeys((k for k, pitch in enumerate(pitches) if pitch), 0.0)
    height = volume = 0.0
    for polygon in body.to_coordinates():
        ring = polygon[0]
        height = max(height, *(point[2] for point in ring))
        flat = Polygon([point[:2] for point in ring])
        low = [point for point in ring if point[2] < 1e-9]
        if len(low) == len(ring) or flat.area < Polygon(outline).area * 1e-10:
            continue
        volume += abs(flat.area) * _mean_height(ring)
        areas[_edge_of(low, outline)] += abs(flat.area)
    return height, volume, areas


def _mean_height(ring: Sequence[Sequence[float]]) -> float:
    """Height of a plane over the centroid of its polygon."""
    flat = Polygon([point[:2] for point in ring])
    corners = [point for k, point in enumerate(ring) if k in (0, 1)] + [max(ring, key=lambda point: point[2])]
    (ax, ay, az), (bx, by, bz), (cx, cy, cz) = corners
    if abs((bx - ax) * (cy - ay) - (cx - ax) * (by - ay)) < 1e-9:
        corners = [ring[1], ring[2], ring[0]]
        (ax, ay, az), (bx, by, bz), (cx, cy, cz) = corners
    nx = (by - ay) * (cz - az) - (bz - az) * (cy - ay)
    ny = (bz - az) * (cx - ax) - (bx - ax) * (cz - az)
    nz = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax)
    x, y = flat.centroid.coords[0]
    return az - (nx * (x - ax) + ny * (y - ay)) / nz


def _edge_of(low: Sequence[Sequence[float]], outline: Outline) -> int:
    """The edge of the outline on which the low corners of a face lie."""

    middle = ShapelyPoint(*(sum(point[k] for point in low) / len(low) for k in (0, 1)))

    def off(k: int) -> float:
        return float(LineString([outline[k], outline[(k + 1) % len(outline)]]).distance(middle))

    return min(range(len(outline)), key=off)


def star(seed: int, corners: int) -> Outline:
    """A random outline around a point: no edge crosses another."""
    made = random.Random(seed)
    angles = sorted(made.uniform(0, math.tau) for _ in range(corners))
    wide = [later - sooner for sooner, later in zip(angles, [*angles[1:], angles[0] + math.tau])]
    if min(wide) < 0.12 or max(wide) > 3.0:
        return star(seed + 1000, corners)
    return [(made.uniform(4, 12) * math.cos(a), made.uniform(4, 12) * math.sin(a)) for a in angles]


def simple(seed: int, corners: int) -> Outline:
    while True:
        outline = star(seed, corners)
        polygon = Polygon(outline)
        if polygon.is_valid and polygon.exterior.is_ccw:
            return outline
        seed += 7919


def mixed(seed: int, count: int) -> list[float | None]:
    made = random.Random(seed)
    return [round(made.uniform(0.25, 1.5), 3) for _ in range(count)]


CASES: list[tuple[str, Outline, list[float | None]]] = [
    ("rectangle", RECTANGLE, [0.5] * 4),
    ("rectangle, two pitches", RECTANGLE, [0.5, 1.0, 0.5, 1.0]),
    ("rectangle, four pitches", RECTANGLE, [0.3, 0.9, 0.6, 0.4]),
    ("gable", RECTANGLE, [0.5, None, 0.5, None]),
    ("saltbox", RECTANGLE, [0.4, None, 1.1, None]),
    ("one gable", RECTANGLE, [0.5, None, 0.5, 0.5]),
    ("l", L, [0.5] * 6),
    ("l, mixed", L, [0.5, 0.7, 0.5, 0.6, 0.8, 0.5]),
    ("t, mixed", T, [0.5, 0.6, 0.5, 0.7, 0.9, 0.7, 0.5, 0.6]),
    ("u", U, [0.5] * 8),
    ("u, mixed", U, [0.5, 0.6, 0.7, 0.5, 0.4, 0.6, 0.8, 0.5]),
    ("cross", CROSS, [0.5] * 12),
    *((f"random {n}, equal", simple(n, 4 + n % 9), [0.6] * (4 + n % 9)) for n in range(24)),
    *((f"random {n}, mixed", simple(n, 4 + n % 9), mixed(n, 4 + n % 9)) for n in range(24)),
]  # fmt: skip


def test_there_are_sixty_outlines() -> None:
    assert len(CASES) == 60


@pytest.mark.parametrize("name", [name for name, *_ in CASES])
def test_planes_heights_and_volume_agree_with_the_reference(name: str) -> None:
    _, outline, pitches = next(case for case in CASES if case[0] == name)
    roof = roof_over(outline, pitches)
    height, volume, areas = reference(outline, pitches)
    assert roof.ridge_height == near(height, rel=1e-6)
    assert roof.volume == near(volume, rel=1e-5)
    for plane in roof.planes:
        assert plane.plan_area == near(sum(areas[edge] for edge in plane.edges), rel=1e-5, abs=1e-6), plane.edges


@pytest.mark.parametrize("name", [name for name, *_ in CASES])
def test_planes_cover_the_outline_once_and_lie_in_their_slopes(name: str) -> None:
    """Sum of plan areas = outline; true area = plan area x slope factor; all corners of a plane lie in it."""
    _, outline, pitches = next(case for case in CASES if case[0] == name)
    roof = roof_over(outline, pitches)
    assert sum(plane.plan_area for plane in roof.planes) == near(Polygon(outline).area, rel=1e-7)
    size = max(math.dist(outline[0], point) for point in outline)
    for plane in roof.planes:
        (x0, y0), (x1, y1) = outline[plane.edges[0]], outline[(plane.edges[0] + 1) % len(outline)]
        length = math.dist((x0, y0), (x1, y1))
        for x, y, z in plane.vertices:
            inward = ((x1 - x0) * (y - y0) - (y1 - y0) * (x - x0)) / length
            assert z == near(inward * plane.pitch, abs=size * 1e-6)
        assert plane.true_area == near(plane.plan_area * math.hypot(1, plane.pitch))


def reference_lines(outline: Outline, pitches: Sequence[float | None]) -> dict[str, float]:
    """Lengths of ridges, hips and valleys: of what each two faces of the reference's body share, by how it is bent."""
    rings = [ring for ring in reference_faces(outline, pitches) if is_slope(ring)]
    size = max(math.dist(outline[0], point) for point in outline)
    found = {"ridge": 0.0, "hip": 0.0, "valley": 0.0}
    for number, first in enumerate(rings):
        for second in rings[number + 1 :]:
            for (a, b), (c, d) in itertools.product(sides_of(first), sides_of(second)):
                shared = overlap(a, b, c, d, size * 1e-7)
                if shared is None:
                    continue
                start, end = shared
                length = math.dist(start, end)
                if length < size * 1e-6:
                    continue
                bend = convexity(first, second, start, end)
                if abs(bend) < 1e-7:
                    continue
                level = abs(end[2] - start[2]) <= 1e-6 * length
                found["ridge" if level else "hip" if bend > 0 else "valley"] += length
    return found


def reference_faces(outline: Outline, pitches: Sequence[float | None]) -> list[list[tuple[float, float, float]]]:
    return [ring for (ring, *_) in extruded(outline, pitches).to_coordinates()]


def is_slope(ring: Sequence[Sequence[float]]) -> bool:
    """Whether a face is a slope: not the floor, not a gable."""
    flat = Polygon([point[:2] for point in ring])
    return max(point[2] for point in ring) > 1e-9 and abs(flat.area) > 1e-9


def sides_of(ring: Sequence[Any]) -> list[tuple[Any, Any]]:
    return list(zip(ring, (*ring[1:], ring[0])))


def overlap(a: Any, b: Any, c: Any, d: Any, eps: float) -> tuple[Any, Any] | None:
    """What two segments in space share."""
    length = math.dist(a, b)
    if length < eps:
        return None
    way = [(q - p) / length for p, q in zip(a, b)]

    def along(point: Any) -> float:
        return float(sum((p - q) * w for p, q, w in zip(point, a, way)))

    for point in (c, d):
        foot = [q + w * along(point) for q, w in zip(a, way)]
        if math.dist(foot, point) > eps * 100:
            return None
    low, high = sorted((along(c), along(d)))
    low, high = max(low, 0.0), min(high, length)
    if high - low < eps:
        return None
    ends = [tuple(q + w * at for q, w in zip(a, way)) for at in (low, high)]
    return ends[0], ends[1]


def convexity(first: Sequence[Any], second: Sequence[Any], start: Any, end: Any) -> float:
    """Positive where two faces bend down at a line: beside it, in the second, the plane of the first lies higher."""
    inside = Polygon([point[:2] for point in second])
    x, y = (start[0] + end[0]) / 2, (start[1] + end[1]) / 2
    dx, dy = (end[1] - start[1]) * 1e-3, -(end[0] - start[0]) * 1e-3
    if not inside.contains(ShapelyPoint(x + dx, y + dy)):
        dx, dy = -dx, -dy
    step = math.hypot(dx, dy) or 1.0
    return (plane_z(first, x + dx, y + dy) - plane_z(second, x + dx, y + dy)) / step


def plane_z(ring: Sequence[Any], x: float, y: float) -> float:
    """Height of the plane of a face (Newell's normal)."""
    nx = ny = nz = 0.0
    for (ax, ay, az), (bx, by, bz) in sides_of(ring):
        nx += (ay - by) * (az + bz)
        ny += (az - bz) * (ax + bx)
        nz += (ax - bx) * (ay + by)
    cx, cy, cz = (sum(point[k] for point in ring) / len(ring) for k in range(3))
    return float(cz - (nx * (x - cx) + ny * (y - cy)) / nz)


@pytest.mark.parametrize("name", [name for name, *_ in CASES])
def test_ridges_hips_and_valleys_agree_with_the_reference(name: str) -> None:
    _, outline, pitches = next(case for case in CASES if case[0] == name)
    mine = totals(roof_over(outline, pitches))
    theirs = reference_lines(outline, pitches)
    size = max(math.dist(outline[0], point) for point in outline)
    # A line between ridge and hip is told by its rise, which numbers may blur: their sum is exact in any case.
    assert mine["valley"] == near(theirs["valley"], rel=1e-5, abs=size * 1e-5)
    assert mine["ridge"] + mine["hip"] == near(theirs["ridge"] + theirs["hip"], rel=1e-5, abs=size * 1e-5)
    assert mine["ridge"] == near(theirs["ridge"], rel=1e-4, abs=size * 1e-4)


# --- what cannot be roofed ------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("outline", "pitches", "words"),
    [
        ([(0, 0), (4, 0)], [0.5, 0.5], "three corners"),
        (RECTANGLE, [0.5] * 3, "need 4 edges"),
        (RECTANGLE, [None] * 4, "at least one edge"),
        (RECTANGLE, [0.5, 0.5, 0.5, 99.0], "edge 3: a pitch"),
        (RECTANGLE[::-1], [0.5] * 4, "clockwise"),
        ([(0, 0), (4, 4), (4, 0), (0, 4)], [0.5] * 4, "crosses"),
        ([(0, 0), (0, 0), (4, 0), (0, 4)], [0.5] * 4, "no length"),
        ([(0, 0), (4, 0), (8, 0), (8, 5), (0, 5)], [0.5, 0.9, 0.5, 0.5, 0.5], "one pitch"),
    ],
)
def test_what_cannot_be_roofed_is_refused_with_its_reason(outline: Outline, pitches: list[float], words: str) -> None:
    with pytest.raises(GeometryError, match=words):
        roof_over(outline, pitches)
    with pytest.raises(GeometryError, match="not less than nothing"):
        roof_over(RECTANGLE, [0.5] * 4, overhang=-1)
