"""Doors in inner walls, whose frames fill them, with casings; what steadies joists on inner walls that carry floors."""

from __future__ import annotations

from itertools import pairwise

import pytest

from deepsection.core.buildups import built_of, made_of
from deepsection.core.buildups.clashes import clashes_in
from deepsection.core.edits import apply_edits, changed, put
from deepsection.core.junctions import Junction, found_junctions
from deepsection.core.model import Project, SetIn, TeeJoint
from deepsection.core.resolve import Building, resolve
from deepsection.demo import larkmoor_house, otterfold_house
from deepsection.demo.pieces import partition
from tests.builders import block_house, box_house, cavity_box, window
from tests.turning import turned

from .rig import cut_at, places


def with_inner_door(project: Project, **door: object) -> Project:
    """A house with a wall across it, and a door in that."""
    tees = [TeeJoint(id=id, wall=wall, end="start", distance=3000.0) for id, wall in (("t1", "south"), ("t2", "north"))]
    walled = apply_edits(project, [partition("part", tees[0], tees[1])])
    inside = changed(window("d9", "part", 2500.0, sill=0.0, width=900.0, height=2050.0), unit="door", rough=12.0)
    return put(walled, changed(inside, **door))


def junction_of(building: Building, id: str) -> Junction:
    return next(held for held in found_junctions(building) if held.id == id)


HOUSES = {
    "framed": lambda: with_inner_door(box_house(8400, 6000, "ft-in")),
    "masonry": lambda: with_inner_door(cavity_box(8400.0, 6000.0)),
    "turned": lambda: turned(with_inner_door(box_house(8400, 6000)), 41.0, 1),
}


@pytest.mark.parametrize("name", HOUSES)
def test_the_frame_of_an_inner_door_is_as_deep_as_its_wall(name: str) -> None:
    """Flush with both faces, unless it is set in by hand."""
    project = HOUSES[name]()
    for held, deep in (
        (project, True),
        (put(project, changed(project.find("d9"), set_in=SetIn(distance=10.0))), False),
    ):
        building = resolve(held)
        wall = building.plan.by_id["part"]
        frames = [part for part in building.parts if part.element == "d9" and part.key.split("/")[1] == "frame"]
        corners = [
            wall.axis.left_of((x, y)) * wall.side for part in frames for x, y, _ in part.solid.mesh()[0].tolist()
        ]
        assert (max(corners) == pytest.approx(wall.outer, abs=0.01)) == deep
        assert (min(corners) == pytest.approx(wall.inner, abs=0.01)) == deep


@pytest.mark.parametrize("name", HOUSES)
def test_its_casings_cover_the_joint_on_both_sides_and_meet(name: str) -> None:
    building = resolve(HOUSES[name]())
    built = built_of(building, junction_of(building, "jamb/d9.jambs"))
    head = built_of(building, junction_of(building, "head/d9.head"))
    assert built is not None and built.build_up.id == "jamb-inner"
    assert head is not None and head.build_up.id == "head-inner"
    jambs = {piece.id: piece.shape.bounds for piece in built.pieces}
    heads = {piece.id: piece.shape.bounds for piece in head.pieces}
    assert set(heads) == {"casing-outer", "casing-inner"} < set(jambs) == {"casing-outer", "casing-inner", "packer"}
    wall = building.plan.by_id["part"]
    for id, face, side in (("casing-outer", wall.outer, 0), ("casing-inner", wall.inner, 2)):
        assert jambs[id][side] == pytest.approx(face)
        # From the frame, past the clearance of 12 mm, onto the lining.
        assert jambs[id][1] < -20.0 and jambs[id][3] > 12.0 + 5.0
        # That of the head is as wide as those of the sides stand apart, outside to outside.
        past = next(piece.past[0] for piece in head.pieces if piece.id == id)
        assert past == pytest.approx(jambs[id][3])
    packs = [part for piece, part, _ in made_of(building, junction_of(building, "jamb/d9.jambs"), 4.0) if piece.every]
    heights = sorted({round(part.solid.reach.z0, 1) for part in packs})
    assert len(packs) == 2 * len(heights) and all(b - a <= 500.1 for a, b in pairwise(heights))


@pytest.mark.parametrize("name", HOUSES)
def test_nothing_lies_in_anything_around_it(name: str) -> None:
    building = resolve(HOUSES[name]())
    mine = [pair for pair in places(building, "jamb", "head", "threshold") if "d9" in pair[0].elements]
    assert len(mine) == 3
    for junction, place in mine:
        held, _ = cut_at(building, place)
        found = clashes_in(held, place.frame, place.window.outline)
        assert [(junction.id, one.first.key, one.second.key) for one in found] == []


def test_a_leaf_clears_the_strip_under_it() -> None:
    building = resolve(HOUSES["framed"]())
    (pair,) = (pair for pair in places(building, "threshold") if "d9" in pair[0].elements)
    _, cut = cut_at(building, pair[1])
    low = min(one.polygon.bounds[1] for one in cut if one.part.role == "leaf")
    strip = next(one.polygon for one in cut if one.part.key.split("/")[2] == "floor-strip")
    assert low - strip.bounds[3] == pytest.approx(5.0, abs=0.05)


def test_an_opening_without_a_frame_has_no_casings() -> None:
    building = resolve(with_inner_door(box_house(8400, 6000), operation="plain"))
    assert built_of(building, junction_of(building, "jamb/d9.jambs")) is None


# --- inner walls that carry floors ----------------------------------------------------------------


def spanning(project: Project, degrees: float) -> Project:
    """The joists of the upper floor laid in a direction."""
    return put(project, changed(project.find("upper"), span="angle", angle=degrees))


@pytest.mark.parametrize(("span", "pieces"), [(90.0, {"strap"}), (0.0, {"beam-filling"})])
def test_joists_on_a_wall_of_blocks_are_strapped_or_filled_between(span: float, pieces: set[str]) -> None:
    """Along the wall they are strapped; across it blocks fill the spaces between them, from the wall to the floor."""
    building = resolve(spanning(block_house("floor-joists", inner=True), span))
    (junction,) = (held for held in found_junctions(building) if held.kind == "floor_on_wall")
    built = built_of(building, junction)
    assert built is not None and {piece.id for piece in built.pieces} - {"corner-a", "corner-b"} == pieces
    (pair,) = places(building, "floor_on_wall")
    held, _ = cut_at(building, pair[1])
    assert clashes_in(held, pair[1].frame, pair[1].window.outline) == []


@pytest.mark.parametrize("make", [larkmoor_house, otterfold_house])
def test_joists_on_a_framed_wall_of_the_demos_are_nailed_or_carry_a_nailer(make: object) -> None:
    building = resolve(make())  # type: ignore[operator]
    for junction, place in places(building, "floor_on_wall"):
        built = built_of(building, junction)
        assert built is not None and built.build_up.id == "bearing-framed"
        across = dict(junction.facts)["joists"] == "across"
        assert ({"toe-nails"} if across else {"nailer", "block-a", "block-b"}) <= {piece.id for piece in built.pieces}
        held, _ = cut_at(building, place)
        assert clashes_in(held, place.frame, place.window.outline) == []


def test_a_wall_too_thin_to_bear_is_told() -> None:
    """3 in of masonry (IRC R502.6, from memory): a leaf of 70 mm is told, one of 100 is not."""
    project = spanning(block_house("floor-joists", inner=True), 0.0)
    up = next(held for held in project.make_ups if held.id == "wall-inner")
    told = []
    for thick in (100.0, 70.0):
        layers = tuple(changed(held, thickness=thick) if held.function == "structure" else held for held in up.layers)
        building = resolve(put(project, changed(up, layers=layers)))
        (junction,) = (held for held in found_junctions(building) if held.kind == "floor_on_wall")
        built = built_of(building, junction)
        assert built is not None
        told.append([found.words for found in built.rules])
    assert told == [[], ["joists bear on 70 mm of masonry: 76 mm at least"]]
