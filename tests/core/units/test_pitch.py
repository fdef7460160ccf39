"""Pitches in every way of writing them."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from deepsection.core.errors import BadPitch
from deepsection.core.units import format_pitch, parse_pitch


@pytest.mark.parametrize(
    ("text", "pitch"),
    [
        ("6:12", 0.5),
        ("6 in 12", 0.5),
        ("8/12", 2 / 3),
        ("45 deg", 1.0),
        ("45°", 1.0),
        ("50 %", 0.5),
        ("0.5", 0.5),
        ("1:2", 0.5),
    ],
)
def test_reads_what_is_typed(text: str, pitch: float) -> None:
    assert math.isclose(parse_pitch(text), pitch, rel_tol=1e-9)


def test_six_in_twelve_is_26_57_degrees() -> None:
    """Arithmetic: atan(6/12). Check value 4 of the reference table has the same triangle: 13.416 in per ft of run."""
    assert math.isclose(parse_pitch("26.5650511771 deg"), 0.5, rel_tol=1e-9)
    assert math.isclose(math.hypot(12, 12 * parse_pitch("6:12")), 13.416, abs_tol=5e-4)


@pytest.mark.parametrize(
    "text", ["0", "0:12", "0 deg", "90 deg", "90", "6:0", "steep", "", "-6:12", "85 deg", "0.2 deg", "100:1"]
)
def test_refuses_what_cannot_be_a_roof(text: str) -> None:
    with pytest.raises(BadPitch):
        parse_pitch(text)


@given(st.integers(1, 20))
def test_whole_pitches_read_back(rise: int) -> None:
    assert parse_pitch(format_pitch(rise / 12, "ft-in")) == pytest.approx(rise / 12)
