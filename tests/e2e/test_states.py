"""In the browser: what exists and what is to be removed, and walls kept under a name."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from tests.e2e.conftest import Bench, Server, pick
from tests.e2e.test_selecting import boxed_house, held


def test_a_wall_that_exists_is_light_and_one_that_goes_is_dashed(bench: Bench) -> None:
    boxed_house(bench, "Works")
    page = bench.page
    works = page.get_by_label("Works in the plan")
    expect(works).to_have_count(0)
    bench.search("Select outer wall 1")
    bench.choose("In the works it is", "existing")
    first, second = (wall["id"] for wall in held(bench, "walls")[:2])
    expect(bench.marks("plan", f"{first}/wall").first).to_be_attached()
    expect(page.get_by_test_id("plan").get_by_text("existing", exact=True)).to_be_attached()
    bench.search("Select outer wall 2")
    bench.choose("In the works it is", "to be removed")
    expect(bench.marks("plan", f"{second}/").locator("[data-feature=removed]")).to_have_count(0)
    expect(page.locator(f'[data-testid=plan] [data-part^="{second}/"][data-feature="removed"]').first).to_be_attached()
    pick(works, "before")
    bench.saved()
    expect(page.locator('[data-testid=plan] [data-feature="removed"]')).to_have_count(0)
    expect(bench.marks("plan", f"{second}/wall").first).to_be_attached()
    pick(works, "after")
    bench.saved()
    expect(bench.marks("plan", f"{second}/")).to_have_count(0)
    bench.button("Undo").click()
    bench.button("Undo").click()
    bench.button("Undo").click()
    bench.saved()
    assert {wall["state"] for wall in held(bench, "walls")} == {"existing", "new"}


def test_a_wall_is_saved_drawn_again_and_carried_to_another_project(page: Page, own_server: Server) -> None:
    bench = Bench(page, own_server.url)
    boxed_house(bench, "Giver")
    bench.search("Select outer wall 1")
    bench.enter("Height", "1800")
    bench.enter("Save as, for other walls", "Yard wall")
    assert [saved["name"] for saved in held(bench, "saved_walls")] == ["Yard wall"]
    bench.search("Select outer wall 3")
    bench.choose("Like the saved wall", "Yard wall")
    assert [wall["top"].get("height") for wall in held(bench, "walls")].count(1800) == 2
    bench.tool("Outer wall")
    pick(page.get_by_label("How walls are drawn"), "chain")
    pick(page.get_by_label("Make-up of new walls"), label="saved: Yard wall")
    bench.click(-2500, 1000)
    bench.click(-2500, 4000)
    page.keyboard.press("Enter")
    bench.saved()
    assert held(bench, "walls")[-1]["top"]["height"] == 1800
    bench.new("Taker", "mm")
    bench.search("Import a make-up from another project")
    pick(page.get_by_label("From project"), label="Giver")
    page.get_by_role("button", name="Copy Yard wall").click()
    bench.saved()
    (saved,) = held(bench, "saved_walls")
    assert saved["top"]["height"] == 1800
    assert saved["make_up"] in {make_up["id"] for make_up in held(bench, "make_ups")}
