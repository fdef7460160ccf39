"""Make-ups edited layer by layer: what moves, what stays, what is refused, what is pointed out."""

from __future__ import annotations

import pytest

from deepsection.core.edits import apply_edits, changed, put
from deepsection.core.errors import BadInput, RefusedEdit
from deepsection.core.model import Layer, MakeUp, Project
from deepsection.core.particulars import describe_element, enter, fields_of
from deepsection.core.resolve import derived_name, resolve
from deepsection.demo import DEMOS
from tests.builders import box_house, two_storeys


def entered(project: Project, field: str, text: str, make_up: str = "wall-lap") -> Project:
    return apply_edits(project, enter(project, make_up, field, text))


def layers(project: Project, make_up: str = "wall-lap") -> list[tuple[str, float]]:
    return [(layer.id, layer.thickness) for layer in project.find(make_up).layers]


def test_a_thicker_frame_moves_the_faces_and_not_the_line() -> None:
    """The outside of the frame lies on the set-out line: 140 to 184 moves the inner face 44 inward."""
    house = box_house(9000.0, 6000.0)
    before = resolve(house).plan.walls[0]
    thicker = entered(house, "frame:thickness", "184")
    after = resolve(thicker).plan.walls[0]
    assert (after.start, after.end) == (before.start, before.end)
    assert after.outer == pytest.approx(before.outer)
    assert before.inner - after.inner == pytest.approx(44.0)


def test_layers_are_added_moved_renamed_and_taken_away() -> None:
    house = box_house(9000.0, 6000.0)
    added = entered(house, "sheathing:add", "")
    ids = [id for id, _ in layers(added)]
    assert ids == ["cladding", "wrap", "sheathing", "layer-1", "frame", "vapour", "lining"]
    named = entered(entered(added, "layer-1:name", "service battens"), "layer-1:material", "softwood")
    moved = entered(entered(named, "layer-1:in", ""), "layer-1:in", "")
    assert [id for id, _ in layers(moved)][-3:] == ["vapour", "layer-1", "lining"]
    outward = entered(moved, "layer-1:out", "")
    assert [id for id, _ in layers(outward)][-3:] == ["layer-1", "vapour", "lining"]
    gone = entered(outward, "layer-1:remove", "")
    assert layers(gone) == layers(house)
    parts = {part.key.split("/")[2] for part in resolve(moved).parts if part.element == "south"}
    assert "layer-1" in parts, "ids survive the new order, and so do the names of parts"


def test_framing_is_put_in_changed_and_taken_out() -> None:
    house = box_house(9000.0, 6000.0)

    def studs(project: Project) -> int:
        return sum(part.role == "stud" and part.element == "south" for part in resolve(project).parts)

    # 9000 - 280 between the cross walls' frames or 9000 whole: wider spacing means fewer studs
    wide = entered(house, "frame:spacing", "600")
    assert 0 < studs(wide) < studs(house)
    solid = entered(house, "frame:framed", "solid")
    assert studs(solid) == 0
    again = entered(solid, "frame:framed", "framed")
    assert studs(again) == studs(house)
    filled = entered(again, "frame:infill", "rigid")
    assert {part.material for part in resolve(filled).parts if part.role == "infill" and part.element == "south"} == {
        "rigid"
    }
    single = entered(house, "frame:top_plates", "1")
    assert single.find("wall-lap").layers[3].framing.top_plates == 1


@pytest.mark.parametrize(
    ("field", "text", "words"),
    [
        ("cladding:thickness", "0", "more than"),
        ("cladding:thickness", "-20", "more than"),
        ("cladding:thickness", "wide", "length"),
        ("frame:spacing", "1", "50"),
        ("frame:top_plates", "9", "3"),
        ("frame:material", "glass", "not one of the choices"),
        ("cladding:name", " ", "cannot be empty"),
    ],
)
def test_what_no_layer_can_be_is_refused(field: str, text: str, words: str) -> None:
    with pytest.raises((BadInput, RefusedEdit), match=words):
        entered(box_house(9000.0, 6000.0), field, text)


def test_a_layer_that_others_are_measured_by_stays() -> None:
    with pytest.raises(RefusedEdit, match="set-out face of 4 walls lies on 140 studs"):
        entered(box_house(9000.0, 6000.0), "frame:remove", "")
    with pytest.raises(RefusedEdit, match="the height of Upper floor counts subfloor"):
        entered(two_storeys(9000.0, 6000.0), "deck:remove", "", "floor-joists")


def test_a_copy_leaves_its_origin_alone() -> None:
    house = box_house(9000.0, 6000.0)
    copied = entered(house, "copy", "")
    (new,) = (held for held in copied.make_ups if held.id.startswith("make-up-"))
    assert new.name == "140 frame, lap boards, copy" and new.layers == house.find("wall-lap").layers
    changed_copy = entered(copied, "frame:thickness", "184", new.id)
    assert changed_copy.find("wall-lap") == house.find("wall-lap")
    assert entered(copied, "copy", "").make_ups[-1].name == "140 frame, lap boards, copy 2"


def test_a_make_up_tells_its_layers_and_its_use() -> None:
    house = box_house(9000.0, 6000.0)
    facts = describe_element(house, resolve(house), "wall-lap")
    assert facts.subtitle == "wall make-up, used 4 times" and facts.strip and facts.strip.make_up == "wall-lap"
    groups = list(dict.fromkeys(field.group for field in facts.fields if field.group))
    assert groups == [layer.id for layer in house.find("wall-lap").layers]
    assert not facts.removable and describe_element(house, resolve(house), "wall-batten").removable
    assert describe_element(house, resolve(house), "slab").subtitle == "slab make-up, used once"
    floor = describe_element(house, resolve(house), "floor-joists")
    assert {"Move down", "Add a layer below it"} <= {field.label for field in floor.fields}


def test_a_membrane_thinner_than_a_rule_shows_is_written_in_millimetres() -> None:
    house = box_house(30 * 304.8, 20 * 304.8, "ft-in")
    facts = describe_element(house, resolve(house), "wall-lap")
    assert facts.strip is not None
    shown = {layer.id: layer.thickness for layer in facts.strip.layers}
    assert (shown["vapour"], shown["sheathing"], shown["frame"]) == ("0.2 mm", '1/2"', '5 1/2"')
    field = next(field for field in facts.fields if field.id == "vapour:thickness")
    assert entered(house, "vapour:thickness", field.text) == house, "what is shown can be typed"


def rebuilt(project: Project, order: tuple[str, ...]) -> Project:
    make_up: MakeUp = project.find("wall-lap")
    held = {layer.id: layer for layer in make_up.layers}
    return put(project, changed(make_up, layers=tuple(held[id] for id in order)))


@pytest.mark.parametrize(
    ("order", "codes", "names"),
    [
        (("cladding", "wrap", "sheathing", "frame", "vapour", "lining"), [], ()),
        (("sheathing", "cladding", "wrap", "frame", "vapour", "lining"), ["cladding-inside"], ("lap boards", "sheath")),
        (("cladding", "vapour", "sheathing", "frame", "wrap", "lining"), ["vapour-cold"], ("vapour control", "studs")),
    ],
)
def test_a_likely_wrong_order_names_its_two_layers(
    order: tuple[str, ...], codes: list[str], names: tuple[str, ...]
) -> None:
    found = resolve(rebuilt(box_house(9000.0, 6000.0), order)).diagnostics
    assert [held.code for held in found] == codes and all(held.severity == "warning" for held in found)
    assert all(name in found[0].message for name in names)


def test_a_membrane_of_ten_millimetres_is_pointed_out() -> None:
    found = resolve(entered(box_house(9000.0, 6000.0), "wrap:thickness", "10")).diagnostics
    assert [(held.code, held.value) for held in found] == [("membrane-thick", 10.0)]


def test_double_framing_with_a_gap_is_as_good_as_any() -> None:
    house = box_house(9000.0, 6000.0)
    make_up: MakeUp = house.find("wall-lap")
    frame = make_up.layers[3]
    gap = Layer(id="gap", name="gap", material="quilt", function="insulation", thickness=60.0)
    second = changed(frame, id="second", name="inner studs", thickness=89.0)
    layers = (*make_up.layers[:4], gap, second, *make_up.layers[4:])
    assert resolve(put(house, changed(make_up, layers=layers))).diagnostics == ()


def test_the_demos_have_nothing_to_point_out() -> None:
    for make in DEMOS:
        assert resolve(make()).diagnostics == ()


def test_a_name_follows_from_the_layers(house: Project) -> None:
    lap = house.find("wall-lap")
    assert derived_name(lap) == "2x6 studs, lap boards"
    after = apply_edits(house, enter(house, "wall-lap", "derive", ""))
    assert after.find("wall-lap").name == "2x6 studs, lap boards"
    assert "derive" not in {row.field.id for row in fields_of(after, after.find("wall-lap"))}


@pytest.mark.parametrize(
    ("name", "told"),
    [
        ("2x4 frame, lap boards", "says 2x4"),
        ("2x6 frame, brick outside", "speaks of brick"),
        ("2x6 frame, lap boards", None),
        ("Wall type A", None),
        ("garden side", None),
    ],
)
def test_a_name_that_contradicts_its_layers_is_pointed_out(house: Project, name: str, told: str | None) -> None:
    named = apply_edits(house, enter(house, "wall-lap", "name", name))
    found = [held for held in resolve(named).diagnostics if held.code == "name-contradicts"]
    assert ([held.field for held in found], bool(found)) == ((["name"], True) if told else ([], False))
    assert told is None or (told in found[0].message and "by its layers it is" in found[0].message)
