"""Beams under floors: the strip that they carry and how far they reach, by hand."""

from __future__ import annotations

import math
from typing import Any

import pytest

from deepsection.core.edits import changed, put
from deepsection.core.model import Beam, BeamEnd, LevelRule, Project
from deepsection.core.resolve import resolve
from deepsection.core.trades.loads.beams import BeamSpan, beam_spans, beam_table
from deepsection.core.trades.loads.placed import LOADS
from deepsection.demo import DEMOS
from tests.builders import two_storeys

FOOT, INCH = 304.8, 25.4


def beamed(width: float, depth: float, *, plies: int = 3, size: tuple[float, float] = (4.5, 9.25)) -> Project:
    """Two storeys with a dropped beam along the middle of the ground floor, from wall to wall under the upper floor."""
    house = two_storeys(width * FOOT, depth * FOOT, "ft-in")
    upper = next(floor for floor in house.floors if floor.level != "floor")
    beam = Beam(
        id="beam",
        start=BeamEnd(x=0.1 * FOOT, y=depth / 2 * FOOT),
        end=BeamEnd(x=(width - 0.1) * FOOT, y=depth / 2 * FOOT),
        width=size[0] * INCH,
        depth=size[1] * INCH,
        plies=plies,
        top=LevelRule(level=upper.bearing),
    )
    return put(house, beam, changed(upper, span="north-south", sized="by tables"))


def span_of(project: Project) -> BeamSpan:
    building = resolve(project)
    return next(iter(beam_spans(building.placed, building[LOADS])))


def test_a_beam_in_the_middle_carries_half_of_the_floor() -> None:
    """A floor of 20 ft from outside to outside of its frames, 5 1/2 in of them: joists run from the inner face of a
    wall to the middle of the beam, 114 1/2 in, and half of that comes down on each side."""
    held = span_of(beamed(14, 20))
    assert held.carried == pytest.approx(2 * (120 - 5.5) / 2 * INCH, abs=3 * INCH)
    # From frame to frame, with the sheathing inside left out: 14 ft less 2 x 5 1/2 in, less the lining of 1/2 in.
    assert held.clear == pytest.approx((14 * 12 - 2 * 6) * INCH, abs=1.0 * INCH)


def test_how_far_it_reaches_by_hand() -> None:
    """NDS by hand: 50 psf on the strip, M = w l2 / 8, Fb' = 875 x 1.1 x 1.15 psi (three plies of 2x10; two have no
    1.15), S = b d2 / 6; live load of 40 psf bends it by l / 360 at most, E = 1.4e6 psi. All values from memory."""
    for plies, repeated in ((3, 1.15), (2, 1.0)):
        held = span_of(beamed(9, 20, plies=plies, size=(1.5 * plies, 9.25)))
        strip, b, d = held.carried / INCH, 1.5 * plies, 9.25
        bending = math.sqrt(8 * 875 * 1.1 * repeated * (b * d**2 / 6) / (50 / 144 * strip))
        deflection = (384 * 1.4e6 * (b * d**3 / 12) / (5 * 40 / 144 * strip * 360)) ** (1 / 3)
        assert held.reach / INCH == pytest.approx(min(bending, deflection), rel=1e-3)


def codes(project: Project) -> dict[str, Any]:
    return {found.code: found for found in resolve(project).diagnostics}


def test_a_beam_that_does_not_reach_is_said_with_both_numbers() -> None:
    assert "beam-span" not in codes(beamed(8, 20))
    found = codes(beamed(14, 20))["beam-span"]
    assert found.element == "beam" and found.value is not None and found.limit is not None
    assert found.value > found.limit > 8 * FOOT
    assert "post" in found.message and "3 of 2x10" in found.message
    project = beamed(14, 20)
    floors = (changed(floor, sized="by an engineer") for floor in project.floors)
    assert "beam-span" not in codes(put(project, *floors))


def test_what_else_stands_on_it_is_named() -> None:
    house = DEMOS[2]()
    building = resolve(house)
    by_id = {held.beam.id: held for held in beam_spans(building.placed, building[LOADS])}
    assert "landing" in by_id["living-beam-1"].others and not by_id["girder-5"].others
    rows = beam_table(building.placed, by_id["living-beam-1"].beam)[0].rows
    assert [row.label for row in rows] == ["strip of floor", "clear span", "and more"]
    assert beam_table(building.placed, changed(by_id["girder-5"].beam, id="no-such")) == ()
