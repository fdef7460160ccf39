"""What stands in the way of an opening is pointed out: plates over its header, a roof before it."""

from __future__ import annotations

import pytest

from deepsection.core.edits import changed, put
from deepsection.core.model import Corner, Project, RoofBlock, RoofEdge
from deepsection.core.resolve import Diagnostic, resolve
from tests.builders import box_house, gable, roof_block, window

near = pytest.approx


def found(project: Project, code: str) -> list[Diagnostic]:
    return [held for held in resolve(project).diagnostics if held.code == code]


def test_a_header_squeezed_under_the_plates_is_pointed_out() -> None:
    """By hand: from the floor to below two plates there are the wall less 2 x 38; a window of 900 needs a pair of 2x8,
    184.15 deep (PS 20), over the clearance above the unit."""
    house = gable(box_house(8000, 6000), 0.5, overhang=400.0)
    building = resolve(house)
    room = building.levels["plate"].z - building.levels["floor"].z - 2 * 38.0
    own = window("w1", "south", 3000.0)
    placed = resolve(put(house, own)).openings["south"][0]
    tall, rough = placed.head.total - placed.sill.total, placed.design.rough
    fits = room - 184.15 - rough - tall
    assert not found(put(house, changed(own, sill=fits - 1.0)), "header-squeezed")
    (held,) = found(put(house, changed(own, sill=fits + 40.0)), "header-squeezed")
    assert held.severity == "warning" and held.element == "w1" and held.limit == near(184.15)
    assert held.value == near(144.15) and "the header over" in held.message
    assert not found(put(house, changed(own, wall="east", sill=fits + 40.0)), "header-squeezed"), "a gable carries none"


def porch(height: float) -> RoofBlock:
    """A roof of 3 m before the south wall, bearing so far above its plate level, falling to the south."""
    eave, end = RoofEdge(kind="eave", overhang=100.0), RoofEdge(kind="gable", overhang=0.0)
    corners = ((2000.0, -2000.0), (5000.0, -2000.0), (5000.0, -20.0), (2000.0, -20.0))
    outline = tuple(Corner(x=x, y=y) for x, y in corners)
    abutment = RoofEdge(kind="abutment")
    plain = roof_block("porch", "Porch", corners, 0.25)
    return changed(plain, outline=outline, edges=(eave, end, abutment, end), offset=height)


def test_a_roof_that_runs_into_a_window_is_pointed_out() -> None:
    """The porch bears 1200 below the plate and rises 500 to the wall: it lies over the head of a low window, and
    before one at its height."""
    house = gable(box_house(8000, 6000), 0.5, overhang=400.0)
    plate = resolve(house).levels["plate"].z - resolve(house).levels["floor"].z
    high = put(house, window("w1", "south", 3500.0), porch(-1200.0))
    placed = next(o for o in resolve(high).openings["south"])
    tall = placed.head.total - placed.sill.total
    meets = put(high, changed(placed.opening, sill=plate - 700.0 - tall / 2))
    (held,) = found(meets, "opening-meets-roof")
    assert held.element == "w1" and held.others == ("porch",) and held.message.startswith("Porch runs into")
    assert not found(put(high, changed(placed.opening, sill=0.0, height=900.0)), "opening-meets-roof")
    beside = put(meets, changed(meets.openings[0], distance=6500.0))
    assert not found(beside, "opening-meets-roof")
