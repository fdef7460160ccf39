"""Models in IFC: our own are read back to where everything stood, and those of another hand as they were drawn.

The models of another hand are made by tests.models_by_hand, which shares no code with the reader.
"""

from __future__ import annotations

import math
import random
from collections.abc import Callable
from typing import Any

import ifcopenshell
import numpy as np
import pytest
from shapely.geometry import Point

from deepsection.core.adopting import Adopted, Choices, adopted
from deepsection.core.edits import BendWall, PutOpening, apply_edits
from deepsection.core.errors import BadInput
from deepsection.core.model import Project, along_from_start, wall_axis
from deepsection.core.reading import ReadPlan
from deepsection.core.reading.modelled import read_model
from deepsection.core.resolve import Building, resolve, storeys
from deepsection.core.starters.projects import new_project
from deepsection.core.trades.walls.planned import WALLS
from deepsection.demo import DEMOS
from deepsection.formats.ifc_model import is_ifc, read_ifc
from deepsection.formats.writers import write_ifc
from tests.builders import box_house, window
from tests.models_by_hand import DEEP, OUTSIDE, RISE, Hand, two_storeys

OTHERS = {"hollin": {"garden-wall"}, "wrenfold": {"across"}}
"""Walls of the demos that do not come back in their place: a battered one, one that runs on from a corner."""


def taken(data: bytes, units: Any = "mm", tradition: Any = "timber") -> tuple[Project, ReadPlan, Adopted]:
    plan = read_model(read_ifc(data))
    empty = new_project("p", "Read", units, tradition)
    made = adopted(empty, plan, Choices(), prefix="read")
    return apply_edits(empty, made.edits), plan, made


def boxes(building: Building) -> dict[str, tuple[float, ...]]:
    found = building.placed[WALLS].walls
    return {wall.wall.id: tuple(wall.footprint.bounds) for wall in found if not wall.wall.base.on_roof}


def openings(project: Project, walls: set[str]) -> dict[str, tuple[float, ...]]:
    """Middle in plan, sizes and sill of the openings in some walls, by number."""
    found = {}
    for held in project.openings:
        if held.wall in walls and held.unit != "niche":
            axis = wall_axis(project, project.walls_by_id[held.wall])
            design = project.design_of(held)
            place = axis.at(along_from_start(held, axis.length))
            found[project.number_of(held)] = (*place, design.width, design.height, held.sill)
    return found


@pytest.mark.parametrize("make", DEMOS, ids=lambda make: make().id)
def test_our_own_models_come_back(make: Callable[[], Project]) -> None:
    """Walls to 0.1 mm where they stood, openings in them with size and sill, storeys as far apart."""
    house = make()
    before = resolve(house)
    project, plan, made = taken(write_ifc(house, before), house.units, house.tradition)
    after = resolve(project)
    here, there = boxes(before), boxes(after)
    back = {
        id: next((other for other, found in there.items() if np.allclose(box, found, atol=0.1)), None)
        for id, box in here.items()
    }
    assert {id for id, other in back.items() if other is None} == OTHERS.get(house.id, set())
    assert made.skipped == [] and not [found for found in after.faults if found.severity == "blocking"]
    wanted = openings(house, {id for id, other in back.items() if other})
    built = openings(project, set(there))
    for number, facts in wanted.items():
        assert any(np.allclose(facts, other, atol=0.1) for other in built.values()), number
    rises = [
        [building.levels[held.level].z - building.levels[storeys(held_in)[0].level].z for held in storeys(held_in)]
        for building, held_in in ((before, house), (after, project))
    ]
    assert np.allclose(*rises, atol=0.1)
    # Rooms by the places of their names, and the lines of a grid that has two directions.
    named = {held.room.name: held.space for held in before.rooms if held.space is not None}
    assert {room.name for room in project.rooms} == set(named)
    for room in plan.rooms:
        named_so = [held.space for held in before.rooms if held.space is not None and held.room.name == room.name]
        assert any(
            space.contains(Point(room.at)) and room.area == pytest.approx(space.area / 1e6, abs=0.01)
            for space in named_so
        )
    assert {line.name for line in project.grid} in ({line.name for line in house.grid}, set())
    for line in project.grid:
        own = next(held for held in house.grid if held.name == line.name)
        way = math.radians(own.angle)
        assert abs((line.x - own.x) * math.sin(way) - (line.y - own.y) * math.cos(way)) < 0.1
    # What is not taken over is counted, all of it.
    assert sum(left.count for left in plan.left if left.layer == "members") == sum(
        1 for _ in ifcopenshell.file.from_string(write_ifc(house, before).decode()).by_type("IfcMember")
    )


# --- models of another hand ---------------------------------------------------------------------


@pytest.mark.parametrize(
    ("schema", "unit", "turn"),
    [("IFC4", 1.0, 0.0), ("IFC2X3", 1000.0, 0.0), ("IFC2X3", 304.8, 0.35), ("IFC4", 1000.0, -1.2)],
)
def test_a_model_of_another_hand(schema: str, unit: float, turn: float) -> None:
    project, plan, made = taken(two_storeys(schema, unit, turn), tradition="masonry")
    assert made.skipped == [] and len(plan.walls) == len(project.walls) == 10 and len(project.openings) == 10
    thick = sum(layer for _, layer in OUTSIDE)
    outer = [wall for wall in plan.walls if wall.outer]
    assert len(outer) == 8 and [wall.thickness for wall in outer] == [pytest.approx(thick, abs=0.01)] * 8
    for wall in plan.walls:
        assert (wall.start_on.kind, wall.end_on.kind) == (("corner", "corner") if wall.outer else ("tee", "tee"))
    # From the outside in, whichever way the file has them.
    assert [layer.material for layer in outer[0].stack] == [name for name, _ in OUTSIDE]
    first = next(wall for wall in project.walls if wall.status == "outer")
    make_up = next(held for held in project.make_ups if held.id == first.make_up)
    assert [layer.material for layer in make_up.layers] == ["brick", "air", "quilt", "block", "gypsum"]
    assert [layer.thickness for layer in make_up.layers] == pytest.approx([layer for _, layer in OUTSIDE], abs=0.01)
    building = resolve(project)
    cos, sin = math.cos(turn), math.sin(turn)
    body = [wall.footprint for wall in building.placed[WALLS].walls]
    for x, y, inside in (
        (-thick / 2 + 1, 3000, True),
        (-thick / 2 - 1, 3000, False),
        (thick / 2 + 1, 3000, False),
        (4050, 3000, True),
    ):
        spot = x * cos - y * sin, x * sin + y * cos
        assert any(shape.contains(Point(spot)) for shape in body) == inside, (x, y)
    levels = [building.levels[held.level].z for held in storeys(project)]
    assert levels[1] - levels[0] == pytest.approx(RISE, abs=0.1)
    window = next(held for held in project.openings if held.number == "W01")
    assert (window.width, window.height, window.sill) == (
        pytest.approx(1200, abs=0.1),
        pytest.approx(1300, abs=0.1),
        pytest.approx(850, abs=0.1),
    )
    axis = wall_axis(project, project.walls_by_id[window.wall])
    place = axis.at(along_from_start(window, axis.length))
    # On the north wall, 2500 east of its west end: the second of a clockwise round begins there.
    x, y = 2500.0, DEEP
    assert axis.left_of((x * cos - y * sin, x * sin + y * cos)) == pytest.approx(axis.left_of(place), abs=thick)
    assert math.dist(place, (x * cos - y * sin, x * sin + y * cos)) < thick
    assert [room.name for room in project.rooms] == ["Kitchen", "Kitchen"]
    # The floor of the storey above is the slab; that on the ground is the project's own.
    assert {(left.layer, left.count) for left in plan.left} == {("slabs", 1)}
    upper = next(held for held in project.floors if held.level == storeys(project)[1].level)
    floor = next(held for held in project.make_ups if held.id == upper.make_up)
    assert [(layer.material, layer.thickness) for layer in floor.layers] == [("concrete", pytest.approx(200.0))]


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"ISO-10303-21;\nHEADER;\n", "cut short"),
        (b"ISO-10303-21;\nnonsense\nEND-ISO-10303-21;\n", "schema unknown"),
        (two_storeys("IFC4")[:-400], "cut short"),
        (two_storeys("IFC4").replace(b"('IFC4')", b"('IFC99')"), "schema IFC99"),
        (Hand("IFC4").bytes(), "no walls"),
    ],
)
def test_what_is_no_model_is_refused_in_words(data: bytes, words: str) -> None:
    assert is_ifc(data)
    with pytest.raises(BadInput, match=words):
        read_model(read_ifc(data))


def test_mutated_models_are_read_or_refused() -> None:
    rng = random.Random("models")
    whole = two_storeys("IFC4")
    for _ in range(12):
        data = bytearray(whole)
        for _ in range(rng.randint(1, 10)):
            at = rng.randrange(60, len(data) - 60)
            if rng.random() < 0.6:
                data[at] = rng.choice(b"0123456789#(),$'.")
            else:
                del data[at : at + rng.randint(1, 20)]
        try:
            plan = read_model(read_ifc(bytes(data)))
        except BadInput as error:
            assert error.message
        else:
            assert all(
                math.isfinite(value) for wall in plan.walls for value in (*wall.start, *wall.end, wall.thickness)
            )


@pytest.mark.parametrize("rise", [-1500.0, 300.0, 1500.0])
def test_bent_walls_come_back(rise: float) -> None:
    """An arc outward, and flat and deep ones inward, with a window in it: faces to 0.1 mm, the window on them."""
    house = apply_edits(
        box_house(8000, 6000), (PutOpening(opening=window("w1", "south", 4000)), BendWall(wall="south", rise=rise))
    )
    before = resolve(house)
    project, _, made = taken(write_ifc(house, before))
    here, there = boxes(before), boxes(resolve(project))
    assert made.skipped == [] and len(here) == len(there)
    for box in here.values():
        assert any(np.allclose(box, other, atol=0.1) for other in there.values())
    [(_, facts)] = openings(house, set(here)).items()
    [(_, found)] = openings(project, set(there)).items()
    assert np.allclose(facts[2:], found[2:], atol=0.1)
    bent = next(wall for wall in project.walls if wall.bulge)
    line = wall_axis(project, bent)
    assert line.along(found[:2]) == pytest.approx(line.along(facts[:2]), abs=1.0)  # type: ignore[arg-type]
