"""Wall sections are picked on the plan and in an elevation, cut short where one drags, and edited where they say it."""

from __future__ import annotations

from typing import Any

from playwright.sync_api import expect

from .conftest import Bench


def strips(bench: Bench) -> list[dict[str, Any]]:
    return bench.document()["wall_sections"]  # type: ignore[return-value]


def test_a_wall_section_is_picked_moved_cut_short_and_edits_the_house(bench: Bench) -> None:
    bench.open("fernacre")
    bench.step("Sections")
    bench.tool("Wall section")
    # On the plan as section A turns it: the south wall runs up.
    line = bench.page.locator('[data-testid=plan] [data-part^="south/"]').first
    expect(line).to_be_attached()
    wall = next(held for held in bench.document()["walls"] if held["id"] == "south")  # type: ignore[attr-defined]
    assert wall["status"] == "outer"
    box = line.bounding_box()
    assert box
    bench.page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    bench.page.mouse.click(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    bench.saved()
    made = strips(bench)[-1]
    assert (made["name"], made["wall"]) == ("4", "south")
    bench.shows("Wall section 4")

    bench.choose("Through the middle of", "W1")
    made = strips(bench)[-1]
    window = next(held for held in bench.document()["openings"] if held["id"] == "w1")  # type: ignore[attr-defined]
    assert (made["end"], made["distance"]) == (window["end"], window["distance"])
    bench.enter("From west corner", "90m")
    expect(bench.page.get_by_text("lies past the end of its wall").first).to_be_visible()
    bench.button("Undo").click()
    bench.saved()

    # What is left out on paper follows from how high it may be there.
    view = bench.page.get_by_test_id("view")
    expect(view.get_by_text("cavity wall 350, rendered")).to_be_visible()
    assert bench.marks("view", f"{made['id']}/break/0").count() == 0
    bench.enter("Height on paper, mm", "150")
    band = bench.marks("view", f"{made['id']}/break/0").first
    expect(band).to_be_attached()
    bench.enter("Height on paper, mm", "12")
    expect(bench.page.get_by_text("40 to 3000 mm")).to_be_visible()
    bench.page.keyboard.press("Escape")
    box = band.bounding_box()
    assert box and strips(bench)[-1]["breaks"] is None
    bench.pull(box["x"] + 6, box["y"] + box["height"] / 2, 120)
    bench.saved()
    stated = strips(bench)[-1]["breaks"]
    assert stated and all(held["tall"] > 0 for held in stated)

    # A click on what a layer is leads to the make-up; what is changed there is changed here.
    bench.page.keyboard.press("Escape")
    view.get_by_text("20 render").click()
    bench.page.get_by_label("Particulars").get_by_label("Its note in drawings").first.wait_for()
    bench.page.get_by_label("Particulars").get_by_label("Its note in drawings").first.fill("render in two coats")
    bench.page.keyboard.press("Enter")
    bench.saved()
    expect(view.get_by_text("render in two coats")).to_be_visible()
    assert bench.errors == []


def test_usual_places_and_one_in_an_elevation(bench: Bench) -> None:
    bench.open("quillback")
    bench.step("Sections")
    bench.button("Wall sections").click()
    bench.page.get_by_role("button", name="2x6 frame, lap boards, one storey, eave").click()
    bench.saved()
    (first,) = strips(bench)
    bench.shows("Wall section 1")
    bench.button("Wall sections").click()
    panel = bench.page.get_by_label("Usual places of wall sections")
    expect(panel.get_by_text("gable").first).to_be_visible()
    expect(panel.get_by_text("lap boards, one storey, eave")).to_have_count(0)
    bench.page.keyboard.press("Escape")

    bench.step("Elevations")
    bench.tool("Wall section")
    bench.shows("South elevation")
    wall = bench.marks("view", "south/cladding").first
    expect(wall).to_be_attached()
    # Where it is once the view has come and is fitted.
    bench.at(0.0, 0.0, "view")
    box = wall.bounding_box()
    assert box
    bench.page.mouse.click(box["x"] + box["width"] * 0.3, box["y"] + box["height"] * 0.9)
    bench.saved()
    made = strips(bench)[-1]
    assert made["wall"] == "south" and 0 < made["distance"] < 10_973
    bench.shows(f"Wall section {made['name']}")
    bench.button("Undo").click()
    bench.saved()
    assert strips(bench) == [first]
    assert bench.errors == []


def test_two_are_made_of_one_and_stand_on_common_levels(bench: Bench) -> None:
    bench.open("hollin")
    bench.step("Sections")
    bench.button("1").click()
    bench.shows("Wall section 1")
    bench.page.get_by_label("Particulars").get_by_role("button", name="Make two of it, one over the other").click()
    bench.saved()
    lower, *_, upper = strips(bench)
    assert lower["top"] > upper["bottom"] and upper["name"] == "4"
    bench.button("Undo").click()
    bench.saved()
    assert len(strips(bench)) == 3

    bench.enter("Shows inside of it", "4m")
    bench.enter("Shows nothing above", "1200")
    bench.enter("Width on paper, mm", "150")
    # Floors are cut short sideways too: the break is dragged as one of heights is, and typed.
    band = bench.marks("view", "wall-section-1/break/0/aside").first
    expect(band).to_be_attached()
    box = band.bounding_box()
    assert box and strips(bench)[0]["inside_breaks"] is None
    bench.pull(box["x"] + box["width"] / 2, box["y"] + 8, 0, -400)
    bench.saved()
    (stated,) = strips(bench)[0]["inside_breaks"]
    bench.enter("Inside break 1: begins inward by", "600")
    bench.saved()
    (typed,) = strips(bench)[0]["inside_breaks"]
    assert typed == {**stated, "inward": 600.0} and stated["inward"] != 600.0
    for _ in range(5):
        bench.button("Undo").click()
        bench.saved()

    bench.step("Sheets")
    bench.page.get_by_role("button", name="A4 Wall sections").click()
    bench.page.get_by_role("button", name="Wall section 2 at 1:20").focus()
    for _ in range(3):
        bench.page.keyboard.press("ArrowUp")
        bench.saved()

    def heights() -> list[float]:
        sheet = next(held for held in bench.document()["sheets"] if held["number"] == "A4")  # type: ignore[attr-defined]
        return [held["y"] for held in sheet["placed"]]

    off = heights()
    bench.page.get_by_role("button", name="Put on common levels").click()
    bench.until(lambda: heights() != off)
    on = heights()
    assert on[0] == off[0] and on[1] < off[1]
    bench.button("Undo").click()
    bench.until(lambda: heights() == off)
    assert bench.errors == []
