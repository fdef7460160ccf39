"""A plan laid elsewhere: what it holds goes along, and slopes keep their heights."""

from __future__ import annotations

import math

import pytest
from shapely.geometry import Point as Spot
from shapely.geometry import Polygon

from deepsection.core.adopting import laid
from deepsection.core.document.motion import Motion
from deepsection.core.reading import FoundRoof, FoundStair, ReadPlan, UnitFound
from deepsection.core.reading.found import FoundFlight, FoundSlab, Slope, Storey

SQUARE = ((0.0, 0.0), (4000.0, 0.0), (4000.0, 3000.0), (0.0, 3000.0))


@pytest.mark.parametrize(
    "where", [Motion(dx=500.0, dy=-70.0), Motion(turn=90.0), Motion(dx=-40.0, dy=9000.0, turn=203.7)]
)
def test_all_of_it_goes_along(where: Motion) -> None:
    slope = Slope(Polygon(SQUARE), 0.3, -0.4, 2500.0)
    stair = FoundStair((1000.0, 200.0), 30.0, 900.0, 250.0, (FoundFlight(14, SQUARE),), 1.0, "drawn")
    plan = ReadPlan(
        UnitFound("mm", 1.0, 1.0, "stated"),
        (0.0, 0.0),
        stairs=[stair],
        roofs=[FoundRoof(SQUARE, (), (slope,))],
        storeys=[Storey("", (7.0, 9.0), (), slab=FoundSlab(Polygon(SQUARE), 200.0))],
    )
    there = laid(plan, where)
    (moved,) = there.roofs[0].slopes
    for point in (*SQUARE, (1234.0, 567.0)):
        assert where.back(where.at(point)) == pytest.approx(point)
        assert moved.z(Spot(where.at(point))) == pytest.approx(slope.z(Spot(point)))
        assert moved.area.distance(Spot(where.at(point))) < 1e-6
    assert moved.pitch == pytest.approx(0.5) and moved.area.area == pytest.approx(12e6)
    slab = there.storeys[0].slab
    assert slab and slab.area.symmetric_difference(moved.area).area < 1.0
    assert there.stairs[0].foot == pytest.approx(where.at(stair.foot))
    assert there.stairs[0].flights[0].outline == tuple(where.at(point) for point in SQUARE)
    assert math.remainder(there.stairs[0].turn - stair.turn - where.turn, 360.0) == pytest.approx(0.0, abs=1e-3)
    # One plan lies over another one as before.
    assert there.storeys[0].shift == pytest.approx(where.along(7.0, 9.0))


@pytest.mark.parametrize("mirror", [None, 31.0])
def test_what_a_motion_brings_there_it_brings_back(mirror: float | None) -> None:
    where = Motion(dx=-40.0, dy=9000.0, x=300.0, y=70.0, turn=203.7, mirror=mirror)
    for point in SQUARE:
        assert where.back(where.at(point)) == pytest.approx(point)
