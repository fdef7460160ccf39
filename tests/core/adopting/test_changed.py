"""A plan that is read again: what moved in the file is moved, what came is built, what went is told, own work stays."""

from __future__ import annotations

import dataclasses
import math

import numpy as np
import pytest

from deepsection.core.adopting import Adopted, Choices, adopted
from deepsection.core.edits import MoveOpening, MoveWall, PutOpening, Remove, apply_edits, changed, put
from deepsection.core.model import FreeJoint, Project, TeeJoint, wall_axis
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


# --- what was done in the project since -----------------------------------------------------------


def beside(opening: TrueOpening, by: float) -> TrueOpening:
    return dataclasses.replace(opening, distance=opening.distance + by)


@pytest.mark.parametrize("turn", [0.0, 31.0])
def test_own_changes_stay_where_the_file_has_nothing_new(turn: float) -> None:
    """An opening moved by 400, one widened, one removed, one added, and an inner wall moved by 500: the file, which has
    one window elsewhere, moves that one alone."""
    house = houses()[0].turned(turn)
    built, plan = again(new_project("p", "Read", "mm"), house, "first")
    assert len(built.plans_read) == 1 and len(built.plans_read[0].walls) == len(plan.walls)
    moved, _, removed, news = (opening.id for opening in built.openings[:4])
    inner = next(w for w in built.walls if w.status == "inner" and not any(o.wall == w.id for o in built.openings))
    axis = wall_axis(built, inner)
    dx, dy = axis.direction(0.0)
    own = apply_edits(
        built,
        [
            MoveOpening(opening=moved, distance=built.openings[0].distance + 400.0),
            PutOpening(opening=changed(built.openings[1], width=built.openings[1].width - 150.0)),
            Remove(elements=(removed,)),
            MoveWall(wall=inner.id, dx=-dy * 500.0, dy=dx * 500.0),
        ],
    )
    same, made = follow(own, house)
    assert made.moved == made.gone == [] and made.openings == {} and made.walls == {}
    assert (same.walls, same.openings, same.joints) == (own.walls, own.openings, own.joints)
    assert sorted(held.kind for held in made.own) == ["opening"] * 3 + ["wall"]
    assert max(held.by for held in made.own if held.kind == "wall") == pytest.approx(500.0, abs=1.0)
    number = next(k for k, held in enumerate(house.openings) if _is(built, news, house, held))
    openings = tuple(beside(held, 250.0) if k == number else held for k, held in enumerate(house.openings))
    after, made = follow(own, dataclasses.replace(house, openings=openings))
    assert [held.id for held in made.moved] == [news]
    unlike = {o.id for o, was in zip(after.openings, own.openings) if o != was}
    assert unlike == {news} and after.walls == own.walls


def _is(project: Project, id: str, house: TrueHouse, held: TrueOpening) -> bool:
    """Whether one of the true openings is that which was built under an id."""
    opening = next(o for o in project.openings if o.id == id)
    axis = wall_axis(project, project.walls_by_id[opening.wall])
    place = axis.at(opening.distance if opening.end == "start" else axis.length - opening.distance)
    found = read(house)
    east, north = found.origin
    return math.dist(place, [a - b for a, b in zip(house.walls[held.wall].at(held.distance), (east, north))]) < 300.0


def test_own_changes_give_way_where_that_is_chosen() -> None:
    """Once not kept, all is as the file has it; once more declined, the file's news are no news the next time."""
    house = houses()[0]
    built, _ = again(new_project("p", "Read", "mm"), house, "first")
    own = apply_edits(
        built,
        [
            MoveOpening(opening=built.openings[0].id, distance=built.openings[0].distance + 400.0),
            Remove(elements=(built.openings[2].id,)),
        ],
    )
    _, kept = follow(own, house)
    numbers = frozenset(held.number for held in kept.own)
    back, made = follow(own, house, back_openings=numbers)
    assert len(numbers) == 2 and len(made.moved) == 1 and made.own == [] and len(made.openings) == 1
    assert np.allclose(centres(back), centres(built), atol=6.0)
    first = house.openings[0]
    changed_house = dataclasses.replace(house, openings=(beside(first, -300.0), *house.openings[1:]))
    _, made = follow(built, changed_house)
    declined, _ = follow(built, changed_house, unmoved=frozenset(held.id for held in made.moved))
    assert declined.openings == built.openings
    _, later = follow(declined, changed_house)
    assert later.moved == [] and len(later.own) == 1


def test_a_room_that_was_renamed_is_not_added_again() -> None:
    built, _ = again(new_project("p", "Read", "mm"), houses()[0], "first")
    renamed = put(built, changed(built.rooms[0], name="Snug"))
    after, _ = follow(renamed, houses()[0])
    assert after.rooms == renamed.rooms and len(after.rooms) > 1


def test_what_was_built_beside_the_plan_is_not_missed_by_it() -> None:
    """A partition and a window that were drawn by hand are no part of any file: nothing of them is told as gone."""
    house = houses()[0]
    built, _ = again(new_project("p", "Read", "mm"), house, "first")
    wall = next(w for w in built.walls if w.status == "outer")
    extra = changed(built.openings[0], id="own-window", wall=wall.id, number="X1", distance=600.0, width=400.0)
    line = wall_axis(built, wall)
    bx, by = line.at(line.length / 2, 1500.0 if wall.outside == "right" else -1500.0)
    own = put(
        built,
        FreeJoint(id="own-a", x=bx, y=by),
        TeeJoint(id="own-b", wall=wall.id, end="start", distance=line.length / 2),
        changed(wall, id="own-wall", start="own-a", end="own-b", status="inner", make_up=_inner(built)),
    )
    own = own if any(held.wall == wall.id and held.distance < 1200.0 for held in own.openings) else put(own, extra)
    after, made = follow(own, house)
    assert made.gone == [] and after.walls == own.walls and after.openings == own.openings


def _inner(project: Project) -> str:
    return next(wall.make_up for wall in project.walls if wall.status == "inner")
