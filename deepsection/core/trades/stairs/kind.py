"""Stairs: how they are placed, built, drawn in plan and checked."""

from __future__ import annotations

from collections.abc import Iterator

import shapely
from shapely.geometry import MultiPolygon, Polygon

from ...building.kind import ElementKind
from ...building.parts import Part
from ...building.placed import Placed, Stage
from ...model import Project, Stair
from ...rows.outcome import OutcomeTable
from ..levels.place import sum_id
from ..levels.placed import LEVELS
from ..walls.planned import WALLS
from .checks import stair_checks
from .fields import BUILDS, stair_fields, stair_outcome
from .parts import stair_parts
from .place import place_stairs
from .placed import STAIRS
from .plan import stair_marks
from .rail_parts import rail_parts
from .section_plan import stair_section_marks


def _parts(placed: Placed) -> Iterator[Part]:
    for stair in placed[STAIRS]:
        yield from stair_parts(stair)
        yield from rail_parts(stair, _walls_on(placed, stair.stair.upper))


def _walls_on(placed: Placed, level: str) -> MultiPolygon | Polygon:
    return shapely.union_all([wall.footprint for wall in placed[WALLS].on(level)])


def _outcome(placed: Placed, stair: Stair) -> tuple[OutcomeTable, ...]:
    own = next((held for held in placed[STAIRS] if held.stair.id == stair.id), None)
    return stair_outcome(own, placed.project.units)


def _title(project: Project, stair: Stair) -> tuple[str, str]:
    return stair.name, dict(BUILDS)[stair.build]


STAIR_STAGE = Stage(
    STAIRS,
    lambda placed: place_stairs(placed.project, placed[LEVELS], placed.make_ups, placed.findings),
    sums=lambda made, _: (stair.rise for stair in made),
)
STAIR = ElementKind(
    Stair,
    title=_title,
    fields=stair_fields,
    heights=lambda stair: (f"rise:{stair.id}", sum_id(stair.upper), sum_id(stair.level)),
    outcome=_outcome,
    parts=_parts,
    plan=stair_marks,
    section=stair_section_marks,
    checks=stair_checks,
)
