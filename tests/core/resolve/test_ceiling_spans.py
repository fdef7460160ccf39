"""Joists of ceilings against how far they reach; numbers by hand."""

from __future__ import annotations

import pytest

from deepsection.core.edits import apply_edits, changed, put
from deepsection.core.model import Project, RoofEdge
from deepsection.core.particulars.describe import describe_element
from deepsection.core.resolve import resolve
from deepsection.core.trades.floors.spans import joist_span, usual_case
from deepsection.core.units import FOOT, INCH
from deepsection.demo.pieces import on, partition
from tests.builders import block_house, box_house, gable


def by_tables(width: float, depth: float) -> Project:
    """A house in feet and inches under a gable roof whose ceiling is held against tables: 2x6 at 2 ft."""
    house = gable(box_house(width, depth, "ft-in"), 0.5, overhang=400.0, rake=300.0)
    return put(house, *(changed(held, sized="by tables") for held in house.ceilings))


def test_first_principles_give_what_the_table_of_ceiling_joists_says() -> None:
    """IRC table R802.5.1(1), from memory: spruce-pine-fir No. 2, 10 psf live and 5 dead, 2x6 at 24 in: 14 ft 9 in."""
    span = joist_span(usual_case("timber", 1.5 * INCH, 5.5 * INCH, 24 * INCH, "ceiling")).max_span
    assert span == pytest.approx(14 * 12 + 9, abs=1.0)


def test_a_ceiling_that_spans_too_far_is_said_until_a_wall_below_bears() -> None:
    """From frame to frame of 18 ft: 18' less two frames of 5 1/2 in are 17'-1", more than 14'-9"."""
    house = by_tables(30 * FOOT, 18 * FOOT)
    (said,) = resolve(house).diagnostics
    assert said.code == "ceiling-span" and "17'-1\"" in said.message and "2x8" in said.message
    assert said.value == pytest.approx(18 * FOOT - 11 * INCH)
    half = partition("mid", on("p1", "west", 9 * FOOT), on("p2", "east", 9 * FOOT))
    parted = apply_edits(house, (half,))
    assert [held.code for held in resolve(parted).diagnostics] == ["ceiling-span"]
    borne = put(parted, changed(parted.find("mid"), bearing="yes"))
    assert "ceiling-span" not in {held.code for held in resolve(borne).diagnostics}


def test_an_engineer_may_size_a_ceiling() -> None:
    house = by_tables(30 * FOOT, 18 * FOOT)
    sized = put(house, *(changed(held, sized="by an engineer") for held in house.ceilings))
    assert resolve(sized).diagnostics == ()


def test_the_particulars_say_how_far_a_ceiling_spans() -> None:
    house = by_tables(30 * FOOT, 18 * FOOT)
    (table,) = describe_element(house, resolve(house), "ceiling-1").outcome
    assert "reach 14'-9" in table.total and "needs 2x8" in table.rows[0].text


def test_metric_ceilings_are_held_against_their_own_loads() -> None:
    """BS 5268-7.3, from memory: 0.25 + 0.25 kN/m2 and 0.003 of the span; by hand 47 x 150 at 600 reach 4.82 m."""
    house = block_house()
    top = put(house, *(changed(held, sized="by tables") for held in house.ceilings))
    (said,) = resolve(top).diagnostics
    # 5 w L4 / 384 E I = 0.003 L: L3 = 0.003 x 384 x 11000 x 47 x 150^3 / 12 / (5 x 0.5e-3 x 600)
    by_hand = (384 * 11000 * (47 * 150**3 / 12) / (333 * 5 * 0.5e-3 * 600)) ** (1 / 3)
    assert said.limit == pytest.approx(by_hand, rel=0.005) and said.value == pytest.approx(5300.0)


@pytest.mark.parametrize("size", [(12.0, 9.0), (9.0, 12.0)])
def test_a_hip_roof_lets_its_ceiling_span_the_short_way(size: tuple[float, float]) -> None:
    house = gable(box_house(size[0] * 1000.0, size[1] * 1000.0), 0.5)
    roof = house.roofs[0]
    eaves = tuple(RoofEdge(kind="eave", overhang=400.0, id=edge.id) for edge in roof.edges)
    hipped = put(house, changed(roof, edges=eaves))
    hipped = put(hipped, *(changed(held, sized="by tables") for held in hipped.ceilings))
    (said,) = [held for held in resolve(hipped).diagnostics if held.code == "ceiling-span"]
    assert said.value == pytest.approx(9000.0 - 2 * 140.0, abs=2.0)
