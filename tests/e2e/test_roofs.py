"""Roofs in the browser: proposed with one click, changed edge by edge, dormers, the roof plan, the solid view."""

from __future__ import annotations

from typing import Any

import pytest
from playwright.sync_api import expect

from tests.e2e.conftest import Bench, pick
from tests.e2e.test_selecting import boxed_house, held

near = pytest.approx


def the_roof(bench: Bench) -> dict[str, Any]:
    return held(bench, "roofs")[0]


def kinds(bench: Bench) -> list[str]:
    return [edge["kind"] for edge in the_roof(bench)["edges"]]


def test_a_hip_over_an_l_with_a_bay_takes_one_click(bench: Bench) -> None:
    bench.new("Hipped", "mm")
    bench.step("Plan")
    bench.tool("Outer wall")
    bench.click(0, 0)
    for key, text in (("Right", "12m"), ("Up", "6m"), ("Left", "6m"), ("Up", "6m"), ("Left", "6m")):
        bench.page.keyboard.press(f"Arrow{key}")
        bench.type_length(text)
    bench.click(0, 0)
    bench.tool("Bay")
    pick(bench.page.get_by_label("Shape of the bay"), "angled")
    bench.click(8500, 0)
    bench.step("Roof")
    bench.roof("hip")
    bench.click(3000, 3000)
    assert len(kinds(bench)) == 10 and set(kinds(bench)) == {"eave"}
    plan = bench.page.get_by_test_id("plan")
    # Five outside corners of the L, two of the bay, and where the two slanting sides of the bay meet.
    expect(plan.locator('[data-feature="hip"]')).to_have_count(8)
    expect(plan.locator('[data-feature="valley"]')).to_have_count(3)
    expect(bench.marks("view", f"{the_roof(bench)['id']}/roofing").first).to_be_attached()
    bench.button("Undo").click()
    bench.saved()
    assert held(bench, "roofs") == []


def test_edges_are_changed_on_the_plan(bench: Bench) -> None:
    boxed_house(bench, "Edges")
    bench.step("Roof")
    bench.roof("hip")
    bench.click(4000, 3000)
    expect(bench.page.get_by_label("Edge 2 of the roof")).to_have_attribute("data-value", "eave")
    pick(bench.page.get_by_label("Edge 2 of the roof"), "gable")
    bench.saved()
    assert kinds(bench) == ["eave", "gable", "eave", "eave"]
    pick(bench.page.get_by_label("Edge 4 of the roof"), "half_hip")
    bench.saved()
    assert the_roof(bench)["edges"][3]["height"] == near(750), "half of the rise of 1500"
    bench.enter("Pitch", "35°")
    bench.enter("Hip starts above the eaves", "900")
    assert the_roof(bench)["edges"][3]["height"] == 900
    pick(bench.page.get_by_label("Edge 1 of the roof"), "gable")
    bench.saved()
    pick(bench.page.get_by_label("Edge 3 of the roof"), "gable")
    expect(bench.page.get_by_text("at least one edge is an eave").first).to_be_visible()
    assert kinds(bench).count("eave") == 1, "nothing was half applied"


def test_an_edge_of_a_roof_is_dragged_and_the_elevation_follows(bench: Bench) -> None:
    boxed_house(bench, "Dragged edge")
    bench.step("Roof")
    bench.roof("hip")
    bench.click(4000, 3000)
    roofing = bench.marks("view", f"{the_roof(bench)['id']}/roofing").first
    before = roofing.bounding_box()
    bench.drag((8000 + 412, 4300), (8000 + 1412, 4300), drop=False)
    assert before
    bench.until(lambda: (roofing.bounding_box() or before)["width"] > before["width"] + 5)
    assert the_roof(bench)["outline"][1]["joint"], "nothing is kept before the drop"
    bench.page.mouse.up()
    bench.saved()
    assert [corner["joint"] for corner in the_roof(bench)["outline"]][1:3] == [None, None]
    assert the_roof(bench)["outline"][1]["x"] == near(9000, abs=60)


def test_dormers_and_the_roof_alone(bench: Bench) -> None:
    boxed_house(bench, "Dormered")
    bench.step("Roof")
    bench.roof("gable")
    bench.click(4000, 3000)
    bench.roof("gable", "dormer")
    bench.click(3000, 600)
    bench.click(4600, 2400)
    roofs, walls = held(bench, "roofs"), held(bench, "walls")
    assert [roof["name"] for roof in roofs] == ["Main roof", "Dormer 1"] and roofs[1]["offset"] > 500
    assert sum(wall["base"]["on_roof"] for wall in walls) == 3
    bench.roof("hip", "dormer")
    bench.click(-1400, 2000)
    bench.click(-700, 3600)
    expect(bench.page.get_by_text("there is no roof here").first).to_be_visible()
    assert len(held(bench, "roofs")) == 2

    bench.tool("Select")
    bench.button("Roof plan").click()
    plan = bench.page.get_by_test_id("plan")
    expect(bench.page.get_by_role("heading", name="Roof plan")).to_be_visible()
    expect(plan.locator('[data-feature="fall"]').first).to_be_attached()
    expect(plan.get_by_text("m²").first).to_be_attached()
    expect(plan.locator('[data-feature="slope"]')).to_have_count(4)
    bench.button("On the floor plan").click()
    expect(plan.locator('[data-feature="fall"]')).to_have_count(0)


def test_the_solid_view_shows_and_selects(bench: Bench) -> None:
    boxed_house(bench, "Solid")
    bench.step("Roof")
    bench.roof("hip")
    bench.click(4000, 3000)
    bench.page.keyboard.press("Escape")
    bench.button("Solid view").click()
    solid = bench.page.get_by_role("main", name="Solid view")
    expect(solid).to_have_attribute("aria-busy", "false")
    expect(solid).not_to_have_attribute("data-groups", "0")
    box = solid.bounding_box()
    assert box
    chosen = bench.page.get_by_label("Particulars").get_by_role("heading", name="Main roof")
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] * 0.45

    def selects() -> bool:
        """A click that comes before the first picture is made meets nothing."""
        if not chosen.is_visible():
            bench.page.mouse.click(x, y)
        return chosen.is_visible()

    bench.until(selects)
    bench.button("Back to the drawings").click()
    expect(bench.page.get_by_role("main", name="Bench")).to_be_visible()


def put_on(bench: Bench, what: str, u: float, w: float) -> None:
    bench.tool("On the roof")
    pick(bench.page.get_by_label("What is put on the roof"), what)
    bench.click(u, w)


def test_a_chimney_and_what_else_stands_on_a_roof(bench: Bench) -> None:
    boxed_house(bench, "Stack")
    bench.step("Roof")
    bench.roof("gable")
    bench.click(4000, 3000)
    put_on(bench, "chimney", 2500, 1500)
    (stack,) = held(bench, "chimneys")
    assert (stack["x"], stack["y"]) == near((2500, 1500), abs=60) and stack["above"] is None
    expect(bench.marks("view", f"{stack['id']}/chimney").first).to_be_attached()
    bench.enter("Above the roof, else by the rule", "300")
    expect(bench.page.get_by_label("Particulars").get_by_text("lower than IRC R1003.9 asks")).to_be_visible()
    bench.enter("Above the roof, else by the rule", "")
    put_on(bench, "window", 5500, 1500)
    put_on(bench, "downpipe", 600, 0)
    assert [fitting["fitting"] for fitting in held(bench, "fittings")] == ["window"]
    assert len(held(bench, "downpipes")) == 1 and the_roof(bench)["gutter"] > 0
    bench.tool("Select")
    bench.page.keyboard.press("Escape")
    bench.drag((2500, 1500), (3300, 1500))
    assert held(bench, "chimneys")[0]["x"] == near(stack["x"] + 800, abs=60)
    put_on(bench, "vent", 4000, -1100)
    expect(bench.page.get_by_text("there is no roof here")).to_be_visible()
    assert len(held(bench, "fittings")) == 1


def test_a_ridge_shows_the_triangles_that_it_comes_from(bench: Bench) -> None:
    boxed_house(bench, "Proof")
    bench.step("Roof")
    bench.roof("gable")
    bench.click(4000, 3000)
    bench.tool("Select")
    line = bench.page.get_by_test_id("plan").locator('[data-feature="ridge"]').first
    box = line.bounding_box()
    assert box
    bench.page.mouse.move(box["x"] + box["width"] / 2 + 40, box["y"] + box["height"] / 2)
    triangles = bench.page.get_by_test_id("triangles")
    expect(triangles).to_be_attached()
    # Half of the span on the plan, once for each side.
    expect(triangles.locator("> g")).to_have_count(2)
    assert len(set(triangles.locator("text").all_text_contents())) >= 2
