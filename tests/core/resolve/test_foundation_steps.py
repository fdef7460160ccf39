"""Foundations that step down with the ground, and the pony walls on them: by hand, against closed forms, turned."""

from __future__ import annotations

from typing import Any

import pytest
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.document.motion import Motion
from deepsection.core.drawing import Stroke, Text
from deepsection.core.edits import Remove, Transform, apply_edits, changed, put
from deepsection.core.errors import BadInput, RefusedEdit
from deepsection.core.model import FoundationStep, GroundSpot, Project
from deepsection.core.particulars import enter
from deepsection.core.resolve import Building, Part, resolve
from deepsection.core.view import draw_view
from deepsection.demo import otterfold_house
from tests.builders import box_house, joist_house
from tests.overlaps import overlapping

INCH = 25.4


def step(id: str, x: float, drop: float, *, foundation: str = "foundation") -> FoundationStep:
    """Across the house at x: what lies to its east is lower."""
    return FoundationStep(id=id, foundation=foundation, x1=x, y1=9000.0, x2=x, y2=0.0, drop=drop)


def pony(house: Project, *steps: FoundationStep, make_up: str = "wall-pony") -> Project:
    return put(house, changed(house.foundations[0], pony=make_up), *steps)


def own(building: Building, role: str) -> list[Part]:
    return [part for part in building.parts if part.element == "foundation" and part.role == role]


def volume(parts: list[Part]) -> float:
    return sum(float(trimesh.Trimesh(*part.solid.mesh()).volume) for part in parts)


def heights(part: Part) -> tuple[float, float]:
    return part.solid.reach.z0, part.solid.reach.z1


def codes(project: Project) -> dict[str, Any]:
    return {found.code: found for found in resolve(project).diagnostics}


def test_a_step_of_600_by_hand() -> None:
    """9 x 6 m, foundation walls of 200 on footings of 400 x 200, 600 lower from x = 5 m on.

    Footings overlap by twice the step (Approved Document A, 2E2). The walls are as high on both sides, less the two
    overlaps. Between sill plate and floor 600 + 38 are left: a sill plate, a plate, two plates, studs of 486."""
    spots = [
        GroundSpot(id=f"g{n}", x=x, y=0.0, rise=rise) for n, (x, rise) in enumerate(((4800.0, 0.0), (4990.0, -600.0)))
    ]
    building = resolve(put(pony(joist_house(9000.0, 6000.0), step("s", 5000.0, 600.0)), *spots))
    levels, wall_ring = building.levels, 9000 * 6000 - 8600 * 5600
    high = levels["stem"].z - levels["footing"].z - 200.0
    assert volume(own(building, "stem")) == pytest.approx(wall_ring * high - 2 * 200 * 1200 * 600, rel=1e-6)
    footing_ring = 9200 * 6200 - 8400 * 5400
    assert volume(own(building, "footing")) == pytest.approx(footing_ring * 200 + 2 * 400 * 1200 * 600, rel=1e-6)
    studs = own(building, "stud")
    assert {round(top - foot, 3) for foot, top in map(heights, studs)} == {486.0}
    # Along 4 m: one at each end, nine between them at 400; along 6 m: fourteen between.
    assert len(studs) == 2 * 11 + 16
    for wall in ("south", "north"):
        assert {part.key.split("/")[3] for part in own(building, "sill_plate") if f"/{wall}" in part.key} == {
            f"{wall}:1",
            f"{wall}:2",
        }
    low = levels["stem"].z - 600.0
    for part in own(building, "sheathing"):
        assert heights(part) == (pytest.approx(low), pytest.approx(levels["sill"].z))
    assert {round(heights(part)[0] - low, 3) for part in own(building, "plate")} == {
        38.0,
        600.0 + 38.0 - 76.0,
        600.0 + 38.0 - 38.0,
    }
    assert not building.diagnostics


def test_what_covers_the_ground_steps_with_pony_walls() -> None:
    house = joist_house(9000.0, 6000.0)
    covers = own(resolve(pony(house, step("s", 5000.0, 600.0))), "finish")
    tops = sorted(round(heights(part)[1], 3) for part in covers)
    assert len(covers) == 2 and tops[1] - tops[0] == pytest.approx(600.0)
    assert volume(covers) == pytest.approx(8600 * 5600 * 75.0, rel=1e-6)


def test_without_pony_walls_the_footing_alone_steps() -> None:
    """The foundation wall then ends at one height; a slab on it stays level."""
    house = box_house(9000.0, 6000.0)
    plain, stepped = resolve(house), resolve(put(house, step("s", 4000.0, 300.0)))
    assert {heights(part)[1] for part in own(stepped, "stem")} == {heights(part)[1] for part in own(plain, "stem")}
    lows = {round(heights(part)[0], 3) for part in own(stepped, "footing")}
    footing = plain.levels["footing"].z
    assert lows == {round(footing - 300.0, 3), round(footing, 3), round(footing - 100.0, 3)}
    assert volume(own(stepped, "structure")) == pytest.approx(volume(own(plain, "structure")))


def test_in_feet_and_inches_a_footing_runs_on_as_far_as_it_is_thick() -> None:
    building = resolve(pony(joist_house(360 * INCH, 240 * INCH, "ft-in"), step("s", 200 * INCH, 16 * INCH)))
    risers = [part for part in own(building, "footing") if ":step:" in part.key]
    assert len(risers) == 2
    assert volume(risers) == pytest.approx(2 * (16 * 8 * 16) * INCH**3, rel=1e-6)


@pytest.mark.parametrize("motion", [Motion(turn=31.0), Motion(mirror=90.0, x=4500.0), Motion(turn=-90.0, dx=700.0)])
def test_steps_turn_and_mirror_with_the_house(motion: Motion) -> None:
    house = pony(joist_house(9000.0, 6000.0), step("s", 5000.0, 600.0), step("t", 7400.0, 300.0))
    moving = tuple(element.id for element in house.elements() if element.about.movable)
    moved = apply_edits(house, (Transform(elements=moving, motion=motion),))
    before, after = resolve(house), resolve(moved)
    for role in ("stem", "footing", "stud", "sheathing", "sill_plate"):
        assert len(own(after, role)) == len(own(before, role)), role
        assert volume(own(after, role)) == pytest.approx(volume(own(before, role)), rel=1e-5), role


@settings(max_examples=12, deadline=None)
@given(
    st.lists(st.tuples(st.floats(0.0, 9000.0), st.floats(-40.0, 40.0), st.floats(60.0, 700.0)), max_size=3),
    st.sampled_from(["mm", "ft-in"]),
)
def test_however_it_steps_walls_are_carried_without_gap_or_overlap(
    lines: list[tuple[float, float, float]], units: Any
) -> None:
    """Skewed steps too. What is solid overlaps nowhere, and along each wall every stretch reaches from its footing to
    the floor: tops of foundation walls, plates and studs follow on each other."""
    steps = [
        FoundationStep(
            id=f"s{n}", foundation="foundation", x1=x + 20 * skew, y1=6000.0, x2=x - 20 * skew, y2=0.0, drop=drop
        )
        for n, (x, skew, drop) in enumerate(lines)
    ]
    building = resolve(pony(joist_house(9000.0, 6000.0, units), *steps))
    roles = ("stem", "footing", "sill_plate", "plate", "stud")
    solid = [part for role in roles for part in own(building, role)]
    assert overlapping(solid) == []
    sill = building.levels["sill"].z
    for part in own(building, "stem"):
        slot = part.key.split("/")[3]
        plate = next(held for held in own(building, "sill_plate") if held.key.split("/")[3] == slot)
        assert heights(part)[1] == pytest.approx(heights(plate)[0])
        top = heights(plate)[1]
        wall, _, number = slot.partition(":")
        name = f"/{wall}:{number or 1}:"
        frame = [held for role in ("plate", "stud") for held in own(building, role) if name in held.key]
        if frame:
            assert min(heights(held)[0] for held in frame) == pytest.approx(top)
            top = max(heights(held)[1] for held in frame)
        assert top == pytest.approx(sill)


@pytest.mark.parametrize(
    ("rise", "code"), [(-3.0, "ground-high"), (-10.0, "foundation-low"), (-12.0, None), (-70.0, "footing-bare")]
)
def test_ground_that_falls_by_inches_east_of_a_step(rise: float, code: str | None) -> None:
    """The wall ends 10 - 16 = -6 in over grade: under ground at -3, 4 in above it at -10, 6 in at -12. Footings lie at
    -42 - 16 in and are 8 in thick: bare at -70."""
    house = pony(joist_house(360 * INCH, 240 * INCH, "ft-in"), step("s", 200 * INCH, 16 * INCH))
    spots = [
        GroundSpot(id=f"g{n}", x=x * INCH, y=0.0, rise=z * INCH)
        for n, (x, z) in enumerate(((150.0, 0.0), (190.0, min(rise, -12.0)), (201.0, rise), (400.0, rise)))
    ]
    if code == "ground-high":
        spots = [GroundSpot(id="g", x=400 * INCH, y=0.0, rise=rise * INCH)]
    found = codes(put(house, *spots))
    assert set(found) == ({code} if code else set())
    if code == "foundation-low":
        assert found[code].value == pytest.approx(4 * INCH) and found[code].limit == pytest.approx(6 * INCH)


def test_steps_that_cannot_be_built_are_said_at_their_place() -> None:
    house = joist_house(9000.0, 6000.0)
    assert codes(pony(house, step("s", 12000.0, 300.0)))["step-misses"].element == "s"
    near = codes(pony(house, step("s", 4000.0, 600.0), step("t", 5000.0, 600.0)))["steps-near"]
    assert (near.value, near.limit) == (pytest.approx(1000.0), pytest.approx(1200.0))
    # The wall is 250 + 1050 - 200 high.
    high = codes(pony(house, step("s", 4000.0, 1200.0)))["step-high"]
    assert (high.value, high.limit) == (pytest.approx(1200.0), pytest.approx(1100.0))
    low = codes(pony(house, step("s", 4000.0, 120.0)))["pony-low"]
    assert low.value == pytest.approx(158.0) and low.limit == pytest.approx(4 * 38.0 + 25.0)
    thin = codes(pony(house, step("s", 4000.0, 600.0), make_up="wall-inner"))["pony-thin"]
    assert (thin.value, thin.limit) == (89.0, 140.0)


def test_a_pad_that_hangs_over_the_ground_is_said() -> None:
    """In the crawl space of a demo, where it steps down 18 in; beside a house, where the ground falls."""
    house = otterfold_house()
    post = next(held for held in house.posts if held.id == "girder-post-3")
    high = put(house, changed(post, base=changed(post.base, offset=0.0)))
    found = codes(high)["pad-bare"]
    # Its pad is 10 in thick: its underside hangs 8 in over the lower ground.
    assert found.element == post.id and '8"' in found.message
    outside = next(held for held in house.posts if held.id.startswith("deck-"))
    lifted = put(house, changed(outside, base=changed(outside.base, offset=0.0)))
    assert codes(lifted)["pad-bare"].element == outside.id
    assert "pad-bare" not in codes(house)


def test_pony_walls_need_studs_and_a_floor_on_joists() -> None:
    house = joist_house(9000.0, 6000.0)
    with pytest.raises(RefusedEdit, match="studs"):
        pony(house, make_up="ground-cover")
    with pytest.raises(RefusedEdit, match="joists"):
        pony(box_house(9000.0, 6000.0))


def test_the_particulars_choose_pony_walls_and_step() -> None:
    house = put(joist_house(9000.0, 6000.0), step("s", 5000.0, 600.0))
    chosen = apply_edits(house, tuple(enter(house, "foundation", "pony", "wall-pony")))
    assert chosen.foundations[0].pony == "wall-pony"
    assert apply_edits(chosen, tuple(enter(chosen, "foundation", "pony", "-"))) == house
    lower = apply_edits(house, tuple(enter(house, "s", "drop", "450")))
    assert lower.foundation_steps[0].drop == 450.0
    turned = apply_edits(house, tuple(enter(house, "s", "turn", "")))
    assert (turned.foundation_steps[0].y1, turned.foundation_steps[0].y2) == (0.0, 9000.0)
    with pytest.raises(BadInput, match="more than"):
        enter(house, "s", "drop", "0")
    assert not apply_edits(house, (Remove(elements=("s",)),)).foundation_steps


def test_the_plan_shows_where_a_foundation_steps() -> None:
    project = otterfold_house()
    drawing = draw_view(resolve(project), project, "plan:floor", 48)
    words = [mark.text for mark in drawing.marks if isinstance(mark, Text) and "footing down" in mark.text]
    assert words == ["footing down 1'-6\""] * 2
    lines = [
        mark
        for mark in drawing.marks
        if isinstance(mark, Stroke) and mark.feature == "foundation" and mark.pen == "hidden"
    ]
    assert sorted(mark.path[0][0] for mark in lines) == pytest.approx([19.5 * 304.8, 28.5 * 304.8])
    above = draw_view(resolve(project), project, "plan:upper", 48)
    assert not [mark for mark in above.marks if isinstance(mark, Stroke) and mark.feature == "foundation"]
