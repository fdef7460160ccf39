"""Section lines that bend: parts unfolded beside each other, with a fold line, in their true sizes."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.document.motion import Motion
from deepsection.core.drawing import Region, Stroke, Text
from deepsection.core.edits import Transform, apply_edits, changed, put
from deepsection.core.model import GridLine, Project, Room, SectionLine, SectionStep
from deepsection.core.resolve import resolve
from deepsection.core.view import draw_view
from deepsection.core.view.section_panels import section_panels
from tests.builders import box_house, gable, joist_house
from tests.reading import faults


def bent(house: Project, *steps: tuple[float, float, float], x: float = 3000.0, look: str = "left") -> Project:
    held = tuple(SectionStep(along=a, ahead=by, turn=turn) for a, by, turn in steps)
    return put(house, SectionLine(id="s", name="A", x1=x, y1=-1500.0, x2=x, y2=9500.0, look=look, steps=held))  # type: ignore[arg-type]


@given(
    turns=st.lists(st.floats(-60, 60).filter(lambda turn: abs(turn) > 0.5), min_size=1, max_size=3),
    aheads=st.lists(st.floats(-500, 500), min_size=3, max_size=3),
    look=st.sampled_from(["left", "right"]),
)
@settings(max_examples=60, deadline=None)
def test_parts_go_on_where_the_one_before_ends(turns: list[float], aheads: list[float], look: str) -> None:
    """In plan each part begins where the last one ends, but for its step aside; on paper none leaves a gap."""
    steps = [(2000.0 * (k + 1), ahead, turn) for k, (turn, ahead) in enumerate(zip(turns, aheads))]
    line = bent(gable(box_house(8000, 6000), 0.5), *steps, look=look).find("s")
    panels = section_panels(line)
    assert sum(math.hypot(p.x2 - p.x1, p.y2 - p.y1) for p in line.parts) == pytest.approx(line.length)
    way = 1.0 if look == "left" else -1.0
    for k, (one, other) in enumerate(itertools.pairwise(panels)):
        by = aheads[k] - (aheads[k - 1] if k else 0.0)
        assert math.hypot(other.line.x1 - one.line.x2, other.line.y1 - one.line.y2) == pytest.approx(abs(by), abs=1e-6)
        end = one.between[1] if way > 0 else one.between[0]
        start = other.between[0] if way > 0 else other.between[1]
        assert start == pytest.approx(end, abs=1e-6)


def test_a_wall_cut_askew_is_as_thick_as_its_cut_is_long() -> None:
    """By hand: a wall of t cut at an angle is t / cos of it thick on paper; the part before the bend is as ever."""
    house = gable(box_house(9000, 6000), 0.5)
    plain = draw_view(resolve(bent(house)), bent(house), "section:s", 50.0)
    turned = bent(house, (4500.0, 0.0, 30.0))
    drawing = draw_view(resolve(turned), turned, "section:s", 50.0)

    def width(drawn: object, wall: str) -> float:
        regions = [m for m in drawn.marks if isinstance(m, Region) and m.feature == "cut" and m.part]  # type: ignore[attr-defined]
        us = [x for m in regions if m.part and m.part.startswith(f"{wall}/") for x, _, _ in m.rings[0]]
        return max(us) - min(us)

    assert width(drawing, "south") == pytest.approx(width(plain, "south"), abs=0.1)
    assert width(drawing, "north") == pytest.approx(width(plain, "north") / math.cos(math.radians(30)), rel=1e-3)


def test_the_bend_is_marked_with_its_angle_and_all_reads() -> None:
    house = bent(joist_house(9000, 7000), (4000.0, 0.0, 25.0))
    house = put(house, Room(id="room", name="Hall", x=4500.0, y=3500.0))
    house = put(house, GridLine(id="g", name="1", x=0.0, y=1000.0, angle=0.0))
    drawing = draw_view(resolve(house), house, "section:s", 50.0)
    assert [m.text for m in drawing.marks if isinstance(m, Text) and m.feature == "fold"] == ["25°"]
    folds = [m for m in drawing.marks if isinstance(m, Stroke) and m.feature == "fold"]
    first = section_panels(house.find("s"))[0]
    assert [m.path[0][0] for m in folds] == [pytest.approx(first.between[1])]
    names = [m.text for m in drawing.marks if isinstance(m, Text) and m.part == "room"]
    assert names == ["Hall"], "a room that two parts go through is named once"
    assert [m.text for m in drawing.marks if isinstance(m, Text) and m.feature == "grid"] == ["1"]
    assert faults(drawing) == [] and drawing.messages == ()


def test_a_bend_turns_and_mirrors_with_its_line() -> None:
    """The same marks from the same house, turned or mirrored with it: as wide, as high, as many."""
    house = bent(joist_house(9000, 7000), (4000.0, 300.0, 25.0))
    ids = tuple(held.id for held in house.elements() if held.about.movable)
    drawing = draw_view(resolve(house), house, "section:s", 50.0)

    def cut(project: Project) -> list[float]:
        drawn = draw_view(resolve(project), project, "section:s", 50.0)
        return sorted(
            round((max(x for x, _, _ in m.rings[0]) - min(x for x, _, _ in m.rings[0])) / 5)
            for m in drawn.marks
            if isinstance(m, Region) and m.feature == "cut"
        )

    for motion in (Motion(turn=34.0), Motion(mirror=90.0)):
        assert cut(apply_edits(house, [Transform(elements=ids, motion=motion)])) == pytest.approx(cut(house), abs=1)
    assert drawing.messages == ()


def test_a_line_that_crosses_itself_is_said() -> None:
    house = bent(joist_house(9000, 7000), (3000.0, 0.0, 100.0), (5000.0, 0.0, 100.0), (7000.0, 0.0, 100.0))
    found = [held for held in resolve(house).diagnostics if held.code == "section-crosses"]
    assert [held.element for held in found] == ["s"] and "crosses itself" in found[0].message
    straight = put(house, changed(house.find("s"), steps=()))
    assert not [held for held in resolve(straight).diagnostics if held.code == "section-crosses"]
