"""A section is put where it is wanted: through something, so far from a wall, by steps, and beside itself as a copy."""

from __future__ import annotations

import math

from playwright.sync_api import expect

from .conftest import Bench


def section(bench: Bench, id: str) -> dict[str, float]:
    found: dict[str, float] = next(held for held in bench.document()["sections"] if held["id"] == id)  # type: ignore[index,attr-defined]
    return found


def test_a_section_is_placed_stepped_and_copied(bench: Bench) -> None:
    bench.open("quillback")
    bench.step("Sections")
    before = section(bench, "section-a")
    assert before["x1"] == before["x2"]
    window = next(held for held in bench.document()["openings"] if held["id"] == "w2")  # type: ignore[attr-defined]
    bench.choose("Through the middle of", "W2")
    through = section(bench, "section-a")
    # The south wall begins at the plan's origin.
    assert math.isclose(through["x1"], window["distance"], abs_tol=1e-6) and through["y1"] == before["y1"]
    expect(bench.marks("view", "w2/frame").first).to_be_attached()

    behind = bench.field("From the nearest wall behind")
    expect(behind).to_be_visible()
    bench.enter("From the nearest wall behind", "5'")
    typed = section(bench, "section-a")
    assert typed["x1"] != through["x1"]
    bench.enter("From the nearest wall behind", "-1'")
    expect(bench.page.get_by_text("must be more than")).to_be_visible()
    assert section(bench, "section-a") == typed
    bench.page.keyboard.press("Escape")

    # The plan is turned so that what the section sees lies up: its line runs across the screen.
    bench.page.evaluate("document.activeElement && document.activeElement.blur()")
    bench.page.keyboard.press("ArrowUp")
    bench.saved()
    stepped = section(bench, "section-a")
    ahead = stepped["x1"] - typed["x1"]
    assert 0 < abs(ahead) < 400 and stepped["x1"] == stepped["x2"]
    bench.page.keyboard.press("ArrowDown")
    bench.saved()
    assert math.isclose(section(bench, "section-a")["x1"], typed["x1"], abs_tol=1e-6)
    bench.page.keyboard.press("ArrowLeft")
    bench.saved()
    assert math.isclose(section(bench, "section-a")["x1"], typed["x1"], abs_tol=1e-6), "along its line it stays"

    bench.page.get_by_label("Particulars").get_by_role("button", name="Copy it, a step ahead").click()
    bench.saved()
    sections = bench.document()["sections"]
    assert [held["name"] for held in sections] == ["A", "B", "C"]  # type: ignore[attr-defined]
    bench.button("Undo").click()
    bench.saved()
    assert len(bench.document()["sections"]) == 2  # type: ignore[arg-type]


def test_a_section_steps_and_is_cropped(bench: Bench) -> None:
    bench.open("larkmoor")
    bench.step("Sections")
    bench.button("B").click()
    bench.shows("Section B")
    bench.page.get_by_role("button", name="Add a step").click()
    bench.saved()
    (step,) = section(bench, "section-b")["steps"]  # type: ignore[misc]
    bench.enter("Step 1: lies ahead by", "6'")
    (typed,) = section(bench, "section-b")["steps"]  # type: ignore[misc]
    assert typed["along"] == step["along"] and math.isclose(typed["ahead"], 1828.8)
    bench.enter("Step 1: along the line", "0'")
    expect(bench.page.get_by_text("must be more than")).to_be_visible()
    bench.page.keyboard.press("Escape")

    roof = bench.marks("view", "roof-main/roofing")
    expect(roof.first).to_be_attached()
    bench.enter("Shows nothing above", "12'")
    expect(roof).to_have_count(0)
    bench.enter("Shows nothing below", "13'")
    expect(bench.page.get_by_text("its top is not above its bottom").first).to_be_visible()
    # One right after the other, while the first is under way: neither is lost.
    bench.enter("Shows nothing below", "")
    bench.enter("Shows nothing above", "")
    bench.until(lambda: section(bench, "section-b")["bottom"] is None and section(bench, "section-b")["top"] is None)
    expect(roof.first).to_be_attached()
    bench.page.get_by_role("button", name="Remove step 1").click()
    bench.saved()
    assert section(bench, "section-b")["steps"] == []  # type: ignore[comparison-overlap]


def test_a_line_bends_and_shows_a_room_alone(bench: Bench) -> None:
    bench.open("quillback")
    bench.step("Sections")
    bench.shows("Section A")
    bench.page.get_by_label("Particulars").get_by_role("button", name="Add a step").click()
    bench.saved()
    bench.enter("Step 1: lies ahead by", "0")
    bench.enter("Step 1: turns by, degrees", "20")
    held = section(bench, "section-a")
    assert held["steps"][0]["turn"] == 20.0  # type: ignore[index]
    expect(bench.page.get_by_test_id("view").get_by_text("20°")).to_be_visible()
    bench.enter("Step 1: turns by, degrees", "500")
    expect(bench.page.get_by_label("Particulars").get_by_role("alert").first).to_be_visible()
    assert section(bench, "section-a") == held
    bench.page.keyboard.press("Escape")

    bench.step("Plan")
    bench.page.get_by_test_id("plan").locator("text", has_text="Workshop").first.click()
    bench.page.get_by_label("Particulars").get_by_role("button", name="Draw a section of it").click()
    bench.saved()
    made = bench.document()["sections"][-1]  # type: ignore[index]
    room = next(held["name"] for held in bench.document()["rooms"] if held["id"] == "room-workshop")  # type: ignore[attr-defined]
    assert (made["name"], made["room"]) == ("C", "room-workshop")
    bench.step("Sections")
    bench.button("C").click()
    bench.shows(f"Section C, {room}")
    bench.choose("Shows", "the house")
    bench.shows("Section C")
    assert bench.errors == []
