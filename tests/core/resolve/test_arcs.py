"""Walls that are arcs: their areas, joins, members, openings and what elevations show of them."""

from __future__ import annotations

import math

import pytest
import shapely
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from deepsection.core.drawing import Region
from deepsection.core.edits import BendWall, DrawWalls, PutOpening, ReverseWall, SplitWall, StraightenWall, apply_edits
from deepsection.core.errors import RefusedEdit
from deepsection.core.geometry import arc_of
from deepsection.core.model import FreeJoint, Project, TeeJoint, wall_length
from deepsection.core.resolve import Building, resolve
from deepsection.core.view import draw_plan
from deepsection.core.view.setting import Setting
from tests.builders import box_house, side_view, window
from tests.core.resolve.test_walls import IN, OUT, areas

CHORD = 1e-4
"""Areas of arcs in chords of 0.1 mm are right to this share."""


def bowed(rise: float, width: float = 8000, depth: float = 6000) -> Project:
    """The box house with its south wall bowed out by a rise (its outside lies to the right, start to end)."""
    return apply_edits(box_house(width, depth), (BendWall(wall="south", rise=-rise),))


def segment(chord: float, rise: float) -> float:
    """Area of a circular segment: r^2 (a - sin a) / 2, a the angle of its arc."""
    radius = chord**2 / (8 * rise) + rise / 2
    angle = 4 * math.atan(2 * rise / chord)
    return radius**2 * (angle - math.sin(angle)) / 2


def test_the_outline_has_the_area_of_its_segment() -> None:
    outline = resolve(bowed(1000)).plan.outlines[0].polygon
    assert outline.area == pytest.approx(8000 * 6000 + segment(8000, 1000), rel=CHORD)


@settings(max_examples=30, deadline=None)
@given(rise=st.floats(-1500, 3500), make_up=st.sampled_from(("wall-lap", "wall-inner")))
def test_arcs_join_without_gap_or_overlap(rise: float, make_up: str) -> None:
    """Area identity: no layer overlaps another, and their union leaves no hole between walls."""
    assume(abs(rise) > 50)
    house = apply_edits(box_house(8000, 6000, make_up=make_up), (BendWall(wall="south", rise=-rise),))
    plan = resolve(house).plan
    total, union = areas(plan.walls)
    assert total == pytest.approx(union, rel=2e-6)
    whole = shapely.union_all([layer.polygon.buffer(0.15) for wall in plan.walls for layer in wall.layers])
    # Buffers that touch may leave a hole of no size.
    holes = [ring for ring in whole.interiors if shapely.Polygon(ring).area > 1e-3]
    assert len(holes) == 1, "one ring of walls around one room, closed all around"


def test_layers_of_an_arc_have_the_area_of_ring_sectors() -> None:
    """A half circle between two straight walls that it touches: each layer angle (R^2 - r^2) / 2, closed form."""
    project = box_house(6000, 4000)
    house = apply_edits(project, (BendWall(wall="south", rise=-3000),))
    planned = next(wall for wall in resolve(house).plan.walls if wall.wall.id == "south")
    sheathing = next(layer for layer in planned.layers if layer.layer == "cladding")
    outer, inner = 3000 + sheathing.outer, 3000 + sheathing.inner
    assert sheathing.polygon.area == pytest.approx(math.pi * (outer**2 - inner**2) / 2, rel=CHORD)
    assert planned.length == pytest.approx(math.pi * 3000)


def test_an_arc_that_touches_a_line_runs_on_without_a_step() -> None:
    house = apply_edits(box_house(6000, 4000), (BendWall(wall="south", rise=-3000),))
    walls = {wall.wall.id: wall for wall in resolve(house).plan.walls}
    ends = walls["south"].at(walls["south"].length, walls["south"].outer)
    starts = walls["east"].at(0.0, walls["east"].outer)
    assert ends == pytest.approx(starts, abs=0.01), "faces close to 0.01 mm"


def test_a_wall_ends_on_the_face_of_an_arc() -> None:
    house = bowed(1500)
    length = wall_length(house, next(wall for wall in house.walls if wall.id == "south"))
    inner = DrawWalls(
        joints=(
            TeeJoint(id="t1", wall="south", end="start", distance=length / 2),
            TeeJoint(id="t2", wall="north", end="start", distance=4000),
        ),
        chain=("t1", "t2"),
        walls=("partition",),
        make_up="wall-inner",
        status="inner",
        base="floor",
        top="plate",
    )
    plan = resolve(apply_edits(house, (inner,))).plan
    total, union = areas(plan.walls)
    assert total == pytest.approx(union, rel=2e-6)
    frame = next(w for w in plan.walls if w.wall.id == "partition").layers
    low = min(layer.polygon.bounds[1] for layer in frame)
    assert low == pytest.approx(-1500 + 140, abs=1.0), "the partition reaches the frame of the arc"
    assert len(plan.outlines[0].spaces) == 2


def volume(building: Building, element: str, role: str) -> float:
    return sum(part.solid.volume for part in building.parts if part.element == element and part.role == role)


def test_the_sheathing_of_an_arc_with_a_window_has_its_volume() -> None:
    """Ring sector x height - hole: the hole's jambs are parallel, so it takes width x height x thickness / cos, within
    a share of 1 in 1000 at this radius (9.5 m)."""
    house = apply_edits(bowed(1000), (PutOpening(opening=window("w1", "south", 4000)),))
    building = resolve(house)
    planned = next(wall for wall in building.plan.walls if wall.wall.id == "south")
    layer = next(held for held in planned.layers if held.layer == "sheathing")
    opening = building.openings["south"][0].opening
    plate, floor = building.levels["plate"].z, building.levels["floor"].z
    whole = layer.polygon.area * (plate - floor)
    hole = opening.width * opening.height * (layer.outer - layer.inner)
    assert volume(building, "south", "sheathing") == pytest.approx(whole - hole, rel=1e-3)


def test_studs_follow_the_arc() -> None:
    """Arithmetic: studs at 400 along the set-out line, each square to it: its middle at the middle of the frame."""
    building = resolve(bowed(2000))
    planned = next(wall for wall in building.plan.walls if wall.wall.id == "south")
    frame = next(held for held in planned.layers if held.layer == "frame")
    studs = [part for part in building.parts if part.key.startswith("south/stud/frame/")]
    assert len(studs) == pytest.approx(planned.length / 400, abs=2)
    for stud in studs:
        box = stud.solid.bounds
        middle = ((box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2)
        outward = planned.side * planned.axis.left_of(middle)
        assert outward == pytest.approx((frame.outer + frame.inner) / 2, abs=0.05)


def test_no_line_is_drawn_between_chords() -> None:
    """An arc seen from the south shows its ends and its openings, no upright lines between."""
    drawing = side_view(resolve(bowed(1500)), "south")
    upright = [
        mark
        for mark in drawing.marks
        if getattr(mark, "feature", "") == "edge"
        and mark.part.startswith("south/")
        and abs(mark.path[0][0] - mark.path[-1][0]) < 1 < abs(mark.path[0][1] - mark.path[-1][1])
    ]
    assert {round(abs(mark.path[0][0] - 4000)) > 3900 for mark in upright} <= {True}, "only at the ends of the wall"


def test_the_plan_draws_arcs_as_arcs() -> None:
    """Radius by closed form: chord 8000 and rise 2000 give 5000 (3-4-5 triangle); the faces lie beside it."""
    house = bowed(2000)
    drawing = draw_plan(resolve(house), "floor", "plan", 0.0, Setting(50, "mm"))
    found = set()
    for mark in drawing.marks:
        if isinstance(mark, Region) and (mark.part or "").startswith("south/wall/frame"):
            ring = mark.rings[0]
            for (x0, y0, bulge), (x1, y1, _) in zip(ring, (*ring[1:], ring[0])):
                if bulge:
                    found.add(round(arc_of(x0, y0, x1, y1, bulge)[2], 2))
            assert len(ring) < 12, "few vertices: no chords are left"
    assert found == {5000.0, 4860.0}


def test_an_arc_tighter_than_its_wall_is_pointed_out() -> None:
    house = apply_edits(box_house(300, 6000), (BendWall(wall="south", rise=-150.0),))
    fault = next(held for held in resolve(house).diagnostics if held.code == "arc-too-tight")
    assert fault.element == "south" and fault.field == "radius" and fault.value == pytest.approx(150)


def test_bending_is_refused_where_it_makes_no_arc() -> None:
    house = box_house(8000, 6000)
    with pytest.raises(RefusedEdit, match="no rise") as caught:
        apply_edits(house, (BendWall(wall="south", rise=0.0),))
    assert caught.value.field == "rise" and caught.value.element == "south"
    with pytest.raises(RefusedEdit, match="half its chord"):
        apply_edits(house, (BendWall(wall="south", radius=3999.0),))
    with pytest.raises(RefusedEdit, match="comes round"):
        apply_edits(house, (BendWall(wall="south", rise=12_000.0),))


def test_radius_and_straight_again() -> None:
    house = apply_edits(box_house(8000, 6000), (BendWall(wall="south", radius=5000.0),))
    south = next(wall for wall in house.walls if wall.id == "south")
    rise = 5000 - math.sqrt(5000**2 - 4000**2)
    assert abs(south.bulge) == pytest.approx(2 * rise / 8000), "3-4-5 triangle: rise 2000"
    assert rise == pytest.approx(2000)
    back = apply_edits(house, (StraightenWall(wall="south"),))
    assert back == box_house(8000, 6000)


def test_a_window_keeps_its_share_when_a_wall_is_bent() -> None:
    house = apply_edits(box_house(8000, 6000), (PutOpening(opening=window("w1", "south", 4000)),))
    after = apply_edits(house, (BendWall(wall="south", rise=-1500),))
    placed = resolve(after).openings["south"][0]
    assert placed.centre == pytest.approx(wall_length(after, after.walls[0]) / 2)
    assert apply_edits(after, (StraightenWall(wall="south"),)).openings[0].distance == pytest.approx(4000)


def test_a_split_or_reversed_arc_stays_where_it_is() -> None:
    house = bowed(1500)
    before = shapely.union_all([wall.footprint for wall in resolve(house).plan.walls])
    split = apply_edits(house, (SplitWall(wall="south", distance=3000, joint="j", second="south2"),))
    turned = apply_edits(house, (ReverseWall(wall="south"),))
    for changed in (split, turned):
        after = shapely.union_all([wall.footprint for wall in resolve(changed).plan.walls])
        assert after.symmetric_difference(before).area < before.area * 1e-4


def test_a_chain_may_hold_arcs_and_its_outside_is_outside() -> None:
    """Two half circles make a round house, counter-clockwise: outside at the right."""
    draw = DrawWalls(
        joints=(FreeJoint(id="a", x=0, y=0), FreeJoint(id="b", x=6000, y=0)),
        chain=("a", "b", "a"),
        walls=("low", "high"),
        bulges=(1.0, 1.0),
        make_up="wall-lap",
        base="floor",
        top="plate",
    )
    house = draw.apply(_empty())
    assert [wall.outside for wall in house.walls] == ["right", "right"]
    plan = resolve(house).plan
    assert plan.outlines[0].polygon.area == pytest.approx(math.pi * 3000**2, rel=CHORD)
    total, _ = areas(plan.walls)
    assert total == pytest.approx(math.pi * ((3000 + OUT) ** 2 - (3000 - IN) ** 2), rel=CHORD)
    with pytest.raises(RefusedEdit, match="one bulge for each"):
        draw.model_copy(update={"bulges": (1.0,)}).apply(_empty())


def _empty() -> Project:
    house = box_house(8000, 6000)
    return house.model_copy(update={"walls": (), "joints": (), "rooms": (), "foundations": (), "roofs": ()})
