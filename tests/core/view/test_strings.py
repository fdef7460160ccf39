"""Strings of dimensions: they add up, measure what the trade measures, and no text lies on another."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Callable
from typing import Literal, TypeGuard

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import LineString, Point

from deepsection.core.drawing import Dimension, Drawing, Text, explode
from deepsection.core.edits import AddBay, SetProject, apply_edits, put
from deepsection.core.geometry import Frame
from deepsection.core.model import (
    Beam,
    BeamEnd,
    Dimensioning,
    GridLine,
    LevelRule,
    Project,
    StringShow,
    ViewShow,
    bearing_layer,
)
from deepsection.core.resolve import resolve
from deepsection.core.units import INCH, parse_length
from deepsection.core.view import draw_view
from deepsection.demo import DEMOS
from tests.builders import box_house, two_storeys, window
from tests.turning import turned


def plan(project: Project, scale: float = 48.0, look: float = 90.0) -> Drawing:
    return draw_view(resolve(project), project, "plan", scale, look_deg=look)


@pytest.mark.parametrize("make", DEMOS)
@pytest.mark.parametrize("look", [90.0, 180.0])
def test_every_string_adds_up_to_the_overall(make: Callable[[], Project], look: float) -> None:
    project = make()
    sides: dict[tuple[bool, bool], dict[str, float]] = defaultdict(lambda: defaultdict(float))
    for mark in plan(project, look=look).marks:
        if isinstance(mark, Dimension) and mark.feature != "inside":
            side = sides[mark.y1 == mark.y2, mark.offset > 0]
            side[str(mark.feature)] += parse_length(mark.text, project.units)
    assert len(sides) == 4
    for strings in sides.values():
        assert "openings" in strings
        assert all(total == pytest.approx(strings["overall"], abs=1e-6) for total in strings.values())


@pytest.mark.parametrize("make", DEMOS)
@pytest.mark.parametrize("scale", [48.0, 96.0, 192.0])
def test_no_text_of_a_dimension_lies_on_another(make: Callable[[], Project], scale: float) -> None:
    """Boxes as wide as the letters of the font, at any scale: lettering that would touch is raised."""
    texts = [m for m in explode(plan(make(), scale)).marks if isinstance(m, Text) and m.feature == "dimension"]
    boxes = []
    for mark in texts:
        half, high = len(mark.text) * 2.15 * scale / 2, mark.size * scale
        if abs(mark.angle) < 1:
            boxes.append((mark.x - half, mark.y, mark.x + half, mark.y + high))
        else:
            boxes.append((mark.x - high, mark.y - half, mark.x, mark.y + half))
    for k, a in enumerate(boxes):
        for b in boxes[k + 1 :]:
            assert min(a[2], b[2]) - max(a[0], b[0]) < 1 or min(a[3], b[3]) - max(a[1], b[1]) < 1


def test_windows_are_set_out_by_middles_in_timber_and_by_edges_in_masonry() -> None:
    house = put(box_house(8000, 6000), window("w1", "south", 2000, width=1200))
    timber = [d.text for d in plan(house).marks if isinstance(d, Dimension) and d.feature == "openings"]
    assert timber == ["2000", "6000"]
    masonry = put(house.model_copy(update={"tradition": "masonry"}))
    edges = [d.text for d in plan(masonry).marks if isinstance(d, Dimension) and d.feature == "openings"]
    assert edges == ["1400", "1200", "5400"]


def with_rules(project: Project, **rules: object) -> Project:
    return apply_edits(project, (SetProject(dimensioning=Dimensioning.model_validate(rules)),))


def figures(text: str) -> str:
    """What a figure comes to: `3 x 900 = 2700` is 2700."""
    return text.rpartition("= ")[2]


@settings(max_examples=40, deadline=None)
@given(
    st.lists(st.integers(400, 2400), min_size=2, max_size=5),
    st.sampled_from([1, 2, 4, 8, 16, 32]),
    st.sampled_from([1, 5, 10]),
    st.sampled_from(["apart", "together"]),
    st.sampled_from(["mm", "ft-in"]),
)
def test_strings_add_up_for_every_rounding(
    gaps: list[int], fraction: int, whole: int, equal: str, units: Literal["mm", "ft-in"]
) -> None:
    """Windows at any places: each string comes to the overall figure, to the drawn fraction; rules by the project."""
    house = box_house(sum(gaps) + 777.7, 6111.1, units)
    at = 0.0
    for k, gap in enumerate(gaps):
        at += gap
        house = put(house, window(f"w{k}", "south", at - gap / 2, width=gap / 3))
    house = with_rules(house, fraction=fraction, whole=whole, equal=equal, widths="shown")
    totals: dict[str, float] = defaultdict(float)
    for mark in plan(house, scale=5.0).marks:
        if isinstance(mark, Dimension) and mark.y1 == mark.y2 and mark.offset < 0:
            totals[str(mark.feature)] += parse_length(figures(mark.text), units)
    assert set(totals) == {"widths", "openings", "overall"}
    assert all(total == pytest.approx(totals["overall"], abs=1e-6) for total in totals.values())
    step = INCH / fraction if units == "ft-in" else whole
    assert totals["overall"] == pytest.approx(sum(gaps) + 777.7, abs=step / 2 + 1e-6)


def test_equal_lengths_are_one_where_the_project_says_so() -> None:
    """By hand: four windows, 2 m apart, in 10 m: 2000, three times 2000, 2000."""
    house = box_house(10_000, 6000)
    house = put(house, *(window(f"w{k}", "south", 2000.0 * k) for k in (1, 2, 3, 4)))
    (text,) = [d.text for d in plan(with_rules(house, equal="together")).marks if _of(d, "openings")]
    assert text == "5 x 2000 = 10000"
    assert [d.text for d in plan(house).marks if _of(d, "openings")] == ["2000"] * 5


def _of(mark: object, row: str) -> TypeGuard[Dimension]:
    return isinstance(mark, Dimension) and mark.feature == row


@pytest.mark.parametrize("make", DEMOS)
@pytest.mark.parametrize("rule", ["frame", "structure", "finish"])
@pytest.mark.parametrize("degrees", [0.0, 31.7])
def test_every_inner_wall_is_located_by_faces_of_the_model(
    make: Callable[[], Project], rule: str, degrees: float
) -> None:
    """Each straight one that is square to the house: a tick lies on the face that the rule says, measured from the wall
    plan and not from the string; one face of the frame, both of the others."""
    project = with_rules(turned(make(), degrees), walls=rule)
    building = resolve(project)
    drawing = draw_view(building, project, "plan", project.scale)
    frame = Frame.looking(90.0)
    level = building.plan.outlines[0].level
    ticks = [
        point for mark in drawing.marks if _of(mark, "inside") for point in ((mark.x1, mark.y1), (mark.x2, mark.y2))
    ]
    runs = [wall.run for wall in building.plan.on(level) if wall.wall.status == "outer" and not wall.axis.is_arc]
    square = [
        wall
        for wall in building.plan.on(level)
        if wall.wall.status == "inner" and not wall.axis.is_arc and wall.length > 1000.0
        and any(abs(wall.run[0] * x + wall.run[1] * y) < 1e-6 for x, y in runs)
    ]  # fmt: skip
    assert square or not [wall for wall in project.walls if wall.status == "inner"]
    for wall in square:
        bearing = wall.layers[bearing_layer(building.placed.make_ups[wall.wall.make_up])]
        faces = (bearing.outer, bearing.inner) if rule != "finish" else (wall.layers[0].outer, wall.layers[-1].inner)
        hit = {
            k
            for k, face in enumerate(faces)
            for point in ticks
            if LineString([frame.plan_to_turned(*wall.at(at, face)) for at in (0.0, wall.length)]).distance(
                Point(point)
            ) < 0.5
        }  # fmt: skip
        assert len(hit) >= (1 if rule == "frame" else 2), wall.wall.id


@pytest.mark.parametrize("make", DEMOS)
def test_strings_inside_add_up_to_the_house_across(make: Callable[[], Project]) -> None:
    project = make()
    lines: dict[tuple[float, ...], list[Dimension]] = defaultdict(list)
    for mark in plan(project).marks:
        if _of(mark, "inside"):
            upright = abs(mark.x1 - mark.x2) < 1e-6
            lines[(0.0, round(mark.x1, 3)) if upright else (1.0, round(mark.y1, 3))].append(mark)
    assert lines or not [wall for wall in project.walls if wall.status == "inner"]
    for held in lines.values():
        whole = sum(math.dist((mark.x1, mark.y1), (mark.x2, mark.y2)) for mark in held)
        assert sum(parse_length(mark.text, project.units) for mark in held) == pytest.approx(whole, abs=2.0)


def test_a_beam_is_located_by_its_middle_in_the_storey_under_it_alone() -> None:
    """A flush beam at 3.2 m of 9 by 7 m, and one over the upper storey at 4.5 m."""
    house = two_storeys(9000, 7000)
    upper = next(floor for floor in house.floors if floor.level != "floor")
    plates = (
        upper.bearing,
        next(rung.id for rung in house.rungs if rung.surface == "plate" and rung.id != upper.bearing),
    )
    beams = [
        Beam(
            id=f"beam-{k}",
            start=BeamEnd(x=100.0, y=y),
            end=BeamEnd(x=8900.0, y=y),
            width=90.0,
            depth=235.0,
            top=LevelRule(level=plate),
        )
        for k, (y, plate) in enumerate(zip((3200.0, 4500.0), plates))
    ]
    house = put(house, *beams)
    building = resolve(house)
    for view, own, y in (("plan", "beam-0", 3200.0), (f"plan:{upper.level}", "beam-1", 4500.0)):
        drawing = draw_view(building, house, view, 50.0)
        assert {mark.part for mark in drawing.marks if getattr(mark, "feature", "") == "beam"} == {f"{own}/beam//"}
        marks = [mark for mark in drawing.marks if _of(mark, "inside")]
        assert sorted(parse_length(mark.text, "mm") for mark in marks) == sorted((y, 7000.0 - y))
        assert {own} == {name for mark in marks for name in mark.between or () if name not in ("start", "end")}


def test_a_string_is_left_out_of_one_view() -> None:
    house = put(box_house(8000, 6000), window("w1", "south", 2000, width=1200))
    hidden = put(
        house, ViewShow(id="show-1", view="plan", strings=(StringShow(name="bottom:openings", shown="hidden"),))
    )
    before, after = (plan(project).marks for project in (house, hidden))
    assert [mark.text for mark in before if _of(mark, "openings")] == ["2000", "6000"]
    assert [mark for mark in after if _of(mark, "openings")] == []
    assert len([mark for mark in after if _of(mark, "overall")]) == 4


def test_lines_of_the_grid_are_measured_bay_by_bay() -> None:
    lines = [GridLine(id=f"g{k}", name=str(k), x=x, y=0.0, angle=90.0) for k, x in enumerate((0.0, 3600.0, 8000.0))]
    house = put(box_house(8000, 6000), *lines)
    assert [d.text for d in plan(house).marks if _of(d, "grid")] == ["3600", "4400"] * 2


def test_a_bay_breaks_its_side_and_no_other() -> None:
    ids = {"joints": ("b1", "b2", "b3", "b4"), "walls": ("x", "y", "z"), "rest": "s2"}
    bay = AddBay(wall="south", distance=3000, width=2400, out=600, **ids)
    marks = [d for d in plan(apply_edits(box_house(8000, 6000), (bay,))).marks if isinstance(d, Dimension)]
    breaks = [d.text for d in marks if d.feature == "breaks"]
    assert breaks[:3] == ["1800", "2400", "3800"]
    assert breaks[3:5] == ["600", "6000"] and breaks[5:] == ["600", "6000"], "how far it stands out, at both ends"
