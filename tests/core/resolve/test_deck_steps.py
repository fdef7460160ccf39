"""Steps from decks: risers, treads and strings by hand, what they open and close, on decks turned and mirrored."""

from __future__ import annotations

import math
from itertools import pairwise

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.document.motion import Motion
from deepsection.core.document.rebuilding import rebuild
from deepsection.core.edits import CarryDeck, DrawDeck, RailDeck, StepDeck, Transform, apply_edits, changed, put
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import GroundStep, Project
from deepsection.core.particulars import enter
from deepsection.core.resolve import Building, Part, resolve
from deepsection.core.trades.outdoors.placed import STEPS, PlacedSteps
from deepsection.core.trades.outdoors.strings import APART, BOARD, THROAT, string_places
from tests.builders import joist_house
from tests.overlaps import overlapping

BOX = ((8000.0, 1000.0), (12000.0, 1000.0), (12000.0, 5000.0), (8000.0, 5000.0))
near = pytest.approx


def deck(fall: float = 900.0, corner: str = "c2") -> Project:
    """A deck along the east of a house with beam and rails, the ground before it lower, and steps from an edge."""
    house = put(joist_house(9000.0, 6000.0), GroundStep(id="g", x1=9500.0, y1=9e3, x2=9500.0, y2=-9e3, rise=-fall))
    drawn = (DrawDeck(id="deck", level="floor", corners=BOX), CarryDeck(deck="deck"), RailDeck(deck="deck"))
    return apply_edits(house, (*drawn, StepDeck(deck="deck", corner=corner, id="steps-1")))


def own(building: Building, role: str) -> list[Part]:
    return [part for part in building.parts if part.element == "steps-1" and part.role == role]


def the(building: Building) -> PlacedSteps:
    (placed,) = building[STEPS]
    return placed


def test_steps_from_a_deck_by_hand() -> None:
    """From the middle of its outer edge, 4 m long, at 12 m; down from 40 under the floor to the ground 900 lower."""
    building = resolve(deck())
    placed = the(building)
    high = building.levels["floor"].z - 40.0 + 900.0
    assert (placed.steps.x, placed.steps.y, placed.steps.turn) == near((12000.0, 3000.0, 0.0))
    assert placed.top.total - placed.foot == near(high)
    assert placed.risers == math.ceil(high / 220.0) and placed.risers * placed.rise == near(high)
    treads = own(building, "tread")
    assert len(treads) == placed.risers - 1
    assert sum(part.solid.volume for part in treads) == near(1200.0 * 280.0 * BOARD * len(treads))
    tops = sorted((part.solid.reach[5] for part in treads), reverse=True)
    assert tops == near([placed.top.total - k * placed.rise for k in range(1, placed.risers)])
    # 1200 less a board, at most 406.4 apart: three spaces, four strings.
    assert len(own(building, "carriage")) == 4
    (pad,) = own(building, "pad")
    assert pad.solid.reach[5] == near(placed.foot) and pad.material == "concrete"


@pytest.mark.parametrize("fall", [300.0, 900.0, 2400.0])
def test_strings_keep_their_throat_and_stand_on_their_pad(fall: float) -> None:
    """Each inner corner of the notches lies a throat from the lower edge, worked out by the distance to its line."""
    building = resolve(deck(fall))
    placed = the(building)
    slope = placed.rise / placed.steps.going
    for string in own(building, "carriage"):
        assert string.solid.reach[2] == near(placed.foot)
    head = placed.top.total - placed.rise - BOARD
    (board,) = own(building, "header")
    # The board ends where the lower edge of the strings meets it: from there that edge falls with the steps.
    low, far = board.solid.reach[2], 1e4
    line = shapely.LineString([(BOARD - far, low + far * slope), (BOARD + far, low - far * slope)])
    assert line.distance(shapely.Point(0.0, head)) == near(THROAT, rel=1e-6)


@pytest.mark.parametrize("width", [900.0, 1200.0, 1201.0, 3000.0])
def test_strings_lie_under_both_sides_and_no_farther_apart_than_treads_bear(width: float) -> None:
    project = deck()
    wide = put(project, changed(project.outside_steps[0], width=width))
    places = string_places(the(resolve(wide)))
    assert places[0] == near(-(width - BOARD) / 2) and places[-1] == near((width - BOARD) / 2)
    gaps = [b - a for a, b in pairwise(places)]
    assert max(gaps) <= APART + 1e-6 and max(gaps) - min(gaps) < 1e-6
    assert (len(gaps) - 1) * APART < width - BOARD, "no more strings than are needed"


def test_rails_are_opened_for_steps_and_the_deck_stays_guarded() -> None:
    project = deck(1200.0)
    east = [rail for rail in project.rails if abs(rail.x1 - rail.x2) < 1.0]
    assert len(project.rails) == 4 and len(east) == 2
    covered = sorted((min(rail.y1, rail.y2), max(rail.y1, rail.y2)) for rail in east)
    assert covered[0][1] == near(2400.0) and covered[1][0] == near(3600.0), "1200 wide about 3000"
    codes = {found.code for found in resolve(project).diagnostics}
    assert "guard-missing" not in codes
    with pytest.raises(RefusedEdit, match="every free edge"):
        apply_edits(project, (RailDeck(deck="deck"),))


@pytest.mark.parametrize(("fall", "rails"), [(-150.0, "none"), (0.0, "none"), (300.0, "both"), (900.0, "both")])
def test_steps_of_three_risers_have_no_rails(fall: float, rails: str) -> None:
    """Handrails from four risers on (IRC R311.7.8, from memory)."""
    house = put(joist_house(9000.0, 6000.0), GroundStep(id="g", x1=9500.0, y1=9e3, x2=9500.0, y2=-9e3, rise=-fall))
    drawn = DrawDeck(id="deck", level="floor", corners=BOX)
    project = apply_edits(house, (drawn, StepDeck(deck="deck", corner="c2", id="steps-1")))
    assert (the(resolve(project)).risers >= 4) == (rails == "both")
    assert project.outside_steps[0].rails == rails


def test_where_steps_cannot_lead_down_it_is_said() -> None:
    project = deck()
    with pytest.raises(RefusedEdit, match="edge of a deck that is free"):
        apply_edits(project, (StepDeck(deck="deck", corner="c4", id="s2"),))
    narrow = [(9000.0, 1000.0), (12000.0, 1000.0), (12000.0, 1700.0), (9000.0, 1700.0)]
    drawn = apply_edits(joist_house(9000.0, 6000.0), (DrawDeck(id="deck", level="floor", corners=tuple(narrow)),))
    with pytest.raises(RefusedEdit, match=r"700 long: steps are 900 wide"):
        apply_edits(drawn, (StepDeck(deck="deck", corner="c2", id="s2"),))
    raised = put(deck(), changed(deck().steps[0], rise=5000.0))
    assert "steps-without-rise" in {found.code for found in resolve(raised).diagnostics}


def test_steps_of_treads_become_one_body_and_back_in_the_particulars() -> None:
    project = deck()
    solid = apply_edits(project, enter(project, "steps-1", "build", "solid"))
    building = resolve(solid)
    assert len(own(building, "steps")) == 1 and not own(building, "tread")
    assert apply_edits(solid, enter(solid, "steps-1", "build", "strings")).outside_steps == project.outside_steps


@settings(max_examples=25, deadline=None)
@given(
    st.floats(0.0, 360.0),
    st.booleans(),
    st.floats(150.0, 2600.0),
    st.sampled_from(["c1", "c2", "c3"]),
    st.sampled_from(["mm", "ft-in"]),
    st.floats(0.0, 1500.0),
)
def test_open_steps_lie_in_nothing_else(
    turn: float, mirror: bool, fall: float, corner: str, units: str, landing: float
) -> None:
    """Whatever way the house is turned: treads, strings and board beside deck, rails, posts and each other."""
    project = rebuild(deck(fall, corner), units=units)
    project = put(project, changed(project.outside_steps[0], landing=round(landing, 1) if landing > 50.0 else 0.0))
    motion = Motion(turn=round(turn, 2), mirror=12.0 if mirror else None)
    moving = tuple(element.id for element in project.elements() if element.about.movable)
    project = apply_edits(project, (Transform(elements=moving, motion=motion),))
    building = resolve(project)
    steps = [part for part in building.parts if part.element == "steps-1"]
    placed = the(building)
    assert len([part for part in steps if part.role == "tread"]) == placed.risers - (not placed.steps.landing)
    others = [part for part in building.parts if part.element != "steps-1" and not part.role.startswith("rail")]
    assert overlapping([p for p in steps if not p.role.startswith("rail")], others) == []
