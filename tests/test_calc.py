"""The calculations by themselves, on the command line: readable, as JSON, and refused in words."""

from __future__ import annotations

import json
import math
from pathlib import Path
from typing import Any

import pytest

from deepsection.core.errors import BadInput
from deepsection.core.geometry import segment, segment_through
from tests.test_cli import refused, run


def answer(*words: str) -> Any:
    done = run("calc", *words, "--json")
    assert done.exit_code == 0, done.stderr
    return json.loads(done.stdout)


def test_lengths_are_read_in_either_unit_and_printed_in_both() -> None:
    rows = answer("length", "12' 6 1/2\"", "3600", '5/8" + 9 1/4"')["lengths"]
    assert [row["mm"] for row in rows] == [3822.7, 3600.0, 250.825], "inch = 25.4 mm, exact (1959 agreement)"
    assert rows[0]["imperial"] == "12'-6 1/2\"" and rows[1]["metric"] == "3600"
    assert answer("length", "100", "--units", "ft-in")["lengths"][0]["mm"] == 2540


@pytest.mark.parametrize(
    ("fraction", "text"),
    [("1", '4"'), ("2", '4"'), ("4", '4"'), ("8", '3 7/8"'), ("16", '3 15/16"'), ("64", '3 15/16"')],
)
def test_inches_are_rounded_to_the_chosen_fraction(fraction: str, text: str) -> None:
    """100 mm = 3.93700... in: 3 15/16 = 3.9375, 3 7/8 = 3.875 and 4 lie around it."""
    assert answer("length", "100mm", "--fraction", fraction)["lengths"][0]["imperial"] == text


def test_arcs_from_chord_and_rise() -> None:
    """3-4-5 triangle: half chord 4, radius 5, so the rise is 5 - 3 = 2; angle 2 asin(4/5)."""
    found = answer("arc", "--chord", "8m", "--rise", "2m")
    assert found["radius"] == 5000 and found["angle_deg"] == pytest.approx(math.degrees(2 * math.asin(0.8)))
    assert found["length"] == pytest.approx(5000 * 2 * math.asin(0.8))
    triangle = 4000 * 3000
    assert found["area"] == pytest.approx(5000**2 * math.asin(0.8) - triangle)


def test_arcs_through_three_points() -> None:
    found = answer("arc", "--point", "0,0", "--point", "4000,2000", "--point", "8000,0")
    assert found["radius"] == 5000 and found["centre"] == pytest.approx([4000, -3000])
    feet = answer("arc", "--units", "ft-in", "--point", "0,0", "--point", "4',2'", "--point", "8',0")
    assert feet["radius"] == pytest.approx(5 * 304.8)


def test_tables_are_readable() -> None:
    told = run("calc", "arc", "--chord", "30'", "--rise", "5'").stdout
    assert "25'-0\"" in told and "radius" in told and "area" in told
    assert "3'-0\"" in run("calc", "length", "914.4").stdout


@pytest.mark.parametrize(
    ("words", "told"),
    [
        (["length", "wide"], "not a length"),
        (["length", '1/0"'], "zero"),
        (["length", "3", "--units", "ells"], "ft-in or mm"),
        (["length", "3", "--fraction", "7"], "fraction"),
        (["arc", "--chord", "3m", "--rise", "0"], "no rise"),
        (["arc", "--chord", "0", "--rise", "1"], "chord"),
        (["arc", "--chord", "3m"], "--rise"),
        (["arc", "--point", "0,0", "--point", "1,1"], "three points"),
        (["arc", "--point", "0,0", "--point", "1", "--point", "2,2"], "x,y"),
        (["arc", "--point", "0,0", "--point", "1m,1m", "--point", "2m,2m"], "on a line"),
    ],
)
def test_what_cannot_be_calculated_is_refused_in_words(words: list[str], told: str) -> None:
    assert told in refused("calc", *words)


def test_the_functions_are_public() -> None:
    assert segment(2.0, 1.0).area == pytest.approx(math.pi / 2), "half a circle of radius 1"
    with pytest.raises(BadInput):
        segment_through((0, 0), (1, 1), (2, 2))


# --- roofs ----------------------------------------------------------------------------------------


def written(folder: Path, **facts: Any) -> str:
    file = folder / "roof.json"
    rectangle = {"outline": [[0, 0], [480, 0], [480, 288], [0, 288]], "units": "in"}
    slope = {"rise": 6, "run": 12}
    file.write_text(json.dumps(rectangle | {"edges": [slope] * 4} | facts))
    return str(file)


def test_a_roof_from_a_file(tmp_path: Path) -> None:
    """40' x 24' at 6 in 12: ridge 6' up and 16' long, hips of 18 per foot of run (framing-square tables): 18'."""
    found = answer("roof", written(tmp_path))
    assert found["ridge_height"] == pytest.approx(72) and found["units"] == "in"
    assert found["totals"]["ridge"] == pytest.approx(192) and found["totals"]["hip"] == pytest.approx(4 * 216)
    assert [plane["edges"] for plane in found["planes"]] == [[0], [1], [2], [3]]
    assert len(found["planes"][0]["vertices"]) == 4 and len(found["planes"][1]["vertices"]) == 3
    assert found["totals"]["true_area"] == pytest.approx(480 * 288 * math.sqrt(1.25))
    kinds = [line["kind"] for line in found["lines"]]
    assert sorted(kinds) == ["eave"] * 4 + ["hip"] * 4 + ["ridge"]
    shown = run("calc", "roof", written(tmp_path)).stdout
    assert "6 in 12, 26.57°" in shown and "16'-0\"" in shown and "72'-0\"" in shown


def test_a_roof_with_gables_over_an_eave_height(tmp_path: Path) -> None:
    edges = [{"rise": 6, "run": 12}, {"gable": True}] * 2
    found = answer("roof", written(tmp_path, edges=edges, eave_height=108, overhang=16))
    assert found["ridge_height"] == pytest.approx(108 + 72)
    rakes = [line["length"] for line in found["lines"] if line["kind"] == "rake"]
    assert rakes == pytest.approx([160 * math.sqrt(1.25)] * 4), "12' and 16 in of overhang, up the slope"


@pytest.mark.parametrize(
    ("facts", "words"),
    [
        ({"edges": []}, "4 corners need 4 edges"),
        ({"edges": [{"rise": 6}] * 4}, "edges.0"),
        ({"edges": [{"gable": False}] * 4}, "edges.0"),
        ({"edges": [{"gable": True}] * 4}, "at least one edge needs a pitch"),
        ({"outline": [[0, 0], [4, 4], [4, 0], [0, 4]]}, "crosses"),
        ({"outline": [[0, 0], [0, 4], [4, 4], [4, 0]]}, "clockwise"),
        ({"units": "yd"}, "units"),
        ({"overhang": -2}, "overhang"),
        ({"colour": "red"}, "colour"),
    ],
)
def test_a_roof_that_cannot_be_is_refused_in_words(tmp_path: Path, facts: dict[str, Any], words: str) -> None:
    assert words in refused("calc", "roof", written(tmp_path, **facts))


def test_a_file_that_is_none_is_refused(tmp_path: Path) -> None:
    assert "cannot be read" in refused("calc", "roof", str(tmp_path / "none.json"))
    (tmp_path / "bad.json").write_bytes(b"{")
    assert "cut short at byte 1" in refused("calc", "roof", str(tmp_path / "bad.json"))
    (tmp_path / "empty.json").write_bytes(b"")
    assert "is empty" in refused("calc", "roof", str(tmp_path / "empty.json"))


@pytest.mark.parametrize(
    ("units", "of_an_inch"), [("mm", 25.4), ("cm", 2.54), ("m", 0.0254), ("in", 1), ("ft", 1 / 12)]
)
def test_a_roof_is_worked_out_in_any_unit(tmp_path: Path, units: str, of_an_inch: float) -> None:
    """The house of 40' by 24' at 6 in 12: ridge 6' high and 16' long, whatever it is written in."""
    outline = [[x * of_an_inch, y * of_an_inch] for x, y in ((0, 0), (480, 0), (480, 288), (0, 288))]
    found = answer("roof", written(tmp_path, units=units, outline=outline))
    assert found["ridge_height"] == pytest.approx(72 * of_an_inch)
    assert found["totals"]["ridge"] == pytest.approx(192 * of_an_inch)
    assert found["totals"]["plan_area"] == pytest.approx(480 * 288 * of_an_inch**2)
    assert found["volume"] == pytest.approx(72 * 288 * (3 * 480 - 288) / 6 * of_an_inch**3), "h w (3 l - w) / 6"
