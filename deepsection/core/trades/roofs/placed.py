"""Roof blocks in place: planes, the lines they meet in, and the heights that they start and end at."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal, TypeAlias

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.placed import Key
from ...geometry import Line, Plane3, Point, line_through
from ...memo import hashed_once
from ...model import RoofBlock
from ...units import HeightSum

Point3 = tuple[float, float, float]
Shape: TypeAlias = Polygon | MultiPolygon
SeamKind = Literal["ridge", "hip", "valley", "rake", "eave", "break"]


def shape_of(pieces: Iterable[Polygon]) -> Shape:
    """A polygon, or several as one shape."""
    held = list(pieces)
    return held[0] if len(held) == 1 else MultiPolygon(held)


@hashed_once
@dataclass(frozen=True)
class RoofPlane:
    """One slope: its plan with overhangs, and the top of its structure.

    `polygon` is what is left of it where roofs meet; `under` is as far as its deck goes, under a roof built over it;
    `whole` is the slope of the block alone. `eave_start` to `eave_end` is its bearing line (of an upper slope, the
    break), `heel` the height of the top of the structure there. Thicknesses are measured plumb.
    """

    roof: str
    edges: tuple[int, ...]
    upper: bool
    pitch: float
    polygon: Shape
    under: Shape
    whole: Shape
    top: Plane3
    eave_start: Point
    eave_end: Point
    heel: float
    reach: float
    """Bearing line to the outer face of the fascia."""
    plate: float
    """The height of what it bears on."""
    seat: float
    """The level cut of its birdsmouth, in from the bearing line; 0 when it has none."""
    plumb_depth: float
    covering: float
    deck: float
    onto: tuple[Plane3, ...] = ()
    """Decks of other roofs that it dies into."""

    @property
    def edge(self) -> int:
        """The first of its edges: those of one line and pitch share a slope."""
        return self.edges[0]

    @property
    def line(self) -> Line:
        """The bearing line; inward lies to its left."""
        return line_through(self.eave_start, self.eave_end)

    @property
    def inward(self) -> Point:
        """The direction in which it rises, in plan."""
        line = self.line
        return -line.dy, line.dx

    @property
    def length(self) -> float:
        """Of its bearing line."""
        return math.dist(self.eave_start, self.eave_end)

    def has(self, x: float, y: float) -> bool:
        """Whether it lies over a place."""
        return bool(shapely.contains_xy(self.polygon, x, y))

    def covered(self, x: float, y: float) -> float:
        """The height of its covering over a place."""
        return self.top.z(x, y) + self.covering


@dataclass(frozen=True, slots=True)
class RoofSeam:
    """Where slopes meet or end, from its lower end to its upper one, at the top of the structure.

    `edges` are those of its slopes. Of a valley between two roofs the heights are those of the covering, and `others`
    names the other roof.
    """

    kind: SeamKind
    edges: tuple[int, ...]
    start: Point3
    end: Point3
    others: tuple[str, ...] = ()

    @property
    def length(self) -> float:
        """True length (mm)."""
        return math.dist(self.start, self.end)


@hashed_once
@dataclass(frozen=True)
class ResolvedRoof:
    """A roof block in place. Per edge: `faces`, from the bearing line to the outer face of the wall below, and
    `reaches`, to the end of the slopes."""

    block: RoofBlock
    outline: Polygon
    bearing: tuple[tuple[Point, ...], ...]
    """The corners of the bearing lines, ring by ring."""
    planes: tuple[RoofPlane, ...]
    seams: tuple[RoofSeam, ...]
    faces: tuple[float, ...]
    reaches: tuple[float, ...]
    plate: HeightSum
    heel: HeightSum
    eaves: tuple[tuple[int, HeightSum], ...]
    """Per edge that slopes, the height of the top of the structure at its fascia."""
    ridge_top: HeightSum
    run: float
    """From the bearing line to the highest ridge."""
    dying: tuple[tuple[int, str], ...] = ()
    """The edges that run into another roof, each with that roof."""
    proofs: tuple[HeightSum, ...] = ()
    """The height of each ridge as it is found from each of its sides."""

    @property
    def joins(self) -> tuple[str, ...]:
        """The roofs that it runs into."""
        return tuple(host for _, host in self.dying)

    @property
    def eave(self) -> HeightSum:
        """The height of its first eave."""
        return self.eaves[0][1]

    def eave_of(self, edge: int) -> HeightSum:
        """The height of an eave."""
        return next((height for held, height in self.eaves if held == edge), self.eave)

    def slot_of(self, plane: RoofPlane) -> str:
        """The name of a slope within the block."""
        return f"edge:{self.edge_id(plane.edge)}{':upper' if plane.upper else ''}"

    def edge_id(self, edge: int) -> str:
        """The id of an edge by its place among the edges."""
        return str(self.block.edges[edge].id)

    def neighbours(self, edge: int) -> tuple[int, int]:
        """The edges before and after one, in its ring."""
        first = 0
        for ring in self.bearing:
            if edge < first + len(ring):
                count = len(ring)
                return first + (edge - first - 1) % count, first + (edge - first + 1) % count
            first += len(ring)
        raise IndexError(edge)

    def side(self, edge: int) -> tuple[Point, Point]:
        """The bearing line of an edge."""
        points = [(a, b) for ring in self.bearing for a, b in zip(ring, (*ring[1:], ring[0]))]
        return points[edge]

    def drawn_side(self, edge: int) -> tuple[Point, Point]:
        """The side of the outline that an edge stands on: along the set-out line of the wall below it."""
        rings = (list(ring.coords) for ring in (self.outline.exterior, *self.outline.interiors))
        sides = [((a[0], a[1]), (b[0], b[1])) for ring in rings for a, b in pairwise(ring)]
        return sides[edge]

    def has_fascia(self, edge: int) -> bool:
        """Whether the overhang leaves room for a fascia before the wall face."""
        return self.reaches[edge] - self.block.fascia_thickness >= self.faces[edge]

    def of(self, kind: SeamKind) -> tuple[RoofSeam, ...]:
        """The lines of a kind."""
        return tuple(seam for seam in self.seams if seam.kind == kind)


ROOFS: Key[tuple[ResolvedRoof, ...]] = Key("roof planes")
