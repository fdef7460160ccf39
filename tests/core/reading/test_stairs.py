"""Stairs in drawings: where they begin, which way they go up, how they turn; and what only looks like one."""

from __future__ import annotations

import dataclasses
import math
import random

import pytest

from deepsection.core.reading import FoundStair, ReadPlan, read_plan
from deepsection.formats.dxf_drawn import read_drawn
from tests.plans_drawn.manners import as_bytes, drawn
from tests.plans_drawn.stairs import TrueStair, draw_stair
from tests.plans_drawn.truth import houses

BESIDE = (30_000.0, 4_000.0)
"""Stairs stand beside the house: what is around them does not matter to how they are read."""


def read(*stairs: TrueStair) -> ReadPlan:
    document = drawn(houses()[0], "pairs")
    for stair in stairs:
        draw_stair(document.modelspace(), stair)
    return read_plan(read_drawn(as_bytes(document)))


def checked(plan: ReadPlan, found: FoundStair, truth: TrueStair) -> None:
    x, y = truth.foot[0] - plan.origin[0], truth.foot[1] - plan.origin[1]
    assert math.dist(found.foot, (x, y)) < 5.0
    assert abs(math.remainder(found.turn - truth.turn, 360.0)) < 0.1
    assert (found.width, found.going) == (pytest.approx(truth.width, abs=2), pytest.approx(truth.going, abs=2))
    assert tuple(flight.risers for flight in found.flights) == truth.risers
    assert found.flights[0].turn == truth.between
    if truth.between:
        assert found.flights[0].side == ("left" if truth.left else "right")


@pytest.mark.parametrize("between", ["", "landing", "half landing", "winders"])
def test_stairs_of_any_form_turned_and_mirrored(between: str) -> None:
    """The winders are drawn as three in a quarter: two lines from the inner corner."""
    dice = random.Random(between)
    for _ in range(12):
        truth = TrueStair(
            BESIDE,
            turn=dice.uniform(-180, 180),
            risers=(dice.randint(5, 14),) if not between else (dice.randint(4, 9), dice.randint(4, 9)),
            between=between,
            left=dice.random() < 0.5,
            width=dice.uniform(750, 1300),
            going=dice.uniform(210, 320),
            well=dice.uniform(0, 300),
        )
        plan = read(truth)
        assert len(plan.stairs) == 1, truth
        checked(plan, plan.stairs[0], truth)
        if between == "winders":
            assert plan.stairs[0].flights[0].winders == 3
        assert not any(left.layer == truth.layer for left in plan.left), "treads, strings and arrow are all of it"


@pytest.mark.parametrize(("word", "arrow", "down"), [("UP", "", False), ("DN", "down", True), ("auf", "", False)])
def test_words_say_which_way_it_goes(word: str, arrow: str, down: bool) -> None:
    """DN beside an arrow: it leads down, so its head is at the foot."""
    truth = TrueStair(BESIDE, turn=33.0, word=word, arrow=arrow)
    plan = read(truth)
    checked(plan, plan.stairs[0], truth)
    assert plan.stairs[0].down == down


def test_a_stair_without_arrow_is_found_but_less_sure() -> None:
    sure, unsure = (read(TrueStair(BESIDE, arrow=arrow)).stairs[0].confidence for arrow in ("up", ""))
    assert unsure < sure
    (found,) = read(TrueStair(BESIDE, arrow="")).stairs
    assert "which way it goes up is not drawn" in found.reason


def test_noise_of_a_few_millimetres_changes_nothing() -> None:
    truth = TrueStair(BESIDE, turn=12.0, risers=(8, 7), between="half landing")
    document = drawn(houses()[0], "pairs")
    before = set(document.modelspace())
    draw_stair(document.modelspace(), truth)
    dice = random.Random(5)
    for line in set(document.modelspace()) - before:
        if line.dxftype() == "LINE":
            for end in ("start", "end"):
                x, y, _ = line.dxf.get(end)
                line.dxf.set(end, (x + dice.uniform(-2, 2), y + dice.uniform(-2, 2)))
    (found,) = read_plan(read_drawn(as_bytes(document))).stairs
    assert tuple(flight.risers for flight in found.flights) == truth.risers and found.flights[0].turn == "half landing"


def test_tiles_boards_and_few_lines_are_no_stairs() -> None:
    document = drawn(houses()[0], "pairs")
    space = document.modelspace()
    for k in range(8):  # Tiles of 300: lines both ways.
        space.add_line((20_000 + 300 * k, 0), (20_000 + 300 * k, 2100))
        space.add_line((20_000, 300 * k), (22_100, 300 * k))
    for k in range(12):  # Decking of 140.
        space.add_line((25_000, 140 * k), (27_000, 140 * k))
    for k in range(3):  # Shelves.
        space.add_line((30_000, 300 * k), (31_000, 300 * k))
    assert read_plan(read_drawn(as_bytes(document))).stairs == []


def test_two_stairs_side_by_side_are_two() -> None:
    one = TrueStair(BESIDE)
    other = dataclasses.replace(one, foot=(BESIDE[0] + 8000, BESIDE[1] + 3000), turn=90.0, word="UP", arrow="")
    plan = read(one, other)
    assert len(plan.stairs) == 2
    for truth in (one, other):
        checked(plan, min(plan.stairs, key=lambda held: math.dist(held.foot, truth.foot)), truth)
