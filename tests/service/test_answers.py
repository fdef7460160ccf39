"""Answers that tell what changed: put together with what the screen holds they are the whole drawing."""

from __future__ import annotations

import random
from pathlib import Path
from typing import Any

import pytest
from starlette.testclient import TestClient

from deepsection.service.answers import difference
from deepsection.service.app import create_app


def put_together(drawing: dict[str, Any], before: dict[str, Any] | None) -> list[Any]:
    if drawing["steps"] is None:
        return list(drawing["marks"])
    assert before is not None
    fresh, made = iter(drawing["marks"]), []
    for place, kept, new in drawing["steps"]:
        made += before["marks"][place : place + kept]
        made += [next(fresh) for _ in range(new)]
    assert next(fresh, None) is None
    return made


@pytest.mark.parametrize("seed", range(40))
def test_steps_lead_from_any_marks_to_any_others(seed: int) -> None:
    rng = random.Random(seed)
    before = [bytes([rng.randint(0, 30)]) for _ in range(rng.randint(0, 40))]
    after = [mark for mark in before if rng.random() < 0.8]
    for _ in range(rng.randint(0, 8)):
        after.insert(rng.randint(0, len(after)), bytes([rng.randint(20, 60)]))
    if rng.random() < 0.3:
        rng.shuffle(after)
    steps, fresh = difference(before, after)
    drawing = {"steps": steps, "marks": [after[place] for place in fresh]}
    assert put_together(drawing, {"marks": before}) == after
    assert len(fresh) == sum(mark not in before for mark in after)


def test_edits_of_the_largest_demo_are_answered_with_what_changed(tmp_path: Path) -> None:
    views = [{"name": "plan"}, {"name": "elevation:south"}, {"name": "section:section-a"}]
    app = create_app(f"sqlite:///{tmp_path / 'held.db'}", demos=True)
    with TestClient(app, base_url="http://localhost", headers={"accept-encoding": "gzip"}) as client:
        house = "/api/projects/larkmoor"
        held = client.post(f"{house}/views", json={"views": views}).json()
        project = held["state"]["project"]
        opening = next(opening for opening in project["openings"] if opening["unit"] == "window")
        rung = next(rung for rung in project["rungs"] if rung["terms"])
        for edit in (
            {"kind": "move_opening", "opening": opening["id"], "distance": opening["distance"] + 30.0},
            {"kind": "set_term", "rung": rung["id"], "term": rung["terms"][0]["id"], "value": 2500.0},
            None,
        ):
            version = held["state"]["version"]
            have = [view | {"have": drawing["digest"]} for view, drawing in zip(views, held["bench"]["drawings"])]
            body = {"base_version": version, "views": have} | ({"edits": [edit]} if edit else {})
            answer = client.post(f"{house}/{'edits' if edit else 'undo'}", json=body)
            assert answer.status_code == 200 and answer.headers["content-encoding"] == "gzip"
            wire = answer.num_bytes_downloaded
            assert 0 < wire < 200_000, "on the wire, with the document and all lists"
            told = answer.json()
            whole = client.post(f"{house}/views", json={"views": views}).json()
            for drawing, before, all_of_it in zip(
                told["bench"]["drawings"], held["bench"]["drawings"], whole["bench"]["drawings"]
            ):
                assert put_together(drawing, before) == all_of_it["marks"]
            if edit and edit["kind"] == "move_opening":
                marks = sum(len(drawing["marks"]) for drawing in told["bench"]["drawings"])
                assert marks < 200, "a window moves few marks"
                assert len(answer.content) < 200_000
            held = whole
        stale = client.post(f"{house}/preview", json={
            "base_version": held["state"]["version"], "sequence": 1, "views": have,
            "edits": [{"kind": "move_opening", "opening": opening["id"], "distance": opening["distance"] + 60.0}],
        }).json()  # fmt: skip
        assert all(drawing["steps"] is not None for drawing in stale["drawings"])
