"""Kinds of roof edges against closed forms: gambrel, mansard, half hip, gable over a hip, saltbox, single pitch, court.

Volumes by prisms, tetrahedra and the prismatoid rule (any solid-geometry handbook); the house is 12 by 8.
"""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from deepsection.core.errors import GeometryError
from deepsection.core.geometry import RoofShape, Slope, Turn, roof_shape

near = pytest.approx
HOUSE = [(0.0, 0.0), (12.0, 0.0), (12.0, 8.0), (0.0, 8.0)]


def over(*slopes: Slope) -> RoofShape:
    return roof_shape([HOUSE], slopes)


def test_a_gambrel_breaks_at_its_height() -> None:
    """Section: a trapezium (8 + 6) / 2 x 2 under a triangle 6 x 1.5 / 2; breaks along both eaves."""
    side = Slope(2.0, turn=Turn(2.0, 0.5))
    roof = over(side, Slope(None), side, Slope(None))
    assert roof.volume == near((14 + 4.5) * 12) and roof.ridge_height == near(3.5)
    assert [plane.upper for plane in roof.planes] == [False, False, True, True]
    assert roof.total("break") == near(24) and roof.total("ridge") == near(12)
    assert roof.total("rake") == near(4 * (math.hypot(1, 2) + math.hypot(3, 1.5)))


def test_a_mansard_is_a_prismatoid_under_a_hip_roof() -> None:
    roof = over(*[Slope(2.0, turn=Turn(2.0, 0.5))] * 4)
    lower = 2 / 6 * (12 * 8 + 4 * 11 * 7 + 10 * 6)
    upper = 1.5 * 6 * (3 * 10 - 6) / 6
    assert roof.volume == near(lower + upper)
    assert roof.total("hip") == near(4 * (math.sqrt(1 + 1 + 4) + math.sqrt(9 + 9 + 2.25)))


def test_a_half_hip_takes_a_tetrahedron_off_the_gable() -> None:
    """From height 1 of 2: the gable is 4 wide there, and the hip runs 2 in."""
    roof = over(Slope(0.5), Slope(None, turn=Turn(1.0, 0.5)), Slope(0.5), Slope(None))
    assert roof.volume == near(12 * 8 * 2 / 2 - 4 * 1 / 2 * 2 / 3)
    assert [line.length for line in roof.lines if line.kind == "eave"] == near([12, 12, 4])


def test_a_half_hip_passes_over_the_wall_at_its_height() -> None:
    roof = over(Slope(0.5, 0.5), Slope(None, 0.3, turn=Turn(1.0, 0.5)), Slope(0.5, 0.5), Slope(None, 0.3))
    hip = next(plane for plane in roof.planes if plane.upper)
    assert hip.z(12.0, 4.0) == near(1.0) and min(z for *_, z in hip.vertices) == near(1.0 - 0.3 * 0.5)


def test_a_gable_over_a_hip_puts_it_back_on() -> None:
    """The hip roof (h w (3 l - w) / 6) and the same tetrahedron on its end."""
    roof = over(Slope(0.5), Slope(0.5, turn=Turn(1.0, None)), Slope(0.5), Slope(0.5))
    assert roof.volume == near(2 * 8 * (36 - 8) / 6 + 4 * 1 / 2 * 2 / 3)
    assert roof.total("break") == near(4), "the foot of the small gable"


def test_a_lower_eave_moves_the_ridge() -> None:
    """Saltbox: an eave 1 lower at the same pitch moves the ridge by half of its run, 1 / 0.5 / 2."""
    roof = over(Slope(0.5, raised=-1.0), Slope(None), Slope(0.5), Slope(None))
    ridge = next(line for line in roof.lines if line.kind == "ridge")
    assert ridge.start[1] == near(5) and roof.ridge_height == near(1.5)


@given(st.floats(0.03, 1.5), st.floats(0.0, 1.0), st.floats(0.0, 1.0))
def test_a_single_pitch_is_one_plane(pitch: float, overhang: float, rake: float) -> None:
    roof = over(Slope(pitch, overhang), Slope(None, rake), Slope(None, rake), Slope(None, rake))
    assert len(roof.planes) == 1 and roof.volume == near(12 * 8 * 8 * pitch / 2)
    assert roof.ridge_height == near((8 + rake) * pitch)
    assert roof.planes[0].plan_area == near((12 + 2 * rake) * (8 + overhang + rake))


def test_a_court_has_valleys_at_its_corners() -> None:
    """A ring 6 wide around a court: its section, 6 x 1.5 / 2, along a middle line of 4 x 14 (Pappus)."""
    outer = [(0.0, 0.0), (20.0, 0.0), (20.0, 20.0), (0.0, 20.0)]
    court = [(6.0, 6.0), (6.0, 14.0), (14.0, 14.0), (14.0, 6.0)]
    roof = roof_shape([outer, court], [Slope(0.5, 0.4)] * 8)
    assert roof.volume == near(4.5 * 56) and len(roof.planes) == 8
    diagonal = 3.4 * math.sqrt(2 + 0.25)
    assert roof.total("valley") == near(4 * diagonal) == near(roof.total("hip"))
    assert roof.total("ridge") == near(56)
    with pytest.raises(GeometryError, match="court run clockwise"):
        roof_shape([outer, court[::-1]], [Slope(0.5)] * 8)


@given(st.lists(st.sampled_from(["eave", "low", "gable", "half", "over", "break"]), min_size=4, max_size=4))
def test_planes_fill_the_plan_whatever_the_edges(kinds: list[str]) -> None:
    """Area identity: what planes cover in plan is the outline; none lies on another."""
    table = {
        "eave": Slope(0.5),
        "low": Slope(0.6, raised=-0.4),
        "gable": Slope(None),
        "half": Slope(None, turn=Turn(1.2, 0.7)),
        "over": Slope(0.5, turn=Turn(0.9, None)),
        "break": Slope(1.5, turn=Turn(0.8, 0.3)),
    }
    if not {"eave", "low", "break"} & set(kinds):
        return
    try:
        roof = over(*(table[kind] for kind in kinds))
    except GeometryError as error:
        assert "never meet" in str(error)
        return
    assert sum(plane.plan_area for plane in roof.planes) == near(96.0, rel=1e-6)
    union = Polygon()
    for plane in roof.planes:
        union = union.union(Polygon([vertex[:2] for vertex in plane.vertices]).buffer(0))
    assert union.area == near(96.0, rel=1e-6)


@pytest.mark.parametrize(
    ("slope", "words"),
    [
        (Slope(0.5, turn=Turn(0.0, 0.2)), "turns above its eave"),
        (Slope(0.5, turn=Turn(1.0, 0.5)), "turns above its eave"),
        (Slope(0.5, turn=Turn(1.0, 99.0)), "a pitch lies between"),
        (Slope(0.5, -1.0), "not less than nothing"),
    ],
)
def test_bad_slopes_are_refused_in_words(slope: Slope, words: str) -> None:
    with pytest.raises(GeometryError, match=words):
        over(slope, Slope(None), Slope(0.5), Slope(None))
