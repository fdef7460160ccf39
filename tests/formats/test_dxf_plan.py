"""Floor plans read from DXF: walls, doorways and blocks where they stand, in real units; all else listed."""

from __future__ import annotations

from typing import Any

import ezdxf
import pytest

from deepsection.core.edits import apply_edits
from deepsection.core.errors import BadInput
from deepsection.core.model import wall_length
from deepsection.core.resolve import resolve
from deepsection.core.starters.projects import new_project
from deepsection.formats import dxf_plan
from deepsection.formats.dxf_plan import read_plan
from deepsection.service.plans import layer_choices, plan_edits
from tests.plan_files import plan_file, small_house


def test_walls_doorways_and_blocks_are_found() -> None:
    found = read_plan(plan_file(small_house))
    assert found.unit == "mm"
    assert [sorted(outline.corners) for outline in found.outlines] == [[(0, 0), (0, 7000), (10000, 0), (10000, 7000)]]
    walls = {(wall.start, wall.end): wall.gaps for wall in found.walls}
    assert walls == {((6000, 0), (6000, 7000)): ((2500, 3400),), ((6000, 4500), (10000, 4500)): ()}
    units = sorted((unit.kind, unit.at, round(unit.width)) for unit in found.units)
    assert units == [("door", (8000, 7000), 900), ("window", (3000, 0), 1800)]
    assert found.skipped == ["1 x CIRCLE on layer FURNITURE", "1 x TEXT on layer NOTES"]


def test_a_plan_becomes_a_house() -> None:
    project = new_project("p", "Read", "mm")
    planned = plan_edits(project, read_plan(plan_file(small_house)), prefix="read")
    house = apply_edits(project, planned.edits)
    assert planned.built == ("6 walls", "3 openings", "read in mm")
    lengths = sorted(round(wall_length(house, wall)) for wall in house.walls)
    assert lengths == [4000, 7000, 7000, 7000, 10000, 10000]
    doors = {held.number: round(held.width) for held in house.openings}
    assert doors == {"D1": 900, "D2": 900, "W1": 1800}
    building = resolve(house)
    assert {held.code for held in building.diagnostics} == {"ceiling-span"}
    assert sum(len(outline.spaces) for outline in building.plan.outlines) == 3


@pytest.mark.parametrize(("code", "factor"), [(1, 25.4), (2, 304.8), (4, 1.0), (5, 10.0), (6, 1000.0)])
def test_units_come_from_the_header(code: int, factor: float) -> None:
    """$INSUNITS: 1 inches, 2 feet, 4 millimetres, 5 centimetres, 6 metres (published: DXF reference, from memory)."""

    def draw(space: Any) -> None:
        space.add_lwpolyline(
            [(0, 0), (9000 / factor, 0), (9000 / factor, 6000 / factor), (0, 6000 / factor)], close=True
        )

    found = read_plan(plan_file(draw, insunits=code))
    assert max(x for x, _ in found.outlines[0].corners) == pytest.approx(9000)


def test_a_unit_is_asked_for_when_the_file_has_none() -> None:
    data = plan_file(small_house, insunits=0)
    with pytest.raises(BadInput, match="does not say its unit") as caught:
        read_plan(data)
    assert caught.value.field == "unit"
    assert read_plan(data, "mm").unit == "mm"
    with pytest.raises(BadInput, match="is no unit"):
        read_plan(data, "furlong")


@pytest.mark.parametrize("data", [b"", b"not a dxf", b"  0\nSECTION\n", bytes(range(256)) * 20])
def test_what_is_no_dxf_is_refused(data: bytes) -> None:
    with pytest.raises(BadInput):
        read_plan(data, "mm")


def test_empty_and_huge_files_are_refused(monkeypatch: pytest.MonkeyPatch) -> None:
    with pytest.raises(BadInput, match="nothing in the model space"):
        read_plan(plan_file(lambda space: None))
    monkeypatch.setattr(dxf_plan, "MOST_ENTITIES", 3)
    with pytest.raises(BadInput, match="more than 3"):
        read_plan(plan_file(small_house))


def test_outlines_that_cross_or_lie_within_are_listed() -> None:
    def draw(space: Any) -> None:
        small_house(space)
        space.add_lwpolyline([(20000, 0), (26000, 5000), (26000, 0), (20000, 5000)], close=True)
        space.add_lwpolyline([(500, 500), (4000, 500), (4000, 4000), (500, 4000)], close=True)
        space.add_lwpolyline([(0, 9000), (100, 9000), (100, 9100)], close=True)

    found = read_plan(plan_file(draw))
    assert len(found.outlines) == 1
    assert any("crosses itself" in line for line in found.skipped)
    assert any("within another" in line for line in found.skipped) and any(
        "small closed" in line for line in found.skipped
    )


def test_an_outline_that_does_not_close_is_walls_of_its_own() -> None:
    def draw(space: Any) -> None:
        space.add_lwpolyline([(0, 0), (8000, 0), (8000, 6000), (0, 6000)])

    found = read_plan(plan_file(draw))
    assert found.outlines == [] and len(found.walls) == 3


def test_an_outline_drawn_as_single_lines_is_one() -> None:
    """Lines end to end, drawn in any order and direction, with hairline gaps: an L of 12 m x 9 m less 5 m x 3 m."""
    corners = [(0, 0), (12000, 0), (12000, 6000), (7000, 6000), (7000, 9000), (0, 9000)]

    def draw(space: Any) -> None:
        edges = list(zip(corners, corners[1:] + corners[:1]))
        for number in (3, 0, 5, 1, 4, 2):
            a, b = edges[number] if number % 2 else edges[number][::-1]
            space.add_line((a[0] + 2, a[1]), b, dxfattribs={"layer": "OUTSIDE"})
        space.add_line((7000, 0), (7000, 6000), dxfattribs={"layer": "INSIDE"})

    found = read_plan(plan_file(draw))
    (outline,) = found.outlines
    assert outline.layer == "OUTSIDE" and len(outline.corners) == 6
    x, y = zip(*(outline.corners))
    doubled = sum(x[k - 1] * y[k] - x[k] * y[k - 1] for k in range(6))
    assert doubled / 2 == pytest.approx(12000 * 6000 + 7000 * 3000, rel=1e-3), "counter-clockwise"
    assert [wall.layer for wall in found.walls] == ["INSIDE"]


def test_lines_that_branch_are_no_outline() -> None:
    """A ring with a wall across it, all on one layer: where three lines meet nothing says which way is outside."""

    def draw(space: Any) -> None:
        for a, b in (((0, 0), (4000, 0)), ((4000, 0), (8000, 0)), ((8000, 0), (8000, 6000)), ((8000, 6000), (0, 6000))):
            space.add_line(a, b)
        space.add_line((0, 6000), (0, 0))
        space.add_line((4000, 0), (4000, 6000))

    assert read_plan(plan_file(draw)).outlines == []


def test_layers_may_be_left_out() -> None:
    found = read_plan(plan_file(small_house), without={"WALL-INNER", "NOTES"})
    assert found.layers == ["WALL-OUTER", "0"] and found.walls == []
    assert "layer WALL-INNER, left out" in found.skipped and "1 x TEXT on layer NOTES" not in found.skipped
    with pytest.raises(BadInput, match="no closed outline"):
        read_plan(plan_file(small_house), without={"WALL-INNER", "WALL-OUTER"})


def test_layers_become_walls_of_chosen_make_ups() -> None:
    project = new_project("p", "Read", "mm")
    choices = layer_choices(project, ["WALL-OUTER=140 FRAME, board and batten", "WALL-INNER=wall-lap"])
    assert choices == {"WALL-OUTER": "wall-batten", "WALL-INNER": "wall-lap"}
    told: list[tuple[int, int]] = []
    planned = plan_edits(
        project,
        read_plan(plan_file(small_house)),
        prefix="read",
        make_ups=choices,
        told=lambda done, total: told.append((done, total)),
    )
    walls = apply_edits(project, planned.edits).walls
    assert [wall.make_up for wall in walls if wall.status == "outer"] == ["wall-batten"] * 4
    assert [wall.make_up for wall in walls if wall.status == "inner"] == ["wall-lap"] * 2
    assert told == [(step, 5) for step in range(1, 6)], "one outline, two wall lines, two blocks"


def test_what_the_building_refuses_is_left_out_and_listed() -> None:
    def draw(space: Any) -> None:
        small_house(space)
        space.add_line((3000, 3000), (9000, 3700))
        space.add_blockref("DOOR-900", (3200, 0))
        space.add_blockref("WINDOW-1800", (30000, 30000))

    planned = plan_edits(new_project("p", "Read", "mm"), read_plan(plan_file(draw)), prefix="read")
    told = " | ".join(planned.skipped)
    assert "cross each other" in told and "overlap" in told and "stands on no wall" in told
    assert planned.built[0] == "6 walls"


def test_a_plan_of_our_own_comes_back(house: Any) -> None:
    """The outer corners of the demo, written as an outline, come back as walls of the same length."""
    corners = [(j.x / 25.4, j.y / 25.4) for j in house.joints if j.kind == "free"][:4]
    data = plan_file(lambda space: space.add_lwpolyline(corners, close=True), insunits=1)
    assert ezdxf.units.IN == 1
    project = new_project("p", "Back", "ft-in")
    back = apply_edits(project, plan_edits(project, read_plan(data), prefix="read").edits)
    assert sorted(round(wall_length(back, wall) / 304.8, 6) for wall in back.walls) == [26, 26, 36, 36]


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"", "is empty"),
        (b"broken", "not a DXF file"),
        (plan_file(small_house)[:3000], "cut short at byte 3000"),
    ],
)
def test_an_unreadable_file_says_what_it_is(data: bytes, words: str) -> None:
    with pytest.raises(BadInput, match=words):
        read_plan(data, None)


@pytest.mark.parametrize("away", [5e8, 6.4e9])
def test_survey_coordinates_are_read_as_if_drawn_at_the_origin(away: float) -> None:
    def far(space: Any) -> None:
        small_house(space)
        for entity in space:
            entity.translate(away, -away / 2, 0)

    near, found = read_plan(plan_file(small_house), None), read_plan(plan_file(far), None)
    assert len(found.walls) == len(near.walls) and len(found.outlines) == len(near.outlines)
    (x, y), *_ = found.outlines[0].corners
    assert abs(x) < 1e5 and abs(y) < 1e5 and any("east" in line for line in found.skipped)


@pytest.mark.parametrize("value", [1e300, -1e18, float("nan"), float("inf")])
def test_what_lies_nowhere_is_listed_and_the_rest_read(value: float) -> None:
    def stray(space: Any) -> None:
        small_house(space)
        space.add_line((value, 0), (0, value))

    found = read_plan(plan_file(stray), None)
    assert found.outlines and any("lies nowhere" in line for line in found.skipped)
