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
        ('5/8" + 9 1/4"', "ft-in", 9.875 * 25.4),
        ("8", "ft-in", 8 * 25.4),
        ("3600", "mm", 3600),
        ("3.6m", "mm", 3600),
        ("75 cm", "mm", 750),
        ("750 mm", "mm", 750),
        ("3.6m", "ft-in", 3600),
        ("12'6", "mm", 12 * 304.8 + 6 * 25.4),
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
    ["", "   ", "abc", "12'6'3", '1/0"', "5 +", "+", "3..6m", "1e9 m", "1 2 3", "12 km", "'", "nan", "inf"],
)
@pytest.mark.parametrize("units", ["ft-in", "mm"])
def test_refuses_what_is_no_length(text: str, units: Units) -> None:
    with pytest.raises(BadLength) as caught:
        parse_length(text, units)
    assert caught.value.message


@pytest.mark.parametrize(
    ("text", "inches"),
    [
        # After feet alone a hyphen joins inches, however it is spaced: so drawings print lengths.
        ("8'-1\"", 97),
        ("8' - 1\"", 97),
        ("8' -1\"", 97),
        ("8'- 1\"", 97),
        ("8' - 1", 97),
        ("8' - 1/2\"", 96.5),
        ("8′ – 1½″", 97.5),
        ('8\' - 1" + 2"', 99),
        ('8\' - 1" - 2"', 95),
        # A difference has both sides whole: feet with their inches, or another unit, or more than a foot of inches.
        ('8\'0" - 1"', 95),
        ('8\'-0" - 1"', 95),
        ("8' - 1'", 84),
        ("8' - 1'-6\"", 78),
        ("8' - 18\"", 78),
        ("8' - 25.4 mm", 95),
        ("8' - 2.54cm", 95),
        ('96" - 1"', 95),
        ("96 - 1", 95),
    ],
)
def test_a_hyphen_joins_or_subtracts_by_one_rule(text: str, inches: float) -> None:
    assert parse_length(text, "ft-in") == pytest.approx(inches * INCH)


@pytest.mark.parametrize(
    ("text", "inches"),
    [
        ("12′-3½″", 147.5),
        ("12'3 1/2", 147.5),
        ("12’ 3½”", 147.5),
        ('3⅛"', 3.125),
        ("¾″", 0.75),
        ("5⅝ + ⅜", 6),
        ("11⅞″", 11.875),
        ('6 1⁄4"', 6.25),
        ("1 ft 2¼ in", 14.25),
    ],
)
def test_typographic_marks_and_vulgar_fractions_are_read(text: str, inches: float) -> None:
    assert parse_length(text, "ft-in") == pytest.approx(inches * INCH)


@pytest.mark.parametrize(
    ("inches", "denominator", "text"),
    [
        (Fraction(1, 32), 16, '1/16"'),
        (Fraction(3, 32), 16, '1/8"'),
        (Fraction(5, 32), 16, '3/16"'),
        (Fraction(-1, 32), 16, '-1/16"'),
        (Fraction(1, 2), 1, '1"'),
        (Fraction(3, 2), 1, '2"'),
        (Fraction(5, 2), 1, '3"'),
        (12 - Fraction(1, 32), 16, "1'-0\""),
        (Fraction(31, 1000), 16, '0"'),
    ],
)
def test_ties_round_away_from_zero(inches: Fraction, denominator: int, text: str) -> None:
    """As a tape is read (common practice, no source): half of a sixteenth is a sixteenth, wherever it lies."""
    assert format_length(float(inches * Fraction(254, 10)), "ft-in", denominator=denominator) == text


def test_ties_of_millimetres_round_away_from_zero() -> None:
    assert [format_length(value) for value in (0.05, 0.15, 0.25, 0.35, -0.25)] == ["0.1", "0.2", "0.3", "0.4", "-0.3"]
    assert [format_level(value) for value in (0.5, 1.5, -2.5)] == ["+0.001", "+0.002", "-0.003"]


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
