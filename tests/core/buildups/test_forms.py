"""Pieces against closed forms and published rules, and gaps planted on purpose."""

from __future__ import annotations

import itertools
import math

import pytest
import shapely
from shapely.geometry import LineString, Polygon

from deepsection.core.buildups import Wanted, built_of, made_of, set_build_ups
from deepsection.core.buildups.choosing import Built
from deepsection.core.buildups.library import SITES
from deepsection.core.buildups.making import lies_of
from deepsection.core.edits import apply_edits, changed, put
from deepsection.core.errors import BadInput
from deepsection.core.junctions import Junction, found_junctions
from deepsection.core.model import GroundSpot, Project
from deepsection.core.resolve import Building, resolve
from deepsection.core.view.continuity import continuity_in
from deepsection.demo import otterfold_house
from tests.builders import two_storeys
from tests.turning import turned

from .rig import after, cut_at, framed, masonry, places

INCH = 25.4


def first(project: Project, kind: str) -> tuple[Building, Junction, Built]:
    building = resolve(project)
    for junction in found_junctions(building):
        built = built_of(building, junction) if junction.kind == kind else None
        if built is not None:
            return building, junction, built
    raise AssertionError(f"no {kind} is built")


def shape(built: Built, id: str) -> Polygon:
    return next(piece.shape for piece in built.pieces if piece.id == id)


@pytest.mark.parametrize("pitch", [0.35, 0.6, 1.0])
def test_the_air_over_the_quilt_is_as_wide_as_stated(pitch: float) -> None:
    """IRC 2021 R806.3 (from memory): 1 in of clear air between insulation and sheathing, square to the roof."""
    building, junction, built = first(framed(pitch, overhang=400.0), "eave")
    site = SITES["eave"].site(building, junction)
    deck = LineString([(u, site.rafter_top(u)) for u in (0.0, -900.0)])
    baffle = shape(built, "baffle")
    slope = Polygon([(x, y) for x, y in baffle.exterior.coords if x <= 0.01 and y > site.plate + 1.0]).buffer(0)
    assert deck.distance(slope if not slope.is_empty else baffle) == pytest.approx(INCH, abs=0.05)
    # It stops no air: what it keeps clear is as wide all the way to its end.
    clear = next(piece.clears for piece in built.pieces if piece.id == "baffle")
    assert clear is not None and clear.buffer(-INCH / 2 + 0.2).area > 0 and clear.buffer(-INCH / 2 - 0.2).length < 300.0


def test_the_ice_sheet_reaches_24_inches_inside_of_the_warm_wall() -> None:
    """IRC 2021 R905.1.2 (from memory): from the edge to at least 24 in inside of the exterior wall line."""
    building, junction, built = first(framed(), "eave")
    site = SITES["eave"].site(building, junction)
    assert site.wall is not None
    x0, _, x1, _ = shape(built, "ice-sheet").bounds
    assert site.wall.inner - x0 == pytest.approx(24 * INCH, abs=1.5) and x1 == pytest.approx(site.reach, abs=1.5)
    short = after(framed(), "eave", parameter="ice", text='12"')
    assert any("R905.1.2" in found.source for found in first(short, "eave")[2].rules)


def test_vents_against_the_area_of_the_attic_by_hand() -> None:
    """IRC 2021 R806.2 (from memory): 1/150 of the attic. 8.4 x 6 m over two eaves of 8.4 m: 3 m2 for each metre, so
    20 000 mm2; a strip of 2 in with 9 sq in per ft lets in 9 x 645.16 / 0.3048 = 19 050; one of 2 1/4 in is enough, and
    so is a ridge that lets air out: 1/300."""
    assert not [held for held in first(framed(), "eave")[2].rules if "R806.2" in held.source]
    project = after(framed(), "ridge", build_up="ridge-closed")
    _, _, built = first(project, "eave")
    (found,) = [held for held in built.rules if "R806.2" in held.source]
    assert "9.0 sq in per ft" in found.words and f"{20_000 * 0.3048 / 645.16:.1f} are asked for" in found.words
    wider = after(project, "eave", parameter="vent", text='2 1/4"')
    assert not [held for held in first(wider, "eave")[2].rules if "R806.2" in held.source]
    assert shape(first(wider, "eave")[2], "vent").area == pytest.approx(2.25 * INCH * 9.5, rel=1e-6)


def test_a_sill_falls_and_drips_clear_of_the_wall() -> None:
    """Common practice, no source: a fall of 1 in 12 or more, a drip 1 in (25 mm) or more clear of the wall."""
    for project, nose in ((framed(), 38.1), (masonry(), 40.0)):
        building, junction, built = first(project, "sill")
        site = SITES["sill"].site(building, junction)
        board = shape(built, "sub-sill" if project.units == "ft-in" else "sill-board")
        fall = dict(built.values)["fall"] / 100.0
        x1 = board.bounds[2]
        tip = max(y for x, y in board.exterior.coords if x > x1 - 0.1)
        start = max((x, y) for x, y in board.exterior.coords if abs(y - board.bounds[3]) < 0.01)
        assert (start[1] - tip) / (x1 - start[0]) == pytest.approx(fall, rel=1e-6) and fall >= 1 / 12
        under = shapely.box(*board.bounds).difference(board)
        groove = max(shapely.get_parts(under), key=lambda held: held.bounds[0] if held.bounds[3] < tip else -1e9)
        assert groove.bounds[0] > site.wall.outer and x1 - site.wall.outer >= nose - 0.1


def test_sheets_lap_over_those_below_and_outward() -> None:
    """Each sheet laps over the one below: the pan over the membrane by 2 in, the flap over the head flashing, which
    itself falls outward and drips past the trim."""
    building, junction, built = first(framed(), "sill")
    site = SITES["sill"].site(building, junction)
    wrap = next(held for held in site.wall.layers if held.layer.id == "wrap")
    pan = shape(built, "pan")
    assert pan.bounds[1] == pytest.approx(site.low - 2 * INCH, abs=0.1) and pan.bounds[2] > wrap.outer
    building, junction, built = first(framed(), "head")
    site = SITES["head"].site(building, junction)
    flashing, flap = shape(built, "head-flashing"), shape(built, "flap")
    assert flap.bounds[1] < flashing.bounds[3] and flap.bounds[3] > flashing.bounds[3]
    assert flap.bounds[2] > next(x for x, y in flashing.exterior.coords if y == flashing.bounds[3]) - 2.0
    assert flashing.bounds[2] > site.wall.outer + 19.05
    back = max(
        y for x, y in flashing.exterior.coords if x < site.wall.outer - 10.0 and y < site.high + site.trim + 10.0
    )
    front = max(y for x, y in flashing.exterior.coords if x > flashing.bounds[2] - 0.1)
    assert front < back


def test_a_cavity_tray_rises_and_weeps() -> None:
    """BS 5628-3 (from memory): the tray rises 150 mm; common practice: weep holes at 900, two at least."""
    building, junction, built = first(masonry(), "head")
    site = SITES["head"].site(building, junction)
    assert site.wall.between is not None
    tray = shape(built, "cavity-tray")
    outer, inner = site.wall.between
    low = max(y for x, y in tray.exterior.coords if x > outer + 1.0)
    high = max(y for x, y in tray.exterior.coords if x < inner + 0.1)
    assert high - low == pytest.approx(150.0, abs=1.0) and low < high
    weeps = next(piece for piece in built.pieces if piece.id == "weeps")
    (lie,) = lies_of(building, junction)
    spans = list(lie.spans(weeps))
    assert len(spans) >= 2 and all(b[0] - a[0] <= 900.0 for a, b in itertools.pairwise(spans))
    assert spans[0][0] >= 0.0 and spans[-1][1] <= lie.length
    shorter = first(after(masonry(), "head", parameter="rise", text="120"), "head")[2]
    assert any("rises 120" in found.words for found in shorter.rules)


def test_anchor_bolts_stand_as_the_code_asks() -> None:
    """IRC 2021 R403.1.6 (from memory): 6 ft apart at most, within 12 in of the ends of the plate, 7 in embedded."""
    building = resolve(framed())
    for junction in found_junctions(building):
        built = built_of(building, junction) if junction.kind == "wall_foot" else None
        if built is None:
            continue
        bolt = next(piece for piece in built.pieces if piece.id == "bolt")
        (lie,) = lies_of(building, junction)
        spans = list(lie.spans(bolt))
        gaps = [b[0] - a[0] for a, b in itertools.pairwise(spans)]
        assert spans[0][0] <= 304.8 and lie.length - spans[-1][1] <= 304.8
        # At the door they stop, and the plate has one at each side.
        assert all(gap <= 1828.85 for gap in gaps) or lie.gaps
        assert SITES["wall_foot"].site(building, junction).top - bolt.shape.bounds[1] >= 7 * INCH
    wide = after(framed(), "wall_foot", parameter="bolts", text="7'")
    assert any("R403.1.6" in found.source for found in first(wide, "wall_foot")[2].rules)


def test_rules_of_the_ground_follow_it() -> None:
    """IRC 2021 R404.1.6 and R317.1 (from memory): the foundation 6 in over the ground, siding 6 in; Approved Document C
    (from memory): a damp-proof course 150 mm over it."""
    for project, clause in ((framed(), "R404.1.6"), (masonry(), "Approved Document C")):
        assert not [held for held in first(project, "wall_foot")[2].rules if clause in held.source]
        spots = [
            GroundSpot(id=f"s{k}", x=x, y=y, rise=200.0)
            for k, (x, y) in enumerate([(0, -900), (9000, -900), (4000, 9000)])
        ]
        banked = put(project, *spots)
        assert [held for held in first(banked, "wall_foot")[2].rules if clause in held.source]


@pytest.mark.parametrize("degrees", [0.0, 31.0])
def test_every_rafter_has_its_tie_beside_it(degrees: float) -> None:
    """Common practice, no source: a tie at each rafter. Each stands against the side of one, in space."""
    project = turned(framed(), degrees) if degrees else framed()
    building = resolve(project)
    rafters = [part for part in building.parts if part.role == "rafter"]
    ties = [
        part
        for junction in found_junctions(building)
        if junction.kind == "eave"
        for piece, part, _ in made_of(building, junction, 4.0)
        if piece.id == "tie"
    ]
    assert len(ties) == len(rafters) > 20
    for tie in ties:
        gaps = [tie.solid.manifold.min_gap(rafter.solid.manifold, 5.0) for rafter in rafters]
        assert min(gaps) < 0.3


PLANTED = [
    (framed, "eave", "drip-edge", "weather"),
    (framed, "threshold", "break", "thermal"),
    (framed, "ceiling_edge", "edge-quilt", "thermal"),
    (framed, "wall_foot", "barrier-up", "vapour"),
    (masonry, "eave", "support-tray", "weather"),
    (masonry, "sill", "inner-seal", "vapour"),
    (masonry, "threshold", "closer", "thermal"),
    (masonry, "wall_foot", "membrane-up", "weather"),
    (masonry, "wall_foot", "thermal-course", "thermal"),
]


@pytest.mark.parametrize(("make", "kind", "piece", "line"), PLANTED, ids=[f"{k} {p}" for _, k, p, _ in PLANTED])
def test_a_piece_that_is_left_out_opens_its_line_there(make: object, kind: str, piece: str, line: str) -> None:
    project: Project = make()  # type: ignore[operator]
    building, junction, _ = first(project, kind)
    edits = set_build_ups(project, building, kind, [junction.id], Wanted(piece=piece, on=False))
    bare = resolve(apply_edits(project, edits))
    for house, closes in ((building, True), (bare, False)):
        place = next(place for held, place in places(house, kind) if held.id == junction.id)
        built, cut = cut_at(house, place)
        found = next(held for held in continuity_in(built, cut, place.window) if held.line == line)
        assert found.is_there and found.closes == closes
        for gap in found.gaps:
            assert gap.width == pytest.approx(math.dist(gap.start, gap.end)) and gap.width > 3.0


def test_timber_within_insulation_is_counted_as_a_bridge() -> None:
    """Two plates of 38.1 by 139.7 on the studs: what bridges the insulation of an eave is at least these."""
    building = resolve(framed())
    _, place = next(places(building, "eave"))
    built, cut = cut_at(building, place)
    thermal = next(held for held in continuity_in(built, cut, place.window) if held.line == "thermal")
    assert thermal.closes and thermal.bridged > 2 * 38.1 * 139.7


def test_a_foundation_that_steps_has_its_footing_pieces_lower() -> None:
    """Pieces of a footing go down with it: those of each stretch by its drop."""
    building = resolve(otterfold_house())
    drops = {
        round(lie.dz)
        for junction in found_junctions(building)
        if junction.kind == "footing"
        for lie in lies_of(building, junction)
    }
    steps = {round(-step.drop) for step in building.placed.project.foundation_steps}
    assert drops >= steps and 0 in drops


def test_a_platform_floor_has_insulation_within_its_rim() -> None:
    project = two_storeys(8000, 6000, "ft-in")
    building, junction, built = first(project, "floor_edge")
    site = SITES["floor_edge"].site(building, junction)
    rim = shape(built, "rim-insulation")
    assert rim.bounds[1] == pytest.approx(site.under) and rim.bounds[3] == pytest.approx(site.carries)
    assert rim.bounds[2] == pytest.approx(site.wall.frame.outer - 38.1)


def test_a_build_up_that_does_not_fit_says_why() -> None:
    """A soffit too narrow for its strip, a wall of another kind: the reason stands with each; nothing is applied."""
    built = first(framed(0.5, overhang=120.0), "eave")[2]
    whys = {held.id: why for held, why in built.others}
    assert built.build_up.id == "eave-flush" and "too narrow for the vent strip" in whys["eave-closed"]
    assert "masonry" in whys["eave-masonry"]
    # No room over the plate: it is said what would be built, nothing is drawn of it.
    low = first(put(framed(0.35), *[changed(held, seat=150.0) for held in framed(0.35).roofs]), "eave")[2]
    assert low.fault == "" and low.pieces
    with pytest.raises(BadInput, match="does not fit here: its soffit is"):
        building, junction, _ = first(framed(0.5, overhang=250.0), "eave")
        wanted = Wanted(parameter="vent", text='10"')
        set_build_ups(building.placed.project, building, "eave", [junction.id], wanted)
