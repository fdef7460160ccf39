"""Lengths as drafters type and read them.

A typed length is a sum of terms; each term is feet and inches with fractions, or a number with a
metric unit. A bare number takes the unit of the project: millimetres, or inches.
"""

from __future__ import annotations

import math
import re
from typing import Literal

from ..errors import BadLength

Units = Literal["ft-in", "mm"]

INCH = 25.4
"""Exact. Source: international yard and pound agreement, 1959."""
FOOT = 304.8

ZERO_INCHES = '0"'

_METRIC = {"mm": 1.0, "cm": 10.0, "m": 1000.0}
_LONGEST_MM = 1e7

_NUMBER = r"(?:\d+(?:\.\d*)?|\.\d+)"
_MIXED = rf"(?:(?P<{{0}}w>\d+)(?:\s+|-))?(?P<{{0}}n>\d+)\s*/\s*(?P<{{0}}d>\d+)|(?P<{{0}}x>{_NUMBER})"
_FEET = r"(?:'|′|ft\b\.?|feet\b|foot\b)"
_INCHES = r"(?:\"|″|''|in\b\.?|inch\b|inches\b)"

_OTHER_UNIT = rf"\s*(?:{_FEET}|mm\b|cm\b|m\b)"
_FEET_INCHES = re.compile(
    rf"(?:{_MIXED.format('f')})\s*{_FEET}"
    rf"(?:(?P<join>\s*-\s*|\s+|)(?:{_MIXED.format('i')})(?![\d./]|{_OTHER_UNIT})\s*(?:{_INCHES})?)?"
)
_ONLY_INCHES = re.compile(rf"(?:{_MIXED.format('i')})\s*{_INCHES}")
_METRIC_TERM = re.compile(rf"(?P<x>{_NUMBER})\s*(?P<u>mm|cm|m)\b")
_BARE = re.compile(rf"(?:{_MIXED.format('b')})")
_OPERATOR = re.compile(r"\s*([+\-−])\s*")
_VULGAR = {"½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8", "⅓": "1/3", "⅔": "2/3"}
_SPELT = str.maketrans(
    {"’": "'", "”": '"', "“": '"', "⁄": "/", "‐": "-", "‑": "-", "–": "-", "−": "-"}
    | {sign: f" {text}" for sign, text in _VULGAR.items()}
)
"""What type sets for signs of the keyboard; a vulgar fraction follows its whole number after a space."""
_TIE = 1e-6
"""Of the smallest step that is written: so close to a half, a length is a tie, and a tie goes away from zero."""


def _mixed(match: re.Match[str], prefix: str, text: str) -> float:
    """The number that one mixed group matched: whole, fraction or decimal."""
    if match[prefix + "x"] is not None:
        return float(match[prefix + "x"])
    denominator = int(match[prefix + "d"])
    if denominator == 0:
        raise BadLength(f"“{text}” divides by zero", value=text)
    return int(match[prefix + "w"] or 0) + int(match[prefix + "n"]) / denominator


def _term(text: str, at: int, units: Units) -> tuple[float, int]:
    """Value in mm of the term that starts at `at`, and where it ends."""
    if match := _FEET_INCHES.match(text, at):
        has_inches = match["ix"] is not None or match["in"] is not None
        inches = _mixed(match, "i", text) if has_inches else 0.0
        if has_inches and inches >= 12 and len(match["join"]) > 1 and "-" in match["join"]:
            return _mixed(match, "f", text) * FOOT, match.start("join")
        return _mixed(match, "f", text) * FOOT + inches * INCH, match.end()
    if match := _ONLY_INCHES.match(text, at):
        return _mixed(match, "i", text) * INCH, match.end()
    if match := _METRIC_TERM.match(text, at):
        return float(match["x"]) * _METRIC[match["u"]], match.end()
    if match := _BARE.match(text, at):
        return _mixed(match, "b", text) * (INCH if units == "ft-in" else 1.0), match.end()
    raise BadLength(f"“{text}” is not a length; try 12' 6 1/2\", 3.6m or 750 mm", value=text)


def parse_length(text: str, units: Units = "mm") -> float:
    """Millimetres of a typed length or sum of lengths; may be negative or zero.

    A hyphen after feet alone joins the inches that follow, spaced or not, as drawings print it: `8'-1"` and `8' - 1"`
    are eight feet one inch. A difference is written with both sides whole: `8'0" - 1"`, `8' - 1'`, `8' - 18"`.

    >>> round(parse_length("12' 6 1/2\\""), 4)
    3822.7
    >>> round(parse_length("5/8\\" + 9 1/4\\""), 4)
    250.825
    >>> parse_length("12′-3½″") == parse_length("12' - 3 1/2\\"")
    True
    >>> parse_length("3.6m"), parse_length("75 cm"), parse_length("3600")
    (3600.0, 750.0, 3600.0)

    Raises: BadLength.
    """
    cleaned = text.lower().translate(_SPELT).strip()
    if not cleaned:
        raise BadLength("a length is needed here", value=text)
    sign, at = 1.0, 0
    if cleaned[0] in "+-−":
        sign, at = (-1.0 if cleaned[0] in "-−" else 1.0), 1
        at += len(cleaned[at:]) - len(cleaned[at:].lstrip())
    value, at = _term(cleaned, at, units)
    total = sign * value
    while at < len(cleaned):
        operator = _OPERATOR.match(cleaned, at)
        if not operator:
            raise BadLength(f"cannot read “{cleaned[at:].strip()}” in “{text.strip()}”", value=text)
        value, at = _term(cleaned, operator.end(), units)
        total += value if operator[1] == "+" else -value
    if not math.isfinite(total) or abs(total) > _LONGEST_MM:
        raise BadLength("that is longer than 10 km", value=text, limit=_LONGEST_MM)
    return total


def _inches_text(whole: int, part: int, denominator: int) -> str:
    if not part:
        return f'{whole}"'
    common = math.gcd(part, denominator)
    fraction = f"{part // common}/{denominator // common}"
    return f'{whole} {fraction}"' if whole else f'{fraction}"'


def format_thickness(value: float, units: Units = "mm") -> str:
    """The thickness of a sheet; what an inch rule does not show, such as a membrane, is written in millimetres.

    >>> format_thickness(0.2, "ft-in"), format_thickness(12.7, "ft-in"), format_thickness(0.25)
    ('0.2 mm', '1/2"', '0.25')
    """
    if units == "ft-in":
        thin = abs(value - round(value / INCH * 32) * INCH / 32) > 0.1 and value < INCH / 8
        return f"{value:g} mm" if thin else format_length(value, units, denominator=32)
    return f"{value:g}" if value < 1.0 else format_length(value, units)


def format_length(value: float, units: Units = "mm", *, denominator: int = 16) -> str:
    """A length as it is written on a drawing.

    Feet and inches are rounded to 1/`denominator` inch and carry; millimetres to 0.1. Ties go away from zero, as tape
    measures are read.

    >>> print(format_length(304.6, "ft-in"))
    1'-0"
    >>> format_length(3600.0), format_length(12.46), format_length(0.25)
    ('3600', '12.5', '0.3')
    """
    if units == "mm":
        tenths = rounded(value * 10)
        return f"{tenths / 10:.1f}".removesuffix(".0") if tenths else "0"
    steps = abs(rounded(value / INCH * denominator))
    sign = "-" if value < 0 and steps else ""
    feet, rest = divmod(steps, 12 * denominator)
    inches, part = divmod(rest, denominator)
    if not feet:
        return f"{sign}{_inches_text(inches, part, denominator)}" if steps else ZERO_INCHES
    whole = "0 " if part and not inches else ""
    return f"{sign}{feet}'-{whole}{_inches_text(inches, part, denominator)}"


def format_measured(value: float, units: Units = "mm") -> str:
    """A length in mm that was measured, not stated: whole millimetres; in feet and inches as any other.

    >>> format_measured(3654.1), format_measured(304.8, "ft-in")
    ('3654', '1\\'-0"')
    """
    return format_length(float(round(value)) if units == "mm" else value, units)


def rounded(steps: float) -> int:
    """The nearest whole number of steps; of two that are equally near, the one farther from zero.

    >>> rounded(0.5), rounded(1.5), rounded(-2.5), rounded(0.49)
    (1, 2, -3, 0)
    """
    return int(math.copysign(math.floor(abs(steps) + 0.5 + _TIE), steps))


def format_area(value: float, units: Units = "mm") -> str:
    """An area in mm2 as it is read.

    >>> format_area(12_345_678.0), format_area(92_903.04, "ft-in")
    ('12.3 m²', '1 sq ft')
    """
    return f"{value / FOOT**2:.0f} sq ft" if units == "ft-in" else f"{value / 1e6:.1f} m²"


def format_level(value: float, units: Units = "mm") -> str:
    """A height as it is written at a level mark: always signed but for the datum; metric ones in metres.

    Source: ISO 129-1, levels in metres to three decimals (from memory); feet and inches by common practice.

    >>> print(format_level(0.0, "ft-in"), format_level(152.4, "ft-in"))
    0'-0" +0'-6"
    >>> format_level(2400.0), format_level(-450.0)
    ('+2.400', '-0.450')
    """
    sign = "+" if value > 0 else "-" if value < 0 else ""
    if units == "mm":
        whole = rounded(value)
        return f"{sign if whole else '±'}{abs(whole) / 1000:.3f}"
    text = format_length(abs(value), units)
    feet = text if "'" in text else f"0'-{text}"
    return feet if text == ZERO_INCHES else sign + feet
