"""What was read of a plan: walls, openings, rooms, grid lines, and what was left over. Millimetres."""

from __future__ import annotations

import math
from dataclasses import dataclass, field, replace
from typing import Literal

from shapely.geometry import Point as Spot
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from deepsection.core.geometry import Point

OpeningKind = Literal["window", "door", "opening"]


@dataclass(frozen=True, slots=True)
class EndOn:
    """How a wall ends: `tee` on the wall at that position, sharing a `corner` with others, or `free`."""

    kind: Literal["corner", "tee", "free"]
    wall: int = -1


@dataclass(frozen=True, slots=True)
class FoundLayer:
    """A layer of which a file says more than its thickness: its name, material and what it does, in its own words."""

    name: str
    material: str
    function: str
    thickness: float


@dataclass(frozen=True, slots=True)
class FoundWall:
    """A wall by its axis. `layers` are thicknesses from its left to its right where it was drawn in several; `stack`
    what is known of them, from the outside in."""

    start: Point
    end: Point
    bulge: float
    thickness: float
    layers: tuple[float, ...]
    confidence: float
    reason: str
    layer: str
    start_on: EndOn
    end_on: EndOn
    outer: bool = False
    outside: Literal["left", "right"] = "left"
    stack: tuple[FoundLayer, ...] = ()

    @property
    def length(self) -> float:
        """Along its axis (mm)."""
        chord = math.dist(self.start, self.end)
        sweep = 4 * math.atan(abs(self.bulge))
        return chord if not sweep else chord / 2 / math.sin(sweep / 2) * sweep


@dataclass(frozen=True, slots=True)
class FoundOpening:
    """An opening: distance along the axis of its wall from its start to the middle."""

    wall: int
    distance: float
    width: float
    kind: OpeningKind
    confidence: float
    reason: str
    number: str = ""
    height: float | None = None
    sill: float | None = None
    leaves: int = 1
    hinge: Literal["start", "end"] = "start"
    swing: Literal["left", "right"] = "left"


@dataclass(frozen=True, slots=True)
class FoundRoom:
    """A name where it stands, and the area stated beside it (m2)."""

    name: str
    at: Point
    area: float | None = None


@dataclass(frozen=True, slots=True)
class FoundGrid:
    """A grid line with the label in its bubble."""

    label: str
    start: Point
    end: Point


@dataclass(frozen=True, slots=True)
class FoundFlight:
    """A flight of so many risers with its outline, and the turn after it: to a side, over a well or by winders."""

    risers: int
    outline: tuple[Point, ...]
    turn: Literal["", "landing", "half landing", "winders"] = ""
    side: Literal["left", "right"] = "left"
    well: float = 0.0
    winders: int = 0


@dataclass(frozen=True, slots=True)
class FoundStair:
    """A stair: the middle of its first riser, the way up from there (degrees), its flights in the order they are
    walked up. `down`: it is drawn from above, as the one that leads down from there."""

    foot: Point
    turn: float
    width: float
    going: float
    flights: tuple[FoundFlight, ...]
    confidence: float
    reason: str
    down: bool = False

    @property
    def risers(self) -> int:
        """As many as are drawn, with those of its winders."""
        return sum(held.risers + max(held.winders - 1, 0) for held in self.flights)


@dataclass(frozen=True, slots=True)
class Slope:
    """A plane of a roof in one piece: its area in plan, and z = a x + b y + c (mm); the names of what it is made of."""

    area: Polygon
    a: float
    b: float
    c: float
    of: frozenset[str] = frozenset()

    @property
    def pitch(self) -> float:
        """How much it rises per unit of length."""
        return math.hypot(self.a, self.b)

    def z(self, spot: Spot) -> float:
        """Its height over a place."""
        return self.a * float(spot.x) + self.b * float(spot.y) + self.c


@dataclass(frozen=True, slots=True)
class FoundRoofEdge:
    """An eave with the pitch of its slope, a gable, or an end that runs into a bigger roof; how high its middle is."""

    kind: Literal["eave", "gable", "joined"]
    pitch: float | None
    z: float


@dataclass(frozen=True, slots=True)
class FoundRoof:
    """A roof as it is seen from above: its outline counter-clockwise, an edge from each corner, its slopes.

    `wings`: the gabled roofs that it consists of, the biggest first, those after it running into others. A roof whose
    outline is no plain one has no edges of its own.
    """

    outline: tuple[Point, ...]
    edges: tuple[FoundRoofEdge, ...]
    slopes: tuple[Slope, ...]
    wings: tuple[FoundRoof, ...] = ()

    def lifted(self, by: float) -> FoundRoof:
        """It, so much higher (mm)."""
        return FoundRoof(
            self.outline,
            tuple(replace(edge, z=edge.z + by) for edge in self.edges),
            tuple(replace(slope, c=slope.c + by) for slope in self.slopes),
            tuple(wing.lifted(by) for wing in self.wings),
        )


@dataclass(frozen=True, slots=True)
class FoundLevel:
    """A height that is written: of the floor above the datum, or of the ceiling above the floor (mm)."""

    text: str
    at: Point
    value: float
    of: Literal["floor", "ceiling"]


@dataclass(frozen=True, slots=True)
class FoundNorth:
    """Where north is: degrees clockwise from up on the sheet."""

    angle: float
    at: Point
    reason: str


@dataclass(frozen=True, slots=True)
class Checked:
    """A dimension: its text, what that says and what is drawn between its points (mm)."""

    text: str
    stated: float
    measured: float
    at: Point

    @property
    def difference(self) -> float:
        return self.stated - self.measured


@dataclass(frozen=True, slots=True)
class UnitFound:
    """The unit of a file, the factor to mm, how sure that is, and why."""

    name: str
    factor: float
    confidence: float
    reason: str


@dataclass(frozen=True, slots=True)
class Left:
    """What is left of a layer: how many things of a kind, and what they may be."""

    layer: str
    what: str
    count: int


@dataclass(frozen=True, slots=True)
class FoundSlab:
    """The floor of a storey in a model: its area in plan with its holes, how thick it is, its layers from above; the
    names of what it is made of."""

    area: BaseGeometry
    thickness: float
    stack: tuple[FoundLayer, ...] = ()
    of: frozenset[str] = frozenset()


@dataclass(frozen=True, slots=True)
class Storey:
    """One of the plans of a drawing: its title, the shift that lays it over the lowest, its walls by position.

    Of a model it is known how far it lies above the lowest, and how high its walls are (mm); in a drawing levels of
    floors and heights of ceilings may be written.
    """

    title: str
    shift: Point
    walls: tuple[int, ...]
    above: float = 0.0
    height: float | None = None
    slab: FoundSlab | None = None
    ceiling: float | None = None


@dataclass(slots=True)
class ReadPlan:
    """All of it. `origin` is the place of the file, in mm, that became 0, 0; walls are measured from there. `base`: how
    high the lowest storey of a model lies, from where the heights of its roofs are measured.

    `lines` are all that are drawn: ends, bulge, layer, whether nothing was made of them. `enclosed` counts the rooms.
    """

    unit: UnitFound
    origin: Point
    walls: list[FoundWall] = field(default_factory=list)
    openings: list[FoundOpening] = field(default_factory=list)
    rooms: list[FoundRoom] = field(default_factory=list)
    grids: list[FoundGrid] = field(default_factory=list)
    stairs: list[FoundStair] = field(default_factory=list)
    roofs: list[FoundRoof] = field(default_factory=list)
    levels: list[FoundLevel] = field(default_factory=list)
    north: FoundNorth | None = None
    dimensions: list[Checked] = field(default_factory=list)
    left: list[Left] = field(default_factory=list)
    notes: list[str] = field(default_factory=list)
    remarks: list[str] = field(default_factory=list)
    """What to look at in what is built."""
    layers: dict[str, str] = field(default_factory=dict)
    storeys: list[Storey] = field(default_factory=list)
    enclosed: int = 0
    base: float = 0.0
    lines: list[tuple[Point, Point, float, str, bool]] = field(default_factory=list)
