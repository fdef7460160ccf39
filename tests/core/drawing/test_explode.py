"""Symbols and dimensions as strokes and text: readable from below or the right, at their size on paper."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from deepsection.core.drawing import Dimension, Drawing, Mark, Region, Stroke, Symbol, Text, explode, extent, path

SCALE = 50.0


def exploded(*marks: Mark) -> tuple[Mark, ...]:
    return explode(Drawing("v", "View", "elevation", SCALE, marks)).marks


def the_text(marks: tuple[Mark, ...]) -> Text:
    (text,) = [mark for mark in marks if isinstance(mark, Text)]
    return text


@given(st.floats(0, 359.9), st.floats(500, 9000), st.floats(-30, 30))
def test_a_dimension_is_never_upside_down(angle: float, length: float, offset: float) -> None:
    """Source: ISO 129-1 (from memory): dimensions are read from the bottom or from the right of the sheet."""
    turn = math.radians(angle)
    mark = Dimension(0, 0, length * math.cos(turn), length * math.sin(turn), offset, "12'-6\"")
    text = the_text(exploded(mark))
    assert -90.0 < text.angle <= 90.002
    along = math.degrees(math.atan2(mark.y2, mark.x2))
    assert math.isclose(math.cos(math.radians(2 * (along - text.angle))), 1.0, abs_tol=1e-6), "along its line"


def test_a_dimension_line_is_as_long_as_what_it_measures() -> None:
    strokes = [mark for mark in exploded(Dimension(100, 200, 3100, 200, 12, "3000")) if isinstance(mark, Stroke)]
    level = [s for s in strokes if s.path[0][1] == s.path[1][1] == 200 + 12 * SCALE]
    assert [s.path[1][0] - s.path[0][0] for s in level] == [3000]
    assert sum(s.pen == "symbol" for s in strokes) == 2, "a tick at each end"


@pytest.mark.parametrize("side", [1.0, -1.0])
@pytest.mark.parametrize("shift", [0.0, 6.0, -4.0])
def test_a_level_mark_stands_at_its_height_wherever_its_lettering_goes(side: float, shift: float) -> None:
    marks = exploded(Symbol("level", 1000, 2700, ("Plate", "+2.700"), values=(side, shift), sum="level:plate"))
    (triangle,) = [mark for mark in marks if isinstance(mark, Region)]
    assert min(y for ring in triangle.rings for _, y, _ in ring) == 2700
    texts = [mark for mark in marks if isinstance(mark, Text)]
    assert [text.text for text in texts] == ["Plate", "+2.700"]
    assert all(text.align == ("left" if side > 0 else "right") for text in texts)
    assert (texts[0].y + texts[1].y) / 2 == pytest.approx(2700 + shift * SCALE)
    assert all(getattr(mark, "sum", None) == "level:plate" for mark in marks)


@pytest.mark.parametrize("angle", [0.0, 90.0, 217.0])
def test_a_section_mark_points_where_it_looks_and_ends_its_line_wide(angle: float) -> None:
    """ISO 128-3 (from memory): wide ends, arrows on them. Rings are for grid lines."""
    turn = math.radians(angle + 90.0)
    out = (math.cos(turn), math.sin(turn))
    marks = exploded(Symbol("section", 0, 0, (), angle, out))
    (head,) = [mark for mark in marks if isinstance(mark, Region)]
    tip = max((math.hypot(x, y), math.degrees(math.atan2(y, x)) % 360) for x, y, _ in head.rings[0])
    assert tip[1] == pytest.approx(angle) and tip[0] == pytest.approx(7.0 * SCALE)
    end, shaft = [mark for mark in marks if isinstance(mark, Stroke)]
    assert end.pen == shaft.pen == "section_mark" and math.dist(end.path[0][:2], end.path[1][:2]) == 8.0 * SCALE
    assert all(bulge == 0.0 for mark in (end, shaft) for _, _, bulge in mark.path)


def test_a_pitch_triangle_has_the_pitch() -> None:
    marks = exploded(Symbol("pitch", 0, 0, ("6", "12"), values=(0.5, 1.0)))
    triangle = next(mark for mark in marks if isinstance(mark, Region) and mark.pen == "symbol")
    (x0, y0, _), (x1, _, _), (_, y2, _) = triangle.rings[0]
    assert (y2 - y0) / (x1 - x0) == pytest.approx(0.5)
    assert sorted(mark.text for mark in marks if isinstance(mark, Text)) == ["12", "6"]


def test_a_scale_bar_alternates_in_fields_of_one_length() -> None:
    marks = exploded(Symbol("scale_bar", 0, 0, ("0", "1", "2", "3", "4 m"), values=(1000.0, 4.0, 1 / SCALE)))
    fields = [mark for mark in marks if isinstance(mark, Region)]
    assert [field.fill for field in fields] == ["ink", "paper", "ink", "paper"]
    starts = [min(x for x, _, _ in field.rings[0]) for field in fields]
    assert all(b - a == pytest.approx(1000 / SCALE) for a, b in itertools.pairwise(starts))


def test_extents_hold_lettering_and_symbols() -> None:
    marks = (
        Stroke(path((0, 0), (1000, 500)), "edge"),
        Symbol("level", 1000, 400, ("Main floor", "+0.150"), values=(1.0, 8.0)),
        Text(500, 900, "a long line of text", 2.5),
    )
    x0, y0, x1, y1 = extent(marks, SCALE)
    for mark in exploded(*marks):
        if isinstance(mark, Stroke):
            assert all(x0 <= x <= x1 and y0 <= y <= y1 for x, y, _ in mark.path)
    assert extent((), SCALE) == (0.0, 0.0, 1.0, 1.0)
