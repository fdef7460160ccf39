"""Where a plan comes to lie: over the house that it shows, wherever its file counts from, never over another one."""

from __future__ import annotations

import dataclasses
import math

import numpy as np
import pytest

from deepsection.core.adopting import Choices, adopted
from deepsection.core.document.motion import Motion
from deepsection.core.edits import Transform, apply_edits
from deepsection.core.errors import BadInput
from deepsection.core.model import Project, joint_point
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
        assert (made.laid.dx, made.laid.dy) == pytest.approx((-by[0], -by[1]), abs=1.0)


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


MOTIONS = (
    Motion(dx=4000.0, dy=-1500.0),
    Motion(turn=90.0, x=3000.0, y=2000.0),
    Motion(turn=-23.4, x=-500.0, y=800.0, dx=120.0),
    Motion(turn=180.0, x=4000.0, y=4000.0, dx=-70.0),
)


@pytest.mark.parametrize("motion", MOTIONS)
@pytest.mark.parametrize("name", ["cottage", "cavity", "row", "angled"])
def test_a_house_that_was_moved_or_turned_as_a_whole_is_followed(name: str, motion: Motion) -> None:
    """The same file brings no news; one with a side farther out moves just that, where the house stands now."""
    house = next((held for held in houses() if held.name == name), houses()[-1])
    built = built_of(house)
    elements = tuple(wall.id for wall in built.walls)
    stands = apply_edits(built, [Transform(elements=elements, motion=motion)])
    after, made = follow(stands, house)
    assert made.moved == made.gone == made.own == [] and made.walls == made.openings == {}
    assert after.walls == stands.walls and np.allclose(centres(after), centres(stands), atol=0.2)
    assert math.remainder(made.laid.turn - motion.turn, 360.0) == pytest.approx(0.0, abs=0.01)


@pytest.mark.parametrize("motion", MOTIONS)
def test_what_changed_is_brought_to_where_the_house_stands_now(motion: Motion) -> None:
    built = built_of(houses()[0])
    stands = apply_edits(built, [Transform(elements=tuple(wall.id for wall in built.walls), motion=motion)])
    after, made = follow(stands, stretched(houses()[0], EAST, 600.0))
    assert [held.kind for held in made.moved] == ["wall"] and made.moved[0].by == pytest.approx(600.0, abs=1.0)
    fresh = built_of(stretched(houses()[0], EAST, 600.0))
    there = apply_edits(fresh, [Transform(elements=tuple(wall.id for wall in fresh.walls), motion=motion)])
    assert np.allclose(faces(after), faces(there), atol=3.0)


@pytest.mark.parametrize("house", houses(), ids=lambda house: house.name)
def test_a_house_that_was_turned_round_on_its_place_is_followed(house: TrueHouse) -> None:
    """Walls of a plain rectangle lie where others lay: its openings tell how it stands."""
    built = built_of(house)
    low, high = (tuple(f(joint_point(built, j.id)[k] for j in built.joints) for k in (0, 1)) for f in (min, max))
    middle = Motion(turn=180.0, x=(low[0] + high[0]) / 2, y=(low[1] + high[1]) / 2)
    stands = apply_edits(built, [Transform(elements=tuple(wall.id for wall in built.walls), motion=middle)])
    _, made = follow(stands, house)
    assert made.moved == made.gone == made.own == [] and made.walls == made.openings == {}


def test_a_part_of_a_house_that_was_moved_is_own_work() -> None:
    """What a plan showed goes along with the whole house alone."""
    built = built_of(houses()[0])
    walls = [wall.id for wall in built.walls if wall.status == "inner"][:1]
    stands = apply_edits(built, [Transform(elements=tuple(walls), motion=Motion(dx=300.0, dy=300.0))])
    assert stands.plans_read == built.plans_read
    _, made = follow(stands, houses()[0])
    assert made.laid == Motion() and made.moved == []
