"""Posts and beams: volumes by closed forms, ends that keep to posts, what cannot stand."""

from __future__ import annotations

import math
from typing import Any

import pytest

from deepsection.core.drawing import Region, Stroke
from deepsection.core.edits import PutBeam, PutPost, Remove, apply_edits, changed, put
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import Beam, BeamEnd, LevelRule, Post, Project
from deepsection.core.particulars import describe_element, enter
from deepsection.core.resolve import resolve
from deepsection.core.view import draw_plan
from deepsection.core.view.setting import Setting
from tests.builders import box_house, side_view


def post(id: str, x: float, y: float = -2000, **more: Any) -> Post:
    facts = {"width": 140, "base": LevelRule(level="floor"), "top": LevelRule(level="plate")}
    return Post.model_validate({"id": id, "x": x, "y": y} | facts | more)


def beam(start: str | None = "p1", end: str | None = "p2", **more: Any) -> Beam:
    facts = {"width": 90, "depth": 240, "top": LevelRule(level="plate", offset=240)}
    ends = {"start": BeamEnd(post=start), "end": BeamEnd(post=end)}
    return Beam.model_validate({"id": "b1"} | ends | facts | more)


def porch() -> Project:
    house = box_house(8000, 6000)
    return apply_edits(
        house, (PutPost(post=post("p1", 1000)), PutPost(post=post("p2", 7000, shape="round")), PutBeam(beam=beam()))
    )


def volume(project: Project, id: str) -> float:
    return sum(part.solid.volume for part in resolve(project).parts if part.element == id)


def test_square_and_round_posts_have_their_volumes() -> None:
    """a x b x h, and pi d^2 / 4 x h; h is floor to plate, 2500 in the metric starter."""
    levels = resolve(porch()).levels
    rise = levels["plate"].z - levels["floor"].z
    assert volume(porch(), "p1") == pytest.approx(140 * 140 * rise)
    assert volume(porch(), "p2") == pytest.approx(math.pi * 140**2 / 4 * rise, rel=5e-3)
    turned = put(porch(), post("p1", 1000, depth=290, turn=45))
    assert volume(turned, "p1") == pytest.approx(140 * 290 * rise)


def test_a_beam_lies_on_its_posts_and_follows_them() -> None:
    """b x d x span, post middle to post middle: 6000, and 5000 when one post is moved by 1000."""
    house = porch()
    assert volume(house, "b1") == pytest.approx(90 * 240 * 6000)
    moved = put(house, post("p1", 2000))
    assert volume(moved, "b1") == pytest.approx(90 * 240 * 5000)
    box = next(part for part in resolve(house).parts if part.element == "b1").solid.bounds
    plate = resolve(house).levels["plate"].z
    assert (box.z0, box.z1) == pytest.approx((plate, plate + 240)), "its top is 240 above the plate: on the posts"


def test_a_beam_keeps_its_end_when_its_post_is_removed() -> None:
    after = apply_edits(porch(), (Remove(elements=("p1",)),))
    assert after.find("b1").start == BeamEnd(x=1000, y=-2000)
    assert volume(after, "b1") == pytest.approx(90 * 240 * 6000)


def test_they_are_seen_in_plan_and_elevation() -> None:
    house = porch()
    building = resolve(house)
    plan = draw_plan(building, "floor", "plan", 0, Setting(50, "mm"))
    own = {
        mark.part: mark for mark in plan.marks if getattr(mark, "part", None) in ("p1/post//", "p2/post//", "b1/beam//")
    }
    assert isinstance(own["p1/post//"], Region) and own["p1/post//"].fill == "poche"
    assert [bulge for _, _, bulge in own["p2/post//"].rings[0]] == [1.0, 1.0], "a round post is two half circles"
    assert isinstance(own["b1/beam//"], Stroke) and own["b1/beam//"].pen == "hidden", "over the cut"
    seen = {str(getattr(mark, "part", "")).split("/")[0] for mark in side_view(building, "south").marks}
    assert {"p1", "p2", "b1"} <= seen
    upper = draw_plan(building, "floor", "plan", 0, Setting(50, "mm"))
    assert upper.bounds[0] < 1000


def test_what_cannot_stand_is_pointed_out() -> None:
    low = put(porch(), post("p1", 1000, top=LevelRule(level="floor", offset=20)))
    fault = next(held for held in resolve(low).diagnostics if held.element == "p1")
    assert (fault.code, fault.field, fault.severity) == ("post-too-low", "top_offset", "blocking")
    short = put(porch(), changed(beam(), start=BeamEnd(x=10), end=BeamEnd(x=20)))
    assert "beam-spans-nothing" in {held.code for held in resolve(short).diagnostics}
    with pytest.raises(RefusedEdit, match="one post"):
        put(porch(), beam("p1", "p1"))
    with pytest.raises(RefusedEdit, match="not in the project"):
        put(porch(), beam("p1", "ghost"))


def test_their_particulars_are_edited_and_explained() -> None:
    house = porch()
    facts = describe_element(house, resolve(house), "p1")
    assert facts.title == "Post" and facts.removable and facts.sums[0].label == "Plate"
    after = apply_edits(house, enter(house, "p1", "shape", "round"))
    assert after.find("p1").shape == "round"
    assert apply_edits(house, enter(house, "b1", "depth", "300")).find("b1").depth == 300
    assert apply_edits(house, enter(house, "p1", "top_offset", "-240")).find("p1").top.offset == -240
