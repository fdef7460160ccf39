"""Rakes, ridges, hips and valleys: nothing lies in anything, the weather stays out, sizes as worked out by hand."""

from __future__ import annotations

import math
from collections.abc import Callable
from itertools import pairwise

import numpy as np
import pytest

from deepsection.core.buildups import made_of
from deepsection.core.buildups.making import lies_of
from deepsection.core.edits import changed, put
from deepsection.core.model import Project
from deepsection.core.resolve import Building, resolve
from deepsection.demo import fernacre_bungalow, larkmoor_house, otterfold_house
from tests.turning import turned

from .rig import after, built, framed, is_whole, masonry, of_kind
from .roofed import capped, hipped, roofed_l, tiled

LINES = ("rake", "ridge", "hip", "valley")
HOUSES: dict[str, Callable[[], Project]] = {
    "gable": framed,
    "steep brick": lambda: framed(1.1, "wall-brick", 300.0),
    "hipped": lambda: hipped(framed()),
    "hipped, turned": lambda: turned(hipped(framed(0.8)), 31.0, 1),
    "cavity": masonry,
    "cavity, hipped": lambda: hipped(masonry(0.9)),
    "cavity, turned": lambda: turned(masonry(0.4), -117.0, 1),
    "wing": roofed_l,
    "wing of another pitch": lambda: roofed_l(0.5, 0.8),
    "wing with tiles": lambda: tiled(roofed_l(0.7)),
    "wing with metal": lambda: turned(capped(roofed_l(0.45)), 58.0, 1),
    "tiles on a frame": lambda: tiled(hipped(framed(0.6))),
    "fernacre": fernacre_bungalow,
    "larkmoor": larkmoor_house,
    "larkmoor, no metal": lambda: capped(larkmoor_house(), 0.0),
    "otterfold, no metal": lambda: capped(otterfold_house(), 0.0),
}


@pytest.mark.parametrize("name", HOUSES)
def test_lines_of_roofs_are_built_without_clash_and_keep_the_weather_out(name: str) -> None:
    """In every house, whatever covers it and whichever way it lies."""
    building = resolve(HOUSES[name]())
    for kind in LINES:
        found = of_kind(building, kind)
        for junction in found:
            assert built(building, junction).fault == "" and built(building, junction).pieces
        assert is_whole(building, kind) == len(found)
    assert any(of_kind(building, kind) for kind in ("ridge", "hip"))


@pytest.mark.parametrize(
    ("house", "kind", "build_up"),
    [
        (masonry, "rake", "verge-dry"),
        (masonry, "ridge", "ridge-bedded"),
        (lambda: hipped(masonry()), "hip", "hip-bedded"),
        (roofed_l, "valley", "valley-closed"),
        (lambda: capped(larkmoor_house(), 0.0), "ridge", "ridge-closed"),
        (lambda: tiled(framed()), "ridge", "ridge-bedded"),
    ],
)
def test_the_other_ways_to_build_them_are_as_whole(house: Callable[[], Project], kind: str, build_up: str) -> None:
    """Those that are chosen instead of the usual ones."""
    building = resolve(after(house(), kind, build_up=build_up))
    found = of_kind(building, kind)
    assert {built(building, held).build_up.id for held in found} == {build_up}
    assert is_whole(building, kind) == len(found)


def piece_of(building: Building, kind: str, id: str, number: int = 0):  # type: ignore[no-untyped-def]
    junction = of_kind(building, kind)[number]
    return next(piece for piece in built(building, junction).pieces if piece.id == id)


def test_a_ridge_lets_air_out_through_its_slot_and_counts_for_the_eaves() -> None:
    """By hand: the slot 1 in each side of the board of 1 1/2; the strip 5 1/2 in down each slope, 3/4 thick. IRC 2021
    R806.2: with the ridge open 1/300 does at the eaves, without it 1/150."""
    project = capped(larkmoor_house(), 0.0)
    building = resolve(project)
    vent = piece_of(building, "ridge", "vent")
    pitch = building.roofs[0].planes[0].pitch
    slope = math.hypot(1.0, pitch)
    assert vent.clears.bounds[2] == pytest.approx(19.05 + 25.4)
    assert vent.shape.bounds[2] == pytest.approx(139.7 / slope)
    assert vent.shape.area == pytest.approx(2 * 139.7 * 19.05)

    def asks(house: Project) -> bool:
        now = resolve(house)
        rules = [rule for held in of_kind(now, "eave") for rule in built(now, held).rules]
        return any("1/150" in rule.words for rule in rules)

    closed = after(project, "ridge", build_up="ridge-closed")
    area = {held.build_up.id for j in of_kind(building, "eave") for held in [built(building, j)]}
    assert "eave-closed" in area
    assert asks(closed) and not asks(project)


def test_collar_ties_lie_in_the_upper_third_and_stand_no_farther_than_four_feet() -> None:
    """IRC 2021 R802.4.6, from memory: in the upper third of the attic, 4 ft apart at most, 1x4 at least; where there is
    no room for them straps go over the ridge."""
    building = resolve(framed(0.7))
    (junction,) = of_kind(building, "ridge")
    tie = piece_of(building, "ridge", "collar")
    (roof,) = building.roofs
    attic = junction.runs[0].start[2] - roof.plate.total
    assert -tie.shape.bounds[1] <= attic / 3 + 0.01 and tie.shape.bounds[3] - tie.shape.bounds[1] == pytest.approx(88.9)
    near = sorted(part.solid.bounds.x0 for one, part, _ in made_of(building, junction, 4.0) if one.id == "collar")
    gaps = [b - a for a, b in pairwise(near)]
    assert len(near) >= 6 and max(gaps) <= 1219.2 + 0.5
    low = resolve(framed(0.4))
    ids = {piece.id for piece in built(low, of_kind(low, "ridge")[0]).pieces}
    assert ("collar" in ids) != ("strap" in ids)


def test_lookouts_are_let_into_the_end_rafter_and_reach_far_enough_back() -> None:
    """24 in apart along the slope at most, 1 1/2 deep at right angles to it; twice as far back as out, over as
    many rafters as that takes."""
    building = resolve(framed(0.5))
    junction = of_kind(building, "rake")[0]
    held = built(building, junction)
    lookout = next(piece for piece in held.pieces if piece.id == "lookout")
    slope = math.hypot(1.0, 0.5)
    assert -lookout.shape.bounds[1] == pytest.approx(38.1 * slope)
    reach = building.roofs[0].reaches[1]
    assert lookout.shape.bounds[2] == pytest.approx(reach - building.roofs[0].block.fascia_thickness - 38.1)
    for run in range(len(junction.runs)):
        parts = [part for one, part, _ in made_of(building, junction, 4.0) if one.id == "lookout"]
        own = [part for part in parts if f":{run}:" in part.key]
        rises = sorted(part.solid.bounds.z0 for part in own)
        gaps = [(b - a) / 0.5 * slope for a, b in pairwise(rises)]
        assert own and max(gaps) <= 609.6 + 0.5
    wide = framed(0.5)
    edges = [changed(edge, overhang=600.0) if edge.kind == "gable" else edge for edge in wide.roofs[0].edges]
    far = resolve(put(wide, changed(wide.roofs[0], edges=tuple(edges))))
    assert not any("twice as far" in rule.words for rule in built(far, of_kind(far, "rake")[0]).rules)
    longer = piece_of(far, "rake", "lookout").shape.bounds
    carried = far.roofs[0].reaches[1] - 19.0 - longer[0]
    assert carried >= 3 * 570.0
    none = [changed(edge, overhang=0.0) if edge.kind == "gable" else edge for edge in wide.roofs[0].edges]
    close = resolve(put(wide, changed(wide.roofs[0], edges=tuple(none))))
    way = built(close, of_kind(close, "rake")[0])
    assert way.build_up.id == "rake-close" and any("too little for lookouts" in why for _, why in way.others)


def test_the_drip_edge_lies_over_the_underlay_at_rakes() -> None:
    """Over it at rakes, under it at eaves: IRC 2021 R905.2.8.5, from memory."""
    building = resolve(framed(0.5))
    rake, eave = piece_of(building, "rake", "drip-edge"), piece_of(building, "eave", "drip-edge")
    slope = math.hypot(1.0, 0.5)
    deck, underlay = 15.9 * slope, (15.9 + 1.0) * slope
    assert rake.shape.bounds[3] >= underlay - 0.2
    back = eave.shape.bounds[0]
    site_top = eave.shape.bounds[3]
    heel = building.roofs[0].heel.total
    assert site_top - (heel - 0.5 * back) < deck + 1.6


@pytest.mark.parametrize(("pitch", "leg"), [(0.5, 0.5), (0.5, 0.8), (1.0, 1.0)])
def test_linings_of_valleys_are_as_wide_as_they_say_on_both_slopes(pitch: float, leg: float) -> None:
    """IRC 2021 R905.2.8.2, from memory: 24 in of metal at least. At right angles to the valley in each slope, by the
    distance of a point from a line in space."""
    building = resolve(roofed_l(pitch, leg))
    for number, junction in enumerate(of_kind(building, "valley")):
        lining = piece_of(building, "valley", "lining", number)
        corners = list(lining.shape.exterior.coords)
        for lie in lies_of(building, junction):
            (ox, oy), (dx, dy) = lie.out, lie.along
            for u in (lining.shape.bounds[0], lining.shape.bounds[2]):
                v = max(held for at, held in corners if at == pytest.approx(u, abs=1e-6))
                middle = min(held for at, held in corners if abs(at) <= 4.001)
                line = np.array([dx, dy, lie.rise]) / math.hypot(1.0, lie.rise)
                spot = np.array([ox * u, oy * u, v - middle])
                away = np.linalg.norm(spot - line * (spot @ line))
                assert away == pytest.approx(304.8, abs=4.0)


def test_tiles_on_hips_stand_evenly_on_slopes_of_two_pitches() -> None:
    """The bed is as high at both edges of a hip tile, whichever slope is the steeper one."""
    project = hipped(masonry(0.6))
    (roof,) = project.roofs
    edges = [changed(edge, pitch=0.9) if k == 1 else edge for k, edge in enumerate(roof.edges)]
    building = resolve(put(project, changed(roof, edges=tuple(edges))))
    uneven = 0
    for junction in of_kind(building, "hip"):
        tile = next(piece for piece in built(building, junction).pieces if piece.id == "tile")
        coords = list(tile.shape.exterior.coords)
        left = min(y for x, y in coords if x == pytest.approx(tile.shape.bounds[0]))
        right = min(y for x, y in coords if x == pytest.approx(tile.shape.bounds[2]))
        pitches = dict(junction.facts)["pitches"]
        uneven += abs(left - right) > 5.0
        assert len(set(pitches)) == 2 or left == pytest.approx(right, abs=0.5)  # type: ignore[arg-type]
    assert uneven == 0 or uneven == 2


def test_straps_and_verges_of_masonry_follow_their_limits() -> None:
    """BS 5534: tiles 38 to 60 mm past the verge; Approved Document A: straps 2 m apart at most, both from memory."""
    building = resolve(masonry())
    (roof,) = building.roofs
    tile, strap = piece_of(building, "rake", "verge-tile"), piece_of(building, "rake", "lateral-strap")
    assert 38.0 <= tile.shape.bounds[2] - roof.reaches[1] <= 60.0
    junction = of_kind(building, "rake")[0]
    slope = math.hypot(1.0, 0.6)
    assert strap.every * slope <= 2000.0 + 0.01
    bodies = [part for one, part, _ in made_of(building, junction, 4.0) if one.id == "lateral-strap"]
    assert len(bodies) == sum(max(1, math.ceil(run.length / 2000.0)) for run in junction.runs)
