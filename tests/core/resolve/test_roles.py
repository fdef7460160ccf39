"""The table of roles: every part has one, every part of a model file a class of the standard."""

from __future__ import annotations

from deepsection.core.building.roles import IN_BUILD_UPS, IN_BUILDING, IN_STAIRS, IN_UNITS
from deepsection.core.buildups import made_of
from deepsection.core.edits import changed, put
from deepsection.core.junctions import found_junctions
from deepsection.core.resolve import ROLES, resolve
from deepsection.demo import DEMOS, otterfold_house
from tests.builders import block_house, slab_house, stair_house


def test_every_part_of_the_demos_has_a_role_and_every_role_is_somewhere() -> None:
    house = otterfold_house()
    ramped = put(house, changed(house.outside_steps[1], form="ramp"))
    stairs = stair_house(build="concrete"), stair_house(below="closed")
    bridged = put(house, *(changed(floor, between="bridging") for floor in house.floors))
    houses = [*(make() for make in DEMOS), ramped, *stairs, bridged, block_house(), slab_house()]
    seen = {part.role for house in houses for part in resolve(house).parts}
    # Foam fills what is left around a unit, where a clearance is stated.
    loose = put(house, *(changed(held, rough=9.5) for held in house.openings if held.unit == "window"))
    for building in (*(resolve(make()) for make in DEMOS), resolve(loose)):
        seen |= {part.role for held in found_junctions(building) for _, part, _ in made_of(building, held, 4.0)}
    assert seen <= ROLES.keys()
    assert ROLES.keys() - seen == set(), "what is never made is taken out"


def test_what_is_no_part_of_a_window_or_door_has_a_class_of_the_standard() -> None:
    assert all(
        role.ifc and role.ifc[0].startswith("Ifc") and "Proxy" not in role.ifc[0]
        for role in (*IN_BUILDING, *IN_BUILD_UPS, *IN_STAIRS)
    )
    assert all(role.ifc is None for role in IN_UNITS)


def test_words_are_those_of_the_trade_and_each_is_used_once() -> None:
    words = [role.words for role in ROLES.values()]
    assert (
        len(set(words)) == len(words) == len(ROLES) == sum(map(len, (IN_BUILDING, IN_BUILD_UPS, IN_STAIRS, IN_UNITS)))
    )
    assert all(word.islower() and "_" not in word for word in words)
