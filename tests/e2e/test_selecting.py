"""Selecting in the browser: again for what lies under, a box, several at once; kinds, bays and construction lines."""

from __future__ import annotations

from typing import Any

import pytest
from playwright.sync_api import expect

from tests.e2e.conftest import Bench, pick


def boxed_house(bench: Bench, name: str) -> None:
    """8 m by 6 m, drawn as a rectangle."""
    bench.new(name, "mm")
    bench.step("Plan")
    bench.tool("Outer wall")
    pick(bench.page.get_by_label("How walls are drawn"), "rectangle")
    bench.click(0, 0)
    bench.page.mouse.move(*bench.at(500, 500))
    bench.type_length("8m")
    bench.type_length("6m")
    bench.tool("Select")
    bench.button("Fit the drawings").first.click()


def held(bench: Bench, collection: str) -> list[dict[str, Any]]:
    found: list[dict[str, Any]] = bench.document()[collection]  # type: ignore[assignment]
    return found


def test_walls_in_a_box_change_together(bench: Bench) -> None:
    boxed_house(bench, "Together")
    page = bench.page
    x0, y0 = bench.at(-900, 800)
    x1, y1 = bench.at(8900, -900)
    page.keyboard.down("Shift")
    page.mouse.move(x0, y0)
    page.mouse.down()
    page.mouse.move((x0 + x1) / 2, (y0 + y1) / 2, steps=2)
    page.mouse.move(x1, y1, steps=2)
    expect(page.get_by_test_id("selection-box")).to_be_visible()
    page.mouse.up()
    page.keyboard.up("Shift")
    expect(page.get_by_role("heading", name="Outer wall")).to_be_visible()
    page.keyboard.down("Shift")
    page.mouse.click(*bench.at(4000, 6000 - 60))
    page.keyboard.up("Shift")
    expect(page.get_by_text("and 1 more: what is typed here counts for all")).to_be_visible()
    bench.enter("Height", "1500")
    tops = [wall["top"]["height"] for wall in held(bench, "walls") if wall["top"]["kind"] == "fixed"]
    assert tops == [1500, 1500]
    bench.button("Undo").click()
    bench.saved()
    assert all(wall["top"]["kind"] == "roof" for wall in held(bench, "walls"))


def test_a_repeated_click_goes_on_to_what_lies_under(bench: Bench) -> None:
    bench.open("quillback")
    bench.step("Plan")
    page, title = bench.page, bench.page.get_by_label("Particulars").get_by_role("heading").first
    line = held(bench, "sections")[0]
    # Where the section line crosses the south wall, in the middle of its frame.
    at = bench.at(line["x1"], 70)
    page.mouse.click(*at)
    first = title.inner_text()
    expect(page.get_by_text(" of 2 here")).to_be_visible()
    page.mouse.click(*at)
    expect(title).not_to_have_text(first)
    assert {first, title.inner_text()} == {f"Section {line['name']}", "Outer wall"}
    page.mouse.click(*at)
    expect(title).to_have_text(first)


def test_a_kind_changes_its_windows_and_exceptions_are_taken_back(bench: Bench) -> None:
    boxed_house(bench, "Kinds")
    page = bench.page
    bench.tool("Window")
    pick(page.get_by_label("Kind of new windows"), "window-casements")
    bench.click(2000, 0)
    bench.click(6000, 0)
    bench.tool("Select")
    bench.enter("Width", "1500")
    expect(page.get_by_label("Width: as its kind")).to_be_visible()
    assert [opening["width"] for opening in held(bench, "openings")] == [None, 1500]
    page.get_by_label("Particulars").get_by_role("button", name="Edit this kind").click()
    expect(page.get_by_text("kind of window, followed by 2")).to_be_visible()
    bench.choose("Shutters", "a pair")
    expect(bench.marks("view", held(bench, "openings")[0]["id"] + "/louvre").first).to_be_attached()
    bench.search("Select window W2")
    page.mouse.click(*bench.at(6000, -10))
    page.get_by_label("Width: as its kind").click()
    bench.saved()
    assert [opening["width"] for opening in held(bench, "openings")] == [None, None]
    bench.enter("Spread over the wall, how many", "9")
    expect(page.get_by_text("wider than their wall together")).to_be_visible()
    bench.enter("Repeat, such as 3 at 1800", "1 at 1.4m")
    assert len(held(bench, "openings")) == 3


def test_bays_are_cut_and_construction_lines_snapped_to(bench: Bench) -> None:
    boxed_house(bench, "Bays")
    page = bench.page
    bench.tool("Bay")
    pick(page.get_by_label("Shape of the bay"), "bowed")
    page.get_by_label("Width of the bay").fill("not wide")
    page.get_by_label("Width of the bay").press("Enter")
    expect(page.get_by_label("Width of the bay")).to_have_attribute("aria-invalid", "true")
    page.get_by_label("Width of the bay").fill("3m")
    page.get_by_label("Width of the bay").press("Enter")
    bench.click(4000, 0)
    arcs = [wall for wall in held(bench, "walls") if wall["bulge"]]
    assert len(arcs) == 1 and abs(arcs[0]["bulge"]) == pytest.approx(2 * 600 / 3000)
    page.mouse.move(*bench.at(300, 0))
    page.mouse.click(*bench.at(300, 0))
    expect(page.get_by_text("the bay is wider than its wall").first).to_be_visible()

    bench.tool("Construction")
    bench.click(0, 3000)
    page.mouse.move(*bench.at(1000, 3000))
    bench.type_length("2500")
    line = held(bench, "construction")[0]
    assert (abs(line["x"]), abs(line["angle"])) == (2500, 90)
    expect(page.get_by_test_id("construction").locator("line")).to_have_count(1)
    bench.search("Clear the construction lines")
    bench.saved()
    assert held(bench, "construction") == []


def test_kinds_are_found_and_brought_from_another_project(bench: Bench) -> None:
    boxed_house(bench, "Borrowed")
    before = len(held(bench, "kinds"))
    bench.search("Import a kind of window or door from another project")
    page = bench.page
    pick(page.get_by_label("From project"), label="Tansy Lodge")
    page.get_by_label("Find by name").fill("arched")
    expect(page.get_by_role("button", name="Copy W1", exact=False)).to_have_count(0)
    page.get_by_role("button", name="Copy W7").click()
    bench.saved()
    kinds = held(bench, "kinds")
    assert len(kinds) == before + 1 and kinds[-1]["design"]["arch"] > 0


def test_measuring_and_set_out_lines(bench: Bench) -> None:
    boxed_house(bench, "Measured")
    page = bench.page
    bench.search("Measure between two points")
    page.mouse.click(*bench.at(0, 0))
    page.mouse.move(*bench.at(4000, 3000))
    page.mouse.click(*bench.at(8000, 6000))
    expect(page.get_by_text("10000").first).to_be_visible()
    expect(page.get_by_text("At 36.87° from the right of the sheet")).to_be_visible()
    before = bench.document()
    bench.search("Show the set-out lines")
    expect(page.get_by_test_id("set-out").locator("path")).to_have_count(4)
    assert bench.document() == before, "nothing is kept of it"
