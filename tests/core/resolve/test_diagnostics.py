"""What the building cannot be: each complaint with its element, field, value and limit, never an exception."""

from __future__ import annotations

import math

import pytest

from deepsection.core.edits import MoveJoint, SetTotal, apply_edits, changed, put
from deepsection.core.model import FreeJoint, Project
from deepsection.core.resolve import Diagnostic, resolve
from tests.builders import box_house, chain_house, gable, window


def complaints(project: Project) -> dict[str, Diagnostic]:
    return {found.code: found for found in resolve(project).diagnostics}


def test_a_sound_house_has_none(house: Project) -> None:
    assert complaints(house) == {}
    assert complaints(gable(box_house(8000, 6000), 0.5, overhang=400, rake=300)) == {}


def test_an_opening_wider_than_its_wall() -> None:
    found = complaints(put(box_house(3000, 6000), window("w1", "south", 1500.0, width=3200.0)))["opening-too-wide"]
    assert (found.element, found.field, found.value, found.limit) == ("w1", "width", 3200.0, 3000.0)


@pytest.mark.parametrize(("at", "nearest"), [(300.0, 600.0), (7700.0, 7400.0), (-50.0, 600.0)])
def test_an_opening_past_the_end_of_its_wall(at: float, nearest: float) -> None:
    found = complaints(put(box_house(8000, 6000), window("w1", "south", at)))["opening-off-wall"]
    assert (found.element, found.field, found.value, found.limit) == ("w1", "distance", at, nearest)


def test_openings_that_overlap() -> None:
    house = put(box_house(8000, 6000), window("w1", "south", 2000.0), window("w2", "south", 3000.0))
    found = complaints(house)["openings-overlap"]
    assert found.element == "w1" and found.others == ("w2",)
    above = put(house, window("w2", "south", 2000.0, height=300.0, sill=2150.0))
    assert "openings-overlap" not in complaints(above), "one over the other is no overlap"


def test_a_head_above_the_wall() -> None:
    found = complaints(put(box_house(8000, 6000), window("w1", "south", 2000.0, sill=1500.0)))["opening-too-high"]
    assert found.field == "height" and found.value == pytest.approx(3000) and found.limit == pytest.approx(2800)


def test_an_outline_that_crosses_itself() -> None:
    corners = (("a", 0.0, 0.0), ("b", 6000.0, 5000.0), ("c", 6000.0, 0.0), ("d", 0.0, 5000.0))
    found = complaints(chain_house(corners, ("w1", "w2", "w3", "w4")))["walls-cross"]
    assert found.severity == "blocking" and found.at == pytest.approx((3000, 2500))


def test_walls_on_top_of_each_other() -> None:
    house = box_house(8000, 6000)
    joints = (FreeJoint(id="x", x=2000.0, y=0.0), FreeJoint(id="y", x=5000.0, y=0.0))
    twin = changed(next(wall for wall in house.walls if wall.id == "south"), id="twin", start="x", end="y")
    assert "on top of each other" in complaints(put(house, *joints, twin))["walls-cross"].message


def test_a_plate_below_the_floor() -> None:
    house = box_house(8000, 6000)
    south = next(wall for wall in house.walls if wall.id == "south")
    found = complaints(put(house, changed(south, top=south.top.model_copy(update={"offset": -3000.0}))))["wall-too-low"]
    assert found.element == "south" and found.value == pytest.approx(-500)
    assert complaints(apply_edits(house, (SetTotal(rung="floor", total=900.0),))) == {}, (
        "the plate rises with the floor"
    )


def test_a_roof_needs_an_outline_that_does_not_cross_itself() -> None:
    crossed = apply_edits(gable(box_house(8000, 6000), 0.5), (MoveJoint(joint="ne", x=-3000.0, y=2000.0),))
    found = complaints(crossed)["roof-outline"]
    assert found.element == "roof-1" and found.severity == "blocking" and "crosses" in found.message
    assert resolve(crossed).roofs == ()


def test_a_gable_may_stand_askew() -> None:
    """The ridge is cut off where the gable's line is: by similar triangles, halfway between its corners."""
    skew = apply_edits(gable(box_house(8000, 6000), 0.5), (MoveJoint(joint="ne", x=8600.0, y=6000.0),))
    (roof,) = resolve(skew).roofs
    (ridge,) = roof.of("ridge")
    reach = 12
    assert max(ridge.start[0], ridge.end[0]) == pytest.approx(8300 + reach * math.hypot(600, 6000) / 6000)


def test_a_birdsmouth_cannot_cut_its_rafter_through() -> None:
    found = complaints(gable(box_house(8000, 6000), 0.5, seat=400.0))["birdsmouth-too-deep"]
    assert found.field == "seat" and found.limit == pytest.approx(235 * 1.25**0.5 * 0.5 / 0.5)


def test_no_room_for_a_fascia_is_said() -> None:
    found = complaints(gable(box_house(8000, 6000), 0.5, overhang=0.0))["no-room-for-fascia"]
    assert found.severity == "warning" and found.limit is not None
    roomy = gable(box_house(8000, 6000), 0.5, overhang=found.limit + 0.1)
    assert "no-room-for-fascia" not in complaints(roomy)


def test_a_room_that_nothing_encloses(house: Project) -> None:
    stray = put(house, house.rooms[0].model_copy(update={"id": "room-x", "x": -9000.0}))
    assert complaints(stray)["room-open"].element == "room-x"
