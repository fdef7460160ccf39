"""Porch slabs: volumes against closed forms, falls away from the house, and what is wrong with them."""

from __future__ import annotations

from typing import Any

import pytest
import trimesh

from deepsection.core.drawing import Text
from deepsection.core.edits import DrawPorchSlab, Remove, apply_edits, changed, put
from deepsection.core.errors import BadInput, RefusedEdit
from deepsection.core.model import LevelRule, Post, Project
from deepsection.core.particulars import enter
from deepsection.core.resolve import Building, resolve
from deepsection.core.trades.loads.placed import LOADS
from deepsection.core.trades.slabs.placed import SLABS
from deepsection.core.view import draw_view
from deepsection.demo import tansy_lodge
from tests.builders import box_house
from tests.overlaps import overlapping
from tests.turning import turned


def drawn(house: Project, x0: float, y0: float, x1: float, y1: float) -> Project:
    corners = ((x0, y0), (x1, y0), (x1, y1), (x0, y1))
    return apply_edits(house, (DrawPorchSlab(id="terrace", level="floor", corners=corners),))


def slab(project: Project, **facts: Any) -> Project:
    return put(project, changed(project.porch_slabs[0], **facts))


def volume(building: Building, role: str) -> float:
    parts = [part for part in building.parts if part.role == role]
    return sum(float(trimesh.Trimesh(*part.solid.mesh()).volume) for part in parts)


def test_a_slab_is_cut_at_the_walls_and_falls_away_from_them() -> None:
    """Drawn from a metre within the house to two metres before its south: 4 x 2 m of slab, 100 thick, that falls 1 in
    48 to the south; its volume is area times thickness, measured plumb."""
    house = box_house(9000.0, 6000.0)
    outside = min(wall.footprint.bounds[1] for wall in resolve(house).plan.walls)
    building = resolve(drawn(house, 2000.0, -2000.0, 6000.0, 1000.0))
    held = building[SLABS][0]
    depth = outside + 2000.0
    assert held.area.area == pytest.approx(4000.0 * depth)
    assert held.slab.fall_to == pytest.approx(-90.0) and held.slab.fall == pytest.approx(1 / 48)
    assert volume(building, "porch_slab") == pytest.approx(4000.0 * depth * 100.0, rel=1e-6)
    floor = building.levels["floor"].z
    assert held.high.total == pytest.approx(floor - 100.0) and held.low == pytest.approx(floor - 100.0 - depth / 48)
    assert not building.diagnostics


@pytest.mark.parametrize(
    ("spots", "falls"),
    [
        ((-3000.0, 1000.0, -20.0, 5000.0), 180.0),
        ((9100.0, 1000.0, 12000.0, 5000.0), 0.0),
        ((2000.0, 6100.0, 6000.0, 9000.0), 90.0),
    ],
)
def test_it_falls_away_on_every_side(spots: tuple[float, float, float, float], falls: float) -> None:
    house = drawn(box_house(9000.0, 6000.0), *spots)
    assert abs(house.porch_slabs[0].fall_to) == pytest.approx(falls)
    moved = turned(house, 30.0)
    assert (moved.porch_slabs[0].fall_to - house.porch_slabs[0].fall_to) % 360.0 == pytest.approx(30.0)
    assert {held.code for held in resolve(moved).diagnostics} == set()
    assert volume(resolve(moved), "porch_slab") == pytest.approx(volume(resolve(house), "porch_slab"), rel=1e-6)


def test_a_deep_edge_goes_round_but_not_along_the_house() -> None:
    """By hand, level, 4 x 2 m at the wall: an edge of 300 at three sides but for 300 at the wall, 450 - 100 deep."""
    house = box_house(9000.0, 6000.0)
    outside = min(wall.footprint.bounds[1] for wall in resolve(house).plan.walls)
    house = slab(drawn(house, 2000.0, -2000.0, 6000.0, 1000.0), edge="deep", fall=0.0)
    building = resolve(house)
    depth = outside + 2000.0
    ring = 4000.0 * 300.0 + 2 * 300.0 * (depth - 600.0)
    assert building[SLABS][0].edge.area == pytest.approx(ring)
    assert volume(building, "slab_edge") == pytest.approx(ring * 350.0, rel=1e-6)


def test_posts_stand_on_a_slab_and_none_in_it() -> None:
    project = tansy_lodge()
    building = resolve(project)
    assert building[LOADS].carriers["post-1"] == ("porch-slab",) and building[LOADS].carriers["porch-slab"] == ()
    laid = [part for part in building.parts if part.role in ("post", "porch_slab", "slab_edge", "structure")]
    assert overlapping(laid, most=1e3) == []


def test_what_is_wrong_with_a_slab_is_said_with_the_number() -> None:
    house = box_house(9000.0, 6000.0)
    high = slab(drawn(house, 2000.0, -2000.0, 6000.0, 0.0), drop=-50.0)
    found = next(held for held in resolve(high).diagnostics if held.code == "slab-high")
    assert "50 above" in found.message and found.value == -50.0 and found.limit == 0.0
    turned_in = slab(high, drop=100.0, fall_to=90.0)
    assert [held.code for held in resolve(turned_in).diagnostics] == ["slab-falls-in"]
    inside = resolve(drawn(house, 2000.0, 2000.0, 4000.0, 4000.0))
    assert [held.code for held in inside.diagnostics] == ["slab-inside"] and not inside[SLABS]
    with pytest.raises(RefusedEdit, match="deeper than the slab is thick"):
        slab(high, edge="deep", edge_depth=80.0)
    with pytest.raises(RefusedEdit, match="go round an area"):
        drawn(house, 2000.0, -2000.0, 2000.0, 0.0)
    with pytest.raises(BadInput, match="no more than one in five"):
        enter(high, "terrace", "fall", "400")


def test_its_particulars_its_plan_and_its_removal() -> None:
    house = drawn(box_house(9000.0, 6000.0), 2000.0, -2000.0, 6000.0, 0.0)
    steeper = apply_edits(house, enter(house, "terrace", "fall", "20"))
    assert steeper.porch_slabs[0].fall == pytest.approx(0.02)
    assert apply_edits(house, enter(house, "terrace", "fall_to", "-45°")).porch_slabs[0].fall_to == -45.0
    deep = apply_edits(house, enter(house, "terrace", "edge", "deep"))
    assert deep.porch_slabs[0].edge == "deep"
    drawing = draw_view(resolve(house), house, "plan", 50)
    said = [mark.text for mark in drawing.marks if isinstance(mark, Text) and mark.feature == "slab"]
    assert said[0] == "Porch slab" and said[1].endswith(", 1:48")
    gone = apply_edits(house, (Remove(elements=("terrace",)),))
    assert gone.porch_slabs == () and not [p for p in resolve(gone).parts if p.role == "porch_slab"]


def test_a_post_in_a_slab_is_carried_by_it() -> None:
    house = drawn(box_house(9000.0, 6000.0), 2000.0, -2000.0, 6000.0, 0.0)
    post = Post(
        id="post", x=3000.0, y=-1500.0, width=90.0, base=LevelRule(level="floor", offset=-135.0),
        top=LevelRule(level="plate"),
    )  # fmt: skip
    assert resolve(put(house, post))[LOADS].carriers["post"] == ("terrace",)
