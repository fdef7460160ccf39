"""Details: windows on cuts across junctions, with a note on every kind of piece, led to by lines that cross nothing."""

from __future__ import annotations

import itertools
from collections.abc import Callable

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import LineString, Point, Polygon

from deepsection.core.drawing import Drawing, Region, Stroke, Text
from deepsection.core.edits import Remove, apply_edits, changed, put
from deepsection.core.errors import DeepSectionError
from deepsection.core.junctions.sizes import DETAIL_SIZES
from deepsection.core.model import Detail, DetailEnd, Project
from deepsection.core.particulars import enter
from deepsection.core.resolve import resolve
from deepsection.core.view import draw_view
from deepsection.core.view.details.making import group_states, missing_details
from deepsection.core.view.details.notes import uncrossed
from deepsection.core.view.details.place import detail_place, junction_of
from deepsection.demo import DEMOS, fernacre_bungalow
from tests.builders import block_house, box_house, gable, joist_house, two_storeys
from tests.reading import faults
from tests.turning import turned


def detailed(project: Project) -> Project:
    return put(project, *missing_details(project, resolve(project)))


def drawn(project: Project, held: Detail) -> Drawing:
    scale = DETAIL_SIZES[held.kind].scale(project.units)  # type: ignore[index]
    return draw_view(resolve(project), project, f"detail:{held.id}", scale, on_paper=True)


def eave(**more: object) -> Detail:
    ends = (
        DetailEnd(element="roof-1", feature="edge", sub="e1"),
        DetailEnd(element="south", feature="top"),
    )
    return Detail.model_validate({"id": "d", "name": "1, eave", "kind": "eave", "ends": ends} | more)


def plain(degrees: float = 0.0) -> Project:
    return turned(put(gable(box_house(8000, 6000), 0.5, overhang=400, rake=300), eave()), degrees)


def check(project: Project, held: Detail) -> None:
    """What is true of every detail."""
    drawing = drawn(project, held)
    building = resolve(project)
    # What it says beside what it draws is where a line is open.
    assert all("line is open by" in words for words in drawing.messages) and drawing.left_out == (), held.name
    assert faults(drawing) == [], held.name
    junction = junction_of(building, held)
    assert junction is not None
    place = detail_place(building, held, junction)
    assert place is not None
    around = place.window.outline.buffer(0.5)
    cut: dict[str, list[Polygon]] = {}
    for mark in drawing.marks:
        if isinstance(mark, Region) and mark.feature == "cut" and mark.part:
            polygon = Polygon([(x, y) for x, y, _ in mark.rings[0]])
            cut.setdefault(mark.part, []).append(polygon)
            if "/membrane/" not in mark.part:
                assert around.covers(polygon), mark.part
    if held.kind == "eave":
        fascias = [piece.bounds for part, own in cut.items() if "/fascia/" in part for piece in own]
        assert all(place.window.low + 5.0 < box[1] for box in fascias), "its fascia is whole"
    assert any(element in {part.split("/")[0] for part in cut} for element in junction.elements)
    notes = [m for m in drawing.marks if isinstance(m, Text) and m.feature in ("note", "line")]
    leaders = [m for m in drawing.marks if isinstance(m, Stroke) and m.feature == "leader"]
    assert notes and len(leaders) == len({m.annotation for m in notes}) == len({m.annotation for m in leaders})
    fixings = {m.part for m in drawing.marks if isinstance(m, Region) and m.feature == "fixing"}
    for mark in leaders:
        x, y, _ = mark.path[0]
        inside = any(piece.buffer(1.0).contains(Point(x, y)) for own in cut.values() for piece in own)
        assert inside or mark.part in fixings, mark.part
    lines = [LineString([(x, y) for x, y, _ in m.path]) for m in leaders]
    assert not any(a.crosses(b) for a, b in itertools.combinations(lines, 2)), held.name


@pytest.mark.parametrize("make", DEMOS, ids=lambda make: make.__name__)
def test_every_detail_of_the_demos_reads_and_notes_what_it_cuts(make: Callable[[], Project]) -> None:
    project = detailed(make())
    assert len(project.details) > 10
    for held in project.details[:: 1 if len(project.details) < 30 else 3]:
        check(project, held)


@pytest.mark.parametrize(
    "make",
    [
        lambda: turned(joist_house(9000, 7000), 31.0),
        lambda: turned(two_storeys(9000, 7000, "ft-in"), -77.0),
        lambda: block_house("floor-concrete", ground=True, inner=True),
    ],
    ids=["joists, turned", "two storeys, turned", "blocks"],
)
def test_so_do_those_of_houses_of_ones_own(make: Callable[[], Project]) -> None:
    project = detailed(make())
    for held in project.details:
        check(project, held)


@pytest.mark.parametrize("degrees", [0.0, 58.0])
def test_outside_lies_at_the_left_and_the_cut_is_what_a_plane_there_cuts(degrees: float) -> None:
    """By hand: the overhang of 400 lies left of the wall; the wall is as thick as its layers."""
    project = plain(degrees)
    drawing = drawn(project, project.find("d"))
    building = resolve(project)

    def reach(start: str) -> tuple[float, float]:
        us = [
            x
            for m in drawing.marks
            if isinstance(m, Region) and m.feature == "cut" and (m.part or "").startswith(start)
            for x, _, _ in m.rings[0]
        ]
        return min(us), max(us)

    wall, roof = reach("south/"), reach("roof-1/fascia")
    south = building.plan.by_id["south"]
    layers = project.find(south.wall.make_up).layers
    assert wall[1] - wall[0] == pytest.approx(sum(layer.thickness for layer in layers), abs=20.0)
    assert roof[1] < wall[0]


def test_it_stays_true_when_the_house_changes_and_says_when_its_place_is_gone() -> None:
    project = plain()
    before = drawn(project, project.find("d"))
    steeper = put(project, changed(project.find("roof-1"), pitch=0.9))
    after = drawn(steeper, steeper.find("d"))
    assert after.messages == () and after.marks != before.marks
    gone = apply_edits(project, (Remove(elements=("roof-1",)),))
    lost = drawn(gone, gone.find("d"))
    assert lost.marks == () and "has lost its place" in lost.messages[0]


def test_places_and_sizes_are_typed_and_wrong_ones_are_said() -> None:
    project = plain()
    at = apply_edits(project, enter(project, "d", "along", "1500"))
    assert at.find("d").along == 1500.0 and drawn(at, at.find("d")).messages == ()
    past = apply_edits(project, enter(project, "d", "along", "99m"))
    assert "past the end of its eave" in drawn(past, past.find("d")).messages[0]
    with pytest.raises(DeepSectionError):
        enter(project, "d", "above", "-5")
    wide = apply_edits(project, enter(project, "d", "inward", "2500"))
    x0, _, x1, _ = drawn(wide, wide.find("d")).bounds
    a0, _, a1, _ = drawn(project, project.find("d")).bounds
    assert x1 - x0 > a1 - a0 + 1000


def test_one_action_makes_what_is_missing_and_no_more() -> None:
    project = fernacre_bungalow()
    building = resolve(project)
    all_of_them = list(missing_details(project, building))
    drawable = [state for state in group_states(project, building) if state.is_drawn]
    assert len(all_of_them) == len(drawable)
    assert len({held.id for held in all_of_them}) == len({held.name for held in all_of_them}) == len(all_of_them)
    half = put(project, *all_of_them[::2])
    rest = list(missing_details(half, resolve(half)))
    assert {held.junction for held in rest} == {held.junction for held in all_of_them[1::2]}
    assert not {held.name for held in rest} & {held.name for held in half.details}
    one = list(missing_details(project, building, [drawable[3].group.key]))
    assert [held.kind for held in one] == [drawable[3].group.about.name]


@given(
    dots=st.lists(st.tuples(st.floats(0, 100), st.floats(0, 100)), min_size=2, max_size=14, unique=True),
)
@settings(max_examples=150, deadline=None)
def test_leaders_never_cross(dots: list[tuple[float, float]]) -> None:
    rows = [(150.0, 10.0 * k) for k in range(len(dots))]
    order = uncrossed(dots, rows)
    assert sorted(order) == list(range(len(dots)))
    lines = shapely.linestrings([[dot, rows[k]] for dot, k in zip(dots, order, strict=True)])
    assert not any(a.crosses(b) for a, b in itertools.combinations(lines, 2))
