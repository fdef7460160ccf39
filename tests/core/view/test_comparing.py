"""Two sides compared, heights of their own, and the drags that change heights in an elevation."""

from __future__ import annotations

import pytest

from deepsection.core.drawing import Drawing, Stroke
from deepsection.core.edits import SteepenRoof, apply_edits, changed, put
from deepsection.core.errors import RefusedEdit
from deepsection.core.model import Project
from deepsection.core.particulars.own_heights import own_heights
from deepsection.core.resolve import resolve
from deepsection.core.view import compare_heights, draw_view
from tests.builders import box_house, gable, window

near = pytest.approx


def house() -> Project:
    plain = gable(box_house(8000, 6000), 0.5, overhang=400.0, rake=300.0)
    return put(plain, window("w1", "south", 2400.0), window("w2", "north", 2400.0))


def sides(project: Project) -> tuple[Drawing, Drawing]:
    building = resolve(project)
    south, north = (draw_view(building, project, f"elevation:{side}", 50.0) for side in ("south", "north"))
    return south, north


def raised(project: Project, by: float) -> Project:
    """The roof with its north eave higher than the other."""
    roof = project.roofs[0]
    edges = tuple(changed(edge, raised=by) if k == 2 else edge for k, edge in enumerate(roof.edges))
    return put(project, changed(roof, edges=edges))


def test_sides_of_one_house_show_the_same_heights() -> None:
    rows = compare_heights(*sides(house()), "mm")
    by = {row.label: row for row in rows}
    assert not any(row.differ for row in rows)
    assert {"eaves", "heads of openings", "sills"} <= set(by)
    assert by["eaves"].one[0].text == by["eaves"].other[0].text
    assert rows[0].label.startswith("ridge"), "high ones first"


def test_what_differs_between_sides_is_told() -> None:
    """The north eave 200 higher, the north window 150 lower: both differ by as much, and nothing else does."""
    project = raised(house(), 200.0)
    low = next(opening for opening in project.openings if opening.id == "w2")
    project = put(project, changed(low, sill=low.sill - 150.0))
    rows = {row.label: row for row in compare_heights(*sides(project), "mm") if row.differ}
    assert set(rows) == {"eaves", "heads of openings", "sills"}
    # From the north the foot of the southern barge is seen as well, below the raised eave.
    assert rows["eaves"].other[-1].z - rows["eaves"].one[0].z == near(200.0) and len(rows["eaves"].one) == 1
    assert rows["sills"].other[0].z - rows["sills"].one[0].z == near(-150.0)


def test_heights_of_their_own_are_told_with_their_reason() -> None:
    project = raised(house(), 200.0)
    assert own_heights(house(), resolve(house())) == []
    south = next(wall for wall in project.walls if wall.id == "south")
    project = put(project, changed(south, top=changed(south.top, kind="fixed", height=2300.0)))
    building = resolve(project)
    found = {held.element: held for held in own_heights(project, building)}
    assert found["roof-1"].words == "eave 3 is 200 above the others"
    assert found["south"].words.startswith("2300 high on its own; Plate is at ")
    assert all(held.sum in building.sums for held in found.values())


def handles(drawing: Drawing) -> dict[str, set[str]]:
    found: dict[str, set[str]] = {}
    for mark in drawing.marks:
        if isinstance(mark, Stroke) and mark.handle:
            found.setdefault(mark.handle.edit, set()).add(mark.handle.field)
    return found


def test_eaves_ridges_and_tops_of_walls_are_dragged_in_an_elevation() -> None:
    """The eave by its edge; the ridge by its rise over the bearing lines: 3000 of run at 1 in 2 is 1500."""
    south, _ = sides(house())
    held = handles(south)
    assert held["raise_eave"] == {"e1"} and held["move_opening"] == {"distance"}
    (rise,) = held["raise_ridge"]
    assert float(rise) == near(1500.0, abs=30.0)
    bare = put(box_house(8000, 6000))
    assert "top" in handles(sides(bare)[0])["move_top"]


def test_a_steeper_roof_rises_by_the_factor_and_stays_in_plan() -> None:
    project = raised(house(), 100.0)
    before, after = (
        resolve(held).roofs[0] for held in (project, apply_edits(project, (SteepenRoof(roof="roof-1", factor=1.5),)))
    )
    assert before.ridge_top.slope and after.ridge_top.slope
    low, high = ([point[2] for point in roof.ridge_top.slope] for roof in (before, after))  # type: ignore[union-attr]
    assert high[1] - high[0] == near(1.5 * (low[1] - low[0]), rel=1e-6)
    (one,), (two,) = before.of("ridge"), after.of("ridge")
    assert one.start[:2] == near(two.start[:2]) and one.end[:2] == near(two.end[:2])
    with pytest.raises(RefusedEdit):
        apply_edits(project, (SteepenRoof(roof="roof-1", factor=19.0),))
