"""Plans that were read as houses: walls where they were drawn, make-ups as thick, openings at their places."""

from __future__ import annotations

import math

import pytest

from deepsection.core.adopting import AS_DRAWN, Choices, adopted, groups_of, thickness_of
from deepsection.core.edits import apply_edits
from deepsection.core.errors import BadInput
from deepsection.core.geometry import Axis
from deepsection.core.model import Project, joint_point
from deepsection.core.reading import ReadPlan, read_plan
from deepsection.core.resolve import resolve
from deepsection.core.starters.projects import new_project
from deepsection.core.trades.walls.bands import layer_bands
from deepsection.formats.dxf_drawn import read_drawn
from tests.plans_drawn.manners import as_bytes, drawn
from tests.plans_drawn.truth import TrueHouse, TrueWall, houses, inner, ring


def read(house: TrueHouse, manner: str = "pairs") -> ReadPlan:
    return read_plan(read_drawn(as_bytes(drawn(house, manner))))


def faces(project: Project) -> list[tuple[Axis, float, float]]:
    """The set-out line of each wall with the distances of its faces to the left."""
    found = []
    for wall in project.walls:
        make_up = next(held for held in project.make_ups if held.id == wall.make_up)
        line = Axis(joint_point(project, wall.start), joint_point(project, wall.end), wall.bulge)
        bands = layer_bands(wall, make_up)
        sides = sorted(side * (1 if wall.outside == "left" else -1) for side in (bands[0].outer, bands[-1].inner))
        found.append((line, sides[0], sides[1]))
    return found


@pytest.mark.parametrize("tradition", ["timber", "masonry"])
@pytest.mark.parametrize("house", houses(), ids=lambda house: house.name)
@pytest.mark.parametrize("degrees", [0.0, 37.0])
def test_walls_stand_where_they_were_drawn(house: TrueHouse, tradition: str, degrees: float) -> None:
    """Both faces within 2 mm of the truth at the middle of each wall, whatever their set-out; rooms and openings."""
    house = house.turned(degrees)
    project = new_project("p", "Read", "mm", tradition)  # type: ignore[arg-type]
    plan = read(house)
    made = adopted(project, plan, Choices(), prefix="read")
    built = apply_edits(project, made.edits)
    assert made.skipped == [] and len(built.openings) == len(house.openings)
    lines = faces(built)
    for true in house.walls:
        middle = true.at(true.length / 2 + 0.377)
        turn = true.direction(true.length / 2)
        normal = -math.sin(turn), math.cos(turn)
        for side in (true.thickness / 2, -true.thickness / 2):
            spot = middle[0] + normal[0] * side, middle[1] + normal[1] * side
            away = min(
                min(abs(line.left_of(spot) - low), abs(line.left_of(spot) - high))
                for line, low, high in lines
                if -50.0 < line.along(spot) < line.length + 50.0 and abs(line.left_of(spot)) < 900.0
            )
            assert away < 2.0
    building = resolve(built)
    assert not [found for found in building.diagnostics if found.severity == "blocking"]
    assert sum(len(outline.spaces) for outline in building.plan.outlines) >= len(house.rooms)


def test_openings_keep_their_places_along_set_out_lines() -> None:
    house = houses()[2]
    project = new_project("p", "Read", "mm")
    built = apply_edits(project, adopted(project, read(house), Choices(), prefix="read").edits)
    found = []
    for opening in built.openings:
        wall = next(held for held in built.walls if held.id == opening.wall)
        line = Axis(joint_point(built, wall.start), joint_point(built, wall.end), wall.bulge)
        found.append(line.at(opening.distance))
    for true in house.openings:
        wall = house.walls[true.wall]
        at = wall.at(true.distance)
        assert min(math.dist(at, spot) for spot in found) < wall.thickness / 2 + 5.0


def test_make_ups_are_the_projects_own_where_they_are_as_thick() -> None:
    """Walls of 114 mm are the starter's 89 studs with two linings of 12.5; 300 mm is made to measure."""
    project = new_project("p", "Read", "mm")
    walls = (*ring([(0, 0), (9000, 0), (9000, 6000), (0, 6000)], 300.0), *inner(114.0, (4000, 0, 4000, 6000)))
    plan = read(TrueHouse("two rooms", walls, (), ()))
    chosen = {group.key: group.make_up for group in groups_of(project, plan.walls)}
    assert chosen == {"300 outer": AS_DRAWN, "114 inner": "wall-inner"}
    built = apply_edits(project, adopted(project, plan, Choices(), prefix="read").edits)
    thick = {held.id: thickness_of(held) for held in built.make_ups}
    assert sorted(round(thick[wall.make_up], 1) for wall in built.walls) == [114.0, 300.0, 300.0, 300.0, 300.0]


def test_layers_that_were_drawn_are_those_of_the_make_up() -> None:
    project = new_project("p", "Read", "mm", "masonry")
    built = apply_edits(project, adopted(project, read(houses()[3], "layered"), Choices(), prefix="read").edits)
    outer = next(held for held in built.make_ups if held.name.startswith("Outer wall 315"))
    assert [layer.thickness for layer in outer.layers] == pytest.approx([102.5, 100.0, 100.0, 12.5], abs=0.5)
    assert [layer.function for layer in outer.layers] == ["structure", "insulation", "structure", "lining"]


def test_walls_that_cross_are_parted_at_the_one_that_passes() -> None:
    walls = (
        *ring([(0, 0), (8000, 0), (8000, 8000), (0, 8000)], 200.0),
        *inner(100.0, (0, 4000, 8000, 4000)),
        TrueWall((4000, 0), (4000, 8000), 120.0),
    )
    project = new_project("p", "Cross", "mm")
    plan = read(TrueHouse("cross", walls, (), ()))
    assert len(plan.walls) == 6
    built = apply_edits(project, adopted(project, plan, Choices(), prefix="read").edits)
    assert len(built.walls) == 7 and sum(joint.kind == "tee" for joint in built.joints) == 6
    assert sum(len(outline.spaces) for outline in resolve(built).plan.outlines) == 4


def test_a_plan_without_its_storey_is_said() -> None:
    project, plan = new_project("p", "Read", "mm"), read(houses()[0])
    with pytest.raises(BadInput, match="no storey"):
        adopted(project, plan, Choices(storeys={0: ""}), prefix="read")
    with pytest.raises(BadInput, match="no make-up"):
        adopted(project, plan, Choices(make_ups={"300 outer": "straw"}), prefix="read")
