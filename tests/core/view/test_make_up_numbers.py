"""Numbers of make-ups on plans: one at every wall, each in the legend, by choice of the view."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from deepsection.core.drawing import Stroke, Text
from deepsection.core.edits import put
from deepsection.core.model import Project, ViewShow
from deepsection.core.resolve import resolve, storeys
from deepsection.core.view import draw_view, plan_name
from deepsection.demo import DEMOS, fernacre_bungalow
from tests.reading import faults


def numbered(project: Project) -> Project:
    plans = [plan_name(project, storey.level) for storey in storeys(project)]
    shown = {show.view: show for show in project.shows}
    return put(
        project,
        *(
            shown[name].model_copy(update={"make_ups": True}) if name in shown
            else ViewShow(id=f"show-m{k}", view=name, make_ups=True)
            for k, name in enumerate(plans)
        ),
    )  # fmt: skip


@pytest.mark.parametrize("demo", DEMOS)
@pytest.mark.parametrize("scale", [50.0, 100.0])
def test_every_wall_has_its_number_and_every_number_its_row(demo: Callable[[], Project], scale: float) -> None:
    project = numbered(demo())
    building = resolve(project)
    for storey in storeys(project):
        drawing = draw_view(building, project, plan_name(project, storey.level), scale)
        assert not faults(drawing)
        texts = [mark for mark in drawing.marks if isinstance(mark, Text) and mark.feature == "make_up"]
        walls = {wall.wall.id: wall.wall.make_up for wall in building.plan.on(storey.level)}
        missing = {key for key, _ in drawing.left_out}
        assert {mark.part for mark in texts} == {id for id in walls if f"makeup:{id}" not in missing}
        assert len(texts) >= 0.9 * len(walls)
        by_make_up = {walls[mark.part or ""]: mark.text for mark in texts}
        assert all(by_make_up[walls[mark.part or ""]] == mark.text for mark in texts), "one number per make-up"
        legend = [mark.text for mark in drawing.marks if isinstance(mark, Text) and mark.feature == "schedule"]
        names = {held.id: held.name for held in project.make_ups}
        for make_up, number in by_make_up.items():
            assert number in legend and names[make_up] in legend
        hexagons = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "make_up"]
        assert {len(mark.path) for mark in hexagons} <= {6}


def test_the_legend_says_the_layers_from_the_outside_in_by_hand() -> None:
    """Fernacre's inner wall: 15 mm of plaster on both sides of 100 mm of block."""
    project = numbered(fernacre_bungalow())
    drawing = draw_view(resolve(project), project, "plan", 100.0)
    legend = [mark.text for mark in drawing.marks if isinstance(mark, Text) and mark.feature == "schedule"]
    row = legend.index("block inner wall 100")
    assert legend[row - 1 : row + 3] == ["2", "block inner wall 100", "130", "15 plaster, 100 block, 15 plaster"]
    plain = draw_view(resolve(project), fernacre_bungalow(), "plan", 100.0)
    assert not any(isinstance(mark, Text) and mark.feature in ("make_up", "schedule") for mark in plain.marks)
