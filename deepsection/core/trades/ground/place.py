"""Stage: the ground, its grade and what is stated of it."""

from __future__ import annotations

from ...building.placed import Key, Placed
from ..levels.placed import LEVELS
from .surface_model import Ground, Profile

__all__ = ["GROUND", "Ground", "Profile", "place_ground"]


def place_ground(placed: Placed) -> Ground:
    """The surface of the ground around the house."""
    grade = next((level.z for level in placed[LEVELS].values() if level.surface == "grade"), 0.0)
    return Ground(grade, placed.project.spots, placed.project.steps)


GROUND: Key[Ground] = Key("ground")
