"""Wall sections: layers in their order, breaks that leave out nothing that matters, figures that stay true, courses."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable
from functools import cache
from typing import Any

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon

from deepsection.core.drawing import Dimension, Drawing, Region, Stroke, Symbol, Text
from deepsection.core.edits import (
    PutWallSection,
    Remove,
    ReverseWall,
    SetAnnotation,
    SplitWall,
    apply_edits,
    changed,
    put,
)
from deepsection.core.model import Annotation, GroundSpot, Note, Project, StripBreak, ViewShow, WallSection, wall_length
from deepsection.core.resolve import Building, resolve
from deepsection.core.units import format_length, parse_length
from deepsection.core.view import anchor_in, draw_view
from deepsection.core.view.strips.breaks import GAP
from deepsection.core.view.strips.proposals import usual_places
from deepsection.demo import DEMOS, fernacre_bungalow, larkmoor_house, otterfold_house, tansy_lodge
from tests.builders import block_house, box_house, gable, joist_house, two_storeys, window
from tests.reading import faults
from tests.turning import turned


def strip(wall: str, distance: float, **more: Any) -> WallSection:
    return WallSection(id="strip", name="1", wall=wall, end="start", distance=distance, **more)


def drawn(project: Project, held: WallSection, scale: float, *, on_paper: bool = True) -> tuple[Building, Drawing]:
    project = put(project, held)
    building = resolve(project)
    return building, draw_view(building, project, f"section:{held.id}", scale, on_paper=on_paper)


@cache
def with_usual_places(demo: Callable[[], Project]) -> tuple[Project, Building]:
    project = demo()
    project = put(project, *(held.wall_section for held in usual_places(project, resolve(project))))
    return project, resolve(project)


def texts(drawing: Drawing, feature: str) -> list[Text]:
    return [mark for mark in drawing.marks if isinstance(mark, Text) and mark.feature == feature]


def rows_of(drawing: Drawing, make_up: str) -> list[str]:
    """The layers of a make-up as its stack has them, from the top."""
    rows = [mark for mark in texts(drawing, "note") if (mark.annotation or "").startswith(f"stack:{make_up}:")]
    return [mark.text for mark in sorted(rows, key=lambda mark: -mark.y)]


def fields_of(drawing: Drawing, feature: str) -> list[Dimension]:
    return [mark for mark in drawing.marks if isinstance(mark, Dimension) and mark.feature == feature]


@pytest.mark.parametrize("demo", DEMOS, ids=lambda demo: demo.__name__)
def test_the_usual_wall_sections_of_a_demo_read_well_on_paper(demo: Callable[[], Project]) -> None:
    project, building = with_usual_places(demo)
    assert project.wall_sections
    for held in project.wall_sections:
        for scale in (16.0, 24.0) if project.units == "ft-in" else (20.0, 25.0):
            drawing = draw_view(building, project, f"section:{held.id}", scale, on_paper=True)
            assert faults(drawing) == [] and drawing.left_out == () and drawing.messages == ()


@pytest.mark.parametrize("demo", DEMOS, ids=lambda demo: demo.__name__)
def test_a_stack_has_every_layer_of_its_make_up_in_order(demo: Callable[[], Project]) -> None:
    project, building = with_usual_places(demo)
    for held in project.wall_sections:
        drawing = draw_view(building, project, f"section:{held.id}", 20.0)
        wall = project.walls_by_id[held.wall]
        make_up = next(one for one in project.make_ups if one.id == wall.make_up)
        rows = rows_of(drawing, make_up.id)
        assert len(rows) == len(make_up.layers)
        for row, layer in zip(rows, make_up.layers):
            assert layer.name in row
            if layer.framing:
                assert format_length(layer.framing.spacing, project.units) in row
            elif layer.function != "membrane":
                assert row.startswith(format_length(layer.thickness, project.units, denominator=32))


@pytest.mark.parametrize("degrees", [0.0, 33.0])
def test_each_dot_lies_in_its_layer(degrees: float) -> None:
    project = turned(gable(box_house(9000.0, 6000.0, make_up="wall-brick"), 0.5, overhang=400.0), degrees)
    _, drawing = drawn(project, strip("south", 3000.0, look="start"), 10.0)
    make_up = next(one for one in project.make_ups if one.id == "wall-brick")
    dots = [
        mark
        for mark in drawing.marks
        if isinstance(mark, Region) and mark.feature == "leader" and mark.annotation == "stack:wall-brick"
    ]
    at = sorted(sum(x for x, _, _ in mark.rings[0]) / len(mark.rings[0]) for mark in dots)
    # Of its layers alone: flashings of build-ups, whose keys name their junction, drip before it.
    cut = [
        mark
        for mark in drawing.marks
        if isinstance(mark, Region) and (mark.part or "").startswith("south/") and "~" not in (mark.part or "")
    ]
    outer = min(x for mark in cut for ring in mark.rings for x, _, _ in ring)
    right = max(x for mark in cut for ring in mark.rings for x, _, _ in ring)
    # By hand: faces of the layers from the outside, at the left, in; nothing is cut in the gap.
    faces = list(itertools.accumulate([0.0, *(layer.thickness for layer in make_up.layers)]))
    assert right - outer == pytest.approx(faces[-1], abs=1.0)
    spans = list(itertools.pairwise(faces))
    met = [next(k for k, (a, b) in enumerate(spans) if a - 0.01 <= u - outer <= b + 0.01) for u in at]
    assert len(set(met)) == len(met) >= len(make_up.layers) - 1


def test_the_layers_of_a_wall_add_up_to_it() -> None:
    for demo, wall in ((fernacre_bungalow, "south"), (tansy_lodge, "west"), (larkmoor_house, "south")):
        project = demo()
        _, drawing = drawn(project, strip(wall, 3000.0), 10.0)
        make_up = next(one for one in project.make_ups if one.id == project.walls_by_id[wall].make_up)
        rows = {
            name: [
                parse_length(mark.text, project.units)
                for mark in drawing.marks
                if isinstance(mark, Dimension) and (mark.annotation or "").startswith(f"string:bottom:{name}:")
            ]
            for name in ("layers", "wall")
        }
        (whole,) = rows["wall"]
        assert sum(rows["layers"]) == pytest.approx(whole, abs=1e-6)
        step = 25.4 / 16 if project.units == "ft-in" else 1.0
        assert whole == pytest.approx(sum(layer.thickness for layer in make_up.layers), abs=step)


def element_of(mark: Region | Stroke) -> str:
    return (mark.part or "").partition("/")[0]


def courses_of(drawing: Drawing, wall: str) -> list[float]:
    """The heights of the joints drawn in a wall."""
    lines = (mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "course")
    return sorted({round(mark.path[0][1], 3) for mark in lines if element_of(mark) == wall})


def bands_of(drawing: Drawing) -> list[float]:
    """The heights of the break lines on paper, pair by pair."""
    return sorted(
        {
            round(mark.path[0][1], 3)
            for mark in drawing.marks
            if isinstance(mark, Stroke) and mark.feature == "break" and mark.part
        }
    )


def extent_of(drawing: Drawing) -> float:
    """How high what is built, and the earth, is drawn (mm of the house)."""
    ys = [
        y
        for mark in drawing.marks
        if isinstance(mark, Region) and mark.feature in ("cut", "earth")
        for ring in mark.rings
        for _, y, _ in ring
    ]
    return max(ys) - min(ys)


@settings(max_examples=25, deadline=None)
@given(
    stud=st.integers(2000, 4500),
    sill=st.integers(200, 1200),
    tall=st.integers(400, 1500),
    paper=st.integers(150, 320),
    scale=st.sampled_from([10.0, 20.0, 25.0]),
    two=st.booleans(),
)
def test_breaks_fit_the_paper_and_leave_out_nothing_that_matters(
    stud: int, sill: int, tall: int, paper: int, scale: float, two: bool
) -> None:
    tall = min(tall, stud - sill - 350)
    house = two_storeys(9000.0, 6000.0) if two else box_house(9000.0, 6000.0)
    project = put(house, window("w", "south", 3000.0, sill=float(sill), width=900.0, height=float(max(tall, 200))))
    plate = next(rung for rung in project.rungs if rung.id == "plate")
    terms = tuple(changed(term, value=float(stud)) if term.id == "stud" else term for term in plate.terms)
    project = put(project, changed(plate, terms=terms))
    building, drawing = drawn(project, strip("south", 3000.0, tall=float(paper)), scale)
    _, whole = drawn(project, strip("south", 3000.0), scale, on_paper=False)
    fits = not drawing.messages
    assert not fits or extent_of(drawing) <= paper * scale + 1.0
    # Levels are marked with what they are, in their order, and no two at one place that are not at one height.
    marks = sorted(
        (mark for mark in drawing.marks if isinstance(mark, Symbol) and mark.kind == "level"), key=lambda mark: mark.y
    )
    assert {mark.sum for mark in marks} == {
        mark.sum for mark in whole.marks if isinstance(mark, Symbol) and mark.kind == "level"
    }
    true = [building.totals[mark.sum or ""] for mark in marks]
    assert true == sorted(true)
    assert all(b.y - a.y > 0 for (a, x), (b, y) in itertools.pairwise(zip(marks, true)) if y - x > 0.1)
    # Whatever is dimensioned says its true length, over a break too; a break is marked on it.
    opening = building.openings["south"][0]
    heights = {f"{opening.opening.id}.sill": opening.sill.total, f"{opening.opening.id}.head": opening.head.total}
    heights |= building.totals
    for mark in fields_of(drawing, "height"):
        low, high = (heights.get(name) for name in mark.between or ("", ""))
        if low is not None and high is not None:
            assert parse_length(mark.text, "mm") == pytest.approx(high - low, abs=1.0)
            assert (mark.measures is None) == (abs(mark.y2 - mark.y1 - (high - low)) < 0.5)
    # Each break is as wide as it should be.
    lines = bands_of(drawing)
    assert all(b - a == pytest.approx(GAP * scale, abs=0.01) for a, b in zip(lines[::2], lines[1::2]))
    # Edges of what is cut are all there: as many level edges of each part as in the whole.
    assert edges_of(drawing) == edges_of(whole)


def levels_of(drawing: Drawing) -> list[Symbol]:
    """Its level marks, low ones first."""
    marks = (mark for mark in drawing.marks if isinstance(mark, Symbol) and mark.kind == "level")
    return sorted(marks, key=lambda mark: mark.y)


def edges_of(drawing: Drawing) -> dict[str, int]:
    """How many heights each cut part of the wall, its opening and its floors begins and ends at, breaks aside."""
    breaks = bands_of(drawing)
    found: dict[str, set[float]] = {}
    for mark in drawing.marks:
        if (
            isinstance(mark, Region)
            and mark.feature == "cut"
            and (mark.part or "").split("/")[0] in ("south", "w", "foundation")
            # Cladding gives way to flashings, which go on over a break as membranes do.
            and "~" not in (mark.part or "")
            and "/cladding/" not in (mark.part or "")
        ):
            for ring in mark.rings:
                for _, y, _ in ring:
                    if all(abs(y - at) > 0.05 for at in breaks):
                        found.setdefault(mark.part or "", set()).add(round(y, 1))
    return {part: len(held) for part, held in found.items()}


def test_a_wall_that_cannot_fit_says_what_paper_would_do() -> None:
    project = larkmoor_house()
    _, drawing = drawn(project, strip("south", 3353.0, tall=150.0), 16.0)
    (message,) = drawing.messages
    assert "does not fit on 150 mm of paper at 1:16" in message
    needed = float(message.rpartition("it needs ")[2].split(" ")[0])
    _, fitting = drawn(project, strip("south", 3353.0, tall=math.ceil(needed) + 1.0), 16.0)
    assert fitting.messages == () and extent_of(fitting) <= (needed + 2.0) * 16.0
    _, longer = drawn(project, strip("south", 3353.0, tall=None), 16.0)
    assert bands_of(longer) == [] and extent_of(longer) > extent_of(fitting)


def test_breaks_as_stated_stop_before_what_matters_and_say_so() -> None:
    project = put(box_house(9000.0, 6000.0), window("w", "south", 3000.0, sill=900.0, width=900.0, height=1200.0))
    floor = next(rung.id for rung in project.rungs if rung.id == "floor")
    plain = strip("south", 6000.0, breaks=(StripBreak(level=floor, above=600.0, tall=900.0),))
    building, drawing = drawn(project, plain, 10.0)
    assert drawing.messages == () and len(bands_of(drawing)) == 2
    assert not any(held.code == "break-over-level" for held in building.diagnostics)
    _, whole = drawn(project, changed(plain, breaks=()), 10.0)
    assert extent_of(whole) - extent_of(drawing) == pytest.approx(900.0 - GAP * 10.0, abs=0.1)
    over = changed(plain, distance=3000.0, breaks=(StripBreak(level=floor, above=600.0, tall=900.0),))
    _, drawing = drawn(project, over, 10.0)
    assert "would leave out the" in drawing.messages[0] and "it stops before it" in drawing.messages[0]
    plate = strip("south", 6000.0, breaks=(StripBreak(level=floor, above=2000.0, tall=900.0),))
    building, drawing = drawn(project, plate, 10.0)
    (held,) = [one for one in building.diagnostics if one.code == "break-over-level"]
    assert held.element == "strip" and "Plate" in held.message and drawing.messages


def test_three_modular_courses_are_eight_inches() -> None:
    """BIA Technical Note 10 (from memory): three courses of modular brick with their joints to 8 in."""
    _, drawing = drawn(tansy_lodge(), strip("west", 4000.0, tall=None), 10.0)
    heights = courses_of(drawing, "west")
    joints = heights[1::2] if heights[1] - heights[0] < 11.0 else heights[::2]
    steps = {round(d - a, 2) for a, d in zip(joints, joints[3:])}
    assert len(joints) > 20 and steps == {203.2}
    # A joint has two sides from 1:10 on, and is one line below that.
    _, smaller = drawn(tansy_lodge(), strip("west", 4000.0, tall=None), 20.0)
    fewer = courses_of(smaller, "west")
    assert len(heights) == 2 * len(fewer)


def test_a_course_that_is_cut_says_how_high_it_is() -> None:
    # Blocks of 225 with their joints from the floor: a sill at 600 leaves 150 of the third course.
    project = put(block_house(), window("w", "south", 3000.0, sill=600.0, width=900.0, height=1200.0))
    _, drawing = drawn(project, strip("south", 3000.0), 20.0)
    said = [mark.text for mark in texts(drawing, "note")].count("course cut to 150")
    project = put(project, window("w", "south", 3000.0, sill=675.0, width=900.0, height=1200.0))
    _, drawing = drawn(project, strip("south", 3000.0), 20.0)
    assert [mark.text for mark in texts(drawing, "note")].count("course cut to 150") == said - 1


def test_membranes_are_drawn_apart_and_each_in_one_line() -> None:
    project = gable(joist_house(9000.0, 6000.0), 0.5, overhang=400.0)
    _, drawing = drawn(project, strip("south", 3000.0, tall=None), 20.0)
    lines = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.pen == "membrane"]
    wall = [mark for mark in lines if (mark.part or "").startswith("south/") and "~" not in (mark.part or "")]
    wrap = next(mark for mark in wall if "/wrap/" in (mark.part or ""))
    cladding = [
        mark for mark in drawing.marks if isinstance(mark, Region) and (mark.part or "").startswith("south/cladding/")
    ]
    ys = [y for mark in cladding for ring in mark.rings for _, y, _ in ring]
    # At the eave it goes on as a piece of that, up to the air path.
    assert len(wall) == 2 and max(ys) - 250.0 < max(y for _, y, _ in wrap.path) < max(ys) + 30.0
    assert min(y for _, y, _ in wrap.path) == pytest.approx(min(ys), abs=30.0)


def test_it_looks_alike_turned_and_from_the_other_end() -> None:
    project = otterfold_house()
    held = strip("south", 5486.0, look="start")
    _, plain = drawn(project, held, 16.0)
    _, askew = drawn(turned(project, 17.3), held, 16.0)
    assert sorted(mark.text for mark in plain.marks if isinstance(mark, Text)) == sorted(
        mark.text for mark in askew.marks if isinstance(mark, Text)
    )
    other = changed(held, end="end", distance=wall_length(project, project.walls_by_id["south"]) - 5486.0)
    _, same = drawn(project, other, 16.0)
    assert [mark for mark in same.marks if not isinstance(mark, Text)] == [
        mark for mark in plain.marks if not isinstance(mark, Text)
    ]
    # Looked at the other way, it is mirrored: its outside lies at the right.
    _, mirrored = drawn(project, changed(held, look="end"), 16.0)

    def notes(drawing: Drawing) -> list[tuple[str, str]]:
        return sorted((mark.text, mark.align) for mark in texts(drawing, "note") if mark.align != "centre")

    assert {align for _, align in notes(plain)} == {"left"} and {align for _, align in notes(mirrored)} == {"right"}
    assert [text for text, _ in notes(plain)] == [text for text, _ in notes(mirrored)]


def test_the_wording_of_a_layer_is_stored_once_and_changed_for_one_drawing() -> None:
    project = box_house(9000.0, 6000.0)
    make_up = next(one for one in project.make_ups if one.id == "wall-lap")
    layers = (changed(make_up.layers[0], note="larch boards, oiled"), *make_up.layers[1:])
    project = put(
        project, changed(make_up, layers=layers), strip("south", 3000.0), changed(strip("east", 2000.0), id="second")
    )
    building = resolve(project)
    for id in ("strip", "second"):
        assert rows_of(draw_view(building, project, f"section:{id}", 20.0), "wall-lap")[0] == "larch boards, oiled"
    own = Annotation(key=f"stack:wall-lap:{layers[0].id}", text="boards by others")
    project = apply_edits(project, (SetAnnotation(view="section:strip", annotation=own),))
    assert rows_of(draw_view(building, project, "section:strip", 20.0), "wall-lap")[0] == "boards by others"
    assert rows_of(draw_view(building, project, "section:second", 20.0), "wall-lap")[0] == "larch boards, oiled"


def test_it_stays_at_its_place_when_its_wall_changes() -> None:
    project = put(box_house(9000.0, 6000.0), strip("south", 6000.0, look="end"))
    project = apply_edits(project, (ReverseWall(wall="south"),))
    (held,) = project.wall_sections
    assert (held.end, held.distance, held.look) == ("end", 6000.0, "start")
    project = apply_edits(project, (SplitWall(wall="south", distance=2000.0, joint="j", second="rest"),))
    (held,) = project.wall_sections
    # It was 3 m from what is the start now: on the second piece, 1 m from its start, 6 m from its end.
    assert (held.wall, held.end, held.distance) == ("rest", "end", 6000.0)
    gone = apply_edits(project, (Remove(elements=(held.wall,)),))
    assert gone.wall_sections == ()


def test_a_place_past_the_end_of_its_wall_is_said() -> None:
    project = put(box_house(9000.0, 6000.0), strip("south", 9500.0))
    building = resolve(project)
    (held,) = [one for one in building.diagnostics if one.code == "wall-section-off"]
    assert (held.element, held.field, held.limit) == ("strip", "from_start", 9000.0)
    drawing = draw_view(building, project, "section:strip", 20.0)
    assert drawing.marks == () and "past the end of its wall" in drawing.messages[0]
    assert (
        apply_edits(project, (PutWallSection(wall_section=strip("south", 100.0)),)).wall_sections[0].distance == 100.0
    )


def test_what_is_cut_has_the_area_of_the_wall_and_all_on_it() -> None:
    """By hand: a wall of one storey on its foundation, no opening: thickness times height per layer."""
    project = box_house(9000.0, 6000.0)
    building, drawing = drawn(project, strip("south", 3000.0, tall=None), 20.0)
    make_up = next(one for one in project.make_ups if one.id == "wall-lap")
    tall = building.levels["plate"].z - building.levels["floor"].z
    for layer in make_up.layers:
        if layer.function in ("sheathing", "lining"):
            cut = [
                mark
                for mark in drawing.marks
                if isinstance(mark, Region)
                and mark.feature == "cut"
                and f"/{layer.id}/" in (mark.part or "")
                and (mark.part or "").startswith("south/")
            ]
            area = sum(Polygon([(x, y) for x, y, _ in mark.rings[0]]).area for mark in cut)
            assert area == pytest.approx(layer.thickness * tall, rel=0.02)
    assert shapely.box(*drawing.bounds).area > 0


def test_usual_places_are_one_per_way_of_building() -> None:
    project = fernacre_bungalow().model_copy(update={"wall_sections": ()})
    found = usual_places(project, resolve(project))
    assert [held.shows for held in found] == [
        "cavity wall 350, rendered, one storey, eave, through W1",
        "cavity wall 350, rendered, one storey, gable, through W8",
    ]
    project = put(project, found[0].wall_section)
    assert [held.shows for held in usual_places(project, resolve(project))] == [found[1].shows]


def test_keyed_notes_are_numbers_with_a_list() -> None:
    project = put(box_house(9000.0, 6000.0), ViewShow(id="shown", view="section:strip", materials="keys"))
    _, drawing = drawn(project, strip("south", 3000.0), 20.0)
    assert faults(drawing) == [] and rows_of(drawing, "wall-lap") == []
    listed = [mark.text for mark in texts(drawing, "schedule")]
    make_up = next(one for one in project.make_ups if one.id == "wall-lap")
    at = listed.index(make_up.name)
    assert [layer.name in text for layer, text in zip(make_up.layers, listed[at + 1 :])] == [True] * len(make_up.layers)
    numbers = [mark.text for mark in texts(drawing, "note") if (mark.annotation or "").startswith("stack:")]
    assert numbers and set(numbers) <= set(listed)


def test_a_note_of_the_drafter_points_at_its_place_over_a_break() -> None:
    project = put(box_house(9000.0, 6000.0), strip("south", 6000.0, tall=None))
    building = resolve(project)
    # On the top plates, above all that may be left out.
    anchor = anchor_in(building, project, "section:strip", "south/plate/frame/top:1", *plate_of(building, project))
    note = Note(id="n", view="section:strip", text="strap here", anchor=anchor)
    project = put(project, note)
    building = resolve(project)

    def dot(drawing: Drawing) -> float:
        (mark,) = [one for one in drawing.marks if isinstance(one, Region) and one.feature == "anchor"]
        return sum(y for _, y, _ in mark.rings[0]) / len(mark.rings[0])

    def plate(drawing: Drawing) -> tuple[float, float]:
        part = "south/plate/frame/top:1"
        rings = [mark.rings[0] for mark in drawing.marks if isinstance(mark, Region) and mark.part == part]
        ys = [y for ring in rings for _, y, _ in ring]
        return min(ys), max(ys)

    broken = put(project, strip("south", 6000.0, tall=160.0))
    drawing = draw_view(building, broken, "section:strip", 20.0, on_paper=True)
    low, high = plate(drawing)
    whole = draw_view(building, project, "section:strip", 20.0, on_paper=True)
    assert low - 1.0 <= dot(drawing) <= high + 1.0 and dot(whole) - dot(drawing) > 500.0
    assert faults(drawing) == []


def plate_of(building: Building, project: Project) -> tuple[float, float]:
    """A place on the upper top plate in the wall section as a whole."""
    drawing = draw_view(building, project, "section:strip", 20.0)
    mark = next(m for m in drawing.marks if isinstance(m, Region) and m.part == "south/plate/frame/top:1")
    xs, ys = ([point[k] for point in mark.rings[0]] for k in (0, 1))
    return sum(xs) / len(xs), sum(ys) / len(ys)


def test_the_plan_shows_where_it_is_cut_and_on_which_sheet_that_is() -> None:
    project = fernacre_bungalow()
    plan = draw_view(resolve(project), project, "plan", 50.0)

    def words(drawing: Drawing, id: str) -> list[str]:
        texts = (mark for mark in drawing.marks if isinstance(mark, Text))
        return [mark.text for mark in texts if (mark.part or "").startswith(f"{id}/section/")]

    assert words(plan, "wall-section-2") == ["2", "2/A4"] and words(plan, "section-a") == ["A", "1/A2"] * 2
    # The line crosses the west wall, a cavity wall of 385, at 8200 from its start in the north.
    strokes = (mark for mark in plan.marks if isinstance(mark, Stroke) and mark.feature == "line")
    (line,) = [mark for mark in strokes if mark.part == "wall-section-2/section//"]
    (x0, y0, _), (x1, y1, _) = line.path
    assert y0 == pytest.approx(y1) and abs(x1 - x0) == pytest.approx(385.0 + (7.0 + 4.0) * 50.0)
    sheets = tuple(changed(sheet, number="S9") if sheet.number == "A4" else sheet for sheet in project.sheets)
    renumbered = put(project, *sheets)
    assert words(draw_view(resolve(renumbered), renumbered, "plan", 50.0), "wall-section-2") == ["2", "2/S9"]
    bare = put(fernacre_bungalow(), *(changed(sheet, placed=()) for sheet in project.sheets))
    assert words(draw_view(resolve(bare), bare, "plan", 50.0), "wall-section-2") == ["2"]


def test_no_break_leaves_out_the_ground_where_it_is_no_level() -> None:
    # Deep footings on ground that lies 700 below the grade: halfway down the plain wall of the foundation.
    project = box_house(9000.0, 6000.0)
    footing = next(rung for rung in project.rungs if rung.id == "footing")
    deep = changed(footing, terms=tuple(changed(term, value=2400.0) for term in footing.terms))
    spot = GroundSpot(id="spot", x=3000.0, y=-500.0, rise=-700.0)
    project = put(project, deep, spot)
    _, drawing = drawn(project, strip("south", 3000.0, tall=150.0), 20.0)
    _, whole = drawn(project, strip("south", 3000.0), 20.0, on_paper=False)

    def ground(of: Drawing) -> float:
        lines = (mark.path for mark in of.marks if isinstance(mark, Stroke) and mark.feature == "ground")
        return sum(abs(b[0] - a[0]) for line in lines for a, b in itertools.pairwise(line))

    assert bands_of(drawing) and ground(drawing) == pytest.approx(ground(whole), abs=1.0) and ground(whole) > 300.0


def test_dragging_one_stated_break_leaves_the_others_as_they_are_stated() -> None:
    project = box_house(9000.0, 6000.0)
    floor = next(rung.id for rung in project.rungs if rung.id == "floor")
    # The second one reaches past the plate, and is drawn shorter than it is stated.
    breaks = (StripBreak(level=floor, above=500.0, tall=500.0), StripBreak(level=floor, above=1500.0, tall=1500.0))
    _, drawing = drawn(project, strip("south", 6000.0, breaks=breaks), 20.0, on_paper=False)
    fields = [mark.handle.field for mark in drawing.marks if isinstance(mark, Region) and mark.handle]
    first = next(field for field in fields if field.startswith("0;"))
    second = next(field for field in fields if field.startswith("1;"))
    assert first.split(";")[2] == "floor,1500.000,1500.000"
    assert second.split(";")[1] == "floor,500.000,500.000" and float(second.split(",")[-1]) < 1500.0
