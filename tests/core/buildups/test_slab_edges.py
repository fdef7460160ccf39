"""Slabs on walls, their parts at another height, their free edges: junctions, pieces by hand, nothing in anything."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.buildups import Built, built_of, made_of
from deepsection.core.buildups.clashes import clashes_in
from deepsection.core.edits import DrawPorchSlab, apply_edits, changed, put
from deepsection.core.junctions import Junction, found_junctions
from deepsection.core.model import Project
from deepsection.core.resolve import Building, resolve
from tests.builders import SHOWER, block_house, box_house, cavity_box, slab_house
from tests.campaigns import share
from tests.turning import turned

from .rig import cut_at, places


def of_kind(building: Building, kind: str) -> list[Junction]:
    return [held for held in found_junctions(building) if held.kind == kind]


def built(building: Building, junction: Junction) -> Built:
    found = built_of(building, junction)
    assert found is not None
    return found


def is_clear(building: Building, *kinds: str) -> int:
    """How many details of some kinds there are, in none of which anything lies in anything."""
    looked = 0
    for junction, place in places(building, *kinds):
        if built_of(building, junction) is not None:
            held, _ = cut_at(building, place)
            found = clashes_in(held, place.frame, place.window.outline)
            assert [(junction.id, one.first.key, one.second.key, round(one.depth, 1)) for one in found] == []
            looked += 1
    return looked


def volume_of(building: Building, junction: Junction, piece: str) -> float:
    """Of a piece in the building with all of them, where they give way to each other."""
    place = next(place for held, place in places(building, junction.kind) if held.id == junction.id)
    whole, _ = cut_at(building, place)
    return sum(part.solid.volume for part in whole.parts if f"/{piece}/" in part.key and part.note)


def test_a_slab_on_a_wall_of_masonry_has_an_edge_of_its_own() -> None:
    """Bars within their cover, the screed kept off the wall; joists have what they had."""
    building = resolve(block_house())
    for junction in of_kind(building, "floor_edge"):
        held = built(building, junction)
        assert held.build_up.id == "floor-slab" and held.rules == ()
        pieces = {piece.id: piece.shape.bounds for piece in held.pieces}
        floor = junction.runs[0].start[2]
        # 65 of screed on 25 of insulation: the strip is as high, 25 wide.
        x0, y0, x1, y1 = pieces["edge-strip"]
        assert (x1 - x0, y0, y1) == pytest.approx((25.0, floor - 90.0, floor))
        low, high = pieces["edge-bar-low"], pieces["edge-bar-high"]
        assert low[1] == pytest.approx(floor - 290.0 + 25.0, abs=0.1) and high[3] == pytest.approx(
            floor - 115.0, abs=0.1
        )
    assert is_clear(building, "floor_edge") == 4
    beams = resolve(block_house("floor-joists"))
    assert {built(beams, held).build_up.id for held in of_kind(beams, "floor_edge")} == {"floor-masonry"}


def test_a_slab_that_bears_too_little_is_pointed_out() -> None:
    """Published: 90 mm at least where it spans onto the wall (Approved Document A, section 2C, from memory)."""
    house = block_house()
    wall = next(held for held in house.make_ups if held.id == house.walls[0].make_up)
    inner = max(k for k, layer in enumerate(wall.layers) if layer.function == "structure")
    thin = changed(wall, layers=[changed(v, thickness=75.0) if k == inner else v for k, v in enumerate(wall.layers)])
    building = resolve(put(house, thin))
    said = {held.id: [rule.words for rule in built(building, held).rules] for held in of_kind(building, "floor_edge")}
    assert sorted(said.values()) == [[], [], *[["the slab bears on 75 mm: 90 mm at least"]] * 2]


STEPS: dict[str, tuple[dict[str, Any], bool]] = {
    "lower": ({}, True),
    "higher": ({"drop": -100.0}, True),
    "thicker": ({"drop": 0.0, "thickness": 300.0}, False),
}


@pytest.mark.parametrize("turn", [0.0, 31.0])
@pytest.mark.parametrize("name", STEPS)
def test_a_part_of_a_slab_is_a_junction_all_around_it(name: str, turn: float) -> None:
    """1500 x 1200: its links stand 25 from each corner at 200, eight and six; nothing lies in anything."""
    how, joined = STEPS[name]
    building = resolve(turned(slab_house(**how), turn, 1))
    (junction,) = of_kind(building, "slab_step")
    assert junction.length == pytest.approx(5400.0, abs=1.0) and len(junction.runs) == 4
    assert junction.elements == ("low", "upper")
    held = built(building, junction)
    assert [piece.id for piece in held.pieces if piece.id == "links"] == ["links"] * joined
    links = [part for piece, part, _ in made_of(building, junction, 4.0) if piece.id == "links"]
    assert len(links) == joined * 2 * (8 + 6)
    assert is_clear(building, "slab_step") == 1


def test_waterproofing_covers_a_lower_part_once_and_stands_up_around_it() -> None:
    """Closed form: 2 mm over 1500 x 1200, and 73 above that in a ring of 2 mm."""
    building = resolve(slab_house())
    (junction,) = of_kind(building, "slab_step")
    ring = 1500.0 * 1200.0 - 1496.0 * 1196.0
    expected = 1500.0 * 1200.0 * 2.0 + ring * 73.0
    assert volume_of(building, junction, "waterproofing") == pytest.approx(expected, rel=1e-6)
    higher = resolve(slab_house(drop=-100.0))
    assert "waterproofing" not in {piece.id for piece in built(higher, of_kind(higher, "slab_step")[0]).pieces}


def terrace(house: Project, **facts: Any) -> Project:
    """4 m wide and 1.5 m deep before the south wall."""
    outside = min(wall.footprint.bounds[1] for wall in resolve(house).plan.walls)
    corners = ((2000.0, outside - 1500.0), (6000.0, outside - 1500.0), (6000.0, 1000.0), (2000.0, 1000.0))
    house = apply_edits(house, (DrawPorchSlab(id="terrace", level="floor", corners=corners),))
    return put(house, changed(house.porch_slabs[0], **facts))


HOUSES = {
    "framed": lambda **facts: terrace(box_house(9000.0, 6000.0, "ft-in"), **facts),
    "masonry": lambda **facts: terrace(cavity_box(9000.0, 6000.0), **facts),
    "turned": lambda **facts: turned(terrace(box_house(9000.0, 6000.0), **facts), -63.0, 1),
}


@pytest.mark.parametrize("edge", ["plain", "deep"])
@pytest.mark.parametrize("house", HOUSES)
def test_the_free_edges_of_a_porch_slab_are_found_by_its_fall(house: str, edge: str) -> None:
    """It falls from the wall: its low edge is built, both sides are listed; at the wall it has no free edge."""
    building = resolve(HOUSES[house](edge=edge))
    free = {held.ends[0].sub: held for held in of_kind(building, "slab_edge")}
    assert set(free) == {"low", "side"}
    assert free["low"].length == pytest.approx(4000.0, abs=1.0)
    assert free["side"].length == pytest.approx(2 * 1500.0, abs=2.0) and built_of(building, free["side"]) is None
    held = built(building, free["low"])
    assert held.build_up.id == ("edge-hardcore" if house == "masonry" else "edge-gravel")
    assert ("edge-bar-outer" in {piece.id for piece in held.pieces}) == (edge == "deep")
    assert is_clear(building, "slab_edge", "porch_slab") >= 1


def test_a_slab_without_fall_has_one_edge_whose_mesh_is_mitred() -> None:
    """Closed form: 6 mm, 40 in from three edges, to the wall and 1000 mm past none of it."""
    building = resolve(HOUSES["masonry"](fall=0.0))
    (junction,) = of_kind(building, "slab_edge")
    assert junction.ends[0].sub == "level" and junction.length == pytest.approx(4000.0 + 2 * 1500.0, abs=2.0)
    assert is_clear(building, "slab_edge") == 1
    (place,) = (place for held, place in places(building, "slab_edge"))
    whole, _ = cut_at(building, place)
    mesh = sum(part.solid.volume for part in whole.parts if "/mesh/" in part.key)
    assert mesh == pytest.approx((4000.0 - 80.0) * (1500.0 - 40.0) * 6.0, rel=0.01)


@settings(max_examples=share(12, 150), deadline=None)
@given(
    drop=st.sampled_from([-250.0, -120.0, -20.0, 30.0, 110.0, 260.0]),
    thickness=st.sampled_from([100.0, 150.0, 200.0, 260.0]),
    skew=st.floats(-400.0, 400.0),
    turn=st.floats(-180.0, 180.0),
)
def test_pieces_of_generated_steps_lie_in_nothing(drop: float, thickness: float, skew: float, turn: float) -> None:
    first, *rest = SHOWER
    corners = ((first[0] + skew, first[1] - skew / 2), *rest)
    building = resolve(turned(slab_house(corners, drop, thickness), turn, 2))
    for junction in of_kind(building, "slab_step"):
        for piece in built(building, junction).pieces:
            assert piece.shape.is_valid and piece.shape.area > 0.0
    is_clear(building, "slab_step")
