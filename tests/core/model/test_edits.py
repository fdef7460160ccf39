"""Edits: pure, whole or refused, and doing what a drafter means by them."""

from __future__ import annotations

import math
from typing import get_args

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.edits import (
    EDITS,
    DrawWalls,
    Edit,
    FlipWall,
    MoveJoint,
    MoveOpening,
    MoveWall,
    PutOpening,
    Remove,
    ResizeOpening,
    SetProject,
    SetTerm,
    SetTotal,
    SetWallLength,
    UseMakeUp,
    apply_edits,
    describe,
    put,
)
from deepsection.core.errors import DeepSectionError, RefusedEdit, UnknownElement
from deepsection.core.model import FreeJoint, Project, TeeJoint, joint_point, wall_length
from tests.builders import box_house, gable, l_house, window


def with_partition(project: Project) -> Project:
    """A partition across the box, 4 m from its west side, on the south and north walls."""
    return apply_edits(
        project,
        (
            DrawWalls(
                joints=(
                    TeeJoint(id="p1", wall="south", end="start", distance=4000.0),
                    TeeJoint(id="p2", wall="north", end="end", distance=4000.0),
                ),
                chain=("p1", "p2"),
                walls=("partition",),
                make_up="wall-inner",
                status="inner",
                base="floor",
                top="plate",
            ),
        ),
    )


def test_a_closed_chain_has_its_outside_outside() -> None:
    """Drawn counter-clockwise the outside lies on the right; clockwise, on the left."""
    assert {wall.outside for wall in box_house(8000, 6000).walls} == {"right"}
    joints = tuple(FreeJoint(id=id, x=x, y=y) for id, x, y in (("a", 0, 0), ("b", 0, 5000), ("c", 5000, 5000)))
    draw = DrawWalls(
        joints=joints, chain=("a", "b", "c", "a"), walls=("x", "y", "z"), make_up="wall-lap", base="floor", top="plate"
    )
    other = apply_edits(box_house(1000, 1000), (draw,))
    assert {wall.outside for wall in other.walls if wall.id in "xyz"} == {"left"}


def test_the_set_out_face_is_the_outside_of_the_frame() -> None:
    """Common practice for lumber; an inner wall is set out on the middle of its frame."""
    house = with_partition(box_house(8000, 6000))
    faces = {wall.id: (wall.set_out.layer, wall.set_out.face) for wall in house.walls}
    assert faces["south"] == ("frame", "outer") and faces["partition"] == ("frame", "middle")


def test_moving_a_wall_stretches_its_neighbours_and_leaves_the_rest() -> None:
    house = with_partition(box_house(8000, 6000))
    moved = apply_edits(house, (MoveWall(wall="south", dx=0.0, dy=-1500.0),))
    lengths = {wall.id: wall_length(moved, wall) for wall in moved.walls}
    assert lengths == pytest.approx({"south": 8000, "east": 7500, "north": 8000, "west": 7500, "partition": 7500})
    west = apply_edits(house, (MoveWall(wall="west", dx=-1000.0, dy=0.0),))
    assert joint_point(west, "p1") == pytest.approx((4000, 0)), "what is not dragged stays where it is"
    assert joint_point(west, "p2") == pytest.approx((4000, 6000))


def test_a_typed_length_keeps_corners_square() -> None:
    house = apply_edits(box_house(8000, 6000), (SetWallLength(wall="south", length=9000.0),))
    assert joint_point(house, "ne") == pytest.approx((9000, 6000)) and joint_point(house, "se") == pytest.approx(
        (9000, 0)
    )
    shape = apply_edits(l_house(), (SetWallLength(wall="w1", length=13000.0),))
    assert joint_point(shape, "c") == pytest.approx((13000, 6500)) and joint_point(shape, "d") == pytest.approx(
        (7000, 6500)
    )


def test_a_wall_between_two_others_is_not_pulled_apart() -> None:
    with pytest.raises(RefusedEdit, match="stand on other walls"):
        apply_edits(with_partition(box_house(8000, 6000)), (SetWallLength(wall="partition", length=5000.0),))


def test_a_hosted_joint_slides_along_its_wall() -> None:
    house = apply_edits(with_partition(box_house(8000, 6000)), (MoveJoint(joint="p1", x=2500.0, y=700.0),))
    assert joint_point(house, "p1") == pytest.approx((2500, 0))


@pytest.mark.parametrize(("stays", "left"), [("start", 1400.0), ("centre", 1200.0), ("end", 1000.0)])
def test_the_named_edge_stays_when_the_width_changes(stays: str, left: float) -> None:
    house = put(box_house(8000, 6000), window("w1", "south", 2000.0).model_copy(update={"stays": stays}))
    wider = apply_edits(house, (ResizeOpening(opening="w1", width=1600.0),))
    opening = wider.openings[0]
    assert opening.distance - opening.width / 2 == pytest.approx(left)


def test_openings_keep_their_distance_from_the_named_end() -> None:
    house = put(box_house(8000, 6000), window("w1", "south", 2000.0).model_copy(update={"end": "end"}))
    longer = apply_edits(house, (SetWallLength(wall="south", length=9000.0),))
    assert longer.openings[0].distance == 2000.0


def test_a_make_up_of_another_use_is_refused() -> None:
    with pytest.raises(RefusedEdit, match="not one for walls"):
        apply_edits(box_house(8000, 6000), (UseMakeUp(wall="south", make_up="roof"),))


def test_heights_by_part_and_by_total() -> None:
    house = box_house(8000, 6000)
    taller = apply_edits(house, (SetTotal(rung="plate", total=2700.0),))
    plate = next(rung for rung in taller.rungs if rung.id == "plate")
    assert sum(term.value * term.count for term in plate.terms) == pytest.approx(2700)
    assert [term.value for term in plate.terms if term.id != "stud"] == [38, 38], "only the free part absorbs a total"
    with pytest.raises(RefusedEdit) as caught:
        apply_edits(house, (SetTotal(rung="plate", total=100.0),))
    assert caught.value.element == "plate" and caught.value.field == "total" and caught.value.limit == 114
    with pytest.raises(RefusedEdit):
        apply_edits(house, (SetTerm(rung="plate", term="stud", value=0.0),))
    with pytest.raises(RefusedEdit, match="datum"):
        apply_edits(house, (SetTotal(rung="grade", total=5.0),))


def test_removing_a_wall_takes_its_openings_and_frees_what_stood_on_it() -> None:
    house = gable(put(with_partition(box_house(8000, 6000)), window("w1", "south", 2000.0)), 0.5)
    left = apply_edits(house, (Remove(elements=("south",)),))
    assert left.openings == ()
    joint = next(joint for joint in left.joints if joint.id == "p1")
    assert isinstance(joint, FreeJoint) and (joint.x, joint.y) == pytest.approx((4000, 0))
    assert left.roofs[0].outline[0].joint == "sw", "corners that still exist stay tied"
    bare = apply_edits(left, (Remove(elements=("west", "east", "north", "partition")),))
    assert bare.joints == () and all(corner.joint is None for corner in bare.roofs[0].outline)


@pytest.mark.parametrize(
    "edit",
    [
        MoveOpening(opening="south", distance=100.0),
        ResizeOpening(opening="plate", width=100.0),
        SetTerm(rung="south", term="stud", value=10.0),
        FlipWall(wall="plate"),
        MoveJoint(joint="south", x=0.0, y=0.0),
        Remove(elements=("sw",)),
    ],
)
def test_an_edit_of_the_wrong_kind_is_refused(edit: object) -> None:
    with pytest.raises(RefusedEdit):
        apply_edits(box_house(8000, 6000), (edit,))


def test_unknown_things_are_named() -> None:
    with pytest.raises(UnknownElement, match="ghost"):
        apply_edits(box_house(8000, 6000), (FlipWall(wall="ghost"),))


def test_a_group_is_applied_whole_or_not_at_all() -> None:
    house = box_house(8000, 6000)
    with pytest.raises(DeepSectionError):
        apply_edits(house, (SetProject(name="Renamed"), FlipWall(wall="ghost")))
    assert house.name == "House"


@pytest.mark.parametrize("length", [0.0, 0.4])
def test_a_wall_of_no_length_is_refused(length: float) -> None:
    joints = (FreeJoint(id="a", x=0.0, y=0.0), FreeJoint(id="b", x=length, y=0.0))
    draw = DrawWalls(joints=joints, chain=("a", "b"), walls=("x",), make_up="wall-lap", base="floor", top="plate")
    with pytest.raises(RefusedEdit, match="needs a length"):
        apply_edits(box_house(8000, 6000), (draw,))


shifts = st.floats(-3000, 3000).map(lambda value: round(value, 2))
commands = st.one_of(
    st.builds(MoveWall, wall=st.sampled_from(["south", "east", "north", "west"]), dx=shifts, dy=shifts),
    st.builds(SetWallLength, wall=st.sampled_from(["south", "east"]), length=st.floats(500, 20000)),
    st.builds(SetTotal, rung=st.just("plate"), total=st.floats(-500, 6000)),
    st.builds(FlipWall, wall=st.sampled_from(["south", "partition"])),
    st.builds(MoveOpening, opening=st.just("w1"), distance=st.floats(-500, 9000)),
    st.builds(Remove, elements=st.sampled_from([("south",), ("partition",), ("w1",)])),
)


@settings(max_examples=60, deadline=None)
@given(st.lists(commands, max_size=6))
def test_edits_are_pure_and_survive_the_wire(edits: list[object]) -> None:
    """The same edits give the same document; through JSON too; and the old document is as it was."""
    house = put(with_partition(box_house(8000, 6000)), window("w1", "south", 2000.0))
    before = house.model_dump_json()

    def run(commands: object) -> str:
        try:
            return str(apply_edits(house, commands).model_dump_json())  # type: ignore[arg-type]
        except DeepSectionError as error:
            return error.message

    sent = EDITS.validate_json(EDITS.dump_json(tuple(edits)))
    assert run(edits) == run(edits) == run(sent)
    assert house.model_dump_json() == before


def test_what_was_done_is_said_in_words() -> None:
    house = put(box_house(8000, 6000), window("w1", "south", 2000.0))
    assert describe([MoveOpening(opening="w1", distance=1.0)], house) == "move W1"
    assert describe([PutOpening(opening=window("w2", "south", 5000.0))], house) == "place W2"
    assert describe([Remove(elements=("w1",))], house) == "remove W1"
    assert describe([Remove(elements=("w1", "south", "north"))], house) == "remove an opening and 2 walls"


def test_wall_lengths_are_plain_geometry() -> None:
    house = l_house()
    assert [round(wall_length(house, wall)) for wall in house.walls] == [12000, 6500, 5000, 3000, 7000, 9500]
    assert math.dist(joint_point(house, "a"), joint_point(house, "c")) == pytest.approx(math.hypot(12000, 6500))


def test_every_edit_has_words_for_undo() -> None:
    """An edit without a phrase could not be kept: its label is written with it."""
    kinds = {get_args(option.model_fields["kind"].annotation)[0] for option in get_args(get_args(Edit)[0])}
    assert len(kinds) > 60
    assert all(option.phrase for option in get_args(get_args(Edit)[0]))
