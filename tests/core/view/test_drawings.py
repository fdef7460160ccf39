"""Plans and elevations as marks: every mark is whole, tied to its part, and explains its height."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable

import pytest
import shapely

from deepsection.core.drawing import PENS, Dimension, Drawing, Region, Stroke, Symbol, Text, explode
from deepsection.core.edits import MoveOpening, Remove, apply_edits, put, storey_above
from deepsection.core.errors import UnknownElement
from deepsection.core.geometry import Frame, side_direction
from deepsection.core.model import Note, PartAnchor, Project, Room
from deepsection.core.resolve import Building, resolve
from deepsection.core.starters.projects import new_project
from deepsection.core.view import draw_view, list_views, plan_snaps, standing_name
from deepsection.core.view._levels import spread
from deepsection.demo import fernacre_bungalow, otterfold_house, quillback_house
from tests.builders import box_house, joist_house, two_storeys, window

SIDES = ("south", "east", "north", "west")


@pytest.fixture(scope="module")
def drawings(house: Project, building: Building) -> dict[str, Drawing]:
    return {view.name: draw_view(building, house, view.name, 48) for view in list_views(house)}


@pytest.mark.parametrize("make", [quillback_house, fernacre_bungalow, otterfold_house])
def test_every_mark_is_whole(make: Callable[[], Project]) -> None:
    """Pens exist, hatches are of the drawing, sums are of the building, coordinates are numbers."""
    house = make()
    building = resolve(house)
    for drawing in (draw_view(building, house, view.name, 48) for view in list_views(house)):
        sums = {held.id for held in drawing.sums} | {held.id for held in building.sums.values()}
        for mark in explode(drawing).marks:
            if isinstance(mark, Region):
                assert mark.pen is None or mark.pen in PENS
                assert mark.hatch is None or 0 <= mark.hatch < len(drawing.hatches)
                assert all(math.isfinite(value) for ring in mark.rings for vertex in ring for value in vertex)
                assert all(len(ring) >= 3 or any(bulge for *_, bulge in ring) for ring in mark.rings)
            elif isinstance(mark, Stroke):
                assert mark.pen in PENS and len(mark.path) >= 2
            assert not isinstance(mark, (Dimension, Symbol)), "exploding leaves strokes, regions and text"
            assert mark.sum is None or mark.sum in sums


def test_drawing_twice_gives_the_same_marks(house: Project, building: Building, drawings: dict[str, Drawing]) -> None:
    for name, drawing in drawings.items():
        assert draw_view(building, house, name, 48) == drawing


@pytest.mark.parametrize("side", SIDES)
def test_regions_of_an_elevation_do_not_overlap(drawings: dict[str, Drawing], side: str) -> None:
    shapes = [
        shapely.Polygon([(x, y) for x, y, _ in m.rings[0]], [[(x, y) for x, y, _ in r] for r in m.rings[1:]])
        for m in drawings[f"elevation:{side}"].marks
        if isinstance(m, Region) and m.depth is not None
    ]
    assert len(shapes) > 10
    assert sum(shape.area for shape in shapes) == pytest.approx(shapely.union_all(shapes).area, rel=1e-7)


@pytest.mark.parametrize("side", SIDES)
def test_an_elevation_has_what_a_builder_reads(drawings: dict[str, Drawing], side: str) -> None:
    drawing = drawings[f"elevation:{side}"]
    pens = {mark.pen for mark in drawing.marks if isinstance(mark, (Stroke, Region))}
    assert {"ground", "outline", "edge", "hidden"} <= pens
    roles = {mark.part.split("/")[1] for mark in drawing.marks if isinstance(mark, Region) and mark.part}
    assert {"cladding", "frame", "glass", "trim"} <= roles and roles & {"fascia", "barge"}
    names = {
        drawing.hatches[mark.hatch].name
        for mark in drawing.marks
        if isinstance(mark, Region) and mark.hatch is not None
    }
    assert "lap_board" in names
    levels = [mark.texts[0] for mark in drawing.marks if isinstance(mark, Symbol) and mark.kind == "level"]
    assert {"Plate", "Main floor", "Grade", "Ridge, Main roof"} <= set(levels)
    ground = next(mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "ground")
    assert {y for _, y, _ in ground.path} == {0.0}
    assert all(
        y >= -1e-9
        for mark in drawing.marks
        if isinstance(mark, Region) and mark.depth is not None
        for r in mark.rings
        for _, y, _ in r
    )


def test_the_workshop_is_behind_from_the_west(drawings: dict[str, Drawing]) -> None:
    """From the west the lower roof stands behind the higher gable: none of it shows, and no level mark speaks of it."""
    west = drawings["elevation:west"]
    assert not [
        mark for mark in west.marks if isinstance(mark, Region) and mark.part and mark.part.startswith("roof-wing/")
    ]
    assert "Ridge, Workshop roof" not in [mark.texts[0] for mark in west.marks if isinstance(mark, Symbol)]


def test_opposite_elevations_are_as_wide(drawings: dict[str, Drawing]) -> None:
    def span(side: str) -> tuple[float, float]:
        xs = [
            x
            for m in drawings[f"elevation:{side}"].marks
            if isinstance(m, Region) and m.depth is not None
            for r in m.rings
            for x, _, _ in r
        ]
        return min(xs), max(xs)

    for one, other in (("south", "north"), ("east", "west")):
        low, high = span(one)
        assert span(other) == pytest.approx((-high, -low))


@pytest.mark.parametrize("side", SIDES)
def test_windows_stand_under_themselves(
    drawings: dict[str, Drawing], house: Project, building: Building, side: str
) -> None:
    """Plan and elevation share u: a window and its reveal lie where its opening lies in plan."""
    look = side_direction(side)  # type: ignore[arg-type]
    plan = draw_view(building, house, "plan", 48, look_deg=look)
    for opening in house.openings:
        frames = [
            m
            for m in drawings[f"elevation:{side}"].marks
            if isinstance(m, Region) and m.part in (f"{opening.id}/frame//", f"{opening.id}/reveal//")
        ]
        holes = [m for m in plan.marks if isinstance(m, Region) and m.part == f"{opening.id}/{opening.unit}//"]
        if not frames:
            continue
        seen = [x for m in frames for r in m.rings for x, _, _ in r]
        there = [x for m in holes for r in m.rings for x, _, _ in r]
        assert (min(seen), max(seen)) == pytest.approx((min(there), max(there)), abs=0.01)


def test_lines_at_a_height_name_its_sum(drawings: dict[str, Drawing], building: Building) -> None:
    """A level line of the elevation carries the sum that gives its height."""
    found = set()
    for mark in drawings["elevation:south"].marks:
        if isinstance(mark, Stroke) and mark.sum:
            assert [y for _, y, _ in mark.path] == pytest.approx(
                [building.sums[mark.sum].total] * len(mark.path), abs=0.05
            )
            found.add(mark.sum.split(":")[0])
    assert {"ridge", "head", "sill", "level", "eave"} <= found


def test_an_edit_shows_in_every_view(house: Project) -> None:
    moved = apply_edits(house, (MoveOpening(opening="w2", distance=7000.0),))
    building = resolve(moved)
    for name in ("plan", "elevation:south"):
        assert draw_view(building, moved, name, 48) != draw_view(resolve(house), house, name, 48)


def test_the_plan_is_turned_and_dimensioned(house: Project, building: Building) -> None:
    for side, (width, depth) in (("south", ("54'-0\"", "26'-0\"")), ("east", ("26'-0\"", "54'-0\""))):
        plan = draw_view(building, house, "plan", 48, look_deg=side_direction(side))  # type: ignore[arg-type]
        texts = [mark.text for mark in plan.marks if isinstance(mark, Dimension) and mark.feature == "overall"]
        assert texts == [width, depth, width, depth], "below, at the right, above, at the left"
        assert [mark.text for mark in plan.marks if isinstance(mark, Text) and mark.text == "Workshop"]


def test_a_plan_offers_ends_and_middles_to_snap_to(house: Project, building: Building) -> None:
    snaps = plan_snaps(building, house, "floor", 90.0)
    joints = {point.joint for point in snaps.points if point.kind == "joint"}
    assert joints == {joint for wall in building.plan.walls for joint in (wall.wall.start, wall.wall.end)}
    assert sum(point.kind == "middle" for point in snaps.points) == len(snaps.lines) == len(building.plan.walls)
    frame = Frame.looking(90.0)
    for line, wall in zip(snaps.lines, building.plan.walls):
        assert (line.u1, line.w1) == pytest.approx(frame.plan_to_turned(*wall.start))


def test_each_storey_has_its_plan() -> None:
    house = put(two_storeys(9000.0, 6000.0), window("w1", "south", 3000.0), window("w2", "s2-w1", 5000.0))
    house = put(house, Room(id="r", name="Loft", x=2000, y=2000, level="s2-floor"))
    building = resolve(house)
    views = {view.name: view.title for view in list_views(house)}
    assert views["plan"] == "Main floor plan" and views["plan:s2-floor"] == "Upper floor plan"
    shown = {}
    for name in ("plan", "plan:s2-floor"):
        drawing = draw_view(building, house, name, 50)
        shown[name] = {mark.text for mark in drawing.marks if isinstance(mark, Text)}
        assert drawing.name == name
        ridge = any(isinstance(mark, Stroke) and mark.feature == "ridge" for mark in drawing.marks)
        assert ridge == (name != "plan"), "the roof is drawn over the storey that carries it"
    assert "W1" in shown["plan"] and not {"W2", "Loft"} & shown["plan"]
    assert {"W2", "Loft"} <= shown["plan:s2-floor"] and "W1" not in shown["plan:s2-floor"]
    with pytest.raises(UnknownElement, match="plan:attic"):
        draw_view(building, house, "plan:attic", 50)


def test_walls_below_are_dashed_where_none_stand_on_them(otterfold: Building) -> None:
    """The kitchen's three sides, 14' + 18' + 14' and its walls' outside: nothing under the upper walls."""
    plan = draw_view(otterfold, otterfold_house(), "plan:upper", 96)
    below = [mark for mark in plan.marks if isinstance(mark, Stroke) and mark.feature == "below"]
    assert below and all(mark.pen == "hidden" for mark in below)
    points = [(x, y) for mark in below for x, y, _ in mark.path]
    assert max(x for x, _ in points) < 0.0 and min(x for x, _ in points) == pytest.approx(-14 * 304.8 - 32.3, abs=1.0)


def test_a_plan_offers_the_corners_below_to_stand_on(otterfold: Building) -> None:
    house = otterfold_house()
    snaps = plan_snaps(otterfold, house, "upper", 90.0)
    labels = {point.joint: point.label for point in snaps.points if point.joint}
    assert labels["sw"] == "end of wall" and labels["kitchen-b"] == "end of wall below"
    assert {line.wall for line in snaps.lines} == {wall.wall.id for wall in otterfold.plan.on("upper")}
    assert len(snaps.axes) == len(otterfold.plan.walls)


def test_a_storey_over_nothing_teaches_too() -> None:
    bare = new_project("p", "Bare", "mm", ground="joists")
    bare = apply_edits(bare, (storey_above(bare, "floor"),))
    building = resolve(bare)
    assert building.parts == () and building.diagnostics == ()
    for name in ("plan", "plan:s2-floor"):
        assert "first corner" in draw_view(building, bare, name, 50).messages[0]
    house = apply_edits(two_storeys(9000.0, 6000.0), (Remove(elements=("s2-w1", "s2-w2", "s2-w3", "s2-w4")),))
    empty = draw_view(resolve(house), house, "plan:s2-floor", 50)
    assert "Upper floor has no walls yet" in empty.messages[0]
    assert any(mark.feature == "below" for mark in empty.marks), "what it can stand on is shown"


def test_a_view_that_is_gone_has_one_to_stand_in_for_it() -> None:
    house = joist_house(9000.0, 6000.0)
    assert standing_name(house, "plan:s2-floor") == "plan"
    assert standing_name(house, "section:gone") == "elevation:south"
    assert standing_name(house, "elevation:west") == "elevation:west"


def test_an_empty_project_teaches_the_first_action() -> None:
    bare = apply_edits(box_house(5000, 4000), (Remove(elements=("south", "east", "north", "west")),))
    building = resolve(bare)
    plan, south = (draw_view(building, bare, name, 50) for name in ("plan", "elevation:south"))
    assert "first corner" in plan.messages[0] and "Nothing stands here yet" in south.messages[0]
    assert south.marks == ()


def note_on(part: str) -> Note:
    return Note(
        id="n1", view="elevation:south", text="paint later", anchor=PartAnchor.on(part), last=(111.0, 0.0, 222.0)
    )


def test_a_note_follows_its_part(house: Project) -> None:
    noted = put(house, note_on("w2/frame//"))

    def anchor(project: Project) -> tuple[float, float]:
        drawing = draw_view(resolve(project), project, "elevation:south", 48)
        leader = next(mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "leader")
        return leader.path[-1][0], leader.path[-1][1]

    before = anchor(noted)
    after = anchor(apply_edits(noted, (MoveOpening(opening="w2", distance=house.openings[2].distance + 500.0),)))
    assert after == pytest.approx((before[0] + 500.0, before[1]))


def test_a_lost_note_stays_at_its_last_place_and_is_listed(house: Project) -> None:
    noted = apply_edits(put(house, note_on("w2/frame//")), (Remove(elements=("w2",)),))
    drawing = draw_view(resolve(noted), noted, "elevation:south", 48)
    leader = next(mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "leader")
    assert leader.path[-1][:2] == pytest.approx((111.0, 222.0), abs=1e-6)
    crosses = [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == "lost"]
    assert len(crosses) == 2 and {mark.pen for mark in crosses} == {"hidden"}
    assert "paint later" in drawing.messages[0]


def test_level_marks_never_touch(drawings: dict[str, Drawing]) -> None:
    marks = [m for m in drawings["elevation:south"].marks if isinstance(m, Symbol) and m.kind == "level"]
    lines = sorted(mark.y / 48 + mark.values[1] for mark in marks)
    assert all(b - a > 8.1 for a, b in itertools.pairwise(lines))
    assert spread([0, 0, 0], 2) == [-2, 0, 2]


def pitches(project: Project, view: str) -> list[tuple[str, ...]]:
    marks = draw_view(resolve(project), project, view, project.scale).marks
    return [mark.texts for mark in marks if isinstance(mark, Symbol) and mark.kind == "pitch"]


def test_the_pitch_stands_where_a_roof_is_cut_or_seen_end_on(house: Project) -> None:
    """Pitch on gable ends and cross sections, none on a long side. Common practice, no source."""
    assert pitches(house, "section:section-a") == [("8", "12")]
    assert pitches(house, "section:section-b") == []
    assert pitches(house, "elevation:south") == [] and pitches(house, "elevation:west") == [("8", "12")]


def test_a_gable_hidden_behind_another_roof_has_no_pitch() -> None:
    bungalow = fernacre_bungalow()
    assert pitches(bungalow, "elevation:south") == []
    assert pitches(bungalow, "elevation:north") == [("30°", "")]


def test_unknown_views_are_named(house: Project, building: Building) -> None:
    for name in ("elevation:up", "section:ghost", "roof", ""):
        with pytest.raises(UnknownElement):
            draw_view(building, house, name, 48)
