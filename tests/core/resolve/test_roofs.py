"""Roof blocks over outlines, edge by edge: heights by hand, areas in closed form, bodies that fill no place twice."""

from __future__ import annotations

import itertools
import math
from typing import Any

import pytest
import shapely

from deepsection.core.edits import DrawWalls, MoveRidge, MoveRoofEdge, ProposeRoof, SetRoofEdge, apply_edits, put
from deepsection.core.errors import RefusedEdit
from deepsection.core.geometry import prism
from deepsection.core.model import Corner, Project
from deepsection.core.resolve import Building, ResolvedRoof, resolve
from deepsection.core.trades.walls.model import FreeJoint
from tests.builders import box_house, chain_house, l_house, rectangle
from tests.overlaps import overlapping

near = pytest.approx
SKIN = 12.0
"""From the outside of the frame to the outside of the sheathing, which overhangs are measured from."""
EAVE, RAKE = 400 + SKIN, 300 + SKIN


def over(house: Project, form: str, x: float = 3000.0, y: float = 3000.0) -> Project:
    """A roof proposed over the walls around a point."""
    proposal = ProposeRoof(id="roof-1", form=form, level="floor", plate="plate", x=x, y=y)  # type: ignore[arg-type]
    return apply_edits(house, (proposal,))


def changed_edge(project: Project, edge: int, **changes: Any) -> Project:
    roof = project.roofs[0]
    edges = [held.model_copy(update=changes) if k == edge else held for k, held in enumerate(roof.edges)]
    return put(project, roof.model_copy(update={"edges": tuple(edges)}))


def only(project: Project) -> tuple[Building, ResolvedRoof]:
    building = resolve(project)
    return building, building.roofs[0]


def true_area(roof: ResolvedRoof) -> float:
    return sum(plane.polygon.area * math.hypot(1.0, plane.pitch) for plane in roof.planes)


def roofing(building: Building, roof: str = "roof-1") -> float:
    return sum(part.solid.volume for part in building.parts if part.element == roof and part.role == "roofing")


# --- outlines ---------------------------------------------------------------------------------------


def test_a_hip_is_proposed_over_a_box() -> None:
    """Check value 1 on real walls: 12 x 8 m at 6:12, its ridge 2000 over the bearing lines, 4 m long, four hips."""
    building, roof = only(over(box_house(12_000, 8000), "hip"))
    assert building.diagnostics == ()
    (ridge,) = roof.of("ridge")
    assert ridge.length == near(4000) and ridge.start[2] - roof.heel.total == near(2000)
    assert [hip.length for hip in roof.of("hip")] == near([(4000 + EAVE) * math.sqrt(2.25)] * 4)
    cover = (12_000 + 2 * EAVE) * (8000 + 2 * EAVE)
    assert true_area(roof) == near(cover * math.sqrt(1.25))
    assert roofing(building) == near(cover * math.sqrt(1.25) * 10.0, rel=1e-6), "10 mm of shingles"


def test_its_heights_are_sums() -> None:
    """Plate 2800; rafter 235 x sqrt(1.25); seat 90 x 0.5; run 4000 x 0.5; shingles, felt and boards on top."""
    _, roof = only(over(box_house(12_000, 8000), "hip"))
    terms = {term.label: term.value for term in roof.ridge_top.terms}
    assert terms["Plate"] == near(2800) and terms["birdsmouth"] == near(-45)
    assert terms["rafter, measured plumb"] == near(235 * math.sqrt(1.25))
    assert terms["26.57° over half span"] == near(2000)
    assert roof.eave.total == near(roof.heel.total - 0.5 * EAVE)


def test_an_l_gets_hips_and_a_valley_or_gables_over_its_ends() -> None:
    _, hipped = only(over(l_house(), "hip"))
    assert [len(hipped.of(kind)) for kind in ("hip", "valley", "ridge")] == [6, 1, 2]  # type: ignore[arg-type]
    project = over(l_house(), "gable")
    assert [[edge.kind for edge in roof.edges] for roof in project.roofs] == [
        ["gable", "eave", "gable", "eave"],
        ["eave", "gable", "eave", "joined"],
    ]
    gabled = resolve(project).roofs
    kinds = [seam.kind for roof in gabled for seam in roof.seams]
    assert [kinds.count(kind) for kind in ("hip", "valley", "ridge")] == [0, 2, 2]


def court_house() -> Project:
    corners = (("a", 0.0, 0.0), ("b", 18_000.0, 0.0), ("c", 18_000.0, 16_000.0), ("d", 0.0, 16_000.0))
    house = chain_house(corners, ("w1", "w2", "w3", "w4"))
    inner = (("ca", 6000.0, 6000.0), ("cb", 6000.0, 10_000.0), ("cc", 12_000.0, 10_000.0), ("cd", 12_000.0, 6000.0))
    draw = DrawWalls(
        joints=tuple(FreeJoint(id=id, x=x, y=y) for id, x, y in inner),
        chain=("ca", "cb", "cc", "cd", "ca"),
        walls=("c1", "c2", "c3", "c4"),
        make_up="wall-lap",
        base="floor",
        top="plate",
    )
    return apply_edits(house, (draw,))


def test_a_court_stays_open() -> None:
    """A ring 6 m wide around a court of 6 x 4 m: ridges 1500 up along its middle line, 2 x (12 + 10) m."""
    project = over(court_house(), "hip")
    assert len(project.roofs[0].courts) == 1 and len(project.roofs[0].edges) == 8
    building, roof = only(project)
    assert [len(roof.of(kind)) for kind in ("hip", "valley")] == [4, 4]  # type: ignore[arg-type]
    assert sum(ridge.length for ridge in roof.of("ridge")) == near(44_000)
    assert roof.of("ridge")[0].start[2] == near(roof.heel.total + 1500)
    cover = shapely.union_all([plane.polygon for plane in roof.planes], grid_size=0.01)
    assert not cover.contains(shapely.Point(9000, 8000)), "rain falls into the court"
    assert {part.key.split("/")[3] for part in building.parts if part.role == "fascia"} == {
        f"edge:e{k}" for k in range(1, 9)
    }


def test_where_no_walls_enclose_the_point_nothing_is_proposed() -> None:
    with pytest.raises(RefusedEdit, match="no outer walls enclose this place"):
        over(box_house(12_000, 8000), "hip", x=-500.0)


# --- kinds of edges -----------------------------------------------------------------------------------


def test_a_half_hip_stops_its_gable_wall() -> None:
    """Walls go up to the underside of whatever lies over them: half way up the gable is cut off by the half hip."""
    gabled = over(box_house(12_000, 8000), "gable")
    before = max(part.solid.bounds.z1 for part in resolve(gabled).parts if part.key.startswith("east/cladding/"))
    half = apply_edits(gabled, (SetRoofEdge(roof="roof-1", edge="e2", to="half_hip"),))
    assert half.roofs[0].edges[1].height == near(1000), "half of the rise of 2000"
    building, roof = only(half)
    after = max(part.solid.bounds.z1 for part in building.parts if part.key.startswith("east/cladding/"))
    assert after < before - 900
    # The outside of the boards lies past the bearing line, where the half hip is that much lower.
    out = next(wall for wall in building.plan.walls if wall.wall.id == "east").outer
    assert after == near(roof.heel.total + 1000 - (out - 18) * 0.5, abs=10.0)


def test_a_gambrel_breaks_where_it_is_told() -> None:
    """By hand: 2400 up at 1.5, so 1600 in; from there 2400 more in at 0.5: 2400 + 1200 over the bearing lines."""
    project = over(box_house(12_000, 8000), "gable")
    for edge in (0, 2):
        project = changed_edge(project, edge, pitch=1.5, height=2400.0, upper_pitch=0.5)
    building, roof = only(project)
    assert roof.of("ridge")[0].start[2] == near(roof.heel.total + 3600)
    assert roof.run == near(4000)
    assert {roof.slot_of(plane) for plane in roof.planes} == {"edge:e1", "edge:e3", "edge:e1:upper", "edge:e3:upper"}
    east = max(part.solid.bounds.z1 for part in building.parts if part.key.startswith("east/cladding/"))
    assert east == near(roof.heel.total + 3600, abs=5.0), "its gable wall fills the gambrel"
    upper = [part for part in building.parts if part.role == "rafter" and ":upper:" in part.key]
    assert upper and all(part.solid.bounds.z0 > roof.heel.total + 2000 for part in upper)


def test_a_lower_eave_says_that_its_wall_stands_through() -> None:
    """Saltbox: an eave 900 lower moves the ridge by 900 / 0.5 / 2 towards the front, and drops it by 450."""
    project = changed_edge(over(box_house(12_000, 8000), "gable"), 2, raised=-900.0)
    building, roof = only(project)
    (ridge,) = roof.of("ridge")
    assert ridge.start[1] == near(4000 - 900) and ridge.start[2] == near(roof.heel.total + 2000 - 450)
    found = {held.code: held for held in building.diagnostics}["wall-through-roof"]
    assert found.element == "north" and found.value == near(2800) and found.limit == near(1900)


def test_fascias_at_different_heights_are_pointed_out_with_the_choice() -> None:
    project = changed_edge(over(box_house(12_000, 8000), "hip"), 1, pitch=0.75)
    found = {held.code: held for held in resolve(project).diagnostics}["fascias-apart"]
    assert "overhang, the pitch" in found.message and found.at is not None
    # The overhang that brings them together again is that of the other, in the ratio of the pitches.
    level = changed_edge(project, 1, overhang=EAVE * 0.5 / 0.75 - SKIN)
    assert "fascias-apart" not in {held.code for held in resolve(level).diagnostics}


def test_unequal_pitches_turn_the_hips() -> None:
    """The tangent of a hip's angle in plan is the ratio of the pitches (trade arithmetic)."""
    _, roof = only(changed_edge(over(box_house(12_000, 8000), "hip"), 1, pitch=0.75))
    hip = next(held for held in roof.of("hip") if held.edges == (0, 1))
    dx, dy = (abs(a - b) for a, b in zip(hip.start[:2], hip.end[:2]))
    assert dx / dy == near(0.5 / 0.75)


def test_the_last_eave_cannot_become_a_gable() -> None:
    single = over(box_house(12_000, 8000), "single")
    eave = next(k for k, edge in enumerate(single.roofs[0].edges) if edge.kind == "eave")
    with pytest.raises(RefusedEdit, match="at least one edge is an eave"):
        apply_edits(single, (SetRoofEdge(roof="roof-1", edge=f"e{eave + 1}", to="gable"),))


def test_an_edge_is_drawn_outward() -> None:
    project = over(box_house(12_000, 8000), "hip")
    _, before = only(project)
    wider = apply_edits(project, (MoveRoofEdge(roof="roof-1", edge="e2", by=1500.0),))
    _, after = only(wider)
    assert after.of("ridge")[0].length == near(before.of("ridge")[0].length + 1500)
    assert [corner.joint is None for corner in wider.roofs[0].outline] == [False, True, True, False]


# --- bodies -------------------------------------------------------------------------------------------


@pytest.mark.parametrize("form", ["hip", "gable", "single"])
@pytest.mark.parametrize("house", [box_house(9000, 7000), l_house()], ids=["box", "l"])
def test_members_and_boards_fill_no_place_twice(house: Project, form: str) -> None:
    """Rafters, boards and walls of a roofed house are disjoint, by pairs whose boxes meet (manifold intersection)."""
    building = resolve(over(house, form))
    frame = [part for part in building.parts if part.role in ("rafter", "ridge_board", "fascia", "barge")]
    assert all(not part.solid.is_empty for part in frame)
    assert overlapping(frame, most=2e4) == []


def test_jacks_of_a_hip_shorten_by_the_spacing() -> None:
    """At equal pitches a jack is as much shorter in plan as it stands nearer to the corner (framing-square tables)."""
    building, _ = only(over(box_house(12_000, 8000), "hip"))
    jacks = sorted(
        part.solid.bounds.y1 - 0.0
        for part in building.parts
        if part.key.startswith("roof-1/rafter/rafters/edge:e1:") and part.solid.bounds.x1 < 3900
    )
    steps = [b - a for a, b in itertools.pairwise(jacks)]
    assert len(steps) >= 4 and steps[1:] == near([600.0] * (len(steps) - 1), abs=1.0)


# --- blocks together ------------------------------------------------------------------------------------


def rectangle_roof(project: Project, form: str, *box: float) -> Project:
    outline = tuple(Corner(x=x, y=y) for x, y in rectangle(*box))
    proposal = ProposeRoof(id="roof-2", form=form, level="floor", plate="plate", outline=outline)  # type: ignore[arg-type]
    return apply_edits(project, (proposal,))


def test_a_porch_stays_whole_under_the_eave() -> None:
    """A single pitch against the wall, its top below the eave: neither roof takes anything of the other."""
    main = over(box_house(12_000, 8000), "gable")
    project = rectangle_roof(main, "single", 3000, -2400, 8000, 0)
    assert [edge.kind for edge in project.roofs[1].edges] == ["eave", "gable", "abutment", "gable"]
    building = resolve(project)
    house, porch = building.roofs
    assert porch.ridge_top.total < house.eave.total - 140
    for roof in (house, porch):
        assert [plane.polygon.area for plane in roof.planes] == near([plane.whole.area for plane in roof.planes])


def test_a_wing_leans_against_a_wall() -> None:
    """A single pitch over a wing, its high side against the house: 5 planes in all, none cut."""
    corners = (
        ("a", 0.0, 0.0), ("b", 12_000.0, 0.0), ("c", 12_000.0, 8000.0), ("d", 0.0, 8000.0),
    )  # fmt: skip
    house = chain_house(corners, ("w1", "w2", "w3", "w4"))
    main = over(house, "hip")
    wing = rectangle_roof(main, "single", 12_000, 2000, 15_000, 6000)
    kinds = [edge.kind for edge in wing.roofs[1].edges]
    assert kinds == ["gable", "eave", "gable", "abutment"]
    assert wing.roofs[1].offset < 0, "nothing stands below it: it is a porch, and stays below the eave"


def test_coverings_beside_each_other_are_the_union_of_solids() -> None:
    """Cross gables of different spans against manifold: what is left of both is the upper surface of their union.

    Solids under each roof (from one level up to the covering) are united; the volume of the union is the sum of what
    stands under the slopes that are left.
    """
    corners = (
        ("a", 0.0, 0.0), ("b", 12_000.0, 0.0), ("c", 12_000.0, 8000.0), ("d", 8000.0, 8000.0),
        ("e", 8000.0, 12_000.0), ("f", 3000.0, 12_000.0), ("g", 3000.0, 8000.0), ("h", 0.0, 8000.0),
    )  # fmt: skip
    house = chain_house(corners, tuple(f"w{k}" for k in range(8)))
    main = rectangle_roof(house, "gable", 0, 0, 12_000, 8000)
    main = put(main, main.roofs[0].model_copy(update={"id": "roof-1"}))
    main = main.model_copy(update={"roofs": main.roofs[1:]})
    project = rectangle_roof(main, "gable", 3000, 8000, 8000, 12_000)
    assert project.roofs[1].edges[0].kind == "joined"
    building = resolve(project)
    low = 2000.0

    def body(shape: Any, plane: Any) -> Any:
        return prism(shape, low, 9000.0).below(plane.top.lifted(plane.covering)).manifold

    left = sum(body(p.polygon, p).volume() for roof in building.roofs for p in roof.planes if not p.polygon.is_empty)
    # The lower roof is carried on under the main one as far as its ridge: past that it would come out again.
    north = shapely.box(-1e5, 4000, 1e5, 1e5)
    whole = None
    for roof in building.roofs:
        for plane in roof.planes:
            held = body(plane.whole.intersection(north) if roof.joins else plane.whole, plane)
            whole = held if whole is None else whole + held
    assert whole is not None
    assert left == near(whole.volume(), rel=2e-3)


def test_each_ridge_is_proved_from_both_sides() -> None:
    """Common practice, the drafter's proof: each ridge is found once more from the slope at its other side."""
    project = changed_edge(over(l_house(), "hip"), 0, pitch=0.6)
    building, roof = only(project)
    ridges = [held for held in roof.of("ridge") if len(held.edges) > 1]
    assert len(roof.proofs) == 2 * len(ridges) >= 2
    for first, second in zip(roof.proofs[::2], roof.proofs[1::2]):
        assert first.label != second.label
    for number, ridge in enumerate(ridges):
        tops = [held.total - held.terms[-1].value for held in roof.proofs[2 * number : 2 * number + 2]]
        assert tops == near([ridge.start[2]] * 2), "the structure is as high from either side"
    assert all(held.id in building.sums for held in roof.proofs)


def test_a_stated_heel_lifts_the_whole_roof() -> None:
    plain = over(box_house(12_000, 8000), "hip")
    raised = put(plain, plain.roofs[0].model_copy(update={"heel": 400.0}))
    _, roof = only(raised)
    assert roof.heel.total == near(2800 + 400) and roof.of("ridge")[0].start[2] == near(3200 + 2000)
    assert roof.planes[0].seat == 0.0, "no birdsmouth is left: the rafter passes over the plate"


def test_an_abutment_without_a_wall_is_pointed_out() -> None:
    main = over(box_house(12_000, 8000), "gable")
    porch = rectangle_roof(main, "single", 3000, -2400, 8000, 0)
    assert resolve(porch).diagnostics == ()
    found = resolve(apply_edits(porch, (MoveRoofEdge(roof="roof-2", edge="e3", by=-1500.0),))).diagnostics
    assert [held.code for held in found] == ["abutment-without-wall"] and found[0].field == "kind_e3"


def test_a_ridge_is_moved_at_its_height() -> None:
    """Rise over run on both sides: 2000 over 4000 each becomes 2000 over 5000 and 2000 over 3000."""
    project = over(box_house(12_000, 8000), "gable")
    moved = apply_edits(project, (MoveRidge(roof="roof-1", edges=("e1", "e3"), by=1000.0),))
    assert [edge.pitch for edge in moved.roofs[0].edges] == [near(0.4), None, near(2 / 3), None]
    _, roof = only(moved)
    (ridge,) = roof.of("ridge")
    assert ridge.start[1] == near(5000) and ridge.start[2] == near(roof.heel.total + 2000)
    for by, words in ((3900.0, "too near"), (-3900.0, "too near")):
        with pytest.raises(RefusedEdit, match=words):
            apply_edits(project, (MoveRidge(roof="roof-1", edges=("e1", "e3"), by=by),))
    with pytest.raises(RefusedEdit, match="between two eaves"):
        apply_edits(project, (MoveRidge(roof="roof-1", edges=("e1", "e2"), by=10.0),))


def test_a_wing_leans_on_the_storey_above_the_house() -> None:
    """A storey over 12 x 8 m, and a wing of 3 x 4 m at its east whose roof rises against the upper wall."""
    corners = (
        ("a", 0.0, 0.0), ("b", 12_000.0, 0.0), ("c", 12_000.0, 2000.0), ("d", 15_000.0, 2000.0),
        ("e", 15_000.0, 6000.0), ("f", 12_000.0, 6000.0), ("g", 12_000.0, 8000.0), ("h", 0.0, 8000.0),
    )  # fmt: skip
    house = chain_house(corners, tuple(f"w{k}" for k in range(8)))
    upper = DrawWalls(
        joints=tuple(
            FreeJoint(id=f"u{k}", x=x, y=y)
            for k, (x, y) in enumerate(((0.0, 0.0), (12_000.0, 0.0), (12_000.0, 8000.0), (0.0, 8000.0)))
        ),
        chain=("u0", "u1", "u2", "u3", "u0"),
        walls=("us", "ue", "un", "uw"),
        make_up="wall-lap",
        base="plate",
        top="plate",
    )
    tall = apply_edits(house, (upper,))
    raised = [wall.model_copy(update={"top": wall.top.model_copy(update={"kind": "fixed", "height": 2500.0})})
              for wall in tall.walls if wall.base.level == "plate"]  # fmt: skip
    tall = put(tall, *raised)
    wing = rectangle_roof(tall, "single", 12_000, 2000, 15_000, 6000)
    roof = wing.roofs[0]
    assert [edge.kind for edge in roof.edges] == ["gable", "eave", "gable", "abutment"] and roof.offset == 0
    building = resolve(wing)
    (plane,) = building.roofs[0].planes
    high = max(x for x, _ in plane.polygon.exterior.coords)  # type: ignore[union-attr]
    low = min(x for x, _ in plane.polygon.exterior.coords)  # type: ignore[union-attr]
    assert high == near(15_000 + EAVE) and 12_000 < low < 12_060, "it stops at the outer face of the wall behind it"
