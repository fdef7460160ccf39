"""Roofs that meet: valleys, areas and heights in closed form, and what does not meet."""

from __future__ import annotations

import math
from collections import Counter

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.document.rebuilding import changed
from deepsection.core.edits import DrawRoof, Remove, apply_edits, put
from deepsection.core.model import RoofEdge
from deepsection.core.resolve import resolve
from tests.builders import box_house, rectangle, roof_block, roofed_l

SKIN = 12.0
"""From the outside of the frame to the outside of the sheathing, which overhangs are measured from."""


def test_an_end_on_another_roof_runs_into_it() -> None:
    main, leg = roofed_l().roofs
    assert [edge.kind for edge in main.edges] == ["eave", "gable", "eave", "gable"]
    assert [edge.kind for edge in leg.edges] == ["joined", "eave", "gable", "eave"], "its ridge turns with it"


def test_valleys_of_equal_pitches_run_at_45_degrees() -> None:
    """Common practice: valleys of equal pitches run at 45 degrees from the inside corner; the ridge of the leg dies
    where it meets the slope, half its span in. True length: run x sqrt(2 + pitch^2) (hip and valley factor)."""
    building = resolve(roofed_l(0.5))
    leg = next(roof for roof in building.roofs if roof.block.id == "roof-leg")
    reach = 2500 + 400 + SKIN
    (ridge,) = leg.of("ridge")
    assert min(ridge.start, ridge.end, key=lambda point: point[1])[:2] == pytest.approx((2500, 3500), abs=1.5)
    east = next(valley for valley in leg.of("valley") if max(valley.start[0], valley.end[0]) > 2600)
    low, high = east.start, east.end
    assert high[:2] == pytest.approx((2500, 3500)) and low[:2] == pytest.approx((2500 + reach, 3500 + reach))
    covering = leg.planes[0].covering
    assert high[2] == pytest.approx(leg.ridge_top.total) and low[2] == pytest.approx(leg.eave.total + covering)
    assert east.length == pytest.approx(reach * math.sqrt(2 + 0.25))


def test_unequal_pitches_turn_the_valley() -> None:
    """The tangent of the valley's angle is the ratio of the pitches (trade arithmetic)."""
    building = resolve(roofed_l(0.5, leg_pitch=0.4))
    leg = next(roof for roof in building.roofs if roof.block.id == "roof-leg")
    valley = next(valley for valley in leg.of("valley") if max(valley.start[0], valley.end[0]) > 2600)
    dx, dy, _ = (abs(a - b) for a, b in zip(valley.start, valley.end))
    assert dy / dx == pytest.approx(0.4 / 0.5, rel=1e-6)


@settings(max_examples=25, deadline=None)
@given(pitch=st.floats(0.15, 1.2), share=st.floats(0.5, 1.0))
def test_surfaces_neither_overlap_nor_leave_a_gap(pitch: float, share: float) -> None:
    """In plan, what is left of the slopes fills exactly what the blocks cover; the higher surface is on top."""
    project = roofed_l(pitch, leg_pitch=pitch * share)
    alone = [resolve(project.model_copy(update={"roofs": (block,)})).roofs[0] for block in project.roofs]
    joined = resolve(project).roofs
    whole = shapely.union_all([plane.polygon for roof in alone for plane in roof.planes])
    left = [plane.polygon for roof in joined for plane in roof.planes]
    assert sum(polygon.area for polygon in left) == pytest.approx(shapely.union_all(left).area, rel=1e-7)
    assert shapely.union_all(left).area == pytest.approx(whole.area, rel=1e-6)
    for roof in joined:
        for plane in roof.planes:
            spot = plane.polygon.representative_point()
            own = plane.covered(spot.x, spot.y)
            for other in joined:
                if other.block.id != roof.block.id and other.outline.contains(spot):
                    there = min(p.covered(spot.x, spot.y) for p in other.planes)
                    assert own >= there - 1e-6


def test_true_area_is_plan_area_times_the_slope_factor() -> None:
    """Slope factor sqrt(1 + pitch^2), published in framing-square tables; measured on the solids by trimesh."""
    building = resolve(roofed_l(0.5))
    plan = sum(plane.polygon.area for roof in building.roofs for plane in roof.planes)
    volume = sum(part.solid.volume for part in building.parts if part.role == "roofing")
    assert volume == pytest.approx(plan * math.sqrt(1.25) * 10.0, rel=1e-6), "10 mm of shingles, square to the slope"


def test_rafters_run_on_to_where_the_ridge_dies() -> None:
    """By hand: the leg is 4000 long and its ridge runs 2500 on: rafters at 0, 600 ... 6000, 11 a side."""
    building = resolve(roofed_l(0.5))
    sides = Counter(
        part.key.split("/")[3].rsplit(":", 1)[0] for part in building.parts if part.key.startswith("roof-leg/rafter/")
    )
    assert sides == {"edge:e2": 11, "edge:e4": 11}
    main = next(roof for roof in building.roofs if roof.block.id == "roof-main")
    for part in building.parts:
        if part.key.startswith("roof-leg/rafter/") and part.solid.bounds.y1 < 6000:
            assert part.solid.bounds.z0 > main.heel.total, "a jack stands on the deck of the main roof"


def test_no_fascia_runs_through_a_room() -> None:
    building = resolve(roofed_l(0.5))
    fascia = building.by_key["roof-main/fascia//edge:e3"]
    corner = 5000 + 400 + SKIN
    assert corner - 20 < fascia.solid.bounds.x0 <= corner, "it ends in a mitre at the inside corner"
    tails = [
        p for p in building.parts if p.key.startswith("roof-main/rafter/rafters/edge:e3:") and p.solid.bounds.x1 < 4900
    ]
    assert tails and all(part.solid.bounds.y1 == pytest.approx(6000) for part in tails)


def test_one_wall_may_stand_under_two_roofs() -> None:
    """The west wall is a gable under the main roof and an eaves wall beside the leg."""
    building = resolve(roofed_l(0.5))
    gable = building.by_key["w6/cladding/cladding/roof-main"].solid.bounds
    eave = building.by_key["w6/cladding/cladding/roof-leg"].solid.bounds
    assert gable.z1 > 4000 and gable.y1 == pytest.approx(6000)
    assert eave.z1 < 2801 and eave.y0 == pytest.approx(6000)


def test_a_roof_that_runs_into_nothing_says_so() -> None:
    left = apply_edits(roofed_l(), (Remove(elements=("roof-main",)),))
    found = {held.code: held for held in resolve(left).diagnostics}
    assert found["roof-meets-nothing"].element == "roof-leg" and found["roof-meets-nothing"].severity == "warning"


def test_a_leg_that_is_higher_than_its_host_says_what_to_do() -> None:
    found = {held.code: held for held in resolve(roofed_l(0.3, leg_pitch=0.9)).diagnostics}["roof-too-high"]
    assert found.others == ("roof-main",) and "let the higher one run through" in found.message


def test_blocks_that_stand_apart_are_left_alone() -> None:
    house = put(box_house(8000, 6000), roof_block("roof-1", "One", rectangle(0, 0, 8000, 6000), 0.5))
    apart = apply_edits(house, (DrawRoof(roof=roof_block("roof-2", "Two", rectangle(0, 20000, 8000, 26000), 0.5)),))
    assert [edge.kind for edge in apart.roofs[1].edges] == ["eave", "gable", "eave", "gable"]
    assert all(not roof.joins and not roof.of("valley") for roof in resolve(apart).roofs)


def test_each_joined_edge_is_held_against_its_own_roof() -> None:
    """A leg said to run into roofs at both ends: that it meets none at one end says nothing about the other."""
    project = roofed_l()
    leg = project.roofs[1]
    edges = tuple(RoofEdge(kind="joined") if k == 2 else edge for k, edge in enumerate(leg.edges))
    building = resolve(put(project, changed(leg, edges=edges)))
    assert [(found.code, found.field) for found in building.diagnostics] == [("roof-meets-nothing", "kind_e3")]
    assert building.roofs[1].dying == ((0, "roof-main"),)
