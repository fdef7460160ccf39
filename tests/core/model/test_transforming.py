"""Moving, copying, mirroring, turning, aligning and rounding walls; sides that bays part move as one."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from deepsection.core.edits import (
    AddBay,
    AlignWall,
    DrawWalls,
    Motion,
    MoveWall,
    RoundCorner,
    Transform,
    apply_edits,
    changed,
    put,
)
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import FreeJoint, GridLine, LevelRule, Post, Project, SectionLine, wall_axis, wall_length
from deepsection.core.model.places import corner_point
from deepsection.core.resolve import resolve
from deepsection.demo import hollin_bothy, tansy_lodge, wrenfold_house
from tests.builders import box_house, window

WALLS = ("south", "east", "north", "west")
near = pytest.approx


def box() -> Project:
    return put(box_house(8000, 6000), window("w1", "south", 2000))


def corners(project: Project, *ids: str) -> list[tuple[float, float]]:
    return [wall_axis(project, project.find(id)).start for id in ids or WALLS]


def outer_area(project: Project) -> float:
    return sum(outline.polygon.area for outline in resolve(project).plan.outlines)


angles = st.floats(-180, 180, allow_nan=False)
lengths = st.floats(-20_000, 20_000, allow_nan=False)


@given(angles, lengths, lengths)
def test_a_mirror_undone_and_a_turn_turned_back_change_nothing(angle: float, x: float, y: float) -> None:
    mirror, turn, back = Motion(x=x, y=y, mirror=angle), Motion(x=x, y=y, turn=angle), Motion(x=x, y=y, turn=-angle)
    point = (1234.5, -678.9)
    assert mirror.at(mirror.at(point)) == near(point, abs=1e-5)
    assert back.at(turn.at(point)) == near(point, abs=1e-5)
    assert math.dist(turn.at(point), (x, y)) == near(math.dist(point, (x, y)), abs=1e-5)


def test_a_whole_house_turned_keeps_its_lengths_and_its_outside() -> None:
    house = apply_edits(box(), (Transform(elements=WALLS, motion=Motion(turn=30.0, x=1000, y=500)),))
    assert [wall_length(house, house.find(id)) for id in WALLS] == near([8000, 6000, 8000, 6000])
    assert outer_area(house) == near(48e6) and not [d for d in resolve(house).diagnostics if d.severity == "blocking"]
    assert house.find("south").outside == box().find("south").outside
    assert house.find("w1").distance == 2000, "openings go with their walls"


def test_a_house_mirrored_in_place_has_its_outside_on_the_other_hand() -> None:
    house = apply_edits(box(), (Transform(elements=WALLS, motion=Motion(mirror=90.0, x=9000)),))
    assert corners(house, "south") == [(18_000, 0.0)]
    assert house.find("south").outside != box().find("south").outside
    assert not [d for d in resolve(house).diagnostics if d.severity == "blocking"], "its roof is mirrored too"
    again = apply_edits(house, (Transform(elements=WALLS, motion=Motion(mirror=90.0, x=9000)),))
    assert corners(again) == corners(box()) and again.find("south").outside == box().find("south").outside


@pytest.mark.parametrize("motion", [Motion(mirror=90.0, x=9000), Motion(turn=90.0), Motion(dx=1500, dy=-300)])
def test_a_whole_house_with_its_roofs_bays_and_porch_goes_as_one(motion: Motion) -> None:
    lodge = tansy_lodge()
    moving = tuple(held.id for held in (*lodge.walls, *lodge.posts, *lodge.beams, *lodge.rooms, *lodge.sections))
    before, after = resolve(lodge), resolve(apply_edits(lodge, (Transform(elements=moving, motion=motion),)))
    assert [found for found in after.diagnostics if found.severity == "blocking"] == []
    assert [roof.ridge_top.total for roof in after.roofs] == near([roof.ridge_top.total for roof in before.roofs])
    volumes = [sum(part.solid.volume for part in held.parts if part.role == "cladding") for held in (before, after)]
    assert volumes[1] == near(volumes[0], rel=1e-3)


def test_copies_at_a_spacing_stand_on_their_own_with_their_openings() -> None:
    edit = Transform(elements=WALLS, motion=Motion(dx=10_000), copies=2, stem="twin")
    house = apply_edits(box(), (edit,))
    assert len(house.walls) == 12 and len(house.openings) == 3
    assert [house.number_of(opening) for opening in house.openings] == ["W1", "W2", "W3"], "each has its number"
    assert outer_area(house) == near(3 * 48e6)
    assert {wall.start for wall in house.walls}.isdisjoint(set()) and len({w.id for w in house.walls}) == 12
    assert apply_edits(box(), (edit,)) == house, "the same edit makes the same names"


def test_a_half_mirrored_onto_itself_shares_its_corners_and_keeps_its_axis_once() -> None:
    """Three sides of a half house, mirrored in the open side: one closed outline of twice the area."""
    bare = Project.model_validate(box_house(8000, 6000).model_dump() | {"roofs": (), "foundations": (), "ceilings": ()})
    open_side = apply_edits(bare, ())
    kept = tuple(wall for wall in open_side.walls if wall.id != "east")
    half = Project.model_validate(open_side.model_dump() | {"walls": [wall.model_dump() for wall in kept]})
    edit = Transform(elements=("south", "north", "west"), motion=Motion(x=8000, mirror=90.0), copies=1)
    whole = apply_edits(half, (edit,))
    assert len(whole.walls) == 6 and outer_area(whole) == near(96e6)


def test_copied_grid_lines_and_sections_have_names_of_their_own() -> None:
    lines = (GridLine(id="g1", name="1", x=0, y=0, angle=90), SectionLine(id="s", name="A", x1=0, y1=-9, x2=0, y2=9))
    house = apply_edits(put(box(), *lines), (Transform(elements=("g1", "s"), motion=Motion(dx=4000), copies=3),))
    assert [line.name for line in house.grid] == ["1", "2", "3", "4"]
    assert [line.name for line in house.sections] == ["A", "B", "C", "D"]
    assert [line.x for line in house.grid] == [0, 4000, 8000, 12_000]


def test_posts_turn_with_their_beams_and_a_roof_cannot_be_moved_so() -> None:
    posts = tuple(
        Post(id=id, x=x, y=0, width=140, base=LevelRule(level="floor"), top=LevelRule(level="plate"))
        for id, x in (("p1", 0), ("p2", 3000))
    )
    house = apply_edits(put(box(), *posts), (Transform(elements=("p1", "p2"), motion=Motion(turn=90.0), copies=1),))
    made = [post for post in house.posts if post.id not in ("p1", "p2")]
    assert [(post.x, post.y, post.turn) for post in made] == [(0, 0, 90), (0, 3000, 90)]
    with pytest.raises(RefusedEdit, match="cannot be moved"):
        apply_edits(box(), (Transform(elements=("roof",), motion=Motion(dx=1)),))


# --- aligned ------------------------------------------------------------------------------------


def partition() -> Project:
    house = put(box(), FreeJoint(id="a", x=3000, y=1000), FreeJoint(id="b", x=3000, y=3000))
    make_up = house.find("south").make_up
    edit = DrawWalls(chain=("a", "b"), walls=("inner",), make_up=make_up, status="inner", base="floor", top="plate")
    return apply_edits(house, (edit,))


def faces(project: Project, id: str) -> tuple[float, float]:
    x0, _, x1, _ = resolve(project).plan.by_id[id].footprint.bounds
    return x0, x1


def test_a_wall_is_put_flush_with_another_or_with_a_post_by_any_face() -> None:
    house = partition()
    x0, x1 = faces(house, "inner")
    west_inside = resolve(house).plan.by_id["west"]
    inside = max(x for x, _ in west_inside.layers[-1].polygon.exterior.coords)
    moved = apply_edits(house, (AlignWall(wall="inner", x=x0 - 1, y=2000, to_x=inside + 2, to_y=2000),))
    assert faces(moved, "inner")[0] == near(inside, abs=1e-6)
    other = apply_edits(house, (AlignWall(wall="inner", x=x1 + 1, y=2000, to_x=inside + 2, to_y=2000),))
    assert faces(other, "inner")[1] == near(inside, abs=1e-6), "by the other face"
    post = Post(id="p", x=5000, y=2000, width=200, base=LevelRule(level="floor"), top=LevelRule(level="plate"))
    beside = apply_edits(put(house, post), (AlignWall(wall="inner", x=x1, y=2000, to_x=4905, to_y=2000),))
    assert faces(beside, "inner")[1] == near(4900, abs=1e-6)
    with pytest.raises(RefusedEdit, match="parallel"):
        apply_edits(house, (AlignWall(wall="inner", x=x0, y=2000, to_x=4000, to_y=0),))


# --- rounded ------------------------------------------------------------------------------------


@pytest.mark.parametrize("joint", ["sw", "se", "ne", "nw"])
def test_a_rounded_corner_is_a_quarter_circle_that_touches_both_walls(joint: str) -> None:
    house = box_house(8000, 6000)
    edit = RoundCorner(joint=joint, radius=1500, wall="arc", joints=("r1", "r2"))
    rounded = apply_edits(house, (edit,))
    arc = wall_axis(rounded, rounded.find("arc"))
    assert arc.radius() == near(1500) and arc.length == near(math.pi * 1500 / 2)
    assert not any(held.id == joint for held in rounded.joints)
    building = resolve(rounded)
    area = sum(outline.polygon.area for outline in building.plan.outlines)
    assert area == near(48e6 - (4 - math.pi) / 4 * 1500**2, rel=1e-5), "a square less its quarter circle"
    assert building.plan.by_id["arc"].wall.outside == ("left" if arc.turn < 0 else "right"), "bowed outward"
    assert not [d for d in building.diagnostics if d.severity == "blocking"]


def test_what_cannot_be_rounded_is_refused_with_its_limit() -> None:
    with pytest.raises(RefusedEdit) as refused:
        apply_edits(box(), (RoundCorner(joint="sw", radius=7000, wall="arc", joints=("r1", "r2")),))
    assert refused.value.limit == near(5950)
    with pytest.raises(RefusedEdit, match="W1 stands where"):
        near_corner = put(box(), changed(box().find("w1"), distance=900))
        apply_edits(near_corner, (RoundCorner(joint="sw", radius=1500, wall="arc", joints=("r1", "r2")),))


# --- sides that bays part ---------------------------------------------------------------------------


def test_a_side_with_a_bay_moves_as_one() -> None:
    bay = AddBay(
        wall="south",
        distance=4000,
        width=2400,
        out=600,
        joints=("b1", "b2", "b3", "b4"),
        walls=("x", "y", "z"),
        rest="s2",
    )
    house = apply_edits(box_house(8000, 6000), (bay,))
    moved = apply_edits(house, (MoveWall(wall="south", dx=0, dy=-500),))
    assert outer_area(moved) == near(outer_area(house) + 8000 * 500)
    assert corners(moved, "s2")[0][1] == -500 and corners(moved, "y")[0][1] == -1100
    assert not [d for d in resolve(moved).diagnostics if d.severity == "blocking"], "the roof stays a rectangle"
    alone = apply_edits(house, (MoveWall(wall="south", dx=0, dy=-500, alone=True),))
    assert corners(alone, "s2")[0][1] == 0


def test_roofs_over_corners_of_their_own_go_along_when_moved_turned_or_mirrored() -> None:
    """A porch roof keeps its area; by hand, a point (x, y) turned by 90 degrees about the origin is (-y, x)."""
    project = wrenfold_house()
    porch = next(roof for roof in project.roofs if roof.id == "roof-porch")
    turned = apply_edits(project, [Transform(elements=("roof-porch",), motion=Motion(turn=90.0))])
    after = next(roof for roof in turned.roofs if roof.id == "roof-porch")
    assert [(c.x, c.y) for c in after.outline] == [(-c.y, c.x) for c in porch.outline]
    mirrored = apply_edits(project, [Transform(elements=("roof-porch",), motion=Motion(mirror=90.0))])
    flipped = next(roof for roof in mirrored.roofs if roof.id == "roof-porch")
    assert {(round(c.x, 6), c.y) for c in flipped.outline} == {(round(-c.x, 6), c.y) for c in porch.outline}
    ring = [(c.x, c.y) for c in flipped.outline]
    assert sum(a[0] * b[1] - a[1] * b[0] for a, b in zip(ring, ring[1:] + ring[:1])) > 0, "counter-clockwise again"
    kinds = {frozenset((ring[k], ring[(k + 1) % 4])): edge.kind for k, edge in enumerate(flipped.edges)}
    for k, edge in enumerate(porch.edges):
        ends = (porch.outline[k], porch.outline[(k + 1) % 4])
        assert kinds[frozenset((0.0 - c.x, c.y) for c in ends)] == edge.kind


def test_a_copied_roof_stands_over_the_copies_of_its_walls() -> None:
    project = hollin_bothy()
    walls = tuple(wall.id for wall in project.walls)
    roof = project.roofs[0]
    copied = apply_edits(
        project, [Transform(elements=(*walls, roof.id), motion=Motion(dx=40_000.0), copies=1, stem="twin")]
    )
    twin = next(held for held in copied.roofs if held.id != roof.id)
    assert twin.name != roof.name
    for own, other in zip(roof.outline, twin.outline):
        x, y = corner_point(project, own)
        assert corner_point(copied, other) == pytest.approx((x + 40_000.0, y))
        assert bool(own.joint) == bool(other.joint)
