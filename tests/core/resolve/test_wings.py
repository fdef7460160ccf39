"""Gables proposed over outlines of right angles: a block per wing, the widest first, the others into it."""

from __future__ import annotations

import itertools
import random

import pytest
import shapely
from shapely.geometry import Polygon

from deepsection.core.edits import ProposeRoof, apply_edits
from deepsection.core.model import Project
from deepsection.core.resolve import Building, resolve
from tests.builders import chain_house, l_house
from tests.turning import turned

near = pytest.approx
SHAPES: dict[str, list[tuple[float, float]]] = {
    "L": [(0, 0), (12000, 0), (12000, 6500), (7000, 6500), (7000, 9500), (0, 9500)],
    "L of one span": [(0, 0), (12000, 0), (12000, 6000), (6000, 6000), (6000, 11000), (0, 11000)],
    "T": [(0, 0), (14000, 0), (14000, 6000), (9500, 6000), (9500, 10000), (4500, 10000), (4500, 6000), (0, 6000)],
    "T with a wide stem": [
        (0, 0), (14000, 0), (14000, 5000), (11000, 5000), (11000, 11000), (3000, 11000), (3000, 5000), (0, 5000),
    ],
    "U": [(0, 0), (15000, 0), (15000, 11000), (10500, 11000), (10500, 6000), (4500, 6000), (4500, 11000), (0, 11000)],
    "Z": [(0, 0), (9000, 0), (9000, 3000), (14000, 3000), (14000, 8500), (5000, 8500), (5000, 5500), (0, 5500)],
    "cross": [
        (4000, 0), (9000, 0), (9000, 4000), (13000, 4000), (13000, 9500), (9000, 9500), (9000, 13000), (4000, 13000),
        (4000, 9500), (0, 9500), (0, 4000), (4000, 4000),
    ],
    "with a bump": [
        (0, 0), (12000, 0), (12000, 7000), (8000, 7000), (8000, 8200), (5000, 8200), (5000, 7000), (0, 7000),
    ],
}  # fmt: skip


def house(corners: list[tuple[float, float]]) -> Project:
    named = tuple((f"c{k}", float(x), float(y)) for k, (x, y) in enumerate(corners))
    return chain_house(named, tuple(f"w{k}" for k in range(len(corners))))


def gabled(project: Project, at: tuple[float, float]) -> Project:
    return apply_edits(
        project, (ProposeRoof(id="gables", form="gable", level="floor", plate="plate", x=at[0], y=at[1]),)
    )


def inside(corners: list[tuple[float, float]]) -> tuple[float, float]:
    x, y = Polygon(corners).representative_point().coords[0]
    return x, y


def covered_once(building: Building) -> None:
    """No hole, and no surface in another one: a rake may hang over a lower wing."""
    planes = [plane for roof in building.roofs for plane in roof.planes]
    whole = shapely.union_all([plane.polygon for plane in planes], grid_size=0.01)
    outlines = shapely.union_all([roof.outline for roof in building.roofs])
    assert outlines.difference(whole.buffer(0.05)).area < 1.0
    assert all(Polygon(ring).buffer(-0.05).is_empty for part in shapely.get_parts(whole) for ring in part.interiors)
    for a, b in itertools.combinations(planes, 2):
        for piece in shapely.get_parts(a.polygon.intersection(b.polygon)):
            if piece.area > 20.0:
                gaps = [a.covered(*spot) - b.covered(*spot) for spot in piece.exterior.coords]
                assert min(gaps) > -1.0 or max(gaps) < 1.0, "they cross"
                assert max(map(abs, gaps)) > 50.0, "they are one surface"


@pytest.mark.parametrize("turn", [0.0, 28.0, 90.0])
@pytest.mark.parametrize("name", SHAPES)
def test_wings_end_in_gables_and_meet_in_valleys_without_a_hip(name: str, turn: float) -> None:
    corners = SHAPES[name]
    plain = house(corners)
    if turn:
        plain = turned(plain, turn, 3)
        at = resolve(plain).plan.outlines[0].polygon.representative_point().coords[0]
    else:
        at = inside(corners)
    project = gabled(plain, (at[0], at[1]))
    building = resolve(project)
    assert building.diagnostics == ()
    assert len(project.roofs) > 1
    kinds = [seam.kind for roof in building.roofs for seam in roof.seams]
    assert "hip" not in kinds and kinds.count("valley") >= 2
    covered_once(building)
    area = sum(roof.outline.area for roof in building.roofs)
    assert area == near(Polygon(corners).area, rel=1e-6), "the blocks lie side by side over all of the house"


def test_the_widest_block_runs_through_and_the_others_into_it() -> None:
    """The leg of this L is 7 m wide, its long side 6.5 m: the leg has the higher ridge."""
    project = gabled(l_house(), (3000.0, 3000.0))
    main, wing = project.roofs
    assert (main.name, wing.name) == ("Main roof", "Roof 2")
    assert [edge.kind for edge in wing.edges].count("joined") == 1
    tied = [corner.joint for corner in (*main.outline, *wing.outline)]
    assert {"a", "b", "c", "e", "f"} <= set(tied), "corners at corners of walls are tied to them"
    first, second = resolve(project).roofs
    assert first.ridge_top.total > second.ridge_top.total


def test_random_outlines_of_right_angles_are_covered_once() -> None:
    """Rectangles stacked side by side, each pushed in or out at its far end; none is refused, and none left open."""
    chance = random.Random(11)
    for _ in range(12):
        xs = [0.0]
        ys = []
        for _ in range(chance.randint(2, 4)):
            xs.append(xs[-1] + chance.choice([3600.0, 4200.0, 5000.0, 6100.0]))
            ys.append(chance.choice([6000.0, 7300.0, 8600.0, 9900.0]))
        top = []
        for k in reversed(range(len(ys))):
            top += [(xs[k + 1], ys[k]), (xs[k], ys[k])]
        ring = [(0.0, 0.0), (xs[-1], 0.0), *top]
        corners = [p for k, p in enumerate(ring) if p != ring[k - 1]]
        corners = [
            p for k, p in enumerate(corners) if not (corners[k - 1][1] == p[1] == corners[(k + 1) % len(corners)][1])
        ]
        if corners[-1] == corners[0]:
            corners.pop()
        covered_once(resolve(gabled(house(corners), inside(corners))))
