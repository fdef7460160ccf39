"""Walls in plan and as bodies: corners that close, members at their places, keys that last."""

from __future__ import annotations

import itertools
import math
from collections import Counter

import numpy as np
import pytest
import shapely
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.geometry import Polygon

from deepsection.core.edits import MoveJoint, MoveOpening, PutWall, SetTerm, UseMakeUp, apply_edits, changed, put
from deepsection.core.model import FreeJoint, Project
from deepsection.core.resolve import Building, PlannedWall, resolve
from tests.builders import box_house, gable, l_house, window
from tests.core.model.test_edits import with_partition

OUT, IN = 20 + 0.5 + 12, 140 + 0.2 + 12.5
"""Thickness outside of the set-out face, and inside of it, of the metric wall with lap boards."""


def areas(walls: tuple[PlannedWall, ...]) -> tuple[float, float]:
    """(sum of the layers' areas, area of their union)."""
    polygons = [layer.polygon for wall in walls for layer in wall.layers]
    return sum(polygon.area for polygon in polygons), shapely.union_all(polygons, grid_size=1e-4).area


@pytest.mark.parametrize("house", [box_house(8000, 6000), l_house()], ids=["box", "L"])
def test_corners_close_without_gap_or_overlap(house: Project) -> None:
    """Closed form: all layers together fill the ring between the outline grown outward and shrunk inward."""
    plan = resolve(house).plan
    outline = plan.outlines[0].polygon
    ring = outline.buffer(OUT, join_style="mitre").area - outline.buffer(-IN, join_style="mitre").area
    total, union = areas(plan.walls)
    assert total == pytest.approx(ring, rel=1e-9)
    assert union == pytest.approx(ring, rel=1e-6)


@settings(max_examples=40, deadline=None)
@given(dx=st.floats(-1500, 1500), dy=st.floats(-1500, 1500))
def test_slanted_corners_close_too(dx: float, dy: float) -> None:
    house = apply_edits(box_house(8000, 6000), (MoveJoint(joint="ne", x=8000 + dx, y=6000 + dy),))
    plan = resolve(house).plan
    outline = plan.outlines[0].polygon
    ring = (
        outline.buffer(OUT, join_style="mitre", mitre_limit=20).area
        - outline.buffer(-IN, join_style="mitre", mitre_limit=20).area
    )
    total, union = areas(plan.walls)
    assert total == pytest.approx(ring, rel=1e-6) and union == pytest.approx(ring, rel=1e-5)


def test_walls_of_different_thickness_join_on_their_frames() -> None:
    house = apply_edits(box_house(8000, 6000), (UseMakeUp(wall="east", make_up="wall-inner"),))
    total, union = areas(resolve(house).plan.walls)
    assert total == pytest.approx(union, rel=1e-6), "nothing overlaps"


def test_a_partition_reaches_the_structure_of_its_hosts() -> None:
    """Common practice: like materials run through; the lining of the outer wall stops at the partition's frame."""
    plan = resolve(with_partition(box_house(8000, 6000))).plan
    walls = {wall.wall.id: {layer.layer: layer for layer in wall.layers} for wall in plan.walls}
    frame = walls["partition"]["frame"].polygon
    assert frame.bounds[1] == pytest.approx(140) and frame.bounds[3] == pytest.approx(6000 - 140)
    assert walls["south"]["lining"].polygon.geom_type == "MultiPolygon"
    total, union = areas(plan.walls)
    assert total == pytest.approx(union, rel=1e-6)


def test_flipping_a_wall_mirrors_it_about_its_line() -> None:
    house = box_house(8000, 6000)
    south = next(wall for wall in house.walls if wall.id == "south")
    flipped = resolve(put(house, changed(south, outside="left"))).plan
    faces = {wall.wall.id: sorted((wall.at(0, wall.outer)[1], wall.at(0, wall.inner)[1])) for wall in flipped.walls}
    assert faces["south"] == pytest.approx([-IN, OUT])


@pytest.mark.parametrize(("face", "outer"), [("outer", OUT), ("middle", OUT + 70), ("inner", OUT + 140)])
def test_the_set_out_face_lies_on_the_line(face: str, outer: float) -> None:
    house = box_house(8000, 6000)
    south = next(wall for wall in house.walls if wall.id == "south")
    moved = changed(south, set_out=south.set_out.model_copy(update={"face": face}))
    planned = next(
        wall for wall in resolve(apply_edits(house, (PutWall(wall=moved),))).plan.walls if wall.wall.id == "south"
    )
    assert planned.outer == pytest.approx(outer)


@pytest.mark.parametrize("passes", ["east", "south"])
def test_one_wall_is_told_to_pass_at_a_corner(passes: str) -> None:
    """Common practice: the frame of the one runs through to the outer face, the other butts against it."""
    house = box_house(8000, 6000)
    plan = resolve(put(house, changed(house.find("se"), through=passes))).plan
    frames = {wall.wall.id: next(held.polygon for held in wall.layers if held.layer == "frame") for wall in plan.walls}
    reach = {"east": frames["east"].bounds[1], "south": frames["south"].bounds[2]}
    assert reach == pytest.approx(
        {"east": 0 if passes == "east" else 140, "south": 8000 if passes == "south" else 7860}
    )
    total, union = areas(plan.walls)
    assert total == pytest.approx(union, rel=1e-6)


def test_a_join_is_turned_off() -> None:
    house = box_house(8000, 6000)
    plan = resolve(put(house, changed(house.find("se"), join="apart"))).plan
    south = next(wall for wall in plan.walls if wall.wall.id == "south")
    assert max(layer.polygon.bounds[2] for layer in south.layers) == pytest.approx(8000), "square at its joint"


def counts(building: Building, element: str) -> Counter[str]:
    return Counter(part.role for part in building.parts if part.element == element)


def test_studs_counted_by_hand() -> None:
    """Arithmetic: studs 38 at 400 from the start, one flush at each end. Frames run through or butt in the order of
    their names: east 6000 long (0, 400 ... 5600, end: 16), west 6000 - 2 x 140 (16), south and north 8000 - 140 (21).
    """
    building = resolve(box_house(8000, 6000))
    assert {id: counts(building, id)["stud"] for id in ("east", "west", "south", "north")} == {
        "east": 16,
        "west": 16,
        "south": 21,
        "north": 21,
    }
    assert counts(building, "south")["plate"] == 3, "one bottom plate and a doubled top plate (common practice)"


def test_studs_stand_at_their_spacing() -> None:
    building = resolve(box_house(8000, 6000))
    studs = [part for part in building.parts if part.key.startswith("east/stud/")]
    middles = sorted((part.solid.reach.y0 + part.solid.reach.y1) / 2 for part in studs)
    gaps = [b - a for a, b in itertools.pairwise(middles)]
    assert gaps[1:-1] == pytest.approx([400] * len(gaps[1:-1]))
    assert middles[1] == pytest.approx(400), "the first on-centre stud is measured from the end of the frame"


def test_members_around_a_window() -> None:
    """A window: two jacks, two kings, a header, a rough sill; cripples keep the layout (common practice)."""
    building = resolve(put(box_house(8000, 6000), window("w1", "south", 2000.0)))
    keys = {part.key for part in building.parts if part.element == "south"}
    for slot in ("jack:start:w1", "jack:end:w1", "king:start:w1", "king:end:w1"):
        assert f"south/stud/frame/{slot}" in keys
    assert "south/header/frame/w1" in keys and "south/rough_sill/frame/w1" in keys
    cripples = {key.split("/")[3].split(":")[0] for key in keys if ":over:w1" in key or ":under:w1" in key}
    assert cripples == {"4", "5", "6"}, "400 x 4, 5 and 6 lie within 1400 to 2600"


def test_members_fill_no_place_twice() -> None:
    """The frame of a wall and its insulation make up exactly the layer less the hole. Check: trimesh volumes."""
    building = resolve(put(box_house(8000, 6000), window("w1", "south", 2000.0)))
    parts = [part for part in building.parts if part.key.split("/")[2] == "frame" and part.element == "south"]
    total = 0.0
    for part in parts:
        points, triangles = part.solid.mesh()
        total += float(trimesh.Trimesh(points, triangles).volume)
    height = 2386 + 3 * 38
    assert total == pytest.approx((7860 * height - 1200 * 1200) * 140, rel=1e-6)


def test_keys_last_when_something_else_changes(house: Project, building: Building) -> None:
    """Moving one window renames nothing; a key is an element, a role, a layer and a slot that means something."""
    assert len(building.by_key) == len(building.parts), "no key twice"
    moved = resolve(apply_edits(house, (MoveOpening(opening="w2", distance=7700.0),)))
    others = {key for key in building.by_key if not key.startswith(("south/", "w2/"))}
    assert others == {key for key in moved.by_key if not key.startswith(("south/", "w2/"))}


def test_an_edit_rebuilds_only_what_it_touches(house: Project) -> None:
    """Untouched parts are the very same objects: stages are memoised on the values they read."""
    building = resolve(house)
    moved = resolve(apply_edits(house, (MoveOpening(opening="w2", distance=7700.0),)))
    for part in building.parts:
        if part.element not in ("south", "w2"):
            assert moved.by_key[part.key] is part


def test_identical_projects_give_identical_parts(house: Project, building: Building) -> None:
    again = resolve(type(house).model_validate_json(house.model_dump_json()))
    assert [part.key for part in again.parts] == [part.key for part in building.parts]
    for one, other in zip(again.parts, building.parts):
        assert one.solid.reach == other.solid.reach


def test_gable_walls_fill_the_gable() -> None:
    """Closed form: the cladding of a gable wall is a rectangle with a triangle on it, up to the deck of the roof."""
    pitch, depth = 0.5, 6000.0
    building = resolve(gable(box_house(8000, depth), pitch, rake=300))
    (roof,) = building.roofs
    cladding = building.by_key[f"east/cladding/cladding/{roof.block.id}"]
    points, triangles = cladding.solid.mesh()
    mesh = trimesh.Trimesh(points, triangles)
    outer = max(mesh.vertices[:, 0])
    seen = mesh.faces[np.isclose(mesh.vertices[mesh.faces][:, :, 0], outer).all(axis=1)]
    area = trimesh.Trimesh(mesh.vertices, seen, process=False).area
    width = depth + 2 * OUT
    under = roof.heel.total

    def half(from_: float, to: float) -> float:
        return (to - from_) * ((under + pitch * from_) + (under + pitch * to)) / 2 - (to - from_) * 300.0

    assert area == pytest.approx(2 * half(-OUT, depth / 2), rel=1e-6)
    assert width == pytest.approx(mesh.bounds[1][1] - mesh.bounds[0][1])


def test_the_sum_of_parts_moves_a_wall_top() -> None:
    taller = apply_edits(box_house(8000, 6000), (SetTerm(rung="plate", term="stud", value=2500.0),))
    top = max(part.solid.reach.z1 for part in resolve(taller).parts if part.element == "south")
    assert top == pytest.approx(300 + 38 + 2500 + 76)


def test_rooms_have_the_area_between_the_linings(building: Building) -> None:
    """Arithmetic, workshop: 18' x 20' between frames' outsides, less the walls inside of them.

    East-west: 18' - 6" (board inside of 5 1/2 studs) - vapour film - the main wall's cladding side (3/4 + 1/2 + wrap);
    north-south: 20' - 2 x 6" - 2 films. Films: wrap 0.5 mm, vapour control 0.2 mm.
    """
    workshop = next(space for space in building.rooms if space.room.id == "room-workshop")
    across = 18 * 304.8 - 6 * 25.4 - 0.2 - (1.25 * 25.4 + 0.5)
    deep = 20 * 304.8 - 2 * (6 * 25.4 + 0.2)
    assert workshop.area == pytest.approx(across * deep, rel=1e-4)


def test_a_free_end_is_cut_square() -> None:
    house = box_house(8000, 6000)
    joints = (FreeJoint(id="x", x=12000.0, y=0.0), FreeJoint(id="y", x=15000.0, y=4000.0))
    south = next(wall for wall in house.walls if wall.id == "south")
    lone = changed(south, id="lone", start="x", end="y")
    planned = next(wall for wall in resolve(put(house, *joints, lone)).plan.walls if wall.wall.id == "lone")
    assert planned.length == pytest.approx(5000)
    assert planned.footprint.area == pytest.approx(5000 * (OUT + IN))
    assert isinstance(planned.footprint, Polygon) and math.isclose(
        planned.footprint.minimum_rotated_rectangle.area, planned.footprint.area
    )


@pytest.mark.parametrize(("offset", "words"), [(1500.0, "far above Plate"), (-1400.0, "far below Plate"), (900.0, "")])
def test_a_wall_far_off_its_plate_is_pointed_out(offset: float, words: str) -> None:
    house = box_house(8000.0, 6000.0)
    south = house.walls[0]
    off = put(house, changed(south, top=changed(south.top, offset=offset)))
    found = resolve(off).diagnostics
    assert [held.value for held in found] == ([offset] if words else [])
    assert not words or (words in found[0].message and found[0].severity == "warning")
