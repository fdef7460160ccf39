"""Visible surfaces against a depth-buffer raster that shares no code with them, and against hand-worked areas."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence

import numpy as np
import pytest
import shapely

from deepsection.core.edits import MoveOpening, PutRoof, Remove, apply_edits, changed
from deepsection.core.geometry import Frame, bar_along, side_direction
from deepsection.core.model import Project
from deepsection.core.resolve import Building, Part, resolve
from deepsection.core.view.faces import Face, faces_of
from deepsection.core.view.visible import visible_faces
from deepsection.demo import fernacre_bungalow, quillback_house, wrenfold_house
from tests.builders import box_house, gable, plain_wall, roofed_l, window
from tests.core.view.raster import rasterise

NEAR_EDGE = 0.02
"""Samples this close to a boundary (mm) may fall on either side."""


def seen_from(parts: Sequence[Part], look_deg: float) -> list[Face]:
    frame = Frame.looking(look_deg)
    return visible_faces([face for held in faces_of(parts, frame.dx, frame.dy) for face in held])


def compare(
    parts: Sequence[Part], faces: list[Face], look_deg: float, step: float, box: tuple[float, ...] | None = None
) -> tuple[int, int]:
    """(samples compared, samples at which the views and the raster disagree)."""
    polygons = np.array([face.polygon for face in faces], dtype=object)
    bounds = tuple(shapely.total_bounds(polygons)) if box is None else box
    raster = rasterise(parts, look_deg, bounds, step)  # type: ignore[arg-type]
    points = shapely.points(raster.points)
    tree = shapely.STRtree(polygons)
    at_edge = np.zeros(len(points), dtype=bool)
    near, _ = shapely.STRtree(shapely.boundary(polygons)).query(points, predicate="dwithin", distance=NEAR_EDGE)
    at_edge[near] = True
    found: list[list[int]] = [[] for _ in points]
    for point, face in zip(*tree.query(points, predicate="within")):
        found[point].append(face)
    wrong = compared = 0
    for k, held in enumerate(found):
        if at_edge[k]:
            continue
        compared += 1
        if not held:
            wrong += bool(raster.seen[k])
            continue
        if len(held) != 1 or faces[held[0]].part.key not in raster.seen[k]:
            wrong += 1
            continue
        depth = faces[held[0]].depth(*raster.points[k])
        wrong += abs(depth - raster.depth[k]) > 0.1
    return compared, wrong


@pytest.mark.parametrize("look_deg", [90.0, 180.0, 270.0, 0.0, 120.0, 233.0])
def test_views_of_the_demo_agree_with_the_raster(building: Building, look_deg: float) -> None:
    parts = [part for part in building.parts if part.outside]
    compared, wrong = compare(parts, seen_from(parts, look_deg), look_deg, 45.0)
    assert compared > 20_000 and wrong == 0


@pytest.mark.parametrize(
    ("look_deg", "box"),
    [(90.0, (9800, 1800, 11400, 3000)), (180.0, (-400, 2400, 1200, 3600)), (120.0, (3000, 2500, 4600, 3700))],
)
def test_dense_places_agree_at_a_few_millimetres(
    building: Building, look_deg: float, box: tuple[float, float, float, float]
) -> None:
    """Eaves, trims and the joint of the two roofs, looked at closely."""
    parts = [part for part in building.parts if part.outside]
    compared, wrong = compare(parts, seen_from(parts, look_deg), look_deg, 4.0, box)
    assert compared > 50_000 and wrong == 0


@pytest.mark.parametrize("look_deg", [90.0, 0.0, 215.0])
def test_views_of_two_storeys_agree_with_the_raster(otterfold: Building, look_deg: float) -> None:
    parts = [part for part in otterfold.parts if part.outside]
    compared, wrong = compare(parts, seen_from(parts, look_deg), look_deg, 60.0)
    assert compared > 20_000 and wrong == 0


def test_nothing_enclosed_shows_between_storeys(otterfold: Building) -> None:
    """Rim joists, decks and studs of two storeys: with all parts, the raster sees only what is said to be outside."""
    outside = [part for part in otterfold.parts if part.outside]
    compared, wrong = compare(otterfold.parts, seen_from(outside, 90.0), 90.0, 90.0)
    assert compared > 10_000 and wrong == 0


def test_leaving_out_enclosed_parts_changes_nothing(building: Building) -> None:
    """Studs behind cladding never show: with all parts the raster sees only what is said to be outside."""
    for side in ("south", "east", "north", "west"):
        look = side_direction(side)  # type: ignore[arg-type]
        raster = rasterise(building.parts, look, (-20000, 400, 20000, 6000), 160.0)
        keys = {key for seen in raster.seen for key in seen}
        hidden = {part.key for part in building.parts if not part.outside}
        alone = {key for seen in raster.seen if seen and seen <= hidden for key in seen}
        assert not alone, f"{side}: {sorted(alone)[:4]}"
        assert keys


@pytest.mark.parametrize("angle_deg", [0.0, 30.0, 77.7])
def test_a_wall_with_a_window(angle_deg: float) -> None:
    """Check value 10 of the reference table: 6000 x 2700 - 1200 x 1200 = 14 760 000 mm2 (arithmetic)."""
    building = resolve(plain_wall(opening=window("o", "w", 3000.0, sill=700.0), angle_deg=angle_deg))
    wall = [part for part in building.parts if part.element == "w"]
    faces = seen_from(wall, angle_deg + 90)
    front = [face for face in faces if abs(face.normal[2]) < 0.5]
    assert sum(face.polygon.area for face in front) == pytest.approx(14_760_000, rel=1e-7)


def test_areas_of_a_gable_end_in_closed_form() -> None:
    """Seen end on, cladding, barge and roof edge make up the outline: a rectangle under a triangle."""
    house = gable(box_house(8000, 6000), 0.5, overhang=400, rake=300)
    building = resolve(house)
    (roof,) = building.roofs
    parts = [
        part for part in building.parts if part.outside and part.role not in ("stem", "footing", "fascia", "soffit")
    ]
    faces = seen_from(parts, side_direction("east"))
    union = shapely.union_all([face.polygon for face in faces])
    assert union.area == pytest.approx(sum(face.polygon.area for face in faces), rel=1e-9), "no place is seen twice"
    top = max(face.polygon.bounds[3] for face in faces)
    assert top == pytest.approx(roof.ridge_top.total)


def test_crossing_faces_are_parted_where_their_depths_are_equal() -> None:
    """Two walls that cross: the line of equal depth lies where their faces meet in plan."""
    building = resolve(plain_wall())
    (wall,) = [part for part in building.parts if part.element == "w"]
    other = resolve(plain_wall(angle_deg=50.0))
    (slanted,) = [part for part in other.parts if part.element == "w"]
    faces = seen_from([wall, slanted], 90.0)
    compared, wrong = compare([wall, slanted], faces, 90.0, 20.0)
    assert compared > 10_000 and wrong == 0
    assert math.isclose(
        sum(f.polygon.area for f in faces), shapely.union_all([f.polygon for f in faces]).area, rel_tol=1e-9
    )


@pytest.mark.parametrize("look_deg", [90.0, 180.0, 270.0, 0.0, 205.0])
@pytest.mark.parametrize("leg_pitch", [0.5, 0.4])
def test_roofs_that_meet_agree_with_the_raster(look_deg: float, leg_pitch: float) -> None:
    parts = [part for part in resolve(roofed_l(0.5, leg_pitch)).parts if part.outside]
    compared, wrong = compare(parts, seen_from(parts, look_deg), look_deg, 60.0)
    assert compared > 8_000 and wrong == 0


@pytest.mark.parametrize("look_deg", [90.0, 180.0, 270.0, 0.0, 140.0])
def test_the_masonry_demo_agrees_with_the_raster(look_deg: float) -> None:
    parts = [part for part in resolve(fernacre_bungalow()).parts if part.outside]
    compared, wrong = compare(parts, seen_from(parts, look_deg), look_deg, 60.0)
    assert compared > 8_000 and wrong == 0


@pytest.mark.parametrize("make", [quillback_house, wrenfold_house])
@pytest.mark.parametrize("look_deg", [90.0, 215.0])
def test_what_was_found_last_changes_nothing(make: Callable[[], Project], look_deg: float) -> None:
    """After each edit a view that remembers its last state is, to the last vertex, one that was never drawn before."""
    frame, project = Frame.looking(look_deg), make()
    first = next(held for held in project.openings if held.unit == "window")
    roof, chimney = project.roofs[0], project.chimneys[:1]
    edits = [
        MoveOpening(opening=first.id, distance=first.distance + 300.0),
        Remove(elements=(first.id,)),
        PutRoof(roof=changed(roof, pitch=roof.pitch * 0.6)),
        PutRoof(roof=changed(roof, pitch=roof.pitch * 1.4)),
        *(Remove(elements=(held.id,)) for held in chimney),
        MoveOpening(opening=project.openings[-1].id, distance=project.openings[-1].distance + 120.0),
    ]
    for edit in (None, *edits):
        project = project if edit is None else apply_edits(project, (edit,))
        outside = [part for part in resolve(project).parts if part.outside]
        faces = [face for held in faces_of(outside, frame.dx, frame.dy) for face in held]
        remembered = visible_faces(faces, ("test", make.__name__, look_deg))
        anew = visible_faces(faces)
        assert [(face.part.key, face.polygon.wkb) for face in remembered] == [
            (face.part.key, face.polygon.wkb) for face in anew
        ], edit


def test_what_was_hidden_is_found_between_the_samples_when_its_cover_goes() -> None:
    """A bar 5 mm high before a wall, behind two boards: one goes, the bar's own middle stays covered by the other."""

    def board(key: str, box: tuple[float, float, float, float], front: float) -> Part:
        return Part(key, key, "cladding", "lap_board", bar_along(box, (0.0, front + 10.0), (1.0, 0.0), 10.0))

    wall, bar = board("wall", (0, 0, 4000, 2000), 100.0), board("bar", (0, 1003, 4000, 1008), 50.0)
    left, right = board("left", (0, 0, 3000, 2000), 0.0), board("right", (3000, 0, 4000, 2000), 0.0)
    frame = Frame.looking(90.0)

    def seen(*parts: Part) -> dict[str, float]:
        faces = visible_faces([face for held in faces_of(parts, frame.dx, frame.dy) for face in held], "boards")
        return {face.part.key: sum(f.polygon.area for f in faces if f.part is face.part) for face in faces}

    both = {"left": 3000.0 * 2000, "right": 1000.0 * 2000}
    assert seen(wall, bar, left, right) == pytest.approx(both)
    open_ = {"left": 3000.0 * 2000, "wall": 1000.0 * 1995, "bar": 1000.0 * 5}
    assert seen(wall, bar, left) == pytest.approx(open_)
    assert seen(wall, bar, left, right) == pytest.approx(both), "and hidden again"
