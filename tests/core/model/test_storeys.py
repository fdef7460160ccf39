"""Whole storeys added and taken away, heights that take their parts from make-ups, and what is refused."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from deepsection.core.edits import (
    AddStorey,
    Copied,
    DrawLoftHatch,
    DrawWalls,
    MoveWall,
    PartCorners,
    PutRung,
    Remove,
    RemoveStorey,
    SetTerm,
    SetTotal,
    apply_edits,
    changed,
    describe,
    put,
    rebuild,
    storey_above,
)
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import (
    FloorHole,
    FreeJoint,
    Project,
    Room,
    TeeJoint,
    dump_project,
    load_project,
    rise,
    term_value,
)
from deepsection.core.particulars import enter, fields_of
from deepsection.core.resolve import resolve, storeys
from deepsection.core.starters.projects import new_project
from deepsection.demo import larkmoor_house, otterfold_house
from tests.builders import box_house, joist_house, two_storeys, window


def test_a_storey_comes_with_floor_plate_walls_and_ceiling() -> None:
    house = joist_house(9000.0, 6000.0)
    after = apply_edits(house, (storey_above(house, "floor"),))
    assert [(s.level, s.plate) for s in storeys(after)] == [("floor", "plate"), ("s2-floor", "s2-plate")]
    upper = [wall for wall in after.walls if wall.base.level == "s2-floor"]
    assert [(w.start, w.end, w.make_up, w.top.level) for w in upper] == [
        (w.start, w.end, w.make_up, "s2-plate") for w in house.walls
    ]
    assert [roof.plate for roof in after.roofs] == ["s2-plate"], "the roof goes up"
    assert {ceiling.level for ceiling in after.ceilings} == {"plate", "s2-plate"}
    assert describe([storey_above(house, "floor")], house) == "add a storey over Main floor"


def test_a_storey_taken_away_leaves_what_was_before() -> None:
    house = joist_house(9000.0, 6000.0)
    higher = apply_edits(house, (storey_above(house, "floor"),))
    higher = put(higher, window("w9", "s2-w1", 3000.0), Room(id="r9", name="Loft", x=500, y=500, level="s2-floor"))
    assert apply_edits(higher, (RemoveStorey(level="s2-floor"),)) == house


def test_a_third_storey_stands_on_the_second() -> None:
    house = two_storeys(9000.0, 6000.0)
    third = apply_edits(house, (storey_above(house, "s2-floor"),))
    assert [s.name for s in storeys(third)] == ["Main floor", "Upper floor", "Upper floor 2"]
    levels = resolve(third).levels
    rises = [levels[a].z - levels[b].z for a, b in (("s2-floor", "floor"), ("s3-floor", "s2-floor"))]
    assert rises[0] == pytest.approx(rises[1])
    with pytest.raises(RefusedEdit, match="stands on this one"):
        apply_edits(third, (RemoveStorey(level="s2-floor"),))


def test_walls_that_stand_on_each_other_do_so_above() -> None:
    """An outer wall that is a tee on another one: its copy is a tee on the copy, not on the wall below."""
    house = joist_house(9000.0, 6000.0)
    joints = (
        TeeJoint(id="ta", wall="east", end="start", distance=1000.0),
        TeeJoint(id="tb", wall="east", end="start", distance=4000.0),
    )
    corners = (FreeJoint(id="ca", x=11000.0, y=1000.0), FreeJoint(id="cb", x=11000.0, y=4000.0))
    draw = DrawWalls(
        joints=(*joints, *corners),
        chain=("ta", "ca", "cb", "tb"),
        walls=("x1", "x2", "x3"),
        make_up="wall-lap",
        base="floor",
        top="plate",
    )
    winged = apply_edits(house, (draw,))
    after = apply_edits(winged, (storey_above(winged, "floor"),))
    east = next(wall for wall in after.walls if wall.base.level == "s2-floor" and wall.start == "se")
    hosts = {joint.wall for joint in after.joints if isinstance(joint, TeeJoint)}
    assert hosts == {"east", east.id}
    assert len(resolve(after).plan.outlines_on("s2-floor")) == 2


@pytest.mark.parametrize(
    ("edit", "words"),
    [
        (AddStorey(below="grade", make_up="floor-joists", level="a", plate="b", floor="c", ceiling="d"), "no plate"),
        (AddStorey(below="floor", make_up="floor-joists", level="a", plate="b", floor="c", ceiling="d"), "already"),
        (
            AddStorey(below="s2-floor", make_up="ground-cover", level="a", plate="b", floor="c", ceiling="d"),
            "no joists",
        ),
        (
            AddStorey(
                below="s2-floor",
                make_up="floor-joists",
                level="a",
                plate="b",
                floor="c",
                ceiling="d",
                walls=(Copied(of="nowhere", id="w"),),
            ),
            "no wall",
        ),
        (
            AddStorey(below="s2-floor", make_up="floor-joists", level="floor", plate="b", floor="c", ceiling="d"),
            "in use",
        ),
        (RemoveStorey(level="floor"), "does not lie on walls below"),
        (RemoveStorey(level="grade"), "does not lie on walls below"),
    ],
)
def test_storeys_that_cannot_be_are_refused(edit: object, words: str) -> None:
    house = two_storeys(9000.0, 6000.0)
    with pytest.raises(RefusedEdit, match=words):
        apply_edits(house, (edit,))


def test_a_project_without_make_ups_for_floors_has_no_storey_to_add() -> None:
    bungalow = new_project("m", "Block house", "mm", "masonry")
    bungalow = rebuild(bungalow, make_ups=tuple(held for held in bungalow.make_ups if held.use != "floor"))
    with pytest.raises(RefusedEdit, match="no make-up for floors"):
        storey_above(bungalow, "floor")
    floor = bungalow.find("floor")
    assert "add_storey" not in {row.field.id for row in fields_of(bungalow, floor)}


def test_a_storey_is_added_and_removed_from_the_particulars() -> None:
    house = joist_house(9000.0, 6000.0)
    higher = apply_edits(house, enter(house, "floor", "add_storey", ""))
    assert {"add_storey", "remove_storey"} <= {row.field.id for row in fields_of(higher, higher.find("s2-floor"))}
    assert "remove_storey" not in {row.field.id for row in fields_of(higher, higher.find("floor"))}
    assert apply_edits(higher, enter(higher, "s2-floor", "remove_storey", "")) == house


def test_storeys_move_together_until_their_corners_are_parted() -> None:
    """The upper south wall, dragged 600 outward: with the house below, then by itself, its roof with it."""
    house = two_storeys(9000.0, 6000.0)
    together = apply_edits(house, (MoveWall(wall="s2-w1", dx=0.0, dy=-600.0),))
    areas = [outline.polygon.area for outline in resolve(together).plan.outlines]
    assert areas == pytest.approx([9000.0 * 6600.0] * 2)

    parted = apply_edits(house, enter(house, "s2-w1", "part", ""))
    alone = apply_edits(parted, (MoveWall(wall="s2-w1", dx=0.0, dy=-600.0),))
    building = resolve(alone)
    areas = [outline.polygon.area for outline in building.plan.outlines]
    assert areas == pytest.approx([9000.0 * 6000.0, 9000.0 * 6600.0])
    assert building.roofs[0].run == pytest.approx(3300.0)
    # Its joists run out over the wall below; farther than they are deep, unless an engineer sized them.
    assert building.diagnostics == ()
    by_tables = put(alone, *(changed(floor, sized="by tables") for floor in alone.floors))
    assert "floor-overhang" in {found.code for found in resolve(by_tables).diagnostics}
    assert "part" not in {row.field.id for row in fields_of(parted, parted.find("s2-w1"))}
    with pytest.raises(RefusedEdit, match="only the corners"):
        apply_edits(house, (PartCorners(wall="s2-w1", joints=(Copied(of="nw", id="x"),)),))
    with pytest.raises(RefusedEdit, match="only the corners"):
        apply_edits(house, (PartCorners(wall="s2-w1", joints=(Copied(of="sw", id="se"),)),))


def test_a_part_that_is_a_layer_is_stated_by_its_make_up_alone() -> None:
    house = two_storeys(9000.0, 6000.0)
    deeper = apply_edits(house, (SetTerm(rung="s2-floor", term="joists", value=300.0),))
    make_up = next(held for held in deeper.make_ups if held.id == "floor-joists")
    assert [layer.thickness for layer in make_up.layers] == [18.0, 300.0, 12.5]
    level = next(rung for rung in deeper.rungs if rung.id == "s2-floor")
    assert rise(level, deeper.make_ups) == 318.0
    assert {term_value(term, deeper.make_ups) for term in level.terms} == {300.0, 18.0}
    assert resolve(deeper).diagnostics == (), "joists and ladder agree without being told twice"


def test_a_typed_height_is_taken_up_by_the_joists() -> None:
    house = two_storeys(9000.0, 6000.0)
    higher = apply_edits(house, (SetTotal(rung="s2-floor", total=400.0),))
    make_up = next(held for held in higher.make_ups if held.id == "floor-joists")
    assert make_up.layers[1].thickness == 382.0
    with pytest.raises(RefusedEdit, match="leave nothing"):
        apply_edits(house, (SetTotal(rung="s2-floor", total=18.0),))


def test_a_part_cannot_name_a_layer_that_is_not_there() -> None:
    house = joist_house(9000.0, 6000.0)
    level = next(rung for rung in house.rungs if rung.id == "floor")
    wrong = [changed(term, layer=changed(term.layer, layer="ghost")) for term in level.terms if term.layer]
    with pytest.raises(RefusedEdit, match="ghost"):
        apply_edits(house, (PutRung(rung=changed(level, terms=tuple(wrong))),))


@pytest.mark.parametrize(
    ("rung", "words"),
    [("plate", "plate"), ("sill", "sill"), ("stem", "stem"), ("grade", "one datum"), ("s2-floor", "s2-floor")],
)
def test_a_level_that_others_stand_on_cannot_go(rung: str, words: str) -> None:
    with pytest.raises(RefusedEdit, match=words):
        apply_edits(two_storeys(9000.0, 6000.0), (Remove(elements=(rung,)),))


def test_another_make_up_of_a_floor_changes_its_height() -> None:
    house = two_storeys(9000.0, 6000.0)
    deep = next(held for held in house.make_ups if held.id == "floor-joists")
    layers = tuple(changed(layer, thickness=300.0) if layer.framing else layer for layer in deep.layers)
    house = put(house, changed(deep, id="floor-deep", name="deep joists", layers=layers))
    after = apply_edits(house, enter(house, "s2-joists", "make_up", "floor-deep"))
    assert resolve(after).levels["s2-floor"].z - resolve(house).levels["s2-floor"].z == pytest.approx(65.0)
    assert resolve(after).diagnostics == ()


def test_an_older_document_without_storeys_still_opens() -> None:
    """Fields that came with storeys have defaults: one floor, one plan, rooms on it."""
    house = put(box_house(9000.0, 6000.0), Room(id="r", name="Room", x=1000, y=1000))
    data = dump_project(house).decode()
    for text in (',"floors":[]', ',"level":null', ',"slab_level":null', ',"top":null,"sill":null', ',"span":"roof"'):
        assert text in data
        data = data.replace(text, "")
    assert load_project(data) == house


def test_a_window_above_is_measured_from_its_own_floor() -> None:
    house = put(two_storeys(9000.0, 6000.0), window("w9", "s2-w1", 3000.0, sill=900.0))
    building = resolve(house)
    (placed,) = building.openings["s2-w1"]
    assert placed.sill.total == pytest.approx(building.levels["s2-floor"].z + 900.0)


@pytest.mark.parametrize("demo", [otterfold_house, larkmoor_house])
def test_a_storey_goes_with_its_stair_its_hatch_and_its_holes(demo: Callable[[], Project]) -> None:
    """What names its level or its floor cannot stay without; everything else does."""
    house = demo()
    hole = FloorHole(id="hole", floor="upper-joists", corners=((6e3, 1e3), (7e3, 1e3), (7e3, 2e3), (6e3, 2e3)))
    hatch = DrawLoftHatch(id="up", level="upper", x=6000.0, y=3000.0)
    lower = apply_edits(apply_edits(put(house, hole), (hatch,)), (RemoveStorey(level="upper"),))
    assert lower.stairs == () and lower.loft_hatches == () and lower.floor_holes == ()
    assert [floor.id for floor in lower.floors] == ["main-floor"] and len(lower.walls) < len(house.walls)
    assert {held.id for held in lower.foundation_steps} == {held.id for held in house.foundation_steps}
    building = resolve(lower)
    assert not any(part.element in ("main-stair", "hatch", "up") for part in building.parts)
    assert len(building.plan.outlines_on("floor")) == len(resolve(house).plan.outlines_on("floor"))
