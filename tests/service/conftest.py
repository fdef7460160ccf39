"""The application in this process, on a database of its own."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from deepsection.service.app import create_app

VIEWS = [{"name": "plan"}, {"name": "elevation:south"}]


@pytest.fixture
def database(tmp_path: Path) -> str:
    return f"sqlite:///{tmp_path / 'data.db'}"


@pytest.fixture
def client(database: str) -> Iterator[TestClient]:
    """The application with its demo projects."""
    with TestClient(
        create_app(database, demos=True), base_url="http://127.0.0.1", raise_server_exceptions=False
    ) as held:
        yield held


def state(client: TestClient, id: str = "quillback") -> dict[str, Any]:
    data: dict[str, Any] = client.get(f"/api/projects/{id}").json()
    return data


def edit(client: TestClient, base: int, *edits: dict[str, Any], id: str = "quillback") -> Any:
    return client.post(f"/api/projects/{id}/edits", json={"base_version": base, "edits": list(edits), "views": VIEWS})


def move(distance: float, opening: str = "w2") -> dict[str, Any]:
    return {"kind": "move_opening", "opening": opening, "distance": distance}
