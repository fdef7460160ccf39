"""Notes in the browser: written on a part, dragged, lost with it, found again by undo, tied to something else."""

from __future__ import annotations

from playwright.sync_api import expect

from tests.e2e.conftest import Bench, pick
from tests.e2e.test_selecting import held


def write(bench: Bench, u: float, v: float, text: str, pane: str = "view") -> None:
    bench.tool("Note")
    x, y = bench.at(u, v, pane)
    bench.page.mouse.move(x, y)
    bench.page.mouse.click(x, y)
    bench.page.get_by_label("note on this place").fill(text)
    bench.page.keyboard.press("Enter")
    bench.saved()


def test_a_note_is_written_dragged_lost_found_and_tied_again(bench: Bench) -> None:
    bench.open("quillback")
    bench.step("Elevations")
    bench.shows("South elevation")
    write(bench, 3500.0, 1500.0, "Lap boards, painted")
    (note,) = held(bench, "notes")
    anchor: dict[str, object] = note["anchor"]  # type: ignore[assignment]
    assert anchor["kind"] == "part" and note["offset"] is None and note["view"] == "elevation:south"
    words = bench.page.get_by_test_id("view").get_by_text("Lap boards, painted")
    expect(words).to_be_visible()

    # It is dragged, and says how far it stands from its place.
    box = words.bounding_box()
    assert box
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    bench.page.mouse.move(x, y)
    bench.page.mouse.down()
    bench.page.mouse.move(x + 30, y - 40, steps=4)
    bench.page.mouse.move(x + 60, y - 70, steps=4)
    bench.page.mouse.up()
    bench.saved()
    (note,) = held(bench, "notes")
    assert note["offset"] and note["anchor"] == anchor
    after = words.bounding_box()
    assert after and abs(after["x"] - box["x"] - 60) < 3 and abs(after["y"] - box["y"] + 70) < 3

    # Its wall goes: it stays where it was, is listed as lost, and undo heals it.
    bench.search(f"Select {bench_name(bench, str(anchor['element']))}")
    bench.page.keyboard.press("Delete")
    bench.saved()
    expect(bench.page.get_by_text("has lost what it points at").first).to_be_visible()
    expect(words).to_be_visible()
    bench.button("Shown").click()
    listed = bench.page.get_by_label("Notes of the view")
    expect(listed.get_by_text("lost its place")).to_be_visible()
    bench.page.keyboard.press("Control+z")
    bench.saved()
    expect(bench.page.get_by_text("has lost what it points at")).to_have_count(0)
    expect(listed.get_by_text("lost its place")).to_have_count(0)

    # Tied to something else, it keeps its words.
    listed.get_by_role("button", name="Tie Lap boards, painted to something else").click()
    x, y = bench.at(3000.0, 4600.0, "view")
    bench.page.mouse.click(x, y)
    bench.saved()
    (note,) = held(bench, "notes")
    assert note["text"] == "Lap boards, painted" and note["anchor"] != anchor


def test_a_string_is_dragged_by_its_line_thinned_and_tidied(bench: Bench) -> None:
    bench.open("tansy")
    bench.step("Elevations")
    bench.ready()
    figure = bench.page.get_by_test_id("view").locator('text[data-key="width:overall"]')
    before = figure.bounding_box()
    assert before
    x, y = before["x"] + before["width"] / 2 + 40, before["y"] + before["height"] - 2
    bench.page.mouse.move(x, y)
    bench.page.mouse.down()
    bench.page.mouse.move(x, y + 10, steps=3)
    bench.page.mouse.move(x, y + 30, steps=3)
    bench.page.mouse.up()
    bench.saved()
    (show,) = held(bench, "shows")
    (string,) = show["strings"]  # type: ignore[misc]
    assert string["name"] == "bottom:overall" and string["away"] > 0
    after = figure.bounding_box()
    assert after and abs(after["y"] - before["y"] - 30) < 3
    bench.button("Shown").click()
    bench.page.get_by_label("openings, bottom").click()
    bench.saved()
    figures = bench.page.get_by_test_id("view").locator('text[data-key^="string:bottom:openings"]')
    bench.until(lambda: figures.count() > 0)
    bench.page.get_by_role("button", name="openings", exact=True).click()
    pick(bench.page.get_by_label("openings: side"), "bottom")
    pick(bench.page.get_by_label("openings: how dense"), "denser")
    many = figures.count()
    bench.until(lambda: figures.count() > many)
    bench.page.get_by_role("button", name="Tidy this view").click()
    bench.saved()
    (show,) = held(bench, "shows")
    assert {held["name"]: held["away"] for held in show["strings"]} == {"bottom:openings": 0.0}  # type: ignore[attr-defined]
    back = figure.bounding_box()
    assert back


def bench_name(bench: Bench, element: str) -> str:
    state = bench.page.request.get(f"{bench.url}/api/projects/{bench.document()['id']}").json()
    return next(item["name"] for item in state["elements"] if item["id"] == element)


def test_a_note_on_the_plan_and_one_without_words(bench: Bench) -> None:
    bench.open("fernacre")
    bench.step("Plan")
    write(bench, 3000.0, 2500.0, "Made good by others", "plan")
    (note,) = held(bench, "notes")
    assert note["view"] == "plan"
    expect(bench.page.get_by_test_id("plan").get_by_text("Made good by others")).to_be_visible()
    write(bench, 4000.0, 2500.0, "", "plan")
    assert len(held(bench, "notes")) == 1


def test_a_length_is_typed_for_a_figure_and_it_is_marked(bench: Bench) -> None:
    bench.open("quillback")
    bench.step("Plan")
    bench.ready()
    before = {each["id"]: each["distance"] for each in held(bench, "openings")}
    figure = bench.page.get_by_test_id("plan").locator('text[data-key="string:bottom:openings:start-w1"]')
    figure.click()
    pick(bench.page.get_by_label("What the figure is besides"), "typical")
    bench.saved()
    expect(figure).to_contain_text("TYP.")
    figure.click()
    bench.page.get_by_label("Make it this length").fill("nothing of the kind")
    bench.page.keyboard.press("Enter")
    expect(bench.page.get_by_text("nothing of the kind").first).to_be_visible()
    moved = bench.page.get_by_label("Make it this length")
    moved.fill("7' 1\"")
    bench.page.keyboard.press("Enter")
    bench.saved()
    after = {each["id"]: each["distance"] for each in held(bench, "openings")}
    expect(figure).to_contain_text("7'-1\"")
    assert after["w1"] != before["w1"]
    bench.page.keyboard.press("Control+z")
    bench.saved()
    assert {each["id"]: each["distance"] for each in held(bench, "openings")} == before
