"""The real application in headless Chromium: a server of its own per test run, and a driver for the bench."""

from __future__ import annotations

import os
import re
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Locator, Page, expect

expect.set_options(timeout=45_000)
"""What is waited for comes at once on an idle machine; a loaded one may take its time."""


TRADES = {
    **dict.fromkeys(("Outer wall", "Inner wall", "Bay"), "walls"),
    **dict.fromkeys(("Window", "Door", "Niche"), "openings"),
    **dict.fromkeys(("Post", "Beam", "Rail", "Set-down", "Porch slab"), "structure"),
    **dict.fromkeys(("Stair", "Floor", "Hole", "Loft hatch", "Deck"), "floors"),
    **dict.fromkeys(("Ground height", "Ground step", "Foundation step"), "ground"),
    **dict.fromkeys(("Construction", "Grid line"), "lines"),
    **dict.fromkeys(("Room", "Note"), "words"),
}
"""Tools that stand with those of their trade, and are in a menu while another of these was used last."""


def pick(choice: Locator, value: str | None = None, *, label: str | None = None) -> None:
    """Choose from a list, by the value of a choice or by its words."""
    choice.click()
    options = choice.page.get_by_role("option")
    if label:
        options.filter(has_text=re.compile(f"^{re.escape(label)}$")).click()
    else:
        choice.page.locator(f'[role=option][data-value="{value}"]').click()


class Server:
    """The application in a process of its own, on loopback and a database file."""

    def __init__(self, folder: Path, workers: int = 0) -> None:
        self.workers = workers
        self.database = folder / "deepsection.db"
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.url = f"http://127.0.0.1:{self.port}"
        self.process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        environment = {
            **os.environ,
            "DEEPSECTION_DATABASE": f"sqlite:///{self.database}",
            "DEEPSECTION_WORKERS": str(self.workers),
        }
        command = [sys.executable, "-m", "deepsection.cli", "serve", "--port", str(self.port)]
        self.process = subprocess.Popen(command, env=environment, stdout=subprocess.DEVNULL)
        for _ in range(600):
            try:
                urllib.request.urlopen(f"{self.url}/api/projects", timeout=1).close()
                return
            except OSError:
                time.sleep(0.1)
        raise RuntimeError("the server did not start")

    def kill(self) -> None:
        if self.process:
            self.process.kill()
            self.process.wait()
            self.process = None


@pytest.fixture(scope="session")
def server(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    """One server for the tests that only need one."""
    held = Server(tmp_path_factory.mktemp("data"))
    held.start()
    yield held
    held.kill()


@pytest.fixture
def own_server(tmp_path: Path) -> Iterator[Server]:
    """A server that a test may kill; one process draws beside it."""
    held = Server(tmp_path, workers=1)
    held.start()
    yield held
    held.kill()


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, object]:
    """Debian's Chromium, quiet."""
    quiet = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"]
    return {
        "executable_path": os.environ.get("DEEPSECTION_CHROMIUM", "/usr/bin/chromium"),
        "args": [*quiet, "--disable-component-update", "--disable-sync"],
    }


@pytest.fixture(scope="session")
def browser_context_args() -> dict[str, object]:
    """The size that the screen is designed for."""
    return {"viewport": {"width": 1280, "height": 800}, "accept_downloads": True}


class Bench:
    """Drives the bench as a drafter does: with pointer, keys and what is written on the screen."""

    def __init__(self, page: Page, url: str) -> None:
        self.page, self.url = page, url
        self.errors: list[str] = []
        self.requests: list[str] = []
        self._opened: set[str] = set()
        page.on("pageerror", lambda error: self.errors.append(str(error)))
        page.on("request", lambda request: self.requests.append(request.url))

    def open(self, project: str) -> None:
        """Open a project; a demo that another test has changed is as it was at first."""
        if project not in self._opened:
            self._opened.add(project)
            held = self.page.request.get(f"{self.url}/api/projects/{project}").json()
            if held["version"] > 1:
                back = {"base_version": held["version"], "version": 1, "views": []}
                assert self.page.request.post(f"{self.url}/api/projects/{project}/back", data=back).ok
        self.page.goto(f"{self.url}/project/{project}")
        self.ready()

    def ready(self) -> None:
        expect(self.page.get_by_role("main", name="Bench")).to_be_visible()
        expect(self.page.get_by_label("saved state")).to_have_text("all changes saved")
        # Drawn at the scale of its zoom.
        expect(self.page.get_by_role("main", name="Bench")).to_have_attribute("aria-busy", "false")

    def new(self, name: str, units: str) -> None:
        self.page.goto(self.url)
        self.page.get_by_label("Name", exact=True).fill(name)
        self.page.get_by_role("button", name="Feet and inches" if units == "ft-in" else "Millimetres").click()
        self.page.get_by_role("button", name="Start drawing").click()
        self.ready()

    def step(self, name: str) -> None:
        self.page.get_by_label("Steps").get_by_role("button", name=name).click()
        self.page.wait_for_timeout(250)
        # Its views have come and are fitted, however slow the machine is: what is clicked then stays where it is.
        expect(self.page.locator('main[aria-busy="true"]')).to_have_count(0)

    def tool(self, name: str) -> None:
        menu = self.page.get_by_role("toolbar").get_by_role("button", name=f"Tools: {TRADES.get(name)}")
        if menu.count():
            menu.click()
            self.page.get_by_role("menuitem", name=name, exact=True).click()
            return
        self.page.get_by_role("toolbar").get_by_role("button", name=name, exact=True).click()

    def roof(self, form: str, over: str = "walls") -> None:
        """Choose what roof is drawn next."""
        self.tool("Roof")
        pick(self.page.get_by_label("Form of the roof"), form)
        pick(self.page.get_by_label("What the roof is drawn over"), over)

    def search(self, action: str) -> None:
        """Run an action from the action search, by its name."""
        self.page.keyboard.press("Escape")
        self.page.evaluate("document.activeElement && document.activeElement.blur()")
        self.page.keyboard.press("/")
        self.page.keyboard.type(action)
        self.page.get_by_role("option", name=action).first.wait_for()
        self.page.keyboard.press("Enter")
        self.page.wait_for_timeout(150)
        self.page.evaluate("document.activeElement && document.activeElement.blur()")

    def at(self, u: float, y: float, pane: str = "plan") -> tuple[float, float]:
        """Screen point of a point of a pane, in real mm, once the views that are wanted have come and are fitted."""
        self.page.wait_for_timeout(50)
        expect(self.page.get_by_role("main", name="Bench")).to_have_attribute("aria-busy", "false")
        self.page.wait_for_timeout(50)
        box = self.page.get_by_role("main", name="Bench").bounding_box()
        transform = self.page.get_by_test_id(pane).get_attribute("transform")
        assert box and transform
        tu, ty, k = (float(value) for value in re.findall(r"-?\d+(?:\.\d+)?(?:e-?\d+)?", transform)[:3])
        return box["x"] + tu + u * k, box["y"] + ty - y * k

    def click(self, u: float, w: float) -> None:
        x, y = self.at(u, w)
        self.page.mouse.move(x, y)
        self.page.mouse.click(x, y)
        self.saved()

    def drag(
        self, start: tuple[float, float], end: tuple[float, float], pane: str = "plan", *, drop: bool = True
    ) -> None:
        x0, y0 = self.at(*start, pane)
        x1, y1 = self.at(*end, pane)
        self.page.mouse.move(x0, y0)
        self.page.mouse.down()
        self.page.mouse.move((x0 + x1) / 2, (y0 + y1) / 2, steps=3)
        self.page.mouse.move(x1, y1, steps=3)
        if drop:
            self.page.mouse.up()
            self.saved()

    def pull(self, x: float, y: float, up: float, aside: float = 0.0) -> None:
        """Drag what lies at a screen point of the view by so many mm of the house."""
        k = abs(self.at(1000, 0, "view")[0] - self.at(0, 0, "view")[0]) / 1000
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        for share in (0.5, 1.0):
            self.page.mouse.move(x + aside * share * k, y - up * share * k, steps=4)
        self.page.mouse.up()
        self.saved()

    def type_length(self, text: str) -> None:
        """Type into the length entry that opens at the first key."""
        self.page.keyboard.press(text[0])
        entry = self.page.get_by_role("main", name="Bench").get_by_role("textbox").first
        expect(entry).to_be_focused()
        self.page.keyboard.type(text[1:])
        self.page.keyboard.press("Enter")
        expect(entry).to_be_hidden()
        self.saved()

    def until(self, holds: Callable[[], bool]) -> None:
        """Wait until something holds, such as that a preview has reached the pointer."""
        for _ in range(200):
            if holds():
                return
            self.page.wait_for_timeout(100)
        assert holds()

    def saved(self) -> None:
        self.page.wait_for_timeout(120)
        # However slow the machine is, what was just done has been painted: a change that waits says so by then.
        self.page.evaluate("() => new Promise((done) => requestAnimationFrame(() => setTimeout(done, 0)))")
        # What was typed has been read, and then what it changed is saved.
        expect(self.page.locator("input[readonly]")).to_have_count(0)
        expect(self.page.get_by_label("saved state")).to_have_text("all changes saved")

    def field(self, label: str) -> Locator:
        return self.page.get_by_label("Particulars").get_by_label(label, exact=True)

    def enter(self, label: str, text: str) -> None:
        self.field(label).fill(text)
        self.field(label).press("Enter")
        self.saved()

    def choose(self, label: str, option: str) -> None:
        self.field(label).click()
        self.page.get_by_role("option", name=option, exact=True).click()
        self.saved()

    def marks(self, pane: str, part: str) -> Locator:
        return self.page.get_by_test_id(pane).locator(f'[data-part^="{part}"]')

    def shows(self, view: str) -> None:
        """Wait until the bench has this view below the plan; the particulars may have a heading of the same name."""
        heading = self.page.get_by_role("main", name="Bench").get_by_role("heading", name=view, exact=True)
        expect(heading).to_be_visible()

    def document(self) -> dict[str, object]:
        """The saved document, as the service holds it."""
        project = re.search(r"/project/([\w-]+)", self.page.url)
        assert project
        data: dict[str, object] = self.page.request.get(f"{self.url}/api/projects/{project[1]}").json()["project"]
        return data

    def button(self, name: str) -> Locator:
        return self.page.get_by_role("button", name=name, exact=True)


@pytest.fixture
def bench(page: Page, server: Server) -> Iterator[Bench]:
    """The bench; the test fails when the page threw an error or asked for anything outside its own origin."""
    held = Bench(page, server.url)
    yield held
    assert held.errors == []
    assert [url for url in held.requests if not url.startswith((server.url, "data:", "blob:"))] == []
