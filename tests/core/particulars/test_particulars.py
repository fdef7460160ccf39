"""Particulars: every fact of every element reads back, and what cannot be is refused at its field."""

from __future__ import annotations

import pytest

from deepsection.core.edits import apply_edits
from deepsection.core.errors import BadInput, DeepSectionError, UnknownElement
from deepsection.core.model import Project, wall_axis, wall_length
from deepsection.core.particulars import describe_element, enter, enter_all, fields_of, ladder
from deepsection.core.resolve import Building, resolve
from deepsection.core.units import parse_length
from deepsection.demo import fernacre_bungalow


def typed(project: Project, element: str, field: str, text: str) -> Project:
    return apply_edits(project, enter(project, element, field, text))


def value(project: Project, element: str, field: str) -> str:
    held = project if element == "project" else project.find(element)
    return next(row.field.text for row in fields_of(project, held) if row.field.id == field)


def test_every_element_can_be_described(house: Project, building: Building) -> None:
    for id in [
        "project",
        *(element.id for element in house.elements() if element.id not in {j.id for j in house.joints}),
    ]:
        if any(held.id == id for held in house.make_ups):
            continue
        facts = describe_element(house, building, id)
        assert facts.title and facts.fields
        assert len({field.id for field in facts.fields}) == len(facts.fields)
        for field in facts.fields:
            assert field.label
            if field.kind == "choice":
                assert field.text in {option.value for option in field.options}


def test_typing_what_stands_there_changes_nothing(house: Project) -> None:
    """Every length is shown to 1/16 inch: typed back it is the same house, but for what is finer than that."""
    for element in (*house.openings, *house.walls, *house.roofs, *house.rungs, *house.sections):
        for row in fields_of(house, element):
            if row.field.text and row.field.kind in ("text", "choice", "number", "pitch"):
                assert apply_edits(house, row.edits(row.field.text)) == house, f"{element.id} {row.field.id}"


@pytest.mark.parametrize(
    ("element", "field", "text", "shown"),
    [
        ("w2", "width", "4'", "4'-0\""),
        ("w2", "head", "7'", "7'-0\""),
        ("w2", "from_start", "20' + 3/4\"", "20'-0 3/4\""),
        ("w2", "from_end", '30"', "2'-6\""),
        ("roof-main", "pitch", "45 deg", "12:12"),
        ("roof-main", "overhang", "2'", "2'-0\""),
        ("roof-main", "fascia", '5 1/2"', '5 1/2"'),
        ("plate", "term:stud", "104 5/8", "8'-8 5/8\""),
        ("plate", "total", "9'", "9'-0\""),
        ("south", "length", "40'", "40'-0\""),
        ("section-a", "depth", "3m", "9'-10 1/8\""),
        ("project", "units", "mm", "mm"),
        ("foundation", "footing_width", "20", "1'-8\""),
    ],
)
def test_what_is_typed_is_what_stands_there(house: Project, element: str, field: str, text: str, shown: str) -> None:
    assert value(typed(house, element, field, text), element, field) == shown


def test_a_head_moves_a_window_and_stretches_a_door(house: Project) -> None:
    window = typed(house, "w2", "head", "7'").find("w2")
    assert window.height == pytest.approx(4 * 304.8) and window.sill == pytest.approx(3 * 304.8)
    door = typed(house, "d1", "head", "7'").find("d1")
    assert door.sill == 0 and door.height == pytest.approx(7 * 304.8)


@pytest.mark.parametrize(
    ("element", "field", "text"),
    [
        ("w2", "width", "0"),
        ("w2", "width", "-3'"),
        ("w2", "width", "wide"),
        ("w2", "sill", "-1'"),
        ("w2", "head", "1'"),
        ("w2", "bars_across", "2.5"),
        ("w2", "bars_across", "99"),
        ("w2", "stays", "left"),
        ("w2", "number", " "),
        ("roof-main", "pitch", "0"),
        ("roof-main", "pitch", "90 deg"),
        ("roof-main", "overhang", "-1'"),
        ("plate", "term:stud", "0"),
        ("plate", "total", "-9'"),
        ("south", "length", "0"),
        ("south", "make_up", "roof"),
        ("section-a", "depth", ""),
    ],
)
def test_what_cannot_be_is_refused_at_its_field(house: Project, element: str, field: str, text: str) -> None:
    with pytest.raises(BadInput) as caught:
        typed(house, element, field, text)
    assert caught.value.message and caught.value.element == element and caught.value.field


def test_unknown_fields_and_elements_are_named(house: Project) -> None:
    with pytest.raises(UnknownElement):
        enter(house, "w2", "colour", "red")
    with pytest.raises(UnknownElement):
        enter(house, "ghost", "width", "1'")


def test_the_ladder_runs_from_high_to_low(house: Project, building: Building) -> None:
    rungs = ladder(house, building)
    assert [rung.z for rung in rungs] == sorted((rung.z for rung in rungs), reverse=True)
    assert [rung.label for rung in rungs if rung.stated] == ["Plate", "Main floor", "Grade", "Footing"]
    plate = next(rung for rung in rungs if rung.id == "plate")
    assert [(term.label, term.free) for term in plate.terms] == [
        ("bottom plate", False),
        ("stud", True),
        ("2 x top plate", False),
    ]
    assert all(rung.sum in building.sums for rung in rungs)


def test_the_strip_is_at_true_scale(house: Project, building: Building) -> None:
    strip = describe_element(house, building, "south").strip
    assert strip is not None
    assert sum(layer.share for layer in strip.layers) == pytest.approx(1)
    frame = next(layer for layer in strip.layers if layer.id == "frame")
    assert frame.share == pytest.approx(5.5 * 25.4 / (0.75 * 25.4 + 0.5 + 0.5 * 25.4 + 5.5 * 25.4 + 0.2 + 0.5 * 25.4))
    assert strip.face_label == "outside of 2x6 studs"


def test_checks_show_where_they_fail(house: Project) -> None:
    off = house.model_copy(
        update={
            "openings": tuple(o.model_copy(update={"distance": 9e4}) if o.id == "w2" else o for o in house.openings)
        }
    )
    facts = describe_element(off, resolve(off), "w2")
    assert [check.severity for check in facts.checks] == ["blocking"]
    assert describe_element(off, resolve(off), "w3").checks == ()


def test_no_text_in_any_field_escapes_as_another_error(house: Project) -> None:
    """Whatever is typed anywhere: edits, or an error of ours; never anything else."""
    for element in (*house.openings[:2], house.walls[0], house.roofs[0], house.rungs[0], house.sections[0], house):
        id = "project" if element is house else element.id
        for row in fields_of(house, element):
            for text in ("", "💥", "1/0", "-", "9" * 40, "12' 6 1/2\""):
                try:
                    apply_edits(house, enter(house, id, row.field.id, text))
                except DeepSectionError as error:
                    assert error.message


def test_a_set_in_names_the_face_that_it_is_measured_from(house: Project) -> None:
    assert value(house, "w2", "set_in_face") == "sheathing:outer"
    other = fernacre_bungalow()
    assert value(other, "w1", "set_in_face") == "outer:outer"
    frame = typed(typed(house, "w2", "set_in_face", "frame:inner"), "w2", "set_in", '1"')
    placed = next(held for held in resolve(frame).openings["south"] if held.opening.id == "w2")
    assert placed.face == pytest.approx(-5.5 * 25.4 - 25.4), "1 inch inward from the inside of the frame"


def test_a_wall_is_bowed_and_all_its_radii_are_shown(house: Project) -> None:
    """Circular segment: r = c^2 / (8 h) + h / 2, with the chord of the south wall; faces lie beside the line."""
    south = house.find("south")
    chord = wall_length(house, south)
    bowed = typed(house, "south", "rise", "4'")
    radius = chord**2 / (8 * 4 * 304.8) + 2 * 304.8
    lapped = (0.75 + 0.5) * 25.4 + 0.5
    rest = (5.5 + 0.5) * 25.4 + 0.2
    shown = [parse_length(value(bowed, "south", field), "ft-in") for field in RADII]
    assert shown == pytest.approx([radius, radius + lapped, radius - rest], abs=25.4 / 16)
    outer = typed(bowed, "south", "radius_outside", "80'")
    assert wall_axis(outer, outer.find("south")).radius() == pytest.approx(80 * 304.8 - lapped)
    inward = typed(house, "south", "rise", "-4'")
    assert inward.find("south").bulge == -bowed.find("south").bulge
    assert parse_length(value(inward, "south", "radius_outside"), "ft-in") < radius, "the hollow side has the lesser"
    straight = apply_edits(bowed, enter(bowed, "south", "straighten", ""))
    assert straight.walls == house.walls
    assert [held.distance for held in straight.openings] == pytest.approx([held.distance for held in house.openings])


RADII = ("radius", "radius_outside", "radius_inside")


@pytest.mark.parametrize(("field", "text"), [("rise", "0"), ("radius", "2'"), ("radius_inside", "0"), ("rise", "900'")])
def test_an_arc_that_cannot_be_is_refused(house: Project, field: str, text: str) -> None:
    bowed = typed(house, "south", "rise", "4'")
    with pytest.raises(BadInput) as caught:
        typed(bowed, "south", field, text)
    assert caught.value.element == "south" and caught.value.field


def test_the_set_out_line_moves_and_the_wall_stays(house: Project) -> None:
    before = {wall.wall.id: wall.footprint for wall in resolve(house).plan.walls}
    after = typed(house, "south", "set_out_line", "frame:inner")
    planned = {wall.wall.id: wall for wall in resolve(after).plan.walls}
    assert planned["south"].footprint.symmetric_difference(before["south"]).area < 1.0
    assert planned["south"].inner == pytest.approx(-(0.5 * 25.4 + 0.2)), "what is left inside of the frame"
    kept = typed(house, "south", "set_out", "frame:inner")
    assert resolve(kept).plan.walls[0].start == resolve(house).plan.walls[0].start, "the line stays, the wall moves"


def test_one_text_counts_for_all_that_are_selected(house: Project) -> None:
    walls = [wall.id for wall in house.walls if wall.status == "outer"][:3]
    after = apply_edits(house, enter_all(house, walls, "height", "4'"))
    assert {after.find(id).top.height for id in walls} == {4 * 304.8}
    with pytest.raises(DeepSectionError):
        enter_all(house, [*walls, "w2"], "bows", "4'")


def test_how_a_wall_joins_is_chosen_at_each_end(house: Project) -> None:
    south = house.find("south")
    passing = typed(house, "south", "join_end", "through")
    assert passing.find(south.end).through == "south" and value(passing, "south", "join_end") == "through"
    other = next(wall.id for wall in house.walls if south.end in (wall.start, wall.end) and wall.id != "south")
    at = "join_start" if house.find(other).start == south.end else "join_end"
    assert value(passing, other, at) == "butts"
    assert typed(passing, "south", "join_end", "joined") == house
    assert typed(house, "south", "join_start", "apart").find(south.start).join == "apart"


def total(project: Project, rung: str) -> float:
    return resolve(project).levels[rung].z - resolve(project).levels["floor"].z


def test_a_locked_height_keeps_its_total_and_says_why(house: Project) -> None:
    """9' - 1 1/8" in three parts: a top plate thicker by 1/2" twice takes 1" from the stud."""
    before = total(house, "plate")
    locked = typed(house, "plate", "locked", "locked")
    thicker = typed(locked, "plate", "term:top-plate", '2"')
    assert total(thicker, "plate") == pytest.approx(before)
    stud = next(term.value for term in thicker.find("plate").terms if term.id == "stud")
    assert stud == pytest.approx(next(t.value for t in house.find("plate").terms if t.id == "stud") - 25.4)
    for field, text, told in (
        ("total", "9'", "locked"),
        ("term:stud", "8'", "what makes it up"),
        ("term:top-plate", "9'", "leave nothing"),
    ):
        with pytest.raises(BadInput, match=told):
            typed(locked, "plate", field, text)
    assert total(typed(typed(locked, "plate", "locked", "free"), "plate", "total", "9'"), "plate") == pytest.approx(
        9 * 304.8
    )


def test_levels_are_inserted_hidden_and_taken_away(house: Project, building: Building) -> None:
    after = typed(house, "plate", "insert_above", "3'")
    level = after.rungs[-1]
    assert total(after, level.id) == pytest.approx(total(house, "plate") + 3 * 304.8)
    assert describe_element(after, resolve(after), level.id).removable
    assert not describe_element(house, building, "plate").removable, "walls need it"
    below = typed(house, "floor", "insert_below", "2'")
    assert total(below, below.rungs[-1].id) == pytest.approx(-2 * 304.8)
    hidden = typed(after, level.id, "hidden", "hidden")
    assert level.id not in {rung.id for rung in ladder(hidden, resolve(hidden))}
    for text in ("0", "-1'"):
        with pytest.raises(BadInput):
            typed(house, "plate", "insert_above", text)


def test_parts_are_added_to_a_height_and_taken_out(house: Project) -> None:
    more = typed(house, "plate", "add_part", 'ceiling board: 5/8"')
    assert total(more, "plate") - total(house, "plate") == pytest.approx(0.625 * 25.4)
    part = more.find("plate").terms[-1]
    assert part.name == "ceiling board"
    assert typed(more, "plate", "take_part", part.id) == house
    for text in ("screed", "screed: 0", ": 3"):
        with pytest.raises(BadInput):
            typed(house, "plate", "add_part", text)
