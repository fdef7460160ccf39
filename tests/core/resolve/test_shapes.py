"""Walls that are not plain: leaning, tapered, of a free outline, with mouldings; volumes by closed forms."""

from __future__ import annotations

import math
from typing import Any

import manifold3d
import pytest

from deepsection.core.edits import BendWall, DrawOutline, DrawWalls, PutOpening, PutWall, apply_edits, changed, put
from deepsection.core.errors import RefusedEdit
from deepsection.core.geometry import Frame
from deepsection.core.model import FreeJoint, Moulding, Project, SectionSpot
from deepsection.core.resolve import Building, Part, resolve
from deepsection.core.trades.walls.edits.outlines import PlanPoint
from tests.builders import box_house, window
from tests.core.resolve.test_wall_heights import frustum, stone

WALLS = ("south", "east", "north", "west")
THICK, HIGH = 600.0, 1200.0


def shaped(house: Project, ids: tuple[str, ...] = WALLS, **facts: Any) -> Project:
    return apply_edits(house, tuple(PutWall(wall=changed(house.find(id), **facts)) for id in ids))


def of_walls(building: Building, *ids: str, role: str | None = None) -> list[Part]:
    return [part for part in building.parts if part.element in (ids or WALLS) and role in (None, part.role)]


def volume(parts: list[Part]) -> float:
    return sum(part.solid.volume for part in parts)


def united(parts: list[Part]) -> float:
    bodies = [part.solid.manifold for part in parts]
    return float(manifold3d.Manifold.batch_boolean(bodies, manifold3d.OpType.Add).volume())


@pytest.mark.parametrize("lean", [12.0, -9.0])
def test_leaning_walls_close_at_their_corners(lean: float) -> None:
    """All four leaning alike: the frustum of the outside less the frustum of the inside, closed form."""
    parts = of_walls(resolve(shaped(stone(0.0), lean=lean)))
    out = 2 * HIGH * math.tan(math.radians(lean))
    expected = frustum(8000, 6000, 8000 + out, 6000 + out, HIGH) - frustum(6800, 4800, 6800 + out, 4800 + out, HIGH)
    assert volume(parts) == pytest.approx(expected, rel=1e-6)
    assert united(parts) == pytest.approx(expected, rel=1e-6), "no wall overlaps another"


def test_one_leaning_wall_carries_the_ends_of_the_plumb_ones_with_it() -> None:
    """A parallelogram in section: the same area at every height, 8000 x 600, and the sides grow by the lean."""
    parts = of_walls(resolve(shaped(stone(0.0), ("south",), lean=10.0)))
    out = HIGH * math.tan(math.radians(10.0))
    plain = 8000 * 6000 - 6800 * 4800
    expected = plain * HIGH + 2 * THICK * out * HIGH / 2
    assert volume(parts) == pytest.approx(expected, rel=1e-6) and united(parts) == pytest.approx(expected, rel=1e-6)
    south = next(part for part in parts if part.element == "south")
    assert south.solid.bounds.y0 == pytest.approx(-out, abs=0.01), "its top stands out"


def test_a_window_leans_with_its_wall() -> None:
    house = apply_edits(
        shaped(stone(0.0), lean=10.0),
        (PutOpening(opening=window("w9", "south", 4000, width=900, height=600, sill=300)),),
    )
    bare, pierced = resolve(shaped(stone(0.0), lean=10.0)), resolve(house)
    gone = volume(of_walls(bare, "south")) - volume(of_walls(pierced, "south"))
    assert gone == pytest.approx(900 * 600 * THICK, rel=1e-6), "a shear keeps volumes"
    frame = next(part for part in pierced.parts if part.key == "w9/frame//")
    rise = 300 + 600
    placed = next(held for held in pierced.openings["south"])
    assert frame.solid.bounds.y0 == pytest.approx(-placed.face - rise * math.tan(math.radians(10.0)), abs=0.5)


def test_a_leaning_wall_is_cut_as_a_parallelogram() -> None:
    south = of_walls(resolve(shaped(stone(0.0), ("south",), lean=10.0)), "south")[0]
    cut = south.solid.cut(Frame(1.0, 0.0, 4000.0, 0.0))
    assert cut.area == pytest.approx(THICK * HIGH, rel=1e-6)
    assert cut.bounds[2] - cut.bounds[0] == pytest.approx(THICK + HIGH * math.tan(math.radians(10.0)), abs=0.01)


@pytest.mark.parametrize("taper", [200.0, -150.0])
def test_a_tapered_wall_is_a_trapezium(taper: float) -> None:
    """Its inner face turns about its start. Ends stay closed: no gap, no overlap with its neighbours."""
    house = shaped(stone(0.0), ("south",), taper=taper)
    parts = of_walls(resolve(house))
    # The room is 4800 deep at the start of the south wall and `taper` deeper at its end, along its whole line of 8000.
    deep = [4800 + taper * x / 8000 for x in (600, 7400)]
    assert volume(parts) == pytest.approx((8000 * 6000 - 6800 * sum(deep) / 2) * HIGH, rel=1e-6)
    assert united(parts) == pytest.approx(volume(parts), rel=1e-6)


def outlined(ring: list[tuple[float, float]], make_up: str = "stone") -> DrawOutline:
    points = tuple(PlanPoint(x=x, y=y) for x, y in ring)
    return DrawOutline(wall="free", joints=("p", "q"), points=points, make_up=make_up, base="floor", top="plate")


def test_a_free_outline_is_all_of_a_wall_and_its_neighbours_end_on_it() -> None:
    """An elbow of two rectangles, drawn as its outline: 2000 x 600 and 300 x 900."""
    ring = [(0, 0), (0, -600), (1700, -600), (1700, -1500), (2000, -1500), (2000, 0)]
    house = apply_edits(stone(0.0), (outlined([(9000 + x, 3000 + y) for x, y in ring]),))
    top = changed(house.find("free").top, kind="fixed", height=HIGH)
    house = apply_edits(house, (PutWall(wall=changed(house.find("free"), top=top)),))
    area = 2000 * 600 + 300 * 900
    assert volume(of_walls(resolve(house), "free")) == pytest.approx(area * HIGH, rel=1e-9)
    mirrored = apply_edits(stone(0.0), (outlined([(9000 + x, 3000 + y) for x, y in reversed(ring)]),))
    assert resolve(mirrored).plan.by_id["free"].footprint.area == pytest.approx(area), "either way round"
    layered = box_house(8000, 6000)
    with pytest.raises(RefusedEdit, match="one layer"):
        apply_edits(layered, (outlined([(0, 0), (500, 0), (0, 500)], layered.walls[0].make_up),))
    onto = put(house, FreeJoint(id="r", x=10850, y=-3000))
    onto = apply_edits(
        onto, (DrawWalls(chain=("r", "q"), walls=("butts",), make_up="stone", base="floor", top="plate"),)
    )
    parts = of_walls(resolve(onto), "free", "butts")
    assert united(parts) == pytest.approx(volume(parts), rel=1e-6), "the other wall gives way"
    spots = house.find("free").outline
    crossed = changed(house.find("free"), outline=(spots[0], spots[3], spots[1], spots[4]))
    assert "outline-crosses" in {held.code for held in resolve(put(house, crossed)).diagnostics}


# --- mouldings ------------------------------------------------------------------------------------

PLINTH = ((0.0, 0.0), (80.0, 0.0), (80.0, 300.0), (0.0, 380.0))
"""80 out, 300 high, weathered to 380: area 80 x 300 + 80 x 80 / 2 = 27,200."""


def moulding(ring: tuple[tuple[float, float], ...] = PLINTH, **facts: Any) -> Moulding:
    spots = tuple(SectionSpot(out=out, up=up) for out, up in ring)
    return Moulding(id="plinth", name="plinth", section=spots, **facts)


def test_a_plinth_all_around_is_mitred() -> None:
    """By prismatoids: 300 of 8160 x 6160 less 8000 x 6000, then a frustum of 80 down to the wall."""
    parts = of_walls(resolve(shaped(stone(0.0), mouldings=(moulding(),))), role="moulding")
    expected = (8160 * 6160 - 8000 * 6000) * 300 + frustum(8160, 6160, 8000, 6000, 80) - 8000 * 6000 * 80
    assert volume(parts) == pytest.approx(expected, rel=1e-6)
    assert united(parts) == pytest.approx(expected, rel=1e-6)


def test_a_plinth_on_one_wall_ends_square_with_it() -> None:
    building = resolve(shaped(stone(0.0), ("south",), mouldings=(moulding(),)))
    assert volume(of_walls(building, role="moulding")) == pytest.approx(27_200 * 8000, rel=1e-6)
    top = building.sums["moulding:south:plinth"]
    assert top.total == pytest.approx(building.levels["floor"].z + 380), "floor + section"


def test_a_plinth_follows_a_battered_face() -> None:
    """Its section keeps its area: it moves in with the face as it rises."""
    building = resolve(shaped(stone(10.0), ("south",), mouldings=(moulding(),)))
    cut = of_walls(building, "south", role="moulding")[0].solid.cut(Frame(1.0, 0.0, 4000.0, 0.0))
    assert cut.area == pytest.approx(27_200, rel=1e-6)
    wall = of_walls(building, "south", role="structure")[0].solid.cut(Frame(1.0, 0.0, 4000.0, 0.0))
    assert cut.intersection(wall).area < 1.0 and cut.distance(wall) < 0.01, "it lies on the face"


def test_a_door_interrupts_a_plinth_and_a_band_runs_around_an_arc() -> None:
    door = changed(window("d9", "south", 4000, width=900, height=900), unit="door", sill=0.0, trim=0.0)
    house = apply_edits(shaped(stone(0.0), ("south",), mouldings=(moulding(),)), (PutOpening(opening=door),))
    assert volume(of_walls(resolve(house), role="moulding")) == pytest.approx(27_200 * 7100, rel=1e-6)
    bowed = apply_edits(stone(0.0), (BendWall(wall="south", rise=-2000),))
    band = moulding(((0, 0), (50, 0), (50, 200), (0, 200)), offset=500)
    building = resolve(shaped(bowed, ("south",), mouldings=(changed(band, at="foot"),)))
    wall = building.plan.by_id["south"]
    radius = wall.axis.radius(wall.side * wall.outer)
    part = of_walls(building, role="moulding")[0]
    turned = wall.length / wall.axis.radius()
    # The band of an annulus: half the angle times the difference of the squared radii, times its height.
    assert part.solid.volume == pytest.approx(turned / 2 * ((radius + 50) ** 2 - radius**2) * 200, rel=0.05)
    assert part.curve is not None


def test_mouldings_that_stand_nowhere_are_refused_or_pointed_out() -> None:
    with pytest.raises(ValueError, match="stand out"):
        moulding(((0, 0), (0.0, 300), (0.5, 300)))
    with pytest.raises(ValueError, match="no area"):
        moulding(((0, 0), (80, 0), (40, 0)))
    high = shaped(stone(0.0), ("south",), mouldings=(moulding(offset=2000),))
    assert "moulding-off" in {held.code for held in resolve(high).diagnostics}


def test_tapers_that_cannot_be_are_refused_with_their_reason() -> None:
    faults = {held.code: held for held in resolve(shaped(stone(0.0), ("south",), taper=590)).diagnostics}
    assert faults["taper-to-nothing"].limit == 580 and faults["taper-to-nothing"].field == "taper"
    framed = shaped(box_house(8000, 6000), ("south",), taper=20)
    assert "frame-tapers" in {held.code for held in resolve(framed).diagnostics}
    bowed = apply_edits(stone(0.0), (BendWall(wall="south", rise=-900),))
    codes = {held.code for held in resolve(shaped(bowed, ("south",), taper=20, lean=5)).diagnostics}
    assert {"arc-tapers", "arc-leans"} <= codes
