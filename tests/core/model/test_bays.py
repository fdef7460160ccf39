"""Bays cut into walls, and parallels of walls: areas by closed forms, what stands on the wall, what is refused."""

from __future__ import annotations

import math
from typing import Any

import pytest

from deepsection.core.edits import (
    AddBay,
    BendWall,
    ClearConstruction,
    OffsetWall,
    PutConstruction,
    PutOpening,
    apply_edits,
    changed,
    put,
)
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import ConstructionLine, Project, TeeJoint, wall_axis
from deepsection.core.resolve import resolve
from tests.builders import box_house, window
from tests.core.resolve.test_walls import areas

IDS: dict[str, dict[str, Any]] = {
    "square": {"joints": ("b1", "b2", "b3", "b4"), "walls": ("s1", "s2", "s3")},
    "angled": {"joints": ("b1", "b2", "b3", "b4"), "walls": ("s1", "s2", "s3")},
    "bowed": {"joints": ("b1", "b2"), "walls": ("s1",)},
}


def bay(shape: str = "square", **more: Any) -> AddBay:
    facts = {"wall": "south", "distance": 4000, "width": 3000, "out": 600, "shape": shape, "rest": "south-2"}
    return AddBay.model_validate(facts | IDS[shape] | more)


def outline(project: Project) -> float:
    return float(resolve(project).plan.outlines[0].polygon.area)


def test_a_square_bay_adds_its_rectangle() -> None:
    after = apply_edits(box_house(8000, 6000), (bay(),))
    assert outline(after) == pytest.approx(8000 * 6000 + 3000 * 600)
    total, union = areas(resolve(after).plan.walls)
    assert total == pytest.approx(union, rel=1e-6)


def test_a_recess_takes_it_away() -> None:
    assert outline(apply_edits(box_house(8000, 6000), (bay(out=-600),))) == pytest.approx(8000 * 6000 - 3000 * 600)


def test_an_angled_bay_is_a_trapezium_at_45_degrees_or_as_told() -> None:
    """Area of a trapezium: (a + b) h / 2."""
    house = box_house(8000, 6000)
    assert outline(apply_edits(house, (bay("angled"),))) - 48e6 == pytest.approx((3000 + 1800) * 600 / 2)
    assert outline(apply_edits(house, (bay("angled", front=1000),))) - 48e6 == pytest.approx((3000 + 1000) * 600 / 2)


def test_a_bowed_bay_is_a_segment() -> None:
    """Circular segment: r = c^2 / 8h + h / 2, area r^2 (a - sin a) / 2."""
    radius = 3000**2 / (8 * 600) + 300
    angle = 4 * math.atan(2 * 600 / 3000)
    after = apply_edits(box_house(8000, 6000), (bay("bowed"),))
    assert outline(after) - 48e6 == pytest.approx(radius**2 * (angle - math.sin(angle)) / 2, rel=1e-3)
    assert len(resolve(after).plan.outlines) == 1
    total, union = areas(resolve(after).plan.walls)
    assert total == pytest.approx(union, rel=1e-5)


def test_what_stands_beside_a_bay_stays_where_it_is() -> None:
    from_end = changed(window("b", "south", 1000), end="end")
    house = apply_edits(
        box_house(8000, 6000), (PutOpening(opening=window("a", "south", 1000)), PutOpening(opening=from_end))
    )
    house = put(house, TeeJoint(id="t", wall="south", end="end", distance=500))

    def places(project: Project) -> list[float]:
        held: list[float] = []
        for standing in (*project.openings, project.find("t")):
            axis = wall_axis(project, project.find(standing.wall))
            held += axis.at(standing.distance if standing.end == "start" else axis.length - standing.distance)
        return held

    after = apply_edits(house, (bay(),))
    assert places(after) == pytest.approx(places(house))
    assert [opening.wall for opening in after.openings] == ["south", "south-2"]


@pytest.mark.parametrize(
    ("more", "field"),
    [
        ({"width": 7990}, "width"),
        ({"distance": 1000}, "distance"),
        ({"out": 10}, "out"),
        ({"shape": "angled", "front": 3000}, "front"),
        ({"shape": "angled", "out": 1600}, "front"),
        ({"shape": "bowed", "out": 3100}, "out"),
        ({"shape": "square", **IDS["bowed"]}, "joints"),
    ],
)
def test_a_bay_that_cannot_be_is_refused_at_its_field(more: dict[str, Any], field: str) -> None:
    shape = str(more.get("shape", "square"))
    facts = IDS[shape] | more
    with pytest.raises(RefusedEdit) as caught:
        apply_edits(box_house(8000, 6000), (bay(shape, **{k: v for k, v in facts.items() if k != "shape"}),))
    assert caught.value.field == field and caught.value.element == "south"


def test_a_bay_needs_a_free_and_straight_stretch() -> None:
    house = apply_edits(box_house(8000, 6000), (PutOpening(opening=window("w1", "south", 5500)),))
    with pytest.raises(RefusedEdit, match="W1 stands where"):
        apply_edits(house, (bay(),))
    bowed = apply_edits(box_house(8000, 6000), (BendWall(wall="south", rise=-900),))
    with pytest.raises(RefusedEdit, match="straight"):
        apply_edits(bowed, (bay(),))


def test_a_parallel_wall_and_a_concentric_one() -> None:
    house = box_house(8000, 6000)
    after = apply_edits(house, (OffsetWall(wall="south", id="far", joints=("f1", "f2"), distance=1000),))
    assert wall_axis(after, after.find("far")).start == pytest.approx((0, -1000)), "outward is south"
    bowed = apply_edits(house, (BendWall(wall="south", radius=5000),))
    inner = apply_edits(bowed, (OffsetWall(wall="south", id="near", joints=("f1", "f2"), distance=-1500),))
    own, near = (wall_axis(inner, inner.find(id)) for id in ("south", "near"))
    assert near.centre == pytest.approx(own.centre) and abs(near.radius() - own.radius()) == pytest.approx(1500)
    with pytest.raises(RefusedEdit, match="needs a distance"):
        apply_edits(house, (OffsetWall(wall="south", id="far", joints=("f1", "f2"), distance=0),))


def test_construction_lines_are_cleared_together() -> None:
    lines = [PutConstruction(line=ConstructionLine(id=f"c{k}", x=k * 100, y=0, angle=90)) for k in range(3)]
    house = apply_edits(box_house(8000, 6000), lines)
    assert len(house.construction) == 3
    assert apply_edits(house, (ClearConstruction(),)) == box_house(8000, 6000)
