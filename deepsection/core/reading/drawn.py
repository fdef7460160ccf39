"""What stands in somebody else's drawing, before anything is made of it: lines and arcs, areas, words, dimensions.

Lengths are in the unit of the file until they are scaled.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field, replace

from deepsection.core.geometry import Point


@dataclass(frozen=True, slots=True)
class Stroke:
    """A line, or an arc whose bulge is tan(angle / 4), positive turning left.

    `entity` counts the entities of the file that draw; `block` is the position of the placed block it comes from.
    """

    a: Point
    b: Point
    bulge: float
    layer: str
    entity: int
    block: int = -1
    width: float = 0.0


@dataclass(frozen=True, slots=True)
class Area:
    """A filled or hatched area: rings of (x, y, bulge to the next), the first the outer one."""

    rings: tuple[tuple[tuple[float, float, float], ...], ...]
    layer: str
    solid: bool
    entity: int


@dataclass(frozen=True, slots=True)
class Words:
    """A text with the place of its middle, its height and turn (degrees)."""

    text: str
    at: Point
    height: float
    angle: float
    layer: str
    entity: int
    block: int = -1


@dataclass(frozen=True, slots=True)
class Measure:
    """A dimension: the points that it measures between, along `angle` (degrees), and its text where one is stated.

    `factor` is what the file itself multiplies measured lengths by.
    """

    a: Point
    b: Point
    angle: float | None
    text: str
    factor: float
    layer: str
    entity: int


@dataclass(frozen=True, slots=True)
class Placed:
    """A block that was placed: its name, where, and its attributes by tag."""

    name: str
    at: Point
    layer: str
    attributes: tuple[tuple[str, str], ...] = ()


@dataclass(slots=True)
class Drawn:
    """All that was drawn; `unit` is the one that the file names, `notes` what could not be followed, in words."""

    strokes: list[Stroke] = field(default_factory=list)
    areas: list[Area] = field(default_factory=list)
    words: list[Words] = field(default_factory=list)
    measures: list[Measure] = field(default_factory=list)
    blocks: list[Placed] = field(default_factory=list)
    others: dict[tuple[str, str], int] = field(default_factory=dict)
    notes: list[str] = field(default_factory=list)
    unit: str | None = None
    entities: int = 0

    @property
    def layers(self) -> list[str]:
        """The names of the layers on which something is drawn, in order."""
        held = (self.strokes, self.areas, self.words, self.measures)
        names = {item.layer for group in held for item in group}
        return sorted(names | {layer for _, layer in self.others})


def moved(drawn: Drawn, factor: float, origin: Point) -> Drawn:
    """The drawing times a factor, less an origin (in the unit of the file)."""

    def place(point: Point) -> Point:
        return (point[0] - origin[0]) * factor, (point[1] - origin[1]) * factor

    return Drawn(
        strokes=[replace(s, a=place(s.a), b=place(s.b), width=s.width * factor) for s in drawn.strokes],
        areas=[replace(held, rings=tuple(_ring(ring, place) for ring in held.rings)) for held in drawn.areas],
        words=[replace(held, at=place(held.at), height=held.height * factor) for held in drawn.words],
        measures=[replace(held, a=place(held.a), b=place(held.b)) for held in drawn.measures],
        blocks=[replace(held, at=place(held.at)) for held in drawn.blocks],
        others=drawn.others,
        notes=list(drawn.notes),
        unit=drawn.unit,
        entities=drawn.entities,
    )


def _ring(
    ring: tuple[tuple[float, float, float], ...], place: Callable[[Point], Point]
) -> tuple[tuple[float, float, float], ...]:
    return tuple((*place((x, y)), bulge) for x, y, bulge in ring)
