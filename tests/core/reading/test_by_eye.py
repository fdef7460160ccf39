"""Plans that were drawn by eye: how far off they are is measured, they are straightened, read and built."""

from __future__ import annotations

import math
import random
from typing import Any

import pytest

from deepsection.core.adopting import Choices, adopted
from deepsection.core.edits import apply_edits
from deepsection.core.model import joint_point
from deepsection.core.reading import ReadPlan, read_plan
from deepsection.core.reading.drawn import Stroke
from deepsection.core.reading.straightened import off_by, straightened
from deepsection.core.resolve import resolve
from deepsection.core.starters.projects import new_project
from deepsection.formats.dxf_drawn import read_drawn
from tests.campaigns import share
from tests.plans_drawn import dirt
from tests.plans_drawn.judge import Verdict, judged
from tests.plans_drawn.manners import MANNERS, as_bytes, drawn
from tests.plans_drawn.truth import TrueHouse, houses

LINES = ("pairs", "centres", "gaps", "everything")
"""Manners that draw walls of lines."""


def read(document: Any) -> ReadPlan:
    return read_plan(read_drawn(as_bytes(document)))


def strokes_of(house: TrueHouse, manner: str, off: float = 0.0, *, level: bool = False) -> list[Stroke]:
    document = drawn(house, manner)
    if off:
        dirt.by_eye(document, random.Random(f"{house.name} {manner}"), off, level=level)
    return read_drawn(as_bytes(document)).strokes


@pytest.mark.parametrize("manner", MANNERS)
def test_drawings_with_snaps_are_left_as_they_are(manner: str) -> None:
    """Also those with gaps, overshoots and lines that lie double."""
    for number, house in enumerate(houses()):
        assert off_by(strokes_of(house, manner)) == pytest.approx(0.0, abs=1e-3)
        document = drawn(house, manner)
        dirt.dirtied(document, random.Random(number))
        assert off_by(read_drawn(as_bytes(document)).strokes) < 0.3


@pytest.mark.parametrize("level", [False, True], ids=["askew", "level"])
@pytest.mark.parametrize("off", [1.0, 3.0])
def test_how_far_off_lines_lie_is_measured(off: float, level: bool) -> None:
    """Within a half more or less, of each house; on the whole within a fifth."""
    found = [off_by(strokes_of(house, "everything", off, level=level)) for house in houses()]
    assert all(off / 1.8 < one < 1.8 * off for one in found)
    assert sum(found) / len(found) == pytest.approx(off, rel=0.25)


def test_lines_are_turned_put_on_one_line_and_no_further() -> None:
    """By hand: of two pieces of a face, 1000 and 3000 long, 4 mm apart, the long one tells three times as much; a
    diagonal and an arc stay."""
    face = [Stroke((0.0, 2.0), (1000.0, 4.0), 0.0, "wall", 0), Stroke((1500.0, 8.0), (4500.0, 6.0), 0.0, "wall", 1)]
    others = [Stroke((0.0, 500.0 * k), (4500.0, 500.0 * k), 0.0, f"o{k}", 2) for k in range(1, 9)]
    diagonal, arc = Stroke((0.0, 0.0), (70.0, 400.0), 0.0, "wall", 3), Stroke((0.0, 0.0), (900.0, 0.0), 0.4, "wall", 4)
    found = straightened([*face, *others, diagonal, arc], 2.0)
    assert found[2:] == [*others, diagonal, arc]
    for before, after in zip(face, found):
        assert after.a == pytest.approx((before.a[0], 6.0)) and after.b == pytest.approx((before.b[0], 6.0))


@pytest.mark.parametrize("level", [False, True], ids=["askew", "level"])
@pytest.mark.parametrize("off", share([2.0], [1.0, 2.0, 3.0]))
@pytest.mark.parametrize("manner", LINES)
def test_plans_drawn_by_eye_are_read(manner: str, off: float, level: bool) -> None:
    """Walls to 12 mm of their place and 8 of their thickness, openings to 15: as dirty plans are."""
    total = Verdict()
    for number, house in enumerate(houses()):
        rng = random.Random(f"{manner} {number} {off}")
        turn = rng.choice([0.0, 0.0, 23.0])
        document = drawn(house, manner)
        dirt.by_eye(document, rng, off, level=level)
        dirt.moved(document, degrees=turn)
        plan = read(document)
        assert any("drawn by eye" in words for words in plan.remarks)
        shown = house.turned(turn)
        total.add(judged(shown, plan.walls, plan.openings, shift=plan.origin, axis=12.0, thick=8.0, place=15.0))
    walls, openings, kinds, false = total.shares
    assert walls >= 0.95 and openings >= 0.9 and kinds >= 0.85 and false <= 0.02, total.wrong


@pytest.mark.parametrize("house", houses(), ids=lambda house: house.name)
def test_they_are_built_as_those_with_snaps(house: TrueHouse) -> None:
    """Ends off by 2 mm: as many walls and openings, one outline, straight walls along the axes where they were."""
    built = []
    for off in (0.0, 2.0):
        document = drawn(house, "pairs")
        if off:
            dirt.by_eye(document, random.Random(house.name), off)
        project = new_project("p", "Read", "mm")
        project = apply_edits(project, adopted(project, read(document), Choices(), prefix="r").edits)
        square = 0
        for wall in project.walls:
            (x0, y0), (x1, y1) = (joint_point(project, joint) for joint in (wall.start, wall.end))
            square += math.isclose(min(abs(x1 - x0), abs(y1 - y0)), 0.0, abs_tol=1e-6)
        building = resolve(project)
        faults = sorted(held.code for held in building.diagnostics)
        built.append((len(project.walls), len(project.openings), len(building.plan.outlines), square, faults))
    assert built[0] == built[1]
