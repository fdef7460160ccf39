"""Plans of files: how long it takes to open and to read them, as they grow."""

from __future__ import annotations

import random
from collections.abc import Iterator
from dataclasses import dataclass
from time import perf_counter
from typing import Any

from deepsection.core.errors import BadInput
from deepsection.core.reading import read_plan
from deepsection.core.reading.modelled import read_model
from deepsection.core.resolve import resolve
from deepsection.demo import larkmoor_house
from deepsection.formats.dxf_drawn import read_drawn
from deepsection.formats.ifc_model import read_ifc
from deepsection.formats.writers import write_ifc
from tests.plans_drawn.manners import as_bytes, drawn
from tests.plans_drawn.truth import houses

APART = 18_000.0
"""Houses of a file with many stand so far from each other (mm)."""


@dataclass(frozen=True)
class PlanRun:
    """A file: what it is, its entities, seconds to open and to read it, and what was found."""

    name: str
    entities: int
    opened: float
    read: float
    found: str


def plan_runs() -> Iterator[PlanRun]:
    """One house; many of it in a file; one among stray lines, and among stray swings."""
    yield _run("one house", _houses(1))
    yield _run("houses in a row", _houses(28))
    for count in (5_000, 50_000):
        yield _run("a house among stray lines", _strewn(count, arcs=False))
    yield _run("a house among stray arcs", _strewn(50_000, arcs=True))
    yield _model()


def _model() -> PlanRun:
    """The largest demo as a model in IFC, opened and read."""
    house = larkmoor_house()
    data = write_ifc(house, resolve(house))
    start = perf_counter()
    held = read_ifc(data)
    middle = perf_counter()
    plan = read_model(held)
    found = f"{len(plan.walls)} walls, {len(plan.openings)} openings"
    return PlanRun("a house as a model in IFC", data.count(b"\n"), middle - start, perf_counter() - middle, found)


def _run(name: str, document: Any) -> PlanRun:
    data, entities = as_bytes(document), len(document.modelspace())
    start = perf_counter()
    held = read_drawn(data)
    middle = perf_counter()
    try:
        plan = read_plan(held)
        found = f"{len(plan.walls)} walls, {len(plan.openings)} openings"
    except BadInput as error:
        found = error.message[:40]
    return PlanRun(name, entities, middle - start, perf_counter() - middle, found)


def _houses(count: int) -> Any:
    document = drawn(houses()[1], "everything")
    space = document.modelspace()
    base = [entity for entity in space if entity.dxftype() != "DIMENSION"]
    for k in range(1, count):
        for entity in base:
            copy = entity.copy()
            space.add_entity(copy)
            copy.translate(k % 12 * APART, k // 12 * APART, 0)
    return document


def _strewn(count: int, *, arcs: bool) -> Any:
    rng = random.Random(7)
    document = drawn(houses()[1], "everything")
    space = document.modelspace()
    while len(space) < count:
        x, y = rng.uniform(-2e4, 4e4), rng.uniform(-2e4, 4e4)
        if arcs:
            space.add_arc((x, y), rng.uniform(300, 1500), 0, 90)
        else:
            space.add_line((x, y), (x + rng.uniform(-2e3, 2e3), y + rng.uniform(-2e3, 2e3)))
    return document
