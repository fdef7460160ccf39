"""Details on sheets: in a grid, in reading order, each at the scale that is usual for its kind."""

from __future__ import annotations

from typing import Any

from ..document.ids import free_ids
from ..edits import PutSheet
from ..errors import RefusedEdit
from ..junctions.sizes import DETAIL_SIZES
from ..model import Detail, PlacedView, Project, Sheet
from ..resolve import Building
from .compose import footprint, place
from .layout import free_view_ids
from .paper import paper
from .scales import standard_scales
from .usual import in_rows

PAPER = {"ft-in": "ARCH D", "mm": "A1"}
"""The paper of details: larger than that of a house, since notes stand at both sides of each. Common practice, no
source."""
USUAL = 10.0
"""The scale of a detail of a kind that is not known any more."""

Box = tuple[float, float, float, float]


def unplaced_details(project: Project) -> list[Detail]:
    """Those that lie on no sheet, in their order."""
    placed = {held.view for sheet in project.sheets for held in sheet.placed}
    return [held for held in project.details if f"detail:{held.id}" not in placed]


def detail_sheets(project: Project, building: Building) -> list[Any]:
    """The edits that lay details that are on no sheet on new ones, as many on each as find room.

    One that is too large for the paper stands at a smaller scale. Raises: RefusedEdit where all lie on sheets.
    """
    held = unplaced_details(project)
    if not held:
        raise RefusedEdit("every detail lies on a sheet already", field="details")
    sheet_ids, view_ids = free_ids(project, "sheet"), free_view_ids(project)
    numbers = {sheet.number for sheet in project.sheets}
    names = (f"A{k}" for k in range(1, 10_000) if f"A{k}" not in numbers)
    size = paper(PAPER[project.units])
    edits: list[Any] = []
    row: list[tuple[PlacedView, Box]] = []
    for detail in held:
        one = _fitting(project, building, detail, next(view_ids))
        if row and in_rows([_sized(box) for _, box in (*row, one)], size) is None:
            edits.append(_sheet(next(sheet_ids), next(names), project, row))
            row = []
        row.append(one)
    edits.append(_sheet(next(sheet_ids), next(names), project, row))
    return edits


def _sized(box: Box) -> tuple[float, float]:
    return box[2] - box[0], box[3] - box[1]


def _fitting(project: Project, building: Building, detail: Detail, id: str) -> tuple[PlacedView, Box]:
    """A detail at the largest scale from the usual one on at which it fits on the paper, and what it takes there."""
    size = DETAIL_SIZES.get(detail.kind)  # type: ignore[call-overload]
    usual = size.scale(project.units) if size else USUAL
    found = None
    for scale in (one for one in standard_scales(project.units) if one >= usual):
        view = PlacedView(id=id, view=f"detail:{detail.id}", scale=scale, x=0.0, y=0.0)
        found = view, footprint(place(project, building, view), project.units)
        if in_rows([_sized(found[1])], paper(PAPER[project.units])) is not None:
            break
    assert found is not None
    return found


def _sheet(id: str, number: str, project: Project, row: list[tuple[PlacedView, Box]]) -> PutSheet:
    spots = in_rows([_sized(box) for _, box in row], paper(PAPER[project.units])) or [(0.0, 0.0)] * len(row)
    placed = tuple(
        view.model_copy(update={"x": round(x - box[0], 3), "y": round(y - box[1], 3)})
        for (view, box), (x, y) in zip(row, spots)
    )
    return PutSheet(sheet=Sheet(id=id, number=number, name="Details", paper=PAPER[project.units], placed=placed))
