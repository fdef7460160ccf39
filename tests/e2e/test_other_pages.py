"""Pages of other origins and other names in the real browser: they read nothing, change nothing, frame nothing."""

from __future__ import annotations

import json
import threading
import urllib.request
from collections.abc import Iterator
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer

import pytest
from playwright.sync_api import Browser, Playwright

from .conftest import Server

PAGE = b"<!doctype html><title>another page</title><p>another page"


class _Other(BaseHTTPRequestHandler):
    def do_GET(self) -> None:
        self.send_response(200)
        self.send_header("Content-Type", "text/html")
        self.end_headers()
        self.wfile.write(PAGE)

    def log_message(self, *_: object) -> None:
        """Quiet."""


@pytest.fixture
def other_origin() -> Iterator[str]:
    held = ThreadingHTTPServer(("127.0.0.1", 0), _Other)
    threading.Thread(target=held.serve_forever, daemon=True).start()
    yield f"http://127.0.0.1:{held.server_port}"
    held.shutdown()
    held.server_close()


def projects(server: Server) -> list[dict[str, object]]:
    with urllib.request.urlopen(f"{server.url}/api/projects", timeout=10) as answer:
        found: list[dict[str, object]] = json.load(answer)
        return found


def test_a_page_of_another_origin_changes_and_frames_nothing(
    server: Server, browser: Browser, other_origin: str
) -> None:
    before = projects(server)
    page = browser.new_page()
    page.goto(other_origin)
    # Plain posts need no leave of the browser: they arrive, and are refused.
    page.evaluate(
        """async (service) => {
            const sent = { method: "POST", mode: "no-cors", headers: { "Content-Type": "text/plain" } };
            const tell = (path, body) => fetch(`${service}/api/projects/${path}`, { ...sent, body }).catch(() => null);
            await tell("quillback/copy", "");
            await tell("import", "{}");
            await tell("quillback/plan?base_version=1", "0\\nEOF");
        }""",
        server.url,
    )
    read = page.evaluate(
        "service => fetch(`${service}/api/projects`).then(answer => answer.text(), () => 'refused')", server.url
    )
    assert read == "refused" and projects(server) == before
    page.set_content(f'<iframe src="{server.url}/" width="600" height="400"></iframe>')
    page.wait_for_timeout(500)
    frame = page.frames[1]
    assert frame.locator("text=Quillback").count() == 0
    page.close()


def test_a_page_whose_name_points_here_reads_nothing(server: Server, playwright: Playwright) -> None:
    """DNS rebinding, with the name mapped to this machine in the browser."""
    held = playwright.chromium.launch(
        executable_path="/usr/bin/chromium",
        args=["--no-sandbox", "--disable-gpu", "--host-resolver-rules=MAP rebound.example 127.0.0.1"],
    )
    page = held.new_page()
    answer = page.goto(f"http://rebound.example:{server.port}/api/projects")
    assert answer is not None and answer.status == 403
    assert "quillback" not in page.content()
    held.close()
