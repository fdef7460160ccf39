"""Views of one scale side by side on a sheet, put on common levels."""

from __future__ import annotations

from collections import defaultdict

import pytest

from deepsection.core.drawing import Symbol
from deepsection.core.edits import changed, put
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import PlacedView, Project, Sheet
from deepsection.core.resolve import resolve
from deepsection.core.sheets import aligned, compose
from deepsection.demo import otterfold_house, tansy_lodge


def levels_on_paper(project: Project, sheet: Sheet) -> dict[str, dict[str, float]]:
    """By level, where it is marked in each view of a sheet (paper mm)."""
    drawn = compose(project, resolve(project), sheet, date="2026-01-01")
    found: dict[str, dict[str, float]] = defaultdict(dict)
    for held in drawn.placed:
        for mark in held.drawing.marks:
            if isinstance(mark, Symbol) and mark.kind == "level" and mark.sum:
                found[mark.sum][held.id] = held.at_y + mark.y / held.scale
    return found


@pytest.mark.parametrize("make", [otterfold_house, tansy_lodge])
def test_wall_sections_come_to_lie_on_one_level(make: object) -> None:
    project = make()  # type: ignore[operator]
    sheet = next(held for held in project.sheets if held.name == "Wall sections")
    moved = [changed(view, y=view.y + k * 3.7) for k, view in enumerate(sheet.placed)]
    off = changed(sheet, placed=tuple(moved))
    done = aligned(project, resolve(project), off)
    after = put(project, done)
    shared = [held for held in levels_on_paper(after, done).values() if len(held) == 3]
    assert any(max(held.values()) - min(held.values()) < 0.01 for held in shared)
    assert [view.x for view in done.placed] == [view.x for view in off.placed]
    assert done.placed[0].y == off.placed[0].y, "the leftmost stays"


def test_elevations_of_one_scale_too_and_rows_apart() -> None:
    project = otterfold_house()
    places = (("south", 170.0, 300.0), ("east", 430.0, 309.0), ("north", 170.0, 120.0), ("west", 430.0, 131.0))
    placed = tuple(
        PlacedView(id=f"p{k}", view=f"elevation:{side}", scale=96.0, x=x, y=y) for k, (side, x, y) in enumerate(places)
    )
    sheet = Sheet(id="t", number="T1", name="Trial", paper="A1", placed=placed)
    done = aligned(project, resolve(project), sheet)
    building = resolve(project)
    plate = levels_on_paper(put(project, done), done)[building.levels["plate"].sum.id]
    upper, lower = [plate[k] for k in ("p0", "p1")], [plate[k] for k in ("p2", "p3")]
    assert upper[0] == pytest.approx(upper[1], abs=0.01) and lower[0] == pytest.approx(lower[1], abs=0.01)
    assert upper[0] != pytest.approx(lower[0], abs=1.0)


def test_what_cannot_be_aligned_is_refused_in_words_and_nothing_moves() -> None:
    project = otterfold_house()
    placed = (
        PlacedView(id="a", view="elevation:south", scale=96.0, x=170.0, y=300.0),
        PlacedView(id="b", view="elevation:east", scale=48.0, x=430.0, y=300.0),
        PlacedView(id="c", view="plan", scale=96.0, x=170.0, y=120.0),
    )
    sheet = Sheet(id="t", number="T1", name="Trial", paper="A1", placed=placed)
    with pytest.raises(RefusedEdit, match="no two elevations or sections of one scale"):
        aligned(project, resolve(project), sheet)
    low = (placed[0].model_copy(update={"y": 60.0}), placed[1].model_copy(update={"y": 100.0, "scale": 96.0}))
    with pytest.raises(RefusedEdit, match="on common levels; choose larger paper or move it"):
        aligned(project, resolve(project), changed(sheet, placed=low))
