"""Levels with their heights, and the storeys between them."""

from __future__ import annotations

from dataclasses import dataclass

from ...building.placed import Key
from ...memo import hashed_once
from ...units import HeightSum


@hashed_once
@dataclass(frozen=True)
class Level:
    """A rung with its height: z in mm, and the sum that gives it."""

    id: str
    name: str
    surface: str
    z: float
    sum: HeightSum
    hidden: bool = False


@dataclass(frozen=True, slots=True)
class Storey:
    """A level on which walls stand, and the level of the plate that they reach up to, where there is one."""

    level: str
    name: str
    plate: str | None


LEVELS: Key[dict[str, Level]] = Key("levels")
