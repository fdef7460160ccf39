"""Plans from files on screen: judged, corrected, taken over, read again."""

from __future__ import annotations

import dataclasses
import random
import re

from playwright.sync_api import Route, expect

from tests.core.adopting.test_changed import EAST, stretched
from tests.e2e.conftest import Bench, pick
from tests.e2e.files import drop, upload
from tests.models_by_hand import gable_slopes, roofed, two_storeys
from tests.plans_drawn import dirt
from tests.plans_drawn.manners import as_bytes, drawn
from tests.plans_drawn.truth import houses
from tests.plans_drawn.two_storeys import SCREEN
from tests.plans_drawn.two_storeys import two_storeys as plans_of_two


def test_a_plan_from_a_file_stands_in_all_views(bench: Bench) -> None:
    """Chosen, judged, corrected by clicks, taken over as one step; looked at from all sides; undone."""
    bench.new("From a file", "mm")
    bench.search("Read a plan from a file: DXF or IFC")
    page = bench.page
    house = houses()[0]
    page.get_by_label("Plan file").set_input_files(upload("broken.dxf", b"0"))  # type: ignore[arg-type]
    expect(page.get_by_role("alert")).to_contain_text("not a DXF file")
    page.get_by_label("Plan file").set_input_files(upload("cottage.dxf", as_bytes(drawn(house, "everything"))))  # type: ignore[arg-type]
    found = page.get_by_label("What was found")
    expect(found).to_contain_text("7 walls, 11 openings, 4 rooms")
    expect(found.get_by_label("Unit", exact=True)).to_contain_text("mm, 99 % sure")
    expect(found.get_by_label("Left over")).to_contain_text("lines")
    picture = page.get_by_label("Plan in the file")
    inner = picture.locator('[data-found^="wall:"]').last
    inner.hover()
    expect(page.get_by_test_id("pointed")).to_contain_text("meets walls at both ends")
    picture.locator('[data-found="opening:0"]').click()
    expect(found).to_contain_text("7 walls, 10 openings")
    picture.locator('[data-found="opening:0"]').click()
    expect(found).to_contain_text("7 walls, 11 openings")
    pick(page.get_by_label("Make-up of walls 120 inner"), "wall-inner")
    found.get_by_label("The drawing, under the plan").check()
    bench.button("Take over").click()
    expect(page.get_by_text("Built 7 walls, 11 openings, 4 rooms.")).to_be_visible()
    bench.saved()
    document = bench.document()
    assert len(document["walls"]) == 7 and len(document["openings"]) == 11
    assert sum(wall["make_up"] == "wall-inner" for wall in document["walls"]) == 3
    assert [held["name"] for held in document["backgrounds"]] == ["cottage"]
    expect(page.get_by_test_id("plan").locator("[data-backdrop]")).to_be_attached()
    for side in ("north", "west", "south", "east"):
        page.get_by_role("button", name=f"{side} side").click()
        bench.shows(f"{side.capitalize()} elevation")
    expect(page.get_by_test_id("view").locator('[data-part$="/frame//"]').first).to_be_attached()
    bench.button("Undo").click()
    bench.saved()
    assert bench.document()["walls"] == bench.document()["backgrounds"] == []


def test_a_dropped_plan_is_scaled_by_two_points_and_its_layers_are_remembered(bench: Bench) -> None:
    bench.new("Dropped", "mm")
    page = bench.page
    data = as_bytes(drawn(houses()[0], "layered"))
    drop(page, "attic.dxf", data)
    found = page.get_by_label("What was found")
    expect(found).to_contain_text("7 walls")
    picture = page.get_by_label("Plan in the file")
    bench.button("Scale by two points").click()
    walls = picture.locator('[data-found^="wall:"]')
    box = picture.bounding_box()
    assert box is not None
    for x in (0.2, 0.8):
        page.mouse.click(box["x"] + box["width"] * x, box["y"] + box["height"] * 0.5)
    page.get_by_label("Length between the two points").fill("far")
    bench.button("Set").click()
    expect(page.get_by_role("alert")).to_contain_text("far")
    pick(page.get_by_label("Unit of the file"), "mm")
    expect(walls).to_have_count(7)
    pick(page.get_by_label("What layer L04 is"), "nothing")
    expect(found).to_contain_text("11 openings")
    bench.button("Take over").click()
    bench.saved()
    drop(page, "attic.dxf", data)
    expect(page.get_by_label("What layer L04 is")).to_have_attribute("data-value", "nothing")
    expect(found).to_contain_text("0 walls, 0 openings")
    expect(found.get_by_label("Read again")).to_contain_text("7 of its walls stand already")
    expect(bench.button("Take over")).to_be_disabled()
    page.keyboard.press("Escape")
    expect(page.get_by_label("What was found")).to_have_count(0)


def test_a_changed_plan_is_followed(bench: Bench) -> None:
    """The east side lies farther out in the file now, and a window is gone from it: each is told, chosen, done."""
    bench.new("Changed", "mm")
    page, house = bench.page, houses()[0]
    drop(page, "first.dxf", as_bytes(drawn(house, "pairs")))
    found = page.get_by_label("What was found")
    expect(found).to_contain_text("7 walls, 11 openings")
    bench.button("Take over").click()
    bench.saved()
    before = bench.document()
    wider = stretched(house, EAST, 900.0)
    drop(page, "second.dxf", as_bytes(drawn(dataclasses.replace(wider, openings=wider.openings[1:]), "pairs")))
    again = found.get_by_label("Read again")
    expect(again).to_contain_text("Outer wall")
    moved = again.get_by_label("moved by 900")
    expect(moved).to_be_checked()
    expect(page.get_by_test_id("moved")).to_have_count(1)
    expect(page.get_by_test_id("gone")).to_have_count(1)
    gone = again.get_by_role("checkbox", name=re.compile("^(Window|Door) "))
    expect(gone).not_to_be_checked()
    gone.check()
    bench.button("Take over").click()
    bench.saved()
    expect(page.get_by_text("Built 1 moved, 1 removed.")).to_be_visible()
    after = bench.document()
    assert {wall["id"] for wall in after["walls"]} == {wall["id"] for wall in before["walls"]}  # type: ignore[attr-defined]
    assert len(after["openings"]) == len(before["openings"]) - 1  # type: ignore[arg-type]
    wide = [max(joint["x"] for joint in held["joints"] if joint["kind"] == "free") for held in (before, after)]  # type: ignore[attr-defined]
    assert abs(wide[1] - wide[0] - 900.0) < 1.0
    bench.button("Undo").click()
    bench.saved()
    assert bench.document() == before
    # A window that is taken out by hand stays out when the file is read once more, unless that is unticked.
    window = next(held["id"] for held in before["openings"] if held["unit"] == "window")  # type: ignore[attr-defined]
    bench.marks("plan", f"{window}/").first.click(force=True)
    page.keyboard.press("Delete")
    bench.saved()
    drop(page, "first.dxf", as_bytes(drawn(house, "pairs")))
    own = again.get_by_label("not in the project")
    expect(own).to_be_checked()
    expect(found).to_contain_text("0 walls, 0 openings")
    own.uncheck()
    expect(found).to_contain_text("0 walls, 1 opening")
    bench.button("Take over").click()
    bench.saved()
    assert len(bench.document()["openings"]) == len(before["openings"])  # type: ignore[arg-type]
    drop(page, "other.dxf", as_bytes(drawn(houses()[1], "pairs")))
    expect(found).to_contain_text("another house stands where this plan lies")
    expect(bench.button("Take over")).to_be_disabled()


def test_a_turned_plan_is_laid_square_and_followed_there(bench: Bench) -> None:
    """Drawn at 17 degrees, laid square: read once more, it is known there and brings no news.

    What is taken over is not called saved before it is.
    """
    bench.new("Turned", "mm")
    page, data = bench.page, as_bytes(drawn(houses()[0].turned(17.0), "pairs"))
    drop(page, "turned.dxf", data)
    found = page.get_by_label("What was found")
    pick(found.get_by_label("How the plan is laid"), label="walls square: 17° to the right")
    late: list[Route] = []
    page.route("**/plan?*", lambda route: late.append(route))
    bench.button("Take over").click()
    bench.until(lambda: bool(late))
    expect(page.get_by_label("saved state")).to_have_text("saving…")
    page.unroute("**/plan?*")
    bench.saved()
    joints = {held["id"]: held for held in bench.document()["joints"]}  # type: ignore[attr-defined]
    for wall in bench.document()["walls"]:  # type: ignore[attr-defined]
        one, other = joints[wall["start"]], joints[wall["end"]]
        if wall["status"] == "outer":
            assert min(abs(one["x"] - other["x"]), abs(one["y"] - other["y"])) < 1.0
    drop(page, "turned.dxf", data)
    expect(found).to_contain_text("the house stands turned by 17.0° to the right")
    expect(found).to_contain_text("0 walls, 0 openings")
    expect(found.get_by_label("How the plan is laid")).to_have_count(0)
    expect(found.get_by_label("Read again").get_by_role("checkbox")).to_have_count(0)


def test_a_model_stands_with_its_storeys(bench: Bench) -> None:
    """Two storeys of another hand, dropped into an empty project: taken over, with a storey made for the upper one."""
    bench.new("Model", "mm")
    page = bench.page
    drop(page, "house.ifc", two_storeys("IFC2X3", 1000.0))
    found = page.get_by_label("What was found")
    expect(found).to_contain_text("10 walls, 10 openings, 2 rooms")
    expect(found.get_by_label("Unit", exact=True)).to_contain_text("the model says so (IFC2X3)")
    expect(found.get_by_label("Left over")).to_contain_text("slabs")
    expect(found.get_by_label("Unit of the file")).to_have_count(0)
    expect(bench.button("Only lay it under the plan")).to_have_count(0)
    bench.button("Take over").click()
    expect(page.get_by_text("Built 10 walls, 10 openings, 2 rooms.")).to_be_visible()
    bench.saved()
    document = bench.document()
    assert len(document["walls"]) == 10 and len(document["floors"]) == 1  # type: ignore[arg-type]
    bench.step("Elevations")
    expect(page.get_by_test_id("view").locator('[data-part$="/frame//"]').first).to_be_attached()
    bench.button("Undo").click()
    bench.saved()
    assert bench.document()["walls"] == [] and bench.document()["floors"] == []


def test_what_was_not_found_is_pointed_at_and_two_plans_are_a_house(bench: Bench) -> None:
    """A screen on the layer of furniture is said to be a wall, an opening marked in it; then two storeys stand."""
    bench.new("Two storeys", "mm")
    page = bench.page
    drop(page, "house.dxf", plans_of_two())
    found = page.get_by_label("What was found")
    expect(found).to_contain_text("12 walls, 17 openings, 6 rooms, 1 stair")
    expect(found.get_by_label("Heights written in it")).to_contain_text("FFL +0.00, FFL +2.90")
    picture = page.get_by_label("Plan in the file")
    box = picture.bounding_box()
    assert box

    def click(x: float, y: float) -> None:
        """On a place of the drawing, which is that of the plan: its lower left corner is the origin."""
        numbers = re.findall(r"-?[\d.]+(?:e-?\d+)?", picture.locator("g").first.get_attribute("transform") or "")
        tx, ty, k = (float(held) for held in numbers[:3])
        page.mouse.click(box["x"] + tx + k * x, box["y"] + ty - k * y)

    bench.button("Wall").click()
    expect(page.get_by_test_id("pointed")).to_contain_text("between the two faces")
    click(*SCREEN)
    expect(found).to_contain_text("13 walls")
    bench.button("Door").click()
    click(SCREEN[0], SCREEN[1] - 500)
    expect(page.get_by_test_id("pointed")).to_contain_text("the other end")
    click(SCREEN[0], SCREEN[1] + 400)
    expect(found).to_contain_text("13 walls, 18 openings")
    bench.button("Door").click()
    picture.locator('[data-found="stair:0"]').hover(position={"x": 8, "y": 20})
    expect(page.get_by_test_id("pointed")).to_contain_text("Stair, 17 risers")
    bench.button("Take over").click()
    expect(page.get_by_text("Built 13 walls, 18 openings, 6 rooms, 1 stair.")).to_be_visible()
    bench.saved()
    document = bench.document()
    (stair,) = document["stairs"]
    assert (stair["risers"], stair["upper"]) == (17, "s2-floor")
    doors = [held for held in document["openings"] if held["unit"] == "door" and abs(held["width"] - 900) < 40]
    assert doors and bench.errors == []


def test_a_model_stands_with_its_roof_and_the_rest_beside_it(bench: Bench) -> None:
    bench.new("Roofed model", "mm")
    page = bench.page
    drop(page, "house.ifc", roofed(gable_slopes(0.7, 5650.0)))
    found = page.get_by_label("What was found")
    expect(found).to_contain_text("8 walls")
    expect(page.get_by_test_id("roof")).to_have_count(1)
    expect(found.get_by_label("Roofs, those that can be built as the model has them")).to_be_checked()
    found.get_by_label("The rest of the model, grey in the solid view").check()
    bench.button("Take over").click()
    expect(page.get_by_text("Built 8 walls, 1 roof.")).to_be_visible()
    bench.saved()
    document = bench.document()
    assert len(document["roofs"]) == 1 and [held["name"] for held in document["model_bodies"]] == ["house"]
    bench.shows("South elevation")
    expect(bench.marks("view", "read1-roof1/roofing").first).to_be_attached()
    bench.search("Solid view")
    expect(page.get_by_role("main", name="Solid view")).to_have_attribute("data-groups", re.compile(r"[1-9]\d*"))
    bench.button("Undo").click()
    expect(page.get_by_role("main", name="Solid view")).to_have_attribute("data-groups", "0")
    assert bench.document()["roofs"] == bench.document()["model_bodies"] == []


def test_a_plan_drawn_by_eye_is_straightened_and_says_so(bench: Bench) -> None:
    """Ends of its lines off by 2 mm: said before it is taken over, and built as the drawing with snaps is."""
    bench.new("By eye", "mm")
    document = drawn(houses()[0], "pairs")
    dirt.by_eye(document, random.Random(1), 2.0)
    drop(bench.page, "eye.dxf", as_bytes(document))
    found = bench.page.get_by_label("What was found")
    expect(found).to_contain_text("7 walls, 11 openings, 4 rooms")
    expect(found).to_contain_text("drawn by eye")
    bench.button("Take over").click()
    expect(bench.page.get_by_text("Built 7 walls, 11 openings, 4 rooms.", exact=True)).to_be_visible()
    bench.saved()
    assert len(bench.document()["walls"]) == 7  # type: ignore[arg-type]
