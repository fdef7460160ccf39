"""Usual places of wall sections: one per way in which outer walls are built and end, through a typical window."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from ...document.ids import free_among
from ...edits import changed
from ...model import Opening, Project, WallSection, along_from_start
from ...resolve import Building, PlannedWall, storeys
from ..cut import CutPart
from .place import strip_place, strip_window

LEVEL = 1.0
"""A covering that rises by less than this over a wall (mm) lies level there: its gable is cut."""
End = Literal["eave", "gable", "top without a roof"]
Way = tuple[str, int, End]


@dataclass(frozen=True, slots=True)
class Proposal:
    """A wall section that would be usual, and what it would show."""

    wall_section: WallSection
    shows: str


def usual_places(project: Project, building: Building) -> list[Proposal]:
    """A wall section for each make-up, number of storeys and end of the outer walls of the lowest storey that has none
    yet."""
    found: dict[Way, Proposal] = {}
    there = {way for held in project.wall_sections if (way := _way(building, held))}
    walls = [wall for wall in building.plan.on(storeys(project)[0].level) if wall.wall.status == "outer"]
    ids = free_among({held.id for held in project.elements()}, "wall-section")
    names = iter(str(n) for n in range(1, 1000) if str(n) not in {held.name for held in project.wall_sections})
    for wall in sorted(walls, key=lambda held: (-_openings(project, held), -held.length, held.wall.id)):
        opening = _typical(project, wall)
        along = along_from_start(opening, wall.length) if opening else wall.length * 0.4
        look: Literal["start", "end"] = "end" if wall.wall.outside == "left" else "start"
        held = WallSection(id="trial", name="trial", wall=wall.wall.id, end="start", distance=along, look=look)
        way = _way(building, held)
        if way is None or way in there or way in found:
            continue
        make_up, stack, end = way
        through = f"through {project.number_of(opening) or opening.unit}" if opening else "beside its openings"
        floors = "one storey" if stack == 1 else f"{stack} storeys"
        named = changed(held, id=next(ids), name=next(names))
        found[way] = Proposal(named, f"{building.placed.make_ups[make_up].name}, {floors}, {end}, {through}")
    return list(found.values())


def _way(building: Building, held: WallSection) -> Way | None:
    """How a wall is built where a wall section cuts it: its make-up, the storeys on each other, what ends them."""
    place = strip_place(building, held)
    if place is None:
        return None
    _, cut = strip_window(building, place, 1.0)
    walls, faces = building.plan.by_id, sorted((place.outer, place.inner))
    over = [one for one in cut if one.polygon.bounds[0] < faces[1] and one.polygon.bounds[2] > faces[0]]
    bases = {walls[one.part.element].wall.base.level for one in over if one.part.element in walls}
    rises = list(_rises(over))
    end: End = "top without a roof" if not rises else "eave" if max(rises) > LEVEL else "gable"
    return place.wall.wall.make_up, max(len(bases), 1), end


def _openings(project: Project, wall: PlannedWall) -> int:
    return sum(held.wall == wall.wall.id for held in project.openings)


def _typical(project: Project, wall: PlannedWall) -> Opening | None:
    """A window of the most frequent size in the wall, that nearest to its middle."""
    windows = [held for held in project.openings if held.wall == wall.wall.id and held.unit == "window"]
    sizes = Counter((project.design_of(held).width, project.design_of(held).height) for held in windows)
    if not windows:
        return None
    size = max(sizes, key=lambda one: (sizes[one], one))
    like = [held for held in windows if (project.design_of(held).width, project.design_of(held).height) == size]
    return min(like, key=lambda held: (abs(along_from_start(held, wall.length) - wall.length / 2), held.id))


def _rises(over: list[CutPart]) -> Iterator[float]:
    """How much each covering over the wall rises from side to side of what is cut of it, less its thickness."""
    for held in over:
        if held.part.role == "roofing":
            x0, y0, x1, y1 = held.polygon.bounds
            yield y1 - y0 - held.polygon.area / (x1 - x0)
