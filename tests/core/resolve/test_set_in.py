"""Floors of their own within another one: other joists, set down; the floor around them framed as around a hole."""

from __future__ import annotations

from typing import Any

import pytest
import trimesh

from deepsection.core.document.motion import Motion
from deepsection.core.drawing import Text
from deepsection.core.edits import DrawDeck, Transform, apply_edits, changed, put
from deepsection.core.model import Project
from deepsection.core.resolve import Building, Part, resolve
from deepsection.core.trades.decks.place import DECKS
from deepsection.core.trades.floors.place import FLOORS
from deepsection.core.trades.loads.placed import LOADS
from deepsection.core.view import draw_view
from tests.builders import joist_house, two_storeys
from tests.overlaps import overlapping


def set_down(drop: float = 51.0, corners: Any = None, depth: float = 184.0) -> Project:
    """The upper floor of a house of 9 x 6 m, with a part of its own in the south-east, drawn to the faces of walls:
    joists of 184 instead of 235, so set down by 51."""
    house = two_storeys(9000.0, 6000.0)
    floor = next(held for held in house.floors if held.level != "floor")
    house = put(house, changed(floor, span="north-south"))
    corners = corners or ((5000.0, 150.0), (8850.0, 150.0), (8850.0, 2400.0), (5000.0, 2400.0))
    house = apply_edits(house, (DrawDeck(id="part", level=floor.level, corners=corners),))
    own = next(held for held in house.make_ups if held.id == floor.make_up)
    layers = tuple(changed(layer, thickness=depth) if layer.framing else layer for layer in own.layers)
    thin = changed(own, id="thin", name="thin floor", layers=layers)
    return put(house, thin, changed(house.decks[0], make_up="thin", drop=drop, sized="by an engineer"))


def parts(building: Building, element: str, *roles: str) -> list[Part]:
    return [part for part in building.parts if part.element == element and (not roles or part.role in roles)]


def volume(held: list[Part]) -> float:
    return sum(float(trimesh.Trimesh(*part.solid.mesh()).volume) for part in held)


def test_its_joists_reach_from_the_rim_to_the_header_and_bear_on_the_plate() -> None:
    """To the rim of 38 at the south, which lies outside of the walls drawn to, up to 2400; nine at 400 on 3962, one
    flush at each side."""
    project = set_down()
    building = resolve(project)
    assert building.diagnostics == ()
    floor = next(flat for flat in building[FLOORS] if flat.floor.level != "floor")
    held = building[DECKS][0]
    assert held.top.z == pytest.approx(floor.top.z - 51.0) and held.under.z == pytest.approx(floor.under.z)
    joists = parts(building, "part", "joist")
    assert {round(part.solid.reach.y1 - part.solid.reach.y0, 3) for part in joists} == {2400.0 - 38.0}
    assert held.area.area == pytest.approx((9000.0 - 38.0 - 5000.0) * (2400.0 - 38.0))
    # 3962 wide: 9 spacings of 400 and a little more, one flush at each side.
    assert len(joists) == 11
    assert volume(parts(building, "part", "sheathing")) == pytest.approx(held.area.area * 18.0, rel=1e-6)


def test_the_floor_around_it_is_framed_as_around_a_hole() -> None:
    project = set_down()
    building, plain = resolve(project), resolve(two_storeys(9000.0, 6000.0))
    upper = next(held.id for held in project.floors if held.level != "floor")
    trimmers = {part.key.split("/")[3] for part in parts(building, upper, "trimmer_joist", "header_joist")}
    assert any("part" in slot for slot in trimmers)
    deck = building[DECKS][0].area.area
    lost = volume(parts(plain, upper, "sheathing")) - volume(parts(building, upper, "sheathing"))
    # The rim keeps its boards off: what is gone is the hole to the outside of the frames.
    assert lost == pytest.approx(4000.0 * 2400.0 * 18.0, rel=1e-6) and lost > deck * 18.0


def test_nothing_lies_in_anything_else() -> None:
    building = resolve(set_down())
    own = parts(building, "part")
    others = [part for part in building.parts if part.element != "part"]
    assert overlapping(own, others, among=False) == []


def test_it_hangs_on_the_floor_around_it() -> None:
    project = set_down()
    building = resolve(project)
    upper = next(held.id for held in project.floors if held.level != "floor")
    assert building[LOADS].carriers["part"] == (upper,)
    drawing = draw_view(building, project, "plan:framing:part", 50)
    words = [mark.text for mark in drawing.marks if isinstance(mark, Text)]
    # North ends hang on the header, but that of the joist which lies along the east wall; south ends lie on the wall.
    assert any(text.startswith("10 hangers") for text in words), words


@pytest.mark.parametrize(("drop", "off"), [(0.0, 51.0), (80.0, -29.0)])
def test_joists_that_do_not_end_at_the_plate_are_said(drop: float, off: float) -> None:
    found = next(held for held in resolve(set_down(drop)).diagnostics if held.code == "set-in-rise")
    assert found.limit == pytest.approx(51.0) and ("above" if off > 0 else "below") in found.message


@pytest.mark.parametrize("motion", [Motion(turn=27.0), Motion(mirror=90.0, x=4500.0)])
def test_it_turns_and_mirrors_with_the_house(motion: Motion) -> None:
    project = set_down()
    moving = tuple(element.id for element in project.elements() if element.about.movable)
    after = resolve(apply_edits(project, (Transform(elements=moving, motion=motion),)))
    before = resolve(project)
    for role in ("joist", "sheathing", "lining"):
        assert volume(parts(after, "part", role)) == pytest.approx(volume(parts(before, "part", role)), rel=1e-4), role
    assert after.diagnostics == ()


def test_on_the_ground_floor_it_lies_over_the_crawl_space() -> None:
    house = joist_house(9000.0, 6000.0)
    corners = ((3000.0, 2000.0), (6000.0, 2000.0), (6000.0, 4000.0), (3000.0, 4000.0))
    project = apply_edits(house, (DrawDeck(id="part", level="floor", corners=corners),))
    assert project.decks[0].make_up == house.floors[0].make_up and project.decks[0].drop == 0.0
    building = resolve(put(project, changed(project.decks[0], sized="by an engineer")))
    assert building.diagnostics == () and parts(building, "part", "joist")
