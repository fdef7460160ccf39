"""Walls kept under a name: used again on other walls, and carried to other projects."""

from __future__ import annotations

import pytest

from deepsection.core.edits import PutSavedWall, PutWall, Remove, SaveWall, UseSavedWall, apply_edits, changed, describe
from deepsection.core.errors import BadInput, RefusedEdit
from deepsection.core.model import Moulding, Project, SectionSpot, load_project
from deepsection.core.model.documents import dump_project
from deepsection.core.particulars import describe_element, enter
from deepsection.core.resolve import resolve
from tests.builders import box_house

PLINTH = Moulding(
    id="plinth", name="plinth",
    section=tuple(SectionSpot(out=out, up=up) for out, up in ((0, 0), (50, 0), (50, 300), (0, 300))),
)  # fmt: skip


def house() -> Project:
    """A box whose first wall leans, is raised off its level and has a plinth."""
    plain = box_house(12_000, 8000)
    wall = plain.walls[0]
    special = changed(
        wall, mouldings=(PLINTH,), lean=2.0, offset=15.0,
        base=changed(wall.base, offset=150.0), top=changed(wall.top, kind="fixed", height=2000.0),
    )  # fmt: skip
    return apply_edits(plain, [PutWall(wall=special), SaveWall(wall=wall.id, id="saved-1", name="Garden wall")])


def test_all_but_its_place_is_kept_and_used_again() -> None:
    project = house()
    first, *others = project.walls
    used = apply_edits(project, [UseSavedWall(saved="saved-1", walls=tuple(wall.id for wall in others))])
    for before, after in zip(others, used.walls[1:]):
        assert (after.start, after.end, after.outside) == (before.start, before.end, before.outside)
        assert (after.base.level, after.top.level) == (before.base.level, before.top.level)
        assert after.mouldings == (PLINTH,) and after.lean == 2.0 and after.base.offset == 150.0
        assert after.top.kind == "fixed" and after.top.height == 2000.0
        assert used.saved_walls[0].describes(after)
    assert not project.saved_walls[0].describes(others[0])
    tops = {wall.wall.id: resolve(used).totals[f"top:{wall.wall.id}"] for wall in resolve(used).plan.walls}
    assert len(set(tops.values())) == 1 and set(tops) >= {first.id}


def test_a_name_is_replaced_and_forgotten() -> None:
    project = house()
    other = project.walls[1]
    again = apply_edits(project, [SaveWall(wall=other.id, id="saved-2", name="garden WALL")])
    assert [(saved.id, saved.lean) for saved in again.saved_walls] == [("saved-1", 0.0)]
    assert apply_edits(again, [Remove(elements=("saved-1",))]).saved_walls == ()
    assert describe([UseSavedWall(saved="saved-1", walls=(other.id,))], project) == "use Garden wall"


def test_particulars_offer_them() -> None:
    project = house()
    first, second = project.walls[:2]
    fields = {field.id: field for field in describe_element(project, resolve(project), first.id).fields}
    assert fields["saved"].text == "saved-1" and fields["save_as"].text == "Garden wall" and "forget" in fields
    other = {field.id: field for field in describe_element(project, resolve(project), second.id).fields}
    assert other["saved"].text == "-" and [held.label for held in other["saved"].options] == ["none", "Garden wall"]
    assert apply_edits(project, enter(project, second.id, "saved", "saved-1")).walls[1].lean == 2.0
    named = apply_edits(project, enter(project, second.id, "save_as", "Plain"))
    assert [saved.name for saved in named.saved_walls] == ["Garden wall", "Plain"]
    renamed = apply_edits(named, enter(named, "saved-1", "name", "Yard wall"))
    assert renamed.saved_walls[0].name == "Yard wall"
    with pytest.raises(RefusedEdit, match="another saved wall is called plain"):
        apply_edits(named, enter(named, "saved-1", "name", "plain"))
    with pytest.raises(BadInput):
        enter(project, second.id, "saved", "saved-9")


def test_they_are_stored_and_hold_their_make_up() -> None:
    project = house()
    assert load_project(dump_project(project)) == project
    bad = changed(project.saved_walls[0], set_out=changed(project.saved_walls[0].set_out, layer="nothing"))
    with pytest.raises(RefusedEdit, match="set-out face"):
        apply_edits(project, [PutSavedWall(saved=bad)])
    with pytest.raises(RefusedEdit):
        apply_edits(project, [Remove(elements=(project.saved_walls[0].make_up,))])
