"""Where a section is cut, as its particulars say it: distances and middles by hand, in a house turned any way."""

from __future__ import annotations

import math

import pytest

from deepsection.core.edits import apply_edits, put
from deepsection.core.errors import BadInput
from deepsection.core.model import GridLine, Project, Room, SectionLine
from deepsection.core.particulars.fields import fields_of
from deepsection.core.resolve import resolve
from deepsection.core.rows.rows import Row
from tests.builders import box_house, window
from tests.turning import turned


def house(degrees: float = 0.0, look: str = "left") -> Project:
    """8 by 6 m with a section at x = 3 m that looks west (left) or east, windows, a room, grid lines, another one."""
    made = put(
        box_house(8000.0, 6000.0),
        window("w1", "south", 5000.0, width=1200.0),
        window("w2", "east", 3000.0, width=1200.0),
        Room(id="r", name="Hall", x=2200.0, y=3000.0, level="floor"),
        GridLine(id="g1", name="1", x=3600.0, y=0.0, angle=90.0),
        GridLine(id="g2", name="A", x=0.0, y=1000.0, angle=0.0),
        SectionLine.model_validate(
            {"id": "s", "name": "A", "x1": 3000, "y1": -1000, "x2": 3000, "y2": 9000, "look": look}
        ),
        SectionLine(id="t", name="B", x1=7000.0, y1=9000.0, x2=7000.0, y2=-1000.0),
    )
    return turned(made, degrees) if degrees else made


def rows(project: Project) -> dict[str, Row]:
    return {row.field.id: row for row in fields_of(project, project.find("s"))}


def entered(project: Project, field: str, text: str) -> Project:
    return apply_edits(project, rows(project)[field].edits(text))


def shifted(before: Project, after: Project) -> float:
    """How far a section was moved, to the right of it; its ends by as much."""
    (a, b) = (next(held for held in project.sections if held.id == "s") for project in (before, after))
    length = math.hypot(a.x2 - a.x1, a.y2 - a.y1)
    nx, ny = (a.y2 - a.y1) / length, -(a.x2 - a.x1) / length
    one, other = ((b.x1 - a.x1) * nx + (b.y1 - a.y1) * ny, (b.x2 - a.x2) * nx + (b.y2 - a.y2) * ny)
    assert one == pytest.approx(other, abs=1e-6)
    assert math.dist((a.x1, a.y1), (b.x1, b.y1)) == pytest.approx(abs(one), abs=1e-6), "across itself alone"
    return one


@pytest.mark.parametrize("degrees", [0.0, 33.0, -121.3])
@pytest.mark.parametrize("look", ["left", "right"])
def test_distances_are_typed_from_walls_grid_lines_and_sections(degrees: float, look: str) -> None:
    """At 3 m: 3 m from the west wall, 5 m from the east one, 600 from grid line 1, 4 m from section B."""
    made = house(degrees, look)
    west, east = ("ahead", "behind") if look == "left" else ("behind", "ahead")
    held = rows(made)
    texts = {id: held[id].field.text for id in (west, east, "grid", "other")}
    assert texts == {west: "3000", east: "5000", "grid": "600", "other": "4000"}
    assert (held["grid"].field.label, held["other"].field.label) == ("From grid line 1", "From section B")
    typed = ((west, "2200", -800.0), (east, "2200", 2800.0), ("grid", "0", 600.0), ("other", "1m", 3000.0))
    for field, text, wanted in typed:
        assert shifted(made, entered(made, field, text)) == pytest.approx(wanted, abs=1e-5)
    for bad in ("-5", "0", "far"):
        with pytest.raises(BadInput):
            entered(made, west, bad)


@pytest.mark.parametrize("degrees", [0.0, 33.0])
def test_it_goes_through_the_middle_of_what_is_chosen(degrees: float) -> None:
    """The window of the south wall is at 5 m, the room at 2.2 m; that of the wall that runs along is no choice."""
    made = house(degrees)
    choice = rows(made)["through"]
    assert [option.label for option in choice.field.options] == ["where it lies", "W1", "Hall"]
    assert choice.field.text == "" and entered(made, "through", "") == made
    for id, wanted in (("w1", 2000.0), ("r", -800.0)):
        after = entered(made, "through", id)
        assert shifted(made, after) == pytest.approx(wanted, abs=1e-5)
        assert rows(after)["through"].field.text == id and entered(after, "through", id).sections == after.sections
    with pytest.raises(BadInput, match="choices"):
        entered(made, "through", "w2")


def test_its_copy_is_a_section_of_its_own() -> None:
    made = house()
    after = entered(made, "copy", "")
    copy = after.sections[-1]
    assert len(after.sections) == 3 and copy.id not in ("s", "t") and copy.name == "C"
    assert (copy.x1, copy.x2, copy.look) == (2000.0, 2000.0, "left")


@pytest.mark.parametrize("degrees", [0.0, 23.0])
def test_a_section_in_a_face_is_said_with_the_step_that_clears_it(degrees: float) -> None:
    house = box_house(9000.0, 6000.0)
    building = resolve(house)
    wall = building.plan.by_id["south"]
    face = wall.at(0.0, wall.inner)[1]

    def at(y: float) -> list[str]:
        line = SectionLine(id="s", name="A", x1=-2000.0, y1=y, x2=11_000.0, y2=y)
        found = resolve(turned(put(house, line), degrees)).diagnostics
        return [held.message for held in found if held.code == "section-in-face"]

    assert len(at(face)) == 1 and "Move it by 3" in at(face)[0]
    assert at(face + 3.0) == [] and at(3000.0) == []
