"""Thick insulation between two leaves: in two layers, whose joints do not lie over each other."""

from __future__ import annotations

from collections.abc import Iterator

from .faces import LayerFace
from .pieces import Piece, block

DOUBLE = 140.0
"""From this thickness on (mm) insulation in a cavity is of two layers. Common practice, no source."""
BEYOND = 800.0
"""Details show less of a wall than this above and below what they are of (mm)."""


def is_double(boards: LayerFace) -> bool:
    """Whether insulation is so thick that it comes in two layers."""
    return boards.thick >= DOUBLE


def second_layer(boards: LayerFace, low: float, high: float) -> Iterator[Piece]:
    """The outer one of two layers, between two heights where insulation is."""
    if is_double(boards):
        yield Piece(
            "second-layer", "insulation in two layers, joints staggered", "insulation", boards.layer.material,
            block(boards.middle, boards.outer, low, high), "insulation", ("thermal",), takes=("insulation",),
        )  # fmt: skip
