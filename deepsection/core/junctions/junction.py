"""What a junction is: a kind, the elements that meet, and the lines along which they do."""

from __future__ import annotations

import math
from dataclasses import dataclass, field

from ..geometry import Point
from ..trades.drawings.model import junction_name
from .kinds import JUNCTION_KINDS, JunctionKind, KindName

Point3 = tuple[float, float, float]

Fact = str | float | bool | tuple["Fact", ...]
"""What a condition of a junction may be: words, a length (mm), a share, or a row of these."""


@dataclass(frozen=True, slots=True, order=True)
class End:
    """What meets at a junction: an element of the document, which feature of it, and which of several such."""

    element: str
    feature: str
    sub: str = ""


@dataclass(frozen=True, slots=True)
class Run:
    """A straight piece of a junction in space (mm), from its start to its end, and the unit vector outward in plan.

    Of an upright one the start is its lower end. Arcs are runs of many chords.
    """

    start: Point3
    end: Point3
    out: Point

    @property
    def length(self) -> float:
        """True length (mm)."""
        return math.dist(self.start, self.end)

    @property
    def middle(self) -> Point3:
        """Half way."""
        (x0, y0, z0), (x1, y1, z1) = self.start, self.end
        return (x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2


@dataclass(frozen=True, slots=True)
class Junction:
    """Where parts meet: its `ends` in a set order by kind, its runs, and the facts on which depends how it is built.

    One per pair of features, however many runs it has.
    """

    kind: KindName
    ends: tuple[End, ...]
    runs: tuple[Run, ...]
    facts: tuple[tuple[str, Fact], ...]
    id: str = field(init=False, compare=False)
    """Its name for life, of the elements that meet: `eave/roof-main.edge.e1/south.top`."""

    def __post_init__(self) -> None:
        name = junction_name(self.kind, [(end.element, end.feature, end.sub) for end in self.ends])
        object.__setattr__(self, "id", name)

    @property
    def about(self) -> JunctionKind:
        """What its kind is."""
        return JUNCTION_KINDS[self.kind]

    @property
    def elements(self) -> tuple[str, ...]:
        """The ids of the elements that meet, each once."""
        return tuple(dict.fromkeys(end.element for end in self.ends))

    @property
    def length(self) -> float:
        """Of all of its runs (mm)."""
        return sum(run.length for run in self.runs)

    @property
    def at(self) -> Point3:
        """Where it is marked: the middle of its longest run."""
        return max(self.runs, key=lambda run: run.length).middle
