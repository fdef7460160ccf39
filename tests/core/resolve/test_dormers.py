"""Dormers: walls on a slope, a block that runs into it, what it takes from its host."""

from __future__ import annotations

import math

import pytest
import shapely
from shapely.geometry import Polygon

from deepsection.core.drawing import Region
from deepsection.core.edits import AddDormer, apply_edits, put
from deepsection.core.errors import RefusedEdit
from deepsection.core.geometry import Frame
from deepsection.core.model import Opening, Project
from deepsection.core.resolve import resolve, storeys
from deepsection.core.view import draw_view
from tests.builders import box_house
from tests.core.resolve.test_roofs import over

near = pytest.approx
X0, Y0, WIDE, DEEP = 5000.0, 1200.0, 2400.0, 2500.0


def dormer(form: str = "gable", *, x: float = X0, y: float = Y0, width: float = WIDE) -> Project:
    """A gable house of 12 x 8 m with a dormer in its south slope."""
    edit = AddDormer(
        id="dormer",
        form=form,  # type: ignore[arg-type]
        x0=x,
        y0=y,
        x1=x + width,
        y1=y + DEEP,
        joints=("j1", "j2", "j3", "j4"),
        walls=("cheek-1", "front", "cheek-2"),
    )
    return apply_edits(over(box_house(12_000, 8000), "gable"), (edit,))


@pytest.mark.parametrize("form", ["gable", "hip", "single"])
def test_a_dormer_is_sound_and_stands_on_the_slope(form: str) -> None:
    building = resolve(dormer(form))
    assert building.diagnostics == ()
    main, own = building.roofs
    assert own.joins == ("roof-1",) and own.ridge_top.total < main.ridge_top.total
    deck = main.planes[0].top.lifted(main.planes[0].deck)
    for part in building.parts:
        if part.element in ("front", "cheek-1", "cheek-2"):
            box = part.solid.bounds
            assert box.z1 > deck.z(box.x0, box.y0), part.key
            assert box.z0 >= deck.z(box.x0, box.y0) - 1.0, "nothing of it is left below the roof"


def test_the_front_looks_down_the_slope() -> None:
    project = dormer()
    joints = project.joints_by_id
    front = project.walls_by_id["front"]
    assert {joints[front.start].y, joints[front.end].y} == {Y0}  # type: ignore[union-attr]
    assert [edge.kind for edge in project.roofs[1].edges] == ["gable", "eave", "joined", "eave"]
    assert len(storeys(project)) == 1, "its walls make no storey"


def test_its_ridge_dies_where_the_slope_is_as_high() -> None:
    """Level ridge against a slope of 1 in 2: the ridge ends (ridge - slope at the front) / pitch up from the front."""
    building = resolve(dormer())
    main, own = building.roofs
    (ridge,) = own.of("ridge")
    slope = main.planes[0]
    end = max((ridge.start, ridge.end), key=lambda point: point[1])
    assert slope.covered(end[0], end[1]) == near(own.ridge_top.total, abs=1.5)
    low, high = (min(own.of("valley")[0].start[1], own.of("valley")[0].end[1]), end[1])
    assert high - low == near((WIDE / 2 + 200 + 12) * 0.5 / 0.5, abs=2.0), "equal pitches: as far in plan as across"


def test_a_shed_dormer_has_the_height_at_which_it_dies() -> None:
    building = resolve(dormer("single"))
    main, own = building.roofs
    (plane,) = own.planes
    top = max(y for _, y in shapely.get_coordinates(plane.polygon))
    assert main.planes[0].covered(6000, top) == near(own.ridge_top.total, abs=1.5)
    assert sum(term.value for term in own.ridge_top.terms) == near(own.ridge_top.total)


def test_the_roof_below_gives_way_to_the_room_and_not_to_the_eaves() -> None:
    building = resolve(dormer())
    main, own = building.roofs
    slope = next(plane for plane in main.planes if plane.edge == 0)
    room = shapely.box(X0, Y0, X0 + WIDE, Y0 + 800)
    assert slope.polygon.intersection(room).area == near(0, abs=1.0)
    assert slope.under.intersection(room).area == near(0, abs=1.0), "its deck is open to the room"
    beside = shapely.box(X0 - 150, Y0 + 100, X0 - 50, Y0 + 600)
    assert slope.polygon.contains(beside), "below the dormer's eave the shingles go on"
    assert any(plane.polygon.intersects(beside) for plane in own.planes)


def test_cheeks_are_triangles() -> None:
    """The face of a cheek: as high as the front is above the roof, as long as that height over the pitch."""
    building = resolve(dormer())
    main, own = building.roofs
    slope = main.planes[0]
    cladding = next(part for part in building.parts if part.key.startswith("cheek-1/cladding/"))
    box = cladding.solid.bounds
    height = box.z1 - slope.top.lifted(slope.deck).z(box.x0, box.y0)
    assert box.y1 - box.y0 == near(height / 0.5, rel=0.02)
    assert cladding.solid.volume == near((box.x1 - box.x0) * height * (box.y1 - box.y0) / 2, rel=0.05)
    assert own.plate.total > main.plate.total + 500


def test_a_window_stands_in_its_front() -> None:
    window = Opening(
        id="w",
        wall="front",
        end="start",
        distance=WIDE / 2,
        sill=800.0,
        unit="window",
        width=900.0,
        height=300.0,
        number="W9",
    )
    project = put(dormer(), window)
    building = resolve(project)
    assert not [found for found in building.diagnostics if found.severity == "blocking"]
    south = draw_view(building, project, "elevation:south", 100)
    assert any(str(mark.part).startswith("w/") for mark in south.marks if getattr(mark, "part", None))
    plan = draw_view(building, project, "plan", 100)
    assert not any(str(getattr(mark, "part", "")).startswith("front/") for mark in plan.marks), "it is above the cut"


@pytest.mark.parametrize(
    ("place", "words"),
    [
        ({"y": -6000.0}, "no roof here"),
        ({"width": 400.0}, "at least 600 mm"),
        ({"y": 3600.0}, "too low here"),
        ({"width": 9000.0, "x": 1000.0}, "too low here"),
    ],
)
def test_what_is_no_dormer_is_refused_in_words(place: dict[str, float], words: str) -> None:
    with pytest.raises(RefusedEdit, match=words):
        dormer(**place)  # type: ignore[arg-type]


def test_a_dormer_in_any_slope_is_alike() -> None:
    """Its true area does not depend on the side that it looks to: south and north of one gable roof."""
    south = resolve(dormer()).roofs[1]
    north = resolve(dormer(y=8000 - Y0 - DEEP)).roofs[1]
    assert [p.polygon.area for p in south.planes] == near([p.polygon.area for p in north.planes], rel=1e-4)
    assert math.isclose(south.ridge_top.total, north.ridge_top.total)


@pytest.mark.parametrize("form", ["gable", "hip", "single"])
def test_a_wall_dormer_interrupts_the_eave(form: str) -> None:
    """Its front stands on the wall below: between the outer faces of its cheeks there is no fascia, and the front is
    closed from the house wall up; beside them the roof loses nothing outside of the wall."""
    building = resolve(dormer(form, y=20.0))
    assert building.diagnostics == ()
    main = building.roofs[0]
    cheeks = [wall for wall in building.plan.walls if wall.wall.id.startswith("cheek")]
    first, last = min(c.footprint.bounds[0] for c in cheeks), max(c.footprint.bounds[2] for c in cheeks)
    eave = shapely.box(-1000, -main.reaches[0], 13_000, 0.0)
    left = shapely.union_all([plane.polygon for plane in main.planes]).intersection(eave)
    whole = shapely.union_all([plane.whole for plane in main.planes]).intersection(eave)
    assert whole.difference(left).area == near((last - first) * main.reaches[0], rel=1e-6)
    fascia = next(part for part in building.parts if part.key == "roof-1/fascia//edge:e1")
    assert fascia.solid.cut(Frame.looking(0.0, (first + last) / 2)).is_empty
    front = next(part.solid.bounds for part in building.parts if part.key.startswith("front/cladding/cladding/"))
    below = next(part.solid.bounds for part in building.parts if part.key.startswith("south/cladding/cladding/"))
    assert front.z0 <= below.z1 + 0.01
    drawing = draw_view(building, dormer(form, y=20.0), "elevation:south", 50.0)
    faces = [mark for mark in drawing.marks if isinstance(mark, Region) and mark.feature == "face"]
    seen = shapely.union_all([Polygon([p[:2] for p in mark.rings[0]]) for mark in faces])
    assert len(getattr(seen.buffer(0.1), "interiors", ())) == 0, "nothing shows through between wall, front and eave"
