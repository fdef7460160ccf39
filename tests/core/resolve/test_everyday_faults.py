"""Everyday kinds of houses: what used to fail without a word is built, or said with its remedy."""

from __future__ import annotations

import math

import pytest

from deepsection.core.edits import DrawWalls, ProposeRoof, Remove, apply_edits, changed, put
from deepsection.core.model import Ceiling, Corner, Framing, FreeJoint, Layer, Opening, Project, TeeJoint
from deepsection.core.resolve import resolve
from tests.builders import box_house, l_house

from .test_roofs import over

near = pytest.approx


def codes(project: Project) -> set[str]:
    return {held.code for held in resolve(project).diagnostics}


@pytest.mark.parametrize(("tradition", "share"), [("timber", 1 / 4), ("masonry", 1 / 3)])
def test_a_birdsmouth_too_deep_is_pointed_out_with_the_seat_that_fits(tradition: str, share: float) -> None:
    """Square to the rafter a level seat takes seat x sin(slope): at 1 in 1, its 0.7071.

    A quarter of the depth: IRC R802.7.1 (from memory); a third: British and Irish practice (common practice).
    """
    house = changed(over(box_house(8000, 6000), "gable"), tradition=tradition)
    roof = house.roofs[0]
    depth = next(
        layer.thickness
        for held in house.make_ups
        if held.id == roof.make_up
        for layer in held.layers
        if layer.function == "structure"
    )
    most = depth * share * math.sqrt(2)
    assert "birdsmouth-deep" not in codes(put(house, changed(roof, pitch=1.0, seat=most - 2)))
    steep = put(house, changed(roof, pitch=1.0, seat=most + 3))
    (found,) = [held for held in resolve(steep).diagnostics if held.code == "birdsmouth-deep"]
    assert found.severity == "warning" and found.limit == near(most, abs=0.1)
    assert ("R802.7.1" in found.message) == (tradition == "timber")


def test_the_head_of_a_lean_to_is_no_ridge() -> None:
    house = over(box_house(8000, 6000), "single")
    (roof,) = resolve(house).roofs
    assert roof.ridge_top.label.startswith("head, ")
    (gable,) = resolve(over(box_house(8000, 6000), "gable")).roofs
    assert gable.ridge_top.label.startswith("ridge, ")


def test_a_lean_to_in_an_inside_corner_leans_on_the_long_wall() -> None:
    """The inside corner of an L: its walls there are 5 m along x and 3 m along y."""
    corners = [(7000.0, 6500.0), (9500.0, 6500.0), (9500.0, 8500.0), (7000.0, 8500.0)]
    outline = tuple(Corner(x=x, y=y) for x, y in corners)
    edit = ProposeRoof(id="porch", form="single", level="floor", plate="plate", outline=outline)
    roof = next(held for held in apply_edits(l_house(), (edit,)).roofs if held.id == "porch")
    assert [edge.kind for edge in roof.edges] == ["abutment", "gable", "eave", "gable"]


def test_layers_over_the_joists_of_a_ceiling_lie_on_them() -> None:
    """By hand: boards of 22 mm from the top of the joists up; two layers below hang one under the other."""
    house = over(box_house(8000, 6000), "gable")
    make_up = next(held for held in house.make_ups if held.id == "ceiling")
    joists, lining = make_up.layers
    above = Layer(id="walkway", name="boards", material="plywood", function="sheathing", thickness=22.0)
    second = changed(lining, id="second")
    house = put(
        house,
        changed(make_up, layers=(above, joists, lining, second)),
        *([] if house.ceilings else [Ceiling(id="c", name="Ceiling", level="plate", make_up="ceiling")]),
    )
    building = resolve(house)
    plate = building.levels["plate"].z
    reach = {part.key.split("/")[2]: part.solid.reach for part in building.parts if part.element in ("c", "ceiling-1")}
    assert reach["walkway"].z0 == near(plate + joists.thickness) and reach["walkway"].z1 == near(
        reach["walkway"].z0 + 22
    )
    assert reach["lining"].z1 == near(plate) and reach["second"].z1 == near(plate - lining.thickness)
    assert isinstance(joists.framing, Framing)


def test_a_ceiling_that_nothing_reaches_and_a_wall_in_the_air_are_said() -> None:
    house = box_house(8000, 6000)
    ceiling = Ceiling(id="high", name="High ceiling", level="grade", make_up="ceiling")
    assert "ceiling-over-nothing" in codes(put(house, ceiling))
    wall = house.walls[0]
    on_plate = put(house, changed(wall, base=changed(wall.base, level="plate")))
    assert "wall-on-air" not in codes(on_plate), "a wall on the plate of others stands on them"
    bare = Remove(elements=tuple(held.id for held in (*house.foundations, *house.floors))).apply(house)
    assert "wall-on-air" not in codes(bare), "a wall near the ground may stand on it"
    raised = put(bare, changed(wall, base=changed(wall.base, offset=1500.0)))
    (found,) = [held for held in resolve(raised).diagnostics if held.code == "wall-on-air"]
    assert found.element == wall.id and "lay a floor there" in found.message


def test_a_roof_wholly_under_another_is_refused_in_words() -> None:
    house = over(box_house(8000, 6000), "gable")
    low = changed(house.roofs[0], id="second", name="Second roof", offset=-1000.0)
    (found,) = [held for held in resolve(put(house, low)).diagnostics if held.code == "roof-hidden"]
    assert found.severity == "blocking" and "lies wholly under Main roof" in found.message


# --- doors that cannot open -------------------------------------------------------------------------


def with_partition_and_doors(*doors: Opening) -> Project:
    """A box of 8 by 6 m with an inner wall across it at x = 4 m."""
    house = box_house(8000, 6000)
    wall = DrawWalls(
        joints=(
            TeeJoint(id="t1", wall="south", end="start", distance=4000.0),
            TeeJoint(id="t2", wall="north", end="start", distance=4000.0),
        ),
        chain=("t1", "t2"),
        walls=("across",),
        make_up="wall-inner",
        status="inner",
        base="floor",
        top="plate",
    )
    return put(apply_edits(house, (wall,)), *doors)


def a_door(id: str, wall: str, distance: float, **more: object) -> Opening:
    sizes = {"width": 900.0, "height": 2000.0, "sill": 0.0, "number": id.upper()}
    return Opening.model_validate(
        {"id": id, "unit": "door", "wall": wall, "end": "start", "distance": distance, **sizes, **more}
    )


def test_a_door_that_swings_into_a_wall_is_pointed_out() -> None:
    """An inner wall at x = 4000 ends in a door from 3550 to 4450: its leaf cannot pass it; outward it can."""
    across = with_partition_and_doors(a_door("d1", "south", 4000.0))
    (found,) = [held for held in resolve(across).diagnostics if held.code == "door-into-wall"]
    assert found.element == "d1" and found.others == ("across",) and "hinge it at its other side" in found.message
    for clear in (a_door("d1", "south", 2500.0), a_door("d1", "south", 4000.0, swing="out")):
        assert "door-into-wall" not in codes(with_partition_and_doors(clear))


def test_doors_that_swing_into_each_other_are_pointed_out() -> None:
    """Two doors of 900 mm round one corner, hinged away from it, each within 900 mm of it."""
    one = a_door("d1", "south", 700.0, hinge="end")
    two = a_door("d2", "west", 6000.0 - 700.0, hinge="start")
    assert "doors-meet" in codes(with_partition_and_doors(one, two))
    apart = a_door("d2", "west", 2000.0, hinge="start")
    assert "doors-meet" not in codes(with_partition_and_doors(one, apart))


def _stub() -> DrawWalls:
    """An inner wall from the south wall to a free end."""
    return DrawWalls(
        joints=(
            TeeJoint(id="t1", wall="south", end="start", distance=4000.0),
            FreeJoint(id="f1", x=4000.0, y=3000.0),
        ),
        chain=("t1", "f1"),
        walls=("stub",),
        make_up="wall-inner",
        status="inner",
        base="floor",
        top="plate",
    )


def test_a_door_at_the_free_end_of_an_inner_wall_is_pointed_out() -> None:
    house = apply_edits(box_house(8000, 6000), (_stub(),))
    at_end, clear = a_door("d1", "stub", 2520.0), a_door("d1", "stub", 2200.0)
    assert "door-at-end" in codes(put(house, at_end)) and "door-at-end" not in codes(put(house, clear))


def test_a_door_against_the_wall_that_its_own_wall_meets_has_no_room_for_its_jamb() -> None:
    """By hand: the south wall reaches in to the inside of its lining; jack and king stud take 60 from there."""
    house = apply_edits(box_house(8000, 6000), (_stub(),))
    inside = -resolve(house).plan.by_id["south"].inner
    door = a_door("d1", "stub", 1500.0)
    (placed,) = resolve(put(house, door)).openings["stub"]
    half = (placed.right - placed.left) / 2
    tight = changed(door, distance=inside + 60.0 + half - 1.0)
    clear = changed(door, distance=inside + 60.0 + half + 1.0)
    (found,) = [held for held in resolve(put(house, tight)).diagnostics if held.code == "door-at-end"]
    assert found.value == near(59.0) and "against the wall" in found.message
    assert "door-at-end" not in codes(put(house, clear))
    feet = changed(put(house, tight), units="ft-in")
    (said,) = [held.message for held in resolve(feet).diagnostics if held.code == "door-at-end"]
    assert "mm" not in said and '2 3/8"' in said, "in the units of the project"


@pytest.mark.parametrize(("base", "height"), [(0.0, 1200.0), (600.0, 1200.0), (0.0, 9000.0)])
def test_a_low_wall_parts_the_lining_of_its_host_only_as_high_as_it_stands(base: float, height: float) -> None:
    """By hand: a frame 89 wide stands in a lining of 12.5, as high as the lower of both walls."""
    house = box_house(8000, 6000)
    lining = next(layer.thickness for layer in house.find("wall-lap").layers if layer.id == "lining")
    frame = next(layer.thickness for layer in house.find("wall-inner").layers if layer.function == "structure")
    joints = (
        TeeJoint(id="on", wall="south", end="start", distance=3000.0),
        FreeJoint(id="free", x=3000.0, y=2500.0),
    )
    draw = DrawWalls(
        joints=joints, chain=("on", "free"), walls=("low",), make_up="wall-inner", status="inner", base="floor",
        top="plate",
    )  # fmt: skip
    house = apply_edits(house, (draw,))
    low = house.find("low")
    top = changed(low.top, kind="fixed", height=height)
    after = put(house, changed(low, top=top, base=changed(low.base, offset=base)))

    def volume(project: Project) -> float:
        return next(part.solid.volume for part in resolve(project).parts if part.key.startswith("south/lining"))

    building = resolve(after)
    tall = building.levels["plate"].z - building.levels["floor"].z
    expected = lining * frame * min(height, tall)
    assert volume(box_house(8000, 6000)) - volume(after) == near(expected, rel=1e-6)


def test_eaves_over_no_wall_line_up_with_those_of_the_house() -> None:
    """A porch of the same pitch and overhang beside a house: its eave has the height of the house's."""
    house = over(box_house(8000, 6000), "gable")
    corners = [(8000.0, 0.0), (11000.0, 0.0), (11000.0, 6000.0), (8000.0, 6000.0)]
    outline = tuple(Corner(x=x, y=y) for x, y in corners)
    edit = ProposeRoof(id="porch", form="gable", level="floor", plate="plate", outline=outline)
    proposed = apply_edits(house, (edit,))
    main, porch = proposed.roofs
    edges = tuple(changed(edge, overhang=main.edges[0].overhang) for edge in porch.edges)
    level = put(proposed, changed(porch, pitch=main.pitch, edges=edges))
    first, second = resolve(level).roofs
    for roof in (first, second):
        assert [edge.kind for edge in roof.block.edges].count("eave") == 2
    assert {round(eave.total, 6) for _, eave in second.eaves} == {round(eave.total, 6) for _, eave in first.eaves}
