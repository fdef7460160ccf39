"""A string of dimensions: places along a line, the lengths between them, which add up in the drawn fraction."""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from ..units import INCH, Units, format_length, rounded
from .advances import text_width
from .explode import FIGURE_SIZE
from .marks import Dimension

CLOSE = 1.0
"""Places closer than this (mm) are one."""
USUAL_FRACTION = 16
"""Parts of an inch in which figures are written."""


@dataclass(frozen=True, slots=True)
class Measure:
    """How lengths are written: to a part of an inch or to so many mm. Equal ones side by side are written apart, as one
    where they are too narrow for their figures, or as one wherever there are three."""

    units: Units
    fraction: int = USUAL_FRACTION
    whole: float = 1.0
    equal: Literal["apart", "narrow", "together"] = "apart"

    @property
    def step(self) -> float:
        """The drawn fraction (mm)."""
        return INCH / self.fraction if self.units == "ft-in" else self.whole

    def length(self, value: float) -> str:
        """A length (mm) as it is written."""
        return self.figure(rounded(value / self.step))

    def figure(self, steps: int) -> str:
        """So many steps as they are written."""
        return format_length(steps * self.step, self.units, denominator=max(self.fraction, USUAL_FRACTION))


@dataclass(frozen=True, slots=True)
class Place:
    """Where a string has a tick, along its line (mm), and what stands there."""

    at: float
    name: str


@dataclass(frozen=True, slots=True)
class Stretch:
    """What lies between two ticks: from, to (mm), its figure and its name."""

    start: float
    end: float
    text: str
    name: str
    between: tuple[str, str]
    """The names of the places at which it begins and ends."""

    @property
    def to(self) -> str:
        """The name of the place at which it ends."""
        return self.between[1]


@dataclass(frozen=True, slots=True)
class String:
    """A string that a view has, as `side:row`: whether it is shown, and its dimensions if it is."""

    name: str
    shown: bool
    marks: tuple[Dimension, ...]


def distinct(places: Sequence[Place], close: float = CLOSE) -> list[Place]:
    """Places in order, those that are one once."""
    found: list[Place] = []
    for place in sorted(places, key=lambda held: held.at):
        if not found or place.at - found[-1].at > close:
            found.append(place)
    return found


def coarse(places: Sequence[Place], measure: Measure, scale: float) -> list[Place]:
    """The places of a string, without those that leave less than their figures need; its ends stay."""

    def fits(start: Place, end: Place) -> bool:
        steps = rounded((end.at - start.at) / measure.step)
        return (text_width(measure.figure(steps), FIGURE_SIZE) + 2.0) * scale <= end.at - start.at

    kept = [places[0]]
    for place in places[1:-1]:
        if fits(kept[-1], place):
            kept.append(place)
    while len(kept) > 1 and not fits(kept[-1], places[-1]):
        kept.pop()
    return [*kept, places[-1]]


def stretches(
    places: Sequence[Place], measure: Measure, scale: float, origin: float | None = None
) -> Iterator[Stretch]:
    """What lies between each two of some distinct places.

    Each is rounded as counted from the first, or from an `origin` from which the places are written too, so that the
    figures add up to that of the whole.
    """
    origin = places[0].at if origin is None and places else origin or 0.0
    steps = [rounded((place.at - origin) / measure.step) for place in places]
    k = 0
    for length, held in itertools.groupby(after - before for before, after in itertools.pairwise(steps)):
        many, text = len(list(held)), measure.figure(length)
        narrow = (text_width(text, FIGURE_SIZE) + 2.0) * scale > length * measure.step
        if many > 1 and measure.equal != "apart" and (narrow or (many > 2 and measure.equal == "together")):
            yield _stretch(places[k], places[k + many], f"{many} x {text} = {measure.figure(length * many)}")
        else:
            yield from (_stretch(places[j], places[j + 1], text) for j in range(k, k + many))
        k += many


def _stretch(start: Place, end: Place, text: str) -> Stretch:
    return Stretch(start.at, end.at, text, f"{start.name}-{end.name}", (start.name, end.name))
