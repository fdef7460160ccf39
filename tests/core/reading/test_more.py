"""More than walls: units with their reasons, rooms, dimensions, grid lines, storeys, layers, what is left over."""

from __future__ import annotations

import dataclasses
import math
import random
from typing import Any

import ezdxf
import pytest

from deepsection.core.errors import BadInput
from deepsection.core.reading import MEANINGS, Drawn, Stroke, meaning_of, read_plan
from deepsection.core.reading.units import lengths_of
from deepsection.formats.dxf_drawn import read_drawn
from tests.plan_files import plan_file, small_house
from tests.plans_drawn import dirt
from tests.plans_drawn.manners import LAYERS, Sheet, as_bytes, draw_texts, drawn, pairs
from tests.plans_drawn.truth import houses


@pytest.mark.parametrize(
    ("name", "meaning"),
    [
        ("A-WALL-EXT", "wall"),
        ("Wände tragend", "wall"),
        ("MURS_PORTEURS", "wall"),
        ("swings", "door"),
        ("A-DOOR", "door"),
        ("WINDSURFER", "unknown"),
        ("A-WALL-PATT", "hatch"),
        ("xref-12$0$A-GLAZ", "window"),
        ("Bemaßung", "dimension"),
        ("", "unknown"),
    ],
)
def test_names_are_judged_by_whole_words(name: str, meaning: str) -> None:
    """Words of languages and of ISO 13567-like layer names (from memory); letters within a word say nothing."""
    assert meaning_of(name) == meaning and meaning in MEANINGS


@pytest.mark.parametrize(
    ("text", "mm"),
    [("3'-6\"", 1066.8), ("12'", 3657.6), ('7 1/2"', 190.5), ("3.50 m", 3500.0), ("350 cm", 3500.0), ("1,200", 1200.0)],
)
def test_dimension_texts_say_lengths(text: str, mm: float) -> None:
    """A foot is 304.8 mm, an inch 25.4 (published: international yard and pound, 1959)."""
    assert any(found == pytest.approx(mm) for found, _ in lengths_of(text))
    assert lengths_of("KITCHEN") == [] and lengths_of("") == []


def test_the_unit_comes_with_its_reasons() -> None:
    plan = read_plan(read_drawn(as_bytes(drawn(houses()[0], "pairs"))))
    assert plan.unit.name == "mm" and plan.unit.confidence > 0.9
    for word in ("header", "dimensions agree", "door swings"):
        assert word in plan.unit.reason


def test_a_stated_unit_wins() -> None:
    document = drawn(houses()[0], "pairs")
    assert read_plan(read_drawn(as_bytes(document)), unit="cm").unit.factor == 10.0
    with pytest.raises(BadInput, match="is no unit"):
        read_plan(read_drawn(as_bytes(document)), unit="furlong")


def test_dimensions_check_what_is_drawn() -> None:
    """One that was typed over is off by what was typed: 9,000 drawn, 9,120 said."""
    document = drawn(houses()[0], "pairs")
    next(iter(document.modelspace().query("DIMENSION"))).dxf.text = "9120"
    plan = read_plan(read_drawn(as_bytes(document)))
    off = [held for held in plan.dimensions if abs(held.difference) > 1.0]
    assert len(plan.dimensions) == 2 and [(held.text, held.difference) for held in off] == [("9120", 120.0)]


def test_rooms_have_the_names_that_stand_in_them() -> None:
    document = drawn(houses()[0], "pairs")
    document.modelspace().add_text("12.4 m²", height=120, dxfattribs={"insert": (2200, 1600)})
    plan = read_plan(read_drawn(as_bytes(document)))
    assert {room.name for room in plan.rooms} == {"Kitchen", "Living", "Bath", "Bedroom"}
    assert next(room.area for room in plan.rooms if room.name == "Kitchen") == 12.4


def test_grid_lines_end_in_bubbles() -> None:
    document = drawn(houses()[0], "pairs")
    for label, x in (("A", 0.0), ("B", 5000.0)):
        document.modelspace().add_line((x, -2500), (x, 9000), dxfattribs={"layer": "GRID"})
        document.modelspace().add_circle((x, -2800), 300, dxfattribs={"layer": "GRID"})
        document.modelspace().add_text(label, height=250, dxfattribs={"insert": (x - 75, -2925), "layer": "GRID"})
    plan = read_plan(read_drawn(as_bytes(document)))
    assert [(held.label, round(held.start[0])) for held in plan.grids] == [("A", 0), ("B", 5000)]


def test_two_storeys_lie_over_each_other() -> None:
    """Drawn side by side, the upper one first: named by their titles, laid over each other by what they share."""
    house = houses()[0]
    upper = dataclasses.replace(house, walls=house.walls[:5], openings=tuple(o for o in house.openings if o.wall < 5))
    document = ezdxf.new("R2010", setup=True)
    document.header["$INSUNITS"] = 4
    for held, x, title in ((upper, 0.0, "FIRST FLOOR PLAN"), (house, 16000.0, "GROUND FLOOR PLAN")):
        sheet = Sheet(held.turned(0, (x, 300.0)), document, LAYERS)
        pairs(sheet)
        draw_texts(sheet)
        document.modelspace().add_text(title, height=350, dxfattribs={"insert": (x + 2000, -1500)})
    plan = read_plan(read_drawn(as_bytes(document)))
    assert [held.title for held in plan.storeys] == ["GROUND FLOOR PLAN", "FIRST FLOOR PLAN"]
    assert [len(held.walls) for held in plan.storeys] == [7, 5]
    assert plan.storeys[1].shift == pytest.approx((16000.0, 0.0), abs=1.0)


def test_what_is_left_over_is_listed_and_shown() -> None:
    plan = read_plan(read_drawn(as_bytes(drawn(houses()[0], "everything"))))
    left = {held.what: held.count for held in plan.left}
    assert left["lines"] >= 10, "a table, chairs, a bed, treads"
    assert sum(line[4] for line in plan.lines) >= left["lines"]
    clean = read_plan(read_drawn(as_bytes(drawn(houses()[0], "pairs"))))
    assert all(held.layer not in ("A-WALL", "A-GLAZ") for held in clean.left)


def test_what_is_left_over_within_a_block_is_listed_too() -> None:
    """A whole plan in one block: its table and chairs are no less left over than outside of it."""
    document = dirt.nested(drawn(houses()[0], "everything"), random.Random(2))
    plan = read_plan(read_drawn(as_bytes(document)))
    left = {held.what: held.count for held in plan.left}
    assert len(plan.walls) == 7 and left["lines in blocks"] >= 10
    assert sum(line[4] for line in plan.lines) >= left["lines in blocks"]


def test_a_misnamed_layer_is_read_by_what_it_shows() -> None:
    """Walls on a layer that calls itself furniture: names are a hint only."""
    document = drawn(houses()[0], "pairs")
    for entity in document.modelspace():
        if entity.dxf.layer == "A-WALL":
            entity.dxf.layer = "FURNITURE"
    plan = read_plan(read_drawn(as_bytes(document)))
    assert len(plan.walls) == 7 and len(plan.openings) == 11


def test_a_layer_is_taken_for_what_somebody_says() -> None:
    data = read_drawn(as_bytes(drawn(houses()[0], "pairs")))
    plan = read_plan(data, meanings={"A-DOOR": "nothing", "A-DOOR-SWINGS": "nothing"})
    assert plan.layers["A-DOOR"] == "nothing"
    assert "door" not in {held.kind for held in plan.openings}
    with pytest.raises(BadInput, match="no plan was found"):
        read_plan(data, meanings=dict.fromkeys(data.layers, "nothing"))  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("house", "off", "thick"),
    [(0, 1.5, [120] * 3 + [300] * 4), (3, 4.0, [125] * 3 + [315] * 6), (3, 25.0, None)],
)
def test_a_plan_drawn_by_eye_is_read_or_says_that_it_was_not(house: int, off: float, thick: list[int] | None) -> None:
    """The ends of all lines off by up to so much (mm), each by itself: where faces cannot be paired, that is said."""
    dice, document = random.Random(4), drawn(houses()[house], "pairs")
    for line in document.modelspace().query("LINE"):
        for end in ("start", "end"):
            x, y, _ = line.dxf.get(end)
            line.dxf.set(end, (x + dice.uniform(-off, off), y + dice.uniform(-off, off), 0.0))
    data = read_drawn(as_bytes(document))
    if thick is None:
        with pytest.raises(BadInput, match=r"lie off by some \d+ mm: too far"):
            read_plan(data)
        return
    assert sorted(round(wall.thickness) for wall in read_plan(data).walls) == thick


def test_walls_of_one_line_have_no_thickness() -> None:
    plan = read_plan(read_drawn(plan_file(small_house)))
    assert sorted(round(wall.length) for wall in plan.walls) == [4000, 7000, 7000, 7000, 10000, 10000]
    assert {wall.thickness for wall in plan.walls} == {0.0} and {wall.confidence for wall in plan.walls} == {0.4}
    assert any("single lines" in note for note in plan.notes)
    assert sorted((held.kind, round(held.width)) for held in plan.openings) == [
        ("door", 900),
        ("door", 900),
        ("window", 1800),
    ]


def _elevation(space: Any) -> None:
    space.add_line((0, 0), (12000, 0))
    for k in range(20):
        space.add_line((0, 150 * k), (9000, 150 * k))
    space.add_lwpolyline([(0, 0), (9000, 0), (9000, 3000), (4500, 5500), (0, 3000)], close=True)


def _title_block(space: Any) -> None:
    """A frame with the title of a plan in it, which may be a hut drawn by single lines; nobody has a door to it."""
    space.add_lwpolyline([(0, 0), (420, 0), (420, 297), (0, 297)], close=True)
    space.add_lwpolyline([(300, 10), (410, 10), (410, 60), (300, 60)], close=True)
    space.add_text("GROUND FLOOR PLAN", height=5).set_placement((310, 20))


@pytest.mark.parametrize(
    "draw",
    [
        _elevation,
        lambda space: space.add_text("Nothing but words"),
        lambda space: space.add_line((0, 0), (5000, 0)),
        lambda space: [space.add_circle((k * 900, 0), 300) for k in range(40)],
        _title_block,
    ],
)
def test_what_is_no_plan_is_refused_in_words(draw: Any) -> None:
    with pytest.raises(BadInput, match="no plan was found in this file: "):
        read_plan(read_drawn(plan_file(draw)))


def test_two_plans_over_each_other_are_pointed_out() -> None:
    """Two houses drawn over each other, askew, are said to be so; each of them alone is not."""

    def over(*held: int) -> bool:
        document = ezdxf.new("R2010", setup=True)
        document.header["$INSUNITS"] = 4
        for k, number in enumerate(held):
            pairs(Sheet(houses()[number].turned(20.0 * k, (2500.0 * k, 1300.0 * k)), document, LAYERS))
        return any("lie over each other" in note for note in read_plan(read_drawn(as_bytes(document))).notes)

    assert over(1, 5) and over(0, 1)
    assert not any(over(number) for number in range(6))


def test_dense_lines_are_refused_in_words() -> None:
    drawn = Drawn(unit="mm")
    for k in range(700):
        for n in range(3):
            a, b = (n * 300.0, k * 7.3), (n * 300.0 + 5000.0 + (k * 37 % 911), k * 7.3)
            drawn.strokes.append(Stroke(a, b, 0.0, f"{k % 61}", k))
    try:
        read_plan(drawn)
    except BadInput as error:
        assert error.message


def test_arcs_have_the_bulge_of_the_truth() -> None:
    plan = read_plan(read_drawn(as_bytes(drawn(houses()[2], "pairs"))))
    (bow,) = [wall for wall in plan.walls if wall.bulge]
    assert abs(bow.bulge) == pytest.approx(0.45, abs=1e-3)
    assert bow.length == pytest.approx(4000 / 2 / math.sin(2 * math.atan(0.45)) * 4 * math.atan(0.45), abs=2.0)
