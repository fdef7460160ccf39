"""Loft hatches: framed in their ceiling, closed by a flap, reached by a ladder; figures by hand."""

from __future__ import annotations

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.drawing import Stroke, Text
from deepsection.core.edits import DrawLoftHatch, apply_edits, changed, put, rebuild, storey_above
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import Project, SectionLine
from deepsection.core.resolve import Building, Part, resolve
from deepsection.core.trades.lofts.place import HATCHES
from deepsection.core.view import draw_view
from tests.builders import block_house, box_house, gable
from tests.overlaps import overlapping
from tests.turning import turned


def hatched(x: float = 4000.0, y: float = 3500.0, **facts: object) -> Project:
    house = gable(box_house(9000.0, 7000.0), 0.5, overhang=400.0, rake=300.0)
    house = apply_edits(house, (DrawLoftHatch(id="hatch", level="floor", x=x, y=y),))
    return put(house, changed(house.find("hatch"), **facts)) if facts else house


def own(building: Building, role: str, element: str) -> list[Part]:
    return [part for part in building.parts if (part.role, part.element) == (role, element)]


def test_a_hatch_is_framed_in_the_ceiling_and_its_boards_end_at_it() -> None:
    """1200 by 700 with a lining of 18: joists and boards leave 1236 by 736 free."""
    bare = gable(box_house(9000.0, 7000.0), 0.5, overhang=400.0, rake=300.0)
    before, building = resolve(bare), resolve(hatched())
    assert building.diagnostics == ()
    boards = [sum(p.solid.volume for p in own(held, "lining", "ceiling-1")) for held in (before, building)]
    assert boards[0] - boards[1] == pytest.approx(1236.0 * 736.0 * 12.5, rel=1e-6)
    assert len(own(building, "header_joist", "ceiling-1")) == 4 and own(building, "trimmer_joist", "ceiling-1")
    (lining,), (flap,) = own(building, "hatch_lining", "hatch"), own(building, "hatch", "hatch")
    # From the underside of the boards to the top of joists of 140.
    assert lining.solid.volume == pytest.approx((1236.0 * 736.0 - 1200.0 * 700.0) * (12.5 + 140.0))
    assert flap.solid.volume == pytest.approx(1194.0 * 694.0 * 18.0)


def test_a_ladder_comes_down_at_its_pitch() -> None:
    building = resolve(hatched(pitch=60.0))
    (held,) = building.placed[HATCHES]
    assert held.ladder
    (x0, y0), (x1, y1) = held.ladder
    height = building.levels["plate"].z - 12.5 - building.levels["floor"].z
    assert (x0, y0, y1) == (pytest.approx(3400.0), pytest.approx(3500.0), pytest.approx(3500.0))
    assert x1 - x0 == pytest.approx(height / math.tan(math.radians(60.0)))


def test_what_is_wrong_with_a_hatch_is_said() -> None:
    def said(project: Project) -> list[str]:
        return [held.code for held in resolve(project).diagnostics]

    assert said(hatched(x=100.0)) == ["hatch-off"]
    assert said(hatched(width=500.0)) == ["hatch-small"]
    (small,) = resolve(hatched(length=700.0, width=600.0)).diagnostics
    assert (small.field, small.limit) == ("length", 760.0) and small.source and "R807.1" in small.source
    # At 50 degrees it runs about 2.1 m from the back of the opening: past the wall at 9 m, unless it is turned.
    assert said(hatched(x=8000.0, pitch=50.0)) == ["hatch-ladder"]
    assert said(hatched(x=8000.0, pitch=50.0, turn=180.0)) == []
    assert said(hatched(x=8000.0, pitch=50.0, ladder="none")) == []
    bare = rebuild(hatched(), ceilings=(), loft_hatches=())
    with pytest.raises(RefusedEdit, match="no ceiling"):
        apply_edits(bare, (DrawLoftHatch(id="h", level="floor", x=0.0, y=0.0),))


def test_the_plan_and_a_section_along_it_show_the_ladder() -> None:
    house = hatched()
    plan = draw_view(resolve(house), house, "plan", 50)
    drawn = [mark for mark in plan.marks if getattr(mark, "feature", None) == "hatch"]
    assert any(isinstance(mark, Text) and mark.text == "Loft hatch" for mark in drawn)
    assert all(mark.pen == "hidden" for mark in drawn if isinstance(mark, Stroke) and mark.closed)
    along = SectionLine(id="a", name="A", x1=-1000.0, y1=3500.0, x2=10000.0, y2=3500.0, look="left")
    across = SectionLine(id="b", name="B", x1=4000.0, y1=-1000.0, x2=4000.0, y2=9000.0, look="left")
    house = put(house, along, across)
    for name, count in (("section:a", 1), ("section:b", 0)):
        section = draw_view(resolve(house), house, name, 50)
        lines = [mark for mark in section.marks if isinstance(mark, Stroke) and mark.feature == "hatch"]
        assert len(lines) == count


@settings(max_examples=15, deadline=None)
@given(
    st.floats(1200.0, 7800.0),
    st.floats(1200.0, 5800.0),
    st.floats(-180.0, 180.0),
    st.floats(600.0, 1500.0),
    st.sampled_from([0.0, 17.3]),
)
def test_a_hatch_lies_in_nothing_else(x: float, y: float, turn: float, length: float, about: float) -> None:
    house = hatched(x, y, turn=turn, length=length)
    building = resolve(turned(house, about) if about else house)
    hatch = [part for part in building.parts if part.element == "hatch"]
    others = [part for part in building.parts if part.element == "ceiling-1"]
    assert overlapping(hatch, others, most=1e4, among=False) == []


def test_a_hatch_of_an_upper_storey() -> None:
    house = block_house("floor-joists")
    level = house.find("upper").level
    house = apply_edits(house, (DrawLoftHatch(id="hatch", level=level, x=4000.0, y=3000.0),))
    building = resolve(house)
    assert building.diagnostics == () and own(building, "hatch", "hatch")
    assert house.find("hatch").length == 1200.0


def test_a_hatch_under_a_new_storey_is_said() -> None:
    house = hatched()
    raised = apply_edits(house, (storey_above(house, "floor"),))
    said = [held for held in resolve(raised).diagnostics if held.code == "hatch-off"]
    assert len(said) == 1 and "storey above" in said[0].message
    assert not own(resolve(raised), "hatch", "hatch")
    above = put(raised, changed(raised.find("hatch"), level="s2-floor"))
    assert own(resolve(above), "hatch", "hatch")
