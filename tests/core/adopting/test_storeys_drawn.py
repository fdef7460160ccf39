"""Two plans in one file: storeys as far apart as is written in them, the stair between them, corners that butt."""

from __future__ import annotations

import io
import math

import ezdxf
import pytest
from ezdxf.math import Matrix44

from deepsection.core.adopting import NEW, Adopted, Choices, adopted
from deepsection.core.edits import apply_edits, storey_above
from deepsection.core.model import Project
from deepsection.core.reading import ReadPlan, read_plan
from deepsection.core.resolve import resolve, storeys
from deepsection.core.starters.projects import new_project
from deepsection.formats.dxf_drawn import read_drawn
from tests.plans_drawn.two_storeys import STAIR, two_storeys


def taken(data: bytes, project: Project | None = None, **choices: object) -> tuple[Project, ReadPlan, Adopted]:
    plan = read_plan(read_drawn(data))
    empty = project or new_project("p", "Read", "mm", "masonry")
    made = adopted(empty, plan, Choices(**choices), prefix="read")  # type: ignore[arg-type]
    return apply_edits(empty, made.edits), plan, made


@pytest.mark.parametrize("turn", [0.0, 23.0, -61.0, 135.0])
def test_a_house_of_two_storeys_stands_with_its_stair(turn: float) -> None:
    project, plan, made = taken(two_storeys(turn))
    assert made.skipped == [] and [held.above for held in plan.storeys] == [0.0, 2900.0]
    building = resolve(project)
    low, high = (building.levels[held.level].z for held in storeys(project))
    assert high - low == pytest.approx(2900.0, abs=0.1)
    # Both plans show the stair: it is built once, from the lower one up.
    (stair,) = project.stairs
    assert (stair.level, stair.upper) == tuple(held.level for held in storeys(project))
    assert (stair.risers, stair.width) == (17, pytest.approx(750.0, abs=1))
    assert [(turned.after, turned.kind, turned.side) for turned in stair.turns] == [(9, "half landing", "right")]
    assert stair.turns[0].well == pytest.approx(85.0, abs=2)
    # It lies in the hall: between the inner walls, as far from them as it was drawn.
    x, y = STAIR.foot
    way = math.radians(turn)
    foot = x * math.cos(way) - y * math.sin(way), x * math.sin(way) + y * math.cos(way)
    shift = plan.origin
    assert math.dist((stair.x + shift[0], stair.y + shift[1]), foot) < 5.0
    # Pieces that butt share their corners: rooms are enclosed.
    assert sum(len(outline.spaces) for outline in building.plan.outlines) == 6
    assert not [found for found in building.diagnostics if "enclosed" in found.message]


@pytest.mark.parametrize(("x", "y"), [(-1.0, 1.0), (1.0, -1.0)])
def test_in_a_mirror_the_stair_turns_the_other_way(x: float, y: float) -> None:
    document = ezdxf.read(io.StringIO(two_storeys().decode()))
    for entity in document.modelspace():
        entity.transform(Matrix44.scale(x, y, 1.0))
    out = io.StringIO()
    document.write(out)
    project, _, made = taken(out.getvalue().encode())
    (stair,) = project.stairs
    assert made.skipped == [] and stair.risers == 17 and stair.turns[0].side == "left"
    assert sum(len(outline.spaces) for outline in resolve(project).plan.outlines) == 6


def test_levels_that_do_not_rise_are_no_heights() -> None:
    plan = read_plan(read_drawn(two_storeys(levels=("FFL +2.90", "FFL +0.00"))))
    assert [held.above for held in plan.storeys] == [0.0, 0.0]


def test_without_levels_one_storey_is_built_and_the_rest_is_said() -> None:
    project, _, made = taken(two_storeys(levels=None))
    assert len(storeys(project)) == 1 and project.stairs == ()
    assert any("no storey for it yet" in words for words in made.skipped)
    assert any("no storey lies above it yet" in words for words in made.skipped)


def test_a_stair_that_is_left_out_or_stands_is_not_built() -> None:
    project, _, _ = taken(two_storeys())
    again = adopted(project, read_plan(read_drawn(two_storeys())), Choices(), prefix="again")
    assert again.edits == [] and again.stairs == {}
    without, _, _ = taken(two_storeys(), without_stairs=frozenset({0, 1}))
    assert without.stairs == ()


def test_a_storey_that_exists_keeps_its_height_and_gets_the_stair() -> None:
    """Into a project with two storeys: its own heights count, and so the number of risers that its rule asks for."""
    empty = new_project("p", "Read", "mm", "masonry")
    more = apply_edits(empty, [storey_above(empty, storeys(empty)[0].level)])
    project, _, made = taken(two_storeys(levels=None), more)
    assert made.counts["stairs"] == 1 and len(project.stairs) == 1
    assert NEW not in {held.level for held in storeys(project)}


@pytest.mark.parametrize("tradition", ["masonry", "timber"])
def test_ceilings_that_are_written_are_as_high_when_built(tradition: str) -> None:
    """Two plans whose rooms state their ceilings, and no levels: from floor to boards it is as high as is written."""
    empty = new_project("p", "Read", "mm", tradition)  # type: ignore[arg-type]
    project, plan, made = taken(two_storeys(levels=("CH 2650", "CLG HT 2430")), empty)
    assert [held.ceiling for held in plan.storeys] == [2650.0, 2430.0] and made.skipped == []
    building = resolve(project)
    floors = [building.levels[held.level].z for held in storeys(project)]
    assert len(floors) == 2 and floors[1] - floors[0] > 2650.0 + 100.0
    boards = [part.solid.bounds for part in building.parts if part.material == "gypsum" and _lies(part.solid.bounds)]
    for floor, stated in zip(floors, (2650.0, 2430.0)):
        low = min(bounds[2] for bounds in boards if bounds[2] > floor + 1000.0)
        assert low - floor == pytest.approx(stated, abs=0.1)


def _lies(bounds: tuple[float, ...]) -> bool:
    return bounds[5] - bounds[2] < 30.0


def test_a_project_with_walls_keeps_its_heights() -> None:
    project, _, _ = taken(two_storeys(levels=("CH 2650", "CH 2430")))
    before = [(rung.id, rung.terms) for rung in project.rungs]
    again, _, _ = taken(two_storeys(levels=("CH 2300", "CH 2300")), project)
    assert [(rung.id, rung.terms) for rung in again.rungs] == before
