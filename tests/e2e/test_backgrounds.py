"""Files under views on screen: dropped, scaled by a length, straightened, cropped, traced, printed."""

from __future__ import annotations

import io
import math
import re
from typing import Any

import ezdxf
from playwright.sync_api import Locator, expect
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from tests.e2e.conftest import Bench, pick
from tests.e2e.files import drop, upload
from tests.formats.test_pictures import dxf_file, png_file

TURN, DRAWN = 2.0, 75.0
"""A scan: turned by so many degrees, and drawn at 1:75."""
WIDE, DEEP = 9600.0, 7200.0


def scan() -> bytes:
    """A page of 420 by 297 mm with the outline of a house on it, its first corner at (60, 70), and a sheet frame."""
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=(420 * mm, 297 * mm))
    canvas.rect(10 * mm, 10 * mm, 400 * mm, 277 * mm)
    canvas.translate(60 * mm, 70 * mm)
    canvas.rotate(TURN)
    canvas.rect(0, 0, WIDE / DRAWN * mm, DEEP / DRAWN * mm)
    canvas.drawString(20 * mm, 40 * mm, "Kitchen")
    canvas.showPage()
    canvas.save()
    return out.getvalue()


def corner(x: float, y: float) -> tuple[float, float]:
    """A point of the house (mm) on the page (mm)."""
    c, s = math.cos(math.radians(TURN)) / DRAWN, math.sin(math.radians(TURN)) / DRAWN
    return 60 + c * x - s * y, 70 + s * x + c * y


CORNERS = [corner(x, y) for x, y in ((0, 0), (WIDE, 0), (WIDE, DEEP), (0, DEEP))]


def under(bench: Bench) -> dict[str, Any]:
    (found,) = bench.document()["backgrounds"]  # type: ignore[misc]
    held: dict[str, Any] = found
    return held


def on_view(held: dict[str, Any], point: tuple[float, float]) -> tuple[float, float]:
    c, s = (f(math.radians(held["turn"])) * held["scale"] for f in (math.cos, math.sin))
    return held["x"] + c * point[0] - s * point[1], held["y"] + s * point[0] + c * point[1]


def click_on_page(bench: Bench, picture: Locator, *points: tuple[float, float]) -> None:
    """Clicks beside points of the page, as near as a hand comes to them."""
    held = under(bench)
    for point in points:
        transform = picture.locator("> g").first.get_attribute("transform")
        box = picture.bounding_box()
        assert transform and box
        tu, tv, k = (float(value) for value in re.findall(r"-?\d+(?:\.\d+)?(?:e-?\d+)?", transform)[:3])
        u, v = on_view(held, point)
        bench.page.mouse.click(box["x"] + tu + u * k + 3, box["y"] + tv - v * k - 2)


def test_a_scan_is_brought_to_its_place_and_traced(bench: Bench) -> None:
    bench.new("Traced", "mm")
    page = bench.page
    drop(page, "weir cottage.pdf", scan())
    side = page.get_by_label("Backgrounds of the view")
    expect(side.get_by_label("Name", exact=True)).to_have_value("weir cottage")
    picture = page.get_by_role("img", name="Main floor plan with what lies under it")
    expect(picture.locator("image")).to_be_attached()

    bench.button("Straighten it").click()
    expect(page.get_by_test_id("asks")).to_contain_text("one end of a line")
    click_on_page(bench, picture, *CORNERS[:2])
    bench.saved()
    assert math.isclose(under(bench)["turn"], -TURN, abs_tol=1e-3)

    bench.button("Set its scale by a length").click()
    click_on_page(bench, picture, *CORNERS[:2])
    known = side.get_by_label("They are apart")
    known.fill("far")
    known.press("Enter")
    expect(side.get_by_role("alert")).to_contain_text("far")
    known.fill("9.6m")
    known.press("Enter")
    bench.saved()
    assert math.isclose(under(bench)["scale"], DRAWN, rel_tol=1e-5)

    bench.button("Crop it").click()
    click_on_page(bench, picture, corner(-1500, -1500), corner(WIDE + 1500, DEEP + 1500))
    bench.saved()
    expect(side.get_by_role("button", name="Show all of the page")).to_be_visible()
    bench.button("Close").click()

    # Its corners are snapped to from beside them.
    bench.step("Plan")
    bench.tool("Outer wall")
    held = under(bench)
    wanted = [on_view(held, point) for point in CORNERS]
    k = abs(bench.at(1000, 0)[0] - bench.at(0, 0)[0]) / 1000
    u, w = wanted[0]
    bench.click(u + 4 / k, w - 3 / k)
    bench.page.keyboard.press("ArrowRight")
    bench.type_length("9600")
    u, w = wanted[2]
    k = abs(bench.at(1000, 0)[0] - bench.at(0, 0)[0]) / 1000
    bench.click(u - 4 / k, w + 3 / k)
    bench.page.keyboard.press("Enter")
    bench.saved()
    joints = [(joint["x"], joint["y"]) for joint in bench.document()["joints"]]  # type: ignore[attr-defined]
    for point in wanted[:3]:
        assert min(math.dist(point, joint) for joint in joints) < 0.5

    # The plan prints without it until it is to be printed.
    address = f"{bench.url}/api/projects/{page.url.rsplit('/', 1)[1]}/views/plan/file?format=dxf"
    plain = ezdxf.read(io.StringIO(page.request.get(address).text()))
    assert not [e for e in plain.modelspace() if e.dxf.layer == "BACKGROUND"]
    bench.search("Backgrounds: a file under Main floor plan")
    pick(side.get_by_label("Printed", exact=True), "yes")
    bench.saved()
    printed = ezdxf.read(io.StringIO(page.request.get(address).text()))
    assert [e for e in printed.modelspace() if e.dxf.layer == "BACKGROUND"]
    bench.button("Remove this background").click()
    bench.saved()
    assert bench.document()["backgrounds"] == []
    expect(side).to_contain_text("Drop a plan or an elevation here")


def test_an_elevation_is_laid_on_points_of_the_house(bench: Bench) -> None:
    bench.open("quillback")
    page = bench.page
    drop(page, "old front.png", png_file(dpi=60), "view")
    side = page.get_by_label("Backgrounds of the view")
    expect(side.get_by_label("Name", exact=True)).to_have_value("old front")
    assert under(bench)["view"] == "elevation:south"
    picture = page.get_by_role("img", name="South elevation with what lies under it")
    before = under(bench)
    # Its lower edge onto points of the house, wherever these are: the first by a click, and no more.
    bench.button("Lay it on points of the house").click()
    click_on_page(bench, picture, (0, 0), (100, 60))
    bench.button("Only move it").click()
    bench.saved()
    after = under(bench)
    assert after["scale"] == before["scale"] and (after["x"], after["y"]) != (before["x"], before["y"])
    bench.button("Lay it on points of the house").click()
    click_on_page(bench, picture, (0, 0), (50, 20), (200, 0), (150, 60))
    bench.saved()
    turned = under(bench)
    assert turned["scale"] != after["scale"] and turned["turn"] != after["turn"]
    bench.button("Close").click()
    expect(page.get_by_test_id("view").locator("[data-backdrop] image")).to_be_attached()
    # Its particulars are those of any element, and undo takes back step by step.
    bench.button("Undo").click()
    bench.saved()
    assert under(bench) == after


def test_what_is_dragged_in_an_elevation_comes_to_lie_on_its_background(bench: Bench) -> None:
    """An elevation of the house as it stands: a sill and a jamb in it are where the window goes, not the grid."""
    bench.open("quillback")
    page = bench.page
    bench.step("Elevations")
    document = ezdxf.new(units=4)
    frame = ((0, 0), (12_000, 0), (12_000, 5000), (0, 5000))
    document.modelspace().add_lwpolyline(frame, close=True)
    document.modelspace().add_line((3000, 1500), (4000, 1500))
    document.modelspace().add_line((3000, 1500), (3000, 2600))
    out = io.StringIO()
    document.write(out)
    drop(page, "front.dxf", out.getvalue().encode(), "view")
    side = page.get_by_label("Backgrounds of the view")
    expect(side.get_by_label("Name", exact=True)).to_have_value("front")
    held = next(held for held in bench.document()["openings"] if held["id"] == "w2")  # type: ignore[attr-defined]
    # It is brought there by its particulars: its sill 423.4 below that of the window, its jamb 611.1 to the left.
    sill, jamb = 1168.4, 7467.6
    for label, at in (("Corner, along", jamb - 611.1 - 3000), ("Corner, up", sill - 423.4 - 1500)):
        side.get_by_label(label, exact=True).fill(f"{at}mm")
        side.get_by_label(label, exact=True).press("Enter")
        bench.saved()
    bench.button("Close").click()
    laid = under(bench)
    bench.drag((jamb + 60, sill + 200), (jamb + 60, sill + 200 - 480), "view")
    after = next(held for held in bench.document()["openings"] if held["id"] == "w2")  # type: ignore[attr-defined]
    assert math.isclose(after["sill"] - held["sill"], laid["y"] + 1500 - sill, abs_tol=0.05)
    bench.drag((jamb + 660, sill + 300), (jamb + 660 - 700, sill + 300), "view")
    aside = next(held for held in bench.document()["openings"] if held["id"] == "w2")  # type: ignore[attr-defined]
    assert math.isclose(aside["distance"] - held["distance"], laid["x"] + 3000 - jamb, abs_tol=0.05)
    # Where it is not to be snapped to, the window goes by whole inches.
    bench.search("Backgrounds: a file under South elevation")
    pick(side.get_by_label("Snapped to"), label="no")
    bench.saved()
    bench.button("Close").click()
    bench.drag((jamb - 300, sill + 300), (jamb - 300, sill + 300 + 320), "view")
    free = next(held for held in bench.document()["openings"] if held["id"] == "w2")  # type: ignore[attr-defined]
    assert math.isclose((free["sill"] - after["sill"]) % 25.4, 0.0, abs_tol=0.01)


def test_a_drawing_lies_under_the_plan_instead_of_being_read(bench: Bench) -> None:
    bench.new("Under", "mm")
    page = bench.page
    drop(page, "survey.dxf", dxf_file(by=90.0))
    bench.button("Only lay it under the plan").click()
    side = page.get_by_label("Backgrounds of the view")
    expect(side).to_contain_text("Unit found: mm")
    held = under(bench)
    assert held["scale"] == 1.0 and held["counts"] == "drawing"
    picture = page.get_by_role("img", name="Main floor plan with what lies under it")
    expect(picture.get_by_text("Kitchen")).to_be_attached()
    page.get_by_label("Background file").set_input_files(upload("letter.txt", b"Dear neighbour"))  # type: ignore[arg-type]
    expect(side.get_by_role("alert")).to_contain_text("neither DXF, PDF, SVG, PNG nor JPEG")
    assert under(bench) == held
    page.keyboard.press("Escape")
    expect(page.get_by_test_id("plan").locator("[data-backdrop]")).to_be_attached()
