"""The roof plan: slopes with their pitch and true area, falls, overhangs, ridge heights, and what is left open."""

from __future__ import annotations

import math
import re

import pytest
from shapely.geometry import LineString

from deepsection.core.drawing import Dimension, Drawing, Region, Stroke, Text
from deepsection.core.edits import AddOnRoof, apply_edits
from deepsection.core.model import Project
from deepsection.core.resolve import resolve
from deepsection.core.trades.onroofs.placed import ROOF_FITTINGS
from deepsection.core.view import draw_view, list_views
from tests.builders import box_house, l_house
from tests.core.resolve.test_dormers import dormer
from tests.core.resolve.test_roofs import EAVE, changed_edge, over, rectangle_roof

near = pytest.approx


def roof_plan(project: Project, scale: float = 100.0, look: float | None = None) -> Drawing:
    return draw_view(resolve(project), project, "plan:roof", scale, look_deg=look)


def texts(drawing: Drawing) -> list[str]:
    return [mark.text for mark in drawing.marks if isinstance(mark, Text)]


def test_it_is_a_view_once_there_is_a_roof() -> None:
    assert "plan:roof" not in [view.name for view in list_views(box_house(12_000, 8000))]
    assert ("plan:roof", "Roof plan") in [
        (view.name, view.title) for view in list_views(over(box_house(12_000, 8000), "hip"))
    ]


def test_areas_are_true_and_add_up() -> None:
    """By hand: the cover of 12.824 x 8.824 m times the slope factor of 6:12, printed to a tenth of a square metre."""
    shown = [float(text.split()[0]) for text in texts(roof_plan(over(box_house(12_000, 8000), "hip"))) if "m²" in text]
    assert len(shown) == 4
    cover = (12_000 + 2 * EAVE) * (8000 + 2 * EAVE) / 1e6
    assert sum(shown) == near(cover * math.sqrt(1.25), abs=0.2)


def test_ridges_have_their_length_and_the_height_of_their_sum() -> None:
    """A hip roof of equal pitches over 12 by 8 m: 4 m of ridge."""
    project = over(box_house(12_000, 8000), "hip")
    (roof,) = resolve(project).roofs
    (ridge,) = [text for text in texts(roof_plan(project)) if text.startswith("ridge")]
    _, length, _, level = ridge.split()
    assert length == "4000" and 1000 * float(level) == near(roof.ridge_top.total, abs=0.51)


def test_spans_from_wall_to_ridge_to_wall() -> None:
    """A gable roof over 12 by 8 m: each half spans 4 m, the eaves and rakes reach past the frames; opposite sides are
    the same, and shown once."""
    project = over(box_house(12_000, 8000), "gable")
    (roof,) = resolve(project).roofs
    drawing = roof_plan(project)
    figures = {
        name: [
            m.text
            for m in drawing.marks
            if isinstance(m, Dimension) and (m.annotation or "").startswith(f"string:{name}:")
        ]
        for name, _ in drawing.strings
    }
    assert {name for name, shown in drawing.strings if shown} == {
        "bottom:spans", "bottom:overall", "right:spans", "right:overall"
    }  # fmt: skip
    eave, rake = (f"{round(reach)}" for reach in (roof.reaches[0], roof.reaches[1]))
    across, along = ("right", "bottom") if len(figures["right:spans"]) == 4 else ("bottom", "right")
    middle = figures[f"{across}:spans"][1:3]
    assert middle[0] == middle[1] == f"{(8000 if across == 'right' else 12_000) // 2}"
    assert {figures[f"{across}:spans"][0], figures[f"{along}:spans"][0]} == {eave, rake}
    assert len(figures[f"{along}:spans"]) == 3


def test_the_ridge_of_a_gambrel_has_one_height_in_all_views() -> None:
    """The covering over the ridge is that of the upper slopes, though the lower ones are steeper."""
    project = over(box_house(12_000, 8000), "gable")
    for edge in (0, 2):
        project = changed_edge(project, edge, pitch=1.5, height=2400.0, upper_pitch=0.5)
    (roof,) = resolve(project).roofs
    (ridge,) = [text for text in texts(roof_plan(project)) if text.startswith("ridge")]
    assert 1000 * float(ridge.split()[-1]) == near(roof.ridge_top.total, abs=0.51)
    assert {round(proof.total, 3) for proof in roof.proofs} == {round(roof.ridge_top.total, 3)}


@pytest.mark.parametrize("look", [90.0, 0.0, 200.0])
def test_arrows_point_down_the_slopes(look: float) -> None:
    """Every fall runs away from the ridge and square to its eave, however the plan is turned."""
    project = over(box_house(12_000, 8000), "gable")
    drawing = roof_plan(project, look=look)
    ridge = next(mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "ridge")
    (ax, ay, _), (bx, by, _) = ridge.path
    falls = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "fall"]
    assert len(falls) == 2
    for fall in falls:
        (x0, y0, _), (x1, y1, _) = fall.path
        assert (x1 - x0) * (bx - ax) + (y1 - y0) * (by - ay) == near(0.0, abs=1e-3)

        def off(x: float, y: float) -> float:
            return abs((bx - ax) * (y - ay) - (by - ay) * (x - ax))

        assert off(x1, y1) > off(x0, y0)


def test_overhangs_are_those_that_were_typed() -> None:
    drawing = roof_plan(over(box_house(12_000, 8000), "gable"))
    over_by = sorted(mark.text for mark in drawing.marks if isinstance(mark, Dimension) and mark.feature == "overhang")
    assert over_by == ["300", "300", "400", "400"]
    for mark in drawing.marks:
        if isinstance(mark, Dimension) and mark.feature == "overhang":
            assert math.dist((mark.x1, mark.y1), (mark.x2, mark.y2)) == near(float(mark.text))


def test_what_no_roof_covers_is_shown() -> None:
    """A gable over the main part of an L leaves its leg open: 7 x 3 m, less what the eave covers of it."""
    half = rectangle_roof(l_house(), "gable", 0, 0, 12_000, 6500)
    drawing = roof_plan(half)
    (left,) = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "open"]
    ys = [y for _, y, _ in left.path]
    assert min(ys) == near(6500 + EAVE, abs=5.0) and "no roof here" in texts(drawing)
    whole = roof_plan(over(l_house(), "hip"))
    assert "no roof here" not in texts(whole)


def test_lines_under_a_higher_roof_are_not_drawn() -> None:
    drawing = roof_plan(dormer("gable"))
    lines = [
        mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.part == "roof-1/roofing//" and mark.path
    ]
    assert lines
    # Below the dormer's eaves, between its walls and its fascia, the main roof runs on unseen.
    for mark in lines:
        for x, y, _ in mark.path:
            assert not (5000 - 150 < x < 5000 - 50 and 1300 < y < 1900)


def test_lettering_keeps_clear_of_ridges_that_are_too_short() -> None:
    drawing = roof_plan(over(box_house(8600, 8000), "hip"))
    assert not [text for text in texts(drawing) if text.startswith("ridge")]
    assert all(re.fullmatch(r"[\d.]+ m²|[\d.]+°|hip [\d.]+", text) for text in texts(drawing))


def test_slopes_are_filled_the_higher_over_the_lower() -> None:
    drawing = roof_plan(dormer("gable"))
    owners = [
        str(mark.part).split("/")[0] for mark in drawing.marks if isinstance(mark, Region) and mark.fill == "paper"
    ]
    slopes = [owner for owner in owners if owner in ("roof-1", "dormer")]
    assert slopes == sorted(slopes, reverse=True), "the main roof first, the dormer over it"


def test_hips_have_their_true_lengths() -> None:
    """Check value: a hip over a run r of equal pitches 1 in 2 is r x sqrt(2.25) long."""
    lengths = [text for text in texts(roof_plan(over(box_house(12_000, 8000), "hip"))) if text.startswith("hip")]
    assert len(lengths) == 4
    assert [float(text.split()[1]) for text in lengths] == near([(4000 + EAVE) * 1.5] * 4, abs=0.06)


def test_what_goes_through_is_drawn_and_lettering_keeps_clear_of_it() -> None:
    project = over(box_house(12_000, 8000), "gable")
    (fall, *_) = [mark for mark in roof_plan(project).marks if getattr(mark, "feature", None) == "fall"]
    (u0, w0, _), (u1, w1, _) = fall.path
    chimney = AddOnRoof(id="stack", what="chimney", x=(u0 + u1) / 2, y=(w0 + w1) / 2)
    pipe = AddOnRoof(id="drain", what="downpipe", x=3000, y=0)
    project = apply_edits(project, (chimney, pipe))
    drawing = roof_plan(project)
    parts = {mark.part.split("/")[0] for mark in drawing.marks if getattr(mark, "part", None)}
    assert {"stack", "drain"} <= parts and "downpipe" in texts(drawing)
    (stack,) = resolve(project)[ROOF_FITTINGS].chimneys
    falls = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "fall"]
    assert falls and all(LineString([point[:2] for point in mark.path]).distance(stack.outline) > 500 for mark in falls)
    plan = draw_view(resolve(project), project, "plan", 100.0)
    cut = [mark for mark in plan.marks if getattr(mark, "part", None) == "stack/chimney//"]
    assert [mark.pen for mark in cut] == ["cut", "edge"]
