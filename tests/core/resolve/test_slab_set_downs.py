"""Parts of a suspended slab at another height: figures by hand, turned and mirrored, beside walls, refused in words."""

from __future__ import annotations

import math
from pathlib import Path

import ifcopenshell
import pytest
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon, box

from deepsection.core.document.motion import Motion
from deepsection.core.drawing import Region, Stroke, Text
from deepsection.core.edits import DrawSetDown, LevelDeck, Transform, apply_edits, changed, put
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import FloorHole, SectionLine
from deepsection.core.resolve import Building, Part, resolve
from deepsection.core.trades.decks.place import DECKS
from deepsection.core.trades.floors.place import FLOORS
from deepsection.core.trades.loads.placed import LOADS
from deepsection.core.view import draw_view
from deepsection.formats.writers import write_ifc
from tests.builders import SHOWER, block_house, slab_house, with_inner
from tests.campaigns import share
from tests.core.resolve.test_decks import decked
from tests.overlaps import overlapping


def of(building: Building, element: str, *roles: str) -> list[Part]:
    return [part for part in building.parts if part.element == element and (not roles or part.role in roles)]


def volume(parts: list[Part]) -> float:
    return sum(float(trimesh.Trimesh(*part.solid.mesh()).volume) for part in parts)


def clear(building: Building, most: float = 100.0) -> bool:
    own = of(building, "low")
    return overlapping(own, [part for part in building.parts if part.element != "low"], most=most) == []


def test_it_lies_lower_by_its_drop_within_an_upstand_as_thick_as_itself() -> None:
    """1500 x 1200; its upstand 200 round it, mitred at the corners, from 100 under the slab up to it."""
    plain, building = resolve(block_house()), resolve(slab_house())
    assert building.diagnostics == ()
    slab = of(building, "low", "slab")
    assert volume(slab) == pytest.approx(1500.0 * 1200.0 * 200.0)
    upper = next(flat for flat in building[FLOORS] if flat.floor.id == "upper")
    assert slab[0].solid.bounds.z0 == pytest.approx(upper.under.z - 100.0)
    upstand = of(building, "low", "upstand")
    assert volume(upstand) == pytest.approx((1900.0 * 1600.0 - 1500.0 * 1200.0) * 100.0)
    assert (upstand[0].solid.bounds.z0, upstand[0].solid.bounds.z1) == pytest.approx(
        (upper.under.z - 100.0, upper.under.z)
    )
    # What the slab around it loses is what the part takes.
    for role, thickness in (("slab", 200.0), ("finish", 65.0), ("insulation", 25.0)):
        lost = volume(of(plain, "upper", role)) - volume(of(building, "upper", role))
        assert lost == pytest.approx(1500.0 * 1200.0 * thickness), role
        assert volume(of(building, "low", role)) == pytest.approx(lost), role
    assert clear(building)


def test_a_thinner_slab_set_down_by_as_much_ends_against_the_one_around_it() -> None:
    """Both undersides at the bearing: no upstand, and it may reach over the walls, 100 into each leaf."""
    building = resolve(slab_house(((200.0, 200.0), (3000.0, 200.0), (3000.0, 2500.0), (200.0, 2500.0)), 60.0, 140.0))
    assert building.diagnostics == () and of(building, "low", "upstand") == []
    # The leaves' insides lie at 350: the slab begins at 250.
    assert volume(of(building, "low", "slab")) == pytest.approx(2750.0 * 2250.0 * 140.0)
    assert clear(building)


def test_a_part_that_lies_higher_has_its_upstand_under_itself() -> None:
    building = resolve(slab_house(drop=-80.0))
    assert building.diagnostics == ()
    assert volume(of(building, "low", "upstand")) == pytest.approx((1500.0 * 1200.0 - 1100.0 * 800.0) * 80.0)
    assert clear(building)


def test_a_thicker_part_with_the_same_top_needs_none() -> None:
    building = resolve(slab_house(drop=0.0, thickness=300.0))
    assert of(building, "low", "upstand") == [] and clear(building)
    assert volume(of(building, "low", "slab")) == pytest.approx(1500.0 * 1200.0 * 300.0)


def test_beside_a_wall_it_ends_at_the_leaf_and_says_that_nothing_carries_it_there() -> None:
    """Drawn to the insides of two leaves and 100 into them: it ends at 350, where the slab goes on over the leaf."""
    building = resolve(slab_house(((250.0, 250.0), (3000.0, 250.0), (3000.0, 2500.0), (250.0, 2500.0))))
    found = next(held for held in building.diagnostics if held.code == "set-in-rise")
    assert found.limit == pytest.approx(0.0) and "100 below" in found.message and found.field == "drop"
    assert "let it lie level" in found.message
    assert volume(of(building, "low", "slab")) == pytest.approx(2650.0 * 2150.0 * 200.0)
    assert clear(building)


def test_beside_a_wall_its_underside_is_levelled_with_one_action() -> None:
    """100 lower, the slab 100 instead of 200: it lies on the leaf as far as it was drawn. So it is where it lies 60
    higher; the make-up that there is of such a thickness is taken again."""
    corners = ((250.0, 250.0), (3000.0, 250.0), (3000.0, 2500.0), (250.0, 2500.0))
    for drop in (100.0, -60.0):
        house = slab_house(corners, drop)
        level = apply_edits(house, (LevelDeck(deck="low"),))
        building = resolve(level)
        assert {held.code for held in building.diagnostics} <= {"slab-span"}
        assert of(building, "low", "upstand") == []
        assert volume(of(building, "low", "slab")) == pytest.approx(2750.0 * 2250.0 * (200.0 - drop))
        assert len(level.make_ups) == len(house.make_ups) + 1 and clear(building)
        assert apply_edits(put(level, changed(level.decks[0], make_up="other")), (LevelDeck(deck="low"),)) == level


def test_too_little_of_a_slab_is_refused_with_the_drop_that_would_do() -> None:
    with pytest.raises(RefusedEdit, match=r"a slab of 50 would be left: set .* down by 125 at most") as refused:
        apply_edits(slab_house(drop=150.0), (LevelDeck(deck="low"),))
    assert refused.value.limit == pytest.approx(125.0)
    with pytest.raises(RefusedEdit, match="no part of a slab"):
        apply_edits(decked(), (LevelDeck(deck="deck"),))


def test_a_thick_part_beside_a_wall_is_to_be_raised() -> None:
    """100 lower and 50 thicker than the slab: level with what bears it where it is raised by 50 over the slab."""
    building = resolve(slab_house(((350.0, 350.0), (3000.0, 350.0), (3000.0, 2500.0), (350.0, 2500.0)), 100.0, 250.0))
    found = next(held for held in building.diagnostics if held.code == "set-in-rise")
    assert found.limit == pytest.approx(-50.0) and "50 higher than that floor" in found.message


def test_a_wall_below_that_does_not_bear_ends_under_it() -> None:
    house = block_house(inner=True)
    house = put(house, changed(house.find("inner"), bearing="no"))
    building = resolve(
        slab_house(((3800.0, 2000.0), (5400.0, 2000.0), (5400.0, 3200.0), (3800.0, 3200.0)), house=house)
    )
    assert clear(building)
    plain = resolve(house)
    lost = volume(of(plain, "inner", "structure")) - volume(of(building, "inner", "structure"))
    make_up = next(held for held in house.make_ups if held.id == "wall-inner")
    width = sum(layer.thickness for layer in make_up.layers if layer.function == "structure")
    # 1200, and the upstand at both ends.
    assert lost == pytest.approx(width * 1600.0 * 100.0)


def test_a_wall_below_that_bears_parts_it_and_that_is_said() -> None:
    """Drawn 700 to the west and 800 to the east of a leaf of block that the slab lies on: the larger piece is built."""
    house = block_house(inner=True)
    corners = ((3800.0, 2000.0), (5400.0, 2000.0), (5400.0, 3200.0), (3800.0, 3200.0))
    building = resolve(slab_house(corners, house=house))
    said = {held.code: held.message for held in building.diagnostics}
    assert "draw a part on either side" in said["set-in-over"] and "100 below" in said["set-in-rise"]
    assert clear(building) and building[DECKS][0].area.bounds[2] == pytest.approx(5400.0)


def test_a_wall_over_it_is_said() -> None:
    house = block_house()
    house = with_inner(house, "over", ("s2-w1", 2700.0), ("s2-w3", 5300.0), house.find("upper").level)
    codes = {held.code: held for held in resolve(slab_house(house=house)).diagnostics}
    assert "100 lower" in codes["set-in-wall"].message and codes["set-in-wall"].others == ("over",)


def test_two_parts_and_a_hole_lie_beside_each_other() -> None:
    house = slab_house()
    hole = FloorHole(
        id="shaft",
        name="Shaft",
        floor="upper",
        corners=((4000.0, 2000.0), (4600.0, 2000.0), (4600.0, 2600.0), (4000.0, 2600.0)),
    )
    house = put(house, hole)
    level = house.find("upper").level
    over = tuple((x + 1000.0, y) for x, y in SHOWER)
    found = resolve(apply_edits(house, (DrawSetDown(id="second", level=level, corners=over),)))
    assert [held.element for held in found.diagnostics if held.code == "set-in-over"] == ["second"]
    taken = next(flat for flat in found[FLOORS] if flat.floor.id == "upper").parts
    assert taken[0].under_slab.intersection(taken[1].area).area == pytest.approx(0.0, abs=1.0)
    assert taken[1].area.intersection(Polygon(hole.corners)).area == pytest.approx(0.0, abs=1.0)
    assert overlapping([*of(found, "low"), *of(found, "second")], of(found, "upper"), among=True) == []


def test_joists_in_a_slab_are_refused_at_their_make_up() -> None:
    house = slab_house()
    building = resolve(put(house, changed(house.decks[0], make_up="floor-joists")))
    found = next(held for held in building.diagnostics if held.code == "set-in-unlike")
    assert (found.element, found.field) == ("low", "make_up")
    assert len(building.diagnostics) == 1


def test_of_a_part_over_a_wall_below_alone_nothing_is_left_and_that_is_all_that_is_said() -> None:
    """1200 x 100, all of it over the leaf, at another height than that."""
    corners = ((2000.0, 252.0), (3200.0, 252.0), (3200.0, 348.0), (2000.0, 348.0))
    building = resolve(slab_house(corners))
    assert [(held.code, held.element) for held in building.diagnostics] == [("set-in-over", "low")]
    assert "nothing is left" in building.diagnostics[0].message


def test_it_hangs_on_the_slab_around_it_and_is_drawn_on_plan_and_section() -> None:
    project = slab_house()
    building = resolve(project)
    assert building[LOADS].carriers["low"] == ("upper",)
    assert building[DECKS][0].top.z == pytest.approx(building[FLOORS][0].top.z - 100.0)
    level = project.find("upper").level
    name = next(held for held in ("plan:" + level, "plan") if held)
    words = [mark.text for mark in draw_view(building, project, name, 50).marks if isinstance(mark, Text)]
    assert any(text.endswith("part 2") for text in words), words


def test_slab_part_and_upstand_are_cut_as_one() -> None:
    """Where both are cut, one region of concrete: the slab 5500 long less 1200 of the part, the part, its two edges."""
    project = put(slab_house(), SectionLine(id="sx", name="X", x1=2700.0, y1=-500.0, x2=2700.0, y2=6500.0))
    drawing = draw_view(resolve(project), project, "section:sx", 50)
    concrete = [
        Polygon([(u, v) for u, v, _ in mark.rings[0]])
        for mark in drawing.marks
        if isinstance(mark, Region)
        and mark.feature == "cut"
        and mark.part.split("/")[:2] in (["upper", "slab"], ["low", "slab"])
    ]
    whole = [polygon.area for polygon in concrete if polygon.area > 1e5]
    assert whole == [pytest.approx(4300.0 * 200.0 + 1200.0 * 200.0 + 2 * 200.0 * 100.0, rel=1e-3)]


def test_the_engineer_sees_how_much_lower_it_lies_and_its_upstand_dashed() -> None:
    project = slab_house()
    drawing = draw_view(resolve(project), project, "plan:structure:upper", 50)
    assert any(isinstance(mark, Text) and mark.text == "Upper floor, part 2, 100 lower" for mark in drawing.marks)
    dashed = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "upstand"]
    sizes = {round(Polygon([(u, v) for u, v, _ in mark.path]).area) for mark in dashed}
    assert sizes == {1900 * 1600, 1500 * 1200}


def test_a_model_has_slabs_joined_by_an_upstand(tmp_path: Path) -> None:
    project = slab_house()
    held = tmp_path / "house.ifc"
    held.write_bytes(write_ifc(project, resolve(project)))
    model = ifcopenshell.open(str(held))
    assert [one.PredefinedType for one in model.by_type("IfcSlab") if one.Name == "slab"] == ["FLOOR", "FLOOR"]
    assert len([one for one in model.by_type("IfcBeam") if "upstand" in one.Name]) == 1


@pytest.mark.parametrize("motion", [Motion(turn=27.0), Motion(mirror=90.0, x=4000.0)])
def test_it_turns_and_mirrors_with_the_house(motion: Motion) -> None:
    project = slab_house()
    moving = tuple(element.id for element in project.elements() if element.about.movable)
    after, before = resolve(apply_edits(project, (Transform(elements=moving, motion=motion),))), resolve(project)
    assert after.diagnostics == ()
    for role in ("slab", "upstand", "finish", "insulation"):
        assert volume(of(after, "low", role)) == pytest.approx(volume(of(before, "low", role)), rel=1e-4), role


@settings(max_examples=share(25, 400), deadline=None)
@given(
    st.floats(0.0, 360.0),
    st.floats(400.0, 1200.0),
    st.floats(-150.0, 250.0),
    st.floats(100.0, 320.0),
    st.integers(3, 7),
    st.floats(1200.0, 6800.0),
    st.floats(1200.0, 4800.0),
)
def test_wherever_it_is_drawn_nothing_lies_in_anything(
    turn: float, radius: float, drop: float, thickness: float, count: int, x: float, y: float
) -> None:
    """Three to seven corners at any angle and height, some over walls; its slab is its area times its thickness."""
    ways = [math.radians(turn) + 2 * math.pi * k / count for k in range(count)]
    corners = tuple((x + radius * math.cos(way), y + radius * math.sin(way)) for way in ways)
    building = resolve(slab_house(corners, drop, thickness))
    # What lies less than 100 mm2 in masonry is not built into it.
    assert clear(building, 100.0 * thickness)
    held = building[DECKS][0]
    assert volume(of(building, "low", "slab")) == pytest.approx(held.area.area * thickness, rel=1e-4)
    # Between the leaves nothing that was drawn is left out.
    inside = box(350.0, 350.0, 7650.0, 5650.0)
    assert Polygon(corners).intersection(inside).difference(held.area).area < 1.0
