"""Files that break what reads them, or take too much: they end a process beside ours, and are refused in words."""

from __future__ import annotations

import io
import random
import re

import ezdxf
import numpy as np
import pytest
from fastapi.testclient import TestClient

from deepsection.core.errors import BadInput
from deepsection.core.reading import read_plan
from deepsection.formats import apart
from deepsection.formats.apart import drawn_in, model_in, plan_in, rest_in
from deepsection.formats.dxf_drawn import read_drawn
from deepsection.formats.ifc_model import read_ifc, rest_of
from deepsection.service.app import create_app
from tests.models_by_hand import gable_slopes, roofed, two_storeys
from tests.plans_drawn.manners import as_bytes
from tests.plans_drawn.two_storeys import two_storeys as drawn_two_storeys


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


def test_a_plan_is_read_as_it_is_here() -> None:
    data = drawn_two_storeys()
    here, beside = read_plan(read_drawn(data)), plan_in(drawn_in(data))
    assert here == beside and len(here.walls) > 10


@pytest.mark.parametrize(("bound", "value"), [("SECONDS", 1), ("BYTES", 150 * 2**20)])
def test_a_drawing_that_takes_too_much_is_refused_in_words(
    monkeypatch: pytest.MonkeyPatch, bound: str, value: int
) -> None:
    """With bounds that are less than what 12,000 stray lines take; the next drawing is read."""
    document = ezdxf.read(io.StringIO(drawn_two_storeys().decode()))
    dice = random.Random(3)
    for _ in range(12_000):
        x, y = dice.uniform(0, 60_000), dice.uniform(0, 60_000)
        document.modelspace().add_line((x, y), (x + dice.uniform(-900, 900), y + dice.uniform(-900, 900)))
    held = drawn_in(as_bytes(document))
    with monkeypatch.context() as patched, pytest.raises(BadInput, match="this drawing took more than") as refused:
        patched.setattr(apart, bound, value)
        plan_in(held)
    assert refused.value.field == "file"
    assert plan_in(drawn_in(drawn_two_storeys())).walls


def odd(data: bytes) -> None:
    """A reader with a fault of its own."""
    raise ValueError(f"odd: {len(data)}")


def test_a_fault_of_the_reader_is_not_said_to_be_too_much(caplog: pytest.LogCaptureFixture) -> None:
    """It is refused in words, and what it was is logged here."""
    with pytest.raises(BadInput, match="breaks off its reading"):
        apart._HELPER.asked(apart.TOO_MUCH, None, odd, b"four")
    assert "odd: 4" in caplog.text
