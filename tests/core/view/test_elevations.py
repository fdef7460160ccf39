"""Elevations at any angle and of rooms: against a depth buffer, against the opposite view, against plain numbers."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

import numpy as np
import pytest
import shapely
from numpy.typing import NDArray

from deepsection.core.drawing import Drawing, Region, Stroke, Text
from deepsection.core.edits import Remove, apply_edits, changed, put, rebuild
from deepsection.core.errors import RefusedEdit, UnknownElement
from deepsection.core.geometry import Frame
from deepsection.core.model import ElevationView, GridLine, Project, Room, ViewShow
from deepsection.core.particulars import enter
from deepsection.core.resolve import Part, resolve
from deepsection.core.trades.ground.model import GroundSpot
from deepsection.core.view import draw_view, list_views, look_of
from deepsection.core.view.faces import Face, faces_of
from deepsection.core.view.visible import visible_faces
from deepsection.demo import otterfold_house, wrenfold_house
from tests.builders import box_house, gable, l_house, window
from tests.core.resolve.test_roofs import over
from tests.core.view.raster import depth_buffer
from tests.overlaps import overlapping

near = pytest.approx
SAMPLES = 3_000_000
TIE = 0.06
"""Depths closer than this (mm) coincide: which part is nearer is a matter of order."""


def seen(parts: Sequence[Part], look: float) -> list[Face]:
    frame = Frame.looking(look)
    return visible_faces([face for held in faces_of(parts, frame.dx, frame.dy) for face in held])


def owners(faces: Sequence[Face], us: NDArray[np.float64], vs: NDArray[np.float64]) -> NDArray[np.int_]:
    """The number of the face at each sample of a grid; -1 for none."""
    found = np.full((len(us), len(vs)), -1)
    for number, face in enumerate(faces):
        x0, y0, x1, y1 = face.polygon.bounds
        i0, i1 = np.searchsorted(us, (x0, x1))
        j0, j1 = np.searchsorted(vs, (y0, y1))
        if i0 == i1 or j0 == j1:
            continue
        shapely.prepare(face.polygon)
        u, v = np.meshgrid(us[i0:i1], vs[j0:j1], indexing="ij")
        within = shapely.contains_xy(face.polygon, u, v)
        found[i0:i1, j0:j1][within] = number
    return found


@pytest.mark.parametrize(("make", "look"), [(otterfold_house, 90.0), (wrenfold_house, 50.0), (wrenfold_house, 270.0)])
def test_three_million_samples_see_the_same_parts(make: object, look: float) -> None:
    """At most five samples differ from the depth buffer, and those lie within 0.01 mm of a boundary."""
    parts = [part for part in resolve(make()).parts if part.outside]  # type: ignore[operator]
    faces = seen(parts, look)
    box = tuple(shapely.total_bounds([face.polygon for face in faces]))
    buffer = depth_buffer(parts, look, box, SAMPLES)  # type: ignore[arg-type]
    number = owners(faces, buffer.us, buffer.vs)
    assert number.size > 0.99 * SAMPLES
    index = {part.key: k for k, part in enumerate(parts)}
    part_of = np.array([*(index[face.part.key] for face in faces), -1])
    planes = np.array([*(face.plane for face in faces), (0.0, 0.0, np.inf)])[number]
    depth = planes[..., 0] * buffer.us[:, None] + planes[..., 1] * buffer.vs[None, :] + planes[..., 2]
    both = (number >= 0) & (buffer.part >= 0)
    tied = both & (np.abs(np.where(both, depth, 0.0) - np.where(both, buffer.depth, 0.0)) < TIE)
    wrong = np.argwhere(((part_of[number] != buffer.part) | both) & ~tied)
    lines = shapely.union_all(shapely.boundary([face.polygon for face in faces]))
    shapely.prepare(lines)
    spots = shapely.points(buffer.us[wrong[:, 0]], buffer.vs[wrong[:, 1]])
    away = shapely.distance(spots, lines)
    # A row of samples may graze a line all along: it counts once.
    grazed = min(len(set(wrong[:, 0].tolist())), len(set(wrong[:, 1].tolist())))
    assert grazed <= 5 and (away <= 0.01).all(), (len(wrong), away.tolist())


def silhouette(drawing: Drawing) -> shapely.Geometry:
    rings = [mark.rings[0] for mark in drawing.marks if isinstance(mark, Region) and mark.feature == "face"]
    return shapely.union_all([shapely.Polygon([point[:2] for point in ring]) for ring in rings], grid_size=1e-3)


@pytest.mark.parametrize("look", [90.0, 0.0, 35.0])
def test_opposite_elevations_mirror_each_other(look: float) -> None:
    """Seen from behind, the outline is the same, mirrored, to 0.01 mm."""
    project = put(
        wrenfold_house(),
        ElevationView(id="front", name="Front", look=look),
        ElevationView(id="back", name="Back", look=look - 180.0),
    )
    building = resolve(project)
    front, back = (silhouette(draw_view(building, project, f"elevation:{id}", 48.0)) for id in ("front", "back"))
    mirrored = shapely.transform(back, lambda points: points * [-1.0, 1.0])
    differing = [piece for piece in shapely.get_parts(front.symmetric_difference(mirrored)) if piece.area > 0.0]
    assert front.area > 1e7
    assert all(2 * piece.area / piece.length < 0.01 for piece in differing), "what differs is no wider than 0.01 mm"


def test_a_box_at_an_angle_has_its_projected_widths() -> None:
    """8 x 6 m at 30 degrees: its faces are 8 cos 30 and 6 sin 30 wide."""
    project = put(box_house(8000, 6000), ElevationView(id="e", name="At 30", look=120.0))
    building = resolve(project)
    drawing = draw_view(building, project, "elevation:e", 50.0)
    clad = [mark for mark in of_feature(drawing, "face") if "/cladding/" in mark.part]
    widths = sorted(max(p[0] for p in m.rings[0]) - min(p[0] for p in m.rings[0]) for m in clad)
    south = next(wall for wall in building.plan.walls if wall.wall.id == "south").outer
    assert widths == near([(6000 + 2 * south) * 0.5, (8000 + 2 * south) * math.cos(math.radians(30))], abs=0.01)
    assert {mark.hatch for mark in clad} != {None} and drawing.title == "At 30"


# --- inside of a room ---------------------------------------------------------------------------------


def furnished(look: float = 90.0) -> Project:
    """A room of a box house with a window in its north wall, seen from its middle."""
    house = put(gable(box_house(8000, 6000), 0.5, overhang=400.0), window("w1", "north", 3000.0))
    room = Room(id="room", name="Hall", x=4000, y=3000)
    return put(house, room, ElevationView(id="in", name="Hall, north", look=look, room="room"))


def test_an_interior_elevation_is_the_room_from_wall_to_wall() -> None:
    project = furnished()
    building = resolve(project)
    drawing = draw_view(building, project, "elevation:in", 50.0)
    (clear,) = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "clear"]
    us, vs = [p[0] for p in clear.path], [p[1] for p in clear.path]
    space = building.rooms[0].space
    assert space is not None
    assert (min(us), max(us)) == near((space.bounds[0], space.bounds[2]), abs=0.01)
    lining = next(part for part in building.parts if part.element == "ceiling-1" and part.role == "lining")
    assert (min(vs), max(vs)) == near((building.levels["floor"].z, lining.solid.bounds.z0), abs=0.01)
    glass = [mark for mark in drawing.marks if isinstance(mark, Region) and "w1/glass" in (mark.part or "")]
    assert glass and all(min(us) < p[0] < max(us) for mark in glass for p in mark.rings[0])
    faces = silhouette(drawing)
    assert faces.area == near((max(us) - min(us)) * (max(vs) - min(vs)), rel=1e-4), "no gap between what is seen"


def test_materials_of_a_room_are_named_or_keyed() -> None:
    """Walls of bare brick inside: named once, or by a key that stands in the legend under the room."""
    house = furnished()
    wall = next(held for held in house.make_ups if held.use == "wall")
    bare = (*wall.layers[:-1], changed(wall.layers[-1], material="brick"))
    house = put(house, changed(wall, layers=bare))
    texts = [
        mark.text for mark in draw_view(resolve(house), house, "elevation:in", 50.0).marks if isinstance(mark, Text)
    ]
    assert texts.count("Facing brick") == 1 and "1" not in texts
    keyed = put(house, ViewShow(id="s", view="elevation:in", materials="keys"))
    drawing = draw_view(resolve(keyed), keyed, "elevation:in", 50.0)
    found = {mark.annotation: mark for mark in drawing.marks if isinstance(mark, Text) and mark.annotation}
    assert found["material:brick"].text == "1" and found["legend:brick"].text == "Facing brick"
    (clear,) = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "clear"]
    assert found["legend:brick"].y < min(point[1] for point in clear.path)


def test_the_other_wall_has_no_window() -> None:
    project = furnished(-90.0)
    drawing = draw_view(resolve(project), project, "elevation:in", 50.0)
    assert not [mark for mark in drawing.marks if "w1/" in (getattr(mark, "part", None) or "")]


def test_a_room_without_walls_has_no_inside() -> None:
    project = put(box_house(8000, 6000), Room(id="room", name="Yard", x=20_000, y=3000))
    project = put(project, ElevationView(id="in", name="Yard", look=90.0, room="room"))
    drawing = draw_view(resolve(project), project, "elevation:in", 50.0)
    assert drawing.marks == () and "not enclosed" in drawing.messages[0]


def test_they_are_views_by_name_and_go_with_their_room() -> None:
    project = furnished()
    assert "Hall, north" in [view.title for view in list_views(project) if view.name == "elevation:in"]
    assert look_of(project, "elevation:in") == 90.0
    turned = apply_edits(project, enter(project, "in", "look", "210°"))
    assert turned.elevations[0].look == near(-150.0)
    outside = apply_edits(project, enter(project, "in", "room", ""))
    assert outside.elevations[0].room is None
    gone = apply_edits(project, (Remove(elements=("room",)),))
    assert gone.elevations == ()
    with pytest.raises(UnknownElement):
        draw_view(resolve(gone), gone, "elevation:in", 50.0)
    with pytest.raises(RefusedEdit, match="room names"):
        put(project, ElevationView(id="no", name="No", look=0.0, room="nowhere"))


# --- lettering ----------------------------------------------------------------------------------------


def of_feature(drawing: Drawing, feature: str) -> list[Any]:
    return [mark for mark in drawing.marks if getattr(mark, "feature", None) == feature]


def lettered() -> tuple[Project, Drawing]:
    house = put(gable(box_house(8000, 6000), 0.5, overhang=400.0), window("w1", "south", 3000.0))
    house = put(house, GridLine(id="g1", name="1", x=2000.0, y=0.0, angle=90.0))
    house = put(house, GridLine(id="ga", name="A", x=0.0, y=1000.0, angle=0.0))
    return house, draw_view(resolve(house), house, "elevation:south", 50.0)


def test_heights_add_up_to_the_overall_one() -> None:
    project, drawing = lettered()
    held = sorted(of_feature(drawing, "height"), key=lambda mark: mark.offset)
    *chain, overall = held
    building = resolve(project)
    assert sum(mark.y2 - mark.y1 for mark in chain) == near(overall.y2 - overall.y1)
    assert all(float(mark.text) == near(mark.y2 - mark.y1, abs=1.0) for mark in chain), "in whole millimetres"
    assert (overall.y1, overall.y2) == near((building.ground.level, building.roofs[0].ridge_top.total))
    assert overall.sum == building.roofs[0].ridge_top.id


def test_openings_and_materials_are_named_once_and_on_nothing_else() -> None:
    _, drawing = lettered()
    words = [mark for mark in drawing.marks if isinstance(mark, Text) and mark.feature in ("number", "material")]
    assert sorted(mark.text for mark in words) == ["Asphalt shingles", "Lap boards", "W1"]
    boxes = [mark for mark in drawing.marks if isinstance(mark, Region) and mark.feature in ("number", "material")]
    papers = [shapely.Polygon([point[:2] for point in mark.rings[0]]) for mark in boxes]
    assert all(not a.intersects(b) for n, a in enumerate(papers) for b in papers[:n])
    for mark in words:
        if mark.feature == "material":
            faces = [m for m in of_feature(drawing, "face") if m.part == mark.part]
            spot = shapely.Point(mark.x, mark.y)
            assert any(shapely.Polygon([p[:2] for p in m.rings[0]]).contains(spot) for m in faces)


def test_a_window_seen_from_its_edge_has_no_number() -> None:
    project, _ = lettered()
    drawing = draw_view(resolve(project), project, "elevation:east", 50.0)
    assert not of_feature(drawing, "number")


def test_grid_lines_along_the_view_have_their_bubbles() -> None:
    """Seen from the south line 1 stands at 2000; from the north at -2000; line A only from the sides."""
    project, drawing = lettered()
    (name,) = [mark for mark in of_feature(drawing, "grid") if isinstance(mark, Text)]
    assert (name.text, name.x) == ("1", near(2000.0))
    north = draw_view(resolve(project), project, "elevation:north", 50.0)
    (name,) = [mark for mark in of_feature(north, "grid") if isinstance(mark, Text)]
    assert (name.text, name.x) == ("1", near(-2000.0))
    east = draw_view(resolve(project), project, "elevation:east", 50.0)
    assert [mark.text for mark in of_feature(east, "grid") if isinstance(mark, Text)] == ["A"]


# --- boards and flashings -----------------------------------------------------------------------------


def trimmed_box(corner: float = 90.0, caps: float = 150.0) -> Project:
    house = over(box_house(8000, 6000), "hip")
    clad = next(held for held in house.make_ups if held.id == "wall-lap")
    return put(house, changed(clad, corner_boards=corner), changed(house.roofs[0], caps=caps))


def test_corner_boards_stand_on_every_outside_corner() -> None:
    """Two to a corner: one as wide as it is stated from the corner of the cladding, one over its edge as well."""
    building = resolve(trimmed_box())
    boards = [part.solid.bounds for part in building.parts if part.role == "corner_board"]
    assert len(boards) == 8
    widths = sorted(max(box.x1 - box.x0, box.y1 - box.y0) for box in boards)
    assert widths == near([90.0] * 4 + [109.0] * 4)
    assert overlapping([part for part in building.parts if part.role == "corner_board"], most=1.0) == []
    inner = resolve(put(l_house(), changed(l_house().make_ups[0], corner_boards=90.0)))
    assert sum(part.role == "corner_board" for part in inner.parts) in (0, 10), "none in the inside corner of an L"


def test_caps_lie_along_ridge_and_hips_on_the_covering() -> None:
    """As wide on each slope as stated: plan area of a ridge of 2 m, twice 150 mm wide, times the slope factor."""
    building = resolve(trimmed_box())
    ridge = [part for part in building.parts if part.role == "ridge_flashing"]
    (roof,) = building.roofs
    (seam,) = roof.of("ridge")
    assert sum(part.solid.volume for part in ridge) / 2.0 == near(2 * 150 * seam.length, rel=1e-3)
    assert {part.role for part in building.parts if part.role.endswith("_flashing")} == {
        "ridge_flashing",
        "hip_flashing",
    }
    top = max(part.solid.bounds.z1 for part in ridge)
    assert top == near(roof.ridge_top.total + 2.0, abs=0.01)
    assert not [part for part in resolve(trimmed_box(0.0, 0.0)).parts if part.role in ("corner_board", "hip_flashing")]


# --- what a view leaves out ---------------------------------------------------------------------------


def owners_of(drawing: Drawing) -> set[str]:
    return {mark.part.split("/")[0] for mark in of_feature(drawing, "face")}


def test_a_view_leaves_out_what_is_hidden_in_it_alone() -> None:
    """Without its roof, the house shows what the roof covered; other views and the plan keep it."""
    project = put(trimmed_box(), ViewShow(id="s", view="elevation:south", hidden=("roof-1", "south")))
    building = resolve(project)
    south, east = (draw_view(building, project, f"elevation:{side}", 50.0) for side in ("south", "east"))
    assert not owners_of(south) & {"roof-1", "south"} and {"roof-1", "south"} & owners_of(east)
    assert "north" in owners_of(south), "the inside of the far wall is seen through the one left out"
    shown = put(project, ViewShow(id="s", view="elevation:south"))
    assert draw_view(resolve(shown), shown, "elevation:south", 50.0) == draw_view(
        building, rebuild(project, shows=()), "elevation:south", 50.0
    )
    gone = apply_edits(project, (Remove(elements=("roof-1",)),))
    assert gone.shows[0].hidden == ("south",)


# --- what cannot be shown, or not as it is meant ------------------------------------------------------


def test_a_house_without_a_roof_is_drawn_up_to_its_plate() -> None:
    building = resolve(box_house(8000, 6000))
    drawing = draw_view(building, box_house(8000, 6000), "elevation:south", 50.0)
    assert silhouette(drawing).bounds[3] == near(building.levels["plate"].z, abs=30.0) and drawing.messages == ()


def test_ground_above_the_plate_hides_the_house_and_says_so() -> None:
    """Its outline is dashed under the ground line, and the walls are named that stand too deep."""
    project = put(gable(box_house(8000, 6000), 0.5), GroundSpot(id="g", x=0.0, y=0.0, rise=6000.0))
    building = resolve(project)
    drawing = draw_view(building, project, "elevation:south", 50.0)
    assert len(drawing.messages) == 1 and "ground hides all of the house" in drawing.messages[0]
    strokes = [mark for mark in drawing.marks if isinstance(mark, Stroke)]
    (ground,) = [mark for mark in strokes if mark.feature == "ground"]
    assert {point[1] for point in ground.path} == {6000.0}
    dashed = [mark for mark in strokes if mark.feature == "hidden"]
    assert dashed and all(point[1] < 6000.0 for mark in dashed for point in mark.path)
    assert {d.element for d in building.diagnostics if d.code == "ground-high"} == {"south", "east", "north", "west"}


def test_a_view_from_inside_a_wall_says_that_there_is_nothing_to_see() -> None:
    room = Room(id="r", name="Hall", x=4000, y=0)
    project = put(box_house(8000, 6000), room, ElevationView(id="e", name="Inside", look=90, room="r"))
    building = resolve(project)
    drawing = draw_view(building, project, "elevation:e", 50.0)
    assert drawing.marks == () and "Hall is not enclosed by walls" in drawing.messages[0]
    assert [d.element for d in building.diagnostics] == ["r"]


def test_an_opening_left_outside_its_wall_is_drawn_and_named() -> None:
    """In a document that was made elsewhere; here the edit that would do so is refused."""
    project = put(gable(box_house(8000, 6000), 0.5, overhang=400.0), window("w1", "south", 7900.0))
    drawing = draw_view(resolve(project), project, "elevation:south", 50.0)
    assert any("w1/glass" in (mark.part or "") for mark in of_feature(drawing, "face"))
    assert [d.code for d in resolve(project).diagnostics] == ["opening-off-wall"]
