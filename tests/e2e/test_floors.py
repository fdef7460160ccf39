"""Floors and foundations on the bench: laid by a click, decks drawn and carried, foundations stepped."""

from __future__ import annotations

from pathlib import Path

import pytest
from playwright.sync_api import expect

from tests.e2e.conftest import Bench, pick
from tests.e2e.test_framing import FOOT, kept


def test_a_floor_is_laid_by_one_click_within_the_walls(bench: Bench) -> None:
    """Quillback stands on a slab: a crawl space comes of it, and its framing can be looked at."""
    bench.open("quillback")
    bench.step("Plan")
    bench.tool("Floor")
    bench.click(8 * FOOT, 8 * FOOT)
    bench.saved()
    floor = kept(bench, "floors")[0]
    assert floor["level"] == "floor" and kept(bench, "foundations")[0]["sill"] == floor["bearing"]
    pick(bench.page.get_by_label("Storey of the plan"), "floor|framing")
    expect(bench.marks("plan", f"{floor['id']}/joist").first).to_be_attached()
    # Where one lies, the click means that one.
    bench.search("Floor plan")
    bench.tool("Floor")
    bench.click(10 * FOOT, 10 * FOOT)
    expect(bench.page.get_by_label("Particulars").get_by_text("Joists bear on")).to_be_visible()
    bench.search("Undo")
    bench.saved()
    assert kept(bench, "floors") == []


def test_a_deck_is_drawn_carried_and_railed(bench: Bench) -> None:
    bench.open("larkmoor")
    bench.step("Plan")
    before = {name: len(kept(bench, name)) for name in ("beams", "posts", "rails")}
    bench.tool("Deck")
    bench.click(4 * FOOT, -10 * FOOT)
    bench.click(16 * FOOT, 1 * FOOT)
    bench.saved()
    deck = kept(bench, "decks")[0]
    assert deck["angle"] == -90.0 and len(deck["corners"]) == 4
    panel = bench.page.get_by_label("Particulars")
    expect(panel.get_by_text("lay a beam under them")).to_be_visible()
    panel.get_by_role("button", name="Lay a beam under its outer edge").click()
    bench.saved()
    assert len(kept(bench, "beams")) == before["beams"] + 2 and len(kept(bench, "posts")) == before["posts"] + 3
    expect(panel.get_by_text("lay a beam under them")).not_to_be_visible()
    panel.get_by_role("button", name="Put rails along its free edges").click()
    bench.saved()
    assert len(kept(bench, "rails")) == before["rails"] + 3
    flights = len(kept(bench, "outside_steps"))
    panel.get_by_role("button", name="Steps from its south edge").click()
    bench.saved()
    steps = kept(bench, "outside_steps")[-1]
    assert len(kept(bench, "outside_steps")) == flights + 1 and steps["build"] == "strings" and steps["turn"] == -90.0
    assert len(kept(bench, "rails")) == before["rails"] + 4, "the rail at the south is open for them"
    expect(bench.marks("plan", f"{steps['id']}/steps").first).to_be_attached()
    pick(bench.page.get_by_label("Storey of the plan"), f"floor|framing|{deck['id']}")
    expect(bench.marks("plan", f"{deck['id']}/ledger").first).to_be_attached()
    bench.page.keyboard.press("j")
    bench.saved()
    assert kept(bench, "decks")[0]["angle"] == 0.0
    for _ in range(5):
        bench.search("Undo")
        bench.saved()
    assert kept(bench, "decks") == [] and len(kept(bench, "outside_steps")) == flights


def test_a_foundation_is_stepped_and_gets_pony_walls(bench: Bench) -> None:
    bench.open("larkmoor")
    bench.step("Heights")
    bench.tool("Foundation step")
    bench.click(10 * FOOT, 20 * FOOT)
    bench.click(10 * FOOT, 5 * FOOT)
    bench.saved()
    step = kept(bench, "foundation_steps")[0]
    assert step["foundation"] == "foundation"
    bench.enter("Steps down by", "2'")
    assert kept(bench, "foundation_steps")[0]["drop"] == pytest.approx(2 * FOOT)
    bench.search("Select Foundation")
    bench.choose("Pony walls", "2x6 pony wall, lap boards")
    bench.saved()
    assert kept(bench, "foundations")[0]["pony"] == "wall-pony"
    expect(bench.page.get_by_label("Particulars").get_by_text("Footing depth")).to_be_visible()
    for _ in range(3):
        bench.search("Undo")
        bench.saved()
    assert kept(bench, "foundation_steps") == []


def test_a_structural_plan_goes_to_the_engineer_and_his_comments_are_settled(bench: Bench, tmp_path: Path) -> None:
    bench.open("otterfold")
    bench.step("Plan")
    panel = bench.page.get_by_label("Particulars")
    pick(bench.page.get_by_label("Storey of the plan"), "upper|framing")
    bench.click(17 * FOOT, 15.0 * FOOT)
    bench.enter("Plies", "2")
    expect(panel.get_by_text("reach").first).to_be_visible()
    pick(bench.page.get_by_label("Storey of the plan"), "upper|structure")
    bench.page.get_by_role("button", name="Send to the engineer").click()
    expect(bench.page.get_by_label("comments", exact=True)).to_have_text("1 open")
    bench.saved()
    comment = kept(bench, "comments")[0]
    assert comment["view"] == "plan:structure:upper-joists" and "plies" in comment["text"]
    flag = bench.marks("plan", f"{comment['id']}/comment")
    expect(flag.first).to_be_attached()
    bench.click(comment["x"], comment["y"])
    expect(panel.get_by_text("Comment of the engineer (simulated)")).to_be_visible()
    bench.enter("What was done", "four plies")
    bench.choose("State", "settled")
    bench.saved()
    expect(flag).to_have_count(0)
    # An answer may come as a file as well; what is none is refused in words.
    answer = tmp_path / "answer.json"
    answer.write_text('{"units": "in", "comments": [{"x": 100, "y": 100, "text": "Two studs under this beam."}]}')
    bench.page.get_by_label("Answer of the engineer").set_input_files(answer)
    expect(bench.page.get_by_label("comments", exact=True)).to_have_text("1 open")
    answer.write_text("{")
    bench.page.get_by_label("Answer of the engineer").set_input_files(answer)
    expect(bench.page.get_by_text("cut short").first).to_be_visible()
    bench.saved()
    assert [held["status"] for held in kept(bench, "comments")] == ["settled", "open"]
    for _ in range(5):
        bench.search("Undo")
        bench.saved()
    assert kept(bench, "comments") == []


def test_a_slab_is_set_down_and_its_edge_made_deep(bench: Bench) -> None:
    bench.open("quillback")
    bench.step("Plan")
    bench.tool("Set-down")
    bench.click(6 * FOOT, 6 * FOOT)
    bench.click(12 * FOOT, 10 * FOOT)
    bench.saved()
    down = kept(bench, "set_downs")[0]
    assert down["foundation"] == "foundation" and len(down["corners"]) == 4
    expect(bench.marks("plan", f"{down['id']}/set_down").first).to_be_attached()
    bench.enter("Set down by", '8"')
    bench.search("Select Foundation")
    bench.choose("Walls stand on", "the deep edge of the slab")
    bench.choose("Slab under walls that bear", "deeper")
    bench.saved()
    founded = kept(bench, "foundations")[0]
    assert (founded["form"], founded["under_walls"]) == ("deep edge", "deep")
    assert founded["deep_depth"] == pytest.approx(FOOT)
    expect(bench.page.get_by_label("Particulars").get_by_text("Its depth in all")).to_be_visible()
    for _ in range(4):
        bench.search("Undo")
        bench.saved()
    assert kept(bench, "set_downs") == []


def test_a_deck_is_drawn_corner_by_corner(bench: Bench) -> None:
    bench.open("larkmoor")
    bench.step("Plan")
    bench.tool("Deck")
    pick(bench.page.get_by_label("How the area is drawn"), "corners")
    for x, y in ((4, 1), (4, -8), (10, -12), (16, -8), (16, 1)):
        bench.click(x * FOOT, y * FOOT)
    bench.page.keyboard.press("Enter")
    bench.saved()
    assert len(kept(bench, "decks")[0]["corners"]) == 5
    bench.tool("Deck")
    pick(bench.page.get_by_label("How the area is drawn"), "rectangle")
    bench.search("Undo")
    bench.saved()


def test_a_loft_hatch_is_cut_and_the_subfloor_looked_at(bench: Bench) -> None:
    bench.open("larkmoor")
    bench.step("Plan")
    pick(bench.page.get_by_label("Storey of the plan"), "upper")
    bench.tool("Loft hatch")
    bench.click(20 * FOOT, 20 * FOOT)
    bench.saved()
    hatch = kept(bench, "loft_hatches")[0]
    assert hatch["level"] == "upper" and hatch["ladder"] == "folding"
    expect(bench.marks("plan", f"{hatch['id']}/hatch").first).to_be_attached()
    bench.enter("Comes down towards, from east", "90")
    assert kept(bench, "loft_hatches")[0]["turn"] == 90.0
    pick(bench.page.get_by_label("Storey of the plan"), "upper|sheets")
    expect(bench.marks("plan", "upper-joists/sheathing/deck").first).to_be_attached()
    bench.search("Undo")
    bench.search("Undo")
    bench.saved()
    assert kept(bench, "loft_hatches") == []


def test_a_house_of_blocks_gets_floors_of_concrete(bench: Bench) -> None:
    """Beams and blocks over the ground by a click; a second storey whose floor becomes a slab."""
    bench.open("fernacre")
    bench.step("Plan")
    bench.tool("Floor")
    bench.click(3000, 4000)
    bench.saved()
    floor = kept(bench, "floors")[0]
    assert floor["make_up"] == "floor-ground" and kept(bench, "foundations")[0]["sill"] is None
    pick(bench.page.get_by_label("Storey of the plan"), "floor|framing")
    expect(bench.marks("plan", f"{floor['id']}/joist").first).to_be_attached()
    bench.search("Floor plan")
    bench.tool("Floor")
    bench.click(3000, 4000)
    bench.choose("Make-up", "concrete floor 200")
    bench.saved()
    plans = bench.page.get_by_label("Storey of the plan")
    plans.click()
    words = bench.page.get_by_role("option").all_inner_texts()
    assert "Ground floor structure" in words and "Ground floor framing" not in words
    bench.page.keyboard.press("Escape")
    for _ in range(2):
        bench.search("Undo")
        bench.saved()
    assert kept(bench, "floors") == []
