"""Takes a kite through the program: document, edit, undo, building, plan, elevation, particulars, removal, schema."""

from __future__ import annotations

import sys

import pytest
from fastapi.testclient import TestClient

from deepsection.core.resolve import resolve
from deepsection.demo import quillback_house
from deepsection.service.app import create_app

KITE = {"id": "red", "x": 4000.0, "y": -3000.0, "size": 900.0, "base": {"level": "plate", "offset": 500.0}}
VIEWS = [{"name": "plan"}, {"name": "elevation:south"}]

with TestClient(create_app(f"sqlite:///{sys.argv[1]}", demos=True), base_url="http://localhost") as client:
    house = f"/api/projects/{quillback_house().id}"
    schema = client.get("/api/openapi.json").json()["components"]["schemas"]
    assert {"Kite", "PutKite"} <= set(schema) and "kites" in schema["Project"]["properties"]

    def send(where: str, **body: object) -> dict:
        version = client.get(house).json()["version"]
        done = client.post(f"{house}/{where}", json={"base_version": version, "views": VIEWS, **body})
        assert done.status_code == 200, done.text
        return done.json()["state"] | done.json()["bench"]

    flown = send("edits", edits=[{"kind": "put_kite", "kite": KITE}])
    assert flown["undo"] == "fly a kite" and flown["project"]["kites"] == [KITE | {"state": "new"}]
    (item,) = [item for item in flown["elements"] if item["id"] == "red"]
    assert item["name"] == "kite" and item["movable"] and item["removable"] and item["hideable"]
    plan, south = flown["drawings"]
    assert any(mark.get("part") == "red/kite//" for mark in plan["marks"])
    assert any((mark.get("part") or "").startswith("red/post") for mark in south["marks"])
    assert any(found["message"] == "this kite flies too low" for found in flown["findings"])

    facts = client.get(f"{house}/particulars/red").json()
    assert facts["title"] == "Kite" and facts["subtitle"] == "on a string" and facts["removable"]
    assert [field["label"] for field in facts["fields"]] == ["Size", "In the works it is"]
    assert [row["label"] for row in facts["sums"][0]["rows"]][-1] == "string"
    typed = send("entries", element="red", field="size", text="3'")
    assert typed["project"]["kites"][0]["size"] == pytest.approx(914.4)
    assert typed["undo"] == "change a kite", typed["undo"]

    moved = send("edits", edits=[{"kind": "transform", "elements": ["red"], "motion": {"dx": 100.0}}])
    assert moved["project"]["kites"][0]["x"] == 4100.0
    gone = send("edits", edits=[{"kind": "remove", "elements": ["red"]}])
    assert gone["project"]["kites"] == []
    back = send("undo")
    assert back["project"]["kites"][0]["x"] == 4100.0
    assert back["redo"] == "remove a kite"
    model = client.get(f"{house}/model")
    assert model.status_code == 200 and b"IFCCOLUMN" in model.content
    low = {**KITE, "base": {"level": "nowhere"}}
    refused = client.post(
        f"{house}/edits",
        json={"base_version": back["version"], "views": [], "edits": [{"kind": "put_kite", "kite": low}]},
    )
    assert refused.status_code == 422 and "string names “nowhere”" in refused.text
assert resolve(quillback_house()).placed.project.kites == ()
print("landed")
