"""Long walls with many guests: what is left of their layers, against plain overlays."""

from __future__ import annotations

import pytest
import shapely

from deepsection.core.edits import DrawWalls, apply_edits
from deepsection.core.resolve import resolve
from deepsection.core.starters.projects import new_project
from deepsection.core.trades.walls.tees import MANY
from deepsection.demo.pieces import on, partition, ring

BAY, DEPTH = 1500.0, 6000.0


def row(count: int, lean: float) -> list[DrawWalls]:
    """Four walls around, and partitions between the long ones whose far end stands `lean` mm along from the near."""
    long = (count + 1) * BAY
    corners = (("sw", 0.0, 0.0), ("se", long, 0.0), ("ne", long, DEPTH), ("nw", 0.0, DEPTH))
    walls = ring(corners, ("south", "east", "north", "west"), "wall-lap")
    parts = [
        partition(f"p{k}", on(f"a{k}", "south", k * BAY), on(f"b{k}", "north", long - k * BAY - lean))
        for k in range(1, count + 1)
    ]
    return [walls, *parts]


@pytest.mark.parametrize("lean", [0.0, 400.0, -650.0])
@pytest.mark.parametrize("count", [3, MANY + 4])
def test_linings_are_parted_where_partitions_stand_in_them(count: int, lean: float) -> None:
    project = apply_edits(new_project("row", "Row", "mm"), row(count, lean))
    plan = resolve(project).plan
    structure = {layer.id for held in project.make_ups for layer in held.layers if layer.function == "structure"}
    guests = [wall for wall in plan.walls if wall.wall.id.startswith("p")]
    frames = shapely.union_all([layer.polygon for wall in guests for layer in wall.layers if layer.layer in structure])
    for host in (wall for wall in plan.walls if wall.wall.id in ("south", "north")):
        lining = host.layers[-1]
        left = lining.whole.difference(frames)
        assert lining.polygon.symmetric_difference(left).area == pytest.approx(0.0, abs=1e-3)
        assert len(lining.polygon.geoms) == count + 1 == len(left.geoms)
        assert lining.polygon.is_valid
