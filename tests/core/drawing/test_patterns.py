"""Hatches: patterns in paper or real size, foreshortened on slopes, and the same lines in every medium."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from deepsection.core.catalog import HatchFamily, hatch, hatches
from deepsection.core.drawing import PlacedHatch, place_hatch
from deepsection.formats._lines import family_lines

BOX = (0.0, 0.0, 3000.0, 2000.0)


def rows(placed: PlacedHatch, family: int = 0) -> list[tuple[float, float, float, float]]:
    return [line[:4] for line in family_lines(placed.families[family], BOX)]


@pytest.mark.parametrize("name", hatches())
@pytest.mark.parametrize("scale", [20.0, 100.0])
def test_paper_patterns_grow_with_the_scale_and_real_ones_do_not(name: str, scale: float) -> None:
    one, other = place_hatch(name, 1.0), place_hatch(name, scale)
    factor = scale if hatch(name).size == "paper" else 1.0
    if len(one.families) != len(hatch(name).families):
        return
    for small, large in zip(one.families, other.families):
        assert large.offset == pytest.approx(tuple(step * factor for step in small.offset))
        assert large.dashes == pytest.approx(tuple(dash * factor for dash in small.dashes))


def test_lap_boards_are_level_lines_at_their_exposure() -> None:
    """Boards of 6 in exposure, from the foot of the wall: arithmetic."""
    heights = sorted(
        y0 for _, y0, _, y1 in rows(place_hatch("lap_board", 48.0, (0.0, 304.8))) if y0 == pytest.approx(y1)
    )
    assert heights[0] == pytest.approx(0.0) and 304.8 in [pytest.approx(height) for height in heights]
    assert all(b - a == pytest.approx(152.4) for a, b in itertools.pairwise(heights))
    assert len(heights) == 14


@given(st.floats(0.1, 1.5))
def test_courses_on_a_slope_are_foreshortened(pitch: float) -> None:
    """Seen level, a course of length c up the slope is c sin(angle) high: arithmetic."""
    rise = math.sin(math.atan(pitch))
    placed = place_hatch("tile", 50.0, (0.0, 0.0), (1.0, 0.0, 0.0, rise))
    assert placed.families[0].offset[1] == pytest.approx(345 * rise)
    assert placed.families[1].offset[1] == pytest.approx(300), "the joints between tiles stay as far apart"


def test_joints_too_short_to_print_are_left_out() -> None:
    """Shingles of 5 5/8 in exposure on a slope of 3 in 12 at 1:64 have joints of 142.9 x 0.2425 / 64 = 0.54 mm: a grey.
    Their courses stay as they are; on 8 in 12 the joints are 1.2 mm."""
    flat, steep = (math.sin(math.atan(rise / 12)) for rise in (3, 8))
    low = place_hatch("shingle", 64.0, (0.0, 0.0), (1.0, 0.0, 0.0, flat))
    high = place_hatch("shingle", 64.0, (0.0, 0.0), (1.0, 0.0, 0.0, steep))
    assert [bool(family.dashes) for family in high.families].count(True) >= 1
    assert low.families and not any(family.dashes for family in low.families)
    spacing = {round(abs(family.offset[1]) / flat, 6) for family in low.families}
    assert spacing == {round(abs(family.offset[1]) / steep, 6) for family in high.families if not family.dashes}


def test_a_face_seen_edge_on_has_no_lines() -> None:
    assert place_hatch("lap_board", 50.0, (0.0, 0.0), (1.0, 0.0, 0.0, 0.0)).families == ()
    assert place_hatch("tile", 50.0, (0.0, 0.0), (0.0, 0.0, 0.0, 1.0)).families == ()


@given(st.floats(-180, 180), st.floats(20, 200), st.floats(-90, 90), st.floats(-500, 500), st.floats(-500, 500))
def test_lines_are_parallel_and_evenly_spaced(angle: float, across: float, along: float, x: float, y: float) -> None:
    family = HatchFamily(angle, (x, y), (along, across), ())
    turn = math.radians(angle)
    places = sorted((y0 - y) * math.cos(turn) - (x0 - x) * math.sin(turn) for x0, y0, *_ in family_lines(family, BOX))
    assert all(b - a == pytest.approx(across, rel=1e-6) for a, b in itertools.pairwise(places))
    spread = abs(BOX[2] * math.sin(turn)) + abs(BOX[3] * math.cos(turn))
    assert len(places) >= math.floor(spread / across)


def test_too_dense_a_hatch_is_left_out_rather_than_printed_black() -> None:
    assert list(family_lines(HatchFamily(0.0, (0.0, 0.0), (0.0, 0.1), ()), BOX)) == []
