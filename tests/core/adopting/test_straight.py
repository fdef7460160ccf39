"""A plan that is drawn turned is laid straight when it is taken over, and followed there when it is read again."""

from __future__ import annotations

import math

import pytest

from deepsection.core.adopting import Choices, adopted, turns_of
from deepsection.core.edits import apply_edits
from deepsection.core.model import wall_axis
from deepsection.core.reading import FoundNorth
from deepsection.core.resolve import resolve
from deepsection.core.starters.projects import new_project
from tests.core.adopting.test_changed import read
from tests.core.adopting.test_storeys_drawn import taken
from tests.plans_drawn.truth import TrueHouse, houses
from tests.plans_drawn.two_storeys import two_storeys

SQUARE = [house for house in houses() if house.name != "skew"]


@pytest.mark.parametrize("turn", [17.0, -31.5, 44.0, 100.0])
@pytest.mark.parametrize("house", SQUARE, ids=lambda house: house.name)
def test_walls_are_laid_square_and_the_file_is_known_again(house: TrueHouse, turn: float) -> None:
    plan = read(house.turned(turn))
    (square,) = [held for held in turns_of(plan) if "square" in held.words]
    assert square.degrees == pytest.approx(-math.remainder(turn, 90.0), abs=0.02)
    empty = new_project("p", "Read", "mm")
    made = adopted(empty, plan, Choices(turn=square.degrees), prefix="read")
    built = apply_edits(empty, made.edits)
    long = [axis for wall in built.walls if not (axis := wall_axis(built, wall)).is_arc and axis.length > 3000.0]
    off = [math.remainder(math.degrees(math.atan2(a.end[1] - a.start[1], a.end[0] - a.start[0])), 90.0) for a in long]
    assert sum(abs(angle) < 0.02 for angle in off) > 0.7 * len(off)
    again = adopted(built, plan, Choices(), prefix="again")
    assert again.moved == again.gone == again.own == [] and again.walls == again.openings == {}
    assert again.laid.turn == pytest.approx(square.degrees, abs=0.01)


def test_storeys_rooms_and_stair_come_along() -> None:
    """Two plans in one file: both lie over each other, and the stair fits."""
    data = two_storeys(-31.0)
    _, plan, _ = taken(data)
    ((_, degrees),) = [(held.words, held.degrees) for held in turns_of(plan)]
    assert degrees == pytest.approx(31.0, abs=0.05)
    project, _, made = taken(data, turn=degrees)
    straight, _, _ = taken(two_storeys(0.0))
    assert made.skipped == []
    one, other = resolve(project), resolve(straight)
    assert sum(len(outline.spaces) for outline in one.plan.outlines) == 6
    # As if it had been drawn so: every room as large, the stair as it goes up there.
    sizes = [sorted(round(s.area / 1e4) for o in held.plan.outlines for s in o.spaces) for held in (one, other)]
    assert sizes[0] == pytest.approx(sizes[1], abs=2)
    (stair,), (as_drawn,) = project.stairs, straight.stairs
    assert math.remainder(stair.turn - as_drawn.turn, 360.0) == pytest.approx(0.0, abs=0.05)


@pytest.mark.parametrize(
    ("drawn", "north", "words"),
    [
        (0.0, None, []),
        (0.0, 0.0, []),
        (17.0, -17.0, ["north up, walls square"]),
        (0.0, 90.0, ["north up"]),
        (17.0, 40.0, ["walls square", "north up"]),
    ],
)
def test_only_what_differs_is_offered(drawn: float, north: float | None, words: list[str]) -> None:
    """`drawn`: how far the house is turned to the left on its sheet; `north`: how far north lies to the right of up."""
    plan = read(houses()[0].turned(drawn))
    plan.north = None if north is None else FoundNorth(north, (0.0, 0.0), "an arrow")
    assert [held.words for held in turns_of(plan)] == words
    for held in turns_of(plan):
        if "north" in held.words:
            # What lay so far to the right of up is up when it is turned to the left by as much.
            assert held.degrees == pytest.approx(north, abs=0.05)
