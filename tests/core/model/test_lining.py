"""Openings lined up as an elevation shows them, with distances worked out by hand."""

from __future__ import annotations

import pytest

from deepsection.core.edits import (
    CentreUnderGable,
    LineUpOpenings,
    SpaceOpenings,
    apply_edits,
    changed,
    gable_peak,
    put,
)
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import Project
from deepsection.core.resolve import resolve
from tests.builders import box_house, gable, l_house, two_storeys, window

near = pytest.approx


def row() -> Project:
    """Three windows of 900, 600 and 1200 in a wall of 8 m, each of another height and sill."""
    house = gable(box_house(8000, 6000), 0.5, overhang=400.0)
    sizes = [
        ("w1", 1000.0, 900.0, 1200.0, 900.0),
        ("w2", 2500.0, 600.0, 900.0, 600.0),
        ("w3", 7000.0, 1200.0, 1500.0, 300.0),
    ]
    return put(
        house,
        *(changed(window(id, "south", at), width=w, height=h, sill=sill) for id, at, w, h, sill in sizes),
    )


def opening(project: Project, id: str) -> object:
    return next(held for held in project.openings if held.id == id)


def test_heads_and_sills_come_in_line_with_the_first() -> None:
    """The head of w1 is at 2100: 900 below it 1200, 1500 below it 600."""
    heads = apply_edits(row(), (LineUpOpenings(openings=("w1", "w2", "w3"), by="heads"),))
    assert [held.sill for held in heads.openings] == near([900.0, 1200.0, 600.0])
    placed = [held.head.total for held in resolve(heads).openings["south"]]
    assert placed == near([placed[0]] * 3)
    sills = apply_edits(row(), (LineUpOpenings(openings=("w3", "w1"), by="sills"),))
    assert {held.id: held.sill for held in sills.openings} == near({"w1": 300.0, "w2": 600.0, "w3": 300.0})


def test_a_head_that_is_too_low_is_refused() -> None:
    low = put(row(), changed(opening(row(), "w2"), sill=100.0, height=300.0))
    with pytest.raises(RefusedEdit, match="below the floor") as refused:
        apply_edits(low, (LineUpOpenings(openings=("w2", "w3"), by="heads"),))
    assert refused.value.element == "w3"


def test_openings_of_a_wall_get_one_clear_distance() -> None:
    """From 550 to 7600 there are 7050, less 2700 of windows: two gaps of 2175; the middle one's middle at 3475."""
    spaced = apply_edits(row(), (SpaceOpenings(openings=("w3", "w1", "w2")),))
    assert [held.distance for held in spaced.openings] == near([1000.0, 1450.0 + 2175.0 + 300.0, 7000.0])
    wide = put(row(), changed(opening(row(), "w2"), width=7000.0))
    with pytest.raises(RefusedEdit, match="no room"):
        apply_edits(wide, (SpaceOpenings(openings=("w1", "w2", "w3")),))
    elsewhere = put(row(), window("w4", "north", 2000.0))
    with pytest.raises(RefusedEdit, match="one wall"):
        apply_edits(elsewhere, (SpaceOpenings(openings=("w1", "w2", "w4")),))


def test_an_opening_comes_under_the_peak_of_its_gable() -> None:
    """East and west are gables of a roof over 6 m: the peak is over 3 m; south has none."""
    house = put(row(), window("w4", "east", 1000.0))
    centred = apply_edits(house, (CentreUnderGable(opening="w4"),))
    assert opening(centred, "w4").distance == near(3000.0)  # type: ignore[attr-defined]
    uneven = house.roofs[0]
    edges = tuple(changed(edge, pitch=1.0) if k == 0 else edge for k, edge in enumerate(uneven.edges))
    salted = put(house, changed(uneven, edges=edges))
    # 1 in 1 from the south meets 1 in 2 from the north where x = (6000 - x) / 2.
    assert gable_peak(salted, opening(salted, "w4")) == near(2000.0, abs=0.01)  # type: ignore[arg-type]
    with pytest.raises(RefusedEdit, match="no gable"):
        apply_edits(house, (CentreUnderGable(opening="w1"),))


def test_windows_stand_over_each_other() -> None:
    house = two_storeys(8000, 6000)
    upper = next(wall.id for wall in house.walls if wall.base.level != "floor" and _lies_south(house, wall.id))
    house = put(house, window("low", "south", 2400.0), window("high", upper, 5000.0))
    over = apply_edits(house, (LineUpOpenings(openings=("low", "high"), by="middles"),))
    building = resolve(over)
    (low,), (high,) = building.openings["south"], building.openings[upper]
    at = building.plan.by_id["south"].at(low.centre), building.plan.by_id[upper].at(high.centre)
    assert at[0][0] == near(at[1][0])
    turned = put(l_house(), window("wa", "w1", 2000.0), window("wb", "w2", 2000.0))
    with pytest.raises(RefusedEdit, match="another way"):
        apply_edits(turned, (LineUpOpenings(openings=("wa", "wb"), by="middles"),))


def _lies_south(project: Project, id: str) -> bool:
    wall = resolve(project).plan.by_id[id]
    return wall.start[1] < 1.0 and wall.end[1] < 1.0
