"""Heights of the ground with their terms."""

from __future__ import annotations

from collections.abc import Iterator

from ...model import Project
from ...units import HeightSum, SumTerm
from ..levels.placed import Level


def ground_sums(project: Project, levels: dict[str, Level]) -> Iterator[HeightSum]:
    """The height of each spot, with its terms."""
    grade = next((level for level in levels.values() if level.surface == "grade"), None)
    for spot in project.spots if grade else ():
        assert grade is not None
        yield grade.sum.plus(f"ground:{spot.id}", "ground here", SumTerm("above grade", spot.rise, spot.id))
