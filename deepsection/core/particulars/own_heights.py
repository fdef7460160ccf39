"""Heights that are not those of their level or kind: what an elevation points out, with the reason."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..model import Project
from ..resolve import Building
from ..units import Units, format_length


@dataclass(frozen=True, slots=True)
class OwnHeight:
    """An element with a height of its own: why, and the sum that explains it."""

    element: str
    words: str
    sum: str


def own_heights(project: Project, building: Building) -> list[OwnHeight]:
    """Every wall, opening and roof that differs from its level or its kind."""
    project = building.placed.project
    return [*_walls(project, building), *_openings(project), *_roofs(project)]


def _walls(project: Project, building: Building) -> Iterator[OwnHeight]:
    units = project.units
    # Walls that go up to a roof of its own height are as high as it asks: the roof is pointed out.
    carried = {(roof.plate, roof.offset) for roof in project.roofs}
    for wall in project.walls:
        rule, top = wall.top, f"top:{wall.id}"
        level = building.levels[rule.level]
        if rule.kind == "fixed" and rule.height is not None:
            words = f"{format_length(rule.height, units)} high on its own; {level.sum.label} is at "
            yield OwnHeight(wall.id, words + format_length(level.z, units), top)
        elif rule.offset and (rule.level, rule.offset) not in carried:
            yield OwnHeight(wall.id, f"its top is {_by(rule.offset, units)} {level.sum.label}", top)
        elif wall.base.offset:
            base = building.levels[wall.base.level]
            yield OwnHeight(wall.id, f"its foot is {_by(wall.base.offset, units)} {base.sum.label}", f"foot:{wall.id}")
        elif rule.end_rise or rule.steps:
            yield OwnHeight(wall.id, "its top is raked" if rule.end_rise else "its top is stepped", top)


def _openings(project: Project) -> Iterator[OwnHeight]:
    for opening in project.openings:
        kind = project.kind_of(opening)
        usual = dict(kind.design).get("height") if kind else None
        if kind is not None and usual is not None and opening.height not in (None, usual):
            than = "higher" if (opening.height or 0.0) > usual else "lower"
            yield OwnHeight(opening.id, f"{than} than its kind, {kind.name}", f"head:{opening.id}")


def _roofs(project: Project) -> Iterator[OwnHeight]:
    for roof in project.roofs:
        if roof.offset:
            words = f"bears {_by(roof.offset, project.units)} its plate"
            yield OwnHeight(roof.id, words, f"heel:{roof.id}")
        for k, edge in enumerate(roof.edges):
            if edge.raised:
                words = f"eave {k + 1} is {_by(edge.raised, project.units)} the others"
                yield OwnHeight(roof.id, words, f"eave:{roof.id}:{edge.id}")


def _by(value: float, units: Units) -> str:
    return f"{format_length(abs(value), units)} {'above' if value > 0 else 'below'}"
