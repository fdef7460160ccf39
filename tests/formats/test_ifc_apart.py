"""Models that break the geometry library: they end a process beside ours, and are refused in words."""

from __future__ import annotations

import re

import numpy as np
import pytest
from fastapi.testclient import TestClient

from deepsection.core.errors import BadInput
from deepsection.formats.ifc_apart import model_in, rest_in
from deepsection.formats.ifc_model import read_ifc, rest_of
from deepsection.service.app import create_app
from tests.models_by_hand import gable_slopes, roofed, two_storeys


def round_in_itself() -> bytes:
    """A model in which a place is relative to itself: the library follows that until its stack is full."""
    text = two_storeys("IFC4").decode()
    place = list(re.finditer(r"#(\d+)=IfcLocalPlacement\((?:#\d+|\$),", text, re.IGNORECASE))[2]
    return (text[: place.start()] + f"#{place[1]}=IFCLOCALPLACEMENT(#{place[1]}," + text[place.end() :]).encode()


def test_what_comes_back_is_what_is_read_here() -> None:
    data = roofed(gable_slopes(0.7, 5650.0), hole=True)
    here, apart = read_ifc(data), model_in(data)
    assert [held.walls for held in apart.storeys] == [held.walls for held in here.storeys]
    assert [roof.outline for roof in apart.roofs] == [roof.outline for roof in here.roofs]
    for one, other in zip(rest_of(data, ()), rest_in(data, ())):
        assert np.array_equal(one, other)


def test_progress_and_refusals_come_through() -> None:
    heard: list[float] = []
    model_in(two_storeys("IFC4"), lambda _, share: heard.append(share))
    assert len(heard) > 10 and heard == sorted(heard)
    with pytest.raises(BadInput, match="cut short") as refused:
        model_in(two_storeys("IFC4")[:-400])
    assert refused.value.field == "file"


def test_a_model_that_breaks_the_reader_is_refused_and_the_next_is_read() -> None:
    for _ in range(2):
        with pytest.raises(BadInput, match="this model is damaged"):
            model_in(round_in_itself())
        assert len(model_in(two_storeys("IFC4")).storeys) == 2


def test_the_service_lives_on(tmp_path: object) -> None:
    with TestClient(create_app(f"sqlite:///{tmp_path}/data.db", demos=True), base_url="http://127.0.0.1") as client:
        answer = client.post("/api/projects/quillback/plan/look", content=round_in_itself())
        assert answer.status_code == 422 and "damaged" in answer.text
        assert client.get("/api/projects/quillback").status_code == 200
