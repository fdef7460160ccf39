"""The usual set of a house: plans, four sides, a long and a cross section, on sheets at scales that fit the paper."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from ..errors import RefusedEdit
from ..geometry import Side
from ..model import PlacedView, Project, SectionLine, Sheet, changed
from ..model.edits import PutSection, PutSheet, put
from ..model.ids import free_among
from ..resolve import Building, resolve, storeys
from ..view import list_views, plan_name
from .compose import footprint, place
from .layout import free_place
from .paper import paper
from .scales import standard_scales

PAPER = {"ft-in": "ARCH C", "mm": "A2"}
"""The paper of an office drawing of a house. Common practice, no source."""
LARGEST = {"ft-in": 24.0, "mm": 25.0}
"""No general drawing is larger than this."""
PAST = 1500.0
"""A section line reaches so far past the house (mm)."""
SIDES: tuple[Side, ...] = ("south", "east", "north", "west")


def usual_set(project: Project, building: Building) -> list[Any]:
    """The edits that lay out the usual set: sections where there are none, and sheets beside those that there are.

    Sheets that show nothing yet are filled first. Raises: RefusedEdit for a project without walls.
    """
    if not building.plan.walls:
        raise RefusedEdit("there is no house to lay out yet: draw its walls first", field="sheets")
    edits: list[Any] = [PutSection(section=line) for line in _sections(project, building)]
    staged = put(project, *(edit.section for edit in edits))
    whole = resolve(staged) if edits else building
    plans = [plan_name(staged, held.level) for held in storeys(staged) if building.plan.on(held.level)]
    if any(view.name == "plan:roof" for view in list_views(staged)):
        plans.append("plan:roof")
    groups = (
        ("Plans", plans),
        ("Elevations", [f"elevation:{side}" for side in SIDES]),
        ("Sections", [f"section:{line.id}" for line in staged.sections[:2]]),
    )
    empty = [held for held in staged.sheets if not held.placed]
    for name, views in groups:
        sheet = empty.pop(0) if empty else _sheet(staged)
        filled = _filled(staged, whole, changed(sheet, name=name), views)
        edits.append(PutSheet(sheet=filled))
        staged = put(staged, filled)
    return edits


def _sections(project: Project, building: Building) -> Iterator[SectionLine]:
    """A long and a cross section through the middle of the house, where it has none of its own."""
    if project.sections:
        return
    points = [point for wall in building.plan.walls for point in (wall.start, wall.end)]
    (x0, x1), (y0, y1) = ((min(values), max(values)) for values in zip(*points))
    x, y = (x0 + x1) / 2, (y0 + y1) / 2
    ids = free_among({held.id for held in project.elements()}, "section")
    along = SectionLine(id=next(ids), name="A", x1=x0 - PAST, y1=y, x2=x1 + PAST, y2=y, look="left")
    across = SectionLine(id=next(ids), name="B", x1=x, y1=y1 + PAST, x2=x, y2=y0 - PAST, look="left")
    yield from (along, across) if x1 - x0 >= y1 - y0 else (changed(across, name="A"), changed(along, name="B"))


def _sheet(project: Project) -> Sheet:
    ids = free_among({held.id for held in project.elements()}, "sheet")
    numbers = {held.number for held in project.sheets}
    number = next(f"A{k}" for k in range(1, len(numbers) + 2) if f"A{k}" not in numbers)
    return Sheet(id=next(ids), number=number, name="Sheet", paper=PAPER[project.units])


def _filled(project: Project, building: Building, sheet: Sheet, views: Sequence[str]) -> Sheet:
    """A sheet with views at the largest scale at which all of them find room; at the smallest, as many as do."""
    scales = [scale for scale in standard_scales(project.units) if scale >= LARGEST[project.units]]
    best: Sheet = sheet
    for scale in scales:
        filled: Sheet = changed(sheet, placed=())
        for view in views:
            filled = _with(project, building, filled, view, scale)
        if len(filled.placed) == len(views):
            return filled
        if len(filled.placed) > len(best.placed):
            best = filled
    return best


def _with(project: Project, building: Building, sheet: Sheet, view: str, scale: float) -> Sheet:
    """The sheet with a view where there is room; as it was where there is none."""
    taken = {held.id for other in (*project.sheets, sheet) for held in other.placed}
    id = next(f"view-{k}" for k in range(1, len(taken) + 2) if f"view-{k}" not in taken)
    size = paper(sheet.paper)
    wanted = PlacedView(id=id, view=view, scale=scale, x=-1e4, y=-1e4)
    placed = free_place(project, building, sheet, wanted)
    if (placed.x, placed.y) == (wanted.x, wanted.y):
        return sheet
    x0, y0, x1, y1 = footprint(place(project, building, placed), project.units)
    fx0, fy0, fx1, fy1 = size.frame
    fits = x0 >= fx0 and y0 >= fy0 and x1 <= fx1 and y1 <= fy1
    more: Sheet = changed(sheet, placed=(*sheet.placed, placed)) if fits else sheet
    return more
