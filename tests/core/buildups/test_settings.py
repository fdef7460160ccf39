"""What a drafter sets of build-ups: for one junction, for those alike, for all of a kind; kept through later edits."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from deepsection.core.buildups import Wanted, built_of, set_build_ups
from deepsection.core.edits import SplitWall, apply_edits, changed, put
from deepsection.core.errors import BadInput, RefusedEdit, UnknownElement
from deepsection.core.junctions import found_junctions
from deepsection.core.model import BuildUpSetting, DetailEnd, ParameterValue, Project, dump_project, load_project
from deepsection.core.resolve import resolve
from deepsection.core.view.details.making import group_states

from .rig import framed, masonry


def put_on(project: Project, kind: str, ids: list[str] | None, wanted: Wanted) -> Project:
    building = resolve(project)
    return apply_edits(project, set_build_ups(project, building, kind, ids, wanted))


def of(project: Project, kind: str) -> list[str]:
    return [held.id for held in found_junctions(resolve(project)) if held.kind == kind]


def values(project: Project, id: str) -> dict[str, float]:
    building = resolve(project)
    junction = next(held for held in found_junctions(building) if held.id == id)
    built = built_of(building, junction)
    assert built is not None
    return dict(built.values)


def groups(project: Project, kind: str) -> list[int]:
    return sorted(s.group.pieces for s in group_states(project, resolve(project)) if s.group.about.name == kind)


def test_an_exception_splits_a_group_and_its_end_joins_it_again() -> None:
    house = masonry()
    first, second = of(house, "sill")
    assert groups(house, "sill") == [2]
    one = put_on(house, "sill", [first], Wanted(parameter="clear", text="60"))
    assert values(one, first)["clear"] == 60.0 and values(one, second)["clear"] == 40.0
    assert groups(one, "sill") == [1, 1]
    back = put_on(one, "sill", [first], Wanted(parameter="clear"))
    assert groups(back, "sill") == [2] and back.build_ups == () and back == house


def test_what_is_set_for_all_holds_but_where_one_says_otherwise() -> None:
    house = masonry()
    first, second = of(house, "sill")
    house = put_on(house, "sill", [first], Wanted(build_up="sill-metal"))
    house = put_on(house, "sill", None, Wanted(build_up="sill-wood"))
    building = resolve(house)
    kinds = {held.id: built_of(building, held) for held in found_junctions(building) if held.kind == "sill"}
    assert {id: built.build_up.id for id, built in kinds.items() if built} == {first: "sill-metal", second: "sill-wood"}
    assert load_project(dump_project(house)) == house


def test_a_piece_is_left_out_and_put_back() -> None:
    house = framed()
    (first, _) = of(house, "eave")
    without = put_on(house, "eave", [first], Wanted(piece="frieze", on=False))
    for project, there in (
        (house, True),
        (without, False),
        (put_on(without, "eave", [first], Wanted(piece="frieze")), True),
    ):
        building = resolve(project)
        built = built_of(building, next(held for held in found_junctions(building) if held.id == first))
        assert built is not None and ("frieze" in {piece.id for piece in built.shown}) == there


@pytest.mark.parametrize(
    ("wanted", "error", "words"),
    [
        (Wanted(parameter="clear", text="2 m"), BadInput, "from 15 to 100"),
        (Wanted(parameter="clear", text="wide"), BadInput, "length"),
        (Wanted(parameter="fall", text="steep"), BadInput, "type a number"),
        (Wanted(parameter="nothing", text="10"), BadInput, "has no"),
        (Wanted(build_up="sill-flanged"), BadInput, "does not fit here: it is built in a framed wall"),
        (Wanted(build_up="sill-gold"), UnknownElement, "there is no build-up"),
        (Wanted(piece="moat", on=False), UnknownElement, "has no piece"),
        (Wanted(parameter="clear"), BadInput, "as usual already"),
    ],
)
def test_what_cannot_be_set_is_said_and_nothing_is_applied(wanted: Wanted, error: type[Exception], words: str) -> None:
    house = masonry()
    (first, _) = of(house, "sill")
    with pytest.raises(error, match=words):
        put_on(house, "sill", [first], wanted)
    with pytest.raises(UnknownElement):
        put_on(house, "sill", ["sill/w9.sill"], Wanted(piece="bed", on=False))


def test_what_does_not_fit_at_one_of_all_is_said_there_too() -> None:
    """A strip wider than the soffits would leave every eave without one: refused for all as for one."""
    house = framed(0.5, overhang=250.0)
    with pytest.raises(BadInput, match="does not fit here: its soffit is"):
        put_on(house, "eave", None, Wanted(parameter="vent", text='10"'))
    with pytest.raises(BadInput, match="does not fit here"):
        put_on(house, "sill", None, Wanted(build_up="sill-stone"))
    with pytest.raises(UnknownElement, match="has no piece"):
        put_on(house, "sill", None, Wanted(piece="moat", on=False))


def test_a_value_beyond_its_limits_in_a_file_is_said_and_the_usual_one_is_taken() -> None:
    house = masonry()
    beyond = BuildUpSetting(id="b1", kind="sill", values=(ParameterValue(parameter="clear", value=900.0),))
    house = put(house, beyond)
    building = resolve(house)
    built = built_of(building, next(held for held in found_junctions(building) if held.kind == "sill"))
    assert built is not None and "beyond its limits" in built.fault and dict(built.values)["clear"] == 40.0


def test_two_settings_of_one_junction_are_refused() -> None:
    ends = (DetailEnd(element="w1", feature="sill"), DetailEnd(element="south", feature="opening"))
    one = BuildUpSetting(id="b1", kind="sill", ends=ends, build_up="sill-metal")
    house = put(masonry(), one)
    with pytest.raises(RefusedEdit, match="set twice"):
        put(house, changed(one, id="b2"))


@settings(max_examples=12, deadline=None)
@given(
    pitch=st.sampled_from([0.35, 0.5, 0.65]),
    overhang=st.sampled_from([400.0, 450.0, 520.0]),
    at=st.floats(1200.0, 7000.0),
    split=st.booleans(),
)
def test_settings_stay_with_their_junction_through_edits(pitch: float, overhang: float, at: float, split: bool) -> None:
    """Pitch, overhang, a window moved, its wall split: what was set of its sill and of an eave holds."""
    house = framed()
    sill, eave = of(house, "sill")[0], of(house, "eave")[0]
    house = put_on(house, "sill", [sill], Wanted(parameter="nose", text='2"'))
    house = put_on(house, "eave", [eave], Wanted(parameter="frieze", text='8"'))
    roof = house.roofs[0]
    edges = tuple(changed(edge, overhang=overhang) if edge.kind == "eave" else edge for edge in roof.edges)
    house = put(house, changed(roof, pitch=pitch, edges=edges), changed(house.find("w1"), distance=at))
    if split:
        place = 7600.0 if at < 6000.0 else 1000.0
        house = apply_edits(house, [SplitWall(wall="south", distance=place, joint="j9", second="south-2")])
    assert values(house, sill)["nose"] == 50.8
    assert eave not in of(house, "eave") or values(house, eave)["frieze"] == 203.2
