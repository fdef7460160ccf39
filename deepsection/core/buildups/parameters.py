"""Parameters of build-ups: what a drafter may set, within limits, each with its source."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ..units import Units, format_measured, format_thickness

COMMON = "common practice, no source"


@dataclass(frozen=True, slots=True)
class Parameter:
    """A length of a build-up (mm): its words, usual value, limits, and where these come from.

    `source`: where they come from; what a rule asks for beyond the limits is pointed out, and built all the same.
    `is_share`: it is a number per 100, such as a fall.
    """

    id: str
    words: str
    usual: float
    least: float
    most: float
    source: str = COMMON
    is_share: bool = False

    def holds(self, value: float) -> bool:
        """Whether a value lies within its limits."""
        return self.least - 0.05 <= value <= self.most + 0.05

    def written(self, value: float, units: Units) -> str:
        """A value of it as text."""
        return f"{value:g}" if self.is_share else format_thickness(value, units)


class Values:
    """The values that hold for a junction, by the ids of the parameters of its build-up (mm), in the units of a
    project."""

    def __init__(self, parameters: tuple[Parameter, ...], stated: Mapping[str, float], units: Units = "mm") -> None:
        self._units = units
        self._values = {held.id: stated.get(held.id, held.usual) for held in parameters}

    def __getattr__(self, name: str) -> float:
        try:
            return self._values[name]
        except KeyError:
            raise AttributeError(name) from None

    def said(self, length: float) -> str:
        """A length (mm) within words."""
        measured = format_measured(length, self._units)
        return f"{measured} mm" if self._units == "mm" else measured

    def items(self) -> tuple[tuple[str, float], ...]:
        """All of them, in order."""
        return tuple(self._values.items())
