"""Walls in plan: their faces, layers and outlines."""

from __future__ import annotations

import math
from dataclasses import dataclass, field, replace
from functools import cached_property

import numpy as np
import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.diagnostics import Diagnostic
from ...building.placed import Key
from ...geometry import Axis, Circle, Line, Point
from ...memo import hashed_once
from ...tolerance import TOL
from .bands import drift_of
from .model import Wall

SHELTER = 50.0
"""What lies this far (mm) outside of a wall is what it stands in."""


@dataclass(frozen=True, slots=True)
class PlannedLayer:
    """A layer in plan: its polygon, and its faces as distances outward from the set-out line.

    `polygon` gives way to walls that stand on this one; `whole` is the layer above their tops.
    """

    layer: str
    outer: float
    inner: float
    polygon: Polygon | MultiPolygon
    whole: Polygon


@dataclass(frozen=True, slots=True)
class LocalFrame:
    """A straight frame on a wall: through the foot of `along` 0 forward and outward, both unit vectors.

    On a straight wall it is the wall's own, on an arc the one that touches it at a place.
    """

    line: Line
    out: Point

    @property
    def run(self) -> Point:
        """Unit vector along."""
        return self.line.dx, self.line.dy

    def at(self, along: float, outward: float = 0.0) -> Point:
        """Plan point at a distance along, measured as on the wall, and outward."""
        x, y = self.line.at(along)
        return x + self.out[0] * outward, y + self.out[1] * outward

    def panel(self, left: float, right: float, inner: float, outer: float) -> Polygon:
        """The piece in plan between two distances along, from one distance outward to another."""
        return Polygon([self.at(left, inner), self.at(right, inner), self.at(right, outer), self.at(left, outer)])


@hashed_once
@dataclass(frozen=True)
class PlannedWall:
    """A wall in plan, joins solved, along its set-out line."""

    wall: Wall
    axis: Axis
    layers: tuple[PlannedLayer, ...]
    footprint: Polygon
    drifts: tuple[Point, Point] = ((0.0, 0.0), (0.0, 0.0))
    """How far its start and its end move in plan per mm that it rises: where leaning walls meet."""
    known: list[int] = field(default_factory=list, init=False, compare=False, repr=False)
    """Its hash, once it was worked out: walls are keys of every later stage."""

    def __hash__(self) -> int:
        if not self.known:
            self.known.append(hash((self.wall, self.axis, self.layers, self.footprint, self.drifts)))
        return self.known[0]

    @property
    def start(self) -> Point:
        """Where the set-out line starts."""
        return self.axis.start

    @property
    def end(self) -> Point:
        """Where the set-out line ends."""
        return self.axis.end

    @property
    def length(self) -> float:
        """Of the set-out line (mm)."""
        return self.axis.length

    @property
    def side(self) -> float:
        """1.0 when its outside is at the left of the set-out line, else -1.0."""
        return 1.0 if self.wall.outside == "left" else -1.0

    @property
    def outer(self) -> float:
        """Distance outward from the set-out line to the outer face."""
        return self.layers[0].outer

    @property
    def inner(self) -> float:
        """Distance outward (so mostly negative) to the inner face."""
        return self.layers[-1].inner

    @property
    def run(self) -> Point:
        """Unit vector from start to end: the direction of plates, and of a straight wall."""
        return (self.end[0] - self.start[0]) / self.axis.chord, (self.end[1] - self.start[1]) / self.axis.chord

    @property
    def curve(self) -> Circle | None:
        """The circle of the set-out line of an arc."""
        face = self.axis.face(0.0)
        return face if isinstance(face, Circle) else None

    def stand(self, along: float = 0.0) -> LocalFrame:
        """The straight frame at a place."""
        line = self.axis.tangent(along)
        return LocalFrame(line, (-self.side * line.dy, self.side * line.dx))

    def at(self, along: float, outward: float = 0.0) -> Point:
        """Plan point at a distance along from the start, and outward."""
        return self.axis.at(along, self.side * outward)

    def strip(self, left: float, right: float, inner: float, outer: float) -> Polygon:
        """The piece in plan between two distances along, from one distance outward to another, curved as it is."""
        if self.axis.is_arc:
            rest = (math.tau * self.axis.radius() - self.length) / 2 - 1.0
            left, right = max(left, -rest), min(right, self.length + rest)
        return self.axis.strip(left, right, self.side * outer, self.side * inner)

    @property
    def drift(self) -> Point:
        """How far it moves in plan per mm that it rises, between its ends."""
        return drift_of(self.wall, self.axis)

    @property
    def is_plumb(self) -> bool:
        """Whether it has the same plan at every height."""
        return not self.wall.lean and self.drifts == ((0.0, 0.0), (0.0, 0.0))

    def risen(self, point: Point, rise: float) -> Point:
        """Where a corner of its plan at its foot lies, so much higher up."""
        along, near = self.axis.along(point), min(self.length / 2, 3 * (self.outer - self.inner))
        (dx, dy) = self.drifts[0] if along < near else self.drifts[1] if along > self.length - near else self.drift
        return point[0] + dx * rise, point[1] + dy * rise

    def at_rise(self, rise: float) -> PlannedWall:
        """The same wall as it is cut so much above its foot: of a leaning one, the plan moves."""
        if self.is_plumb:
            return self

        def moved(shape: Polygon | MultiPolygon) -> Polygon | MultiPolygon:
            return shapely.transform(shape, lambda points: np.array([self.risen((x, y), rise) for x, y in points]))

        dx, dy = (value * rise for value in self.drift)
        ends = [(x + dx, y + dy) for x, y in (self.start, self.end)]
        layers = tuple(replace(layer, polygon=moved(layer.polygon), whole=moved(layer.whole)) for layer in self.layers)
        axis = Axis(ends[0], ends[1], self.axis.bulge)
        return PlannedWall(self.wall, axis, layers, moved(self.footprint), self.drifts)

    def inner_at(self, along: float) -> float:
        """Distance outward to the inner face at a distance along: of a tapered wall it differs."""
        start = self.inner - min(self.wall.taper, 0.0)
        return start + self.wall.taper * along / self.length if self.wall.taper and not self.axis.is_arc else self.inner

    def bulging(self, width: float) -> float:
        """How far an arc's faces leave a straight piece of this width (mm)."""
        if not self.axis.is_arc:
            return 0.0
        least = min(self.axis.radius(self.side * face) for face in (self.outer, self.inner))
        return least - math.sqrt(max(least**2 - width**2 / 4, 0.0))


@dataclass(frozen=True, slots=True)
class Outline:
    """A closed ring of outer walls of a storey, along their set-out lines, and the free spaces between walls within.

    It is named by its first wall that belongs to no other ring, so that its name lasts; `walls` are those along it.
    """

    name: str
    level: str
    plate: str
    polygon: Polygon
    spaces: tuple[Polygon, ...]
    walls: tuple[str, ...]


@hashed_once
@dataclass(frozen=True)
class WallPlan:
    """All walls in plan, storey by storey, and the closed outlines of the outer ones."""

    walls: tuple[PlannedWall, ...]
    outlines: tuple[Outline, ...]
    diagnostics: tuple[Diagnostic, ...]

    def on(self, level: str) -> tuple[PlannedWall, ...]:
        """The walls that stand on a level."""
        return tuple(wall for wall in self.walls if wall.wall.base.level == level)

    def outlines_on(self, level: str) -> tuple[Outline, ...]:
        """The outlines of the walls that stand on a level."""
        return tuple(outline for outline in self.outlines if outline.level == level)

    def outlines_under(self, plate: str) -> tuple[Outline, ...]:
        """The outlines of the walls that reach up to a level."""
        return tuple(outline for outline in self.outlines if outline.plate == plate)

    def sheltered(self, wall: PlannedWall) -> list[tuple[float, float]]:
        """From-to along a straight wall where another part of its storey lies outside of it, and no weather."""
        if wall.axis.is_arc:
            return []
        face = shapely.LineString([wall.at(at, wall.outer + SHELTER) for at in (0.0, wall.length)])
        around = shapely.union_all([outline.polygon for outline in self.outlines_on(wall.wall.base.level)])
        found = []
        for piece in shapely.get_parts(face.intersection(around)):
            ends = sorted(wall.axis.along((x, y)) for x, y in shapely.get_coordinates(piece).tolist())
            if ends and ends[-1] - ends[0] > SHELTER:
                found.append((ends[0], ends[-1]))
        return found

    def reach_of(self, level: str) -> shapely.Geometry:
        """What the boxes of the walls of a level cover, or of all walls where it has none."""
        return shapely.union_all([shapely.box(*wall.footprint.bounds) for wall in self.on(level) or self.walls])

    @cached_property
    def house(self) -> shapely.Geometry:
        """All that walls stand on or enclose, without the slivers that corners drawn by eye leave between them."""
        covered = [*(outline.polygon for outline in self.outlines), *(wall.footprint for wall in self.walls)]
        return shapely.union_all(covered, grid_size=TOL.node)

    @cached_property
    def by_id(self) -> dict[str, PlannedWall]:
        """The walls by their ids."""
        return {wall.wall.id: wall for wall in self.walls}


WALLS: Key[WallPlan] = Key("wall plan")
