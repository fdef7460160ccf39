"""Sheets: views where they are placed, true to scale, and a clear word when one does not fit."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from deepsection.core.drawing import Mark, Region, Stroke, Symbol, Text, explode
from deepsection.core.errors import UnknownElement
from deepsection.core.model import PlacedView, Project, Sheet
from deepsection.core.resolve import Building, resolve
from deepsection.core.sheets import PAPERS, SheetDrawing, compose, compose_view
from deepsection.core.view import draw_view, list_views
from deepsection.demo import DEMOS
from tests.campaigns import share
from tests.reading import ink_of


def composed(house: Project, building: Building, *views: PlacedView, paper: str = "A3") -> SheetDrawing:
    return compose(
        house, building, Sheet(id="s", number="A9", name="Test", paper=paper, placed=views), date="2026-01-02"
    )


def at(view: str, scale: float, x: float = 200.0, y: float = 160.0, id: str = "v") -> PlacedView:
    return PlacedView(id=id, view=view, scale=scale, x=x, y=y)


def test_the_demo_sheets_fit(house: Project, building: Building) -> None:
    for sheet in house.sheets:
        drawn = compose(house, building, sheet, date="2026-01-02")
        assert drawn.messages == () and len(drawn.placed) == len(sheet.placed)


def test_views_on_the_demo_sheets_stay_clear_of_each_other(house: Project, building: Building) -> None:
    for sheet in house.sheets:
        boxes = [held.box() for held in compose(house, building, sheet, date="").placed]
        for i, (ax0, ay0, ax1, ay1) in enumerate(boxes):
            for bx0, by0, bx1, by1 in boxes[i + 1 :]:
                assert ax1 <= bx0 or bx1 <= ax0 or ay1 <= by0 or by1 <= ay0


def test_a_view_lies_at_its_scale_around_its_place(house: Project, building: Building) -> None:
    (held,) = composed(house, building, at("elevation:south", 100)).placed
    x0, y0, x1, y1 = held.box()
    assert ((x0 + x1) / 2, (y0 + y1) / 2) == pytest.approx((200, 160))
    b = held.drawing.bounds
    assert (x1 - x0, y1 - y0) == pytest.approx(((b[2] - b[0]) / 100, (b[3] - b[1]) / 100))


def test_a_view_that_is_too_large_names_the_scale_that_fits(house: Project, building: Building) -> None:
    drawn = composed(house, building, at("elevation:south", 12), paper="ARCH B")
    ((id, message),) = drawn.messages
    assert id == "v" and message.endswith('does not fit at 1" = 1\'-0"; it fits at 3/16" = 1\'-0"')
    assert composed(house, building, at("elevation:south", 64, 226, 180), paper="ARCH B").messages == ()
    ((_, again),) = composed(house, building, at("elevation:south", 48, 150, 100), paper="A4").messages
    assert again.endswith('it fits at 3/32" = 1\'-0"')
    assert composed(house, building, at("elevation:south", 128, 153.5, 110), paper="A4").messages == ()
    assert composed(house, building, at("elevation:south", 96, 153, 110), paper="A4").messages != ()


def test_a_view_over_the_frame_is_asked_inward(house: Project, building: Building) -> None:
    ((_, message),) = composed(house, building, at("elevation:south", 128, 40)).messages
    assert "move it inward" in message


def test_a_title_and_scale_bar_over_the_frame_are_asked_inward(house: Project, building: Building) -> None:
    inside = composed(house, building, at("elevation:south", 128))
    (held,) = inside.placed
    y0 = held.box()[1]
    low = composed(house, building, at("elevation:south", 128, 200, 160 - (y0 - inside.paper.frame[1]) + 5))
    assert low.placed[0].box()[1] > inside.paper.frame[1]
    ((_, message),) = low.messages
    assert inside.messages == () and "move it inward" in message


def test_a_view_that_is_gone_is_listed(house: Project, building: Building) -> None:
    drawn = composed(house, building, at("section:ghost", 96))
    assert drawn.placed == () and "no longer in this project" in drawn.messages[0][1]


def test_the_title_block_says_what_it_must(house: Project, building: Building) -> None:
    """Source: ISO 7200, data fields in title blocks (from memory): title, number, date, scale."""
    mixed = composed(house, building, at("elevation:south", 96), at("elevation:east", 128, id="w"))
    texts = {mark.text for mark in mixed.own.marks if isinstance(mark, Text)}
    assert {"Quillback House", "Test", "A9", "2026-01-02", "Scale as noted"} <= texts
    one = composed(house, building, at("elevation:south", 96))
    assert 'Scale 1/8" = 1\'-0"' in {mark.text for mark in one.own.marks if isinstance(mark, Text)}


def test_the_check_line_is_100_mm(house: Project, building: Building) -> None:
    for paper in PAPERS:
        drawn = composed(house, building, paper=paper)
        lines = [mark for mark in drawn.own.marks if isinstance(mark, Stroke) and mark.feature == "check_line"]
        assert [abs(line.path[1][0] - line.path[0][0]) for line in lines] == [100.0]
        x0, y0, x1, y1 = drawn.paper.frame
        assert all(x0 <= x <= x1 and y0 <= y <= y1 for line in lines for x, y, _ in line.path)


def test_every_view_has_a_scale_bar_of_whole_units(house: Project, building: Building) -> None:
    drawn = composed(house, building, at("elevation:south", 96), at("elevation:east", 192, id="w"))
    bars = [mark for mark in drawn.own.marks if isinstance(mark, Symbol) and mark.kind == "scale_bar"]
    assert len(bars) == 2
    for bar, scale in zip(bars, (96, 192)):
        field, _, ratio = bar.values
        assert field / 304.8 == pytest.approx(round(field / 304.8)) and ratio == pytest.approx(1 / scale)


def test_one_view_alone_has_paper_of_its_size(house: Project, building: Building) -> None:
    drawn = compose_view(house, building, "section:section-a", 24)
    x0, y0, x1, y1 = drawn.placed[0].box()
    assert x0 > 0 and y0 > 0 and x1 < drawn.paper.width and y1 < drawn.paper.height


def test_unknown_paper_is_named(house: Project, building: Building) -> None:
    with pytest.raises(UnknownElement, match="Foolscap"):
        composed(house, building, paper="Foolscap")


@pytest.mark.parametrize("make", DEMOS, ids=lambda make: make.__name__)
@pytest.mark.parametrize("times", share([1.0], [1.0, 2.0]))
def test_all_that_a_view_draws_lies_within_its_bounds(make: Callable[[], Project], times: float) -> None:
    """By these a view is set on paper within the border: symbols and lettering count, to a millimetre on paper."""
    project = make()
    building = resolve(project)
    for view in list_views(project):
        drawing = draw_view(building, project, view.name, project.scale * times)
        x0, y0, x1, y1 = drawing.bounds
        room = 1.0 * drawing.scale
        for mark in explode(drawing).marks:
            points = _points(mark, drawing.scale)
            out = max(max(x0 - x, y0 - y, x - x1, y - y1) for x, y in points)
            assert out <= room, (view.name, mark)


def _points(mark: Mark, scale: float) -> list[tuple[float, float]]:
    """Corners of strokes and regions; of lettering those of its ink."""
    if isinstance(mark, Text):
        return list(ink_of(mark, scale).exterior.coords)
    assert isinstance(mark, Stroke | Region)
    paths = mark.rings if isinstance(mark, Region) else (mark.path,)
    return [(x, y) for held in paths for x, y, _ in held]
