"""A new user's first ten minutes, in the real application: from an empty project to a set of sheets."""

from __future__ import annotations

import pytest
from playwright.sync_api import expect

from tests.e2e.conftest import Bench, pick

FOOT = 304.8


def test_a_house_is_typed_roofed_and_laid_out(bench: Bench) -> None:
    bench.new("Sedge Cottage", "ft-in")
    plan = bench.page.get_by_label("Steps").get_by_role("button", name="Plan")
    expect(plan).to_have_attribute("aria-current", "step")
    hint = bench.page.get_by_text("choose Outer wall, click the first corner")
    expect(hint).to_be_visible()
    bench.tool("Outer wall")
    pick(bench.page.get_by_label("How walls are drawn"), "rectangle")
    bench.click(0, 0)
    x, y = bench.at(5 * FOOT, 4 * FOOT)
    bench.page.mouse.move(x, y)
    expect(hint).to_be_hidden()

    # The width, Tab, the depth, Enter: each where it belongs.
    bench.page.keyboard.type("30'")
    bench.page.keyboard.press("Tab")
    bench.page.keyboard.type("20'")
    expect(bench.page.get_by_label("depth of the rectangle")).to_have_value("20'")
    bench.page.keyboard.press("Enter")
    bench.saved()
    assert bench.document()["name"] == "Sedge Cottage", "what was typed went into no other field"
    spans = {(round(j["x"] / FOOT, 3), round(j["y"] / FOOT, 3)) for j in bench.document()["joints"]}  # type: ignore[index, attr-defined]
    assert spans == {(0, 0), (30, 0), (30, 20), (0, 20)}

    # The roof goes up, and the view is fitted to it: its ridge stays clear of the pane's head.
    bench.step("Roof")
    bench.roof("gable")
    bench.click(15 * FOOT, 10 * FOOT)
    bench.saved()
    pane = bench.page.get_by_test_id("view")
    head = bench.page.get_by_role("heading", name="South elevation")
    roof = bench.marks("view", "roof").first.bounding_box()
    title = head.bounding_box()
    assert roof is not None and title is not None and pane.is_visible()
    assert roof["y"] > title["y"], "the ridge lies in the pane"

    # One action lays out the usual set.
    bench.step("Sheets")
    bench.button("Lay out the usual set").click()
    bench.saved()
    sheets: list[dict[str, object]] = bench.document()["sheets"]  # type: ignore[assignment]
    assert [sheet["name"] for sheet in sheets] == ["Plans", "Elevations", "Sections", "Wall sections"]
    assert [len(sheet["placed"]) for sheet in sheets] == [2, 4, 2, 2]  # type: ignore[arg-type]
    assert len(bench.document()["sections"]) == 2  # type: ignore[arg-type]


def test_both_sides_are_typed_in_one_go(bench: Bench) -> None:
    bench.new("Rush Cottage", "ft-in")
    bench.step("Plan")
    bench.tool("Outer wall")
    pick(bench.page.get_by_label("How walls are drawn"), "rectangle")
    bench.click(0, 0)
    x, y = bench.at(5 * FOOT, 4 * FOOT)
    bench.page.mouse.move(x, y)
    bench.page.keyboard.type("30' x 20'")
    bench.page.keyboard.press("Enter")
    bench.saved()
    spans = {(round(j["x"] / FOOT, 3), round(j["y"] / FOOT, 3)) for j in bench.document()["joints"]}  # type: ignore[index, attr-defined]
    assert spans == {(0, 0), (30, 0), (30, 20), (0, 20)}


def test_tab_stays_with_what_a_running_tool_asks(bench: Bench) -> None:
    bench.new("Reed Cottage", "mm")
    bench.step("Plan")
    bench.tool("Outer wall")
    bench.click(0, 0)
    x, y = bench.at(3000, 10)
    bench.page.mouse.move(x, y)
    bench.page.keyboard.press("Tab")
    entry = bench.page.get_by_label("length of this wall")
    expect(entry).to_be_focused()
    for where in ("angle of this wall", "length of this wall", "angle of this wall"):
        bench.page.keyboard.press("Tab")
        expect(bench.page.get_by_label(where)).to_be_focused()
    bench.page.keyboard.press("Escape")


@pytest.mark.parametrize("width", [1280, 1024])
def test_every_tool_is_reached_at_any_width(bench: Bench, width: int) -> None:
    bench.page.set_viewport_size({"width": width, "height": 800})
    bench.open("quillback")
    bench.step("Plan")
    for name in ("Select", "Outer wall", "Window", "Room", "Bay", "Niche", "Post", "Beam", "Rail", "Grid line"):
        bench.tool(name)
        if width == 1280:
            chosen = bench.page.get_by_role("toolbar", name="Plan actions").locator("button.bg-line").first
            box = chosen.bounding_box()
            assert box is not None and box["x"] + box["width"] < width - 296, f"{name} is not cut off"
    bench.tool("Select")


def test_the_list_shows_each_house_and_the_position_is_said_in_x_and_y(bench: Bench) -> None:
    bench.page.goto(bench.url)
    picture = bench.page.get_by_alt_text("Quillback House from the south")
    expect(picture).to_be_visible()
    assert bench.page.evaluate("image => image.decode().then(() => image.naturalWidth)", picture.element_handle()) > 100
    bench.open("quillback")
    bench.step("Plan")
    x, y = bench.at(3 * FOOT, 4 * FOOT)
    bench.page.mouse.move(x, y)
    expect(bench.page.get_by_text("from the origin x 3'-")).to_be_visible()
