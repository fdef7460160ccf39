"""Fields of roofs: what is typed, and the edges that it changes."""

from __future__ import annotations

import math

import pytest

from deepsection.core.edits import apply_edits
from deepsection.core.errors import DeepSectionError
from deepsection.core.model import Project
from deepsection.core.particulars import describe_element, enter
from deepsection.core.resolve import resolve
from tests.builders import box_house
from tests.core.resolve.test_roofs import EAVE, over


def typed(project: Project, field: str, text: str) -> Project:
    return apply_edits(project, enter(project, "roof-1", field, text))


def test_a_ridge_height_gives_the_pitch() -> None:
    project = typed(over(box_house(12_000, 8000), "hip"), "ridge", "5500")
    (roof,) = resolve(project).roofs
    assert roof.ridge_top.total == pytest.approx(5500, abs=1e-3)
    with pytest.raises(DeepSectionError, match="no pitch"):
        typed(project, "ridge", "2000")


def test_a_break_is_typed_as_height_and_pitch() -> None:
    project = typed(over(box_house(12_000, 8000), "gable"), "pitch_e1", "60°")
    project = typed(project, "break_0", "2200 20°")
    edge = project.roofs[0].edges[0]
    assert edge.height == 2200 and edge.upper_pitch == pytest.approx(0.36397, rel=1e-4)
    plain = typed(project, "break_0", "")
    assert plain.roofs[0].edges[0].upper_pitch is None
    with pytest.raises(DeepSectionError, match="the height above the eaves, a space"):
        typed(project, "break_0", "2200")


@pytest.mark.parametrize(
    ("field", "text", "words"),
    [
        ("pitch", "7", "is not a pitch"),
        ("pitch_e2", "89°", "cannot be built"),
        ("overhang_e2", "wide", "length"),
        ("kind_e2", "dome", "not one of the choices"),
    ],
)
def test_bad_input_is_answered_at_its_field(field: str, text: str, words: str) -> None:
    with pytest.raises(DeepSectionError, match=words):
        typed(over(box_house(12_000, 8000), "hip"), field, text)


def test_one_overhang_is_typed_for_all_eaves_or_for_one() -> None:
    project = over(box_house(12_000, 8000), "gable")
    wide = typed(project, "overhang", "600")
    assert [edge.overhang for edge in wide.roofs[0].edges] == [600, 300, 600, 300]
    one = typed(wide, "overhang_e3", "250")
    assert [edge.overhang for edge in one.roofs[0].edges] == [600, 300, 250, 300]


def test_a_roof_says_what_it_comes_to() -> None:
    """A hip of 12 x 8 m, 1 in 2: the true area is the plan area times sqrt(1.25); valleys none, hips at 45 degrees,
    rising atan(0.5 / sqrt 2) = 19.5 degrees. Space over the bearing lines: a prism of the ridge's length and two half
    pyramids, and the heel all over."""
    project = over(box_house(12_000, 8000), "hip")
    building = resolve(project)
    tables = {held.label: held for held in describe_element(project, building, "roof-1").outcome}
    plan = (12_000 + 2 * EAVE) * (8000 + 2 * EAVE) / 1e6
    assert float(tables["Area of the slopes"].total.split()[0]) == pytest.approx(plan * math.sqrt(1.25), abs=0.06)
    (hips,) = tables["Length of hips"].rows
    assert hips.label == "4 x hip, 45.0° in plan, rising 19.5°"
    assert "Length of valleys" not in tables and "Length of ridges" in tables
    (roof,) = building.roofs
    wedge = 2000 * 8000 / 2 * 4000 + 2000 * 8000 * 8000 / 3
    heel = (roof.heel.total - roof.plate.total) * 12_000 * 8000
    assert float(tables["Space below the slopes"].total.split()[0]) == pytest.approx((wedge + heel) / 1e9, abs=0.06)
