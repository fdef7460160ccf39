"""Steps and rails: risers and volumes worked out by hand, gaps that a published rule asks, and what is wrong."""

from __future__ import annotations

import math

import pytest

from deepsection.core.document.motion import Motion
from deepsection.core.drawing import Region, Text
from deepsection.core.edits import AddRail, AddSteps, Remove, SetTotal, Transform, apply_edits, changed, put
from deepsection.core.errors import BadInput, RefusedEdit
from deepsection.core.model import Beam, Post, Project, Rail
from deepsection.core.particulars import enter
from deepsection.core.resolve import Building, resolve
from deepsection.core.trades.ground.model import GroundSpot
from deepsection.core.trades.levels.model import LevelRule
from deepsection.core.trades.outdoors.placed import RAILS, STEPS
from deepsection.core.trades.posts.model import BeamEnd
from deepsection.core.view import draw_view
from deepsection.demo import otterfold_house
from tests.builders import joist_house, window

near = pytest.approx


def house(rails: str = "none") -> Project:
    """A box on joists with a door in its south wall and steps to it."""
    project = put(joist_house(8000, 6000), changed(window("d1", "south", 3000.0), unit="door", sill=0.0, height=2000.0))
    project = apply_edits(project, (AddSteps(door="d1", id="steps-1"),))
    return put(project, changed(project.outside_steps[0], rails=rails))


def body(building: Building) -> float:
    (part,) = [part for part in building.parts if part.role == "steps"]
    return part.solid.volume


def test_risers_are_as_many_as_the_height_asks() -> None:
    """21 1/2 in from grade to the floor of the demo: three of 7 1/6 in, since two would be higher than 7 3/4 in."""
    building = resolve(otterfold_house())
    (first, second) = building[STEPS]
    assert (first.risers, second.risers) == (3, 3) and first.rise == near(21.5 / 3 * 25.4)
    assert first.run == near((36 + 2 * 11) * 25.4)


def test_the_body_of_steps_has_the_volume_of_its_treads() -> None:
    """By hand: under the landing the height h and under each tread a rise less, each with 150 in the ground."""
    project = house()
    building = resolve(project)
    (placed,) = building[STEPS]
    steps, high = placed.steps, placed.top.total
    assert placed.risers == math.ceil(high / 220.0)
    by_hand = steps.width * (900.0 * (high + 150.0) + sum(
        280.0 * (high - k * placed.rise + 150.0) for k in range(1, placed.risers)
    ))  # fmt: skip
    assert body(building) == near(by_hand, rel=1e-9)
    assert placed.top.total == near(building.levels["floor"].z)
    skin = building.plan.by_id["south"].outer
    assert (steps.x, steps.y, steps.turn) == near((3000.0, -skin, -90.0), abs=0.01), "before the door, to the south"


def test_steps_on_falling_ground_have_more_risers() -> None:
    """The ground 600 lower all around: as many risers more as it takes."""
    project = put(house(), GroundSpot(id="g", x=0.0, y=0.0, rise=-600.0))
    (placed,) = resolve(project)[STEPS]
    assert placed.foot == near(-600.0) and placed.risers == math.ceil((placed.top.total + 600.0) / 220.0)
    high = apply_edits(house(), (SetTotal(rung="stem", total=900.0),))
    assert resolve(high)[STEPS][0].risers > resolve(house())[STEPS][0].risers


def test_steps_that_lead_nowhere_are_named() -> None:
    project = put(house(), GroundSpot(id="g", x=0.0, y=0.0, rise=5000.0))
    building = resolve(project)
    assert building[STEPS] == ()
    assert [d.element for d in building.diagnostics if d.code == "steps-without-rise"] == ["steps-1"]
    with pytest.raises(RefusedEdit, match="outer wall"):
        apply_edits(put(house(), changed(house().openings[0], unit="window")), (AddSteps(door="d1", id="s2"),))


def test_rails_stand_on_the_treads_at_both_sides() -> None:
    building = resolve(house("both"))
    rails = [part for part in building.parts if part.role.startswith("rail_")]
    (placed,) = building[STEPS]
    assert {part.key.rpartition("/")[2] for part in rails} == {"left", "right"} and len(rails) == 4
    bars = [part.solid.bounds for part in rails if part.role == "rail_bars"]
    assert max(box.z1 for box in bars) == near(placed.top.total + 900.0, abs=0.1), "a house in mm"
    half = placed.steps.width / 2
    assert all(placed.steps.x - half < box.x0 and box.x1 < placed.steps.x + half for box in bars)


def rail(length: float, gap: float = 100.0) -> Project:
    ends = {"x1": 0.0, "y1": -3000.0, "x2": length, "y2": -3000.0}
    held = Rail.model_validate({"id": "rail-1", **ends, "base": LevelRule(level="floor"), "height": 900.0, "gap": gap})
    return put(joist_house(8000, 6000), held)


@pytest.mark.parametrize("length", [500.0, 1000.0, 1777.0, 3000.0])
def test_no_ball_of_a_hundred_passes_a_rail(length: float) -> None:
    """Clear gaps of balusters are at most 100, and no more balusters than that needs. IRC R312.1.3, AD K (memory)."""
    (bars,) = [part for part in resolve(rail(length)).parts if part.role == "rail_bars"]
    space = length - 2 * 89.0
    area = bars.solid.volume / 38.0
    two_bars = 2 * 38.0 * space
    each = 38.0 * (900.0 - 75.0 - 2 * 38.0)
    count = (area - two_bars) / each
    assert count == near(round(count), abs=1e-6)
    gap = (space - round(count) * 38.0) / (round(count) + 1)
    assert gap <= 100.0 + 1e-6
    fewer = (space - (round(count) - 1) * 38.0) / max(1, round(count))
    assert fewer > 100.0 or round(count) == 0


def test_a_rail_stands_between_the_posts_of_a_beam() -> None:
    project = joist_house(8000, 6000)
    posts = [
        Post(
            id=f"post-{k}", x=x, y=-2000.0, width=140.0, base=LevelRule(level="floor"), top=LevelRule(level="plate")
        )
        for k, x in ((1, 0.0), (2, 3000.0))
    ]  # fmt: skip
    ends = (BeamEnd(post="post-1"), BeamEnd(post="post-2"))
    beam = Beam(id="b", start=ends[0], end=ends[1], width=90, depth=200, top=LevelRule(level="plate"))
    made = apply_edits(put(project, *posts, beam), (AddRail(beam="b", id="rail-1"),))
    (held,) = made.rails
    assert (held.x1, held.x2, held.y1) == near((70.0, 2930.0, -2000.0)) and held.base.level == "floor"
    short = put(made, changed(held, x2=200.0))
    assert [d.code for d in resolve(short).diagnostics] == ["rail-too-short"]
    moved = apply_edits(made, (Transform(elements=("rail-1",), motion=Motion(dx=100.0, dy=50.0)),))
    assert (moved.rails[0].x1, moved.rails[0].y2) == near((170.0, -1950.0))


def test_the_plan_shows_steps_with_their_risers_and_strings_keep_clear() -> None:
    project = house()
    building = resolve(project)
    drawing = draw_view(building, project, "plan", 100.0)
    texts = [mark.text for mark in drawing.marks if isinstance(mark, Text)]
    (placed,) = building[STEPS]
    assert f"{placed.risers} down" in texts
    (area,) = [mark for mark in drawing.marks if isinstance(mark, Region) and mark.feature == "steps"]
    low = min(point[1] for point in area.rings[0])
    assert low == near(-building.plan.by_id["south"].outer - placed.run, abs=0.1)
    gone = apply_edits(project, (Remove(elements=("steps-1",)),))
    assert gone.outside_steps == () and resolve(gone)[STEPS] == ()


def test_what_would_have_no_end_is_named_and_not_built() -> None:
    deep = put(house(), GroundSpot(id="g", x=0.0, y=0.0, rise=-50_000.0))
    building = resolve(deep)
    assert building[STEPS] == () and "too-many-steps" in {d.code for d in building.diagnostics}
    long = put(rail(1000.0), changed(rail(1000.0).rails[0], x2=900_000.0))
    assert [d.code for d in resolve(long).diagnostics] == ["rail-too-long"] and resolve(long)[RAILS] == ()


def test_levels_that_are_not_there_are_refused() -> None:
    """In the document, so that nothing else has to ask."""
    with pytest.raises(RefusedEdit, match="top"):
        put(house(), changed(house().outside_steps[0], top=LevelRule(level="nowhere")))
    with pytest.raises(RefusedEdit, match="foot"):
        put(rail(1000.0), changed(rail(1000.0).rails[0], base=LevelRule(level="nowhere")))
    with pytest.raises(RefusedEdit):
        changed(house().outside_steps[0], most_rise=0.001)


def ramped(slope: float = 1 / 12, **facts: object) -> Project:
    project = house()
    return put(project, changed(project.outside_steps[0], form="ramp", slope=slope, **facts))


def test_a_ramp_runs_as_far_as_its_slope_asks() -> None:
    """By hand: a floor of 541 over grade at one in twelve runs 12 x 541 past its landing of 900; its body is the
    landing, the triangle below the slope, and 150 of it in the ground."""
    building = resolve(ramped())
    (placed,) = building[STEPS]
    high = 250.0 + 38.0 + 235.0 + 18.0
    assert placed.run == near(900.0 + 12 * high)
    (part,) = [held for held in building.parts if held.role == "ramp"]
    by_hand = placed.steps.width * (900.0 * high + 12 * high * high / 2 + placed.run * 150.0)
    assert part.solid.volume == near(by_hand, rel=1e-9)
    assert not building.diagnostics and not [held for held in building.parts if held.role == "steps"]


def test_a_ramp_on_falling_ground_ends_on_it() -> None:
    """Ground that falls by one in forty away from the house: the ramp meets it where both are as low."""
    spots = [GroundSpot(id=f"g{k}", x=0.0, y=y, rise=rise) for k, (y, rise) in enumerate(((0.0, 0.0), (-40e3, -1e3)))]
    (placed,) = resolve(put(ramped(), *spots))[STEPS]
    _, y = placed.at(placed.run, 0.0)
    assert placed.foot == near(y / 40.0, abs=0.5)
    assert placed.top.total - placed.foot == near((placed.run - 900.0) / 12.0, abs=0.5)


def test_a_ramp_that_is_too_steep_is_said() -> None:
    """One in twelve at most (IRC R311.8.1; Approved Document M; from memory)."""
    found = {held.code: held for held in resolve(ramped(1 / 8)).diagnostics}
    assert found["ramp-steep"].limit == near(1 / 12) and "1 in 8" in found["ramp-steep"].message
    assert "ramp-steep" not in {held.code for held in resolve(ramped(1 / 20)).diagnostics}


def test_a_ramp_has_rails_along_its_slope_and_words_in_plan() -> None:
    project = ramped(rails="both")
    building = resolve(project)
    bars = [held for held in building.parts if held.role == "rail_bars"]
    (placed,) = building[STEPS]
    assert len(bars) == 2
    for bar in bars:
        # 900 over the ramp at both ends: at the landing, and at the foot.
        assert bar.solid.reach.z1 == near(placed.top.total + 900.0, abs=1.0)
    drawing = draw_view(building, project, "plan", 50)
    assert "ramp 1:12" in [mark.text for mark in drawing.marks if isinstance(mark, Text)]


def test_steps_become_a_ramp_in_their_particulars() -> None:
    project = house()
    ramp = apply_edits(project, tuple(enter(project, "steps-1", "form", "ramp")))
    assert ramp.outside_steps[0].form == "ramp"
    for text in ("1:15", "15"):
        gentle = apply_edits(ramp, tuple(enter(ramp, "steps-1", "slope", text)))
        assert gentle.outside_steps[0].slope == near(1 / 15)
    with pytest.raises(BadInput, match="2 to 100"):
        enter(ramp, "steps-1", "slope", "flat")
