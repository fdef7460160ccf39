"""Moving, copying, mirroring, turning, aligning in the browser; outlines, mouldings, ground, grid, levels."""

from __future__ import annotations

import math
from typing import Any

import pytest
from playwright.sync_api import expect

from tests.e2e.conftest import Bench, pick
from tests.e2e.test_selecting import boxed_house, held

near = pytest.approx


def one(bench: Bench, collection: str, id: str) -> dict[str, Any]:
    return next(element for element in held(bench, collection) if element["id"] == id)


def ends(bench: Bench, wall: dict[str, Any]) -> list[tuple[float, float]]:
    joints = {joint["id"]: joint for joint in held(bench, "joints")}
    return [(joints[wall[end]]["x"], joints[wall[end]]["y"]) for end in ("start", "end")]


def partition(bench: Bench, x: float) -> dict[str, Any]:
    """A free-standing inner wall from (x, 1500) up, 2 m long, and selected."""
    before = {wall["id"] for wall in held(bench, "walls")}
    bench.tool("Inner wall")
    pick(bench.page.get_by_label("How walls are drawn"), "chain")
    bench.click(x, 1500)
    bench.page.mouse.move(*bench.at(x, 3000))
    bench.type_length("2m")
    bench.page.keyboard.press("Enter")
    bench.saved()
    bench.tool("Select")
    bench.click(x, 2300)
    return next(wall for wall in held(bench, "walls") if wall["id"] not in before)


def test_a_wall_is_moved_copied_and_turned_by_typed_values(bench: Bench) -> None:
    boxed_house(bench, "Moving")
    page = bench.page
    wall = partition(bench, 2000)
    page.get_by_role("toolbar", name="Options of the tool").get_by_role("button", name="Move").click()
    bench.click(2000, 1500)
    page.mouse.move(*bench.at(3500, 1500))
    bench.type_length("1250")
    assert [x for x, _ in ends(bench, wall)] == near([3250, 3250])
    expect(page.get_by_role("heading", name="Inner wall")).to_be_visible()

    page.get_by_role("button", name="Copy", exact=True).click()
    page.get_by_label("How many copies").fill("2")
    bench.click(3250, 1500)
    page.mouse.move(*bench.at(4000, 1500))
    bench.type_length("900")
    inner = [one for one in held(bench, "walls") if one["status"] == "inner"]
    assert sorted(ends(bench, copy)[0][0] for copy in inner) == near([3250, 4150, 5050])

    # The same again, by one key: copies that fall on the first ones are refused in words.
    page.keyboard.press("r")
    expect(page.get_by_text("these two walls lie on top of each other").first).to_be_visible()
    assert len(held(bench, "walls")) == 7
    bench.button("Undo").click()
    bench.saved()
    assert len(held(bench, "walls")) == 5

    page.get_by_role("button", name="Turn", exact=True).click()
    bench.click(3250, 1500)
    bench.type_length("30")
    (x0, y0), (x1, y1) = ends(bench, wall)
    assert (x0, y0) == near((3250, 1500))
    assert math.degrees(math.atan2(y1 - y0, x1 - x0)) == near(120), "counter-clockwise from straight up"


def test_a_wall_is_mirrored_and_aligned_with_a_face(bench: Bench) -> None:
    boxed_house(bench, "Mirrored")
    page = bench.page
    wall = partition(bench, 2000)
    page.get_by_role("button", name="Mirror", exact=True).click()
    pick(page.get_by_label("The original"), "keep")
    bench.click(4000, 1000)
    bench.type_length("90")
    inner = [one for one in held(bench, "walls") if one["status"] == "inner"]
    assert sorted(ends(bench, copy)[0][0] for copy in inner) == near([2000, 6000])

    page.get_by_role("button", name="Align", exact=True).click()
    bench.click(2000 - 60, 2400)
    bench.click(140, 2400)
    (x, _), _ = ends(bench, wall)
    assert 100 < x < 400, "its outer face lies in a face of the west wall"
    bench.button("Undo").click()
    bench.saved()
    assert ends(bench, wall)[0][0] == near(2000)


def test_a_corner_is_rounded_in_one_gesture(bench: Bench) -> None:
    boxed_house(bench, "Rounded")
    bench.click(4000, 60)
    bench.enter("Round its east corner, radius", "9m")
    expect(bench.page.get_by_text("takes more than one of the walls has")).to_be_visible()
    bench.enter("Round its east corner, radius", "1500")
    arcs = [wall for wall in held(bench, "walls") if wall["bulge"]]
    assert len(arcs) == 1 and abs(arcs[0]["bulge"]) == near(math.tan(math.pi / 8))


def test_a_wall_is_drawn_by_its_outline(bench: Bench) -> None:
    bench.open("hollin")
    bench.step("Plan")
    page = bench.page
    before = len(held(bench, "walls"))
    bench.tool("Inner wall")
    pick(page.get_by_label("How walls are drawn"), "outline")
    for point in ((3000, 2000), (4200, 2000), (4200, 2600), (3400, 3200)):
        bench.click(*point)
    page.keyboard.press("Enter")
    bench.saved()
    made = held(bench, "walls")[before]
    assert len(made["outline"]) == 4 and made["make_up"] == "wall-stone"
    expect(bench.field("Outline, along: out")).to_be_visible()
    bench.enter("Outline, along: out", "0: 0, 500")
    expect(page.get_by_text("is no corner")).to_be_visible()


def test_mouldings_are_added_and_typed(bench: Bench) -> None:
    boxed_house(bench, "Plinth")
    bench.click(4000, 60)
    bench.button("Add a plinth").click()
    bench.saved()
    south = next(wall for wall in held(bench, "walls") if wall["mouldings"])
    bench.enter("Plinth, out: up", "0: 0, 90: 0, 60: 500, 0: 540")
    assert one(bench, "walls", south["id"])["mouldings"][0]["section"][2] == {"out": 60, "up": 500}
    expect(bench.marks("view", f"{south['id']}/moulding/").first).to_be_attached()
    bench.enter("Plinth, out: up", "0: 0, -5: 0, 0: 9")
    expect(bench.page.get_by_text("no corner lies inside the wall")).to_be_visible()
    bench.enter("Whole wall leans out, degrees", "twelve")
    expect(bench.page.get_by_text("is no angle")).to_be_visible()
    bench.button("Take the plinth off").click()
    bench.saved()
    assert one(bench, "walls", south["id"])["mouldings"] == []


def test_the_ground_slopes_and_steps(bench: Bench) -> None:
    boxed_house(bench, "Ground")
    page = bench.page
    bench.step("Heights")
    line = page.get_by_test_id("view").locator('[data-feature="ground"]').first
    flat = page.get_by_test_id("view").inner_html()
    bench.tool("Ground height")
    bench.click(0, -1000)
    page.mouse.move(*bench.at(7000, -1000))
    bench.type_length("-600")
    bench.click(8000, -1000)
    spots = held(bench, "spots")
    assert [spot["rise"] for spot in spots] == [0, -600]
    bench.until(lambda: page.get_by_test_id("view").inner_html() != flat)
    assert line is not None
    expect(bench.field("Above grade")).to_have_value("-600")
    bench.tool("Ground step")
    bench.click(-800, 600)
    bench.click(-800, 3000)
    assert len(held(bench, "steps")) == 1
    bench.button("Higher on the other side").click()
    bench.saved()
    assert held(bench, "steps")[0]["y1"] > held(bench, "steps")[0]["y2"]


def test_a_level_is_tried_in_the_views_before_it_is_taken(bench: Bench) -> None:
    bench.open("quillback")
    bench.step("Heights")
    page = bench.page
    bench.search("Level: Plate")
    version = page.request.get(f"{bench.url}/api/projects/quillback").json()["version"]

    def wall() -> str | None:
        return bench.marks("view", "south/cladding").first.get_attribute("d")

    before = wall()
    total = page.get_by_label("Particulars").get_by_label("above Main floor, in all")
    total.fill("10'")
    bench.until(lambda: wall() != before)
    assert page.request.get(f"{bench.url}/api/projects/quillback").json()["version"] == version, "nothing is kept"
    total.press("Escape")
    bench.until(lambda: wall() == before)
    assert page.request.get(f"{bench.url}/api/projects/quillback").json()["version"] == version

    # The same from the ladder: a part is shown as it is typed, and taken with Enter.
    page.get_by_label("Height ladder").get_by_role("button", name="sole").first.click()
    entry = page.get_by_label("Height ladder").get_by_role("textbox")
    entry.fill('6"')
    bench.until(lambda: wall() != before)
    assert page.request.get(f"{bench.url}/api/projects/quillback").json()["version"] == version
    entry.press("Escape")
    bench.until(lambda: wall() == before)


def test_grid_lines_are_named_and_snapped_to(bench: Bench) -> None:
    boxed_house(bench, "Grid")
    page = bench.page
    bench.tool("Grid line")
    bench.click(3000, -900)
    bench.type_length("90")
    bench.click(-900, 2500)
    bench.type_length("0")
    assert [(line["name"], line["angle"]) for line in held(bench, "grid")] == [("1", 90), ("A", 0)]
    bench.tool("Post")
    bench.click(3010, 2490)
    post = held(bench, "posts")[0]
    assert (post["x"], post["y"]) == near((3000, 2500), abs=1e-6)
    assert page.get_by_test_id("plan").get_by_text("A", exact=True).count() >= 2, "a bubble at both ends"


def test_a_wall_of_another_storey_is_not_meant_silently(bench: Bench) -> None:
    bench.open("otterfold")
    bench.step("Plan")
    page = bench.page
    walls, joints = held(bench, "walls"), {joint["id"]: joint for joint in held(bench, "joints")}
    select = page.get_by_label("Storey of the plan")
    lower, upper = "Main floor plan", "Upper floor plan"
    pick(select, label=upper)
    level = {wall["base"]["level"] for wall in walls}
    assert len(level) == 2
    shown = select.get_attribute("data-value")
    # A wall of the other storey, well away from all walls of the one that is shown.
    here = [w for w in walls if w["base"]["level"] == shown and "x" in joints[w["start"]]]
    own = [(joints[w["start"]], joints[w["end"]]) for w in here]
    for wall in walls:
        a, b = joints[wall["start"]], joints[wall["end"]]
        if wall["base"]["level"] == shown or "x" not in a or "x" not in b:
            continue
        x, y = (a["x"] * 3 + b["x"]) / 4, (a["y"] * 3 + b["y"]) / 4
        if all(_far(x, y, p, q) for p, q in own if "x" in q):
            break
    else:
        pytest.skip("every wall stands under another one")
    bench.tool("Window")
    page.mouse.move(*bench.at(x, y))
    page.mouse.click(*bench.at(x, y))
    expect(page.get_by_text(f"This wall stands on {lower.removesuffix(' plan')}").first).to_be_visible()


def _far(x: float, y: float, p: dict[str, float], q: dict[str, float]) -> bool:
    length = math.hypot(q["x"] - p["x"], q["y"] - p["y"]) or 1.0
    dx, dy = (q["x"] - p["x"]) / length, (q["y"] - p["y"]) / length
    along = min(max((x - p["x"]) * dx + (y - p["y"]) * dy, 0.0), length)
    return math.hypot(x - p["x"] - dx * along, y - p["y"] - dy * along) > 1500
