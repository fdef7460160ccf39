"""Openings placed by grid lines and rooms, and copied to other levels; locked heights that count layers."""

from __future__ import annotations

import pytest

from deepsection.core.edits import PutMakeUp, PutRung, apply_edits, changed, put
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import GridLine, Project, Room
from deepsection.core.particulars import enter, fields_of
from deepsection.core.resolve import resolve
from tests.builders import box_house, joist_house, two_storeys, window

near = pytest.approx


def typed(project: Project, element: str, field: str, text: str) -> Project:
    return apply_edits(project, enter(project, element, field, text))


def test_a_window_stands_at_a_distance_from_a_grid_line() -> None:
    house = put(
        box_house(8000, 6000),
        window("w1", "south", 2500),
        GridLine(id="g1", name="1", x=2000, y=0, angle=90),
        GridLine(id="gA", name="A", x=0, y=0, angle=0),
    )
    shown = {row.field.id: row.field.text for row in fields_of(house, house.find("w1"))}
    assert shown["grid:g1"] == "500" and "grid:gA" not in shown, "a line along the wall gives no distance"
    assert typed(house, "w1", "grid:g1", "900").find("w1").distance == near(2900)
    left = put(house, changed(house.find("w1"), distance=1000.0))
    assert typed(left, "w1", "grid:g1", "1200").find("w1").distance == near(800), "it stays on its side"


def test_a_window_is_centred_on_a_room() -> None:
    """The room's share of the wall, between the inside faces of its side walls."""
    house = put(box_house(8000, 6000), window("w1", "south", 2000), Room(id="r", name="Hall", x=4000, y=3000))
    centred = typed(house, "w1", "centre_room:r", "")
    x0, _, x1, _ = resolve(house).rooms[0].space.bounds  # type: ignore[union-attr]
    assert centred.find("w1").distance == near((x0 + x1) / 2, abs=0.01)
    away = put(house, window("w2", "south", 5000), changed(house.find("r"), y=-3000))
    assert "centre_room:r" not in {row.field.id for row in fields_of(away, away.find("w2"))}


def test_a_window_is_copied_to_the_wall_above() -> None:
    house = put(two_storeys(8000, 6000), window("w1", "south", 2000, sill=800))
    upper = next(wall.base.level for wall in house.walls if wall.base.level != house.find("south").base.level)
    copied = typed(house, "w1", "copy_level", upper)
    made = next(opening for opening in copied.openings if opening.id != "w1")
    assert copied.find(made.wall).base.level == upper and made.distance == near(2000) and made.sill == 800
    assert "copy_level" not in {row.field.id for row in fields_of(box_house(8000, 6000), window("w", "south", 2000))}


def counted(project: Project) -> tuple[str, str, str]:
    """A level that counts a layer beside its free part: (rung, make-up, layer)."""
    for rung in project.rungs:
        for term in rung.terms:
            if term.layer and term.id != rung.free:
                return rung.id, term.layer.make_up, term.layer.layer
    raise AssertionError("no level counts a layer")


def test_a_locked_height_keeps_its_total_when_a_layer_that_it_counts_grows() -> None:
    house = joist_house(8000, 6000)
    rung, make_up, layer = counted(house)
    locked = apply_edits(house, (PutRung(rung=changed(house.find(rung), locked=True)),))
    held = house.find(make_up)
    thick = next(one.thickness for one in held.layers if one.id == layer)

    def grown(by: float) -> PutMakeUp:
        layers = tuple(changed(one, thickness=thick + by) if one.id == layer else one for one in held.layers)
        return PutMakeUp(make_up=changed(held, layers=layers))

    before = resolve(locked).levels[rung].z - resolve(locked).levels[str(house.find(rung).from_rung)].z
    free, after = apply_edits(house, (grown(5.0),)), apply_edits(locked, (grown(5.0),))
    rises = [resolve(p).levels[rung].z - resolve(p).levels[str(house.find(rung).from_rung)].z for p in (free, after)]
    assert rises[0] != near(before) and rises[1] == near(before)
    with pytest.raises(RefusedEdit, match="would leave nothing"):
        apply_edits(locked, (grown(20_000.0),))
    free_part = next(term for term in house.find(rung).terms if term.id == house.find(rung).free)
    joists = [
        changed(one, thickness=one.thickness + 10) if free_part.layer and one.id == free_part.layer.layer else one
        for one in held.layers
    ]
    with pytest.raises(RefusedEdit, match="locked"):
        apply_edits(locked, (PutMakeUp(make_up=changed(held, layers=tuple(joists))),))
