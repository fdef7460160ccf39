"""Stairs and holes drawn on the plan: the floor above opens, section and particulars follow."""

from __future__ import annotations

from typing import Any

import pytest
from playwright.sync_api import expect

from tests.e2e.conftest import Bench, pick

FOOT = 304.8


def kept(bench: Bench, collection: str) -> list[dict[str, Any]]:
    found: Any = bench.document()[collection]
    return list(found)


def test_a_stair_is_drawn_turned_and_taken_back(bench: Bench) -> None:
    """Otterfold's own stair is removed, and another one drawn on winders in its living room."""
    bench.open("otterfold")
    bench.step("Plan")
    bench.tool("Stair")
    pick(bench.page.get_by_label("How the stair goes up"), label="a quarter turn on winders")
    bench.click(16 * FOOT, 4 * FOOT)
    bench.click(16 * FOOT, 13 * FOOT)
    bench.click(24 * FOOT, 13 * FOOT)
    drawn = next(stair for stair in kept(bench, "stairs") if stair["id"] != "main-stair")
    assert drawn["turn"] == 90.0 and drawn["turns"][0]["kind"] == "winders" and drawn["turns"][0]["side"] == "right"
    expect(bench.marks("plan", f"{drawn['id']}/stair").first).to_be_attached()
    # Its particulars are open: fewer goings, another rule, and the table of legal numbers of risers.
    panel = bench.page.get_by_label("Particulars")
    expect(panel.get_by_text("Numbers of risers, IRC R311.7")).to_be_visible()
    bench.enter("Going", '11"')
    assert next(s for s in kept(bench, "stairs") if s["id"] == drawn["id"])["going"] == pytest.approx(279.4)
    bench.choose("Risers", '15 of 7 1/8"')
    assert next(s for s in kept(bench, "stairs") if s["id"] == drawn["id"])["risers"] == 15
    bench.choose("Turns", "a quarter on a landing")
    for _ in range(4):
        bench.search("Undo")
        bench.saved()
    assert [stair["id"] for stair in kept(bench, "stairs")] == ["main-stair"]


def test_what_is_wrong_with_a_stair_is_said_beside_it(bench: Bench) -> None:
    bench.open("otterfold")
    bench.step("Plan")
    bench.search("Select Stair")
    bench.enter("Going", '9"')
    panel = bench.page.get_by_label("Particulars")
    expect(panel.get_by_text("a tread at least 10").first).to_be_visible()
    expect(panel.get_by_text("IRC R311.7.5").first).to_be_visible()
    bench.search("Undo")
    bench.saved()


def test_a_hole_is_cut_into_the_upper_floor_by_two_corners(bench: Bench) -> None:
    bench.open("otterfold")
    bench.step("Plan")
    pick(bench.page.get_by_label("Storey of the plan"), "upper")
    bench.tool("Hole")
    bench.click(24 * FOOT, 2 * FOOT)
    bench.click(28 * FOOT, 6 * FOOT)
    (hole,) = kept(bench, "floor_holes")
    assert hole["floor"] == "upper-joists"
    expect(bench.marks("plan", f"{hole['id']}/hole").first).to_be_attached()
    bench.enter("Length", "5'")
    (longer,) = kept(bench, "floor_holes")
    assert longer["corners"][1][0] - longer["corners"][0][0] == pytest.approx(5 * FOOT)
    for _ in range(2):
        bench.search("Undo")
        bench.saved()
    assert kept(bench, "floor_holes") == []


def test_the_last_riser_is_dragged_and_every_going_follows(bench: Bench) -> None:
    bench.open("otterfold")
    bench.step("Plan")
    pick(bench.page.get_by_label("Storey of the plan"), "upper")
    # Six treads lead up to it: a foot more makes each two inches longer.
    bench.drag((8.667 * FOOT, 8.4 * FOOT), (9.667 * FOOT, 8.4 * FOOT))
    (stair,) = kept(bench, "stairs")
    assert stair["going"] == pytest.approx(254.0 + 304.8 / 6, abs=10.0)
    bench.search("Undo")
    bench.saved()
    (stair,) = kept(bench, "stairs")
    assert stair["going"] is None


def test_the_setting_out_of_a_stair_is_shown(bench: Bench) -> None:
    bench.open("otterfold")
    bench.search("Stair, setting out")
    expect(bench.page.get_by_role("heading", name="Stair, setting out")).to_be_visible()
    expect(bench.marks("view", "main-stair/carriage").first).to_be_attached()
