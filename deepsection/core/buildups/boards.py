"""What lies between two leaves: ties, and thick insulation in two layers, whose joints do not lie over each other."""

from __future__ import annotations

from collections.abc import Iterator

from .buildup import Found
from .faces import LayerFace, WallFaces
from .parameters import Parameter, Values
from .pieces import STRIP, Piece, under

DOUBLE = 140.0
"""From this thickness on (mm) insulation in a cavity is of two layers. Common practice, no source."""
WIDE = 175.0
"""From this width of its cavity on (mm) the ties of a wall are an engineer's."""
TIES = Parameter(
    "ties", "Spacing of the wall ties", 900.0, 225.0, 1200.0, "Approved Document A: 900 by 450, from memory"
)
BEYOND = 800.0
"""Details show less of a wall than this above and below what they are of (mm)."""


def is_double(boards: LayerFace) -> bool:
    """Whether insulation is so thick that it comes in two layers."""
    return boards.thick >= DOUBLE


def second_layer(boards: LayerFace, low: float, high: float, rise: float = 0.0) -> Iterator[Piece]:
    """The outer one of two layers, between two heights where insulation is; its top rises inward by so much per mm."""
    if is_double(boards):
        yield Piece(
            "second-layer", "insulation in two layers, joints staggered", "insulation", boards.layer.material,
            under([(boards.outer, low), (boards.outer, high), (boards.middle, high + rise * boards.thick / 2),
                   (boards.middle, low)]), "insulation", ("thermal",), takes=("insulation",),
            inlaid="insulation",
        )  # fmt: skip


def wall_tie(wall: WallFaces, v: float, every: float) -> Iterator[Piece]:
    """A row of ties across a cavity at a height, so far apart."""
    if wall.leaf is None or wall.between is None:
        return
    (outer, _), near, far = wall.between, wall.leaf.outer - 40.0, wall.frame.inner + 40.0
    yield Piece(
        "tie",
        "wall ties at {ties} by 450, by engineer" if _is_wide(wall) else "wall ties at {ties} by 450, drip in the gap",
        "fixing", "steel",
        under([(near, v), (outer - 25.0, v), (outer - 28.0, v - 6.0), (outer - 31.0, v), (far, v), (far, v + 3.0),
               (near, v + 3.0)]),
        "sheet", ("structure",), every=every, wide=20.0, first=225.0, even=True,
        takes=("structure", "insulation", "lintel"), yields=("frame", "sash", "glass", "leaf", "panel"), tier=STRIP,
    )  # fmt: skip


def tie_rules(wall: WallFaces, p: Values) -> Iterator[Found]:
    """How far apart ties may stand, and whose they are."""
    if wall.between is not None and _is_wide(wall):
        words = f"the cavity is {p.said(wall.between[0] - wall.between[1])} wide: its ties are an engineer's"
        yield Found(words, "Approved Document A, from memory")
    if p.ties > 900.05:
        yield Found(f"wall ties at {p.said(p.ties)}: {p.said(900.0)} at most", "Approved Document A, from memory")


def _is_wide(wall: WallFaces) -> bool:
    return wall.between is not None and wall.between[0] - wall.between[1] >= WIDE
