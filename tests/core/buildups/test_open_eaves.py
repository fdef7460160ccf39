"""Eaves whose rafter tails show: no soffit anywhere, blocks with holes between the tails, lines that close."""

from __future__ import annotations

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.buildups import Wanted, built_of, made_of, set_build_ups
from deepsection.core.buildups.clashes import clashes_in
from deepsection.core.edits import apply_edits, changed, put
from deepsection.core.model import Project
from deepsection.core.particulars import enter
from deepsection.core.resolve import resolve
from deepsection.core.view.lines import junction_lines
from tests.turning import turned

from .rig import after, cut_at, framed, masonry, places


def opened(project: Project) -> Project:
    (roof,) = project.roofs
    return put(project, changed(roof, tails="open"))


def test_no_soffit_is_left_and_tails_are_whole() -> None:
    """The tail is a plumb strip of the rafter's depth to the fascia; boxed, its foot is cut level over the soffit."""
    boxed, house = resolve(framed()), resolve(opened(framed()))
    assert [part for part in boxed.parts if part.role == "soffit"]
    assert not [part for part in house.parts if part.role == "soffit"]
    assert [part.key for part in house.parts if part.role == "fascia"] == [
        part.key for part in boxed.parts if part.role == "fascia"
    ]
    whole = sum(part.solid.volume for part in house.parts if part.role == "rafter")
    cut = sum(part.solid.volume for part in boxed.parts if part.role == "rafter")
    assert whole > cut
    low = min(part.solid.bounds.z0 for part in house.parts if part.role == "rafter")
    roof = house.roofs[0]
    plane = next(one for one in roof.planes if one.reach)
    end = roof.block.fascia_thickness - plane.reach
    assert low == pytest.approx(plane.heel + plane.pitch * end - plane.plumb_depth, abs=0.01)


@given(pitch=st.floats(0.3, 0.9), overhang=st.floats(350, 700), degrees=st.sampled_from([0.0, 33.0, -121.0]))
@settings(max_examples=8, deadline=None)
def test_it_is_built_open_without_clash_or_gap(pitch: float, overhang: float, degrees: float) -> None:
    building = resolve(turned(opened(framed(pitch, overhang=overhang)), degrees, 1))
    for junction, place in places(building, "eave"):
        built = built_of(building, junction)
        assert built is not None and built.build_up.id == "eave-open"
        held, _ = cut_at(building, place)
        found = clashes_in(held, place.frame, place.window.outline)
        assert [(one.first.key, one.second.key, round(one.depth, 1)) for one in found] == []
        lines = junction_lines(building, junction)
        assert lines is not None and lines.words == ()


def test_the_area_of_its_holes_is_held_against_the_attic() -> None:
    """By hand: 8.4 by 6 m of attic on two eaves of 8.4 m is 3 m of plan for each metre of eaves; 1/150 of that is 20
    mm2 per mm. Holes of 50.8 mm at 152.4 mm, a quarter lost to the screen, let in 9.97: 4.7 of 9.4 sq in per ft (IRC
    2021 R806.2)."""
    project = after(opened(framed()), "ridge", build_up="ridge-closed")
    building = resolve(project)
    junction, _ = next(places(building, "eave"))
    built = built_of(building, junction)
    assert built is not None
    net = math.pi / 4 * 50.8**2 * 0.75 / 152.4 * 304.8 / 25.4**2
    asked = 8400 * 6000 / (2 * 8400) / 150 * 304.8 / 25.4**2
    assert any(f"let in {net:.1f} sq in per ft, {asked:.1f} are asked" in one.words for one in built.rules)
    edits = set_build_ups(project, building, "eave", None, Wanted(parameter="holes", text='2 3/4"'))
    building = resolve(apply_edits(project, edits))
    junction, _ = next(places(building, "eave"))
    now = built_of(building, junction)
    assert now is not None and not any("sq in per ft" in one.words for one in now.rules)
    holes = [part for piece, part, _ in made_of(building, junction, 4.0) if piece.id == "holes"]
    assert len(holes) > 100


def test_it_is_set_in_the_particulars_of_the_roof_and_taken_back() -> None:
    project = framed()
    (roof,) = project.roofs
    house = apply_edits(project, enter(project, roof.id, "tails", "open"))
    assert house.roofs[0].tails == "open"
    back = apply_edits(house, enter(house, roof.id, "tails", "boxed"))
    assert back == project
    junction, _ = next(places(resolve(back), "eave"))
    built = built_of(resolve(back), junction)
    assert built is not None and built.build_up.id == "eave-closed"


def test_a_hole_too_large_for_its_block_and_a_narrow_overhang_say_so() -> None:
    project = opened(framed(overhang=60.0))
    junction, _ = next(places(resolve(project), "eave"))
    built = built_of(resolve(project), junction)
    assert built is not None and built.build_up.id == "eave-flush"
    assert any("make the overhang wider" in why for _, why in built.others if why)


def test_masonry_stays_what_it_is() -> None:
    building = resolve(opened(masonry()))
    assert not [part for part in building.parts if part.role == "soffit"]
    for junction, _ in places(building, "eave"):
        built = built_of(building, junction)
        assert built is None or built.build_up.id != "eave-open"
