"""Kites: how they are placed, built, drawn in plan and checked."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import shapely

from ...building.diagnostics import Diagnostic
from ...building.kind import ElementKind, PlanOf
from ...building.parts import Part, part_key
from ...building.placed import Key, Placed, Stage
from ...document.rebuilding import changed
from ...drawing import Mark, Stroke, path
from ...geometry import prism
from ...model import Project
from ...rows.rows import Row, length_row
from ...units import HeightSum, SumTerm
from ..levels.placed import LEVELS
from .edits import PutKite
from .model import Kite


@dataclass(frozen=True, slots=True)
class PlacedKite:
    """A kite with the height that it flies at."""

    kite: Kite
    height: HeightSum


KITES: Key[tuple[PlacedKite, ...]] = Key("kites")


def _place(placed: Placed) -> tuple[PlacedKite, ...]:
    made = []
    for kite in placed.project.kites:
        level = placed[LEVELS][kite.base.level].sum
        made.append(
            PlacedKite(kite, level.plus(f"kite:{kite.id}", "kite", SumTerm("string", kite.base.offset, kite.id)))
        )
    return tuple(made)


def _parts(placed: Placed) -> Iterator[Part]:
    for held in placed[KITES]:
        kite, half, low = held.kite, held.kite.size / 2, held.height.total
        square = shapely.box(kite.x - half, kite.y - half, kite.x + half, kite.y + half)
        yield Part(part_key(kite.id, "post"), kite.id, "post", "softwood", prism(square, low, low + 50.0))


def _plan(shown: PlanOf) -> Iterator[Mark]:
    for kite in shown.project.kites:
        u, w = shown.frame.plan_to_turned(kite.x, kite.y)
        half = kite.size / 2
        yield Stroke(path((u - half, w), (u + half, w)), "edge", part=f"{kite.id}/kite//", feature="kite")


def _fields(project: Project, kite: Kite) -> list[Row]:
    def put(value: float) -> list[Any]:
        return [PutKite(kite=changed(kite, size=value))]

    return [length_row("size", "Size", kite.size, project.units, put, least=0.0)]


def _checks(placed: Placed) -> Iterator[Diagnostic]:
    for held in placed[KITES]:
        if held.kite.base.offset < 1000.0:
            yield Diagnostic("room-open", "this kite flies too low", held.kite.id, "base")


KITE_STAGE = Stage(KITES, _place, sums=lambda kites, _: (held.height for held in kites))
KITE = ElementKind(
    Kite,
    title=lambda project, kite: ("Kite", "on a string"),
    fields=_fields,
    heights=lambda kite: (f"kite:{kite.id}",),
    parts=_parts,
    plan=_plan,
    checks=_checks,
)
