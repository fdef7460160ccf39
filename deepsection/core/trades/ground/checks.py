"""Heights of the ground with their terms, and where the ground and the house do not go together."""

from __future__ import annotations

from collections.abc import Iterator

from ...building.diagnostics import Diagnostic
from ...model import Project
from ...units import HeightSum, SumTerm
from ..levels.placed import Level
from ..walls.planned import WallPlan
from .place import Ground


def ground_sums(project: Project, levels: dict[str, Level]) -> Iterator[HeightSum]:
    """The height of each spot, with its terms."""
    grade = next((level for level in levels.values() if level.surface == "grade"), None)
    for spot in project.spots if grade else ():
        assert grade is not None
        yield grade.sum.plus(f"ground:{spot.id}", "ground here", SumTerm("above grade", spot.rise, spot.id))


def ground_faults(ground: Ground, plan: WallPlan, levels: dict[str, Level], project: Project) -> Iterator[Diagnostic]:
    """Where the ground lies above a floor that outer walls stand on, or lays a footing bare."""
    if not (ground.spots or ground.steps):
        return
    for foundation in project.foundations:
        walls = [wall for wall in plan.on(foundation.level) if wall.wall.status == "outer"]
        bottom = levels[foundation.footing].z
        sill = levels[foundation.sill or foundation.top or foundation.level].z
        for wall in walls:
            places = [(wall.at(along, wall.outer), along) for along in (0.0, wall.length / 2, wall.length)]
            heights = [(ground.z(*point), point) for point, _ in places]
            low, high = min(heights), max(heights)
            if high[0] > sill:
                message = "the ground lies above the foundation here: raise the house, or lower the ground"
                yield Diagnostic("ground-high", message, wall.wall.id, "ground", high[0], sill, at=high[1])
            if low[0] < bottom + foundation.footing_depth:
                message = "the ground lies below the top of the footing here: the footing would be bare"
                limit = bottom + foundation.footing_depth
                yield Diagnostic("footing-bare", message, wall.wall.id, "ground", low[0], limit, at=low[1])
