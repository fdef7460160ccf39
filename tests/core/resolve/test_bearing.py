"""Walls with two structure layers: one of them bears, and floors, sills, foundations and roofs all read which."""

from __future__ import annotations

import itertools

import pytest
import shapely

from deepsection.core.edits import apply_edits, changed, put
from deepsection.core.model import Layer, MakeUp, Project, bearing_layer
from deepsection.core.particulars import enter, fields_of
from deepsection.core.resolve import Building, Part, resolve
from deepsection.core.starters.projects import new_project
from deepsection.core.trades.walls.edits.walls import default_set_out
from tests.builders import two_storeys
from tests.overlaps import shared
from tests.turning import turned

from .test_masonry import roofed

near = pytest.approx
FRAME, GAP, SECOND = 140.0, 60.0, 89.0
MEMBERS = {"stud", "plate", "header", "rough_sill", "joist", "rim_joist", "rafter", "sill_plate", "stem"}


def double(project: Project, bearing: str | None = None, *, make_up: str = "wall-lap") -> Project:
    """The house with a second frame inside of the first, and a gap between them."""
    held: MakeUp = project.find(make_up)
    position = next(k for k, layer in enumerate(held.layers) if layer.function == "structure")
    frame = held.layers[position]
    assert frame.thickness == FRAME
    gap = Layer(id="gap", name="gap", material="quilt", function="insulation", thickness=GAP)
    second = changed(frame, id="second", name="inner studs", thickness=SECOND)
    layers = (*held.layers[: position + 1], gap, second, *held.layers[position + 1 :])
    done: Project = put(project, changed(held, layers=layers, bearing=bearing))
    return done


def layer(part: Part) -> str:
    return part.key.split("/")[2]


def members(building: Building) -> list[Part]:
    return [part for part in building.parts if part.role in MEMBERS or layer(part) == "deck"]


def clashes(building: Building) -> list[tuple[str, str]]:
    """Members of different elements that stand in each other by more than a cubic centimetre; rafters rest on plates
    and beside joists, which a birdsmouth and nails take care of."""
    held = [part for part in members(building) if part.role != "rafter"]
    pairs = (pair for pair in itertools.combinations(held, 2) if pair[0].element != pair[1].element)
    return [(a.key, b.key) for a, b in pairs if shared(a.solid, b.solid) > 1e3]


def extent(parts: list[Part]) -> tuple[float, ...]:
    return shapely.union_all(
        [shapely.box(b.x0, b.y0, b.x1, b.y1) for b in (part.solid.bounds for part in parts)]
    ).bounds


def floor_parts(building: Building) -> list[Part]:
    return [
        part
        for part in building.parts
        if part.role in ("joist", "rim_joist") and part.element in ("main-floor", "s2-joists")
    ]


@pytest.mark.parametrize("turn", [0.0, 23.0])
@pytest.mark.parametrize("bearing", [None, "frame", "second"])
def test_no_member_stands_in_another_whichever_frame_bears(bearing: str | None, turn: float) -> None:
    house = turned(double(two_storeys(9000.0, 6000.0), bearing), turn, 3)
    assert clashes(resolve(house)) == []


def test_by_itself_the_outer_of_two_frames_bears_and_the_floor_runs_over_the_inner_one() -> None:
    """The set-out line is the outside of the outer frame: floor, rim and sill end on it."""
    building = resolve(double(two_storeys(9000.0, 6000.0)))
    assert building.diagnostics == ()
    assert extent(floor_parts(building)) == near((0, 0, 9000, 6000))
    sills = [part for part in building.parts if part.role == "sill_plate"]
    assert extent(sills) == near((0, 0, 9000, 6000))
    upper = [part for part in building.parts if part.role == "plate" and layer(part) == "second"]
    feet = {round(part.solid.bounds.z0, 3) for part in upper if part.key.endswith("bottom:0")}
    floors = {round(building.levels[wall.wall.base.level].z, 3) for wall in building.plan.walls}
    assert feet == floors, "the inner frame of each storey stands on its floor"


def test_where_the_inner_frame_bears_the_outer_one_passes_the_edge_of_the_floor() -> None:
    building = resolve(double(two_storeys(9000.0, 6000.0), "second"))
    inset = FRAME + GAP
    assert extent(floor_parts(building)) == near((inset, inset, 9000 - inset, 6000 - inset))
    sills = [part for part in building.parts if part.role == "sill_plate"]
    assert extent(sills) == near((inset, inset, 9000 - inset, 6000 - inset))
    (roof,) = building.roofs
    ys = [plane.eave_start[1] for plane in roof.planes]
    assert (min(ys), max(ys)) == near((inset, 6000 - inset)), "rafters bear on the inner frame"
    levels = building.levels
    plates = [part for part in building.parts if part.role == "plate" and layer(part) == "frame"]
    feet = sorted({round(part.solid.bounds.z0, 3) for part in plates if part.key.endswith("bottom:0")})
    assert len(feet) == 2
    stands = [part.solid.bounds.z1 for part in building.parts if part.role == "stem"]
    assert feet[0] == near(max(stands)), "on the foundation wall, outside of the sill plate"
    lower_plate = next(levels[wall.wall.top.level].z for wall in building.plan.walls if wall.wall.base.level == "floor")
    assert feet[1] == near(lower_plate), "and on the frame of the storey below, past the floor"


def test_the_outer_frame_ends_under_the_rafters_that_pass_over_it() -> None:
    """A slope of 1 in 2 over the inner frame at 200 mm: its underside is lower by half of that at the outer face.

    The seat of the birdsmouth is 90 mm, so that the underside of the rafter comes up to the plate 90 mm further in.
    """
    building = resolve(double(two_storeys(9000.0, 6000.0), "second"))
    top = max(part.solid.bounds.z1 for part in building.parts if part.role == "plate" and layer(part) == "second")
    south = [part for part in building.parts if part.role == "plate" and part.key.startswith("s2-w1/plate/frame")]
    assert max(part.solid.bounds.z1 for part in south) == near(top - (FRAME + GAP + 90.0) / 2, abs=0.01)


def test_a_frame_past_the_foundation_wall_is_pointed_out_with_the_thickness_that_carries_it() -> None:
    house = double(two_storeys(9000.0, 6000.0), "second")
    (found,) = [held for held in resolve(house).diagnostics if held.code == "off-foundation"]
    assert found.limit == near(FRAME + GAP + SECOND) and found.element == "foundation"
    foundation = house.find("foundation")
    wider = put(house, changed(foundation, stem_thickness=FRAME + GAP + SECOND))
    assert "off-foundation" not in {held.code for held in resolve(wider).diagnostics}


def test_each_wall_of_an_outline_bears_where_its_own_make_up_says() -> None:
    house = two_storeys(9000.0, 6000.0)
    other = changed(house.find("wall-lap"), id="wall-double", name="double wall")
    house = double(put(house, other), "second", make_up="wall-double")
    walls = [changed(wall, make_up="wall-double") for wall in house.walls if wall.id in ("north", "s2-w3")]
    assert len(walls) == 2
    building = resolve(put(house, *walls))
    assert extent(floor_parts(building)) == near((0, 0, 9000, 6000 - FRAME - GAP))
    assert clashes(building) == []


def test_walls_are_set_out_on_the_frame_that_bears_and_on_the_outer_leaf_of_masonry() -> None:
    house = double(two_storeys(9000.0, 6000.0), "second")
    assert default_set_out(house.find("wall-lap"), "outer").layer == "second"
    assert default_set_out(double(two_storeys(9000.0, 6000.0)).find("wall-lap"), "outer").layer == "frame"
    cavity = new_project("m", "Bungalow", "mm", "masonry").find("wall-cavity")
    assert cavity.layers[bearing_layer(cavity)].id == "inner" and default_set_out(cavity, "outer").layer == "outer"


def test_masonry_chooses_its_bearing_leaf_and_the_plate_and_roof_go_there() -> None:
    house = roofed()
    (row,) = [row for row in fields_of(house, house.find("wall-cavity")) if row.field.id == "bearing"]
    assert row.field.text == "inner"
    after = apply_edits(house, enter(house, "wall-cavity", "bearing", "outer"))
    plates = {layer(part) for part in resolve(after).parts if part.role == "wall_plate"}
    assert plates == {"outer"} and "plate-not-bearing" not in {held.code for held in resolve(after).diagnostics}
    back = apply_edits(after, enter(after, "wall-cavity", "bearing", "inner"))
    assert back.find("wall-cavity").layers == house.find("wall-cavity").layers


def test_what_is_said_to_bear_and_cannot_is_pointed_out() -> None:
    house = double(two_storeys(9000.0, 6000.0), "gap")
    (found,) = resolve(house).diagnostics
    assert found.code == "bearing-lost" and "gap" in found.message
    masonry = roofed()
    cavity = masonry.find("wall-cavity")
    codes = {held.code for held in resolve(put(masonry, changed(cavity, bearing="outer"))).diagnostics}
    assert "plate-not-bearing" in codes
