"""Lengths, pitches and height sums: parse what people type, format what they read."""

from .lengths import (
    FOOT,
    INCH,
    Units,
    format_area,
    format_length,
    format_level,
    format_measured,
    format_thickness,
    parse_length,
    rounded,
)
from .pitch import Pitch, format_pitch, parse_pitch
from .sums import HeightSum, SumTerm

__all__ = [
    "FOOT",
    "INCH",
    "HeightSum",
    "Pitch",
    "SumTerm",
    "Units",
    "format_area",
    "format_length",
    "format_level",
    "format_measured",
    "format_pitch",
    "format_thickness",
    "parse_length",
    "parse_pitch",
    "rounded",
]
