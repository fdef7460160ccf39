"""Decks: counts and lengths by hand, what bears their joists, guards, and decks turned and mirrored with the house."""

from __future__ import annotations

import math
from typing import Any

import pytest
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.document.motion import Motion
from deepsection.core.drawing import Text
from deepsection.core.edits import (
    CarryDeck,
    DrawDeck,
    RailDeck,
    Remove,
    Transform,
    TurnJoists,
    apply_edits,
    changed,
    put,
)
from deepsection.core.errors import BadInput, RefusedEdit
from deepsection.core.model import FreeJoint, GroundStep, Project
from deepsection.core.particulars import enter
from deepsection.core.resolve import Building, Part, resolve
from deepsection.core.trades.decks.place import DECKS
from deepsection.core.trades.loads.placed import LOADS
from deepsection.core.trades.posts.placed import BEAMS
from deepsection.core.view import draw_view, plan_level, plan_snaps
from deepsection.demo import otterfold_house
from tests.builders import box_house, joist_house, two_storeys
from tests.overlaps import overlapping

BOX = ((8000.0, 1000.0), (12000.0, 1000.0), (12000.0, 5000.0), (8000.0, 5000.0))


def decked(house: Project | None = None, *, carried: bool = True, corners: Any = BOX) -> Project:
    """A deck 4 m along the east of a house of 9 x 6 m, drawn from a metre within it to 3 m before it."""
    house = apply_edits(house or joist_house(9000.0, 6000.0), (DrawDeck(id="deck", level="floor", corners=corners),))
    return apply_edits(house, (CarryDeck(deck="deck"),)) if carried else house


def own(building: Building, role: str, element: str = "deck") -> list[Part]:
    return [part for part in building.parts if part.element == element and part.role == role]


def volume(parts: list[Part]) -> float:
    return sum(float(trimesh.Trimesh(*part.solid.mesh()).volume) for part in parts)


def codes(project: Project) -> dict[str, Any]:
    return {found.code: found for found in resolve(project).diagnostics}


def test_a_deck_by_hand() -> None:
    """From the sheathing, 12 outside of the frame at 9 m: 2988 x 4000, boards of 28. A ledger and three rims of 38;
    joists at 400: one flush at each side inside of the rims, nine between, 2988 - 76 long."""
    building = resolve(decked())
    held = building[DECKS][0]
    assert held.area.area == pytest.approx(2988.0 * 4000.0)
    assert volume(own(building, "finish")) == pytest.approx(2988.0 * 4000.0 * 28.0, rel=1e-6)
    assert volume(own(building, "ledger")) == pytest.approx(4000.0 * 38.0 * 184.0, rel=1e-6)
    assert volume(own(building, "rim_joist")) == pytest.approx((4000.0 + 2 * (2988.0 - 76.0)) * 38 * 184, rel=1e-6)
    joists = own(building, "joist")
    # Flush joists lie beside the rims: what is left of them there is less than a joist and falls away.
    assert len(joists) == 9
    assert {round(part.solid.reach.x1 - part.solid.reach.x0, 3) for part in joists} == {2988.0 - 76.0}
    floor = building.levels["floor"].z
    assert held.top.z == pytest.approx(floor - 40.0) and held.under.z == pytest.approx(floor - 40.0 - 28.0 - 184.0)
    assert not [found for found in building.diagnostics if found.element == "deck"]


def test_a_ledger_lies_on_the_sheathing_and_the_cladding_goes_round_it() -> None:
    plain, building = resolve(joist_house(9000.0, 6000.0)), resolve(decked())
    gone = {
        role: volume(own(plain, role, "east")) - volume(own(building, role, "east"))
        for role in ("cladding", "membrane", "sheathing")
    }
    # 20 of boards and 0.5 of membrane, as high as joists and boards of the deck.
    assert gone["cladding"] == pytest.approx(20.0 * 4000.0 * 212.0, rel=1e-3)
    assert gone["membrane"] == pytest.approx(0.5 * 4000.0 * 212.0, rel=1e-3)
    assert gone["sheathing"] == pytest.approx(0.0, abs=1.0)
    deck = [part for part in building.parts if part.element == "deck"]
    wall = [part for part in building.parts if part.element == "east"]
    assert overlapping(deck, wall, among=False) == []


def test_a_beam_on_posts_carries_the_outer_end() -> None:
    """A foot in from the edge, or 300: 4 m need posts at both ends and one between, at 2.4 m at most."""
    bare = codes(decked(carried=False))
    assert bare["deck-unborne"].element == "deck"
    project = decked()
    assert len(project.posts) == 3 and len(project.beams) == 2
    assert {round(post.x, 3) for post in project.posts} == {12000.0 - 300.0}
    assert sorted(round(post.y, 3) for post in project.posts) == [1070.0, 3000.0, 4930.0]
    building = resolve(project)
    loads = building[LOADS].carriers
    assert set(loads["deck"]) == {"east", *(beam.id for beam in project.beams)}
    for beam in building[BEAMS]:
        assert beam.top.total == pytest.approx(building[DECKS][0].under.z)
    # Over the beam the joists run through to the rim.
    assert len({part.key.split("/")[3] for part in own(building, "joist")}) == 9


@pytest.mark.parametrize("motion", [Motion(turn=23.0), Motion(mirror=0.0, y=3000.0), Motion(turn=180.0, dx=500.0)])
def test_decks_go_with_the_house(motion: Motion) -> None:
    house = apply_edits(decked(), (RailDeck(deck="deck"),))
    moving = tuple(element.id for element in house.elements() if element.about.movable)
    before, after = resolve(house), resolve(apply_edits(house, (Transform(elements=moving, motion=motion),)))
    for role in ("ledger", "rim_joist", "joist", "finish", "blocking"):
        assert len(own(after, role)) == len(own(before, role)), role
        assert volume(own(after, role)) == pytest.approx(volume(own(before, role)), rel=1e-5), role
    assert [found.code for found in after.diagnostics] == [found.code for found in before.diagnostics]


def test_joists_that_run_too_far_past_their_beam_are_said() -> None:
    """At most a quarter of their span (IRC R507.6, from memory): of 2950 from ledger to the rim, a beam 1 m in leaves
    some 1950 of span."""
    project = decked()
    beam_in = put(project, *(changed(post, x=post.x - 700.0) for post in project.posts))
    found = codes(beam_in)["cantilever-long"]
    assert found.value is not None and found.limit is not None
    # From the rim, 38 thick, to the face of the beam, 90 wide; the joists are 2988 - 76 long.
    assert found.value == pytest.approx(1000.0 - 38.0 - 45.0, abs=5.0)
    assert found.limit == pytest.approx((2912.0 - 917.0) / 4, abs=5.0)
    engineered = put(beam_in, changed(beam_in.decks[0], sized="by an engineer"))
    assert "cantilever-long" not in codes(engineered)


def test_a_high_deck_needs_rails_at_every_free_edge() -> None:
    """Higher than 600 over the ground (Approved Document K, from memory); in feet and inches than 30 in."""
    low = decked()
    high = put(low, GroundStep(id="fall", x1=9500.0, y1=9000.0, x2=9500.0, y2=-9000.0, rise=-900.0))
    assert "guard-missing" not in codes(low)
    found = codes(high)["guard-missing"]
    assert found.limit == 600.0 and found.value is not None and found.value > 900.0
    railed = apply_edits(high, (RailDeck(deck="deck"),))
    assert len(railed.rails) == 3 and "guard-missing" not in codes(railed)
    lengths = sorted(abs(rail.x1 - rail.x2) + abs(rail.y1 - rail.y2) for rail in railed.rails)
    assert lengths[-1] == pytest.approx(4000.0 - 76.0)
    with pytest.raises(RefusedEdit, match="rail"):
        apply_edits(railed, (RailDeck(deck="deck"),))
    open_side = apply_edits(railed, (Remove(elements=(railed.rails[0].id,)),))
    assert "guard-missing" in codes(open_side)


def test_what_cannot_be_a_deck_is_said() -> None:
    inner = ((2000.0, 2000.0), (4000.0, 2000.0), (4000.0, 4000.0), (2000.0, 4000.0))
    within = decked(box_house(9000.0, 6000.0), carried=False, corners=inner)
    assert codes(within)["deck-inside"].element == "deck"
    for action in (CarryDeck(deck="deck"), RailDeck(deck="deck")):
        with pytest.raises(RefusedEdit, match="within the house"):
            apply_edits(within, (action,))
    with pytest.raises(RefusedEdit, match="crossing"):
        decked(carried=False, corners=((0.0, 0.0), (1000.0, 1000.0), (1000.0, 0.0), (0.0, 1000.0)))
    with pytest.raises(RefusedEdit, match="too near to the ground"):
        decked(box_house(9000.0, 6000.0))  # a floor of 300 over grade, joists at 300 - 40 - 28 - 184
    unframed = decked(carried=False)
    assert "floor-unframed" in codes(put(unframed, changed(unframed.decks[0], make_up="slab")))


def test_a_deck_stands_by_a_house_on_a_slab_or_by_itself() -> None:
    slab = resolve(decked(box_house(9000.0, 6000.0), carried=False))
    assert len(own(slab, "ledger")) == 1 and {d.code for d in slab.diagnostics} == {"deck-unborne"}
    alone = ((20000.0, 0.0), (24000.0, 0.0), (24000.0, 3000.0), (20000.0, 3000.0))
    apart = resolve(decked(corners=alone))
    assert not own(apart, "ledger") and len(own(apart, "rim_joist")) == 4
    assert "deck-unborne" in {found.code for found in apart.diagnostics}  # one beam alone: it would tip


def test_the_particulars_of_a_deck() -> None:
    project = decked()
    lower = apply_edits(project, tuple(enter(project, "deck", "drop", "150")))
    assert resolve(lower)[DECKS][0].top.z == pytest.approx(resolve(project)[DECKS][0].top.z - 110.0)
    assert "beam-misses" in codes(apply_edits(project, tuple(enter(project, "deck", "drop", "60"))))
    turned = apply_edits(project, (TurnJoists(floor="deck"),))
    assert turned.decks[0].angle == pytest.approx(90.0)
    with pytest.raises(RefusedEdit, match="joists"):
        apply_edits(project, (TurnJoists(floor="east"),))
    with pytest.raises(BadInput):
        enter(project, "deck", "make_up", "nothing")


def test_the_plans_of_a_deck() -> None:
    project = otterfold_house()
    building = resolve(project)
    plan = draw_view(building, project, "plan:floor", 48)
    assert {mark.feature for mark in plan.marks if getattr(mark, "part", None) == "deck/deck//"} >= {"deck", "boards"}
    framing = draw_view(building, project, "plan:framing:deck", 48)
    words = " ".join(mark.text for mark in framing.marks if isinstance(mark, Text))
    assert "ledger" in words and "2x8" in words and "hangers" in words
    structure = draw_view(building, project, "plan:structure:deck", 48)
    assert "Top of Deck" in " ".join(mark.text for mark in structure.marks if isinstance(mark, Text))


@settings(max_examples=12, deadline=None)
@given(
    st.lists(st.tuples(st.floats(0.0, math.tau), st.floats(900.0, 4000.0)), min_size=3, max_size=7),
    st.floats(-2500.0, 11500.0),
    st.floats(-2500.0, 8500.0),
    st.sampled_from([0.0, 17.3, -131.2]),
)
def test_whatever_is_drawn_lies_in_nothing_else(
    spokes: list[tuple[float, float]], x: float, y: float, turn: float
) -> None:
    """Outlines of any shape, beside the house, across its walls and within it, turned: no solid lies in another."""
    corners = tuple((x + far * math.cos(at), y + far * math.sin(at)) for at, far in sorted(spokes))
    try:
        house = decked(carried=False, corners=corners)
    except RefusedEdit:
        return  # what crosses itself, or holds no area
    moving = tuple(element.id for element in house.elements() if element.about.movable)
    building = resolve(apply_edits(house, (Transform(elements=moving, motion=Motion(turn=turn)),)))
    deck = [part for part in building.parts if part.element == "deck"]
    others = [part for part in building.parts if part.element != "deck" and part.role != "infill"]
    assert overlapping(deck, others, most=2000.0) == []


def test_an_upper_storey_that_stands_out_lies_on_joists_that_run_over_the_wall_below() -> None:
    """Its south wall half a metre before the one below: joists run through over that. Along it nothing carries it."""
    house = two_storeys(9000.0, 6000.0)
    upper = next(floor for floor in house.floors if floor.level != "floor")
    corners = {"sw": (0.0, -500.0), "se": (9000.0, -500.0)}
    parts = tuple(FreeJoint(id=f"upper-{id}", x=x, y=y) for id, (x, y) in corners.items())
    own_corners = {id: f"upper-{id}" for id in corners}
    above = [wall for wall in house.walls if wall.base.level == upper.level]
    jetty = put(
        house,
        *parts,
        *(
            changed(wall, start=own_corners.get(wall.start, wall.start), end=own_corners.get(wall.end, wall.end))
            for wall in above
        ),
    )
    across = put(jetty, changed(upper, span="north-south", sized="by an engineer"))
    building = resolve(across)
    assert "floor-hangs-out" not in {found.code for found in building.diagnostics}
    # 500 past the outside of the frame below, less the rim: more than joists of 235 (IRC R502.3.3, from memory).
    out = codes(put(across, changed(upper, span="north-south", sized="by tables")))["floor-overhang"]
    assert (out.value, out.limit) == (pytest.approx(500.0 - 38.0, abs=5.0), pytest.approx(235.0))
    joists = [part for part in own(building, "joist", upper.id) if part.solid.reach.y0 < 0.0]
    assert len(joists) > 20 and all(part.solid.reach.y1 > 5000.0 for part in joists)
    along = put(jetty, changed(upper, span="east-west", sized="by an engineer"))
    assert "floor-hangs-out" in codes(along)


@pytest.mark.parametrize("level", ["grade", "plate", "footing"])
def test_a_deck_hangs_below_any_level(level: str) -> None:
    """Also below one on which no storey stands: its plans are drawn, and the bench snaps to nothing there."""
    project = put(decked(carried=False), changed(decked(carried=False).decks[0], level=level, drop=-300.0))
    building = resolve(project)
    for view in ("plan:framing:deck", "plan:structure:deck", "plan", "elevation:east"):
        assert draw_view(building, project, view, 50).marks
    assert plan_snaps(building, project, plan_level(project, "plan:framing:deck"), 90.0).axes
