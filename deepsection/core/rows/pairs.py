"""Pairs of lengths as text: `a: b, c: d`."""

from __future__ import annotations

from collections.abc import Iterable

from ..errors import BadInput
from ..units import Units, format_length, parse_length

Pair = tuple[float, float]


def write_pairs(pairs: Iterable[Pair], units: Units) -> str:
    """Pairs as they are typed."""
    return ", ".join(f"{format_length(first, units)}: {format_length(second, units)}" for first, second in pairs)


def read_pairs(text: str, units: Units, field: str, what: str) -> list[Pair]:
    """Pairs as typed; `what` names one of them and how it is written. Raises: BadInput."""
    pairs = []
    for part in filter(None, (piece.strip() for piece in text.split(","))):
        first, colon, second = part.partition(":")
        if not colon:
            raise BadInput(f"“{part}” is no {what}", field=field, value=text)
        pairs.append((parse_length(first, units), parse_length(second, units)))
    return pairs
