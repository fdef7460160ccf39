"""Where lettering goes: clear of each other and of heavy lines, led back from afar, the least left out first."""

from __future__ import annotations

import math
from itertools import pairwise

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import ImageFont

from deepsection.core.drawing import (
    FIRM,
    FIRST,
    LAST,
    LESSER,
    NAME,
    NUMBER,
    Dimension,
    Drawing,
    Label,
    Lettered,
    Mark,
    Region,
    Stroke,
    Text,
    around,
    path,
    place,
    text_width,
)
from tests.reading import faults, ink_of

SCALE = 50.0
FACES = ("sans", "bold", "mono")


def label(x: float, y: float, text: str = "Kitchen", **facts: object) -> Label:
    words = Text(x, y, text, 2.5, "centre", "middle", float(facts.pop("angle", 0.0)))  # type: ignore[arg-type]
    wide = text_width(text, 2.5, "sans") * SCALE
    held: dict[str, object] = {"places": around(wide, 5.0 * SCALE), "rank": NAME, **facts}
    return Label(f"name:{text}", (words,), **held)  # type: ignore[arg-type]


def drawn(*marks: Lettered, **ranks: int) -> Drawing:
    held = place(marks, SCALE, {f"name:{key}": rank for key, rank in ranks.items()})
    return Drawing("v", "V", "plan", SCALE, held.marks, left_out=held.left_out)


def texts(drawing: Drawing) -> dict[str, Text]:
    return {mark.text: mark for mark in drawing.marks if isinstance(mark, Text)}


@pytest.mark.parametrize("face", FACES)
@given(text=st.text(alphabet=[chr(code) for code in range(32, 127)], min_size=1, max_size=20))
def test_lines_are_as_wide_as_the_font_file_says(face: str, text: str) -> None:
    """Against Pillow, without kerning, which what is printed does without too."""
    font = ImageFont.truetype(f"deepsection/fonts/{face}.ttf", 1000, layout_engine=ImageFont.Layout.BASIC)
    wide = sum(font.getlength(letter) for letter in text) / 698.0
    assert text_width(text, 2.5, face) == pytest.approx(wide * 2.5, abs=0.02 * len(text))  # type: ignore[arg-type]


def test_alone_it_stays_at_its_place() -> None:
    drawing = drawn(label(1000.0, 500.0))
    assert (texts(drawing)["Kitchen"].x, texts(drawing)["Kitchen"].y) == (1000.0, 500.0)


def test_two_at_one_place_part() -> None:
    drawing = drawn(label(0.0, 0.0, "Hall"), label(0.0, 0.0, "Store"))
    assert len(texts(drawing)) == 2 and faults(drawing) == []


@pytest.mark.parametrize("angle", [0.0, 30.0, 90.0])
def test_it_gives_way_to_a_heavy_line_and_not_to_one_that_is_covered(angle: float) -> None:
    c, s = math.cos(math.radians(angle)) * 4000.0, math.sin(math.radians(angle)) * 4000.0
    wall = Stroke(path((-c, -s), (c, s)), "cut")
    moved = texts(drawn(wall, label(0.0, 0.0, angle=angle)))["Kitchen"]
    assert math.hypot(moved.x, moved.y) > 1.0
    assert not ink_of(moved, SCALE).intersects(shapely.LineString([(-c, -s), (c, s)]))
    cover = Region((path((-900.0, -900.0), (900.0, -900.0), (900.0, 900.0), (-900.0, 900.0)),), fill="paper")
    stays = texts(drawn(wall, cover, label(0.0, 0.0, angle=angle)))["Kitchen"]
    assert (stays.x, stays.y) == (0.0, 0.0)


def test_it_keeps_off_a_dashed_line_where_it_can() -> None:
    dashed = Stroke(path((-4000.0, 0.0), (4000.0, 0.0)), "hidden")
    assert texts(drawn(dashed, label(0.0, 0.0)))["Kitchen"].y != 0.0
    assert texts(drawn(dashed, label(0.0, 0.0, places=((0.0, 0.0),))))["Kitchen"].y == 0.0


def test_it_stays_within_its_area_or_is_left_out_and_named() -> None:
    wall = Stroke(path((0.0, -4000.0), (0.0, 4000.0)), "cut")
    room = shapely.box(-2500.0, -500.0, 2500.0, 500.0)
    inside = drawn(wall, label(0.0, 0.0, within=room))
    assert room.covers(ink_of(texts(inside)["Kitchen"], SCALE))
    small = drawn(wall, label(0.0, 0.0, within=shapely.box(-300.0, -300.0, 300.0, 300.0)))
    assert texts(small) == {} and small.left_out == (("name:Kitchen", "Kitchen"),)


def test_where_there_is_room_for_one_the_lesser_is_left_out() -> None:
    only = ((0.0, 0.0),)
    marks = (label(0.0, 0.0, "boards", rank=LESSER, places=only), label(0.0, 0.0, "W1", rank=NUMBER, places=only))
    for order in (marks, marks[::-1]):
        drawing = drawn(*order)
        assert list(texts(drawing)) == ["W1"] and [text for _, text in drawing.left_out] == ["boards"]


def test_the_drafter_says_what_stays_first_and_goes_last() -> None:
    only = ((0.0, 0.0),)
    marks = (label(0.0, 0.0, "boards", rank=LESSER, places=only), label(0.0, 0.0, "W1", rank=NUMBER, places=only))
    assert list(texts(drawn(*marks, boards=FIRST))) == ["boards"]
    assert list(texts(drawn(*marks[::-1], W1=LAST))) == ["boards"]


def test_one_sends_another_to_its_second_place() -> None:
    """A has two places, B one of them: both find room."""
    for order in (0, 1):
        a = label(0.0, 0.0, "A", places=((0.0, 0.0), (2000.0, 0.0)), rank=NUMBER)
        b = label(0.0, 0.0, "B", places=((0.0, 0.0),), rank=LESSER)
        drawing = drawn(*((a, b), (b, a))[order])
        assert texts(drawing)["A"].x == 2000.0 and texts(drawing)["B"].x == 0.0


def test_from_afar_it_is_led_back() -> None:
    middle = shapely.Point(0.0, 0.0)
    body = Region((path((-900.0, -300.0), (900.0, -300.0), (900.0, 300.0), (-900.0, 300.0)),), fill="ink")
    drawing = drawn(body, label(0.0, 0.0, about=middle, places=((0.0, 0.0),)))
    (leader,) = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "leader"]
    ends = [shapely.Point(x, y) for x, y, _ in leader.path]
    assert min(middle.distance(end) for end in ends) < 1.0
    assert min(ink_of(texts(drawing)["Kitchen"], SCALE).distance(end) for end in ends) < 1.0 * SCALE
    assert faults(drawing) == []


def test_what_the_drafter_put_there_stays() -> None:
    wall = Stroke(path((-4000.0, 0.0), (4000.0, 0.0)), "cut")
    drawing = drawn(wall, label(0.0, 0.0), label(0.0, 0.0, "Hall"), Kitchen=FIRM)
    assert texts(drawing)["Kitchen"].y == 0.0 and texts(drawing)["Hall"].y != 0.0


@pytest.mark.parametrize("angle", [0.0, 90.0, 180.0, 37.0])
def test_figures_wider_than_their_stretch_stand_beside_it_and_are_led_back(angle: float) -> None:
    """Five stretches of 150 mm at 1:50, 3 mm on paper, for figures of 8.6 mm: none is left out, none on another."""
    turn = math.radians(angle)
    ends = [(k * 150.0 * math.cos(turn), k * 150.0 * math.sin(turn)) for k in range(6)]
    string = [Dimension(*a, *b, 10.0, "1234") for a, b in pairwise(ends)]
    drawing = drawn(*string)
    assert drawing.left_out == () and faults(drawing) == []
    assert sum(isinstance(mark, Dimension) and mark.led for mark in drawing.marks) >= 2


def test_a_string_whose_figures_fit_is_left_alone() -> None:
    string = [Dimension(k * 1000.0, 0.0, (k + 1) * 1000.0, 0.0, -10.0, "1000") for k in range(5)]
    assert set(drawn(*string).marks) == set(string)


spots = st.tuples(st.floats(-3000, 3000), st.floats(-3000, 3000))


@settings(max_examples=60)
@given(
    st.lists(st.tuples(spots, st.sampled_from(["W1", "Kitchen", "3 down", "Asphalt shingles"])), max_size=14),
    st.lists(st.tuples(spots, spots, st.sampled_from(["cut", "edge", "hidden", "fine"])), max_size=8),
    st.lists(st.tuples(spots, spots), max_size=6),
    st.sampled_from([0.0, 17.3, 90.0]),
)
def test_nothing_lies_on_anything(
    words: list[tuple[tuple[float, float], str]],
    lines: list[tuple[tuple[float, float], tuple[float, float], str]],
    measures: list[tuple[tuple[float, float], tuple[float, float]]],
    angle: float,
) -> None:
    """Whatever stands where: no text on another or on a heavy line, the same page each time, all there or named."""
    labels = [label(*at, f"{text} {k}", angle=angle, about=shapely.Point(at)) for k, (at, text) in enumerate(words)]
    strokes: list[Mark] = [Stroke(path(a, b), pen) for a, b, pen in lines]
    held = [(a, b, math.dist(a, b)) for a, b in measures]
    dims: list[Mark] = [Dimension(*a, *b, 8.0, f"{far:.0f}") for a, b, far in held if far > 100.0]
    marks = (*strokes, *labels, *dims)
    drawing = drawn(*marks)
    assert faults(drawing) == []
    figures = [mark.text for mark in drawing.marks if isinstance(mark, Dimension) and mark.text]
    assert len(texts(drawing)) + len(figures) + len(drawing.left_out) == len(labels) + len(dims)
    assert drawn(*marks).marks == drawing.marks


def test_what_is_dragged_goes_where_it_is_dragged_and_what_was_there_gives_way() -> None:
    """What stands at its place in the drawing before would stay there: not under what the drafter puts on it."""
    hall, kitchen = label(0.0, 0.0, "Hall"), label(3000.0, 0.0)
    for order in ((hall, label(0.0, 0.0)), (label(0.0, 0.0), hall)):
        held = place(order, SCALE, {"name:Kitchen": FIRM}, {"name:Hall": (0.0, 0.0)})
        drawing = Drawing("v", "V", "plan", SCALE, held.marks)
        assert texts(drawing)["Kitchen"].x == 0.0 and faults(drawing) == []
    apart = place((hall, kitchen), SCALE, {}, {"name:Hall": (0.0, 0.0)})
    assert apart.shifts == () and apart.left_out == ()
