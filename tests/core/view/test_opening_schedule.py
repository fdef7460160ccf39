"""The schedule of windows and doors: by hand, grouped by what is made alike, on a sheet."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from deepsection.core.drawing import Text
from deepsection.core.edits import PutOpening, Remove, apply_edits, changed, put
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import Design, Kind, Opening, PlacedView, Project, Sheet
from deepsection.core.particulars import enter
from deepsection.core.resolve import resolve
from deepsection.core.sheets import compose
from deepsection.core.view import SCHEDULE, cells_of, draw_view, heads_of, list_views, opening_rows
from deepsection.demo import DEMOS
from tests.builders import block_house, box_house, window


def kinds() -> Project:
    """Three windows of a kind, one of them smaller; a door of its own."""
    kind = Kind(
        id="k", name="Casement", number="W1", unit="window", maker="Hedge Joinery", note="trickle vent",
        design=Design(operation="casement", width=1200.0, height=1000.0, panels=2, rough=12.0),
    )  # fmt: skip
    places = (("south", 1500.0, 900.0), ("south", 5000.0, 1100.0), ("north", 2000.0, 900.0))
    follows = [
        Opening(id=f"w{k}", wall=wall, end="start", distance=at, sill=sill, unit="window", kind="k")
        for k, (wall, at, sill) in enumerate(places)
    ]
    follows[2] = changed(follows[2], width=900.0)
    door = Opening(
        id="d1",
        wall="east",
        end="start",
        distance=2000.0,
        sill=0.0,
        unit="door",
        number="D1",
        width=900.0,
        height=2050.0,
    )
    return put(box_house(8000.0, 6000.0), kind, *follows, door)


def test_what_is_made_alike_has_one_row_with_all_its_sills() -> None:
    house = kinds()
    rows = opening_rows(resolve(house))
    assert [(row.number, row.count, row.unit) for row in rows] == [
        ("W1", 1, "window"), ("W1", 2, "window"), ("D1", 1, "door")
    ]  # fmt: skip
    small, large, door = rows
    assert (large.width, large.height, large.hole_width, large.hole_height) == (1200.0, 1000.0, 1224.0, 1012.0)
    assert large.sills == (900.0, 1100.0) and large.heads == (1900.0, 2100.0)
    assert (large.maker, large.note) == ("Hedge Joinery", "trickle vent") and small.width == 900.0
    assert door.daylight == 0.0 and door.maker == ""
    # Two lights of 1200 x 1000: frames of 44 around and between, sashes of 45 in each. Sizes from the model's own text.
    light = (1200.0 - 3 * 44.0) / 2 - 2 * 45.0
    assert large.daylight == pytest.approx(2 * light * (1000.0 - 88.0 - 90.0), rel=1e-3)
    cells = cells_of(large, "mm")
    assert cells[:6] == ("W1", "2", "window", "casement, hung at the side", "1200 x 1000", "1224 x 1012")
    assert cells[7:9] == ("900, 1100", "1900, 2100")


def test_one_opening_may_have_another_maker_and_keeps_what_its_kind_said_of_it() -> None:
    house = kinds()
    other = apply_edits(house, enter(house, "w0", "maker", "Mill Lane"))
    assert sorted(row.maker for row in opening_rows(resolve(other)) if row.width == 1200.0) == [
        "Hedge Joinery",
        "Mill Lane",
    ]
    back = apply_edits(other, enter(other, "w0", "maker", "Hedge Joinery"))
    assert back.openings[0].maker is None
    alone = apply_edits(house, (Remove(elements=("k",)),))
    assert {row.maker for row in opening_rows(resolve(alone)) if row.unit == "window"} == {"Hedge Joinery"}
    with pytest.raises(RefusedEdit, match="120"):
        PutOpening(opening=changed(house.openings[0], note="x" * 5000))


def test_masonry_has_masonry_openings_and_lintels_timber_rough_openings_and_headers() -> None:
    stone = put(block_house(), window("w1", "south", 3000.0))
    assert heads_of(stone)[5] == "masonry opening" and heads_of(box_house(8000, 6000))[5] == "rough opening"
    assert opening_rows(resolve(stone))[0].header.endswith("lintel")
    timber = put(box_house(8000, 6000), window("w1", "south", 3000.0))
    assert opening_rows(resolve(timber))[0].header.endswith("header")


@pytest.mark.parametrize("demo", DEMOS)
def test_every_opening_of_a_house_is_in_one_row_and_in_the_drawing(demo: Callable[[], Project]) -> None:
    project = demo()
    building = resolve(project)
    rows = opening_rows(building)
    assert sum(row.count for row in rows) == len(project.openings)
    texts = {mark.text for mark in draw_view(building, project, SCHEDULE, 50.0).marks if isinstance(mark, Text)}
    assert {row.number for row in rows} <= texts


def test_it_lies_on_a_sheet_without_a_scale_and_is_no_view_of_a_house_without_openings() -> None:
    house = kinds()
    placed = PlacedView(id="v", view=SCHEDULE, scale=50.0, x=200, y=200)
    sheet = Sheet(id="s", number="A5", name="Schedules", paper="A3", placed=(placed,))
    drawn = compose(put(house, sheet), resolve(house), sheet, date="2026-11-30")
    assert drawn.messages == () and [held.drawing.kind for held in drawn.placed] == ["schedule"]
    symbols = [mark for mark in drawn.own.marks if getattr(mark, "kind", "") in ("view_title", "scale_bar")]
    assert [mark.kind for mark in symbols] == ["view_title"]  # type: ignore[union-attr]
    assert SCHEDULE not in [view.name for view in list_views(box_house(8000, 6000))]
    bare = apply_edits(house, (Remove(elements=tuple(held.id for held in house.openings)),))
    gone = compose(put(bare, sheet), resolve(bare), sheet, date="2026-11-30")
    assert "no longer in this project" in gone.messages[0][1]
