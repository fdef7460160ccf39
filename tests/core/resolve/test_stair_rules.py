"""Legal numbers of risers and goings, against the published limits, by hand."""

from __future__ import annotations

import math

import pytest

from deepsection.core.errors import BadInput
from deepsection.core.trades.stairs.rules import (
    Stepping,
    choose,
    riser_sets,
    stair_rules,
    usual_going,
    why_illegal,
)

IRC, ADK = stair_rules()["irc"], stair_rules()["adk"]
IN = 25.4
RISES_IN = [15.5, 15.51, 31.0, 36.5, 54.25, 70.0, 96.875, 100.0, 105.0, 106.125, 108.0, 108.5, 108.51, 112.0, 116.25]
RISES_IN += [117.0, 120.0, 124.0, 125.5, 130.0, 131.75, 133.0, 139.5, 140.0, 144.0, 147.25, 148.0, 150.0, 151.0, 160.0]
RISES_MM = [440.0, 450.0, 600.0, 880.0, 1100.0, 1320.0, 1540.0, 1760.0, 1980.0, 2200.0, 2395.0, 2400.0, 2420.0, 2450.0]
RISES_MM += [2500.0, 2520.0, 2550.0, 2575.0, 2600.0, 2625.0, 2640.0, 2650.0, 2700.0, 2725.0, 2750.0, 2800.0, 2850.0]
RISES_MM += [2860.0, 2950.0, 3080.0]


@pytest.mark.parametrize("rise", RISES_IN)
def test_irc_takes_the_fewest_risers_of_at_most_7_3_4(rise: float) -> None:
    """Source: IRC R311.7.5, risers at most 7 3/4 in, treads at least 10 in (from memory). Thirty rises by division."""
    fewest = next(n for n in range(1, 100) if rise / n <= 7.75 + 1e-9)
    chosen = choose(IRC, rise * IN, 10.0 * IN, "ft-in")
    assert chosen.risers == fewest and chosen.treads == fewest - 1
    assert chosen.riser * fewest == pytest.approx(rise * IN)
    assert chosen.total_run == pytest.approx((fewest - 1) * 10 * IN)
    assert chosen.pitch_deg == pytest.approx(math.degrees(math.atan(rise / fewest / 10)))
    assert chosen.two_r_plus_g == pytest.approx((2 * rise / fewest + 10) * IN)
    assert chosen.opening_length(80 * IN, 11.25 * IN) == pytest.approx((80 + 11.25) * 10 / (rise / fewest) * IN)
    legal = [held.risers for held in riser_sets(IRC, rise * IN, "ft-in") if held.is_legal]
    assert legal == [n for n in range(fewest, 60) if rise / n >= 4.0 - 1e-9]
    with pytest.raises(BadInput, match=r"tread at least 10.*R311\.7\.5\.2"):
        choose(IRC, rise * IN, 9.99 * IN, "ft-in")


@pytest.mark.parametrize("rise", RISES_MM)
def test_approved_document_k_bounds_goings_by_pitch_and_by_twice_the_riser(rise: float) -> None:
    """Source: Approved Document K, private stairs: rise 150 to 220, going 220 to 300, 2R + G 550 to 700, pitch at most
    42 degrees (from memory). Thirty rises; the bounds are found by trying goings of 0.01 mm."""
    for held in riser_sets(ADK, rise, "mm"):
        riser = rise / held.risers

        def fits(going: float, riser: float = riser) -> bool:
            return (
                riser + 1e-9 >= 150
                and riser <= 220 + 1e-9
                and 220 <= going <= 300
                and 550 <= 2 * riser + going <= 700
                and math.degrees(math.atan(riser / going)) <= 42
            )

        tried = [going / 100 for going in range(20000, 32000) if fits(going / 100)]
        assert held.is_legal == bool(tried), held
        if tried and held.going_max is not None:
            assert held.going_min == pytest.approx(tried[0], abs=0.011)
            assert held.going_max == pytest.approx(tried[-1], abs=0.011)
            assert usual_going(ADK, held) % 5 == pytest.approx(0) or held.going_max < tried[0] + 5


def test_worked_cases_of_both_rules() -> None:
    """Check values 5 and 6 (limits from memory, arithmetic)."""
    chosen = choose(IRC, 108 * IN, 10 * IN, "ft-in")
    assert (chosen.risers, round(chosen.riser / IN, 3), round(chosen.total_run / IN)) == (14, 7.714, 130)
    assert round(chosen.pitch_deg, 2) == 37.65
    assert round(chosen.opening_length(80 * IN, 11.25 * IN) / IN, 2) == 118.29
    assert choose(IRC, 15.51 * IN, 10 * IN, "ft-in").risers == 3
    twelve = next(held for held in riser_sets(ADK, 2600.0, "mm") if held.risers == 12)
    assert (round(twelve.going_min, 2), round(twelve.going_max or 0, 2)) == (240.63, 266.67)
    (steep,) = why_illegal(ADK, Stepping(12, 220.0, 244.0), "mm")
    assert steep.startswith("42.04°") and "42°" in steep
    assert why_illegal(ADK, Stepping(12, 220.0, 245.0), "mm") == []
    (long,) = why_illegal(ADK, Stepping(12, 220.0, 261.0), "mm")
    assert long.startswith("701")


def test_what_has_no_answer_is_refused_in_words() -> None:
    with pytest.raises(BadInput, match="greater than 0"):
        riser_sets(IRC, 0.0, "mm")
    with pytest.raises(BadInput, match="no number of risers is legal"):
        choose(ADK, 100.0, None, "mm")
    with pytest.raises(BadInput, match="more than 200 risers"):
        riser_sets(IRC, 1e6, "mm")
