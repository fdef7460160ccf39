"""Fields of roofs: what is typed, and the edges that it changes."""

from __future__ import annotations

import pytest

from deepsection.core.errors import DeepSectionError
from deepsection.core.model import Project, apply_edits
from deepsection.core.particulars import enter
from deepsection.core.resolve import resolve
from tests.builders import box_house
from tests.core.resolve.test_roofs import over


def typed(project: Project, field: str, text: str) -> Project:
    return apply_edits(project, enter(project, "roof-1", field, text))


def test_a_ridge_height_gives_the_pitch() -> None:
    project = typed(over(box_house(12_000, 8000), "hip"), "ridge", "5500")
    (roof,) = resolve(project).roofs
    assert roof.ridge_top.total == pytest.approx(5500, abs=1e-3)
    with pytest.raises(DeepSectionError, match="no pitch"):
        typed(project, "ridge", "2000")


def test_a_break_is_typed_as_height_and_pitch() -> None:
    project = typed(over(box_house(12_000, 8000), "gable"), "pitch_0", "60°")
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
        ("pitch_1", "89°", "cannot be built"),
        ("overhang_1", "wide", "length"),
        ("kind_1", "dome", "not one of the choices"),
    ],
)
def test_bad_input_is_answered_at_its_field(field: str, text: str, words: str) -> None:
    with pytest.raises(DeepSectionError, match=words):
        typed(over(box_house(12_000, 8000), "hip"), field, text)


def test_one_overhang_is_typed_for_all_eaves_or_for_one() -> None:
    project = over(box_house(12_000, 8000), "gable")
    wide = typed(project, "overhang", "600")
    assert [edge.overhang for edge in wide.roofs[0].edges] == [600, 300, 600, 300]
    one = typed(wide, "overhang_2", "250")
    assert [edge.overhang for edge in one.roofs[0].edges] == [600, 300, 250, 300]
