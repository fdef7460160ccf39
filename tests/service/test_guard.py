"""Nobody else's page reads or changes anything: names, origins, and what every answer carries."""

from __future__ import annotations

import pytest
from fastapi.testclient import TestClient

from deepsection.service.app import create_app
from deepsection.service.guard import known_names

from .conftest import VIEWS, state


@pytest.mark.parametrize("name", ["evil.example", "127.0.0.1.evil.example", "", "[", "localhost.evil", "10.0.0.7:80"])
def test_only_known_names_are_answered(client: TestClient, name: str) -> None:
    """DNS rebinding: a page whose name was made to point here sends that name as Host."""
    answer = client.get("/api/projects", headers={"Host": name})
    assert answer.status_code == 403 and "quillback" not in answer.text
    assert client.get("/", headers={"Host": name}).status_code == 403


@pytest.mark.parametrize("name", ["127.0.0.1:8420", "localhost:8420", "LOCALHOST", "[::1]:8420"])
def test_the_names_of_this_machine_are_answered(client: TestClient, name: str) -> None:
    assert client.get("/api/projects", headers={"Host": name}).status_code == 200


def test_more_names_can_be_given(database: str, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("DEEPSECTION_HOSTS", "drawings.office.example, other.example")
    assert {"drawings.office.example", "other.example", "localhost"} <= known_names()
    with TestClient(create_app(database, hosts=("box.example",)), base_url="http://box.example") as held:
        assert held.get("/api/projects").status_code == 200


@pytest.mark.parametrize(
    "headers",
    [
        {"Origin": "http://evil.example"},
        {"Origin": "null"},
        {"Origin": "http://127.0.0.1:9999"},
        {"Sec-Fetch-Site": "cross-site"},
        {"Sec-Fetch-Site": "same-site"},
    ],
)
def test_what_changes_is_taken_from_our_own_page_alone(client: TestClient, headers: dict[str, str]) -> None:
    """Also from another port of this machine, which is another origin."""
    base = state(client)["version"]
    move = {"kind": "move_opening", "opening": "w1", "distance": 1500.0}
    sent = {"base_version": base, "edits": [move], "views": VIEWS}
    assert client.post("/api/projects/quillback/edits", json=sent, headers=headers).status_code == 403
    assert client.post("/api/projects/quillback/copy", headers=headers).status_code == 403
    assert client.post("/api/projects/import", content=b"{}", headers=headers).status_code == 403
    assert client.patch("/api/projects/quillback", json={"name": "Taken"}, headers=headers).status_code == 403
    assert client.put("/api/projects/quillback/history/1", json={"mark": "x"}, headers=headers).status_code == 403
    assert state(client)["version"] == base and len(client.get("/api/projects").json()) == 7
    own = {"Origin": "http://127.0.0.1", "Sec-Fetch-Site": "same-origin"}
    assert client.post("/api/projects/quillback/edits", json=sent, headers=own).status_code == 200


@pytest.mark.parametrize("path", ["/", "/api/projects", "/api/projects/none", "/api/nothing", "/assets/none.js"])
def test_every_answer_refuses_frames_and_guessing(client: TestClient, path: str) -> None:
    answer = client.get(path)
    assert answer.headers["X-Content-Type-Options"] == "nosniff" and answer.headers["X-Frame-Options"] == "DENY"
    assert "frame-ancestors 'none'" in answer.headers["Content-Security-Policy"]


def test_even_an_unexpected_error_carries_them(client: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    def fail(_: object) -> None:
        raise RuntimeError("something nobody thought of")

    monkeypatch.setattr("deepsection.service.store.Store.list", fail)
    answer = client.get("/api/projects")
    assert answer.status_code == 500 and "RuntimeError" not in answer.text
    assert answer.headers["X-Content-Type-Options"] == "nosniff"
    assert "frame-ancestors 'none'" in answer.headers["Content-Security-Policy"]
