"""Elevations at an angle and of rooms, in the browser."""

from __future__ import annotations

import pytest
from playwright.sync_api import expect

from tests.e2e.conftest import Bench
from tests.e2e.test_selecting import held


def test_an_elevation_at_an_angle_turns_the_plan_and_shows_a_room(bench: Bench) -> None:
    bench.open("wrenfold")
    bench.step("Elevations")
    bench.button("Elevation at an angle").click()
    bench.saved()
    (view,) = held(bench, "elevations")
    assert (view["look"], view["room"]) == (120.0, None)
    bench.shows("Elevation 1")
    # Both walls that face the viewer are seen.
    for wall in ("south", "east"):
        expect(bench.marks("view", f"{wall}/cladding").first).to_be_attached()
    bench.enter("Looks along, degrees from east", "ninety")
    expect(bench.page.get_by_text("type an angle in degrees")).to_be_visible()
    bench.enter("Looks along, degrees from east", "90")
    bench.choose("Shows", "the inside of Kitchen")
    expect(bench.page.get_by_test_id("view").locator('[data-feature="clear"]')).to_have_count(1)
    expect(bench.marks("view", "w7/glass").first).to_be_attached()
    expect(bench.marks("view", "roof-main/roofing")).to_have_count(0)
    bench.page.get_by_role("main", name="Bench").get_by_role("button", name="west side").click()
    bench.shows("West elevation")
    bench.search("See Elevation 1")
    bench.shows("Elevation 1")
    bench.button("Remove Elevation 1").click()
    bench.saved()
    assert held(bench, "elevations") == []
    bench.shows("West elevation")


def test_what_is_hidden_in_a_view_is_listed_and_brought_back(bench: Bench) -> None:
    bench.open("quillback")
    bench.step("Elevations")
    roof = bench.marks("view", "roof-main/roofing")
    expect(roof.first).to_be_attached()
    bench.page.keyboard.press("/")
    bench.page.keyboard.type("Select Main roof")
    bench.page.get_by_role("option", name="Select Main roof").first.click()
    bench.page.keyboard.press("/")
    bench.page.keyboard.type("Hide what is selected")
    bench.page.get_by_role("option", name="Hide what is selected in this view").first.click()
    bench.saved()
    expect(roof).to_have_count(0)
    listed = bench.page.get_by_label("Hidden in this view").get_by_role("button")
    expect(listed).to_have_text(["Main roof is hidden"])
    bench.search("Leave the same out of every elevation and section")
    bench.saved()
    assert len(held(bench, "shows")) == 6
    listed.first.click()
    bench.saved()
    expect(roof.first).to_be_attached()
    bench.search("See the east side")
    bench.shows("East elevation")
    expect(roof).to_have_count(0)


def test_a_window_is_dragged_up_in_the_elevation(bench: Bench) -> None:
    """By the greater part of the drag: up is its sill alone, sideways its place alone."""
    bench.open("fernacre")
    bench.step("Elevations")
    (before,) = [opening for opening in held(bench, "openings") if opening["id"] == "w1"]
    box = bench.marks("view", "w1/").first.bounding_box()
    assert box
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    k = abs(bench.at(1000, 0, "view")[0] - bench.at(0, 0, "view")[0]) / 1000
    bench.page.mouse.move(x, y)
    bench.page.mouse.down()
    bench.page.mouse.move(x + 2, y + 100 * k, steps=3)
    bench.page.mouse.move(x + 3, y + 200 * k, steps=3)
    bench.page.mouse.up()
    bench.saved()
    (after,) = [opening for opening in held(bench, "openings") if opening["id"] == "w1"]
    assert after["sill"] == pytest.approx(before["sill"] - 200, abs=60) and after["distance"] == before["distance"]
    bench.button("Undo").click()
    bench.saved()
    assert [opening for opening in held(bench, "openings") if opening["id"] == "w1"] == [before]
