"""A plan that is read again: what moved in the file is moved, what came is built, what went is told, own work stays."""

from __future__ import annotations

import dataclasses
import math

import numpy as np
import pytest

from deepsection.core.adopting import Adopted, Choices, adopted
from deepsection.core.edits import apply_edits, changed, put
from deepsection.core.model import Project, wall_axis
from deepsection.core.reading import ReadPlan, read_plan
from deepsection.core.resolve import resolve
from deepsection.core.starters.projects import new_project
from deepsection.core.trades.walls.planned import WALLS
from deepsection.formats.dxf_drawn import read_drawn
from tests.plans_drawn.manners import as_bytes, drawn
from tests.plans_drawn.truth import TrueHouse, TrueOpening, TrueWall, houses


def read(house: TrueHouse, manner: str = "pairs") -> ReadPlan:
    return read_plan(read_drawn(as_bytes(drawn(house, manner))))


def again(project: Project, house: TrueHouse, prefix: str = "again") -> tuple[Project, ReadPlan]:
    plan = read(house)
    return apply_edits(project, adopted(project, plan, Choices(), prefix=prefix).edits), plan


@pytest.mark.parametrize("house", houses(), ids=lambda house: house.name)
def test_what_stands_already_is_not_built_again(house: TrueHouse) -> None:
    """The same file once more: no wall, no opening, no room, and nothing that the file does not have."""
    built, plan = again(new_project("p", "Read", "mm"), house)
    twice = adopted(built, plan, Choices(), prefix="twice")
    assert set(twice.stands) == set(range(len(plan.walls))) and twice.gone == twice.moved == twice.edits == []


def test_a_file_that_changed_brings_what_came_and_tells_what_went() -> None:
    """A wall across the living room and a window more; the wall to the bath is gone. Heights that were set stay."""
    house = houses()[0]
    built, _ = again(new_project("p", "Read", "mm"), house, "first")
    raised = put(built, changed(built.openings[0], height=1777.0))
    walls = (*house.walls[:5], *house.walls[6:], TrueWall((2600, 4200), (2600, 7000), 120.0))
    moved = {k: k - (k > 5) for k in range(7) if k != 5}
    kept = tuple(dataclasses.replace(o, wall=moved[o.wall]) for o in house.openings if o.wall != 5)
    changed_house = dataclasses.replace(house, walls=walls, openings=(*kept, TrueOpening(0, 4300, 600, "window")))
    plan = read(changed_house)
    made = adopted(raised, plan, Choices(), prefix="again")
    assert len(made.stands) == 6 and [held.kind for held in made.gone] == ["wall", *["opening"] * 0]
    after = apply_edits(raised, made.edits)
    assert len(after.walls) == 8 and len(after.openings) == len(built.openings) + 1
    assert after.openings[0].height == 1777.0
    new = next(wall for wall in after.walls if wall.id.startswith("again"))
    joints = {joint.id: joint for joint in after.joints}
    assert joints[new.start].kind == joints[new.end].kind == "tee"
    assert sum(len(outline.spaces) for outline in resolve(after).plan.outlines) == 5


def follow(project: Project, house: TrueHouse, **choices: object) -> tuple[Project, Adopted]:
    made = adopted(project, read(house), Choices(**choices), prefix="later")  # type: ignore[arg-type]
    return apply_edits(project, made.edits), made


def faces(project: Project) -> list[tuple[float, ...]]:
    """The outlines of walls, rounded: where everything stands."""
    found = resolve(project).placed[WALLS].walls
    return sorted(tuple(round(value, 0) for value in wall.footprint.bounds) for wall in found)


def centres(project: Project) -> list[tuple[float, ...]]:
    """The middles of all openings in plan."""
    found = []
    for opening in project.openings:
        axis = wall_axis(project, project.walls_by_id[opening.wall])
        place = axis.at(opening.distance if opening.end == "start" else axis.length - opening.distance)
        found.append(tuple(round(value, 0) for value in place))
    return sorted(found)


def stretched(house: TrueHouse, edge: float, by: float) -> TrueHouse:
    """All past an east coordinate, so much farther east; openings keep their places but go with their walls."""

    def far(point: tuple[float, float]) -> tuple[float, float]:
        return (point[0] + by, point[1]) if point[0] > edge else point

    walls = tuple(dataclasses.replace(w, start=far(w.start), end=far(w.end)) for w in house.walls)
    openings = []
    for o in house.openings:
        old, new = house.walls[o.wall], walls[o.wall]
        place = old.at(o.distance)
        whole = min(old.start[0], old.end[0]) > edge
        along = math.dist(far(place) if whole else place, new.start)
        openings.append(dataclasses.replace(o, distance=along))
    return dataclasses.replace(house, walls=walls, openings=tuple(openings))


EAST = max(x for wall in houses()[0].walls for x, _ in (wall.start, wall.end)) - 1.0
"""Of the first house, all but its east side lies before this."""


@pytest.mark.parametrize("by", [900.0, -600.0, 40.0])
@pytest.mark.parametrize("turn", [0.0, 31.0])
def test_a_wall_that_moved_is_moved(by: float, turn: float) -> None:
    """The east side farther out, in the file: the wall that stands goes there, its neighbours stretch, openings stay
    where the file has them, and heights that were set stay. All is as if the changed file had been read at first."""
    house = houses()[0].turned(turn)
    changed_house = stretched(houses()[0], EAST, by).turned(turn)
    built, _ = again(new_project("p", "Read", "mm"), house, "first")
    raised = put(built, *(changed(o, height=1777.0) for o in built.openings))
    after, made = follow(raised, changed_house)
    assert sum(held.kind == "wall" for held in made.moved) == 1 and made.gone == []
    assert made.moved[0].by == pytest.approx(abs(by), abs=1.0)
    assert {w.id for w in after.walls} == {w.id for w in raised.walls}
    assert {o.id for o in after.openings} == {o.id for o in raised.openings}
    assert all(o.height == 1777.0 for o in after.openings)
    fresh, _ = again(new_project("q", "Fresh", "mm"), changed_house, "first")
    assert np.allclose(faces(after), faces(fresh), atol=2.5)
    assert np.allclose(centres(after), centres(fresh), atol=6.0)
    settled, twice = follow(after, changed_house)
    assert twice.moved == [] and settled == after


def test_what_is_to_stay_stays() -> None:
    house = houses()[0]
    changed_house = stretched(house, EAST, 900.0)
    built, _ = again(new_project("p", "Read", "mm"), house, "first")
    _, made = follow(built, changed_house)
    ids = frozenset(held.id for held in made.moved)
    after, kept = follow(built, changed_house, unmoved=ids)
    assert after.walls == built.walls and after.joints == built.joints and kept.counts["moved"] == 0


def test_openings_that_moved_or_widened_follow_and_what_is_chosen_goes() -> None:
    house = houses()[0]
    built, _ = again(new_project("p", "Read", "mm"), house, "first")
    first = house.openings[0]
    other = dataclasses.replace(first, distance=first.distance + 400.0, width=first.width + 300.0)
    changed_house = dataclasses.replace(house, openings=(other, *house.openings[2:]))
    after, made = follow(built, changed_house)
    [moved] = made.moved
    assert (
        moved.kind == "opening" and moved.by == pytest.approx(400, abs=6) and moved.wider == pytest.approx(300, abs=6)
    )
    assert len(after.openings) == len(built.openings)
    now = next(o for o in after.openings if o.id == moved.id)
    assert now.width == pytest.approx(first.width + 300.0, abs=5)
    [gone] = made.gone
    assert gone.kind == "opening"
    removed, _ = follow(built, changed_house, removed=frozenset({gone.id}))
    assert len(removed.openings) == len(built.openings) - 1 == len(house.openings) - 1
    without = dataclasses.replace(house, walls=(*house.walls[:5], *house.walls[6:]), openings=())
    _, made = follow(built, without)
    walls = [held.id for held in made.gone if held.kind == "wall"]
    assert len(walls) == 1
    bare, _ = follow(built, without, removed=frozenset(walls))
    assert len(bare.walls) == len(built.walls) - 1


@pytest.mark.parametrize("share", [1.0, 0.5])
@pytest.mark.parametrize("name", ["cottage", "ell", "cavity", "row"])
def test_several_walls_move_at_once(name: str, share: float) -> None:
    """All that lies in the east half, or the east side alone, 900 farther out: walls that meet there cross where their
    lines do, and all stands as if the changed file had been read at first."""
    house = next(held for held in houses() if held.name == name)
    east = max(x for wall in house.walls for x, _ in (wall.start, wall.end)) - 1.0
    changed_house = stretched(house, east * share, 900.0)
    built, _ = again(new_project("p", "Read", "mm"), house, "first")
    after, made = follow(built, changed_house)
    assert made.walls == {} and made.openings == {} and made.gone == []
    fresh, _ = again(new_project("q", "Fresh", "mm"), changed_house, "first")
    assert np.allclose(faces(after), faces(fresh), atol=2.5)
    assert np.allclose(centres(after), centres(fresh), atol=8.0)


def test_a_wall_that_is_longer_in_the_file_is_not_built_twice() -> None:
    """A partition that ends in the room reaches on in the changed file: it is told, and nothing lies on top of it."""
    house = houses()[0]
    short = dataclasses.replace(house, walls=(*house.walls, TrueWall((2600, 7000), (2600, 5500), 120.0)))
    long = dataclasses.replace(house, walls=(*house.walls, TrueWall((2600, 7000), (2600, 4900), 120.0)))
    built, _ = again(new_project("p", "Read", "mm"), short, "first")
    assert len(built.walls) == 8
    after, made = follow(built, long)
    assert made.walls == {} and made.gone == [] and len(after.walls) == 8
    assert [text for text in made.skipped if "longer in the file" in text]
