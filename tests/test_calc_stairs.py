"""Stairs and spans on the command line: as JSON, readable, and refused with the rule that is broken."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from deepsection.core.trades.floors.spans import JoistCase, joist_span, published_spans, timber_for, usual_case
from tests.test_cli import refused, run


def asked(folder: Path, facts: dict[str, Any]) -> str:
    file = folder / "asked.json"
    file.write_text(json.dumps(facts))
    return str(file)


def answer(folder: Path, command: str, **facts: Any) -> Any:
    done = run("calc", command, asked(folder, facts), "--json")
    assert done.exit_code == 0, done.stderr
    return json.loads(done.stdout)


TIMBER = {"rule": "irc", "units": "in", "total_rise": 108}
PRIVATE = {"rule": "adk", "units": "mm", "total_rise": 2600}


def test_a_stair_in_inches(tmp_path: Path) -> None:
    """Check value 5: IRC R311.7 (limits from memory), arithmetic."""
    found = answer(tmp_path, "stair", **TIMBER, going=10, floor_thickness=11.25, headroom=80)
    chosen = found["chosen"]
    assert (chosen["risers"], chosen["treads"], chosen["going"]) == (14, 13, pytest.approx(10))
    assert chosen["riser"] == pytest.approx(108 / 14) and chosen["total_run"] == pytest.approx(130)
    assert chosen["pitch_deg"] == pytest.approx(37.65, abs=0.005)
    assert chosen["two_r_plus_g"] == pytest.approx(2 * 108 / 14 + 10)
    assert found["opening_length"] == pytest.approx(118.29, abs=0.005) and found["opening_beyond_foot"] is False
    assert found["legal_sets"][0] == {
        "risers": 14, "riser": pytest.approx(108 / 14), "going_min": pytest.approx(10), "going_max": None
    }  # fmt: skip


def test_a_stair_in_millimetres_without_a_going(tmp_path: Path) -> None:
    """Check value 6: Approved Document K (limits from memory), arithmetic."""
    found = answer(tmp_path, "stair", **PRIVATE)
    first = found["legal_sets"][0]
    assert (first["risers"], round(first["riser"], 2)) == (12, 216.67)
    assert (round(first["going_min"], 2), round(first["going_max"], 2)) == (240.63, 266.67)
    assert found["chosen"]["risers"] == 12 and found["opening_length"] is None
    low = answer(tmp_path, "stair", rule="adk", units="mm", total_rise=600, going=250, floor_thickness=300)
    assert low["opening_beyond_foot"] is True


def test_a_going_that_the_rule_does_not_allow_is_answered_with_it(tmp_path: Path) -> None:
    file = asked(tmp_path, PRIVATE | {"going": 320})
    assert "a going at most 300" in refused("calc", "stair", file)
    told = json.loads(run("calc", "stair", file, "--json").stdout)
    assert told["chosen"] is None and "table 1.1" in told["breaks"] and len(told["legal_sets"]) > 3
    assert "R311.7.5.2" in refused("calc", "stair", asked(tmp_path, TIMBER | {"going": 9}))


@pytest.mark.parametrize(
    ("facts", "words"),
    [
        ({}, "rule"),
        (TIMBER | {"total_rise": -1}, "total_rise"),
        (TIMBER | {"rule": "house"}, "rule"),
        (PRIVATE | {"total_rise": 100}, "no number of risers"),
        (TIMBER | {"landing": 3}, "landing"),
        (TIMBER | {"total_rise": 1e9}, "more than 200"),
    ],
)
def test_what_is_no_stair_is_refused_in_words(tmp_path: Path, facts: dict[str, Any], words: str) -> None:
    assert words in refused("calc", "stair", asked(tmp_path, facts))


def test_tables_of_stairs_and_spans_are_readable(tmp_path: Path) -> None:
    told = run("calc", "stair", asked(tmp_path, TIMBER | {"floor_thickness": 11.25})).stdout
    assert "chosen" in told and "9'-10 5/16\"" in told and "R311.7.5.1" in told
    told = run("calc", "span", asked(tmp_path, JOIST)).stdout
    assert "15'-4 5/8\"" in told and "R502.3.1(2)" in told


JOIST = {
    "member": "2x10", "b": 1.5, "d": 9.25, "spacing": 16, "Fb": 875, "E": 1.4e6, "C_F": 1.1, "C_r": 1.15, "C_D": 1.0,
    "live_psf": 40, "dead_psf": 10, "deflection": 360, "deflection_load": "live",
}  # fmt: skip


def test_a_joist_by_hand(tmp_path: Path) -> None:
    """Check value 9. NDS: Fb' = 875 x 1.1 x 1.15 = 1106.9 psi, S = 21.39 in3, w = 5.556 lb/in: sqrt(8 Fb' S / w)."""
    found = answer(tmp_path, "span", **JOIST)
    assert found["max_span"] == pytest.approx(184.65, abs=0.005) and found["governs"] == "bending"
    stiff = (384 * 1.4e6 * (1.5 * 9.25**3 / 12) / (5 * 40 * 16 / 144 * 360)) ** (1 / 3)
    assert found["L_deflection"] == pytest.approx(stiff)
    assert found["published"] == [
        {"table": "IRC table R502.3.1(2)", "species": "spruce-pine-fir No. 2", "span": pytest.approx(185.0)}
    ]
    total = answer(tmp_path, "span", **JOIST | {"deflection_load": "total", "deflection": 480})
    assert total["governs"] == "deflection" and total["L_deflection"] == pytest.approx(
        stiff * (40 / 50 * 360 / 480) ** (1 / 3)
    )
    assert total["published"] == []


@pytest.mark.parametrize("depth", [5.5, 7.25, 9.25, 11.25])
@pytest.mark.parametrize("spacing", [12.0, 16.0, 24.0])
def test_first_principles_agree_with_the_published_table(depth: float, spacing: float) -> None:
    """IRC table R502.3.1(2), spruce-pine-fir No. 2 (from memory); it is rounded down to whole inches, and cut off where
    other limits of its source govern."""
    case = usual_case("timber", 38.1, depth * 25.4, spacing * 25.4)
    assert case.Fb == timber_for("timber").Fb == 875
    (table,) = published_spans(case)
    ours = joist_span(case).max_span
    assert -1.0 <= ours - table.span <= 2.0, (ours, table.span)


def test_deeper_and_closer_joists_span_further() -> None:
    spans = [
        joist_span(JoistCase(1.5, d, s, 900, 1.5e6)).max_span
        for d, s in ((7.25, 24), (7.25, 16), (9.25, 16), (9.25, 12))
    ]
    assert spans == sorted(spans)


def test_what_is_no_joist_is_refused_in_words(tmp_path: Path) -> None:
    assert "spacing" in refused("calc", "span", asked(tmp_path, JOIST | {"spacing": 0}))
    assert "Fb" in refused("calc", "span", asked(tmp_path, {k: v for k, v in JOIST.items() if k != "Fb"}))
