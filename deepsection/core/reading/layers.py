"""What the name of a layer or a block speaks of, by whole words; only a hint beside what is drawn there."""

from __future__ import annotations

import functools
import re
import tomllib
from pathlib import Path
from typing import Literal, get_args

Meaning = Literal[
    "wall",
    "door",
    "window",
    "furniture",
    "text",
    "dimension",
    "grid",
    "hatch",
    "stair",
    "sheet",
    "above",
    "unknown",
    "nothing",
]
"""`above`: roofs, ceilings, services. `nothing`: left out by somebody's choice."""
MEANINGS: tuple[Meaning, ...] = get_args(Meaning)
FIRST: tuple[Meaning, ...] = (
    "dimension",
    "text",
    "hatch",
    "grid",
    "sheet",
    "above",
    "stair",
    "furniture",
    "door",
    "window",
    "wall",
)
"""Of several words, the one of the narrowest meaning speaks: wall hatching is hatching, window tags are texts."""

_WORD = re.compile(r"[^\W\d_]+")
_CAMEL = re.compile(r"(?<=[a-zß-ÿ])(?=[A-ZÀ-Þ])")


@functools.cache
def _words() -> dict[str, Meaning]:
    data = tomllib.loads((Path(__file__).parent / "data" / "layer_words.toml").read_text("utf-8"))
    found: dict[str, Meaning] = {}
    for meaning in reversed(FIRST):
        for word in data[meaning]:
            found[word] = meaning
    return found


def meaning_of(name: str) -> Meaning:
    """What a name speaks of: `A-WALL-PATT` of hatching, `Wände tragend` of walls, `swings` of doors.

    >>> meaning_of("A-WALL-EXT"), meaning_of("swings"), meaning_of("WINDSURF")
    ('wall', 'door', 'unknown')
    """
    spoken = name.rsplit("|", 1)[-1].rsplit("$", 1)[-1]
    words = [word.casefold() for word in _WORD.findall(" ".join(_CAMEL.split(spoken)))]
    words += [word.casefold() for word in _WORD.findall(spoken)]
    found = {_words()[word] for word in words if word in _words()}
    return next((meaning for meaning in FIRST if meaning in found), "unknown")
