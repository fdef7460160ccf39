"""Messages say what to change, in words of the trade: no class or key names, all that is missing at once."""

from __future__ import annotations

import json

import pytest
from pydantic import ValidationError

from deepsection.core.document.declaring import collections_of
from deepsection.core.document.motion import Motion
from deepsection.core.document.nouns import noun_of
from deepsection.core.edits import EDITS, MoveOpening, Transform, apply_edits, refusal
from deepsection.core.errors import BadInput, RefusedEdit
from deepsection.core.model import load_project
from deepsection.core.model.project import Project
from deepsection.demo import quillback_house


def refused(*edits: dict[str, object]) -> str:
    with pytest.raises(ValidationError) as caught:
        EDITS.validate_python(list(edits))
    return refusal(caught.value).message


def test_an_unknown_kind_offers_the_nearest() -> None:
    assert refused({"kind": "put_rof"}) == "no kind is called “put_rof”; did you mean put_roof?"
    assert "they are called" in refused({"kind": "zzzz"})
    assert "needs a kind" in refused({"wall": "south"})


def test_all_missing_fields_are_named_at_once() -> None:
    assert refused({"kind": "move_opening"}).endswith("lacks opening and distance")
    assert refused({"kind": "put_section", "section": {"id": "s", "name": "S"}}).endswith("lacks x1, y1, x2 and y2")


def test_numbers_state_their_limit_and_unknown_fields_are_named() -> None:
    window = json.loads(quillback_house().openings[0].model_dump_json())
    assert "must be" in refused({"kind": "put_opening", "opening": {**window, "width": -3}})
    assert "no field “widht”" in refused({"kind": "put_opening", "opening": {**window, "widht": 3}})


def test_elements_are_called_what_they_are() -> None:
    house = quillback_house()
    with pytest.raises(RefusedEdit, match="“roof-main” is a roof, not an opening"):
        apply_edits(house, [MoveOpening(opening="roof-main", distance=3.0)])
    with pytest.raises(RefusedEdit, match="a make-up cannot be moved"):
        apply_edits(house, [Transform(elements=(house.make_ups[0].id,), motion=Motion(dx=1.0))])


def test_every_kind_of_element_has_its_noun() -> None:
    kinds = [kind for held in collections_of(Project).values() for kind in held]
    assert len(kinds) > 25
    for kind in kinds:
        assert kind.about.noun != kind.about.plural and kind.about.noun.islower()
        assert noun_of(kind) == kind.about.noun


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"", "it is empty"),
        (b"  \n", "it is empty"),
        (b'{"schema_version": 1, "na', "cut short at byte 25"),
        (b'{"schema_version": 1,, }', "broken at byte 21"),
        (b"\xff\xfe", "no text"),
        (b"[" * 200_000, "nested too deeply"),
    ],
)
def test_an_unreadable_file_says_what_it_is(data: bytes, words: str) -> None:
    with pytest.raises(BadInput, match=words):
        load_project(data)
