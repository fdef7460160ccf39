"""The masonry tradition: cavity walls, bearing lines, wall plates, lintels, ground-bearing slab; numbers by hand."""

from __future__ import annotations

import math

import pytest
import shapely

from deepsection.core.edits import DrawWalls, apply_edits, put
from deepsection.core.errors import BadInput
from deepsection.core.model import Project
from deepsection.core.resolve import resolve
from deepsection.core.starters.projects import new_project
from deepsection.core.trades.walls.model import FreeJoint
from deepsection.demo import fernacre_bungalow
from tests.builders import rectangle, roof_block, window

OUTER, CAVITY, INNER = 100.0, 150.0, 100.0


def bungalow(width: float = 10000.0, depth: float = 7000.0) -> Project:
    """A rectangle of cavity walls, the outer faces of their outer leaves on its sides."""
    joints = tuple(FreeJoint(id=f"j{i}", x=x, y=y) for i, (x, y) in enumerate(rectangle(0, 0, width, depth)))
    ids = tuple(joint.id for joint in joints)
    draw = DrawWalls(
        joints=joints,
        chain=(*ids, ids[0]),
        walls=("south", "east", "north", "west"),
        make_up="wall-cavity",
        base="floor",
        top="plate",
    )
    return apply_edits(new_project("m", "Bungalow", "mm", "masonry"), (draw,))


def roofed(pitch: float = math.tan(math.radians(30))) -> Project:
    block = roof_block("roof-1", "Roof", rectangle(0, 0, 10000, 7000), pitch, overhang=300.0)
    return put(bungalow(), block.model_copy(update={"seat": 60.0}))


def test_the_starter_is_in_millimetres_on_a3() -> None:
    project = new_project("m", "Bungalow", "mm", "masonry")
    assert project.tradition == "masonry" and project.sheets[0].paper == "A3"
    with pytest.raises(BadInput, match="in millimetres"):
        new_project("m", "Bungalow", "ft-in", "masonry")


def test_walls_stand_in_courses() -> None:
    """Common practice: block courses of 225 (215 and a 10 joint), a closing course, and a wall plate of 75."""
    building = resolve(bungalow())
    assert building.levels["plate"].z == pytest.approx(150 + 11 * 225 + 75 + 75)


def test_span_and_heel_are_measured_at_the_inner_leaf() -> None:
    """The bearing line of a cavity wall is the outer face of its inner leaf: 100 + 150 inside of the outer face."""
    building = resolve(roofed())
    (roof,) = building.roofs
    pitch = roof.block.pitch
    assert roof.run == pytest.approx((7000 - 2 * (OUTER + CAVITY)) / 2)
    assert roof.planes[0].eave_start[1] == pytest.approx(OUTER + CAVITY)
    assert roof.heel.total == pytest.approx(roof.plate.total + 175 * math.hypot(1, pitch) - 60 * pitch)
    assert roof.planes[0].reach == pytest.approx(300 + OUTER + CAVITY), "the overhang is measured from the masonry face"
    low = min(y for _, y in roof.planes[0].polygon.exterior.coords)
    assert low == pytest.approx(-300)


def test_leaves_close_at_corners_each_on_its_own() -> None:
    """Closed form: each layer is a ring between two outlines."""
    plan = resolve(bungalow()).plan
    reached = -20.0
    outline = plan.outlines[0].polygon
    for layer, thickness in (
        ("render", 20),
        ("outer", 100),
        ("cavity", 50),
        ("boards", 100),
        ("inner", 100),
        ("plaster", 15),
    ):
        ring = (
            outline.buffer(-reached, join_style="mitre").area
            - outline.buffer(-reached - thickness, join_style="mitre").area
        )
        polygons = [held.polygon for wall in plan.walls for held in wall.layers if held.layer == layer]
        assert sum(p.area for p in polygons) == pytest.approx(ring), layer
        assert shapely.union_all(polygons).area == pytest.approx(ring, rel=1e-6), layer
        reached += thickness


def test_the_clear_cavity_holds_nothing() -> None:
    building = resolve(bungalow())
    assert not [part for part in building.parts if "/cavity/" in part.key]


def test_a_wall_plate_lies_on_the_inner_leaf_under_the_eaves_only() -> None:
    building = resolve(roofed())
    plates = {part.element: part.solid.bounds for part in building.parts if part.role == "wall_plate"}
    assert set(plates) == {"south", "north"}, "a gable carries none"
    held = plates["south"]
    assert (held.z1 - held.z0, held.y1 - held.y0) == pytest.approx((75, INNER))
    assert held.y0 == pytest.approx(OUTER + CAVITY) and held.z1 == pytest.approx(building.levels["plate"].z)


def test_rafters_sit_on_the_plate() -> None:
    building = resolve(roofed())
    rafter = next(part for part in building.parts if part.key.startswith("roof-1/rafter/rafters/edge:e1:3"))
    points, _ = rafter.solid.mesh()
    on_plate = [y for _, y, z in points if abs(z - building.levels["plate"].z) < 1e-6]
    assert (min(on_plate), max(on_plate)) == pytest.approx((OUTER + CAVITY, OUTER + CAVITY + 60))


def test_lintels_bear_on_both_sides_in_both_leaves() -> None:
    house = put(bungalow(), window("w1", "south", 4000.0))
    building = resolve(house)
    lintels = {part.key.split("/")[2]: part.solid.bounds for part in building.parts if part.role == "lintel"}
    assert set(lintels) == {"outer", "inner"}
    for held in lintels.values():
        assert (held.x0, held.x1) == pytest.approx((4000 - 600 - 150, 4000 + 600 + 150))
        assert (held.z0, held.z1) == pytest.approx((150 + 2100, 150 + 2100 + 140))


def test_the_slab_lies_between_the_foundation_walls_in_its_layers() -> None:
    """Screed, insulation, slab, membrane and hardcore, from the floor down; the walls below ground are 350 thick."""
    building = resolve(bungalow())
    layers = [part for part in building.parts if part.element == "foundation" and part.role not in ("stem", "footing")]
    tops = [round(part.solid.bounds.z1, 3) for part in layers]
    assert tops == [150, 85, -35, -185, -185.5]
    assert layers[0].solid.bounds.x0 == pytest.approx(350)
    footing = next(part for part in building.parts if part.key == "foundation/footing//south").solid.bounds
    assert (footing.y0, footing.y1, footing.z0, footing.z1) == pytest.approx((-125, 475, -900, -675))


def test_joists_bear_within_the_inner_leaves() -> None:
    building = resolve(roofed())
    joists = [part.solid.bounds for part in building.parts if part.role == "joist"]
    assert joists and min(held.y0 for held in joists) == pytest.approx(OUTER + CAVITY)


def test_the_demo_is_sound_and_its_wing_dies_into_the_main_roof() -> None:
    """Equal pitches: ridges differ by pitch x the difference of the half spans; valleys run at 45 degrees."""
    building = resolve(fernacre_bungalow())
    assert building.diagnostics == ()
    main, wing = (next(r for r in building.roofs if r.block.id == id) for id in ("roof-main", "roof-wing"))
    assert main.ridge_top.total - wing.ridge_top.total == pytest.approx(main.block.pitch * (7500 - 6000) / 2)
    assert len(wing.of("valley")) == 2
    for valley in wing.of("valley"):
        dx, dy, _ = (abs(a - b) for a, b in zip(valley.start, valley.end))
        assert dx == pytest.approx(dy, abs=0.01)
