"""Chimneys, roof windows, pipes, vents, gutters, downpipes and vaults: heights by published rules, bodies in closed
form. Houses have their frames' outside on the set-out lines, so that runs count from there."""

from __future__ import annotations

import math
from typing import Any

import pytest

from deepsection.core.document.motion import Motion
from deepsection.core.edits import AddOnRoof, DrawWalls, Remove, Transform, apply_edits, changed, put, rebuild
from deepsection.core.errors import RefusedEdit
from deepsection.core.geometry import prism
from deepsection.core.geometry.outlines import turned_rectangle
from deepsection.core.model import Chimney, Downpipe, LevelRule, Project, RoofFitting, Room, TeeJoint
from deepsection.core.resolve import Building, Part, gutter_runs, resolve
from deepsection.core.trades.onroofs.placed import ROOF_FITTINGS
from deepsection.core.view import slope_triangles
from deepsection.demo import larkmoor_house
from tests.builders import box_house, gable
from tests.core.resolve.test_roofs import EAVE, SKIN, over
from tests.overlaps import overlapping, shared

near = pytest.approx
FOOT, INCH = 304.8, 25.4


def house(width: float = 12_000, depth: float = 8000, pitch: float = 0.5) -> Project:
    """A gable whose ridge runs along x at half of the depth."""
    return gable(box_house(width, depth), pitch, overhang=400.0, rake=300.0)


def chimney(x: float, y: float, width: float = 800.0, depth: float = 600.0, **more: Any) -> Chimney:
    return Chimney(id="stack", x=x, y=y, width=width, depth=depth, base=LevelRule(level="floor"), **more)


def fitting(kind: str, x: float, y: float, **sizes: float) -> RoofFitting:
    sizes = {"width": 800.0, "length": 1200.0, "height": 200.0, **sizes}
    return RoofFitting(id="fit", fitting=kind, x=x, y=y, **sizes)  # type: ignore[arg-type]


def codes(project: Project) -> set[str]:
    return {found.code for found in resolve(project).diagnostics}


def volume(building: Building, role: str) -> float:
    return sum(part.solid.volume for part in building.parts if part.element == "roof-1" and part.role == role)


def ridge(project: Project) -> float:
    return resolve(project).roofs[0].ridge_top.total


def stack_top(project: Project, held: Chimney) -> float:
    return resolve(put(project, held)).sums["top:stack"].total


# --- heights of chimneys ----------------------------------------------------------------------------


def test_a_chimney_through_the_ridge_ends_three_feet_above_it() -> None:
    """IRC R1003.9 (from memory): at least 3 ft above the highest point where it passes through the roof."""
    assert stack_top(house(), chimney(6000, 4000)) == near(ridge(house()) + 3 * FOOT)


def test_a_chimney_within_ten_feet_of_the_ridge_ends_two_feet_above_it() -> None:
    """IRC R1003.9 (from memory): at least 2 ft higher than any portion of the building within 10 ft."""
    assert stack_top(house(), chimney(6000, 1500)) == near(ridge(house()) + 2 * FOOT)


def test_far_from_the_ridge_the_slope_ten_feet_away_counts() -> None:
    """Upper face at 1300 from the bearing line; 10 ft on, the slope of 1 in 2 has risen by half of 4348."""
    wide = house(20_000, 16_000)
    (roof,) = resolve(wide).roofs
    expected = roof.heel.total + 0.5 * (1300 + 10 * FOOT) + roof.planes[0].covering + 2 * FOOT
    assert stack_top(wide, chimney(10_000, 1000)) == near(expected, abs=0.3)


def test_in_the_masonry_tradition_another_document_counts() -> None:
    """Approved Document J, diagram 17 (from memory): 1 m above where it passes; 600 above a ridge within 600."""
    wide = rebuild(house(20_000, 16_000), tradition="masonry")
    (roof,) = resolve(wide).roofs
    through = roof.heel.total + 0.5 * 1300 + roof.planes[0].covering
    # 2.3 m uphill the covering lies 1150 over where it passes, more than the metre asked.
    assert stack_top(wide, chimney(10_000, 1000)) == near(through + 1150.0, abs=0.3)
    assert stack_top(wide, chimney(10_000, 8000)) == near(ridge(wide) + 1000.0)


def test_a_chimney_of_its_own_height_is_held_against_the_rule() -> None:
    low = put(house(), chimney(6000, 1500, above=500.0))
    (found,) = resolve(low).diagnostics
    assert found.code == "chimney-low" and found.element == "stack" and found.at == (6000, 1500)
    assert found.limit is not None
    assert "IRC R1003.9" in found.message and "chimney-low" not in codes(
        put(house(), chimney(6000, 1500, above=found.limit))
    )


def test_the_sum_of_a_chimney_names_the_rule_and_the_slope() -> None:
    height = resolve(put(house(), chimney(6000, 1500))).sums["top:stack"]
    assert height.terms[0].source == "heel:roof-1"
    assert "R1003.9" in height.terms[-1].label and height.terms[-1].value == near(2 * FOOT)
    assert height.terms[1].value == near(0.5 * 4000)


# --- crickets -----------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("pitch", "share"), [(1.0, 1 / 2), (8 / 12, 1 / 3), (6 / 12, 1 / 4), (4 / 12, 1 / 6), (3 / 12, 1 / 8)]
)
def test_crickets_are_as_high_as_the_table_asks(pitch: float, share: float) -> None:
    """IRC table R1003.20 (from memory): height of a cricket per width of the chimney, by the pitch of the roof. Its
    valleys run at 45 degrees, so that it is a tetrahedron over a right triangle: height times plan area over three."""
    building = resolve(put(house(pitch=pitch), chimney(6000, 2000, width=1200.0)))
    (placed,) = building[ROOF_FITTINGS].chimneys
    assert placed.cricket is not None
    assert placed.cricket.ridge - placed.cricket.foot == near(1200 * share)
    (body,) = [part.solid for part in building.parts if part.role == "cricket"]
    assert body.volume == near(1200 * share * (1200 * 600 / 2) / 3, rel=1e-6)


def test_only_wide_chimneys_on_one_slope_have_crickets() -> None:
    """IRC R1003.20 (from memory): where the dimension along the ridge is greater than 30 in and off the ridge."""

    def has(held: Chimney) -> bool:
        return resolve(put(house(), held))[ROOF_FITTINGS].chimneys[0].cricket is not None

    assert not has(chimney(6000, 2000, width=30 * INCH)) and has(chimney(6000, 2000, width=30 * INCH + 1))
    assert has(chimney(6000, 2000, width=500.0, cricket="yes")) and not has(chimney(6000, 2000, cricket="no"))
    assert not has(chimney(6000, 4000, width=1200.0))
    assert not has(chimney(6000, 2000, width=700.0, depth=900.0))
    assert has(chimney(6000, 2000, width=700.0, depth=900.0, turn=90.0))


# --- what they take from the roof ---------------------------------------------------------------------


def test_a_chimney_takes_its_plan_from_covering_and_deck() -> None:
    whole, cut = resolve(house()), resolve(put(house(), chimney(6000, 2000)))
    make_up = next(held for held in house().make_ups if held.id == "roof")
    for role, function in (("roofing", make_up.layers[0].function), ("sheathing", "sheathing")):
        thick = next(layer.thickness for layer in make_up.layers if layer.function == function)
        lost = volume(whole, role) - volume(cut, role)
        assert lost == near(800 * 600 * thick * math.sqrt(1.25), rel=1e-6)


def test_a_window_is_cut_square_to_the_slope() -> None:
    whole, cut = resolve(house()), resolve(put(house(), fitting("window", 6000, 2000)))
    make_up = next(held for held in house().make_ups if held.id == "roof")
    lost = volume(whole, "roofing") - volume(cut, "roofing")
    assert lost == near(800 * 1200 * make_up.layers[0].thickness, rel=1e-6)
    glass = next(part for part in cut.parts if part.role == "roof_glass")
    assert glass.solid.volume == near((800 - 120) * (1200 - 120) * 8, rel=1e-6)


def members(building: Building) -> list[Part]:
    return [part for part in building.parts if part.role in ("rafter", "trimmer", "header", "ridge_board")]


@pytest.mark.parametrize("held", [chimney(6150, 2000), chimney(5900, 4000), fitting("window", 6100, 2000)])
def test_members_are_trimmed_and_headed_around_a_hole(held: Any) -> None:
    """No member comes nearer than 2 in to a chimney (IRC R1003.18, from memory) or into a window, and none overlap."""
    building = resolve(put(house(), held))
    frame = members(building)
    roles = [part.role for part in frame]
    assert roles.count("trimmer") >= 2 and roles.count("header") >= 2
    gap = 2 * INCH if isinstance(held, Chimney) else 0.0
    placed = (*building[ROOF_FITTINGS].chimneys, *building[ROOF_FITTINGS].fittings)[0]
    x0, y0, x1, y1 = placed.outline.buffer(gap - 0.5, join_style="mitre").bounds
    for part in frame:
        box = part.solid.bounds
        inside = box.x0 < x1 and box.x1 > x0 and box.y0 < y1 and box.y1 > y0
        assert not inside, part.key
    assert overlapping(frame, most=1.0) == []


def test_members_around_a_hole_are_named_by_what_goes_through() -> None:
    keys = {part.key for part in members(resolve(put(house(), chimney(6000, 2000)))) if ":hole:" in part.key}
    assert {key.rsplit("hole:", 1)[1] for key in keys} == {"stack:left", "stack:right", "stack:low", "stack:high"}


def test_a_chimney_passes_ceiling_and_floor() -> None:
    building = resolve(put(house(), chimney(6000, 2000)))
    stack = next(part for part in building.parts if part.role == "chimney")
    others = [part for part in building.parts if part.element != "stack"]
    assert overlapping([stack], others, most=1.0) == []


def test_a_pipe_stands_above_the_upper_side_of_its_hole() -> None:
    building = resolve(put(house(), fitting("pipe", 6000, 2000, width=100.0, length=100.0, height=300.0)))
    (roof,) = building.roofs
    expected = roof.heel.total + 0.5 * 2050 + roof.planes[0].covering + 300
    assert building.sums["top:fit"].total == near(expected)
    assert next(part for part in building.parts if part.role == "pipe").solid.bounds.z1 == near(expected)


# --- what is wrong ------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("held", "code"),
    [
        (fitting("window", 6000, 4000), "fitting-off-slope"),
        (fitting("window", 6000, 9500), "fitting-off-roof"),
        (fitting("pipe", 6000, 2000, width=100.0, length=100.0, height=100.0), "pipe-low"),
        (chimney(30_000, 2000), "chimney-alone"),
        (Downpipe(id="dp", roof="roof-1", edge="e2", distance=100.0), "downpipe-without-eave"),
        (Downpipe(id="dp", roof="roof-1", edge="e1", distance=100.0), "downpipe-without-gutter"),
    ],
)
def test_what_cannot_be_right_is_named(held: Any, code: str) -> None:
    building = resolve(put(house(), held))
    (found,) = building.diagnostics
    assert found.code == code and found.severity == "warning" and found.element == held.id and found.at is not None


def test_two_things_in_one_place_are_named() -> None:
    assert "on-roof-overlap" in codes(put(house(), chimney(6000, 2000), fitting("vent", 6300, 2000)))


def test_the_document_refuses_what_it_cannot_hold() -> None:
    with pytest.raises(RefusedEdit, match="flue is wider"):
        put(house(), chimney(6000, 2000, flue=700.0))
    with pytest.raises(RefusedEdit, match="there is no roof here"):
        apply_edits(house(), (AddOnRoof(id="v", what="vent", x=6000, y=20_000),))
    with pytest.raises(RefusedEdit, match="there is no eave here"):
        apply_edits(house(), (AddOnRoof(id="v", what="downpipe", x=6000, y=-9000),))


# --- gutters and downpipes ----------------------------------------------------------------------------


def guttered(project: Project, width: float = 100.0) -> Project:
    return put(project, project.roofs[0].model_copy(update={"gutter": width}))


def test_gutters_go_round_a_hip_with_mitres() -> None:
    """Between two rectangles: the ends of the slopes, and a gutter's width outside of them."""
    (roof,) = resolve(guttered(over(box_house(12_000, 8000), "hip"))).roofs
    runs = gutter_runs(roof)
    inner = (12_000 + 2 * EAVE) * (8000 + 2 * EAVE)
    outer = (12_000 + 2 * EAVE + 200) * (8000 + 2 * EAVE + 200)
    assert len(runs) == 4 and sum(area.area for *_, area in runs) == near(outer - inner)


def test_gutters_end_with_the_rakes_of_a_gable() -> None:
    (roof,) = resolve(guttered(house())).roofs
    areas = [area.area for *_, area in gutter_runs(roof)]
    assert areas == near([100 * (12_000 + 2 * (300 + SKIN))] * 2)


def test_a_downpipe_goes_from_the_gutter_to_the_ground() -> None:
    project = apply_edits(house(), (AddOnRoof(id="dp", what="downpipe", x=11_000, y=-300),))
    assert project.roofs[0].gutter == 115.0 and project.downpipes[0].distance == near(11_000)
    building = resolve(project)
    assert building.diagnostics == ()
    pipe = next(part.solid.bounds for part in building.parts if part.role == "downpipe")
    gutter = next(part.solid.bounds for part in building.parts if part.role == "gutter" and part.solid.bounds.y0 < 0)
    assert pipe.z0 == near(building.ground.grade + 100) and pipe.z1 == near(gutter.z0, abs=1e-3)
    assert (pipe.x0, pipe.x1) == near((11_000 - 37.5, 11_000 + 37.5))
    wall = next(part.solid.bounds for part in building.parts if part.role == "cladding" and part.element == "south")
    assert pipe.y1 == near(wall.y0 - 15)
    gone = apply_edits(project, (Remove(elements=("roof-1",)),))
    assert gone.downpipes == ()


def test_what_is_put_on_a_roof_stands_square_to_its_slope() -> None:
    """On the hip end of a house, the eave runs north and south."""
    hip = over(box_house(12_000, 8000), "hip")
    turned = apply_edits(hip, (AddOnRoof(id="c", what="chimney", x=11_000, y=4000),)).chimneys[0]
    assert turned.turn == near(90.0) and turned.base.level == hip.foundations[0].footing
    moved = apply_edits(put(hip, turned), (Transform(elements=("c",), motion=Motion(dx=-500.0, turn=0.0)),))
    assert moved.chimneys[0].x == near(10_500)


# --- vaults, overhangs, triangles ---------------------------------------------------------------------


def vaulted(pitch: float, project: Project | None = None) -> Project:
    return put(project or house(), Room(id="room", name="Hall", x=6000, y=4000, vault=pitch))


def test_a_vault_is_lined_at_its_own_pitch() -> None:
    """Boards as long as the vault is: the plan of the room times its slope factor times their thickness."""
    building = resolve(vaulted(1 / 6))
    assert building.diagnostics == ()
    space = building.rooms[0].space
    assert space is not None
    lining = [part for part in building.parts if "/vault:" in part.key and part.role == "lining"]
    thick = next(
        layer.thickness
        for held in house().make_ups
        if held.use == "ceiling"
        for layer in held.layers
        if not layer.framing
    )
    slope = math.hypot(1.0, 1 / 6)
    assert sum(part.solid.volume for part in lining) == near(space.area * slope * thick, rel=2e-3)
    plate = building.levels["plate"].z
    assert max(part.solid.bounds.z1 for part in lining) == near(plate + 4000 / 6, abs=0.1)
    assert not [part for part in building.parts if part.role == "joist"]


def test_a_vault_stays_below_its_rafters() -> None:
    """The underside of the rafters comes up to the plate at the seat of the birdsmouth; at the inner face of the wall,
    at d, it has risen by pitch x (d - seat): a vault from the bearing line is at most pitch x (1 - seat / d) steep."""
    building = resolve(vaulted(0.45))
    (found,) = building.diagnostics
    space = building.rooms[0].space
    assert space is not None
    inner = space.bounds[1]
    assert found.code == "vault-above-roof" and found.limit == near(0.5 * (1 - 90 / inner), rel=1e-6)
    assert codes(vaulted(found.limit)) == set()
    assert codes(vaulted(0.3, box_house(12_000, 8000))) == {"vault-without-roof"}


def test_a_vault_beside_a_wall_that_stops_at_its_plate_is_open_to_the_attic() -> None:
    """By hand: beside a wall across the house a vault of 1 in 6 rises from both plates; it lies more than 75 mm over
    the wall but for 6 x 75 mm from each bearing line. Spots are 250 mm apart."""
    joints = (
        TeeJoint(id="t1", wall="south", end="start", distance=7000.0),
        TeeJoint(id="t2", wall="north", end="start", distance=5000.0),
    )
    wall = DrawWalls(
        joints=joints, chain=("t1", "t2"), walls=("across",), make_up="wall-inner", status="inner", base="floor",
        top="plate",
    )  # fmt: skip
    parted = apply_edits(house(), (wall,))
    across = parted.find("across")
    stops = put(parted, changed(across, top=changed(across.top, kind="level")))
    (found,) = resolve(vaulted(1 / 6, stops)).diagnostics
    space = resolve(vaulted(1 / 6, stops)).rooms[0].space
    assert space is not None
    inner = space.bounds[3] - space.bounds[1]
    outer = (8000 - inner) / 2
    assert found.code == "vault-open" and found.others == ("across",)
    assert found.value == near(inner - 2 * (6 * 75 - outer), abs=500)
    goes_up = put(parted, changed(across, top=changed(across.top, kind="roof")))
    assert codes(vaulted(1 / 6, goes_up)) == set()
    both = put(vaulted(1 / 6, stops), Room(id="room-2", name="Den", x=9000, y=4000, vault=1 / 6))
    assert codes(both) == set(), "a vault runs on over the wall"


def test_overhangs_are_measured_from_the_face_that_is_named() -> None:
    (wall,) = [held for held in resolve(house()).plan.walls if held.wall.id == "south"]
    for face, skin in (("bearing", 0.0), ("sheathing", SKIN), ("face", wall.outer)):
        roof = house().roofs[0].model_copy(update={"overhang_from": face})
        assert resolve(put(house(), roof)).roofs[0].reaches[0] == near(400 + skin)


def test_a_ridge_is_explained_by_a_triangle_on_each_side() -> None:
    """Half span 4000, rise 2000, slope 4000 x sqrt(1.25) = 4472, seen from the east: south lies at the left."""
    shown = [held for held in slope_triangles(resolve(house()), 180.0, "mm") if "ridge:roof-1" in held.sums]
    assert len(shown) == 2
    assert {(held.run, held.rise, held.slope) for held in shown} == {("4000", "2000", "4472.1")}
    assert sorted(abs(held.u1 - held.u0) for held in shown) == near([4000, 4000])
    assert {round(held.u1, 3) for held in shown} == {4000.0}


def test_an_eave_is_explained_by_its_overhang() -> None:
    (eave,) = [held for held in slope_triangles(resolve(house()), 90.0, "mm") if "eave:roof-1" in held.sums]
    assert (eave.run, eave.rise) == (f"{EAVE:g}", f"-{EAVE / 2:g}")


def test_the_gutters_of_a_dormer_end_where_its_eaves_die_into_the_roof() -> None:
    """Not past the slope that it stands on, and so not out of the other one."""
    building = resolve(larkmoor_house())
    ends = {part.key: part.solid.bounds.y1 for part in building.parts if part.element == "roof-dormer-1"}
    gutters = [y for key, y in ends.items() if "/gutter/" in key]
    fascias = [y for key, y in ends.items() if "/fascia/" in key]
    assert len(gutters) == 2 and gutters == pytest.approx(fascias, abs=1.0)


def test_ceilings_are_framed_around_chimneys_and_stay_two_inches_clear() -> None:
    """IRC R1003.18, from memory: two inches between framing and masonry. Trimmers and headers of two joists each."""
    project = larkmoor_house()
    building = resolve(project)
    ceilings = {held.id for held in project.ceilings}
    (chimney,) = (held for held in project.chimneys)
    around = [part for part in building.parts if part.element in ceilings and f":{chimney.id}:" in part.key]
    assert {part.role for part in around} == {"trimmer_joist", "header_joist"}
    clear = turned_rectangle(chimney.x, chimney.y, chimney.width + 101.0, chimney.depth + 101.0, chimney.turn)
    body = prism(clear, -1e4, 1e5)
    framing = ("joist", "trimmer_joist", "header_joist")
    held = [part for part in building.parts if part.element in ceilings and part.role in framing]
    assert [part.key for part in held if shared(part.solid, body) > 100.0] == []
