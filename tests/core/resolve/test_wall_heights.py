"""Heights of walls: their own, raked, stepped; volumes of layers worked out by hand."""

from __future__ import annotations

import math
from typing import Any

import manifold3d
import pytest

from deepsection.core.edits import BendWall, PutOpening, PutWall, UseMakeUp, apply_edits, changed, put
from deepsection.core.errors import BadInput, RefusedEdit
from deepsection.core.model import Layer, MakeUp, Project
from deepsection.core.particulars import enter, fields_of
from deepsection.core.resolve import Building, resolve
from tests.builders import box_house, window


def topped(**rule: Any) -> Project:
    """The box house whose south wall has another top."""
    house = box_house(8000, 6000)
    south = house.find("south")
    return apply_edits(house, (PutWall(wall=changed(south, top=changed(south.top, **({"kind": "level"} | rule)))),))


def sheathing(building: Building) -> float:
    """Area of the south wall's sheathing (12 mm) as seen from outside."""
    return sum(p.solid.volume for p in building.parts if p.element == "south" and p.role == "sheathing") / 12


def width(building: Building) -> float:
    wall = next(wall for wall in building.plan.walls if wall.wall.id == "south")
    return next(layer.polygon.area for layer in wall.layers if layer.layer == "sheathing") / 12


def test_a_height_of_its_own() -> None:
    building = resolve(topped(kind="fixed", height=1500))
    assert sheathing(building) == pytest.approx(width(building) * 1500, rel=1e-6)
    assert building.sums["top:south"].total == pytest.approx(building.levels["floor"].z + 1500)
    assert [term.label for term in building.sums["top:south"].terms][-1] == "height of wall"


@pytest.mark.parametrize("rise", [600.0, -600.0])
def test_a_raked_wall_is_a_trapezium(rise: float) -> None:
    """Area: mean height x length; rise / 2 more (or less) than the level wall."""
    plain, raked = resolve(topped()), resolve(topped(end_rise=rise))
    assert sheathing(raked) - sheathing(plain) == pytest.approx(width(plain) * rise / 2, rel=0.02)
    studs = [part for part in raked.parts if part.key.startswith("south/stud/")]
    top = max(part.solid.bounds.z1 for part in studs)
    plate = plain.levels["plate"].z
    assert top == pytest.approx(plate + max(rise, 0.0), abs=60), "studs reach up to the rake"


def test_a_stepped_wall_is_a_sum_of_rectangles() -> None:
    """From 2000 on 400 higher, from 5000 on 1000 higher: 3000 x 400 + (width - 5000) x 1000 more."""
    plain = resolve(topped())
    stepped = resolve(topped(steps=[{"distance": 2000, "rise": 400}, {"distance": 5000, "rise": 1000}]))
    long = width(plain)
    past = (long - 8000) / 2
    more = 3000 * 400 + (3000 + past) * 1000
    assert sheathing(stepped) - sheathing(plain) == pytest.approx(more, rel=1e-3)


def test_a_window_fits_under_the_top_where_it_stands() -> None:
    """Its head is 600 above the plate: that is blocked under the level top, and fits under the higher step."""
    tall = window("w1", "south", 6500, height=2600, sill=600)

    def faults(project: Project) -> set[str]:
        return {held.code for held in resolve(apply_edits(project, (PutOpening(opening=tall),))).diagnostics}

    assert "opening-too-high" in faults(topped())
    assert "opening-too-high" not in faults(topped(steps=[{"distance": 5000, "rise": 1000}]))
    assert "opening-too-high" in faults(topped(steps=[{"distance": 7000, "rise": 1000}])), "the step starts beside it"
    assert "opening-too-high" not in faults(topped(end_rise=1200))
    assert "opening-too-high" in faults(topped(end_rise=400))


def test_an_arc_is_stepped_but_not_raked() -> None:
    bowed = apply_edits(topped(), (BendWall(wall="south", rise=-900),))
    south = bowed.find("south")
    raked = apply_edits(bowed, (PutWall(wall=changed(south, top=changed(south.top, end_rise=500.0))),))
    assert {held.code for held in resolve(raked).diagnostics if held.severity == "blocking"} == {"arc-raked"}
    stepped = changed(south.top, steps=({"distance": 4000, "rise": 500},))
    done = resolve(apply_edits(bowed, (PutWall(wall=changed(south, top=stepped)),)))
    assert not [held for held in done.diagnostics if held.severity == "blocking"]
    assert sheathing(done) > sheathing(resolve(bowed))


@pytest.mark.parametrize(
    "rule",
    [
        {"kind": "fixed"},
        {"end_rise": 100, "steps": [{"distance": 1000, "rise": 100}]},
        {"steps": [{"distance": 2000, "rise": 100}, {"distance": 1000, "rise": 200}]},
        {"steps": [{"distance": 0, "rise": 100}]},
    ],
)
def test_a_top_that_cannot_be_is_refused(rule: dict[str, Any]) -> None:
    with pytest.raises(RefusedEdit):
        topped(**rule)


def test_typed_in_the_particulars() -> None:
    def after(field: str, text: str) -> Any:
        house = box_house(8000, 6000)
        return apply_edits(house, enter(house, "south", field, text)).find("south").top

    assert (after("height", "1.2m").kind, after("height", "1.2m").height) == ("fixed", 1200)
    levels = resolve(box_house(8000, 6000)).levels
    assert after("top", "fixed").height == pytest.approx(levels["plate"].z - levels["floor"].z), "as high as it was"
    steps = after("steps", "3600: 1200, 1800: 600").steps
    assert [(step.distance, step.rise) for step in steps] == [(1800, 600), (3600, 1200)]
    house = box_house(8000, 6000)
    for text, told in (("1800", "no step"), ("0: 3", "past the start")):
        with pytest.raises(Exception, match=told):
            enter(house, "south", "steps", text)
    stepped = topped(steps=[{"distance": 1800, "rise": 600}])
    shown = {row.field.id: row.field.text for row in fields_of(stepped, stepped.find("south"))}
    assert shown["steps"] == "1800: 600"


# --- battered walls -----------------------------------------------------------------------------


def stone(batter: float, inner: float = 0.0) -> Project:
    """The box house with 600 mm stone walls, battered alike on all sides, 1200 high."""
    make_up = MakeUp(
        id="stone",
        name="stone plinth",
        use="wall",
        layers=(Layer(id="stone", name="stone", material="stone", function="structure", thickness=600),),
    )
    house = put(box_house(8000, 6000), make_up)
    for id in ("south", "east", "north", "west"):
        wall = apply_edits(house, (UseMakeUp(wall=id, make_up="stone"),)).find(id)
        top = changed(wall.top, kind="fixed", height=1200)
        house = apply_edits(
            house,
            (
                UseMakeUp(wall=id, make_up="stone"),
                PutWall(wall=changed(wall, top=top, batter_outer=batter, batter_inner=inner)),
            ),
        )
    return house


def frustum(width: float, depth: float, top_width: float, top_depth: float, height: float) -> float:
    """Volume of a body with two parallel rectangles and flat sides: the prismatoid formula h (A + 4 M + B) / 6."""
    middle = (width + top_width) / 2 * (depth + top_depth) / 2
    return height * (width * depth + 4 * middle + top_width * top_depth) / 6


@pytest.mark.parametrize(("outer", "inner"), [(10.0, 0.0), (0.0, 5.0), (8.0, 6.0)])
def test_battered_walls_close_at_their_corners(outer: float, inner: float) -> None:
    """All four together: the frustum of the outside less that of the inside (which opens upward), closed form."""
    building = resolve(stone(outer, inner))
    lean, back = (1200 * math.tan(math.radians(angle)) for angle in (outer, inner))
    outside = frustum(8000, 6000, 8000 - 2 * lean, 6000 - 2 * lean, 1200)
    inside = frustum(6800, 4800, 6800 + 2 * back, 4800 + 2 * back, 1200)
    total = sum(part.solid.volume for part in building.parts if part.element in ("south", "east", "north", "west"))
    assert total == pytest.approx(outside - inside, rel=1e-6)
    bodies = [part.solid.manifold for part in building.parts if part.element in ("south", "east", "north", "west")]
    joined = manifold3d.Manifold.batch_boolean(bodies, manifold3d.OpType.Add)
    assert joined.volume() == pytest.approx(total, rel=1e-6), "no wall overlaps another"


def test_a_taper_to_nothing_is_pointed_out() -> None:
    faults = [held for held in resolve(stone(27.0)).diagnostics if held.code == "batter-to-nothing"]
    assert len(faults) == 4 and faults[0].field == "batter_outer" and faults[0].severity == "blocking"
    bowed = apply_edits(stone(5.0), (BendWall(wall="south", rise=-900),))
    assert "arc-battered" in {held.code for held in resolve(bowed).diagnostics}
    with pytest.raises(RefusedEdit):
        changed(stone(5.0).find("south"), batter_outer=46)


def test_a_batter_is_typed_in_degrees_or_by_the_thickness_at_the_top() -> None:
    """atan(200 / 1200) = 9.462 degrees leaves 400 of 600 at a height of 1200."""

    def batter(text: str) -> float:
        house = stone(0.0)
        found: float = apply_edits(house, enter(house, "south", "batter_outer", text)).find("south").batter_outer
        return found

    assert batter("5°") == 5 and batter("7.5 deg") == 7.5 and batter("0") == 0
    assert batter("400") == pytest.approx(math.degrees(math.atan(200 / 1200)))
    for text in ("700", "x°", "-1", "steep"):
        with pytest.raises(BadInput):
            batter(text)


@pytest.mark.parametrize(("height", "side"), [(1200, "below"), (3700, "above"), (2300, None)])
def test_a_height_of_its_own_far_off_the_plate_is_pointed_out(height: float, side: str | None) -> None:
    """The plate lies 2500 above the floor: more than 1000 off is worth a look, and never refused."""
    found = [held for held in resolve(topped(kind="fixed", height=height)).diagnostics if held.code == "wall-off-plate"]
    assert [(held.field, held.severity) for held in found] == ([("height", "warning")] if side else [])
    assert side is None or f"far {side} Plate" in found[0].message


def test_the_foot_of_a_wall_is_explained_where_it_is_drawn() -> None:
    house = box_house(8000, 6000)
    south = house.find("south")
    raised = apply_edits(house, (PutWall(wall=changed(south, base=changed(south.base, offset=300))),))
    building = resolve(raised)
    sheet = next(part for part in building.parts if part.element == "south" and part.role == "sheathing")
    assert building.sums["foot:south"].total == pytest.approx(building.levels["floor"].z + 300)
    assert sheet.solid.bounds.z0 == pytest.approx(building.sums["foot:south"].total) and "foot:south" in sheet.sums
