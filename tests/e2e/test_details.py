"""Junctions are listed and lit up, their details drawn with one action, looked at, cut elsewhere, and printed."""

from __future__ import annotations

import re

from playwright.sync_api import expect

from .conftest import Bench, pick


def test_the_details_of_a_house_are_drawn_with_one_action(bench: Bench) -> None:
    bench.open("fernacre")
    bench.step("Details")
    bench.button("Junctions").click()
    panel = bench.page.get_by_label("Junctions of the house")
    expect(panel.get_by_role("heading", name="eaves")).to_be_visible()
    panel.get_by_label("eaves").get_by_role("listitem").first.hover()
    panel.get_by_role("button", name="Draw a detail of sill 1").click()
    bench.saved()
    (sill,) = bench.document()["details"]  # type: ignore[misc]
    assert sill["kind"] == "sill" and sill["along"] is None

    panel.get_by_role("button", name="Draw the details of this house").click()
    bench.saved()
    details = bench.document()["details"]
    assert len(details) > 15  # type: ignore[arg-type]
    expect(panel.get_by_role("button", name="Draw the details of this house")).to_have_count(0)
    panel.get_by_label("feet of outer walls").get_by_role("button").first.click()
    bench.ready()
    foot = next(held for held in details if held["kind"] == "wall_foot")  # type: ignore[union-attr,index,call-overload]
    bench.shows(f"Detail {foot['name']}")
    expect(bench.page.get_by_test_id("view").get_by_text("150 concrete slab")).to_be_visible()

    # It is cut elsewhere, and further out; what cannot be is said.
    bench.enter("Shows below it", "300")
    bench.enter("Along its run", "99m")
    expect(bench.page.get_by_text("past the end of its foot of an outer wall")).to_be_visible()
    bench.button("Undo").click()
    bench.saved()
    bench.enter("Shows above it", "-20")
    expect(bench.page.get_by_text("must be more than")).to_be_visible()
    bench.page.keyboard.press("Escape")
    bench.page.get_by_role("button", name="The next detail").click()
    bench.ready()
    assert bench.page.get_by_role("heading", name=f"Detail {foot['name']}", exact=True).count() == 0

    # Above stands the plan, with the number of each detail at its place: one leads to another.
    key = bench.page.get_by_label("Key plan")
    eave = next(held["name"] for held in details if held["kind"] == "eave")  # type: ignore[union-attr,index,call-overload]
    expect(key.get_by_role("button")).to_have_count(len(details))  # type: ignore[arg-type]
    key.get_by_role("button", name=f"Detail {eave}", exact=True).click()
    bench.shows(f"Detail {eave}")
    expect(key.get_by_role("button", name=f"Detail {eave}", exact=True)).to_have_attribute("aria-pressed", "true")

    # A jamb is cut level: its fields say so, and the plan has its window, which leads back to it.
    panel_of = bench.page.get_by_label("Particulars")
    bench.button("Junctions").click()
    panel.get_by_label("jambs", exact=True).get_by_role("button").first.click()
    bench.ready()
    jamb = next(held for held in details if held["kind"] == "jamb")  # type: ignore[union-attr,index,call-overload]
    bench.shows(f"Detail {jamb['name']}")
    expect(bench.page.get_by_test_id("view").get_by_text("insulated closer, fire-stopping the cavity")).to_be_visible()
    expect(panel_of.get_by_text("thermal closes")).to_be_visible()
    bench.enter("Up its run", "1500")
    bench.enter("Shows along the wall", "500")
    bench.saved()

    def own() -> tuple[object, object]:
        """How far up it is cut, and how much of the wall it shows."""
        held = next(one for one in bench.document()["details"] if one["id"] == jamb["id"])  # type: ignore[index,union-attr,call-overload]
        return held["along"], held["above"]

    assert own() == (1500.0, 500.0)
    bench.step("Plan")
    bench.ready()
    box = bench.marks("plan", f"{jamb['id']}/section/").first.bounding_box()
    assert box is not None
    # Beside its thin line is near enough.
    bench.page.mouse.click(box["x"] + box["width"] - 3, box["y"] + box["height"] / 2 + 2)
    panel_of.get_by_role("button", name="Open this detail").click()
    bench.shows(f"Detail {jamb['name']}")
    bench.ready()
    for wanted in ((1500.0, None), (None, None)):
        bench.button("Undo").click()
        bench.until(lambda wanted=wanted: own() == wanted)  # type: ignore[misc]

    # One step of history took all of them.
    for _ in range(2):
        bench.button("Undo").click()
        bench.saved()
    assert [held["kind"] for held in bench.document()["details"]] == ["sill"]  # type: ignore[index,union-attr]
    assert bench.errors == []


def test_a_build_up_is_chosen_set_switched_and_seen_to_be_open(bench: Bench) -> None:
    bench.open("fernacre")
    bench.step("Details")
    bench.button("Junctions").click()
    panel = bench.page.get_by_label("Junctions of the house")
    expect(panel.get_by_label("sills").get_by_text("Stone sill")).to_be_visible()
    panel.get_by_role("button", name="Draw a detail of foot of an outer wall 1").click()
    bench.saved()
    panel.get_by_title(re.compile("foot of an outer wall$")).click()
    bench.ready()
    built = bench.page.get_by_label("How it is built")
    expect(built.get_by_text("Taken for: cavity wall")).to_be_visible()
    expect(built.get_by_role("button", name="thermal closes")).to_be_visible()

    # A parameter, beyond its limits and within them; it counts for all that are built alike.
    depth = built.get_by_label("Cavity kept clear below the damp-proof course")
    depth.fill("90")
    depth.press("Enter")
    expect(built.get_by_text("from 150 to 600")).to_be_visible()
    assert bench.document()["build_ups"] == []
    depth.fill("300")
    depth.press("Enter")
    bench.saved()
    settings = bench.document()["build_ups"]
    assert len(settings) == 6 and {held["values"][0]["value"] for held in settings} == {300.0}  # type: ignore[index,arg-type,union-attr,attr-defined]
    expect(bench.page.get_by_test_id("view").get_by_text("lean concrete in the cavity to 300")).to_be_visible()
    built.get_by_role("button", name="Cavity kept clear below the damp-proof course: as usual").click()
    bench.saved()
    assert bench.document()["build_ups"] == []

    # A piece is lit up, and left out: its line is open, measured, and drawn on demand.
    built.get_by_text("course of load-bearing insulating block").hover()
    expect(bench.page.locator("[data-lit]")).to_have_count(1)
    built.get_by_role("switch", name="course of load-bearing insulating block").click()
    bench.saved()
    expect(built.get_by_text("The thermal line is open by 100")).to_be_visible()
    built.get_by_role("button", name="thermal open").click()
    bench.saved()
    expect(bench.page.get_by_test_id("view").get_by_text("thermal open 100")).to_be_visible()

    # Another build-up fits elsewhere alone, and says why.
    built.get_by_label("Build-up").click()
    expect(bench.page.get_by_role("option", name="it is built under a framed wall").first).to_be_disabled()
    bench.page.keyboard.press("Escape")
    for _ in range(2):
        bench.button("Undo").click()
        bench.saved()
    expect(built.get_by_role("button", name="thermal closes")).to_be_visible()
    assert [text for text in bench.errors if "422" not in text] == []


def test_the_lines_of_a_roof_are_built_and_a_closed_ridge_is_felt_at_the_eaves(bench: Bench) -> None:
    """An L with hips, a gable, a valley and an inner wall from its inside corner, drawn from nothing."""
    bench.new("Lines", "mm")
    bench.step("Plan")
    bench.tool("Outer wall")
    bench.click(0, 0)
    for key, text in (("Right", "12m"), ("Up", "6m"), ("Left", "6m"), ("Up", "5m"), ("Left", "6m")):
        bench.page.keyboard.press(f"Arrow{key}")
        bench.type_length(text)
    bench.click(0, 0)
    bench.tool("Inner wall")
    bench.click(6000, 6000)
    bench.click(6000, 0)
    bench.page.keyboard.press("Escape")
    bench.step("Roof")
    bench.roof("hip")
    bench.click(3000, 3000)
    pick(bench.page.get_by_label("Edge 2 of the roof"), "gable")
    bench.saved()
    bench.step("Details")
    bench.button("Junctions").click()
    panel = bench.page.get_by_label("Junctions of the house")
    for kind, words in (
        ("rakes", "Barge on lookouts"), ("ridges", "Vent strip under caps"), ("hips", "Caps"),
        ("valleys", "Open, lined with metal"), ("walls on walls", "On a backer"),
    ):  # fmt: skip
        expect(panel.get_by_label(kind, exact=True).get_by_text(words, exact=True).first).to_be_visible()
    panel.get_by_role("button", name="Draw the details of this house").click()
    bench.saved()

    # With the ridge closed the eaves are asked for twice as much: 1/150 of some 98 m2 on 40 m of them, 16 mm2 per mm.
    # A strip of 40 lets in 15 (9 sq in per ft of 2 in).
    panel.get_by_label("eaves", exact=True).get_by_role("button").first.click()
    bench.ready()
    built = bench.page.get_by_label("How it is built")
    expect(built.get_by_role("button", name="weather closes")).to_be_visible()
    width = built.get_by_label("Width of the vent strip")
    width.fill("40")
    width.press("Enter")
    bench.saved()
    expect(built.get_by_text("1/150 of the attic")).to_have_count(0)
    bench.button("Junctions").click()
    panel.get_by_label("ridges", exact=True).get_by_role("button").first.click()
    bench.ready()
    view = bench.page.get_by_test_id("view")
    expect(view.get_by_text("vent strip over a slot of 25.4 each side").first).to_be_visible()
    pick(built.get_by_label("Build-up"), "ridge-closed")
    bench.saved()
    bench.ready()
    expect(view.get_by_text("underlay lapped 152.4 over the ridge").first).to_be_visible()
    bench.button("Junctions").click()
    panel.get_by_label("eaves", exact=True).get_by_role("button").first.click()
    bench.ready()
    expect(built.get_by_text("1/150 of the attic").first).to_be_visible()
    assert bench.errors == []


def test_a_detail_is_shown_with_all_of_its_notes(bench: Bench) -> None:
    """Whatever its notes take at the scale of its zoom, none runs under the ladder or out of the bench."""
    bench.open("quillback")
    bench.step("Details")
    page = bench.page
    page.get_by_role("button", name="Junctions").click()
    page.get_by_role("button", name="Draw the details of this house").click()
    bench.saved()
    page.keyboard.press("Escape")
    ladder = page.get_by_role("region", name="Height ladder")
    notes = page.get_by_test_id("view").locator("text")

    def within() -> bool:
        rungs, whole = ladder.bounding_box(), page.get_by_role("main", name="Bench").bounding_box()
        boxes = [box for box in (held.bounding_box() for held in notes.all()) if box]
        assert rungs and whole
        left, right = rungs["x"] + rungs["width"], whole["x"] + whole["width"]
        return bool(boxes) and all(left <= box["x"] and box["x"] + box["width"] <= right for box in boxes)

    for _ in range(6):
        page.get_by_role("button", name="The next detail").click()
        bench.ready()
        bench.until(within)
    bench.button("Undo").click()
    bench.saved()
    assert bench.errors == []
