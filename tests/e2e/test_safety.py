"""What a drafter fears: lost work, two windows, a dead server, bad input, a mouse that is not there."""

from __future__ import annotations

import math
import re

import pytest
from playwright.sync_api import Browser, Page, Route, expect

from tests.e2e.conftest import pick

from .conftest import Bench, Server

FOOT = 304.8


def test_nothing_is_lost_when_server_and_browser_die(page: Page, browser: Browser, own_server: Server) -> None:
    """There is no save button: what is on the screen as saved is there after kill -9 and a new browser."""
    bench = Bench(page, own_server.url)
    bench.new("Kept", "mm")
    bench.step("Plan")
    bench.tool("Outer wall")
    bench.click(0, 0)
    for key, text in (("Right", "8m"), ("Up", "6m"), ("Left", "8m")):
        page.keyboard.press(f"Arrow{key}")
        bench.type_length(text)
    bench.click(0, 0)
    expect(page.get_by_label("saved state")).to_have_text("all changes saved")
    before = bench.document()
    address = page.url
    page.close()
    own_server.kill()
    own_server.start()
    fresh = browser.new_page(viewport={"width": 1280, "height": 800})
    again = Bench(fresh, own_server.url)
    fresh.goto(address)
    again.ready()
    assert again.document() == before
    assert len(before["walls"]) == 4  # type: ignore[arg-type]
    expect(fresh.get_by_role("button", name="Undo")).to_be_enabled()
    fresh.close()


def test_two_windows_see_each_other(page: Page, browser: Browser, own_server: Server) -> None:
    first = Bench(page, own_server.url)
    first.open("quillback")
    other = browser.new_page(viewport={"width": 1280, "height": 800})
    second = Bench(other, own_server.url)
    second.open("quillback")
    first.page.get_by_label("Particulars").get_by_label("Place").fill("Lot 8")
    first.page.keyboard.press("Enter")
    first.saved()
    other.get_by_label("Particulars").get_by_label("Drawn by").fill("Second window")
    other.keyboard.press("Enter")
    expect(other.get_by_text("changed in another window").first).to_be_visible()
    expect(other.get_by_label("Particulars").get_by_label("Place")).to_have_value("Lot 8")
    assert second.document()["place"] == "Lot 8" and second.document()["author"] == "Deep Section demo"

    def taken() -> bool:
        """Typed once more. The bench may still fetch what the first window did; it says so again then."""
        other.get_by_label("Particulars").get_by_label("Drawn by").fill("Second window")
        other.keyboard.press("Enter")
        second.saved()
        return second.document()["author"] == "Second window"

    second.until(taken)
    assert second.document()["place"] == "Lot 8"
    other.close()


def test_a_dead_server_is_said_and_nothing_is_pretended(page: Page, own_server: Server) -> None:
    bench = Bench(page, own_server.url)
    bench.open("quillback")
    own_server.kill()
    page.get_by_label("Particulars").get_by_label("Place").fill("Nowhere")
    page.keyboard.press("Enter")
    expect(page.get_by_text("server cannot be reached").first).to_be_visible()
    expect(page.get_by_label("saved state")).not_to_have_text("all changes saved")
    own_server.start()
    page.get_by_label("Particulars").get_by_label("Place").fill("Lot 9")
    page.keyboard.press("Enter")
    bench.saved()
    assert bench.document()["place"] == "Lot 9"


@pytest.mark.parametrize(
    ("select", "field", "text", "words"),
    [
        ("Select window W2", "Width", "0", "more than"),
        ("Select window W2", "Width", "wide", "cannot read|not a length"),
        ("Select window W2", "Width", "60'", "wider than its wall"),
        ("Select window W2", "To east corner", "1'", "overlap"),
        ("Select window W2", "Head above floor", "12'", "above the top"),
        ("Level: Plate", "Above Main floor, in all", "-2'", "must be more than"),
        ("Select Main roof", "Pitch", "0", "not a pitch"),
        ("Select Main roof", "Pitch", "90 deg", "cannot be built"),
        ("Select Main roof", "Birdsmouth seat", "3'", "cut through"),
    ],
)
def test_bad_input_is_answered_beside_its_field(bench: Bench, select: str, field: str, text: str, words: str) -> None:
    bench.open("quillback")
    before = bench.document()
    bench.search(select)
    kept = bench.field(field).input_value()
    bench.field(field).fill(text)
    bench.field(field).press("Enter")
    alert = bench.page.get_by_label("Particulars").get_by_role("alert")
    expect(alert).to_have_text(re.compile(words))
    expect(bench.field(field)).to_have_attribute("aria-invalid", "true")
    assert bench.document() == before
    bench.field(field).press("Escape")
    expect(bench.field(field)).to_have_value(kept)
    expect(alert).to_be_hidden()


def test_facts_that_arrive_late_take_nothing_typed_away(bench: Bench) -> None:
    """The width of a window moves its distance to the corner; that fact comes while the drafter types another one."""
    bench.open("quillback")
    page = bench.page
    bench.search("Select window W5")
    distance = bench.field("To west corner")
    before = distance.input_value()
    late: list[Route] = []
    page.route("**/particulars/**", lambda route: late.append(route))
    bench.enter("Width", "3'")
    distance.fill("24'")
    bench.until(lambda: bool(late))
    page.unroute("**/particulars/**")  # lets what was held back go on
    page.wait_for_timeout(600)
    expect(distance).to_have_value("24'")
    distance.press("Enter")
    bench.saved()
    expect(distance).to_have_value("24'-0\"")
    assert distance.input_value() != before
    for _ in range(2):
        bench.button("Undo").click()
        bench.saved()


def test_a_fact_that_arrives_in_the_field_one_has_come_to_is_typed_over(bench: Bench) -> None:
    """What was typed comes back as it was read; what is typed next takes its place and is not put behind it."""
    bench.open("larkmoor")
    page = bench.page
    bench.step("Sections")
    bench.button("B").click()
    bench.shows("Section B")
    top = bench.field("Shows nothing above")
    late: list[Route] = []
    page.route("**/particulars/**", lambda route: late.append(route))
    bench.enter("Shows nothing above", "12'")
    bench.field("Look depth").focus()
    top.focus()
    bench.until(lambda: bool(late))
    expect(top).to_have_value("12'")
    page.unroute("**/particulars/**")
    expect(top).to_have_value("12'-0\"")
    page.keyboard.press("Delete")
    page.keyboard.type("11'")
    expect(top).to_have_value("11'")
    bench.enter("Shows nothing above", "")
    bench.until(lambda: bench.document()["sections"][1]["top"] is None)  # type: ignore[index]


def test_an_answer_that_comes_after_a_zoom_is_kept_as_that_of_the_scale_before(bench: Bench) -> None:
    """What is drawn at one scale is never shown, or built upon, as if it were of another."""
    bench.open("quillback")
    bench.step("Plan")
    page = bench.page
    number = page.get_by_test_id("plan").locator('text[data-key="number:w1"]')

    def reads() -> bool:
        """Letters of 2 mm at 2.6 to 5.7 px per mm of paper."""
        box = number.bounding_box()
        return box is not None and 7.0 < box["height"] < 23.0

    bench.until(reads)
    bench.search("Select window W5")
    before = bench.field("Width").input_value()
    late: list[Route] = []
    page.route("**/entries", lambda route: late.append(route))
    bench.field("Width").fill("3'")
    bench.field("Width").press("Enter")
    bench.until(lambda: bool(late))
    page.mouse.move(*bench.at(3000.0, 0.0))
    for _ in range(3):
        page.mouse.wheel(0, -300)
    page.wait_for_timeout(900)  # the views of the new scale are asked for, and come
    page.unroute("**/entries")
    bench.saved()
    bench.until(reads)
    bench.button("Undo").click()
    bench.saved()
    bench.until(reads)
    expect(bench.field("Width")).to_have_value(before)
    expect(page.get_by_role("alert")).to_have_count(0)


def test_walls_that_cross_are_refused_on_the_drawing(bench: Bench) -> None:
    bench.new("Crossing", "mm")
    bench.step("Plan")
    bench.tool("Outer wall")
    for u, w in ((0, 0), (6000, 5000), (6000, 0), (0, 5000)):
        bench.click(u, w)
    bench.click(0, 0)
    expect(bench.page.get_by_text("these two walls cross each other").first).to_be_visible()
    assert bench.document()["walls"] == []


def test_a_bad_project_file_is_refused_in_words(page: Page, server: Server) -> None:
    page.goto(server.url)
    expect(page.get_by_role("listitem").first).to_be_visible()
    count = page.get_by_role("listitem").count()
    for content, words in (
        (b'{"schema_version": 99}', "schema version 99"),
        (b'{"schema_version": 1, "id"', "whole project file"),
    ):
        page.get_by_label("Project file").set_input_files(
            {"name": "x.json", "mimeType": "application/json", "buffer": content}
        )
        expect(page.get_by_role("alert")).to_contain_text(words)
    assert page.get_by_role("listitem").count() == count


def test_everything_is_reached_by_keyboard(bench: Bench) -> None:
    """Action search, a window chosen, moved and sized, undone; no pointer is touched."""
    bench.open("quillback")
    page = bench.page
    bench.search("Select window W2")
    expect(page.get_by_label("Particulars")).to_contain_text("Window W2")
    before = next(held for held in bench.document()["openings"] if held["id"] == "w2")["distance"]  # type: ignore[index, attr-defined]
    page.keyboard.press("ArrowRight")
    bench.saved()
    after = next(held for held in bench.document()["openings"] if held["id"] == "w2")["distance"]  # type: ignore[index, attr-defined]
    assert math.isclose(after - before, 25.4)
    page.keyboard.press("Control+z")
    bench.saved()
    bench.search("Go to Sections")
    bench.shows("Section A")
    bench.search("See the east side")
    bench.shows("East elevation")
    bench.search("Draw: outer wall")
    expect(page.get_by_test_id("hint")).to_contain_text("first corner")
    page.keyboard.press("Escape")
    expect(page.get_by_role("button", name="Select", exact=True)).to_have_attribute("aria-pressed", "true")
    page.keyboard.press("Tab")
    focused = page.evaluate("() => getComputedStyle(document.activeElement).outlineStyle")
    assert focused != "none"


def test_pan_and_zoom_keep_the_panes_together(bench: Bench) -> None:
    bench.open("quillback")
    page = bench.page

    def us() -> tuple[float, float, float]:
        plan, view = (page.get_by_test_id(pane).get_attribute("transform") or "" for pane in ("plan", "view"))
        numbers = [[float(v) for v in re.findall(r"-?[\d.]+(?:e-?\d+)?", text)] for text in (plan, view)]
        assert numbers[0][0] == numbers[1][0] and numbers[0][2] == numbers[1][2], "one horizontal scale and pan"
        return numbers[0][0], numbers[0][2], numbers[1][1]

    before = us()
    x, y = bench.at(3000, 3000)
    page.mouse.move(x, y)
    page.mouse.wheel(0, -400)
    page.wait_for_timeout(100)
    zoomed = us()
    assert zoomed[1] > before[1]
    assert bench.at(3000, 3000) == pytest.approx((x, y), abs=1.0), "the point under the pointer stays"
    page.mouse.move(700, 700)
    page.mouse.down()
    page.mouse.move(760, 690, steps=4)
    page.mouse.up()
    assert us()[0] == pytest.approx(zoomed[0] + 60, abs=1)
    page.get_by_role("button", name="Fit the drawings").click()
    assert us()[1] == pytest.approx(before[1])


def test_a_missing_project_says_so(page: Page, server: Server) -> None:
    page.goto(f"{server.url}/project/ghost")
    expect(page.get_by_text("there is no project")).to_be_visible()
    page.get_by_role("button", name="All projects").click()
    expect(page.get_by_role("heading", name="Projects here")).to_be_visible()


def test_history_goes_back_and_loses_nothing(bench: Bench) -> None:
    bench.open("quillback")
    page = bench.page
    before = bench.document()
    bench.search("Select window W3")
    bench.enter("Width", "3' 2\"")
    bench.button("History").click()
    points = page.get_by_role("list", name="What was done").get_by_role("listitem")
    expect(points.first).to_contain_text("resize W3")
    expect(points.first).to_contain_text("this is what you see")
    points.nth(1).get_by_role("button", name="Name this point").click()
    page.get_by_label("Name of this point").fill("before the change")
    page.get_by_role("button", name="Keep").click()
    expect(points.nth(1)).to_contain_text("before the change")
    points.nth(1).get_by_role("button", name="Go back here").click()
    expect(points.first).to_contain_text("go back to “before the change”")
    page.keyboard.press("Escape")
    assert bench.document() == before
    bench.button("Undo").click()
    bench.saved()
    assert bench.document() != before
    bench.button("Undo").click()
    bench.saved()


def test_projects_are_copied_renamed_and_archived(page: Page, own_server: Server) -> None:
    page.goto(own_server.url)
    page.get_by_role("button", name="Copy Quillback House").click()
    page.get_by_role("button", name="Rename Quillback House, copy").click()
    page.get_by_label("New name of Quillback House, copy").fill("Quillback House")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("is here already")
    page.get_by_label("New name of Quillback House, copy").fill("Heron Row")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name=re.compile("^Heron Row"))).to_be_visible()
    page.get_by_role("button", name="Archive Heron Row").click()
    expect(page.get_by_role("button", name=re.compile("^Heron Row"))).to_be_hidden()
    page.get_by_role("button", name="Show archived projects (1)").click()
    page.get_by_role("button", name="Restore Heron Row").click()
    with page.expect_download() as waiting:
        page.get_by_role("link", name="File of Heron Row").click()
    assert waiting.value.suggested_filename == "Heron Row.deepsection.json"
    page.get_by_label("Name", exact=True).fill("heron row")
    page.get_by_role("button", name="Start drawing").click()
    expect(page.get_by_role("alert")).to_contain_text("choose another name")


def test_a_make_up_comes_from_another_project(page: Page, own_server: Server) -> None:
    bench = Bench(page, own_server.url)
    bench.new("Donor", "mm")
    bench.open("quillback")
    bench.search("Import a make-up from another project")
    pick(page.get_by_label("From project"), label="Donor")
    page.get_by_role("button", name="Copy 140 frame, lap boards").click()
    bench.saved()
    bench.search("Select outer wall 1")
    bench.choose("Make-up", "140 frame, lap boards")
    south = next(wall for wall in bench.document()["walls"] if wall["id"] == "south")  # type: ignore[attr-defined]
    assert south["make_up"].startswith("make-up-")
