"""Ways of drawing walls in the browser: rectangles, arcs, angles, the outside flipped, what remains to close."""

from __future__ import annotations

import math

import pytest
from playwright.sync_api import expect

from tests.e2e.conftest import Bench, pick

FOOT = 304.8


def walls(bench: Bench) -> list[dict[str, object]]:
    found: list[dict[str, object]] = bench.document()["walls"]  # type: ignore[assignment]
    return found


def test_a_house_with_a_bow_is_drawn_with_typed_lengths(bench: Bench) -> None:
    bench.new("Bowed", "ft-in")
    bench.step("Plan")
    bench.tool("Outer wall")
    bench.click(0, 0)
    bench.page.keyboard.press("ArrowRight")
    bench.type_length("30'")
    bench.page.keyboard.press("ArrowUp")
    bench.type_length("20'")
    bench.page.keyboard.press("a")
    bench.page.keyboard.press("ArrowLeft")
    bench.type_length("30'")
    x, y = bench.at(15 * FOOT, 24 * FOOT)
    bench.page.mouse.move(x, y)
    expect(bench.page.get_by_text("rise").first).to_be_visible()
    bench.type_length("5'")
    bench.page.keyboard.press("a")
    bench.click(0, 0)
    drawn = walls(bench)
    assert len(drawn) == 4
    arc = next(wall for wall in drawn if wall["bulge"])
    assert abs(float(str(arc["bulge"]))) == pytest.approx(2 * 5 / 30), "bulge = 2 rise / chord"

    bench.tool("Select")
    bench.button("Fit the drawings").first.click()
    x, y = bench.at(15 * FOOT, 25 * FOOT - 60)
    bench.page.mouse.click(x, y)
    expect(bench.field("Bows out by")).to_have_value("5'-0\"")
    radius = 30**2 / (8 * 5) + 5 / 2
    feet, inches = divmod(round(radius * 12 * 16) / 16, 12)
    expect(bench.field("Radius, set-out line")).to_have_value(f"{int(feet)}'-{inches:g}\"")
    bench.enter("Radius, set-out line", "20'")
    rise = 20 - math.sqrt(20**2 - 15**2)
    arc = next(wall for wall in walls(bench) if wall["bulge"])
    assert abs(float(str(arc["bulge"]))) == pytest.approx(2 * rise / 30, rel=1e-4)
    bench.enter("Radius, set-out line", "10'")
    expect(bench.page.get_by_text("at least half its chord")).to_be_visible()
    bench.page.get_by_label("Particulars").get_by_role("button", name="Make it straight").click()
    bench.saved()
    assert all(not wall["bulge"] for wall in walls(bench))


def test_a_rectangle_is_typed_and_its_outside_flipped(bench: Bench) -> None:
    bench.new("Boxes", "mm")
    bench.step("Plan")
    bench.tool("Outer wall")
    pick(bench.page.get_by_label("How walls are drawn"), "rectangle")
    bench.click(0, 0)
    x, y = bench.at(500, 500)
    bench.page.mouse.move(x, y)
    bench.type_length("9.6m")
    bench.type_length("7200")
    first = walls(bench)
    assert len(first) == 4 and {wall["outside"] for wall in first} == {"right"}
    bench.click(12_000, 0)
    x, y = bench.at(12_500, 500)
    bench.page.mouse.move(x, y)
    bench.page.keyboard.press("f")
    bench.type_length("3m")
    bench.type_length("2m")
    assert {wall["outside"] for wall in walls(bench)[4:]} == {"left"}


def test_an_angle_is_typed_beside_the_length(bench: Bench) -> None:
    bench.new("Angles", "mm")
    bench.step("Plan")
    bench.tool("Outer wall")
    bench.click(0, 0)
    page = bench.page
    page.keyboard.press("4")
    entry = page.get_by_label("length of this wall")
    expect(entry).to_be_focused()
    page.keyboard.type("000")
    page.keyboard.press("Tab")
    expect(page.get_by_label("angle of this wall")).to_be_focused()
    page.keyboard.type("sharp")
    page.keyboard.press("Enter")
    expect(page.get_by_text("An angle is degrees")).to_be_visible()
    page.get_by_label("angle of this wall").fill("30")
    page.keyboard.press("Enter")
    expect(entry).to_be_hidden()
    page.keyboard.press("Enter")
    bench.saved()
    joints = [(joint["x"], joint["y"]) for joint in bench.document()["joints"]]  # type: ignore[attr-defined]
    assert joints[1] == pytest.approx((4000 * math.cos(math.pi / 6), 2000))


def test_what_remains_to_close_is_read_at_the_pointer(bench: Bench) -> None:
    bench.new("Closing", "mm")
    bench.step("Plan")
    bench.tool("Outer wall")
    for u, w in ((0, 0), (9000, 0), (9000, 6000)):
        bench.click(u, w)
    x, y = bench.at(4000, 6000)
    bench.page.mouse.move(x, y)
    expect(bench.page.get_by_text("4000 across to close")).to_be_visible()
    expect(bench.page.get_by_text("6000 deep to close")).to_be_visible()
