"""Heights as sums: worked by hand, the same from both sides, each term with its source."""

from __future__ import annotations

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.edits import SetTerm, apply_edits
from deepsection.core.resolve import Building, resolve
from tests.builders import box_house, gable


def inches(value: float) -> float:
    return value / 25.4


def test_demo_heights_by_hand(building: Building) -> None:
    """Arithmetic: plate = 12 + 1 1/2 + 92 5/8 + 2 x 1 1/2; ridge = plate + plumb depth of a 2x10 at 8:12 - seat x pitch
    + pitch x half span + covering measured plumb (3/8 + 1 mm + 5/8). A precut stud of 92 5/8 with three plates makes
    97 1/8 (common practice)."""
    assert inches(building.levels["plate"].z) == pytest.approx(109.125)
    slope = math.sqrt(1 + (8 / 12) ** 2)
    heel = 109.125 + 9.25 * slope - 3.5 * 8 / 12
    covering = (0.375 + 1 / 25.4 + 0.625) * slope
    assert inches(building.sums["heel:roof-main"].total) == pytest.approx(heel)
    assert inches(building.sums["ridge:roof-main"].total) == pytest.approx(heel + 13 * 8 + covering)
    assert inches(building.sums["ridge:roof-wing"].total) == pytest.approx(heel + 10 * 8 + covering)


def test_openings_stand_on_their_floor(building: Building) -> None:
    """Heads at 6'-10" above a floor 1'-0" above grade."""
    heads = {id: total.total for id, total in building.sums.items() if id.startswith("head:w")}
    assert len(heads) == 10
    assert {round(inches(total), 6) for total in heads.values()} == {94.0}


def test_every_sum_adds_up_and_names_its_sources(building: Building) -> None:
    for held in building.sums.values():
        assert held.total == pytest.approx(sum(term.value for term in held.terms))
        assert all(term.label for term in held.terms)
        for term in held.terms:
            if term.source and ":" in term.source:
                assert term.value == pytest.approx(building.sums[term.source].total), (
                    "a term that is a sum agrees with it"
                )


pitches = st.floats(0.1, 1.5)


@settings(max_examples=30, deadline=None)
@given(pitch=pitches, width=st.floats(5000, 14000), depth=st.floats(3000, 11000), overhang=st.floats(0, 900))
def test_the_ridge_is_the_same_from_both_eaves(pitch: float, width: float, depth: float, overhang: float) -> None:
    """Common practice, the drafter's proof: the height found from one side is found from the other."""
    house = resolve(gable(box_house(width, depth), pitch, overhang=overhang))
    (roof,) = house.roofs
    (ridge,) = roof.of("ridge")
    tops = {round(plane.top.z(*ridge.start[:2]), 6) for plane in roof.planes}
    assert len(tops) == 1
    assert tops.pop() == pytest.approx(roof.heel.total + pitch * depth / 2, abs=1e-5)
    assert roof.eave.total == pytest.approx(roof.heel.total - pitch * roof.reaches[0])


def test_heel_is_measured_at_the_bearing_line() -> None:
    """The bearing line of a frame is its outside: there the top of the rafter stands a heel above the plate."""
    (roof,) = resolve(gable(box_house(8000, 6000), 0.5, seat=90)).roofs
    x, y = roof.planes[0].eave_start
    assert y == 0
    assert roof.planes[0].top.z(x, y) == pytest.approx(roof.plate.total + 235 * math.sqrt(1.25) - 90 * 0.5)


def test_a_part_of_a_height_moves_everything_above_it() -> None:
    house = gable(box_house(8000, 6000), 0.5)
    before = resolve(house)
    after = resolve(apply_edits(house, (SetTerm(rung="plate", term="stud", value=2486.0),)))
    for id in ("ridge:roof-1", "eave:roof-1", "level:plate"):
        assert after.sums[id].total - before.sums[id].total == pytest.approx(100)
    assert after.sums["level:floor"].total == before.sums["level:floor"].total
