"""New, existing, to be removed: two houses from one document, and drawings that tell them apart."""

from __future__ import annotations

import random

import pytest

from deepsection.core.document.declaring import Standing
from deepsection.core.drawing import Region, Stroke, Text
from deepsection.core.edits import PutShow, Remove, SetState, apply_edits, describe
from deepsection.core.edits.states import after_works, before_works
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import Project, ViewShow
from deepsection.core.particulars import describe_element, enter
from deepsection.core.resolve import resolve
from deepsection.core.view import draw_view, list_views, opened
from deepsection.demo import DEMOS, quillback_house


def standing(project: Project) -> list[str]:
    return [element.id for element in project.elements() if isinstance(element, Standing)]


def works(project: Project, existing: list[str], removed: list[str]) -> Project:
    edits = [SetState(elements=tuple(ids), to=to) for ids, to in ((existing, "existing"), (removed, "removed")) if ids]  # type: ignore[arg-type]
    return apply_edits(project, edits)


def test_what_is_new_is_drawn_as_ever() -> None:
    house = quillback_house()
    assert after_works(house) == house and not before_works(house).walls
    assert {element.state for element in house.elements() if isinstance(element, Standing)} == {"new"}


def test_the_house_after_the_works_is_the_one_from_which_things_were_taken() -> None:
    house = quillback_house()
    gone = [house.openings[0].id, house.walls[-1].id]
    changed = works(house, standing(house), gone)
    plain = apply_edits(house, [Remove(elements=tuple(gone))])
    key = lambda part: part.key  # noqa: E731
    after = sorted(resolve(changed).parts, key=key)
    other = sorted(resolve(plain).parts, key=key)
    assert [part.key for part in after] == [part.key for part in other]
    assert [part.solid.volume for part in after] == pytest.approx([part.solid.volume for part in other])
    before = resolve(changed, works="before")
    assert {part.key for part in before.parts} == {part.key for part in resolve(house).parts}


def test_plans_show_existing_walls_light_and_removed_ones_dashed_with_a_key() -> None:
    house = quillback_house()
    old, gone = house.walls[0].id, house.walls[-1].id
    changed = works(house, [old], [gone])
    drawing = draw_view(resolve(changed), changed, "plan", 48)
    cut = {
        id: {mark.fill for mark in drawing.marks if isinstance(mark, Region) and (mark.part or "").startswith(f"{id}/")}
        for id in (old, house.walls[1].id, gone)
    }
    assert "existing" in cut[old] and "poche" not in cut[old]
    assert "poche" in cut[house.walls[1].id] and "existing" not in cut[house.walls[1].id]
    assert cut[gone] == set()
    dashed = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.pen == "removed" and mark.part]
    assert dashed and all(mark.part.startswith(f"{gone}/") for mark in dashed if mark.part)
    key = [mark.text for mark in drawing.marks if isinstance(mark, Text) and mark.feature == "key"]
    assert key == ["new", "existing", "to be removed"]


@pytest.mark.parametrize("shown", ["before", "after"])
def test_a_view_may_show_the_house_before_or_after_the_works(shown: str) -> None:
    house = quillback_house()
    window = house.openings[0].id
    changed = works(house, [id for id in standing(house) if id != house.openings[1].id], [window])
    own = ViewShow(id="own", view="elevation:south", works=shown)  # type: ignore[arg-type]
    changed = apply_edits(changed, [PutShow(show=own)])
    for name in ("elevation:south", "elevation:north"):
        drawing = draw_view(resolve(changed), changed, name, 48)
        held = {getattr(mark, "pen", None) for mark in drawing.marks}
        assert ("existing" in held) == (name == "elevation:north"), "only where states are told apart"
    parts = {part.element for part in resolve(changed, works=shown).parts}  # type: ignore[arg-type]
    assert (window in parts) == (shown == "before") and (house.openings[1].id in parts) == (shown == "after")


def test_particulars_and_history_say_it() -> None:
    house = quillback_house()
    wall = house.walls[0].id
    (row,) = [row for row in describe_element(house, resolve(house), wall).fields if row.id == "state"]
    assert [option.label for option in row.options] == ["new", "existing", "to be removed"]
    edits = enter(house, wall, "state", "removed")
    assert describe(edits, house) == "make a wall to be removed"
    removed = apply_edits(house, edits)
    assert describe_element(removed, resolve(removed), wall).title == "Outer wall"
    with pytest.raises(RefusedEdit, match="make-ups are not"):
        apply_edits(house, [SetState(elements=(house.make_ups[0].id,), to="existing")])


@pytest.mark.parametrize("make", DEMOS, ids=lambda make: make.__name__)
def test_any_mixture_of_states_is_drawn_whole(make: object) -> None:
    project: Project = make()  # type: ignore[operator]
    ids = standing(project)
    rng = random.Random(len(ids))
    changed = works(project, rng.sample(ids, len(ids) // 2), rng.sample(ids, len(ids) // 5))
    held = opened(changed)
    assert held.left_out == ()
    gone = {id for id in ids if changed.find(id).state == "removed"}
    assert not gone & {part.element for part in held.building.parts}
    for view in list_views(changed)[:4]:
        drawing = draw_view(held.building, changed, view.name, changed.scale)
        solid = [mark for mark in drawing.marks if isinstance(mark, Region) and mark.part]
        assert not [mark for mark in solid if mark.part and mark.part.partition("/")[0] in gone]
    for id in ids:
        assert describe_element(changed, held.building, id).fields
