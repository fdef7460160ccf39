"""Where wall sections are, in sections and elevations of their walls; notes of layers in sections."""

from __future__ import annotations

import pytest
import shapely

from deepsection.core.drawing import Dimension, Drawing, Label, Region, Stroke, Symbol, Text
from deepsection.core.edits import SetAnnotation, apply_edits, changed, put
from deepsection.core.model import Annotation, PlacedView, Project, SectionLine, Sheet, ViewShow, WallSection
from deepsection.core.resolve import resolve
from deepsection.core.view import draw_view
from deepsection.demo import DEMOS, otterfold_house
from tests.builders import box_house, gable, joist_house
from tests.reading import faults
from tests.turning import turned


def house(degrees: float = 0.0) -> Project:
    plain = gable(box_house(9000, 6000), 0.5, overhang=400, rake=300)
    line = SectionLine(id="s", name="A", x1=4000.0, y1=-1500.0, x2=4000.0, y2=7500.0)
    strips = [
        WallSection(id=f"w{k}", name=str(k), wall=wall, end="start", distance=at)
        for k, (wall, at) in enumerate((("south", 3500.0), ("south", 8000.0), ("east", 2000.0)), 1)
    ]
    placed = (PlacedView(id="v", view="section:w1", scale=20.0, x=200.0, y=200.0),)
    sheet = Sheet(id="sh", number="A7", name="Wall sections", paper="A2", placed=placed)
    return turned(put(plain, line, *strips, sheet), degrees)


def view(project: Project, name: str, scale: float = 50.0) -> Drawing:
    return draw_view(resolve(project), project, name, scale)


def marks_of(drawing: Drawing, id: str) -> list[Stroke | Symbol | Text]:
    own = (mark for mark in drawing.marks if isinstance(mark, (Stroke, Symbol, Text)))
    return [mark for mark in own if (mark.part or "").startswith(f"{id}/section//")]


@pytest.mark.parametrize("degrees", [0.0, 27.0])
def test_a_section_outlines_the_nearest_wall_section_of_each_wall_it_cuts(degrees: float) -> None:
    """Of two through the south wall the nearer; none of the east wall, which lies along the section."""
    drawing = view(house(degrees), "section:s")
    assert marks_of(drawing, "w1") and not marks_of(drawing, "w2") and not marks_of(drawing, "w3")
    words = [mark.text for mark in marks_of(drawing, "w1") if isinstance(mark, Text)]
    assert words == ["1", "1/A7"], "its name, and where its drawing is"
    (ring,) = [mark.path for mark in marks_of(drawing, "w1") if isinstance(mark, Stroke)]
    outline = shapely.Polygon([(x, y) for x, y, _ in ring])
    cut = [m for m in drawing.marks if isinstance(m, Region) and m.feature == "cut" and m.part]
    south = [m for m in cut if m.part and m.part.startswith("south/")]
    assert south and all(outline.covers(shapely.Polygon([(x, y) for x, y, _ in m.rings[0]])) for m in south)
    assert faults(drawing) == []


@pytest.mark.parametrize("degrees", [0.0, 90.0])
def test_an_elevation_shows_the_ends_of_wall_sections_of_the_walls_that_face_it(degrees: float) -> None:
    side = {0.0: "south", 90.0: "east"}[degrees]
    project = house(degrees)
    drawing = view(project, f"elevation:{side}")
    assert marks_of(drawing, "w1") and marks_of(drawing, "w2") and not marks_of(drawing, "w3")
    u = {id: next(m.x for m in marks_of(drawing, id) if isinstance(m, Symbol)) for id in ("w1", "w2")}
    assert abs(u["w2"] - u["w1"]) == pytest.approx(8000.0 - 3500.0)
    built = [y for m in drawing.marks if isinstance(m, Region) and m.feature == "face" for _, y, _ in m.rings[0]]
    ends = [y for m in marks_of(drawing, "w1") if isinstance(m, Stroke) for _, y, _ in m.path]
    assert not [y for y in ends if min(built) < y < max(built)], "its ends alone"
    assert faults(drawing) == []


def test_a_mark_is_left_out_of_one_view_alone() -> None:
    project = house()
    hidden = SetAnnotation(view="section:s", annotation=Annotation(key="section:w1", hidden=True))
    after = apply_edits(project, (hidden,))
    assert not marks_of(view(after, "section:s"), "w1") and marks_of(view(after, "elevation:south"), "w1")


def stacked(project: Project, name: str) -> Project:
    return put(project, ViewShow(id="show", view=name, stacks=True))


@pytest.mark.parametrize("make", DEMOS, ids=lambda make: make.__name__)
def test_layers_stand_beside_what_is_cut_and_on_nothing(make: object) -> None:
    """Every make-up that is cut is noted with all of its layers, in their order, or named as left out."""
    project = make()  # type: ignore[operator]
    name = f"section:{project.sections[0].id}"
    project = stacked(project, name)
    drawing = view(project, name, 48.0)
    assert faults(drawing) == []
    left = {key.removeprefix("stack:") for key, _ in drawing.left_out if key.startswith("stack:")}
    used = {project.make_ups[k].id for k in range(len(project.make_ups))}
    noted = {m.part for m in drawing.marks if isinstance(m, Text) and m.part in used and m.feature == "note"}
    assert noted and not noted & left
    lines = [
        shapely.LineString([(x, y) for x, y, _ in m.path])
        for m in drawing.marks
        if isinstance(m, Stroke) and len(m.path) > 1 and m.feature in ("edge", "cut", "clear") and m.pen != "note"
    ] + [
        shapely.LineString([(m.x1, m.y1), (m.x2, m.y2)])
        for m in drawing.marks
        if isinstance(m, Dimension) and m.feature == "clear"
    ]
    tree = shapely.STRtree(lines)
    for make_up in noted:
        rows = [m for m in drawing.marks if isinstance(m, Text) and m.part == make_up and m.feature == "note"]
        rows.sort(key=lambda m: -m.y)
        held = project.find(make_up)
        assert rows[0].text == held.name and len(rows) == len(held.layers) + 1
        block = shapely.box(rows[0].x, rows[-1].y, rows[0].x + 1.0, rows[0].y)
        assert not len(tree.query(block, predicate="intersects")), make_up


def test_a_section_without_them_is_as_it_was() -> None:
    project = otterfold_house()
    drawing = view(project, "section:section-a", 48.0)
    assert not [m for m in drawing.marks if isinstance(m, (Text, Label)) and m.part == "wall-lap"]
    assert changed(ViewShow(id="x", view="v"), stacks=True).stacks


def test_floors_between_members_have_their_layers_noted() -> None:
    project = joist_house(9000, 7000)
    project = put(project, SectionLine(id="s", name="A", x1=4000.0, y1=-1500.0, x2=4000.0, y2=8500.0))
    drawing = view(stacked(project, "section:s"), "section:s")
    words = [m.text for m in drawing.marks if isinstance(m, Text) and m.feature == "note"]
    floor = project.find(project.floors[0].make_up)
    assert floor.name in words
