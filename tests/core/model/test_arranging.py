"""Openings repeated, spread, centred, mirrored and copied: places by plain arithmetic."""

from __future__ import annotations

import pytest

from deepsection.core.edits import (
    CentreOpening,
    CopyOpening,
    MirrorOpening,
    PutOpening,
    RepeatOpening,
    SpreadOpenings,
    apply_edits,
    changed,
    copies_of,
)
from deepsection.core.errors import BadInput, RefusedEdit
from deepsection.core.model import Project
from deepsection.core.particulars import enter, fields_of
from deepsection.core.resolve import resolve
from tests.builders import box_house, window


def with_window(at: float = 1000, end: str = "start") -> Project:
    opening = changed(window("w1", "south", at, width=1000), end=end, hinge="start")
    return apply_edits(box_house(8000, 6000), (PutOpening(opening=opening),))


def middles(project: Project, wall: str = "south") -> list[float]:
    return sorted(placed.centre for placed in resolve(project).openings[wall])


def numbers(project: Project) -> list[str]:
    return sorted(project.number_of(opening) for opening in project.openings)


def test_repeated_at_a_spacing() -> None:
    after = apply_edits(with_window(), (RepeatOpening(opening="w1", ids=("c-1", "c-2", "c-3"), spacing=1500),))
    assert middles(after) == [1000, 2500, 4000, 5500]
    assert numbers(after) == ["W1", "W2", "W3", "W4"]
    back = apply_edits(with_window(1000, "end"), (RepeatOpening(opening="w1", ids=("c-1",), spacing=1500),))
    assert middles(back) == [5500, 7000], "away from the end that it is measured from"


def test_spread_over_the_wall_with_equal_gaps() -> None:
    """(8000 - 3 x 1000) / 4 = 1250 clear: middles at 1750, 4000, 6250."""
    after = apply_edits(with_window(), (SpreadOpenings(opening="w1", ids=("c-1", "c-2")),))
    assert middles(after) == [1750, 4000, 6250]
    with pytest.raises(RefusedEdit, match="wider than their wall") as caught:
        apply_edits(with_window(), (SpreadOpenings(opening="w1", ids=tuple(f"c-{k}" for k in range(7))),))
    assert caught.value.field == "spread" and caught.value.limit == 8


def test_centred_between_neighbours_or_ends() -> None:
    assert middles(apply_edits(with_window(), (CentreOpening(opening="w1"),))) == [4000]
    pair = apply_edits(with_window(), (PutOpening(opening=window("w2", "south", 6000, width=2000)),))
    assert middles(apply_edits(pair, (CentreOpening(opening="w1"),))) == [2500, 6000], "(0 + 5000) / 2"
    assert middles(apply_edits(with_window(3000, "end"), (CentreOpening(opening="w1"),))) == [4000]


def test_mirrored_about_the_middle_of_the_wall() -> None:
    after = apply_edits(with_window(), (MirrorOpening(opening="w1", id="m"),))
    assert middles(after) == [1000, 7000] and after.find("m").hinge == "end"


def test_copied_to_another_wall() -> None:
    after = apply_edits(with_window(), (CopyOpening(opening="w1", id="m", wall="east", distance=2000),))
    assert middles(after, "east") == [2000] and middles(after) == [1000]
    with pytest.raises(RefusedEdit, match="already called"):
        apply_edits(after, (CopyOpening(opening="w1", id="m", wall="east", distance=2000),))


def test_ids_of_copies_are_free() -> None:
    house = with_window()
    once = apply_edits(house, (RepeatOpening(opening="w1", ids=copies_of(house, house.find("w1"), 2), spacing=1200),))
    assert not {held.id for held in once.elements()} & set(copies_of(once, once.find("w1"), 2))


@pytest.mark.parametrize(
    ("field", "text"),
    [("repeat", "3"), ("repeat", "x at 1200"), ("repeat", "0 at 900"), ("spread", "1"), ("spread", "many")],
)
def test_what_is_typed_must_say_how_many(field: str, text: str) -> None:
    with pytest.raises(BadInput) as caught:
        enter(with_window(), "w1", field, text)
    assert caught.value.field == field and "how many" in caught.value.message


def test_typed_in_the_particulars() -> None:
    house = with_window()
    after = apply_edits(house, enter(house, "w1", "repeat", "2 at 1.5m"))
    assert middles(after) == [1000, 2500, 4000]
    assert middles(apply_edits(house, enter(house, "w1", "spread", "3"))) == [1750, 4000, 6250]


def test_copied_onto_a_wall_that_is_named_by_its_side() -> None:
    house = with_window()
    row = next(row for row in fields_of(house, house.find("w1")) if row.field.id == "copy_to")
    labels = {option.value: option.label for option in row.field.options}
    assert labels["north"].startswith("outer wall to the north, 8000") and "south" not in labels
    after = apply_edits(house, enter(house, "w1", "copy_to", "north"))
    assert middles(after, "north") == [1000] and middles(after) == [1000]
    assert enter(house, "w1", "copy_to", "-") == []
