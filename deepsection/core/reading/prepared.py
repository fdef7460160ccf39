"""Strokes made ready: edges of narrow areas and of wide lines among them, each with how likely it is a wall's face."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from shapely import STRtree
from shapely.geometry import LineString, Polygon
from shapely.geometry import Point as Spot
from shapely.geometry.base import BaseGeometry

from deepsection.core.geometry import Point

from .drawn import Area, Drawn, Stroke
from .layers import Meaning, meaning_of
from .rails import circle_of
from .straightened import LEAST, MOST, off_by, straightened
from .strips import THICKEST, THINNEST

NOT_WALLS: frozenset[Meaning] = frozenset(
    ("door", "window", "furniture", "text", "dimension", "grid", "hatch", "stair", "sheet", "above", "nothing")
)


@dataclass(slots=True)
class Prepared:
    """Strokes of a drawing (mm) with those made of its areas and wide lines; `made` counts the latter.

    `filled` are the areas as narrow as walls. Strokes that are straightened lie elsewhere than `as_drawn`, by what
    their ends were `off` (mm).
    """

    strokes: list[Stroke]
    first_made: int
    meanings: dict[str, Meaning]
    filled: list[BaseGeometry]
    block_meanings: list[Meaning]
    chosen: frozenset[str]
    as_drawn: list[Stroke]
    off: float = 0.0

    def straight(self) -> Prepared | None:
        """The same with its lines straightened; None where they were drawn with snaps, or nothing can be told."""
        off = off_by(self.strokes)
        return replace(self, strokes=straightened(self.strokes, off), off=off) if LEAST < off < MOST else None

    def usable(self, *, all_layers: bool, beside: Sequence[Point] = ()) -> list[bool]:
        """Which strokes may be faces of walls: by the names of their layers and blocks, or whatever these are; those
        beside the places that are given always."""
        found = []
        for k, stroke in enumerate(self.strokes):
            own = self.meanings[stroke.layer]
            if k >= self.first_made:
                found.append(own not in NOT_WALLS or own == "hatch")
            elif stroke.block >= 0 and self.block_meanings[stroke.block] in NOT_WALLS:
                found.append(False)
            else:
                found.append(own not in NOT_WALLS or (all_layers and stroke.layer not in self.chosen))
        if beside:
            lines = STRtree([LineString((stroke.a, stroke.b)) for stroke in self.strokes])
            for k in lines.query([Spot(at) for at in beside], predicate="dwithin", distance=THICKEST)[1].tolist():
                found[k] = True
        return found


def prepared(drawn: Drawn, chosen: Mapping[str, Meaning]) -> Prepared:
    """What a drawing (mm) gives to look for walls in; `chosen` are meanings of layers that somebody stated."""
    meanings: dict[str, Meaning] = {layer: chosen.get(layer, meaning_of(layer)) for layer in drawn.layers}
    strokes = [s for s in drawn.strokes if s.width < THINNEST and meanings[s.layer] != "nothing"]
    first = len(strokes)
    filled: list[BaseGeometry] = []
    for stroke in drawn.strokes:
        if meanings[stroke.layer] == "nothing":
            continue
        if THINNEST <= stroke.width <= THICKEST:
            strokes += _wide(stroke)
        elif stroke.width > THICKEST:
            strokes.append(stroke)
    for area in drawn.areas:
        shape = _shape(area)
        if shape is None or meanings[area.layer] == "nothing" or not _narrow(shape):
            continue
        filled.append(shape)
        for ring in area.rings:
            for a, b in zip(ring, [*ring[1:], ring[0]]):
                if math.dist(a[:2], b[:2]) > 1.0:
                    strokes.append(Stroke(a[:2], b[:2], a[2], area.layer, area.entity))
    named = [meaning_of(held.name) for held in drawn.blocks]
    return Prepared(strokes, first, meanings, filled, named, frozenset(chosen), strokes)


def _wide(stroke: Stroke) -> Iterator[Stroke]:
    """Both edges of a line that is as wide as a wall, and its ends."""
    half = stroke.width / 2
    if not stroke.bulge:
        length = math.dist(stroke.a, stroke.b)
        if length < 1.0:
            return
        nx, ny = -(stroke.b[1] - stroke.a[1]) / length * half, (stroke.b[0] - stroke.a[0]) / length * half
        sides = [[(p[0] + nx * side, p[1] + ny * side) for p in (stroke.a, stroke.b)] for side in (1, -1)]
    else:
        centre, radius = circle_of(stroke)
        sides = [
            [
                (
                    centre[0] + (p[0] - centre[0]) * (radius + by) / radius,
                    centre[1] + (p[1] - centre[1]) * (radius + by) / radius,
                )
                for p in (stroke.a, stroke.b)
            ]
            for by in (half, -half)
        ]
    for a, b in sides:
        yield Stroke(a, b, stroke.bulge, stroke.layer, stroke.entity, stroke.block)
    for one, other in zip(*sides):
        yield Stroke(one, other, 0.0, stroke.layer, stroke.entity, stroke.block)


def _shape(area: Area) -> BaseGeometry | None:
    rings = []
    for ring in area.rings:
        spots: list[tuple[float, float]] = []
        for a, b in zip(ring, [*ring[1:], ring[0]]):
            spots.append((a[0], a[1]))
            if a[2]:
                centre, radius = circle_of(Stroke(a[:2], b[:2], a[2], "", 0))
                sweep, first = 4 * math.atan(a[2]), math.atan2(a[1] - centre[1], a[0] - centre[0])
                steps = max(2, int(abs(sweep) / 0.1))
                for k in range(1, steps):
                    turn = first + sweep * k / steps
                    spots.append((centre[0] + radius * math.cos(turn), centre[1] + radius * math.sin(turn)))
        if len(spots) > 2:
            rings.append(Polygon(spots).buffer(0))
    if not rings:
        return None
    shape: BaseGeometry = rings[0]
    for ring in rings[1:]:
        shape = shape.symmetric_difference(ring)
    return shape


def _narrow(shape: BaseGeometry) -> bool:
    """Whether an area is, on the whole, as narrow as walls are."""
    around = shape.length
    return bool(around > 0 and THINNEST * 0.8 <= 2 * shape.area / around <= THICKEST)


class Filled:
    """The areas as narrow as walls, to ask whether a place lies in one."""

    def __init__(self, shapes: Sequence[BaseGeometry]) -> None:
        self._tree = STRtree(list(shapes)) if shapes else None

    def share(self, spots: Sequence[tuple[float, float]]) -> float:
        """How many of some places lie in such an area, as a share."""
        if self._tree is None or not spots:
            return 0.0
        found = self._tree.query([Spot(spot) for spot in spots], predicate="within")
        return len(np.unique(found[0])) / len(spots)

    def __bool__(self) -> bool:
        return self._tree is not None
