"""Backgrounds brought to their place by points: what was pointed at lies where it was said to lie."""

from __future__ import annotations

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.edits import (
    CropBackground,
    LayBackground,
    PutBackground,
    Remove,
    ScaleBackground,
    Spot,
    StraightenBackground,
    apply_edits,
    describe,
)
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import Background, Project
from deepsection.core.resolve import resolve
from deepsection.core.starters.projects import new_project
from deepsection.core.trades.backgrounds.model import PageSize
from deepsection.core.view import draw_view, lies_over_files

HOUSE = new_project("under", "Under", "mm")
DIGEST = "0" * 64


places = st.builds(
    lambda x, y, scale, turn: Background(
        id="b1",
        name="Old plan",
        view="plan",
        file=DIGEST,
        pages=(PageSize(width=420, height=297),),
        x=x,
        y=y,
        scale=scale,
        turn=turn,
    ),
    st.floats(-1e5, 1e5),
    st.floats(-1e5, 1e5),
    st.floats(0.5, 500),
    st.floats(-360, 360),
)
on_page = st.tuples(st.floats(0, 420), st.floats(0, 297))
in_view = st.tuples(st.floats(-5e4, 5e4), st.floats(-5e4, 5e4))


def laid(held: Background, *edits: object) -> Background:
    project = apply_edits(HOUSE, [PutBackground(background=held), *edits])
    return project.backgrounds[0]


def spots(held: Background, *points: tuple[float, float]) -> tuple[Spot, ...]:
    return tuple(Spot(x=x, y=y) for x, y in (held.on_view(*point) for point in points))


def near(a: tuple[float, float], b: tuple[float, float], within: float = 1e-4) -> bool:
    return math.dist(a, b) < within


@given(places, on_page)
def test_the_way_to_the_page_and_back(held: Background, point: tuple[float, float]) -> None:
    assert near(held.on_page(*held.on_view(*point)), point)


@given(places, on_page, on_page, st.floats(50, 50_000))
@settings(max_examples=60)
def test_two_points_are_as_far_apart_as_they_are_known_to_be(
    held: Background, a: tuple[float, float], b: tuple[float, float], length: float
) -> None:
    pair = spots(held, a, b)
    if math.dist((pair[0].x, pair[0].y), (pair[1].x, pair[1].y)) < 20:
        return
    after = laid(held, ScaleBackground(background="b1", points=pair, length=length))
    assert math.isclose(math.dist(after.on_view(*a), after.on_view(*b)), length, rel_tol=1e-9)
    assert near(after.on_view(*a), held.on_view(*a))
    assert math.isclose(math.remainder(after.turn - held.turn, 360), 0.0, abs_tol=1e-9)


@given(places, on_page, on_page, in_view, in_view, st.booleans())
@settings(max_examples=60)
def test_points_lie_where_they_belong(
    held: Background,
    a: tuple[float, float],
    b: tuple[float, float],
    goal: tuple[float, float],
    other: tuple[float, float],
    kept: bool,
) -> None:
    pair = spots(held, a, b)
    was, far = math.dist(held.on_view(*a), held.on_view(*b)), math.dist(goal, other)
    if was < 20 or far < 20 or not 1e-3 < far / was < 1e3:
        return
    onto = (Spot(x=goal[0], y=goal[1]), Spot(x=other[0], y=other[1]))
    moved = laid(held, LayBackground(background="b1", points=pair[:1], onto=onto[:1]))
    assert near(moved.on_view(*a), goal) and math.isclose(moved.scale, held.scale)
    both = laid(held, LayBackground(background="b1", points=pair, onto=onto, kept=kept))
    assert near(both.on_view(*a), goal, 1e-3)
    if kept:
        assert math.isclose(both.scale, held.scale)
        way = math.atan2(other[1] - goal[1], other[0] - goal[0])
        bx, by = both.on_view(*b)
        assert math.isclose(math.remainder(math.atan2(by - goal[1], bx - goal[0]) - way, math.tau), 0, abs_tol=1e-6)
    else:
        assert near(both.on_view(*b), other, 1e-3)


@given(places, on_page, st.floats(20, 200), st.floats(-180, 180))
@settings(max_examples=60)
def test_a_line_is_straightened_by_the_least_turn(
    held: Background, a: tuple[float, float], long: float, way: float
) -> None:
    b = a[0] + long * math.cos(math.radians(way)), a[1] + long * math.sin(math.radians(way))
    after = laid(held, StraightenBackground(background="b1", points=spots(held, a, b)))
    (ax, ay), (bx, by) = after.on_view(*a), after.on_view(*b)
    assert min(abs(bx - ax), abs(by - ay)) < 1e-4 * long * held.scale
    assert near((ax, ay), held.on_view(*a))
    assert abs(math.remainder(after.turn - held.turn, 360)) <= 45.0001


def test_cropped_is_what_lies_between_the_corners() -> None:
    held = Background(
        id="b1", name="Old plan", view="plan", file=DIGEST, pages=(PageSize(width=400, height=300),), scale=50, turn=90
    )
    # Turned by a right angle, 100 to 200 along the page lies north, 50 to 150 up the page lies west.
    after = laid(held, CropBackground(background="b1", corners=(Spot(x=-2500, y=5000), Spot(x=-7500, y=10_000))))
    assert after.box == pytest.approx((100, 50, 200, 150))
    beyond = laid(held, CropBackground(background="b1", corners=(Spot(x=9e5, y=-9e5), Spot(x=-9e5, y=9e5))))
    assert beyond.box == pytest.approx((0, 0, 400, 300))
    assert laid(after, CropBackground(background="b1")).crop is None


@pytest.mark.parametrize(
    "edit",
    [
        ScaleBackground(background="b1", points=(Spot(x=0, y=0), Spot(x=0.2, y=0)), length=1000),
        StraightenBackground(background="b1", points=(Spot(x=7, y=7), Spot(x=7, y=7))),
        LayBackground(background="b1", points=(Spot(x=0, y=0),), onto=(Spot(x=0, y=0), Spot(x=5, y=5))),
        CropBackground(background="b1", corners=(Spot(x=-5000, y=0), Spot(x=-9000, y=900))),
        CropBackground(background="none"),
    ],
)
def test_what_says_nothing_is_refused(edit: object) -> None:
    held = Background(id="b1", name="Old", view="plan", file=DIGEST, pages=(PageSize(width=400, height=300),))
    with pytest.raises(RefusedEdit):
        laid(held, edit)


@pytest.mark.parametrize("look", [90.0, 0.0, 180.0, 37.0])
def test_it_turns_with_its_plan(look: float) -> None:
    """A point of the page lies over the same point of the house, whichever way the plan is turned: u to the right of
    the direction that is looked along, w along it."""
    held = Background(
        id="b1",
        name="Old",
        view="plan",
        file=DIGEST,
        pages=(PageSize(width=400, height=300),),
        x=700,
        y=-300,
        scale=20,
        turn=12,
    )
    project = apply_edits(HOUSE, [PutBackground(background=held)])
    drawing = draw_view(resolve(project), project, "plan", 50, look_deg=look)
    x, y = held.on_view(123, 45)
    d = math.cos(math.radians(look)), math.sin(math.radians(look))
    assert near(drawing.backdrops[0].at(123, 45), (x * d[1] - y * d[0], x * d[0] + y * d[1]))


def test_what_is_printed_and_shown(house: Project) -> None:
    building = resolve(house)
    plain = draw_view(building, house, "elevation:south", 48)
    held = Background(
        id="b1",
        name="Photograph",
        view="elevation:south",
        file=DIGEST,
        pages=(PageSize(width=900, height=300),),
        x=-9000,
        y=-1000,
        scale=50,
    )

    def drawn(on_paper: bool, **changes: object) -> object:
        project = apply_edits(house, [PutBackground(background=held.model_copy(update=changes))])
        return draw_view(resolve(project), project, "elevation:south", 48, on_paper=on_paper)

    assert [len(drawn(False).backdrops), len(drawn(True).backdrops)] == [1, 0]  # type: ignore[attr-defined]
    assert len(drawn(False, shown=False).backdrops) == 0  # type: ignore[attr-defined]
    printed = drawn(True, printed=True)
    assert printed.marks == plain.marks  # type: ignore[attr-defined]
    x0, _, x1, y1 = printed.bounds  # type: ignore[attr-defined]
    assert x0 <= -9000 and y1 >= -1000 + 300 * 50 and x1 >= -9000 + 900 * 50


def test_a_view_that_is_gone_is_pointed_out(house: Project) -> None:
    held = Background(id="b1", name="Attic", view="plan:attic", file=DIGEST, pages=(PageSize(width=400, height=300),))
    project = apply_edits(house, [PutBackground(background=held)])
    assert [found.element for found in resolve(project).faults if found.code == "background-lost"] == ["b1"]
    mended = apply_edits(project, [PutBackground(background=held.model_copy(update={"view": "plan"}))])
    assert not [found for found in resolve(mended).faults if found.code == "background-lost"]
    assert "background-lost" not in {found.code for found in resolve(house).faults}


def test_views_that_files_may_lie_under(house: Project) -> None:
    may = {name for name in ("plan", "plan:roof", "elevation:east", "section:s1") if _may(house, name)}
    assert may == {"plan", "plan:roof", "elevation:east"}


def _may(project: Project, name: str) -> bool:
    known = name if not name.startswith("section") else f"section:{project.sections[0].id}"
    return lies_over_files(project, known)


def test_what_is_done_is_said() -> None:
    held = Background(id="b1", name="Old plan", view="plan", file=DIGEST, pages=(PageSize(width=4, height=3),))
    assert describe([PutBackground(background=held)], HOUSE) == "lay Old plan under a view"
    project = apply_edits(HOUSE, [PutBackground(background=held)])
    assert not apply_edits(project, [Remove(elements=("b1",))]).backgrounds
