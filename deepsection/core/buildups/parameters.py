"""Parameters of build-ups: what a drafter may set, within limits, each with its source."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

COMMON = "common practice, no source"


@dataclass(frozen=True, slots=True)
class Parameter:
    """A length of a build-up (mm): its words, usual value, limits, and where these come from.

    `rule`: the least or most that is published, where it is; values beyond it are built and pointed out.
    """

    id: str
    words: str
    usual: float
    least: float
    most: float
    source: str = COMMON


class Values:
    """The values that hold for a junction, by the ids of the parameters of its build-up (mm)."""

    def __init__(self, parameters: tuple[Parameter, ...], stated: Mapping[str, float]) -> None:
        self._values = {held.id: stated.get(held.id, held.usual) for held in parameters}

    def __getattr__(self, name: str) -> float:
        try:
            return self._values[name]
        except KeyError:
            raise AttributeError(name) from None

    def items(self) -> tuple[tuple[str, float], ...]:
        """All of them, in order."""
        return tuple(self._values.items())
