"""Stairs drawn into a plan: treads as lines, the line that is walked with its head, words. Millimetres."""

from __future__ import annotations

import itertools
import math
from dataclasses import dataclass
from typing import Any

from .truth import Spot


@dataclass(frozen=True)
class TrueStair:
    """A stair from its foot, the way up turned by `turn` (degrees); risers of its flights; what is between them.

    `left`: it turns to the left. `arrow`: the way its head points, up or down or not drawn; `word` stands at its foot.
    """

    foot: Spot
    turn: float = 0.0
    risers: tuple[int, ...] = (14,)
    between: str = ""
    left: bool = True
    width: float = 900.0
    going: float = 250.0
    well: float = 100.0
    arrow: str = "up"
    word: str = ""
    layer: str = "A-STRS"

    def at(self, along: float, across: float) -> Spot:
        """A place by how far along the first flight it lies, and how far to the side it turns to."""
        turn = math.radians(self.turn)
        left = across if self.left else -across
        cos, sin = math.cos(turn), math.sin(turn)
        return self.foot[0] + along * cos - left * sin, self.foot[1] + along * sin + left * cos


def draw_stair(space: Any, stair: TrueStair) -> None:
    """Treads, strings, walking line with its head, word."""
    half, going = stair.width / 2, stair.going
    first = (stair.risers[0] - 1) * going
    look = {"layer": stair.layer}

    def line(a: Spot, b: Spot) -> None:
        space.add_line(stair.at(*a), stair.at(*b), dxfattribs=look)

    for k in range(stair.risers[0]):
        line((k * going, -half), (k * going, half))
    line((0, -half), (first, -half))
    line((0, half), (first, half))
    path: list[Spot] = [(-150.0, 0.0), (first, 0.0)]
    if stair.between == "half landing":
        over = stair.width + stair.well
        for k in range(stair.risers[1]):
            line((first - k * going, over - half), (first - k * going, over + half))
        path[-1:] = [(first + half, 0.0), (first + half, over), (first - (stair.risers[1] - 1) * going, over)]
    elif stair.between:
        for k in range(stair.risers[1]):
            line((first, half + k * going), (first + stair.width, half + k * going))
        path[-1:] = [(first + half, 0.0), (first + half, half + (stair.risers[1] - 1) * going)]
    if stair.between == "winders":
        reach = stair.width * math.tan(math.radians(30))
        line((first, half), (first + stair.width, half - reach))
        line((first, half), (first + reach, -half))
    if stair.arrow:
        ends = list(itertools.pairwise(path))
        for a, b in ends:
            line(a, b)
        a, b = ends[-1] if stair.arrow == "up" else ends[0][::-1]
        long = math.dist(a, b)
        ux, uy = (b[0] - a[0]) / long, (b[1] - a[1]) / long
        for side in (60.0, -60.0):
            line(b, (b[0] - 120 * ux - side * uy, b[1] - 120 * uy + side * ux))
    if stair.word:
        place = stair.at(-280.0, 0.0)
        space.add_text(stair.word, height=120, dxfattribs={"insert": place, "halign": 4, "align_point": place})
