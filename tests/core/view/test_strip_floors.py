"""Wall sections between a bottom and a top, two of one, and floors broken sideways to fit a width on paper."""

from __future__ import annotations

import itertools
from functools import cache
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.drawing import Dimension, Drawing, Region, Stroke
from deepsection.core.edits import apply_edits, put
from deepsection.core.errors import BadInput
from deepsection.core.model import InsideBreak, Project, WallSection
from deepsection.core.particulars import describe_element, enter
from deepsection.core.resolve import Building, resolve
from deepsection.core.view import draw_view
from deepsection.core.view.strips.breaks import GAP
from tests.builders import block_house, joist_house, two_storeys
from tests.reading import faults


def strip(**more: Any) -> WallSection:
    return WallSection(id="strip", name="1", wall="south", end="start", distance=2500.0, **more)


@cache
def plain(units: str) -> Project:
    return two_storeys(9000, 7000, units)  # type: ignore[arg-type]


def drawn(project: Project, held: WallSection, scale: float, *, on_paper: bool = True) -> tuple[Building, Drawing]:
    project = put(project, held)
    building = resolve(project)
    return building, draw_view(building, project, f"section:{held.id}", scale, on_paper=on_paper)


def reach(drawing: Drawing) -> tuple[float, float, float, float]:
    """What is cut of it: left, low, right, high."""
    points = [at for m in drawing.marks if isinstance(m, Region) and m.feature == "cut" for at in m.rings[0]]
    us, vs = [x for x, _, _ in points], [y for _, y, _ in points]
    return min(us), min(vs), max(us), max(vs)


def is_of(mark: Region, element: str) -> bool:
    return (mark.part or "").startswith(f"{element}/")


@given(
    inside=st.floats(2600, 5500),
    wide=st.floats(120, 190),
    scale=st.sampled_from([16.0, 20.0, 24.0]),
    units=st.sampled_from(["mm", "ft-in"]),
)
@settings(max_examples=12, deadline=None)
def test_floors_are_cut_short_sideways_and_the_wall_stays_whole(
    inside: float, wide: float, scale: float, units: str
) -> None:
    """Paper is kept; of the wall and its footing nothing is lost or moved; what is left out lies between them and the
    end of the floor."""
    project = plain(units)
    floor = resolve(project).levels["floor"].z
    held = strip(inside=inside, top=floor + 900.0)
    _, whole = drawn(project, held, scale)
    _, broken = drawn(project, strip(inside=inside, top=floor + 900.0, wide=wide), scale)
    window, shown = reach(whole), reach(broken)
    if broken.messages:
        assert "does not fit" in broken.messages[0] and "it needs" in broken.messages[0]
    elif (window[2] - window[0]) / scale > wide:
        assert (shown[2] - shown[0]) / scale <= wide + 0.5
    both = [
        {m.rings for m in d.marks if isinstance(m, Region) and m.feature == "cut" and is_of(m, "south")}
        for d in (whole, broken)
    ]
    assert both[0]
    assert both[0] == both[1], "the wall is where it was, whole"
    assert faults(broken) == []


def test_a_break_sideways_has_two_lines_at_each_cut_piece_and_figures_over_it_stay_true() -> None:
    project = plain("mm")
    floor = resolve(project).levels["floor"].z
    held = strip(inside=4800.0, wide=150.0, top=floor + 900.0)
    _, drawing = drawn(project, held, 20.0)
    lines = [m for m in drawing.marks if isinstance(m, Stroke) and m.feature == "break"]
    places = sorted({round(sum(x for x, _, _ in m.path) / len(m.path)) for m in lines})
    gaps = [b - a for a, b in itertools.pairwise(places)]
    assert any(gap == pytest.approx(GAP * 20.0, abs=2.0) for gap in gaps), "both sides of the break"
    for mark in drawing.marks:
        if isinstance(mark, Dimension) and mark.measures is not None:
            assert mark.text == f"{mark.measures:.0f}"


def test_on_the_bench_the_floor_is_whole_with_the_break_framed() -> None:
    project = plain("mm")
    held = strip(inside=4800.0, wide=150.0, top=900.0)
    _, bench = drawn(project, held, 20.0, on_paper=False)
    left, _, right, _ = reach(bench)
    assert right - left > 4800.0
    assert [m for m in bench.marks if isinstance(m, Region) and m.part == "strip/break/0/aside"]


@given(
    wall=st.sampled_from(["south", "north", "east"]),
    look=st.sampled_from(["start", "end"]),
    inward=st.floats(400, 1500),
    wide=st.floats(500, 2000),
    units=st.sampled_from(["mm", "ft-in"]),
)
@settings(max_examples=15, deadline=None)
def test_a_stated_break_inside_leaves_out_what_it_says_whatever_the_way_it_is_looked_at(
    wall: str, look: str, inward: float, wide: float, units: str
) -> None:
    """The floor is drawn shorter by what is left out, less the gap; the map is told by the strip without it."""
    project = plain(units)
    floor = resolve(project).levels["floor"].z
    own = {"wall": wall, "end": "start", "distance": 2500.0, "look": look, "inside": 4500.0, "top": floor + 900.0}
    held = WallSection(id="strip", name="1", **own)  # type: ignore[arg-type]
    stated = held.model_copy(update={"inside_breaks": (InsideBreak(inward=inward, wide=wide),)})
    _, whole = drawn(project, held, 20.0)
    _, broken = drawn(project, stated, 20.0)
    (left, _, right, _), (low, _, high, _) = reach(whole), reach(broken)
    saved = (right - left) - (high - low)
    if any("Inside break 1" in one for one in broken.messages):
        assert saved < wide - GAP * 20.0 - 1.0, "what is in its way is said"
    else:
        assert saved == pytest.approx(wide - GAP * 20.0, abs=1.0)
    assert faults(broken) == []


def test_breaks_inside_that_cannot_be_are_said_and_nothing_is_lost() -> None:
    project = plain("mm")
    floor = resolve(project).levels["floor"].z
    own = InsideBreak(inward=900.0, wide=800.0)
    for breaks, words in (
        ((InsideBreak(inward=0.0, wide=150.0),), "nothing plain to leave out"),
        ((own, own), "lies over another one"),
        ((InsideBreak(inward=3900.0, wide=4000.0),), "would leave out the edge"),
    ):
        held = strip(inside=4500.0, top=floor + 900.0, inside_breaks=breaks)
        _, drawing = drawn(project, held, 20.0)
        assert any(words in one for one in drawing.messages), drawing.messages
        assert faults(drawing) == []


def test_breaks_inside_are_typed_added_and_removed_in_particulars() -> None:
    project = put(plain("mm"), strip(inside=4500.0, wide=150.0))
    for field, text, want in (
        ("inside_breaks", "own", ()),
        ("inside_break:add", "", (InsideBreak(inward=300.0, wide=150.0),)),
        ("inside_break:0:wide", "1200", (InsideBreak(inward=300.0, wide=1200.0),)),
        ("inside_break:0:inward", "650", (InsideBreak(inward=650.0, wide=1200.0),)),
        ("inside_break:0:remove", "", ()),
        ("inside_breaks", "auto", None),
    ):
        project = apply_edits(project, enter(project, "strip", field, text))
        assert project.wall_sections[0].inside_breaks == want
    project = apply_edits(project, enter(project, "strip", "inside_breaks", "own"))
    project = apply_edits(project, enter(project, "strip", "inside_break:add", ""))
    with pytest.raises(BadInput):
        enter(project, "strip", "inside_break:0:inward", "-5")


def test_nothing_that_stands_on_a_floor_is_left_out_of_it() -> None:
    """An inner wall 3 m behind: it is there in the broken strip, whole."""
    project = block_house("floor-joists", inner=True)
    held = WallSection(id="strip", name="1", wall="west", end="start", distance=2000.0, inside=5200.0, wide=160.0)
    _, whole = drawn(project, held.model_copy(update={"wide": None, "top": 3500.0}), 20.0)
    _, broken = drawn(project, held.model_copy(update={"top": 3500.0}), 20.0)

    def areas(drawing: Drawing) -> list[int]:
        own = (m for m in drawing.marks if isinstance(m, Region) and m.feature == "cut")
        sizes = (m for m in own if (m.part or "").startswith("inner/"))
        return sorted(round(max(x for x, _, _ in m.rings[0]) - min(x for x, _, _ in m.rings[0])) for m in sizes)

    assert areas(whole) and areas(whole) == areas(broken)


@pytest.mark.parametrize("make", [lambda: joist_house(9000, 7000), lambda: two_storeys(9000, 7000, "ft-in")])
def test_two_of_one_show_all_of_it_and_share_a_stretch(make: Any) -> None:
    project = put(make(), strip())
    rows = describe_element(project, resolve(project), "strip")
    assert "Make two of it, one over the other" in str(rows)
    done = apply_edits(project, enter(project, "strip", "halves", ""))
    lower, upper = done.wall_sections
    assert lower.top is not None and upper.bottom is not None
    assert lower.top - upper.bottom == pytest.approx(600.0)
    levels = [level.z for level in resolve(done).levels.values()]
    assert any(upper.bottom < z < lower.top for z in levels), "about a level"
    building = resolve(done)
    one = draw_view(building, project, "section:strip", 20.0)
    below, above = (draw_view(building, done, f"section:{held.id}", 20.0) for held in (lower, upper))
    assert reach(below)[3] == pytest.approx(lower.top) and reach(above)[1] == pytest.approx(upper.bottom)
    assert reach(below)[1] == pytest.approx(reach(one)[1]) and reach(above)[3] == pytest.approx(reach(one)[3])
    assert faults(below) == [] and faults(above) == []


def test_what_shows_nothing_says_what_to_change() -> None:
    project = joist_house(9000, 7000)
    _, drawing = drawn(project, strip(bottom=20_000.0), 20.0)
    assert drawing.marks == () and "top or bottom leaves nothing to show" in drawing.messages[0]
    building, _ = drawn(project, strip(bottom=1500.0, top=1000.0), 20.0)
    assert [held.element for held in building.diagnostics if held.code == "section-low"] == ["strip"]


@pytest.mark.parametrize("text", ["wide", "12", "9000"])
def test_a_width_that_no_paper_has_is_refused_at_its_field(text: str) -> None:
    project = put(joist_house(9000, 7000), strip())
    with pytest.raises(BadInput, match="40 to 3000 mm"):
        enter(project, "strip", "wide", text)
