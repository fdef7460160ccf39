"""What the stages make of a project: a value under the key of each stage."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from functools import cached_property
from typing import Any, Generic, TypeVar, cast

from ..model import MakeUp, Project
from ..units import HeightSum
from .diagnostics import Diagnostic

T = TypeVar("T")


@dataclass(frozen=True, eq=False, slots=True)
class Key(Generic[T]):
    """What a stage makes is asked for by its key; `name` is what the stage is called."""

    name: str


class House:
    """What the stages have made, by their keys, and the heights with their terms: one for all documents that differ in
    nothing but how it is drawn."""

    def __init__(self) -> None:
        self.made: dict[Key[Any], Any] = {}
        self.sums: dict[str, HeightSum] = {}


class Placed:
    """A project with what the stages have made of it so far, and what is wrong."""

    def __init__(self, project: Project, house: House | None = None) -> None:
        self.project = project
        self.house = house or House()
        self.findings: list[Diagnostic] = []

    def __getitem__(self, key: Key[T]) -> T:
        """What a stage made. Raises: LookupError when that stage has not run."""
        if key not in self.house.made:
            raise LookupError(f"the stage “{key.name}” has not run")
        return cast(T, self.house.made[key])

    @property
    def sums(self) -> dict[str, HeightSum]:
        """The heights with their terms, by their ids."""
        return self.house.sums

    @cached_property
    def make_ups(self) -> dict[str, MakeUp]:
        """The make-ups by their ids."""
        return {make_up.id: make_up for make_up in self.project.make_ups}

    def make_ups_for(self, use: str) -> tuple[MakeUp, ...]:
        """The make-ups of one use: a stage that reads no others is not built anew when others change."""
        return tuple(make_up for make_up in self.project.make_ups if make_up.use == use)

    @cached_property
    def totals(self) -> dict[str, float]:
        """mm above the datum of every height, by its id; asked for once all stages have run."""
        return {id: height.total for id, height in self.sums.items()}

    def run(self, stage: Stage[Any]) -> None:
        """Make what a stage makes, with its heights."""
        made = stage.place(self)
        self.house.made[stage.key] = made
        self.sums.update((height.id, height) for height in stage.sums(made, self))


def _none(*_: Any) -> tuple[()]:
    return ()


@dataclass(frozen=True, slots=True)
class Stage(Generic[T]):
    """A step from the project to the building: what `place` makes of earlier stages, and the heights therein.

    `place` is pure: it reads the project and earlier stages, and adds what is wrong to the findings. `advice`: warnings
    that take their time, asked for when the rest stands.
    """

    key: Key[T]
    place: Callable[[Placed], T]
    sums: Callable[[T, Placed], Iterable[HeightSum]] = _none
    advice: Callable[[Placed], Iterable[Diagnostic]] = _none
