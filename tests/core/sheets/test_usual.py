"""The usual set: everything that a permit wants, at scales that fit the paper, nothing on anything else."""

from __future__ import annotations

from collections.abc import Callable
from itertools import combinations

import pytest

from deepsection.core.edits import apply_edits, rebuild
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import Project
from deepsection.core.resolve import resolve
from deepsection.core.sheets import compose, standard_scales, usual_set
from deepsection.core.sheets.compose import footprint
from deepsection.core.starters.projects import new_project
from deepsection.demo import fernacre_bungalow, hollin_bothy, otterfold_house, quillback_house


@pytest.mark.parametrize("make", [quillback_house, fernacre_bungalow, otterfold_house, hollin_bothy])
def test_the_usual_set_shows_all_and_fits(make: Callable[[], Project]) -> None:
    house = rebuild(make(), sheets=(), sections=(), wall_sections=())
    done = apply_edits(house, usual_set(house, resolve(house)))
    framed = ["Framing"] if house.floors else []
    names = ["Plans", "Elevations", "Sections", "Wall sections", *framed, "Schedules"]
    assert [sheet.name for sheet in done.sheets] == names
    strips = next(sheet for sheet in done.sheets if sheet.name == "Wall sections")
    assert 2 <= len(strips.placed) <= 3 and len(done.wall_sections) == len(strips.placed)
    assert [line.name for line in done.sections] == ["A", "B"]
    shown = {held.view for sheet in done.sheets for held in sheet.placed}
    assert {f"elevation:{side}" for side in ("south", "east", "north", "west")} <= shown
    assert {f"plan:framing:{floor.id}" for floor in house.floors} <= shown
    assert {"plan", "plan:roof"} <= shown and {f"section:{line.id}" for line in done.sections} <= shown
    building = resolve(done)
    for sheet in done.sheets:
        drawing = compose(done, building, sheet, date="2026-01-01")
        assert drawing.messages == (), sheet.name
        assert {held.scale for held in drawing.placed} <= set(standard_scales(done.units))
        boxes = [footprint(held, done.units) for held in drawing.placed]
        for a, b in combinations(boxes, 2):
            assert a[2] <= b[0] or b[2] <= a[0] or a[3] <= b[1] or b[3] <= a[1], "none lies on another"


def test_sections_run_through_the_middle_of_the_house() -> None:
    """By hand: a long one along the longer side, and a cross one, through the middle of what walls span."""
    house = rebuild(quillback_house(), sheets=(), sections=())
    done = apply_edits(house, usual_set(house, resolve(house)))
    points = [point for wall in resolve(house).plan.walls for point in (wall.start, wall.end)]
    x, y = ((min(values) + max(values)) / 2 for values in zip(*points))
    along, across = done.sections
    assert along.y1 == along.y2 == pytest.approx(y) and across.x1 == across.x2 == pytest.approx(x)


def test_what_is_there_stays_and_empty_sheets_are_filled_first() -> None:
    house = quillback_house()
    done = apply_edits(house, usual_set(house, resolve(house)))
    assert done.sections == house.sections and done.sheets[: len(house.sheets)] == house.sheets
    fresh = rebuild(house, sheets=(), sections=())
    fresh = rebuild(fresh, sheets=(house.sheets[0].model_copy(update={"placed": ()}),))
    filled = apply_edits(fresh, usual_set(fresh, resolve(fresh)))
    assert filled.sheets[0].id == house.sheets[0].id and filled.sheets[0].placed


def test_without_walls_it_says_what_to_do() -> None:
    bare = new_project("bare", "Bare", "mm")
    with pytest.raises(RefusedEdit, match="draw its walls first"):
        usual_set(bare, resolve(bare))
