"""Paths of marks as points, lines and areas: many at once as one by one."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from deepsection.core.drawing.outlines import areas_of, closed, lines_of, points_along
from deepsection.core.geometry import flatten

NUMBER = st.floats(-2e4, 2e4).map(lambda value: round(value, 1))
BULGE = st.sampled_from([0.0, 0.0, -1.0, -0.41, 0.2, 1.0])
PATH = st.lists(st.tuples(NUMBER, NUMBER, BULGE), min_size=2, max_size=6, unique_by=lambda vertex: vertex[:2])


@given(st.lists(PATH, max_size=5))
def test_many_paths_are_flattened_as_each_is_by_itself(held: list[list[tuple[float, float, float]]]) -> None:
    points, owner = points_along([tuple(path) for path in held])
    for k, path in enumerate(held):
        assert points[owner == k] == pytest.approx(np.array(flatten(path)), abs=1e-4)


def test_a_circle_and_a_square_have_their_areas() -> None:
    """Of a circle of 16 chords and radius 2: 8 r2 sin(pi / 8); of a square of 3 with a hole of 1: 8."""
    circle = ((-2.0, 0.0, 1.0), (2.0, 0.0, 1.0))
    square = ((0.0, 0.0, 0.0), (3.0, 0.0, 0.0), (3.0, 3.0, 0.0), (0.0, 3.0, 0.0))
    hole = ((1.0, 1.0, 0.0), (2.0, 1.0, 0.0), (2.0, 2.0, 0.0), (1.0, 2.0, 0.0))
    whole, holed = areas_of([(circle,), (square, hole)])
    assert whole.area == pytest.approx(32.0 * math.sin(math.pi / 8)) and holed.area == pytest.approx(8.0)
    (line,) = lines_of([closed(square)])
    assert line.length == pytest.approx(12.0)
    assert len(lines_of([])) == len(areas_of([])) == 0
