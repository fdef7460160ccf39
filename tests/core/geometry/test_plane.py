"""Lines, arcs, frames and polygons in the plane."""

from __future__ import annotations

import math

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from deepsection.core.errors import GeometryError
from deepsection.core.geometry import (
    Frame,
    arc_of,
    flatten,
    half_plane,
    line_through,
    meet,
    offset_line,
    polygons_of,
    ring_of,
    side_direction,
)


def test_third_angle_left_stays_left() -> None:
    """Looking north at the south side, east lies to the right; looking west at the east side, north does."""
    for side, right in (("south", (1, 0)), ("east", (0, 1)), ("north", (-1, 0)), ("west", (0, -1))):
        frame = Frame.looking(side_direction(side))  # type: ignore[arg-type]
        assert (frame.ux, frame.uy) == right
        assert (frame.dx, frame.dy) == (-right[1], right[0])


@given(st.floats(0, 360), st.floats(-1e5, 1e5), st.floats(-1e5, 1e5))
def test_turning_the_plan_there_and_back(angle: float, x: float, y: float) -> None:
    frame = Frame.looking(angle)
    back = frame.turned_to_plan(*frame.plan_to_turned(x, y))
    assert math.isclose(back[0], x, abs_tol=1e-6) and math.isclose(back[1], y, abs_tol=1e-6)


@given(st.floats(0, 360), st.floats(-1e4, 1e4), st.floats(-1e4, 1e4), st.floats(0, 1e4))
def test_plan_and_view_share_u(angle: float, x: float, y: float, z: float) -> None:
    """Projection lines are vertical: a point has the same u in the turned plan and in the view."""
    frame = Frame.looking(angle, 300, -200)
    view = frame.to_view(np.array([[x, y, z]]))[0]
    assert math.isclose(view[0], frame.plan_to_turned(x, y)[0], abs_tol=1e-6)
    assert view[1] == z
    assert math.isclose(view[2], frame.depth(x, y), abs_tol=1e-6)


def test_lines_meet_and_parallels_do_not() -> None:
    first = line_through((0, 0), (10, 0))
    assert meet(first, line_through((4, -3), (4, 9))) == pytest.approx((4, 0))
    assert meet(first, offset_line(first, 5)) is None
    assert offset_line(first, 5).y == 5
    with pytest.raises(GeometryError):
        line_through((1, 1), (1, 1.001))


def test_an_arc_from_chord_and_rise() -> None:
    """Check value 11 of the reference table: chord 3000, rise 500 gives radius 2500 (arithmetic: c^2/8h + h/2)."""
    bulge = 500 / 1500
    cx, cy, radius, _, sweep = arc_of(0, 0, 3000, 0, -bulge)
    assert radius == pytest.approx(2500) and (cx, cy) == pytest.approx((1500, -2000)) and sweep < 0
    points = flatten([(0, 0, -bulge), (3000, 0, 0)], steps=64)
    assert max(y for _, y in points) == pytest.approx(500)
    assert all(math.dist(point, (cx, cy)) == pytest.approx(radius) for point in points)


@given(st.floats(-3, 3), st.floats(-3, 3), st.floats(-3, 3))
def test_half_plane_agrees_with_its_inequality(a: float, b: float, c: float) -> None:
    box = (-1.0, -2.0, 2.0, 1.0)
    kept = half_plane(box, a, b, c)
    inside = [(x, y) for x in np.linspace(-0.95, 1.95, 7) for y in np.linspace(-1.95, 0.95, 7)]
    for x, y in inside:
        value = a * x + b * y + c
        if abs(value) > 1e-6:
            assert (kept is not None and bool(kept.buffer(1e-9).contains(shapely.Point(x, y)))) == (value > 0)


def test_polygons_of_any_overlay_result() -> None:
    mixed = shapely.GeometryCollection(
        [shapely.box(0, 0, 1, 1), shapely.LineString([(0, 0), (9, 9)]), shapely.box(5, 5, 9, 9)]
    )
    assert sorted(polygon.area for polygon in polygons_of(mixed)) == [1, 16]
    assert list(polygons_of(shapely.Point(0, 0))) == []
    rings = ring_of(shapely.box(0, 0, 9, 9).difference(shapely.box(2, 2, 4, 4)))
    areas = [sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(ring, ring[1:] + ring[:1])) / 2 for ring in rings]
    assert areas == [81, -4]
