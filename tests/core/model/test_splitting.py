"""Walls parted in two and turned round: what stands on them keeps its place, and nothing that is drawn changes."""

from __future__ import annotations

import math

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.edits import DrawWalls, ReverseWall, SplitWall, apply_edits, changed, put
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import Project, TeeJoint, joint_point, wall_length
from deepsection.core.particulars import enter
from deepsection.core.resolve import resolve
from tests.builders import box_house, gable, window


def standing() -> Project:
    """A box of 9 m x 6 m: on its south wall two windows (one measured from each end) and an inner wall."""
    house = put(box_house(9000.0, 6000.0), window("w1", "south", 2000.0))
    house = put(house, changed(window("w2", "south", 1500.0), end="end"))
    joints = (
        TeeJoint(id="t1", wall="south", end="end", distance=4000.0),
        TeeJoint(id="t2", wall="north", end="start", distance=4000.0),
    )
    draw = DrawWalls(
        joints=joints,
        chain=("t1", "t2"),
        walls=("inner",),
        make_up="wall-inner",
        status="inner",
        base="floor",
        top="plate",
    )
    return apply_edits(house, (draw,))


def places(project: Project) -> dict[str, tuple[float, float]]:
    """Where windows have their middles and inner walls their ends, in plan."""
    found = {}
    plan = {wall.wall.id: wall for wall in resolve(project).plan.walls}
    for opening in project.openings:
        wall = plan[opening.wall]
        along = opening.distance if opening.end == "start" else wall.length - opening.distance
        found[opening.id] = wall.at(along)
    for joint in ("t1", "t2"):
        found[joint] = joint_point(project, joint)
    return {id: (round(x, 4) + 0.0, round(y, 4) + 0.0) for id, (x, y) in found.items()}


@settings(max_examples=25, deadline=None)
@given(at=st.one_of(st.floats(60, 1300), st.floats(2700, 6800), st.floats(8200, 8900)))
def test_a_split_moves_nothing(at: float) -> None:
    house = standing()
    split = apply_edits(house, (SplitWall(wall="south", distance=at, joint="j9", second="south-2"),))
    assert places(split) == places(house)
    lengths = [wall_length(split, split.find(id)) for id in ("south", "south-2")]
    assert lengths == pytest.approx([at, 9000.0 - at])
    before, after = resolve(house).plan, resolve(split).plan
    assert after.outlines[0].polygon.equals(before.outlines[0].polygon)
    assert after.diagnostics == ()
    whole = [shapely.union_all([wall.footprint for wall in plan.walls]) for plan in (before, after)]
    assert whole[0].symmetric_difference(whole[1]).area < 1.0


def test_the_start_piece_keeps_its_name_and_openings_follow_their_centre() -> None:
    split = apply_edits(standing(), (SplitWall(wall="south", distance=4000.0, joint="j9", second="rest"),))
    assert {held.id: held.wall for held in split.openings} == {"w1": "south", "w2": "rest"}
    assert split.find("w2").end == "end" and split.find("w2").distance == 1500.0
    assert split.find("t1").wall == "rest" and split.find("south").start == "sw"


def test_a_piece_can_be_built_otherwise() -> None:
    """What splitting is for: half of a wall with boards and battens, the other as it was."""
    house = gable(box_house(9000.0, 6000.0), 0.5, overhang=400.0)
    split = apply_edits(house, enter(house, "south", "split", "3.5 m"))
    (rest,) = (wall.id for wall in split.walls if wall.id not in {"south", "east", "north", "west"})
    mixed = apply_edits(split, enter(split, rest, "make_up", "wall-batten"))
    building = resolve(mixed)
    assert building.diagnostics == () and len(building.roofs) == 1
    seen = {part.material for part in building.parts if part.role == "cladding" and part.element in ("south", rest)}
    assert seen == {"lap_board", "board_batten"}


@pytest.mark.parametrize("distance", [-5.0, 0.0, 20.0, 8990.0, 12000.0])
def test_a_split_needs_two_pieces(distance: float) -> None:
    with pytest.raises(RefusedEdit, match="between its ends") as caught:
        apply_edits(standing(), (SplitWall(wall="south", distance=distance, joint="j", second="s"),))
    assert caught.value.limit == 9000.0


def test_names_in_use_are_refused() -> None:
    for joint, second in (("sw", "s"), ("j", "north"), ("same", "same")):
        with pytest.raises(RefusedEdit, match="new names"):
            apply_edits(standing(), (SplitWall(wall="south", distance=4000.0, joint=joint, second=second),))


def test_a_wall_turned_round_stays_as_it_is() -> None:
    house = standing()
    turned = apply_edits(house, (ReverseWall(wall="south"),))
    assert (turned.find("south").start, turned.find("south").end) == ("se", "sw")
    assert places(turned) == places(house)
    before, after = (next(w for w in resolve(p).plan.walls if w.wall.id == "south") for p in (house, turned))
    assert before.footprint.equals(after.footprint) and before.stand().out == pytest.approx(after.stand().out)
    assert math.isclose(before.outer, after.outer)
    assert apply_edits(turned, (ReverseWall(wall="south"),)) == house
