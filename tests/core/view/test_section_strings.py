"""Strings of sections: every height, span and width is that of the model, and each string adds up."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Callable

import pytest

from deepsection.core.drawing import Dimension, Drawing
from deepsection.core.edits import put
from deepsection.core.model import Project, Room, SectionLine, StringShow, ViewShow, bearing_layer
from deepsection.core.resolve import resolve
from deepsection.core.units import parse_length
from deepsection.core.view import draw_view, list_views
from tests.builders import box_house, joist_house, window
from tests.campaigns import most_demos


def strings(drawing: Drawing) -> dict[str, list[Dimension]]:
    """The dimensions of a view by their string, from the left and from below."""
    found: dict[str, list[Dimension]] = defaultdict(list)
    for mark in drawing.marks:
        if isinstance(mark, Dimension) and (mark.annotation or "").startswith("string:"):
            _, side, row, _ = (
                str(mark.annotation).split(":", 3) if mark.feature != "clear" else ("", "inside", "clear", "")
            )
            found[f"{side}:{row}"].append(mark)
    return {name: sorted(held, key=lambda mark: (mark.x1, mark.y1)) for name, held in found.items()}


def across(house: Project) -> Project:
    """The house with a section through 4 m, from south to north, seen from the east."""
    return put(house, SectionLine(id="s", name="A", x1=4000.0, y1=-3000.0, x2=4000.0, y2=12_000.0))


def drawn(house: Project, scale: float = 20.0) -> dict[str, list[Dimension]]:
    return strings(draw_view(resolve(house), house, "section:s", scale))


def test_bearing_faces_footings_and_spans_by_hand() -> None:
    """6 m over frames of some thickness, on footings centred under the foundation walls."""
    house = across(box_house(8000.0, 6000.0))
    wall = house.make_ups[0]
    frame = wall.layers[bearing_layer(wall)].thickness
    held = drawn(house)
    assert [mark.text for mark in held["bottom:walls"]] == [f"{frame:g}", f"{6000 - 2 * frame:g}", f"{frame:g}"]
    wide = house.foundations[0].footing_width
    first, between, last = held["bottom:footings"]
    assert [first.text, last.text] == [f"{wide:g}"] * 2
    assert abs(between.x2 - between.x1) + 2 * wide == pytest.approx(last.x2 - first.x1)
    assert [mark.text for mark in held["bottom:overall"]] == ["6000"]


def test_overhangs_of_the_roof_from_the_frames() -> None:
    held = drawn(across(joist_house(8000.0, 6000.0)))
    texts = [parse_length(mark.text, "mm") for mark in held["bottom:overhangs"]]
    roof = joist_house(8000.0, 6000.0).roofs[0].edges[0].overhang
    assert texts[1] == 6000.0 and texts[0] == texts[2] >= roof


def test_sill_and_head_of_what_is_cut_from_the_floor() -> None:
    house = put(across(box_house(8000.0, 6000.0)), window("w1", "south", 4000.0, sill=900.0, height=1200.0))
    before, after = drawn(across(box_house(8000.0, 6000.0))), drawn(house)
    assert "left:openings" not in before and "right:openings" not in before
    (name,) = [name for name in after if name.endswith(":openings")]
    assert [mark.text for mark in after[name]] == ["900", "1200"]
    assert after[name][0].y1 == pytest.approx(resolve(house).levels["floor"].z)


def test_levels_stand_at_the_right_too_by_choice() -> None:
    house = put(across(box_house(8000.0, 6000.0)), window("w1", "south", 4000.0, sill=900.0, height=1200.0))
    plain = drawn(house)
    assert "right:levels" not in plain and "right:overall" not in plain
    names = ("right:levels", "right:overall")
    show = ViewShow(
        id="show-1", view="section:s", strings=tuple(StringShow(name=name, shown="shown") for name in names)
    )
    both = drawn(put(house, show))
    for row in ("levels", "overall"):
        left, right = both[f"left:{row}"], both[f"right:{row}"]
        assert [mark.text for mark in left] == [mark.text for mark in right]
        assert left[0].x1 < right[0].x1
    offsets = [abs(both[name][0].offset) for name in ("right:levels", "right:overall")]
    assert offsets[0] < offsets[1]


def test_the_clear_height_of_a_room_is_between_floor_and_ceiling() -> None:
    """The floor of the house by its level, the underside of the ceiling by its solids."""
    house = put(across(joist_house(8000.0, 6000.0)), Room(id="r", name="Hall", x=4000.0, y=3000.0))
    building = resolve(house)
    (mark,) = drawn(house)["inside:clear"]
    floor = building.levels["floor"].z
    boxes = [part.solid.bounds for part in building.parts]
    over = [box for box in boxes if box.z0 > floor + 2000.0 and box.x0 < 4000.0 < box.x1 and box.y0 < 3000.0 < box.y1]
    under = min(box.z0 for box in over)
    assert (mark.y1, mark.y2) == (pytest.approx(floor), pytest.approx(under))


@pytest.mark.parametrize("make", most_demos())
def test_heights_are_those_of_the_levels_and_add_up(make: Callable[[], Project]) -> None:
    project = make()
    building = resolve(project)
    heights = [total.total for total in building.sums.values()]
    for view in list_views(project):
        if not view.name.startswith("section:") or "setting" in view.name:
            continue
        held = strings(draw_view(building, project, view.name, 20.0))
        for name in ("left:levels", "left:overall"):
            for mark in held[name]:
                for z in (mark.y1, mark.y2):
                    assert min(abs(z - total) for total in heights) < 1e-6, (view.name, z)
        whole = sum(parse_length(mark.text, project.units) for mark in held["left:levels"])
        assert whole == pytest.approx(parse_length(held["left:overall"][0].text, project.units), abs=1e-6)
        for row in held.values():
            for mark in row:
                length = math.dist((mark.x1, mark.y1), (mark.x2, mark.y2))
                step = 25.4 / 16 if project.units == "ft-in" else 1.0
                assert parse_length(mark.text, project.units) == pytest.approx(length, abs=step + 1e-6)


def test_a_string_is_left_out_of_one_section_and_named_all_the_same() -> None:
    house = put(
        across(box_house(8000.0, 6000.0)),
        ViewShow(id="v", view="section:s", strings=(StringShow(name="bottom:walls", shown="hidden"),)),
    )
    drawing = draw_view(resolve(house), house, "section:s", 20.0)
    assert "bottom:walls" not in strings(drawing) and ("bottom:walls", False) in drawing.strings
    assert ("bottom:footings", True) in drawing.strings


def test_depths_of_members_are_those_of_their_layers() -> None:
    """Joists of the floor and of the ceiling, rafters of the roof, cut along or across: as deep as the layer is."""
    house = joist_house(8000.0, 6000.0)
    x = next(box.x0 + 20.0 for box in (part.solid.bounds for part in resolve(house).parts if part.role == "rafter"))
    cuts = (
        SectionLine(id="s", name="A", x1=x, y1=-3000.0, x2=x, y2=12_000.0),
        SectionLine(id="t", name="B", x1=-3000.0, y1=3100.0, x2=12_000.0, y2=3100.0),
    )
    building = resolve(put(house, *cuts))
    framed = {
        element.id: next(layer.thickness for layer in building.placed.make_ups[element.make_up].layers if layer.framing)
        for element in (*house.floors, *house.roofs, *house.ceilings)
    }
    seen = set()
    for cut in cuts:
        for scale, on in ((20.0, True), (50.0, False)):
            drawing = draw_view(building, building.placed.project, f"section:{cut.id}", scale)
            assert dict(drawing.strings)["inside:depths"] == on
            marks = [m for m in drawing.marks if isinstance(m, Dimension) and m.feature == "depth"]
            assert bool(marks) == on
            for mark in marks:
                _, _, _, element, role = str(mark.annotation).split(":")
                length = math.dist((mark.x1, mark.y1), (mark.x2, mark.y2))
                assert parse_length(mark.text, "mm") == pytest.approx(length, abs=0.5)
                if role in ("joist", "rafter"):
                    assert length == pytest.approx(framed[element], abs=0.1), mark.annotation
                    seen.add(role)
                # Of a rafter square to its slope, of 1 in 2; of others upright.
                run, rise = abs(mark.x2 - mark.x1), mark.y2 - mark.y1
                assert run == pytest.approx(rise / 2 if role == "rafter" else 0.0, abs=0.1)
    assert seen == {"joist", "rafter"}
