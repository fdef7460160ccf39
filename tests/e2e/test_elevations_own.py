"""Elevations at an angle and of rooms, in the browser."""

from __future__ import annotations

import math

import pytest
from playwright.sync_api import expect

from tests.e2e.conftest import Bench, pick
from tests.e2e.test_main_job import draw_box
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
    bench.search("Show every elevation and section like this view")
    bench.saved()
    assert len(held(bench, "shows")) == 6
    listed.first.click()
    bench.saved()
    expect(roof.first).to_be_attached()
    bench.search("See the east side")
    bench.shows("East elevation")
    expect(roof).to_have_count(0)


def test_lettering_is_moved_rewritten_hidden_and_given_back(bench: Bench) -> None:
    """On the bench, printed alike: dragged with the pointer, typed into, hidden, listed, and as it was again."""
    bench.open("fernacre")
    bench.step("Elevations")
    bench.page.get_by_role("button", name="Let the view fill the bench").click()
    name = bench.page.get_by_test_id("view").locator('text[data-key="number:w1"]')
    key, before = name.get_attribute("data-key"), name.bounding_box()
    assert before and key
    x, y = before["x"] + before["width"] / 2, before["y"] + before["height"] / 2
    bench.page.mouse.move(x, y)
    bench.page.mouse.down()
    bench.page.mouse.move(x + 30, y - 10, steps=4)
    bench.page.mouse.move(x + 60, y - 30, steps=4)
    bench.page.mouse.up()
    bench.saved()
    after = name.bounding_box()
    assert after and after["x"] - before["x"] == pytest.approx(60, abs=4)
    (show,) = held(bench, "shows")
    assert show["annotations"][0]["key"] == key and show["annotations"][0]["dy"] > 0
    bench.page.mouse.click(after["x"] + after["width"] / 2, after["y"] + after["height"] / 2)
    bar = bench.page.get_by_label("Selected lettering")
    bar.get_by_role("textbox").fill("W1, escape")
    bench.page.keyboard.press("Enter")
    bench.saved()
    expect(name).to_have_text("W1, escape")
    file = bench.page.request.get(f"{bench.url}/api/projects/fernacre/views/elevation:south/file?format=svg")
    assert file.ok and "W1, escape" in file.text()
    bar.get_by_role("textbox").blur()
    bench.page.keyboard.press("Delete")
    bench.saved()
    expect(name).to_have_count(0)
    bench.page.get_by_label("Hidden in this view").get_by_role("button", name="an opening number is hidden").click()
    bench.saved()
    name.click()
    bar.get_by_role("button", name="As it was").click()
    bench.saved()
    assert name.bounding_box() == before and held(bench, "shows")[0]["annotations"] == []


def test_a_view_is_shown_otherwise(bench: Bench) -> None:
    """Kinds left out, keys with a legend, shade, thin pens; the same for another view with one choice."""
    bench.open("wrenfold")
    bench.step("Elevations")
    gutter = bench.marks("view", "roof-main/gutter")
    expect(gutter.first).to_be_attached()
    bench.page.get_by_role("button", name="Shown").click()
    panel = bench.page.get_by_label("How this view is shown")
    for label in ("gutters and downpipes", "Shade at 45 degrees", "Thin pens on the screen; printed as ever"):
        panel.get_by_label(label, exact=True).click()
        bench.saved()
    panel.get_by_role("button", name="keys and a legend").click()
    bench.saved()
    expect(gutter).to_have_count(0)
    expect(bench.page.locator('text[data-key^="legend:"]').first).to_be_attached()
    expect(bench.page.get_by_test_id("view")).to_have_class("thin")
    assert bench.page.get_by_test_id("view").locator('[data-feature="shade"]').count() >= 0
    pick(panel.get_by_label("Show alike"), "elevation:west")
    bench.saved()
    shows = {show["view"]: show for show in held(bench, "shows")}
    assert shows["elevation:west"]["kinds"] == ["gutters"] and shows["elevation:west"]["shade"]
    panel.get_by_role("button", name="Only roofs").click()
    bench.saved()
    expect(bench.marks("view", "south/")).to_have_count(0)
    expect(bench.marks("view", "roof-main/roofing").first).to_be_attached()
    bench.page.keyboard.press("Escape")
    bench.page.get_by_role("button", name="Show everything").click()
    bench.saved()
    expect(gutter.first).to_be_attached()


def test_two_sides_are_compared_and_corners_walked(bench: Bench) -> None:
    bench.open("quillback")
    bench.step("Elevations")
    bench.page.get_by_role("button", name="Shown").click()
    pick(bench.page.get_by_label("Compare heights with"), "elevation:east")
    bench.page.keyboard.press("Escape")
    table = bench.page.get_by_label("Heights compared")
    expect(table.get_by_role("row").filter(has_text="Plate")).to_contain_text("9'-1 1/8\"")
    expect(bench.page.get_by_test_id("beside").locator("path").first).to_be_attached()
    bench.button("Stop comparing").click()
    expect(bench.page.get_by_test_id("beside")).to_have_count(0)
    knob = bench.page.get_by_role("slider", name="Walk the projection lines")
    knob.focus()
    lines = bench.page.get_by_test_id("walked-lines").locator("line")
    bench.page.keyboard.press("ArrowRight")
    first = lines.first.get_attribute("x1")
    bench.page.keyboard.press("ArrowRight")
    assert lines.count() == 1 and float(lines.first.get_attribute("x1") or 0) > float(first or 0)
    bench.search("Show the projection lines of all corners")
    assert lines.count() == int(knob.get_attribute("aria-valuemax") or 0) > 4


def test_heights_are_dragged_in_the_elevation(bench: Bench) -> None:
    """A rung of the ladder changes its free part, an eave its edge, a ridge the pitch; the plan follows each."""
    bench.open("fernacre")
    bench.step("Elevations")
    plate = bench.page.get_by_label("Height ladder").get_by_role("button", name="Plate").first
    box = plate.bounding_box()
    assert box
    bench.pull(box["x"] + 30, box["y"] + 6, 300)
    raised = bench.page.get_by_label("Height ladder").get_by_role("button", name="Plate").first
    expect(raised).to_contain_text("3075")
    bench.search("Undo")
    bench.saved()
    roof = held(bench, "roofs")[0]
    fascia = bench.marks("view", f"{roof['id']}/fascia").first.bounding_box()
    assert fascia
    bench.pull(fascia["x"] + fascia["width"] * 0.3, fascia["y"] + fascia["height"], 400)
    assert any(edge["raised"] > 100 for edge in held(bench, "roofs")[0]["edges"])
    bench.search("Undo")
    bench.saved()


def test_a_ridge_and_the_top_of_a_wall_are_dragged(bench: Bench) -> None:
    """A ridge changes the pitch of its roof, in half degrees; a wall without a roof gets a top of its own."""
    bench.open("fernacre")
    bench.step("Elevations")
    before = bench.document()
    bench.drag((6000, 5033), (6000, 5433), "view")
    roof = held(bench, "roofs")[0]
    angle = math.degrees(math.atan(roof["pitch"]))
    assert angle > 33 and angle * 2 == pytest.approx(round(angle * 2), abs=1e-6)
    # Over half a span of 3750 the ridge has come up by about what was asked: pitches go by half degrees.
    rise = (roof["pitch"] - math.tan(math.radians(30))) * 3750
    assert rise == pytest.approx(400, abs=60)
    bench.search("Undo")
    bench.saved()
    assert bench.document()["roofs"] == before["roofs"]
    bench.new("Tops", "mm")
    draw_box(bench, "8000", "6000")
    bench.step("Elevations")
    south = next(wall["id"] for wall in held(bench, "walls") if bench.marks("view", f"{wall['id']}/cladding").count())
    top = bench.marks("view", f"{south}/cladding").first.bounding_box()
    assert top
    bench.pull(top["x"] + top["width"] * 0.4, top["y"] + 0.5, 300)
    offsets = {wall["id"]: wall["top"]["offset"] for wall in held(bench, "walls")}
    assert offsets.pop(south) == pytest.approx(300, abs=40) and set(offsets.values()) == {0.0}


def test_openings_are_lined_up(bench: Bench) -> None:
    """Several selected with Shift in the view: heads in line with the first, by a button of the step."""
    bench.open("quillback")
    bench.step("Elevations")
    (south,) = [opening for opening in held(bench, "openings") if opening["id"] == "w1"]
    bench.search("Select window W1")
    box = bench.marks("view", "w3/glass").first.bounding_box()
    assert box
    bench.page.keyboard.down("Shift")
    bench.page.mouse.click(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    bench.page.keyboard.up("Shift")
    expect(bench.page.get_by_label("Particulars")).to_contain_text("and 1 more")
    bench.page.get_by_role("toolbar").get_by_role("button", name="Sills in line").click()
    bench.saved()
    assert {held["id"]: held["sill"] for held in held(bench, "openings")}["w3"] == south["sill"]
    bench.search("Undo")
    bench.saved()


def test_a_window_is_dragged_up_in_the_elevation(bench: Bench) -> None:
    """By the greater part of the drag: up is its sill alone, sideways its place alone."""
    bench.open("fernacre")
    bench.step("Elevations")
    (before,) = [opening for opening in held(bench, "openings") if opening["id"] == "w1"]
    box = bench.marks("view", "w1/").first.bounding_box()
    assert box
    bench.pull(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2, -200, aside=60)
    (after,) = [opening for opening in held(bench, "openings") if opening["id"] == "w1"]
    assert after["sill"] == pytest.approx(before["sill"] - 200, abs=60) and after["distance"] == before["distance"]
    bench.button("Undo").click()
    bench.saved()
    assert [opening for opening in held(bench, "openings") if opening["id"] == "w1"] == [before]


def test_steps_are_put_to_a_door_and_a_rail_is_drawn(bench: Bench) -> None:
    """Steps by a button of the door; a rail by two clicks; both stand in the elevation."""
    bench.open("quillback")
    bench.step("Elevations")
    bench.search("Select door D1")
    bench.page.get_by_label("Particulars").get_by_role("button", name="Steps to it").click()
    bench.saved()
    (steps,) = held(bench, "outside_steps")
    expect(bench.marks("view", f"{steps['id']}/steps").first).to_be_attached()
    expect(bench.marks("plan", f"{steps['id']}/steps").first).to_be_attached()
    bench.step("Plan")
    bench.tool("Rail")
    bench.click(0.0, -4000.0)
    bench.click(2500.0, -4000.0)
    (rail,) = held(bench, "rails")
    assert rail["x2"] - rail["x1"] == pytest.approx(2500.0, abs=60.0) and rail["base"]["level"] == "floor"
    expect(bench.marks("view", f"{rail['id']}/rail_bars").first).to_be_attached()
    bench.page.keyboard.press("Escape")
    for _ in range(2):
        bench.search("Undo")
        bench.saved()
    assert held(bench, "rails") == [] and held(bench, "outside_steps") == []


def test_walls_of_a_bay_are_unfolded(bench: Bench) -> None:
    """Three walls of a bay, selected on the plan by a box, stand side by side in a view of their own."""
    bench.open("wrenfold")
    bench.step("Plan")
    foot = 304.8
    start, end = bench.at(4.5 * foot, 1.5 * foot), bench.at(15.5 * foot, -4.0 * foot)
    bench.page.keyboard.down("Shift")
    bench.page.mouse.move(*start)
    bench.page.mouse.down()
    bench.page.mouse.move((start[0] + end[0]) / 2, (start[1] + end[1]) / 2, steps=2)
    bench.page.mouse.move(*end, steps=2)
    bench.page.mouse.up()
    bench.page.keyboard.up("Shift")
    expect(bench.page.get_by_label("Particulars")).to_contain_text("and 2 more")
    bench.step("Elevations")
    bench.page.get_by_role("toolbar").get_by_role("button", name="Unfold these walls").click()
    bench.saved()
    bench.shows("Unfolded 1")
    (view,) = held(bench, "elevations")
    assert view["walls"] == ["bay-w", "bay-s", "bay-e"]
    expect(bench.marks("view", "bay-s/cladding").first).to_be_attached()
    bench.search("Undo")
    bench.saved()


def test_lettering_of_a_plan_is_moved_ranked_tidied_and_its_strings_switched(bench: Bench) -> None:
    """The name of a room is dragged, listed, given a rank, put back with all the rest; a string is left out."""
    bench.open("fernacre")
    bench.step("Plan")
    bench.ready()
    plan = bench.page.get_by_test_id("plan")
    name = plan.locator("text", has_text="Bathroom")
    expect(name).to_be_visible()
    before = name.bounding_box()
    assert before
    x, y = before["x"] + before["width"] / 2, before["y"] + before["height"] / 2
    bench.page.mouse.move(x, y)
    bench.page.mouse.down()
    bench.page.mouse.move(x - 20, y + 5, steps=4)
    bench.page.mouse.move(x - 40, y + 10, steps=4)
    bench.page.mouse.up()
    bench.saved()
    after = name.bounding_box()
    assert after and after["x"] - before["x"] == pytest.approx(-40, abs=4)
    bench.page.mouse.click(after["x"] + after["width"] / 2, after["y"] + after["height"] / 2)
    pick(bench.page.get_by_label("Where there is no room for all"), "first")
    bench.saved()
    (show,) = [each for each in held(bench, "shows") if each["view"] == "plan"]
    assert show["annotations"][0]["rank"] == "first"
    bench.page.get_by_role("button", name="Lettering", exact=True).click()
    panel = bench.page.get_by_label("Lettering of the plan")
    expect(panel.get_by_label("Changed lettering")).to_contain_text("moved, stays first")
    panel.get_by_role("button", name="Tidy this view").click()
    bench.saved()
    (show,) = [each for each in held(bench, "shows") if each["view"] == "plan"]
    assert [each["dx"] for each in show["annotations"]] == [0.0] and show["annotations"][0]["rank"] == "first"
    back = name.bounding_box()
    # It stands first now, so that the best place may be another than before.
    assert back and back["x"] == pytest.approx(before["x"], abs=20)
    figures = plan.locator('text[data-key^="string:bottom:openings"]')
    assert figures.count() > 3
    panel.get_by_label("openings, bottom").click()
    bench.saved()
    expect(figures).to_have_count(0)
    panel.get_by_label("openings, bottom").click()
    bench.saved()
    (show,) = [each for each in held(bench, "shows") if each["view"] == "plan"]
    assert show["strings"] == []
    bench.until(lambda: figures.count() > 3)


def test_lettering_is_as_large_on_the_screen_as_on_paper_at_every_zoom(bench: Bench) -> None:
    """Nearer, the same letters stand at a larger scale; none is ever blown up or shrunk to be read."""
    bench.open("larkmoor")
    bench.step("Plan")
    number = bench.page.get_by_test_id("plan").locator('text[data-key="number:w1"]')

    def reads() -> bool:
        """Letters of 2 mm, at 2.6 to 5.7 px per mm of paper, as tall as their line."""
        box = number.bounding_box()
        return box is not None and 7.0 < box["height"] < 23.0

    for _ in range(4):
        bench.until(reads)
        x, y = bench.at(3000.0, 0.0)
        bench.page.mouse.move(x, y)
        bench.page.mouse.wheel(0, -500)


def test_two_fingers_on_a_touchpad_bring_the_drawing_nearer_and_not_the_page(bench: Bench) -> None:
    bench.open("quillback")
    bench.step("Plan")
    page = bench.page
    wide = bench.at(3000.0, 0.0)[0] - bench.at(0.0, 0.0)[0]
    page.mouse.move(*bench.at(1500.0, 0.0))
    page.keyboard.down("Control")  # what a touchpad sends for a pinch
    for _ in range(3):
        page.mouse.wheel(0, -40)
    page.keyboard.up("Control")
    bench.until(lambda: bench.at(3000.0, 0.0)[0] - bench.at(0.0, 0.0)[0] > wide * 1.2)
    assert page.evaluate("visualViewport.scale") == 1
    assert bench.errors == []
