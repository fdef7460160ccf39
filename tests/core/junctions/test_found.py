"""Junctions found on houses that can be counted by hand, and on the same houses turned, mirrored and in other units."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Callable

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.document.motion import Motion
from deepsection.core.edits import SplitWall, Transform, apply_edits, changed, put
from deepsection.core.junctions import Junction, found_junctions, grouped
from deepsection.core.junctions.groups import group_key
from deepsection.core.model import Project
from deepsection.core.resolve import resolve
from deepsection.demo import DEMOS, larkmoor_house
from tests.builders import (
    block_house,
    box_house,
    gable,
    joist_house,
    l_house,
    roofed_l,
    stair_house,
    two_storeys,
    window,
)


def of(project: Project, kind: str) -> list[Junction]:
    return [held for held in found_junctions(resolve(project)) if held.kind == kind]


def long(project: Project, kind: str) -> float:
    return sum(held.length for held in of(project, kind))


def house() -> Project:
    plain = gable(box_house(8000, 6000), 0.5, overhang=400, rake=300)
    return put(plain, window("w1", "south", 2000.0, sill=900.0), window("w2", "south", 6000.0, sill=900.0))


def test_a_gabled_box_by_hand() -> None:
    """8 x 6 m, pitch 1 in 2: two eaves of 8 m; two rakes, each up and down 3 m at 1 in 2; a ridge of 8 m and its two
    overhangs past sheathing of 12; four corners of 90 degrees; 28 m of feet and of footings; two windows."""
    held = house()
    assert long(held, "eave") == pytest.approx(2 * 8000.0) and len(of(held, "eave")) == 2
    assert long(held, "rake") == pytest.approx(4 * 3000.0 * math.hypot(1.0, 0.5), rel=1e-3)
    (ridge,) = of(held, "ridge")
    assert ridge.length == pytest.approx(8000.0 + 2 * 300.0 + 2 * 12.0, abs=1.0)
    corners = of(held, "wall_corner")
    assert len(corners) == 4 and {dict(one.facts)["angle"] for one in corners} == {90.0}
    assert {dict(one.facts)["turn"] for one in corners} == {"outside"}
    for kind in ("wall_foot", "footing", "ceiling_edge"):
        assert long(held, kind) == pytest.approx(28_000.0) and len(of(held, kind)) == 4
    assert [len(of(held, kind)) for kind in ("head", "sill", "jamb", "threshold")] == [2, 2, 2, 0]
    sizes = {one.opening.id: one for wall in resolve(held).openings.values() for one in wall}
    for kind in ("head", "sill"):
        for one in of(held, kind):
            placed = sizes[one.ends[0].element]
            assert one.length == pytest.approx(placed.right - placed.left)
    assert [one.id for one in of(held, "eave")] == [
        "eave/roof-1.edge.e1/south.top",
        "eave/roof-1.edge.e3/north.top",
    ]


def test_what_is_built_alike_is_one_group() -> None:
    counts = Counter(group.about.name for group in grouped(found_junctions(resolve(house()))))
    assert {kind: counts[kind] for kind in ("eave", "rake", "wall_corner", "wall_foot", "footing", "sill", "head")} == {
        "eave": 1, "rake": 1, "wall_corner": 1, "wall_foot": 1, "footing": 1, "sill": 1, "head": 1,
    }  # fmt: skip
    # Joists of the ceiling lie across two walls and along two.
    assert counts["ceiling_edge"] == 2


@pytest.mark.parametrize(
    ("kind", "change"),
    [
        ("eave", lambda p: put(p, changed(p.find("roof-1"), edges=tuple(
            changed(edge, overhang=700.0) if k == 0 else edge for k, edge in enumerate(p.find("roof-1").edges))))),
        ("eave", lambda p: put(p, changed(p.find("south"), make_up="wall-brick"))),
        ("wall_foot", lambda p: put(p, changed(p.find("east"), make_up="wall-batten"))),
        ("sill", lambda p: put(p, changed(p.find("w1"), trim=150.0))),
        ("rake", lambda p: put(p, changed(p.find("roof-1"), edges=tuple(
            changed(edge, overhang=900.0) if k == 1 else edge for k, edge in enumerate(p.find("roof-1").edges))))),
    ],
    ids=["overhang", "make-up of a wall", "foot", "trim", "rake"],
)  # fmt: skip
def test_one_changed_input_splits_its_group(kind: str, change: Callable[[Project], Project]) -> None:
    before = grouped(of(house(), kind))
    after = grouped(of(change(house()), kind))
    assert len(before) == 1 and len(after) == 2
    assert sum(group.pieces for group in after) == before[0].pieces


def test_what_does_not_decide_how_it_is_built_splits_nothing() -> None:
    """The name of a make-up, where a window stands, how long a wall is."""
    held = house()
    make_up = held.find(held.find("south").make_up)
    other = put(held, changed(make_up, name="another name"), changed(held.find("w1"), distance=2500.0))
    assert [group.key for group in grouped(found_junctions(resolve(held)))] == [
        group.key for group in grouped(found_junctions(resolve(other)))
    ]


HOUSES: tuple[Callable[[], Project], ...] = (
    house,
    lambda: joist_house(9000, 7000, "ft-in"),
    lambda: two_storeys(9000, 7000),
    lambda: block_house("floor-joists", ground=True, inner=True),
    l_house,
    roofed_l,
    stair_house,
)


@pytest.mark.parametrize("number", range(len(HOUSES)))
@given(degrees=st.floats(-180, 180), mirrored=st.booleans())
@settings(max_examples=5, deadline=None)
def test_a_house_turned_or_mirrored_has_the_same_junctions(number: int, degrees: float, mirrored: bool) -> None:
    held = HOUSES[number]()
    ids = tuple(one.id for one in held.elements() if one.about.movable)
    motion = Motion(mirror=90.0) if mirrored else Motion(turn=degrees)
    moved = apply_edits(held, [Transform(elements=ids, motion=motion)])
    before, after = (found_junctions(resolve(one)) for one in (held, moved))
    if not mirrored:
        assert [one.id for one in before] == [one.id for one in after]
        assert [one.length for one in before] == pytest.approx([one.length for one in after], abs=0.5)
    kinds = Counter((one.kind, round(one.length / 10)) for one in before)
    assert sum((kinds - Counter((one.kind, round(one.length / 10)) for one in after)).values()) <= 2
    assert Counter(one.kind for one in before) == Counter(one.kind for one in after)


@pytest.mark.parametrize("make", DEMOS, ids=lambda make: make.__name__)
def test_the_junctions_of_the_demos_add_up(make: Callable[[], Project]) -> None:
    """Identities: ids are one each; feet are as long as outer walls; every window has head, jambs and sill; each run
    lies at what meets there; groups hold every junction once."""
    project = make()
    building = resolve(project)
    found = found_junctions(building)
    assert len({one.id for one in found}) == len(found)
    held = {element.id for element in project.elements()}
    assert all(set(one.elements) <= held for one in found)
    units = [o for o in project.openings if o.unit != "niche"]
    counts = Counter(one.kind for one in found)
    assert counts["head"] == counts["jamb"] == len(units) == counts["sill"] + counts["threshold"]
    founded = [one for one in found if one.kind == "footing"]
    for one in founded:
        wall = building.plan.by_id[one.ends[1].element]
        # Along the outer face, which is longer than the line of an arc.
        assert one.length == pytest.approx(wall.length, rel=0.05 if wall.axis.is_arc else 1e-6)
    for one in found:
        for run in one.runs:
            assert math.hypot(*run.out) == pytest.approx(1.0)
            for id in one.elements:
                wall = building.plan.by_id.get(id)
                if wall is not None and one.kind not in ("roof_top",):
                    x, y, _ = run.middle
                    box = wall.footprint.bounds
                    assert box[0] - 900 < x < box[2] + 900 and box[1] - 900 < y < box[3] + 900, one.id
    groups = grouped(found)
    assert sorted(j.id for group in groups for j in group.junctions) == sorted(one.id for one in found)
    assert all(len({group_key(j) for j in group.junctions}) == 1 for group in groups)


def test_names_stay_when_the_house_changes() -> None:
    """Pitch, heights, make-ups and a split of another wall leave every other junction its name."""
    held = house()
    names = {one.id for one in found_junctions(resolve(held))}
    steeper = put(held, changed(held.find("roof-1"), pitch=0.7))
    thicker = put(held, *(changed(held.find(id), make_up="wall-brick") for id in ("south", "north", "east", "west")))
    for other in (steeper, thicker):
        assert {one.id for one in found_junctions(resolve(other))} == names
    split = apply_edits(held, (SplitWall(wall="north", distance=4000.0, joint="j", second="north-2"),))
    gone = names - {one.id for one in found_junctions(resolve(split))}
    assert all("north" in id for id in gone)


def test_a_lean_to_meets_the_wall_that_it_leans_on() -> None:
    (top,) = of(larkmoor_house(), "roof_top")
    assert top.elements[0] == "roof-porch" and top.elements[1] in ("south", "upper-south")
