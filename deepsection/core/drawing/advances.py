"""How wide lettering is, by the advances of the fonts that ship with the application."""

from __future__ import annotations

from functools import cache, lru_cache
from importlib.resources import files
from typing import Literal

from fontTools.ttLib import TTFont

Face = Literal["sans", "bold", "mono"]
CAP_HEIGHT = 0.698
"""Height of capitals over the font size: a 2.5 mm letter is 2.5 mm high. Source: the fonts' OS/2 tables."""
TALLEST, LOWEST = 1.12, 0.32
"""How far letters reach over and under the base line, in heights of capitals. Source: the fonts' glyphs."""
HANGING = frozenset("gjpqyQ,;@()[]{}|/_")
"""Letters that reach below the base line."""


@cache
def _advances(face: Face) -> dict[int, float]:
    """By code point, the advance in heights of capitals."""
    with (files("deepsection") / "fonts" / f"{face}.ttf").open("rb") as file:
        font = TTFont(file, lazy=True)
        widths, em = font["hmtx"].metrics, font["head"].unitsPerEm * CAP_HEIGHT
        return {code: widths[glyph][0] / em for code, glyph in font.getBestCmap().items()}


@lru_cache(maxsize=20_000)
def text_width(text: str, size: float, face: Face = "mono") -> float:
    """How wide a line of text is, in the unit of its size (height of capitals); what the face lacks is as wide as M.

    >>> round(text_width("0", 2.5) / 2.5, 3)
    0.86
    """
    advances = _advances(face)
    wide = advances[ord("M")]
    return sum(advances.get(ord(letter), wide) for letter in text) * size


def wrapped(text: str, size: float, widest: float, face: Face = "mono") -> list[str]:
    """The lines of a text: as it has them, and parted between words where one would get wider than that.

    >>> wrapped("on battens over felt", 2.5, 25.0)
    ['on battens', 'over felt']
    """
    lines = []
    for held in text.splitlines() or [text]:
        line = ""
        for word in held.split(" "):
            longer = f"{line} {word}" if line else word
            if line and text_width(longer, size, face) > widest:
                lines.append(line)
                longer = word
            line = longer
        lines.append(line)
    return lines
