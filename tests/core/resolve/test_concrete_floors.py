"""Floors in houses of masonry: slabs, beams with blocks, joists that are built in; figures by hand."""

from __future__ import annotations

from pathlib import Path

import ifcopenshell
import pytest

from deepsection.core.drawing import Dimension, Stroke, Text
from deepsection.core.edits import CarryDeck, DrawDeck, DrawWalls, LayFloor, RailDeck, apply_edits, changed, put
from deepsection.core.model import FloorHole, FreeJoint, Project, SectionLine
from deepsection.core.particulars.describe import describe_element
from deepsection.core.resolve import Building, Part, resolve
from deepsection.core.sheets.usual import usual_set
from deepsection.core.starters.projects import new_project
from deepsection.core.trades.floors.members import floor_members, hangers
from deepsection.core.trades.floors.place import FLOORS
from deepsection.core.view import draw_view, list_views
from deepsection.formats.writers import write_ifc
from tests.builders import block_house, engineered
from tests.overlaps import overlapping
from tests.turning import turned

INSIDE, SLAB = 7300.0 * 5300.0, 7500.0 * 5500.0
"""Within the inner leaves; a slab goes 100 into each of them."""
RING = SLAB - INSIDE


def of(building: Building, role: str, element: str = "upper") -> list[Part]:
    return [part for part in building.parts if (part.role, part.element) == (role, element)]


def volume(parts: list[Part]) -> float:
    return sum(part.solid.volume for part in parts)


def leaf(building: Building, wall: str) -> float:
    """The volume of the inner leaf of a wall of block."""
    return volume([part for part in of(building, "structure", wall) if "/inner/" in part.key])


def upper_walls(house: Project) -> tuple[str, ...]:
    level = house.find("upper").level
    return tuple(wall.id for wall in house.walls if wall.base.level == level)


def test_a_slab_bears_on_the_inner_leaves_and_the_layers_on_it_lie_between_them() -> None:
    house = block_house()
    building = resolve(house)
    assert building.diagnostics == ()
    assert volume(of(building, "slab")) == pytest.approx(SLAB * 200.0)
    assert volume(of(building, "finish")) == pytest.approx(INSIDE * 65.0)
    assert volume(of(building, "insulation")) == pytest.approx(INSIDE * 25.0)
    # The leaf goes from the bearing to the plate above, less the slab: 200 + 25 + 65 and a storey of 2625.
    leaves = sum(leaf(building, wall) for wall in upper_walls(house))
    plates = sum(volume(of(building, "wall_plate", wall)) for wall in upper_walls(house))
    assert leaves + plates == pytest.approx(RING * (25.0 + 65.0 + 2625.0))


def test_beams_lie_the_short_way_with_blocks_on_their_toes() -> None:
    """Beams of 120 at 520 over 7300: one flush at each side, 13 between; blocks of 100 from web to web."""
    building = resolve(block_house(ground=True))
    beams = of(building, "joist", "ground")
    assert len(beams) == 15
    assert volume(beams) == pytest.approx(15 * 5500.0 * (120.0 * 55.0 + 80.0 * 100.0))
    assert volume(of(building, "infill", "ground")) == pytest.approx((7300.0 - 15 * 80.0) * 5300.0 * 100.0)
    assert not of(building, "rim_joist", "ground") and not of(building, "blocking", "ground")
    # On the foundation wall itself, 250 above the ground: no sill plate.
    heights = {id: level.z for id, level in building.levels.items()}
    assert heights["floor"] == pytest.approx(250.0 + 155.0 + 100.0 + 65.0)
    assert not of(building, "sill_plate", "foundation")


def test_an_inner_wall_of_block_stands_on_the_beams_and_the_layers_end_at_it() -> None:
    building = resolve(block_house(ground=True, inner=True))
    assert volume(of(building, "finish", "ground")) == pytest.approx((INSIDE - 100.0 * 5300.0) * 65.0)
    (wall,) = of(building, "structure", "inner")
    low, high = wall.solid.bounds.z0, wall.solid.bounds.z1
    assert low == pytest.approx(250.0 + 155.0) and high == pytest.approx(building.levels["plate"].z)


@pytest.mark.parametrize("upper", ["floor-joists", "floor-concrete", "floor-ground"])
@pytest.mark.parametrize("turn", [0.0, 17.3])
def test_nothing_lies_in_the_masonry_that_goes_around_it(upper: str, turn: float) -> None:
    house = block_house(upper, ground=True, inner=True)
    building = resolve(turned(house, turn) if turn else house)
    laid = [part for part in building.parts if part.element in ("upper", "ground")]
    others = [part for part in building.parts if part.element not in ("upper", "ground")]
    assert overlapping(laid, others, most=2000.0) == []


def test_joists_are_built_in_at_their_ends_alone() -> None:
    """Joists of 47 lie 100 in the leaves south and north, and beside those east and west."""
    building = resolve(block_house("floor-joists"))
    joists = of(building, "joist")
    boxes = [part.solid.bounds for part in joists]
    assert {(round(box.y0), round(box.y1)) for box in boxes} == {(250, 5750)}
    assert min(box.x0 for box in boxes) == pytest.approx(350.0) and max(box.x1 for box in boxes) == pytest.approx(
        7650.0
    )
    assert volume(of(building, "sheathing")) == pytest.approx(INSIDE * 22.0)
    held = len(joists) * 47.0 * 220.0 * 200.0
    leaves = sum(leaf(building, wall) for wall in upper_walls(block_house("floor-joists")))
    plates = sum(volume(of(building, "wall_plate", wall)) for wall in upper_walls(block_house("floor-joists")))
    assert leaves + plates == pytest.approx(RING * (220.0 + 22.0 + 2625.0) - held)


def test_a_hole_in_a_slab() -> None:
    corners = ((1000.0, 1000.0), (3000.0, 1000.0), (3000.0, 4000.0), (1000.0, 4000.0))
    building = resolve(put(block_house(), FloorHole(id="h", floor="upper", corners=corners)))
    assert volume(of(building, "slab")) == pytest.approx((SLAB - 2000.0 * 3000.0) * 200.0)
    assert volume(of(building, "lining")) == pytest.approx((7270.0 * 5270.0 - 2000.0 * 3000.0) * 15.0, rel=1e-4)


def test_a_thin_slab_is_said_with_the_thickness_that_would_do() -> None:
    """BS 8110-1, table 3.9, from memory: 20 times the effective depth. 200 less 30 reach 3400; 5300 needs 295."""
    house = block_house()
    by_tables = put(house, changed(house.find("upper"), sized="by tables"))
    (said,) = resolve(by_tables).diagnostics
    assert (said.code, said.value, said.limit) == ("slab-span", pytest.approx(5300.0), pytest.approx(3400.0))
    assert "295" in said.message
    make_up = next(held for held in house.make_ups if held.id == "floor-concrete")
    layers = tuple(changed(held, thickness=295.0) if held.id == "slab" else held for held in make_up.layers)
    assert not resolve(put(by_tables, changed(make_up, layers=layers))).diagnostics
    outcome = describe_element(by_tables, resolve(by_tables), "upper").outcome
    assert any("needs 295" in row.text for table in outcome for row in table.rows)


def test_a_wall_that_bears_halves_the_span_of_a_slab_whichever_way_it_runs() -> None:
    """The inner wall is 4500 from the west: its block, 100 thick, leaves 4100 and 3100 of 7300 to span."""
    house = block_house(inner=True)
    structure = draw_view(resolve(house), house, "plan:structure:upper", 75)
    said = [mark.text for mark in structure.marks if isinstance(mark, Text)]
    assert {"4100", "3100"} <= set(said) and "200 concrete slab" in said
    assert any("the slab bears at" in text for text in said)


def test_the_plans_of_floors_without_joists() -> None:
    house = block_house(ground=True)
    names = {view.name for view in list_views(house)}
    assert "plan:structure:upper" in names and "plan:framing:upper" not in names
    assert {"plan:framing:ground", "plan:structure:ground"} <= names
    framing = draw_view(resolve(house), house, "plan:framing:ground", 75)
    words = " ".join(mark.text for mark in framing.marks if isinstance(mark, Text))
    assert "155 concrete beams" in words and "tables of their maker" in words
    strings = {mark.text for mark in framing.marks if isinstance(mark, Dimension)}
    assert {"7300", "5500"} <= strings
    usual = apply_edits(house, usual_set(house, resolve(house)))
    shown = {placed.view for sheet in usual.sheets for placed in sheet.placed}
    assert {"plan:framing:ground", "plan:structure:upper"} <= shown


def test_concrete_cut_across_has_its_hatch_and_no_cross() -> None:
    house = block_house(ground=True)
    line = SectionLine(id="a", name="A", x1=-1000.0, y1=3000.0, x2=9000.0, y2=3000.0, look="left")
    house = put(house, line)
    drawing = draw_view(resolve(house), house, "section:a", 20)
    lumber = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "lumber"]
    crossed = {mark.part.split("/")[0] for mark in lumber if mark.part}
    assert crossed
    assert "ground" not in crossed and "upper" not in crossed


def test_slabs_are_slabs_in_a_model_that_is_read_back(tmp_path: Path) -> None:
    house = block_house(ground=True)
    path = tmp_path / "house.ifc"
    path.write_bytes(write_ifc(house, resolve(house)))
    model = ifcopenshell.open(str(path))
    kinds = [held.PredefinedType for held in model.by_type("IfcSlab")]
    assert kinds.count("FLOOR") == 1
    beams = [held for held in model.by_type("IfcBeam") if held.PredefinedType == "JOIST"]
    assert len(beams) == 15 + len(of(resolve(house), "joist", "s2-ceiling"))


def test_a_deck_hangs_on_the_outer_leaf_and_the_render_goes_round_it() -> None:
    house = block_house(ground=True)
    corners = ((1000.0, -3000.0), (5000.0, -3000.0), (5000.0, 0.0), (1000.0, 0.0))
    house = apply_edits(house, (DrawDeck(id="deck", level="floor", corners=corners), CarryDeck(deck="deck")))
    house = apply_edits(house, (RailDeck(deck="deck"),))
    building = resolve(house)
    assert building.diagnostics == ()
    deck = [part for part in building.parts if part.element == "deck"]
    (ledger,) = [part for part in deck if part.role == "ledger"]
    assert ledger.solid.bounds.y1 == pytest.approx(0.0)
    assert (
        overlapping(deck, [part for part in building.parts if part.element != "deck"], most=2000.0, among=False) == []
    )


def test_beams_that_end_askew_in_a_wall_bear_on_it() -> None:
    """A wall at 60 degrees: the ends of beams of 120 lie in its leaf, and none of them in the air."""
    joints = (("a", 0.0, 0.0), ("b", 11000.0, 0.0), ("c", 11000.0, 6500.0), ("d", 6000.0, 10500.0))
    walls = DrawWalls(
        joints=tuple(FreeJoint(id=id, x=x, y=y) for id, x, y in joints),
        chain=("a", "b", "c", "d", "a"),
        walls=("w1", "w2", "w3", "w4"),
        make_up="wall-cavity",
        base="floor",
        top="plate",
    )
    house = apply_edits(new_project("m", "Askew", "mm", "masonry"), (walls,))
    house = engineered(apply_edits(house, (LayFloor(id="ground", level="floor", x=6000.0, y=3000.0),)))
    for span in ("short", "long", "east-west", "north-south"):
        building = resolve(put(house, changed(house.find("ground"), span=span)))
        assert [held.code for held in building.diagnostics] == []
        assert len(of(building, "joist", "ground")) > 10


def test_joists_hang_on_the_inside_of_masonry_which_goes_on_past_them() -> None:
    """From leaf to leaf 5300; a hanger at each end of each joist, and the leaves whole behind them."""
    house = block_house("floor-joists")
    hung = put(house, changed(house.find("upper"), ends="hung", between="nothing"))
    building = resolve(hung)
    assert building.diagnostics == ()
    joists = of(building, "joist")
    assert {(round(part.solid.bounds.y0), round(part.solid.bounds.y1)) for part in joists} == {(350, 5650)}
    flat = next(held for held in building[FLOORS] if held.floor.id == "upper")
    framing = building.placed.make_ups["floor-joists"].layers[1].framing
    assert framing and len(hangers(floor_members(flat.bays, flat.rims, framing))) == 2 * len(joists)
    leaves = sum(leaf(building, wall) for wall in upper_walls(hung))
    plates = sum(volume(of(building, "wall_plate", wall)) for wall in upper_walls(hung))
    assert leaves + plates == pytest.approx(RING * (220.0 + 22.0 + 2625.0))
    assert volume(of(building, "sheathing")) == pytest.approx(INSIDE * 22.0)
