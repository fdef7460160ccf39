"""The main job on screen: from the first wall to the printed sheet, as a new user does it."""

from __future__ import annotations

import io
import math
from typing import Any

import ezdxf
import ezdxf.recover
import pdfplumber
from playwright.sync_api import expect

from tests.e2e.conftest import pick

from .conftest import Bench

FOOT, INCH = 304.8, 25.4


def only(document: dict[str, Any], kind: str) -> dict[str, Any]:
    (found,) = document[kind]
    return found


def draw_box(bench: Bench, width: str, depth: str) -> None:
    """A rectangle of outer walls from the first corner at the plan's origin, closed by clicking it again."""
    bench.step("Plan")
    bench.tool("Outer wall")
    bench.click(0, 0)
    bench.page.keyboard.press("ArrowRight")
    bench.type_length(width)
    bench.page.keyboard.press("ArrowUp")
    bench.type_length(depth)
    bench.page.keyboard.press("ArrowLeft")
    bench.type_length(width)
    bench.click(0, 0)


def test_demo_stands_on_shared_projection_lines(bench: Bench) -> None:
    bench.open("quillback")
    for number in ("w1", "d1", "w2", "w3"):
        plan = bench.marks("plan", f"{number}/").first.bounding_box()
        view = bench.marks("view", f"{number}/frame").first.bounding_box()
        assert plan and view
        assert math.isclose(plan["x"] + plan["width"] / 2, view["x"] + view["width"] / 2, abs_tol=1.0)
    expect(bench.page.get_by_label("Height ladder")).to_contain_text("Main floor")
    expect(bench.page.get_by_label("Particulars")).to_contain_text("Quillback House")


def test_draw_a_house_in_feet_and_inches(bench: Bench) -> None:
    bench.new("Feet cottage", "ft-in")
    draw_box(bench, "34'", "12' 6 1/2\" + 12' 5 1/2\"")
    document = bench.document()
    assert len(document["walls"]) == 4
    corners = sorted((round(j["x"], 3), round(j["y"], 3)) for j in document["joints"])
    x, y = 34 * FOOT, 25 * FOOT
    assert corners == [(0, 0), (0, round(y, 3)), (round(x, 3), 0), (round(x, 3), round(y, 3))]

    bench.tool("Inner wall")
    bench.click(20 * FOOT, 0)
    bench.click(20 * FOOT, y)
    document = bench.document()
    assert sorted(wall["status"] for wall in document["walls"]) == ["inner"] + ["outer"] * 4
    assert sum(joint["kind"] == "tee" for joint in document["joints"]) == 2

    bench.tool("Window")
    bench.click(8 * FOOT, 0)
    bench.page.keyboard.press("Escape")
    expect(bench.page.get_by_label("Particulars")).to_contain_text("Window W1")
    bench.enter("Width", "3.6m - 2'")
    bench.enter("To west corner", "4' + 6 3/8\"")
    bench.enter("Height", "4'")
    bench.enter("Sill above floor", '34"')
    bench.enter("Head above floor", "6'-8\"")
    window = only(bench.document(), "openings")
    assert math.isclose(window["width"], 3600 - 2 * FOOT)
    assert math.isclose(window["distance"] - window["width"] / 2, 4 * FOOT + 6.375 * INCH)
    assert math.isclose(window["sill"] + window["height"], 80 * INCH)

    bench.tool("Door")
    pick(bench.page.get_by_label("Kind of new doors"), "door-inner")
    bench.click(16.5 * FOOT, 0)
    bench.page.keyboard.press("Escape")
    bench.drag((16.5 * FOOT, 0), (17.5 * FOOT, 0))
    door = next(held for held in bench.document()["openings"] if held["unit"] == "door")
    assert abs(door["distance"] - 17.5 * FOOT) < 3 * INCH
    bench.page.keyboard.press("Delete")
    bench.saved()
    assert len(bench.document()["openings"]) == 1

    while bench.button("Undo").is_enabled():
        bench.button("Undo").click()
        bench.saved()
    assert bench.document()["walls"] == []
    while bench.button("Redo").is_enabled():
        bench.button("Redo").click()
        bench.saved()
    document = bench.document()
    assert len(document["walls"]) == 5
    assert only(document, "openings") == window


def test_draw_an_l_shape_in_millimetres(bench: Bench) -> None:
    bench.new("Metric bungalow", "mm")
    bench.step("Plan")
    bench.tool("Outer wall")
    bench.click(0, 0)
    for key, text in (("Right", "12m"), ("Up", "650 cm"), ("Left", "5000"), ("Up", "2.5m + 500 mm"), ("Left", "7000")):
        bench.page.keyboard.press(f"Arrow{key}")
        bench.type_length(text)
    bench.click(0, 0)
    document = bench.document()
    corners = sorted((round(j["x"]), round(j["y"])) for j in document["joints"])
    assert corners == [(0, 0), (0, 9500), (7000, 6500), (7000, 9500), (12000, 0), (12000, 6500)]
    assert len(document["walls"]) == 6
    bench.step("Elevations")
    expect(bench.marks("view", document["walls"][0]["id"]).first).to_be_attached()


def test_wall_make_up_face_and_flip(bench: Bench) -> None:
    bench.new("Make-ups", "ft-in")
    draw_box(bench, "20'", "16'")
    bench.tool("Select")
    bench.click(10 * FOOT, -1 * INCH)
    wall = bench.document()["walls"][0]
    expect(bench.page.get_by_label("Particulars")).to_contain_text("Outer wall")
    bench.choose("Make-up", "2x6 frame, board and batten")
    assert bench.document()["walls"][0]["make_up"] == "wall-batten"
    bench.page.get_by_role("button", name="Set out on the inside of 2x6 studs").click()
    bench.saved()
    assert bench.document()["walls"][0]["set_out"] == {"layer": "frame", "face": "inner"}
    expect(bench.page.get_by_label("Particulars")).to_contain_text("set-out face: inside of 2x6 studs")
    bench.button("Flip outside and inside").click()
    bench.saved()
    assert bench.document()["walls"][0]["outside"] != wall["outside"]


def test_heights_by_part_and_by_total(bench: Bench) -> None:
    bench.open("quillback")
    bench.step("Heights")
    bench.page.get_by_label("Height ladder").get_by_role("button", name="Plate").first.click()
    expect(bench.field("stud")).to_have_value("7'-8 5/8\"")
    bench.enter("stud", '104 5/8"')
    expect(bench.field("Above Main floor, in all")).to_have_value("9'-1 1/8\"")
    bench.enter("Above Main floor, in all", "8'")
    expect(bench.field("stud")).to_have_value("7'-7 1/2\"")
    bench.field("Above Main floor, in all").fill("-3'")
    bench.field("Above Main floor, in all").press("Enter")
    expect(bench.page.get_by_role("alert")).to_contain_text("must be more than the other parts")
    for _ in range(2):
        bench.button("Undo").click()
        bench.saved()


def test_roof_four_sides_section_and_sheet(bench: Bench) -> None:
    bench.new("Whole job", "ft-in")
    draw_box(bench, "30'", "24'")
    bench.step("Roof")
    bench.roof("gable", "rectangle")
    bench.click(0, 0)
    bench.click(30 * FOOT, 24 * FOOT)
    expect(bench.page.get_by_label("Particulars")).to_contain_text("Main roof")
    bench.enter("Pitch", "33.69 deg")
    bench.enter("Pitch", "8:12")
    bench.enter("Eave overhang", '18"')
    bench.enter("Fascia depth", '5 1/2"')
    roof = only(bench.document(), "roofs")
    assert math.isclose(roof["pitch"], 8 / 12)
    bench.button("Turn the ridge the other way").click()
    bench.saved()
    assert [edge["kind"] for edge in only(bench.document(), "roofs")["edges"]] == ["gable", "eave", "gable", "eave"]
    bench.button("Undo").click()
    bench.saved()

    bench.step("Elevations")
    for side in ("east", "north", "west", "south"):
        bench.page.get_by_role("button", name=f"{side} side").click()
        bench.shows(f"{side.capitalize()} elevation")
        expect(bench.marks("view", f"{roof['id']}/").first).to_be_attached()

    bench.step("Sections")
    bench.tool("Section line")
    bench.click(10 * FOOT, -4 * FOOT)
    bench.click(10 * FOOT, 29 * FOOT)
    bench.shows("Section A")
    expect(bench.marks("view", "foundation/footing").first).to_be_attached()
    section = only(bench.document(), "sections")

    bench.step("Sheets")
    for view in ("South elevation", "Section A"):
        pick(bench.page.get_by_label("View to place", exact=True), label=view)
        pick(bench.page.get_by_label("Scale of the view to place"), "96")
        bench.button("Place this view").click()
        bench.saved()
    sheet = only(bench.document(), "sheets")
    assert [placed["view"] for placed in sheet["placed"]] == ["elevation:south", f"section:{section['id']}"]
    pick(bench.page.get_by_label("Scale of Section A"), "64")
    bench.saved()
    pick(bench.page.get_by_label("Paper", exact=True), "A3")
    bench.saved()

    files = {}
    for kind in ("PDF", "DXF", "SVG", "PNG"):
        with bench.page.expect_download() as waiting:
            bench.page.get_by_role("link", name=kind).click()
        files[kind] = waiting.value.path().read_bytes()
    with pdfplumber.open(io.BytesIO(files["PDF"])) as pdf:
        page = pdf.pages[0]
        assert math.isclose(float(page.width) / 72 * 25.4, 420, abs_tol=0.01)
        lengths = [(line["x1"] - line["x0"]) / 72 * 25.4 for line in page.lines]
        assert any(math.isclose(length, 100.0, abs_tol=0.001) for length in lengths)
        assert "Whole job" in page.extract_text()
    document, auditor = ezdxf.recover.read(io.BytesIO(files["DXF"]))
    assert not auditor.errors and not auditor.fixes
    assert document.modelspace().query("HATCH")
    assert files["PNG"].startswith(b"\x89PNG") and files["SVG"].startswith(b"<svg")


def test_drag_follows_before_it_is_kept(bench: Bench) -> None:
    bench.open("quillback")
    before = bench.document()
    frame = bench.marks("view", "w2/frame").first
    start = frame.bounding_box()
    window = next(held for held in before["openings"] if held["id"] == "w2")
    middle = (window["distance"], 1500.0)
    bench.drag(middle, (middle[0] + 600, 1500.0), "view", drop=False)
    assert start
    bench.until(lambda: (frame.bounding_box() or start)["x"] > start["x"] + 8)
    assert bench.document() == before
    bench.page.mouse.up()
    bench.saved()
    assert next(h for h in bench.document()["openings"] if h["id"] == "w2")["distance"] > window["distance"] + 300
    bench.button("Undo").click()
    bench.saved()


def test_section_line_is_dragged_and_may_miss(bench: Bench) -> None:
    bench.open("quillback")
    bench.step("Sections")
    line = next(held for held in bench.document()["sections"] if held["id"] == "section-a")
    looking = (-line["y1"] - 1200, line["x1"])
    bench.drag(looking, (looking[0], looking[1] + 1524))
    moved = next(held for held in bench.document()["sections"] if held["id"] == "section-a")
    assert abs(moved["x1"] - line["x1"] - 1524) < 60 and moved["x1"] == moved["x2"]
    bench.button("Undo").click()
    bench.saved()
    bench.drag(looking, (looking[0], looking[1] - 5200))
    expect(bench.page.get_by_role("status").filter(has_text="Section A misses the house")).to_be_visible()
    bench.button("Undo").click()
    bench.saved()
    expect(bench.marks("view", "foundation/footing").first).to_be_attached()


def test_pointing_explains_a_height(bench: Bench) -> None:
    bench.open("quillback")
    ridge = bench.document()
    assert ridge["roofs"]
    x, y = bench.at(4000, 5668.2, "view")
    bench.page.mouse.move(x, y + 30)
    bench.page.mouse.move(x, y)
    card = bench.page.get_by_role("tooltip")
    expect(card).to_contain_text("over half span")
    expect(card).to_contain_text("18'-7 3/16\"")
    expect(bench.page.get_by_test_id("projection-lines").locator("line").first).to_be_attached()


def test_a_lower_gable_runs_into_the_main_roof(bench: Bench) -> None:
    bench.new("Two roofs", "mm")
    bench.step("Plan")
    bench.tool("Outer wall")
    bench.click(0, 0)
    for key, text in (("Right", "12m"), ("Up", "6m"), ("Left", "7m"), ("Up", "4m"), ("Left", "5m")):
        bench.page.keyboard.press(f"Arrow{key}")
        bench.type_length(text)
    bench.click(0, 0)
    bench.step("Roof")
    for a, b in (((0, 0), (12000, 6000)), ((0, 6000), (5000, 10000))):
        bench.roof("gable", "rectangle")
        bench.click(*a)
        bench.click(*b)
    main, leg = bench.document()["roofs"]
    assert [edge["kind"] for edge in main["edges"]] == ["eave", "gable", "eave", "gable"]
    assert [edge["kind"] for edge in leg["edges"]] == ["joined", "eave", "gable", "eave"]
    expect(bench.page.get_by_label("Edge 1 of the roof")).to_have_attribute("data-value", "joined")
    bench.step("Elevations")
    bench.page.get_by_role("button", name="north side").click()
    bench.shows("North elevation")
    expect(bench.marks("view", f"{leg['id']}/barge").first).to_be_attached()


def test_a_masonry_house_from_its_starter(bench: Bench) -> None:
    bench.page.goto(bench.url)
    bench.page.get_by_label("Name", exact=True).fill("Cavity house")
    bench.button("Masonry").click()
    bench.button("Start drawing").click()
    bench.ready()
    draw_box(bench, "9.2m", "6800")
    document = bench.document()
    assert document["tradition"] == "masonry" and {wall["make_up"] for wall in document["walls"]} == {"wall-cavity"}
    bench.tool("Window")
    bench.click(3000, 0)
    bench.page.keyboard.press("Escape")
    expect(bench.field("Set in from")).to_have_text("outside of outer leaf")
    expect(bench.field("Set in by")).to_have_value("70")
    bench.step("Roof")
    bench.roof("gable", "rectangle")
    bench.click(0, 0)
    bench.click(9200, 6800)
    bench.enter("Pitch", "30 deg")
    bench.step("Sections")
    bench.tool("Section line")
    bench.click(3000, -1500)
    bench.click(3000, 8300)
    for part in ("wall_plate", "lintel"):
        expect(bench.marks("view", f"{document['walls'][0]['id']}/{part}").first).to_be_attached()


def test_a_wall_is_dragged_and_the_house_follows(bench: Bench) -> None:
    """The west wall, 1 m outward: the elevation grows before the drop, neighbours stretch, the roof goes along."""
    bench.new("Dragged", "mm")
    draw_box(bench, "8m", "6m")
    bench.step("Roof")
    bench.roof("gable", "rectangle")
    bench.click(0, 0)
    bench.click(8000, 6000)
    bench.step("Plan")
    before = bench.document()
    west = next(
        w for w in before["walls"] if {w["start"], w["end"]} == {j["id"] for j in before["joints"] if j["x"] == 0}
    )
    wide = bench.marks("view", f"{before['roofs'][0]['id']}/roofing").first.bounding_box()
    bench.drag((70, 2000), (-930, 2000), drop=False)
    assert wide
    roofing = bench.marks("view", f"{before['roofs'][0]['id']}/roofing").first
    bench.until(lambda: (roofing.bounding_box() or wide)["width"] > wide["width"] + 10)
    assert bench.document() == before, "nothing is kept before the drop"
    bench.page.mouse.up()
    bench.saved()
    after = bench.document()
    moved = {j["id"]: j["x"] for j in after["joints"]}
    assert moved[west["start"]] == moved[west["end"]] and abs(moved[west["start"]] + 1000) < 60
    assert sorted(x for x in moved.values() if x > 0) == [8000, 8000]


def test_a_second_storey_from_its_floor_to_the_sheet(bench: Bench) -> None:
    page = bench.page
    page.goto(bench.url)
    page.get_by_label("Name", exact=True).fill("Two up")
    bench.button("Joists over a crawl space").click()
    bench.button("Start drawing").click()
    bench.ready()
    draw_box(bench, "30'", "24'")
    bench.step("Heights")
    bench.button("Add a storey above Main floor").click()
    bench.saved()
    document = bench.document()
    assert len(document["walls"]) == 8 and len(document["floors"]) == 2
    storey = page.get_by_label("Storey of the plan")
    expect(storey).to_have_attribute("data-value", "s2-floor")
    expect(bench.marks("view", "s2-w1/cladding").first).to_be_attached()

    bench.step("Plan")
    bench.tool("Window")
    bench.click(8 * FOOT, 0)
    page.keyboard.press("Escape")
    assert only(bench.document(), "openings")["wall"].startswith("s2-")
    pick(storey, "floor")
    expect(bench.marks("plan", only(bench.document(), "openings")["id"])).to_have_count(0)
    bench.search("Select window W1")
    expect(storey).to_have_attribute("data-value", "s2-floor")

    bench.step("Roof")
    bench.roof("gable", "rectangle")
    bench.click(0, 0)
    bench.click(30 * FOOT, 24 * FOOT)
    assert only(bench.document(), "roofs")["plate"] == "s2-plate"
    bench.step("Sections")
    bench.tool("Section line")
    bench.click(12 * FOOT + 8 * INCH, -4 * FOOT)
    bench.click(12 * FOOT + 8 * INCH, 29 * FOOT)
    bench.choose("Rafters and joists behind the cut", "shown")
    for part in ("s2-joists/joist", "main-floor/rim_joist", "foundation/sill_plate"):
        expect(bench.marks("view", part).first).to_be_attached()

    bench.step("Sheets")
    for view in ("Main floor plan", "Upper floor plan"):
        pick(page.get_by_label("View to place", exact=True), label=view)
        bench.button("Place this view").click()
        bench.saved()
    placed = [held["view"] for held in only(bench.document(), "sheets")["placed"]]
    assert placed == ["plan", "plan:s2-floor"]

    bench.step("Heights")
    bench.search("Level: Upper floor")
    bench.enter("2x10 joists", '11 1/4"')
    make_up = next(held for held in bench.document()["make_ups"] if held["id"] == "floor-joists")
    assert math.isclose(make_up["layers"][1]["thickness"], 11.25 * INCH)
    bench.button("Remove this storey").click()
    expect(storey).to_have_count(0)
    bench.saved()
    document = bench.document()
    assert len(document["walls"]) == 4 and only(document, "roofs")["plate"] == "plate"
    bench.step("Sheets")
    expect(page.get_by_role("main")).to_contain_text("no longer in this project")
    bench.button("Undo").click()
    bench.saved()
    assert len(bench.document()["walls"]) == 8


def test_a_make_up_is_edited_on_its_strip(bench: Bench) -> None:
    """A copy of the wall's make-up, thicker and with a layer more: only the wall that uses it changes."""
    bench.new("Strip", "mm")
    draw_box(bench, "9m", "6m")
    facts = bench.page.get_by_label("Particulars")
    bench.search("Select outer wall 1")
    bench.button("Edit this make-up").click()
    expect(facts).to_contain_text("used 4 times")
    bench.button("Copy it as a new make-up").click()
    bench.saved()
    bench.search("Select make-up 140 frame, lap boards, copy")
    expect(facts).to_contain_text("used 0 times")
    facts.get_by_role("button", name="140 studs", exact=True).click()
    bench.enter("Thickness", "184")
    facts.get_by_role("button", name="sheathing").click()
    bench.button("Add a layer inside of it").click()
    bench.saved()
    facts.get_by_role("button", name="new board").click()
    bench.choose("Material", "Rigid insulation")
    bench.choose("Function", "insulation")
    bench.enter("Thickness", "-5")
    expect(facts.get_by_role("alert")).to_contain_text("more than")
    bench.field("Thickness").press("Escape")
    bench.enter("Thickness", "40")
    bench.search("Select outer wall 1")
    bench.choose("Make-up", "140 frame, lap boards, copy")
    document = bench.document()
    own = next(held for held in document["make_ups"] if held["id"] == document["walls"][0]["make_up"])
    assert [layer["thickness"] for layer in own["layers"]] == [20, 0.5, 12, 40, 184, 0.2, 12.5]
    assert {wall["make_up"] for wall in document["walls"][1:]} == {"wall-lap"}
    expect(bench.marks("view", f"{document['walls'][0]['id']}/").first).to_be_attached()
