"""A document that is but drawn otherwise keeps all that was made of its house."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from deepsection.core.edits import put
from deepsection.core.kinds import KINDS
from deepsection.core.model import Project
from deepsection.core.resolve import redrawn, resolve
from deepsection.core.view import draw_view, list_views
from deepsection.demo import DEMOS

DRAWN = ("sections", "wall_sections", "details", "shows", "notes", "sheets")
PAPER = [kind for kind in KINDS if kind.on_paper]


def test_kinds_that_are_but_drawn_make_nothing_of_the_house() -> None:
    placed = resolve(DEMOS[0]()).placed
    assert len(PAPER) > 5
    for kind in PAPER:
        assert not list(kind.parts(placed)) and not list(kind.advice(placed)) and kind.cuts is None
        assert not hasattr(kind.model, "state"), "it does not stand in the house"


@pytest.mark.parametrize("make", DEMOS, ids=lambda make: make.__name__)
def test_a_house_without_any_drawings_is_the_same_house(make: Callable[[], Project]) -> None:
    project = make()
    before = resolve(project)
    bare = project.model_copy(update=dict.fromkeys(DRAWN, ()))
    again, anew = redrawn(before, bare), resolve(bare)
    assert again is not None and again.parts is before.parts
    assert again.sums == anew.sums and [part.key for part in again.parts] == [part.key for part in anew.parts]
    assert all(one.solid.reach == other.solid.reach for one, other in zip(again.parts, anew.parts))
    assert again.diagnostics == anew.diagnostics
    assert again.placed.project == bare


def test_what_is_wrong_with_a_section_goes_with_it() -> None:
    project = DEMOS[1]()
    before = resolve(project)
    line = project.sections[0]
    off = put(
        project,
        line.model_copy(update={"y1": line.y1 + 1e6, "y2": line.y2 + 1e6}),
    )
    again = redrawn(before, off)
    assert again is not None
    assert again.faults == resolve(off).faults != before.faults
    back = redrawn(again, project)
    assert back is not None and back.faults == before.faults


def test_views_of_it_are_those_of_a_building_made_anew() -> None:
    project = DEMOS[1]()
    before = resolve(project)
    line = project.sections[0]
    moved = put(project, line.model_copy(update={"x1": line.x1 + 150.0, "x2": line.x2 + 150.0}))
    again, anew = redrawn(before, moved), resolve(moved)
    assert again is not None
    for view in list_views(moved)[:6]:
        assert draw_view(again, moved, view.name, 50.0).marks == draw_view(anew, moved, view.name, 50.0).marks


def test_a_change_of_the_house_is_made_anew() -> None:
    project = DEMOS[1]()
    before = resolve(project)
    window = project.openings[0]
    assert redrawn(before, put(project, window.model_copy(update={"distance": window.distance + 10.0}))) is None
    assert redrawn(before, project.model_copy(update={"units": "mm" if project.units != "mm" else "ft-in"})) is None
