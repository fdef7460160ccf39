"""Framing plans and structural plans: schedules that add up, spans that agree with the checks, layers by role."""

from __future__ import annotations

import io
from collections import Counter
from collections.abc import Callable

import ezdxf
import pytest
from shapely.geometry import Polygon

from deepsection.core.drawing import Dimension, Drawing, Region, Stroke, Text
from deepsection.core.drawing.clearings import boxes_around
from deepsection.core.edits import MoveWall, apply_edits, put
from deepsection.core.model import FloorHole, Project
from deepsection.core.particulars import enter
from deepsection.core.resolve import Building, resolve
from deepsection.core.sheets.compose import compose_view
from deepsection.core.starters.projects import new_project
from deepsection.core.trades.floors.members import Members, floor_members, hangers
from deepsection.core.trades.floors.place import FLOORS, FloorPlan
from deepsection.core.trades.floors.span_checks import verdicts
from deepsection.core.trades.floors.structure_plan import off_bearing
from deepsection.core.units import format_length
from deepsection.core.view import draw_view, list_views
from deepsection.demo import larkmoor_house, otterfold_house
from deepsection.formats.writers import write_dxf
from tests.builders import two_storeys
from tests.turning import turned

BOTH = [otterfold_house, larkmoor_house]


def texts(drawing: Drawing, feature: str) -> list[str]:
    return [mark.text for mark in drawing.marks if isinstance(mark, Text) and mark.feature == feature]


def strokes(drawing: Drawing, feature: str) -> list[Stroke]:
    return [mark for mark in drawing.marks if isinstance(mark, Stroke) and mark.feature == feature]


def framed(building: Building, flat: FloorPlan) -> Members:
    layers = building.placed.make_ups[flat.floor.make_up].layers
    framing = next(layer.framing for layer in layers if layer.framing)
    return floor_members(flat.bays, flat.rims, framing, flat.floor.between)


def rows(drawing: Drawing) -> list[list[str]]:
    """The cells of the schedule, line by line."""
    lines: dict[float, list[tuple[float, str]]] = {}
    for mark in drawing.marks:
        if isinstance(mark, Text) and mark.feature == "schedule":
            lines.setdefault(round(mark.y), []).append((mark.x, mark.text))
    held = [[text for _, text in sorted(cells)] for _, cells in sorted(lines.items(), reverse=True)]
    return [cells for cells in held if len(cells) == 5][1:]


@pytest.mark.parametrize("make", BOTH)
@pytest.mark.parametrize("degrees", [0.0, 17.3])
def test_the_schedule_counts_every_piece_that_is_drawn(make: Callable[[], Project], degrees: float) -> None:
    project = turned(make(), degrees) if degrees else make()
    building = resolve(project)
    for flat in building[FLOORS]:
        drawing = draw_view(building, project, f"plan:framing:{flat.floor.id}", 48)
        members = framed(building, flat)
        drawn = strokes(drawing, "member")
        pieces = [(member, length) for member in members.all for length, _ in member.pieces]
        assert len(drawn) == len(pieces)
        counted = Counter({row[0]: int(row[1]) for row in rows(drawing)})
        assert counted.total() == len(pieces)
        # Each number is of one length, read off the drawing itself.
        for row in rows(drawing):
            if row[2] != "block":
                alike = [
                    1 for member, length in pieces if format_length(length, "ft-in") == row[4] and _is(row, member)
                ]
                assert len(alike) == int(row[1]), row
        assert len(strokes(drawing, "hanger")) == len(hangers(members))


def _is(row: list[str], member: object) -> bool:
    words = {"joist": "joist", "trimmer": "trimmer_joist", "header": "header_joist", "rim joist": "rim_joist"}
    return bool(member.role == words[row[2]])


@pytest.mark.parametrize("make", BOTH)
def test_numbers_stand_on_no_member_and_on_no_other_number(make: Callable[[], Project]) -> None:
    """Lettering between joists, or on blank paper, at the scales of the sheets, as the boxes around it say."""
    project = make()
    building = resolve(project)
    for flat in building[FLOORS]:
        drawing = draw_view(building, project, f"plan:framing:{flat.floor.id}", 48)
        inside = [m for m in drawing.marks if isinstance(m, Text) and (m.part or "").endswith("/joist//")]
        assert inside
        boxes = [box.buffer(-0.8 * 48) for box in boxes_around(inside, 48)]
        joists = [Polygon([(x, y) for x, y, _ in mark.path]) for mark in strokes(drawing, "member")]
        papers = [Polygon([(x, y) for x, y, _ in m.rings[0]]) for m in drawing.marks if isinstance(m, Region)]
        for k, box in enumerate(boxes):
            met = [other.text for other, held in zip(inside[k + 1 :], boxes[k + 1 :]) if box.intersects(held)]
            assert not met, (inside[k].text, met)
            on_paper = any(paper.covers(box) for paper in papers)
            assert on_paper or not any(box.intersection(joist).area > 1.0 for joist in joists), inside[k].text


@pytest.mark.parametrize("make", BOTH)
def test_the_engineer_finds_edge_spans_levels_and_loads(make: Callable[[], Project]) -> None:
    project = make()
    building = resolve(project)
    for flat in building[FLOORS]:
        drawing = draw_view(building, project, f"plan:structure:{flat.floor.id}", 48)
        edge = sum(Polygon([(x, y) for x, y, _ in mark.path]).area for mark in strokes(drawing, "edge"))
        assert edge == pytest.approx(flat.area.area, rel=1e-6)
        assert not off_bearing(flat) and not strokes(drawing, "off bearing")
        figures = [mark.text for mark in drawing.marks if isinstance(mark, Text) and mark.feature == "number"]
        for verdict in verdicts(building.placed, flat):
            assert any(format_length(verdict.span.clear, "ft-in") == text for text in figures)
        holes = {mark.part for mark in strokes(drawing, "hole")}
        assert holes == {f"{id}/hole//" for bay in flat.bays for id, _ in bay.holes}
        words = texts(drawing, "words")
        level, bearing = building.levels[flat.floor.level], building.levels[flat.floor.bearing]
        assert words[0].endswith(f"top of subfloor at {format_length(level.z, 'ft-in')}")
        assert words[1].endswith(format_length(bearing.z, "ft-in"))
        assert "live load 40 psf, dead 10 psf" in words[3]
        heads = [mark for mark in drawing.marks if isinstance(mark, Region) and mark.feature == "span"]
        assert len(heads) == 2 * len(strokes(drawing, "span")) > 0


def test_it_is_written_on_layers_by_role() -> None:
    project = otterfold_house()
    sheet = compose_view(project, resolve(project), "plan:structure:upper-joists", 48)
    document = ezdxf.read(io.StringIO(write_dxf(sheet).decode("utf-8")))
    used = {entity.dxf.layer for entity in document.modelspace()}
    used |= {entity.dxf.layer for block in document.blocks for entity in block}
    assert used >= {"SLAB-EDGE", "HOLES", "WALLS-BELOW", "WALLS-ABOVE", "BEAMS", "SPANS"}


def test_an_edge_off_its_bearing_is_pointed_out() -> None:
    """A floor of two storeys whose upper wall is moved out hangs out there, for all of that side."""
    house = two_storeys(9000.0, 6000.0)
    parted = apply_edits(house, enter(house, "s2-w1", "part", ""))
    moved = apply_edits(parted, (MoveWall(wall="s2-w1", dx=0.0, dy=-600.0),))
    flat = next(held for held in resolve(moved)[FLOORS] if held.floor.id == house.floors[-1].id)
    pieces = off_bearing(flat)
    assert pieces and min(y for piece in pieces for _, y in piece) == pytest.approx(-600.0, abs=1.0)
    drawing = draw_view(resolve(moved), moved, f"plan:structure:{flat.floor.id}", 50)
    assert "off its bearing" in [mark.text for mark in drawing.marks if isinstance(mark, Text)]


def test_plans_of_floors_without_walls_say_what_they_need() -> None:
    empty = new_project("e", "Empty", "mm", ground="joists")
    kinds = ("plan:framing:", "plan:structure:", "plan:sheets:")
    names = [view.name for view in list_views(empty) if view.name.startswith(kinds)]
    assert len(names) == 3
    for name in names:
        drawing = draw_view(resolve(empty), empty, name, 50)
        assert drawing.messages[0].startswith("Main floor has no joists")


def test_a_small_hole_tells_its_sizes_with_its_name() -> None:
    house = two_storeys(9000.0, 7000.0)
    corners = ((3000.0, 2000.0), (3600.0, 2000.0), (3600.0, 2500.0), (3000.0, 2500.0))
    house = put(house, FloorHole(id="hole", name="Shaft", floor=house.floors[-1].id, corners=corners))
    drawing = draw_view(resolve(house), house, f"plan:framing:{house.floors[-1].id}", 50)
    assert any(text in ("Shaft 600 x 500", "Shaft 500 x 600") for text in texts(drawing, "number"))


@pytest.mark.parametrize("degrees", [0.0, 17.3, 45.0, 90.0, 211.0])
def test_strings_measure_the_house_however_it_is_turned(degrees: float) -> None:
    """Of a floor of 9 x 7 m they say 9000 and 7000, and not how wide it is from corner to corner."""
    house = two_storeys(9000.0, 7000.0)
    house = turned(house, degrees) if degrees else house
    for name in ("framing", "structure"):
        drawing = draw_view(resolve(house), house, f"plan:{name}:{house.floors[-1].id}", 50)
        said = {mark.text for mark in drawing.marks if isinstance(mark, Dimension) and mark.feature == "string"}
        assert said == {"9000", "7000"}
