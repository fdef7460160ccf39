"""Arcs against closed forms: chord and rise, three points, faces, crossings."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from deepsection.core.geometry import Axis, Circle, Line, bulge_of, crossing, through
from deepsection.core.tolerance import TOL

point = st.tuples(st.floats(-9000, 9000), st.floats(-9000, 9000))


@given(chord=st.floats(500, 20_000), share=st.floats(0.02, 1.2))
def test_chord_and_rise_give_the_radius_of_the_handbook(chord: float, share: float) -> None:
    """r = c^2 / (8 h) + h / 2, circular segment; length 2 r asin(c / 2 r) up to a half circle. Any handbook of
    geometry, from memory."""
    rise = share * chord / 2
    axis = Axis((0.0, 0.0), (chord, 0.0), bulge_of(chord, rise=rise))
    radius = chord**2 / (8 * rise) + rise / 2
    assert axis.radius() == pytest.approx(radius, rel=1e-9) and axis.rise == pytest.approx(rise, rel=1e-9)
    lesser = 2 * radius * math.asin(min(chord / (2 * radius), 1.0))
    assert axis.length == pytest.approx(lesser if rise <= radius else math.tau * radius - lesser, rel=1e-6)


@given(start=point, middle=point, end=point)
def test_an_arc_through_three_points_passes_them(
    start: tuple[float, float], middle: tuple[float, float], end: tuple[float, float]
) -> None:
    assume(min(math.dist(start, middle), math.dist(middle, end), math.dist(start, end)) > 100)
    axis = through(start, middle, end)
    assume(axis is not None and axis.radius() < 1e6)
    assert axis is not None
    assert axis.left_of(middle) == pytest.approx(0.0, abs=1e-5 + axis.radius() * 1e-9)
    assert 0 < axis.along(middle) < axis.length


def test_three_points_on_a_line_are_no_arc() -> None:
    assert through((0, 0), (1000, 0), (3000, 0)) is None
    assert through((0, 0), (0, 0), (3000, 0)) is None


@given(bulge=st.floats(0.05, 1.5), sign=st.sampled_from((-1, 1)), share=st.floats(0, 1), left=st.floats(-400, 400))
def test_places_on_an_arc_are_found_again(bulge: float, sign: int, share: float, left: float) -> None:
    axis = Axis((100.0, 200.0), (5100.0, 1200.0), sign * bulge)
    assume(axis.radius() > 500)
    along = share * axis.length
    at = axis.at(along, left)
    assert axis.along(at) == pytest.approx(along, abs=1e-5) and axis.left_of(at) == pytest.approx(left, abs=1e-6)
    back = axis.reversed()
    assert back.at(axis.length - along, -left) == pytest.approx(at, abs=1e-6)


def test_chords_keep_the_stated_error_and_are_the_same_from_both_ends() -> None:
    """Sagitta of a chord: r (1 - cos(angle / 2)), closed form."""
    axis = Axis((0.0, 0.0), (4000.0, 0.0), 0.4)
    alongs = [0.0, *axis.stations(0.0, axis.length), axis.length]
    for face in (-900.0, 0.0, 400.0):
        angle = max(b - a for a, b in itertools.pairwise(alongs)) / axis.radius()
        assert axis.radius(face) * (1 - math.cos(angle / 2)) <= TOL.chord + 1e-9
    back = [axis.length - along for along in reversed(axis.reversed().stations(0.0, axis.length))]
    assert back == pytest.approx(alongs[1:-1])
    assert Axis((0.0, 0.0), (4000.0, 0.0)).stations(0.0, 4000.0) == [], "a straight line needs none"


def test_a_strip_has_the_area_of_a_ring_sector() -> None:
    """Area of a ring sector: angle (R^2 - r^2) / 2."""
    axis = Axis((3000.0, 0.0), (-3000.0, 0.0), 1.0)
    strip = axis.strip(0.0, axis.length, 150.0, -50.0)
    assert strip.area == pytest.approx(math.pi * (3050.0**2 - 2850.0**2) / 2, rel=1e-4)


def test_an_arc_parted_is_the_same_arc() -> None:
    axis = Axis((0.0, 0.0), (4000.0, 0.0), 0.5)
    first, rest = axis.part(0.0, 1500.0), axis.part(1500.0, axis.length)
    assert first.length + rest.length == pytest.approx(axis.length)
    assert first.radius() == pytest.approx(axis.radius()) and rest.radius() == pytest.approx(axis.radius())


def test_lines_and_circles_cross_where_closed_forms_say() -> None:
    assert crossing(Circle(0, 0, 5), Circle(6, 0, 5), (3, 9)) == pytest.approx((3, 4)), "3-4-5 triangle"
    assert crossing(Circle(0, 0, 5), Circle(6, 0, 5), (3, -9)) == pytest.approx((3, -4))
    assert crossing(Line(0, 3, 1, 0), Circle(0, 0, 5), (-9, 0)) == pytest.approx((-4, 3))
    assert crossing(Line(0, 6, 1, 0), Circle(0, 0, 5), (0, 0)) is None, "it passes the circle"
    assert crossing(Circle(0, 0, 5), Circle(11, 0, 5), (0, 0)) is None, "too far apart"
    assert crossing(Circle(0, 0, 5), Circle(0, 0, 5), (0, 0)) is None, "one circle"


def test_an_arc_needs_a_rise_or_a_radius_that_reaches() -> None:
    with pytest.raises(ValueError, match="half its chord"):
        bulge_of(2000.0, radius=900.0)
    with pytest.raises(ValueError, match="needs a rise"):
        bulge_of(2000.0)
