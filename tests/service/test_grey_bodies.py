"""What of a model is not taken over, as a grey body in the solid view."""

from __future__ import annotations

from typing import Any
from urllib.parse import quote

import numpy as np
import pytest
from fastapi.testclient import TestClient

from deepsection.core.model import Project
from deepsection.core.resolve import resolve, storeys
from tests.models_by_hand import DEEP, OUTSIDE, WIDE, Hand, gable_slopes, roofed

from .conftest import state

CHIMNEY = (2000.0, 3000.0, 600.0, 600.0, 9000.0)


def with_chimney() -> bytes:
    """Walls, and a chimney beside nothing: a box of 600 x 600 x 9000 about (2000, 3000)."""
    hand = Hand("IFC4")
    storey = hand.storey("Ground floor", 150.0)
    corners = [(0.0, 0.0), (0.0, DEEP), (WIDE, DEEP), (WIDE, 0.0)]
    for k, a in enumerate(corners):
        hand.wall(storey, a, corners[(k + 1) % 4], OUTSIDE[::-1], 2600.0)
    hand.product("IfcChimney", storey, hand.placed(storey.ObjectPlacement, 0, 0, 0), hand.body(*CHIMNEY), Name="Stack")
    return hand.bytes()


def taken(client: TestClient, data: bytes, choices: str) -> tuple[str, Any]:
    made = client.post("/api/projects", json={"name": "Modelled", "units": "mm", "tradition": "masonry"}).json()
    id = made["project"]["id"]
    query = f"base_version={made['version']}&choices={quote(choices)}"
    answer = client.post(f"/api/projects/{id}/plan?{query}", content=data)
    assert answer.status_code == 200, answer.text
    return id, answer.json()


def grey(client: TestClient, id: str) -> list[np.ndarray]:
    groups = client.get(f"/api/projects/{id}/solids").json()["groups"]
    return [np.array(held["points"]).reshape(-1, 3) for held in groups if held["role"] == "background"]


def test_the_rest_stands_where_it_stood_on_the_lowest_floor(client: TestClient) -> None:
    id, _ = taken(client, with_chimney(), '{"rest": "house.ifc"}')
    (body,) = grey(client, id)
    x, y, wide, deep, high = CHIMNEY
    assert body.min(axis=0)[:2] == pytest.approx((x - wide / 2, y - deep / 2), abs=0.1)
    assert body.max(axis=0)[:2] == pytest.approx((x + wide / 2, y + deep / 2), abs=0.1)
    assert body[:, 2].max() - body[:, 2].min() == pytest.approx(high, abs=0.1)
    project = Project.model_validate(state(client, id)["project"])
    floor = resolve(project).levels[storeys(project)[0].level].z
    assert body[:, 2].min() == pytest.approx(floor, abs=0.1)
    assert [held.name for held in project.model_bodies] == ["house"]


def test_it_is_moved_hidden_and_taken_along(client: TestClient) -> None:
    id, _ = taken(client, with_chimney(), '{"rest": "house.ifc"}')
    (before,) = grey(client, id)
    (held,) = state(client, id)["project"]["model_bodies"]

    def put(**changes: Any) -> None:
        edit = {"kind": "put_model_body", "body": held | changes}
        sent = {"base_version": state(client, id)["version"], "edits": [edit]}
        assert client.post(f"/api/projects/{id}/edits", json=sent).status_code == 200

    put(x=1000.0, z=held["z"] - 500.0)
    (after,) = grey(client, id)
    assert after - before == pytest.approx(np.tile((1000.0, 0.0, -500.0), (len(before), 1)), abs=0.11)
    put(shown=False)
    assert grey(client, id) == []
    put(shown=True)
    file = client.get(f"/api/projects/{id}/file").content
    again = client.post("/api/projects/import", content=file).json()["project"]["id"]
    assert again != id and len(grey(client, again)) == 1


def test_roofs_that_are_built_are_not_in_it(client: TestClient) -> None:
    data = roofed(gable_slopes(0.7, 5650.0))
    id, answer = taken(client, data, '{"rest": "house.ifc"}')
    assert "1 roof" in answer["built"]
    slab = grey(client, id)
    assert len(slab) == 1 and slab[0][:, 2].max() < 1000.0, "the slab on the ground alone"
    other, answer = taken_again(client, data)
    assert all("roof" not in words for words in answer["built"])
    assert max(body[:, 2].max() for body in grey(client, other)) > 8000.0


def taken_again(client: TestClient, data: bytes) -> tuple[str, Any]:
    made = client.post("/api/projects", json={"name": "Once more", "units": "mm", "tradition": "masonry"}).json()
    id = made["project"]["id"]
    choices = quote('{"rest": "house.ifc", "roofs": false}')
    answer = client.post(f"/api/projects/{id}/plan?base_version={made['version']}&choices={choices}", content=data)
    return id, answer.json()


def test_without_being_asked_for_there_is_none(client: TestClient) -> None:
    id, _ = taken(client, with_chimney(), "{}")
    assert grey(client, id) == [] and state(client, id)["project"]["model_bodies"] == []


def test_a_file_that_is_gone_shows_nothing_and_breaks_nothing(client: TestClient) -> None:
    sent = {
        "base_version": state(client, "quillback")["version"],
        "edits": [{"kind": "put_model_body", "body": {"id": "b1", "name": "lost", "file": "0" * 64}}],
    }
    assert client.post("/api/projects/quillback/edits", json=sent).status_code == 200
    assert grey(client, "quillback") == []
    assert client.get("/api/projects/quillback/solids").status_code == 200
