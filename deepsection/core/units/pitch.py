"""Roof pitch: rise over run, however it was written."""

from __future__ import annotations

import math
import re

from ..errors import BadPitch

Pitch = float
"""Rise over run; 0.5 is 6:12 and 26.57 degrees."""

STEEPEST_DEG = 80.0
SHALLOWEST_DEG = 0.5

_RATIO = re.compile(r"^(\d+(?:\.\d+)?)\s*(?::|/|in|to)\s*(\d+(?:\.\d+)?)$")
_DEGREES = re.compile(r"^(\d+(?:\.\d+)?)\s*(?:°|deg|degrees)$")
_PERCENT = re.compile(r"^(\d+(?:\.\d+)?)\s*%$")
_NUMBER = re.compile(r"^(\d*\.\d+)$")


def parse_pitch(text: str) -> Pitch:
    """Rise over run of a typed pitch: `6:12`, `6 in 12`, `26.57 deg`, `50 %` or a ratio `0.5`.

    >>> parse_pitch("6:12"), round(parse_pitch("45 deg"), 6)
    (0.5, 1.0)

    Raises: BadPitch, out of 0.5 to 80 degrees too.
    """
    cleaned = text.strip().lower()
    if match := _RATIO.match(cleaned):
        run = float(match[2])
        if run == 0:
            raise BadPitch("a pitch needs a run: 6:12", value=text)
        pitch = float(match[1]) / run
    elif match := _DEGREES.match(cleaned):
        degrees = float(match[1])
        pitch = math.tan(math.radians(degrees)) if degrees < 90 else math.inf
    elif match := _PERCENT.match(cleaned):
        pitch = float(match[1]) / 100
    elif match := _NUMBER.match(cleaned):
        pitch = float(match[1])
    else:
        raise BadPitch(f"“{text}” is not a pitch; try 6:12, 26.6 deg or 0.5", value=text)
    degrees = math.degrees(math.atan(pitch))
    if not SHALLOWEST_DEG <= degrees <= STEEPEST_DEG:
        raise BadPitch(
            f"a pitch of {degrees:.4g}° cannot be built here; it lies between {SHALLOWEST_DEG}° and {STEEPEST_DEG:g}°",
            value=text,
            limit=STEEPEST_DEG if degrees > STEEPEST_DEG else SHALLOWEST_DEG,
        )
    return pitch


def format_pitch(pitch: Pitch, units: str = "mm") -> str:
    """`6:12` in feet and inches (to a quarter), degrees in millimetres.

    >>> format_pitch(0.5, "ft-in"), format_pitch(1.0)
    ('6:12', '45°')
    """
    if units == "ft-in":
        rise = pitch * 12
        return f"{round(rise * 100) / 100:g}:12"
    return f"{round(math.degrees(math.atan(pitch)), 2):g}°"
