"""Windows and breaks: areas and lengths against plain intersections, edges without a pen, the way to paper."""

from __future__ import annotations

import itertools
import math

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import LineString, Polygon

from deepsection.core.drawing import Dimension, Mark, Region, Stroke, Text, rings_of
from deepsection.core.drawing.breaklines import break_line
from deepsection.core.drawing.cropping import Band, Window, cropped

WHOLE = st.integers(-40, 40).map(lambda n: 100.0 * n)


@st.composite
def areas(draw: st.DrawFn) -> Polygon:
    """Convex outlines of some points, some with a hole."""
    points = draw(st.lists(st.tuples(WHOLE, WHOLE), min_size=3, max_size=8, unique=True))
    hull = shapely.convex_hull(shapely.MultiPoint(points))
    if not isinstance(hull, Polygon) or hull.area < 1e6:
        hull = shapely.box(-2000, -1500, 2000, 1500)
    hole = hull.centroid.buffer(100.0, quad_segs=2)
    return hull.difference(hole) if draw(st.booleans()) and hull.contains(hole.buffer(50.0)) else hull


@st.composite
def windows(draw: st.DrawFn) -> Window:
    """From side to side, of one to three bands, each pushed by another distance."""
    left, wide = 100.0 * draw(st.integers(-45, 30)) + 25.0, 100.0 * draw(st.integers(5, 60))
    heights = sorted(draw(st.sets(st.integers(-50, 50), min_size=2, max_size=6)))
    pairs = [(100.0 * a + 50.0, 100.0 * b + 50.0) for a, b in zip(heights[::2], heights[1::2])]
    return Window(left, left + wide, tuple(Band(a, b, 5.0 * k) for k, (a, b) in enumerate(pairs)))


SLIVERS = 4.0
"""mm2 that may go as slivers of no width."""


def no_hatch(index: int, aside: float, rise: float) -> int:
    return index + round(rise)


def area_of(mark: Region) -> Polygon:
    outer, *holes = ([(x, y) for x, y, _ in ring] for ring in mark.rings)
    return Polygon(outer, holes)


@given(areas(), windows())
def test_what_is_shown_of_an_area_is_what_lies_in_the_bands(area: Polygon, window: Window) -> None:
    shown = cropped([Region(rings_of(area), fill="paper", pen="cut", hatch=7)], window, no_hatch)
    boxes = [(shapely.box(window.left, band.low, window.right, band.high), band.shift) for band in window.bands]
    wanted = [shapely.affinity.translate(area.intersection(box), 0.0, shift) for box, shift in boxes]
    regions = [mark for mark in shown if isinstance(mark, Region)]
    # Slivers are left out.
    assert sum(area_of(mark).area for mark in regions) == pytest.approx(sum(held.area for held in wanted), abs=SLIVERS)
    whole = shapely.union_all(wanted).buffer(1e-6)
    assert all(whole.covers(area_of(mark)) for mark in regions)
    # The hatch goes up with its band.
    assert {mark.hatch for mark in regions} <= {7 + round(band.shift) for band in window.bands}


@given(areas(), windows())
def test_an_edge_that_the_window_makes_has_no_pen(area: Polygon, window: Window) -> None:
    shown = cropped([Region(rings_of(area), pen="cut")], window, no_hatch)
    drawn = [mark for mark in shown if isinstance(mark, Stroke)]
    drawn += [
        Stroke(ring, "cut", closed=True)
        for mark in shown
        if isinstance(mark, Region) and mark.pen
        for ring in mark.rings
    ]
    lines = [LineString([(x, y) for x, y, _ in (*mark.path, *mark.path[:1] * mark.closed)]) for mark in drawn]
    wanted = 0.0
    edge = shapely.GeometryCollection()
    for band in window.bands:
        box = shapely.box(window.left, band.low, window.right, band.high)
        piece = shapely.affinity.translate(area.boundary.intersection(box), 0.0, band.shift)
        edge, wanted = edge.union(piece), wanted + piece.length
    assert sum(line.length for line in lines) == pytest.approx(wanted, abs=1e-6)
    assert all(edge.buffer(1e-6).covers(line) for line in lines)


@given(windows())
def test_the_way_to_paper_rises(window: Window) -> None:
    # Bands that are pushed together so far that they would turn over are no window that anything makes.
    heights = [window.low + (window.high - window.low) * k / 50 for k in range(51)]
    drawn = [window.at(height) for height in heights]
    assert all(a < b for a, b in itertools.pairwise(drawn))
    for band in window.bands:
        assert window.at(band.low) - band.low == pytest.approx(band.shift) and window.shows_height(band.high)


def test_arcs_are_cut_and_lettering_stays_where_its_place_is_shown() -> None:
    half = Stroke(((-10.0, 0.0, 1.0), (10.0, 0.0, 0.0)), "fine")
    marks: list[Mark] = [half, Text(0.0, 5.0, "in"), Text(0.0, 50.0, "out"), Dimension(-5.0, 1.0, 5.0, 1.0, 3.0, "10")]
    shown = cropped(marks, Window(-20.0, 0.0, (Band(-20.0, 20.0),)), no_hatch)
    arc, text = (next(mark for mark in shown if isinstance(mark, kind)) for kind in (Stroke, Text))
    line = LineString([(x, y) for x, y, _ in arc.path])
    # A quarter of a circle of radius 10, in short chords.
    assert line.length == pytest.approx(math.pi * 5, rel=0.01) and line.bounds[2] <= 1e-9
    assert text.text == "in" and not any(isinstance(mark, Dimension) for mark in shown)


def test_a_break_line_runs_past_both_ends_with_its_zigzag_in_the_middle() -> None:
    line = break_line((0.0, 0.0), (1000.0, 0.0), 10.0)
    xs, ys = [x for x, _, _ in line], [y for _, y, _ in line]
    assert (xs[0], xs[-1]) == (-20.0, 1020.0) and max(ys) == -min(ys) > 0
    assert LineString([(x, y) for x, y, _ in line]).is_simple and sum(xs[1:-1]) / 4 == pytest.approx(500.0)


def test_a_window_without_height_or_width_shows_nothing() -> None:
    marks: list[Mark] = [
        Stroke(((-5.0, 0.0, 0.0), (5.0, 9.0, 0.0)), "fine"),
        Region((((-1.0, -1.0, 0.0), (3.0, -1.0, 0.0), (0.0, 5.0, 0.0)),)),
    ]
    for window in (Window(-9.0, 9.0, (Band(4.0, 3.0),)), Window(-9.0, 9.0, (Band(3.0, 3.0),)), Window(2.0, 2.0)):
        assert cropped(marks, window, no_hatch) == []
