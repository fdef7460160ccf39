"""Heights and north that are written in a plan, and what somebody points at that was not found."""

from __future__ import annotations

import math

import pytest

from deepsection.core.reading import Marked, read_plan, with_openings
from deepsection.core.reading.written import height_in
from deepsection.formats.dxf_drawn import read_drawn
from tests.plans_drawn.manners import as_bytes, drawn
from tests.plans_drawn.truth import houses


@pytest.mark.parametrize(
    ("text", "found"),
    [
        ("+2.75", (2750.0, False)),
        ("±0.00", (0.0, False)),
        ("-0,15", (-150.0, False)),
        ("FFL +2750", (2750.0, False)),
        ("F.F.L. 102.350", (102350.0, False)),
        ("OKFF +5,60", (5600.0, False)),
        ("FIN FLR EL. 100'-0\"", (30480.0, False)),
        ("CH 2400", (2400.0, True)),
        ("CLG HT 9'-0\"", (2743.2, True)),
        ("2400", None),
        ("W12", None),
        ("CH 12", None),
        ("LEVEL", None),
        ("+ cupboard 600", None),
    ],
)
def test_what_texts_state(text: str, found: tuple[float, bool] | None) -> None:
    """A sign or a word makes a number a level; metres where it has a fraction. Common practice, no source."""
    told = height_in(text)
    assert told == (None if found is None else (pytest.approx(found[0]), found[1]))


@pytest.mark.parametrize("turn", [0.0, 11.0, -35.0, 90.0, 170.0])
def test_north_is_where_the_arrow_points(turn: float) -> None:
    """Clockwise from up, as a compass counts; a circle and a barb beside it say nothing else."""
    document = drawn(houses()[0], "pairs")
    space = document.modelspace()
    dx, dy = math.sin(math.radians(turn)), math.cos(math.radians(turn))
    x, y = -4000.0, 3000.0
    tip = (x + 900 * dx, y + 900 * dy)
    space.add_line((x - 900 * dx, y - 900 * dy), tip)
    space.add_line(tip, (tip[0] - 300 * dx + 120 * dy, tip[1] - 300 * dy - 120 * dx))
    space.add_circle((x, y), 600)
    letter = (x + 1200 * dx, y + 1200 * dy)
    space.add_text("N", height=350, dxfattribs={"insert": letter, "halign": 4, "align_point": letter})
    plan = read_plan(read_drawn(as_bytes(document)))
    assert plan.north is not None and plan.north.angle == pytest.approx(turn, abs=0.5)
    assert not any(left.what in ("arcs", "texts") and left.layer == "0" for left in plan.left)


def test_a_letter_alone_and_a_grid_line_n_are_no_north() -> None:
    document = drawn(houses()[0], "pairs")
    space = document.modelspace()
    space.add_text("N", height=300, dxfattribs={"insert": (-4000, 3000)})
    assert read_plan(read_drawn(as_bytes(document))).north is None
    space.add_circle((-3880, 3150), 400)
    space.add_line((-3480, 3150), (9000, 3150))
    plan = read_plan(read_drawn(as_bytes(document)))
    assert plan.north is None and [grid.label for grid in plan.grids] == ["N"]


def test_a_wall_is_there_where_somebody_points_at_it() -> None:
    """Two lines of a screen on the layer of furniture, which meets no wall."""
    document = drawn(houses()[0], "pairs")
    space = document.modelspace()
    for x in (1500.0, 1600.0):
        space.add_line((x, 1200.0), (x, 2600.0), dxfattribs={"layer": "A-FURN"})
    held = read_drawn(as_bytes(document))
    before = read_plan(held)
    spot = 1550.0 - before.origin[0], 2000.0 - before.origin[1]
    after = read_plan(held, pointed=[spot])
    assert len(after.walls) == len(before.walls) + 1
    new = next(wall for wall in after.walls if wall.reason == "said to be a wall")
    assert new.thickness == pytest.approx(100.0) and new.length == pytest.approx(1400.0, abs=2.0)
    assert new.confidence == 1.0 and len(after.openings) == len(before.openings)


def test_a_place_with_nothing_around_it_is_told() -> None:
    held = read_drawn(as_bytes(drawn(houses()[0], "pairs")))
    plan = read_plan(held, pointed=[(-9000.0, -9000.0)])
    assert len(plan.walls) == len(read_plan(held).walls)
    assert any("said to lie in a wall" in note for note in plan.notes)


def test_an_opening_is_marked_by_its_ends() -> None:
    """Ends within the wall or beside its faces; in none, or in one that has an opening there, it is told."""
    plan = read_plan(read_drawn(as_bytes(drawn(houses()[0], "pairs"))))
    number, wall = max(enumerate(plan.walls), key=lambda held: held[1].length)
    free = next(
        s
        for s in range(300, int(wall.length) - 900, 50)
        if all(o.wall != number or abs(o.distance - s - 300) > o.width / 2 + 320 for o in plan.openings)
    )
    (x0, y0), (x1, y1) = wall.start, wall.end
    ux, uy = (x1 - x0) / wall.length, (y1 - y0) / wall.length
    away = wall.thickness / 2 + 60

    def at(s: float) -> tuple[float, float]:
        return x0 + ux * s - uy * away, y0 + uy * s + ux * away

    more = with_openings(plan, [Marked(at(free), at(free + 600), "window")])
    made = more.openings[-1]
    assert (made.wall, made.kind) == (number, "window")
    assert (made.width, made.distance) == (pytest.approx(600.0), pytest.approx(free + 300.0))
    wrong = [Marked(at(free + 100), at(free + 500), "door"), Marked((-5e4, 0), (-5e4, 900), "door")]
    again = with_openings(more, wrong)
    assert again.openings == more.openings and len(again.notes) == len(plan.notes) + 2
