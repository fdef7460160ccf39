"""Rafters over walls with a single top plate, by hand: IRC R602.3.2, exception (from memory)."""

from __future__ import annotations

import pytest

from deepsection.core.building.diagnostics import Diagnostic
from deepsection.core.edits import changed, put
from deepsection.core.model import MakeUp, Project
from deepsection.core.resolve import resolve
from tests.builders import box_house, gable
from tests.turning import turned


def house(rafters: float, plates: int) -> Project:
    """9 m x 6 m under a gable, studs at 400, each wall laid out from its own start."""
    project = gable(box_house(9000.0, 6000.0), 0.5, overhang=400.0)

    def framed(make_up: MakeUp, **changes: float) -> MakeUp:
        layers = tuple(
            changed(layer, framing=changed(layer.framing, **changes)) if layer.framing else layer
            for layer in make_up.layers
        )
        result: MakeUp = changed(make_up, layers=layers)
        return result

    wall = next(held for held in project.make_ups if held.id == project.walls[0].make_up)
    roof = next(held for held in project.make_ups if held.use == "roof")
    return put(project, framed(wall, top_plates=plates), framed(roof, spacing=rafters))


def found(project: Project) -> dict[str, Diagnostic]:
    return {held.element: held for held in resolve(project).advice if held.code == "rafters-off-studs"}


@pytest.mark.parametrize("degrees", [0.0, 31.0])
def test_rafters_between_studs_are_said_with_the_worst(degrees: float) -> None:
    # Rafters at 600 on studs at 400: each second one stands in the middle between two, 200 from both.
    held = found(turned(house(600.0, 1), degrees))["south"]
    assert held.value == pytest.approx(200.0, abs=1.0) and held.limit == 25.4
    # 600, 1800, 3000 ... 7800: seven of them.
    assert held.message.startswith("7 rafters stand between the studs") and "two plates" in held.message


@pytest.mark.parametrize("degrees", [0.0, 31.0])
def test_rafters_over_studs_are_not(degrees: float) -> None:
    one = found(turned(house(400.0, 1), degrees))
    assert "south" not in one
    # The wall opposite is laid out from its other end: its studs are as far off as its frame is longer than whole bays.
    assert "north" in one and "east" not in one and "west" not in one


def test_two_plates_carry_them_anywhere() -> None:
    assert found(house(600.0, 2)) == {}
