"""Layers that turn into reveals: volumes worked out by hand, in plan, in sections, and where they do not."""

from __future__ import annotations

import pytest

from deepsection.core.drawing import Region
from deepsection.core.edits import PutOpening, UseMakeUp, apply_edits, changed, put
from deepsection.core.model import Layer, MakeUp, Project
from deepsection.core.particulars import enter, fields_of
from deepsection.core.resolve import Part, resolve
from deepsection.core.view import draw_view
from tests.builders import box_house, window

near = pytest.approx


def layer(id: str, material: str, function: str, thickness: float, reveal: str = "no") -> Layer:
    facts = {"id": id, "name": id, "material": material, "function": function, "thickness": thickness, "reveal": reveal}
    return Layer.model_validate(facts)


CAVITY = MakeUp(
    id="cavity-wall",
    name="cavity wall",
    use="wall",
    layers=(
        layer("render", "render", "finish", 20, "frame"),
        layer("outer", "block", "structure", 100, "frame"),
        layer("boards", "rigid", "insulation", 120),
        layer("inner", "block", "structure", 100),
        layer("plaster", "plaster", "lining", 15, "frame"),
    ),
)


def house(set_in: float = 70.0, **facts: object) -> Project:
    """A wall of 355 with a window of 1200 x 1000, its frame (90 deep) 70 behind the outside of the outer leaf."""
    project = apply_edits(put(box_house(8000, 6000), CAVITY), (UseMakeUp(wall="south", make_up="cavity-wall"),))
    opening = window("w1", "south", 4000, width=1200, height=1000)
    into = changed(opening.set_in, layer="outer", face="outer", distance=set_in)
    return apply_edits(project, (PutOpening(opening=changed(opening, set_in=into, trim=0.0, **facts)),))


def returns(project: Project) -> dict[str, Part]:
    return {part.key.split("/")[2]: part for part in resolve(project).parts if part.role == "return"}


def test_render_and_plaster_line_jambs_and_head_up_to_the_frame() -> None:
    """Two jambs and a head of the layer's thickness; the render 70 deep, the plaster what is left of the wall."""
    held = returns(house())
    assert held["render"].solid.volume == near((1200 * 1000 - 1160 * 980) * 70, rel=1e-6)
    behind = 320 - 70 - 90
    assert held["plaster"].solid.volume == near((1200 * 1000 - 1170 * 985) * behind, rel=1e-6)
    assert held["render"].outside and not held["plaster"].outside


def test_a_leaf_closes_the_cavity_beside_the_opening() -> None:
    """100 wide at each jamb, across the 120 of insulation, which gives way."""
    open_, closed = house(returns="none"), house()
    held = returns(closed)["outer"]
    assert held.solid.volume == near(2 * 100 * 1000 * 120, rel=1e-6)
    gone = [
        sum(p.solid.volume for p in resolve(project).parts if p.element == "south" and p.role == "insulation")
        for project in (open_, closed)
    ]
    assert gone[0] - gone[1] == near(held.solid.volume, rel=1e-6), "nothing overlaps"
    assert returns(open_) == {}


def test_returns_stop_short_of_the_frame_by_a_gap_and_follow_the_set_in() -> None:
    gap = tuple(changed(held, reveal_gap=10.0) if held.id == "render" else held for held in CAVITY.layers)
    project = put(house(), changed(CAVITY, layers=gap))
    assert returns(project)["render"].solid.volume == near((1200 * 1000 - 1160 * 980) * 60, rel=1e-6)
    deep = returns(house(set_in=100.0))
    assert deep["render"].solid.volume == near((1200 * 1000 - 1160 * 980) * 100, rel=1e-6)
    assert "render" not in returns(house(set_in=-20.0)), "a frame flush with the outside leaves no reveal"


def test_returns_are_drawn_in_plan_where_layers_show() -> None:
    project = house()
    marks = [m for m in draw_view(resolve(project), project, "plan", 25).marks if isinstance(m, Region)]
    drawn = {str(m.part) for m in marks if m.feature == "return"}
    assert drawn == {f"w1/return/{id}/" for id in ("render", "outer", "plaster")}
    small = draw_view(resolve(project), project, "plan", 100).marks
    assert not [m for m in small if isinstance(m, Region) and m.feature == "return"]


def test_returns_are_turned_on_and_off_in_the_particulars() -> None:
    project = apply_edits(house(), enter(house(), "cavity-wall", "render:reveal", "no"))
    assert set(returns(project)) == {"outer", "plaster"}
    without = apply_edits(house(), enter(house(), "w1", "returns", "none"))
    assert without.find("w1").returns == "none" and returns(without) == {}
    rows = {row.field.id for row in fields_of(house(), CAVITY)}
    assert "render:reveal_gap" in rows and "boards:reveal_gap" not in rows
