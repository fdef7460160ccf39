"""What is kept can be opened: edits that cannot be drawn are refused, and no document locks its drafter out."""

from __future__ import annotations

import json
import random
import threading
from functools import partial
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from deepsection.core.edits import changed, rebuild
from deepsection.core.errors import StaleVersion
from deepsection.core.model import Project
from deepsection.core.resolve import Building
from deepsection.core.view import opening
from deepsection.demo import DEMOS, fernacre_bungalow, quillback_house, wrenfold_house
from deepsection.service import workers
from deepsection.service.app import create_app
from deepsection.service.database import open_database
from deepsection.service.store import Store
from tests.campaigns import LONG, share
from tests.random_edits import Maker, kinds

from .conftest import VIEWS, edit, state

COUNT = share(200, 10_000)


def every_view(client: TestClient, id: str) -> Any:
    held = state(client, id)
    names = [{"name": view["name"]} for view in held["views"]]
    return client.post(f"/api/projects/{id}/views", json={"views": names[:30]})


# --- refused before anything is kept --------------------------------------------------------------


def roof(project: Project, **changes: Any) -> dict[str, Any]:
    return {"kind": "put_roof", "roof": json.loads(changed(project.roofs[0], **changes).model_dump_json())}


PROPOSED = {"kind": "propose_roof", "id": "made", "level": "floor", "plate": "plate"}


@pytest.mark.parametrize(
    ("id", "sent"),
    [
        ("wrenfold", {**PROPOSED, "form": "single", "x": 1e4, "y": 2e3}),
        ("wrenfold", {**PROPOSED, "form": "single", "outline": []}),
        ("wrenfold", {**PROPOSED, "form": "gable", "outline": [{}, {}, {}]}),
        ("wrenfold", roof(wrenfold_house(), heel=20_000.0)),
        ("quillback", {"kind": "bend_wall", "wall": "south", "bulge": 1e-12}),
        ("quillback", {"kind": "move_opening", "opening": "w1", "distance": 4e6}),
        ("quillback", {"kind": "move_joint", "joint": "sw", "x": 9e6, "y": -9e6}),
        ("quillback", {"kind": "use_make_up", "wall": "south", "make_up": "slab"}),
    ],
)
def test_an_edit_is_kept_with_its_views_or_refused_in_words(client: TestClient, id: str, sent: dict[str, Any]) -> None:
    before = state(client, id)["version"]
    answer = edit(client, before, sent, id=id)
    assert answer.status_code in (200, 404, 422), answer.text
    after = state(client, id)
    if answer.status_code != 200:
        assert after["version"] == before, "refused means that nothing was kept"
        assert answer.json()["detail"] and "Error" not in answer.json()["detail"]
    drawn = every_view(client, id)
    assert drawn.status_code == 200
    assert not [held for held in drawn.json()["bench"]["findings"] if held["code"] == opening.LEFT_OUT]


@pytest.mark.parametrize("number", ["NaN", "Infinity", "-Infinity", "1e999"])
def test_numbers_that_are_none_are_refused_at_their_place(client: TestClient, number: str) -> None:
    base = state(client)["version"]
    sent = f'{{"kind": "move_opening", "opening": "w1", "distance": {number}}}'
    body = f'{{"base_version": {base}, "edits": [{sent}]}}'
    answer = client.post("/api/projects/quillback/edits", content=body, headers={"Content-Type": "application/json"})
    assert answer.status_code == 422 and "distance" in answer.json()["field"]
    body = f'{{"views": [{{"name": "plan", "look_deg": {number}}}]}}'
    answer = client.post("/api/projects/quillback/views", content=body, headers={"Content-Type": "application/json"})
    assert answer.status_code == 422 and "look_deg" in answer.json()["field"]
    assert state(client)["version"] == base


def test_empty_names_and_huge_sequences_are_refused(client: TestClient) -> None:
    base = state(client)["version"]
    views = client.post("/api/projects/quillback/views", json={"views": [{"name": ""}]})
    assert views.status_code == 422
    body = {"base_version": base, "sequence": 2**70, "edits": [], "views": VIEWS}
    assert client.post("/api/projects/quillback/preview", json=body).status_code == 422
    for path in ("/api/projects/%00", f"/api/projects/{'a' * 5000}", "/%00", f"/{'b' * 5000}"):
        assert client.get(path).status_code in (200, 404), path


# --- no project is ever locked out ----------------------------------------------------------------


class Broken(Exception):
    """A fault that nobody thought of."""


@pytest.fixture
def broken(monkeypatch: pytest.MonkeyPatch) -> set[str]:
    """Elements that the stages fail on."""
    faulty: set[str] = set()
    whole = opening.resolve

    def resolve(project: Project) -> Any:
        if faulty & {held.id for held in project.elements()}:
            raise Broken
        return whole(project)

    monkeypatch.setattr(opening, "resolve", resolve)
    opening.forget()
    return faulty


def test_what_cannot_be_built_is_left_out_and_named(client: TestClient, broken: set[str]) -> None:
    broken |= {"w2", "roof-wing"}
    opening.forget()
    drawn = every_view(client, "quillback")
    assert drawn.status_code == 200
    found = [held for held in drawn.json()["bench"]["findings"] if held["code"] == opening.LEFT_OUT]
    assert {held["element"] for held in found} == {"w2", "roof-wing"} and found[0]["severity"] == "blocking"
    assert "left out" in found[0]["message"]
    assert all(view["marks"] for view in drawn.json()["bench"]["drawings"]), "everything else is drawn"
    for path in ("history", "file", "particulars/w2", "particulars/south", "model", "solids", "sheets/sheet-1/picture"):
        assert client.get(f"/api/projects/quillback/{path}").status_code == 200, path


def test_a_house_with_a_fault_can_still_be_mended(client: TestClient, broken: set[str]) -> None:
    broken |= {"w2"}
    opening.forget()
    base = state(client)["version"]
    other = edit(client, base, {"kind": "move_opening", "opening": "w1", "distance": 1500.0})
    assert other.status_code == 200, "nobody is kept from the rest"
    mended = edit(client, base + 1, {"kind": "remove", "elements": ["w2"]})
    assert mended.status_code == 200
    assert not [held for held in mended.json()["bench"]["findings"] if held["code"] == opening.LEFT_OUT]
    back = client.post("/api/projects/quillback/back", json={"base_version": base + 2, "version": base, "views": VIEWS})
    assert back.status_code == 200
    sound = client.post("/api/projects/quillback/back", json={"base_version": base + 3, "views": VIEWS})
    assert sound.status_code == 200 and sound.json()["state"]["version"] == base + 4
    assert "w2" not in {held["id"] for held in sound.json()["state"]["project"]["openings"]}


def test_a_view_that_fails_leaves_the_others(client: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    whole = opening.draw_view

    def draw(building: Any, project: Any, name: str, *more: Any, **named: Any) -> Any:
        if name == "elevation:south":
            raise Broken
        return whole(building, project, name, *more, **named)

    monkeypatch.setattr(opening, "draw_view", draw)
    answer = client.post("/api/projects/fernacre/views", json={"views": VIEWS})
    assert answer.status_code == 200
    plan, south = answer.json()["bench"]["drawings"]
    assert plan["marks"] and not south["marks"] and "cannot be drawn" in south["messages"][0]
    assert any(held["code"] == opening.LEFT_OUT for held in answer.json()["bench"]["findings"])


def test_advice_that_cannot_be_worked_out_stands_in_nobodys_way(
    client: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    def fail(building: Building) -> Any:
        raise Broken

    monkeypatch.setattr(Building, "advice", property(fail))
    opening.forget()
    base = state(client)["version"]
    answer = edit(client, base, {"kind": "move_opening", "opening": "w1", "distance": 1500.0})
    assert answer.status_code == 200 and answer.json()["state"]["version"] == base + 1
    assert "unchecked" in {found["code"] for found in answer.json()["bench"]["findings"]}, "it is not passed over"
    assert client.get("/api/projects/quillback/particulars/w1").status_code == 200


def test_while_something_is_dragged_the_advice_is_that_of_before(client: TestClient) -> None:
    """A ceiling on joists of 140 at 600 by tables reaches no 8 m, and an engineer may have it so."""
    held = state(client)
    project = Project.model_validate(held["project"])
    (ceiling,) = project.ceilings[:1]
    tables = {"kind": "put_ceiling", "ceiling": json.loads(changed(ceiling, sized="by tables").model_dump_json())}
    body = {"base_version": held["version"], "edits": [tables], "views": VIEWS}
    shown = client.post("/api/projects/quillback/preview", json=body | {"sequence": 1})
    kept = client.post("/api/projects/quillback/edits", json=body)
    codes = [{found["code"] for found in answer["findings"]} for answer in (shown.json(), kept.json()["bench"])]
    assert "ceiling-span" not in codes[0] and "ceiling-span" in codes[1]


def test_an_edit_whose_view_fails_is_not_kept(client: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    whole = workers.draw_view
    base = state(client)["version"]

    def draw(building: Any, project: Project, *more: Any, **named: Any) -> Any:
        if any(held.id == "w1" and held.distance == 1234.0 for held in project.openings):
            raise Broken
        return whole(building, project, *more, **named)

    monkeypatch.setattr(workers, "draw_view", draw)
    answer = edit(client, base, {"kind": "move_opening", "opening": "w1", "distance": 1234.0})
    assert answer.status_code == 422 and answer.json()["element"] == "w1" and "nothing was changed" in answer.text
    assert state(client)["version"] == base


# --- random edits of every kind -------------------------------------------------------------------


def test_random_edits_of_every_kind_are_kept_or_refused(tmp_path: Path) -> None:
    """No 500, and what is kept draws: each view of every 25th kept version, in the long run of each."""
    demos = [make() for make in DEMOS] if LONG else [make() for make in (*DEMOS[:3], DEMOS[4], DEMOS[5])]
    named = kinds()
    kept = 0
    with TestClient(
        create_app(f"sqlite:///{tmp_path / 'random.db'}", demos=True),
        base_url="http://127.0.0.1",
        raise_server_exceptions=False,
    ) as client:
        for k in range(COUNT):
            made = random.Random(k * 7919)
            id = made.choice(demos).id
            held = state(client, id)
            project = Project.model_validate(held["project"])
            sent = Maker(project, made).edit(named[k % len(named)])
            wanted = [{"name": "plan"}] if k % 5 else VIEWS
            body = json.dumps({"base_version": held["version"], "edits": [sent], "views": wanted})
            answer = client.post(
                f"/api/projects/{id}/edits", content=body, headers={"Content-Type": "application/json"}
            )
            assert answer.status_code in (200, 404, 409, 422), (k, sent, answer.text[:300])
            if answer.status_code != 200 or answer.json()["state"]["version"] == held["version"]:
                continue
            kept += 1
            if LONG or kept % 25 == 0:
                drawn = every_view(client, id)
                assert drawn.status_code == 200, (k, sent)
                lost = [
                    found["message"] for found in drawn.json()["bench"]["findings"] if found["code"] == opening.LEFT_OUT
                ]
                assert not lost, (k, sent, lost)
            # Back to the demo, so that each edit meets a sound house.
            client.post(f"/api/projects/{id}/undo", json={"base_version": held["version"] + 1, "views": []})
    assert kept > COUNT / 8, "most of them mean something"


# --- at once ---------------------------------------------------------------------------------------


def _append(held: Store, *, gate: threading.Barrier, base: int, moved: Project, told: list[str]) -> None:
    gate.wait()
    try:
        held.append("quillback", base, moved, "move", "[]")
        told.append("kept")
    except StaleVersion:
        told.append("stale")


def test_the_same_edit_twice_at_once_is_kept_once(database: str) -> None:
    """Also from two processes on one database: here two engines, which share nothing else."""
    store, other = Store(open_database(database)), Store(open_database(database))
    project = quillback_house()
    store.create(project, "open")
    moved = rebuild(project, place="Elsewhere")
    for base in range(1, 6):
        moved = rebuild(moved, author=f"draft {base}")
        told: list[str] = []
        gate = threading.Barrier(4)
        work = partial(_append, gate=gate, base=base, moved=moved, told=told)
        workers = [threading.Thread(target=work, args=(held,)) for held in (store, other, store, other)]
        for worker in workers:
            worker.start()
        for worker in workers:
            worker.join()
        assert sorted(told) == ["kept"] + ["stale"] * 3, told
        assert store.load("quillback").version == base + 1


def test_eight_creates_of_one_name_make_one(client: TestClient) -> None:
    codes: list[int] = []
    gate = threading.Barrier(8)

    def create() -> None:
        gate.wait()
        codes.append(client.post("/api/projects", json={"name": "Plover Barn", "units": "mm"}).status_code)

    workers = [threading.Thread(target=create) for _ in range(8)]
    for worker in workers:
        worker.start()
    for worker in workers:
        worker.join()
    assert sorted(codes) == [200] + [422] * 7
    assert [held["name"] for held in client.get("/api/projects").json()].count("Plover Barn") == 1


def test_what_cannot_be_built_at_all_opens_empty(client: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    whole = opening.resolve

    def resolve(project: Project) -> Any:
        if project.place == fernacre_bungalow().place:
            raise Broken
        return whole(project)

    monkeypatch.setattr(opening, "resolve", resolve)
    opening.forget()
    answer = client.post("/api/projects/fernacre/views", json={"views": VIEWS})
    assert answer.status_code == 200
    lost = {held["element"] for held in answer.json()["bench"]["findings"] if held["code"] == opening.LEFT_OUT}
    assert {"south", "roof-main"} <= lost
    assert client.get("/api/projects/fernacre").status_code == 200, "history and file are there"
