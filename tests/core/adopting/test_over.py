"""Where a plan comes to lie: over the house that it shows, wherever its file counts from, never over another one."""

from __future__ import annotations

import dataclasses

import numpy as np
import pytest

from deepsection.core.adopting import Choices, adopted
from deepsection.core.edits import apply_edits
from deepsection.core.errors import BadInput
from deepsection.core.model import Project
from deepsection.core.starters.projects import new_project
from tests.core.adopting.test_changed import EAST, again, centres, faces, follow, read, stretched
from tests.plans_drawn.truth import TrueHouse, houses


def elsewhere(house: TrueHouse, dx: float, dy: float) -> TrueHouse:
    """A house that is drawn so far to the east and north."""
    walls = [
        dataclasses.replace(w, start=(w.start[0] + dx, w.start[1] + dy), end=(w.end[0] + dx, w.end[1] + dy))
        for w in house.walls
    ]
    return dataclasses.replace(house, walls=tuple(walls))


def built_of(house: TrueHouse) -> Project:
    return again(new_project("p", "Read", "mm"), house, "first")[0]


@pytest.mark.parametrize("by", [(5000.0, -2000.0), (-350.0, 12_345.0), (4_000_000.0, 700_000.0)])
@pytest.mark.parametrize("turn", [0.0, 23.0])
@pytest.mark.parametrize("name", ["cottage", "cavity", "row"])
def test_a_file_that_counts_from_elsewhere_is_laid_over_the_house(
    name: str, turn: float, by: tuple[float, float]
) -> None:
    house = next(held for held in houses() if held.name == name).turned(turn)
    built = built_of(house)
    after, made = follow(built, elsewhere(house, *by))
    assert made.moved == made.gone == made.own == [] and made.walls == made.openings == {}
    assert after.walls == built.walls and np.allclose(centres(after), centres(built), atol=0.2)
    if max(map(abs, by)) < 1e5:  # Else the reader brings it near by itself, by whole metres.
        assert made.by == pytest.approx((-by[0], -by[1]), abs=1.0)


def test_what_changed_in_it_is_found_all_the_same() -> None:
    """Its east side is farther out too."""
    built = built_of(houses()[0])
    after, made = follow(built, elsewhere(stretched(houses()[0], EAST, 600.0), 9000.0, 3000.0))
    assert [held.kind for held in made.moved] == ["wall"] and made.moved[0].by == pytest.approx(600.0, abs=1.0)
    fresh = built_of(stretched(houses()[0], EAST, 600.0))
    assert np.allclose(faces(after), faces(fresh), atol=2.5)


@pytest.mark.parametrize("first", range(6))
@pytest.mark.parametrize("turn", [0.0, 40.0])
def test_another_house_is_not_built_over_one_that_stands(first: int, turn: float) -> None:
    """Each of six houses over each other one, at one corner: refused in words; beside it, it is built."""
    built = built_of(houses()[first])
    for k, house in enumerate(houses()):
        if k != first:
            with pytest.raises(BadInput, match="another house") as refused:
                adopted(built, read(house.turned(turn)), Choices(), prefix="other")
            assert refused.value.field == "file"
    beside = read(elsewhere(houses()[(first + 1) % 6], 60_000.0, 0.0))
    both = apply_edits(built, adopted(built, beside, Choices(), prefix="other").edits)
    assert len(both.walls) > len(built.walls)
