"""Whole small buildings laid out with edits alone: every join closes, nothing blocks, every view can be drawn."""

from __future__ import annotations

import itertools

import manifold3d
import pytest

from deepsection.core.edits import AddBay, DrawWalls, PutWall, apply_edits, changed, put
from deepsection.core.model import Project, Room
from deepsection.core.resolve import Building, resolve
from deepsection.core.trades.walls.whole import wall_bodies
from deepsection.core.view import draw_view
from deepsection.demo.pieces import on, partition
from tests.builders import box_house, gable, window


def ten_rooms() -> Project:
    """15 x 10 m: a corridor between two rows of rooms, an angled bay in the south, a bowed window in the north."""
    house = box_house(15_000, 10_000)
    walls: list[DrawWalls] = [
        partition("front", on("f1", "west", 5800), on("f2", "east", 4200)),
        partition("rear", on("r1", "west", 4400), on("r2", "east", 5600)),
    ]
    for k, x in enumerate((3600.0, 6400.0, 11_800.0)):
        walls.append(partition(f"s{k}", on(f"sa{k}", "south", x), on(f"sb{k}", "front", x)))
    for k, x in enumerate((3200.0, 6200.0, 9400.0, 12_200.0)):
        walls.append(partition(f"n{k}", on(f"na{k}", "rear", x), on(f"nb{k}", "north", 15_000 - x)))
    bay = AddBay(
        wall="south",
        distance=9000,
        width=2600,
        out=700,
        shape="angled",
        joints=("b1", "b2", "b3", "b4"),
        walls=("bay-l", "bay-f", "bay-r"),
        rest="south-2",
    )
    bow = AddBay(
        wall="north",
        distance=7200,
        width=2200,
        out=400,
        shape="bowed",
        joints=("w1", "w2"),
        walls=("bow",),
        rest="north-2",
    )
    house = apply_edits(house, (*walls, bay, bow))
    return put(house, window("w-bay", "bay-f", 600, width=900), window("w-bow", "bow", 1150, width=700))


def closed(building: Building) -> None:
    """Bodies of layers share nothing: together they are as large as one by one."""
    bodies = [solid for wall in building.plan.walls for _, solid in wall_bodies(building.placed, wall.wall.id)]
    one_by_one = sum(body.volume for body in bodies)
    together = manifold3d.Manifold.batch_boolean([body.manifold for body in bodies], manifold3d.OpType.Add).volume()
    assert together == pytest.approx(one_by_one, rel=1e-6)


def drawn(project: Project, building: Building, *views: str) -> None:
    for view in views:
        drawing = draw_view(building, project, view, 50)
        assert len(drawing.marks) > 20 and drawing.messages == ()


def test_a_house_of_ten_rooms_with_a_bay_and_a_bowed_window() -> None:
    project = ten_rooms()
    building = resolve(project)
    assert [found for found in building.diagnostics if found.severity == "blocking"] == []
    spaces = [space for outline in building.plan.outlines for space in outline.spaces]
    assert len(spaces) == 10
    names = [Room(id=f"room-{k}", name=f"Room {k}", x=s.representative_point().x, y=s.representative_point().y)
             for k, s in enumerate(spaces)]  # fmt: skip
    named = resolve(put(project, *names))
    assert all(room.space is not None for room in named.rooms)
    closed(building)
    drawn(project, building, "plan", "elevation:south", "elevation:north")


def test_a_niche_of_low_walls_keeps_its_height_beside_the_rooms() -> None:
    """Three short walls, 1100 high, about a seat in a corner: the room keeps its own height."""
    house = apply_edits(
        gable(box_house(8000, 6000), 0.5, overhang=400),
        (
            partition("back", on("k1", "south", 2400), on("k2", "west", 3600)),
            partition("side", on("k3", "back", 900), on("k4", "south", 900)),
        ),
    )
    tops = {id: changed(house.find(id).top, kind="fixed", height=1700) for id in ("back", "side")}
    low = [changed(house.find(id), top=top) for id, top in tops.items()]
    project = apply_edits(house, tuple(PutWall(wall=wall) for wall in low))
    building = resolve(project)
    assert [found for found in building.diagnostics if found.severity == "blocking"] == []
    floor = building.levels["floor"].z
    for id in ("back", "side"):
        assert building.sums[f"top:{id}"].total == pytest.approx(floor + 1700)
        heads = [part.solid.bounds.z1 for part in building.parts if part.element == id]
        assert max(heads) == pytest.approx(floor + 1700)
    south = [part.solid.bounds.z1 for part in building.parts if part.key.startswith("south/plate/")]
    assert max(south) == pytest.approx(building.levels["plate"].z)
    closed(building)
    heights = [building.sums[f"top:{id}"].terms[-1].label for id in ("back", "side")]
    assert heights == ["height of wall"] * 2, "each is explained"
    assert len(list(itertools.chain.from_iterable(o.spaces for o in building.plan.outlines))) == 3
