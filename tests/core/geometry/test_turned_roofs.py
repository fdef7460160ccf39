"""Roofs over outlines as people leave them: turned by any angle, rounded, drawn by eye, with tiny steps.

Reference: SFCGAL's straight skeleton extrusion (an independent library); closed forms where named.
"""

from __future__ import annotations

import math
import random
from collections.abc import Sequence

import pytest
import shapely
from shapely.geometry import Polygon, box

from bench.comb import comb
from deepsection.core.errors import GeometryError
from deepsection.core.geometry import RoofShape, Slope, Turn, roof_over, roof_shape
from tests.campaigns import share

from .test_roofshape import CASES, RECTANGLE, L, Outline, reference

near = pytest.approx
ANGLES = share(5, 40)
"""At so many angles every outline is turned."""
ROUNDED: tuple[int | None, ...] = (None, 6, 4, 3, 2, 1, 0)


def in_mm(outline: Outline) -> Outline:
    """Outlines of the table that are drawn in metres, in millimetres."""
    scale = 1000 if max(abs(value) for point in outline for value in point) < 100 else 1
    return [(x * scale, y * scale) for x, y in outline]


def turned(outline: Sequence[tuple[float, float]], angle: float, decimals: int | None, noise: float = 0.0) -> Outline:
    made = random.Random(repr((angle, noise)))
    c, s = math.cos(angle), math.sin(angle)
    found = []
    for x, y in outline:
        dx, dy = (made.uniform(-noise, noise) for _ in range(2)) if noise else (0.0, 0.0)
        found.append((x * c - y * s + dx, x * s + y * c + dy))
    return found if decimals is None else [(round(x, decimals), round(y, decimals)) for x, y in found]


def union_of_rectangles(seed: int) -> Outline:
    """A random house on a grid of half a metre: many edges on one line, many events at one height."""
    made = random.Random(seed)
    while True:
        pieces = []
        for _ in range(made.randint(2, 5)):
            x, y = made.randrange(0, 12_000, 500), made.randrange(0, 12_000, 500)
            pieces.append(box(x, y, x + made.randrange(3000, 9000, 500), y + made.randrange(3000, 9000, 500)))
        shape = shapely.union_all(pieces).simplify(0)
        if isinstance(shape, Polygon) and not shape.interiors:
            return [(x, y) for x, y in shapely.orient_polygons(shape).exterior.coords[:-1]]


def proven(roof: RoofShape, outline: Outline) -> None:
    """What must be true of any roof: its planes cover the outline once, and meet where its lines say."""
    area = Polygon(outline).area
    assert sum(plane.plan_area for plane in roof.planes) == near(area, rel=1e-6)
    pieces = [Polygon([vertex[:2] for vertex in plane.vertices]).buffer(0) for plane in roof.planes]
    assert shapely.union_all(pieces, grid_size=1e-3).area == near(area, rel=1e-6), "none lies on another"
    for line in roof.lines:
        beside = [plane for plane in roof.planes if set(plane.edges) & set(line.planes)]
        if line.kind in ("ridge", "hip", "valley"):
            assert len(beside) >= len(line.planes) == 2 or line.kind == "ridge", "an inner line has two planes"
        for x, y, z in (line.start, line.end):
            assert min(abs(plane.z(x, y) - z) for plane in beside) < 0.06, "heights go on across lines"


TABLE = [
    *((name, in_mm(outline), pitches) for name, outline, pitches in CASES),
    *((f"union {n}", union_of_rectangles(n), [0.5] * len(union_of_rectangles(n))) for n in range(share(30, 120))),
]


@pytest.mark.parametrize("name", [name for name, *_ in TABLE])
def test_a_turned_roof_loses_no_plane(name: str) -> None:
    """At random angles, rounded to 6 to 0 decimals: covered once, and the volume that the reference extrudes."""
    _, outline, pitches = next(case for case in TABLE if case[0] == name)
    made = random.Random(name)
    for k in range(ANGLES):
        decimals = ROUNDED[(k + len(name)) % len(ROUNDED)]
        own = turned(outline, made.uniform(0, math.tau), decimals)
        roof = roof_over(own, pitches)
        proven(roof, own)
        if k == 0:
            try:
                _, volume, _ = reference(own, pitches)
            except RuntimeError:
                continue  # The reference gives no body for some of them.
            assert roof.volume == near(volume, rel=1e-6), (name, decimals)


@pytest.mark.parametrize("name", [name for name, *_ in TABLE[::3]])
def test_a_roof_drawn_by_eye_is_what_its_corners_say(name: str) -> None:
    """Noise of 0.1 mm on each corner changes the volume by no more than a strip of 0.15 mm along the outline can."""
    _, outline, pitches = next(case for case in TABLE if case[0] == name)
    exact = roof_over(outline, pitches)
    own = turned(outline, random.Random(name).uniform(0, math.tau), None, noise=0.1)
    roof = roof_over(own, pitches)
    proven(roof, own)
    steep = max(pitch for pitch in pitches if pitch)
    most = Polygon(outline).length * 0.15 * (exact.ridge_height + 0.15 * steep) + Polygon(outline).area * 0.15 * steep
    assert abs(roof.volume - exact.volume) < most


@pytest.mark.parametrize("teeth", [8, 18, 39])
def test_combs_of_many_edges_are_roofed_at_any_angle(teeth: int) -> None:
    """43 to 198 edges; turned and rounded, the same planes and the same lengths as straight."""
    outline = comb(teeth)
    exact = roof_over(outline, [0.5] * len(outline))
    for k, decimals in enumerate((6, 3)):
        own = turned(outline, 0.3 + k, decimals)
        roof = roof_over(own, [0.5] * len(own))
        proven(roof, own)
        assert len(roof.planes) == len(exact.planes)
        for kind in ("ridge", "hip", "valley"):
            assert roof.total(kind) == near(exact.total(kind), rel=1e-6)


def test_an_l_turned_and_rounded_to_a_thousandth_is_the_same_l() -> None:
    """Check value 2, at forty angles: height 1500; ridges 14,000; hips 22,500; a valley of 4500."""
    for k in range(40):
        roof = roof_over(turned(L, 0.1 + k * 0.157, 3), [0.5] * 6)
        assert roof.ridge_height == near(1500, abs=0.01) and len(roof.planes) == 6
        assert roof.total("ridge") == near(14_000, abs=0.1)
        assert roof.total("hip") == near(22_500, abs=0.1) and roof.total("valley") == near(4500, abs=0.1)


# --- breaks and courts, turned -------------------------------------------------------------------


@pytest.mark.parametrize("decimals", [None, 6, 3, 0])
def test_gambrel_mansard_half_hip_and_court_turned(decimals: int | None) -> None:
    """Closed forms of test_roofkinds, in millimetres: prisms, prismatoids, tetrahedra, Pappus."""
    within = {"rel": 1e-6} if decimals != 0 else {"rel": 1e-3}
    house = [(0.0, 0.0), (12e3, 0.0), (12e3, 8e3), (0.0, 8e3)]
    side, none = Slope(2.0, turn=Turn(2000.0, 0.5)), Slope(None)
    half = Slope(None, turn=Turn(1000.0, 0.5))
    over_hip = Slope(0.5, turn=Turn(1000.0, None))
    mansard = 2 / 6 * (12 * 8 + 4 * 11 * 7 + 10 * 6) + 1.5 * 6 * (3 * 10 - 6) / 6
    expected = [
        ((side, none, side, none), (14 + 4.5) * 12, 4),
        ((side,) * 4, mansard, 8),
        ((Slope(0.5), half, Slope(0.5), none), 12 * 8 * 2 / 2 - 4 * 1 / 2 * 2 / 3, 3),
        ((Slope(0.5), over_hip, Slope(0.5), Slope(0.5)), 2 * 8 * (36 - 8) / 6 + 4 * 1 / 2 * 2 / 3, 4),
    ]
    for k, (slopes, volume, planes) in enumerate(expected):
        roof = roof_shape([turned(house, 0.4 + k, decimals)], slopes)
        assert roof.volume == near(volume * 1e9, **within) and len(roof.planes) == planes
    outer = [(0.0, 0.0), (20e3, 0.0), (20e3, 20e3), (0.0, 20e3)]
    court = [(6e3, 6e3), (6e3, 14e3), (14e3, 14e3), (14e3, 6e3)]
    rings = [turned(outer, 1.1, decimals), turned(court, 1.1, decimals)]
    roof = roof_shape(rings, [Slope(0.5, 400.0)] * 8)
    assert roof.volume == near(4.5 * 56 * 1e9, **within) and len(roof.planes) == 8


# --- nearly, but not quite ----------------------------------------------------------------------


def test_a_step_of_two_hundredths_is_no_plane_of_its_own() -> None:
    """Corners (mm): a long side with a step of 0.02 mm; its two halves are one slope."""
    outline = [(0.0, 0.0), (5000.0, 0.0), (5000.0, 0.02), (12_000.0, 0.02), (12_000.0, 8000.0), (0.0, 8000.0)]
    roof = roof_over(outline, [0.5] * 6)
    proven(roof, outline)
    assert roof.ridge_height == near(2000, abs=0.05)


@pytest.mark.parametrize("away", [1e-4, 1e-2, 0.1, 1.0, 30.0])
def test_a_corner_of_nearly_180_degrees(away: float) -> None:
    """A corner pushed out of a straight side by 0.0001 to 30 mm: from 0.05 mm over both on it is two slopes."""
    outline = [(0.0, 0.0), (6000.0, -away), (12_000.0, 0.0), (12_000.0, 8000.0), (0.0, 8000.0)]
    roof = roof_over(outline, [0.5] * 5)
    proven(roof, outline)
    assert len(roof.planes) == (4 if away < 0.02 else 5)
    # 179.9999 degrees: tan of the half angle that is left, over 6 m.
    bent = [(0.0, 0.0), (6000.0, -6000 * math.tan(math.radians(0.00005))), (12_000.0, 0.0), *outline[3:]]
    assert len(roof_over(bent, [0.5] * 5).planes) == 4


def test_nearly_equal_heights_end_in_planes() -> None:
    """Two wings whose ridges differ by less and less in height: covered once at each."""
    for less in (0.0, 1e-9, 1e-6, 1e-4, 1e-3, 0.02, 0.5):
        outline = [(0, 0), (12_000, 0), (12_000, 6000 - less), (6000, 6000 - less), (6000, 14_000), (0, 14_000)]
        roof = roof_over(outline, [0.5] * 6)
        proven(roof, [(float(x), float(y)) for x, y in outline])
        assert roof.ridge_height == near(1500, abs=1)


def test_a_regular_outline_of_many_sides_meets_in_one_point() -> None:
    """A pyramid over n sides: volume a third of area times height, whatever the number of events at the tip."""
    for sides in (3, 5, 12, 60):
        outline = [(5000 * math.cos(math.tau * k / sides), 5000 * math.sin(math.tau * k / sides)) for k in range(sides)]
        roof = roof_over(outline, [0.5] * sides)
        proven(roof, outline)
        height = 5000 * math.cos(math.pi / sides) * 0.5
        assert roof.ridge_height == near(height, abs=0.01) and len(roof.planes) == sides
        assert roof.volume == near(Polygon(outline).area * height / 3, rel=1e-6)


def test_edges_of_different_pitch_that_come_to_meet_on_one_line_are_named() -> None:
    step = [(0, 0), (6000, 0), (6000, 1000), (12_000, 1000), (12_000, 8000), (0, 8000)]
    with pytest.raises(GeometryError, match="edges 0 and 2 come to lie on one line"):
        roof_over(step, [0.5, 0.5, None, 0.5, 0.5, 0.5])
    straight = [(0, 0), (6000, 0), (12_000, 0), (12_000, 8000), (0, 8000)]
    with pytest.raises(GeometryError, match=r"edges 0 and 1 .* one pitch"):
        roof_over(straight, [0.5, 0.7, 0.5, 0.5, 0.5])


def test_a_turned_rectangle_has_a_level_ridge_and_no_stray_lines() -> None:
    for k in range(20):
        roof = roof_over(turned(RECTANGLE, 0.05 + k * 0.31, 3), [0.5] * 4)
        assert sorted(line.kind for line in roof.lines) == ["eave"] * 4 + ["hip"] * 4 + ["ridge"]
