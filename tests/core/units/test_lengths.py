"""Lengths: what drafters type, read exactly, and written so that it reads back."""

from __future__ import annotations

import math
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from deepsection.core.errors import BadLength
from deepsection.core.units import FOOT, INCH, Units, format_length, format_level, parse_length


@pytest.mark.parametrize(
    ("text", "units", "millimetres"),
    [
        ("34'", "ft-in", 34 * 304.8),
        ("12'6", "ft-in", 12 * 304.8 + 6 * 25.4),
        ("12' 6 1/2\"", "ft-in", 12 * 304.8 + 6.5 * 25.4),
        ("12'-6 1/2\"", "ft-in", 12 * 304.8 + 6.5 * 25.4),
        ('11-7/8"', "ft-in", 11.875 * 25.4),
        ("11 7/8", "ft-in", 11.875 * 25.4),
        ('150"', "ft-in", 150 * 25.4),
        ('3/4" + 10 3/8"', "ft-in", 11.125 * 25.4),
        ("8", "ft-in", 8 * 25.4),
        ("3600", "mm", 3600),
        ("3.6m", "mm", 3600),
        ("75 cm", "mm", 750),
        ("750 mm", "mm", 750),
        ("3.6m", "ft-in", 3600),
        ("12'6", "mm", 12 * 304.8 + 6 * 25.4),
        ("12' - 6\"", "ft-in", 11.5 * 304.8),
        ("2.5m + 500 mm - 30 cm", "mm", 2700),
        ("-5'", "ft-in", -5 * 304.8),
        ("  6 ft 2 in ", "ft-in", 74 * 25.4),
        ("5’ 3”", "ft-in", 63 * 25.4),
        ('.5"', "ft-in", 12.7),
    ],
)
def test_reads_what_is_typed(text: str, units: Units, millimetres: float) -> None:
    """An inch is exactly 25.4 mm. Source: international yard and pound agreement, 1959."""
    assert math.isclose(parse_length(text, units), millimetres, abs_tol=1e-9)


@pytest.mark.parametrize(
    "text",
    ["", "   ", "abc", "12'6'3", '1/0"', "5 +", "+", "3..6m", "12' -6\"", "1e9 m", "1 2 3", "12 km", "'", "nan", "inf"],
)
@pytest.mark.parametrize("units", ["ft-in", "mm"])
def test_refuses_what_is_no_length(text: str, units: Units) -> None:
    with pytest.raises(BadLength) as caught:
        parse_length(text, units)
    assert caught.value.message


def test_an_ambiguous_hyphen_is_asked_about() -> None:
    """12' -6\" may mean 11'-6\" or 12'-6\"; a wrong guess is a wrong house."""
    with pytest.raises(BadLength, match="join feet and inches"):
        parse_length("12' -6\"", "ft-in")


@given(st.integers(-200 * 12 * 16, 200 * 12 * 16))
def test_feet_and_inches_read_back(sixteenths: int) -> None:
    value = sixteenths * INCH / 16
    assert math.isclose(parse_length(format_length(value, "ft-in"), "ft-in"), value, abs_tol=1e-9)


@given(st.integers(-500_000, 500_000))
def test_millimetres_read_back(tenths: int) -> None:
    value = tenths / 10
    assert math.isclose(parse_length(format_length(value, "mm"), "mm"), value, abs_tol=1e-9)


@given(st.text(max_size=24))
def test_any_text_is_a_finite_length_or_a_clear_refusal(text: str) -> None:
    try:
        assert math.isfinite(parse_length(text, "ft-in"))
    except BadLength as error:
        assert error.message and "Traceback" not in error.message


@given(st.lists(st.integers(1, 999), min_size=1, max_size=5))
def test_a_sum_is_the_sum_of_its_terms(terms: list[int]) -> None:
    assert parse_length(" + ".join(f"{term} mm" for term in terms)) == sum(terms)


def test_rounding_carries() -> None:
    """Check value 12 of the reference table: 11 31/32" printed to 1/16" is 1'-0"."""
    assert format_length((11 + 31 / 32) * INCH, "ft-in") == "1'-0\""
    assert format_length(7 * FOOT + (11 + 63 / 64) * INCH, "ft-in") == "8'-0\""
    assert format_length(-0.001, "ft-in") == '0"'
    assert format_length(FOOT + INCH / 2, "ft-in") == "1'-0 1/2\""


def test_levels_are_signed() -> None:
    assert format_level(9 * FOOT + 1.125 * INCH, "ft-in") == "+9'-1 1/8\""
    assert format_level(-3.5 * FOOT, "ft-in") == "-3'-6\""
    assert format_level(0.2, "mm") == "±0.000"


WHOLES = (0, 1, 2, 5, 11)
FEET = (None, 0, 1, 12, 34)
DENOMINATORS = (2, 4, 8, 16, 32, 64)
MARKS = (("'", '"'), (" ft ", " in"), ("′", "″"), ("' ", '"'), ("'-", '"'))


def test_every_fraction_of_an_inch_reads_as_its_value() -> None:
    """Exhaustive: all fractions to 1/64, with and without whole inches and feet, in every way of writing them.

    The value is worked out in exact fractions: an inch is 25.4 mm (1959 agreement).
    """
    count = 0
    for denominator in DENOMINATORS:
        for numerator in range(1, denominator):
            for feet in FEET:
                for whole in WHOLES:
                    exact = Fraction(12 * (feet or 0) + whole) + Fraction(numerator, denominator)
                    mm = float(exact * Fraction(254, 10))
                    inches = f"{whole} {numerator}/{denominator}" if whole else f"{numerator}/{denominator}"
                    for foot, inch in MARKS:
                        text = inches + inch if feet is None else f"{feet}{foot}{inches}{inch}"
                        assert parse_length(text, "ft-in") == pytest.approx(mm, abs=1e-9), text
                        count += 1
    assert count == 5 * 5 * 5 * sum(denominator - 1 for denominator in DENOMINATORS)
