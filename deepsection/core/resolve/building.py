"""The building: what the stages make of a project, and all that views need to know of it."""

from __future__ import annotations

from collections.abc import Callable
from functools import cached_property
from typing import TypeVar

from ..building.diagnostics import Diagnostic
from ..building.parts import Part
from ..building.placed import Key, Placed
from ..geometry import Boxes, reaches_of
from ..trades.ground.place import GROUND, Ground
from ..trades.levels.placed import LEVELS, Level
from ..trades.openings.placed import OPENINGS, PlacedOpening
from ..trades.roofs.placed import ROOFS, ResolvedRoof
from ..trades.rooms.placed import ROOMS, RoomSpace
from ..trades.walls.planned import WALLS, WallPlan
from ..units import HeightSum

T = TypeVar("T")


class Building:
    """Everything that was resolved from one project: what each stage made, by its key, and by name what every view
    asks for. Its parts are made when they are first asked for: a plan asks for none. So is its advice.

    `faults`: all that cannot be built, and warnings that are known without more work; `of_house`: those of them that
    change only with the house.
    """

    def __init__(
        self,
        placed: Placed,
        make_parts: Callable[[], tuple[Part, ...]],
        make_advice: Callable[[], tuple[Diagnostic, ...]],
        of_house: tuple[Diagnostic, ...],
    ) -> None:
        self.placed, self.of_house = placed, of_house
        self.faults: tuple[Diagnostic, ...] = tuple(placed.findings)
        self._make_parts, self._make_advice = make_parts, make_advice

    def with_parts(self, parts: tuple[Part, ...]) -> Building:
        """It with only these of its parts."""
        return Building(self.placed, lambda: parts, self._make_advice, self.of_house)

    def __getitem__(self, key: Key[T]) -> T:
        """What a stage made. Raises: LookupError."""
        return self.placed[key]

    @property
    def levels(self) -> dict[str, Level]:
        """The levels by their ids."""
        return self[LEVELS]

    @property
    def plan(self) -> WallPlan:
        """The walls in plan."""
        return self[WALLS]

    @property
    def openings(self) -> dict[str, tuple[PlacedOpening, ...]]:
        """Per wall, its openings."""
        return self[OPENINGS]

    @property
    def roofs(self) -> tuple[ResolvedRoof, ...]:
        """The roof blocks."""
        return self[ROOFS]

    @property
    def rooms(self) -> tuple[RoomSpace, ...]:
        """The rooms with their spaces."""
        return self[ROOMS]

    @property
    def ground(self) -> Ground:
        """The surface of the ground."""
        return self[GROUND]

    @property
    def sums(self) -> dict[str, HeightSum]:
        """Every height with its terms, by its id."""
        return self.placed.sums

    @property
    def totals(self) -> dict[str, float]:
        """mm above the datum of every height, by its id."""
        return self.placed.totals

    @cached_property
    def advice(self) -> tuple[Diagnostic, ...]:
        """Warnings that take their time."""
        return self._make_advice()

    @property
    def diagnostics(self) -> tuple[Diagnostic, ...]:
        """All that is wrong."""
        return (*self.faults, *self.advice)

    @cached_property
    def parts(self) -> tuple[Part, ...]:
        """Every solid piece."""
        return self._make_parts()

    @cached_property
    def reaches(self) -> Boxes:
        """(n, 6): the box around each of its parts."""
        return reaches_of(part.solid for part in self.parts)

    def parts_of(self, element: str) -> tuple[Part, ...]:
        """The parts of an element."""
        return self._by_element.get(element, ())

    @cached_property
    def _by_element(self) -> dict[str, tuple[Part, ...]]:
        held: dict[str, list[Part]] = {}
        for part in self.parts:
            held.setdefault(part.element, []).append(part)
        return {element: tuple(parts) for element, parts in held.items()}

    @cached_property
    def by_key(self) -> dict[str, Part]:
        """The parts by their keys."""
        return {part.key: part for part in self.parts}
