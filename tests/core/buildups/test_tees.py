"""Walls that end on others: backers, ties and strips, and the lines that go on past them, in all demos and turned."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from deepsection.core.buildups import built_of, made_of
from deepsection.core.buildups.clashes import clashes_in
from deepsection.core.edits import changed, put
from deepsection.core.errors import BadInput
from deepsection.core.model import Project
from deepsection.core.resolve import resolve
from deepsection.core.trades.walls.model import TeeJoint
from deepsection.core.view.continuity import continuity_in
from deepsection.demo import fernacre_bungalow, larkmoor_house, otterfold_house, quillback_house
from tests.turning import turned

from .rig import after, built, cut_at, of_kind, places

HOUSES: dict[str, Callable[[], Project]] = {
    "quillback": quillback_house,
    "fernacre, turned": lambda: turned(fernacre_bungalow(), 37.0, 1),
    "larkmoor": larkmoor_house,
    "otterfold, turned": lambda: turned(otterfold_house(), -112.0, 1),
    "bonded": lambda: after(fernacre_bungalow(), "wall_on_wall", build_up="tee-bonded"),
}


@pytest.mark.parametrize("name", HOUSES)
def test_walls_that_end_on_others_are_built_without_clash_and_part_no_line(name: str) -> None:
    """Inner walls interrupt linings and vapour control, and no line; outer ones are flashed in their corner."""
    building = resolve(HOUSES[name]())
    looked = 0
    for junction, place in places(building, "wall_on_wall"):
        held = built(building, junction)
        assert held.pieces and held.fault == ""
        whole, cut = cut_at(building, place)
        assert clashes_in(whole, place.frame, place.window.outline) == []
        lines = continuity_in(whole, cut, place.window, frame=place.frame)
        # A door beside it that leads from one part of the house to the other is looked at by itself.
        doors = {opening.id for opening in building.placed.project.openings} & {one.part.element for one in cut}
        assert doors or [(line.line, line.gaps) for line in lines if line.gaps] == [], junction.id
        looked += 1
    assert looked == len(of_kind(building, "wall_on_wall")) > 3


def test_backers_stand_in_the_wall_that_is_met_and_are_as_wide_as_boards_need() -> None:
    """A 2x6 flat behind a partition of 2x4: 1 in of bearing for the boards at each side; by hand
    (5 1/2 - 3 1/2) / 2."""
    building = resolve(quillback_house())
    for junction in of_kind(building, "wall_on_wall"):
        wall, on = (building.plan.by_id[end.element] for end in junction.ends)
        held = built(building, junction)
        backer = next(piece for piece in held.pieces if piece.id == "backer")
        x0, y0, x1, y1 = backer.shape.bounds
        assert (x1 - x0, y1 - y0) == pytest.approx((38.1, 139.7))
        frame = next(layer for layer in building.placed.make_ups[wall.wall.make_up].layers if layer.framing)
        part = next(part for piece, part, _ in made_of(building, junction, 4.0) if piece.id == "backer")
        at = on.axis.along(wall.at(0.0 if wall.wall.start == junction.ends[0].sub else wall.length))
        middle = on.at(at, 0.0)
        assert part.solid.bounds.x0 - 200.0 <= middle[0] <= part.solid.bounds.x1 + 200.0
        if frame.thickness < 100.0:
            assert (y1 - y0 - frame.thickness) / 2 == pytest.approx(25.4)


def test_ties_lie_in_every_second_course_of_block_and_no_deeper_than_the_leaf() -> None:
    """225 apart are the bed joints of block: ties at 450 from the first on; 75 in a leaf of 100."""
    building = resolve(fernacre_bungalow())
    junction = of_kind(building, "wall_on_wall")[0]
    ties = sorted(part.solid.bounds.z0 for piece, part, _ in made_of(building, junction, 4.0) if piece.id == "tie")
    base = min(junction.runs[0].start[2], junction.runs[0].end[2])
    assert len(ties) >= 4
    assert all((z - base - 225.0) % 450.0 == pytest.approx(0.0, abs=0.01) for z in ties)
    with pytest.raises(BadInput, match="100 mm thick: ties cannot go 90 mm into it"):
        after(fernacre_bungalow(), "wall_on_wall", parameter="tie", text="90")


def test_a_partition_that_ends_askew_has_no_usual_pieces() -> None:
    """Its end is cut on site: listed all the same, without a build-up."""
    house = quillback_house()
    tee = next(joint for joint in house.joints if isinstance(joint, TeeJoint))
    moved = put(house, changed(tee, distance=tee.distance + 900.0))
    building = resolve(moved)
    askew = [held for held in of_kind(building, "wall_on_wall") if held.ends[0].sub == tee.id]
    assert askew and all(built_of(building, held) is None for held in askew)
