"""Sections: areas against trimesh, what is heavy and what is light, lumber crossed, and lines that miss."""

from __future__ import annotations

import math
from collections.abc import Callable

import pytest
import shapely
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.drawing import Dimension, Drawing, Region, Stroke, Symbol, Text
from deepsection.core.drawing.cropping import Window
from deepsection.core.edits import changed, put
from deepsection.core.model import Project, Room, SectionLine, ViewShow, WallSection
from deepsection.core.resolve import Building, Part, resolve
from deepsection.core.tolerance import TOL
from deepsection.core.view import Setting, draw_view
from deepsection.core.view.cut import beyond_faces, cut_parts
from deepsection.core.view.section import draw_section
from deepsection.core.view.section_panels import section_frame, section_window
from deepsection.demo import otterfold_house, quillback_house
from tests.builders import box_house, gable, joist_house, plain_wall, two_storeys, window
from tests.campaigns import share
from tests.reading import faults

EVERYTHING = Window(-1e6, 1e6)


def mesh_area(part: Part, line: SectionLine) -> float:
    """Area in which a plane cuts a part, by trimesh; where its mesh does not close, by the solid engine's own slice."""
    frame = section_frame(line)
    mesh = trimesh.Trimesh(*part.solid.mesh())
    if not mesh.is_watertight:
        base = frame.x0 * frame.dx + frame.y0 * frame.dy
        matrix = [[frame.ux, frame.uy, 0.0, 0.0], [0.0, 0.0, 1.0, 0.0], [-frame.dx, -frame.dy, 0.0, base]]
        return float(part.solid.manifold.transform(matrix).slice(-TOL.cut).area())
    origin = (frame.x0 + frame.dx * TOL.cut, frame.y0 + frame.dy * TOL.cut, 0.0)
    section = mesh.section(plane_origin=origin, plane_normal=(frame.dx, frame.dy, 0.0))
    return float(section.to_2D()[0].area) if section is not None else 0.0


@pytest.mark.parametrize("demo", [quillback_house, otterfold_house], ids=["one storey", "two storeys"])
@pytest.mark.parametrize("id", ["section-a", "section-b"])
def test_cut_areas_of_the_demos_agree_with_the_reference(demo: Callable[[], Project], id: str) -> None:
    house = demo()
    building = resolve(house)
    line = next(held for held in house.sections if held.id == id)
    ours: dict[str, float] = {}
    for held in cut_parts(building, section_frame(line), EVERYTHING):
        ours[held.part.key] = ours.get(held.part.key, 0.0) + held.polygon.area
    assert len(ours) > 40
    for part in building.parts:
        assert ours.get(part.key, 0.0) == pytest.approx(mesh_area(part, line), rel=1e-4, abs=3.0), part.key


@settings(max_examples=share(8, 40), deadline=None)
@given(x=st.floats(500, 7500), angle=st.floats(-40, 40))
def test_any_cut_through_a_house_agrees_with_the_reference(x: float, angle: float) -> None:
    building = resolve(gable(box_house(8000, 6000), 0.5, overhang=400, rake=300))
    run = math.tan(math.radians(angle)) * 5000
    line = SectionLine(id="s", name="S", x1=x - run, y1=-2000.0, x2=x + run, y2=8000.0)
    frame = section_frame(line)
    ours = sum(held.polygon.area for held in cut_parts(building, frame, EVERYTHING))
    assert ours == pytest.approx(sum(mesh_area(part, line) for part in building.parts), rel=1e-4)


def test_a_wall_cut_through_its_window() -> None:
    """Check value 10 of the reference table: 200 x (2700 - 1200) = 300 000 mm2 cut; the reveal seen beyond is
    1200 x 200 = 240 000 mm2 (arithmetic)."""
    building = resolve(plain_wall(opening=window("o", "w", 3000.0, sill=700.0)))
    line = SectionLine(id="s", name="S", x1=3000.0, y1=-1000.0, x2=3000.0, y2=1000.0)
    frame = section_frame(line)
    wall = [held for held in cut_parts(building, frame, EVERYTHING) if held.part.element == "w"]
    assert sum(held.polygon.area for held in wall) == pytest.approx(300_000)
    own = tuple(part for part in building.parts if part.element == "w")
    bare = building.with_parts(own)
    beyond = beyond_faces(bare, frame, wall, EVERYTHING, 50_000)
    reveal = [face for face in beyond if abs(face.normal[0]) > 0.9]
    assert sum(face.polygon.area for face in reveal) == pytest.approx(240_000, rel=1e-6)


@pytest.fixture(scope="module")
def cross(house: Project, building: Building) -> Drawing:
    return draw_view(building, house, "section:section-b", 24)


def parts_of(drawing: Drawing, role: str) -> list[Region | Stroke]:
    return [
        mark for mark in drawing.marks if isinstance(mark, (Region, Stroke)) and mark.part and f"/{role}/" in mark.part
    ]


def test_structure_is_heavy_and_what_lies_beyond_is_light(cross: Drawing) -> None:
    """Roles of pens by drawing practice: cut structure 0.5, beyond 0.18."""
    assert {mark.pen for mark in parts_of(cross, "stem") if mark.feature == "cut"} == {"cut"}
    beyond = {mark.pen for mark in cross.marks if isinstance(mark, Stroke) and mark.feature == "edge"}
    assert beyond == {"beyond"}


def test_lumber_cut_across_is_crossed(cross: Drawing) -> None:
    """Two diagonals per member cut across (common practice): it runs along the ridge."""
    for role in ("joist", "header", "rafter"):
        cut = {mark.part for mark in parts_of(cross, role) if mark.feature == "cut"}
        crossed = [mark.part for mark in parts_of(cross, role) if mark.feature == "lumber"]
        assert cut and set(crossed) == cut
        assert len(crossed) == 2 * len(cut)


def test_lumber_cut_along_is_not_crossed(house: Project, building: Building) -> None:
    along = draw_view(building, house, "section:section-a", 24)
    assert [mark for mark in parts_of(along, "rafter") if mark.feature == "cut"]
    assert not [mark for mark in parts_of(along, "rafter") if mark.feature == "lumber"]
    ridge = [mark for mark in parts_of(along, "ridge_board") if mark.feature == "lumber"]
    assert len(ridge) == 2


def test_every_cut_material_has_its_hatch(cross: Drawing) -> None:
    names = {
        cross.hatches[mark.hatch].name for mark in cross.marks if isinstance(mark, Region) and mark.hatch is not None
    }
    assert {"concrete", "gravel", "rigid", "board", "gypsum", "earth"} <= names
    assert any(mark.feature == "quilt" for mark in cross.marks if isinstance(mark, Stroke))


def test_quilt_loops_stay_within_their_cavity(cross: Drawing, building: Building) -> None:
    quilts = {mark.part for mark in cross.marks if isinstance(mark, Stroke) and mark.feature == "quilt"}
    for key in quilts:
        areas = [
            shapely.Polygon([(x, y) for x, y, _ in m.rings[0]])
            for m in cross.marks
            if isinstance(m, Region) and m.part == key
        ]
        whole = shapely.union_all(areas).buffer(0.5)
        for mark in cross.marks:
            if isinstance(mark, Stroke) and mark.part == key and mark.feature == "quilt":
                assert whole.covers(shapely.MultiPoint([(x, y) for x, y, _ in mark.path]))


@pytest.mark.parametrize(("scale", "layers"), [(96.0, False), (48.0, True), (20.0, True)])
def test_detail_follows_scale(house: Project, building: Building, scale: float, layers: bool) -> None:
    """1:100 shows filled walls, 1:50 the main layers, 1:25 membranes too (drawing practice)."""
    drawing = draw_view(building, house, "section:section-a", scale)
    cut = [mark for mark in drawing.marks if isinstance(mark, Region) and mark.part and mark.feature == "cut"]
    hatches = {drawing.hatches[mark.hatch].name for mark in cut if mark.hatch is not None}
    assert ("rigid" in hatches) == layers
    assert any("/membrane/" in (mark.part or "") for mark in cut if mark.fill != "poche") == (scale <= 25)
    poche = [mark for mark in drawing.marks if isinstance(mark, Region) and mark.fill == "poche"]
    assert bool(poche) == (not layers)


def test_looking_the_other_way_mirrors_the_cut(house: Project, building: Building) -> None:
    """Opposite looks cut the same areas (0.005 mm apart) and see the other side."""
    line = next(held for held in house.sections if held.id == "section-b")
    line = line.model_copy(update={"y1": line.y1 + 37.0, "y2": line.y2 + 37.0})
    other = line.model_copy(update={"look": "right"})
    total = {
        held.look: sum(cut.polygon.area for cut in cut_parts(building, section_frame(held), EVERYTHING))
        for held in (line, other)
    }
    assert total["left"] == pytest.approx(total["right"], rel=1e-3)
    first, second = (draw_section(building, held, Setting(96, "ft-in")) for held in (line, other))
    assert first.look == pytest.approx((-second.look[0], -second.look[1]))


def test_a_short_look_sees_less(house: Project, building: Building) -> None:
    line = next(held for held in house.sections if held.id == "section-b")
    near = line.model_copy(update={"depth": 500.0})
    far_marks, near_marks = (draw_section(building, held, Setting(48, "ft-in")).marks for held in (line, near))
    assert len(near_marks) < len(far_marks)


def test_a_line_that_misses_the_house_says_so(house: Project) -> None:
    line = SectionLine(id="section-c", name="C", x1=-9000.0, y1=0.0, x2=-9000.0, y2=5000.0)
    building = resolve(house.model_copy(update={"sections": (line,)}))
    drawing = draw_section(building, line, Setting(48, "ft-in"))
    assert drawing.marks == () and "misses the house" in drawing.messages[0]
    assert [found.code for found in building.diagnostics] == ["section-misses"]


def test_earth_lies_outside_of_everything_built(cross: Drawing) -> None:
    earth = [
        shapely.Polygon([(x, y) for x, y, _ in m.rings[0]], [[(x, y) for x, y, _ in r] for r in m.rings[1:]])
        for m in cross.marks
        if isinstance(m, Region) and m.feature == "earth"
    ]
    built = [
        shapely.Polygon([(x, y) for x, y, _ in m.rings[0]])
        for m in cross.marks
        if isinstance(m, Region) and m.feature == "cut"
    ]
    assert earth
    assert shapely.union_all(earth).intersection(shapely.union_all(built)).area < 1.0


def cut_across(house: Project, look: str = "right", *, members: bool = False) -> Drawing:
    """The section across a house of 9 m at 4.15 m, between two joists, looking east or west."""
    ends = {"x1": 4150.0, "y1": -2000.0, "x2": 4150.0, "y2": 8000.0}
    line = SectionLine.model_validate({"id": "x", "name": "X", "look": look, "members": members, **ends})
    return draw_section(resolve(house), line, Setting(50.0, "mm"))


def boxes(drawing: Drawing, role: str, feature: str) -> list[tuple[float, ...]]:
    """Bounds of the regions of a role, to 0.1 mm."""
    found = []
    for mark in drawing.marks:
        if isinstance(mark, Region) and mark.feature == feature and f"/{role}/" in (mark.part or ""):
            points = [(x, y) for x, y, _ in mark.rings[0]]
            found.append(tuple(round(value, 1) for value in shapely.MultiPoint(points).bounds))
    return found


def test_between_two_joists_the_next_one_is_seen() -> None:
    """Cut between joists that run along the section: the side of the next one, from rim to rim, deck to ceiling."""
    house = two_storeys(9000.0, 6000.0)
    house = put(house, *(changed(floor, between="nothing") for floor in house.floors))
    levels = resolve(house).levels
    assert not boxes(cut_across(house), "joist", "face"), "only where the line asks for them"
    seen = boxes(cut_across(house, members=True), "joist", "face")
    upper = [box for box in seen if box[1] == pytest.approx(levels["plate"].z)]
    # looking east u runs south: from -6000 to 0, less a rim of 38 at both ends
    assert upper == [(-5962.0, levels["plate"].z, -38.0, levels["s2-floor"].z - 18.0)]
    assert len(boxes(cut_across(house), "rim_joist", "cut")) == 4


def test_a_rafter_beyond_is_seen_in_the_attic() -> None:
    house = gable(box_house(9000.0, 6000.0), 0.5, overhang=400.0)
    drawing = cut_across(house, members=True)
    assert not boxes(drawing, "rafter", "cut") and len(boxes(drawing, "rafter", "face")) >= 2
    assert not boxes(cut_across(house), "rafter", "face")


def test_a_crawl_space_is_dug_out_and_seen() -> None:
    """The far foundation wall is seen down to the ground cover, and no earth is hatched above it."""
    house = joist_house(9000.0, 6000.0)
    levels = resolve(house).levels
    drawing = cut_across(house)
    (far,) = [box for box in boxes(drawing, "stem", "face")]
    assert (far[1], far[3]) == pytest.approx((levels["crawl"].z, levels["stem"].z), abs=0.2)
    earth = [mark for mark in drawing.marks if isinstance(mark, Region) and mark.feature == "earth"]
    inside = shapely.box(-5700.0, levels["crawl"].z + 1.0, -300.0, levels["stem"].z)
    for mark in earth:
        assert shapely.Polygon([(x, y) for x, y, _ in mark.rings[0]]).intersection(inside).area < 1.0


def names_of(drawing: Drawing) -> dict[str, tuple[float, ...]]:
    """Per room, the box of the paper behind its name."""
    return {
        mark.part or "": shapely.MultiPoint([(x, y) for x, y, _ in mark.rings[0]]).bounds
        for mark in drawing.marks
        if isinstance(mark, Region) and mark.feature == "label"
    }


@pytest.mark.parametrize("scale", [48.0, 96.0])
def test_names_of_rooms_keep_clear_of_windows_and_doors_beyond(scale: float) -> None:
    house = otterfold_house()
    drawing = draw_view(resolve(house), house, "section:section-b", scale)
    names = names_of(drawing)
    assert len(names) == 5
    units = [
        shapely.Polygon([(x, y) for x, y, _ in mark.rings[0]])
        for mark in drawing.marks
        if isinstance(mark, Region) and mark.feature == "face" and mark.handle is not None
    ]
    assert len(units) > 10
    for name, box in names.items():
        assert not any(shapely.box(*box).intersects(unit) for unit in units), name


def test_a_name_without_room_is_led_to_its_room() -> None:
    """A room of 3 m with a window of 2.6 m beyond, named at 1:100: nowhere in it is clear of the window.

    So the name stands on that, or beside the room, and a line leads there.
    """
    house = put(box_house(3000.0, 6000.0), window("w", "north", 1500.0, width=2600.0, height=2300.0, sill=50.0))
    house = put(house, Room(id="r", name="Workshop and store", x=1500.0, y=1000.0))
    line = SectionLine(id="x", name="X", x1=-2000.0, y1=3000.0, x2=5000.0, y2=3000.0)
    drawing = draw_section(resolve(house), line, Setting(100.0, "mm"))
    (name,) = [mark for mark in drawing.marks if isinstance(mark, Text) and mark.part == "r"]
    leaders = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "leader"]
    led = [mark for mark in leaders if mark.part == "r"]
    floor = resolve(house).levels["floor"].z
    assert faults(drawing) == []
    assert led or (abs(name.x - 1500.0) < 1500.0 and floor < name.y < floor + 3000.0)


def windowed(line: SectionLine, bottom: float | None, top: float | None) -> SectionLine:
    return changed(line, bottom=bottom, top=top)


@given(st.floats(-1500, 5000), st.floats(200, 6000))
@settings(max_examples=share(8, 40), deadline=None)
def test_nothing_outside_of_its_top_and_bottom_is_drawn_marked_or_dimensioned(bottom: float, tall: float) -> None:
    house = otterfold_house()
    line = windowed(next(held for held in house.sections if held.id == "section-a"), bottom, bottom + tall)
    project = put(house, line)
    building = resolve(project)
    drawing = draw_view(building, project, "section:section-a", 50.0)
    if not drawing.marks:
        assert "shows nothing" in drawing.messages[0]
        return
    top = bottom + tall
    for mark in drawing.marks:
        if isinstance(mark, Region) and mark.feature in ("cut", "face", "earth"):
            assert all(bottom - 0.01 <= y <= top + 0.01 for ring in mark.rings for _, y, _ in ring)
        elif isinstance(mark, Stroke) and mark.feature in ("edge", "lumber", "quilt", "ground"):
            assert all(bottom - 0.01 <= y <= top + 0.01 for _, y, _ in mark.path)
        elif isinstance(mark, Symbol) and mark.kind == "level":
            assert bottom - 0.01 <= mark.y <= top + 0.01
        elif isinstance(mark, Dimension) and mark.feature in ("height", "clear"):
            assert bottom - 0.01 <= min(mark.y1, mark.y2) and max(mark.y1, mark.y2) <= top + 0.01
    # What is cut is what the whole section cuts there.
    frame = section_frame(line)
    window = section_window(line)
    box = shapely.box(window.left, bottom, window.right, top)
    whole = sum(held.polygon.intersection(box).area for held in cut_parts(building, frame, EVERYTHING))
    assert sum(held.polygon.area for held in cut_parts(building, frame, window)) == pytest.approx(
        whole, rel=1e-6, abs=40.0
    )


def test_a_section_cropped_through_a_wall_has_no_heavy_line_there() -> None:
    house = box_house(9000.0, 6000.0)
    line = SectionLine(id="s", name="A", x1=4500.0, y1=-2000.0, x2=4500.0, y2=8000.0, top=1500.0)
    project = put(house, line)
    drawing = draw_view(resolve(project), project, "section:s", 20.0)
    lines = [
        shapely.LineString([(x, y) for x, y, _ in mark.path])
        for mark in drawing.marks
        if isinstance(mark, Stroke) and mark.pen in ("cut", "cut_layer")
    ]
    lines += [
        shapely.LinearRing([(x, y) for x, y, _ in ring])
        for mark in drawing.marks
        if isinstance(mark, Region) and mark.pen
        for ring in mark.rings
    ]
    crop = shapely.LineString([(-1e4, 1500.0), (1e4, 1500.0)])
    assert lines and all(held.intersection(crop).length < 0.1 for held in lines)


def test_a_top_that_is_not_above_the_bottom_is_said() -> None:
    line = SectionLine(id="s", name="A", x1=4500.0, y1=-2000.0, x2=4500.0, y2=8000.0, top=500.0, bottom=500.0)
    project = put(box_house(9000.0, 6000.0), line)
    building = resolve(project)
    (held,) = [one for one in building.diagnostics if one.code == "section-low"]
    assert (held.element, held.field) == ("s", "top")
    drawing = draw_view(building, project, "section:s", 50.0)
    assert drawing.marks == () and "its top is not above its bottom" in drawing.messages[0]
    project = put(project, windowed(line, 50_000.0, 60_000.0))
    (message,) = draw_view(resolve(project), project, "section:s", 50.0).messages
    assert "the house lies above its top or below its bottom" in message


def test_a_wall_section_of_a_vault_reads_well() -> None:
    house = gable(box_house(9000.0, 6000.0), 0.6, overhang=400.0)
    room = Room(id="r", name="Hall", x=4500.0, y=3000.0, level="floor", vault=0.3)
    project = put(house, room, WallSection(id="w", name="1", wall="south", end="start", distance=4000.0))
    building = resolve(project)
    drawing = draw_view(building, project, "section:w", 20.0, on_paper=True)
    assert faults(drawing) == [] and drawing.messages == ()
    assert "shingles on rafters" in [mark.text for mark in drawing.marks if isinstance(mark, Text)]


def test_a_section_has_the_numbers_of_what_it_cuts_and_a_legend() -> None:
    house = otterfold_house()
    project = put(house, ViewShow(id="shown", view="section:section-a", make_ups=True))
    building = resolve(project)
    drawing = draw_view(building, project, "section:section-a", 48.0)
    assert faults(drawing) == [] and drawing.left_out == ()
    numbers = [mark for mark in drawing.marks if isinstance(mark, Text) and mark.feature == "make_up"]
    rows = [mark.text for mark in drawing.marks if isinstance(mark, Text) and mark.feature == "schedule"]
    # Walls, floors, ceilings and roofs that are cut, each under the number that the legend explains.
    line = next(held for held in house.sections if held.id == "section-a")
    cut = {held.part.element for held in cut_parts(building, section_frame(line), EVERYTHING)}
    made = {house.find(id).make_up for id in cut if getattr(house.find(id), "make_up", None)}
    assert made <= {held.id for held in house.make_ups if held.name in rows} and len(made) > 4
    assert {mark.text for mark in numbers} <= set(rows)
    assert {mark.part for mark in numbers} >= {id for id in cut if getattr(house.find(id), "make_up", None)}
    # None of them is taken for the number of a window or a door.
    assert not {mark.text for mark in numbers} & {house.number_of(held) for held in house.openings}
