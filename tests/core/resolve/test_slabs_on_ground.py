"""Slabs within foundations: deep edges, deeper under walls that bear, set down; volumes by hand."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from deepsection.core.drawing import Region, Text
from deepsection.core.edits import DrawSetDown, apply_edits, changed, put
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import Foundation, Project, SectionLine
from deepsection.core.particulars.fields import fields_of
from deepsection.core.resolve import Building, Part, resolve
from deepsection.core.view import draw_view
from deepsection.demo.pieces import on, partition
from tests.builders import box_house, joist_house, l_house
from tests.overlaps import overlapping
from tests.turning import turned

UNDER, LOW = 200.0, -1050.0
"""The underside of the slab (its top at 300, 100 thick), and the footing level of the starter."""
WIDE = 350.0


def house(**foundation: object) -> Project:
    made = box_house(9000.0, 7000.0)
    return put(made, changed(made.foundations[0], footing_width=WIDE, **foundation))


def set_down(project: Project, corners: object = None, drop: float = 100.0, id: str = "down") -> Project:
    corners = corners or ((3000.0, 2000.0), (5000.0, 2000.0), (5000.0, 4500.0), (3000.0, 4500.0))
    made = apply_edits(project, (DrawSetDown(id=id, level="floor", corners=corners),))
    return put(made, changed(made.find(id), drop=drop))


def own(building: Building, role: str, layer: str = "") -> list[Part]:
    parts = (part for part in building.parts if part.element == "foundation" and part.role == role)
    return [part for part in parts if not layer or f"/{layer}/" in part.key]


def volume(parts: list[Part]) -> float:
    return sum(part.solid.volume for part in parts)


def codes(project: Project) -> list[str]:
    return [held.code for held in resolve(project).diagnostics]


def test_a_deep_edge_goes_down_to_the_footing_level_and_slopes_up_to_the_slab() -> None:
    building = resolve(house(form="deep edge"))
    assert building.levels["footing"].z == pytest.approx(LOW)
    a, b, h = 9000.0 - 2 * WIDE, 7000.0 - 2 * WIDE, 300.0
    edge = (9000.0 * 7000.0 - a * b) * (UNDER + 100.0 - LOW)
    # Over a slope of 1 in 1 the concrete is h - d high at a distance d inward, around (a - 2d) by (b - 2d).
    slope = (a + b) * h**2 - 4.0 / 3.0 * h**3
    assert volume(own(building, "slab_edge")) == pytest.approx(edge + slope, rel=1e-6)
    assert volume(own(building, "structure")) == pytest.approx(a * b * 100.0)
    assert not own(building, "footing") and not own(building, "stem")
    # At a depth y below the slab gravel lies within (a - 2(h - y)) by (b - 2(h - y)); it begins 75.3 down.
    steps = 20_000
    depths = [75.3 + (k + 0.5) * 150.0 / steps for k in range(steps)]
    gravel = sum((a - 2 * (h - y)) * (b - 2 * (h - y)) for y in depths) * 150.0 / steps
    assert volume(own(building, "finish", "gravel")) == pytest.approx(gravel, rel=1e-6)


def bearing(project: Project) -> Project:
    made = apply_edits(project, (partition("mid", on("p1", "south", 4000.0), on("p2", "north", 5000.0)),))
    return put(made, changed(made.find("mid"), bearing="yes"))


def test_a_slab_is_deeper_under_a_wall_that_bears() -> None:
    """300 wide at its bottom and 300 deep in all under 100 of slab: a section of 200 by (300 + 700) / 2."""
    plain = bearing(house())
    (said,) = resolve(plain).diagnostics
    assert (said.code, said.element, said.value) == ("wall-on-slab", "mid", pytest.approx(100.0))
    deep = put(plain, changed(plain.foundations[0], under_walls="deep"))
    building = resolve(deep)
    assert building.diagnostics == ()
    between = 7000.0 - 2 * plain.foundations[0].stem_thickness
    assert volume(own(building, "slab_edge")) == pytest.approx(200.0 * 500.0 * between, rel=1e-6)
    # No deeper than the slab is no deeper.
    assert "wall-on-slab" in codes(put(deep, changed(deep.foundations[0], deep_depth=100.0)))


def test_a_set_down_lies_lower_with_a_step_of_concrete_around_it() -> None:
    building = resolve(set_down(house(), drop=100.0))
    stem = house().foundations[0].stem_thickness
    inner, ring = (9000.0 - 2 * stem) * (7000.0 - 2 * stem), 2200.0 * 2700.0 - 2000.0 * 2500.0
    assert building.diagnostics == ()
    assert volume(own(building, "structure")) == pytest.approx(inner * 100.0)
    assert volume(own(building, "slab_edge")) == pytest.approx(ring * 100.0)
    # Of the gravel, 75.3 to 225.3 below the slab, the step takes what is less than 100 below it.
    assert volume(own(building, "finish", "gravel")) == pytest.approx(inner * 150.0 - ring * (100.0 - 75.3))
    tops = {round(part.solid.bounds.z1, 1) for part in own(building, "structure")}
    assert tops == {300.0, 200.0}


def test_what_cannot_be_set_down_is_said() -> None:
    off = set_down(house(), corners=((7000.0, 2000.0), (11000.0, 2000.0), (11000.0, 4000.0), (7000.0, 4000.0)))
    assert codes(off) == ["set-down-off"]
    twice = set_down(set_down(house()), id="other")
    assert codes(twice) == ["set-down-off"]
    (said,) = resolve(set_down(house(), drop=1100.0)).diagnostics
    # 300 less 1100 and 325.3 of layers is 75.3 below the footings at -1050.
    assert (said.code, said.value, said.limit) == ("set-down-deep", 1100.0, pytest.approx(1100.0 - 75.3))
    with pytest.raises(RefusedEdit, match="no slab to set down"):
        set_down(joist_house(9000.0, 7000.0))
    with pytest.raises(RefusedEdit, match="without crossing"):
        set_down(house(), corners=((0.0, 0.0), (10.0, 0.0), (10.0, 10.0)))


def test_a_deep_edge_is_that_of_a_slab() -> None:
    founded = joist_house(9000.0, 7000.0)
    with pytest.raises((RefusedEdit, ValidationError), match="slab on the ground"):
        put(founded, changed(founded.foundations[0], form="deep edge"))
    assert "form" not in {row.field.id for row in fields_of(founded, founded.foundations[0])}


@settings(max_examples=12, deadline=None)
@given(
    st.floats(-500.0, 8000.0),
    st.floats(-500.0, 6000.0),
    st.floats(400.0, 4000.0),
    st.floats(400.0, 3000.0),
    st.floats(10.0, 600.0),
    st.sampled_from([0.0, 17.3, -131.2]),
    st.sampled_from(["wall", "deep edge"]),
    st.booleans(),
)
def test_nothing_of_a_slab_lies_in_the_rest_of_it(
    x: float, y: float, w: float, d: float, drop: float, turn: float, form: str, ell: bool
) -> None:
    made = l_house() if ell else bearing(house())
    made = put(made, changed(made.foundations[0], form=form, under_walls="deep"))
    made = set_down(made, corners=((x, y), (x + w, y), (x + w, y + d), (x, y + d)), drop=drop)
    building = resolve(turned(made, turn) if turn else made)
    laid = [part for part in building.parts if part.element == "foundation"]
    assert overlapping(laid, most=1e4) == []


def test_a_section_draws_what_is_cast_in_one_as_one() -> None:
    made = set_down(bearing(house(form="deep edge", under_walls="deep")))
    line = SectionLine(id="a", name="A", x1=-1000.0, y1=3000.0, x2=10000.0, y2=3000.0, look="left")
    made = put(made, line)
    drawing = draw_view(resolve(made), made, "section:a", 20)
    cut = [mark.part or "" for mark in drawing.marks if isinstance(mark, Region) and mark.feature == "cut"]
    cast = [part for part in cut if part.startswith(("foundation/slab_edge", "foundation/structure"))]
    assert len(cast) == 1


def test_the_plan_says_how_far_a_slab_is_set_down() -> None:
    made = set_down(house(), drop=150.0)
    drawing = draw_view(resolve(made), made, "plan", 50)
    assert any(isinstance(mark, Text) and mark.text == "down 150" for mark in drawing.marks)
    rows = {row.field.id: row.field.text for row in fields_of(made, made.find("down"))}
    assert (rows["drop"], rows["length"], rows["width"]) == ("150", "2000", "2500")


def test_the_particulars_of_a_foundation_offer_both_forms() -> None:
    made = house()
    rows = {row.field.id: row for row in fields_of(made, made.foundations[0])}
    edged = apply_edits(made, rows["form"].edits("deep edge"))
    found = edged.foundations[0]
    assert isinstance(found, Foundation) and found.form == "deep edge" and found.bears_on == WIDE
    assert "stem_thickness" not in {row.field.id for row in fields_of(edged, found)}
    deeper = apply_edits(edged, rows["under_walls"].edits("deep"))
    assert {"deep_width", "deep_depth"} <= {row.field.id for row in fields_of(deeper, deeper.foundations[0])}
