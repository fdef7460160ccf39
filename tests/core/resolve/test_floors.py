"""Joist floors and foundation walls: members counted by hand, areas and volumes that must add up, and their faults."""

from __future__ import annotations

import math

import pytest
import shapely
import trimesh

from deepsection.core.edits import AddStorey, MoveJoint, PutFloor, Remove, apply_edits, changed, put, rebuild
from deepsection.core.model import Project, Room, Wall
from deepsection.core.resolve import Building, Part, resolve
from tests.builders import box_house, joist_house, l_house, two_storeys

FOOT, INCH = 304.8, 25.4


def of(building: Building, role: str, element: str | None = None) -> list[Part]:
    return [p for p in building.parts if p.role == role and element in (None, p.element)]


def extents(part: Part) -> tuple[float, float, float]:
    """Sizes of the box around a part, by trimesh."""
    points, triangles = part.solid.mesh()
    x, y, z = trimesh.Trimesh(points, triangles).extents
    return float(x), float(y), float(z)


def volume(parts: list[Part]) -> float:
    return sum(float(trimesh.Trimesh(*part.solid.mesh()).volume) for part in parts)


def heights(part: Part) -> tuple[float, float]:
    _, _, z0, _, _, z1 = part.solid.reach
    return round(z0, 6), round(z1, 6)


@pytest.mark.parametrize(
    ("length", "joists"),
    [
        (24 * FOOT, 17),  # 288 / 16 + 1 = 19 members, the two at the sides being rim joists
        (25 * FOOT, 18),  # 300 / 16 = 18.75: 18 on centre after the first, and the last: 20 members
        (32 * FOOT, 23),  # 384 / 16 + 1 = 25
    ],
)
def test_joists_at_sixteen_inches_are_counted_by_hand(length: float, joists: int) -> None:
    """Members = length in feet x 3/4, rounded up, + 1 (common practice, no source)."""
    assert math.ceil(length / FOOT * 0.75) + 1 == joists + 2
    building = resolve(joist_house(length, 16 * FOOT, "ft-in"))
    found = of(building, "joist", "main-floor")
    assert len(found) == joists
    assert len(of(building, "rim_joist")) == 4
    for part in found:
        along, span, depth = extents(part)
        # 16' less a rim of 1 1/2" at both ends; a 2x10 is 1 1/2 x 9 1/4 (PS 20, from memory)
        assert (along, span, depth) == pytest.approx((1.5 * INCH, 189 * INCH, 9.25 * INCH))


def test_joists_run_the_short_way_or_as_told() -> None:
    house = joist_house(10000.0, 7000.0)
    assert {part.axis for part in of(resolve(house), "joist", "main-floor")} == {(0.0, 1.0, 0.0)}
    turned = apply_edits(house, (PutFloor(floor=changed(house.floors[0], span="east-west")),))
    found = of(resolve(turned), "joist", "main-floor")
    # 7000 / 400 = 17.5: 17 on centre after the first and the last make 19, less two rims
    assert {part.axis for part in found} == {(1.0, 0.0, 0.0)} and len(found) == 17


def test_ceiling_joists_run_as_told() -> None:
    house = box_house(9000.0, 6000.0)
    ceiling = changed(house.ceilings[0], span="east-west")
    assert {part.axis for part in of(resolve(put(house, ceiling)), "joist")} == {(1.0, 0.0, 0.0)}


def l_on_joists() -> Project:
    """12 m x 6.5 m with a leg 7 m wide and 3 m deep at its north-west, on joists that run north to south."""
    house = l_house("joists")
    return put(house, changed(house.floors[0], span="north-south"))


def test_joists_over_an_l_are_counted_by_hand() -> None:
    """At 400 over 12 m: 29 between the rims at both ends; those at 400 to 6800 (17) reach 9.5 m, the others 6.5 m."""
    building = resolve(l_on_joists())
    spans = sorted(round(extents(part)[1]) for part in of(building, "joist", "main-floor"))
    assert spans == [6500 - 76] * 12 + [9500 - 76] * 17
    assert len(of(building, "rim_joist")) == 6


@pytest.mark.parametrize("house", [joist_house(10000.0, 7000.0), l_on_joists()], ids=["box", "L"])
def test_members_and_quilt_fill_the_floor_exactly(house: Project) -> None:
    """Joists, rim joists and what lies between them: together the area of the floor times its depth, none twice."""
    building = resolve(house)
    members = [*of(building, "joist", "main-floor"), *of(building, "rim_joist"), *of(building, "infill", "main-floor")]
    members += of(building, "blocking")
    outline = building.plan.outlines[0].polygon
    assert volume(members) == pytest.approx(outline.area * 235.0, rel=1e-9)
    assert volume(of(building, "sheathing", "main-floor")) == pytest.approx(outline.area * 18.0, rel=1e-9)


def test_rim_joists_go_round_once() -> None:
    """Plan area of a rim of thickness t around L x W: 2 t (L + W) - 4 t^2 (arithmetic)."""
    building = resolve(joist_house(10000.0, 7000.0))
    expected = (2 * 38.0 * 17000.0 - 4 * 38.0**2) * 235.0
    assert volume(of(building, "rim_joist")) == pytest.approx(expected, rel=1e-9)


def test_heights_of_two_storeys_are_sums_of_real_parts() -> None:
    """By hand: 10 wall + 1 1/2 sill + 9 1/4 joist + 3/4 deck = 21 1/2; + 97 1/8 = 118 5/8; + 10; + 97 1/8."""
    building = resolve(two_storeys(30 * FOOT, 20 * FOOT, "ft-in"))
    z = {id: level.z / INCH for id, level in building.levels.items()}
    assert z["stem"] == pytest.approx(10) and z["sill"] == pytest.approx(11.5)
    assert z["floor"] == pytest.approx(21.5) and z["plate"] == pytest.approx(118.625)
    assert z["s2-floor"] == pytest.approx(128.625) and z["s2-plate"] == pytest.approx(225.75)
    terms = {term.label: term.value / INCH for term in building.levels["s2-floor"].sum.terms}
    assert terms == {"Plate": pytest.approx(118.625), "2x10 joists": 9.25, "subfloor": pytest.approx(0.75)}
    ridge = building.roofs[0].ridge_top
    assert ridge.terms[0].value / INCH == pytest.approx(225.75)


def test_parts_of_two_storeys_stand_on_each_other() -> None:
    building = resolve(two_storeys(9000.0, 6000.0))
    z = {id: level.z for id, level in building.levels.items()}
    spans = {
        "stem": (z["footing"] + 200, z["stem"]),
        "sill_plate": (z["stem"], z["sill"]),
    }
    for role, (low, high) in spans.items():
        assert {heights(part) for part in of(building, role)} == {(low, high)}
    assert {heights(part) for part in of(building, "joist", "main-floor")} == {(z["sill"], z["floor"] - 18)}
    assert {heights(part) for part in of(building, "joist", "s2-joists")} == {(z["plate"], z["s2-floor"] - 18)}
    assert {heights(part) for part in of(building, "lining", "s2-joists")} == {(z["plate"] - 12.5, z["plate"])}


def test_cladding_covers_the_edges_of_floors() -> None:
    """From the top of the foundation to the eaves without a gap: lower walls end where upper ones begin."""
    building = resolve(two_storeys(9000.0, 6000.0))
    z = {id: level.z for id, level in building.levels.items()}
    boards = {part.element: heights(part) for part in of(building, "cladding")}
    assert boards["south"] == (z["stem"], z["plate"])
    assert boards["s2-w1"][0] == z["plate"]
    studs = [heights(part)[0] for part in of(building, "stud", "s2-w1")]
    assert min(studs) == z["s2-floor"] + 38
    starts = {part.origin[2] for part in of(building, "cladding")}
    assert starts == {z["stem"]}, "boards run through from one storey to the next"


def test_a_gable_rises_only_where_no_floor_lies_on_it() -> None:
    """The gables of two storeys are upper walls; the lower ones end at their plate."""
    building = resolve(two_storeys(9000.0, 6000.0))
    ridge = building.roofs[0].ridge_top.total
    tops = {part.element: heights(part)[1] for part in of(building, "cladding")}
    assert tops["west"] == building.levels["plate"].z
    assert building.levels["s2-plate"].z + 1000 < tops["s2-w4"] < ridge


def test_a_lower_wing_keeps_its_own_roof_and_ceiling(otterfold: Building) -> None:
    kitchen = [part for part in otterfold.parts if part.role == "joist" and "roof-kitchen" in part.key]
    assert kitchen and {heights(part)[0] for part in kitchen} == {round(otterfold.levels["plate"].z, 6)}
    tops = {part.element: heights(part)[1] for part in of(otterfold, "cladding")}
    assert tops["kitchen-west"] > otterfold.levels["upper"].z > tops["west"]
    boards = [part for part in of(otterfold, "lining", "ceiling-1")]
    floored = shapely.union_all([shapely.box(0, 0, 32 * FOOT, 24 * FOOT)])
    for part in boards:
        x0, y0, _, x1, y1, _ = part.solid.reach
        assert shapely.box(x0, y0, x1, y1).intersection(floored).area < 1.0
    assert otterfold.diagnostics == ()


def test_a_room_belongs_to_its_storey() -> None:
    rooms = (Room(id="r1", name="Below", x=2000, y=2000), Room(id="r2", name="Above", x=2000, y=2000, level="s2-floor"))
    building = resolve(put(two_storeys(9000.0, 6000.0), *rooms))
    assert [(held.room.name, held.level) for held in building.rooms] == [("Below", "floor"), ("Above", "s2-floor")]
    open_above = put(joist_house(9000.0, 6000.0), *rooms[:1])
    assert resolve(open_above).rooms[0].area == pytest.approx((9000 - 2 * 152.7) * (6000 - 2 * 152.7), rel=1e-3)


def codes(project: Project) -> list[str]:
    return [found.code for found in resolve(project).diagnostics]


def test_joists_that_span_nothing_are_pointed_out() -> None:
    house = two_storeys(9000.0, 6000.0)
    assert codes(house) == []
    opened = apply_edits(joist_house(9000.0, 6000.0), (Remove(elements=("south",)),))
    assert "floor-spans-nothing" in codes(opened), "the walls on it do not close"
    below = apply_edits(house, (Remove(elements=("south",)),))
    message = next(f.message for f in resolve(below).diagnostics if f.element == "s2-joists")
    assert "span nothing" in message and "Plate" in message


def test_a_floor_that_hangs_out_is_pointed_out() -> None:
    house = two_storeys(9000.0, 6000.0)
    lone = changed(house.joints[0], id="sw2", x=-900.0)
    walls = {wall.id: wall for wall in house.walls}
    moved: list[Wall] = [changed(walls[id], **{end: "sw2"}) for id, end in (("s2-w1", "start"), ("s2-w4", "end"))]
    out = put(house, lone, *moved)
    assert "floor-hangs-out" in codes(out)
    assert "floor-hangs-out" not in codes(apply_edits(out, (MoveJoint(joint="sw2", x=0.0, y=0.0),)))


def test_a_make_up_that_does_not_fill_its_height_is_pointed_out() -> None:
    house = two_storeys(9000.0, 6000.0)
    level = next(rung for rung in house.rungs if rung.id == "s2-floor")
    stated = tuple(changed(term, layer=None, value=300.0) for term in level.terms)
    (found,) = (f for f in resolve(put(house, changed(level, terms=stated))).diagnostics)
    assert (found.code, found.value, found.limit) == ("floor-rise", 253.0, 600.0)


def test_a_floor_make_up_without_joists_is_pointed_out() -> None:
    house = joist_house(9000.0, 6000.0)
    assert "floor-unframed" in codes(put(house, changed(house.floors[0], make_up="ground-cover")))


def test_a_floor_before_its_walls_covers_those_below() -> None:
    """A storey added before any wall is copied: the deck lies on the walls below, open to the sky."""
    house = joist_house(9000.0, 6000.0)
    bare = AddStorey(below="floor", make_up="floor-joists", level="up", plate="upp", floor="upj", ceiling="upc")
    building = resolve(apply_edits(rebuild(house, roofs=()), (bare,)))
    deck = of(building, "sheathing", "upj")
    assert volume(deck) == pytest.approx(9000.0 * 6000.0 * 18.0, rel=1e-9) and all(part.outside for part in deck)


def test_walls_of_two_storeys_join_only_their_own() -> None:
    """Corners that both storeys share: each joins as if the other were not there."""
    house = two_storeys(9000.0, 6000.0)
    plan = resolve(house).plan
    assert [outline.level for outline in plan.outlines] == ["floor", "s2-floor"]
    alone = resolve(joist_house(9000.0, 6000.0)).plan
    for level in ("floor", "s2-floor"):
        for layer in range(6):
            pieces = [wall.layers[layer].polygon for wall in plan.on(level)]
            expected = [wall.layers[layer].polygon for wall in alone.walls]
            assert shapely.union_all(pieces).equals(shapely.union_all(expected))
            assert sum(piece.area for piece in pieces) == pytest.approx(shapely.union_all(pieces).area)
