"""Framing plans on the bench: shown, joists turned and shifted, beams laid under them, loads lit up."""

from __future__ import annotations

from typing import Any

import pytest
from playwright.sync_api import expect

from tests.e2e.conftest import Bench, pick

FOOT = 304.8


def kept(bench: Bench, collection: str) -> list[dict[str, Any]]:
    found: Any = bench.document()[collection]
    return list(found)


def test_a_framing_plan_is_shown_and_its_joists_are_turned_and_shifted(bench: Bench) -> None:
    bench.open("otterfold")
    bench.step("Plan")
    pick(bench.page.get_by_label("Storey of the plan"), "floor|framing")
    joist = bench.marks("plan", "main-floor/joist/joists/outline:south:6").first
    expect(joist).to_be_attached()
    expect(bench.page.get_by_text("spruce-pine-fir No. 2", exact=False)).to_be_attached()
    bench.click(8 * FOOT, 5 * FOOT)  # sixteen inches times six from the corner
    panel = bench.page.get_by_label("Particulars")
    expect(panel.get_by_text("2x10 reach 15'-5\", IRC table R502.3.1(2)")).to_be_visible()
    assert kept(bench, "floors")[0]["span"] == "short"
    bench.page.keyboard.press("j")
    bench.saved()
    assert kept(bench, "floors")[0]["span"] == "long"
    expect(panel.get_by_text("Look at this").first).to_be_visible()  # the girder does not carry them now
    bench.search("Undo")
    bench.saved()
    bench.drag((8 * FOOT, 5 * FOOT), (8 * FOOT + 300.0, 5 * FOOT))
    bench.saved()
    assert abs(kept(bench, "floors")[0]["shift"]) == pytest.approx(300.0, abs=80.0)
    bench.search("Undo")
    bench.saved()
    assert kept(bench, "floors")[0]["shift"] == 0.0
    bench.search("Floor plan")
    expect(joist).not_to_be_attached()


def test_beams_and_posts_are_laid_under_a_floor_on_its_framing_plan(bench: Bench) -> None:
    """Under the kitchen: a post on a pad in the crawl space, and a beam from the foundation over it."""
    bench.open("otterfold")
    bench.step("Plan")
    pick(bench.page.get_by_label("Storey of the plan"), "floor|framing")
    bench.tool("Post")
    bench.click(-7 * FOOT, 12 * FOOT)
    bench.saved()
    post = kept(bench, "posts")[-1]
    assert (post["base"]["level"], post["top"]["level"]) == ("crawl", "sill") and post["pad"]["width"] > 0
    bench.tool("Beam")
    bench.click(-7 * FOOT, 3 * FOOT)
    bench.click(-7 * FOOT, 12 * FOOT)
    bench.saved()
    beam = kept(bench, "beams")[-1]
    assert beam["top"]["level"] == "sill" and beam["end"]["post"] == post["id"]
    # It divides the joists of the kitchen now, as far as it goes.
    expect(bench.marks("plan", "main-floor/blocking/joists/outline:kitchen-south:over").first).to_be_attached()
    for _ in range(2):
        bench.search("Undo")
        bench.saved()


def test_what_carries_a_wall_is_lit_up(bench: Bench) -> None:
    bench.open("otterfold")
    bench.step("Plan")
    bench.search("Select Main roof")
    panel = bench.page.get_by_label("Particulars")
    expect(panel.get_by_text("What carries it")).to_be_visible()
    panel.get_by_role("button", name="Light up the way down").click()
    expect(bench.page.locator('[data-lit="south"]')).to_be_attached()
    expect(bench.page.locator('[data-lit="foundation"]')).to_be_attached()
    panel.get_by_role("button", name="Light off").click()
    expect(bench.page.locator("[data-lit]")).to_have_count(0)


def test_a_porch_slab_is_drawn_beside_the_house_and_dragged(bench: Bench) -> None:
    bench.open("quillback")
    bench.step("Plan")
    bench.tool("Porch slab")
    bench.click(4 * FOOT, -6 * FOOT)
    bench.click(14 * FOOT, 1 * FOOT)
    bench.saved()
    slab = kept(bench, "porch_slabs")[0]
    assert slab["fall_to"] == -90.0 and slab["level"] == "floor"
    expect(bench.marks("plan", f"{slab['id']}/porch_slab").first).to_be_attached()
    expect(bench.marks("view", f"{slab['id']}/porch_slab").first).to_be_attached()
    bench.enter("Thickness", '6"')
    assert kept(bench, "porch_slabs")[0]["thickness"] == pytest.approx(152.4)
    bench.enter("So much below it", '-2"')
    expect(bench.page.get_by_label("Particulars").get_by_text('lies 2" above')).to_be_visible()
    for _ in range(3):
        bench.search("Undo")
        bench.saved()
    assert kept(bench, "porch_slabs") == []
