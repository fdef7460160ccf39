"""Strings of dimensions: they add up, measure what the trade measures, and no text lies on another."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable

import pytest

from deepsection.core.drawing import Dimension, Drawing, Text, explode
from deepsection.core.edits import AddBay, apply_edits, put
from deepsection.core.model import Project
from deepsection.core.resolve import resolve
from deepsection.core.units import parse_length
from deepsection.core.view import draw_view
from deepsection.demo import DEMOS
from tests.builders import box_house, window


def plan(project: Project, scale: float = 48.0, look: float = 90.0) -> Drawing:
    return draw_view(resolve(project), project, "plan", scale, look_deg=look)


@pytest.mark.parametrize("make", DEMOS)
@pytest.mark.parametrize("look", [90.0, 180.0])
def test_every_string_adds_up_to_the_overall(make: Callable[[], Project], look: float) -> None:
    project = make()
    sides: dict[tuple[bool, bool], dict[str, float]] = defaultdict(lambda: defaultdict(float))
    for mark in plan(project, look=look).marks:
        if isinstance(mark, Dimension):
            side = sides[mark.y1 == mark.y2, mark.offset > 0]
            side[str(mark.feature)] += parse_length(mark.text, project.units)
    assert len(sides) == 4
    for strings in sides.values():
        assert "openings" in strings
        assert all(total == pytest.approx(strings["overall"], abs=1e-6) for total in strings.values())


@pytest.mark.parametrize("make", DEMOS)
@pytest.mark.parametrize("scale", [48.0, 96.0, 192.0])
def test_no_text_of_a_dimension_lies_on_another(make: Callable[[], Project], scale: float) -> None:
    """Boxes as wide as the letters of the font, at any scale: lettering that would touch is raised."""
    texts = [m for m in explode(plan(make(), scale)).marks if isinstance(m, Text) and m.feature == "dimension"]
    boxes = []
    for mark in texts:
        half, high = len(mark.text) * 2.15 * scale / 2, mark.size * scale
        if abs(mark.angle) < 1:
            boxes.append((mark.x - half, mark.y, mark.x + half, mark.y + high))
        else:
            boxes.append((mark.x - high, mark.y - half, mark.x, mark.y + half))
    for k, a in enumerate(boxes):
        for b in boxes[k + 1 :]:
            assert min(a[2], b[2]) - max(a[0], b[0]) < 1 or min(a[3], b[3]) - max(a[1], b[1]) < 1


def test_windows_are_set_out_by_middles_in_timber_and_by_edges_in_masonry() -> None:
    house = put(box_house(8000, 6000), window("w1", "south", 2000, width=1200))
    timber = [d.text for d in plan(house).marks if isinstance(d, Dimension) and d.feature == "openings"]
    assert timber == ["2000", "6000"]
    masonry = put(house.model_copy(update={"tradition": "masonry"}))
    edges = [d.text for d in plan(masonry).marks if isinstance(d, Dimension) and d.feature == "openings"]
    assert edges == ["1400", "1200", "5400"]


def test_a_bay_breaks_its_side_and_no_other() -> None:
    ids = {"joints": ("b1", "b2", "b3", "b4"), "walls": ("x", "y", "z"), "rest": "s2"}
    bay = AddBay(wall="south", distance=3000, width=2400, out=600, **ids)
    marks = [d for d in plan(apply_edits(box_house(8000, 6000), (bay,))).marks if isinstance(d, Dimension)]
    breaks = [d.text for d in marks if d.feature == "breaks"]
    assert breaks[:3] == ["1800", "2400", "3800"]
    assert breaks[3:5] == ["600", "6000"] and breaks[5:] == ["600", "6000"], "how far it stands out, at both ends"
