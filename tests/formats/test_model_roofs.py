"""Roofs and floors of models: built where the model has them, or refused in words."""

from __future__ import annotations

import math
import random
from collections.abc import Callable

import numpy as np
import pytest

from deepsection.core.document.motion import Motion
from deepsection.core.edits import Transform, apply_edits
from deepsection.core.model import Project
from deepsection.core.resolve import Building, resolve, storeys
from deepsection.core.starters.projects import new_project
from deepsection.demo import DEMOS
from deepsection.formats.writers import write_ifc
from deepsection.service.plan_choices import PlanChoices
from deepsection.service.plans import plan_in, taken_over
from tests.campaigns import share
from tests.models_by_hand import Corner, gable_slopes, hip_slopes, roofed


def read(data: bytes, tradition: str = "masonry", **choices: object) -> tuple[Project, list[str], dict[str, int]]:
    chosen = PlanChoices.model_validate(choices)
    empty = new_project("p", "Read", "mm", tradition)  # type: ignore[arg-type]
    project, made = taken_over(empty, plan_in(data, chosen, "mm"), chosen, prefix="read")
    return project, made.skipped, made.counts


def tops(building: Building) -> np.ndarray:
    """All corners of what covers the roofs."""
    return np.concatenate([part.solid.mesh()[0] for part in building.parts if part.role == "roofing"])


def turned(corner: Corner, turn: float) -> Corner:
    x, y, z = corner
    return x * math.cos(turn) - y * math.sin(turn), x * math.sin(turn) + y * math.cos(turn), z


@pytest.mark.parametrize("slopes", [gable_slopes, hip_slopes])
@pytest.mark.parametrize("pitch", [0.35, 0.7, 1.0])
@pytest.mark.parametrize(
    ("schema", "unit", "turn"), [("IFC4", 1.0, 0.0), ("IFC2X3", 304.8, 0.35), ("IFC4", 1000.0, -2.2)]
)
def test_a_roof_of_slabs_is_built_where_it_is(
    slopes: Callable[[float, float], list[list[Corner]]], pitch: float, schema: str, unit: float, turn: float
) -> None:
    """Every corner of every slope has a corner of what covers our roof within 20 mm of it, and nothing lies beyond."""
    # The slopes cross the middle of the walls about 350 above their tops.
    eave = 150.0 + 2900.0 + 2600.0 + 350.0 - 500.0 * pitch
    truth = slopes(pitch, eave)
    project, skipped, counts = read(roofed(truth, schema, unit, turn))
    assert (counts["roofs"], skipped) == (1, [])
    corners = tops(resolve(project))
    for corner in {corner for slope in truth for corner in slope}:
        assert np.linalg.norm(corners - np.array(turned(corner, turn)), axis=1).min() < 20.0, corner
    assert abs(corners[:, 2].max() - max(z for slope in truth for *_, z in slope)) < 20.0
    assert [edge.kind for edge in project.roofs[0].edges].count("gable") == (2 if slopes is gable_slopes else 0)


@pytest.mark.parametrize("slopes", [gable_slopes, hip_slopes])
@pytest.mark.parametrize("noise", [0.5, 2.0, 5.0])
def test_slopes_drawn_a_little_off_are_a_roof(
    slopes: Callable[[float, float], list[list[Corner]]], noise: float
) -> None:
    """Each corner of each slope by itself up to so much off in all directions (mm)."""
    dice = random.Random(noise)
    truth = slopes(0.7, 5650.0)
    off = [[tuple(v + dice.uniform(-noise, noise) for v in corner) for corner in slope] for slope in truth]
    project, skipped, counts = read(roofed(off))  # type: ignore[arg-type]
    assert (counts["roofs"], skipped) == (1, [])
    corners = tops(resolve(project))
    for corner in {corner for slope in truth for corner in slope}:
        assert np.linalg.norm(corners - np.array(corner), axis=1).min() < 20.0 + 2 * noise, corner


def test_a_roof_that_is_not_wanted_is_not_built() -> None:
    project, _, counts = read(roofed(gable_slopes(0.7, 5650.0)), roofs=False)
    assert project.roofs == () and "roofs" not in counts


def test_a_roof_over_low_walls_is_built_on_fewer_courses() -> None:
    """Walls of the upper storey up to 1.9 m: the usual courses would not fit below it."""
    truth = gable_slopes(0.7, 4900.0)
    project, skipped, counts = read(roofed(truth))
    assert (counts["roofs"], skipped) == (1, [])
    corners = tops(resolve(project))
    for corner in {corner for slope in truth for corner in slope}:
        assert np.linalg.norm(corners - np.array(corner), axis=1).min() < 20.0, corner


def test_a_roof_too_low_for_its_rafters_is_refused_in_words() -> None:
    project, skipped, _ = read(roofed(gable_slopes(0.7, 4400.0)))
    assert project.roofs == () and any("too deep on the plate" in words for words in skipped)


def test_slopes_that_are_no_roof_are_listed() -> None:
    """One corner is pulled out: its edges are neither eaves nor gables."""
    one, other = gable_slopes(0.7, 5650.0)
    skew = [one[0], (one[1][0] + 1500.0, *one[1][1:]), *one[2:]]
    project, skipped, _ = read(roofed([skew, other]))
    assert project.roofs == () and any("neither an eave nor a gable" in words for words in skipped)


def test_the_slab_between_storeys_with_its_hole() -> None:
    project, _, counts = read(roofed(gable_slopes(0.7, 5650.0), hole=True))
    assert counts["holes"] == 1
    upper = storeys(project)[1].level
    floor = next(held for held in project.floors if held.level == upper)
    make_up = next(held for held in project.make_ups if held.id == floor.make_up)
    assert sum(layer.thickness for layer in make_up.layers) == pytest.approx(220.0)
    (hole,) = (held for held in project.floor_holes if held.floor == floor.id)
    xs, ys = [x for x, _ in hole.corners], [y for _, y in hole.corners]
    assert (min(xs), max(xs), min(ys), max(ys)) == pytest.approx((3000.0, 4000.0, 2000.0, 5000.0), abs=0.1)
    levels = resolve(project).levels
    assert levels[upper].z - levels[storeys(project)[0].level].z == pytest.approx(2900.0, abs=0.1)


def test_joists_are_as_deep_as_a_floor_of_timber_asks() -> None:
    project, _, _ = read(roofed(gable_slopes(0.7, 5650.0)), tradition="timber")
    floor = next(held for held in project.floors if held.level == storeys(project)[1].level)
    make_up = next(held for held in project.make_ups if held.id == floor.make_up)
    assert sum(layer.thickness for layer in make_up.layers) == pytest.approx(220.0)
    assert make_up.layers[make_up.carrying or 0].framing is not None


BACK = {"quillback": 2, "fernacre": 2, "otterfold": 2, "tansy": 1, "hollin": 1, "wrenfold": 1, "larkmoor": 3}
"""The roofs of demos that come back: not those of dormers and of a porch on posts."""
TURNED = [Motion(turn=turn, mirror=mirror) for turn in (23.0, -121.7, 90.0, 180.3) for mirror in (None, 0.0, 31.0)]
WHOLE = BACK.keys() - {"wrenfold", "larkmoor"}
"""Demos all of whose roofs do."""


def edges(building: Building) -> np.ndarray:
    """(n, 2, 3) the edges of the triangles of what covers the roofs."""
    found = []
    for part in building.parts:
        if part.role == "roofing":
            points, triangles = part.solid.mesh()
            found += [points[triangles][:, pair] for pair in ((0, 1), (1, 2), (2, 0))]
    return np.concatenate(found)


def away(point: np.ndarray, lines: np.ndarray) -> float:
    """How far a point lies from the nearest of some edges."""
    a, way = lines[:, 0], lines[:, 1] - lines[:, 0]
    along = ((point - a) * way).sum(axis=1) / np.maximum((way * way).sum(axis=1), 1e-9)
    return float(np.linalg.norm(a + np.clip(along, 0.0, 1.0)[:, None] * way - point, axis=1).min())


@pytest.mark.parametrize("motion", share([Motion(turn=23.0, dx=700.0, mirror=90.0)], [Motion(), *TURNED]), ids=str)
@pytest.mark.parametrize("make", DEMOS, ids=lambda make: make.__name__)
def test_our_own_roofs_come_back(make: Callable[[], Project], motion: Motion) -> None:
    """Every corner of what covers them lies over the lowest floor on an edge that was there before, to 0.1 mm."""
    house = make()
    movable = tuple(element.id for element in house.elements() if element.about.movable)
    house = apply_edits(house, [Transform(elements=movable, motion=motion)])
    before = resolve(house)
    empty = new_project("p", "Read", house.units, house.tradition)
    plan = plan_in(write_ifc(house, before), PlanChoices(), house.units)
    project, made = taken_over(empty, plan, PlanChoices(), prefix="read")
    assert made.counts["roofs"] == BACK[house.id]
    after = resolve(project)
    floors = [building.levels[storeys(held)[0].level].z for building, held in ((before, house), (after, project))]
    # Corners may lie anew along an edge of before: eaves that are tied to corners of walls part slopes otherwise. And
    # some are gone: where our own slopes are cut at odd angles, slivers of a millimetre are left.
    both = ((after, before, 0.1), (before, after, 1.5))
    for one, other, most in both[: 2 if house.id in WHOLE else 1]:
        up = (0.0, 0.0, floors[0] - floors[1] if one is after else floors[1] - floors[0])
        lines = edges(other)
        assert max(away(corner + up, lines) for corner in tops(one)) < most
