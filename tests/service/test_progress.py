"""How far the reading of a file is, while it is read."""

from __future__ import annotations

from fastapi.testclient import TestClient

from deepsection.core.progress import within
from deepsection.core.reading import read_plan
from deepsection.formats.dxf_drawn import read_drawn
from tests.plans_drawn.manners import as_bytes, drawn
from tests.plans_drawn.truth import houses


def test_it_is_told_under_the_name_that_was_asked_for(client: TestClient) -> None:
    assert client.get("/api/plan-progress/nobody").json() == {"step": "", "share": 0.0}
    made = client.post("/api/projects", json={"name": "Told", "units": "mm"}).json()
    data = as_bytes(drawn(houses()[0].turned(7.25), "pairs"))
    assert client.post(f"/api/projects/{made['id']}/plan/look?asked=mine", content=data).status_code == 200
    last = client.get("/api/plan-progress/mine").json()
    assert last["step"] == "rooms, stairs and what is left" and 0.8 < last["share"] <= 1.0
    assert client.get("/api/plan-progress/nobody").json() == {"step": "", "share": 0.0}


def test_steps_follow_each_other() -> None:
    """Shares rise, from the opening of the file to the end."""
    heard: list[tuple[str, float]] = []
    drawing = read_drawn(as_bytes(drawn(houses()[1], "gaps")), lambda *step: heard.append(step))
    read_plan(drawing, told=within(lambda *step: heard.append(step), 1.0, 2.0))
    shares = [share for _, share in heard]
    assert len(heard) >= 6 and shares == sorted(shares) and heard[0][0].startswith("opening")
