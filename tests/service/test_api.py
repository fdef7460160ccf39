"""The API: edits kept or refused whole, versions that never overwrite each other, problems with their place."""

from __future__ import annotations

import json
from typing import Any

import pytest
from fastapi.testclient import TestClient

from deepsection.service import app as application
from tests.plan_files import plan_file, small_house
from tests.plans_drawn.manners import as_bytes, drawn
from tests.plans_drawn.truth import houses
from tests.service.conftest import VIEWS, edit, move, state


def placed(data: dict[str, Any], opening: str = "w2") -> float:
    return float(next(held for held in data["project"]["openings"] if held["id"] == opening)["distance"])


def test_an_edit_is_kept_and_drawn(client: TestClient) -> None:
    answer = edit(client, 1, move(7600.0))
    assert answer.status_code == 200
    result = answer.json()
    assert result["state"]["version"] == 2 and result["state"]["undo"] == "move W2"
    assert [drawing["name"] for drawing in result["bench"]["drawings"]] == ["plan", "elevation:south"]
    assert placed(state(client)) == 7600.0


def test_two_windows_never_overwrite_each_other(client: TestClient) -> None:
    assert edit(client, 1, move(7600.0)).status_code == 200
    late = edit(client, 1, move(8000.0))
    assert late.status_code == 409 and late.headers["content-type"] == "application/problem+json"
    problem = late.json()
    assert problem["field"] == "base_version" and problem["value"] == 1 and problem["limit"] == 2
    assert "another window" in problem["detail"]
    assert placed(state(client)) == 7600.0


def test_undo_and_redo_lose_nothing(client: TestClient) -> None:
    first = placed(state(client))
    for version, distance in ((1, 7600.0), (2, 7700.0)):
        edit(client, version, move(distance))
    for version, there in ((3, 7600.0), (4, first)):
        back = client.post("/api/projects/quillback/undo", json={"base_version": version}).json()
        assert placed(back["state"]) == there
    assert back["state"]["undo"] is None and back["state"]["redo"] == "move W2"
    again = client.post("/api/projects/quillback/redo", json={"base_version": 5}).json()["state"]
    assert placed(again) == 7600.0 and again["redo"] == "move W2"
    again = client.post("/api/projects/quillback/redo", json={"base_version": 6}).json()["state"]
    assert placed(again) == 7700.0 and again["redo"] is None
    nothing = client.post("/api/projects/quillback/redo", json={"base_version": 7})
    assert nothing.status_code == 409 and "nothing to redo" in nothing.json()["detail"]


def test_an_edit_after_undo_starts_a_new_way(client: TestClient) -> None:
    edit(client, 1, move(7600.0))
    client.post("/api/projects/quillback/undo", json={"base_version": 2})
    result = edit(client, 3, move(7900.0)).json()["state"]
    assert result["redo"] is None and placed(result) == 7900.0


def test_a_preview_is_drawn_and_not_kept(client: TestClient) -> None:
    body = {"base_version": 1, "sequence": 7, "edits": [move(7600.0)], "views": VIEWS}
    bench = client.post("/api/projects/quillback/preview", json=body).json()
    assert bench["sequence"] == 7 and len(bench["drawings"]) == 2
    assert (
        bench["drawings"][1]
        != client.post("/api/projects/quillback/views", json={"views": VIEWS}).json()["bench"]["drawings"][1]
    )
    assert state(client)["version"] == 1


def test_while_a_section_line_is_dragged_what_it_cuts_follows_at_once(client: TestClient) -> None:
    """The cut is the one of the whole drawing; the plan is as it was, with the line where it is now."""
    line = state(client)["project"]["sections"][0]
    moved = {"kind": "put_section", "section": line | {"x1": line["x1"] + 300.0, "x2": line["x2"] + 300.0}}
    views = [{"name": "plan"}, {"name": f"section:{line['id']}"}]
    body = {"base_version": 1, "sequence": 1, "edits": [moved], "views": views}

    def shown(**more: Any) -> tuple[list[dict[str, Any]], list[dict[str, Any]]]:
        plan, section = client.post("/api/projects/quillback/preview", json=body | more).json()["drawings"]
        return plan["marks"], section["marks"]

    def own(marks: list[dict[str, Any]], what: str) -> list[str]:
        return sorted(json.dumps(mark) for mark in marks if what in (mark.get("part") or mark.get("feature") or ""))

    plan, section = shown()
    draft_plan, draft = shown(draft=True)
    cut = [sorted(json.dumps(m) for m in marks if m.get("feature") == "cut") for marks in (section, draft)]
    assert cut[0] == cut[1] and len(draft) < len(section)
    before = client.post("/api/projects/quillback/views", json={"views": views}).json()["bench"]["drawings"][0]["marks"]
    mark = f"{line['id']}/section//"
    assert own(draft_plan, "w2/") == own(before, "w2/") and own(draft_plan, mark) != own(before, mark)
    ends = [
        own([m for m in marks if "end" in m["part"] or "start" in m["part"]], mark)
        for marks in ([m for m in draft_plan if m.get("part")], [m for m in plan if m.get("part")])
    ]
    assert {json.loads(m)["part"] for m in ends[0]} == {json.loads(m)["part"] for m in ends[1]}
    # Other edits are drawn whole, whatever is asked for.
    body["edits"] = [move(7600.0)]
    assert shown() == shown(draft=True)


@pytest.mark.parametrize(
    ("edit_", "element", "field"),
    [
        (move(-500.0), "w2", "distance"),
        (move(9500.0), "w2", "distance"),
        ({"kind": "resize_opening", "opening": "w2", "width": 99000.0}, "w2", "width"),
        ({"kind": "set_total", "rung": "plate", "total": -10.0}, "plate", "total"),
        ({"kind": "flip_wall", "wall": "ghost"}, "ghost", None),
        ({"kind": "set_roof_edge", "roof": "roof-main", "edge": "e9", "to": "eave"}, "roof-main", "edge"),
    ],
)
def test_refusals_name_the_place_and_keep_nothing(
    client: TestClient, edit_: dict[str, Any], element: str, field: str | None
) -> None:
    answer = edit(client, 1, {"kind": "set_project", "name": "Half applied"}, edit_)
    assert answer.status_code in (404, 422)
    problem = answer.json()
    assert problem["element"] == element and problem.get("field") == field
    assert problem["detail"] and problem["status"] == answer.status_code
    assert state(client)["version"] == 1 and state(client)["project"]["name"] == "Quillback House"


@pytest.mark.parametrize(
    "body",
    [
        {},
        {"base_version": 1, "edits": []},
        {"base_version": 1, "edits": [{"kind": "burn_down"}]},
        {"base_version": 1, "edits": [{"kind": "move_opening", "opening": "w2", "distance": "far"}]},
        {"base_version": 1, "edits": [{"kind": "move_opening", "opening": "w2", "distance": 1e99}]},
        {"base_version": 1, "edits": [move(1.0)], "surprise": 1},
        {"base_version": "one", "edits": [move(1.0)]},
    ],
)
def test_malformed_requests_are_problems_with_a_field(client: TestClient, body: dict[str, Any]) -> None:
    answer = client.post("/api/projects/quillback/edits", json=body)
    assert answer.status_code == 422 and answer.headers["content-type"] == "application/problem+json"
    assert answer.json()["field"] and "Traceback" not in answer.text


@pytest.mark.parametrize(
    "path",
    [
        "/api/projects/ghost",
        "/api/projects/quillback/particulars/ghost",
        "/api/projects/quillback/sheets/ghost",
        "/api/projects/quillback/views/roof/file?format=pdf",
        "/api/nothing",
    ],
)
def test_what_is_not_there_is_404(client: TestClient, path: str) -> None:
    answer = client.get(path)
    assert answer.status_code == 404 and answer.json()["title"] == "not found"


def test_an_unknown_view_is_named(client: TestClient) -> None:
    answer = client.post("/api/projects/quillback/views", json={"views": [{"name": "elevation:up"}]})
    assert answer.status_code == 404 and answer.json()["value"] == "elevation:up"


def test_bodies_are_limited(client: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(application, "LARGEST_FILE", 1000)
    big = client.post("/api/projects/import", content=b"x" * 1001)
    assert big.status_code == 413 and big.json()["title"] == "too large"

    def chunks() -> Any:
        yield b"{"

    assert client.post("/api/projects/import", content=chunks()).status_code == 413


def test_a_fault_of_ours_shows_no_trace(client: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    def broken(*_: object, **__: object) -> None:
        raise ZeroDivisionError("inner secret")

    monkeypatch.setattr("deepsection.service.routes.particulars_of", broken)
    answer = client.get("/api/projects/quillback/particulars/w2")
    assert (
        answer.status_code == 500 and "secret" not in answer.text and "nothing was changed" in answer.json()["detail"]
    )


def test_a_project_goes_out_and_comes_in_as_a_file(client: TestClient) -> None:
    edit(client, 1, move(7600.0))
    data = client.get("/api/projects/quillback/file").content
    back = client.post("/api/projects/import", content=data)
    assert back.status_code == 200
    twin = back.json()
    assert twin["id"] != "quillback" and placed(twin) == 7600.0
    assert {item["id"] for item in client.get("/api/projects").json()} >= {"quillback", twin["id"]}


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"", "not a whole project file"),
        (b"{", "not a whole project file"),
        (b"[]", "not a project file"),
        (b"\xff\xfe", "not a whole project file"),
        (json.dumps({"schema_version": 99}).encode(), "schema version 99"),
        (json.dumps({"schema_version": 1, "id": "x"}).encode(), "does not hold together"),
    ],
)
def test_a_bad_file_is_refused_in_words(client: TestClient, content: bytes, words: str) -> None:
    before = client.get("/api/projects").json()
    answer = client.post("/api/projects/import", content=content)
    assert answer.status_code == 422 and words in answer.json()["detail"]
    assert client.get("/api/projects").json() == before


@pytest.mark.parametrize("units", ["ft-in", "mm"])
def test_a_new_project_has_all_it_needs(client: TestClient, units: str) -> None:
    made = client.post("/api/projects", json={"name": "Shed / “No. 2”", "units": units}).json()
    assert made["version"] == 1 and made["project"]["units"] == units
    assert made["project"]["walls"] == [] and len(made["project"]["make_ups"]) >= 5


def test_text_typed_into_a_field_is_kept(client: TestClient) -> None:
    body = {"base_version": 1, "element": "w2", "field": "width", "text": "3' + 6\"", "views": []}
    result = client.post("/api/projects/quillback/entries", json=body).json()["state"]
    window = next(held for held in result["project"]["openings"] if held["id"] == "w2")
    assert window["width"] == pytest.approx(42 * 25.4) and result["undo"] == "resize W2"


def test_lengths_are_read_as_they_are_typed(client: TestClient) -> None:
    read = client.get("/api/lengths", params={"text": '5/8" + 9 1/4"', "units": "ft-in"}).json()
    assert read["value"] == pytest.approx(9.875 * 25.4) and read["text"] == '9 7/8"' and read["wrong"] is None
    half = client.get("/api/lengths", params={"text": '5/8" +', "units": "ft-in"}).json()
    assert half["value"] is None and half["wrong"]


@pytest.mark.parametrize(
    ("format", "start"), [("pdf", b"%PDF"), ("dxf", b"  0"), ("svg", b"<svg"), ("png", b"\x89PNG"), ("json", b"{")]
)
def test_sheets_and_views_become_files(client: TestClient, format: str, start: bytes) -> None:
    for path in ("sheets/sheet-1", "views/section:section-a"):
        answer = client.get(f"/api/projects/quillback/{path}/file", params={"format": format})
        assert answer.status_code == 200 and answer.content.startswith(start)
        assert "Quillback House" in answer.headers["content-disposition"]


def test_a_sheet_can_be_looked_at(client: TestClient) -> None:
    answer = client.get("/api/projects/quillback/sheets/sheet-1/picture", params={"dpi": 72})
    assert answer.headers["content-type"] == "image/png" and answer.content.startswith(b"\x89PNG")
    held = client.get("/api/projects/quillback/sheets/sheet-1").json()
    assert held["messages"] == [] and [item["view"] for item in held["placed"]] == [
        "elevation:south",
        "section:section-a",
    ]


def test_pages_load_nothing_from_elsewhere(client: TestClient) -> None:
    answer = client.get("/project/quillback")
    assert answer.status_code == 200 and "default-src 'self'" in answer.headers["content-security-policy"]
    assert client.get("/../pyproject.toml").text == client.get("/").text, (
        "files outside of the front end are not served"
    )


# --- projects and history -----------------------------------------------------------------------


def test_a_taken_name_is_refused_and_a_copy_finds_its_own(client: TestClient) -> None:
    taken = client.post("/api/projects", json={"name": "quillback HOUSE", "units": "mm"})
    assert taken.status_code == 422 and taken.json()["field"] == "name"
    first, second = (client.post("/api/projects/quillback/copy").json() for _ in range(2))
    assert (
        first["project"]["name"] == "Quillback House, copy" and second["project"]["name"] == "Quillback House, copy 2"
    )
    assert first["project"]["walls"] == state(client)["project"]["walls"]
    edit(client, 1, move(7600.0), id=first["id"])
    assert placed(state(client)) != 7600.0, "a copy never changes its origin"
    renamed = client.patch(f"/api/projects/{second['id']}", json={"name": "Quillback House, copy"})
    assert renamed.status_code == 422 and renamed.json()["field"] == "name"


def test_a_project_is_renamed_and_put_away(client: TestClient) -> None:
    item = client.patch("/api/projects/quillback", json={"name": "Heron Row 7"}).json()
    assert item["name"] == "Heron Row 7" and state(client)["undo"] == "change the project"
    assert client.patch("/api/projects/quillback", json={"archived": True}).json()["archived"] is True
    assert state(client)["project"]["name"] == "Heron Row 7", "what is archived can still be opened"
    assert client.patch("/api/projects/quillback", json={"archived": False}).json()["archived"] is False


def test_history_is_told_in_words_and_any_point_can_be_gone_back_to(client: TestClient) -> None:
    first = placed(state(client))
    edit(client, 1, move(7600.0))
    edit(client, 2, {"kind": "set_total", "rung": "plate", "total": 2743.2})
    client.post("/api/projects/quillback/undo", json={"base_version": 3})
    told = [item["words"] for item in client.get("/api/projects/quillback/history").json()]
    assert told == ["undo: change a height", "change a height", "move W2", "open the demo"]
    named = client.put("/api/projects/quillback/history/1", json={"mark": "as bought"}).json()
    assert named[-1]["mark"] == "as bought"
    back = client.post("/api/projects/quillback/back", json={"base_version": 4, "version": 1}).json()["state"]
    assert placed(back) == first and back["version"] == 5 and back["undo"] == "go back to “as bought”"
    again = client.post("/api/projects/quillback/undo", json={"base_version": 5}).json()["state"]
    assert placed(again) == 7600.0, "nothing is lost by going back"
    forward = client.post("/api/projects/quillback/back", json={"base_version": 6, "version": 3}).json()["state"]
    plate = next(rung for rung in forward["project"]["rungs"] if rung["id"] == "plate")
    assert sum(term["value"] * term["count"] for term in plate["terms"]) == pytest.approx(2743.2)
    missing = client.post("/api/projects/quillback/back", json={"base_version": 7, "version": 99})
    assert missing.status_code == 404 and missing.json()["value"] == 99
    assert client.put("/api/projects/quillback/history/1", json={"mark": ""}).status_code == 422


def test_a_make_up_is_copied_from_another_project(client: TestClient) -> None:
    made = client.post("/api/projects", json={"name": "Other", "units": "mm"}).json()
    body = {"base_version": 1, "project": made["id"], "make_up": "wall-lap"}
    result = client.post("/api/projects/quillback/make-ups", json=body).json()["state"]["project"]
    copied = next(held for held in result["make_ups"] if held["name"] == "140 frame, lap boards")
    assert copied["layers"] == next(held for held in made["project"]["make_ups"] if held["id"] == "wall-lap")["layers"]
    again = client.post("/api/projects/quillback/make-ups", json=body | {"base_version": 2}).json()["state"]["project"]
    assert "140 frame, lap boards 2" in [held["name"] for held in again["make_ups"]]
    missing = client.post("/api/projects/quillback/make-ups", json=body | {"base_version": 3, "make_up": "straw"})
    assert missing.status_code == 404 and missing.json()["field"] == "make_up"


def test_a_masonry_project_is_in_millimetres(client: TestClient) -> None:
    made = client.post("/api/projects", json={"name": "Block house", "units": "mm", "tradition": "masonry"}).json()
    assert [held["id"] for held in made["project"]["make_ups"]][:2] == ["wall-cavity", "wall-inner"]
    refused = client.post("/api/projects", json={"name": "Other", "units": "ft-in", "tradition": "masonry"})
    assert refused.status_code == 422 and refused.json()["field"] == "units"


def test_a_plan_is_read_as_one_step(client: TestClient) -> None:
    made = client.post("/api/projects", json={"name": "Read", "units": "mm"}).json()["id"]
    url = f"/api/projects/{made}/plan"
    answer = client.post(url, params={"base_version": 1}, content=plan_file(small_house)).json()
    assert answer["state"]["version"] == 2 and answer["state"]["undo"] == "read a plan"
    assert len(answer["state"]["project"]["walls"]) == 6 and answer["built"][0] == "6 walls"
    refused = client.post(url, params={"base_version": 2, "choices": '{"unit": "rod"}'}, content=plan_file(small_house))
    assert refused.status_code == 422 and refused.json()["field"] == "unit"
    refused = client.post(url, params={"base_version": 2, "choices": '{"layers": 4}'}, content=plan_file(small_house))
    assert refused.status_code == 422 and refused.json()["field"] == "layers"
    assert client.post(url, params={"base_version": 1}, content=plan_file(small_house)).status_code == 409
    assert state(client, made)["version"] == 2


def test_a_plan_is_looked_at_before_it_is_built(client: TestClient) -> None:
    """What was chosen counts: a wall and an opening left out, a make-up for a thickness, a scale by a known length."""
    made = client.post("/api/projects", json={"name": "Look", "units": "mm"}).json()["id"]
    url, data = f"/api/projects/{made}/plan", as_bytes(drawn(houses()[0], "pairs"))
    look = client.post(f"{url}/look", content=data).json()
    assert [held["key"] for held in look["groups"]] == ["300 outer", "120 inner"]
    assert {held["make_up"] for held in look["groups"]} == {"as drawn"} and len(look["drawn"]) > 80
    assert len(look["walls"]) == 7 and all(len(wall["outline"]) == 4 for wall in look["walls"])
    assert state(client, made)["version"] == 1
    inner = next(k for k, wall in enumerate(look["walls"]) if not wall["outer"])
    first = next(k for k, held in enumerate(look["openings"]) if held["wall"] != inner)
    choices = {
        "make_ups": {"120 inner": "wall-inner"},
        "without_walls": [inner],
        "without_openings": [first],
        "rooms": False,
    }
    sent = {"base_version": 1, "choices": json.dumps(choices)}
    project = client.post(url, params=sent, content=data).json()["state"]["project"]
    lost = 1 + sum(held["wall"] == inner for held in look["openings"])
    assert len(project["walls"]) == 6 and len(project["openings"]) == 11 - lost and project["rooms"] == []
    assert "wall-inner" in {wall["make_up"] for wall in project["walls"]}
    once_more = client.post(f"{url}/look", content=data).json()
    assert all(wall["stands"] for wall in once_more["walls"]) and once_more["gone"] == []
    # What was left out stays out the next time too, unless it is brought back.
    left = {(held["kind"], held["number"]) for held in once_more["own"]}
    assert ("wall", inner) in left and len(left) == 2
    back = {"choices": json.dumps({"back_walls": [inner]})}
    brought = client.post(f"{url}/look", params=back, content=data).json()
    assert [wall["stands"] for wall in brought["walls"]].count(False) == 1
    nothing = client.post(url, params={"base_version": 2}, content=data)
    assert nothing.status_code == 422 and "stands already" in nothing.json()["detail"]
    numbers = [held["number"] for held in once_more["own"] if held["kind"] == "opening"]
    back = {"choices": json.dumps({"back_walls": [inner], "back_openings": numbers}), "base_version": 2}
    again = client.post(url, params=back, content=data).json()["state"]["project"]
    assert len(again["walls"]) == 7 and len(again["openings"]) == 11
    nothing = client.post(url, params={"base_version": 3}, content=data)
    assert nothing.status_code == 422 and "stands already" in nothing.json()["detail"]
    known = json.dumps({"measured": 9000.0, "says": "18 m"})
    twice = client.post(f"{url}/look", params={"choices": known}, content=data).json()
    assert twice["unit"]["factor"] == 2.0 and max(wall["thickness"] for wall in twice["walls"]) == 600.0
    wrong = client.post(f"{url}/look", params={"choices": json.dumps({"measured": 1, "says": "far"})}, content=data)
    assert wrong.status_code == 422
    assert client.post(f"{url}/look", content=b"0").status_code == 422


def test_a_version_that_no_database_can_count_is_refused(client: TestClient) -> None:
    """Found by a request made from the schema: 2^63 is one more than a database holds."""
    answer = client.put(f"/api/projects/quillback/history/{2**63}", json={})
    assert answer.status_code == 422 and answer.headers["content-type"] == "application/problem+json"
    assert edit(client, 2**63, move(7600.0)).status_code == 422


def test_a_blank_name_is_refused(client: TestClient) -> None:
    answer = client.post("/api/projects", json={"name": "\r", "units": "mm"})
    assert answer.status_code == 422 and "name" in json.dumps(answer.json())


def test_the_building_is_served_as_a_model(client: TestClient) -> None:
    answer = client.get("/api/projects/quillback/model")
    assert answer.status_code == 200 and answer.content.startswith(b"ISO-10303-21;")
    assert "Quillback" in answer.headers["content-disposition"]


def test_one_entry_counts_for_several_elements(client: TestClient) -> None:
    body = {"base_version": 1, "element": "south", "others": ["north"], "field": "height", "text": "8'", "views": VIEWS}
    assert client.post("/api/projects/quillback/entries", json=body).status_code == 200
    walls = {wall["id"]: wall for wall in state(client)["project"]["walls"]}
    assert walls["south"]["top"]["height"] == walls["north"]["top"]["height"] == pytest.approx(8 * 304.8)
    assert state(client)["version"] == 2, "one step of undo"


def test_junctions_are_told_and_their_details_drawn_and_laid_on_sheets(client: TestClient) -> None:
    at = "/api/projects/quillback"
    groups = client.get(f"{at}/junctions").json()
    assert {group["kind"] for group in groups} >= {"eave", "rake", "ridge", "head", "sill", "wall_foot", "footing"}
    for group in groups:
        assert group["pieces"] == len(group["junctions"]) and group["details"] == []
        assert group["length"] == pytest.approx(sum(held["length"] for held in group["junctions"]))
    one = next(group for group in groups if group["drawn"])
    body: dict[str, Any] = {"base_version": 1, "keys": [one["key"]], "views": []}
    (made,) = client.post(f"{at}/details", json=body).json()["state"]["project"]["details"]
    assert made["kind"] == one["kind"]
    again = client.post(f"{at}/details", json=body | {"base_version": 2})
    assert again.status_code == 422 and "has its detail" in again.json()["detail"]
    done = client.post(f"{at}/details", json={"base_version": 2, "views": []}).json()["state"]
    assert len(done["project"]["details"]) == sum(group["drawn"] for group in groups)
    laid = client.post(f"{at}/detail-sheets", json={"base_version": 3, "views": []}).json()["state"]
    placed = [
        held["view"] for sheet in laid["project"]["sheets"] for held in sheet["placed"] if "detail:" in held["view"]
    ]
    assert sorted(placed) == sorted(f"detail:{held['id']}" for held in laid["project"]["details"])
    twice = client.post(f"{at}/detail-sheets", json={"base_version": 4, "views": []})
    assert twice.status_code == 422 and "on a sheet already" in twice.json()["detail"]
    assert client.get("/api/projects/nobody/junctions").status_code == 404
