"""Colours of fills and pens on paper. White never prints as black; pens are black and greys."""

from __future__ import annotations

FILLS = {"ink": "#23272b", "paper": "#ffffff", "poche": "#4a4d50", "existing": "#d2d2ce", "section": "#23272b"}


def fill_colour(fill: str) -> str:
    """#rrggbb of a fill token or tone."""
    return FILLS.get(fill, fill)


def grey(level: float) -> str:
    """#rrggbb of a pen's grey: 0 is black."""
    value = round(255 * level)
    return f"#{value:02x}{value:02x}{value:02x}"
