"""Stairs in place: their steps, their hole, their parts, what is wrong with them."""

from __future__ import annotations

import itertools
import math
from collections import Counter
from typing import Any

import pytest
import shapely

from deepsection.core.document.motion import Motion
from deepsection.core.edits import DrawStair, Remove, Transform, apply_edits, changed, put
from deepsection.core.errors import RefusedEdit
from deepsection.core.geometry import Frame, prism
from deepsection.core.model import FloorHole, Project, Stair
from deepsection.core.resolve import Building, resolve
from deepsection.core.trades.floors.place import FLOORS
from deepsection.core.trades.stairs.checks import clearances
from deepsection.core.trades.stairs.parts import stair_parts
from deepsection.core.trades.stairs.placed import STAIRS, PlacedStair
from tests.builders import box_house, stair_house, two_storeys
from tests.overlaps import overlapping, shared

FORMS: dict[str, dict[str, Any]] = {
    "straight": {},
    "quarter landing": {"turns": ({"after": 5, "kind": "landing", "side": "left"},)},
    "two quarter landings": {
        "turns": ({"after": 4, "kind": "landing", "side": "right"}, {"after": 8, "kind": "landing", "side": "right"})
    },
    "half landing": {"turns": ({"after": 7, "kind": "half landing", "side": "left", "well": 120.0},)},
    "winders": {"turns": ({"after": 4, "kind": "winders", "side": "right"},)},
    "half turn of winders": {
        "turns": ({"after": 4, "kind": "winders", "side": "left"}, {"after": 8, "kind": "winders", "side": "left"})
    },
    "curved": {"curve": 1500.0, "curve_side": "left"},
}


def only(building: Building) -> PlacedStair:
    (stair,) = building[STAIRS]
    return stair


@pytest.mark.parametrize("form", FORMS)
@pytest.mark.parametrize("turn", [0.0, 33.0, 180.0])
def test_every_stair_rises_evenly_and_covers_every_place_once(form: str, turn: float) -> None:
    stair = only(resolve(stair_house(turn=turn, **FORMS[form])))
    steps = stair.layout.steps
    assert len(steps) == stair.stepping.risers - 1
    assert [step.z for step in steps] == pytest.approx(
        [k * stair.rise.total / stair.stepping.risers for k in range(1, len(steps) + 1)]
    )
    whole = sum(step.area.area for step in steps)
    assert stair.area.area == pytest.approx(whole, rel=1e-6)
    assert all(step.area.is_valid for step in steps)
    for below, above in itertools.pairwise(steps):
        assert math.dist(below.back.left, above.front.left) < 1e-6
        assert math.dist(below.back.right, above.front.right) < 1e-6
    assert math.dist(steps[-1].back.left, stair.layout.head.left) < 1e-6


def test_the_length_of_a_straight_stair_and_of_its_hole_by_hand() -> None:
    """Run: treads times going. Hole: (headroom + floor) x going / riser, and the thickness of the last riser board."""
    building = resolve(stair_house())
    stair = only(building)
    stepping = stair.stepping
    (x, y), z = stair.layout.head.middle, stair.rise.total
    assert (x, y) == pytest.approx((2000.0 + (stepping.risers - 1) * stepping.going, 3500.0))
    assert stair.under is not None and stair.hole is not None
    thickness = stair.base + z - stair.under
    length = (80 * 25.4 + thickness) * stepping.going / stepping.riser
    x0, y0, x1, y1 = stair.hole.bounds
    assert (x1 - stair.stair.riser_board, x1 - stair.stair.riser_board - x0) == pytest.approx((x, length))
    assert (y0, y1) == pytest.approx((3500 - 470, 3500 + 470))


@pytest.mark.parametrize("form", FORMS)
def test_the_hole_leaves_the_headroom_and_a_shorter_one_does_not(form: str) -> None:
    """IRC R311.7.2: 6 ft 8 in along the nosings (from memory)."""
    house = stair_house(**FORMS[form])
    building = resolve(house)
    clear = [height for height, _, over in clearances(only(building), building.placed) if over.id == "floor-1"]
    upper = [d for d in building.diagnostics if d.code == "stair-headroom"]
    assert upper == [] and all(height >= 2032 - 0.5 for height in clear)
    closed = put(house, changed(house.stairs[0], hole=False))
    (low,) = [d for d in resolve(closed).diagnostics if d.code == "stair-headroom"]
    assert low.value is not None and low.value < 0.0 + 1.0 and "6'-8\"" not in low.message and "2032" in low.message


def overlaps(building: Building, elements: set[str]) -> list[str]:
    """Pairs of parts of some elements that share more than a sliver, by their solids."""
    parts = [part for part in building.parts if part.element in elements]
    return [f"{a} and {b}: {much:.0f}" for a, b, much in overlapping(parts, most=2e4)]


@pytest.mark.parametrize("form", ["straight", "quarter landing", "half landing", "winders", "half turn of winders"])
@pytest.mark.parametrize("build", ["housed", "cut", "concrete"])
@pytest.mark.parametrize("turn", [0.0, 33.0])
def test_treads_risers_and_what_carries_them_stand_beside_each_other(form: str, build: str, turn: float) -> None:
    house = stair_house(turn=turn, build=build, rails="none", guard=False, depth=286.0, **FORMS[form])
    building = resolve(house)
    assert overlaps(building, {"way-up"}) == []
    floors = {floor.id for floor in house.floors}
    through = [pair for pair in overlaps(building, {"way-up", *floors}) if "way-up" in pair]
    assert through == []


@pytest.mark.parametrize("build", ["housed", "cut", "mono", "concrete"])
def test_a_cut_through_the_flight_agrees_with_the_slice_of_its_solids(build: str) -> None:
    """Areas of the cut of every part against the solid engine's own slice, which shares no code with it."""
    building = resolve(stair_house(build=build, depth=286.0, turn=0.0))
    frame = Frame.looking(90.0, 0.0, 3960.0)
    compared = 0
    for part in (held for held in building.parts if held.element == "way-up"):
        own = part.solid.cut(frame).area
        solid = part.solid.manifold.rotate((90.0, 0.0, 0.0)).translate((0.0, 0.0, -(3960.0 + 0.01)))
        other = abs(solid.slice(0.0).area())
        assert own == pytest.approx(other, abs=max(2.0, other * 1e-3)), part.key
        compared += other > 0
    assert compared > 8 or build == "concrete"


def test_volume_of_a_concrete_flight_by_hand() -> None:
    """Triangles of the steps, and the waist: what lies below the floor at its foot is cut off."""
    building = resolve(stair_house(build="concrete", depth=150.0))
    stair = only(building)
    n, r, g, w = stair.stepping.treads, stair.stepping.riser, stair.stepping.going, stair.stair.width
    plumb = 150.0 * math.hypot(r, g) / g
    steps = n * g * r / 2
    waist = n * g * plumb - plumb**2 * g / r / 2
    (flight,) = [part for part in building.parts if part.role == "stair_flight"]
    assert flight.solid.volume == pytest.approx((steps + waist) * w, rel=1e-6)
    assert flight.material == "concrete"


def test_throat_and_carriages_by_hand() -> None:
    """A 2x12 with 7.7 in by 10 in notches keeps 11.25 - 7.7 x 10 / sqrt(7.7^2 + 10^2) = 5.15 in."""
    house = stair_house("ft-in", build="cut", depth=11.25 * 25.4, risers=14, going=254.0, width=940.0)
    stair = only(resolve(house))
    r = stair.stepping.riser / 25.4
    assert stair.throat / 25.4 == pytest.approx(11.25 - r * 10 / math.hypot(r, 10))
    strings = [part for part in resolve(house).parts if part.role == "carriage"]
    assert len(strings) == 1 + math.ceil((940.0 - 38.0) / 457.2)
    thin = put(house, changed(house.stairs[0], depth=190.0))
    (found,) = [d for d in resolve(thin).diagnostics if d.code == "stair-throat"]
    assert "deep" in found.message


BROKEN: list[tuple[str, dict[str, Any], str]] = [
    ("stair-illegal", {"going": 200.0}, "254"),
    ("stair-illegal", {"risers": 9}, "196.9"),
    ("stair-illegal", {"rule": "adk", "going": 310.0}, "300"),
    ("stair-narrow", {"width": 700.0}, "914"),
    ("stair-gap", {"open_risers": True}, "101.6"),
    ("stair-turn", {"turns": ({"after": 40},)}, "last tread"),
    ("stair-winders", {"turns": ({"after": 4, "kind": "winders", "well": 50.0},)}, "narrow end"),
    ("stair-winders", {"rule": "adk", "turns": ({"after": 4, "kind": "winders", "well": 0.0},)}, "50"),
    ("stair-no-floor", {"x": 7000.0}, "no floor"),
    ("stair-through-wall", {"x": -1000.0}, "runs through a wall"),
    ("hole-off-floor", {"y": 6700.0}, "outside"),
    ("stair-level", {"level": "upper", "upper": "floor"}, "does not lie above"),
]


@pytest.mark.parametrize(("code", "facts", "words"), BROKEN)
def test_what_is_wrong_is_said_at_its_place(code: str, facts: dict[str, Any], words: str) -> None:
    house = stair_house()
    upper = house.stairs[0].upper
    named = {
        key: {"upper": upper}.get(value, value) if isinstance(value, str) else value for key, value in facts.items()
    }
    broken = put(house, Stair.model_validate(house.stairs[0].model_dump() | named))
    building = resolve(broken)
    found = [d for d in building.diagnostics if d.code == code]
    assert found and found[0].element == "way-up" and found[0].at is not None
    assert any(words in d.message for d in found), [d.message for d in found]


def test_a_long_flight_asks_for_a_landing_and_one_helps() -> None:
    """IRC R311.7.3: 151 in between landings (from memory)."""
    house = stair_house("ft-in")
    rung = next(rung for rung in house.rungs if rung.id == "plate")
    term = next(term for term in rung.terms if term.id == rung.free)
    taller = changed(
        rung, terms=tuple(changed(t, value=t.value + 1500.0) if t.id == term.id else t for t in rung.terms)
    )
    high = put(house, taller)
    assert [d.code for d in resolve(high).diagnostics if d.code == "stair-flight-high"] == ["stair-flight-high"]
    eased = put(high, changed(high.stairs[0], turns=({"after": 10, "kind": "half landing"},)))
    assert [d for d in resolve(eased).diagnostics if d.code == "stair-flight-high"] == []


@pytest.mark.parametrize("form", FORMS)
def test_turned_and_mirrored_it_is_the_same_stair(form: str) -> None:
    house = stair_house(turn=20.0, **FORMS[form])
    before = only(resolve(house))
    for motion in (Motion(turn=47.0, x=1000.0, y=500.0), Motion(mirror=30.0, x=4000.0, y=3000.0)):
        after = only(resolve(apply_edits(house, (Transform(elements=("way-up",), motion=motion),))))
        assert [step.z for step in after.layout.steps] == pytest.approx([step.z for step in before.layout.steps])
        for a, b in zip(before.layout.steps, after.layout.steps, strict=True):
            moved = [motion.at((x, y)) for x, y in a.area.exterior.coords]
            assert shapely.Polygon(moved).symmetric_difference(b.area).area < 1.0
        moved_house = apply_edits(house, (Transform(elements=("way-up",), motion=motion),))
        counts = [Counter(part.role for part in stair_parts(only(resolve(held)))) for held in (house, moved_house)]
        assert counts[0] == counts[1]


def test_it_is_drawn_from_foot_and_way_and_follows_the_walls() -> None:
    house = two_storeys(9000.0, 7000.0)
    drawn = DrawStair(id="s", level="floor", x1=2000.0, y1=3000.0, x2=5000.0, y2=3100.0)
    (stair,) = apply_edits(house, (drawn,)).stairs
    assert stair.turn == 0.0 and stair.upper == house.floors[-1].level and stair.turns == ()
    turned = drawn.model_copy(update={"x3": 5000.0, "y3": 5000.0, "turning": "winders"})
    (bent,) = apply_edits(house, (turned,)).stairs
    assert bent.turns[0].side == "left" and bent.turns[0].kind == "winders"
    with pytest.raises(RefusedEdit, match="no storey lies above"):
        apply_edits(box_house(8000.0, 6000.0), (drawn,))
    with pytest.raises(RefusedEdit, match="needs a direction"):
        apply_edits(house, (drawn.model_copy(update={"x2": 2000.0, "y2": 3000.0}),))


def test_documents_refuse_what_no_stair_can_be() -> None:
    house = stair_house()
    for facts, words in (
        ({"upper": "floor"}, "from one level to another"),
        ({"curve": 400.0}, "radius"),
        ({"curve": 2000.0, "turns": ({"after": 3},)}, "no turns"),
        ({"turns": ({"after": 5, "kind": "winders"}, {"after": 6})}, "come after"),
    ):
        with pytest.raises((RefusedEdit, ValueError), match=words):
            put(house, Stair.model_validate(house.stairs[0].model_dump() | facts))


def joists(building: Building, role: str, floor: str) -> list[Any]:
    return [part for part in building.parts if part.role == role and part.element == floor]


def test_a_hole_is_framed_and_its_area_is_missing() -> None:
    """Trimmers left and right of it from bearing to bearing, headers between them, two plies each; joists between are
    cut short. Boards: the floor less the hole, by hand."""
    house = two_storeys(9000.0, 7000.0)
    floor = house.floors[-1]
    whole = resolve(house)
    corners = ((4000.0, 3000.0), (6000.0, 3000.0), (6000.0, 4200.0), (4000.0, 4200.0))
    cut = put(house, FloorHole(id="hole", floor=floor.id, corners=corners))
    building = resolve(cut)
    trimmers, headers = joists(building, "trimmer_joist", floor.id), joists(building, "header_joist", floor.id)
    assert len(trimmers) == 4 and len(headers) == 4
    spans = sorted(part.solid.bounds.y1 - part.solid.bounds.y0 for part in trimmers)
    inner = max(part.solid.bounds.y1 - part.solid.bounds.y0 for part in joists(whole, "joist", floor.id))
    assert spans == pytest.approx([inner] * 4)
    assert all(part.solid.bounds.x1 - part.solid.bounds.x0 == pytest.approx(2000.0) for part in headers)
    inside = prism(shapely.box(4001.0, 3001.0, 5999.0, 4199.0), -1e5, 1e5)
    assert [p.key for p in building.parts if p.element == floor.id and shared(p.solid, inside) > 1.0] == []
    deck = [sum(p.solid.volume for p in joists(b, "sheathing", floor.id)) for b in (whole, building)]
    thick = joists(whole, "sheathing", floor.id)[0].solid
    assert (deck[0] - deck[1]) / (thick.bounds.z1 - thick.bounds.z0) == pytest.approx(2000.0 * 1200.0)
    assert overlaps(building, {floor.id}) == []


def test_joists_about_a_hole_by_hand() -> None:
    """Of joists at 400 over a hole 2000 wide, those whose place falls between its trimmers are in two pieces."""
    house = two_storeys(9000.0, 7000.0)
    floor = house.floors[-1]
    corners = ((4000.0, 3000.0), (6000.0, 3000.0), (6000.0, 4200.0), (4000.0, 4200.0))
    before = resolve(house)
    after = resolve(put(house, FloorHole(id="hole", floor=floor.id, corners=corners)))
    kept = {part.key for part in joists(after, "joist", floor.id)}
    t = 38.0
    for part in joists(before, "joist", floor.id):
        x0, x1 = part.solid.bounds.x0, part.solid.bounds.x1
        pieces = [held for held in joists(after, "joist", floor.id) if held.key == part.key]
        if (x1 > 4000.0 - 2 * t and x0 < 4000.0) or (x1 > 6000.0 and x0 < 6000.0 + 2 * t):
            assert part.key not in kept or pieces[0].solid.volume < part.solid.volume
        elif x0 >= 4000.0 and x1 <= 6000.0:
            lost = (4200.0 - 3000.0 + 4 * t) * (x1 - x0) * (part.solid.bounds.z1 - part.solid.bounds.z0)
            assert pieces[0].solid.volume == pytest.approx(part.solid.volume - lost, rel=1e-6)
        else:
            assert pieces[0].solid.volume == pytest.approx(part.solid.volume)


def test_a_hole_at_the_edge_and_one_outside() -> None:
    house = two_storeys(9000.0, 7000.0)
    floor = house.floors[-1]
    beside = ((0.0, 2000.0), (1500.0, 2000.0), (1500.0, 3500.0), (0.0, 3500.0))
    building = resolve(put(house, FloorHole(id="hole", floor=floor.id, corners=beside)))
    assert len(joists(building, "trimmer_joist", floor.id)) == 2, "the rim is the other side"
    away = tuple((x - 20_000.0, y) for x, y in beside)
    found = resolve(put(house, FloorHole(id="hole", floor=floor.id, corners=away))).diagnostics
    assert [d.code for d in found] == ["hole-off-floor"] and found[0].element == "hole"
    with pytest.raises(RefusedEdit, match="go round an area"):
        put(house, FloorHole(id="hole", floor=floor.id, corners=((0, 0), (1000, 1000), (1000, 0), (0, 1000))))


def test_a_hole_goes_with_its_floor_and_a_stair_leaves_its_floor_whole_again() -> None:
    house = stair_house()
    area = {flat.floor.id: flat.covered.area for flat in resolve(house)[FLOORS]}
    gone = apply_edits(house, (Remove(elements=("way-up",)),))
    after = {flat.floor.id: flat.covered.area for flat in resolve(gone)[FLOORS]}
    upper = house.floors[-1].id
    stair = only(resolve(house))
    assert stair.hole is not None
    assert after[upper] - area[upper] == pytest.approx(stair.hole.area)
    assert isinstance(gone, Project) and gone.stairs == ()
