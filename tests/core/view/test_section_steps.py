"""Section lines that step sideways: each part shows what a plain section there shows, and nothing else."""

from __future__ import annotations

import math
from collections import defaultdict

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon

from deepsection.core.document.motion import Motion
from deepsection.core.drawing import Drawing, Region, Stroke
from deepsection.core.edits import Transform, apply_edits, changed, put
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import Project, SectionLine, SectionStep
from deepsection.core.resolve import resolve
from deepsection.core.view import draw_view
from deepsection.core.view.section_panels import section_frame
from deepsection.demo import larkmoor_house, otterfold_house
from tests.builders import box_house, gable
from tests.campaigns import share
from tests.reading import faults
from tests.turning import turned


def base(project: Project, id: str = "section-a") -> SectionLine:
    return next(line for line in project.sections if line.id == id)


def stepped(project: Project, *steps: tuple[float, float]) -> Project:
    return put(project, changed(base(project), steps=tuple(SectionStep(along=a, ahead=by) for a, by in steps)))


def areas(drawing: Drawing, left: float, right: float) -> dict[str, float]:
    """mm2 that are cut per part between two ends of the view, but of membranes, which lie on blank paper."""
    found: dict[str, float] = defaultdict(float)
    for mark in drawing.marks:
        if isinstance(mark, Region) and mark.feature == "cut" and mark.part and "/membrane/" not in mark.part:
            outer, *holes = ([(x, y) for x, y, _ in ring] for ring in mark.rings)
            found[mark.part] += Polygon(outer, holes).intersection(shapely.box(left, -1e5, right, 1e5)).area
    return {part: area for part, area in found.items() if area > 500.0}


def drawn(project: Project) -> Drawing:
    return draw_view(resolve(project), project, "section:section-a", 25.0)


@given(
    share=st.floats(0.15, 0.85),
    ahead=st.floats(-2500, 2500).filter(lambda by: abs(by) > 1),
    second=st.floats(-1500, 1500),
    degrees=st.sampled_from([0.0, 31.0]),
)
@settings(max_examples=share(3, 12), deadline=None)
def test_each_part_shows_what_a_plain_section_there_shows(
    share: float, ahead: float, second: float, degrees: float
) -> None:
    house = turned(otterfold_house(), degrees)
    line = base(house)
    first = line.length * share
    last = first + (line.length - first) / 2
    drawing = drawn(stepped(house, (first, ahead), (last, second)))
    frame = section_frame(line)
    start = line.x1 * frame.ux + line.y1 * frame.uy
    way = math.copysign(1.0, (line.x2 - line.x1) * frame.ux + (line.y2 - line.y1) * frame.uy)
    nx, ny = line.ahead
    for a, b, by in ((0.0, first, 0.0), (first, last, ahead), (last, line.length, second)):
        left, right = sorted((start + way * a, start + way * b))
        plain = changed(line, x1=line.x1 + nx * by, y1=line.y1 + ny * by, x2=line.x2 + nx * by, y2=line.y2 + ny * by)
        alone = drawn(put(house, plain))
        # Pieces of less than a sliver at the step may be on either side.
        ours, theirs = areas(drawing, left, right), areas(alone, left, right)
        assert sum(ours.values()) == pytest.approx(sum(theirs.values()), rel=1e-3, abs=2000.0)
        assert set(ours) == set(theirs) or all(
            min(ours.get(part, 0.0), theirs.get(part, 0.0)) < 2000.0 for part in set(ours) ^ set(theirs)
        )


def test_a_step_makes_no_line_and_reads_well() -> None:
    house = larkmoor_house()
    project = stepped(house, (base(house).length * 0.45, 1200.0))
    drawing = drawn(project)
    assert faults(drawing) == [] and drawing.messages == ()
    line = base(house)
    frame = section_frame(line)
    way = math.copysign(1.0, (line.x2 - line.x1) * frame.ux + (line.y2 - line.y1) * frame.uy)
    at = line.x1 * frame.ux + line.y1 * frame.uy + way * line.length * 0.45
    step = shapely.LineString([(at, -1e5), (at, 1e5)])
    edges = [mark.path for mark in drawing.marks if isinstance(mark, Stroke) and mark.pen in ("cut", "cut_layer")]
    edges += [
        (*ring, ring[0]) for mark in drawing.marks if isinstance(mark, Region) and mark.pen for ring in mark.rings
    ]
    lines = [shapely.LineString([(x, y) for x, y, _ in held]) for held in edges]
    assert lines and sum(held.intersection(step).length for held in lines) < 1.0


def test_the_plan_shows_the_steps_and_they_turn_and_move_with_the_line() -> None:
    house = gable(box_house(9000.0, 6000.0), 0.5, overhang=400.0)
    line = SectionLine(id="section-a", name="A", x1=-2000.0, y1=3000.0, x2=11_000.0, y2=3000.0)
    project = put(house, changed(line, steps=(SectionStep(along=6000.0, ahead=1000.0),)))
    plan = draw_view(resolve(project), project, "plan", 50.0)
    (knee,) = [mark for mark in plan.marks if isinstance(mark, Stroke) and mark.feature == "step"]
    assert [(round(x), round(y)) for x, y, _ in knee.path] == [
        (3850, 3000),
        (4000, 3000),
        (4000, 4000),
        (4150, 4000),
    ]
    other, lies = base(project).turned_round, [(3000.0, 3000.0), (4000.0, 4000.0)]
    assert [(part.y1, part.y2) for part in other.parts] == lies and other.look == "right"
    motion = Motion(mirror=90.0)
    mirrored = apply_edits(project, (Transform(elements=("section-a",), motion=motion, copies=0),))
    assert [(part.y1, part.y2) for part in base(mirrored).parts] == lies


def test_steps_out_of_order_are_refused_and_past_the_end_are_said() -> None:
    house = box_house(9000.0, 6000.0)
    line = SectionLine(id="section-a", name="A", x1=-2000.0, y1=3000.0, x2=11_000.0, y2=3000.0)
    with pytest.raises(RefusedEdit, match="farther along the line"):
        put(house, changed(line, steps=(SectionStep(along=6000.0, ahead=1.0), SectionStep(along=5000.0, ahead=2.0))))
    project = put(house, changed(line, steps=(SectionStep(along=14_000.0, ahead=500.0),)))
    building = resolve(project)
    (held,) = [one for one in building.diagnostics if one.code == "section-step-off"]
    assert (held.element, held.field, held.limit) == ("section-a", "step:0:along", 13_000.0)
    assert areas(drawn(project), -1e5, 1e5) == areas(drawn(put(house, line)), -1e5, 1e5)
