"""Level of detail follows scale: the one table of what appears from which scale."""

from __future__ import annotations

SHOWN_FROM: dict[str, float] = {
    "layers": 70.0,
    "membrane": 26.0,
    "vapour": 26.0,
    "unit": 130.0,
    "strings inside": 100.0,
    "depths": 26.0,
    "note stacks": 50.0,
    "notes of pieces": 33.0,
    "structure": 70.0,
    "sheathing": 70.0,
    "insulation": 70.0,
    "cladding": 70.0,
    "lining": 70.0,
    "cavity": 70.0,
    "finish": 70.0,
}
"""Largest scale denominator at which a kind of layer, or of lettering, is drawn. Common practice, no source."""


def shown_from(function: str, scale: float) -> bool:
    """Whether a kind of layer is drawn at 1:`scale`.

    >>> shown_from("membrane", 48), shown_from("membrane", 20), shown_from("layers", 96)
    (False, True, False)
    """
    return scale <= SHOWN_FROM.get(function, 1e9)
