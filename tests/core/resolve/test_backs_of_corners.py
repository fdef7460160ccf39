"""Inner walls that run on from the corner of an L: they end on the walls that they meet, and leave the corner whole."""

from __future__ import annotations

import pytest
import shapely

from deepsection.core.document.motion import Motion
from deepsection.core.edits import Transform, apply_edits, changed, put
from deepsection.core.junctions import found_junctions
from deepsection.core.model import FreeJoint, Project
from deepsection.core.resolve import resolve
from tests.builders import cavity_box, l_house
from tests.turning import turned


def divided(ways: tuple[tuple[float, float], ...], cavity: bool = False) -> Project:
    """The L, with inner walls from its inside corner at (7000, 6500) to some places."""
    house = l_house()
    like = house.walls[0]
    if cavity:
        box = cavity_box(8000.0, 6000.0)
        make_up = next(held for held in box.make_ups if held.id == box.walls[0].make_up)
        walls = (changed(wall, make_up="cavity", set_out=box.walls[0].set_out) for wall in house.walls)
        house = put(put(house, changed(make_up, id="cavity")), *walls)
    (corner,) = (held for held in house.joints if isinstance(held, FreeJoint) and (held.x, held.y) == (7000.0, 6500.0))
    held = []
    for number, (x, y) in enumerate(ways):
        far = FreeJoint(id=f"far-{number}", x=x, y=y)
        inner = {"id": f"in-{number}", "start": corner.id, "end": far.id, "status": "inner", "make_up": "wall-inner"}
        held += [far, changed(like, **inner)]
    return put(house, *held)


SOUTH, WEST = (7000.0, 3000.0), (4000.0, 6500.0)


@pytest.mark.parametrize("degrees", [0.0, 31.0, -117.0])
@pytest.mark.parametrize("mirror", [False, True])
@pytest.mark.parametrize(("ways", "cavity"), [((SOUTH,), False), ((SOUTH, WEST), False), ((SOUTH,), True)])
def test_the_corner_stays_as_it_is_and_inner_walls_end_on_its_walls(
    degrees: float, mirror: bool, ways: tuple[tuple[float, float], ...], cavity: bool
) -> None:
    """What carries in the outer walls is where it was without them; nothing lies double; their ends touch it."""

    def laid(project: Project) -> Project:
        moved = turned(project, degrees, 1) if degrees else project
        if not mirror:
            return moved
        ids = tuple(held.id for held in moved.elements() if held.about.movable)
        return apply_edits(moved, [Transform(elements=ids, motion=Motion(mirror=20.0))])

    plain, house = resolve(laid(divided((), cavity))), resolve(laid(divided(ways, cavity)))
    for wall in plain.plan.walls:
        same = house.plan.by_id[wall.wall.id]
        assert wall.footprint.symmetric_difference(same.footprint).area < 30.0
    inner = [wall for wall in house.plan.walls if wall.wall.status == "inner"]
    assert len(inner) == len(ways)
    for wall in inner:
        others = [other for other in house.plan.walls if other is not wall]
        taken = shapely.union_all([layer.polygon for other in others for layer in other.layers])
        whole = shapely.union_all([layer.polygon for layer in wall.layers])
        assert whole.intersection(taken).area < 60.0
        met = [other for other in others if other.footprint.distance(wall.footprint) < 1.0]
        assert any(other.wall.status == "outer" for other in met)
    tees = [held for held in found_junctions(house) if held.kind == "wall_on_wall"]
    assert {held.ends[0].element for held in tees} == {wall.wall.id for wall in inner}
    assert [found for found in house.diagnostics if found.severity == "blocking"] == []


def test_a_wall_that_goes_out_askew_meets_both_as_before() -> None:
    """45 degrees is along neither: it is joined with both, as walls are."""
    house = resolve(divided(((5000.0, 4500.0),)))
    assert "wall_on_wall" not in {held.kind for held in found_junctions(house)}
    plain = resolve(divided(()))
    changed_ones = [
        wall.wall.id
        for wall in plain.plan.walls
        if any(
            layer.polygon.symmetric_difference(other.polygon).area > 100.0
            for layer, other in zip(wall.layers, house.plan.by_id[wall.wall.id].layers)
        )
    ]
    assert changed_ones == ["w3", "w4"]
