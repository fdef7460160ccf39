"""The ground: slopes by points and steps, as heights, profiles, elevations and sections."""

from __future__ import annotations

import itertools

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from deepsection.core.drawing import Drawing, Region, Stroke
from deepsection.core.edits import PutGroundStep, apply_edits, put
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import GroundSpot, GroundStep, Project, SectionLine
from deepsection.core.resolve import Ground, resolve
from deepsection.core.view import Setting, draw_section
from tests.builders import box_house, gable, side_view

near = pytest.approx


def spot(id: str, x: float, y: float, rise: float) -> GroundSpot:
    return GroundSpot(id=id, x=x, y=y, rise=rise)


def test_one_spot_is_a_level_and_two_are_a_slope_along_their_line() -> None:
    assert Ground(-300.0, (spot("a", 0, 0, 100),)).z(5000, -999) == -200
    slope = Ground(0.0, (spot("a", 0, 0, 0), spot("b", 8000, 0, 400)))
    assert [slope.z(x, 1234.0) for x in (-50, 0, 2000, 8000, 9000)] == near([0, 0, 100, 400, 400])


corner = st.floats(-500, 500, allow_nan=False)


@given(corner, corner, corner, st.floats(0.05, 0.9), st.floats(0.05, 0.9))
def test_three_spots_are_a_plane_between_them(a: float, b: float, c: float, s: float, t: float) -> None:
    """Barycentric: the height of a mean of the corners is the same mean of their heights."""
    ground = Ground(0.0, (spot("a", 0, 0, a), spot("b", 9000, 1000, b), spot("c", 2000, 7000, c)))
    s, t = s * (1 - t), t
    x, y = 9000 * s + 2000 * t, 1000 * s + 7000 * t
    assert ground.z(x, y) == near(a * (1 - s - t) + b * s + c * t, abs=1e-6)


place = st.tuples(st.integers(-9, 9), st.integers(-9, 9), corner)


@given(st.lists(place, min_size=1, max_size=7, unique_by=lambda p: p[:2]), st.floats(0.01, 0.99))
def test_a_profile_is_exact_between_its_breaks(places: list[tuple[int, int, float]], share: float) -> None:
    spots = tuple(spot(f"s{k}", x * 1000, y * 1000, rise) for k, (x, y, rise) in enumerate(places))
    ground = Ground(0.0, spots, (GroundStep(id="st", x1=0, y1=-500, x2=100, y2=9000, rise=250),))
    start, end = (-12_345.0, -7000.0), (11_000.0, 8100.0)
    profile = ground.profile(start, end)
    length = profile[-1][0]
    at = share * length
    (a, low), (b, high) = next((p, q) for p, q in itertools.pairwise(profile) if p[0] <= at <= q[0] and q[0] > p[0])
    expected = low + (high - low) * (at - a) / (b - a)
    x, y = (start[k] + (end[k] - start[k]) * at / length for k in (0, 1))
    if min(at - a, b - at) > 1.0:
        assert ground.z(x, y) == near(expected, abs=1e-3)


def sloped(rise: float = -600.0) -> Project:
    """The box house on ground that falls (or rises) from west to east."""
    house = box_house(8000, 6000)
    house = gable(house, 0.5, overhang=400)
    return put(house, spot("a", 0, 0, 0), spot("b", 8000, 0, rise))


def ground_line(drawing: Drawing) -> list[tuple[float, float]]:
    marks = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "ground"]
    return [(round(u, 3), round(v, 3)) for mark in marks for u, v, _ in mark.path]


def seen(drawing: Drawing) -> shapely.Geometry:
    faces = [mark for mark in drawing.marks if isinstance(mark, Region) and mark.feature == "face"]
    return shapely.union_all([Polygon([(u, v) for u, v, _ in face.rings[0]]) for face in faces], grid_size=1e-3)


def test_an_elevation_stands_on_the_slope() -> None:
    """What more (a triangle under the sloping line) is seen of the foundation wall than on flat ground."""
    flat, slope = sloped(0.0), sloped()
    grade = next(level.z for level in resolve(flat).levels.values() if level.surface == "grade")
    south = side_view(resolve(slope), "south")
    line = ground_line(south)
    assert (0.0, grade) in line and (8000.0, grade - 600) in line
    assert line[-1] == (line[-1][0], grade - 600), "level beyond the outermost spots"
    more = seen(south).area - seen(side_view(resolve(flat), "south")).area
    deep = resolve(flat).plan.by_id["south"].outer
    assert 0 < more < (8000 + 2 * deep) * 600 / 2 + 1
    west = ground_line(side_view(resolve(slope), "west"))
    assert {v for _, v in west} == {grade}, "the west wall stands on the upper end"
    assert south.bounds[1] < side_view(resolve(flat), "south").bounds[1] + 1


def test_opposite_elevations_show_the_slope_mirrored() -> None:
    building = resolve(sloped())
    heights = [[v for _, v in ground_line(side_view(building, side))] for side in ("south", "north")]
    assert heights[0] == heights[1][::-1]


def test_a_section_cuts_the_slope_and_a_step() -> None:
    step = GroundStep(id="step", x1=-500, y1=0, x2=-500, y2=1000, rise=500)
    project = put(sloped(), step, SectionLine(id="s", name="A", x1=-4000, y1=3000, x2=12_000, y2=3000))
    building = resolve(project)
    drawing = draw_section(building, project.find("s"), Setting(50, "mm"))
    grade = next(level.z for level in building.levels.values() if level.surface == "grade")
    line = ground_line(drawing)
    assert {(-500.0, grade + 500), (-500.0, grade)} <= set(line), "a step is upright"
    assert {v for u, v in line if u > 8100} == {grade - 600}
    # Steps count on the left of their line: from south to north that is the west.
    assert building.ground.z(-2000, 0) == near(grade + 500) and building.ground.z(-100, 0) == near(grade)


def test_ground_over_the_floor_or_under_the_footing_is_pointed_out() -> None:
    codes = {found.code for found in resolve(sloped(2000.0)).diagnostics}
    assert "ground-high" in codes
    assert "footing-bare" in {found.code for found in resolve(sloped(-3000.0)).diagnostics}
    assert resolve(sloped(-200.0)).diagnostics == ()


def test_the_height_of_a_spot_is_a_sum_and_a_step_needs_two_points() -> None:
    building = resolve(sloped())
    height = building.sums["ground:b"]
    assert height.terms[-1].label == "above grade" and height.terms[-1].value == -600
    with pytest.raises(RefusedEdit, match="two points"):
        data = {"id": "x", "x1": 0, "y1": 0, "x2": 0, "y2": 0, "rise": 1}
        apply_edits(sloped(), (PutGroundStep.model_construct(step=GroundStep.model_construct(**data)),))
