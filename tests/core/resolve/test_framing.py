"""How joist floors are framed: members, laps, blocks and hangers counted by hand; spans against tables."""

from __future__ import annotations

import itertools
import math
from typing import Any

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.document.motion import Motion
from deepsection.core.drawing import Stroke, Text
from deepsection.core.edits import Transform, TurnJoists, apply_edits, changed, put
from deepsection.core.geometry import Frame, polygons_of
from deepsection.core.model import Beam, BeamEnd, Chimney, Floor, FloorHole, LevelRule, Pad, Post, Project
from deepsection.core.particulars import enter
from deepsection.core.resolve import Building, resolve
from deepsection.core.trades.floors.members import Member, Members, floor_members, hangers
from deepsection.core.trades.floors.place import FLOORS, FloorPlan
from deepsection.core.trades.floors.span_checks import verdicts
from deepsection.core.view import draw_view
from deepsection.demo.pieces import bearing, on, partition
from tests.builders import joist_house, two_storeys
from tests.overlaps import overlapping
from tests.turning import turned

T = 38.0
"""Thickness of the joists of the houses here, which lie at 400 mm."""


def upper(house: Project) -> Floor:
    return house.floors[-1]


def framed(building: Building, floor: str) -> tuple[FloorPlan, Members]:
    flat = next(held for held in building[FLOORS] if held.floor.id == floor)
    make_up = building.placed.make_ups[flat.floor.make_up]
    framing = next(layer.framing for layer in make_up.layers if layer.framing)
    return flat, floor_members(flat.bays, flat.rims, framing, flat.floor.between)


def members(house: Project) -> Members:
    return framed(resolve(house), upper(house).id)[1]


def lengths(found: Members, role: Any = "joist") -> list[float]:
    return sorted(round(length, 1) for member in found.of(role) for length, _ in member.pieces)


def hole(house: Project, x0: float, y0: float, x1: float, y1: float, id: str = "hole") -> FloorHole:
    return FloorHole(id=id, floor=upper(house).id, corners=((x0, y0), (x1, y0), (x1, y1), (x0, y1)))


def with_wall(house: Project, y: float, *, bears: bool = True) -> Project:
    """An inner wall across the storey below, from side to side."""
    depth = 7000.0
    ends = on("p1", "west", depth - y), on("p2", "east", y)
    house = apply_edits(house, (partition("mid", *ends),))
    return bearing(house, "mid") if bears else house


def flush_beam(house: Project, y: float, x0: float, x1: float, off: float = 235.0) -> Project:
    """A beam at the plate of the lower storey, its top so much above that."""
    ends = BeamEnd(x=x0, y=y), BeamEnd(x=x1, y=y)
    top = LevelRule(level="plate", offset=off)
    return put(house, Beam(id="beam", start=ends[0], end=ends[1], width=90.0, depth=235.0, top=top))


@pytest.mark.parametrize(
    ("width", "joists"),
    # One at 400, 800 ... as long as it lies clear of the last, which is a rim: (width - 57) / 400, rounded down.
    [(4000, 9), (4800, 11), (6000, 14), (6100, 15), (7000, 17), (8200, 20), (9000, 22), (10000, 24), (12000, 29)],
)
def test_joists_between_rims_are_counted_by_hand(width: float, joists: int) -> None:
    house = two_storeys(float(width), 3900.0)
    house = put(house, changed(upper(house), span="north-south"))
    found = members(house)
    assert len(found.of("joist")) == joists == (width - 57) // 400
    places = [round(piece.bounds[0] + T / 2) for member in found.of("joist") for _, piece in member.pieces]
    assert sorted(places) == [400 * k for k in range(1, joists + 1)]
    assert lengths(found) == [3900.0 - 2 * T] * joists, "from rim to rim"


def test_joists_lap_over_a_wall_that_bears_and_are_blocked_there() -> None:
    """By hand, 24 joists of 7 m over a wall of 90 at the middle: each in two, past its middle by half of it, side by
    side; the second lies a thickness beside the first."""
    house = with_wall(
        put(two_storeys(10_000.0, 7000.0), changed(upper(two_storeys(10_000.0, 7000.0)), span="north-south")), 3500.0
    )
    flat, found = framed(resolve(house), upper(house).id)
    wall = flat.bays[0].supports[0]
    assert (wall.name, wall.sort, wall.width) == ("mid", "wall", 89.0)
    middle = wall.line[0][1]
    assert lengths(found) == sorted([round(middle + 44.5 - T, 1)] * 24 + [round(7000.0 - T - middle + 44.5, 1)] * 24)
    first = {round(p.bounds[0]): p for m in found.of("joist") for _, p in m.pieces if p.bounds[1] < 100}
    second = {round(p.bounds[0]): p for m in found.of("joist") for _, p in m.pieces if p.bounds[1] > 100}
    assert set(second) == {x + 38 for x in first}
    blocks = [piece for member in found.of("blocking") if ":over:" in member.slot for _, piece in member.pieces]
    # Between 24 pairs of 76 lie 23 blocks of 400 - 76; from the rim at 38 to 381 one, from 9657 to 9962 another.
    assert sorted(round(b.bounds[2] - b.bounds[0]) for b in blocks) == [305, *[324] * 23, 343]
    assert not hangers(found)


def test_a_wall_that_does_not_bear_divides_nothing() -> None:
    house = two_storeys(10_000.0, 7000.0)
    house = put(house, changed(upper(house), span="north-south"))
    assert lengths(members(with_wall(house, 3500.0, bears=False))) == lengths(members(house)) == [7000.0 - 2 * T] * 24


@pytest.mark.parametrize(("lap", "over"), [("butted", 0.0), ("through", None)])
def test_joists_butt_or_run_through(lap: str, over: float | None) -> None:
    house = two_storeys(10_000.0, 7000.0)
    house = with_wall(put(house, changed(upper(house), span="north-south", lap=lap)), 3000.0)
    flat, found = framed(resolve(house), upper(house).id)
    middle = flat.bays[0].supports[0].line[0][1]
    whole = [7000.0 - 2 * T] * 24
    assert lengths(found) == (whole if over is None else sorted([middle - T] * 24 + [7000.0 - T - middle] * 24))


def test_joists_hang_on_both_sides_of_a_flush_beam() -> None:
    """By hand: a beam of 90 from 4 m on across 10 m takes the joists at 4400 to 9600 (14): 28 hangers, two runs."""
    house = two_storeys(10_000.0, 7000.0)
    house = flush_beam(put(house, changed(upper(house), span="north-south")), 3500.0, 4100.0, 9962.0)
    found = members(house)
    assert len(hangers(found)) == 28
    short = 3500.0 - 45.0 - T
    assert lengths(found) == sorted([short] * 28 + [7000.0 - 2 * T] * 10)
    assert [d.code for d in resolve(house).diagnostics] == ["beam-end-free"], "its start needs a post"


def test_a_beam_that_just_misses_its_joists_is_pointed_out() -> None:
    house = two_storeys(10_000.0, 7000.0)
    low = flush_beam(put(house, changed(upper(house), span="north-south")), 3500.0, 4100.0, 9962.0, off=222.0)
    found = [held for held in resolve(low).diagnostics if held.code == "beam-misses"]
    assert len(found) == 1 and "13 too low" in found[0].message and found[0].element == "beam"
    assert lengths(members(low)) == [7000.0 - 2 * T] * 24, "it carries none"


@pytest.mark.parametrize(
    ("width", "lap", "short"),
    # IRC R502.6, from memory: 1 1/2 in (38.1 mm) on wood; of joists that butt each has half.
    [(38.1, "lapped", False), (38.1, "butted", True), (76.2, "butted", False), (30.0, "through", True)],
)
def test_joists_need_a_bearing_as_long_as_the_rule_says(width: float, lap: str, short: bool) -> None:
    house = two_storeys(10_000.0, 7000.0)
    house = put(house, changed(upper(house), span="north-south", lap=lap))
    ends = BeamEnd(x=20.0, y=3500.0), BeamEnd(x=9980.0, y=3500.0)
    beam = Beam(id="beam", start=ends[0], end=ends[1], width=width, depth=235.0, top=LevelRule(level="plate"))
    found = [held for held in resolve(put(house, beam)).diagnostics if held.code == "joist-bearing-short"]
    assert bool(found) == short
    if found:
        assert found[0].element == "beam" and found[0].limit == pytest.approx(38.1)


def test_the_frame_of_a_hole_by_hand() -> None:
    """A hole from 3000 to 4000 across, 2000 to 3500 along: trimmers from 2924 and to 4076; the joists at 3200 and 3600
    are cut, that at 4000 gives way to a trimmer; four tails on headers, two headers of two plies on trimmers."""
    house = two_storeys(10_000.0, 7000.0)
    house = put(house, changed(upper(house), span="north-south", between="nothing"))
    house = put(house, hole(house, 3000.0, 2000.0, 4000.0, 3500.0))
    found = members(house)
    assert len(found.of("joist")) == 23
    assert lengths(found, "trimmer_joist") == [7000.0 - 2 * T] * 4
    assert lengths(found, "header_joist") == [1000.0] * 4
    assert lengths(found) == sorted([7000.0 - 2 * T] * 21 + [2000.0 - 3 * T] * 2 + [3500.0 - 3 * T] * 2)
    # Four tails on headers, and both ends of four plies of headers.
    assert len(hangers(found)) == 4 + 8
    area = shapely.union_all([m.area for m in found.all])
    assert not area.intersects(shapely.box(3001.0, 2001.0, 3999.0, 3499.0))


def test_two_joists_lie_under_a_wall_that_runs_along_them() -> None:
    house = two_storeys(10_000.0, 7000.0)
    house = put(house, changed(upper(house), span="north-south"))
    level, plate = upper(house).level, house.walls[-1].top.level
    names = [wall.id for wall in house.walls if wall.base.level == level]
    over = partition("alone", on("q1", names[0], 5200.0), on("q2", names[2], 4800.0), level, plate)
    house = apply_edits(house, (over,))
    doubled = [m for m in members(house).of("joist") if ":under:alone:" in m.slot]
    assert len(doubled) == 2
    (a, b), middle = sorted(m.area.bounds[0] for m in doubled), 5200.0
    assert b - a == pytest.approx(T) and abs(b - middle) < 50.0
    off = put(house, changed(upper(house), doubled=False))
    assert not [m for m in members(off).of("joist") if ":under:" in m.slot]


@pytest.mark.parametrize(
    ("span", "rows"),
    # Every 8 ft (2438 mm) or less of the clear length. Source: IRC R502.7.1, from memory.
    [(7000.0, 2), (4900.0, 1), (2500.0, 0)],
)
def test_long_joists_have_rows_of_blocks(span: float, rows: int) -> None:
    house = two_storeys(8200.0, span)
    house = put(house, changed(upper(house), span="north-south"))
    found = [m for m in members(house).of("blocking") if ":row:" in m.slot]
    assert len(found) == rows
    for k, row in enumerate(found, 1):
        assert len(row.pieces) == 19, "between 20 joists"
        assert {round(piece.centroid.y) for _, piece in row.pieces} == {round(T + (span - 2 * T) * k / (rows + 1))}


def test_joists_are_turned_and_their_layout_shifted() -> None:
    house = two_storeys(10_000.0, 7000.0)
    across = apply_edits(house, (TurnJoists(floor=upper(house).id),))
    assert upper(across).span == "long"
    assert {m.direction for m in members(across).of("joist")} == {(1.0, 0.0)}
    assert apply_edits(across, (TurnJoists(floor=upper(house).id),)) == house
    shifted = put(house, changed(upper(house), span="north-south", shift=150.0))
    places = sorted(round(p.bounds[0] + T / 2) for m in members(shifted).of("joist") for _, p in m.pieces)
    assert places == [150 + 400 * k for k in range(25)]


def test_a_house_that_is_turned_takes_the_direction_of_its_joists_along() -> None:
    house = two_storeys(10_000.0, 7000.0)
    house = put(house, changed(upper(house), span="east-west"))
    moved = turned(house, 30.0)
    assert (upper(moved).span, round(upper(moved).angle, 6)) == ("angle", 30.0)
    assert lengths(members(moved)) == lengths(members(house))
    mirrored = apply_edits(
        moved,
        [Transform(elements=tuple(h.id for h in moved.elements() if h.about.movable), motion=Motion(mirror=0.0))],
    )
    assert abs(math.sin(math.radians(upper(mirrored).angle + 30.0))) < 1e-6


def test_a_span_is_held_against_the_published_table() -> None:
    """IRC table R502.3.1(2), spruce-pine-fir No. 2, 2x10 at 16 in: 15 ft 5 in (from memory)."""
    foot, inch = 304.8, 25.4

    def said(depth: float) -> list[Any]:
        house = two_storeys(30 * foot, depth, "ft-in")
        floor = changed(upper(house), sized="by tables", span="north-south")
        return [held for held in resolve(put(house, floor)).diagnostics if held.code == "joist-span"]

    # The clear span is between the studs of walls 5 1/2 in (or what they have) thick.
    house = two_storeys(30 * foot, 16 * foot, "ft-in")
    flat, _ = framed(resolve(house), upper(house).id)
    clear = verdicts(resolve(house).placed, flat)[0].span.clear
    studs = 16 * foot - clear
    reach = 15 * foot + 5 * inch
    assert not said(reach + studs) and said(reach + studs + 2 * inch)
    found = said(17 * foot + studs)[0]
    assert found.limit == pytest.approx(reach) and found.value == pytest.approx(17 * foot)
    assert "take 2x12" in found.message and "R502.3.1(2)" in found.message and found.source
    far = said(24 * foot + studs)[0]
    assert "take" not in far.message and "lay a beam" in far.message
    house = put(house, changed(upper(house), sized="by an engineer"))
    assert not [held for held in resolve(house).diagnostics if held.code == "joist-span"]


def test_a_chimney_through_a_floor_is_framed() -> None:
    house = two_storeys(10_000.0, 7000.0)
    stack = Chimney(id="stack", x=5000.0, y=3000.0, width=800.0, depth=600.0, base=LevelRule(level="floor"))
    found = members(put(house, stack))
    # IRC R1003.18: 2 in free all round, from memory
    assert (
        lengths(found, "header_joist") == [round(800.0 + 4 * 25.4, 1)] * 4
        or lengths(found, "header_joist") == [round(600.0 + 4 * 25.4, 1)] * 4
    )


def test_a_girder_lies_in_pockets_on_posts_on_pads() -> None:
    """No solid stands in another one, and the stem loses what the ends of the girder take, with 1/2 in of air."""
    house = joist_house(10_000.0, 7000.0)
    ends = [BeamEnd(x=100.0, y=3500.0), BeamEnd(post="p"), BeamEnd(x=9900.0, y=3500.0)]
    post = Post(
        id="p", x=5000.0, y=3500.0, width=140.0, base=LevelRule(level="crawl"), top=LevelRule(level="sill"),
        pad=Pad(width=600.0, thickness=250.0),
    )  # fmt: skip
    beams = [
        Beam(id=f"b{k}", start=a, end=b, width=114.0, plies=3, depth=235.0, top=LevelRule(level="sill"))
        for k, (a, b) in enumerate(itertools.pairwise(ends))
    ]
    before, building = resolve(house), resolve(put(house, post, *beams))
    parts = [p for p in building.parts if p.role in ("beam", "post", "pad", "stem", "sill_plate", "joist", "finish")]
    assert overlapping(parts, most=1e3) == []
    plies = [p for p in parts if p.role == "beam"]
    assert len(plies) == 6 and {round(p.solid.bounds.z1 - p.solid.bounds.z0) for p in plies} == {235}
    top = next(p for p in parts if p.role == "post").solid.bounds.z1
    assert top == pytest.approx(building.levels["sill"].z - 235.0), "no higher than the beam on it"
    stems = [sum(p.solid.volume for p in held.parts if p.role == "stem") for held in (before, building)]
    # At each end 100 mm of the girder lies in a stem of 203 (or as thick as it is), 38 of it above that.
    in_stem = min(100.0 + 12.7, 203.2)
    assert stems[0] - stems[1] == pytest.approx(2 * in_stem * (114.0 + 25.4) * (235.0 - 38.0), rel=0.02)


def test_joists_that_end_on_nothing_are_said_at_their_place() -> None:
    house = two_storeys(10_000.0, 7000.0)
    house = put(house, changed(upper(house), span="north-south"))
    # Two holes that touch: the header of one has no room.
    near = put(house, hole(house, 3000.0, 2000.0, 4000.0, 3500.0), hole(house, 4020.0, 2500.0, 5000.0, 3000.0, "other"))
    found = [held for held in resolve(near).diagnostics if held.code == "joist-end-free"]
    assert all(held.at for held in found)
    for member in members(near).all:
        assert not member.area.intersects(shapely.box(3001.0, 2001.0, 3999.0, 3499.0))


@settings(max_examples=25, deadline=None)
@given(
    x=st.floats(600.0, 7500.0),
    y=st.floats(600.0, 5000.0),
    width=st.floats(300.0, 2500.0),
    depth=st.floats(300.0, 1800.0),
    wall=st.floats(1500.0, 5500.0),
    lap=st.sampled_from(["lapped", "butted", "through"]),
    shift=st.floats(0.0, 399.0),
    degrees=st.sampled_from([0.0, 17.3, 90.0]),
)
def test_members_of_any_floor_lie_in_it_and_in_no_other(
    x: float, y: float, width: float, depth: float, wall: float, lap: str, shift: float, degrees: float
) -> None:
    """Of any hole, wall below and layout: no two members overlap, none lies in the hole or outside of the floor, and
    the layout leaves nowhere more than a spacing, a lap and a doubled joist between them."""
    house = two_storeys(10_000.0, 7000.0)
    house = put(house, changed(upper(house), span="north-south", lap=lap, shift=shift))
    house = put(with_wall(house, wall), hole(house, x, y, x + width, y + depth))
    if degrees:
        house = turned(house, degrees)
    flat, found = framed(resolve(house), upper(house).id)
    areas = [member.area for member in found.all]
    assert sum(area.area for area in areas) == pytest.approx(shapely.union_all(areas).area, rel=1e-6)
    whole = shapely.union_all(areas)
    assert whole.difference(flat.area.buffer(0.01)).area < 1.0
    gap = shapely.union_all([cut for bay in flat.bays for _, cut in bay.holes])
    inner = shapely.union_all([m.area for m in found.all if m.role != "rim_joist"])
    assert inner.intersection(gap.buffer(-0.01)).area < 1.0
    joists: list[Member] = [m for m in found.all if m.role != "blocking"]
    near = shapely.union_all([m.area for m in joists]).buffer((400.0 + 3 * T) / 2, join_style="mitre")
    open_ = flat.area.difference(shapely.union_all([near, gap.buffer(1.0)]))
    assert open_.buffer(-1.0).area < 1.0, "boards span no farther than joists are apart"


def test_i_joists_are_flanges_and_a_web() -> None:
    """By hand: 2 x 63 x 38 of flanges and 9.5 x (302 - 76) of web; cut, a profile of twelve corners."""
    house = two_storeys(10_000.0, 4000.0)
    make_up = next(held for held in house.make_ups if held.id == "floor-i-joists")
    house = put(house, changed(upper(house), make_up=make_up.id, span="north-south", between="nothing"))
    building = resolve(house)
    joists = [p for p in building.parts if p.role == "joist" and p.element == upper(house).id]
    area = 2 * 63.0 * 38.0 + 9.5 * (302.0 - 2 * 38.0)
    assert len(joists) == 24 and make_up.layers[1].framing is not None
    for part in joists:
        # 63 thick, so the rims are too: 4000 less two of them.
        assert part.solid.volume == pytest.approx(area * (4000.0 - 2 * 63.0), rel=1e-6)
        cut = part.solid.cut(Frame.looking(90.0, 0.0, 2000.0))
        piece = max(polygons_of(cut), key=lambda held: held.area)
        assert piece.area == pytest.approx(area, rel=1e-6)
        assert len(shapely.simplify(piece, 0.01).exterior.coords) - 1 == 12
    assert not [d for d in building.diagnostics if d.code == "joist-span"], "their makers say how far they reach"
    solid = apply_edits(house, enter(house, make_up.id, "joists:profile", "solid"))
    assert next(m for m in solid.make_ups if m.id == make_up.id).layers[1].framing.profile == "solid"  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("units", "size", "loads"),
    # 40 and 10 psf are 1.92 and 0.48 kN/m2: a pound-force is 4.448 N (exact), a square foot 0.0929 m2.
    [("mm", "38 x 235", "live load 1.92 kN/m2, dead 0.48 kN/m2"), ("ft-in", "2x10", "live load 40 psf, dead 10 psf")],
)
def test_sizes_and_loads_are_said_in_the_units_of_the_project(units: Any, size: str, loads: str) -> None:
    house = two_storeys(9144.0, 6096.0, units)
    house = put(house, changed(upper(house), sized="by tables"))
    found = next(held for held in resolve(house).diagnostics if held.code == "joist-span" and "Upper" in held.message)
    assert f"{size} at" in found.message
    for name in ("framing", "structure"):
        drawing = draw_view(resolve(house), house, f"plan:{name}:{upper(house).id}", 50)
        words = [mark.text for mark in drawing.marks if isinstance(mark, Text)]
        assert any(loads in text for text in words) and any(size in text for text in words)


def test_joists_that_run_through_show_each_of_their_spans() -> None:
    """Over a wall of 89 at 3 m of 7 m: two arrows, of what is free at both sides; by hand from face to face."""
    house = two_storeys(10_000.0, 7000.0)
    house = with_wall(put(house, changed(upper(house), span="north-south", lap="through")), 3000.0)
    flat, _ = framed(resolve(house), upper(house).id)
    low, high = flat.bays[0].supports[0].area.bounds[1::2]
    drawing = draw_view(resolve(house), house, f"plan:structure:{upper(house).id}", 50)
    spans = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "span"]
    assert len(spans) == 2
    ends = sorted(y for mark in spans for _, y, _ in mark.path)
    assert ends[1:3] == pytest.approx([low, high], abs=0.01)


def test_a_framed_edge_closes_the_depth_of_the_joists() -> None:
    """On 9 x 7 m plates of 38 x 89 above and below studs of 235 less 2 x 38, at 400; joists end 89 in."""
    house = two_storeys(9000.0, 7000.0)
    house = put(house, changed(house.floors[-1], edge="framed"))
    floor = house.floors[-1].id
    building = resolve(house)
    assert building.diagnostics == ()
    own = [part for part in building.parts if part.element == floor]
    plates = [part for part in own if part.role == "plate"]
    ring = 9000.0 * 7000.0 - (9000.0 - 178.0) * (7000.0 - 178.0)
    assert sum(part.solid.volume for part in plates) == pytest.approx(2 * 38.0 * ring)
    studs = [part for part in own if part.role == "stud"]
    assert {round(part.solid.bounds.z1 - part.solid.bounds.z0, 3) for part in studs} == {235.0 - 76.0}
    # On the south side 9000 long: 0, 381, 781 ... 8581, and the last at 8962.
    south = [part for part in studs if part.solid.bounds.y1 < 90.0]
    assert len(south) == 24
    joists = [part.solid.bounds for part in own if part.role == "joist"]
    assert {(round(box.y0), round(box.y1)) for box in joists} == {(89, 6911)}
    assert not [part for part in own if part.role == "rim_joist"]


def test_a_framed_edge_that_takes_the_bearing_of_joists_is_said() -> None:
    house = two_storeys(9000.0, 7000.0)
    house = put(house, changed(house.floors[-1], edge="framed", edge_depth=120.0))
    (said,) = resolve(house).diagnostics
    assert (said.code, said.field) == ("edge-bearing", "edge_depth") and "20" in said.message


def ell(x: float, y: float, w: float, d: float, cut_w: float, cut_d: float) -> tuple[tuple[float, float], ...]:
    """The corners of an L: a rectangle without the piece at its upper right."""
    a, b = x + w - cut_w, y + d - cut_d
    return ((x, y), (x + w, y), (x + w, b), (a, b), (a, y + d), (x, y + d))


def test_a_hole_with_a_re_entrant_corner_is_framed_as_it_is() -> None:
    """An L of 4000 by 3500 less 2000 by 2000. One pair of headers runs along its long side; the corner of floor that
    stands out into it ends in the air, and that is said until something bears it.
    """
    house = two_storeys(9000.0, 7000.0)
    floor = house.floors[-1].id
    corners = ell(2000.0, 1500.0, 4000.0, 3500.0, 2000.0, 2000.0)
    house = put(house, FloorHole(id="h", floor=floor, corners=corners))
    building = resolve(house)
    (said,) = building.diagnostics
    assert said.code == "joist-end-free" and said.at and math.dist(said.at, (4000.0, 3000.0)) < 80.0
    deck = [part for part in building.parts if (part.element, part.role) == (floor, "sheathing")]
    assert sum(part.solid.volume for part in deck) == pytest.approx((63e6 - 10e6) * 18.0)
    headers = [part.solid.bounds for part in building.parts if (part.element, part.role) == (floor, "header_joist")]
    assert max(box.x1 - box.x0 for box in headers) == pytest.approx(4000.0) and len(headers) == 6
    drawing = draw_view(building, house, f"plan:framing:{floor}", 50)
    outline = next(mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "hole")
    assert len(outline.path) == 6


@settings(max_examples=15, deadline=None)
@given(
    st.floats(600.0, 4000.0),
    st.floats(600.0, 3000.0),
    st.floats(1000.0, 4000.0),
    st.floats(1000.0, 3000.0),
    st.tuples(st.floats(0.1, 0.9), st.floats(0.1, 0.9)),
    st.sampled_from([0.0, 33.0, -118.4]),
)
def test_members_about_a_hole_of_any_l_lie_in_no_other(
    x: float, y: float, w: float, d: float, cut: tuple[float, float], turn: float
) -> None:
    house = two_storeys(9000.0, 7000.0)
    floor = house.floors[-1].id
    house = put(house, FloorHole(id="h", floor=floor, corners=ell(x, y, w, d, w * cut[0], d * cut[1])))
    building = resolve(turned(house, turn) if turn else house)
    own = [part for part in building.parts if part.element == floor]
    assert overlapping(own, most=5e3) == []
    hole = sum(part.solid.volume for part in own if part.role == "sheathing") / 18.0
    assert hole == pytest.approx(63e6 - (w * d - w * cut[0] * d * cut[1]), rel=1e-5)


@pytest.mark.parametrize("off", [(4.0, -3.0, 5.0, -6.0, 2.0, -5.0), (-6.0, 6.0, -6.0, 6.0, -6.0, 6.0)])
def test_an_l_that_is_drawn_a_little_off_is_made_square(off: tuple[float, ...]) -> None:
    """Corners some millimetres off: two rectangles and no slivers, as for the L that was meant."""
    house = two_storeys(9000.0, 7000.0)
    floor = house.floors[-1].id
    drawn = ell(2000.0, 1500.0, 4000.0, 3500.0, 2000.0, 2000.0)
    corners = tuple((x + dx, y - dx) for (x, y), dx in zip(drawn, off))
    building = resolve(put(house, FloorHole(id="h", floor=floor, corners=corners)))
    own = [part for part in building.parts if part.element == floor]
    headers = [part for part in own if part.role == "header_joist"]
    assert len(headers) == 6 and {held.code for held in building.diagnostics} == {"joist-end-free"}
    deck = sum(part.solid.volume for part in own if part.role == "sheathing")
    assert deck == pytest.approx((63e6 - 10e6) * 18.0, rel=2e-3)
    assert overlapping(own, most=5e3) == []


@pytest.mark.parametrize("degrees", [33.0, 90.0, -118.4])
def test_an_l_is_framed_alike_however_the_house_is_turned(degrees: float) -> None:
    house = two_storeys(9000.0, 7000.0)
    floor = house.floors[-1].id
    corners = ell(2000.0, 1500.0, 4000.0, 3500.0, 2000.0, 2000.0)
    house = put(house, FloorHole(id="h", floor=floor, corners=corners))

    def lengths(project: Project) -> list[tuple[str, int]]:
        parts = (part for part in resolve(project).parts if part.element == floor and part.role.endswith("_joist"))
        return sorted((part.role, round(part.solid.volume / 38.0 / 235.0)) for part in parts)

    assert lengths(turned(house, degrees)) == lengths(house)
