"""The lines between tiles: every piece once, with the tile on either side, whatever the tiles' corners are."""

from __future__ import annotations

import math

import numpy as np
import pytest
import shapely
from shapely.geometry import LineString, Polygon

from deepsection.core.view.arrangement import Arrangement, arrangement

FLAT = (0.0, 0.0, 0.0)


def lines_of(*polygons: Polygon, planes: list[tuple[float, float, float]] | None = None) -> Arrangement:
    return arrangement(np.array(polygons, dtype=object), np.array(planes or [FLAT] * len(polygons)))


def between(found: Arrangement, one: int, other: int) -> float:
    """The length of the border between two tiles; -1 for nothing."""
    pairs = zip(found.left.tolist(), found.right.tolist(), found.pieces.tolist())
    return sum(math.dist(start, end) for left, right, (start, end) in pairs if {left, right} == {one, other})


def test_a_border_is_one_piece_with_both_tiles() -> None:
    found = lines_of(shapely.box(0, 0, 100, 50), shapely.box(100, 0, 130, 50))
    assert between(found, 0, 1) == pytest.approx(50) and len(found.pieces) == 7
    upright = found.pieces[:, 0, 0] == found.pieces[:, 1, 0]
    at = np.flatnonzero(upright & (found.pieces[:, 0, 0] == 100.0))
    assert (found.left[at].tolist(), found.right[at].tolist()) == ([0], [1]), "upwards, the first lies on the left"
    assert between(found, 0, -1) == pytest.approx(250) and between(found, 1, -1) == pytest.approx(110)


def test_a_tile_beside_two_is_parted_where_they_meet() -> None:
    found = lines_of(shapely.box(0, 0, 10, 100), shapely.box(10, 0, 20, 30), shapely.box(10, 30, 20, 100))
    assert (between(found, 0, 1), between(found, 0, 2), between(found, 1, 2)) == pytest.approx((30, 70, 10))


def test_a_hole_has_its_tile_around_it() -> None:
    wall = shapely.box(0, 0, 100, 100).difference(shapely.box(20, 20, 40, 60))
    found = lines_of(wall, shapely.box(20, 20, 40, 60))
    assert between(found, 0, 1) == pytest.approx(120)


@pytest.mark.parametrize("sites", [12, 60])
def test_cells_of_random_points_border_as_an_independent_overlay_has_it(sites: int) -> None:
    """Voronoi cells from shapely: per pair of cells, the length of what their boundaries share."""
    chance = np.random.default_rng(sites)
    points = shapely.multipoints(chance.uniform(0, 5000, (sites, 2)))
    cells = list(shapely.get_parts(shapely.voronoi_polygons(points)))
    found = lines_of(*cells)
    for k, cell in enumerate(cells):
        for j in range(k):
            shared = cell.boundary.intersection(cells[j].boundary.buffer(1e-6)).length
            # A piece ends on its own line, a buffer reaches a little past it.
            assert between(found, k, j) == pytest.approx(shared if shared > 0.01 else 0.0, abs=0.02)
    outer = shapely.union_all(cells).boundary.length
    total = sum(math.dist(start, end) for start, end in found.pieces.tolist())
    assert total == pytest.approx((sum(cell.length for cell in cells) + outer) / 2, rel=1e-7)


def test_short_sides_on_a_slanted_line_belong_to_it() -> None:
    """Corners lie on a grid of a thousandth: the short one's direction is off by more than parallel lines may be."""
    slope = Polygon([(0, 0), (10_000.0, 5833.333), (10_000.0, 0.0)])
    (x0, y0), (x1, y1) = (3000.0, 1750.0), (3137.0, 1829.917)
    above = Polygon([(x0, y0), (x1, y1), (x1, y1 + 40), (x0, y0 + 40)])
    found = lines_of(slope, above)
    assert between(found, 0, 1) == pytest.approx(math.dist((x0, y0), (x1, y1)), abs=0.01)
    assert between(found, 0, -1) == pytest.approx(slope.length - between(found, 0, 1), abs=0.01)


def test_a_spike_without_area_parts_nothing() -> None:
    """An overlay may leave one: a line out and back."""
    spiked = Polygon([(0, 0), (100, 0), (100, 50), (100, 90), (100, 50), (0, 50)])
    found = lines_of(spiked, shapely.box(100, 0, 200, 100))
    assert between(found, 0, 1) == pytest.approx(50)
    assert between(found, 1, -1) == pytest.approx(350), "past the spike there is nothing on its other side"


def test_what_lies_a_sliver_away_is_beside() -> None:
    """A gap of 0.04 mm is no sky; one of 1 mm is."""
    for gap, shared in ((0.04, 100.0), (1.0, 0.0)):
        found = lines_of(shapely.box(0, 0, 10, 50), shapely.box(10 + gap, 0, 20, 50))
        assert between(found, 0, 1) == pytest.approx(shared), gap


def test_of_two_that_overlap_by_a_sliver_the_nearer_counts() -> None:
    left, one, other = shapely.box(0, 0, 10, 50), shapely.box(10, 0, 20, 50), shapely.box(10, 0, 15, 50)
    near, far = (0.0, 0.0, 5.0), (0.0, 0.0, 9.0)
    assert between(lines_of(left, one, other, planes=[FLAT, near, far]), 0, 1) == pytest.approx(50)
    assert between(lines_of(left, one, other, planes=[FLAT, far, near]), 0, 2) == pytest.approx(50)


def test_the_outline_lies_clear_of_the_tiles() -> None:
    found = lines_of(shapely.box(0, 0, 100, 50), shapely.box(100, 0, 130, 80))
    whole = shapely.box(0, 0, 100, 50).union(shapely.box(100, 0, 130, 80))
    lines = [LineString(ends) for ends in found.outline(0.5).tolist()]
    assert all(line.distance(whole) == pytest.approx(0.5, abs=1e-6) for line in lines)
    assert sum(line.length for line in lines) == pytest.approx(whole.length - len(lines) * 1.0)


def test_nothing_has_no_lines() -> None:
    assert len(lines_of().pieces) == 0
