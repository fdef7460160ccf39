"""Files under views through the service: laid, printed, taken along with the project, refused in words."""

from __future__ import annotations

import io
import json
from typing import Any
from urllib.parse import quote

import numpy as np
import pytest
from ezdxf.math import Matrix44
from fastapi.testclient import TestClient
from PIL import Image
from reportlab.pdfgen.canvas import Canvas
from sqlalchemy import delete
from sqlalchemy.orm import Session

from deepsection.core.model import Project
from deepsection.core.resolve import resolve
from deepsection.core.trades.walls.planned import WALLS
from deepsection.service.tables import FileRow
from tests.formats.test_pictures import FILES, LINES, dxf_file, pdf_file, png_file
from tests.plans_drawn.manners import as_bytes, drawn
from tests.plans_drawn.truth import houses

from .conftest import state


def lay(client: TestClient, data: bytes, view: str = "plan", name: str = "old plan.pdf", id: str = "quillback") -> Any:
    version = state(client, id)["version"]
    query = f"base_version={version}&view={view}&name={name}"
    return client.post(f"/api/projects/{id}/backgrounds?{query}", content=data)


def held(client: TestClient, id: str = "quillback") -> list[dict[str, Any]]:
    found: list[dict[str, Any]] = state(client, id)["project"]["backgrounds"]
    return found


def edit(client: TestClient, *edits: dict[str, Any], id: str = "quillback") -> Any:
    sent = {"base_version": state(client, id)["version"], "edits": list(edits)}
    return client.post(f"/api/projects/{id}/edits", json=sent)


@pytest.mark.parametrize("name", sorted(FILES))
def test_a_file_lies_under_a_view(client: TestClient, name: str) -> None:
    view = "plan" if name in ("pdf", "dxf") else "elevation:west"
    answer = lay(client, FILES[name](), view, f"old house.{name}")
    assert answer.status_code == 200, answer.text
    [laid] = held(client)
    assert laid["id"] == answer.json()["background"] and laid["name"] == "old house" and laid["view"] == view
    assert answer.json()["state"]["undo"] == "lay old house under a view"
    drawn = client.post("/api/projects/quillback/views", json={"views": [{"name": view}]}).json()
    [backdrop] = drawn["bench"]["drawings"][0]["backdrops"]
    page = client.get(f"/api/files/{backdrop['file']}/pages/{backdrop['page']}")
    assert page.status_code == 200 and "immutable" in page.headers["cache-control"]
    assert bool(page.json()["lines"]) == (name in ("pdf", "svg", "dxf"))
    image = client.get(f"/api/files/{backdrop['file']}/pages/0/image")
    assert image.status_code == (404 if name == "dxf" else 200)
    if name != "dxf":
        Image.open(io.BytesIO(image.content)).load()
    # It lies about the middle of the house; a drawing lies where it says itself.
    if name == "dxf":
        assert (laid["x"], laid["y"]) == pytest.approx((1000.0, 1500.0))
    else:
        a, b, c, d, e, f = backdrop["place"]
        u, v = 100 * a + 75 * c + e, 100 * b + 75 * d + f
        x0, y0, x1, y1 = drawn["bench"]["drawings"][0]["bounds"]
        assert x0 < u < x1 and y0 < v < y1


def test_it_goes_and_comes_by_undo(client: TestClient) -> None:
    lay(client, pdf_file())
    version = state(client)["version"]
    assert client.post("/api/projects/quillback/undo", json={"base_version": version}).status_code == 200
    assert held(client) == []
    assert client.post("/api/projects/quillback/redo", json={"base_version": version + 1}).status_code == 200
    assert len(held(client)) == 1


def test_facts_are_typed(client: TestClient) -> None:
    answer = lay(client, pdf_file())
    id = answer.json()["background"]

    def enter(field: str, text: str) -> Any:
        sent = {"base_version": state(client)["version"], "element": id, "field": field, "text": text}
        return client.post("/api/projects/quillback/entries", json=sent)

    for field, text in (("scale", "1:100"), ("turn", "12.5"), ("x", "3'"), ("strength", "80 %"), ("printed", "yes")):
        assert enter(field, text).status_code == 200, (field, text)
    [laid] = held(client)
    assert (laid["scale"], laid["turn"], laid["strength"], laid["printed"]) == (100, 12.5, 0.8, True)
    assert laid["x"] == pytest.approx(914.4)
    for field, text in (
        ("scale", "large"),
        ("strength", "0"),
        ("printed", "perhaps"),
        ("scale", "1:0"),
        ("scale", "-3"),
    ):
        refused = enter(field, text)
        assert refused.status_code == 422 and refused.json()["field"] == field
    assert held(client) == [laid]


def test_pages_are_turned(client: TestClient) -> None:
    out = io.BytesIO()
    canvas = Canvas(out)
    for width in (300, 500):
        canvas.setPageSize((width, 400))
        canvas.line(10, 10, width - 10, 10)
        canvas.showPage()
    canvas.save()
    id = lay(client, out.getvalue()).json()["background"]

    def turn(text: str) -> Any:
        sent = {"base_version": state(client)["version"], "element": id, "field": "page", "text": text}
        return client.post("/api/projects/quillback/entries", json=sent)

    assert turn("2").status_code == 200 and held(client)[0]["page"] == 1
    drawn = client.post("/api/projects/quillback/views", json={"views": [{"name": "plan"}]}).json()
    assert drawn["bench"]["drawings"][0]["backdrops"][0]["box"][2] == pytest.approx(500 / 72 * 25.4, abs=1e-3)
    assert turn("3").status_code == 422 and turn("0").status_code == 422


def printed(client: TestClient, view: str, id: str = "quillback") -> np.ndarray:
    answer = client.get(f"/api/projects/{id}/views/{view}/file?format=png&scale=48")
    assert answer.status_code == 200, answer.text
    with Image.open(io.BytesIO(answer.content)) as shown:
        return np.asarray(shown.convert("L"))


def test_what_is_printed_is_in_every_file(client: TestClient) -> None:
    plain = printed(client, "plan")
    id = lay(client, png_file(dpi=60)).json()["background"]
    assert (printed(client, "plan") == plain).all()
    sent = {"base_version": state(client)["version"], "element": id, "field": "printed", "text": "yes"}
    client.post("/api/projects/quillback/entries", json=sent)
    shown = printed(client, "plan")
    assert shown.shape != plain.shape or (shown != plain).any()
    for format in ("pdf", "svg", "dxf", "json"):
        answer = client.get(f"/api/projects/quillback/views/plan/file?format={format}")
        assert answer.status_code == 200 and len(answer.content) > 1000
    # On a sheet, and its picture.
    sheet = state(client)["project"]["sheets"][0]["id"]
    for address in ("file?format=pdf", "file?format=dxf", "picture?dpi=60"):
        assert client.get(f"/api/projects/quillback/sheets/{sheet}/{address}").status_code == 200
    assert client.get("/api/projects/quillback/picture").status_code == 200


def test_a_project_file_takes_it_along(client: TestClient) -> None:
    lay(client, pdf_file())
    whole = client.get("/api/projects/quillback/file").content
    assert pdf_file()[:100] not in whole
    # Elsewhere, where nobody has the file.

    store = client.app.state.store  # type: ignore[attr-defined]
    with Session(store._engine) as session:
        session.execute(delete(FileRow))
        session.commit()
    digest = held(client)[0]["file"]
    assert client.get(f"/api/files/{digest}/pages/0").status_code == 404
    brought = client.post("/api/projects/import", content=whole)
    assert brought.status_code == 200, brought.text
    assert client.get(f"/api/files/{digest}/pages/0").status_code == 200
    assert brought.json()["project"]["backgrounds"] == held(client)
    damaged = whole.replace(digest.encode(), b"0" * 64)
    refused = client.post("/api/projects/import", content=damaged)
    assert refused.status_code == 422 and "damaged" in refused.json()["detail"]


def test_a_file_that_is_gone_leaves_its_edge(client: TestClient) -> None:
    laid = lay(client, png_file(dpi=40)).json()["background"]
    sent = {"base_version": state(client)["version"], "element": laid, "field": "printed", "text": "yes"}
    client.post("/api/projects/quillback/entries", json=sent)
    [background] = held(client)
    lost = {"kind": "put_background", "background": background | {"file": "a" * 64, "strength": 1.0}}
    assert edit(client, lost).status_code == 200
    svg = client.get("/api/projects/quillback/views/plan/file?format=svg")
    assert svg.status_code == 200 and "this background is not here" in svg.text
    assert client.get("/api/projects/quillback/views/plan/file?format=pdf").status_code == 200


@pytest.mark.parametrize(
    ("view", "data", "words"),
    [
        ("schedule:openings", pdf_file(), "can lie under"),
        ("section:a", pdf_file(), "can lie under"),
        ("plan", b"", "empty"),
        ("plan", b"%PDF-1.4 cut", "broken"),
        ("plan", b"words", "neither"),
        ("plan", dxf_file()[:-50], "cut short"),
    ],
)
def test_what_cannot_lie_there_is_refused(client: TestClient, view: str, data: bytes, words: str) -> None:
    if view == "section:a":
        view = f"section:{state(client)['project']['sections'][0]['id']}"
    before = state(client)
    answer = lay(client, data, view)
    assert answer.status_code == 422 and words in answer.json()["detail"]
    assert state(client)["version"] == before["version"]


def test_views_and_projects_that_are_not_there(client: TestClient) -> None:
    assert lay(client, pdf_file(), "plan:nowhere").status_code == 404
    assert client.post("/api/projects/none/backgrounds?base_version=1&view=plan", content=b"x").status_code == 404
    stale = client.post("/api/projects/quillback/backgrounds?base_version=77&view=plan", content=pdf_file())
    assert stale.status_code == 409
    assert client.get(f"/api/files/{'b' * 64}/pages/0").status_code == 404
    assert client.get("/api/files/short/pages/0").status_code == 422
    digest = (lay(client, pdf_file()), held(client)[0]["file"])[1]
    assert client.get(f"/api/files/{digest}/pages/9").status_code == 422


def test_an_empty_plan_shows_what_lies_under_it(client: TestClient) -> None:
    made = client.post("/api/projects", json={"name": "From a scan", "units": "mm"}).json()
    assert lay(client, pdf_file(), id=made["id"]).status_code == 200
    drawn = client.post(f"/api/projects/{made['id']}/views", json={"views": [{"name": "plan"}]}).json()
    drawing = drawn["bench"]["drawings"][0]
    x0, y0, x1, y1 = drawing["bounds"]
    scale = held(client, made["id"])[0]["scale"]
    assert (x1 - x0, y1 - y0) == pytest.approx((200 * scale, 150 * scale), rel=1e-4)
    assert LINES and not drawing["marks"]


@pytest.mark.parametrize(
    ("by", "shift", "says"),
    [(1.0, (0.0, 0.0), None), (1 / 25.4, (4.2e6, -9.1e6), None), (0.5, (0.0, 0.0), 2.0)],
)
def test_the_drawing_of_a_plan_stays_under_what_was_read(
    client: TestClient, by: float, shift: tuple[float, float], says: float | None
) -> None:
    """In any unit, far from the origin, or scaled by a length that is known: its lines lie on the faces of walls."""
    house = houses()[0]
    document = drawn(house, "pairs")
    document.header["$INSUNITS"] = 1 if by == 1 / 25.4 else 4
    for entity in list(document.modelspace()):
        if entity.dxftype() == "DIMENSION":
            document.modelspace().delete_entity(entity)
        else:
            entity.transform(Matrix44.scale(by) @ Matrix44.translate(shift[0] * by, shift[1] * by, 0))
    made = client.post("/api/projects", json={"name": f"Under {by}", "units": "mm"}).json()
    choices: dict[str, Any] = {"under": "lodge.dxf"}
    if says:
        choices |= {"measured": 1000.0, "says": f"{1000.0 * says:g}"}
    query = f"base_version=1&choices={quote(json.dumps(choices))}"
    read = client.post(f"/api/projects/{made['id']}/plan?{query}", content=as_bytes(document))
    assert read.status_code == 200, read.text
    [laid] = held(client, made["id"])
    assert laid["name"] == "lodge" and laid["view"] == "plan" and read.json()["state"]["version"] == 2
    page = client.get(f"/api/files/{laid['file']}/pages/0").json()
    ends = np.array([laid_at(laid, point[:2]) for line in page["lines"] for point in line])
    project = Project.model_validate(state(client, made["id"])["project"])
    corners = [
        corner
        for wall in resolve(project).placed[WALLS].walls
        if wall.wall.status == "outer"
        for corner in wall.footprint.exterior.coords
    ]
    outer = np.array([corners[k] for k in np.unique(np.argmax(np.array(corners) @ WAYS, axis=0))])
    for corner in outer:
        assert np.linalg.norm(ends - corner[:2], axis=1).min() < 3.0


WAYS = np.array([[1.0, 1.0, -1.0, -1.0], [1.0, -1.0, 1.0, -1.0]])
"""Toward the four corners of a house."""


def laid_at(background: dict[str, Any], point: list[float]) -> tuple[float, float]:
    return background["x"] + background["scale"] * point[0], background["y"] + background["scale"] * point[1]
