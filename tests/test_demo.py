"""The demo houses can be built: nothing is pointed out, and what stands under a roof stays under it."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from deepsection.core.model import Project
from deepsection.core.resolve import resolve
from deepsection.core.sheets import compose
from deepsection.core.trades.slabs.placed import SLABS
from deepsection.demo import DEMOS, tansy_lodge
from tests.overlaps import overlapping


@pytest.mark.parametrize("make", DEMOS)
def test_nothing_is_pointed_out(make: Callable[[], Project]) -> None:
    assert resolve(make()).diagnostics == ()


def test_bays_and_porch_end_under_the_rafters() -> None:
    building = resolve(tansy_lodge())
    rafters = [part for part in building.parts if part.role == "rafter"]
    below = ("bow", "bay-left", "bay-front", "bay-right", "porch-beam", "post-1", "post-4")
    held = [part for part in building.parts if part.element in below]
    assert {part.element for part in held} == set(below) and len(rafters) > 40
    assert overlapping(held, rafters, most=1.0, among=False) == []


def test_brick_stands_on_the_foundation_wall() -> None:
    """Common practice, no source: a brick leaf before a frame bears on the foundation wall, all of its thickness."""
    building = resolve(tansy_lodge())
    for wall in ("north", "east", "west", "bay-front"):
        brick = next(part.solid.bounds for part in building.parts if part.key.startswith(f"{wall}/cladding/brick"))
        stem = next(part.solid.bounds for part in building.parts if part.key.endswith(f"/stem//{wall}"))
        footing = next(part.solid.bounds for part in building.parts if part.key.endswith(f"/footing//{wall}"))
        assert brick.z0 == pytest.approx(stem.z1)
        assert stem.x0 - 0.1 <= brick.x0 and brick.x1 <= stem.x1 + 0.1
        assert stem.y0 - 0.1 <= brick.y0 and brick.y1 <= stem.y1 + 0.1
        assert footing.x0 < stem.x0 and footing.y0 < stem.y0


def test_porch_posts_stand_on_their_slab() -> None:
    """To a sixteenth of an inch: the slab falls away under their feet, which are level."""
    building = resolve(tansy_lodge())
    posts, slab = [part for part in building.parts if part.role == "post"], building[SLABS][0]
    assert len(posts) == 4
    for part in posts:
        box = part.solid.bounds
        assert box.z0 == pytest.approx(slab.top.z((box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2), abs=3.2)


@pytest.mark.parametrize("make", DEMOS)
def test_every_sheet_of_the_demos_fits_its_paper(make: Callable[[], Project]) -> None:
    project = make()
    building = resolve(project)
    for sheet in project.sheets:
        assert compose(project, building, sheet, date="2026-01-01").messages == (), sheet.number
