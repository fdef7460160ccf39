"""Details on sheets: all of them, at their usual scales, none on another, in reading order."""

from __future__ import annotations

from collections.abc import Callable
from itertools import combinations

import pytest

from deepsection.core.edits import apply_edits, put
from deepsection.core.errors import RefusedEdit
from deepsection.core.junctions.sizes import DETAIL_SIZES
from deepsection.core.model import Project
from deepsection.core.resolve import resolve
from deepsection.core.sheets import compose, detail_sheets
from deepsection.core.sheets.compose import footprint
from deepsection.core.view.details.making import missing_details
from deepsection.demo import fernacre_bungalow, quillback_house


@pytest.mark.parametrize("make", [fernacre_bungalow, quillback_house])
def test_all_details_lie_on_sheets_at_their_scales(make: Callable[[], Project]) -> None:
    project = make()
    project = put(project, *missing_details(project, resolve(project)))
    done = apply_edits(project, detail_sheets(project, resolve(project)))
    sheets = [sheet for sheet in done.sheets if sheet.name == "Details"]
    placed = [held for sheet in sheets for held in sheet.placed]
    assert [held.view for held in placed] == [f"detail:{held.id}" for held in project.details], "in their order"
    for held, detail in zip(placed, project.details, strict=True):
        assert held.scale == DETAIL_SIZES[detail.kind].scale(done.units)  # type: ignore[index]
    assert len({held.id for sheet in done.sheets for held in sheet.placed}) == sum(len(s.placed) for s in done.sheets)
    building = resolve(done)
    for sheet in sheets:
        drawing = compose(done, building, sheet, date="2026-01-01")
        assert drawing.messages == ()
        for a, b in combinations([footprint(held, done.units) for held in drawing.placed], 2):
            assert a[2] <= b[0] or b[2] <= a[0] or a[3] <= b[1] or b[3] <= a[1], "none lies on another"
    with pytest.raises(RefusedEdit, match="on a sheet already"):
        detail_sheets(done, building)
