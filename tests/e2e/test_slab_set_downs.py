"""A part of a suspended slab set down on the bench."""

from __future__ import annotations

import pytest
from playwright.sync_api import expect

from tests.e2e.conftest import Bench, pick
from tests.e2e.test_framing import kept


def test_a_suspended_slab_is_set_down(bench: Bench) -> None:
    """Fernacre's ground floor becomes a slab that spans; a part of it is set down, further down, and taken back."""
    bench.open("fernacre")
    page = bench.page
    bench.step("Plan")
    bench.tool("Floor")
    bench.click(3000, 4000)
    bench.choose("Make-up", "concrete floor 200")
    floor = kept(bench, "floors")[0]
    bench.tool("Set-down")
    bench.click(2000.0, 2000.0)
    bench.click(3500.0, 3200.0)
    bench.saved()
    part = kept(bench, "decks")[-1]
    assert part["drop"] == pytest.approx(100.0) and part["make_up"] == floor["make_up"] == "floor-concrete"
    expect(bench.marks("plan", f"{part['id']}/deck").first).to_be_attached()
    bench.enter("So much below it", "150")
    assert kept(bench, "decks")[-1]["drop"] == pytest.approx(150.0)
    page.get_by_label("Particulars").get_by_role("button", name="Level its underside").click()
    expect(page.get_by_label("Particulars")).to_contain_text("by 125 at most")
    bench.enter("So much below it", "80")
    page.get_by_label("Particulars").get_by_role("button", name="Level its underside").click()
    bench.saved()
    expect(bench.field("Make-up")).to_contain_text("slab of 120")
    expect(page.get_by_label("Particulars").get_by_role("button", name="Level its underside")).to_have_count(0)
    pick(page.get_by_label("Storey of the plan"), "floor|structure")
    expect(bench.marks("plan", f"{floor['id']}/").first).to_be_attached()
    bench.search("Select Ground floor, part 2")
    bench.choose("Make-up", "beam and block floor")
    expect(page.get_by_label("Particulars")).to_contain_text("take a make-up with a slab")
    for _ in range(6):
        bench.search("Undo")
        bench.saved()
    assert kept(bench, "decks") == []
