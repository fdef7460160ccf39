"""A floor laid by one click: on a slab a crawl space comes of it, over walls it bears on their plate."""

from __future__ import annotations

from typing import Any

import pytest

from deepsection.core.edits import LayFloor, apply_edits, rebuild
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import Project
from deepsection.core.resolve import resolve
from tests.builders import box_house, engineered, two_storeys


def laid(house: Project, level: str = "floor", at: tuple[float, float] = (3000.0, 3000.0)) -> Project:
    return apply_edits(house, (LayFloor(id="laid", level=level, x=at[0], y=at[1]),))


@pytest.mark.parametrize(("units", "high"), [("mm", 250 + 38 + 235 + 18), ("ft-in", (10 + 1.5 + 9.25 + 0.75) * 25.4)])
def test_on_a_slab_it_makes_a_crawl_space(units: Any, high: float) -> None:
    """As high as its parts: foundation wall, sill plate, joists, subfloor; a ground cover instead of the slab."""
    house = box_house(7000.0, 5000.0, units)
    project = engineered(laid(house))
    building = resolve(project)
    assert building.levels["floor"].z == pytest.approx(high)
    assert not building.diagnostics
    roles = {part.role for part in building.parts}
    assert {"joist", "rim_joist", "sill_plate", "stem"} <= roles
    assert project.foundations[0].slab == "ground-cover"
    with pytest.raises(RefusedEdit, match="already"):
        laid(project)


def test_over_walls_it_bears_on_their_plate() -> None:
    house = two_storeys(7000.0, 5000.0)
    upper = next(floor for floor in house.floors if floor.level != "floor")
    bare = rebuild(house, floors=tuple(floor for floor in house.floors if floor is not upper))
    project = engineered(laid(bare, upper.level))
    again = next(floor for floor in project.floors if floor.id == "laid")
    assert (again.bearing, again.level) == (upper.bearing, upper.level)
    assert resolve(project).levels[upper.level].z == pytest.approx(resolve(house).levels[upper.level].z)
    assert not resolve(project).diagnostics


def test_it_lies_within_closed_walls() -> None:
    house = box_house(7000.0, 5000.0)
    with pytest.raises(RefusedEdit, match="closed outer walls"):
        laid(house, at=(9000.0, 3000.0))
    with pytest.raises(RefusedEdit, match="closed outer walls"):
        laid(rebuild(house, walls=house.walls[:3]))
    with pytest.raises(RefusedEdit, match="make-up"):
        laid(rebuild(house, make_ups=tuple(held for held in house.make_ups if held.use != "floor")))
    with pytest.raises(RefusedEdit, match="not measured from walls"):
        laid(rebuild(house, foundations=()))
