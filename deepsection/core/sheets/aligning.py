"""Views side by side on a sheet, moved up or down until a level that they share lies at one height."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import replace

from ..drawing import Symbol
from ..edits import changed
from ..errors import RefusedEdit
from ..model import Project, Sheet
from ..resolve import Building
from .compose import PlacedDrawing, footprint, place, title_block
from .layout import touches
from .paper import paper

UPRIGHT = ("elevation", "section")
"""Kinds of drawings whose heights are those of the house."""


def aligned(project: Project, building: Building, sheet: Sheet) -> Sheet:
    """The sheet with its elevations, sections and wall sections of one scale, row by row, on common levels.

    The leftmost of a row stays. Raises: RefusedEdit where no two
    views can be aligned, or where there is no room for that.
    """
    drawn = [place(project, building, view) for view in sheet.placed]
    rows = [row for row in _rows(drawn) if len(row) > 1]
    if not rows:
        message = "no two elevations or sections of one scale stand side by side on this sheet"
        raise RefusedEdit(message, field="placed", element=sheet.id)
    moved = {held.id: held for row in rows for held in _on_levels(row)}
    size = paper(sheet.paper)
    x0, y0, x1, y1 = size.frame
    after = [moved.get(held.id, held) for held in drawn]
    boxes = {held.id: footprint(held, project.units) for held in after}
    taken = [title_block(size), *(boxes[held.id] for held in drawn if held.id not in moved)]
    for held in moved.values():
        left, low, right, high = boxes[held.id]
        if left < x0 or low < y0 or right > x1 or high > y1 or any(touches(boxes[held.id], box) for box in taken):
            message = f"{held.drawing.title} would lie over something else, or over the frame, on common levels"
            raise RefusedEdit(f"{message}; choose larger paper or move it", field="placed", element=sheet.id)
    by = {held.id: moved[held.id].at_y - held.at_y for held in drawn if held.id in moved}
    placed = tuple(changed(view, y=round(view.y + by.get(view.id, 0.0), 3)) for view in sheet.placed)
    done: Sheet = changed(sheet, placed=placed)
    return done


def _rows(drawn: Sequence[PlacedDrawing]) -> list[list[PlacedDrawing]]:
    """Upright views of one scale that stand side by side, each row from the left."""
    rows: list[list[PlacedDrawing]] = []
    for held in sorted(drawn, key=lambda one: (one.box()[0], one.id)):
        if held.drawing.kind not in UPRIGHT or not _levels(held):
            continue
        _, low, _, high = held.box()
        for row in rows:
            _, first_low, _, first_high = row[0].box()
            if row[0].scale == held.scale and low < first_high and first_low < high:
                row.append(held)
                break
        else:
            rows.append([held])
    return rows


def _levels(held: PlacedDrawing) -> dict[str, float]:
    """Where levels are marked on paper (mm), by the ids of their heights."""
    marks = (mark for mark in held.drawing.marks if isinstance(mark, Symbol) and mark.kind == "level" and mark.sum)
    return {str(mark.sum): held.at_y + mark.y / held.scale for mark in marks}


def _on_levels(row: Sequence[PlacedDrawing]) -> list[PlacedDrawing]:
    """A row with the level that most of it share, of these the lowest, where the first one has it.

    What shares none with the first stays as it is.
    """
    first = _levels(row[0])
    counted = Counter(id for held in row[1:] for id in _levels(held) if id in first)
    if not counted:
        return list(row)
    common = min(counted, key=lambda id: (-counted[id], first[id]))
    return [
        replace(held, at_y=held.at_y + first[common] - at) if (at := _levels(held).get(common)) is not None else held
        for held in row
    ]
