"""Refresh docs/screenshots from the demo: each main view at 1280 x 800, and a sheet as it prints."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

ROOT = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(ROOT))
from tests.e2e.conftest import pick  # noqa: E402
from tests.plans_drawn.manners import as_bytes, drawn  # noqa: E402
from tests.plans_drawn.truth import houses  # noqa: E402

TARGET = ROOT / "docs" / "screenshots"
QUIET = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"]


@contextmanager
def served() -> Iterator[str]:
    """The address of a server of our own, on a new database."""
    with tempfile.TemporaryDirectory() as folder, socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
        probe.close()
        environment = {**os.environ, "DEEPSECTION_DATABASE": f"sqlite:///{folder}/data.db"}
        command = [sys.executable, "-m", "deepsection.cli", "serve", "--port", str(port)]
        with subprocess.Popen(command, env=environment, stdout=subprocess.DEVNULL) as process:
            address = f"http://127.0.0.1:{port}"
            try:
                for _ in range(100):
                    try:
                        urllib.request.urlopen(f"{address}/api/projects").close()
                        break
                    except OSError:
                        time.sleep(0.1)
                yield address
            finally:
                process.kill()


def step(page: Page, name: str) -> None:
    page.get_by_label("Steps").get_by_role("button", name=name).click()
    page.wait_for_timeout(1500)


def search(page: Page, action: str) -> None:
    page.keyboard.press("/")
    page.keyboard.type(action)
    page.wait_for_timeout(300)
    page.keyboard.press("Enter")
    page.wait_for_timeout(900)


def select(page: Page, action: str) -> None:
    search(page, action)
    page.mouse.click(640, 790)


def shoot(page: Page, address: str) -> None:
    """Every picture, in the order of the tour."""

    def picture(name: str) -> None:
        page.screenshot(path=str(TARGET / f"{name}.png"))

    page.goto(address)
    page.wait_for_timeout(800)
    # The pictures of houses in sight are drawn when they are asked for.
    for image in page.get_by_role("img").all()[:5]:
        image.evaluate("image => image.decode()")
    picture("projects")
    page.goto(f"{address}/project/quillback")
    page.wait_for_timeout(2500)
    select(page, "Select window W2")
    picture("elevation")
    step(page, "Plan")
    page.get_by_role("button", name="Tools: walls").click()
    page.get_by_role("menuitem", name="Inner wall").click()
    picture("plan")
    page.keyboard.press("Escape")
    select(page, "Select make-up 2x6 frame, lap boards")
    page.get_by_label("Particulars").get_by_role("button", name="2x6 studs", exact=True).click()
    page.wait_for_timeout(600)
    picture("make-up")
    step(page, "Heights")
    page.get_by_label("Height ladder").get_by_role("button", name="Plate").first.click()
    page.wait_for_timeout(600)
    picture("heights")
    step(page, "Sections")
    page.get_by_role("button", name="A", exact=True).click()
    page.wait_for_timeout(1500)
    picture("section")
    page.goto(f"{address}/project/fernacre")
    page.wait_for_timeout(2500)
    step(page, "Sections")
    page.get_by_role("button", name="1", exact=True).click()
    page.wait_for_timeout(2500)
    picture("wall-section")
    step(page, "Details")
    page.get_by_role("button", name="Junctions", exact=True).click()
    page.get_by_role("button", name="Draw the details of this house").click()
    page.wait_for_timeout(4000)
    page.get_by_label("eaves").get_by_role("button").first.click()
    page.wait_for_timeout(2500)
    picture("details")
    page.goto(f"{address}/project/quillback")
    page.wait_for_timeout(2500)
    step(page, "Sheets")
    page.wait_for_timeout(2000)
    picture("sheets")
    page.goto(f"{address}/project/wrenfold")
    page.wait_for_timeout(2500)
    step(page, "Roof")
    select(page, "Select Main roof")
    page.wait_for_timeout(600)
    picture("roof")
    page.get_by_role("button", name="Solid view").click()
    page.wait_for_timeout(2500)
    picture("solid")
    page.goto(f"{address}/project/fernacre")
    page.wait_for_timeout(2500)
    page.get_by_role("button", name="Let the view fill the bench").click()
    page.get_by_role("button", name="Shown").click()
    for label in ("Shade at 45 degrees", "Tones of the materials"):
        page.get_by_label(label, exact=True).click()
        page.wait_for_timeout(800)
    page.get_by_role("button", name="keys and a legend").click()
    page.wait_for_timeout(1500)
    picture("shown")
    page.goto(f"{address}/project/otterfold")
    page.wait_for_timeout(2500)
    step(page, "Plan")
    pick(page.get_by_label("Storey of the plan"), "upper|framing")
    page.wait_for_timeout(1200)
    page.get_by_role("button", name="Let the plan fill the bench").click()
    page.wait_for_timeout(1500)
    picture("framing")
    page.goto(f"{address}/project/tansy")
    page.wait_for_timeout(2500)
    step(page, "Plan")
    page.goto(f"{address}/project/hollin")
    page.wait_for_timeout(2500)
    step(page, "Heights")
    select(page, "Level: Ground floor")
    picture("slope")
    lodge = page.request.post(f"{address}/api/projects", data={"name": "Gate lodge", "units": "mm"}).json()
    page.goto(f"{address}/project/{lodge['id']}")
    page.wait_for_timeout(2500)
    page.evaluate("document.activeElement.blur()")
    search(page, "Read a plan from a file: DXF or IFC")
    upload = {
        "name": "gate-lodge.dxf",
        "mimeType": "image/vnd.dxf",
        "buffer": as_bytes(drawn(houses()[2].turned(12.0), "everything")),
    }
    page.get_by_label("Plan file").set_input_files(upload)  # type: ignore[arg-type]
    page.get_by_label("What was found").wait_for()
    page.wait_for_timeout(1200)
    picture("read-plan")
    old = page.request.get(f"{address}/api/projects/hollin/views/elevation:south/file?format=pdf&scale=100").body()
    page.goto(f"{address}/project/fernacre")
    page.wait_for_timeout(2500)
    page.evaluate("document.activeElement.blur()")
    search(page, "Backgrounds: a file under South elevation")
    scan = {"name": "lodge as measured.pdf", "mimeType": "application/pdf", "buffer": old}
    page.get_by_label("Background file").set_input_files(scan)  # type: ignore[arg-type]
    page.wait_for_timeout(1500)
    page.get_by_role("button", name="Lay it on points of the house").click()
    page.wait_for_timeout(300)
    picture("background")


def main() -> None:
    """Write all pictures."""
    TARGET.mkdir(parents=True, exist_ok=True)
    with served() as address, sync_playwright() as driver:
        browser = driver.chromium.launch(executable_path="/usr/bin/chromium", args=QUIET)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.set_default_timeout(15_000)
        shoot(page, address)
        browser.close()
        for project, sheet in (
            ("fernacre", "sheet-1"),
            ("tansy", "sheet-3"),
            ("larkmoor", "sheet-4"),
        ):
            url = f"{address}/api/projects/{project}/sheets/{sheet}/picture?dpi=90"
            with urllib.request.urlopen(url) as answer:
                (TARGET / f"printed-{project}-{sheet}.png").write_bytes(answer.read())


if __name__ == "__main__":
    main()
