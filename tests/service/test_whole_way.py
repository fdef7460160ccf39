"""From a floor plan in DXF to elevations and a section, measured against values worked out by hand."""

from __future__ import annotations

import io
import json
import math
from typing import Any

import ezdxf
import ezdxf.bbox
import ezdxf.recover
import pytest
from fastapi.testclient import TestClient

from tests.plan_files import plan_file, small_house

FLOOR, PLATE_RISE = 300.0, 38.0 + 2386.0 + 2 * 38.0
"""The metric timber starter: floor 300 above grade; one plate, a stud of 2386 and two plates."""
BOARD, SHEET, WRAP = 20.0, 12.0, 0.5
"""Lap boards, sheathing and membrane outside of the frame, whose outside is the outline in the file."""
PITCH, RAFTER, SEAT, COVERING, OVERHANG = 0.5, 235.0, 90.0, 10.0 + 1.0 + 15.0, 400.0


@pytest.fixture
def house(client: TestClient) -> str:
    """A project with the plan read from the file, a roof over it and a section across it."""
    made = client.post("/api/projects", json={"name": "From a plan", "units": "mm"}).json()
    id: str = made["id"]
    read = client.post(f"/api/projects/{id}/plan?base_version=1", content=plan_file(small_house))
    assert read.status_code == 200, read.text
    corners = [{"x": x, "y": y} for x, y in ((0, 0), (10000, 0), (10000, 7000), (0, 7000))]
    eave, gable = {"kind": "eave", "overhang": OVERHANG}, {"kind": "gable", "overhang": 300.0}
    roof = {
        "id": "roof-1",
        "name": "Roof",
        "outline": corners,
        "edges": [eave, gable, eave, gable],
        "pitch": PITCH,
        "plate": "plate",
        "seat": SEAT,
        "make_up": "roof",
        "fascia_depth": 190.0,
    }
    line = {"id": "cut", "name": "A", "x1": 3000.0, "y1": -1500.0, "x2": 3000.0, "y2": 8500.0, "look": "right"}
    edits = [{"kind": "draw_roof", "roof": roof}, {"kind": "put_section", "section": line}]
    done = client.post(f"/api/projects/{id}/edits", json={"base_version": 2, "edits": edits})
    assert done.status_code == 200, done.text
    return id


def drawn(client: TestClient, project: str, view: str) -> Any:
    """The model space of a view as a DXF file, in real mm, with its ground line at z = 0."""
    answer = client.get(f"/api/projects/{project}/views/{view}/file?format=dxf")
    assert answer.status_code == 200, answer.text
    document, auditor = ezdxf.recover.read(io.BytesIO(answer.content))
    assert not auditor.errors and document.header["$INSUNITS"] == 4
    return document.modelspace()


def box(space: Any, *layers: str) -> tuple[float, float, float, float]:
    """Left, low, right, high of what lies on some layers."""
    held = ezdxf.bbox.extents(entity for entity in space if entity.dxf.layer in layers)
    return held.extmin.x, held.extmin.y, held.extmax.x, held.extmax.y


def ridge() -> float:
    """Plate + heel (plumb depth less what the seat cuts) + pitch x half span + covering, each measured plumb."""
    slope = math.hypot(1.0, PITCH)
    heel = RAFTER * slope - PITCH * SEAT
    return FLOOR + PLATE_RISE + heel + PITCH * 3500.0 + COVERING * slope


def test_elevations_stand_at_heights_worked_out_by_hand(client: TestClient, house: str) -> None:
    for side, wide in (("south", 10000.0), ("north", 10000.0)):
        left, _, right, high = box(drawn(client, house, f"elevation:{side}"), "OUTLINE", "EDGE", "FINE")
        assert high == pytest.approx(ridge(), abs=0.1), side
        assert right - left == pytest.approx(wide + 2 * (300.0 + SHEET), abs=0.1), "overhangs, from the sheathing"
    reach = OVERHANG + SHEET
    for side in ("east", "west"):
        left, _, right, high = box(drawn(client, house, f"elevation:{side}"), "OUTLINE", "EDGE", "FINE")
        assert high == pytest.approx(ridge(), abs=0.1)
        assert right - left == pytest.approx(7000.0 + 2 * reach, abs=0.1), "overhangs, from the sheathing"


def test_the_window_of_the_file_stands_in_plan_and_elevation(client: TestClient, house: str) -> None:
    """A block of 1800 at 3000 from the corner: a hole from 2100 to 3900, 900 to 2100 above the floor."""
    wanted = [{"name": "plan"}, {"name": "elevation:south"}]
    answer = client.post(f"/api/projects/{house}/views", json={"views": wanted}).json()
    window = next(held["id"] for held in answer["state"]["project"]["openings"] if held["unit"] == "window")
    plan, south = answer["bench"]["drawings"]
    us, _ = reach_of(plan, f"{window}/window")
    assert us == pytest.approx((2100.0, 3900.0))
    # In the elevation the frame stands in the hole with the same gap all round.
    us, vs = reach_of(south, f"{window}/frame")
    gap = us[0] - 2100.0
    assert 0.0 < gap < 20.0
    assert us == pytest.approx((2100.0 + gap, 3900.0 - gap))
    assert vs == pytest.approx((FLOOR + 900.0 + gap, FLOOR + 2100.0 - gap))


def reach_of(drawing: Any, part: str) -> tuple[tuple[float, float], tuple[float, float]]:
    """How far the regions of a part reach, across and up."""
    points = [
        (x, y)
        for mark in drawing["marks"]
        if mark.get("rings") and (mark.get("part") or "").startswith(part)
        for ring in mark["rings"]
        for x, y, *_ in ring
    ]
    us, vs = [x for x, _ in points], [y for _, y in points]
    return (min(us), max(us)), (min(vs), max(vs))


def test_the_section_cuts_what_the_plan_says(client: TestClient, house: str) -> None:
    """Across at 3 m: through the window in the south wall, and the north wall whole; frames from outline inward."""
    answer = client.post(f"/api/projects/{house}/views", json={"views": [{"name": "section:cut"}]}).json()
    (drawing,) = answer["bench"]["drawings"]
    cut: dict[str, list[tuple[float, float]]] = {}
    for mark in drawing["marks"]:
        if mark.get("feature") == "cut" and mark.get("rings"):
            role = mark["part"].split("/")[1]
            cut.setdefault(role, []).extend((x, y) for x, y, *_ in mark["rings"][0])
    us = [x for x, _ in cut["plate"]]
    assert max(us) - min(us) == pytest.approx(7000.0), "plates lie in the frames, whose outside is the outline"
    assert max(y for _, y in cut["plate"]) == pytest.approx(FLOOR + PLATE_RISE)
    assert min(y for _, y in cut["footing"]) == pytest.approx(-1050.0)
    assert max(y for _, y in cut["sheathing"]) <= ridge()
    boards = [x for x, _ in cut["cladding"]]
    assert max(boards) - min(boards) == pytest.approx(7000.0 + 2 * (SHEET + WRAP + BOARD))


def test_layers_are_offered_chosen_and_refused_in_words(client: TestClient) -> None:
    id = client.post("/api/projects", json={"name": "Layers", "units": "mm"}).json()["id"]
    data = plan_file(small_house)
    address = f"/api/projects/{id}/plan"
    seen = client.post(f"{address}/look", content=data).json()
    assert {held["name"]: held["meaning"] for held in seen["layers"]} == {
        "0": "unknown",
        "FURNITURE": "furniture",
        "NOTES": "text",
        "WALL-INNER": "wall",
        "WALL-OUTER": "wall",
    }
    assert client.get(f"/api/projects/{id}").json()["version"] == 1, "looking builds nothing"
    for wrong, words, field in (
        ({"make_ups": {"0 outer": "straw"}}, "no make-up for walls is called “straw”", "make_up"),
        ({"layers": {"WALL-OUTER": "straw"}}, "these choices cannot be read", "layers.WALL-OUTER"),
    ):
        refused = client.post(address, params={"base_version": 1, "choices": json.dumps(wrong)}, content=data)
        assert refused.status_code == 422 and words in refused.json()["detail"] and refused.json()["field"] == field
    chosen = json.dumps({"make_ups": {"0 outer": "wall-batten"}, "layers": {"WALL-INNER": "nothing"}})
    built = client.post(address, params={"base_version": 1, "choices": chosen}, content=data).json()
    walls = built["state"]["project"]["walls"]
    assert {wall["make_up"] for wall in walls} == {"wall-batten"} and len(walls) == 4


def test_a_storey_is_added_seen_and_undone(client: TestClient) -> None:
    made = client.post("/api/projects", json={"name": "Two up", "units": "mm", "ground": "joists"}).json()
    id = made["id"]
    assert [held["plan"] for held in made["storeys"]] == ["plan"]
    assert client.post(f"/api/projects/{id}/plan?base_version=1", content=plan_file(small_house)).status_code == 200
    views = [{"name": "plan:s2-floor"}, {"name": "elevation:south"}]
    entry = {"base_version": 2, "element": "floor", "field": "add_storey", "text": "", "views": views}
    added = client.post(f"/api/projects/{id}/entries", json=entry).json()
    assert [held["plan"] for held in added["state"]["storeys"]] == ["plan", "plan:s2-floor"]
    assert added["state"]["undo"] == "add a storey over Main floor"
    assert added["bench"]["drawings"][0]["title"] == "Upper floor plan"
    undone = client.post(f"/api/projects/{id}/undo", json={"base_version": 3, "views": views})
    assert undone.status_code == 200
    assert undone.json()["bench"]["drawings"][0]["name"] == "plan", "the plan that is left stands in"
    assert client.post(f"/api/projects/{id}/views", json={"views": views}).status_code == 404
    refused = client.post(
        "/api/projects", json={"name": "M", "units": "mm", "tradition": "masonry", "ground": "joists"}
    )
    assert refused.status_code == 422 and refused.json()["field"] == "ground"
