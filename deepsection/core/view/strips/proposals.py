"""Usual places of wall sections: one per way in which outer walls are built and end, through a typical window."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from ...document.ids import free_among
from ...model import Opening, Project, WallSection, along_from_start
from ...resolve import Building, PlannedWall, storeys
from ..cut import CutPart
from .place import StripPlace, strip_place, strip_window

NEAR = 300.0
"""A wall that has a wall section this near (mm) is not proposed again."""
LEVEL = 1.0
"""A covering that rises by less than this over a wall (mm) lies level there: its gable is cut."""
End = Literal["eave", "gable", "top without a roof"]


@dataclass(frozen=True, slots=True)
class Proposal:
    """A wall section that would be usual, and what it would show."""

    wall_section: WallSection
    shows: str


def usual_places(project: Project, building: Building) -> list[Proposal]:
    """A wall section for each make-up, number of storeys and end of the outer walls of the lowest storey."""
    found: dict[tuple[str, int, End], Proposal] = {}
    lowest = storeys(project)[0].level
    walls = [wall for wall in building.plan.on(lowest) if wall.wall.status == "outer"]
    ids = free_among({held.id for held in project.elements()}, "wall-section")
    names = iter(str(n) for n in range(1, 1000) if str(n) not in {held.name for held in project.wall_sections})
    for wall in sorted(walls, key=lambda held: (-_openings(project, held), -held.length, held.wall.id)):
        opening = _typical(project, building, wall)
        along = along_from_start(opening, wall.length) if opening else wall.length * 0.4
        look: Literal["start", "end"] = "end" if wall.wall.outside == "left" else "start"
        held = WallSection(id="trial", name="trial", wall=wall.wall.id, end="start", distance=along, look=look)
        place = strip_place(building, held)
        if place is None:
            continue
        stack, end = _stack(building, place)
        make_up = building.placed.make_ups[wall.wall.make_up]
        key = (make_up.id, stack, end)
        if key in found or _is_there(project, wall, along):
            continue
        through = f"through {project.number_of(opening) or opening.unit}" if opening else "beside its openings"
        floors = "one storey" if stack == 1 else f"{stack} storeys"
        shows = f"{make_up.name}, {floors}, {end}, {through}"
        named = WallSection(id=next(ids), name=next(names), wall=wall.wall.id, end="start", distance=along, look=look)
        found[key] = Proposal(named, shows)
    return list(found.values())


def _openings(project: Project, wall: PlannedWall) -> int:
    return sum(held.wall == wall.wall.id for held in project.openings)


def _typical(project: Project, building: Building, wall: PlannedWall) -> Opening | None:
    """A window of the most frequent size in the wall, that nearest to its middle."""
    windows = [held for held in project.openings if held.wall == wall.wall.id and held.unit == "window"]
    sizes = Counter((project.design_of(held).width, project.design_of(held).height) for held in windows)
    if not windows:
        return None
    size = max(sizes, key=lambda one: (sizes[one], one))
    like = [held for held in windows if (project.design_of(held).width, project.design_of(held).height) == size]
    return min(like, key=lambda held: (abs(along_from_start(held, wall.length) - wall.length / 2), held.id))


def _stack(building: Building, place: StripPlace) -> tuple[int, End]:
    """How many storeys stand on each other where a wall section would cut, and what ends them."""
    _, cut = strip_window(building, place, 1.0)
    walls = building.plan.by_id
    faces = sorted((place.outer, place.inner))
    over = [held for held in cut if held.polygon.bounds[0] < faces[1] and held.polygon.bounds[2] > faces[0]]
    bases = {walls[held.part.element].wall.base.level for held in over if held.part.element in walls}
    slopes = list(_rises(over))
    if not slopes:
        return max(len(bases), 1), "top without a roof"
    return max(len(bases), 1), "eave" if max(slopes) > LEVEL else "gable"


def _rises(over: list[CutPart]) -> Iterator[float]:
    """How much each covering over the wall rises from side to side of what is cut of it, less its thickness."""
    for held in over:
        if held.part.role == "roofing":
            x0, y0, x1, y1 = held.polygon.bounds
            yield y1 - y0 - held.polygon.area / (x1 - x0)


def _is_there(project: Project, wall: PlannedWall, along: float) -> bool:
    return any(
        held.wall == wall.wall.id and abs(along_from_start(held, wall.length) - along) < NEAR
        for held in project.wall_sections
    )
