"""Anchors: what holds on to a part is where it was on it, however the house is turned, mirrored, parted or built up."""

from __future__ import annotations

import functools
import math
import random
from collections.abc import Callable, Iterator

import numpy as np
import pytest
from pydantic import ValidationError

from deepsection.core.document.motion import Motion
from deepsection.core.edits import (
    AddStorey,
    Remove,
    ReverseWall,
    SplitWall,
    Transform,
    UseMakeUp,
    apply_edits,
    changed,
    put,
)
from deepsection.core.edits.storeys import storey_above
from deepsection.core.model import (
    GridAnchor,
    GridLine,
    JointAnchor,
    LevelAnchor,
    Note,
    PartAnchor,
    PointAnchor,
    Project,
)
from deepsection.core.resolve import Building, Part, anchor_on, keeping_places, locate, resolve
from tests.builders import block_house, box_house, joist_house
from tests.campaigns import most_demos

near = functools.partial(pytest.approx, abs=1e-6)
Vector = tuple[float, float, float]


def at(project: Project, anchor: PartAnchor) -> Vector:
    found = locate(resolve(project), anchor)
    assert found is not None, anchor
    return found.at


def samples(building: Building) -> Iterator[tuple[Part, Vector]]:
    """Of every kind of part, two, each with a point on its surface."""
    choice = random.Random(5)
    kinds: dict[tuple[str, str], list[Part]] = {}
    for part in building.parts:
        kinds.setdefault((type(building.placed.project.find(part.element)).__name__, part.role), []).append(part)
    for parts in kinds.values():
        for part in choice.sample(parts, min(2, len(parts))):
            points, triangles = part.solid.mesh()
            sides = points[choice.choice(triangles.tolist())]
            shares = np.array([0.5, 0.3, 0.2])
            x, y, z = (shares @ sides).tolist()
            yield part, (x, y, z)


@pytest.mark.parametrize("demo", most_demos())
def test_a_point_of_any_part_is_found_again_in_the_house_and_in_one_turned_or_mirrored(
    demo: Callable[[], Project],
) -> None:
    project = demo()
    building = resolve(project)
    held = [(anchor_on(building, part, point), part, point) for part, point in samples(building)]
    movable = tuple(element.id for element in project.elements() if element.about.movable)
    for motion in (Motion(), Motion(turn=33.0), Motion(mirror=90.0), Motion(mirror=20.0, dx=4000.0)):
        moved = resolve(apply_edits(project, (Transform(elements=movable, motion=motion),)))
        for anchor, part, point in held:
            # Members are laid out from one end: in a mirrored house they stand elsewhere in their wall or floor.
            if motion.mirror is not None and (part.axis is not None or part.role in UNLIKE):
                continue
            found = locate(moved, anchor)
            assert found is not None, part.key
            want = (*motion.at(point[:2]), point[2])
            # A lip as thin as a hair is found, or what lies beside it.
            off = math.dist(found.at[:2], want[:2]) if part.role in THIN else math.dist(found.at, want)
            assert off < 1.5, (part.key, motion, anchor, found.at, want)


UNLIKE = {
    "infill", "tread", "riser", "stair_flight", "landing_frame", "newel", "balusters", "handrail", "stair_landing",
    "panel", "sheathing", "leaf", "louvre", "shutter", "bar", "rail_bars", "rail_posts", "steps",
}  # fmt: skip
"""Of which a mirrored house has others in the place: studs, sheets and treads are counted from one end, leaves have
hinges."""


THIN = {"gutter"}


def test_by_hand_an_anchor_is_a_face_an_edge_or_a_point() -> None:
    """A box of 9 by 6 m, set out to the outside of its frame, 2.4 m high: its south wall runs along y = 0."""
    house = box_house(9000.0, 6000.0)
    building = resolve(house)
    frame = next(part for part in building.parts if part.element == "south" and part.role in ("infill", "structure"))
    level, top = frame.solid.bounds.z0, frame.solid.bounds.z1
    face = locate(building, PartAnchor.on(frame.key, end=None, side="outside", level=None))
    assert face is not None and face.normal == near((0.0, -1.0, 0.0)) and face.at[1] == near(frame.solid.bounds.y0)
    edge = locate(building, PartAnchor.on(frame.key, end=None, side="inside", level="top"))
    assert edge is not None and edge.direction is not None and abs(edge.direction[0]) == near(1.0)
    assert edge.at[1:] == near((frame.solid.bounds.y1, top))
    point = locate(building, PartAnchor.on(frame.key, end="start", distance=1200.0, side="outside", level="bottom"))
    assert point is not None and point.direction is None and point.normal is None
    wall = building.plan.by_id["south"]
    assert point.at == near((*wall.at(1200.0, wall.outer - (wall.outer + frame.solid.bounds.y0)), level))
    with pytest.raises(ValidationError, match="which end, side or level"):
        PartAnchor.on(frame.key, end=None, side=None, level=None)


def test_grid_lines_levels_corners_and_points_by_hand() -> None:
    house = put(box_house(9000.0, 6000.0), GridLine(id="g", name="A", x=1000.0, y=500.0, angle=30.0))
    building = resolve(house)
    plane = locate(building, GridAnchor(grid="g"))
    assert plane is not None and plane.normal == near((-0.5, math.sqrt(3) / 2, 0.0))
    edge = locate(building, GridAnchor(grid="g", distance=2000.0))
    assert edge is not None and edge.direction == (0.0, 0.0, 1.0)
    point = locate(building, GridAnchor(grid="g", distance=2000.0, height=300.0))
    assert point is not None and point.at == near((1000.0 + 2000.0 * math.sqrt(3) / 2, 1500.0, 300.0))
    plate = locate(building, LevelAnchor(level="plate", rise=-100.0))
    assert plate is not None and plate.at[2] == near(building.levels["plate"].z - 100.0)
    assert plate.normal == (0.0, 0.0, 1.0)
    joint = house.joints[0]
    corner = locate(building, JointAnchor(joint=joint.id, height=50.0))
    assert corner is not None and corner.at == near((joint.x, joint.y, 50.0))  # type: ignore[union-attr]
    free = locate(building, PointAnchor(x=1.0, y=2.0, z=3.0))
    assert free is not None and free.at == (1.0, 2.0, 3.0)
    for gone in (GridAnchor(grid="no"), LevelAnchor(level="no"), JointAnchor(joint="no"), PartAnchor.on("no/stud//")):
        assert locate(building, gone) is None


def noted(project: Project, *anchors: PartAnchor) -> Project:
    notes = (Note(id=f"n{k}", view="elevation:south", text="x", anchor=anchor) for k, anchor in enumerate(anchors))
    return put(project, *notes)


@pytest.mark.parametrize("make", [lambda: box_house(9000.0, 6000.0), block_house])
def test_notes_stay_where_they_are_when_their_wall_is_parted_or_turned_round(make: Callable[[], Project]) -> None:
    house = make()
    layers = [part for part in resolve(house).parts if part.element == "south" and part.axis is None]
    anchors = [
        PartAnchor.on(layer.key, end=end, distance=away, side="outside", level="top", rise=-100.0)
        for layer in layers
        for end, away in (("start", 700.0), ("start", 6000.0), ("middle", -300.0), ("end", 800.0), ("end", 7000.0))
    ]
    held = noted(house, *anchors)
    before = [at(held, note.anchor) for note in held.notes]  # type: ignore[arg-type]
    parted = apply_edits(held, (SplitWall(wall="south", distance=3500.0, joint="j9", second="south-2"),))
    assert {note.anchor.element for note in parted.notes} == {"south", "south-2"}  # type: ignore[union-attr]
    for after in (parted, apply_edits(held, (ReverseWall(wall="south"),))):
        for note, place in zip(after.notes, before):
            assert at(after, note.anchor) == near(place, abs=0.01), note.anchor  # type: ignore[arg-type]


def test_a_layer_that_is_gone_has_the_one_of_its_role_in_its_place_and_a_member_has_none() -> None:
    house = box_house(9000.0, 6000.0)
    building = resolve(house)
    cladding = next(part for part in building.parts if part.element == "south" and part.role == "cladding")
    other = changed(
        next(held for held in house.make_ups if held.id == house.walls[0].make_up),
        id="other",
        layers=tuple(
            changed(layer, id=f"{layer.id}-2") for held in house.make_ups if held.id == house.walls[0].make_up
            for layer in held.layers
        ),
    )  # fmt: skip
    swapped = apply_edits(put(house, other), (UseMakeUp(wall="south", make_up="other"),))
    found = locate(resolve(swapped), PartAnchor.on(cladding.key, side="outside"))
    whole = locate(building, PartAnchor.on(cladding.key, side="outside"))
    assert found == whole and cladding.key not in resolve(swapped).by_key
    assert locate(building, PartAnchor.on("south/stud/frame/999")) is None


def test_what_lost_its_place_says_where_it_was_and_finds_it_again() -> None:
    house = box_house(9000.0, 6000.0)
    key = next(part.key for part in resolve(house).parts if part.element == "south" and part.role == "cladding")
    held = noted(house, PartAnchor.on(key, end="start", distance=1000.0, side="outside", level="bottom"))
    place = at(held, held.notes[0].anchor)  # type: ignore[arg-type]
    gone = apply_edits(held, (Remove(elements=("south",)),))
    kept = keeping_places(resolve(held), resolve(gone), gone)
    assert kept.notes[0].last == near(place) and locate(resolve(kept), kept.notes[0].anchor) is None
    # A second change does not forget it; with its wall, it is there again.
    more = apply_edits(kept, (Remove(elements=("east",)),))
    assert keeping_places(resolve(kept), resolve(more), more).notes[0].last == near(place)
    healed = put(kept, *house.joints, *(wall for wall in house.walls if wall.id == "south"))
    assert at(healed, healed.notes[0].anchor) == near(place)  # type: ignore[arg-type]


def test_a_storey_more_leaves_anchors_on_what_they_were_on() -> None:
    house = joist_house(9000.0, 6000.0)
    key = next(part.key for part in resolve(house).parts if part.element == "south" and part.role == "cladding")
    anchor = PartAnchor.on(key, end="end", distance=500.0, side="outside", level="bottom", rise=900.0)
    place = at(house, anchor)
    edit = storey_above(house, "floor")
    assert isinstance(edit, AddStorey)
    assert at(apply_edits(house, (edit,)), anchor) == near(place)
