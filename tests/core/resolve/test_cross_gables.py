"""Cross gables flush with an eave wall: one covering everywhere, valleys to the rakes, the wall up into the gable."""

from __future__ import annotations

import itertools
import math

import pytest
import shapely

from deepsection.core.edits import ProposeRoof, apply_edits, changed, put
from deepsection.core.model import Corner, Project, RoofBlock, RoofEdge
from deepsection.core.resolve import Building, resolve
from tests.builders import box_house, gable
from tests.turning import turned

from .test_bearing import double

near = pytest.approx
LONG, DEEP, FROM, WIDE = 12000.0, 8000.0, 4000.0, 4000.0


def house(
    pitch: float = 0.5, inward: float = 2000.0, rake: float = 300.0, eave: float = 400.0, start: float = FROM
) -> Project:
    """A gable house of 12 x 8 m, 1 in 2, with a cross gable 4 m wide over its south wall."""
    main = gable(box_house(LONG, DEEP), 0.5, overhang=400.0, rake=300.0)
    corners = [(start, 0.0), (start + WIDE, 0.0), (start + WIDE, inward), (start, inward)]
    side = RoofEdge(kind="eave", overhang=eave)
    block: RoofBlock = changed(
        main.roofs[0],
        id="cross",
        name="Cross gable",
        outline=tuple(Corner(x=x, y=y) for x, y in corners),
        edges=(RoofEdge(kind="gable", overhang=rake), side, RoofEdge(kind="joined"), side),
        pitch=pitch,
    )
    return put(main, block)


def plans(building: Building) -> list[shapely.Geometry]:
    return [plane.polygon for roof in building.roofs for plane in roof.planes]


VARIETY = [
    {},
    {"pitch": 0.7},
    {"pitch": 0.3},
    {"inward": 600.0},
    {"rake": 400.0},
    {"rake": 700.0},
    {"rake": 150.0, "eave": 600.0},
    {"start": 1200.0},
]


@pytest.mark.parametrize("turn", [0.0, 31.0, 180.0])
@pytest.mark.parametrize("more", VARIETY, ids=str)
def test_every_place_under_the_roofs_is_covered_once(more: dict[str, float], turn: float) -> None:
    building = resolve(turned(house(**more), turn, 3))
    assert building.diagnostics == ()
    whole = shapely.union_all(plans(building), grid_size=0.01)
    assert sum(plan.area for plan in plans(building)) == near(whole.area, rel=1e-6)
    assert isinstance(whole, shapely.Polygon)
    assert all(shapely.Polygon(ring).buffer(-0.05).is_empty for ring in whole.interiors), "no hole but hairlines"
    outlines = shapely.union_all([roof.outline for roof in building.roofs])
    assert outlines.difference(whole).area < 1.0


def test_by_hand_at_one_pitch_the_valleys_run_at_45_degrees_from_the_ridge_to_the_rake() -> None:
    """Bearing lines lie on the corners of the outline: ridge half of the width in, rake 300 and sheathing out."""
    building = resolve(house())
    cross = next(roof for roof in building.roofs if roof.block.id == "cross")
    out = cross.reaches[0]
    valleys = [seam for seam in cross.seams if seam.kind == "valley"]
    long = (WIDE / 2 + out) * math.sqrt(2 + 0.25)
    assert sorted(math.dist(seam.start, seam.end) for seam in valleys) == near([long, long], abs=1.0)
    area = sum(plane.polygon.area for plane in cross.planes)
    assert area == near((WIDE / 2 + out) ** 2, rel=1e-6)


def test_the_eave_stops_where_the_rakes_come_down() -> None:
    building = resolve(house())
    main, cross = building.roofs
    stop = cross.reaches[0]
    low = next(plane for plane in main.planes if plane.edges == (0,)).polygon
    strip = low.intersection(shapely.box(-1e5, -main.reaches[0] + 1, 1e5, -stop - 1))
    gaps = sorted(x for piece in shapely.get_parts(strip) for x in (piece.bounds[0], piece.bounds[2]))
    assert gaps[1:3] == near([FROM - stop, FROM + WIDE + stop], abs=0.5)
    fascia = next(part for part in building.parts if part.key.startswith("roof-1/fascia//edge:e1"))
    size = fascia.solid.bounds
    section = (size.y1 - size.y0) * (size.z1 - size.z0)
    ends = size.x1 - size.x0
    assert fascia.solid.volume == near(section * (ends - WIDE - 2 * stop), rel=1e-3)


@pytest.mark.parametrize("pitch", [0.3, 0.5, 0.7])
def test_the_wall_goes_up_into_the_gable(pitch: float) -> None:
    """The sheathing under the gable ends at the top of the rafters: its area over the plate is that of a rectangle as
    high as the heel, and of a triangle."""
    building = resolve(house(pitch))
    cross = next(roof for roof in building.roofs if roof.block.id == "cross")
    sheathing = [part for part in building.parts if part.element == "south" and part.role == "sheathing"]
    thick = sheathing[0].solid.bounds.y1 - sheathing[0].solid.bounds.y0
    plate = building.levels["plate"].z
    over = sum(part.solid.volume for part in sheathing if part.key.endswith("cross")) / thick
    flat = (plate - building.levels["floor"].z) * WIDE
    assert over - flat == near(WIDE * (cross.heel.total - plate) + WIDE**2 / 4 * pitch, rel=1e-3)
    studs = [part for part in building.parts if part.key.startswith("south/stud/frame/gable")]
    assert len(studs) > 5 and max(part.solid.bounds.z1 for part in studs) > plate + 0.4 * pitch * WIDE


def test_two_cross_gables_side_by_side_leave_the_eave_between_them() -> None:
    project = house(start=1500.0)
    other = changed(project.find("cross"), id="cross-2", name="Second cross gable")
    moved = changed(other, outline=tuple(changed(corner, x=corner.x + 5000.0) for corner in other.outline))
    building = resolve(put(project, moved))
    assert building.diagnostics == ()
    for a, b in itertools.combinations(plans(building), 2):
        assert a.intersection(b).area < 1.0
    (fascia,) = [part for part in building.parts if part.key.startswith("roof-1/fascia//edge:e1")]
    assert fascia.solid.volume > 0


def test_a_gable_drawn_over_an_eave_inward_becomes_such_a_cross_gable() -> None:
    main = gable(box_house(LONG, DEEP), 0.5, overhang=400.0, rake=300.0)
    outline = tuple(
        Corner(x=x, y=y) for x, y in ((FROM, 0.0), (FROM + WIDE, 0.0), (FROM + WIDE, 1500.0), (FROM, 1500.0))
    )
    edit = ProposeRoof(id="cross", form="gable", level="floor", plate="plate", outline=outline)
    after = apply_edits(main, (edit,))
    assert [edge.kind for edge in after.find("cross").edges] == ["gable", "eave", "joined", "eave"]
    assert resolve(after).diagnostics == ()


@pytest.mark.parametrize("bearing", ["frame", "second"])
def test_it_is_the_same_where_a_frame_inside_of_the_wall_bears(bearing: str) -> None:
    building = resolve(double(house(), bearing))
    assert {held.code for held in building.diagnostics} <= {"off-foundation"}
    whole = shapely.union_all(plans(building), grid_size=0.01)
    assert sum(plan.area for plan in plans(building)) == near(whole.area, rel=1e-6)
    sheathing = [part for part in building.parts if part.element == "south" and part.role == "sheathing"]
    assert max(part.solid.bounds.z1 for part in sheathing) > building.levels["plate"].z + 900.0
