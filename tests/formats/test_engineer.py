"""The simulated engineer: what he reads of a plan's file, works out by himself, and what becomes of his answer."""

from __future__ import annotations

import io
import json
from typing import Any

import ezdxf
import pytest

from deepsection.core.document.motion import Motion
from deepsection.core.drawing import Text
from deepsection.core.edits import PutComment, Remove, Said, TakeComments, Transform, apply_edits, changed, put
from deepsection.core.errors import BadInput
from deepsection.core.model import Project
from deepsection.core.particulars import enter
from deepsection.core.resolve import resolve
from deepsection.core.sheets import compose_view
from deepsection.core.trades.floors.spans import own_weight
from deepsection.core.trades.loads.beams import beam_spans
from deepsection.core.trades.loads.placed import LOADS
from deepsection.core.view import draw_view
from deepsection.demo import DEMOS, otterfold_house
from deepsection.formats.plan_comments import read_answer
from deepsection.formats.writers import write_dxf
from deepsection.standins.engineer import PSF, Size, review, used
from tests.builders import block_house

VIEW = "plan:structure:upper-joists"


def weak(plies: int = 3) -> Project:
    """Otterfold with its flush beam of so many plies: four reach, three do not."""
    house = otterfold_house()
    beams = [held for held in house.beams if held.id.startswith("living-beam")]
    return put(house, *(changed(held, plies=plies, width=plies * 38.1) for held in beams))


def sent(project: Project, view: str = VIEW) -> bytes:
    return write_dxf(compose_view(project, resolve(project), view, project.scale))


def said(project: Project, view: str = VIEW) -> dict[str, Any]:
    answer: dict[str, Any] = json.loads(review(sent(project, view)))
    return answer


def test_a_simple_beam_is_worked_out_by_hand() -> None:
    """Three 2x10 of spruce-pine-fir over 10 ft under 50 psf on 11 ft: M = 550 x 100 / 8 = 6875 lb ft; S = 4.5 x
    9.25^2 / 6 = 64.17 in3; 1286 psi of 875 x 1.1 x 1.15 = 1107: used to 116 %. All values from memory."""
    size, foot = Size(38.1, 234.95, 1.1), 304.8
    timber = (875 * 0.00689476, 1.4e6 * 0.00689476)
    share = used(size, 3, 10 * foot, (40 * PSF * 11 * foot, 10 * PSF * 11 * foot), timber)
    assert share == pytest.approx((6875 * 12 / 64.17) / 1106.9, rel=2e-3)


def test_he_finds_the_weak_beam_and_nothing_else_in_the_file() -> None:
    assert said(weak(4))["comments"] == []
    answer = said(weak(3))
    assert answer["looked_at"] == {"spans": 2, "beams": 2} and answer["units"] == "in"
    first = answer["comments"][0]
    assert "4 plies would do" in first["text"]
    # In the coordinates of the house, in inches: half way along the first beam, 15 ft up.
    assert first["y"] == pytest.approx(180.0, abs=0.5) and 143 < first["x"] < 264


def test_he_and_the_check_of_the_beam_agree() -> None:
    """Two ways to one number: he reads arrows and words of the file, the check knows the members."""
    for plies in (2, 3, 4, 5):
        project = weak(plies)
        building = resolve(project)
        ours = {
            held.beam.id: held.clear / held.reach
            for held in beam_spans(building.placed, building[LOADS])
            if held.beam.id.startswith("living")
        }
        # A beam used to more than 1.1 by its span is used to 1.2 and more by its stress.
        assert bool(said(project)["comments"]) == (max(ours.values()) > 1.0)


@pytest.mark.parametrize("view", ["plan:structure:main-floor", "plan:structure:deck"])
def test_every_demo_satisfies_him(view: str) -> None:
    for make in DEMOS:
        project = make()
        for floor in (*project.floors, *project.decks):
            assert said(project, f"plan:structure:{floor.id}")["comments"] == [], (project.id, floor.id)
    assert said(otterfold_house(), view)["looked_at"]["spans"] > 0


def test_he_asks_for_loads_and_sizes_that_a_file_does_not_state() -> None:
    document = ezdxf.read(io.StringIO(sent(weak(4)).decode()))
    for text in document.modelspace().query("TEXT"):
        if "live load" in text.dxf.text or "of 2x10" in text.dxf.text:
            document.modelspace().delete_entity(text)
    out = io.StringIO()
    document.write(out)
    texts = {comment["text"] for comment in json.loads(review(out.getvalue().encode()))["comments"]}
    assert texts == {"State the live and dead load that this floor is to carry.", "Say what this beam is made of."}


def test_what_is_no_structural_plan_is_refused() -> None:
    with pytest.raises(ValueError, match="no DXF"):
        review(b"\x00\x01 nothing")
    with pytest.raises(ValueError, match="structural plan"):
        review(sent(otterfold_house(), "plan:floor"))


# --- what becomes of an answer ----------------------------------------------------------------------


def taken(project: Project, *texts: str) -> Project:
    comments = tuple(Said(x=1000.0 * k, y=500.0, text=text) for k, text in enumerate(texts))
    return apply_edits(project, (TakeComments(view=VIEW, comments=comments),))


def test_an_answer_is_read_into_the_plan_of_the_house() -> None:
    answer = json.dumps({"by": "Office", "units": "in", "comments": [{"x": 10, "y": 20, "text": "look"}]}).encode()
    north, east = read_answer(answer, VIEW, 90.0), read_answer(answer, VIEW, 0.0)
    assert (north.comments[0].x, north.comments[0].y) == (pytest.approx(254.0), pytest.approx(508.0))
    # Looking east, up the plan is east: what lies to the right there lies south.
    assert (east.comments[0].x, east.comments[0].y) == (pytest.approx(508.0), pytest.approx(-254.0))
    assert north.by == "Office"


@pytest.mark.parametrize(
    ("text", "why"),
    [
        ("", "is empty"),
        ("{", "cut short"),
        ("[]", "no answer"),
        ('{"units": "ells", "comments": []}', "units"),
        ('{"units": "mm", "comments": [{"x": 1, "y": 2}]}', r"comments.0.text"),
        ('{"units": "mm", "comments": [{"x": 1e300, "y": 2, "text": "a"}]}', r"comments.0.x"),
    ],
)
def test_what_is_no_answer_is_refused_with_its_place(text: str, why: str) -> None:
    with pytest.raises(BadInput, match=why):
        read_answer(text.encode(), VIEW, 90.0)


def test_comments_are_shown_until_they_are_settled() -> None:
    project = taken(otterfold_house(), "first", "second")
    open_ = [found for found in resolve(project).diagnostics if found.code == "comment-open"]
    assert [(found.message, found.at) for found in open_] == [
        ("engineer: first", (0.0, 500.0)),
        ("engineer: second", (1000.0, 500.0)),
    ]
    for view in (VIEW, "plan:framing:upper-joists"):
        assert flags(project, view) == ["1", "2"]
    assert flags(project, "plan:structure:main-floor") == []
    one = project.comments[0].id
    settled = apply_edits(project, tuple(enter(project, one, "status", "settled")))
    settled = apply_edits(settled, tuple(enter(settled, one, "answer", "a post was set")))
    assert flags(settled, VIEW) == ["2"] and settled.comments[0].answer == "a post was set"
    assert len([found for found in resolve(settled).diagnostics if found.code == "comment-open"]) == 1


def flags(project: Project, view: str) -> list[str]:
    drawing = draw_view(resolve(project), project, view, 48)
    return [mark.text for mark in drawing.marks if isinstance(mark, Text) and mark.feature == "comment"]


def test_a_new_answer_takes_the_place_of_the_last() -> None:
    """What was open and is not said again has fallen away; what was settled and is said again stays settled."""
    project = taken(otterfold_house(), "first", "second")
    project = apply_edits(project, (PutComment(comment=changed(project.comments[0], status="settled")),))
    again = taken(project, "first", "another")
    assert [(held.text, held.status) for held in again.comments] == [("first", "settled"), ("another", "open")]
    assert not taken(again).comments[1:]


def test_comments_go_with_the_house_and_can_be_removed() -> None:
    project = taken(otterfold_house(), "first")
    id = project.comments[0].id
    moved = apply_edits(project, (Transform(elements=(id,), motion=Motion(dx=100.0, dy=-50.0)),))
    assert (moved.comments[0].x, moved.comments[0].y) == (100.0, 450.0)
    assert not apply_edits(project, (Remove(elements=(id,)),)).comments


def test_slabs_are_held_against_their_depth_and_beams_left_to_their_maker() -> None:
    """Of 200 over 4100: 4100 / 20 and 30 are 235. Own weight: 0.2 x 25, screed 0.065 x 21, plaster 0.015 x 12."""
    house = block_house(ground=True, inner=True)
    answer = json.loads(review(sent(house, "plan:structure:upper")))
    (said,) = answer["comments"]
    assert "200 over 4100: 235" in said["text"] and answer["looked_at"]["spans"] == 2
    layers = next(held for held in house.make_ups if held.id == "floor-concrete").layers
    assert own_weight(layers) == pytest.approx(0.2 * 25.0 + 0.065 * 21.0 + 0.015 * 12.0)
    words = " ".join(
        mark.text
        for mark in draw_view(resolve(house), house, "plan:structure:upper", 50).marks
        if isinstance(mark, Text)
    )
    assert "dead 6.54 kN/m2 with its own weight" in words
    (beams,) = json.loads(review(sent(house, "plan:structure:ground")))["comments"]
    assert beams["text"] == "Take these beams from their maker's table for 5300 clear."
