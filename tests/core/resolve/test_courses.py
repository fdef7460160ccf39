"""Courses of masonry: their sizes belong to the material, and they start where it stands."""

from __future__ import annotations

import pytest

from deepsection.core.catalog import hatch, material, materials
from deepsection.core.drawing import place_hatch
from deepsection.core.edits import changed, put
from deepsection.core.model import Chimney, LevelRule, Project
from deepsection.core.resolve import Part, resolve
from deepsection.core.starters.projects import make_ups
from deepsection.core.units import INCH
from tests.builders import two_storeys

near = pytest.approx


def outside(project: Project, wall: str) -> Part:
    return next(part for part in resolve(project).parts if part.element == wall and part.role == "cladding")


@pytest.mark.parametrize(
    ("name", "courses", "rise", "length"),
    [
        ("brick_modular", 3, 8 * INCH, 8 * INCH),  # BIA Technical Note 10: three courses to 8 in.
        ("block_modular", 1, 8 * INCH, 16 * INCH),  # Nominal 8 x 8 x 16 units (ASTM C90, from memory).
        ("brick", 4, 300.0, 225.0),  # Four courses to 300 mm (BS 4729 coordinating size, from memory).
        ("block", 1, 225.0, 450.0),  # 440 x 215 with 10 mm joints (common practice, no source).
    ],
)
def test_beds_and_joints_have_the_sizes_of_the_unit(name: str, courses: int, rise: float, length: float) -> None:
    made_of = material(name)
    assert made_of.seen and made_of.coursing
    beds, joints = place_hatch(made_of.seen, 20.0).families
    assert beds.offset[1] * courses == near(rise)
    assert abs(joints.offset[1]) * 2 == near(length), "joints of neighbouring courses lie half a unit apart"
    assert joints.dashes[0] == near(rise / courses) == near(-joints.dashes[1])


def test_each_coursed_material_shows_courses_of_its_own() -> None:
    laid = [held for held in materials().values() if held.coursing]
    assert len(laid) >= 5 and all(held.seen and hatch(held.seen).size == "real" for held in laid)


def test_a_house_in_feet_is_faced_with_modular_brick() -> None:
    faced = {units: next(held for held in make_ups(units) if held.id == "wall-brick") for units in ("ft-in", "mm")}  # type: ignore[arg-type]
    assert [faced[units].layers[0].material for units in ("ft-in", "mm")] == ["brick_modular", "brick"]


def test_courses_run_on_over_storeys_of_one_material_and_start_anew_on_another() -> None:
    """By hand: brick over brick starts at the foundation wall; brick over boards at the joists it comes down over."""
    house = two_storeys(9000.0, 6000.0)

    def faced(**by_wall: str) -> Project:
        return put(house, *(changed(house.find(id.replace("_", "-")), make_up=held) for id, held in by_wall.items()))

    building = resolve(house)
    stem = max(part.solid.bounds.z1 for part in building.parts if part.role == "stem")
    both = faced(south="wall-brick", s2_w1="wall-brick")
    assert outside(both, "south").origin[2] == near(stem)
    assert outside(both, "s2-w1").origin[2] == near(stem)
    bearing = building.levels[house.find("s2-joists").bearing].z
    upper = outside(faced(s2_w1="wall-brick"), "s2-w1")
    assert upper.origin[2] == near(bearing) == near(upper.solid.bounds.z0)
    assert outside(faced(south="wall-brick"), "s2-w1").origin[2] == near(bearing), "boards over brick start anew too"


def test_courses_of_a_chimney_start_at_its_foot() -> None:
    house = two_storeys(9000.0, 6000.0)
    stack = Chimney(id="stack", x=3000.0, y=2000.0, width=600.0, depth=600.0, base=LevelRule(level="floor"))
    part = next(part for part in resolve(put(house, stack)).parts if part.role == "chimney")
    assert part.origin[2] == near(part.solid.bounds.z0) and abs(part.origin[0] - 3000.0) == near(300.0)
