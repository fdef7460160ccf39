"""Any house turned by any angle is the same house: the same parts, the same volumes, the same joins, the same areas."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable

import pytest
from shapely.geometry import Polygon

from deepsection.core.drawing import Drawing, Region
from deepsection.core.edits import put
from deepsection.core.model import ElevationView, Project
from deepsection.core.resolve import resolve
from deepsection.core.view import draw_view
from deepsection.demo import DEMOS, larkmoor_house, otterfold_house, quillback_house, tansy_lodge
from tests.campaigns import share
from tests.turning import turned

near = pytest.approx
TURNS = [(17.3, None), (17.3, 3), (163.1, 6), (301.0, 4), (45.0, 3), (90.0, 3)]
LOOSE = {"infill": 5e-3, "gutter": 1.0}
"""Quilt is cut by bodies that touch each other, and a gutter may end at its dormer or run on: not held to the rest."""


def volumes(project: Project) -> dict[tuple[str, str], tuple[str, float]]:
    return {str(part.key): (part.role, part.solid.volume) for part in resolve(project).parts}  # type: ignore[misc]


@pytest.mark.parametrize("make", DEMOS)
def test_a_turned_house_has_the_same_parts(make: Callable[[], Project]) -> None:
    project = make()
    straight = volumes(project)
    assert not resolve(project).diagnostics
    # The largest houses in fewer ways: each takes them seconds.
    for degrees, decimals in share(TURNS[1:3], TURNS) if make in (larkmoor_house, otterfold_house) else TURNS:
        other = turned(project, degrees, decimals)
        assert not resolve(other).diagnostics, (degrees, decimals)
        found = volumes(other)
        assert found.keys() == straight.keys(), (degrees, decimals, found.keys() ^ straight.keys())
        for key, (role, volume) in straight.items():
            assert found[key][1] == near(volume, rel=LOOSE.get(role, 1e-4), abs=100), (degrees, decimals, key)


def areas(drawing: Drawing) -> dict[tuple[str, str], float]:
    """What is seen of each part, by feature (mm2)."""
    found: dict[tuple[str, str], float] = defaultdict(float)
    for mark in drawing.marks:
        if isinstance(mark, Region) and mark.part and mark.depth is not None:
            shell, *holes = ([point[:2] for point in ring] for ring in mark.rings)
            found[mark.part, mark.feature or ""] += Polygon(shell, holes).area
    return found


@pytest.mark.parametrize("make", [quillback_house, tansy_lodge])
def test_elevations_of_a_turned_house_show_the_same_areas(make: Callable[[], Project]) -> None:
    project = make()
    for look in (90.0, 0.0):
        straight = put(project, ElevationView(id="seen", name="Seen", look=look))
        shown = areas(draw_view(resolve(straight), straight, "elevation:seen", 50))
        for degrees, decimals in ((31.0, None), (197.4, 3)):
            other = put(
                turned(project, degrees, decimals), ElevationView(id="seen", name="Seen", look=(look + degrees) % 360)
            )
            found = areas(draw_view(resolve(other), other, "elevation:seen", 50))
            big = {key for key, area in shown.items() if area > 1e4}
            assert big <= found.keys()
            for key in big:
                assert found[key] == near(shown[key], rel=2e-3, abs=2000), (degrees, decimals, key)
            assert sum(found.values()) == near(sum(shown.values()), rel=1e-4)
