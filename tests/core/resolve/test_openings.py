"""Windows, doors and niches of every kind: areas, leaves, framing, what does not fit, and what elevations show."""

from __future__ import annotations

import math
from typing import Any

import pytest

from deepsection.core.drawing import Stroke
from deepsection.core.edits import (
    ClearExceptions,
    FollowKind,
    MakeKind,
    PutKind,
    PutOpening,
    Remove,
    apply_edits,
    changed,
    put,
)
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import OPERATIONS, Kind, Opening, Project
from deepsection.core.resolve import Building, resolve, unit_leaves
from deepsection.core.trades.openings.model import Design
from deepsection.core.view import draw_plan
from deepsection.core.view.setting import Setting
from tests.builders import box_house, side_view, window

CASES = [(unit, operation) for unit, held in OPERATIONS.items() for operation in held]


def unit(operation: str, kind: str = "window", **more: Any) -> Opening:
    """One opening of an operation in the middle of the south wall, 1800 x 2000."""
    facts = {"id": "o1", "wall": "south", "end": "start", "distance": 4000, "sill": 0, "unit": kind, "number": "O1"}
    return Opening.model_validate(facts | {"width": 1800, "height": 2000, "operation": operation} | more)


def built(opening: Opening) -> tuple[Project, Building]:
    house = apply_edits(box_house(8000, 6000), (PutOpening(opening=opening),))
    return house, resolve(house)


def area(building: Building, *roles: str) -> float:
    """Area seen square to the wall of the parts of the opening, from their volumes and depths."""
    total = 0.0
    for part in building.parts:
        if part.element == "o1" and part.role in roles:
            box = part.solid.bounds
            total += part.solid.volume / (box.y1 - box.y0)
    return total


@pytest.mark.parametrize(("kind", "operation"), CASES)
def test_every_operation_builds_draws_and_has_nothing_against_it(kind: str, operation: str) -> None:
    _, building = built(unit(operation, kind))
    assert building.diagnostics == ()
    roles = {part.role for part in building.parts if part.element == "o1"}
    assert ("frame" in roles) == (kind != "niche")
    assert ("glass" in roles) == (kind == "window" or operation == "sliding")
    assert any(
        mark.part and mark.part.startswith("o1/")
        for mark in side_view(building, "south").marks
        if hasattr(mark, "part")
    ) == (kind != "niche")
    assert len(draw_plan(building, "floor", "plan", 90, Setting(50, "mm")).marks) > 5


@pytest.mark.parametrize(("operation", "panels"), [("fixed", 1), ("casement", 3), ("awning", 2)])
def test_glass_sash_and_frame_fill_the_opening(operation: str, panels: int) -> None:
    """Area identity: what is seen of frame, sashes and glass is the whole opening, width x height."""
    _, building = built(unit(operation, panels=panels, sill=100))
    assert area(building, "frame", "sash", "glass") == pytest.approx(1800 * 2000, rel=1e-6)


def test_an_arched_head_takes_a_segment_from_the_wall() -> None:
    """Area of a circular segment of chord c and rise h: r^2 (a - sin a) / 2, r = c^2 / 8h + h / 2, closed form."""
    rise, width, height = 300.0, 1200.0, 1500.0
    radius = width**2 / (8 * rise) + rise / 2
    angle = 4 * math.atan(2 * rise / width)
    whole = width * (height - rise) + radius**2 * (angle - math.sin(angle)) / 2
    plain = resolve(box_house(8000, 6000))
    _, building = built(unit("fixed", width=width, height=height, arch=rise, sill=500))

    def sheathing(held: Building) -> float:
        return sum(p.solid.volume for p in held.parts if p.element == "south" and p.role == "sheathing")

    assert (sheathing(plain) - sheathing(building)) / 12 == pytest.approx(whole, rel=2e-3)
    assert area(building, "frame", "sash", "glass") == pytest.approx(whole, rel=2e-3)


def test_a_half_round_head_is_the_most() -> None:
    _, building = built(unit("fixed", width=1000, arch=500))
    assert building.diagnostics == ()
    _, building = built(unit("fixed", width=1000, arch=501))
    fault = next(held for held in building.diagnostics if held.element == "o1")
    assert (fault.code, fault.field, fault.limit) == ("arch-too-high", "arch", 500)


def test_leaves_by_operation() -> None:
    """Common practice, no source: casements of a group hang at the outer sides, sliding sashes run on two tracks."""

    def actions(opening: Opening) -> list[str]:
        _, building = built(opening)
        return [leaf.action for leaf in unit_leaves(building.openings["south"][0])]

    assert actions(unit("casement", panels=3)) == ["start", "fixed", "end"]
    assert actions(unit("casement", panels=1, hinge="end")) == ["end"]
    assert actions(unit("vertical", panels=2)) == ["down", "up", "down", "up"]
    assert actions(unit("sliding", "door", panels=4)) == ["fixed", "back", "along", "fixed"]
    assert actions(unit("double", "door")) == ["start", "end"]
    assert actions(unit("bifold", "door", panels=3)) == ["fold"] * 4, "folding leaves come in pairs"
    assert actions(unit("hinged", "door", side_lights="both")) == ["fixed", "fixed", "start"]
    assert actions(unit("plain", "door")) == []


def test_leaves_are_unequal_as_told() -> None:
    _, building = built(unit("double", "door", share=0.67))
    first, second = unit_leaves(building.openings["south"][0])
    clear = 1800 - 2 * 44
    assert first.right - first.left == pytest.approx(0.67 * clear, abs=2)
    assert second.right - second.left == pytest.approx(0.33 * clear, abs=2)


def test_side_lights_need_room_between_them() -> None:
    _, building = built(unit("hinged", "door", side_lights="both", side_width=800))
    fault = next(held for held in building.diagnostics if held.element == "o1")
    assert fault.code == "side-lights-too-wide" and fault.field == "side_width" and fault.severity == "blocking"


def test_a_niche_is_cut_from_the_inside_alone() -> None:
    """Arithmetic: 100 deep takes lining 12.5 and vapour control 0.2, and 87.3 of the 140 frame; not the sheathing."""
    _, building = built(unit("plain", "niche", width=600, height=700, sill=900, depth=100))
    plain = resolve(box_house(8000, 6000))

    def volume(held: Building, role: str) -> float:
        return sum(part.solid.volume for part in held.parts if part.element == "south" and part.role == role)

    assert volume(plain, "lining") - volume(building, "lining") == pytest.approx(600 * 700 * 12.5, rel=1e-6)
    assert volume(plain, "sheathing") == pytest.approx(volume(building, "sheathing"))
    assert volume(plain, "cladding") == pytest.approx(volume(building, "cladding"))
    assert any("header" in part.key for part in building.parts), "it reaches the frame, which is trimmed around it"
    _, shallow = built(unit("plain", "niche", width=600, height=700, sill=900, depth=12))
    assert not any("header" in part.key for part in shallow.parts), "it stays in the lining"
    _, through = built(unit("plain", "niche", width=600, height=700, sill=900, depth=400))
    assert {held.code for held in through.diagnostics} == {"niche-too-deep"}


def test_the_rough_opening_is_wider_by_the_clearance() -> None:
    """Arithmetic: jacks stand at the rough opening, unit width + 2 x 13; the header lies 13 above the unit."""
    _, building = built(unit("fixed", rough=13, sill=600, height=1200))
    jacks = sorted(
        (p.solid.reach for p in building.parts if p.element == "south" and "jack" in p.key), key=lambda box: box.x0
    )
    assert jacks[1].x0 - jacks[0].x1 == pytest.approx(1800 + 26)
    header = next(part for part in building.parts if "/header/" in part.key)
    assert header.solid.reach.z0 - building.sums["head:o1"].total == pytest.approx(13)


def test_symbols_have_their_apex_at_the_hinge_side() -> None:
    """Common practice, no source: the apex lies at the hinge side; dashed lines open away from the viewer."""

    def symbol(opening: Opening) -> Stroke:
        _, building = built(opening)
        marks = side_view(building, "south").marks
        found = [mark for mark in marks if isinstance(mark, Stroke) and mark.feature == "opens"]
        assert len(found) == 1
        return found[0]

    # South is seen from the south: its start, in the west, is at the left.
    start, end = (symbol(unit("casement", hinge=side, sill=600, height=1200)) for side in ("start", "end"))
    assert min(x for x, _, _ in start.path) == start.path[1][0] and max(x for x, _, _ in end.path) == end.path[1][0]
    assert start.pen == "hidden"
    assert symbol(unit("casement", swing="out", sill=600, height=1200)).pen == "fine"
    top = symbol(unit("awning", sill=600, height=1200))
    assert max(y for _, y, _ in top.path) == top.path[1][1]


def test_shutters_stand_beside_their_window() -> None:
    _, building = built(unit("casement", width=1000, height=1200, sill=600, shutters="pair", trim=90))
    boxes = sorted(
        (p.solid.bounds for p in building.parts if p.element == "o1" and p.role == "shutter"), key=lambda box: box.x0
    )
    assert [box.x1 - box.x0 for box in boxes] == pytest.approx([500, 500])
    assert boxes[0].x1 == pytest.approx(3500 - 100) and boxes[1].x0 == pytest.approx(4500 + 100)


# --- kinds --------------------------------------------------------------------------------------


def sash() -> Kind:
    return Kind(
        id="sash",
        name="sash window",
        number="W5",
        unit="window",
        design=Design(operation="vertical", width=900, height=1500),
    )


def two_of_a_kind() -> Project:
    own = {"wall": "south", "end": "start", "sill": 600, "unit": "window", "kind": "sash"}
    first = Opening.model_validate({"id": "a", "distance": 2000, **own})
    second = Opening.model_validate({"id": "b", "distance": 6000, **own, "width": 1200, "stays": "start"})
    return apply_edits(
        box_house(8000, 6000), (PutKind(design=sash()), PutOpening(opening=first), PutOpening(opening=second))
    )


def widths(project: Project) -> list[float]:
    return [placed.design.width for placed in resolve(project).openings["south"]]


def test_a_kind_changes_all_that_follow_it_but_exceptions() -> None:
    house = two_of_a_kind()
    assert widths(house) == [900, 1200]
    wider = sash().model_copy(update={"design": sash().design.model_copy(update={"width": 1000.0, "height": 1400.0})})
    after = apply_edits(house, (PutKind(design=wider),))
    assert widths(after) == [1000, 1200]
    assert [placed.design.height for placed in resolve(after).openings["south"]] == [1400, 1400]
    assert [placed.number for placed in resolve(after).openings["south"]] == ["W5", "W5"]


def test_exceptions_are_cleared_and_the_edge_that_stays_stays() -> None:
    after = apply_edits(two_of_a_kind(), (ClearExceptions(opening="b", fields=("width",)),))
    placed = resolve(after).openings["south"][1]
    assert placed.design.width == 900 and placed.left == pytest.approx(6000 - 600), "its start edge stays"
    with pytest.raises(RefusedEdit, match="follows no kind"):
        apply_edits(built(unit("fixed"))[0], (ClearExceptions(opening="o1"),))
    with pytest.raises(RefusedEdit, match="no exception"):
        apply_edits(two_of_a_kind(), (ClearExceptions(opening="b", fields=("colour",)),))


def test_a_kind_is_made_of_what_stands_there_followed_and_left() -> None:
    house = built(unit("casement", panels=2, sill=600, height=1200))[0]
    made = apply_edits(house, (MakeKind(opening="o1", id="pair", name="pair of casements"),))
    assert made.find("o1").exceptions == {} and made.find("o1").kind == "pair"
    assert made.design_of(made.find("o1")) == house.design_of(house.find("o1"))
    left = apply_edits(made, (FollowKind(opening="o1", follows=None),))
    assert left.find("o1").kind is None and left.design_of(left.find("o1")) == house.design_of(house.find("o1"))
    with pytest.raises(RefusedEdit, match="name of its own"):
        apply_edits(house, (MakeKind(opening="o1", id="south", name="x"),))


def test_removing_a_kind_leaves_its_openings_as_they_are() -> None:
    house = two_of_a_kind()
    after = apply_edits(house, (Remove(elements=("sash",)),))
    assert widths(after) == widths(house) and after.kinds == tuple(k for k in house.kinds if k.id != "sash")
    assert [after.number_of(opening) for opening in after.openings] == ["W5", "W5"]


def test_a_door_follows_no_kind_of_windows() -> None:
    house = apply_edits(two_of_a_kind(), (PutOpening(opening=unit("hinged", "door", distance=4000, width=900)),))
    with pytest.raises(RefusedEdit, match="cannot follow") as caught:
        apply_edits(house, (FollowKind(opening="o1", follows="sash"),))
    assert caught.value.element == "o1"
    with pytest.raises(RefusedEdit, match="cannot follow"):
        put(house, changed(house.find("o1"), kind="sash"))


@pytest.mark.parametrize(
    "facts",
    [{"operation": "hinged"}, {"width": 0}, {"panels": 9}, {"share": 1.0}, {"width": None}, {"drawn_swing": 181}],
)
def test_what_an_opening_cannot_be_is_refused(facts: dict[str, Any]) -> None:
    with pytest.raises(RefusedEdit):
        changed(window("w9", "south", 4000), **facts)


def test_every_project_starts_with_kinds_of_all_operations() -> None:
    house = box_house(8000, 6000, "ft-in")
    assert {(kind.unit, kind.design.operation) for kind in house.kinds} == set(CASES)
