"""Walls unfolded: each in its true width, beside each other, with what stands on them."""

from __future__ import annotations

import math

import pytest
import shapely

from deepsection.core.drawing import Dimension, Drawing, Region, Stroke, Symbol, Text
from deepsection.core.edits import Remove, apply_edits, put
from deepsection.core.model import Annotation, ElevationView, Note, PartAnchor, Project, ViewShow
from deepsection.core.resolve import resolve
from deepsection.core.view import draw_view
from deepsection.demo import wrenfold_house
from tests.builders import chain_house

near = pytest.approx
BAY = ("bay-w", "bay-s", "bay-e")


def unfolded(project: Project, *walls: str) -> Project:
    return put(project, ElevationView(id="view", name="Unfolded", look=90.0, walls=walls))


def drawn(project: Project) -> Drawing:
    return draw_view(resolve(project), project, "elevation:view", 48.0)


def clad(drawing: Drawing, wall: str) -> shapely.Geometry:
    rings = [
        m.rings[0] for m in drawing.marks if isinstance(m, Region) and (m.part or "").startswith(f"{wall}/cladding")
    ]
    return shapely.union_all([shapely.Polygon([point[:2] for point in ring]) for ring in rings])


def angled() -> Project:
    """A house whose south side has a bay of three: 2000 at 45 degrees, 3000, 2000 at 45 degrees."""
    leg = 2000 / math.sqrt(2)
    corners = (
        ("a", 0.0, 0.0),
        ("b", leg, -leg),
        ("c", leg + 3000, -leg),
        ("d", 2 * leg + 3000, 0.0),
        ("e", 2 * leg + 3000, 5000.0),
        ("f", 0.0, 5000.0),
    )
    return chain_house(corners, ("w1", "w2", "w3", "w4", "w5", "w6"))


def test_walls_stand_side_by_side_in_their_true_width() -> None:
    """By hand: the frame is 3000 wide in the middle; its skin s outside of it adds 2 s tan(22.5) where walls turn by
    45 degrees. In a plain elevation the two others would be 0.71 of their width."""
    project = unfolded(angled(), "w1", "w2", "w3")
    skin = resolve(project).plan.by_id["w2"].outer
    drawing = drawn(project)
    boxes = [clad(drawing, wall).bounds for wall in ("w1", "w2", "w3")]
    middle = 3000 + 2 * skin * math.tan(math.radians(22.5))
    assert boxes[1][2] - boxes[1][0] == near(middle, abs=0.1)
    assert boxes[0][2] - boxes[0][0] == near(boxes[2][2] - boxes[2][0], abs=0.1)
    assert boxes[0][2] - boxes[0][0] > 2000
    assert boxes[0][0] == near(0.0, abs=0.1) and boxes[0][2] == near(boxes[1][0], abs=0.1)
    widths = {mark.annotation: mark for mark in drawing.marks if isinstance(mark, Dimension)}
    assert widths["width:w2"].text == f"{middle:.0f}", "whole millimetres: the rule of the project"
    assert widths["width:overall"].x2 == near(boxes[2][2], abs=0.1)
    angles = [mark.text for mark in drawing.marks if isinstance(mark, Text) and mark.feature == "fold"]
    assert angles == ["135°", "135°"]


def test_a_bay_is_seen_with_its_window_its_eave_and_its_heights() -> None:
    project = unfolded(wrenfold_house(), *BAY)
    drawing, building = drawn(project), resolve(project)
    own = building.plan.by_id["bay-w"]
    widths = {mark.annotation: mark for mark in drawing.marks if isinstance(mark, Dimension)}
    assert widths["width:bay-w"].x2 - widths["width:bay-w"].x1 == near(own.length, abs=own.outer)
    roles = {mark.part.split("/")[1] for mark in drawing.marks if isinstance(mark, Region) and mark.part}
    assert {"cladding", "glass", "fascia", "roofing"} <= roles
    levels = {mark.texts[0]: mark.y for mark in drawing.marks if isinstance(mark, Symbol)}
    assert levels["Plate"] == near(building.levels["plate"].z) and "Footing" not in levels
    assert [mark.text for mark in drawing.marks if isinstance(mark, Text) and mark.annotation == "number:w1"] == ["W1"]
    hatched = [mark for mark in drawing.marks if isinstance(mark, Region) and mark.hatch is not None]
    assert {drawing.hatches[mark.hatch or 0].name for mark in hatched} >= {"lap_board", "shingle"}


def test_a_note_stands_with_its_wall_and_lettering_is_moved() -> None:
    project = unfolded(wrenfold_house(), *BAY)
    key = next(part.key for part in resolve(project).parts if part.element == "bay-e" and part.role == "cladding")
    note = Note(id="note-1", view="elevation:view", text="New corner", anchor=PartAnchor.on(key))
    project = put(
        project, note, ViewShow(id="s", view="elevation:view", annotations=(Annotation(key="number:w1", dx=5.0),))
    )
    drawing = drawn(project)
    (leader,) = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.part == "note-1"]
    x0, _, x1, _ = clad(drawing, "bay-e").bounds
    assert x0 - 1 < leader.path[-1][0] < x1 + 1
    (number,) = [mark for mark in drawing.marks if isinstance(mark, Text) and mark.annotation == "number:w1"]
    (plain,) = [
        m for m in drawn(unfolded(wrenfold_house(), *BAY)).marks if isinstance(m, Text) and m.annotation == "number:w1"
    ]
    assert number.x - plain.x == near(5.0 * 48)


def test_walls_that_are_removed_leave_the_view() -> None:
    project = unfolded(angled(), "w1", "w2")
    one = apply_edits(project, (Remove(elements=("w2",)),))
    assert one.elevations[0].walls == ("w1",)
    assert apply_edits(project, (Remove(elements=("w1", "w2")),)).elevations == ()
    lost = draw_view(resolve(angled()), unfolded(angled(), "gone"), "elevation:view", 48.0)
    assert lost.marks == () and "are gone" in lost.messages[0]


def test_a_fold_is_hidden_and_moved_like_other_lettering() -> None:
    project = unfolded(angled(), "w1", "w2", "w3")
    changes = (Annotation(key="fold:w1:w2", hidden=True), Annotation(key="fold:w2:w3", dy=3.0))
    shown = drawn(put(project, ViewShow(id="s", view="elevation:view", annotations=changes)))
    before, after = (
        {mark.annotation: mark.y for mark in held.marks if isinstance(mark, Text) and mark.feature == "fold"}
        for held in (drawn(project), shown)
    )
    assert set(before) == {"fold:w1:w2", "fold:w2:w3"} and set(after) == {"fold:w2:w3"}
    assert after["fold:w2:w3"] - before["fold:w2:w3"] == near(3.0 * 48)
