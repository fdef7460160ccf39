"""Section lines stop before lettering: no name and no figure of a plan is crossed."""

from __future__ import annotations

from collections.abc import Callable

import pytest
from shapely import affinity
from shapely.geometry import LineString, Polygon, box

from deepsection.core.drawing import Dimension, Drawing, Stroke, Text, explode
from deepsection.core.edits import put
from deepsection.core.model import Project, SectionLine
from deepsection.core.resolve import resolve
from deepsection.core.view import draw_view
from deepsection.demo import DEMOS


def plan(project: Project, scale: float) -> Drawing:
    return draw_view(resolve(project), project, "plan", scale)


def section_lines(drawing: Drawing, id: str) -> list[LineString]:
    held = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.part == f"{id}/section//"]
    return [LineString([point[:2] for point in mark.path]) for mark in held]


@pytest.mark.parametrize("make", DEMOS, ids=lambda make: make.__name__)
@pytest.mark.parametrize("share", [0.5, 1.0])
def test_no_section_line_crosses_a_room_name_or_a_figure(make: Callable[[], Project], share: float) -> None:
    """At the scale of the project and at twice that; lettering that cannot stand apart from its line loses the line."""
    project = make()
    drawing = plan(project, project.scale * share)
    lines = [line for held in project.sections for line in section_lines(drawing, held.id)]
    texts = [mark for mark in explode(drawing).marks if isinstance(mark, Text) and "/section/" not in (mark.part or "")]
    assert lines and texts
    crossed = [mark.text for mark in texts if any(_box(mark, drawing.scale).intersects(line) for line in lines)]
    assert crossed == []


def _box(mark: Text, scale: float) -> Polygon:
    """What a text takes: mono letters are 0.6 em wide, an em being 1.43 capitals high; others somewhat less."""
    letter = 0.86 if mark.face == "mono" else 0.64
    wide, high = len(mark.text) * mark.size * letter * scale, mark.size * scale
    low = {"bottom": 0.0, "middle": -high / 2, "top": -high}[mark.valign]
    left = {"left": 0.0, "centre": -wide / 2, "right": -wide}[mark.align]
    turned = affinity.rotate(box(left, low, left + wide, low + high), mark.angle, origin=(0, 0))
    return affinity.translate(turned, mark.x, mark.y)


def test_what_is_left_of_a_line_reaches_from_end_to_end() -> None:
    project = next(make() for make in DEMOS if make().id == "otterfold")
    x0, y0, x1, y1 = plan(project, 96.0).bounds
    x0, x1 = x0 - 2000.0, x1 + 2000.0
    across = SectionLine(id="cut", name="Z", x1=x0, y1=(y0 + y1) / 2, x2=x1, y2=(y0 + y1) / 2, look="left")
    drawing = plan(put(project, across), 96.0)
    pieces = section_lines(drawing, "cut")
    ends = sorted(x for line in pieces for x, _ in line.coords)
    assert (ends[0], ends[-1]) == pytest.approx((x0, x1))
    assert sum(line.length for line in pieces) > 0.5 * (x1 - x0)
    assert any(isinstance(mark, Dimension) for mark in drawing.marks)
