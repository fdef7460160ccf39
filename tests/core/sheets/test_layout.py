"""Where views go on a sheet by themselves: within the frame, clear of each other and of the title block."""

from __future__ import annotations

import itertools

import pytest

from deepsection.core.edits import changed
from deepsection.core.errors import UnknownElement
from deepsection.core.model import PlacedView, Project, Sheet
from deepsection.core.resolve import Building
from deepsection.core.sheets import compose, free_place, paper
from deepsection.core.sheets.compose import footprint, title_block

SIDES = ("elevation:south", "elevation:east", "elevation:north", "elevation:west")


def filled(house: Project, building: Building, sheet: Sheet, views: tuple[str, ...], scale: float) -> Sheet:
    for number, view in enumerate(views):
        size = paper(sheet.paper)
        held = PlacedView(id=f"v{number}", view=view, scale=scale, x=size.width / 2, y=size.height / 2)
        sheet = changed(sheet, placed=(*sheet.placed, free_place(house, building, sheet, held)))
    return sheet


def apart(a: tuple[float, ...], b: tuple[float, ...]) -> bool:
    return a[2] < b[0] or b[2] < a[0] or a[3] < b[1] or b[3] < a[1]


@pytest.mark.parametrize(("size", "scale", "units"), [("ARCH C", 96, "ft-in"), ("A2", 100, "mm")])
def test_four_sides_find_their_places(house: Project, building: Building, size: str, scale: float, units: str) -> None:
    house = changed(house, units=units)
    sheet = filled(house, building, Sheet(id="s", number="A9", name="Sides", paper=size), SIDES, scale)
    drawn = compose(house, building, sheet, date="")
    assert drawn.messages == ()
    boxes = [footprint(held, house.units) for held in drawn.placed]
    assert len(boxes) == 4
    for a, b in itertools.combinations([*boxes, title_block(drawn.paper)], 2):
        assert apart(a, b)


def test_a_view_alone_stands_in_the_middle(house: Project, building: Building) -> None:
    sheet = filled(house, building, Sheet(id="s", number="A9", name="One", paper="ARCH C"), SIDES[:1], 96)
    (held,) = compose(house, building, sheet, date="").placed
    x0, _, x1, _ = footprint(held, house.units)
    fx0, _, fx1, _ = paper("ARCH C").frame
    assert x0 - fx0 == pytest.approx(fx1 - x1, abs=0.01)


def test_what_fits_nowhere_stays_and_is_said(house: Project, building: Building) -> None:
    sheet = filled(house, building, Sheet(id="s", number="A9", name="Small", paper="ANSI A"), SIDES[:1], 24)
    assert (sheet.placed[0].x, sheet.placed[0].y) == pytest.approx((11 * 25.4 / 2, 8.5 * 25.4 / 2))
    ((_, message),) = compose(house, building, sheet, date="").messages
    assert "does not fit" in message


def test_a_view_that_is_not_there_cannot_be_placed(house: Project, building: Building) -> None:
    with pytest.raises(UnknownElement, match="elevation:up"):
        filled(house, building, Sheet(id="s", number="A9", name="None", paper="A3"), ("elevation:up",), 100)
