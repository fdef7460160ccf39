"""Sections of a room: cropped to its floor, ceiling and walls, what stands in it cut, outlined heavy."""

from __future__ import annotations

import pytest
import shapely

from deepsection.core.drawing import Drawing, Region, Stroke
from deepsection.core.edits import Remove, apply_edits, changed, put
from deepsection.core.model import Project, Room, SectionLine
from deepsection.core.particulars import describe_element
from deepsection.core.resolve import resolve
from deepsection.core.view import draw_view
from deepsection.demo import hollin_bothy, larkmoor_house
from tests.builders import stair_house
from tests.reading import faults
from tests.turning import turned


def roomy(degrees: float = 0.0, **line: object) -> Project:
    """The hall of a stair house, cut across its stair, which runs east from (2 m, 3.5 m)."""
    house = put(stair_house(), Room(id="hall", name="Hall", x=6500.0, y=1500.0))
    facts = {"id": "s", "name": "C", "x1": 3500.0, "y1": 1000.0, "x2": 3500.0, "y2": 5000.0, "room": "hall"} | line
    return turned(put(house, SectionLine.model_validate(facts)), degrees)


def view(project: Project, scale: float = 25.0) -> Drawing:
    return draw_view(resolve(project), project, "section:s", scale)


def outline(drawing: Drawing) -> shapely.Polygon:
    (ring,) = [m for m in drawing.marks if isinstance(m, Stroke) and m.feature == "clear" and m.closed]
    assert ring.pen == "cut"
    return shapely.Polygon([(x, y) for x, y, _ in ring.path])


@pytest.mark.parametrize("degrees", [0.0, 31.0])
def test_it_is_as_wide_and_high_as_the_room_is_clear(degrees: float) -> None:
    """By hand: from inner face to inner face of the walls of a 7 m deep house, from floor to ceiling."""
    project = roomy(degrees, x1=7500.0, x2=7500.0)
    building = resolve(project)
    x0, y0, x1, y1 = outline(view(project)).bounds
    south, north = (building.plan.by_id[id] for id in ("south", "north"))
    deep = abs(south.inner_at(0.0)) + abs(north.inner_at(0.0))
    assert x1 - x0 == pytest.approx(7000.0 - deep, abs=1.0)
    assert y0 == pytest.approx(building.levels["floor"].z, abs=1.0)
    assert 2300.0 < y1 - y0 < 2800.0


def test_what_stands_in_the_room_is_cut_and_nothing_reaches_past_it() -> None:
    drawing = view(roomy())
    around = outline(drawing).buffer(1.0)
    cut = [m for m in drawing.marks if isinstance(m, Region) and m.feature == "cut"]
    assert cut and all((m.part or "").startswith("way-up/") for m in cut)
    for mark in drawing.marks:
        if isinstance(mark, Region) and mark.part and mark.feature in ("cut", "face"):
            assert around.covers(shapely.Polygon([(x, y) for x, y, _ in mark.rings[0]]))
    assert drawing.title == "Section C, Hall" and faults(drawing) == []


def test_a_line_outside_of_its_room_says_so_and_one_whose_room_goes_shows_the_house() -> None:
    project = roomy()
    away = put(project, changed(project.find("s"), x1=-5000.0, x2=-5000.0))
    drawing = view(away)
    assert drawing.marks == () and "does not go through Hall" in drawing.messages[0]
    after = apply_edits(project, (Remove(elements=("hall",)),))
    assert after.find("s").room is None and view(after).messages == ()


def test_a_room_makes_a_section_of_itself_with_one_action() -> None:
    project = larkmoor_house()
    rows = describe_element(project, resolve(project), project.rooms[0].id)
    assert "Draw a section of it" in str(rows)


def test_a_vault_is_shown_as_it_slopes() -> None:
    """The clear outline of a vaulted hall across its eaves is higher in the middle than at its walls."""
    project = hollin_bothy()
    hall = project.find("room-hall")
    line = SectionLine(id="s", name="D", x1=hall.x, y1=hall.y - 900.0, x2=hall.x, y2=hall.y + 900.0, room=hall.id)
    ring = outline(view(put(project, line)))
    x0, y0, x1, y1 = ring.bounds
    at_wall = ring.intersection(shapely.box(x0, y0, x0 + 20.0, y1)).bounds
    # By hand: over half of the room the vault rises by its pitch.
    assert y1 - at_wall[3] == pytest.approx(hall.vault * ((x1 - x0) / 2 - 20.0), rel=0.06)
