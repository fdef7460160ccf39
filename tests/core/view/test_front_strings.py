"""Strings of elevations and of insides, and what a view says of a string: by hand against the model."""

from __future__ import annotations

import itertools
from collections.abc import Callable

import pytest
from hypothesis import given
from hypothesis import strategies as st

from deepsection.core.drawing import Dimension, Drawing, text_width
from deepsection.core.drawing.chains import Measure, Place, coarse, stretches
from deepsection.core.edits import SetAnnotation, SetString, TidyLettering, apply_edits, put
from deepsection.core.model import Annotation, ElevationView, Project, Room, StringShow
from deepsection.core.resolve import resolve
from deepsection.core.units import parse_length
from deepsection.core.view import draw_view, list_views
from deepsection.demo import quillback_house
from tests.builders import box_house, window
from tests.campaigns import most_demos, share

SOUTH = "elevation:south"


def drawn(project: Project, view: str = SOUTH, scale: float = 50.0) -> Drawing:
    return draw_view(resolve(project), project, view, scale)


def said(project: Project, view: str, name: str, **what: object) -> Project:
    return apply_edits(project, (SetString(view=view, string=StringShow.model_validate({"name": name, **what})),))


def row(drawing: Drawing, prefix: str) -> list[Dimension]:
    found = [m for m in drawing.marks if isinstance(m, Dimension) and (m.annotation or "").startswith(prefix)]
    return sorted(found, key=lambda mark: (min(mark.x1, mark.x2), min(mark.y1, mark.y2)))


def test_openings_and_breaks_of_an_elevation_by_choice() -> None:
    """A front of 8 m with windows of 1.2 m at 2 and 5 m: 2000, 3000, 3000 by middles; 1400, 1200, 1800 ... by sides."""
    house = put(box_house(8000, 6000), window("w1", "south", 2000, width=1200), window("w2", "south", 5000, width=1200))
    plain = drawn(house)
    assert ("bottom:openings", False) in plain.strings and not row(plain, "string:bottom:openings")
    chosen = said(house, SOUTH, "bottom:openings", shown="shown")
    assert [m.text for m in row(drawn(chosen), "string:bottom:openings")] == ["2000", "3000", "3000"]
    sides = said(house, SOUTH, "bottom:openings", shown="shown", openings="sides")
    assert [m.text for m in row(drawn(sides), "string:bottom:openings")] == ["1400", "1200", "1800", "1200", "2400"]
    both = said(house, SOUTH, "bottom:openings", shown="shown", density="denser")
    assert [m.text for m in row(drawn(both), "string:bottom:openings")] == [
        "1400", "600", "600", "1800", "600", "600", "2400"
    ]  # fmt: skip
    # Under it the whole, farther off than where it stands alone.
    (alone,), (under,) = row(plain, "width:overall"), row(drawn(chosen), "width:overall")
    assert alone.text == under.text == "8000" and abs(under.offset) > abs(alone.offset)


def test_breaks_of_a_front_are_the_ends_of_its_walls() -> None:
    house = quillback_house()
    building = resolve(house)
    want = sorted(
        {
            round(end[0], 3)
            for wall in building.plan.walls
            if wall.wall.status == "outer" and wall.stand().out[1] < -0.999
            for end in (wall.start, wall.end)
        }
    )
    marks = row(drawn(said(house, SOUTH, "bottom:breaks", shown="shown")), "string:bottom:breaks")
    assert [mark.x1 for mark in marks] + [marks[-1].x2] == pytest.approx(want)


def test_the_inside_of_a_room_has_its_clear_height_its_width_and_its_openings() -> None:
    """A room of 8 by 6 m to the outside of its frame, a window with its sill at 900 and its head at 2100."""
    house = put(
        box_house(8000, 6000),
        window("w1", "north", 3000, width=1200),
        Room(id="r", name="Room", x=4000.0, y=3000.0, level="floor"),
        ElevationView(id="in", name="Inside", look=90.0, room="r"),
    )
    building = resolve(house)
    drawing = drawn(house, "elevation:in")
    (space,) = building.rooms
    assert space.space is not None
    low, _, high, _ = space.space.bounds
    (overall,) = row(drawing, "string:bottom:overall")
    assert (overall.x1, overall.x2) == pytest.approx((low, high), abs=1.0)
    opening = building.openings["north"][0]
    heights = row(drawing, "string:left:openings")
    floor = building.levels["floor"].z
    assert [mark.y1 for mark in heights] == pytest.approx([floor, opening.sill.total, opening.head.total], abs=0.01)
    (clear,) = row(drawing, "string:left:clear")
    assert parse_length(clear.text, "mm") == pytest.approx(sum(parse_length(m.text, "mm") for m in heights))
    widths = row(drawing, "string:bottom:openings")
    middle = building.plan.by_id["north"].at(opening.centre)[0]
    assert widths[0].x2 == pytest.approx(middle, abs=0.01) and len(widths) == 2


def test_sills_and_heads_of_an_elevation_by_choice() -> None:
    """Sills at 600 and 900 over the floor, both heads at 2100: 600, 300 and 1200, beside the levels, which move out."""
    house = put(
        box_house(8000, 6000),
        window("w1", "south", 2000, width=1200, sill=900, height=1200),
        window("w2", "south", 5000, width=1200, sill=600, height=1500),
        window("w3", "north", 5000, width=1200, sill=300, height=1500),
    )
    plain = drawn(house)
    assert ("left:openings", False) in plain.strings and not row(plain, "string:left:openings")
    chosen = drawn(said(house, SOUTH, "left:openings", shown="shown"))
    heights = row(chosen, "string:left:openings")
    assert [mark.text for mark in heights] == ["600", "300", "1200"]
    assert heights[0].y1 == pytest.approx(resolve(house).levels["floor"].z)
    for prefix in ("height:", "height:overall"):
        before, after = row(plain, prefix)[0], row(chosen, prefix)[0]
        assert abs(after.offset) > abs(before.offset) > 0 and abs(after.offset) > abs(heights[0].offset)


def test_a_string_is_moved_away_and_tidied_back() -> None:
    house = box_house(8000, 6000)
    for view, name, prefix in (
        (SOUTH, "bottom:overall", "width:overall"),
        (SOUTH, "left:levels", "height:"),
        ("plan", "top:overall", "string:top:overall"),
        ("plan", "right:overall", "string:right:overall"),
    ):
        moved = said(house, view, name, away=9.0)
        before, after = row(drawn(house, view), prefix)[0], row(drawn(moved, view), prefix)[0]
        assert abs(after.offset) - abs(before.offset) == pytest.approx(9.0) and after.offset * before.offset > 0
        tidied = apply_edits(moved, (TidyLettering(view=view),))
        assert row(drawn(tidied, view), prefix)[0] == before and tidied.shows[0].strings == ()
    assert apply_edits(house, (TidyLettering(view="plan"),)) == house, "nothing was moved"


@pytest.mark.parametrize("demo", most_demos())
def test_every_string_of_every_view_still_adds_up_however_dense(demo: Callable[[], Project]) -> None:
    """Each string is one line without gaps, from end to end of the usual one."""
    project = demo()
    building = resolve(project)
    for view in list_views(project):
        if view.name.startswith("section:setting"):
            continue
        names = [name for name, _ in draw_view(building, project, view.name, 10.0).strings]
        names = [name for name in names if not name.startswith(("inside", "bottom:over", "bottom:overhangs"))]
        drawings = []
        for density in share(("coarser", "denser"), ("coarser", "usual", "denser")):
            dense = project
            for name in names:
                dense = said(dense, view.name, name, shown="shown", density=density)
            drawings.append(draw_view(building, dense, view.name, 10.0))
        for name in names:
            wholes = []
            for drawing in drawings:
                marks = row(drawing, f"string:{name}:")
                if not marks:
                    continue
                upright = marks[0].x1 == marks[0].x2
                ends = sorted(((m.y1, m.y2) if upright else (m.x1, m.x2)) for m in marks)
                if upright or marks[0].y1 == marks[0].y2:
                    assert all(a[1] == pytest.approx(b[0]) for a, b in itertools.pairwise(ends)), (view.name, name)
                wholes.append(round(sum(parse_length(m.text.rpartition("= ")[2], project.units) for m in marks), 6))
            assert len(set(wholes)) <= 1, (view.name, name, wholes)


@given(st.lists(st.floats(0.0, 20_000.0), min_size=2, max_size=12, unique=True), st.sampled_from([20.0, 100.0]))
def test_a_coarser_string_has_room_for_every_figure_and_keeps_its_ends(places: list[float], scale: float) -> None:
    measure = Measure("mm")
    held = [Place(at, str(k)) for k, at in enumerate(sorted(places))]
    kept = coarse(held, measure, scale)
    assert kept[0] == held[0] and kept[-1] == held[-1] and set(kept) <= set(held)
    if len(kept) > 2:
        for stretch in stretches(kept, measure, scale):
            assert (stretch.end - stretch.start) / scale + 1.0 > text_width(stretch.text, 2.5) + 1.0


def test_a_string_of_no_name_is_refused() -> None:
    for name in ("", "bottom", "bottom:", "Bottom:openings", "a:b:c", "x" * 200):
        with pytest.raises(ValueError, match="name"):
            StringShow(name=name)


def test_a_figure_is_marked_for_what_it_is_besides() -> None:
    """Common practice, no source: MIN., MAX., HOLD, TYP., SIM. after the figure."""
    house = put(box_house(8000, 6000), window("w1", "south", 2000, width=1200))
    key = "string:bottom:openings:start-w1"
    plain = next(mark for mark in row(drawn(house, "plan"), key))
    for word, written in (("minimum", "2000 MIN."), ("hold", "2000 HOLD"), ("typical", "2000 TYP."), (None, "2000")):
        held = Annotation.model_validate({"key": key, "mark": word})
        marked = apply_edits(house, (SetAnnotation(view="plan", annotation=held),))
        assert next(mark for mark in row(drawn(marked, "plan"), key)).text == written
    assert plain.text == "2000"
    tidied = apply_edits(marked, (TidyLettering(view="plan"),))
    assert row(drawn(tidied, "plan"), key)
