"""Notes: what is clicked in a view is what they hold on to, in every view that shows space."""

from __future__ import annotations

import math
import random
from collections.abc import Callable

import pytest
import shapely

from deepsection.core.drawing import Drawing, Region, Stroke, Text, text_width
from deepsection.core.edits import Remove, apply_edits, put
from deepsection.core.errors import BadInput, RefusedEdit
from deepsection.core.model import (
    GridAnchor,
    GridLine,
    LevelAnchor,
    Note,
    PartAnchor,
    PointAnchor,
    Project,
)
from deepsection.core.resolve import resolve
from deepsection.core.view import anchor_in, draw_view, list_views
from deepsection.demo import larkmoor_house
from tests.builders import box_house
from tests.campaigns import most_demos, share

SOUTH = "elevation:south"


def leaders(drawing: Drawing, note: str) -> list[Stroke]:
    return [
        mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.part == note and mark.feature == "leader"
    ]


def texts(drawing: Drawing, note: str) -> list[Text]:
    return [mark for mark in drawing.marks if isinstance(mark, Text) and mark.part == note]


@pytest.mark.parametrize("demo", most_demos())
def test_a_note_points_at_what_was_clicked(demo: Callable[[], Project]) -> None:
    """In every view, at marks of parts: the line of a note ends where the click was."""
    project = demo()
    building = resolve(project)
    choice = random.Random(3)
    for view in list_views(project):
        if view.name.startswith("section:setting"):
            continue
        drawing = draw_view(building, project, view.name, 50.0)
        areas = [
            mark
            for mark in drawing.marks
            if isinstance(mark, Region) and mark.part and (mark.part in building.by_key or building.parts_of(mark.part))
        ]
        for mark in choice.sample(areas, min(share(1, 3), len(areas))):
            rings = [[(x, y) for x, y, _ in ring] for ring in mark.rings]
            if len(rings[0]) < 3:
                continue
            ring = shapely.Polygon(rings[0], rings[1:])
            if not ring.is_valid or ring.area < 100.0:
                continue
            spot = ring.representative_point()
            anchor = anchor_in(building, project, view.name, mark.part or "", spot.x, spot.y)
            assert isinstance(anchor, PartAnchor), (view.name, mark.part)
            noted = put(project, Note(id="note-9", view=view.name, text="Here", anchor=anchor))
            drawn = draw_view(building, noted, view.name, 50.0)
            (line,) = leaders(drawn, "note-9")
            assert math.dist(line.path[-1][:2], (spot.x, spot.y)) < 2.0, (view.name, mark.part, anchor)


def test_a_note_on_a_level_a_grid_line_or_nothing_holds_on_to_that() -> None:
    house = put(box_house(9000.0, 6000.0), GridLine(id="g", name="A", x=3000.0, y=0.0, angle=90.0))
    building = resolve(house)
    plate = building.levels["plate"].z
    level = anchor_in(building, house, SOUTH, "plate", 12_000.0, plate)
    assert isinstance(level, LevelAnchor) and level.at is not None and level.at[0] == pytest.approx(12_000.0)
    grid = anchor_in(building, house, SOUTH, "g", 3000.0, 4000.0)
    assert isinstance(grid, GridAnchor) and grid.height == pytest.approx(4000.0)
    free = anchor_in(building, house, SOUTH, "", -3000.0, 500.0)
    assert isinstance(free, PointAnchor) and (free.x, free.z) == pytest.approx((-3000.0, 500.0))
    for k, (anchor, want) in enumerate(
        ((level, (12_000.0, plate)), (grid, (3000.0, 4000.0)), (free, (-3000.0, 500.0)))
    ):
        noted = put(house, Note(id=f"n{k}", view=SOUTH, text="Here", anchor=anchor))
        (line,) = leaders(draw_view(building, noted, SOUTH, 50.0), f"n{k}")
        assert line.path[-1][:2] == pytest.approx(want, abs=0.01)


def test_where_a_view_shows_no_space_and_far_from_the_drawing_a_note_is_refused() -> None:
    house = box_house(9000.0, 6000.0)
    building = resolve(house)
    with pytest.raises(BadInput, match="not so far"):
        anchor_in(building, house, SOUTH, "", 1e9, 0.0)
    stairs = larkmoor_house()
    setting = next(view.name for view in list_views(stairs) if view.name.startswith("section:setting"))
    with pytest.raises(RefusedEdit, match="nothing is shown here"):
        anchor_in(resolve(stairs), stairs, setting, "", 0.0, 0.0)


def test_a_long_note_goes_on_in_the_next_line_and_stands_where_it_was_put() -> None:
    house = box_house(9000.0, 6000.0)
    building = resolve(house)
    key = next(part.key for part in building.parts if part.element == "south" and part.role == "cladding")
    words = "Lap boards of 19 mm, laid with 32 mm of lap over battens and a breather membrane, painted on all sides"
    note = Note(id="n", view=SOUTH, text=words, anchor=PartAnchor.on(key, side="outside"), offset=(-30.0, 25.0))
    drawing = draw_view(building, put(house, note), SOUTH, 50.0)
    lines = texts(drawing, "n")
    assert len(lines) > 1 and " ".join(line.text for line in lines) == words
    assert max(text_width(line.text, line.size, line.face) for line in lines) < 63.0
    (leader,) = leaders(drawing, "n")
    x, y, _ = leader.path[-1]
    assert lines[0].y == pytest.approx(y + 25.0 * 50.0) and lines[0].x == pytest.approx(x - 30.0 * 50.0)


def test_a_note_on_a_wall_that_goes_and_comes_back() -> None:
    house = box_house(9000.0, 6000.0)
    key = next(part.key for part in resolve(house).parts if part.element == "south" and part.role == "cladding")
    noted = put(house, Note(id="n", view=SOUTH, text="Here", anchor=PartAnchor.on(key), last=(4000.0, 0.0, 900.0)))
    gone = apply_edits(noted, (Remove(elements=("south",)),))
    drawing = draw_view(resolve(gone), gone, SOUTH, 50.0)
    (leader,) = leaders(drawing, "n")
    assert leader.path[-1][:2] == pytest.approx((4000.0, 900.0), abs=0.01)
    assert any("lost what it points at" in message for message in drawing.messages)
    assert draw_view(resolve(noted), noted, SOUTH, 50.0).messages == ()
